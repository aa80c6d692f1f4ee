import { driveRatio, pumpPoints, type PumpDocument } from '../../components';
import type { FlowInputs } from '../../model/networkParts';
import { checkedLaw, parsePumpCurve, pumpLaw, type LossLaw, type NetworkCode } from '../../network';
import { success, type Outcome } from '../../outcome';
import { pumpCurrent_A, wireResistance_ohm } from '../flow/electrics';

/** What spills is held up so much less than what bubbles in. */
export const SPILL_DAMPED = 0.1;
/** A law with a little more in it, that goes with the flow and is looked up each time. */
export const dampedLaw =
  (law: LossLaw, damps_PaSPerM3: Float64Array, tank: number, share: number): LossLaw =>
  (flow) => {
    const { pressure_Pa, slope_PaSPerM3 } = law(flow);
    const more = share * damps_PaSPerM3[tank]!;
    return { pressure_Pa: pressure_Pa + more * flow, slope_PaSPerM3: slope_PaSPerM3 + more };
  };

const RISES = 60;
/** A pump's own check lets nothing back; below this drive it moves nothing. */
const LEAST_DRIVE = 1e-3;

/**
 * A pump whose wires take of its voltage the more the harder it works: at each flow the rise that leaves it just the
 * voltage that gives this rise.
 */
export function wiredLaw(pump: PumpDocument, { state }: FlowInputs): Outcome<LossLaw, NetworkCode> {
  const curve = parsePumpCurve(pumpPoints(pump), pump.name);
  if (!curve.ok) return curve;
  const base = pumpLaw(curve.value);
  const wires_ohm = wireResistance_ohm(pump.wiring!);
  const driven = (flow: number, rise_Pa: number): number => {
    const volts = state.supply_V - pumpCurrent_A(pump, rise_Pa) * wires_ohm;
    const drive = Math.max(LEAST_DRIVE, driveRatio(pump, volts));
    return -drive * drive * base(flow / drive).pressure_Pa;
  };
  /** What a rise gives over what it is falls as it rises: there is one that gives itself. */
  const riseAt = (flow: number): number => {
    let [low, high] = [driven(flow, Infinity), driven(flow, 0)];
    let rise = high;
    for (let n = 0; n < RISES && high - low > 1e-9 * (1 + Math.abs(high)); n++) {
      const given = driven(flow, rise);
      if (given > rise) low = Math.max(low, rise);
      else high = Math.min(high, rise);
      // What it gives is on the other side of where both are one.
      if (given > rise) high = Math.min(high, given);
      else low = Math.max(low, given);
      const nearby = rise + 1e-4 * (1 + Math.abs(rise));
      const slope = (driven(flow, nearby) - given) / (nearby - rise);
      const next = rise + (given - rise) / (1 - slope);
      rise = next > low && next < high ? next : (low + high) / 2;
    }
    return rise;
  };
  const law: LossLaw = (flow) => {
    const over = Math.max(1e-10, Math.abs(flow) * 1e-5);
    const [rise, next] = [riseAt(flow), riseAt(flow + over)];
    return { pressure_Pa: -rise, slope_PaSPerM3: Math.max(0, (rise - next) / over) };
  };
  return success(pump.checkBuiltIn ? checkedLaw(law) : law);
}
