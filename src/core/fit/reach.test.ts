import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import {
  AT_HOME,
  boxMesh,
  combine,
  composed,
  frameAlong,
  meshVolume,
  nearestSeam,
  posedMesh,
  poseOf,
  shiftBy,
  unitVector,
  type ClosedMesh,
  type Vec3,
} from '../geometry';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { GRIP, RATCHET, SPANNERS, spannerFor } from '../reference/reachTools';
import {
  fixedTool,
  handHolds,
  joinedSurface,
  meets,
  nozzleHolds,
  reached,
  screwHolds,
  sightHolds,
  socketTools,
  spunAt,
  spannerTools,
  tighteningHolds,
  torchHolds,
  widestArc,
  type Standing,
} from '.';

const SEED = 20261125;
const solid = (surface: ClosedMesh, id = 'solid'): Standing => ({
  id,
  name: id,
  surface,
  removable: false,
  closed: true,
});
const box = (size: Vec3, at: Vec3, id = 'box'): Standing => solid(posedMesh(boxMesh(...size), shiftBy(at)), id);
/** A wall whose near side lies at a distance along x, y or z from the origin. */
const wall = (axis: 0 | 1 | 2, at_m: number, side: 1 | -1 = 1): Standing => {
  const size: [number, number, number] = [4, 4, 4];
  const from: [number, number, number] = [-2, -2, -2];
  size[axis] = 0.1;
  from[axis] = side > 0 ? at_m : -at_m - 0.1;
  return box(size, from, `wall ${axis} ${side}`);
};
const ROW = spannerFor(0.022)!;
const [FLAT] = spannerTools(ROW) as [ReturnType<typeof spannerTools>[number]];
/** The grip's outer corner is what reaches furthest: R cos(θ - φ) = d where it touches. */
const CORNER = Math.hypot(ROW.length, GRIP.width / 2);
const touching = (d: number): number => Math.atan2(GRIP.width / 2, ROW.length) + Math.acos(d / CORNER);
const arcOf = (...standing: Standing[]): number => {
  const arc = widestArc(FLAT, AT_HOME, standing);
  return arc ? arc.to - arc.from : 0;
};
const STEP = { abs: 5e-3, why: 'ends of an arc are found to 2e-3 rad each' };

describe('a spanner’s swing', () => {
  it('is a whole turn where nothing is near', () =>
    expectClose(arcOf(wall(0, 1)), 2 * Math.PI, { rel: 1e-12, why: 'nothing in reach' }));

  it.each([0.06, 0.12, 0.2])('beside a wall at %d m: plane trigonometry of the grip’s corner', (d) => {
    expectClose(arcOf(wall(0, d)), 2 * Math.PI - 2 * touching(d), STEP);
  });

  it.each([0.06, 0.12, 0.2])('between two walls at %d m on either side: half of it', (d) => {
    expectClose(arcOf(wall(0, d), wall(0, d, -1)), Math.PI - 2 * touching(d), STEP);
  });

  it('a post thinner than the angle between two looks is not overlooked', () => {
    const r = ROW.length - GRIP.along / 2;
    const [post, at] = [0.001, Math.PI / 24];
    const found = arcOf(box([post, post, 2], [r * Math.cos(at) - post / 2, r * Math.sin(at) - post / 2, -1]));
    expectClose(found, 2 * Math.PI - 2 * Math.asin((GRIP.width / 2 + post / 2) / r), {
      abs: 0.02,
      why: 'a square post of 1 mm',
    });
  });

  it('is none deep within a solid, however far its sides are', () =>
    expect(widestArc(FLAT, AT_HOME, [box([10, 10, 10], [-5, -5, -5])])).toBeUndefined());

  it('is stopped by a piece within it, though other pieces of the same body stand far off, whichever comes first', () => {
    const [far, post] = [box([0.1, 0.1, 0.1], [5, 5, 5]), box([0.01, 0.01, 0.004], [0.1, 0.02, -0.002])];
    const alone = arcOf(post);
    expect(alone).toBeLessThan(2 * Math.PI - 0.1);
    for (const pieces of [
      [far, post],
      [post, far],
    ])
      expectClose(arcOf(solid(joinedSurface(pieces.map(({ surface }) => surface)) as ClosedMesh)), alone, STEP);
  });

  it('is free all along and no wider than what a look at every half degree leaves, whatever stands round (seeded)', () => {
    const chance = seeded(19);
    const LOOKS = 720;
    let found = 0;
    for (let run = 0; run < 25; run++) {
      const near = (most: number): number => most * (2 * chance.uniform() - 1);
      const pose = poseOf([near(0.1), near(0.1), near(0.1)], {
        yaw_rad: near(3),
        pitch_rad: near(3),
        roll_rad: near(3),
      });
      const standing = Array.from({ length: 4 }, () => {
        const size = [0, 1, 2].map(() => 0.01 + 0.2 * chance.uniform()) as unknown as Vec3;
        return box(size, [near(0.3), near(0.3), near(0.15)]);
      });
      const tool = chance.uniform() < 0.5 ? FLAT : socketTools(ROW)[0]!;
      const arc = widestArc(tool, pose, standing);
      // Asked for one of some width, it is the same where it is as wide, and none that is where not.
      const least = 2 * Math.PI * chance.uniform();
      const wide = widestArc(tool, pose, standing, least);
      if (arc && arc.to - arc.from >= least) expect(wide).toEqual(arc);
      else expect(wide ? wide.to - wide.from : 0).toBeLessThan(least);
      const isFree = Array.from(
        { length: LOOKS },
        (_, i) => !standing.some((other) => meets(tool, spunAt(pose, (i * 2 * Math.PI) / LOOKS), other)),
      );
      let [most, going] = [0, 0];
      for (let i = 0; i < 2 * LOOKS; i++) most = Math.max(most, (going = isFree[i % LOOKS] ? going + 1 : 0));
      const widest = Math.min(most - 1, LOOKS) * ((2 * Math.PI) / LOOKS);
      if (!arc) {
        expect(widest).toBeLessThan((2 * Math.PI) / 24);
        continue;
      }
      found++;
      expect(arc.to - arc.from).toBeGreaterThan(widest - 2e-2);
      for (let share = 0.01; share < 1; share += 0.01)
        expect(standing.some((other) => meets(tool, spunAt(pose, arc.from + share * (arc.to - arc.from)), other))).toBe(
          false,
        );
    }
    expect(found).toBeGreaterThan(8);
  });

  it('where there is none, what is told to be in the way is as few as a plain count finds (seeded)', () => {
    const chance = seeded(27);
    let refused = 0;
    for (let run = 0; run < 30; run++) {
      const near = (most: number): number => most * (2 * chance.uniform() - 1);
      const standing = Array.from({ length: 7 }, (_, i) => {
        const size = [0, 1, 2].map(() => 0.02 + 0.2 * chance.uniform()) as unknown as Vec3;
        return { ...box(size, [near(0.2), near(0.2), near(0.08)]), id: `box ${i}` };
      });
      const holds = [FLAT, socketTools(ROW)[0]!].map((tool) => ({ tool, pose: AT_HOME }));
      const got = reached(holds, standing);
      if (got.ok) continue;
      refused++;
      const counts = holds.flatMap(({ tool, pose }) =>
        Array.from({ length: 12 }, (_, k) => {
          const at = [0, 0.5, 1].map((share) => spunAt(pose, (k * Math.PI) / 6 + share * tool.swing_rad));
          return standing.filter((other) => at.some((place) => meets(tool, place, other))).length;
        }),
      );
      expect(got.inTheWay).toHaveLength(Math.min(...counts.filter((count) => count > 0)));
    }
    expect(refused).toBeGreaterThan(8);
  });

  it('is enough between walls when 30° are left, and not when less', () => {
    // θ = 75° leaves 30° between two walls.
    const least = CORNER * Math.cos((75 * Math.PI) / 180 - Math.atan2(GRIP.width / 2, ROW.length));
    // The hexagon stands high over its face, so that hands and heights play no part.
    const fits = (d: number): boolean => reached([{ tool: FLAT, pose: AT_HOME }], [wall(0, d), wall(0, d, -1)]).ok;
    expect(fits(least + 0.002)).toBe(true);
    expect(fits(least - 0.002)).toBe(false);
  });

  it('a low ledge that stops a flat spanner is cleared by a cranked one', () => {
    // All round at 100 mm, 20 mm high.
    const ledge = [wall(0, 0.1), wall(0, 0.1, -1), wall(1, 0.1), wall(1, 0.1, -1)].map((one, i) =>
      solid(
        unwrap(combine(one.surface as ClosedMesh, posedMesh(boxMesh(8, 8, 4), shiftBy([-4, -4, 0.02])), 'take')),
        `ledge ${i}`,
      ),
    );
    const held = reached(tighteningHolds(AT_HOME, 0.03, ROW, false), [...ledge, wall(2, 0, -1)]);
    expect(held.ok && held.held.tool.key).toBe('cranked-spanner');
    expect(widestArc(FLAT, shiftBy([0, 0, 0.007]), ledge)).toBeUndefined();
  });
});

describe('other tools', () => {
  const [SHORT] = socketTools(ROW) as [ReturnType<typeof socketTools>[number]];

  it('a socket wants its own length and the ratchet under a ceiling, and the hand over it', () => {
    const need = ROW.socketLength + RATCHET.headHeight + GRIP.above / 2;
    const fits = (ceiling: number): boolean => reached([{ tool: SHORT, pose: AT_HOME }], [wall(2, ceiling)]).ok;
    expect(fits(need + 0.001)).toBe(true);
    expect(fits(need - 0.001)).toBe(false);
  });

  it('an arm goes down a square shaft as wide as its forearm, not a narrower one', () => {
    const shaft = (half: number): Standing[] => [wall(0, half), wall(0, half, -1), wall(1, half), wall(1, half, -1)];
    // A round arm of 50 mm radius as twelve sides round it.
    const arm = 0.05 / Math.cos(Math.PI / 12);
    expect(reached(handHolds(AT_HOME), shaft(arm + 0.001)).ok).toBe(true);
    expect(reached(handHolds(AT_HOME), shaft(arm - 0.002)).ok).toBe(false);
  });

  it('what stands wholly within the hand’s room is in its way', () => {
    expect(meets(fixedTool('hand'), AT_HOME, box([0.005, 0.005, 0.005], [0, 0, 0.13]))).toBe(true);
    expect(
      reached(handHolds(AT_HOME), [box([0.005, 0.005, 0.005], [0, 0, 0.13]), wall(2, 0.03), wall(2, 0.03, -1)]),
    ).toMatchObject({ ok: false });
  });

  it('a stubby screwdriver goes where the long one does not; under 95 mm neither', () => {
    const under = (ceiling: number) => screwHolds(AT_HOME, 0.03, 6).map((holds) => reached(holds, [wall(2, ceiling)]));
    expect(under(0.3).every((one) => one.ok && one.held.tool.key === 'driver')).toBe(true);
    expect(under(0.096).every((one) => one.ok && one.held.tool.key === 'short-driver')).toBe(true);
    expect(under(0.094).some(({ ok }) => ok)).toBe(false);
  });

  it('a nozzle turns its grip away from a wall, and says what is in its way where it cannot', () => {
    const away = reached(nozzleHolds(frameAlong([0, 0, 0], [0, 1, 0]), [0, 0, 1]), [wall(2, 0.08)]);
    expect(away.ok && away.held.pose.axes[0][2]).toBeLessThan(0.5);
    expect(reached(nozzleHolds(AT_HOME, [0, 0, 1]), [wall(2, 0.15)])).toEqual({ ok: false, inTheWay: ['wall 2 1'] });
  });

  it('a gauge behind a post is read from the side; with a plate before it not at all', () => {
    const site = frameAlong([0, 0, 0], [1, 0, 0]);
    const post = reached(sightHolds(site), [box([0.02, 0.04, 2], [0.2, -0.02, -1])]);
    expect(post.ok && Math.abs(post.held.pose.axes[2][1])).toBeGreaterThan(0.3);
    expect(reached(sightHolds(site), [wall(0, 0.2)]).ok).toBe(false);
  });

  it.each([
    [88, true],
    [80, true],
    [76, false],
    [60, false],
  ])('a cup of 7 mm radius, 9 mm off, gets into a corner of %d°: %s', (angle, fits) => {
    // tan(α/2) must exceed 7/9 times the rod's sides over its round: α over 78°.
    const half = (angle * Math.PI) / 360;
    const plate = (side: 1 | -1): Standing =>
      solid(
        posedMesh(
          boxMesh(4, 2, 0.1),
          composed(
            poseOf([0, 0, 0], {
              yaw_rad: 0,
              pitch_rad: 0,
              roll_rad: side > 0 ? Math.PI / 2 - half : half - Math.PI / 2,
            }),
            shiftBy([-2, side > 0 ? 0 : -2, -0.1]),
          ),
        ),
        `plate ${side}`,
      );
    const held = reached(torchHolds([0, 0, 0], [0, 0, 1], [1, 0, 0]), [plate(1), plate(-1)]);
    expect(held.ok).toBe(fits);
  });

  it('a rod that has no room leaves the wire-feed gun, which wants none', () => {
    // A seam of 200 mm between two walls: a rod lies along the seam and reaches 138 mm at its steepest, the gun turns
    // its handle across.
    const held = reached(torchHolds([0, 0, 0], [0, 0, 1], [1, 0, 0]), [wall(0, 0.1), wall(0, 0.1, -1), wall(2, 0, -1)]);
    expect(held.ok && held.held.tool.key).toBe('wire-gun');
  });
});

describe('whatever stands about', () => {
  const number = (from: number, to: number) => fc.double({ min: from, max: to, noNaN: true });
  const anyBox = fc
    .tuple(
      number(0.02, 0.3),
      number(0.02, 0.3),
      number(0.02, 0.3),
      number(-0.4, 0.4),
      number(-0.4, 0.4),
      number(-0.1, 0.4),
    )
    .map(([a, b, c, x, y, z]) => box([a, b, c], [x, y, z]));

  it('a tool meets a body just where the kernel finds a common volume', () => {
    const tools = [FLAT, fixedTool('hand'), fixedTool('nozzle'), fixedTool('tig-torch')];
    fc.assert(
      fc.property(anyBox, fc.integer({ min: 0, max: 3 }), number(-3, 3), (other, k, yaw_rad) => {
        const tool = tools[k]!;
        const pose = poseOf([0, 0, 0], { yaw_rad, pitch_rad: 0, roll_rad: 0 });
        const common = Math.max(
          ...tool.pieces.map((piece) => {
            const both = combine(posedMesh(piece, pose), other.surface as ClosedMesh, 'take');
            return both.ok ? meshVolume(piece) - meshVolume(both.value) : meshVolume(piece);
          }),
        );
        if (common > 1e-8) expect(meets(tool, pose, other)).toBe(true);
        else if (common < 1e-12)
          expect(meets(tool, pose, { ...other, surface: shrunk(other.surface as ClosedMesh) })).toBe(false);
      }),
      { seed: SEED, numRuns: 150 },
    );
  });

  it('what is reached stays reached when something is taken away', () => {
    fc.assert(
      fc.property(fc.array(anyBox, { minLength: 1, maxLength: 5 }), fc.nat(), (all, n) => {
        const fewer = all.filter((_, i) => i !== n % all.length);
        for (const holds of [
          tighteningHolds(AT_HOME, 0.04, ROW, true),
          handHolds(AT_HOME),
          nozzleHolds(AT_HOME, [0, 0, 1]),
        ]) {
          if (reached(holds, all).ok) expect(reached(holds, fewer).ok).toBe(true);
        }
      }),
      { seed: SEED, numRuns: 40 },
    );
  });
});

/** A body drawn in by a millimetre, so that touching is not meeting. */
function shrunk(mesh: ClosedMesh): ClosedMesh {
  const middle = [0, 1, 2].map((k) => (Math.min(...every(mesh, k)) + Math.max(...every(mesh, k))) / 2);
  return { ...mesh, positions: mesh.positions.map((value, i) => value + (value > middle[i % 3]! ? -1e-3 : 1e-3)) };
}
const every = ({ positions }: ClosedMesh, k: number): number[] => Array.from(positions).filter((_, i) => i % 3 === k);

describe('seams', () => {
  const stepped = unwrap(combine(boxMesh(1, 1, 1), posedMesh(boxMesh(0.5, 2, 0.5), shiftBy([0.5, -0.5, 0.5])), 'take'));

  it('the inner corner of a step is a recess whose middle direction lies between its faces', () => {
    const seam = nearestSeam(stepped, [0.51, 0.4, 0.52])!;
    expect(seam.isRecess).toBe(true);
    expectClose(Math.abs(seam.along[1]), 1, { rel: 1e-9, why: 'runs across' });
    const between = unitVector([1, 0, 1]);
    seam.out.forEach((value, k) => expectClose(value, between[k]!, { abs: 1e-6, why: 'midway' }));
    expectClose(seam.foot_m[1], 0.4, { abs: 1e-6, why: 'square to the seam' });
  });

  it('an outer edge is none', () => expect(nearestSeam(stepped, [-0.01, 0.5, 1.01])!.isRecess).toBe(false));
});

describe('the tables of tools', () => {
  it('spanners and sockets grow with their size, and wrap their hexagon', () => {
    SPANNERS.slice(1).forEach((row, i) => {
      for (const key of [
        'acrossFlats',
        'length',
        'headDiameter',
        'thickness',
        'socketDiameter',
        'socketLength',
      ] as const)
        expect(row[key]).toBeGreaterThanOrEqual(SPANNERS[i]![key]);
    });
    for (const { acrossFlats, socketDiameter, headDiameter } of SPANNERS) {
      expect(socketDiameter).toBeGreaterThan(acrossFlats / Math.cos(Math.PI / 6));
      expect(headDiameter).toBeGreaterThan(socketDiameter);
    }
  });

  it('the next larger spanner is taken, and none beyond the largest', () => {
    expect(spannerFor(0.0205)?.acrossFlats).toBe(0.022);
    expect(spannerFor(0.022)?.acrossFlats).toBe(0.022);
    expect(spannerFor(0.08)).toBeUndefined();
  });
});
