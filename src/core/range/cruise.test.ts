import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { byHand, cruiseTable } from '.';

describe('fuel by speed', () => {
  it('a boat by hand: 100 L usable, a fifth kept, 4 L/h at 5 kn, 12 L/h at 8 kn', () => {
    const KNOT = 1852 / 3600;
    const [slow, fast, stove] = cruiseTable(
      [
        { name: 'slow', burn_m3PerS: 4e-3 / 3600, speed_mPerS: 5 * KNOT },
        { name: 'fast', burn_m3PerS: 12e-3 / 3600, speed_mPerS: 8 * KNOT },
        { name: 'at anchor', burn_m3PerS: 0.5e-3 / 3600 },
      ],
      0.1,
      0.2,
    );
    expectClose(slow!.endurance_s / 3600, 20, { rel: 1e-12, why: '80 L at 4 L/h' });
    expectClose(slow!.range_m! / 1852, 100, { rel: 1e-12, why: '20 h at 5 kn' });
    expectClose(fast!.range_m! / 1852, (80 / 12) * 8, { rel: 1e-12, why: '53 nmi' });
    expect([slow!.isFurthest, fast!.isFurthest, stove!.isFurthest]).toEqual([true, false, false]);
    expect(stove).not.toHaveProperty('range_m');
  });

  it('none goes further than the furthest, and what burns nothing has no end and no row (seeded)', () => {
    const row = fc.record({
      name: fc.constant('row'),
      burn_m3PerS: fc.oneof(fc.constant(0), fc.double({ min: 1e-8, max: 1e-3, noNaN: true })),
      speed_mPerS: fc.double({ min: 0, max: 50, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(row, { maxLength: 8 }), (rows) => {
        const table = cruiseTable(rows, 0.07, 0.1);
        expect(table).toHaveLength(rows.filter(({ burn_m3PerS }) => burn_m3PerS > 0).length);
        const furthest = table.find(({ isFurthest }) => isFurthest);
        for (const each of table) expect(each.range_m!).toBeLessThanOrEqual(furthest!.range_m!);
      }),
      { seed: 29 },
    );
  });
});

describe('cans by hand', () => {
  it('so many lifts as cans are begun, each as long as it takes', () => {
    expect(byHand(0.1)).toEqual({ cans: 5, time_s: 5 * 270 });
    expect(byHand(0.101).cans).toBe(6);
    expect(byHand(0)).toEqual({ cans: 0, time_s: 0 });
    // Five US gallons a can, 4 to 5 minutes each: 60 gallons are 12 cans, 48 to 60 minutes.
    const gallons = byHand(60 * 3.785411784e-3, { can_m3: 5 * 3.785411784e-3, each_s: 270 });
    expect(gallons.cans).toBe(12);
    expect(gallons.time_s / 60).toBeGreaterThanOrEqual(48);
    expect(gallons.time_s / 60).toBeLessThanOrEqual(60);
  });
});
