import type { Vec3 } from '../geometry';
import { failure, success, type Outcome } from '../outcome';

/** A block cut into equal pieces: so many along each of its ways, and the size of one [m]. */
export type FoamPieces = {
  readonly along: readonly [number, number, number];
  readonly count: number;
  readonly size_m: Vec3;
};

/** More cuts than this in one way are crumbs. */
const MOST_CUTS = 20;
const ROUNDING = 1e-9;

/**
 * The fewest equal pieces of a block that go through a round opening, squeezed across their way; of those as many, the
 * ones with the least cutting.
 *
 * @param block_m    > 0 each way
 * @param opening_m  diameter; endless where they are laid in before the lid
 * @param squeezed_ratio of its width a piece is squeezed to, 0 … 1
 */
export function foamPieces(block_m: Vec3, opening_m: number, squeezed_ratio: number): Outcome<FoamPieces, 'no-way'> {
  let best: FoamPieces | undefined;
  let least = Infinity;
  for (let i = 1; i <= MOST_CUTS; i++)
    for (let j = 1; j <= MOST_CUTS; j++)
      for (let k = 1; k <= MOST_CUTS; k++) {
        const count = i * j * k;
        if (best && count > best.count) break;
        const size_m: Vec3 = [block_m[0] / i, block_m[1] / j, block_m[2] / k];
        if (!passes(size_m, opening_m, squeezed_ratio)) continue;
        const [l, w, h] = block_m;
        const cut = (i - 1) * w * h + (j - 1) * l * h + (k - 1) * l * w;
        if (best && count === best.count && cut >= least - ROUNDING) continue;
        best = { along: [i, j, k], count, size_m };
        least = cut;
      }
  return best
    ? success(best)
    : failure('no-way', 'opening_m', 'No pieces of a size that is worth cutting go through this opening.');
}

/** Whether a piece goes lengthwise through a round opening: the corners of its squeezed section lie in it. */
export function passes(size_m: Vec3, opening_m: number, squeezed_ratio: number): boolean {
  const [a, b] = [...size_m].sort((one, other) => one - other) as [number, number, number];
  return Math.hypot(a, b) * squeezed_ratio <= opening_m * (1 + ROUNDING);
}

/**
 * How strongly foam damps a swing of the liquid in it, as a share of what stops it swinging at all: at least so much,
 * since what grows with speed is left out.
 *
 * @param frequency_Hz          undamped, > 0
 * @param kinematic_m2PerS      of the liquid, > 0
 * @param permeability_m2       of the foam, > 0
 * @source Darcy's law as a drag in proportion to speed: damping = nu / (2 omega K)
 */
export const foamDamping_ratio = (frequency_Hz: number, kinematic_m2PerS: number, permeability_m2: number): number =>
  kinematic_m2PerS / (2 * 2 * Math.PI * frequency_Hz * permeability_m2);

/**
 * The least time in which liquid runs so far through foam under an acceleration along it [s].
 * @source Darcy's law, at rest within moments: speed = K a / nu
 */
export const foamCrossing_s = (
  reach_m: number,
  acceleration_mPerS2: number,
  kinematic_m2PerS: number,
  permeability_m2: number,
): number => (reach_m * kinematic_m2PerS) / (permeability_m2 * acceleration_mPerS2);

/** From here on a swing has no peak that a movement in step could feed: 1/√2 of critical. */
export const PEAKLESS_RATIO = Math.SQRT1_2;
