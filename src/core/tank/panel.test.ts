import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { panelBulge_m, panelYields_Pa, type Panel } from './panel';

const STEEL = { modulus_Pa: 210e9, poisson: 0.3 };
const YIELD_PA = 235e6;

/**
 * A clamped plate by finite differences of the biharmonic equation, relaxed: a second way that knows nothing of the
 * table. Moments and sag as the table has them: of q b², and of q b⁴ / D.
 */
function plate(ratio: number, across: number): { readonly moment: number; readonly sag: number } {
  const h = 1 / across;
  const along = Math.round(ratio * across);
  const [nx, ny] = [across - 1, along - 1];
  const w = new Float64Array(nx * ny);
  // A clamped edge mirrors what lies before it behind it.
  const at = (i: number, j: number): number => {
    if (i === -1 || i === nx || j === -1 || j === ny) return 0;
    const [x, y] = [i < -1 ? -2 - i : i > nx ? 2 * nx - i : i, j < -1 ? -2 - j : j > ny ? 2 * ny - j : j];
    return w[y * nx + x]!;
  };
  for (let sweep = 0; sweep < 60_000; sweep++) {
    let most = 0;
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) {
        // What is mirrored stands for the point itself: its own weight grows by one at each edge that is two off.
        const own = 20 + (i === 0 ? 1 : 0) + (i === nx - 1 ? 1 : 0) + (j === 0 ? 1 : 0) + (j === ny - 1 ? 1 : 0);
        const two = (a: number, b: number, mirrored: boolean): number => (mirrored ? 0 : at(a, b));
        const sum =
          8 * (at(i - 1, j) + at(i + 1, j) + at(i, j - 1) + at(i, j + 1)) -
          2 * (at(i - 1, j - 1) + at(i + 1, j - 1) + at(i - 1, j + 1) + at(i + 1, j + 1)) -
          (two(i - 2, j, i === 0) +
            two(i + 2, j, i === nx - 1) +
            two(i, j - 2, j === 0) +
            two(i, j + 2, j === ny - 1)) +
          h ** 4;
        const next = sum / own;
        const step = 1.3 * (next - w[j * nx + i]!);
        w[j * nx + i]! += step;
        most = Math.max(most, Math.abs(step));
      }
    if (most < 1e-13) break;
  }
  const [middleX, middleY] = [(nx - 1) / 2, (ny - 1) / 2];
  // The edge's moment is the curvature there: twice the sag one step off, by the square of the step.
  return { moment: (2 * w[middleY * nx]!) / h ** 2, sag: w[middleY * nx + middleX]! };
}

describe('a flat wall, clamped all round', () => {
  it.each([
    [1, 0.0513, 0.00126],
    [1.5, 0.0757, 0.0022],
    [2, 0.0829, 0.00254],
  ])('%s times as long as wide: what the table has, by finite differences', (ratio, moment, sag) => {
    const found = plate(ratio, 24);
    expectClose(found.sag, sag, { rel: 0.02, why: 'a grid of 24' });
    expectClose(found.moment, moment, { rel: 0.03, why: 'a grid of 24' });
  });

  it('bears what its edges bear: a worked square of steel', () => {
    const panel: Panel = { wide_m: 0.5, long_m: 0.5, thickness_m: 0.003, ...STEEL };
    // 235 MPa = 6 · 0.0513 q 0.25 / 9e-6
    expectClose(panelYields_Pa(panel, YIELD_PA), 27_485, { rel: 1e-3, why: 'rounding of the figure' });
    // D = 519.2 N m; 0.00126 q b⁴ / D at 1 kPa
    expectClose(panelBulge_m(panel, 1000), 1.517e-4, { rel: 1e-3, why: 'rounding of the figure' });
  });

  it('a long strip is a beam clamped at both ends', () => {
    const panel: Panel = { wide_m: 0.2, long_m: 5, thickness_m: 0.002, ...STEEL };
    expectClose(panelYields_Pa(panel, YIELD_PA), (YIELD_PA * 0.002 ** 2 * 2) / 0.2 ** 2, {
      rel: 1e-12,
      why: 'q b² / 12',
    });
    const bends = STEEL.modulus_Pa / (1 - 0.3 ** 2);
    expectClose(panelBulge_m(panel, 1000), (1000 * 0.2 ** 4) / (32 * bends * 0.002 ** 3), {
      rel: 1e-12,
      why: 'q b⁴ / 384',
    });
  });

  it('the longer, the weaker; which side is called wide does not matter; the thicker by its square and cube', () => {
    let last = Infinity;
    for (let long_m = 0.3; long_m < 2; long_m += 0.05) {
      const panel: Panel = { wide_m: 0.3, long_m, thickness_m: 0.002, ...STEEL };
      const yields = panelYields_Pa(panel, YIELD_PA);
      expect(yields).toBeLessThanOrEqual(last);
      last = yields;
      expect(panelYields_Pa({ ...panel, wide_m: long_m, long_m: 0.3 }, YIELD_PA)).toBe(yields);
      const thick = { ...panel, thickness_m: 0.004 };
      expectClose(panelYields_Pa(thick, YIELD_PA) / yields, 4, { rel: 1e-12, why: 't²' });
      expectClose(panelBulge_m(panel, 500) / panelBulge_m(thick, 500), 8, { rel: 1e-12, why: 't³' });
    }
  });
});
