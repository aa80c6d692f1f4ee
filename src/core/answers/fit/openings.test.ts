import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { applied, BODY_AT_HOME, block, inBay, OBSTACLE, SOUND } from '../../../../tests/raisedSystems';
import { fitOf } from '..';
import { loadKernel, meshVolume, type ClosedMesh } from '../../geometry';
import { unwrap } from '../../outcome';
import { chosen, parseSystem, type SystemDocument } from '../../plan';
import { compileObstacle } from '../../model/compileFit';

beforeAll(loadKernel);

type Size = readonly [number, number, number];
const opening = (size: Size, at: Size): SystemDocument['fit']['obstacles'][number]['bodies'][number] => ({
  ...BODY_AT_HOME,
  operation: 'cut',
  shape: { kind: 'box', length_m: chosen(size[0]), width_m: chosen(size[1]), height_m: chosen(size[2]) },
  x_m: chosen(at[0]),
  y_m: chosen(at[1]),
  z_m: chosen(at[2]),
});
const sheet = (size: Size, cuts: readonly ReturnType<typeof opening>[], at: Size = [0, 0, 0]) => {
  const plain = block('sheet', size, at);
  return { ...plain, bodies: [...plain.bodies, ...cuts] };
};

describe('an obstacle with openings', () => {
  it('is what is left of a box without the part of another in it (seeded)', () => {
    const length = fc.double({ min: 0.05, max: 1, noNaN: true });
    const place = fc.double({ min: -0.6, max: 0.8, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(length, length, length),
        fc.tuple(length, length, length),
        fc.tuple(place, place, place),
        (size, cut, at) => {
          const inside = size.reduce(
            (volume, side, axis) =>
              volume * Math.max(0, Math.min(side, at[axis]! + cut[axis]!) - Math.max(0, at[axis]!)),
            1,
          );
          const whole = size[0] * size[1] * size[2];
          const made = compileObstacle(sheet(size, [opening(cut, at)]), 0.02);
          // Cut away whole, or all but a film of it, nothing stands there.
          if (inside > whole * (1 - 1e-6)) return;
          expectClose(meshVolume(unwrap(made).surface as ClosedMesh), whole - inside, {
            rel: 1e-6,
            why: 'box less what both share',
          });
        },
      ),
      { seed: 41, numRuns: 80 },
    );
  });

  it('cut away whole is no obstacle, and cannot be built', () => {
    expect(compileObstacle(sheet([0.2, 0.2, 0.2], [opening([1, 1, 1], [-0.3, -0.3, -0.3])]), 0.02)).toMatchObject({
      ok: false,
    });
  });

  it('lets the tank stand in it: as far off as the edges of the opening', () => {
    // Level with the tank's middle, and open for it with 30 mm all round.
    const { shape } = SOUND.tanks[0]!;
    const [length, width] = shape.kind === 'box' ? [shape.length_m.value, shape.width_m.value] : [0, 0];
    const outside = SOUND.tanks[0]!.dimensions === 'outside' ? 0 : SOUND.tanks[0]!.material.thickness_m.value;
    const around = sheet(
      [0.9, 0.9, 0.01],
      [opening([length + 0.06, width + 0.06, 0.1], [0.3 - 0.03, 0.3 - 0.03, -0.04])],
      [-0.3, -0.3, 0.08],
    );
    const plan = (obstacle: SystemDocument['fit']['obstacles'][number]): SystemDocument =>
      inBay(SOUND, { obstacles: [obstacle] });
    const gapOf = (system: SystemDocument) =>
      unwrap(fitOf(system)).tanks[0]!.gaps.find(({ name }) => name === 'sheet')!;
    expectClose(gapOf(plan(around)).distance_m, 0.03 - outside, { abs: 1e-6, why: '30 mm all round, less the wall' });
    // Shut, it goes through the tank.
    expect(gapOf(plan({ ...around, bodies: around.bodies.slice(0, 1) })).distance_m).toBeLessThan(0);
  });

  it('its first body is no opening', () => {
    const wrong = applied(inBay(SOUND, { obstacles: [OBSTACLE] }), [['fit.obstacles[0].bodies[0].operation', 'cut']]);
    const parsed = parseSystem(wrong);
    expect(parsed.ok).toBe(false);
    if (!parsed.ok) expect(JSON.stringify(parsed.error)).toContain('cuts out of nothing');
  });
});
