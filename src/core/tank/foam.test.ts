import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import { FOAM_LETS } from '../reference/foam';
import { foamCrossing_s, foamDamping_ratio, foamPieces, passes } from '.';

describe('foam cut into pieces', () => {
  it('stays whole where it is laid in before the lid, or goes through as it is', () => {
    expect(unwrap(foamPieces([0.6, 0.4, 0.3], Infinity, 0.5))).toMatchObject({ count: 1, along: [1, 1, 1] });
    // 0.3 by 0.4 has a diagonal of 0.5; squeezed to half 0.25.
    expect(unwrap(foamPieces([0.6, 0.4, 0.3], 0.25, 0.5)).count).toBe(1);
    expect(unwrap(foamPieces([0.6, 0.4, 0.3], 0.2499, 0.5)).count).toBe(2);
  });

  it('of as many pieces the ones with the least cutting: across the long way', () => {
    // Both halves of a square section pass; the cut through the short side is the smaller one.
    const { along, size_m } = unwrap(foamPieces([1, 0.2, 0.2], Math.hypot(0.1, 0.2), 1));
    expect(along.filter((n) => n === 2)).toHaveLength(1);
    expect(along[0]).toBe(1);
    expect(Math.max(...size_m)).toBe(1);
  });

  it('goes through, fills the block, and no fewer do (seeded)', () => {
    const length = fc.double({ min: 0.1, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(length, length, length),
        fc.double({ min: 0.04, max: 0.44, noNaN: true }),
        fc.double({ min: 0.3, max: 1, noNaN: true }),
        (block, opening, squeezed) => {
          const pieces = foamPieces(block, opening, squeezed);
          // The other way: every division, by the section that is least across its own way.
          const through: number[] = [];
          for (let i = 1; i <= 20; i++)
            for (let j = 1; j <= 20; j++)
              for (let k = 1; k <= 20; k++) {
                const size = [block[0] / i, block[1] / j, block[2] / k];
                const sections = [0, 1, 2].map((axis) =>
                  Math.sqrt(size.reduce((sum, each, other) => (other === axis ? sum : sum + each * each), 0)),
                );
                if (Math.min(...sections) * squeezed <= opening) through.push(i * j * k);
              }
          expect(pieces.ok).toBe(through.length > 0);
          if (!pieces.ok) return;
          const { count, along, size_m } = pieces.value;
          expect(count).toBe(Math.min(...through));
          expect(passes(size_m, opening, squeezed)).toBe(true);
          expect(along[0] * along[1] * along[2]).toBe(count);
          expectClose(count * size_m[0] * size_m[1] * size_m[2], block[0] * block[1] * block[2], {
            rel: 1e-12,
            why: 'pieces make the block',
          });
        },
      ),
      { seed: 17, numRuns: 60 },
    );
  });

  it('an opening that only crumbs go through is said to be none', () => {
    expect(foamPieces([0.6, 0.4, 0.3], 0.01, 0.9)).toMatchObject({ ok: false, error: { code: 'no-way' } });
  });
});

describe('what foam does to liquid that moves', () => {
  it('damps as an oscillator with that drag does, integrated', () => {
    const [frequency, kinematic] = [0.8, 1.2e-6];
    const damping = foamDamping_ratio(frequency, kinematic, FOAM_LETS.permeability_m2);
    const omega = 2 * Math.PI * frequency;
    // x'' + (nu / K) x' + omega² x = 0 by small steps; peaks fall by exp(-2 pi zeta / sqrt(1 - zeta²)).
    let [x, v, time] = [1, 0, 0];
    const step = 1e-5;
    const peaks: number[] = [];
    while (peaks.length < 2 && time < 10) {
      const before = v;
      v += step * (-(kinematic / FOAM_LETS.permeability_m2) * v - omega * omega * x);
      x += step * v;
      time += step;
      if (before > 0 && v <= 0) peaks.push(x);
    }
    expectClose(peaks[1]! / peaks[0]!, Math.exp((-2 * Math.PI * damping) / Math.sqrt(1 - damping ** 2)), {
      rel: 2e-3,
      why: 'logarithmic decrement',
    });
  });

  it('lets it run no faster than Darcy has it', () => {
    // Diesel of 4 mm²/s under half of gravity over half a metre: K a / nu = 0.25 m/s.
    expectClose(foamCrossing_s(0.5, 5, 4e-6, 2e-7), 2, { rel: 1e-12, why: '0.5 m at 0.25 m/s' });
  });
});
