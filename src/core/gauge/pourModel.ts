import { Matrix, CholeskyDecomposition } from 'ml-matrix';
import type { LoggedPour } from './pours';

/** What the plan says an instrument reads, and how surely its parts are known. */
export type Plan = {
  /**
   * @param volume_m3 in the tank as drawn
   * @param lowered_m the sender, boss or stick sits lower than planned by so much
   * @param arm_ratio the arm is longer than planned by this share of itself
   */
  readonly readingAt: (volume_m3: number, lowered_m: number, arm_ratio: number) => number;
  readonly empty: number;
  readonly full: number;
  /** Whether its ends themselves may be off, as those of a sender may. */
  readonly hasEnds: boolean;
  /** Whether a float rides on an arm, whose length is cut and bent by hand. */
  readonly hasArm: boolean;
  /** Standard deviations of what may be otherwise than planned, before anything was poured. */
  readonly prior: {
    readonly volume_ratio: number;
    readonly lowered_m: number;
    readonly arm_ratio: number;
    readonly end_ratio: number;
    readonly start_m3: number;
  };
  /** No reading is surer than this. */
  readonly floor: number;
};

export const UNKNOWNS = ['volume', 'lowered', 'arm', 'emptyEnd', 'fullEnd', 'start'] as const;
export type UnknownKey = (typeof UNKNOWNS)[number];

/** What is not known of a tank and its sender, and can be learnt from pours. */
export const keysOf = ({ hasEnds, hasArm }: Plan): UnknownKey[] =>
  UNKNOWNS.filter((key) => (hasEnds || (key !== 'emptyEnd' && key !== 'fullEnd')) && (hasArm || key !== 'arm'));

const priorOf = ({ prior }: Plan, key: UnknownKey): number =>
  ({
    volume: prior.volume_ratio,
    lowered: prior.lowered_m,
    arm: prior.arm_ratio,
    emptyEnd: prior.end_ratio,
    fullEnd: prior.end_ratio,
    start: prior.start_m3,
  })[key];

/** What a builder did wrong with single lines, as far as the log shows it. Lines are told by their ids. */
export type Slips = {
  /** So many lines with least in the tank, and with most, over which the reading stands still. */
  readonly low: number;
  readonly high: number;
  /** Readings written down wrongly: not believed. */
  readonly misread: readonly string[];
  /** Pours of which more or less went in than was written. */
  readonly miscounted: readonly string[];
};
export const NO_SLIPS: Slips = { low: 0, high: 0, misread: [], miscounted: [] };

/** A log as it is fitted: the lines that count, least in the tank first, each with its place in the log. */
export type Log = { readonly lines: readonly LoggedPour[]; readonly placeOf: ReadonlyMap<string, number> };

/** Pours that count, by volume [m³], with the place that each has in the log. */
export function logOf(lines: readonly LoggedPour[]): Log {
  return {
    lines: lines.filter(({ counts }) => counts).sort((a, b) => a.volume_m3 - b.volume_m3),
    placeOf: new Map(lines.map(({ id }, i) => [id, i])),
  };
}

/**
 * Unknowns: those of the plan in the order of its keys, then how much more went in than was written of each miscounted
 * pour [m³].
 */
export type Theta = readonly number[];

/** What is read with so much in the tank as logged, with the unknowns put in, in the order of `keysOf`. */
export function reading(plan: Plan, theta: Theta, logged_m3: number): number {
  const { hasArm, hasEnds } = plan;
  const arm = hasArm ? theta[2]! : 0;
  const ends = hasArm ? 3 : 2;
  const start = theta[hasEnds ? ends + 2 : ends]!;
  const planned = plan.readingAt((logged_m3 + start) / (1 + theta[0]!), theta[1]!, arm);
  if (!hasEnds) return planned;
  const share = (planned - plan.empty) / (plan.full - plan.empty);
  return planned + (plan.full - plan.empty) * (theta[ends]! * (1 - share) + theta[ends + 1]! * share);
}

export type Fit = {
  readonly theta: Theta;
  /** Of the unknowns, at this noise [squares of their units]. */
  readonly covariance: readonly (readonly number[])[];
  /** Minus twice the logarithm of the chance of this log with these slips and this noise, whatever the unknowns. */
  readonly evidence: number;
  /** The noise that these residuals speak for. */
  readonly noise: number;
  readonly iterations: number;
  readonly settled: boolean;
};

/** How often builders err, before the log is looked at. Common practice. */
const MISREAD_CHANCE = 0.02;
const MISCOUNTED_CHANCE = 0.01;
const STUCK_CHANCE = 0.1;

const MOST_ITERATIONS = 40;
/** Steps below this share of the standard deviation tell nothing more. */
const SETTLED = 1e-3;
const MOST_DAMPING = 1e9;

/**
 * The likeliest unknowns given the slips and the noise, by damped least
 * squares with what was expected of each before; pours err, and every later
 * line shares the error.
 *
 * @param from where to begin: an earlier fit's unknowns; missing ones begin at zero
 * @source A. Tarantola, Inverse Problem Theory (2005), section 3.2; damping by D. Marquardt, J. SIAM 11 (1963) 431;
 * evidence by Laplace's approximation, D. MacKay, Neural Computation 4 (1992) 415
 */
export function fitted(log: Log, plan: Plan, slips: Slips, noise: number, from: Theta = []): Fit {
  const { used, still } = partsOf(log, slips);
  const priors = priorsOf(log, plan, slips);
  const keys = keysOf(plan).length;
  const readAt = (line: LoggedPour, theta: Theta, more_m3 = 0): number =>
    reading(plan, theta, volumeWith(log, slips, theta, keys, line) + more_m3);
  const missesAt = (theta: Theta): Matrix =>
    Matrix.columnVector(used.map((line) => line.reading! - readAt(line, theta)));
  const pullOf = (theta: Theta): number[] => theta.map((value, i) => value / priors[i]!);
  const state = (theta: Theta) => {
    const scatter = scatterOf(used, noise, (line, more) => readAt(line, theta, more));
    const cholesky = new CholeskyDecomposition(scatter);
    const misses = missesAt(theta);
    const cost =
      dotOf(misses, cholesky.solve(misses)) + sumOf(pullOf(theta).map((value) => value ** 2)) + logDet(cholesky);
    return { theta, cholesky, misses, cost };
  };
  let now = state(priors.map((_, i) => from[i] ?? 0));
  let damping = 1e-3;
  let settled = false;
  let iterations = 0;
  for (; iterations < MOST_ITERATIONS && !settled; iterations++) {
    const slope = slopes(used, now.theta, priors, readAt);
    const weighted = now.cholesky.solve(slope);
    const normal = even(slope.transpose().mmul(weighted).add(Matrix.eye(priors.length)));
    const downhill = weighted
      .transpose()
      .mmul(now.misses)
      .sub(Matrix.columnVector(pullOf(now.theta)));
    let moved = false;
    while (!moved && damping < MOST_DAMPING) {
      const step = new CholeskyDecomposition(
        Matrix.add(normal, Matrix.diag(normal.diagonal().map((value) => value * damping))),
      )
        .solve(downhill)
        .to1DArray();
      const next = state(now.theta.map((value, i) => value + step[i]! * priors[i]!));
      moved = next.cost <= now.cost;
      if (!moved) damping *= 8;
      else {
        settled =
          damping < 1 && Math.max(...step.map((value, i) => Math.abs(value) * Math.sqrt(normal.get(i, i)))) < SETTLED;
        settled ||= now.cost - next.cost < SETTLED ** 2;
        now = next;
        damping = Math.max(1e-9, damping / 8);
      }
    }
    // Downhill leads nowhere: a lowest place, be it a kink.
    settled ||= !moved;
  }
  const slope = slopes(used, now.theta, priors, readAt);
  const weighted = now.cholesky.solve(slope);
  const normal = new CholeskyDecomposition(even(slope.transpose().mmul(weighted).add(Matrix.eye(priors.length))));
  const covariance = normal.solve(Matrix.eye(priors.length));
  return {
    theta: now.theta,
    iterations,
    settled,
    covariance: priors.map((prior, i) => priors.map((other, k) => covariance.get(i, k) * prior * other)),
    evidence: now.cost + logDet(normal) + slipsEvidence(log, plan, slips, noise),
    noise: noiseOfMisses(now.misses, now.cholesky, slope, covariance, noise, used.length, still),
  };
}

const TINY = 1e-12;
const LN_2PI = Math.log(2 * Math.PI);

/** What each unknown may be off before anything was poured: one standard deviation, in its own unit. */
export const priorsOf = (log: Log, plan: Plan, { miscounted }: Slips): number[] =>
  [...keysOf(plan).map((key) => priorOf(plan, key)), ...miscounted.map(() => miscountPrior_m3(log))].map((prior) =>
    Math.max(prior, TINY),
  );
/** A pour may be miscounted by as much as was poured in all. */
const miscountPrior_m3 = (log: Log): number => log.lines.at(-1)!.volume_m3 / 2;
/** What is logged after a line, with what miscounted pours before it put right [m³]. */
export function volumeWith(log: Log, { miscounted }: Slips, theta: Theta, keys: number, line: LoggedPour): number {
  let volume = line.volume_m3;
  for (let i = 0; i < miscounted.length; i++) if (isAfter(log, line, miscounted[i]!)) volume += theta[keys + i]!;
  return volume;
}
const isAfter = (log: Log, line: LoggedPour, id: string): boolean => log.placeOf.get(line.id)! >= log.placeOf.get(id)!;

/**
 * Evidence of other slips as it would be if readings were straight in the
 * unknowns about an earlier fit: enough to tell which are worth a fit.
 */
export function screened(
  log: Log,
  plan: Plan,
  before: Slips,
  { theta }: Pick<Fit, 'theta'>,
  noise: number,
): (slips: Slips) => number {
  const keys = keysOf(plan).length;
  const at = new Map(log.lines.map((line) => [line.id, volumeWith(log, before, theta, keys, line)]));
  const readAt = (line: LoggedPour, other: Theta, more_m3 = 0): number =>
    reading(plan, other, at.get(line.id)! + more_m3);
  const own = theta.slice(0, keys);
  const misses = new Map(log.lines.map((line) => [line.id, line.reading! - readAt(line, own)]));
  const steep = new Map(
    log.lines.map((line) => [
      line.id,
      (readAt(line, own, VOLUME_STEP_M3) - readAt(line, own, -VOLUME_STEP_M3)) / (2 * VOLUME_STEP_M3),
    ]),
  );
  const table = slopes(log.lines, own, priorsOf(log, plan, NO_SLIPS), readAt);
  const rowOf = new Map(log.lines.map(({ id }, i) => [id, table.getRow(i)]));
  return (slips) => {
    const { used } = partsOf(log, slips);
    const priors = priorsOf(log, plan, slips);
    const theta0 = [...own, ...slips.miscounted.map(() => 0)];
    // With every miscounted pour begun at nothing, what it was before counts as missed.
    const back = (line: LoggedPour): number => (at.get(line.id)! - line.volume_m3) * steep.get(line.id)!;
    const r = Matrix.columnVector(used.map((line) => misses.get(line.id)! + back(line)));
    const slope = Matrix.from1DArray(
      used.length,
      priors.length,
      used.flatMap((line) => [
        ...rowOf.get(line.id)!,
        ...slips.miscounted.map((id) => (isAfter(log, line, id) ? steep.get(line.id)! * miscountPrior_m3(log) : 0)),
      ]),
    );
    const cholesky = new CholeskyDecomposition(scatterOf(used, noise, (line, more) => more * steep.get(line.id)!));
    const weighted = cholesky.solve(slope);
    const normal = new CholeskyDecomposition(even(slope.transpose().mmul(weighted).add(Matrix.eye(priors.length))));
    const pull = Matrix.columnVector(theta0.map((value, i) => value / priors[i]!));
    const step = normal.solve(weighted.transpose().mmul(r).sub(pull));
    const left = Matrix.sub(r, slope.mmul(step));
    const pulled = Matrix.add(pull, step);
    return (
      dotOf(left, cholesky.solve(left)) +
      dotOf(pulled, pulled) +
      logDet(cholesky) +
      logDet(normal) +
      slipsEvidence(log, plan, slips, noise)
    );
  };
}

/** What does not depend on the unknowns: the lines that do not follow the plan, and how rare such slips are. */
function slipsEvidence(log: Log, plan: Plan, slips: Slips, noise: number): number {
  const { used, still, misread } = partsOf(log, slips);
  const span = Math.abs(plan.full - plan.empty);
  return (
    used.length * LN_2PI +
    sumOf(still.map((run) => stillEvidence(run, noise, span))) +
    misread.length * 2 * Math.log(span) +
    surprise(slips, log.lines.length)
  );
}

/** The lines that follow the plan, those that stand still at either end, and those that are not believed. */
export function partsOf(
  { lines }: Log,
  { low, high, misread }: Slips,
): {
  readonly used: readonly LoggedPour[];
  readonly still: readonly (readonly LoggedPour[])[];
  readonly misread: readonly LoggedPour[];
} {
  const believed = (line: LoggedPour): boolean => !misread.includes(line.id);
  const middle = lines.slice(low, lines.length - high);
  return {
    used: middle.filter(believed),
    misread: lines.filter((line) => !believed(line)),
    still: [lines.slice(0, low), lines.slice(lines.length - high)]
      .map((run) => run.filter(believed))
      .filter((run) => run.length > 0),
  };
}

/** A run at one height that nobody knows before: anywhere in the span alike. */
function stillEvidence(run: readonly LoggedPour[], noise: number, span: number): number {
  return (
    offMean2(run) / noise ** 2 +
    (run.length - 1) * (LN_2PI + 2 * Math.log(noise)) +
    Math.log(run.length) +
    2 * Math.log(span)
  );
}

function offMean2(run: readonly LoggedPour[]): number {
  const mean = sumOf(run.map(({ reading: value }) => value!)) / run.length;
  return sumOf(run.map(({ reading: value }) => (value! - mean) ** 2));
}

/** What slips cost for being rare. */
const surprise = ({ low, high, misread, miscounted }: Slips, count: number): number =>
  -2 * ((low > 0 ? 1 : 0) + (high > 0 ? 1 : 0)) * Math.log(STUCK_CHANCE / count) -
  2 * misread.length * Math.log(MISREAD_CHANCE) -
  2 * miscounted.length * Math.log(MISCOUNTED_CHANCE);

/** How the readings scatter together: their own noise, and the pours before each, which all later ones share. */
function scatterOf(
  lines: readonly LoggedPour[],
  noise: number,
  readAt: (line: LoggedPour, more_m3: number) => number,
): Matrix {
  const steep = lines.map(
    (line) => (readAt(line, VOLUME_STEP_M3) - readAt(line, -VOLUME_STEP_M3)) / (2 * VOLUME_STEP_M3),
  );
  return Matrix.from1DArray(
    lines.length,
    lines.length,
    lines.flatMap((a, i) =>
      lines.map((b, j) => steep[i]! * steep[j]! * Math.min(a.poured_m6, b.poured_m6) + (i === j ? noise ** 2 : 0)),
    ),
  );
}
const VOLUME_STEP_M3 = 1e-4;

/** Slope of each reading by each unknown, in units of what was expected of it: differences over a fiftieth of that. */
function slopes(
  lines: readonly LoggedPour[],
  theta: Theta,
  priors: readonly number[],
  readAt: (line: LoggedPour, theta: Theta) => number,
): Matrix {
  return Matrix.from1DArray(
    lines.length,
    priors.length,
    lines.flatMap((line) =>
      priors.map((prior, i) => {
        const at = (by: number): number =>
          readAt(
            line,
            theta.map((value, k) => (k === i ? value + by * prior : value)),
          );
        return (at(DIFFERENCE) - at(-DIFFERENCE)) / (2 * DIFFERENCE);
      }),
    ),
  );
}
const DIFFERENCE = 0.02;

/**
 * The noise that what is left speaks for: one step of the fixed point of
 * restricted maximum likelihood.
 *
 * @source D. Harville, J. Am. Stat. Assoc. 72 (1977) 320, equation 5.4
 */
function noiseOfMisses(
  misses: Matrix,
  scatter: CholeskyDecomposition,
  slope: Matrix,
  covariance: Matrix,
  noise: number,
  count: number,
  still: readonly (readonly LoggedPour[])[],
): number {
  const inverse = scatter.solve(Matrix.eye(count));
  const pulled = inverse.mmul(misses);
  const spent = inverse.mmul(slope);
  const left = inverse.trace() - covariance.mmul(spent.transpose().mmul(spent)).trace();
  const stillLeft = sumOf(still.map((run) => run.length - 1)) / noise ** 2;
  const stillPulled = sumOf(still.map(offMean2)) / noise ** 4;
  return noise * Math.sqrt((dotOf(pulled, pulled) + stillPulled) / Math.max(left + stillLeft, TINY));
}

/** Rounding takes its symmetry from a matrix; this gives it back. */
export const even = (matrix: Matrix): Matrix => Matrix.add(matrix, matrix.transpose()).mul(0.5);
const dotOf = (a: Matrix, b: Matrix): number => a.transpose().mmul(b).get(0, 0);
const sumOf = (list: readonly number[]): number => list.reduce((sum, value) => sum + value, 0);
const logDet = (cholesky: CholeskyDecomposition): number =>
  2 * sumOf(cholesky.lowerTriangularMatrix.diagonal().map(Math.log));
