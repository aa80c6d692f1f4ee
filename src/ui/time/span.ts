/** From when to when something is shown [s]. */
export type Span = readonly [from_s: number, to_s: number];

/** So much time about a moment, within a course. */
export function spanAbout(at_s: number, long_s: number, duration_s: number): Span {
  const long = Math.min(duration_s, long_s);
  const from_s = Math.min(Math.max(0, at_s - long / 2), duration_s - long);
  return [from_s, from_s + long];
}

/** The same span moved so far that a moment is in it. */
export const spanWith = ([from_s, to_s]: Span, at_s: number, duration_s: number): Span =>
  at_s >= from_s && at_s <= to_s ? [from_s, to_s] : spanAbout(at_s, to_s - from_s, duration_s);
