import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import {
  boxMesh,
  combine,
  coneMesh,
  cross,
  dot,
  norm,
  posedMesh,
  poseOf,
  shiftBy,
  subtract,
  unitVector,
  type Vec3,
} from '../geometry';
import { unwrap } from '../outcome';
import { alignments, edgesOf, edgeWays, framesAmong, lengthOfEdge } from './axes';
import type { Blocker, Part } from './moves';
import { poseInRims } from './wayGates';

const AXES: readonly [Vec3, Vec3, Vec3] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
const TURN = poseOf([0.3, -0.2, 0.1], { yaw_rad: 0.7, pitch_rad: 0.3, roll_rad: -0.4 });

describe('edges of a surface', () => {
  it('a box has twelve, four of each length, along three directions square to one another', () => {
    for (const mesh of [boxMesh(3, 2, 1), posedMesh(boxMesh(3, 2, 1), TURN)]) {
      expect(edgesOf(mesh).map((edge) => Math.round(1e6 * lengthOfEdge(edge)) / 1e6)).toEqual([
        3, 3, 3, 3, 2, 2, 2, 2, 1, 1, 1, 1,
      ]);
      const ways = edgeWays(mesh);
      expect(ways.map(({ length_m }) => Math.round(1e6 * length_m) / 1e6)).toEqual([12, 8, 4]);
      for (const [i, j] of [
        [0, 1],
        [0, 2],
        [1, 2],
      ] as const)
        expectClose(dot(ways[i]!.way, ways[j]!.way), 0, { abs: 1e-9, why: 'square' });
    }
  });

  it('pieces of one edge are one: a wall that is cut into stays as long as it is', () => {
    // A slot in the middle of the upper rear edge leaves two pieces of it; the lower one is whole though triangles part
    // it.
    const notched = unwrap(
      combine(boxMesh(1, 1, 1), posedMesh(boxMesh(0.2, 0.2, 0.2), shiftBy([0.4, -0.1, 0.9])), 'take'),
    );
    const long = edgesOf(notched).filter((edge) => lengthOfEdge(edge) > 0.99);
    expect(long).toHaveLength(11);
    expect(edgesOf(notched).filter((edge) => Math.abs(lengthOfEdge(edge) - 0.4) < 1e-6)).toHaveLength(2);
  });

  it('the wall of a tube has its axis for its longest direction', () => {
    const [first] = edgeWays(unwrap(coneMesh(0.1, 0.1, 2, 'z')));
    expectClose(Math.abs(first!.way[2]), 1, { abs: 1e-9, why: 'along the axis' });
  });
});

describe('turns that lay a part along a place', () => {
  it('there are 24, each a turn and no mirror, no two alike', () => {
    const turned = framesAmong([unitVector([1, 1, 0]), unitVector([-1, 1, 0])], 1)[0]!;
    const all = alignments(AXES, turned);
    expect(all).toHaveLength(24);
    expect(
      new Set(
        all.map((axes) =>
          axes
            .flat()
            .map((value) => Math.round(1e6 * value) + 0)
            .join(),
        ),
      ).size,
    ).toBe(24);
    for (const [x, y, z] of all) {
      expectClose(dot(cross(x, y), z), 1, { abs: 1e-9, why: 'right-handed' });
      for (const axis of [x, y, z]) expect(turned.some((way) => Math.abs(dot(way, axis)) > 1 - 1e-9)).toBe(true);
    }
  });

  it('directions that are not square make no frame', () => {
    expect(framesAmong([[1, 0, 0], unitVector([1, 0.2, 0])], 4)).toEqual([]);
    expect(framesAmong([...AXES], 4)).toHaveLength(1);
  });
});

describe('positions in the rim of a hole', () => {
  const part: Part = {
    id: 'p',
    name: 'p',
    surface: boxMesh(0.4, 0.2, 0.1),
    at: shiftBy([0, 0, 0]),
    middle_m: [0.2, 0.1, 0.05],
  };
  const wall = (width: number, height: number): Blocker => ({
    id: 'wall',
    name: 'wall',
    removable: false,
    surface: unwrap(
      combine(
        posedMesh(boxMesh(0.02, 3, 3), shiftBy([-0.01, -1.5, -1.5])),
        posedMesh(boxMesh(0.1, width, height), shiftBy([-0.05, -width / 2, -height / 2])),
        'take',
      ),
    ),
  });
  const middles = (blockers: readonly Blocker[]): Vec3[] =>
    poseInRims(part, blockers).map(
      (pose) =>
        [0, 1, 2].map(
          (k) =>
            pose.origin_m[k]! + [0.2, 0.1, 0.05].reduce((sum, value, axis) => sum + value * pose.axes[axis]![k]!, 0),
        ) as unknown as Vec3,
    );

  it('the first lies in the middle of the hole, the part square to it', () => {
    const found = middles([wall(0.22, 0.12)]);
    expect(norm(subtract([0, found[0]![1], found[0]![2]], [0, 0, 0]))).toBeLessThan(1e-6);
    expect(Math.abs(found[0]![0])).toBeLessThan(0.011);
  });

  it('none in a hole that no side of it goes through', () => {
    const through = poseInRims(part, [wall(0.19, 0.09)]);
    // What is left lies beside the wall, along its outer edges, and not in the hole.
    for (const { axes, origin_m } of through) {
      const middle = [1, 2].map(
        (k) => origin_m[k]! + [0.2, 0.1, 0.05].reduce((sum, value, axis) => sum + value * axes[axis]![k]!, 0),
      );
      expect(Math.hypot(middle[0]!, middle[1]!)).toBeGreaterThan(0.05);
    }
  });
});
