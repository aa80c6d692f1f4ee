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

/** What a search of the nearest pair goes by; one at a time, so that a look at two surfaces allocates little. */
let least2 = 0;
let enough2 = 0;
let isFound = false;
const [onFirst, onSecond] = [new Float64Array(3), new Float64Array(3)];
const [TURN, SIZE, TRIANGLE, BOUNDS] = [12, 12, 9, 6].map((length) => new Float64Array(length)) as [
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
];

/** Two trees, the second placed in the first one's frame, ready to be walked. */
export function facing(a: BoxTree, b: BoxTree, bInA: Pose): Facing {
  const all = {
    a,
    b,
    pose: new Float64Array(12),
    size: new Float64Array(12),
    triangle: new Float64Array(9),
    bounds: new Float64Array(6),
  };
  placeIn(all, bInA);
  return all;
}

function placeIn({ pose, size }: Pick<Facing, 'pose' | 'size'>, { axes: [x, y, z], origin_m }: Pose): void {
  for (let k = 0; k < 3; k++) {
    pose[k] = x[k]!;
    pose[3 + k] = y[k]!;
    pose[6 + k] = z[k]!;
    pose[9 + k] = origin_m[k]!;
  }
  for (let k = 0; k < 12; k++) size[k] = Math.abs(pose[k]!);
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
  if (spheresApart(a, b, bInA, atMost_m)) return undefined;
  const search: Facing = { a, b, pose: TURN, size: SIZE, triangle: TRIANGLE, bounds: BOUNDS };
  placeIn(search, bInA);
  isAligned = axesAlign(search);
  least2 = atMost_m * atMost_m;
  enough2 = enough_m * enough_m;
  isFound = false;
  descend(search, 0, 0, boxGap2(search, 0, 0));
  if (!isFound) return undefined;
  return {
    distance_m: Math.sqrt(least2),
    onFirst: [onFirst[0]!, onFirst[1]!, onFirst[2]!],
    onSecond: [onSecond[0]!, onSecond[1]!, onSecond[2]!],
  };
}

/** Whether even the sphere round all of the second lies further from the first one's box: costs next to nothing. */
function spheresApart(
  { boxes: a }: BoxTree,
  { boxes: b }: BoxTree,
  { axes: [x, y, z], origin_m }: Pose,
  atMost_m: number,
) {
  if (atMost_m === Infinity) return false;
  const radius = Math.sqrt(b[3]! * b[3]! + b[4]! * b[4]! + b[5]! * b[5]!);
  let sum = 0;
  for (let k = 0; k < 3; k++) {
    const centre = x[k]! * b[0]! + y[k]! * b[1]! + z[k]! * b[2]! + origin_m[k]!;
    const gap = Math.abs(a[k]! - centre) - a[k + 3]!;
    if (gap > 0) sum += gap * gap;
  }
  const far = atMost_m + radius;
  return sum > far * far;
}

/**
 * Square of the distance between a box of the first and one of the second, the latter boxed once more along the first
 * one's axes.
 */
export function boxGap2({ a, b, pose, size }: Facing, i: number, j: number): number {
  const [p, q] = [6 * i, 6 * j];
  const [from, to] = [a.boxes, b.boxes];
  const x = to[q]!,
    y = to[q + 1]!,
    z = to[q + 2]!;
  const hx = to[q + 3]!,
    hy = to[q + 4]!,
    hz = to[q + 5]!;
  const gapX =
    Math.abs(from[p]! - (pose[0]! * x + pose[3]! * y + pose[6]! * z + pose[9]!)) -
    from[p + 3]! -
    (size[0]! * hx + size[3]! * hy + size[6]! * hz);
  const gapY =
    Math.abs(from[p + 1]! - (pose[1]! * x + pose[4]! * y + pose[7]! * z + pose[10]!)) -
    from[p + 4]! -
    (size[1]! * hx + size[4]! * hy + size[7]! * hz);
  const gapZ =
    Math.abs(from[p + 2]! - (pose[2]! * x + pose[5]! * y + pose[8]! * z + pose[11]!)) -
    from[p + 5]! -
    (size[2]! * hx + size[5]! * hy + size[8]! * hz);
  return (gapX > 0 ? gapX * gapX : 0) + (gapY > 0 ? gapY * gapY : 0) + (gapZ > 0 ? gapZ * gapZ : 0);
}

/**
 * The same the other way round: the first one's box boxed once more along the axes of the second. Between bodies that
 * stand askew one of the two is mostly much the closer.
 */
function boxGapBack2({ a, b, pose, size }: Facing, i: number, j: number): number {
  const [p, q] = [6 * i, 6 * j];
  const [from, to] = [a.boxes, b.boxes];
  const x = to[q]!,
    y = to[q + 1]!,
    z = to[q + 2]!;
  const dx = from[p]! - (pose[0]! * x + pose[3]! * y + pose[6]! * z + pose[9]!),
    dy = from[p + 1]! - (pose[1]! * x + pose[4]! * y + pose[7]! * z + pose[10]!),
    dz = from[p + 2]! - (pose[2]! * x + pose[5]! * y + pose[8]! * z + pose[11]!);
  const hx = from[p + 3]!,
    hy = from[p + 4]!,
    hz = from[p + 5]!;
  const gapX =
    Math.abs(pose[0]! * dx + pose[1]! * dy + pose[2]! * dz) -
    to[q + 3]! -
    (size[0]! * hx + size[1]! * hy + size[2]! * hz);
  const gapY =
    Math.abs(pose[3]! * dx + pose[4]! * dy + pose[5]! * dz) -
    to[q + 4]! -
    (size[3]! * hx + size[4]! * hy + size[5]! * hz);
  const gapZ =
    Math.abs(pose[6]! * dx + pose[7]! * dy + pose[8]! * dz) -
    to[q + 5]! -
    (size[6]! * hx + size[7]! * hy + size[8]! * hz);
  return (gapX > 0 ? gapX * gapX : 0) + (gapY > 0 ? gapY * gapY : 0) + (gapZ > 0 ? gapZ * gapZ : 0);
}

/** Whether the axes of the two run along each other, so that looking from the second tells nothing new. */
let isAligned = false;
/** A turn by less does not open a box by anything. */
const ALIGNED = 1e-9;
const axesAlign = ({ size }: Pick<Facing, 'size'>): boolean => {
  for (let k = 0; k < 9; k++) if (size[k]! > ALIGNED && size[k]! < 1 - ALIGNED) return false;
  return true;
};

function descend(search: Facing, i: number, j: number, bound2: number): void {
  if (bound2 >= least2) return;
  if (isFound && least2 <= enough2) return;
  if (!isAligned && boxGapBack2(search, i, j) >= least2) return;
  const innerA = search.a.inner[i]!;
  const innerB = search.b.inner[j]!;
  if (innerA === 0 && innerB === 0) return leaves(search, i, j);
  if (innerB === 0 || (innerA !== 0 && size2(search.a, i) >= size2(search.b, j))) {
    const gap = boxGap2(search, innerA, j);
    const next = boxGap2(search, innerA + 1, j);
    if (gap <= next) {
      descend(search, innerA, j, gap);
      descend(search, innerA + 1, j, next);
    } else {
      descend(search, innerA + 1, j, next);
      descend(search, innerA, j, gap);
    }
    return;
  }
  const gap = boxGap2(search, i, innerB);
  const next = boxGap2(search, i, innerB + 1);
  if (gap <= next) {
    descend(search, i, innerB, gap);
    descend(search, i, innerB + 1, next);
  } else {
    descend(search, i, innerB + 1, next);
    descend(search, i, innerB, gap);
  }
}

/** Square of half the diagonal of a tree's box [m²]. */
export function size2({ boxes }: BoxTree, i: number): number {
  const x = boxes[6 * i + 3]!,
    y = boxes[6 * i + 4]!,
    z = boxes[6 * i + 5]!;
  return x * x + y * y + z * z;
}

/** A triangle of the second, and the box round it, as the first one sees them. */
export function placeTriangle({ b, pose, triangle, bounds }: Facing, n: number): void {
  const { corners } = b;
  for (let c = 0; c < 9; c += 3) {
    const x = corners[9 * n + c]!,
      y = corners[9 * n + c + 1]!,
      z = corners[9 * n + c + 2]!;
    triangle[c] = pose[0]! * x + pose[3]! * y + pose[6]! * z + pose[9]!;
    triangle[c + 1] = pose[1]! * x + pose[4]! * y + pose[7]! * z + pose[10]!;
    triangle[c + 2] = pose[2]! * x + pose[5]! * y + pose[8]! * z + pose[11]!;
  }
  triangleBounds(triangle, bounds);
}

function leaves(search: Facing, i: number, j: number): void {
  const { a, b, triangle, bounds } = search;
  const fromA = a.span[2 * i]!,
    toA = fromA + a.span[2 * i + 1]!;
  const fromB = b.span[2 * j]!,
    toB = fromB + b.span[2 * j + 1]!;
  for (let n = fromB; n < toB; n++) {
    placeTriangle(search, n);
    for (let m = fromA; m < toA; m++) {
      if (boundsGap2(a.bounds, 6 * m, bounds) >= least2) continue;
      const gap2 = triangleGap2(a.corners, 9 * m, triangle, 0, least2);
      if (gap2 >= least2) continue;
      least2 = gap2;
      isFound = true;
      for (let k = 0; k < 3; k++) {
        onFirst[k] = nearestOnFirst[k]!;
        onSecond[k] = nearestOnSecond[k]!;
      }
      if (gap2 <= enough2) return;
    }
  }
}

/** Square of the distance between the boxes round two triangles: cheap, and never more than their own. */
export function boundsGap2(a: Float64Array, i: number, b: Float64Array): number {
  const x = Math.max(b[0]! - a[i + 3]!, a[i]! - b[3]!, 0),
    y = Math.max(b[1]! - a[i + 4]!, a[i + 1]! - b[4]!, 0),
    z = Math.max(b[2]! - a[i + 5]!, a[i + 2]! - b[5]!, 0);
  return x * x + y * y + z * z;
}
