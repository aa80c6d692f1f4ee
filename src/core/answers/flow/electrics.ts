import { isElectric, loopResistance_ohm, pumpCurrent_A, voltsAtPump, type PumpDocument } from '../../components';
import type { FlowState } from '../../model/networkParts';
import { FUSES, WIRES, wireRow, type WireRow } from '../../reference/wires';

type Wiring = NonNullable<PumpDocument['wiring']>;

/** Common practice: at most a tenth of the voltage may be lost in a pump's wires. */
export const MOST_DROP_RATIO = 0.1;
/** A fuse blows at once above its rating and in time near it: it is chosen a quarter above what flows for long. */
const FUSE_SHARE = 1.25;
/** Common practice: half of a starting battery is all that may be taken. */
const USABLE_CHARGE = 0.5;
const SECONDS_AN_HOUR = 3600;

export type WireChoice = {
  readonly key: string;
  readonly name: string;
  readonly drop_V: number;
  readonly drop_ratio: number;
};

export type ElectricsResult = {
  readonly pump: string;
  readonly name: string;
  readonly supply_V: number;
  readonly pump_V: number;
  readonly current_A: number;
  readonly drop_ratio: number;
  readonly wireMost_A: number;
  /** Smallest fuse that lasts, and largest that still guards the wire; none where the wire is too thin for any. */
  readonly fuse: { readonly least_A: number; readonly most_A: number } | undefined;
  readonly fuse_A: number | undefined;
  /** Thinnest wires, metric and American, that keep the drop within a tenth and carry the current. */
  readonly wires: readonly WireChoice[];
  /** Moved on half of the battery's charge [m³], at this flow. */
  readonly onCharge_m3: number;
  readonly watt: number;
};

/**
 * What a pump's wires, fuse and battery do at an operating point.
 * @param flow_m3PerS through the pump
 */
export function electricsOf(
  state: Pick<FlowState, 'supply_V'>,
  pump: PumpDocument,
  rise_Pa: number,
  flow_m3PerS: number,
): ElectricsResult | undefined {
  const { wiring } = pump;
  if (!wiring || !isElectric(pump)) return undefined;
  const { supply_V } = state;
  const current_A = pumpCurrent_A(pump, rise_Pa);
  // What it takes against a shut line is what wire and fuse must bear.
  const most_A = Math.max(wiring.freeCurrent_A.value, wiring.shutOffCurrent_A.value);
  const row = wireRow(wiring.wire);
  const pump_V = voltsAtPump(supply_V, pump, rise_Pa);
  const least_A = FUSES.sizes_A.find((size) => size >= FUSE_SHARE * current_A);
  const guard_A = FUSES.sizes_A.filter((size) => size <= row.most_A).at(-1);
  return {
    pump: pump.id,
    name: pump.name,
    supply_V,
    pump_V,
    current_A,
    drop_ratio: supply_V > 0 ? (supply_V - pump_V) / supply_V : 0,
    wireMost_A: row.most_A,
    fuse:
      least_A !== undefined && guard_A !== undefined && least_A <= guard_A ? { least_A, most_A: guard_A } : undefined,
    fuse_A: wiring.fuse_A,
    wires: (['mm2', 'awg'] as const).flatMap((kind) => {
      const fitting = WIRES.filter(({ system: of }) => of === kind).find(
        (wire) =>
          wire.most_A >= most_A &&
          current_A * loopResistance_ohm(wire, wiring.length_m.value) <= MOST_DROP_RATIO * supply_V,
      );
      return fitting ? [wireChoice(fitting, wiring, current_A, supply_V)] : [];
    }),
    onCharge_m3:
      current_A > 0 ? (flow_m3PerS * USABLE_CHARGE * wiring.battery_Ah.value * SECONDS_AN_HOUR) / current_A : 0,
    watt: current_A * pump_V,
  };
}

function wireChoice(row: WireRow, { length_m }: Wiring, current_A: number, supply_V: number): WireChoice {
  const drop_V = current_A * loopResistance_ohm(row, length_m.value);
  return { key: row.key, name: row.name, drop_V, drop_ratio: drop_V / supply_V };
}
