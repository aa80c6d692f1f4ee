import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import { AT_HOME, boxMesh, posedMesh, poseOf, shiftBy, vesselMesh, type ClosedMesh, type Vec3 } from '../geometry';
import {
  chanceAllPositive,
  clearanceAt,
  clearanceTo,
  clearanceToPanel,
  drawnBay,
  movedTo,
  rangeOf,
  type Body,
  type Thing,
} from '.';

const box = (size: Vec3, at: Vec3): ClosedMesh => posedMesh(boxMesh(...size), shiftBy(at));
const body = (...surfaces: ClosedMesh[]): Body => ({
  id: 'tank',
  name: 'Tank',
  at: AT_HOME,
  pieces: surfaces.map((surface, i) => ({ id: `piece-${i}`, name: `Piece ${i}`, surface })),
});
const thing = (surface: ClosedMesh, ...motions: Thing['motions'][number][]): Thing => ({
  id: 'thing',
  name: 'Thing',
  role: 'obstacle',
  surface,
  motions,
  keep_m: 0.01,
  removable: false,
});
const TANK = body(box([0.6, 0.4, 0.3], [0, 0, 0]));

const straight = (moves: readonly number[]) => moves.map((move) => ({ at: [1], moves_m: [move] }));

describe('clearance to what stands still', () => {
  it('box to box, with the points and the way to gain room', () => {
    const found = clearanceTo(TANK, thing(box([0.1, 0.1, 0.1], [0.2, 0.1, -0.125])));
    expectClose(found.distance_m, 0.025, { rel: 1e-12, why: 'faces' });
    expect(found.away.map((value) => Math.round(value * 1e9) / 1e9)).toEqual([0, 0, 1]);
    expectClose(found.onBody[2] - found.onThing[2], 0.025, { rel: 1e-12, why: 'the two points' });
  });

  it('the nearest piece is named: a hose end on the lid', () => {
    const found = clearanceTo(
      body(box([0.6, 0.4, 0.3], [0, 0, 0]), box([0.05, 0.05, 0.06], [0.3, 0.2, 0.3])),
      thing(box([1, 1, 0.02], [-0.2, -0.2, 0.38])),
    );
    expect(found).toMatchObject({ piece: 'piece-1', pieceName: 'Piece 1' });
    expectClose(found.distance_m, 0.02, { rel: 1e-12, why: 'over the hose end' });
  });

  it('an overlap is the least straight shift that frees it', () => {
    const found = clearanceTo(TANK, thing(box([0.2, 0.2, 0.2], [0.2, 0.1, -0.17])));
    expectClose(found.distance_m, -0.03, { rel: 1e-12, why: '30 mm deep from below' });
    expect(found.away).toEqual([-0, -0, 1].map((value) => (value === 0 ? expect.closeTo(0, 12) : value)));
  });

  it('one wholly inside the other overlaps, whichever it is', () => {
    const small = box([0.1, 0.1, 0.1], [0.2, 0.15, 0.1]);
    expect(clearanceTo(TANK, thing(small)).distance_m).toBeLessThan(-0.1);
    expect(clearanceTo(body(small), thing(box([0.6, 0.4, 0.3], [0, 0, 0]))).distance_m).toBeLessThan(-0.1);
  });

  it('just touching is none', () => {
    expectClose(clearanceTo(TANK, thing(box([0.2, 0.2, 0.2], [0.2, 0.1, -0.2]))).distance_m, 0, {
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
    const axle = thing(box([0.08, 1, 0.08], [0.2, -0.3, -0.3]), {
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
    const lever = thing(
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
    const lever = thing(posedMesh(arm, shiftBy(at)), {
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
    const wheel = thing(
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
    const lever = thing(box([0.4, 0.1, 0.1], [0.5, 0, 0]), hinge(0, 1));
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
