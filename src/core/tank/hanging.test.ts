import { describe, expect, it } from 'vitest';
import { boxMesh, clipBelow, dot, levelForVolume, subtract, unitVector, type Vec3 } from '../geometry';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { hangingUp, slingLeg } from './hanging';
import type { Standing } from './tipping';

const angleBetween = (a: Vec3, b: Vec3): number => Math.acos(Math.min(1, dot(a, b)));

describe('what hangs from a hook', () => {
  it('rigid, it leans until its centre is plumb below: by its offset over the height between', () => {
    const standing: Standing = { fixed: [{ mass_kg: 40, at_m: [0.1, 0, 0.2] }], liquids: [] };
    const up = hangingUp(standing, [0, 0, 1.2])!;
    expect(angleBetween(up, [0, 0, 1])).toBeCloseTo(Math.atan(0.1 / 1), 8);
    expect(hangingUp(standing, [0.1, 0, 0])).toBeUndefined();
  });

  it('with liquid it hangs where its centre is lowest below the hook, on boxes of chance', () => {
    const { uniform } = seeded(188);
    for (let run = 0; run < 15; run++) {
      const size: Vec3 = [0.4 + uniform(), 0.3 + 0.4 * uniform(), 0.3 + 0.4 * uniform()];
      const mesh = boxMesh(...size);
      const volume_m3 = (0.2 + 0.6 * uniform()) * size[0] * size[1] * size[2];
      const shell = {
        mass_kg: 10 + 30 * uniform(),
        at_m: [size[0] * (0.4 + 0.2 * uniform()), size[1] / 2, size[2] / 2] as Vec3,
      };
      const standing: Standing = { fixed: [shell], liquids: [{ mesh, volume_m3, density_kgPerM3: 840 }] };
      const hook: Vec3 = [size[0] / 2, size[1] / 2, size[2] + 1.5 + uniform()];
      const up = hangingUp(standing, hook)!;
      // How far all of it lies below the hook, weighed: most where it rests.
      const below = (way: Vec3): number => {
        const level = unwrap(levelForVolume(mesh, way, volume_m3));
        const centre = clipBelow(mesh, { normal: way, offset_m: level.offset_m }).centroid_m!;
        return (
          shell.mass_kg * dot(way, subtract(hook, shell.at_m)) + 840 * volume_m3 * dot(way, subtract(hook, centre))
        );
      };
      const rests = below(up);
      for (const [dx, dy] of [
        [0.01, 0],
        [-0.01, 0],
        [0, 0.01],
        [0, -0.01],
      ] as const)
        expect(below(unitVector([up[0] + dx, up[1] + dy, up[2]]))).toBeLessThan(rests);
    }
  });

  it('a wide shallow bath under a low hook runs over: told as not steady', () => {
    const bath: Standing = {
      fixed: [{ mass_kg: 5, at_m: [1, 1, 0.1] }],
      liquids: [{ mesh: boxMesh(2, 2, 0.6), volume_m3: 0.6, density_kgPerM3: 840 }],
    };
    // The liquid's own centre moves by i/V for each radian, 2.2 m here: further than the hook is over it.
    const low = hangingUp(bath, [1.02, 1, 0.9]);
    expect(low === undefined || angleBetween(low, [0, 0, 1]) > 0.05).toBe(true);
    expect(hangingUp(bath, [1.02, 1, 6])).toBeDefined();
  });

  it('of four legs two are counted, each over the cosine of its lean', () => {
    const corners: Vec3[] = [
      [0, 0, 0],
      [1, 0, 0],
      [0, 1, 0],
      [1, 1, 0],
    ];
    // At 45° a leg of two bears W/√2, as tables of slings have it.
    const leg = slingLeg(corners, [0.5, 0.5, Math.SQRT1_2], [0, 0, 1], 1000);
    expect(leg.lean_rad).toBeCloseTo(Math.PI / 4, 9);
    expect(leg.pull_N).toBeCloseTo(1000 / Math.SQRT2, 6);
  });
});
