import fc from 'fast-check';
import { LuDecomposition, Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { graphShape, lineLaw, type GraphLink } from '../../network';
import { unwrap } from '../../outcome';
import { conductance } from './conductance';

const DIESEL = { density_kgPerM3: 840, kinematicViscosity_m2PerS: 4e-6 };

/** A ladder of lines between two given pressures, with rungs of any bore and length. */
function ladder(count: number, bores_m: readonly number[], flows: readonly number[]) {
  const nodes = Array.from({ length: 2 * count }, (_, n) => ({
    id: `n${n}`,
    ...(n === 0 || n === 2 * count - 1 ? { fixed_Pa: 0 } : {}),
  }));
  const pairs = Array.from({ length: count }, (_, n) => [
    ...(n + 1 < count ? [[2 * n, 2 * n + 2] as const, [2 * n + 1, 2 * n + 3] as const] : []),
    [2 * n, 2 * n + 1] as const,
  ]).flat();
  const links = pairs.map(([from, to], l): GraphLink => ({
    id: `l${l}`,
    from,
    to,
    law: lineLaw(bores_m[l % bores_m.length]!, 0.3 + (l % 5), 1e-6, [], DIESEL),
  }));
  const q = Float64Array.from(links, (_, l) => flows[l % flows.length]!);
  return { net: { nodes, links, shape: unwrap(graphShape({ nodes, links })) }, q };
}

describe('how the flows of a net answer', () => {
  it('is one for a full matrix, for the network’s own elimination, and for a general library (seeded ladders)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 14, max: 40 }),
        fc.array(fc.double({ min: 0.003, max: 0.02, noNaN: true }), { minLength: 3, maxLength: 7 }),
        fc.array(fc.double({ min: -3e-5, max: 3e-5, noNaN: true }), { minLength: 4, maxLength: 9 }),
        (count, bores, flows) => {
          const { net, q } = ladder(count, bores, flows);
          const by = new Float64Array(net.nodes.length);
          by[0] = 1;
          const own = conductance(net, q, new Map())(by);
          const full = conductance({ ...net, shape: undefined }, q, new Map())(by);
          const slopes = net.links.map(({ law }, l) => law(q[l]!).slope_PaSPerM3 + 1);
          const size = net.nodes.length - 2;
          const [matrix, right] = [Matrix.zeros(size, size), Matrix.zeros(size, 1)];
          net.links.forEach(({ from, to }, l) => {
            for (const [a, b] of [
              [from, to],
              [to, from],
            ] as const) {
              if (a === 0 || a > size) continue;
              matrix.set(a - 1, a - 1, matrix.get(a - 1, a - 1) + 1 / slopes[l]!);
              if (b === 0) right.set(a - 1, 0, right.get(a - 1, 0) + 1 / slopes[l]!);
              else if (b <= size) matrix.set(a - 1, b - 1, matrix.get(a - 1, b - 1) - 1 / slopes[l]!);
            }
          });
          const potentials = [1, ...new LuDecomposition(matrix).solve(right).to1DArray(), 0];
          const largest = Math.max(...full.map(Math.abs));
          net.links.forEach(({ from, to }, l) => {
            const theirs = (potentials[from]! - potentials[to]!) / slopes[l]!;
            expectClose(own[l]!, theirs, { abs: 1e-6 * largest, why: 'LU decomposition of ml-matrix' });
            expectClose(full[l]!, theirs, { abs: 1e-6 * largest, why: 'LU decomposition of ml-matrix' });
          });
          expect(largest).toBeGreaterThan(0);
        },
      ),
      { seed: 24, numRuns: 40 },
    );
  });
});
