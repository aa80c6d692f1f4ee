import { seeded } from '../seeded';

/** A clearance with how each independent uncertainty moves it: one standard deviation of each [m]. */
export type UncertainGap = { readonly margin_m: number; readonly moves_m: readonly number[] };

const TRIALS = 5000;
const SEED = 1;
/** A margin of more standard deviations than this is never used up. */
const SAFE = 6;

/**
 * Probability that no margin is used up, when every uncertainty is normal and
 * moves the margins in proportion: by seeded trials, since the margins share
 * uncertainties.
 *
 * @returns 0 … 1, to about one per cent
 */
export function chanceAllPositive(gaps: readonly UncertainGap[]): number {
  const count = gaps[0]?.moves_m.length ?? 0;
  const close = gaps.filter(({ margin_m, moves_m }) => margin_m < SAFE * Math.hypot(...moves_m));
  if (close.length === 0) return gaps.every(({ margin_m }) => margin_m >= 0) ? 1 : 0;
  // What moves none of the close ones need not be drawn.
  const felt = Array.from({ length: count }, (_, j) => j).filter((j) => close.some(({ moves_m }) => moves_m[j] !== 0));
  const chance = seeded(SEED);
  const error = new Float64Array(count);
  let kept = 0;
  for (let trial = 0; trial < TRIALS; trial++) {
    for (const j of felt) error[j] = chance.normal();
    if (close.every(({ margin_m, moves_m }) => felt.reduce((sum, j) => sum + moves_m[j]! * error[j]!, margin_m) >= 0)) kept++;
  }
  return kept / TRIALS;
}
