import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import {
  AT_HOME,
  boxMesh,
  combine,
  composed,
  leastOver,
  firstGone,
  meshVolume,
  placed,
  posedMesh,
  poseOf,
  seenFrom,
  separation,
  shiftBy,
  travel,
  treeOf,
  turnAbout,
  vesselMesh,
  type ClosedMesh,
  type Pose,
  type Vec3,
} from '.';
import { triangleGap2 } from './triangleGap';
import { add, dot, norm, scale, subtract, unitVector } from './vec';

const SEED = 20261125;
const gapOf = (a: ClosedMesh, b: ClosedMesh, at: Pose = AT_HOME): number =>
  separation(treeOf(a), treeOf(b), at)!.distance_m;

const number = (from: number, to: number) => fc.double({ min: from, max: to, noNaN: true });
const anyPose = (reach: number) =>
  fc
    .tuple(
      number(-reach, reach),
      number(-reach, reach),
      number(-reach, reach),
      number(-3, 3),
      number(-1.5, 1.5),
      number(-3, 3),
    )
    .map(([x, y, z, yaw_rad, pitch_rad, roll_rad]) => poseOf([x, y, z], { yaw_rad, pitch_rad, roll_rad }));
const anyBox = fc.tuple(number(0.1, 1), number(0.1, 1), number(0.1, 1)).map(([x, y, z]) => boxMesh(x, y, z));
/** A round tank of many facets, a box, or a box with a corner out. */
const anyBody = fc.oneof(
  anyBox,
  fc.constant(unwrap(vesselMesh({ radius_m: 0.2, shell_m: 0.5, axis: 'x', nearEnd: 'torispherical', farEnd: 'flat' }))),
  fc
    .tuple(number(0.2, 0.8), number(0.2, 0.8))
    .map(([x, z]) =>
      unwrap(combine(boxMesh(1, 0.6, 0.9), posedMesh(boxMesh(x, 0.7, z), shiftBy([-0.01, -0.05, -0.01])), 'take')),
    ),
);

describe('distance between bodies', () => {
  it('box to box along an axis, to an edge and to a corner: closed forms', () => {
    const [a, b] = [boxMesh(1, 1, 1), boxMesh(1, 2, 3)];
    expectClose(gapOf(a, b, shiftBy([1.25, 0, 0])), 0.25, { rel: 1e-12, why: 'faces' });
    expectClose(gapOf(a, b, shiftBy([1.3, 1.4, 0])), 0.5, { rel: 1e-12, why: 'edges: 3-4-5' });
    expectClose(gapOf(a, b, shiftBy([1.2, 1.3, 1.6])), 0.7, { rel: 1e-12, why: 'corners: 2-3-6-7' });
    expect(gapOf(a, b, shiftBy([1, 0, 0]))).toBe(0);
    expect(gapOf(a, b, shiftBy([0.5, 0.5, 0.5]))).toBe(0);
  });

  it('a lying cylinder over a plane: height of its axis less its radius', () => {
    const pipe = unwrap(vesselMesh({ radius_m: 0.1, shell_m: 1, axis: 'y', nearEnd: 'flat', farEnd: 'flat' }));
    const floor = boxMesh(5, 5, 0.1);
    expectClose(gapOf(floor, pipe, shiftBy([1, 1, 0.35])), 0.35 - 0.1, { abs: 1e-4, why: 'facets of the round wall' });
  });

  it('two crossing bars: the distance of their skew edges', () => {
    const bar = boxMesh(2, 0.02, 0.02);
    const across = composed(
      poseOf([1, -1, 0.1], { yaw_rad: Math.PI / 2, pitch_rad: 0, roll_rad: Math.PI / 4 }),
      shiftBy([0, 0, 0]),
    );
    const lowest = Math.min(...Array.from({ length: 8 }, (_, i) => posedMesh(bar, across).positions[3 * i + 2]!));
    expectClose(gapOf(bar, bar, across), lowest - 0.02, { rel: 1e-9, why: 'edge over face' });
  });

  it('capsules: hulls of two balls, by the distance of their segments', () => {
    const pill = (radius_m: number, shell_m: number) =>
      unwrap(vesselMesh({ radius_m, shell_m, axis: 'x', nearEnd: 'hemispherical', farEnd: 'hemispherical' }));
    const [a, b] = [pill(0.1, 0.6), pill(0.05, 0.3)];
    const at = poseOf([0.2, 0.5, 0.3], { yaw_rad: 1.1, pitch_rad: 0.4, roll_rad: 0 });
    const axisOf = (pose: Pose, radius: number, length: number, t: number): Vec3 =>
      placed(pose, [radius + t * length, radius, radius]);
    const steps = Array.from({ length: 401 }, (_, i) => i / 400);
    const least = steps.reduce(
      (least, s) =>
        steps.reduce(
          (nearest, t) => Math.min(nearest, norm(subtract(axisOf(AT_HOME, 0.1, 0.6, s), axisOf(at, 0.05, 0.3, t)))),
          least,
        ),
      Infinity,
    );
    expectClose(gapOf(a, b, at), least - 0.15, { abs: 5e-4, why: 'segment to segment less both radii; facets' });
  });

  it('is found within a distance exactly where it is no more than that, and then the same (seeded)', () => {
    fc.assert(
      fc.property(anyBody, anyBody, anyPose(0.9), fc.double({ min: 0.2, max: 3, noNaN: true }), (a, b, pose, share) => {
        const whole = separation(treeOf(a), treeOf(b), pose)!;
        const found = separation(treeOf(a), treeOf(b), pose, whole.distance_m * share);
        if (whole.distance_m * Math.abs(share - 1) < 1e-9) return;
        expect(found?.distance_m).toEqual(share > 1 ? whole.distance_m : undefined);
      }),
      { seed: 23, numRuns: 300 },
    );
  });

  it('is the least of all pairs of triangles, however askew the bodies stand: no pair is wrongly left out', () => {
    fc.assert(
      fc.property(anyBox, anyBody, anyPose(2), (a, b, pose) => {
        const [one, other] = [treeOf(a).corners, treeOf(posedMesh(b, pose)).corners];
        let least2 = Infinity;
        for (let i = 0; i < one.length; i += 9)
          for (let j = 0; j < other.length; j += 9) least2 = Math.min(least2, triangleGap2(one, i, other, j, least2));
        expectClose(gapOf(a, b, pose), Math.sqrt(least2), { rel: 1e-9, abs: 1e-12, why: 'every pair' });
      }),
      { seed: SEED, numRuns: 300 },
    );
  });

  it('is none exactly where the geometry kernel finds a common body', () => {
    fc.assert(
      fc.property(anyBody, anyBody, anyPose(0.9), (a, b, pose) => {
        const common = combine(a, posedMesh(b, pose), 'common');
        const least_m3 = 1e-6 * Math.min(meshVolume(a), meshVolume(b));
        const gap = gapOf(a, b, pose);
        if (gap > 1e-6) {
          // Apart, or one wholly inside the other.
          if (common.ok)
            expectClose(meshVolume(common.value), Math.min(meshVolume(a), meshVolume(b)), {
              rel: 1e-5,
              why: 'swallowed whole',
            });
        } else if (gap === 0) expect(common.ok || common.error.code === 'nothing-left').toBe(true);
        if (
          common.ok &&
          meshVolume(common.value) > least_m3 &&
          meshVolume(common.value) < 0.999 * Math.min(meshVolume(a), meshVolume(b))
        )
          expect(gap).toBe(0);
      }),
      { seed: SEED, numRuns: 120 },
    );
  });

  it('is the same from either body, and its points are that far apart', () => {
    fc.assert(
      fc.property(anyBody, anyBody, anyPose(2), (a, b, pose) => {
        const there = separation(treeOf(a), treeOf(b), pose)!;
        const back = separation(treeOf(b), treeOf(a), seenFrom(pose, AT_HOME))!;
        expectClose(back.distance_m, there.distance_m, { rel: 1e-9, abs: 1e-12, why: 'symmetry' });
        expectClose(norm(subtract(there.onFirst, there.onSecond)), there.distance_m, {
          rel: 1e-9,
          abs: 1e-12,
          why: 'its own points',
        });
      }),
      { seed: SEED, numRuns: 80 },
    );
  });

  it('further than asked is not looked at', () => {
    expect(separation(treeOf(boxMesh(1, 1, 1)), treeOf(boxMesh(1, 1, 1)), shiftBy([3, 0, 0]), 1.9)).toBeUndefined();
    expect(separation(treeOf(boxMesh(1, 1, 1)), treeOf(boxMesh(1, 1, 1)), shiftBy([3, 0, 0]), 2.1)!.distance_m).toBe(2);
  });
});

describe('way to first contact', () => {
  it('coming down on a box, and from where it stands too deep', () => {
    const box = treeOf(boxMesh(1, 1, 1));
    expectClose(travel(box, shiftBy([0.2, 0.3, 5]), box, AT_HOME, [0, 0, -1])!.travel_m, 4, {
      rel: 1e-12,
      why: 'faces',
    });
    expectClose(travel(box, shiftBy([0.2, 0.3, 0.9]), box, AT_HOME, [0, 0, -1])!.travel_m, -0.1, {
      rel: 1e-12,
      why: 'stands 100 mm deep',
    });
    expect(travel(box, shiftBy([1.2, 0, 5]), box, AT_HOME, [0, 0, -1])).toBeUndefined();
    expect(travel(box, shiftBy([1, 0, 5]), box, AT_HOME, [0, 0, -1])).toBeUndefined();
  });

  it('moved so far, the bodies touch; moved a little less, they do not', () => {
    fc.assert(
      fc.property(anyBody, anyBody, anyPose(0.5), anyPose(0.5), (a, b, at, way) => {
        const direction = unitVector(way.axes[0]);
        const found = travel(treeOf(a), at, treeOf(b), AT_HOME, direction);
        if (!found) return;
        const moved = (by: number) => gapOf(b, a, { ...at, origin_m: add(at.origin_m, scale(direction, by)) });
        expect(moved(found.travel_m)).toBeLessThan(1e-9);
        expect(moved(found.travel_m - 0.01)).toBeGreaterThan(0);
        expectClose(dot(subtract(found.onMet, found.onMoved), direction), found.travel_m, {
          rel: 1e-9,
          abs: 1e-12,
          why: 'its own points',
        });
      }),
      { seed: SEED, numRuns: 120 },
    );
  });
});

describe('search with a known slope', () => {
  it('finds the least of a wave with many troughs', () => {
    const wave = (x: number) => 2 + Math.sin(7 * x) + 0.3 * Math.sin(31 * x + 1);
    const dense = Array.from({ length: 200_001 }, (_, i) => wave((i / 200_000) * 6)).reduce((least, here) =>
      Math.min(least, here),
    );
    const { value, bound } = leastOver({ low: [0], high: [6], slopes: [7 + 9.3] }, ([x]) => wave(x!), 1e-3);
    expect(value).toBeLessThan(dense + 1e-3);
    expect(bound).toBeLessThanOrEqual(dense);
  });

  it('over two parameters', () => {
    const { value, at } = leastOver(
      { low: [-2, -2], high: [2, 2], slopes: [4, 4] },
      ([x, y]) => 1 + Math.abs(x! - 0.37) + Math.abs(y! + 1.21),
      1e-3,
    );
    expectClose(value, 1, { abs: 1e-3, why: 'tolerance' });
    expectClose(at[0]!, 0.37, { abs: 2e-3, why: 'place' });
  });

  it('says the first place where a distance is gone, and only where it is', () => {
    const bar = boxMesh(1, 0.1, 0.1);
    const post = boxMesh(0.1, 0.1, 1);
    const gap = (t: number) =>
      separation(
        treeOf(post),
        treeOf(bar),
        composed(shiftBy([-2, -0.5, 0.4]), turnAbout([0, 0, 0], [0, 0, 1], t * Math.PI)),
      )!.distance_m;
    expect(firstGone((t, least) => gap(t) < least, Math.PI * 1.1, 1e-4)).toBeUndefined();
    const near = (t: number) =>
      separation(
        treeOf(post),
        treeOf(bar),
        composed(shiftBy([-0.5, -0.5, 0.4]), turnAbout([0, 0, 0], [0, 0, 1], t * Math.PI)),
      )!.distance_m;
    const dense = Array.from({ length: 20_001 }, (_, i) => i / 20_000).find((t) => near(t) === 0)!;
    expectClose(
      firstGone((t, least) => near(t) < least, Math.PI * 1.1, 1e-5)!,
      dense,
      { abs: 1e-4, why: 'first contact, against 20,000 looks' },
    );
  });
});
