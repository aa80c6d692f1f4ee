/**
 * Solves a symmetric positive definite system by Cholesky's method, in place.
 *
 * @param matrix row-major n x n, overwritten by its factor
 * @returns the solution, or undefined when the matrix is not positive definite
 * @source G. Golub and C. Van Loan, Matrix Computations, section 4.2
 */
export function choleskySolve(matrix: Float64Array, right: Float64Array, n: number): Float64Array | undefined {
  for (let j = 0; j < n; j++) {
    for (let i = j; i < n; i++) {
      let sum = matrix[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= matrix[i * n + k]! * matrix[j * n + k]!;
      if (i === j && !(sum > 0)) return undefined;
      matrix[i * n + j] = i === j ? Math.sqrt(sum) : sum / matrix[j * n + j]!;
    }
  }
  const x = Float64Array.from(right);
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i]! -= matrix[i * n + k]! * x[k]!;
    x[i]! /= matrix[i * n + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i]! -= matrix[k * n + i]! * x[k]!;
    x[i]! /= matrix[i * n + i]!;
  }
  return x;
}
