/**
 * How a symmetric positive definite system with few entries a row is best
 * eliminated, such as the node equations of a network: the order is found once,
 * and every later factorisation is one pass over a list of products.
 */
export type SparseShape = {
  readonly size: number;
  /** The step at which each unknown is eliminated: its place on the diagonal and in the right side. */
  readonly step: Int32Array;
  /** Where the entry between two unknowns lies among those below the diagonal. */
  readonly entry: (i: number, j: number) => number;
  /** Where each step's column begins among the entries below the diagonal, fill included, and the rows of these. */
  readonly starts: Int32Array;
  readonly rows: Int32Array;
  /** Entries that the products of a column's entries are taken from, in the order of the pairs. */
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
  const targets = new Int32Array(ordered.reduce((sum, { length }) => sum + (length * (length - 1)) / 2, 0));
  let at = 0;
  for (const column of ordered) {
    for (let a = 0; a < column.length; a++) for (let b = 0; b < a; b++) targets[at++] = placeIn(column[b]!, column[a]!);
  }
  const entry = (i: number, j: number): number =>
    step[i]! < step[j]! ? placeIn(step[i]!, step[j]!) : placeIn(step[j]!, step[i]!);
  return { size, step, entry, starts, rows, targets };
}

/**
 * Unknowns by the number of neighbours that they have left; of as many, the one that has stood so longest, which fills
 * in a little less than the last.
 */
function byDegree(neighbours: readonly Set<number>[]): { least: () => number; moved: (unknown: number) => void } {
  const buckets: { unknowns: number[]; head: number }[] = [];
  const done = new Uint8Array(neighbours.length);
  const put = (unknown: number): void => {
    const degree = neighbours[unknown]!.size;
    (buckets[degree] ??= { unknowns: [], head: 0 }).unknowns.push(unknown);
  };
  neighbours.forEach((_, unknown) => put(unknown));
  return {
    moved: put,
    least: () => {
      for (let degree = 0; ; degree++) {
        const bucket = buckets[degree];
        while (bucket && bucket.head < bucket.unknowns.length) {
          const unknown = bucket.unknowns[bucket.head++]!;
          // Stands in the bucket of every degree it has had; only the last one counts.
          if (done[unknown] || neighbours[unknown]!.size !== degree) continue;
          done[unknown] = 1;
          return unknown;
        }
      }
    },
  };
}
