/** Six numbers of a rigid body: three of a force or shift, three of a moment or turn. */
export type Six = readonly [number, number, number, number, number, number];

/**
 * Solves six equations with a symmetric matrix; undefined where it is not
 * positive definite.
 * @source Cholesky's decomposition
 */
export function solveSix(matrix: readonly (readonly number[])[], right: Six): Six | undefined {
  const lower: number[][] = [];
  for (let i = 0; i < 6; i++) {
    const row: number[] = [];
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i]![j]!;
      for (let k = 0; k < j; k++) sum -= row[k]! * (i === j ? row[k]! : lower[j]![k]!);
      if (i === j && !(sum > 0)) return undefined;
      row.push(i === j ? Math.sqrt(sum) : sum / lower[j]![j]!);
    }
    lower.push(row);
  }
  const half: number[] = [];
  for (let i = 0; i < 6; i++) {
    let sum = right[i]!;
    for (let k = 0; k < i; k++) sum -= lower[i]![k]! * half[k]!;
    half.push(sum / lower[i]![i]!);
  }
  const whole: number[] = [0, 0, 0, 0, 0, 0];
  for (let i = 5; i >= 0; i--) {
    let sum = half[i]!;
    for (let k = i + 1; k < 6; k++) sum -= lower[k]![i]! * whole[k]!;
    whole[i] = sum / lower[i]![i]!;
  }
  return whole as unknown as Six;
}
