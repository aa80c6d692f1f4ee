import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import {
  ADAPTERS,
  adapterRow,
  hoseSize,
  JOIN_SYSTEMS,
  JOINS,
  joinOfThread,
  joinWords,
  threadOfJoin,
  type Join,
} from '../reference/joins';
import { adapterChains, mates, mismatch, placeChain, sealOf, spannersOf } from './joints';

const male = (system: Join['system'], size: string): Join => ({ system, size, side: 'male' });
const female = (system: Join['system'], size: string): Join => ({ system, size, side: 'female' });
const ends: Join[] = JOIN_SYSTEMS.flatMap((system) =>
  JOINS[system].sizes.flatMap((size) => [male(system, size), female(system, size)]),
);
const anyEnd = fc.constantFrom(...ends);

describe('what goes together', () => {
  it('one system, one size, one into the other; and it makes no difference which is named first', () => {
    expect(mates(male('npt', '1/4'), female('npt', '1/4'))).toBe(true);
    expect(mates(male('npt', '1/4'), female('npt', '3/8'))).toBe(false);
    expect(mates(male('npt', '1/4'), male('npt', '1/4'))).toBe(false);
    fc.assert(
      fc.property(anyEnd, anyEnd, (a, b) => mates(a, b) === mates(b, a)),
      { seed: 1 },
    );
  });
  it('R goes into G, G not into R, and neither into NPT', () => {
    expect(mates(male('bsp-taper', '1/4'), female('bsp-parallel', '1/4'))).toBe(true);
    expect(mates(male('bsp-parallel', '1/4'), female('bsp-taper', '1/4'))).toBe(false);
    expect(mates(male('npt', '1/4'), female('bsp-parallel', '1/4'))).toBe(false);
    expect(mismatch(male('npt', '1/4'), female('bsp-parallel', '1/4'))).toMatch(/leak/);
  });
  it('says why not, and nothing where they mate', () => {
    fc.assert(
      fc.property(anyEnd, anyEnd, (a, b) => (mismatch(a, b) === undefined) === mates(a, b)),
      { seed: 2 },
    );
    expect(mismatch(male('flare-37', '-6'), female('flare-37', '-8'))).toMatch(/sizes differ/);
    expect(mismatch(male('barb', '3/8'), male('barb', '3/8'))).toMatch(/Both ends/);
  });
});

describe('chains of adapters', () => {
  it('every chain joins, is no longer than the best, and its kept keys lie the same way', () => {
    fc.assert(
      fc.property(anyEnd, anyEnd, (from, to) => {
        const chains = adapterChains(from, to);
        for (const { adapters } of chains) {
          expect(adapters.length).toBe(chains[0]!.adapters.length);
          const row = [from, ...adapters.flatMap(({ near, far }) => [near, far]), to];
          for (let i = 0; i < row.length; i += 2) expect(mates(row[i]!, row[i + 1]!)).toBe(true);
          expect(
            placeChain(
              from,
              to,
              adapters.map(({ row: each }) => each),
            )?.length,
          ).toBe(adapters.length);
        }
      }),
      { seed: 3, numRuns: 300 },
    );
  });

  it('the length is the least there is: no single adapter joins what is given two', () => {
    fc.assert(
      fc.property(anyEnd, anyEnd, (from, to) => {
        const length = adapterChains(from, to)[0]?.adapters.length;
        const single = ADAPTERS.some(
          ({ a, b }) => (mates(from, a) && mates(b, to)) || (mates(from, b) && mates(a, to)),
        );
        if (mates(from, to)) expect(length).toBe(0);
        else if (single) expect(length).toBe(1);
        else if (length !== undefined) expect(length).toBeGreaterThan(1);
      }),
      { seed: 4, numRuns: 400 },
    );
  });

  it('a -6 hose end on a 1/4 NPT port takes one adapter, straight first', () => {
    const [first] = adapterChains(female('flare-37', '-6'), female('npt', '1/4'));
    expect(first!.adapters.map(({ row }) => row.name)).toEqual(['1/4 NPT male thread to -6 37° flare male cone']);
  });

  it('hose on a G port takes a barb, on a metric one another', () => {
    expect(adapterChains(female('barb', '3/8'), female('bsp-parallel', '1/4'))[0]!.adapters).toHaveLength(1);
    expect(adapterChains(female('barb', '5/16'), female('metric', 'M14 x 1.5'))[0]!.adapters).toHaveLength(1);
  });

  it('what nobody makes is not made up', () => {
    expect(adapterChains(female('weld', '8 mm'), female('flange', '2-bolt'))).toEqual([]);
  });
});

describe('what seals and what turns it', () => {
  it('sealant on taper threads, never on a flare', () => {
    expect(sealOf(male('npt', '1/4'), female('npt', '1/4'))).toMatch(/sealant/);
    expect(sealOf(male('flare-37', '-6'), female('flare-37', '-6'))).toMatch(/never sealant/);
    expect(sealOf(male('bsp-taper', '1/4'), female('bsp-parallel', '1/4'))).toMatch(/sealant/);
    expect(sealOf(male('o-ring-boss', '-6'), female('o-ring-boss', '-6'))).toMatch(/O-ring/);
  });
  it('a barb needs no spanner, a thread needs one for each hexagon', () => {
    expect(spannersOf([female('barb', '3/8'), male('barb', '3/8')], [])).toEqual([]);
    const row = adapterRow('npt1-4-m-flare-6-m')!;
    expect(spannersOf([female('flare-37', '-6'), female('npt', '1/4')], [row]).length).toBeGreaterThanOrEqual(2);
  });
});

describe('the table', () => {
  it('names every adapter once and every thread of it is known', () => {
    expect(new Set(ADAPTERS.map(({ key }) => key)).size).toBe(ADAPTERS.length);
    for (const { a, b } of ADAPTERS) {
      for (const end of [a, b])
        if (!['barb', 'quick', 'flange', 'weld'].includes(end.system))
          expect(threadOfJoin(end), joinWords(end)).toBeDefined();
    }
  });
  it('knows a thread by its name and a hose by its bore', () => {
    expect(joinOfThread('1/4 NPT', 'female')).toEqual(female('npt', '1/4'));
    expect(joinOfThread('-6 O-ring boss (9/16-18)', 'male')).toEqual(male('o-ring-boss', '-6'));
    expect(hoseSize(0.008)).toBe('5/16');
    expect(hoseSize(0.01)).toBe('3/8');
  });
});
