import type { LossLaw } from '../../network';

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
