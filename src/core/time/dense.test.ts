import fc from 'fast-check';
import { LuDecomposition, Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { factored, squareOf } from './dense';

describe('the factors of a small full matrix', () => {
  it('solve as a general library’s do, and leave nothing over (seeded, up to 14 unknowns, scales of twelve decades)', () => {
    const value = fc.tuple(fc.double({ min: -1, max: 1, noNaN: true }), fc.integer({ min: -6, max: 6 }));
    fc.assert(
      fc.property(
        fc
          .integer({ min: 1, max: 14 })
          .chain((size) =>
            fc.tuple(
              fc.array(value, { minLength: size * size, maxLength: size * size }),
              fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: size, maxLength: size }),
            ),
          ),
        ([entries, right]) => {
          const size = right.length;
          const rows = Array.from({ length: size }, (_, r) =>
            Array.from({ length: size }, (__, c) => {
              const [mantissa, power] = entries[r * size + c]!;
              // Heavy on its diagonal, as what is implicit is, in rows that are anyhow ordered.
              return mantissa * 10 ** power + (c === (r + 1) % size ? 3e6 * 10 ** (power / 3) : 0);
            }),
          );
          const library = new LuDecomposition(new Matrix(rows));
          fc.pre(!library.isSingular());
          const square = squareOf(size);
          square.values.set(rows.flat());
          const x = factored(square)!.solve(Float64Array.from(right));
          const theirs = library.solve(Matrix.columnVector(right)).to1DArray();
          const largest = Math.max(...theirs.map(Math.abs));
          for (let n = 0; n < size; n++) {
            expectClose(x[n]!, theirs[n]!, { abs: 1e-9 * largest, why: 'LU decomposition of ml-matrix' });
            const left = rows[n]!.reduce((sum, a, c) => sum + a * x[c]!, -right[n]!);
            const scale = rows[n]!.reduce((sum, a, c) => sum + Math.abs(a * x[c]!), Math.abs(right[n]!));
            expect(Math.abs(left)).toBeLessThanOrEqual(1e-9 * scale);
          }
        },
      ),
      { seed: 1130, numRuns: 200 },
    );
  });

  it('are none of a matrix without an inverse, nor of one with what is no number', () => {
    const flat = squareOf(2);
    flat.values.set([1, 2, 2, 4]);
    expect(factored(flat)).toBeUndefined();
    const none = squareOf(2);
    none.values.set([NaN, 1, 1, 1]);
    expect(factored(none)).toBeUndefined();
  });
});
