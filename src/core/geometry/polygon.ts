import earcut from 'earcut';
import { failure, success, type Outcome } from '../outcome';
import type { Point2 } from './section';

declare const simple: unique symbol;

/** A closed outline that does not cross itself, counter-clockwise, without repeated points [m]. */
export type Profile = readonly Point2[] & { readonly [simple]: true };

export type ProfileCode = 'too-few-points' | 'not-finite' | 'crosses-itself' | 'no-area';

/** Points nearer than this share of the outline's size are one. */
const SAME_REL = 1e-9;

/** Signed area [m²], positive counter-clockwise. @source surveyor's formula */
export const signedArea_m2 = (points: readonly Point2[]): number =>
  points.reduce((sum, [x, y], i) => {
    const [u, v] = points[(i + 1) % points.length]!;
    return sum + x * v - u * y;
  }, 0) / 2;

/** Checks an outline typed point by point, and turns it counter-clockwise. */
export function parseProfile(points: readonly Point2[]): Outcome<Profile, ProfileCode> {
  const bad = points.findIndex(([x, y]) => !Number.isFinite(x) || !Number.isFinite(y));
  if (bad >= 0) return failure('not-finite', `point ${bad + 1}`, `Point ${bad + 1} is not a pair of numbers.`);
  const size = Math.max(...points.flatMap(([x, y]) => [Math.abs(x), Math.abs(y)]));
  const kept = points.filter((p, i) => {
    const q = points[(i + 1) % points.length]!;
    return Math.hypot(p[0] - q[0], p[1] - q[1]) > SAME_REL * size;
  });
  if (kept.length < 3)
    return failure('too-few-points', 'profile', 'A profile needs at least three points that differ.');
  const crossing = firstCrossing(kept);
  if (crossing)
    return failure(
      'crosses-itself',
      `edges ${crossing[0] + 1} and ${crossing[1] + 1}`,
      `The profile crosses itself: edge ${crossing[0] + 1} meets edge ${crossing[1] + 1}.`,
    );
  const area = signedArea_m2(kept);
  if (Math.abs(area) <= SAME_REL * size * size) return failure('no-area', 'profile', 'The profile encloses no area.');
  return success((area > 0 ? kept : [...kept].reverse()) as unknown as Profile);
}

/** Two edges that meet where they should not, by number. */
function firstCrossing(points: readonly Point2[]): [number, number] | undefined {
  const n = points.length;
  for (let i = 0; i < n; i++) {
    for (let j = i + 1; j < n; j++) {
      const neighbours = j === i + 1 || (i === 0 && j === n - 1);
      const meets = neighbours
        ? foldsBack(points, i, j, n)
        : segmentsMeet(points[i]!, points[(i + 1) % n]!, points[j]!, points[(j + 1) % n]!);
      if (meets) return [i, j];
    }
  }
  return undefined;
}

/** Neighbouring edges that run back over one another. */
function foldsBack(points: readonly Point2[], i: number, j: number, n: number): boolean {
  const [before, at, after] =
    j === i + 1 ? [points[i]!, points[j]!, points[(j + 1) % n]!] : [points[j]!, points[i]!, points[i + 1]!];
  return (
    turn(before, at, after) === 0 &&
    (before[0] - at[0]) * (after[0] - at[0]) + (before[1] - at[1]) * (after[1] - at[1]) > 0
  );
}

const turn = (a: Point2, b: Point2, c: Point2): number =>
  Math.sign((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]));

function segmentsMeet(a: Point2, b: Point2, c: Point2, d: Point2): boolean {
  if (apartAlong(0, a, b, c, d) || apartAlong(1, a, b, c, d)) return false;
  const [t1, t2, t3, t4] = [turn(a, b, c), turn(a, b, d), turn(c, d, a), turn(c, d, b)];
  if (t1 !== t2 && t3 !== t4) return true;
  const within = (p: Point2, q: Point2, r: Point2): boolean =>
    Math.min(p[0], q[0]) <= r[0] &&
    r[0] <= Math.max(p[0], q[0]) &&
    Math.min(p[1], q[1]) <= r[1] &&
    r[1] <= Math.max(p[1], q[1]);
  return (
    (t1 === 0 && within(a, b, c)) ||
    (t2 === 0 && within(a, b, d)) ||
    (t3 === 0 && within(c, d, a)) ||
    (t4 === 0 && within(c, d, b))
  );
}

/** Whether two segments lie apart as seen along one axis: most pairs of a profile do. */
const apartAlong = (k: 0 | 1, a: Point2, b: Point2, c: Point2, d: Point2): boolean =>
  (a[k] < c[k] && a[k] < d[k] && b[k] < c[k] && b[k] < d[k]) ||
  (a[k] > c[k] && a[k] > d[k] && b[k] > c[k] && b[k] > d[k]);

/** Triangles that fill a profile, three point numbers each, counter-clockwise. */
export function fillProfile(profile: Profile): number[] {
  const indices = earcut(profile.flat());
  const triangles: number[] = [];
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [indices[i]!, indices[i + 1]!, indices[i + 2]!];
    const turned = signedArea_m2([profile[a]!, profile[b]!, profile[c]!]) >= 0;
    triangles.push(a, ...(turned ? [b, c] : [c, b]));
  }
  return triangles;
}
