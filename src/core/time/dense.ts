/** A square matrix by rows, one after the other. */
export type Square = { readonly size: number; readonly values: Float64Array };

/** A square matrix of nothing but zeros. */
export const squareOf = (size: number): Square => ({ size, values: new Float64Array(size * size) });

export type Factors = { /** Solves for a right side. */ readonly solve: (right: Float64Array) => Float64Array };

/**
 * Factors of a small full matrix, by Gauss with the largest pivot of each column. A general library gives the same
 * (`dense.test.ts`) and takes longer to make room than to solve: some ten unknowns, thousands of times.
 *
 * @param matrix is written over
 * @returns undefined where it is singular
 */
export function factored({ size, values }: Square): Factors | undefined {
  const order = Int32Array.from({ length: size }, (_, row) => row);
  for (let step = 0; step < size; step++) {
    let pivot = step;
    for (let row = step + 1; row < size; row++)
      if (Math.abs(values[row * size + step]!) > Math.abs(values[pivot * size + step]!)) pivot = row;
    const largest = values[pivot * size + step]!;
    if (largest === 0 || !Number.isFinite(largest)) return undefined;
    if (pivot !== step) {
      for (let c = 0; c < size; c++) {
        const kept = values[pivot * size + c]!;
        values[pivot * size + c] = values[step * size + c]!;
        values[step * size + c] = kept;
      }
      [order[pivot], order[step]] = [order[step]!, order[pivot]!];
    }
    for (let row = step + 1; row < size; row++) {
      const share = (values[row * size + step]! /= largest);
      if (share !== 0)
        for (let c = step + 1; c < size; c++) values[row * size + c]! -= share * values[step * size + c]!;
    }
  }
  return {
    solve: (right) => {
      const x = new Float64Array(size);
      for (let row = 0; row < size; row++) {
        let sum = right[order[row]!]!;
        for (let c = 0; c < row; c++) sum -= values[row * size + c]! * x[c]!;
        x[row] = sum;
      }
      for (let row = size - 1; row >= 0; row--) {
        let sum = x[row]!;
        for (let c = row + 1; c < size; c++) sum -= values[row * size + c]! * x[c]!;
        x[row] = sum / values[row * size + row]!;
      }
      return x;
    },
  };
}
