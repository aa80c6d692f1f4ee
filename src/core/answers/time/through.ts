import { LEAST_SLOPE, type LossLaw } from '../../network';

const MOST_TURNS = 80;
/** A loss that is so near to what is given is it [Pa], or by its size. */
const [NEAR_PA, NEAR_REL] = [1e-9, 1e-13];

/**
 * Flow through one law alone between two given pressures: Newton's steps, halved in between what is too little and too
 * much where one leads out of that. Every law rises with flow, so there is one.
 *
 * @param drop_Pa given from its start to its end
 * @param start_m3PerS a flow to begin with
 * @returns undefined where it is not come to
 */
export function flowThrough(law: LossLaw, drop_Pa: number, start_m3PerS: number): number | undefined {
  let [low, high] = [-Infinity, Infinity];
  let flow = start_m3PerS;
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const { pressure_Pa, slope_PaSPerM3 } = law(flow);
    const over = pressure_Pa + LEAST_SLOPE * flow - drop_Pa;
    if (Math.abs(over) <= NEAR_PA + NEAR_REL * Math.abs(drop_Pa)) return flow;
    if (over > 0) high = flow;
    else low = flow;
    const next = flow - over / (slope_PaSPerM3 + LEAST_SLOPE);
    if (next === flow) return flow;
    flow = next > low && next < high ? next : (low + high) / 2;
    if (!Number.isFinite(flow)) return undefined;
  }
  return undefined;
}
