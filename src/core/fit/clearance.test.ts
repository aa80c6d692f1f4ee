import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { AT_HOME, boxMesh, posedMesh, poseOf, shiftBy, vesselMesh, type ClosedMesh, type Vec3 } from '../geometry';
import {
  chanceAllPositive,
  clearanceAt,
  clearanceTo,
  clearanceToPanel,
  drawnBay,
  joinedSurface,
  leastAt,
  leastToPanel,
  movedTo,
  rangeOf,
  type Body,
  type Obstacle,
} from '.';

const box = (size: Vec3, at: Vec3): ClosedMesh => posedMesh(boxMesh(...size), shiftBy(at));
const body = (...surfaces: ClosedMesh[]): Body => ({
  id: 'tank',
  name: 'Tank',
  at: AT_HOME,
  pieces: surfaces.map((surface, i) => ({ id: `piece-${i}`, name: `Piece ${i}`, surface })),
});
const obstacle = (surface: ClosedMesh, ...motions: Obstacle['motions'][number][]): Obstacle => ({
  id: 'obstacle',
  name: 'Obstacle',
  role: 'obstacle',
  surface,
  motions,
  keep_m: 0.01,
  removable: false,
});
const TANK = body(box([0.6, 0.4, 0.3], [0, 0, 0]));

const straight = (moves: readonly number[]) => moves.map((move) => ({ at: [1], moves_m: [move] }));

describe('what is asked short', () => {
  const chance = seeded(7);
  const near = (most: number): number => most * (2 * chance.uniform() - 1);
  const cases = Array.from({ length: 100 }, () => ({
    tank: {
      ...body(box([0.6, 0.4, 0.3], [0, 0, 0]), box([0.05, 0.05, 0.06], [0.3, 0.2, 0.3])),
      at: poseOf([near(0.1), near(0.1), near(0.1)], { yaw_rad: near(3), pitch_rad: near(3), roll_rad: near(3) }),
    },
    // Beside it, cutting it, within it, and round it.
    other: obstacle(
      posedMesh(
        boxMesh(...([0, 1, 2].map(() => 0.02 + 1.2 * chance.uniform() ** 3) as unknown as Vec3)),
        poseOf([near(0.5), near(0.5), near(0.5)], { yaw_rad: near(3), pitch_rad: near(3), roll_rad: near(3) }),
      ),
    ),
  }));

  it('a guess changes no answer, however far off it is; a limit none below it (seeded)', () => {
    const seen = { overlap: 0, clear: 0 };
    for (const { tank, other } of cases) {
      const { distance_m } = clearanceAt(tank, other, []);
      seen[distance_m > 0 ? 'clear' : 'overlap']++;
      for (const guess_m of [-0.2, 0, distance_m, distance_m + 1e-3, 5]) {
        expect(clearanceAt(tank, other, [], guess_m).distance_m).toBe(distance_m);
        expect(leastAt(tank, other, [[]], guess_m)).toBe(distance_m);
        for (const upTo_m of [-0.1, 0, 0.02, 0.2, 2]) {
          const told = leastAt(tank, other, [[]], guess_m, upTo_m);
          if (distance_m <= upTo_m) expect(told).toBe(distance_m);
          else expect(told >= Math.min(distance_m, upTo_m)).toBe(true);
        }
      }
    }
    expect(Math.min(seen.overlap, seen.clear)).toBeGreaterThan(15);
  });

  it('the same of a side of the bay (seeded)', () => {
    const side = { fore: 'wall', aft: 'wall', port: 'wall', starboard: 'wall', top: 'wall', floor: 'wall' } as const;
    const { panels } = drawnBay(box([1.2, 1, 0.8], [-0.4, -0.4, -0.3]), side);
    for (const { tank } of cases)
      for (const panel of panels) {
        const { distance_m } = clearanceToPanel(tank, panel);
        for (const guess_m of [-0.2, 0, distance_m, 5]) {
          expect(clearanceToPanel(tank, panel, guess_m).distance_m).toBe(distance_m);
          for (const upTo_m of [0, 0.05, 3])
            if (distance_m <= upTo_m) expect(leastToPanel(tank, panel, guess_m, upTo_m)).toBe(distance_m);
            else expect(leastToPanel(tank, panel, guess_m, upTo_m)).toBeGreaterThan(upTo_m);
        }
      }
  });
});

describe('clearance to what stands still', () => {
  it('box to box, with the points and the way to gain room', () => {
    const found = clearanceTo(TANK, obstacle(box([0.1, 0.1, 0.1], [0.2, 0.1, -0.125])));
    expectClose(found.distance_m, 0.025, { rel: 1e-12, why: 'faces' });
    expect(found.away.map((value) => Math.round(value * 1e9) / 1e9)).toEqual([0, 0, 1]);
    expectClose(found.onBody[2] - found.onObstacle[2], 0.025, { rel: 1e-12, why: 'the two points' });
  });

  it('the nearest piece is named: a hose end on the lid', () => {
    const found = clearanceTo(
      body(box([0.6, 0.4, 0.3], [0, 0, 0]), box([0.05, 0.05, 0.06], [0.3, 0.2, 0.3])),
      obstacle(box([1, 1, 0.02], [-0.2, -0.2, 0.38])),
    );
    expect(found).toMatchObject({ piece: 'piece-1', pieceName: 'Piece 1' });
    expectClose(found.distance_m, 0.02, { rel: 1e-12, why: 'over the hose end' });
  });

  it('an overlap is the least straight shift that frees it', () => {
    const found = clearanceTo(TANK, obstacle(box([0.2, 0.2, 0.2], [0.2, 0.1, -0.17])));
    expectClose(found.distance_m, -0.03, { rel: 1e-12, why: '30 mm deep from below' });
    expect(found.away).toEqual([-0, -0, 1].map((value) => (value === 0 ? expect.closeTo(0, 12) : value)));
  });

  it('one wholly inside the other overlaps, whichever it is', () => {
    const small = box([0.1, 0.1, 0.1], [0.2, 0.15, 0.1]);
    expect(clearanceTo(TANK, obstacle(small)).distance_m).toBeLessThan(-0.1);
    expect(clearanceTo(body(small), obstacle(box([0.6, 0.4, 0.3], [0, 0, 0]))).distance_m).toBeLessThan(-0.1);
  });

  it('a body of an obstacle wholly inside overlaps, though another body of it stands far off, whichever comes first', () => {
    const [far, inside] = [box([0.1, 0.1, 0.1], [5, 5, 5]), box([0.05, 0.05, 0.05], [0.2, 0.2, 0.1])];
    const alone = clearanceTo(TANK, obstacle(inside)).distance_m;
    expect(alone).toBeLessThan(0);
    for (const pieces of [
      [far, inside],
      [inside, far],
    ]) {
      const found = clearanceTo(TANK, obstacle(joinedSurface(pieces) as ClosedMesh)).distance_m;
      expect(found).toBeLessThan(0);
      // To free it of both it must go as far as of the one.
      expectClose(found, alone, { rel: 1e-12, why: 'the other stands in no way' });
    }
  });

  it('just touching is none', () => {
    expectClose(clearanceTo(TANK, obstacle(box([0.2, 0.2, 0.2], [0.2, 0.1, -0.2]))).distance_m, 0, {
      abs: 1e-12,
      why: 'contact',
    });
  });
});

describe('clearance over a motion', () => {
  const arm = posedMesh(boxMesh(0.4, 0.05, 0.05), shiftBy([0, 0, 0]));
  const hinge = (from: number, to: number) => ({
    kind: 'hinge' as const,
    point_m: [0.9, 0.2, 0.1] as Vec3,
    axis: [0, 1, 0] as Vec3,
    from_rad: from,
    to_rad: to,
  });

  it('an axle at full bump: at the end of its travel, by the closed form', () => {
    const axle = obstacle(box([0.08, 1, 0.08], [0.2, -0.3, -0.3]), {
      kind: 'slide',
      way: [0, 0, 1],
      from_m: -0.06,
      to_m: 0.19,
    });
    const found = clearanceTo(TANK, axle);
    expectClose(found.distance_m, 0.22 - 0.19, { abs: 1e-4, why: 'rest gap less bump' });
    expectClose(found.at[0]!, 0.19, { abs: 1e-4, why: 'full bump' });
  });

  it('tightest in the middle of a swing, where neither end shows it', () => {
    const lever = obstacle(
      posedMesh(arm, poseOf([0.9, 0.175, 0.1], { yaw_rad: Math.PI, pitch_rad: 0, roll_rad: 0 })),
      hinge(-1, 1),
    );
    const found = clearanceTo(body(box([0.4, 0.4, 0.3], [0, 0, 0])), lever);
    const ends = [-1, 1].map((at) => clearanceAt(body(box([0.4, 0.4, 0.3], [0, 0, 0])), lever, [at]).distance_m);
    expect(found.distance_m).toBeLessThan(Math.min(...ends) - 0.01);
    expect(Math.abs(found.at[0]!)).toBeLessThan(0.5);
  });

  it.each([1, 2, 3, 4, 5, 6])('no contact is missed against ten times as many looks, swing %i', (seed) => {
    const at = [0.5 + 0.07 * seed, 0.1, 0.05 * seed] as Vec3;
    const lever = obstacle(posedMesh(arm, shiftBy(at)), {
      kind: 'hinge',
      point_m: at,
      axis: [0.2 * seed, 1, 0.3],
      from_rad: -1.2,
      to_rad: 1.4,
    });
    const target = body(
      unwrap(vesselMesh({ radius_m: 0.2, shell_m: 0.5, axis: 'x', nearEnd: 'flat', farEnd: 'flat' })),
    );
    const found = clearanceTo(target, lever);
    const dense = Math.min(
      ...Array.from({ length: 1301 }, (_, i) => clearanceAt(target, lever, [-1.2 + (2.6 * i) / 1300]).distance_m),
    );
    if (found.distance_m > 0) {
      expect(found.distance_m).toBeLessThan(dense + Math.max(1e-4, 0.01 * dense));
      expect(found.distance_m).toBeGreaterThan(dense - 0.002);
    } else expect(dense).toBeLessThanOrEqual(1e-4);
  });

  it('a wheel that steers while its axle travels: both together', () => {
    const wheel = obstacle(
      box([0.5, 0.15, 0.5], [0.75, 0.1, -0.2]),
      { kind: 'hinge', point_m: [1, 0.175, 0], axis: [0, 0, 1], from_rad: -0.6, to_rad: 0.6 },
      { kind: 'slide', way: [0, 0, 1], from_m: -0.1, to_m: 0.1 },
    );
    const { low, high } = rangeOf(wheel);
    const dense = Math.min(
      ...Array.from({ length: 61 }, (_, i) => i / 60).flatMap((s) =>
        Array.from({ length: 21 }, (_, j) => j / 20).map(
          (u) =>
            clearanceAt(TANK, wheel, [low[0]! + s * (high[0]! - low[0]!), low[1]! + u * (high[1]! - low[1]!)])
              .distance_m,
        ),
      ),
    );
    const found = clearanceTo(TANK, wheel);
    expect(found.distance_m).toBeLessThanOrEqual(dense + 1e-4);
    expect(found.distance_m).toBeGreaterThan(dense - 0.004);
  });

  it('its slopes bound how fast any point moves', () => {
    const lever = obstacle(box([0.4, 0.1, 0.1], [0.5, 0, 0]), hinge(0, 1));
    const [slope] = rangeOf(lever).slopes;
    for (let i = 0; i < 8; i++) {
      const corner = [0, 1, 2].map((k) => lever.surface.positions[3 * i + k]!) as unknown as Vec3;
      const moved = (at: number): Vec3 => {
        const { axes, origin_m } = movedTo(lever, [at]);
        return [0, 1, 2].map(
          (k) => origin_m[k]! + axes[0][k]! * corner[0] + axes[1][k]! * corner[1] + axes[2][k]! * corner[2],
        ) as unknown as Vec3;
      };
      const [a, b] = [moved(0.3), moved(0.301)];
      expect(Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) / 0.001).toBeLessThanOrEqual(slope! * 1.0001);
    }
  });
});

describe('clearance to the sides of a bay', () => {
  const bay = drawnBay(box([1, 0.8, 0.5], [-0.1, -0.2, -0.1]), {
    fore: 'wall',
    aft: 'wall',
    port: 'wall',
    starboard: 'wall',
    top: 'open',
    floor: 'wall',
  });
  const to = (id: string, of: Body = TANK) =>
    clearanceToPanel(
      of,
      bay.panels.find((panel) => panel.id === `bay-${id}`)!,
    );

  it('from within, by the closed form', () => {
    expectClose(to('fore').distance_m, 0.3, { rel: 1e-12, why: '0.9 less 0.6' });
    expectClose(to('floor').distance_m, 0.1, { rel: 1e-12, why: 'below' });
    expectClose(to('top').distance_m, 0.1, { rel: 1e-12, why: 'above' });
  });

  it('through a wall, by how far it must come back', () => {
    const through = to('fore', { ...TANK, at: shiftBy([0.35, 0, 0]) });
    expectClose(through.distance_m, -0.05, { rel: 1e-9, why: '50 mm through' });
    expect(through.away[0]).toBeCloseTo(-1, 12);
    expectClose(to('fore', { ...TANK, at: shiftBy([2, 0, 0]) }).distance_m, -1.7, { rel: 1e-9, why: 'wholly beyond' });
  });
});

describe('the chance that it fits', () => {
  /** @source standard normal distribution, M. Abramowitz and I. Stegun, table 26.1 */
  it.each([
    [0, 0.5],
    [1, 0.8413],
    [1.645, 0.95],
    [2.326, 0.99],
  ])('one gap of %f deviations: %f', (margin, chance) => {
    expectClose(chanceAllPositive([{ margin_m: margin * 0.002, profiles: straight([0.002]) }]), chance, {
      abs: 0.02,
      why: 'four standard errors of 5,000 trials',
    });
  });

  it('two gaps that one error moves oppositely, and two errors on one gap', () => {
    expectClose(
      chanceAllPositive([
        { margin_m: 0.001, profiles: straight([0.001]) },
        { margin_m: 0.001, profiles: straight([-0.001]) },
      ]),
      0.6827,
      { abs: 0.027, why: 'within one deviation either way' },
    );
    expectClose(chanceAllPositive([{ margin_m: 0.005, profiles: straight([0.003, 0.004]) }]), 0.8413, {
      abs: 0.02,
      why: '3-4-5: one deviation',
    });
  });

  it('without uncertainty it fits or it does not', () => {
    expect(chanceAllPositive([{ margin_m: 0.001, profiles: straight([]) }])).toBe(1);
    expect(chanceAllPositive([{ margin_m: -0.001, profiles: straight([0]) }])).toBe(0);
  });
});
