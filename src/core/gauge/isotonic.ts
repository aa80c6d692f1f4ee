/**
 * The rising sequence nearest to a measured one: least squares under the one
 * condition that it never falls, by pooling neighbours that do.
 *
 * @param values  measured, in order
 * @param weights above 0, as many
 * @returns as many values, never falling
 * @source R. E. Barlow et al., Statistical Inference under Order Restrictions (1972): pool adjacent violators
 */
export function isotonic(values: ArrayLike<number>, weights?: ArrayLike<number>): Float64Array {
  const count = values.length;
  const level = new Float64Array(count);
  const weight = new Float64Array(count);
  const ends = new Int32Array(count);
  let blocks = 0;
  for (let i = 0; i < count; i++) {
    level[blocks] = values[i]!;
    weight[blocks] = weights ? weights[i]! : 1;
    ends[blocks] = i + 1;
    blocks++;
    while (blocks > 1 && level[blocks - 2]! > level[blocks - 1]!) {
      const both = weight[blocks - 2]! + weight[blocks - 1]!;
      level[blocks - 2] = (level[blocks - 2]! * weight[blocks - 2]! + level[blocks - 1]! * weight[blocks - 1]!) / both;
      weight[blocks - 2] = both;
      ends[blocks - 2] = ends[blocks - 1]!;
      blocks--;
    }
  }
  const fitted = new Float64Array(count);
  for (let block = 0, from = 0; block < blocks; block++) {
    fitted.fill(level[block]!, from, ends[block]);
    from = ends[block]!;
  }
  return fitted;
}
