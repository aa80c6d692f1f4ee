import type { ClosedMesh } from './mesh';

/** Triangles that need not enclose anything: a wall, a panel, or a whole body. */
export type Surface = Pick<ClosedMesh, 'positions' | 'triangles'>;

/**
 * A surface sorted into nested boxes, so that far parts of it need not be
 * looked at. Boxes and triangles are numbered; box 0 holds all.
 */
export type BoxTree = {
  /** Centre and half size of each box [m], 6 a box: cx, cy, cz, hx, hy, hz. */
  readonly boxes: Float64Array;
  /** First of two inner boxes, the other follows it; 0 for a box of triangles. */
  readonly inner: Int32Array;
  /** First triangle and how many, 2 a box. */
  readonly span: Int32Array;
  /** Corners in the order of the tree [m], 9 a triangle. */
  readonly corners: Float64Array;
  /** Box round each triangle [m], 6 a triangle: least x, y, z, then most. */
  readonly bounds: Float64Array;
  /** The number that each triangle has in the surface. */
  readonly numbers: Uint32Array;
};

/** A box of so few triangles is not divided further. */
const LEAF = 2;

/** Sorts a surface by halving the triangles across the longest side of their centres' box. */
export function boxTree({ positions, triangles }: Surface): BoxTree {
  const count = triangles.length / 3;
  if (count === 0) throw new Error('a surface without triangles has no tree');
  const centres = new Float64Array(3 * count);
  for (let t = 0; t < count; t++) {
    for (let k = 0; k < 3; k++) centres[3 * t + k] = (positions[3 * triangles[3 * t]! + k]! + positions[3 * triangles[3 * t + 1]! + k]! + positions[3 * triangles[3 * t + 2]! + k]!) / 3;
  }
  const numbers = Uint32Array.from({ length: count }, (_, t) => t);
  const most = 2 * count;
  const boxes = new Float64Array(6 * most);
  const inner = new Int32Array(most);
  const span = new Int32Array(2 * most);
  let made = 1;
  const pending: [number, number, number][] = [[0, 0, count]];
  while (pending.length > 0) {
    const [box, from, to] = pending.pop()!;
    span[2 * box] = from;
    span[2 * box + 1] = to - from;
    enclose(boxes, box, positions, triangles, numbers, from, to);
    if (to - from <= LEAF) continue;
    halve(centres, numbers, from, to);
    const middle = (from + to) >> 1;
    inner[box] = made;
    pending.push([made, from, middle], [made + 1, middle, to]);
    made += 2;
  }
  const corners = new Float64Array(9 * count);
  numbers.forEach((number, t) => {
    for (let c = 0; c < 3; c++) for (let k = 0; k < 3; k++) corners[9 * t + 3 * c + k] = positions[3 * triangles[3 * number + c]! + k]!;
  });
  return { boxes: boxes.slice(0, 6 * made), inner: inner.slice(0, made), span: span.slice(0, 2 * made), corners, bounds: triangleBounds(corners), numbers };
}

/** Boxes round triangles given by their corners, 9 numbers a triangle; least x, y, z and most x, y, z of each. */
export function triangleBounds(corners: Float64Array, bounds: Float64Array = new Float64Array((corners.length / 9) * 6)): Float64Array {
  for (let i = 0, b = 0; i < corners.length; i += 9, b += 6) {
    for (let k = 0; k < 3; k++) {
      const p = corners[i + k]!, q = corners[i + 3 + k]!, r = corners[i + 6 + k]!;
      bounds[b + k] = p < q ? (p < r ? p : r) : q < r ? q : r;
      bounds[b + 3 + k] = p > q ? (p > r ? p : r) : q > r ? q : r;
    }
  }
  return bounds;
}

function enclose(boxes: Float64Array, box: number, positions: Float64Array, triangles: Uint32Array, numbers: Uint32Array, from: number, to: number): void {
  for (let k = 0; k < 3; k++) {
    let [min, max] = [Infinity, -Infinity];
    for (let t = from; t < to; t++) {
      for (let c = 0; c < 3; c++) {
        const value = positions[3 * triangles[3 * numbers[t]! + c]! + k]!;
        if (value < min) min = value;
        if (value > max) max = value;
      }
    }
    boxes[6 * box + k] = (min + max) / 2;
    boxes[6 * box + 3 + k] = (max - min) / 2;
  }
}

/** Puts the lower half of the centres, along their longest spread, before the upper. */
function halve(centres: Float64Array, numbers: Uint32Array, from: number, to: number): void {
  let axis = 0;
  let widest = -1;
  for (let k = 0; k < 3; k++) {
    let [min, max] = [Infinity, -Infinity];
    for (let t = from; t < to; t++) {
      const value = centres[3 * numbers[t]! + k]!;
      min = Math.min(min, value);
      max = Math.max(max, value);
    }
    if (max - min > widest) [axis, widest] = [k, max - min];
  }
  select(numbers, from, to - 1, (from + to) >> 1, (number) => centres[3 * number + axis]!);
}

/**
 * Puts the entry that belongs at a place there, the lower ones before it.
 * @source C. A. R. Hoare, "Algorithm 65: find", Communications of the ACM 4 (1961)
 */
function select(numbers: Uint32Array, from: number, to: number, place: number, key: (number: number) => number): void {
  let [low, high] = [from, to];
  while (low < high) {
    const pivot = key(numbers[place]!);
    let [i, j] = [low, high];
    while (i <= j) {
      while (key(numbers[i]!) < pivot) i++;
      while (pivot < key(numbers[j]!)) j--;
      if (i > j) break;
      const kept = numbers[i]!;
      numbers[i++] = numbers[j]!;
      numbers[j--] = kept;
    }
    if (j < place) low = i;
    if (place < i) high = j;
  }
}

const trees = new WeakMap<Surface, BoxTree>();

/** The tree of a surface that does not change, made when it is first asked for. */
export function treeOf(surface: Surface): BoxTree {
  const known = trees.get(surface);
  if (known) return known;
  const tree = boxTree(surface);
  trees.set(surface, tree);
  return tree;
}
