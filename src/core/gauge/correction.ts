import { failure, success, type Outcome } from '../outcome';
import type { Gauge, NeedleCode, TaughtPoint } from './needle';

/** A reading against what it stands for. */
export type Stood = { readonly reading: number; readonly true_ratio: number };

export type CorrectionTable = {
  readonly points: readonly TaughtPoint[];
  /** Largest error of straight lines between the points, where the sender moves at all. */
  readonly worst_ratio: number;
};

/** A gauge that is taught and was not yet, taught from a curve; any other as it is. */
export function taughtFrom(gauge: Gauge, stood: readonly Stood[]): Outcome<Gauge, NeedleCode> {
  if (gauge.kind !== 'calibrated' || gauge.points.length >= 2) return success(gauge);
  const table = correctionTable(stood, gauge.mostPoints, 'best');
  return table.ok ? success({ ...gauge, points: table.value.points }) : table;
}

/** Readings closer than this, of all that are met, teach nothing new. */
const APART_REL = 1e-6;

/**
 * What to teach a sender or gauge that takes a number of points: at even
 * shares of what the tank holds, or where they leave the least error.
 *
 * Only readings that differ can be taught: where the float lies on its stop,
 * the last volume of that stretch at the bottom, the first at the top, stands
 * for it.
 *
 * @param stood  a curve from empty to full, readings running one way
 * @param count  points that it takes, 2 or more
 * @param still  readings that differ by less are the same: noise
 * @source R. Bellman, Comm. ACM 4 (1961) 284: straight pieces between points of a curve by dynamic programming
 */
export function correctionTable(
  stood: readonly Stood[],
  count: number,
  placed: 'even' | 'best',
  still = 0,
): Outcome<CorrectionTable, NeedleCode> {
  const curve = moving(stood, still);
  if (curve.length < 2)
    return failure('untaught', 'gauge', 'The sender reads the same from empty to full: there is nothing to teach.');
  const chosen = placed === 'even' ? evenly(curve, count) : leastError(curve, count);
  const points = chosen.map((i) => ({ reading: curve[i]!.reading, shown_ratio: curve[i]!.true_ratio }));
  return success({ points, worst_ratio: errorOver(curve, chosen) });
}

/** The stretch in which the reading moves, both its ends included. */
function moving(stood: readonly Stood[], still: number): Stood[] {
  const [first, last] = [stood[0]!.reading, stood.at(-1)!.reading];
  const step = Math.max(still, APART_REL * Math.abs(last - first));
  if (!(Math.abs(last - first) > step && step > 0)) return [];
  const from = stood.findLastIndex(({ reading }) => Math.abs(reading - first) <= step);
  const to = stood.findIndex(({ reading }) => Math.abs(reading - last) <= step);
  const kept: Stood[] = [];
  for (const point of stood.slice(from, to + 1))
    if (kept.length === 0 || Math.abs(point.reading - kept.at(-1)!.reading) > step) kept.push(point);
  return kept;
}

function evenly(curve: readonly Stood[], count: number): number[] {
  const [low, high] = [curve[0]!.true_ratio, curve.at(-1)!.true_ratio];
  const nearest = (share: number): number =>
    curve.reduce(
      (best, point, i) => (Math.abs(point.true_ratio - share) < Math.abs(curve[best]!.true_ratio - share) ? i : best),
      0,
    );
  return [...new Set(Array.from({ length: count }, (_, i) => nearest(low + ((high - low) * i) / (count - 1))))];
}

/** Of a straight line from one point of the curve to another: the largest error between them. */
function pieceError(curve: readonly Stood[], a: number, b: number): number {
  let worst = 0;
  const [from, to] = [curve[a]!, curve[b]!];
  for (let i = a + 1; i < b; i++) {
    const line =
      from.true_ratio +
      ((to.true_ratio - from.true_ratio) * (curve[i]!.reading - from.reading)) / (to.reading - from.reading);
    worst = Math.max(worst, Math.abs(line - curve[i]!.true_ratio));
  }
  return worst;
}

const errorOver = (curve: readonly Stood[], chosen: readonly number[]): number =>
  chosen.slice(1).reduce((worst, to, i) => Math.max(worst, pieceError(curve, chosen[i]!, to)), 0);

/**
 * The points, first and last among them, whose largest error is least: every choice of the point before, piece by
 * piece.
 */
function leastError(curve: readonly Stood[], count: number): number[] {
  const last = curve.length - 1;
  const pieces = Math.min(count - 1, last);
  // least[b]: the least largest error of so many pieces that end at b; before: where the last of them begins.
  const known: number[] = [];
  let least = curve.map((_, b) => (b === 0 ? Infinity : pieceError(curve, 0, b)));
  const before: number[][] = [curve.map(() => 0)];
  for (let piece = 1; piece < pieces; piece++) {
    const from = curve.map((_, b) => {
      let best = b;
      let error = Infinity;
      for (let a = piece; a < b; a++) {
        const here = Math.max(least[a]!, errors(a, b));
        if (here < error) [best, error] = [a, here];
      }
      return { best, error };
    });
    before.push(from.map(({ best }) => best));
    least = from.map(({ error }) => error);
  }
  const chosen = [last];
  for (let piece = pieces - 1; piece >= 0; piece--) chosen.unshift(before[piece]![chosen[0]!]!);
  return chosen;

  function errors(a: number, b: number): number {
    const key = a * curve.length + b;
    known[key] ??= pieceError(curve, a, b);
    return known[key];
  }
}
