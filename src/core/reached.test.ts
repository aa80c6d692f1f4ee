import fc from 'fast-check';
import { expect, it } from 'vitest';
import { DisjointSets } from './geometry';
import { reached } from './reached';

it('reaches what union and find puts into the sets of the starts', () => {
  const number = fc.nat(19);
  fc.assert(
    fc.property(
      fc.array(fc.tuple(number, number), { maxLength: 30 }),
      fc.array(number, { maxLength: 3 }),
      (pairs, starts) => {
        const sets = new DisjointSets(20);
        for (const [a, b] of pairs) sets.join(a, b);
        const roots = new Set(starts.map((start) => sets.root(start)));
        const expected = Array.from({ length: 20 }, (_, i) => i).filter((i) => roots.has(sets.root(i)));
        expect([...reached(starts, pairs)].sort((a, b) => a - b)).toEqual(expected);
      },
    ),
    { seed: 1, numRuns: 200 },
  );
});
