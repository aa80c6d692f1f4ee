import type { BoxTree } from './boxTree';
import { nearestOnTriangle } from './distance';
import type { Pose } from './pose';
import { boundsGap2, boxGap2, facing, placeTriangle, size2, type Facing } from './separation';
import { nearestOnFirst, nearestOnSecond, triangleGap2 } from './triangleGap';
import { dot, norm, scale, subtract, type Vec3 } from './vec';

/** Where two surfaces come near each other, in the first one's frame [m]. */
export type Contact = {
  readonly distance_m: number;
  readonly onFirst: Vec3;
  /** Unit vector from the second towards the first. */ readonly away: Vec3;
};

/** Two contacts nearer than this, and facing one way, are one [m]. */
const SAME_M = 1e-4;
const SAME_WAY = 0.999;

/**
 * All places at which two surfaces come nearer to each other than a distance:
 * for every pair of triangles the nearest points, and the nearest of each to the
 * other's corners, so that a face that lies along another is held at its
 * corners. Nearest first. Surfaces that cut each other have no way to be parted
 * and give none there.
 *
 * @param bInA where the second stands in the first one's frame
 * @param most of the contacts so many are given at most
 */
export function contacts(a: BoxTree, b: BoxTree, bInA: Pose, within_m: number, most: number): Contact[] {
  const search = facing(a, b, bInA);
  const found: Contact[] = [];
  const within2 = within_m * within_m;
  const pending: [number, number][] = [[0, 0]];
  while (pending.length > 0) {
    const [i, j] = pending.pop()!;
    if (boxGap2(search, i, j) >= within2) continue;
    const [innerA, innerB] = [a.inner[i]!, b.inner[j]!];
    if (innerA === 0 && innerB === 0) leaves(search, i, j, within_m, found);
    else if (innerB === 0 || (innerA !== 0 && size2(a, i) >= size2(b, j))) pending.push([innerA, j], [innerA + 1, j]);
    else pending.push([i, innerB], [i, innerB + 1]);
  }
  return apartFromEachOther(
    found.sort((one, other) => one.distance_m - other.distance_m),
    most,
  );
}

function apartFromEachOther(sorted: readonly Contact[], most: number): Contact[] {
  const kept: Contact[] = [];
  for (const contact of sorted) {
    if (kept.length >= most) break;
    if (
      !kept.some(
        ({ onFirst, away }) => norm(subtract(onFirst, contact.onFirst)) < SAME_M && dot(away, contact.away) > SAME_WAY,
      )
    )
      kept.push(contact);
  }
  return kept;
}

function leaves(search: Facing, i: number, j: number, within_m: number, found: Contact[]): void {
  const { a, b, triangle, bounds } = search;
  const within2 = within_m * within_m;
  for (let n = b.span[2 * j]!; n < b.span[2 * j]! + b.span[2 * j + 1]!; n++) {
    placeTriangle(search, n);
    for (let m = a.span[2 * i]!; m < a.span[2 * i]! + a.span[2 * i + 1]!; m++) {
      if (boundsGap2(a.bounds, 6 * m, bounds) >= within2) continue;
      const gap2 = triangleGap2(a.corners, 9 * m, triangle, 0, within2);
      if (gap2 >= within2 || gap2 === 0) continue;
      keep(found, vec(nearestOnFirst, 0), vec(nearestOnSecond, 0), within_m);
      const [first, second] = [cornersOf(a.corners, 9 * m), cornersOf(triangle, 0)];
      for (const corner of first) keep(found, corner, nearestOnTriangle(corner, ...second), within_m);
      for (const corner of second) keep(found, nearestOnTriangle(corner, ...first), corner, within_m);
    }
  }
}

const vec = (values: Float64Array, at: number): Vec3 => [values[at]!, values[at + 1]!, values[at + 2]!];
const cornersOf = (values: Float64Array, at: number): readonly [Vec3, Vec3, Vec3] => [
  vec(values, at),
  vec(values, at + 3),
  vec(values, at + 6),
];

function keep(found: Contact[], onFirst: Vec3, onSecond: Vec3, within_m: number): void {
  const between = subtract(onFirst, onSecond);
  const distance_m = norm(between);
  if (distance_m > 0 && distance_m < within_m)
    found.push({ distance_m, onFirst, away: scale(between, 1 / distance_m) });
}
