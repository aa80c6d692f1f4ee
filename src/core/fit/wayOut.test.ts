import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { behindLip, outOfSleeve, wayScenes } from '../../../tests/wayScenes';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { boxMesh, combine, placed, posedMesh, poseOf, shiftBy, type ClosedMesh, type Vec3 } from '../geometry';
import {
  alongMove,
  checkWay,
  findWay,
  GAPS_M,
  moveBetween,
  openingsBy,
  removalOrder,
  type Blocker,
  type Part,
} from '.';

const box = (size: Vec3, at: Vec3): ClosedMesh => posedMesh(boxMesh(...size), shiftBy(at));
const blocker = (id: string, surface: ClosedMesh, removable = false): Blocker => ({ id, name: id, surface, removable });
const part = (id: string, size: Vec3, at: Vec3): Part => ({
  id,
  name: id,
  surface: boxMesh(...size),
  at: shiftBy(at),
  middle_m: [size[0] / 2, size[1] / 2, size[2] / 2],
});
const SEARCH = { seed: 3, mostSamples: 60_000 };
const mm = (forward: number, port: number, up: number) => ({
  shift_m: [forward / 1000, port / 1000, up / 1000] as Vec3,
  turn_rad: [0, 0, 0] as Vec3,
});

/**
 * A wall across x, 20 mm thick, with a hole of a size in its middle at height 0; large enough that nothing goes round
 * it.
 */
const wallWithHole = (width: number, height: number): ClosedMesh =>
  unwrap(combine(box([0.02, 4, 4], [0, -2, -2]), box([0.1, width, height], [-0.04, -width / 2, -height / 2]), 'take'));
/** A closed room behind that wall. */
const room = (hole: ClosedMesh): ClosedMesh =>
  unwrap(
    combine(
      unwrap(combine(box([1.5, 1.2, 1.2], [-1.5, -0.6, -0.6]), box([1.48, 1.16, 1.16], [-1.48, -0.58, -0.58]), 'take')),
      hole,
      'add',
    ),
  );

describe('moves', () => {
  it('a move between two poses leads from the one to the other', () => {
    const number = fc.double({ min: -3, max: 3, noNaN: true });
    const pose = fc
      .tuple(number, number, number, number, number, number)
      .map(([x, y, z, yaw_rad, pitch_rad, roll_rad]) =>
        poseOf([x, y, z], { yaw_rad, pitch_rad: pitch_rad / 2, roll_rad }),
      );
    fc.assert(
      fc.property(pose, pose, (from, to) => {
        const there = alongMove(
          from,
          { middle_m: [0.3, 0.2, 0.1] },
          moveBetween({ middle_m: [0.3, 0.2, 0.1] }, from, to),
          1,
        );
        for (const point of [
          [0, 0, 0],
          [1, 0, 0],
          [0, 1, 0.5],
        ] as Vec3[])
          placed(there, point).forEach((value, k) =>
            expectClose(value, placed(to, point)[k]!, { abs: 1e-6, why: 'the same place' }),
          );
      }),
      { seed: 5, numRuns: 200 },
    );
  });

  it('a typed way is checked on the whole of each move, not at its ends', () => {
    const post = blocker('post', box([0.02, 0.02, 1], [0.5, 0.05, -0.5]));
    const shelf = blocker('shelf', box([3, 3, 0.02], [-1, -1, -0.03]));
    const tank = part('tank', [0.1, 0.1, 0.1], [0, 0, 0]);
    const check = checkWay(tank, [post, shelf], [mm(0, 0, 50), mm(1000, 0, 0)]);
    expect(check).toMatchObject({ blockedAt: 1, isOut: false, steps: [{}, { blocked: { by: 'post' } }] });
    expectClose(check.steps[1]!.blocked!.share, 0.4, { abs: 1e-3, why: '400 of 1000 mm free' });
    const round = checkWay(tank, [post, shelf], [mm(0, 0, 50), mm(0, -150, 0), mm(2500, 0, 0)]);
    expect(round).toMatchObject({ isOut: true });
    expectClose(round.tightest_m, 0.01, { abs: 1e-3, why: '10 mm over the shelf where it begins' });
  });

  it('what it rests on may touch it until it has been lifted off', () => {
    const shelf = blocker('shelf', box([3, 3, 0.02], [-1, -1, -0.02]));
    const tank = part('tank', [0.1, 0.1, 0.1], [0, 0, 0]);
    expect(checkWay(tank, [shelf], [mm(0, 0, 500)])).toMatchObject({ isOut: true });
    expect(checkWay(tank, [shelf], [mm(0, 0, -100)]).steps[0]!.blocked).toMatchObject({ by: 'shelf' });
    expect(checkWay(tank, [shelf], [mm(5, 0, 0)]).steps[0]!.blocked).toMatchObject({ by: 'shelf' });
  });
});

describe('a way out is found where there is one', () => {
  it('straight down from an open bay', () => {
    const sides = blocker(
      'bay',
      unwrap(combine(box([0.6, 0.6, 0.4], [-0.05, -0.05, 0]), box([0.52, 0.52, 0.39], [-0.01, -0.01, -0.01]), 'take')),
    );
    const way = unwrap(findWay(part('tank', [0.5, 0.5, 0.3], [0, 0, 0]), [sides], SEARCH));
    expect(way.moves).toHaveLength(1);
    expect(way.moves[0]!.shift_m[2]).toBeLessThan(-0.2);
    expect(way.check.isOut).toBe(true);
  });

  it('a peg that lies across must be turned to go through its slot', () => {
    const wall = blocker('wall', room(wallWithHole(0.1, 0.5)));
    // 400 long across y, the slot is 100 wide and 500 high.
    const peg = part('peg', [0.05, 0.4, 0.05], [-0.5, -0.2, 0]);
    const way = unwrap(findWay(peg, [wall], { seed: 5, mostSamples: 200_000 }));
    expect(way.check.isOut).toBe(true);
    expect(way.moves.some(({ turn_rad }) => Math.hypot(...turn_rad) > 0.5)).toBe(true);
    expect(way.check.tightest_m).toBeGreaterThan(0);
  });

  it('and not through a slot narrower than the peg is thick', () => {
    const wall = blocker('wall', room(wallWithHole(0.045, 0.5)));
    expect(
      findWay(part('peg', [0.05, 0.4, 0.05], [-0.5, -0.2, 0]), [wall], { seed: 5, mostSamples: 12_000 }),
    ).toMatchObject({ ok: false, error: { code: 'none-found' } });
  });

  it('the same seed gives the same way', () => {
    const wall = blocker('wall', room(wallWithHole(0.12, 0.5)));
    const search = () =>
      unwrap(findWay(part('peg', [0.05, 0.4, 0.05], [-0.5, -0.2, 0]), [wall], { seed: 5, mostSamples: 200_000 }));
    expect(search()).toEqual(search());
  });

  it('round a corner between two corridors: a ladder a little shorter than the longest, and not one a little longer', () => {
    // Two corridors 0.5 wide that meet squarely, under a ceiling so low that tipping up gains next to nothing.
    const block = (id: string, size: Vec3, at: Vec3) => blocker(id, box(size, at));
    const corridors = [
      block('floor', [2.3, 2.3, 0.1], [-0.3, -0.3, -0.155]),
      block('ceiling', [2.3, 2.3, 0.1], [-0.3, -0.3, 0.075]),
      block('outer wall', [2.1, 0.1, 0.26], [-0.1, -0.1, -0.1]),
      block('outer side', [0.1, 1.6, 0.26], [-0.1, -0.1, -0.1]),
      block('inner corner', [1.5, 0.9, 0.26], [0.5, 0.5, -0.1]),
      block('end', [0.1, 0.9, 0.26], [1.9, -0.2, -0.1]),
    ];
    // (a^(2/3) + b^(2/3))^(3/2) for a = b = 0.5, the published longest ladder; a bar of width w loses twice w.
    const longest = (2 * 0.5 ** (2 / 3)) ** 1.5;
    const thin = longest - 2 * 0.02;
    const ladder = (length: number) => part('ladder', [length, 0.02, 0.02], [1.85 - length, 0.24, 0]);
    expect(findWay(ladder(thin * 0.93), corridors, { seed: 2, mostSamples: 100_000 })).toMatchObject({
      ok: true,
      value: { check: { isOut: true } },
    });
    expect(findWay(ladder(thin * 1.05), corridors, { seed: 2, mostSamples: 15_000 })).toMatchObject({
      ok: false,
      error: { code: 'none-found' },
    });
  });
});

describe('places with one way, known from how they were made', () => {
  // Each kind once, every other one turned anyhow; more seeds of all of them in the bench.
  const scenes = wayScenes(3);
  for (const scene of scenes.filter((_, i) => i < scenes.length / 2 === (i % 2 === 0))) {
    it(scene.name, () => {
      const way = unwrap(findWay(scene.part, scene.blockers, { seed: 1, mostSamples: 200_000 }));
      expect(way.check.isOut).toBe(true);
      expect(way.check.tightest_m).toBeGreaterThan(0);
      expect(way.moves.length).toBeLessThan(20);
      // The second method: the way found is walked again by the check alone.
      expect(checkWay(scene.part, scene.blockers, way.moves)).toEqual(way.check);
    });
  }

  it('a gap narrower than any that is searched is not gone through, and it is said how narrow they were', () => {
    const { part: tank, blockers } = outOfSleeve(seeded(1), 0.8 * GAPS_M.at(-1)!);
    expect(findWay(tank, blockers, { seed: 1, mostSamples: 3000 })).toMatchObject({
      ok: false,
      error: { code: 'none-found', detail: expect.stringContaining('less than 0.3 mm of room') as string },
    });
    // Room to begin with, and none to go on: a cage.
    const cage = findWay(
      tank,
      [blocker('cage', unwrap(combine(box([3, 3, 3], [-1.5, -1.5, -1.5]), box([2, 2, 2], [-1, -1, -1]), 'take')))],
      { seed: 1, mostSamples: 15_000 },
    );
    expect(cage).toMatchObject({
      ok: false,
      error: { code: 'none-found', detail: expect.stringContaining('with 0.3 mm or more left') as string },
    });
  });
});

describe('what blocks', () => {
  it('is the lip and not the floor, by as much as it is too high', () => {
    // 30 mm of lip, 12 mm over the tank, which stands 2 mm over the floor: 30 - 2 = 28 mm of it are in the way of the
    // straight move out.
    const { part: tank, blockers } = behindLip(0.03, 0.012);
    expect(findWay(tank, blockers, { seed: 1, mostSamples: 4000 }).ok).toBe(false);
    const openings = unwrap(openingsBy(tank, blockers, { seed: 1, mostSamples: 2000 }));
    expect(openings[0]).toMatchObject({ id: 'lip' });
    expectClose(openings[0]!.inTheWay_m, 0.028, { abs: 1e-3, why: 'the lip less what the tank stands over the floor' });
    expect(openings.map(({ id }) => id)).toContain('floor');
    // A lip lower than the room over the tank blocks nothing.
    const low = behindLip(0.01, 0.012);
    expect(findWay(low.part, low.blockers, { seed: 1, mostSamples: 60_000 })).toMatchObject({ ok: true });
  });

  it('what can be taken out comes first', () => {
    const { part: tank, blockers } = behindLip(0.03, 0.012);
    const withHatch = blockers.map((one) => (one.id === 'floor' ? { ...one, removable: true } : one));
    expect(
      unwrap(openingsBy(tank, withHatch, { seed: 1, mostSamples: 2000 }))
        .slice(0, 2)
        .map(({ id }) => id),
    ).toEqual(['floor', 'lip']);
  });
});

describe('an L of equal legs through a door', () => {
  // A flat L goes round the jamb of a thin wall by the diagonal of its corner: a door narrower than its thickness times
  // the root of two lets none through, however the L is turned in its plane.
  const [leg, thick, room] = [0.4, 0.06, 0.11];
  const angle: Part = {
    id: 'L',
    name: 'L',
    surface: unwrap(combine(boxMesh(leg, thick, 0.05), boxMesh(thick, leg, 0.05), 'add')),
    at: shiftBy([-0.6, -0.3, 0]),
    middle_m: [0.15, 0.15, 0.025],
  };
  const door = (width: number): Blocker[] => [
    blocker('floor', box([1.2, 1, 0.05], [-0.7, -0.5, -0.06])),
    blocker('ceiling', box([1.2, 1, 0.05], [-0.7, -0.5, room])),
    blocker('back', box([0.05, 1, 0.16], [-0.7, -0.5, -0.03])),
    blocker('port side', box([0.7, 0.05, 0.16], [-0.7, 0.45, -0.03])),
    blocker('starboard side', box([0.7, 0.05, 0.16], [-0.7, -0.5, -0.03])),
    blocker('port jamb', box([0.01, 0.5 - width / 2, 0.16], [0, width / 2, -0.03])),
    blocker('starboard jamb', box([0.01, 0.5 - width / 2, 0.16], [0, -0.5, -0.03])),
  ];

  it('goes through a door with room to spare, turning as it goes', () => {
    const way = unwrap(findWay(angle, door(0.14), { seed: 1, mostSamples: 120_000 }));
    expect(way.check.isOut).toBe(true);
    expect(way.moves.reduce((sum, { turn_rad }) => sum + Math.hypot(...turn_rad), 0)).toBeGreaterThan(Math.PI / 4);
  });

  it('and not through one narrower than the diagonal of its corner', () => {
    expect(findWay(angle, door(thick * Math.SQRT2 - 0.003), { seed: 5, mostSamples: 25_000 })).toMatchObject({
      ok: false,
      error: { code: 'none-found' },
    });
  });
});

describe('where there is no way', () => {
  const cage = (): Blocker[] => [
    blocker(
      'cage',
      unwrap(
        combine(
          unwrap(combine(box([1, 1, 1], [-0.5, -0.5, -0.5]), box([0.96, 0.96, 0.96], [-0.48, -0.48, -0.48]), 'take')),
          box([0.5, 0.4, 0.4], [0.3, -0.2, -0.2]),
          'take',
        ),
      ),
    ),
    blocker('cover', box([0.02, 0.5, 0.5], [0.51, -0.25, -0.25]), true),
  ];
  const inside = part('tank', [0.3, 0.3, 0.3], [-0.15, -0.15, -0.15]);

  it('it says so, and names the one part that opens one', () => {
    expect(findWay(inside, cage(), { seed: 1, mostSamples: 6000 })).toMatchObject({
      ok: false,
      error: { code: 'none-found' },
    });
    expect(unwrap(openingsBy(inside, cage(), { seed: 1, mostSamples: 20_000 }))[0]).toMatchObject({
      id: 'cover',
      removable: true,
      way: { check: { isOut: true } },
    });
  });

  it('nothing opens one for a part larger than every hole', () => {
    const big = part('tank', [0.5, 0.5, 0.5], [-0.25, -0.25, -0.25]);
    expect(
      unwrap(
        openingsBy(
          big,
          cage()
            .slice(0, 1)
            .concat(blocker('post', box([0.02, 0.02, 0.3], [0.6, 0, 0]), true)),
          { seed: 1, mostSamples: 3000 },
        ),
      ).map(({ id }) => id),
    ).toEqual(['cage']);
  });

  it('a part that goes through something when fitted is refused, with its name', () => {
    expect(findWay(inside, [...cage(), blocker('axle', box([1, 0.1, 0.1], [-0.4, 0, 0]))], SEARCH)).toMatchObject({
      ok: false,
      error: { code: 'does-not-fit', at: 'axle' },
    });
  });

  it('it can be stopped', () => {
    expect(findWay(inside, cage(), { seed: 1, mostSamples: 1e9, stop: () => true })).toMatchObject({
      ok: false,
      error: { code: 'stopped' },
    });
  });

  it('it tells how far it has come', () => {
    const told: number[] = [];
    findWay(inside, cage(), { seed: 1, mostSamples: 3000, onProgress: ({ samples }) => told.push(samples) });
    expect(told.length).toBeGreaterThan(5);
    expect([...told].sort((a, b) => a - b)).toEqual(told);
  });

  it('the removal order takes out what is in the way, and nothing else', () => {
    const shaft = blocker(
      'shaft',
      unwrap(combine(box([0.5, 0.5, 2], [-0.25, -0.25, -0.5]), box([0.42, 0.42, 2], [-0.21, -0.21, -0.48]), 'take')),
    );
    const parts = [
      part('tank', [0.4, 0.4, 0.3], [-0.2, -0.2, -0.4]),
      part('tray', [0.4, 0.4, 0.05], [-0.2, -0.2, 0.1]),
      part('cover', [0.4, 0.4, 0.02], [-0.2, -0.2, 0.6]),
      part('spare can', [0.1, 0.1, 0.1], [1, 1, 0]),
    ];
    expect(unwrap(removalOrder('tank', parts, [shaft], { seed: 1, mostSamples: 4000 })).map(({ id }) => id)).toEqual([
      'cover',
      'tray',
      'tank',
    ]);
  });
});
