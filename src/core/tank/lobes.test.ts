import { describe, expect, it } from 'vitest';
import {
  boxMesh,
  combine,
  meshVolume,
  movedMesh,
  prismMesh,
  volumeBelow,
  worldUpInVehicle,
  type Point2,
  type Vec3,
} from '../geometry';
import { unwrap } from '../outcome';
import { expectClose } from '../../../tests/expectClose';
import { homeLobe, leftBehind_m3 } from '.';

const UP: Vec3 = [0, 0, 1];
/** A saddle over a shaft: two lobes 0.3 wide and a bridge from 0.25 up, 0.4 deep along x. */
const SADDLE: Point2[] = [
  [0, 0],
  [0.3, 0],
  [0.3, 0.25],
  [0.5, 0.25],
  [0.5, 0],
  [0.8, 0],
  [0.8, 0.4],
  [0, 0.4],
];
const saddle = unwrap(prismMesh(SADDLE, 'x', 1));

describe('what stays behind in a saddle tank', () => {
  it('the far lobe keeps all below the bridge', () => {
    const left = leftBehind_m3(saddle, [0.5, 0.1, 0.02], UP, 0.02);
    expectClose(left, 0.3 * 0.02 + 0.3 * 0.25, { rel: 1e-12, why: 'closed form' });
  });

  it('is the same whichever lobe has the pickup, mirrored', () => {
    expectClose(leftBehind_m3(saddle, [0.5, 0.7, 0.02], UP, 0.02), leftBehind_m3(saddle, [0.5, 0.1, 0.02], UP, 0.02), {
      rel: 1e-12,
      why: 'symmetry',
    });
  });

  it('a pickup in the bridge leaves both lobes, once each', () => {
    expectClose(
      leftBehind_m3(saddle, [0.5, 0.4, 0.26], UP, 0.26),
      volumeBelow(saddle, { normal: UP, offset_m: 0.26 }),
      { rel: 1e-12, why: 'one body at that level' },
    );
  });

  it('heeled toward the pickup the far lobe spills over the bridge’s edge', () => {
    const up = worldUpInVehicle(0, 0.1);
    const starving = up[1] * 0.1 + up[2] * 0.02;
    // The far lobe (y > 0.5) keeps what lies below the plane through the bridge's far lower edge.
    const edge = up[1] * 0.5 + up[2] * 0.25;
    const far = unwrap(
      prismMesh(
        [
          [0.5, 0],
          [0.8, 0],
          [0.8, 0.4],
          [0.5, 0.4],
        ],
        'x',
        1,
      ),
    );
    const near = unwrap(
      prismMesh(
        [
          [0, 0],
          [0.3, 0],
          [0.3, 0.4],
          [0, 0.4],
        ],
        'x',
        1,
      ),
    );
    const [a, b] = [
      volumeBelow(near, { normal: up, offset_m: starving }),
      volumeBelow(far, { normal: up, offset_m: Math.max(edge, up[1] * 0.3 + up[2] * 0.25) }),
    ];
    expectClose(leftBehind_m3(saddle, [0.5, 0.1, 0.02], up, starving), a + b, { rel: 1e-9, why: 'lobes cut by hand' });
  });

  it('two saddles: each lobe is cut off at its own', () => {
    const comb: Point2[] = [
      [0, 0],
      [0.2, 0],
      [0.2, 0.3],
      [0.3, 0.3],
      [0.3, 0],
      [0.5, 0],
      [0.5, 0.1],
      [0.6, 0.1],
      [0.6, 0],
      [0.8, 0],
      [0.8, 0.5],
      [0, 0.5],
    ];
    const mesh = unwrap(prismMesh(comb, 'x', 1));
    const left = leftBehind_m3(mesh, [0.5, 0.4, 0.05], UP, 0.05);
    expectClose(left, 0.2 * 0.05 + 0.2 * 0.1 + 0.2 * 0.3, {
      rel: 1e-12,
      why: 'closed form: own lobe, right one to 0.1, left one to 0.3',
    });
  });

  it('a convex tank, and a step that traps nothing, are plain volumes', () => {
    const box = boxMesh(1, 0.5, 0.4);
    expect(leftBehind_m3(box, [0.2, 0.2, 0.03], UP, 0.03)).toBe(volumeBelow(box, { normal: UP, offset_m: 0.03 }));
    const step = unwrap(
      prismMesh(
        [
          [0, 0],
          [0.4, 0],
          [0.4, 0.2],
          [0.8, 0.2],
          [0.8, 0.4],
          [0, 0.4],
        ],
        'x',
        1,
      ),
    );
    expectClose(leftBehind_m3(step, [0.5, 0.2, 0.02], UP, 0.02), 0.4 * 0.02, {
      rel: 1e-12,
      why: 'the step drains into the deep part',
    });
  });

  it('never less than the plain volume, never more than the tank', () => {
    for (let roll = -0.5; roll <= 0.5; roll += 0.05) {
      for (let pitch = -0.4; pitch <= 0.4; pitch += 0.1) {
        const up = worldUpInVehicle(pitch, roll);
        const level = up[0] * 0.5 + up[1] * 0.1 + up[2] * 0.02;
        const left = leftBehind_m3(saddle, [0.5, 0.1, 0.02], up, level);
        expect(left).toBeGreaterThanOrEqual(volumeBelow(saddle, { normal: up, offset_m: level }) - 1e-12 - 0.3 * 0.4);
        expect(left).toBeLessThanOrEqual(meshVolume(saddle) + 1e-12);
      }
    }
  });
});

describe('a tank with a step', () => {
  const mesh = unwrap(
    prismMesh(
      [
        [0, 0],
        [0.4, 0],
        [0.4, 0.2],
        [0.6, 0.2],
        [0.6, 0.4],
        [0, 0.4],
      ],
      'x',
      1,
    ),
  );
  const left = (roll: number): readonly [number, number] => {
    const up = worldUpInVehicle(0, roll);
    const level = up[1] * 0.3 + up[2] * 0.03;
    return [leftBehind_m3(mesh, [0.5, 0.3, 0.03], up, level), volumeBelow(mesh, { normal: up, offset_m: level })];
  };

  it.each([0, 0.1, 0.2])('heeled %d rad away from its shelf traps nothing', (roll) => {
    const [all, plain] = left(roll);
    expectClose(all, plain, { rel: 1e-12, why: 'one lobe' });
  });

  it.each([0.1, 0.2])('heeled %d rad onto its shelf keeps a wedge there', (roll) => {
    const [all, plain] = left(-roll);
    expectClose(all - plain, (0.2 * 0.2 * Math.tan(roll)) / 2, {
      rel: 1e-9,
      why: 'wedge against the wall, closed form',
    });
  });
});

it('a V-bottom is convex: the plain volume at any roll', () => {
  const mesh = unwrap(
    prismMesh(
      [
        [0, 0.1],
        [0.3, 0],
        [0.6, 0.1],
        [0.6, 0.4],
        [0, 0.4],
      ],
      'x',
      1,
    ),
  );
  for (const roll of [-0.2, -0.1, 0, 0.1, 0.2]) {
    const up = worldUpInVehicle(0, roll);
    const level = up[1] * 0.3 + up[2] * 0.03;
    expect(leftBehind_m3(mesh, [0.5, 0.3, 0.03], up, level)).toBe(volumeBelow(mesh, { normal: up, offset_m: level }));
  }
});

describe('what hangs into the liquid or stands in it', () => {
  const box = boxMesh(1, 0.5, 0.4);
  const less = (size: Vec3, at: Vec3) => unwrap(combine(box, movedMesh(boxMesh(...size), at), 'take'));
  const below = (offset: number): number => 0.5 * offset;

  it('a block that hangs from the lid takes its share and parts nothing', () => {
    const tank = less([0.2, 0.2, 0.3], [0.4, 0.15, 0.2]);
    for (const level of [0.1, 0.25, 0.35])
      expectClose(leftBehind_m3(tank, [0.1, 0.1, 0.02], UP, level), below(level) - 0.04 * Math.max(0, level - 0.2), {
        rel: 1e-9,
        why: 'box less block',
      });
  });

  it('a block that floats free in it does too', () => {
    const tank = less([0.2, 0.2, 0.1], [0.4, 0.15, 0.2]);
    for (const level of [0.1, 0.25, 0.35])
      expectClose(
        leftBehind_m3(tank, [0.1, 0.1, 0.02], UP, level),
        below(level) - 0.04 * Math.min(0.1, Math.max(0, level - 0.2)),
        { rel: 1e-9, why: 'box less block' },
      );
  });

  it('and one that stands on the floor', () => {
    const tank = less([0.2, 0.2, 0.2], [0.4, 0.15, 0]);
    for (const level of [0.1, 0.3])
      expectClose(leftBehind_m3(tank, [0.1, 0.1, 0.02], UP, level), below(level) - 0.04 * Math.min(0.2, level), {
        rel: 1e-9,
        why: 'box less block',
      });
  });

  it('a lobe knows the saddle over which it spills', () => {
    const { saddle_m, volume } = homeLobe(saddle, [0.5, 0.1, 0.02], UP, 0.02);
    expectClose(saddle_m, 0.25, { rel: 1e-12, why: 'underside of the bridge' });
    expectClose(volume(0.1), 0.03, { rel: 1e-12, why: 'one leg' });
    expectClose(volume(0.4), 0.075, { rel: 1e-12, why: 'no more than to the saddle' });
    expect(homeLobe(box, [0.5, 0.1, 0.02], UP, 0.02).saddle_m).toBe(Infinity);
  });
});
