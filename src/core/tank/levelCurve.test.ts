import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { loadKernel, levelForVolume, meshBounds, meshVolume, unitVector, volumeBelow, type Vec3 } from '../geometry';
import { compile } from '../model';
import { unwrap } from '../outcome';
import { parseSystemText } from '../plan';
import { seeded } from '../seeded';
import { levelCurve } from '.';

beforeAll(loadKernel);

const systems = readdirSync('demo').map((file) => unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8'))));
const { uniform } = seeded(19);
const UPS: Vec3[] = [
  [0, 0, 1],
  [0, 0, -1],
  [1, 0, 0],
  ...Array.from({ length: 6 }, (): Vec3 => unitVector([uniform() - 0.5, uniform() - 0.5, uniform() - 0.5])),
];

describe('the level curve of each demo tank, beside the search for a level', () => {
  it.each(systems.map((system) => [system.name, system] as const))('%s', (_, system) => {
    const { tanks } = unwrap(compile(system));
    expect(tanks.length).toBeGreaterThan(0);
    for (const { mesh } of tanks) {
      const bounds = meshBounds(mesh);
      const size = Math.hypot(...bounds.max.map((each, axis) => each - bounds.min[axis]!));
      for (const up of UPS) {
        const curve = levelCurve(mesh, up);
        expectClose(curve.gross_m3, meshVolume(mesh), { rel: 1e-9, why: 'all of it' });
        for (let trial = 0; trial < 12; trial++) {
          const volume = uniform() * meshVolume(mesh);
          const { offset_m } = unwrap(levelForVolume(mesh, up, volume));
          const surface = curve.surface_m(volume);
          // Round tanks have more corners than pieces.
          expectClose(surface, offset_m, { abs: 2e-5 * size, why: 'a cubic between heights' });
          const below = volumeBelow(mesh, { normal: up, offset_m: surface });
          expectClose(below, volume, { abs: 2e-5 * meshVolume(mesh), why: 'cut at that surface' });
        }
      }
    }
  });
  it('a box: the depth is the volume over its floor', () => {
    const box = unwrap(compile(unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')))));
    const { mesh, gross_m3 } = box.tanks[0]!;
    const curve = levelCurve(mesh, [0, 0, 1]);
    for (const share of [0, 1e-9, 0.3, 0.999, 1])
      expectClose(curve.surface_m(share * gross_m3) - curve.lowest_m, share * (curve.highest_m - curve.lowest_m), {
        abs: 1e-14,
        why: 'rounding',
      });
  });
});
