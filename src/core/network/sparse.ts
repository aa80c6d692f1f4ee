/**
 * Symmetric positive definite systems with few entries a row, such as the node
 * equations of a network: the order of elimination is found once, and every
 * later factorisation is one pass over a list of updates.
 */
export type SparseShape = {
  readonly size: number;
  /** The step at which each unknown is eliminated: its place on the diagonal and in the right side. */
  readonly step: Int32Array;
  /** Where the entry between two unknowns lies among the values. */
  readonly entry: (i: number, j: number) => number;
  /** Number of values: the diagonal, then the columns below it one after the other, fill included. */
  readonly values: number;
  /** Where each step's column begins among the values, and the rows of its entries. */
  readonly starts: Int32Array;
  readonly rows: Int32Array;
  /** Values that the products of a column's entries are taken from, in the order of the pairs. */
  readonly targets: Int32Array;
};

/**
 * Finds an order of elimination that fills in little, and what it fills.
 *
 * @param size  number of unknowns
 * @param pairs unknowns that share an equation, as [i, j, i, j, …]
 * @source minimum degree: A. George and J. Liu, SIAM Review 31 (1989)
 */
export function sparseShape(size: number, pairs: Int32Array): SparseShape {
  const neighbours = Array.from({ length: size }, () => new Set<number>());
  for (let p = 0; p < pairs.length; p += 2) {
    const [i, j] = [pairs[p]!, pairs[p + 1]!];
    if (i !== j) {
      neighbours[i]!.add(j);
      neighbours[j]!.add(i);
    }
  }
  const step = new Int32Array(size);
  const columns: number[][] = [];
  const queue = byDegree(neighbours);
  for (let turn = 0; turn < size; turn++) {
    const pivot = queue.least();
    const column = [...neighbours[pivot]!];
    step[pivot] = turn;
    columns.push(column);
    for (let a = 0; a < column.length; a++) {
      const of = neighbours[column[a]!]!;
      of.delete(pivot);
      for (let b = 0; b < a; b++) {
        of.add(column[b]!);
        neighbours[column[b]!]!.add(column[a]!);
      }
    }
    for (const row of column) queue.moved(row);
  }
  return laidOut(size, step, columns);
}

/** Numbers rows by their step and lists where each product of a factorisation goes. */
function laidOut(size: number, step: Int32Array, columns: readonly number[][]): SparseShape {
  const starts = new Int32Array(size + 1);
  starts[0] = size;
  const ordered = columns.map((column, k) => {
    starts[k + 1] = starts[k]! + column.length;
    return Int32Array.from(column, (unknown) => step[unknown]!).sort();
  });
  const rows = new Int32Array(starts[size]!);
  ordered.forEach((column, k) => rows.set(column, starts[k]));
  /** Place of each row in the column of the step at hand. */
  const placeIn = (k: number, row: number): number => {
    let [low, high] = [starts[k]!, starts[k + 1]! - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (rows[middle]! < row) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  const targets = new Int32Array(ordered.reduce((sum, { length }) => sum + (length * (length + 1)) / 2, 0));
  let at = 0;
  for (const column of ordered) {
    for (let a = 0; a < column.length; a++) {
      // Rows rise, so that those of the column of row b that are looked for come one after the other.
      for (let b = 0; b < a; b++) targets[at++] = placeIn(column[b]!, column[a]!);
      targets[at++] = column[a]!;
    }
  }
  const entry = (i: number, j: number): number => {
    const [a, b] = [step[i]!, step[j]!];
    return a === b ? a : a < b ? placeIn(a, b) : placeIn(b, a);
  };
  return { size, step, entry, values: starts[size]!, starts, rows, targets };
}

/** Unknowns by the number of neighbours that they have left. */
function byDegree(neighbours: readonly Set<number>[]): { least: () => number; moved: (unknown: number) => void } {
  const buckets: number[][] = [];
  const done = new Uint8Array(neighbours.length);
  const put = (unknown: number): void => {
    const degree = neighbours[unknown]!.size;
    (buckets[degree] ??= []).push(unknown);
  };
  neighbours.forEach((_, unknown) => put(unknown));
  return {
    moved: put,
    least: () => {
      for (let degree = 0; ; degree++) {
        const bucket = buckets[degree];
        for (let unknown = bucket?.pop(); unknown !== undefined; unknown = bucket?.pop()) {
          // Stands in the bucket of every degree it has had; only the last one counts.
          if (done[unknown] || neighbours[unknown]!.size !== degree) continue;
          done[unknown] = 1;
          return unknown;
        }
      }
    },
  };
}

/**
 * Factors in place, L D Lᵀ.
 * @returns false when the matrix is not positive definite
 * @source G. Golub and C. Van Loan, Matrix Computations, section 4.1
 */
export function factorSparse({ size, starts, targets }: SparseShape, values: Float64Array): boolean {
  let target = 0;
  for (let step = 0; step < size; step++) {
    const diagonal = values[step]!;
    if (!(diagonal > 0) || diagonal === Infinity) return false;
    const from = starts[step]!;
    const to = starts[step + 1]!;
    const inverse = 1 / diagonal;
    for (let a = from; a < to; a++) {
      const scaled = values[a]! * inverse;
      for (let b = from; b < a; b++) values[targets[target++]!]! -= scaled * values[b]!;
      values[targets[target++]!]! -= scaled * values[a]!;
    }
    for (let a = from; a < to; a++) values[a]! *= inverse;
  }
  return true;
}

/** Solves with a factored matrix; the right side, by step, becomes the solution. */
export function solveSparse({ size, starts, rows }: SparseShape, values: Float64Array, right: Float64Array): void {
  for (let step = 0; step < size; step++) {
    const known = right[step]!;
    const to = starts[step + 1]!;
    for (let a = starts[step]!; a < to; a++) right[rows[a]!]! -= values[a]! * known;
  }
  for (let step = size - 1; step >= 0; step--) {
    let sum = right[step]! / values[step]!;
    const to = starts[step + 1]!;
    for (let a = starts[step]!; a < to; a++) sum -= values[a]! * right[rows[a]!]!;
    right[step] = sum;
  }
}
