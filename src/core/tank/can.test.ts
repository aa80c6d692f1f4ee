import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { loadKernel, volumeBelow, type Vec3 } from '../geometry';
import { shapeMesh } from '../model';
import { unwrap } from '../outcome';
import { chosen } from '../plan';
import { canHold, canVolume_m3, type CanInputs } from '.';

beforeAll(loadKernel);
const G = 9.80665;
const leaning = (lean: number): Vec3 => {
  const length = Math.hypot(1, lean);
  return [lean / length, 0, 1 / length];
};
const inputs = (changes: Partial<CanInputs> = {}): CanInputs => ({
  can: { diameter_m: 0.1, height_m: 0.12, area_m2: 0, leak_ratio: 1 },
  foot_m: [0, 0, 0],
  inlet: { point_m: [0, 0, 0.005], submergence_m: 0.005 },
  depth_m: 0.2,
  moving: [0, 0, 1],
  gravity_mPerS2: G,
  draw_m3PerS: 2e-5,
  ...changes,
});

describe('what a leaning can holds', () => {
  it('half of a cylinder, and the hoof under a plane through the middle of its foot (2/3 R² h, Archimedes)', () => {
    expectClose(canVolume_m3(0.05, 1, 2, 0.5), Math.PI * 0.05 ** 2 * 0.5, {
      rel: 1e-9,
      why: 'a plane through neither end',
    });
    // A plane through a diameter of the foot, h high at the wall.
    expectClose(canVolume_m3(0.05, 1, 4, 0), (2 / 3) * 0.05 ** 2 * 0.2, { rel: 1e-5, why: 'hoof of Archimedes' });
  });

  it('is what the general solver of meshes finds (seeded)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 0.1, noNaN: true }),
        fc.double({ min: 0.03, max: 0.3, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (radius, height, lean, share) => {
          const mesh = unwrap(
            shapeMesh({
              kind: 'cylinder',
              axis: 'z',
              diameter_m: chosen(2 * radius),
              shell_m: chosen(height),
              nearEnd: 'flat',
              farEnd: 'flat',
            }),
          );
          const axis = share * height;
          const up = leaning(lean);
          // The mesh stands in the corner of its own box.
          const offset_m = up[0] * radius + up[2] * axis;
          expectClose(canVolume_m3(radius, height, lean, axis), volumeBelow(mesh, { normal: up, offset_m }), {
            abs: 5e-3 * Math.PI * radius ** 2 * height,
            why: 'a mesh of many flats lies inside the cylinder',
          });
        },
      ),
      { seed: 91, numRuns: 60 },
    );
  });
});

describe('how long a can feeds its pickup', () => {
  it('level and without openings: what stands over the inlet, at the draw', () => {
    const { volume_m3, time_s } = canHold(inputs());
    expectClose(volume_m3, Math.PI * 0.05 ** 2 * 0.11, { rel: 1e-9, why: 'from the inlet to the rim' });
    expectClose(time_s, volume_m3 / 2e-5, { rel: 1e-9, why: 'nothing else leaves' });
  });

  it('without a draw it runs out of its holes as Torricelli has it', () => {
    const area_m2 = 2e-5;
    const { time_s } = canHold(
      inputs({ draw_m3PerS: 0, can: { diameter_m: 0.1, height_m: 0.12, area_m2, leak_ratio: 1 } }),
    );
    const from = (head: number): number => Math.sqrt((2 * head) / G);
    expectClose(time_s, ((Math.PI * 0.05 ** 2) / (0.61 * area_m2)) * (from(0.12) - from(0.01)), {
      rel: 2e-3,
      why: 'A / (Cd a) (√(2 h1 / g) − √(2 h2 / g))',
    });
  });

  it('under one g across it keeps what the lean leaves under its rim, and doors keep it longer', () => {
    const moving = leaning(1);
    const plain = { diameter_m: 0.1, height_m: 0.12, area_m2: 5e-5, leak_ratio: 1 };
    const hold = canHold(inputs({ moving, gravity_mPerS2: G * Math.SQRT2, can: plain }));
    // On the axis 50 mm under the rim at first; at the last 5 mm of liquid square to the surface over the inlet.
    expectClose(hold.volume_m3, Math.PI * 0.05 ** 2 * 0.07 - canVolume_m3(0.05, 0.12, 1, 0.005 + 0.005 * Math.SQRT2), {
      rel: 1e-6,
      why: 'rim less inlet',
    });
    const doors = canHold(inputs({ moving, gravity_mPerS2: G * Math.SQRT2, can: { ...plain, leak_ratio: 0.05 } }));
    expect(doors.time_s).toBeGreaterThan(2 * hold.time_s);
    expectClose(doors.volume_m3, hold.volume_m3, { rel: 1e-12, why: 'the same liquid' });
  });

  it('nothing where nothing stands in it, and never more time for more lean, draw or leak (seeded)', () => {
    expect(canHold(inputs({ depth_m: 0 })).time_s).toBe(0);
    expect(canHold(inputs({ depth_m: 0.009 })).volume_m3).toBe(0);
    expect(canHold(inputs({ moving: [1, 0, 0] })).time_s).toBe(0);
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.double({ min: 1e-6, max: 1e-3, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 0.3, noNaN: true }),
        (lean, draw_m3PerS, leak_ratio, depth_m) => {
          const of = (l: number, d: number, r: number) =>
            canHold(
              inputs({
                moving: leaning(l),
                gravity_mPerS2: G * Math.hypot(1, l),
                draw_m3PerS: d,
                depth_m,
                can: { diameter_m: 0.1, height_m: 0.12, area_m2: 1e-4, leak_ratio: r },
              }),
            );
          const base = of(lean, draw_m3PerS, leak_ratio);
          expect(base.time_s).toBeGreaterThanOrEqual(0);
          expect(Number.isFinite(base.time_s)).toBe(true);
          expect(of(lean, draw_m3PerS * 2, leak_ratio).time_s).toBeLessThanOrEqual(base.time_s * (1 + 1e-9));
          expect(of(lean, draw_m3PerS, Math.min(1, leak_ratio + 0.2)).time_s).toBeLessThanOrEqual(
            base.time_s * (1 + 1e-9),
          );
          expect(base.volume_m3).toBeLessThanOrEqual(Math.PI * 0.05 ** 2 * Math.min(depth_m, 0.12) + 1e-12);
        },
      ),
      { seed: 92, numRuns: 120 },
    );
  });
});
