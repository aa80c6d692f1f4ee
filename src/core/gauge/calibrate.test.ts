import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { expectClose } from '../../../tests/expectClose';
import { explained, isotonic, loggedPours, measuredCurve, straight, type LogLimits, type Plan, type Pour } from '.';

describe('the nearest rising sequence', () => {
  it('agrees with scipy.optimize.isotonic_regression 1.17.1 (recorded)', () => {
    const fitted = isotonic([1, 3, 2, 4, 3.5, 6, 5.5, 5.2, 7, 9, 8.5, 8.7], [1, 2, 1, 1, 3, 1, 1, 2, 1, 1, 2, 1]);
    [1, 8 / 3, 8 / 3, 3.625, 3.625, 5.475, 5.475, 5.475, 7, 26 / 3, 26 / 3, 8.7].forEach((value, i) =>
      expectClose(fitted[i]!, value, { rel: 1e-12, why: 'a general-purpose library' }),
    );
  });

  it('agrees with the min-max formula (T. Robertson, F. Wright, R. Dykstra, Order Restricted Statistical Inference, 1988, theorem 1.4.4; from memory)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: -5, max: 5, noNaN: true }), fc.double({ min: 0.1, max: 4, noNaN: true })), {
          minLength: 1,
          maxLength: 14,
        }),
        (pairs) => {
          const fitted = isotonic(
            pairs.map(([value]) => value),
            pairs.map(([, weight]) => weight),
          );
          const mean = (s: number, t: number): number => {
            const part = pairs.slice(s, t + 1);
            return (
              part.reduce((sum, [value, weight]) => sum + value * weight, 0) /
              part.reduce((sum, [, weight]) => sum + weight, 0)
            );
          };
          pairs.forEach((_, i) => {
            let best = -Infinity;
            for (let s = 0; s <= i; s++) {
              let least = Infinity;
              for (let t = i; t < pairs.length; t++) least = Math.min(least, mean(s, t));
              best = Math.max(best, least);
            }
            expectClose(fitted[i]!, best, { abs: 1e-9, why: 'largest of the least means' });
          });
        },
      ),
      { seed: 7, numRuns: 200 },
    );
  });
});

const LIMITS: LogLimits = {
  start_m3: 0,
  startSpread_m3: 0,
  brim_m3: 0.1,
  range: [33, 240],
  rises: false,
  resolution: 1,
};
const pour = (i: number, changes: Partial<Pour> = {}): Pour => ({
  id: `p${i}`,
  at_s: i * 300,
  added_m3: 0.005,
  spread_m3: 0.0001,
  reading: 240 - 10 * i,
  state: 'counts',
  ...changes,
});
const flagsOf = (pours: readonly Pour[], limits = LIMITS): Record<string, readonly string[]> =>
  Object.fromEntries(
    loggedPours(pours, limits)
      .filter(({ flags }) => flags.length > 0)
      .map(({ id, flags }) => [id, flags]),
  );

describe('a log of pours', () => {
  it('adds up, and so do its errors: squares of half the spreads', () => {
    const lines = loggedPours([pour(1), pour(2), pour(3), pour(4)], {
      ...LIMITS,
      start_m3: 0.002,
      startSpread_m3: 0.001,
    });
    expectClose(lines[3]!.volume_m3, 0.022, { rel: 1e-12, why: 'the start and four pours' });
    expectClose(lines[3]!.sigma_m3, Math.hypot(0.0005, 2 * 0.00005), { rel: 1e-12, why: 'independent errors' });
  });

  it('is silent on a good one', () => {
    expect(flagsOf([1, 2, 3, 4, 5].map((i) => pour(i)))).toEqual({});
  });

  it.each<[string, readonly Pour[], Record<string, readonly string[]>]>([
    ['a line entered late', [pour(1), pour(3), pour(2)], { p2: ['out-of-order'] }],
    ['a line written twice', [pour(1), pour(2), pour(9, { at_s: 630, reading: 220 })], { p9: ['repeated'] }],
    ['a spill', [pour(1), pour(2, { state: 'spilt' })], { p2: ['spilt'] }],
    ['a reading struck', [pour(1), pour(2, { state: 'reading-struck' })], { p2: ['struck'] }],
    ['a reading that turns back', [pour(1), pour(2, { reading: 238 })], { p2: ['falls'] }],
    ['a reading no such sender gives', [pour(1), pour(2, { reading: 900 })], { p2: ['out-of-range', 'falls'] }],
    ['more than the tank can hold', [pour(1), pour(2, { added_m3: 0.2 })], { p2: ['too-much'] }],
    ['more drawn off than was in it', [pour(1), pour(2, { added_m3: -0.02, reading: 240 })], { p2: ['too-much'] }],
    [
      'a dead float',
      [pour(1), ...[2, 3, 4, 5].map((i) => pour(i, { reading: 180 }))],
      { p2: ['dead'], p3: ['dead'], p4: ['dead'], p5: ['dead'] },
    ],
  ])('tells %s', (_, pours, flags) => {
    expect(flagsOf(pours)).toEqual(flags);
  });

  it('an entry struck was never poured; a reading struck was', () => {
    const [, struck] = loggedPours([pour(1), pour(2, { state: 'entry-struck' })], LIMITS);
    const [, unread] = loggedPours([pour(1), pour(2, { state: 'reading-struck' })], LIMITS);
    expect([struck!.volume_m3, unread!.volume_m3]).toEqual([0.005, 0.01]);
    expect([struck!.counts, unread!.counts]).toEqual([false, false]);
  });

  it('a float that rests at its end is not dead', () => {
    expect(flagsOf([1, 2, 3, 4, 5].map((i) => pour(i, { reading: 240 })))).toEqual({});
  });

  it('of what was spilt the whole pour is in doubt', () => {
    expectClose(loggedPours([pour(1, { state: 'spilt' })], LIMITS)[0]!.sigma_m3, 0.0025, {
      rel: 1e-12,
      why: 'half of the pour',
    });
  });
});

/**
 * A sender that goes with the root of the volume, in a tank that holds k more, low by d; read with noise, poured with
 * errors.
 */
const PLAN: Plan = {
  readingAt: (volume, lowered) =>
    240 - 207 * Math.min(1, Math.max(0, (Math.sqrt(Math.max(0, volume) / 0.1) * 0.3 + lowered) / 0.3)),
  empty: 240,
  full: 33,
  hasEnds: true,
  hasArm: false,
  floor: 0.3,
  prior: { volume_ratio: 0.03, lowered_m: 0.008, arm_ratio: 0.05, end_ratio: 0.01, start_m3: 0.0002 },
};
const NOISE = 0.8;
function madeUp(
  seed: number,
  truth: { volume: number; lowered: number; empty?: number },
  count = 16,
  pourSigma = 0.00004,
): Pour[] {
  const chance = seeded(seed);
  let inside = 0;
  return Array.from({ length: count }, (_, i) => {
    inside += 0.006 + pourSigma * chance.normal();
    const reading =
      PLAN.readingAt(inside / (1 + truth.volume), truth.lowered, 0) +
      207 * -(truth.empty ?? 0) +
      NOISE * chance.normal();
    return { id: `p${i}`, added_m3: 0.006, spread_m3: 2 * pourSigma, reading, state: 'counts' };
  });
}
const lines = (pours: readonly Pour[]) => loggedPours(pours, { ...LIMITS, range: [20, 260], resolution: 2 });

describe('the curve that pours show', () => {
  it('covers the truth about as often as it says: 60 made-up logs, at every volume', () => {
    let inside = 0;
    let all = 0;
    for (let seed = 1; seed <= 60; seed++) {
      const curve = unwrap(measuredCurve(lines(madeUp(seed, { volume: 0, lowered: 0 })), 0.3, 0, seed));
      for (const { volume_m3, low, high } of curve.points) {
        all++;
        const truth = PLAN.readingAt(volume_m3, 0, 0);
        if (truth >= low && truth <= high) inside++;
      }
    }
    // 95 meant: with straight lines between pours of a bent curve, and pooling, no more is promised than nine in ten.
    expect(inside / all).toBeGreaterThan(0.9);
    expect(inside / all).toBeLessThan(0.995);
  });

  it('never turns back, whatever was read', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 33, max: 240, noNaN: true }), { minLength: 6, maxLength: 20 }),
        (readings) => {
          const curve = measuredCurve(lines(readings.map((reading, i) => pour(i + 1, { reading }))), 0.3, 0);
          if (!curve.ok) return;
          const way = curve.value.rises ? 1 : -1;
          curve.value.points
            .slice(1)
            .forEach(({ reading }, i) =>
              expect((reading - curve.value.points[i]!.reading) * way).toBeGreaterThanOrEqual(-1e-9),
            );
        },
      ),
      { seed: 3, numRuns: 60 },
    );
  });

  it('refuses too few readings, and readings that do not move', () => {
    expect(measuredCurve(lines([pour(1), pour(2)]), 0.3, 0)).toMatchObject({ ok: false, error: { code: 'too-few' } });
    expect(measuredCurve(lines([1, 2, 3, 4, 5].map((i) => pour(i, { reading: 100 }))), 0.3, 0)).toMatchObject({
      ok: false,
      error: { code: 'does-not-move' },
    });
  });

  it('straight between points, held beyond them', () => {
    expect([-1, 0, 0.25, 1, 2].map((at) => straight([0, 1], [10, 20], at))).toEqual([10, 10, 12.5, 20, 20]);
  });
});

describe('what explains the difference', () => {
  it('finds what was put in: 4 % less volume, 6 mm lower', () => {
    const found = unwrap(explained(lines(madeUp(11, { volume: -0.04, lowered: -0.006 })), PLAN));
    const of = (key: string) => found.unknowns.find((one) => one.key === key)!;
    expect(Math.abs(of('volume').value + 0.04)).toBeLessThan(3 * of('volume').sigma);
    expect(Math.abs(of('lowered').value + 0.006)).toBeLessThan(3 * of('lowered').sigma);
    expect(found.after_ratio).toBeLessThan(found.before_ratio / 2);
  });

  it('its standard deviations are true: 60 made-up truths drawn as expected lie within two of them about 95 times in 100', () => {
    const inside: Record<string, number> = { volume: 0, lowered: 0, emptyEnd: 0 };
    const runs = 60;
    for (let seed = 1; seed <= runs; seed++) {
      const chance = seeded(1000 + seed);
      const truth = { volume: 0.03 * chance.normal(), lowered: 0.008 * chance.normal(), empty: 0 };
      const found = unwrap(
        explained(lines(madeUp(seed, truth)), { ...PLAN, prior: { ...PLAN.prior, end_ratio: 1e-9, start_m3: 1e-9 } }),
      );
      for (const { key, value, sigma } of found.unknowns)
        if (key === 'volume' || key === 'lowered') inside[key]! += Math.abs(value - truth[key]) <= 1.96 * sigma ? 1 : 0;
    }
    for (const key of ['volume', 'lowered']) {
      // Four standard deviations of a count of 60 with chance 0.95 are 11 in 100.
      expect(inside[key]! / runs).toBeGreaterThan(0.84);
      expect(inside[key]! / runs).toBeLessThanOrEqual(1);
    }
  });

  it('tells a float that sticks at the bottom, and below how much', () => {
    const stuck = madeUp(5, { volume: 0, lowered: 0 }).map((line, i) => ({
      ...line,
      reading: i < 3 ? 174 : line.reading!,
    }));
    const found = unwrap(explained(lines(stuck), PLAN));
    expectClose(found.stuckBelow_m3!, 0.021, { abs: 0.003, why: 'it stood still at 18 L and had moved at 24 L' });
  });

  it('does not believe a reading written down wrongly, and says which', () => {
    const wrong = madeUp(6, { volume: 0, lowered: 0 }).map((line, i) =>
      i === 9 ? { ...line, reading: line.reading! + 60 } : line,
    );
    const found = unwrap(explained(lines(wrong), PLAN));
    expect(found.farOff).toEqual(['p9']);
    expect(Math.abs(found.unknowns[0]!.value)).toBeLessThan(0.02);
  });

  it('with too few readings says so', () => {
    expect(explained(lines(madeUp(1, { volume: 0, lowered: 0 }, 3)), PLAN)).toMatchObject({
      ok: false,
      error: { code: 'too-few' },
    });
  });
});
