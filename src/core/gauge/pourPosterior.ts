import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { seeded, type Chance } from '../seeded';
import {
  even,
  keysOf,
  partsOf,
  priorsOf,
  reading,
  volumeWith,
  type Log,
  type Plan,
  type Slips,
  type Theta,
} from './pourModel';

/** Unknowns drawn as the log leaves them possible, each with the noise that goes with it. */
export type Draws = {
  readonly thetas: readonly Theta[];
  readonly noises: readonly number[];
  /** Steps from what was expected to what the log says. */
  readonly stages: number;
  /** Of the last moves tried, how many were taken: near none, and the draws say nothing. */
  readonly taken_ratio: number;
};

const PARTICLES = 320;
const MOVES = 4;
/** With all of the log in, the draws move on, and are taken down after every so many moves. */
const LAST_MOVES = 24;
const TAKEN_EVERY = 6;
/** A stage goes as far as half of the draws still count. */
const KEPT_RATIO = 0.5;
const MOST_STAGES = 60;
/** Best step of a random walk in many dimensions. */
const WALK = 2.38;
/** The noise is looked for up to so many times what neighbours tell. */
const NOISE_RANGE = 6;

/**
 * Draws from what may be, given the log: begun as expected beforehand, the
 * log put in by degrees, the draws that it speaks against replaced by others
 * and all moved about. Stops and dead ends, which bend readings sharply, and
 * explanations that are far apart are met as they are.
 *
 * @source P. Del Moral, A. Doucet, A. Jasra, J. R. Stat. Soc. B 68 (2006) 411: sequential Monte Carlo with tempering;
 * walk of G. Roberts, A. Gelman, W. Gilks, Ann. Appl. Probab. 7 (1997) 110
 */
export function posteriorDraws(log: Log, plan: Plan, slips: Slips, noise: number, seed = 1): Draws {
  const chance = seeded(seed);
  const scales = priorsOf(log, plan, slips);
  const chanceOf = likelihood(log, plan, slips);
  const [lowest, highest] = [Math.log(plan.floor), Math.log(Math.max(2 * plan.floor, NOISE_RANGE * noise))];
  const thetaOf = (point: readonly number[]): Theta => scales.map((scale, i) => point[i]! * scale);
  const noiseAt = (point: readonly number[]): number => Math.exp(point[scales.length]!);
  const likely = (point: readonly number[]): number => chanceOf(thetaOf(point), noiseAt(point));
  const before = (point: readonly number[]): number =>
    point[scales.length]! < lowest || point[scales.length]! > highest
      ? -Infinity
      : -0.5 * scales.reduce((sum, _, i) => sum + point[i]! ** 2, 0);
  let points: (readonly number[])[] = Array.from({ length: PARTICLES }, () => [
    ...scales.map(() => chance.normal()),
    lowest + (highest - lowest) * chance.uniform(),
  ]);
  let values = points.map(likely);
  let share = 0;
  let stages = 0;
  let taken = 0;
  const kept: (readonly number[])[] = [];
  while (share < 1 && stages < MOST_STAGES) {
    const next = stages === MOST_STAGES - 1 ? 1 : nextShare(values, share);
    const weights = weightsOf(values, next - share);
    share = next;
    stages++;
    const picked = resampled(weights, chance);
    const walk = walkOf(points, weights);
    points = picked.map((i) => points[i]!);
    values = picked.map((i) => values[i]!);
    const rounds = share === 1 ? LAST_MOVES : MOVES;
    taken = 0;
    for (let round = 0; round < rounds; round++) {
      points.forEach((point, i) => {
        const step = walk(chance);
        const tried = point.map((value, k) => value + step[k]!);
        const prior = before(tried);
        if (prior === -Infinity) return;
        const value = likely(tried);
        if (Math.log(1 - chance.uniform()) > share * (value - values[i]!) + prior - before(point)) return;
        points[i] = tried;
        values[i] = value;
        taken++;
      });
      if (share === 1 && (round + 1) % TAKEN_EVERY === 0) kept.push(...points);
    }
    taken /= rounds * PARTICLES;
  }
  return { thetas: kept.map(thetaOf), noises: kept.map(noiseAt), stages, taken_ratio: taken };
}

/**
 * Logarithm of the chance of a log given the unknowns and the noise. What was
 * poured in all errs like a walk from line to line, which a filter follows.
 *
 * @source R. Kalman, J. Basic Eng. 82 (1960) 35; the likelihood by its innovations, F. Schweppe, IEEE Trans. Inf.
 * Theory 11 (1965) 61
 */
export function likelihood(log: Log, plan: Plan, slips: Slips): (theta: Theta, noise: number) => number {
  const { used, still } = partsOf(log, slips);
  const lines = [...used].sort((a, b) => log.placeOf.get(a.id)! - log.placeOf.get(b.id)!);
  const keys = keysOf(plan).length;
  const runs = still.map((run) => {
    const mean = run.reduce((sum, line) => sum + line.reading!, 0) / run.length;
    return { count: run.length, off2: run.reduce((sum, line) => sum + (line.reading! - mean) ** 2, 0) };
  });
  return (theta, noise) => {
    let [sum, error_m3, variance_m6, poured_m6] = [0, 0, 0, 0];
    for (const line of lines) {
      variance_m6 += Math.max(0, line.poured_m6 - poured_m6);
      poured_m6 = Math.max(poured_m6, line.poured_m6);
      const volume = volumeWith(log, slips, theta, keys, line);
      const steep = (reading(plan, theta, volume + STEP_M3) - reading(plan, theta, volume - STEP_M3)) / (2 * STEP_M3);
      const spread = steep ** 2 * variance_m6 + noise ** 2;
      const miss = line.reading! - reading(plan, theta, volume) - steep * error_m3;
      sum -= 0.5 * (miss ** 2 / spread + Math.log(2 * Math.PI * spread));
      const gain = (variance_m6 * steep) / spread;
      error_m3 += gain * miss;
      variance_m6 *= 1 - gain * steep;
    }
    for (const { count, off2 } of runs)
      sum -= 0.5 * (off2 / noise ** 2 + (count - 1) * Math.log(2 * Math.PI * noise ** 2));
    return sum;
  };
}
const STEP_M3 = 1e-4;

const weightsOf = (values: readonly number[], by: number): number[] => {
  const most = Math.max(...values);
  const raw = values.map((value) => Math.exp(by * (value - most)));
  const all = raw.reduce((sum, weight) => sum + weight, 0);
  return raw.map((weight) => weight / all);
};

/** How much of the log to put in next: as much as leaves half of the draws counting. */
function nextShare(values: readonly number[], share: number): number {
  const counting = (by: number): number => 1 / weightsOf(values, by).reduce((sum, weight) => sum + weight ** 2, 0);
  const wanted = KEPT_RATIO * values.length;
  let [low, high] = [0, 1 - share];
  if (counting(high) >= wanted) return 1;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (counting(middle) >= wanted) low = middle;
    else high = middle;
  }
  return share + Math.max(low, LEAST_SHARE);
}
const HALVINGS = 40;
const LEAST_SHARE = 1e-9;

/** Indices drawn by weight, evenly spaced. */
function resampled(weights: readonly number[], chance: Chance): number[] {
  const offset = chance.uniform();
  let sum = 0;
  let next = 0;
  return weights.flatMap((weight, i) => {
    sum += weight * weights.length;
    const copies: number[] = [];
    while (next + offset < sum && next < weights.length) {
      copies.push(i);
      next++;
    }
    return copies;
  });
}

/** A step as wide and as slanted as the draws lie. */
function walkOf(points: readonly (readonly number[])[], weights: readonly number[]): (chance: Chance) => number[] {
  const dims = points[0]!.length;
  const mean = points[0]!.map((_, k) => points.reduce((sum, point, i) => sum + weights[i]! * point[k]!, 0));
  const cover = new Matrix(dims, dims);
  for (let a = 0; a < dims; a++)
    for (let b = 0; b < dims; b++)
      cover.set(
        a,
        b,
        points.reduce(
          (sum, point, i) => sum + weights[i]! * (point[a]! - mean[a]!) * (point[b]! - mean[b]!),
          a === b ? LEAST_VARIANCE : 0,
        ),
      );
  const root = new CholeskyDecomposition(even(cover)).lowerTriangularMatrix.to2DArray();
  return (chance) => {
    const free = Array.from({ length: dims }, () => chance.normal());
    return root.map(
      (row, i) => (WALK / Math.sqrt(dims)) * row.slice(0, i + 1).reduce((sum, value, k) => sum + value * free[k]!, 0),
    );
  };
}
const LEAST_VARIANCE = 1e-12;
