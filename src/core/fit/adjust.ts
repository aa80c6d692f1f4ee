import { Matrix, pseudoInverse } from 'ml-matrix';
import { failure, success, type Outcome } from '../outcome';

/** How a length was taken: tape from point to point, or squarely along one of the axes. */
export type How = 'straight' | 'along' | 'across' | 'up';

/** A point of a survey: which unknowns are its x, y and z. Points of one station share their x. */
export type SurveyPoint = readonly [number, number, number];

/** One reading of a tape, or of a coordinate itself. */
export type Reading = {
  readonly id: string;
  readonly of:
    { readonly unknown: number } | { readonly from: SurveyPoint; readonly to: SurveyPoint; readonly how: How };
  readonly value_m: number;
  /** Standard deviation [m], > 0. */
  readonly sigma_m: number;
  /** Nobody has measured it: it counts only for what no reading says. */
  readonly assumed: boolean;
};

export type Adjusted = {
  /** Most likely value of each unknown [m]. */
  readonly values_m: Float64Array;
  /** How much an error of a reading moves an unknown [m/m]: unknowns by readings. */
  readonly gain: Matrix;
  /** Standard deviation of each reading [m]; of a contradicted one, as large as its disagreement. */
  readonly sigmas_m: readonly number[];
  /** For each reading, what the adjusted points say it should have been [m]. */
  readonly fitted_m: readonly number[];
  readonly contradictions: readonly Contradiction[];
  readonly iterations: number;
};

/** Readings that cannot all be true. */
export type Contradiction = {
  /**
   * Those of which one is most likely wrong, likeliest first; as likely as each other where they cannot be told apart.
   */
  readonly suspects: readonly { readonly id: string; readonly wouldAgree_m: number; readonly deviation: number }[];
};

/**
 * Measured readings outweigh assumed ones by this in the equations, so that an
 * assumption decides only what no reading does.
 */
const ASSUMED_WEIGHT = 1e-4;
const MOST_ITERATIONS = 60;
/** A step smaller than this no longer matters [m]. */
const STILL_M = 1e-9;
/** Singular values below this share of the largest count as none. */
const RANK_REL = 1e-9;
/** A residual of more standard deviations than this points at a wrong reading; one in a thousand does by chance. */
const SUSPECT = 3.29;
/** Suspects this near to the worst cannot be told from it. */
const ALIKE_REL = 0.9;
/** A reading that others check by less than this share cannot be judged. */
const CHECKED = 0.02;
const MOST_CONTRADICTIONS = 6;

/**
 * Places the points of a survey where the readings say, by weighted least
 * squares, and names the readings that contradict the others.
 *
 * A contradicted reading is not averaged in: it is set aside for its likeliest
 * suspect and the points are placed by the rest, its own disagreement counting
 * as its uncertainty.
 *
 * @param start unknowns as sketched [m]; near enough that no point has to pass another
 * @source P. Wolf and C. Ghilani, Adjustment Computations: least squares;
 *   W. Baarda, "A testing procedure for use in geodetic networks" (1968): residual tests
 */
export function adjust(
  start: readonly number[],
  readings: readonly Reading[],
): Outcome<Adjusted, 'no-solution' | 'undetermined'> {
  const sigmas = readings.map((reading) => reading.sigma_m);
  const contradictions: Contradiction[] = [];
  for (;;) {
    const solved = solve(start, readings, sigmas);
    if (!solved.ok) return solved;
    const found = contradictions.length < MOST_CONTRADICTIONS ? suspects(readings, sigmas, solved.value) : [];
    if (found.length === 0) return success({ ...solved.value, contradictions });
    contradictions.push({
      suspects: found.map(({ index, wouldAgree_m, deviation }) => ({
        id: readings[index]!.id,
        wouldAgree_m,
        deviation,
      })),
    });
    // Where several are alike, none of them may be trusted until one is taken again.
    for (const { index, wouldAgree_m } of found)
      sigmas[index] = Math.max(sigmas[index]!, Math.abs(wouldAgree_m - readings[index]!.value_m));
  }
}

type Solved = Omit<Adjusted, 'contradictions'>;

function solve(
  start: readonly number[],
  readings: readonly Reading[],
  sigmas: readonly number[],
): Outcome<Solved, 'no-solution' | 'undetermined'> {
  const values = Float64Array.from(start);
  const weights = readings.map(({ assumed }, i) => (assumed ? ASSUMED_WEIGHT : 1) / sigmas[i]!);
  for (let iterations = 1; iterations <= MOST_ITERATIONS; iterations++) {
    const { rows, misses } = linearised(values, readings);
    const scaled = rows.clone();
    weights.forEach((weight, i) => scaled.mulRow(i, weight));
    const inverse = pseudoInverse(scaled, RANK_REL);
    const step = inverse.mmul(Matrix.columnVector(misses.map((miss, i) => miss * weights[i]!))).to1DArray();
    if (step.some((value) => !Number.isFinite(value)))
      return failure('no-solution', 'measures', 'The measurements lead to no shape at all.');
    const most = Math.max(...step.map(Math.abs));
    step.forEach((by, k) => (values[k] = values[k]! + by));
    if (most > STILL_M) continue;
    const gain = inverse;
    weights.forEach((weight, i) => gain.mulColumn(i, weight));
    const resolved = gain.mmul(rows);
    if (values.some((_, k) => Math.abs(resolved.get(k, k) - 1) > 1e-6))
      return failure('undetermined', 'measures', 'Some corners are placed by no measurement and no assumption.');
    return success({
      values_m: values,
      gain,
      sigmas_m: [...sigmas],
      fitted_m: readings.map((reading) => model(values, reading).value),
      iterations,
    });
  }
  return failure(
    'no-solution',
    'measures',
    `The measurements could not be brought to agree: after ${MOST_ITERATIONS} rounds the corners still moved.`,
  );
}

/** Derivatives of the readings by the unknowns, and how far each misses what was read. */
function linearised(values: Float64Array, readings: readonly Reading[]): { rows: Matrix; misses: number[] } {
  const rows = Matrix.zeros(readings.length, values.length);
  const misses = readings.map((reading, i) => {
    const { value, slopes } = model(values, reading);
    for (const [unknown, slope] of slopes) rows.set(i, unknown, rows.get(i, unknown) + slope);
    return reading.value_m - value;
  });
  return { rows, misses };
}

/** What the points say a reading should be, and its slopes. */
function model(values: Float64Array, { of }: Reading): { value: number; slopes: (readonly [number, number])[] } {
  if ('unknown' in of) return { value: values[of.unknown]!, slopes: [[of.unknown, 1]] };
  const { from, to, how } = of;
  const axes = how === 'straight' ? [0, 1, 2] : [['along', 'across', 'up'].indexOf(how)];
  const apart = axes.map((axis) => values[to[axis]!]! - values[from[axis]!]!);
  const value = Math.hypot(...apart);
  // Points that fall together have no direction; any will do to part them.
  const direction = apart.map((by) => (value > 0 ? by / value : 1 / Math.sqrt(axes.length)));
  return {
    value,
    slopes: axes.flatMap(
      (axis, k) =>
        [
          [to[axis]!, direction[k]!],
          [from[axis]!, -direction[k]!],
        ] as const,
    ),
  };
}

/** Readings that the others contradict most, as long as any is contradicted beyond chance. */
function suspects(
  readings: readonly Reading[],
  sigmas: readonly number[],
  { gain, fitted_m, values_m }: Solved,
): { index: number; wouldAgree_m: number; deviation: number }[] {
  const { rows } = linearised(values_m, readings);
  const hat = rows.mmul(gain);
  const judged = readings
    .flatMap((reading, i) => {
      const checked = 1 - hat.get(i, i);
      if (reading.assumed || checked < CHECKED) return [];
      const residual = fitted_m[i]! - reading.value_m;
      let variance = 0;
      for (let j = 0; j < readings.length; j++) variance += (((i === j ? 1 : 0) - hat.get(i, j)) * sigmas[j]!) ** 2;
      return [
        {
          index: i,
          deviation: Math.abs(residual) / Math.sqrt(variance),
          wouldAgree_m: reading.value_m + residual / checked,
        },
      ];
    })
    .sort((a, b) => b.deviation - a.deviation);
  const [worst] = judged;
  return worst && worst.deviation > SUSPECT
    ? judged.filter(({ deviation }) => deviation >= ALIKE_REL * worst.deviation)
    : [];
}
