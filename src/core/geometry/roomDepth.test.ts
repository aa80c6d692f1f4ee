import { describe, expect, it } from 'vitest';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { expectClose } from '../../../tests/expectClose';
import { boxMesh, depthInside, prismMesh, roomDepth, vesselMesh, type Vec3 } from '.';

const BODIES = [
  ['a box', boxMesh(1, 0.6, 0.4)],
  [
    'a drum of many strips',
    unwrap(vesselMesh({ axis: 'x', radius_m: 0.3, shell_m: 0.8, nearEnd: 'flat', farEnd: 'torispherical' })),
  ],
  [
    'an L, which is not convex',
    unwrap(
      prismMesh(
        [
          [0, 0],
          [0.6, 0],
          [0.6, 0.2],
          [0.2, 0.2],
          [0.2, 0.4],
          [0, 0.4],
        ],
        'x',
        0.5,
      ),
    ),
  ],
] as const;

describe.each(BODIES)('depth in %s', (_, mesh) => {
  it('is the distance to its surface inside, and below nothing outside', () => {
    const chance = seeded(5);
    const depth = roomDepth(mesh);
    for (let i = 0; i < 300; i++) {
      const point: Vec3 = [chance.uniform() * 1.2 - 0.1, chance.uniform() * 0.8 - 0.1, chance.uniform() * 0.8 - 0.1];
      const exact = depthInside(mesh, point);
      if (exact > 0)
        expectClose(depth(point), exact, { abs: 1e-7, why: 'the nearest plane of a convex body is its nearest face' });
      else expect(depth(point)).toBeLessThanOrEqual(1e-7);
    }
  });
});
