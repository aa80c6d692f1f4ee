import { seeded } from '../seeded';

/**
 * How an independent uncertainty moves a clearance: by so much at so many
 * standard deviations, straight between these places and on beyond them. One
 * place alone means a straight line through nothing.
 */
export type Profile = { readonly at: readonly number[]; readonly moves_m: readonly number[] };

/**
 * By how much gaps are off what they are with all uncertainties drawn at once, measured anew [m].
 * @param deviations of each uncertainty
 * @param gaps which are wanted; one that cannot be told is undefined
 * @param enough_m of each: what is more than this may be told as anything that is more
 */
export type Exactly = (
  deviations: Float64Array,
  gaps: readonly number[],
  enough_m: readonly number[],
) => readonly (number | undefined)[];

const TRIALS = 20_000;
const SEED = 1;
/** A margin of more standard deviations than this is never used up. */
const SAFE = 6;
/** Nearer to none or to certainty than this a chance is not looked at again. */
const SURE = 0.004;
/**
 * Draws by which the sum of bent lines is held against the gaps measured anew; and so many more where it does not bear
 * them out.
 */
const [CHECKS, MORE_CHECKS] = [120, 600] as const;
/**
 * Of the first the two may disagree in so many about whether all is kept, and lean to one side in so many: what this
 * leaves is under two in a hundred.
 */
const [MAY_DISAGREE, MAY_LEAN] = [3, 1] as const;

/**
 * Probability that no margin is used up, when every uncertainty is normal: by
 * seeded trials of what they do together, since the margins share them. The
 * sum of each one's own bent line is held against draws of all at once measured
 * anew; where the two do not agree, the draws correct it.
 *
 * @param profiles by gap, how each uncertainty moves it; all gaps have theirs in the same order
 * @param questions by question the margin of each gap [m], endless where it does not count
 * @returns by question 0 … 1, to about one per cent
 * @source control variates: J. M. Hammersley and D. C. Handscomb, Monte Carlo Methods (1964), chapter 5
 */
export function chancesAllPositive(
  profiles: readonly (readonly Profile[])[],
  questions: readonly (readonly number[])[],
  exactly?: Exactly,
): number[] {
  const count = profiles[0]?.length ?? 0;
  const reaches = profiles.map(reach_m);
  const close = profiles.flatMap((_, g) => (questions.some((margins) => margins[g]! < SAFE * reaches[g]!) ? [g] : []));
  if (close.length === 0) return questions.map((margins) => (margins.every((margin) => margin >= 0) ? 1 : 0));
  // What moves none of the close ones need not be drawn.
  const felt = Array.from({ length: count }, (_, j) => j).filter((j) =>
    close.some((g) => profiles[g]![j]!.moves_m.some((moved) => moved !== 0)),
  );
  const chance = seeded(SEED);
  const draw = (): Float64Array => {
    const deviations = new Float64Array(count);
    for (const j of felt) deviations[j] = chance.normal();
    return deviations;
  };
  const bends = close.map((g) => felt.filter((j) => profiles[g]![j]!.moves_m.some((moved) => moved !== 0)));
  const summed = (deviations: Float64Array): number[] =>
    close.map((g, i) => {
      let sum = 0;
      for (const j of bends[i]!) sum += movedBy_m(profiles[g]![j]!, deviations[j]!);
      return sum;
    });
  // Those that nothing moves are as they are.
  const far = questions.map((margins) => margins.every((margin, g) => close.includes(g) || margin >= 0));
  const keeps = (moved: readonly (number | undefined)[], q: number): boolean =>
    far[q]! && close.every((g, i) => questions[q]![g]! + moved[i]! >= 0);
  // A gap that wins so much keeps its margin in every question.
  const enough_m = close.map((g) => -Math.min(...questions.map((margins) => margins[g]!)));
  const kept = questions.map(() => 0);
  for (let trial = 0; trial < TRIALS; trial++) {
    const moved = summed(draw());
    for (const q of questions.keys()) if (keeps(moved, q)) kept[q]!++;
  }
  const stated = kept.map((times) => times / TRIALS);
  const isBent = close.some((g) => profiles[g]!.some(({ at }) => at.length > 1));
  const isOpen = stated.some((chance) => chance > SURE && chance < 1 - SURE);
  return exactly && isBent && isOpen
    ? corrected(
        stated,
        draw,
        (deviations) => summed(deviations),
        keeps,
        (deviations) => exactly(deviations, close, enough_m),
      )
    : stated;
}

/** The same of one question, without draws measured anew. */
export const chanceAllPositive = (
  gaps: readonly { readonly margin_m: number; readonly profiles: readonly Profile[] }[],
): number =>
  chancesAllPositive(
    gaps.map(({ profiles }) => profiles),
    [gaps.map(({ margin_m }) => margin_m)],
  )[0]!;

/** What a gap may move by [m]: all that its uncertainties do at one deviation, the worse side of each, as squares. */
const reach_m = (profiles: readonly Profile[]): number =>
  Math.hypot(
    ...profiles.map((profile) => Math.max(Math.abs(movedBy_m(profile, 2)), Math.abs(movedBy_m(profile, -2))) / 2),
  );

/** What an uncertainty does to a clearance at so many standard deviations [m]. */
export function movedBy_m({ at, moves_m }: Profile, deviations: number): number {
  if (at.length === 1) return (moves_m[0]! / at[0]!) * deviations;
  let b = 1;
  while (b < at.length - 1 && at[b]! < deviations) b++;
  return moves_m[b - 1]! + ((moves_m[b]! - moves_m[b - 1]!) * (deviations - at[b - 1]!)) / (at[b]! - at[b - 1]!);
}

type Moved = readonly (number | undefined)[];

/** Chances put right by how often the gaps measured anew say otherwise. */
function corrected(
  stated: readonly number[],
  draw: () => Float64Array,
  summed: (deviations: Float64Array) => Moved,
  keeps: (moved: Moved, question: number) => boolean,
  exactly: (deviations: Float64Array) => Moved,
): number[] {
  let tried = 0;
  const [lean, disagree] = [stated.map(() => 0), stated.map(() => 0)];
  const look = (times: number): void => {
    for (let i = 0; i < times; i++) {
      const deviations = draw();
      const found = exactly(deviations);
      if (found.some((moved) => moved === undefined)) continue;
      tried++;
      const told = summed(deviations);
      for (const q of stated.keys()) {
        const by = Number(keeps(found, q)) - Number(keeps(told, q));
        lean[q]! += by;
        disagree[q]! += Math.abs(by);
      }
    }
  };
  look(CHECKS);
  const bornOut = stated.map((_, q) => disagree[q]! <= MAY_DISAGREE && Math.abs(lean[q]!) <= MAY_LEAN);
  if (bornOut.every(Boolean)) return [...stated];
  look(MORE_CHECKS);
  return stated.map((chance, q) => (bornOut[q] ? chance : Math.min(1, Math.max(0, chance + lean[q]! / tried))));
}
