/** A can that is carried, and what lifting, pouring and capping one takes. Common practice: 4 to 5 minutes a can. */
export const USUAL_CAN = { can_m3: 20e-3, each_s: 270 } as const;

/** Moved by hand: how many lifts, and how long they take. */
export type ByHand = { readonly cans: number; readonly time_s: number };

/**
 * What it takes to move a volume in cans; the last one may be part full.
 *
 * @param volume_m3 >= 0
 * @param can_m3    > 0, of one can
 * @param each_s    > 0, of one can from lift to cap
 */
export function byHand(
  volume_m3: number,
  { can_m3, each_s }: { readonly can_m3: number; readonly each_s: number } = USUAL_CAN,
): ByHand {
  // A volume that is so many cans to rounding is so many.
  const cans = Math.max(0, Math.ceil(volume_m3 / can_m3 - 1e-9));
  return { cans, time_s: cans * each_s };
}
