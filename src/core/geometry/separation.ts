import { triangleBounds, type BoxTree } from './boxTree';
import type { Pose } from './pose';
import { nearestOnFirst, nearestOnSecond, triangleGap2 } from './triangleGap';
import type { Vec3 } from './vec';

/** How far two surfaces stand apart, and where: both points in the first one's frame [m]. */
export type Separation = { readonly distance_m: number; readonly onFirst: Vec3; readonly onSecond: Vec3 };

/** Two trees, the second as it stands in the first one's frame. */
export type Facing = {
  readonly a: BoxTree;
  readonly b: BoxTree;
  /** Turn and place of the second in the first one's frame: images of its axes, then its origin. */
  readonly pose: Float64Array;
  /** The same without signs, for the size of turned boxes. */
  readonly size: Float64Array;
  /** A triangle of the second in the first one's frame, and the box round it. */
  readonly triangle: Float64Array;
  readonly bounds: Float64Array;
};

type Search = Facing & { least2: number; readonly enough2: number; readonly found: Float64Array };

export function facing(a: BoxTree, b: BoxTree, bInA: Pose): Facing {
  const pose = Float64Array.from([...bInA.axes[0], ...bInA.axes[1], ...bInA.axes[2], ...bInA.origin_m]);
  return { a, b, pose, size: pose.map(Math.abs), triangle: new Float64Array(9), bounds: new Float64Array(6) };
}

/**
 * Distance between two surfaces [m]: 0 where they touch or cut each other.
 *
 * Walks both trees together, nearest boxes first, and leaves out every pair of
 * boxes that lies further apart than the least distance yet.
 *
 * @param bInA where the second stands in the first one's frame
 * @param atMost_m further than this is not looked at: the answer is undefined
 * @param enough_m a distance this small is not improved upon
 * @source S. Gottschalk, M. Lin, D. Manocha, SIGGRAPH 1996: traversal of two trees of boxes
 */
export function separation(
  a: BoxTree,
  b: BoxTree,
  bInA: Pose,
  atMost_m = Infinity,
  enough_m = 0,
): Separation | undefined {
  const search: Search = {
    ...facing(a, b, bInA),
    least2: atMost_m * atMost_m,
    enough2: enough_m * enough_m,
    found: new Float64Array(6).fill(NaN),
  };
  descend(search, 0, 0, boxGap2(search, 0, 0));
  const { found } = search;
  if (Number.isNaN(found[0]!)) return undefined;
  return {
    distance_m: Math.sqrt(search.least2),
    onFirst: [found[0]!, found[1]!, found[2]!],
    onSecond: [found[3]!, found[4]!, found[5]!],
  };
}

/**
 * Square of the distance between a box of the first and one of the second, the latter boxed once more along the first
 * one's axes.
 */
export function boxGap2({ a, b, pose, size }: Facing, i: number, j: number): number {
  const [p, q] = [6 * i, 6 * j];
  const x = b.boxes[q]!,
    y = b.boxes[q + 1]!,
    z = b.boxes[q + 2]!;
  const hx = b.boxes[q + 3]!,
    hy = b.boxes[q + 4]!,
    hz = b.boxes[q + 5]!;
  let sum = 0;
  for (let k = 0; k < 3; k++) {
    const centre = pose[k]! * x + pose[3 + k]! * y + pose[6 + k]! * z + pose[9 + k]!;
    const half = size[k]! * hx + size[3 + k]! * hy + size[6 + k]! * hz;
    const gap = Math.abs(a.boxes[p + k]! - centre) - a.boxes[p + 3 + k]! - half;
    if (gap > 0) sum += gap * gap;
  }
  return sum;
}

function descend(search: Search, i: number, j: number, bound2: number): void {
  if (bound2 >= search.least2) return;
  if (search.least2 <= search.enough2 && !Number.isNaN(search.found[0]!)) return; // found, and near enough
  const [innerA, innerB] = [search.a.inner[i]!, search.b.inner[j]!];
  if (innerA === 0 && innerB === 0) return leaves(search, i, j);
  const openFirst = innerB === 0 || (innerA !== 0 && size2(search.a, i) >= size2(search.b, j));
  const [i1, j1, i2, j2] = openFirst ? [innerA, j, innerA + 1, j] : [i, innerB, i, innerB + 1];
  const [gap1, gap2] = [boxGap2(search, i1, j1), boxGap2(search, i2, j2)];
  if (gap1 <= gap2) {
    descend(search, i1, j1, gap1);
    descend(search, i2, j2, gap2);
  } else {
    descend(search, i2, j2, gap2);
    descend(search, i1, j1, gap1);
  }
}

export const size2 = ({ boxes }: BoxTree, i: number): number =>
  boxes[6 * i + 3]! ** 2 + boxes[6 * i + 4]! ** 2 + boxes[6 * i + 5]! ** 2;

function leaves(search: Search, i: number, j: number): void {
  const { a, b, pose, triangle, bounds, found } = search;
  const [fromA, toA] = [a.span[2 * i]!, a.span[2 * i]! + a.span[2 * i + 1]!];
  const [fromB, toB] = [b.span[2 * j]!, b.span[2 * j]! + b.span[2 * j + 1]!];
  for (let n = fromB; n < toB; n++) {
    for (let c = 0; c < 9; c += 3) {
      const x = b.corners[9 * n + c]!,
        y = b.corners[9 * n + c + 1]!,
        z = b.corners[9 * n + c + 2]!;
      for (let k = 0; k < 3; k++) triangle[c + k] = pose[k]! * x + pose[3 + k]! * y + pose[6 + k]! * z + pose[9 + k]!;
    }
    triangleBounds(triangle, bounds);
    for (let m = fromA; m < toA; m++) {
      if (boundsGap2(a.bounds, 6 * m, bounds) >= search.least2) continue;
      const gap2 = triangleGap2(a.corners, 9 * m, triangle, 0, search.least2);
      if (gap2 >= search.least2) continue;
      search.least2 = gap2;
      found.set(nearestOnFirst, 0);
      found.set(nearestOnSecond, 3);
      if (gap2 <= search.enough2) return;
    }
  }
}

/** Square of the distance between the boxes round two triangles: cheap, and never more than their own. */
export function boundsGap2(a: Float64Array, i: number, b: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < 3; k++) {
    const below = b[k]! - a[i + 3 + k]!;
    const above = a[i + k]! - b[3 + k]!;
    const gap = below > above ? below : above;
    if (gap > 0) sum += gap * gap;
  }
  return sum;
}
