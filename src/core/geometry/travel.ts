import { triangleBounds, type BoxTree } from './boxTree';
import { turned, type Pose } from './pose';
import { cross, unitVector, type Vec3 } from './vec';

/** First contact along a straight way, both points where the bodies stand now, in the outer frame [m]. */
export type Travel = { readonly travel_m: number; readonly onMoved: Vec3; readonly onMet: Vec3 };

/** Corners seen along the way: two across it, the third along it. */
type Seen = {
  readonly tree: BoxTree;
  readonly corners: Float64Array;
  readonly bounds: Float64Array;
  readonly boxes: Float64Array;
};

/** Projected outlines that overlap by less than this share of the bodies' size pass each other. */
const GRAZE_REL = 1e-9;

/**
 * How far a body may travel before it touches another, having come from far
 * away along the same straight way. Negative where it stands in the other's
 * way already: it must go back so far to be clear of it. Undefined where it
 * passes without touching.
 *
 * Exact for any two surfaces: the least height between them, seen along the
 * way, lies over a corner of one of them or where two edges cross.
 *
 * @param direction in the outer frame, not zero
 * @param least_m contacts before this are left out: 0 asks what a body that stands free meets next
 */
export function travel(
  moved: BoxTree,
  movedAt: Pose,
  met: BoxTree,
  metAt: Pose,
  direction: Vec3,
  least_m = -Infinity,
): Travel | undefined {
  const b = seenAgain(met, metAt, unitVector(direction));
  const { frame } = b;
  const a = seen(moved, movedAt, frame);
  const size = Math.max(
    ...[a, b].map(({ boxes }) => Math.abs(boxes[0]!) + Math.abs(boxes[1]!) + boxes[3]! + boxes[4]!),
  );
  const best: Best = { height: Infinity, x: 0, y: 0, zMoved: 0, zMet: 0, least: least_m, graze: GRAZE_REL * size };
  const pending: [number, number][] = [[0, 0]];
  while (pending.length > 0) {
    const [i, j] = pending.pop()!;
    if (!canMeet(a, i, b, j, best)) continue;
    const [innerA, innerB] = [moved.inner[i]!, met.inner[j]!];
    if (innerA === 0 && innerB === 0) triangles(a, i, b, j, best);
    else if (innerB === 0 || (innerA !== 0 && halfSize(a, i) >= halfSize(b, j)))
      pending.push([innerA, j], [innerA + 1, j]);
    else pending.push([i, innerB], [i, innerB + 1]);
  }
  if (best.height === Infinity) return undefined;
  const out = (z: number): Vec3 => turned({ axes: frame, origin_m: [0, 0, 0] }, [best.x, best.y, z]);
  return { travel_m: best.height, onMoved: out(best.zMoved), onMet: out(best.zMet) };
}

type Best = {
  height: number;
  x: number;
  y: number;
  zMoved: number;
  zMet: number;
  readonly least: number;
  readonly graze: number;
};

/** Two directions across the way, and the way. */
function frameAlong(direction: Vec3): readonly [Vec3, Vec3, Vec3] {
  const z = unitVector(direction);
  const x = unitVector(cross(Math.abs(z[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0], z));
  return [x, cross(z, x), z];
}

/**
 * What was seen of a tree lately, and along which way: one that stays while others move is looked at many times from a
 * few sides.
 */
type Looked = Seen & { readonly pose: Pose; readonly way: Vec3; readonly frame: readonly [Vec3, Vec3, Vec3] };
const lately = new WeakMap<BoxTree, Looked[]>();
/** So many ways are kept of a tree, and so many triangles in all. */
const MOST_KEPT = 48;
const MOST_TRIANGLES = 2e5;
/** Ways that differ by less are one: scaling a direction leaves so much of it to rounding. */
const SAME_WAY = 1e-14;

function seenAgain(tree: BoxTree, pose: Pose, way: Vec3): Looked {
  const before = lately.get(tree) ?? [];
  const known = before.find(
    (one) => one.pose === pose && one.way.every((value, k) => Math.abs(value - way[k]!) < SAME_WAY),
  );
  if (known) return known;
  const frame = frameAlong(way);
  const now = { ...seen(tree, pose, frame), pose, way, frame };
  lately.set(
    tree,
    [now, ...before].slice(0, Math.max(1, Math.min(MOST_KEPT, Math.floor(MOST_TRIANGLES / (tree.corners.length / 9))))),
  );
  return now;
}

function seen(tree: BoxTree, pose: Pose, frame: readonly [Vec3, Vec3, Vec3]): Seen {
  const turn = frame.map((to) => pose.axes.map((axis) => axis[0] * to[0] + axis[1] * to[1] + axis[2] * to[2]));
  const shift = frame.map((to) => pose.origin_m[0] * to[0] + pose.origin_m[1] * to[1] + pose.origin_m[2] * to[2]);
  const corners = new Float64Array(tree.corners.length);
  for (let i = 0; i < corners.length; i += 3) {
    for (let k = 0; k < 3; k++)
      corners[i + k] =
        turn[k]![0]! * tree.corners[i]! +
        turn[k]![1]! * tree.corners[i + 1]! +
        turn[k]![2]! * tree.corners[i + 2]! +
        shift[k]!;
  }
  const boxes = new Float64Array(tree.boxes.length);
  for (let i = 0; i < boxes.length; i += 6) {
    for (let k = 0; k < 3; k++) {
      boxes[i + k] =
        turn[k]![0]! * tree.boxes[i]! +
        turn[k]![1]! * tree.boxes[i + 1]! +
        turn[k]![2]! * tree.boxes[i + 2]! +
        shift[k]!;
      boxes[i + 3 + k] =
        Math.abs(turn[k]![0]!) * tree.boxes[i + 3]! +
        Math.abs(turn[k]![1]!) * tree.boxes[i + 4]! +
        Math.abs(turn[k]![2]!) * tree.boxes[i + 5]!;
    }
  }
  return { tree, corners, bounds: triangleBounds(corners), boxes };
}

const halfSize = ({ boxes }: Seen, i: number): number =>
  Math.max(boxes[6 * i + 3]!, boxes[6 * i + 4]!, boxes[6 * i + 5]!);

function canMeet(a: Seen, i: number, b: Seen, j: number, { height, least, graze }: Best): boolean {
  const [p, q] = [6 * i, 6 * j];
  for (let k = 0; k < 2; k++) {
    if (Math.abs(a.boxes[p + k]! - b.boxes[q + k]!) + graze >= a.boxes[p + 3 + k]! + b.boxes[q + 3 + k]!) return false;
  }
  const [middle, half] = [b.boxes[q + 2]! - a.boxes[p + 2]!, b.boxes[q + 5]! + a.boxes[p + 5]!];
  return middle - half < height && middle + half >= least;
}

function triangles(a: Seen, i: number, b: Seen, j: number, best: Best): void {
  const { span: sa } = a.tree;
  const { span: sb } = b.tree;
  for (let m = sa[2 * i]!; m < sa[2 * i]! + sa[2 * i + 1]!; m++) {
    for (let n = sb[2 * j]!; n < sb[2 * j]! + sb[2 * j + 1]!; n++) {
      if (boundsMeet(a.bounds, 6 * m, b.bounds, 6 * n, best)) overlay(a.corners, 9 * m, b.corners, 9 * n, best);
    }
  }
}

/** Whether two triangles' boxes leave it open that they meet sooner than what was found yet. */
const boundsMeet = (a: Float64Array, i: number, b: Float64Array, j: number, { height, least, graze }: Best): boolean =>
  a[i + 3]! - b[j]! > graze &&
  b[j + 3]! - a[i]! > graze &&
  a[i + 4]! - b[j + 1]! > graze &&
  b[j + 4]! - a[i + 1]! > graze &&
  b[j + 2]! - a[i + 5]! < height &&
  b[j + 5]! - a[i + 2]! >= least;

/** Corners of one over the other, and crossings of edges, where they really overlap as seen along the way. */
function overlay(a: Float64Array, i: number, b: Float64Array, j: number, best: Best): void {
  if (apart(a, i, b, j, best.graze) || apart(b, j, a, i, best.graze)) return;
  for (let k = 0; k < 9; k += 3) {
    const over = heightAt(b, j, a[i + k]!, a[i + k + 1]!);
    if (over !== undefined) keep(best, a[i + k]!, a[i + k + 1]!, a[i + k + 2]!, over);
    const under = heightAt(a, i, b[j + k]!, b[j + k + 1]!);
    if (under !== undefined) keep(best, b[j + k]!, b[j + k + 1]!, under, b[j + k + 2]!);
    for (let l = 0; l < 9; l += 3) edges(a, i + k, i + ((k + 3) % 9), b, j + l, j + ((l + 3) % 9), best);
  }
}

function keep(best: Best, x: number, y: number, zMoved: number, zMet: number): void {
  if (zMet - zMoved >= best.height || zMet - zMoved < best.least) return;
  Object.assign(best, { height: zMet - zMoved, x, y, zMoved, zMet });
}

/** Whether an edge of the first triangle, or its flatness, parts the two as seen along the way. */
function apart(a: Float64Array, i: number, b: Float64Array, j: number, graze: number): boolean {
  const turn = (a[i + 3]! - a[i]!) * (a[i + 7]! - a[i + 1]!) - (a[i + 4]! - a[i + 1]!) * (a[i + 6]! - a[i]!);
  const side = turn < 0 ? -1 : 1;
  for (let k = 0; k < 9; k += 3) {
    const [x, y] = [a[i + k]!, a[i + k + 1]!];
    const [ex, ey] = [a[i + ((k + 3) % 9)]! - x, a[i + ((k + 3) % 9) + 1]! - y];
    const length = Math.sqrt(ex * ex + ey * ey);
    if (length <= graze) continue;
    let most = -Infinity;
    for (let c = 0; c < 9; c += 3) most = Math.max(most, side * (ex * (b[j + c + 1]! - y) - ey * (b[j + c]! - x)));
    if (most <= graze * length) return true;
  }
  return false;
}

/** Height of a triangle over a point across the way; undefined beside it or where it stands on edge. */
function heightAt(b: Float64Array, j: number, x: number, y: number): number | undefined {
  const ux = b[j + 3]! - b[j]!,
    uy = b[j + 4]! - b[j + 1]!;
  const vx = b[j + 6]! - b[j]!,
    vy = b[j + 7]! - b[j + 1]!;
  const turn = ux * vy - uy * vx;
  if (turn === 0) return undefined;
  const wx = x - b[j]!,
    wy = y - b[j + 1]!;
  const alpha = (wx * vy - wy * vx) / turn;
  const beta = (ux * wy - uy * wx) / turn;
  if (alpha < 0 || beta < 0 || alpha + beta > 1) return undefined;
  return b[j + 2]! + alpha * (b[j + 5]! - b[j + 2]!) + beta * (b[j + 8]! - b[j + 2]!);
}

function edges(a: Float64Array, p: number, q: number, b: Float64Array, r: number, s: number, best: Best): void {
  const ux = a[q]! - a[p]!,
    uy = a[q + 1]! - a[p + 1]!;
  const vx = b[s]! - b[r]!,
    vy = b[s + 1]! - b[r + 1]!;
  const turn = ux * vy - uy * vx;
  if (turn === 0) return;
  const wx = b[r]! - a[p]!,
    wy = b[r + 1]! - a[p + 1]!;
  const m = (wx * vy - wy * vx) / turn;
  const n = (wx * uy - wy * ux) / turn;
  if (m < 0 || m > 1 || n < 0 || n > 1) return;
  keep(
    best,
    a[p]! + m * ux,
    a[p + 1]! + m * uy,
    a[p + 2]! + m * (a[q + 2]! - a[p + 2]!),
    b[r + 2]! + n * (b[s + 2]! - b[r + 2]!),
  );
}
