import { Matrix, CholeskyDecomposition } from 'ml-matrix';
import { failure, success, type Outcome } from '../outcome';
import { noiseOf } from './calibrate';
import type { LoggedPour } from './pours';

/** What the plan says an instrument reads, and how surely its ends are known. */
export type Plan = {
  /**
   * @param volume_m3 in the tank as drawn
   * @param lowered_m the sender, boss or stick sits lower than planned by so much
   */
  readonly readingAt: (volume_m3: number, lowered_m: number) => number;
  readonly empty: number;
  readonly full: number;
  /** Whether its ends themselves may be off, as those of a sender may. */
  readonly hasEnds: boolean;
  /** Standard deviations of what may be otherwise than planned, before anything was poured. */
  readonly prior: { readonly volume_ratio: number; readonly lowered_m: number; readonly end_ratio: number; readonly start_m3: number };
  /** No reading is surer than this. */
  readonly floor: number;
};

export const UNKNOWNS = ['volume', 'lowered', 'emptyEnd', 'fullEnd', 'start'] as const;
export type UnknownKey = (typeof UNKNOWNS)[number];

/** A physical unknown as the pours show it: `volume` as a share more than drawn, `lowered` [m], ends as shares of the span, `start` [m³]. */
export type FoundUnknown = { readonly key: UnknownKey; readonly value: number; /** Standard deviation. */ readonly sigma: number };

export type Explained = {
  readonly unknowns: readonly FoundUnknown[];
  /** Root mean square of what the plan misses by, before and after, as shares of the span. */
  readonly before_ratio: number;
  readonly after_ratio: number;
  /** Standard deviation of a single reading. */
  readonly noise: number;
  /** Readings too far from all others to be believed: told, and left out of the fit. */
  readonly farOff: readonly string[];
  /** The float did not move until so much was in the tank; and from there on no more [m³]. */
  readonly stuckBelow_m3?: number;
  readonly stuckAbove_m3?: number;
  readonly iterations: number;
  /** What the plan reads with the unknowns put in. */
  readonly readingAt: (volume_m3: number) => number;
};

export type ExplainCode = 'too-few' | 'not-converged';

const LEAST = 4;
const MAX_ITERATIONS = 60;
/** Of each unknown's own standard deviation. */
const SETTLED = 1e-6;
/** Readings further off than this many standard deviations are not believed. */
const FAR_SIGMAS = 4;
const MOST_FAR_RATIO = 0.2;
/** Stuck: the reading stays within so many deviations while the plan moves by more than so many. */
const STUCK_SIGMAS = 3;
const MOVES_SIGMAS = 8;

/**
 * The few physical unknowns that best explain why the pours do not read as
 * planned: least squares with what was expected of each before, and with the
 * errors of the pours, which add up from line to line.
 *
 * @param lines in the order in which they were poured
 * @source A. Tarantola, Inverse Problem Theory (2005), section 3.2: least squares with prior knowledge; Gauss-Newton steps by differences, halved where they do not help
 */
export function explained(lines: readonly LoggedPour[], plan: Plan): Outcome<Explained, ExplainCode> {
  const counted = lines.filter(({ counts }) => counts);
  if (counted.length < LEAST) return failure('too-few', 'log', `At least ${LEAST} readings that count are needed to explain a difference; there are ${counted.length}.`);
  const ordered = [...counted].sort((a, b) => a.volume_m3 - b.volume_m3);
  const span = Math.abs(plan.full - plan.empty);
  const noise = Math.max(plan.floor, noiseOf(ordered.map(({ volume_m3 }) => volume_m3), ordered.map(({ reading }) => reading!)));
  const stuck = stuckEnds(ordered, plan, noise);
  let used = ordered.slice(stuck.from, stuck.to);
  if (used.length < LEAST) used = ordered;
  const farOff: string[] = [];
  for (;;) {
    const fit = fitted(used, plan, noise);
    if (!fit.ok) return fit;
    const { theta, sigma, iterations, misses } = fit.value;
    const worst = misses.reduce((far, miss, i) => (Math.abs(miss) > Math.abs(misses[far]!) ? i : far), 0);
    if (Math.abs(misses[worst]!) > FAR_SIGMAS && farOff.length < MOST_FAR_RATIO * ordered.length && used.length > LEAST) {
      farOff.push(used[worst]!.id);
      used = used.filter((_, i) => i !== worst);
      continue;
    }
    const rms = (read: (line: LoggedPour) => number): number => Math.sqrt(used.reduce((sum, line) => sum + (line.reading! - read(line)) ** 2, 0) / used.length) / span;
    return success({
      unknowns: keysOf(plan).map((key, i) => ({ key, value: theta[i]!, sigma: sigma[i]! })), noise, farOff, iterations,
      before_ratio: rms(({ volume_m3 }) => plan.readingAt(volume_m3, 0)), after_ratio: rms(({ volume_m3 }) => reading(plan, theta, volume_m3)),
      ...(stuck.from > 0 ? { stuckBelow_m3: (ordered[stuck.from - 1]!.volume_m3 + ordered[stuck.from]!.volume_m3) / 2 } : {}),
      ...(stuck.to < ordered.length ? { stuckAbove_m3: (ordered[stuck.to - 1]!.volume_m3 + ordered[stuck.to]!.volume_m3) / 2 } : {}),
      // What was in it at the start shifts the log, not the curve.
      readingAt: (volume_m3) => reading(plan, withoutStart(plan, theta), volume_m3),
    });
  }
}

const keysOf = ({ hasEnds }: Plan): UnknownKey[] => UNKNOWNS.filter((key) => hasEnds || (key !== 'emptyEnd' && key !== 'fullEnd'));
const priorOf = ({ prior }: Plan, key: UnknownKey): number => ({ volume: prior.volume_ratio, lowered: prior.lowered_m, emptyEnd: prior.end_ratio, fullEnd: prior.end_ratio, start: prior.start_m3 })[key];
const withoutStart = (plan: Plan, theta: readonly number[]): number[] => keysOf(plan).map((key, i) => (key === 'start' ? 0 : theta[i]!));

/** What is read with so much logged, with the unknowns put in. */
function reading(plan: Plan, theta: readonly number[], logged_m3: number): number {
  const of = (key: UnknownKey): number => theta[keysOf(plan).indexOf(key)] ?? 0;
  const planned = plan.readingAt((logged_m3 + of('start')) / (1 + of('volume')), of('lowered'));
  const share = (planned - plan.empty) / (plan.full - plan.empty);
  return planned + (plan.full - plan.empty) * (of('emptyEnd') * (1 - share) + of('fullEnd') * share);
}

type Fit = { readonly theta: readonly number[]; readonly sigma: readonly number[]; readonly iterations: number; /** In standard deviations, given all else. */ readonly misses: readonly number[] };

function fitted(lines: readonly LoggedPour[], plan: Plan, noise: number): Outcome<Fit, 'not-converged'> {
  const keys = keysOf(plan);
  const priors = keys.map((key) => Math.max(priorOf(plan, key), TINY));
  const misses = (theta: readonly number[]): number[] => lines.map((line) => line.reading! - reading(plan, theta, line.volume_m3));
  let theta = keys.map(() => 0);
  for (let iterations = 1; iterations <= MAX_ITERATIONS; iterations++) {
    const weight = weightsFor(lines, plan, theta, noise);
    const jacobian = slopes(lines, plan, theta, priors);
    // Unknowns in units of what was expected of them, so that the prior is the unit matrix.
    const weighted = jacobian.transpose().mmul(weight);
    const normal = even(weighted.mmul(jacobian).add(Matrix.eye(keys.length)));
    const off = Matrix.columnVector(misses(theta));
    const pull = Matrix.columnVector(theta.map((value, i) => value / priors[i]!));
    const step = new CholeskyDecomposition(normal).solve(weighted.mmul(off).sub(pull)).to1DArray();
    const cost = (at: readonly number[]): number => {
      const r = Matrix.columnVector(misses(at));
      return r.transpose().mmul(weight).mmul(r).get(0, 0) + at.reduce((sum, value, i) => sum + (value / priors[i]!) ** 2, 0);
    };
    const now = cost(theta);
    let share = 1;
    let next = theta.map((value, i) => value + step[i]! * priors[i]!);
    while (cost(next) > now && share > LEAST_STEP) {
      share /= 2;
      next = theta.map((value, i) => value + share * step[i]! * priors[i]!);
    }
    const moved = Math.max(...step.map((value) => Math.abs(value) * share));
    if (cost(next) <= now) theta = next;
    if (moved < SETTLED || share <= LEAST_STEP) {
      const covariance = new CholeskyDecomposition(normal).solve(Matrix.eye(keys.length));
      return success({ theta, sigma: keys.map((_, i) => Math.sqrt(covariance.get(i, i)) * priors[i]!), iterations, misses: standardized(misses(theta), weight) });
    }
  }
  return failure('not-converged', 'log', `The unknowns did not settle in ${MAX_ITERATIONS} steps; the log and the plan may be of different tanks.`);
}
/** Rounding takes its symmetry from a matrix; this gives it back. */
const even = (matrix: Matrix): Matrix => Matrix.add(matrix, matrix.transpose()).mul(0.5);

const TINY = 1e-12;
const LEAST_STEP = 1e-4;

/** Slope of each reading by each unknown, in units of what was expected of it: differences over a tenth of that. */
function slopes(lines: readonly LoggedPour[], plan: Plan, theta: readonly number[], priors: readonly number[]): Matrix {
  return Matrix.from1DArray(lines.length, priors.length, lines.flatMap(({ volume_m3 }) => priors.map((prior, i) => {
    const at = (by: number): number => reading(plan, theta.map((value, k) => (k === i ? value + by * prior : value)), volume_m3);
    return (at(DIFFERENCE) - at(-DIFFERENCE)) / (2 * DIFFERENCE);
  })));
}
const DIFFERENCE = 0.1;

/** Inverse of how the readings scatter together: their own noise, and the pours before each, which all later ones share. */
function weightsFor(lines: readonly LoggedPour[], plan: Plan, theta: readonly number[], noise: number): Matrix {
  const steep = lines.map(({ volume_m3 }) => (reading(plan, theta, volume_m3 + VOLUME_STEP_M3) - reading(plan, theta, volume_m3 - VOLUME_STEP_M3)) / (2 * VOLUME_STEP_M3));
  const scatter = new Matrix(lines.length, lines.length);
  for (let i = 0; i < lines.length; i++) {
    for (let j = 0; j < lines.length; j++) scatter.set(i, j, steep[i]! * steep[j]! * Math.min(lines[i]!.poured_m6, lines[j]!.poured_m6) + (i === j ? noise ** 2 : 0));
  }
  return even(new CholeskyDecomposition(scatter).solve(Matrix.eye(lines.length)));
}
const VOLUME_STEP_M3 = 1e-4;

/** How far each reading lies from what all the others say of it, in standard deviations. */
const standardized = (misses: readonly number[], weight: Matrix): number[] => weight.mmul(Matrix.columnVector(misses)).to1DArray().map((pull, i) => pull / Math.sqrt(weight.get(i, i)));

/** Readings at the bottom and the top that stand still while the plan moves. */
function stuckEnds(ordered: readonly LoggedPour[], plan: Plan, noise: number): { from: number; to: number } {
  const still = (end: 'low' | 'high'): number => {
    const list = end === 'low' ? ordered : [...ordered].reverse();
    let count = 1;
    while (count < list.length && Math.abs(list[count]!.reading! - list[0]!.reading!) <= STUCK_SIGMAS * noise) count++;
    const planned = (line: LoggedPour): number => plan.readingAt(line.volume_m3, 0);
    const moves = count > 1 ? Math.abs(planned(list[count - 1]!) - planned(list[0]!)) : 0;
    return count > 1 && moves > MOVES_SIGMAS * noise ? count : 0;
  };
  const [low, high] = [still('low'), still('high')];
  // All of it stuck is a dead float, which the log says by itself.
  if (low + high >= ordered.length) return { from: 0, to: ordered.length };
  // The last that stood still is where it begins to move: it may take part.
  return { from: Math.max(0, low - 1), to: ordered.length - Math.max(0, high - 1) };
}
