import { describe, expect, it } from 'vitest';
import { addedTo } from './added';

describe('what was added to a list', () => {
  it.each([
    [['a'], ['a', 'b'], 'b'],
    [['a', 'c'], ['a', 'b', 'c'], 'b'],
    [[], ['a'], 'a'],
    [['a'], ['a'], undefined],
    [['a', 'b'], ['a'], undefined],
    // Another tank's list is no addition, nor are several at once.
    [['a'], ['b', 'c'], undefined],
    [['a'], ['a', 'b', 'c'], undefined],
  ] as const)('%j, then %j: %s', (before, now, added) => {
    expect(addedTo(before, now)).toBe(added);
  });
});
