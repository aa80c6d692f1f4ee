import { derived } from '../memo';
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

/** Sorts a surface by halving the triangles across the longest side of their middles' box. */
export function boxTree({ positions, triangles }: Surface): BoxTree {
  const count = triangles.length / 3;
  if (count === 0) throw new Error('a surface without triangles has no tree');
  const unsorted = new Float64Array(9 * count);
  for (let i = 0; i < triangles.length; i++) {
    const from = 3 * triangles[i]!;
    unsorted[3 * i] = positions[from]!;
    unsorted[3 * i + 1] = positions[from + 1]!;
    unsorted[3 * i + 2] = positions[from + 2]!;
  }
  const loose = triangleBounds(unsorted);
  const numbers = new Uint32Array(count);
  const middles = [new Float64Array(count), new Float64Array(count), new Float64Array(count)] as const;
  for (let t = 0; t < count; t++) {
    numbers[t] = t;
    for (let k = 0; k < 3; k++) middles[k]![t] = loose[6 * t + k]! + loose[6 * t + 3 + k]!;
  }
  const most = 2 * count;
  const inner = new Int32Array(most);
  const span = new Int32Array(2 * most);
  let made = 1;
  const pending = [0, 0, count];
  while (pending.length > 0) {
    const to = pending.pop()!;
    const from = pending.pop()!;
    const box = pending.pop()!;
    span[2 * box] = from;
    span[2 * box + 1] = to - from;
    if (to - from <= LEAF) continue;
    const middle = (from + to) >> 1;
    const axis = widestAxis(middles, from, to);
    select(numbers, middles[axis]!, middles[(axis + 1) % 3]!, middles[(axis + 2) % 3]!, from, to - 1, middle);
    inner[box] = made;
    pending.push(made, from, middle, made + 1, middle, to);
    made += 2;
  }
  const corners = new Float64Array(9 * count);
  const bounds = new Float64Array(6 * count);
  for (let t = 0; t < count; t++) {
    const from = numbers[t]!;
    for (let k = 0; k < 9; k++) corners[9 * t + k] = unsorted[9 * from + k]!;
    for (let k = 0; k < 6; k++) bounds[6 * t + k] = loose[6 * from + k]!;
  }
  return {
    boxes: boxesOf(made, inner, span, bounds),
    inner: inner.slice(0, made),
    span: span.slice(0, 2 * made),
    corners,
    bounds,
    numbers,
  };
}

/** Boxes round triangles given by their corners, 9 numbers a triangle; least x, y, z and most x, y, z of each. */
export function triangleBounds(
  corners: Float64Array,
  bounds: Float64Array = new Float64Array((corners.length / 9) * 6),
): Float64Array {
  for (let i = 0, b = 0; i < corners.length; i += 9, b += 6) {
    for (let k = 0; k < 3; k++) {
      const p = corners[i + k]!,
        q = corners[i + 3 + k]!,
        r = corners[i + 6 + k]!;
      bounds[b + k] = p < q ? (p < r ? p : r) : q < r ? q : r;
      bounds[b + 3 + k] = p > q ? (p > r ? p : r) : q > r ? q : r;
    }
  }
  return bounds;
}

/** From the innermost out: each box holds its two inner ones, or its triangles. */
function boxesOf(made: number, inner: Int32Array, span: Int32Array, bounds: Float64Array): Float64Array {
  const ends = new Float64Array(6 * made);
  for (let box = made - 1; box >= 0; box--) {
    const within = inner[box]!;
    const [from, first, count] = within > 0 ? [ends, within, 2] : [bounds, span[2 * box]!, span[2 * box + 1]!];
    for (let k = 0; k < 3; k++) {
      let least = from[6 * first + k]!;
      let most = from[6 * first + 3 + k]!;
      for (let i = 6 * (first + 1) + k; i < 6 * (first + count); i += 6) {
        if (from[i]! < least) least = from[i]!;
        if (from[i + 3]! > most) most = from[i + 3]!;
      }
      ends[6 * box + k] = least;
      ends[6 * box + 3 + k] = most;
    }
  }
  for (let i = 0; i < ends.length; i += 6)
    for (let k = i; k < i + 3; k++) {
      const [least, most] = [ends[k]!, ends[k + 3]!];
      ends[k] = (least + most) / 2;
      ends[k + 3] = (most - least) / 2;
    }
  return ends;
}

/** The axis along which the triangles' middles (twice over) spread furthest. */
function widestAxis(middles: readonly Float64Array[], from: number, to: number): number {
  let axis = 0;
  let widest = -1;
  for (let k = 0; k < 3; k++) {
    const along = middles[k]!;
    let min = Infinity;
    let max = -Infinity;
    for (let t = from; t < to; t++) {
      const middle = along[t]!;
      if (middle < min) min = middle;
      if (middle > max) max = middle;
    }
    if (max - min > widest) {
      axis = k;
      widest = max - min;
    }
  }
  return axis;
}

/**
 * Puts the triangle that belongs at a place by its key there, those of lower
 * keys before it; its other middles go with it.
 * @source C. A. R. Hoare, "Algorithm 65: find", Communications of the ACM 4 (1961)
 */
function select(
  numbers: Uint32Array,
  keys: Float64Array,
  second: Float64Array,
  third: Float64Array,
  from: number,
  to: number,
  place: number,
): void {
  let low = from;
  let high = to;
  while (low < high) {
    const pivot = keys[place]!;
    let i = low;
    let j = high;
    while (i <= j) {
      while (keys[i]! < pivot) i++;
      while (pivot < keys[j]!) j--;
      if (i > j) break;
      const [number, key, x, y] = [numbers[i]!, keys[i]!, second[i]!, third[i]!];
      numbers[i] = numbers[j]!;
      keys[i] = keys[j]!;
      second[i] = second[j]!;
      third[i] = third[j]!;
      numbers[j] = number;
      keys[j] = key;
      second[j] = x;
      third[j] = y;
      i++;
      j--;
    }
    if (j < place) low = i;
    if (place < i) high = j;
  }
}

/** The tree of a surface that does not change, made when it is first asked for. */
export const treeOf: (surface: Surface) => BoxTree = derived(boxTree);
