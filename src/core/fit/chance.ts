import { seeded } from '../seeded';

/**
 * How an independent uncertainty moves a clearance: by so much at so many
 * standard deviations, straight between these places and on beyond them. One
 * place alone means a straight line through nothing.
 */
export type Profile = { readonly at: readonly number[]; readonly moves_m: readonly number[] };

/** A clearance over what is asked of it, with how each uncertainty moves it; all gaps have theirs in the same order. */
export type UncertainGap = { readonly margin_m: number; readonly profiles: readonly Profile[] };

/**
 * The margins of some gaps with all uncertainties drawn at once, measured anew.
 * @param deviations of each uncertainty
 * @param gaps which are wanted; a margin that cannot be told is undefined
 */
export type Exactly = (deviations: Float64Array, gaps: readonly number[]) => readonly (number | undefined)[];

const TRIALS = 20_000;
const SEED = 1;
/** A margin of more standard deviations than this is never used up. */
const SAFE = 6;
/** Draws by which the sum of bent lines is held against the gaps measured anew; and so many more where it does not bear them out. */
const [CHECKS, MORE_CHECKS] = [48, 900] as const;
/** Of these the two may disagree in so many about whether all is kept. */
const MAY_DISAGREE = 0;

/**
 * Probability that no margin is used up, when every uncertainty is normal: by
 * seeded trials of what they do together, since the margins share them. The
 * sum of each one's own bent line is held against a few draws of all at once
 * measured anew; where the two do not agree, the draws correct it.
 *
 * @returns 0 … 1, to about one per cent
 * @source control variates: J. M. Hammersley and D. C. Handscomb, Monte Carlo Methods (1964), chapter 5
 */
export function chanceAllPositive(gaps: readonly UncertainGap[], exactly?: Exactly): number {
  const count = gaps[0]?.profiles.length ?? 0;
  const close = gaps.flatMap((gap, g) => (gap.margin_m < SAFE * reach_m(gap) ? [g] : []));
  if (close.length === 0) return gaps.every(({ margin_m }) => margin_m >= 0) ? 1 : 0;
  // What moves none of the close ones need not be drawn.
  const felt = Array.from({ length: count }, (_, j) => j).filter((j) => close.some((g) => gaps[g]!.profiles[j]!.moves_m.some((moved) => moved !== 0)));
  const chance = seeded(SEED);
  const draw = (): Float64Array => {
    const deviations = new Float64Array(count);
    for (const j of felt) deviations[j] = chance.normal();
    return deviations;
  };
  const keeps = (deviations: Float64Array): boolean => close.every((g) => felt.reduce((sum, j) => sum + along(gaps[g]!.profiles[j]!, deviations[j]!), gaps[g]!.margin_m) >= 0);
  let kept = 0;
  for (let trial = 0; trial < TRIALS; trial++) if (keeps(draw())) kept++;
  const stated = kept / TRIALS;
  const isBent = close.some((g) => gaps[g]!.profiles.some(({ at }) => at.length > 1));
  return exactly && isBent ? corrected(stated, draw, keeps, (deviations) => exactly(deviations, close)) : stated;
}

/** What a gap may move by [m]: all that its uncertainties do at one deviation, the worse side of each, as squares. */
const reach_m = ({ profiles }: UncertainGap): number => Math.hypot(...profiles.map((profile) => Math.max(Math.abs(along(profile, 2)), Math.abs(along(profile, -2))) / 2));

function along({ at, moves_m }: Profile, deviations: number): number {
  if (at.length === 1) return (moves_m[0]! / at[0]!) * deviations;
  let b = 1;
  while (b < at.length - 1 && at[b]! < deviations) b++;
  return moves_m[b - 1]! + ((moves_m[b]! - moves_m[b - 1]!) * (deviations - at[b - 1]!)) / (at[b]! - at[b - 1]!);
}

/** A chance put right by how often the gaps measured anew say otherwise. */
function corrected(stated: number, draw: () => Float64Array, keeps: (deviations: Float64Array) => boolean, exactly: (deviations: Float64Array) => readonly (number | undefined)[]): number {
  let [tried, more] = [0, 0];
  const look = (times: number): number => {
    let disagree = 0;
    for (let i = 0; i < times; i++) {
      const deviations = draw();
      const margins = exactly(deviations);
      if (margins.some((margin) => margin === undefined)) continue;
      tried++;
      const by = Number(margins.every((margin) => margin! >= 0)) - Number(keeps(deviations));
      more += by;
      if (by !== 0) disagree++;
    }
    return disagree;
  };
  if (look(CHECKS) > MAY_DISAGREE) look(MORE_CHECKS);
  else return stated;
  return tried === 0 ? stated : Math.min(1, Math.max(0, stated + more / tried));
}
