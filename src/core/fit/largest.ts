import { boxMesh, separation, shiftBy, treeOf, type Surface, type Vec3 } from '../geometry';

/** A box along the vehicle's axes [m]. */
export type FreeBox = { readonly min: Vec3; readonly max: Vec3 };

/** Volume of a box along the axes [m³]. */
export const boxVolume_m3 = ({ min, max }: FreeBox): number =>
  (max[0] - min[0]) * (max[1] - min[1]) * (max[2] - min[2]);

/**
 * What bounds the search: surfaces that a box must stay clear of, by how much each, and a closed space it must lie in.
 */
export type FreeSpace = {
  readonly within: { readonly min: Vec3; readonly max: Vec3 };
  readonly isInside: (point: Vec3) => boolean;
  readonly clear: readonly { readonly surface: Surface; readonly keep_m: number }[];
};

/** The space is looked at in so many cells along its longest side. */
const CELLS = 36;

type Grid = {
  readonly counts: readonly [number, number, number];
  readonly cell_m: readonly [number, number, number];
  readonly free: Uint8Array;
  readonly min: Vec3;
};

/** Cells of a space that are free with what is to be kept: a cell counts when all of it is. */
function gridOf({ within, isInside, clear }: FreeSpace): Grid {
  const size = [0, 1, 2].map((k) => within.max[k]! - within.min[k]!);
  const cell = Math.max(...size) / CELLS;
  const counts = size.map((length) => Math.max(4, Math.round(length / cell))) as unknown as readonly [
    number,
    number,
    number,
  ];
  const cell_m = size.map((length, k) => length / counts[k]!) as unknown as readonly [number, number, number];
  const free = new Uint8Array(counts[0] * counts[1] * counts[2]);
  const probe = treeOf(boxMesh(...(cell_m as [number, number, number])));
  const trees = clear.map(({ surface, keep_m }) => ({ tree: treeOf(surface), keep_m }));
  for (let i = 0; i < counts[0]; i++) {
    for (let j = 0; j < counts[1]; j++) {
      for (let k = 0; k < counts[2]; k++) {
        const at: Vec3 = [within.min[0] + i * cell_m[0], within.min[1] + j * cell_m[1], within.min[2] + k * cell_m[2]];
        const middle: Vec3 = [at[0] + cell_m[0] / 2, at[1] + cell_m[1] / 2, at[2] + cell_m[2] / 2];
        const clearOf = trees.every(
          ({ tree, keep_m }) =>
            separation(tree, probe, shiftBy(at), Math.max(keep_m, 1e-9), Math.max(keep_m, 1e-9)) === undefined,
        );
        free[(i * counts[1] + j) * counts[2] + k] = clearOf && isInside(middle) ? 1 : 0;
      }
    }
  }
  return { counts, cell_m, free, min: within.min };
}

/**
 * The largest box of free cells: for every run of layers the largest
 * rectangle of cells that are free in all of them.
 * @source largest rectangle under a histogram by a stack: D. Gries, The Science of Programming (1981)
 */
function largestCells({ counts, cell_m, free, min }: Grid): FreeBox | undefined {
  const [ni, nj, nk] = counts;
  let best: FreeBox | undefined;
  let most = 0;
  for (let from = 0; from < nk; from++) {
    const open = new Uint8Array(ni * nj).fill(1);
    for (let to = from; to < nk; to++) {
      for (let c = 0; c < ni * nj; c++) open[c] = open[c]! & free[c * nk + to]!;
      const found = largestRectangle(open, ni, nj, cell_m[0], cell_m[1]);
      if (!found) break;
      const volume = found.area * (to - from + 1) * cell_m[2];
      if (volume <= most) continue;
      most = volume;
      best = {
        min: [min[0] + found.i0 * cell_m[0], min[1] + found.j0 * cell_m[1], min[2] + from * cell_m[2]],
        max: [min[0] + found.i1 * cell_m[0], min[1] + found.j1 * cell_m[1], min[2] + (to + 1) * cell_m[2]],
      };
    }
  }
  return best;
}

function largestRectangle(
  open: Uint8Array,
  ni: number,
  nj: number,
  di: number,
  dj: number,
): { i0: number; i1: number; j0: number; j1: number; area: number } | undefined {
  const run = new Int32Array(nj);
  let best: { i0: number; i1: number; j0: number; j1: number; area: number } | undefined;
  for (let i = 0; i < ni; i++) {
    for (let j = 0; j < nj; j++) run[j] = open[i * nj + j] ? run[j]! + 1 : 0;
    const stack: number[] = [];
    for (let j = 0; j <= nj; j++) {
      const height = j < nj ? run[j]! : 0;
      while (stack.length > 0 && run[stack[stack.length - 1]!]! >= height) {
        const tall = run[stack.pop()!]!;
        const left = stack.length > 0 ? stack[stack.length - 1]! + 1 : 0;
        const area = tall * di * (j - left) * dj;
        if (tall > 0 && area > (best?.area ?? 0)) best = { i0: i - tall + 1, i1: i + 1, j0: left, j1: j, area };
      }
      stack.push(j);
    }
  }
  return best;
}

/** Faces are moved out by steps down to this [m]. */
const FINE_M = 5e-4;

/**
 * The largest box along the vehicle's axes that keeps clear of everything.
 * Found on a grid, then each face is moved out as far as it goes, and pairs
 * of faces are traded against each other while that gains volume.
 */
export function largestBox(space: FreeSpace): FreeBox | undefined {
  const start = largestCells(gridOf(space));
  if (!start) return undefined;
  let box = start;
  for (let step = 0.02; step >= FINE_M; step /= 2) {
    for (let gained = true; gained;) {
      gained = false;
      for (const other of neighbours(box, step)) {
        if (boxVolume_m3(other) <= boxVolume_m3(box) || !isFree(other, space)) continue;
        box = other;
        gained = true;
      }
    }
  }
  return box;
}

/** A box with one face moved out, or one out and another in. */
function neighbours({ min, max }: FreeBox, step: number): FreeBox[] {
  const moved = (changes: readonly (readonly [face: number, by: number])[]): FreeBox => {
    const [low, high] = [[...min], [...max]] as [number[], number[]];
    for (const [face, by] of changes) {
      if (face < 3) low[face]! -= by;
      else high[face - 3]! += by;
    }
    return { min: low as unknown as Vec3, max: high as unknown as Vec3 };
  };
  const faces = [0, 1, 2, 3, 4, 5];
  return [
    ...faces.map((face) => moved([[face, step]])),
    ...faces.flatMap((out) =>
      faces
        .filter((face) => face !== out)
        .map((face) =>
          moved([
            [out, step],
            [face, -step / 2],
          ]),
        ),
    ),
    ...faces.flatMap((out) =>
      faces
        .filter((face) => face !== out)
        .map((face) =>
          moved([
            [out, 2 * step],
            [face, -step / 2],
          ]),
        ),
    ),
  ].filter((box) => box.max.every((value, k) => value - box.min[k]! > step));
}

function isFree({ min, max }: FreeBox, { within, isInside, clear }: FreeSpace): boolean {
  if (min.some((value, k) => value < within.min[k]! - 1e-9) || max.some((value, k) => value > within.max[k]! + 1e-9))
    return false;
  const tree = treeOf(boxMesh(max[0] - min[0], max[1] - min[1], max[2] - min[2]));
  const swallows = (surface: Surface): boolean =>
    [0, 1, 2].every(
      (k) =>
        surface.positions[3 * surface.triangles[0]! + k]! > min[k]! &&
        surface.positions[3 * surface.triangles[0]! + k]! < max[k]!,
    );
  return (
    isInside([(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2]) &&
    clear.every(
      ({ surface, keep_m }) =>
        !swallows(surface) &&
        separation(treeOf(surface), tree, shiftBy(min), Math.max(keep_m, 1e-9), Math.max(keep_m, 1e-9)) === undefined,
    )
  );
}
