import { dot } from '../../geometry';
import { partPositions, surfaceHeight_m, type FlowInputs, type TankLevel } from '../../model/networkParts';
import { gravitySource } from '../../plan/circuits';
import type { ConsumerDocument } from '../../plan/schema';
import { starvingOffset_m } from '../../tank';

/** Height of liquid over a consumer that gravity feeds [m]; below zero where the surface lies lower. */
export type Head = {
  /** As the tank is filled now. */ readonly now_m: number;
  /** At the last drop, when its pickup draws air. */ readonly last_m: number;
  /** What its needed pressure comes to. */ readonly needed_m: number;
};

/** So far over where a pickup draws air it still draws none. */
const JUST_WET_M = 1e-3;

/** Height of a part against effective gravity [m]. */
export const heightOf_m = ({ system, levels, state: { gravity } }: FlowInputs, id: string): number =>
  dot(gravity.up, partPositions(system, levels).get(id) ?? [0, 0, 0]);

/** From a consumer up to the surface in a tank [m]. */
export const headOver_m = (inputs: FlowInputs, level: TankLevel, { id }: Pick<ConsumerDocument, 'id'>): number =>
  surfaceHeight_m(level, inputs.state.gravity.up) - heightOf_m(inputs, id);

/**
 * The tank that feeds a consumer without any pump, as it stands and at its last drop; nothing where a pump stands on
 * the way, or nothing leads to it.
 */
export function gravityFeed(
  { system, levels }: FlowInputs,
  consumer: Pick<ConsumerDocument, 'id'>,
): { readonly level: TankLevel; readonly last: TankLevel } | undefined {
  const source = gravitySource(system, consumer.id);
  const level = levels.find(({ tank }) => tank.document.pickups.some(({ id }) => id === source));
  const pickup = level?.tank.pickups.find(({ document }) => document.id === source);
  if (!level || !pickup) return undefined;
  const offset_m = Math.min(level.offset_m, starvingOffset_m(pickup.inlet, level.up) + JUST_WET_M);
  return { level, last: { ...level, offset_m } };
}

/** The head over a consumer that gravity feeds; nothing where a pump feeds it, or it sucks for itself. */
export function headOf(inputs: FlowInputs, consumer: ConsumerDocument): Head | undefined {
  const feed = consumer.neededPressure_Pa.value < 0 ? undefined : gravityFeed(inputs, consumer);
  const weight_PaPerM = inputs.fluid.density_kgPerM3 * inputs.state.gravity.magnitude_mPerS2;
  return (
    feed && {
      now_m: headOver_m(inputs, feed.level, consumer),
      last_m: headOver_m(inputs, feed.last, consumer),
      needed_m: consumer.neededPressure_Pa.value / weight_PaPerM,
    }
  );
}
