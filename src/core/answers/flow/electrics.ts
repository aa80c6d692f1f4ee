import { isElectric, type PumpDocument } from '../../components';
import type { FlowState } from '../../model/networkParts';
import { COPPER, FUSES, WIRES, wireRow, type WireRow } from '../../reference/wires';

type Wiring = NonNullable<PumpDocument['wiring']>;

/** Common practice: at most a tenth of the voltage may be lost in a pump's wires. */
export const MOST_DROP_RATIO = 0.1;
/** Wires in a bundle in a warm place [K]. */
const WIRE_K = 313.15;
const COLD_K = 293.15;
/** A fuse blows at once above its rating and in time near it: it is chosen a quarter above what flows for long. */
const FUSE_SHARE = 1.25;
/** Common practice: half of a starting battery is all that may be taken. */
const USABLE_CHARGE = 0.5;
const SECONDS_AN_HOUR = 3600;

/**
 * Current of a pump at a rise of pressure [A]: from what it takes when it
 * moves freely to what it takes against a shut line, straight between, as
 * torque goes with pressure.
 */
export function pumpCurrent_A(pump: PumpDocument, rise_Pa: number): number {
  const { wiring, curve } = pump;
  if (!wiring || !isElectric(pump)) return 0;
  const most_Pa = Math.max(1e-9, ...curve.map((point) => point.rise_Pa));
  const share = Math.min(1, Math.max(0, rise_Pa / most_Pa));
  return wiring.freeCurrent_A.value + (wiring.shutOffCurrent_A.value - wiring.freeCurrent_A.value) * share;
}

/** Resistance of a pump's wires, there and back, warm [ohm]. */
export const wireResistance_ohm = ({ wire, length_m }: Pick<Wiring, 'wire' | 'length_m'>): number =>
  loopResistance(wireRow(wire), length_m.value);
const loopResistance = (row: WireRow, length_m: number): number =>
  2 * length_m * row.resistance_ohmPerM * (1 + COPPER.rise_perK * (WIRE_K - COLD_K));

/** Voltage left at a pump's terminals [V]; the conditions' voltage is the battery's where the pump has wires. */
export function voltsAtPump({ supply_V }: Pick<FlowState, 'supply_V'>, pump: PumpDocument, rise_Pa: number): number {
  if (!pump.wiring) return supply_V;
  return Math.max(0, supply_V - pumpCurrent_A(pump, rise_Pa) * wireResistance_ohm(pump.wiring));
}

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
  const pump_V = voltsAtPump(state, pump, rise_Pa);
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
          current_A * loopResistance(wire, wiring.length_m.value) <= MOST_DROP_RATIO * supply_V,
      );
      return fitting ? [wireChoice(fitting, wiring, current_A, supply_V)] : [];
    }),
    onCharge_m3:
      current_A > 0 ? (flow_m3PerS * USABLE_CHARGE * wiring.battery_Ah.value * SECONDS_AN_HOUR) / current_A : 0,
    watt: current_A * pump_V,
  };
}

function wireChoice(row: WireRow, { length_m }: Wiring, current_A: number, supply_V: number): WireChoice {
  const drop_V = current_A * loopResistance(row, length_m.value);
  return { key: row.key, name: row.name, drop_V, drop_ratio: drop_V / supply_V };
}
