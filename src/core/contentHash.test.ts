import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { contentHash, hashOnce, mark } from './contentHash';

const turned = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(turned)
    : typeof value === 'object' && value !== null
      ? Object.fromEntries(
          Object.entries(value)
            .reverse()
            .map(([key, child]) => [key, turned(child)]),
        )
      : value;

describe('a hash of content', () => {
  it('is the same for what is equal: copied, its keys in another order, zero of either sign', () => {
    for (const name of ['crab-boat', 'snow-vehicle']) {
      const system: unknown = JSON.parse(readFileSync(`demo/${name}.json`, 'utf8'));
      expect(contentHash(structuredClone(system))).toBe(contentHash(system));
      expect(contentHash(turned(system))).toBe(contentHash(system));
    }
    expect(contentHash([-0])).toBe(contentHash([0]));
    expect(contentHash(new Float64Array([1, 2]))).toBe(contentHash(new Float64Array([1, 2])));
  });

  it('is mostly another for what is not: of 20,000 boxes hardly two share one', () => {
    const seen = new Set<number>();
    for (let i = 0; i < 20_000; i++) seen.add(contentHash({ kind: 'box', size: [i / 7, 1, { deep: 2 }] }));
    expect(seen.size).toBeGreaterThan(19_990);
  });

  it('is of the object itself once that is marked', () => {
    const [one, other] = [{ a: 1 }, { a: 1 }];
    mark(one);
    mark(other);
    expect(contentHash(one)).not.toBe(contentHash(other));
    expect(contentHash({ in: one })).toBe(contentHash({ in: one }));
  });

  it('is of the content as it was once that has been looked into, and the same for equal ones', () => {
    const [one, other, third] = [{ a: [1, 2] }, { a: [1, 2] }, { a: [1, 3] }].map(hashOnce) as [
      { a: number[] },
      { a: number[] },
      { a: number[] },
    ];
    expect(contentHash([one])).toBe(contentHash([other]));
    expect(contentHash([one])).not.toBe(contentHash([third]));
    const before = contentHash([one]);
    one.a.push(4);
    expect(contentHash([one])).toBe(before);
  });
});
