/** A stream of chance that is the same for the same seed. */
export type Chance = { readonly uniform: () => number; readonly normal: () => number };

/**
 * @param seed any whole number
 * @source M. E. O'Neill's and G. Steele's mixing by multiplication and shift, as the 32-bit generator "mulberry32" (T.
 * Ettinger, public domain); G. Box and M. Muller (1958) for the normal deviate
 */
export function seeded(seed: number): Chance {
  let state = seed >>> 0;
  const uniform = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
  return { uniform, normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()) };
}
