import { failure, success, type Outcome } from '../outcome';
import { seeded } from '../seeded';
import { isotonic } from './isotonic';
import type { LoggedPour } from './pours';
import { straight } from './straight';

/** The curve that the pours show: never turning back, with where it lies 95 times in 100. */
export type MeasuredPoint = {
  readonly volume_m3: number;
  readonly reading: number;
  readonly low: number;
  readonly high: number;
};

export type MeasuredCurve = {
  /** Even steps of volume from the first to the last pour. */
  readonly points: readonly MeasuredPoint[];
  /** The readings as fitted, in the order of their volumes. */
  readonly fitted: readonly {
    readonly id: string;
    readonly volume_m3: number;
    readonly reading: number;
    readonly measured: number;
  }[];
  /** Standard deviation of a single reading. */
  readonly noise: number;
  readonly rises: boolean;
};

export type CalibrateCode = 'too-few' | 'does-not-move';

const LEAST_POURS = 4;
const STEPS = 40;
const REPLICATES = 300;
/** What lies outside on either side. */
const TAIL = 0.025;

/**
 * A monotone curve through what was read, and how far it may be off.
 *
 * Readings are pooled where they turn back; between pours the curve is
 * straight. Its band comes from logs made up from the fit: each with its own
 * chance errors of every pour, which add up, and of every reading.
 *
 * @param lines  in the order in which they were poured
 * @param floor  no reading is surer than this: the last digit of the meter, or the width of a step
 * @source B. Efron and R. Tibshirani, An Introduction to the Bootstrap (1993), section 6.5: parametric bootstrap; noise
 * by T. Gasser, L. Sroka, C. Jennen-Steinmetz, Biometrika 73 (1986) 625
 */
export function measuredCurve(
  lines: readonly LoggedPour[],
  floor: number,
  startSigma_m3: number,
  seed = 1,
): Outcome<MeasuredCurve, CalibrateCode> {
  const used = lines.filter((line) => line.counts).sort((a, b) => a.volume_m3 - b.volume_m3);
  if (used.length < LEAST_POURS)
    return failure(
      'too-few',
      'log',
      `A curve needs at least ${LEAST_POURS} readings that count; there ${used.length === 1 ? 'is' : 'are'} ${used.length}.`,
    );
  const volumes = used.map(({ volume_m3 }) => volume_m3);
  const readings = used.map(({ reading }) => reading!);
  const rises = slopeSign(volumes, readings) >= 0;
  const span = Math.max(...readings) - Math.min(...readings);
  if (!(span > 2 * floor))
    return failure(
      'does-not-move',
      'log',
      'The reading hardly moves over all pours: the float is stuck, or the wire is off.',
    );
  const noise = Math.max(floor, noiseOf(volumes, readings));
  const fitted = monotone(readings, rises);
  const [first, last] = [volumes[0]!, volumes.at(-1)!];
  const grid = Array.from({ length: STEPS + 1 }, (_, i) => first + ((last - first) * i) / STEPS);
  const chance = seeded(seed);
  const replicas = grid.map(() => [] as number[]);
  for (let r = 0; r < REPLICATES; r++) {
    const start = chance.normal() * startSigma_m3;
    const poured = walk(used, chance.normal);
    const moved = volumes.map((volume, i) => volume + start + poured[i]!);
    const order = [...moved.keys()].sort((a, b) => moved[a]! - moved[b]!);
    const made = order.map((i) => fitted[i]! + noise * chance.normal());
    const curve = monotone(made, rises);
    grid.forEach((volume, g) =>
      replicas[g]!.push(
        straight(
          order.map((i) => moved[i]!),
          curve,
          volume,
        ),
      ),
    );
  }
  const points = grid.map((volume_m3, g): MeasuredPoint => {
    const sorted = replicas[g]!.sort((a, b) => a - b);
    const reading = straight(volumes, fitted, volume_m3);
    // Made from the fit, they spread about it as it does about the truth: what is over on one side is missing on the
    // other.
    const [low, high] = [sorted[Math.floor(TAIL * REPLICATES)]!, sorted[Math.ceil((1 - TAIL) * REPLICATES) - 1]!];
    return { volume_m3, reading, low: Math.min(reading, low), high: Math.max(reading, high) };
  });
  return success({
    points,
    fitted: used.map(({ id, volume_m3 }, i) => ({ id, volume_m3, reading: fitted[i]!, measured: readings[i]! })),
    noise,
    rises,
  });
}

/** Errors of what was poured in all up to each line: each pour adds its own. */
function walk(used: readonly LoggedPour[], normal: () => number): number[] {
  let sum = 0;
  let before = 0;
  return used.map(({ poured_m6 }) => {
    sum += normal() * Math.sqrt(Math.max(0, poured_m6 - before));
    before = Math.max(before, poured_m6);
    return sum;
  });
}

const monotone = (readings: readonly number[], rises: boolean): Float64Array =>
  rises ? isotonic(readings) : isotonic(readings.map((reading) => -reading)).map((reading) => -reading);

/** Whether readings rise with volume, by the sum of all pairs. */
function slopeSign(volumes: readonly number[], readings: readonly number[]): number {
  const mean = (list: readonly number[]): number => list.reduce((sum, value) => sum + value, 0) / list.length;
  const [v, r] = [mean(volumes), mean(readings)];
  return Math.sign(volumes.reduce((sum, volume, i) => sum + (volume - v) * (readings[i]! - r), 0));
}

/** Noise of single readings: how far each lies from the line between its neighbours. */
export function noiseOf(volumes: readonly number[], readings: readonly number[]): number {
  const squares = volumes.slice(1, -1).flatMap((volume, i) => {
    const [before, after] = [volumes[i]!, volumes[i + 2]!];
    if (!(after > before)) return [];
    const a = (after - volume) / (after - before);
    const off = a * readings[i]! + (1 - a) * readings[i + 2]! - readings[i + 1]!;
    return [off ** 2 / (a ** 2 + (1 - a) ** 2 + 1)];
  });
  // A median, so that a single wrong entry does not make all the others doubtful.
  squares.sort((x, y) => x - y);
  return squares.length === 0 ? 0 : Math.sqrt(squares[Math.floor(squares.length / 2)]! / MEDIAN_OF_SQUARE);
}
/** Median of the square of a standard normal deviate. */
const MEDIAN_OF_SQUARE = 0.4549;
