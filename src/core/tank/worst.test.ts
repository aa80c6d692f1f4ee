import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  boxMesh,
  combine,
  meshVolume,
  movedMesh,
  prismMesh,
  vesselMesh,
  worldUpInVehicle,
  type ClosedMesh,
  type Vec3,
} from '../geometry';
import { unwrap } from '../outcome';
import { divided, fitPlate, unusable_m3, worstUnusable, type LiquidSpace, type Plate } from '.';

const PLATE: Plate = {
  id: 'p',
  axis: 0,
  at_m: 0.5,
  thickness_m: 0.003,
  from_m: -Infinity,
  to_m: Infinity,
  cornerCut_m: 0.03,
  topGap_m: 0.03,
  holes: { count: 0, diameter_m: 0.03, height_m: 0.1 },
};
const baffled = (mesh: ClosedMesh, ...plates: Plate[]): LiquidSpace => ({
  mesh,
  division: unwrap(
    divided(
      mesh,
      plates.map((plate) => fitPlate(mesh, plate)),
    ),
  ),
});

const BOX = boxMesh(1, 0.5, 0.4);
const SADDLE = unwrap(
  prismMesh(
    [
      [0, 0],
      [0.3, 0],
      [0.3, 0.2],
      [0.45, 0.2],
      [0.45, 0],
      [0.75, 0],
      [0.75, 0.4],
      [0, 0.4],
    ],
    'x',
    1,
  ),
);
const SUMPED = unwrap(combine(BOX, movedMesh(boxMesh(0.2, 0.2, 0.05), [0.4, 0.15, -0.05]), 'add'));
const DRUM = unwrap(
  vesselMesh({ radius_m: 0.25, shell_m: 0.7, axis: 'x', nearEnd: 'torispherical', farEnd: 'torispherical' }),
);

const SPACES: Readonly<Record<string, { readonly space: LiquidSpace; readonly within: readonly [Vec3, Vec3] }>> = {
  box: {
    space: { mesh: BOX },
    within: [
      [0.05, 0.05, 0.01],
      [0.95, 0.45, 0.05],
    ],
  },
  saddle: {
    space: { mesh: SADDLE },
    within: [
      [0.05, 0.05, 0.01],
      [0.95, 0.25, 0.05],
    ],
  },
  'box with a sump': {
    space: { mesh: SUMPED },
    within: [
      [0.42, 0.17, -0.04],
      [0.58, 0.33, 0.02],
    ],
  },
  'box with two baffles': {
    space: baffled(
      BOX,
      { ...PLATE, at_m: 0.3 },
      { ...PLATE, id: 'q', at_m: 0.7, cornerCut_m: 0, holes: { count: 3, diameter_m: 0.04, height_m: 0.05 } },
    ),
    within: [
      [0.05, 0.05, 0.01],
      [0.95, 0.45, 0.05],
    ],
  },
  'dished drum with a baffle': {
    space: baffled(DRUM, PLATE),
    within: [
      [0.3, 0.2, 0.03],
      [0.7, 0.3, 0.08],
    ],
  },
};

/** Attitudes each way of the grid that it is held against. */
const DENSE = 25;
/** Of the tank: what the quick search may miss of the worst. */
const MISSED_REL = 2e-3;

describe('the worst attitude of an envelope', () => {
  it.each(Object.entries(SPACES))(
    '%s: the quick search finds what a dense grid finds',
    (_, { space, within: [low, high] }) => {
      const angle = fc.double({ min: 0.02, max: 0.45, noNaN: true });
      const share = fc.double({ min: 0, max: 1, noNaN: true });
      fc.assert(
        fc.property(
          fc.tuple(angle, angle, angle, angle),
          fc.tuple(share, share, share),
          ([down, up, port, starboard], shares) => {
            const inlet = {
              point_m: low.map((value, k) => value + shares[k]! * (high[k]! - value)) as unknown as Vec3,
              submergence_m: 0.005,
            };
            const worst = worstUnusable(
              space,
              inlet,
              { pitch_rad: [-down, up], roll_rad: [-port, starboard] },
              worldUpInVehicle,
            );
            let dense = 0;
            for (let i = 0; i < DENSE; i++) {
              for (let j = 0; j < DENSE; j++) {
                const [pitch, roll] = [
                  -down + ((down + up) * i) / (DENSE - 1),
                  -port + ((port + starboard) * j) / (DENSE - 1),
                ];
                dense = Math.max(dense, unusable_m3(space, inlet, worldUpInVehicle(pitch, roll)));
              }
            }
            expect(worst.unusable_m3).toBeGreaterThanOrEqual(dense - MISSED_REL * meshVolume(space.mesh));
            expect(worst.unusable_m3).toBeLessThanOrEqual(meshVolume(space.mesh) * (1 + 1e-9));
            expect(unusable_m3(space, inlet, worldUpInVehicle(worst.pitch_rad, worst.roll_rad))).toBe(
              worst.unusable_m3,
            );
          },
        ),
        { seed: 17, numRuns: 12 },
      );
    },
  );
});
