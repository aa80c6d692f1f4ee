import { driveRatio, isElectric, pumpPoints, type PumpDocument } from '../../components';
import { boreArea_m2 } from '../../network';
import type { FlowInputs } from '../../model/networkParts';
import { feedPath } from '../../plan/circuits';

/** Filling a dry feed to a consumer by the pump that stands in it, and how a dosing pump then strokes. */
export type Priming = {
  readonly consumer: string;
  readonly consumerName: string;
  readonly pump: string;
  readonly pumpName: string;
  /** Of pickup and lines, from inlet to consumer [m³]. */ readonly dry_m3: number;
  /** At the least: with nothing against the pump [s]; absent where it moves nothing as it stands. */
  readonly time_s?: number;
  /** Of a dosing pump: strokes a second at full load and idle, and the most that it does. */
  readonly strokes?: { readonly full_perS: number; readonly idle_perS: number; readonly most_perS: number };
};

/** Of each consumer whose feed has a pump of its own that stands before it. */
export function primingsOf(inputs: FlowInputs): Priming[] {
  const { system, levels } = inputs;
  const pickups = new Map(
    levels.flatMap(({ tank }) => tank.pickups.map((pickup) => [pickup.document.id, pickup] as const)),
  );
  return system.consumers.flatMap((consumer): Priming[] => {
    const path = feedPath(system, consumer.id);
    const pickup = pickups.get(path.at(-1) ?? '');
    const pump = path
      .flatMap((id) => system.components.filter((part): part is PumpDocument => part.kind === 'pump' && part.id === id))
      .at(-1);
    if (!pickup || !pump) return [];
    const onPath = new Set(path);
    const lines = system.lines.filter(({ id }) => onPath.has(id));
    const dry_m3 =
      boreArea_m2(pickup.document.bore_m.value) * pickup.tubeLength_m +
      lines.reduce((sum, { bore_m, length_m }) => sum + boreArea_m2(bore_m.value) * length_m.value, 0);
    const free = pump.running ? freeFlow_m3PerS(pump, inputs) : 0;
    const stroke = pump.stroke_m3?.value;
    return [
      {
        consumer: consumer.id,
        consumerName: consumer.name,
        pump: pump.id,
        pumpName: pump.name,
        dry_m3,
        ...(free > 0 ? { time_s: dry_m3 / free } : {}),
        ...(stroke === undefined
          ? {}
          : {
              strokes: {
                full_perS: consumer.burnFull_m3PerS.value / stroke,
                idle_perS: consumer.burnIdle_m3PerS.value / stroke,
                most_perS: freeFlow_m3PerS(pump, inputs) / stroke,
              },
            }),
      },
    ];
  });
}

/** What a pump moves with nothing against it, at its voltage. */
function freeFlow_m3PerS(pump: PumpDocument, inputs: FlowInputs): number {
  const ratio = isElectric(pump) ? Math.max(0, driveRatio(pump, inputs.state.supply_V)) : 1;
  return ratio * Math.max(0, ...pumpPoints(pump).map(({ flow_m3PerS }) => flow_m3PerS));
}
