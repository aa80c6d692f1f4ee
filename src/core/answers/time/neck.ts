import type { FluidState } from '../../fluids';
import { lineLaw } from '../../network';

/** What a neck costs a pour [Pa]: its walls, and so many turns out into what stands there. */
export function neckLoss_Pa(
  bore_m: number,
  length_m: number,
  flow_m3PerS: number,
  exits: number,
  fluid: FluidState,
): number {
  const ends = [{ k1: 0, kInfinity: 1, sized: false, count: exits }];
  return lineLaw(bore_m, length_m, 0, ends, fluid)(flow_m3PerS).pressure_Pa;
}
