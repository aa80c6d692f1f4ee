/**
 * All that hangs together with the starts over the given pairs, both ways.
 * @returns the starts and whatever is joined to them, in the order in which it is reached
 */
export function reached<T>(starts: Iterable<T>, pairs: Iterable<readonly [T, T]>): Set<T> {
  const joined = new Map<T, T[]>();
  const join = (a: T, b: T): void => {
    const of = joined.get(a);
    if (of) of.push(b);
    else joined.set(a, [b]);
  };
  for (const [a, b] of pairs) {
    join(a, b);
    join(b, a);
  }
  const seen = new Set(starts);
  // A set is walked in the order of insertion, what is added on the way included.
  for (const at of seen) for (const next of joined.get(at) ?? []) seen.add(next);
  return seen;
}

/** All that is come to from the starts by going along pairs the way they are written. */
export function reachedAlong<T>(starts: Iterable<T>, pairs: Iterable<readonly [T, T]>): Set<T> {
  const onward = new Map<T, T[]>();
  for (const [a, b] of pairs) onward.set(a, [...(onward.get(a) ?? []), b]);
  const seen = new Set(starts);
  for (const at of seen) for (const next of onward.get(at) ?? []) seen.add(next);
  return seen;
}
