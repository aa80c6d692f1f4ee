/** A wheel or a coupling on its spring, seen from above. */
export type Spring = { readonly at_m: readonly [x: number, y: number]; readonly rate_NPerM: number };

/** Springs that lie within this of one line, of how far they reach, let what stands on them go over. */
const ON_LINE_REL = 1e-9;

/**
 * What each of some springs bears of one newton that presses on a stiff body at a place: they come to one, and one is
 * below zero where the body would pull it off the ground. Two axles share by their distances whatever their springs
 * are; more axles, and the two sides, by those.
 *
 * @param springs each with a rate over zero [N/m]
 * @returns undefined where the springs lie on a line, and nothing keeps the body from going over
 * @source statics of a stiff body on springs: forces and moments in balance, each force as its spring gives
 */
export function springShares(springs: readonly Spring[], at_m: readonly [number, number]): number[] | undefined {
  const whole = springs.reduce((sum, { rate_NPerM }) => sum + rate_NPerM, 0);
  const middle = ([0, 1] as const).map(
    (k) => springs.reduce((sum, { at_m: at, rate_NPerM }) => sum + rate_NPerM * at[k], 0) / whole,
  );
  const [cx, cy] = [middle[0]!, middle[1]!];
  let [xx, xy, yy] = [0, 0, 0];
  for (const { at_m: at, rate_NPerM } of springs) {
    const [x, y] = [at[0] - cx, at[1] - cy];
    xx += rate_NPerM * x * x;
    xy += rate_NPerM * x * y;
    yy += rate_NPerM * y * y;
  }
  const spread = xx * yy - xy * xy;
  if (!(spread > ON_LINE_REL * (xx + yy) ** 2)) return undefined;
  const [px, py] = [at_m[0] - cx, at_m[1] - cy];
  // How the body leans for each newton, along and across.
  const [along, across] = [(yy * px - xy * py) / spread, (xx * py - xy * px) / spread];
  return springs.map(
    ({ at_m: at, rate_NPerM }) => rate_NPerM * (1 / whole + along * (at[0] - cx) + across * (at[1] - cy)),
  );
}
