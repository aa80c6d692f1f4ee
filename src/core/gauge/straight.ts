/**
 * Straight between points, held beyond the first and last.
 * @param at rising, as many as `values`, at least one
 */
export function straight(at: ArrayLike<number>, values: ArrayLike<number>, where: number): number {
  const count = at.length;
  if (where <= at[0]!) return values[0]!;
  if (where >= at[count - 1]!) return values[count - 1]!;
  let [low, high] = [0, count - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (at[middle]! <= where) low = middle;
    else high = middle;
  }
  const width = at[high]! - at[low]!;
  return width > 0 ? values[low]! + ((values[high]! - values[low]!) * (where - at[low]!)) / width : values[high]!;
}
