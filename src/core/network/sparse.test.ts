import fc from 'fast-check';
import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { factorSparse, solveSparse, sparseShape } from './sparse';

const graphs = fc.integer({ min: 1, max: 24 }).chain((size) => fc.record({
  size: fc.constant(size),
  links: fc.array(fc.tuple(fc.nat(size - 1), fc.nat(size - 1), fc.double({ min: 1e-6, max: 1e3, noNaN: true })), { maxLength: 60 }),
  own: fc.array(fc.double({ min: 0.1, max: 10, noNaN: true }), { minLength: size, maxLength: size }),
  right: fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: size, maxLength: size }),
}));

it('solves what ml-matrix solves by dense Cholesky', () => {
  fc.assert(fc.property(graphs, ({ size, links, own, right }) => {
    const shape = sparseShape(size, Int32Array.from(links.flatMap(([i, j]) => [i, j])));
    const values = new Float64Array(shape.values);
    const dense = Matrix.zeros(size, size);
    own.forEach((value, i) => {
      values[shape.step[i]!] = value;
      dense.set(i, i, value);
    });
    for (const [i, j, conductance] of links) {
      if (i === j) continue;
      for (const end of [i, j]) {
        values[shape.step[end]!]! += conductance;
        dense.set(end, end, dense.get(end, end) + conductance);
      }
      values[shape.entry(i, j)]! -= conductance;
      dense.set(i, j, dense.get(i, j) - conductance);
      dense.set(j, i, dense.get(j, i) - conductance);
    }
    const solution = new Float64Array(size);
    right.forEach((value, i) => { solution[shape.step[i]!] = value; });
    expect(factorSparse(shape, values)).toBe(true);
    solveSparse(shape, values, solution);
    const expected = new CholeskyDecomposition(dense).solve(Matrix.columnVector(right)).to1DArray();
    const scale = Math.max(...expected.map(Math.abs), 1e-9);
    expected.forEach((value, i) => expectClose(solution[shape.step[i]!]!, value, { abs: 1e-8 * scale, why: 'rounding at a condition of up to 1e7' }));
  }), { seed: 5, numRuns: 200 });
});

it('refuses what is not positive definite', () => {
  const shape = sparseShape(2, Int32Array.of(0, 1));
  const values = new Float64Array(shape.values);
  values.set([1, 1]);
  values[shape.entry(0, 1)] = 2;
  expect(factorSparse(shape, values)).toBe(false);
  expect(factorSparse(sparseShape(1, new Int32Array(0)), Float64Array.of(0))).toBe(false);
});

it('a chain of any length fills in nothing', () => {
  const size = 300;
  const shape = sparseShape(size, Int32Array.from(Array.from({ length: size - 1 }, (_, i) => [i, i + 1]).flat()));
  expect(shape.values).toBe(size + size - 1);
});
