import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import {
  boxMesh,
  DisjointSets,
  dot,
  largestTwist_sin,
  loftMesh,
  loftVolume_m3,
  meshVolume,
  unitVector,
  type Plane,
  type Point2,
  type Vec3,
} from '.';
import { distinctPlanes, moveOntoPlanes, trianglePlanes } from './planes';

const numbers = fc.double({ min: -1, max: 1, noNaN: true });
const points = fc.tuple(numbers, numbers, numbers);
const directions = points.filter((v) => Math.hypot(...v) > 0.2).map((v) => unitVector(v));
const through = (point: Vec3, normal: Vec3): Plane => ({ normal, offset_m: dot(normal, point) });
const off = (planes: readonly Plane[], point: Vec3): number =>
  Math.max(...planes.map(({ normal, offset_m }) => Math.abs(dot(normal, point) - offset_m)));

describe('a point moved onto planes', () => {
  it('of three that cross it finds the corner', () => {
    fc.assert(
      fc.property(points, fc.tuple(directions, directions, directions), points, (corner, normals, start) => {
        const [a, b, c] = normals;
        fc.pre(
          Math.abs(
            a[0] * (b[1] * c[2] - b[2] * c[1]) +
              a[1] * (b[2] * c[0] - b[0] * c[2]) +
              a[2] * (b[0] * c[1] - b[1] * c[0]),
          ) > 0.1,
        );
        const found = moveOntoPlanes(
          start,
          normals.map((normal) => through(corner, normal)),
        );
        for (let k = 0; k < 3; k++) expect(Math.abs(found[k]! - corner[k]!)).toBeLessThan(1e-11);
      }),
      { seed: 3, numRuns: 200 },
    );
  });

  it('of two it takes the nearest point of their edge, of one the foot', () => {
    expect(
      moveOntoPlanes([3, 4, 5], [through([1, 0, 0], [1, 0, 0]), through([0, 2, 0], [0, 1, 0])]).map((value) =>
        Number(value.toFixed(12)),
      ),
    ).toEqual([1, 2, 5]);
    expect(
      moveOntoPlanes([3, 4, 5], [through([1, 0, 0], [1, 0, 0])]).map((value) => Number(value.toFixed(12))),
    ).toEqual([1, 4, 5]);
    expect(moveOntoPlanes([3, 4, 5], [])).toEqual([3, 4, 5]);
  });

  it('of planes nearly alike it stays near, and lies on them', () => {
    const tilted = unitVector([1, 1e-3, 0] as Vec3);
    const planes = [through([1, 2, 0], [1, 0, 0]), through([1, 2, 0], tilted)];
    const found = moveOntoPlanes([1.1, 2.3, 0.4], planes);
    expect(off(planes, found)).toBeLessThan(1e-12);
    expectClose(found[2], 0.4, { abs: 1e-12, why: 'nothing is said of z' });
  });

  it('of parallel ones that differ it lies half-way, which misses both least', () => {
    expectClose(moveOntoPlanes([5, 0, 0], [through([1, 0, 0], [1, 0, 0]), through([2, 0, 0], [1, 0, 0])])[0], 1.5, {
      rel: 1e-12,
      why: 'least squares',
    });
  });
});

describe('planes of a mesh', () => {
  it('of a box are six, each of two triangles, facing out', () => {
    const planes = trianglePlanes(boxMesh(1, 2, 3));
    expect(planes).toHaveLength(12);
    expect(
      distinctPlanes(
        planes.map((plane) => plane!),
        3,
      ),
    ).toHaveLength(6);
    for (const plane of planes) expect(dot(plane!.normal, [0.5, 1, 1.5])).toBeLessThan(plane!.offset_m);
  });

  it('a sliver has none', () => {
    const box = boxMesh(1, 2, 3);
    const flat = { ...box, positions: box.positions.map((value, i) => (i % 3 === 2 ? 0 : value)) };
    expect(trianglePlanes(flat).some((plane) => plane === undefined)).toBe(true);
  });
});

describe('twist of a loft', () => {
  const square = (half: number, turn = 0): Point2[] =>
    [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ].map(([u, v]) => [
      half * (u! * Math.cos(turn) - v! * Math.sin(turn)),
      half * (u! * Math.sin(turn) + v! * Math.cos(turn)),
    ]);

  it('is the sine of the turn, and none between outlines of another size', () => {
    expectClose(largestTwist_sin(square(0.2), square(0.3, 0.25)), Math.sin(0.25), {
      rel: 1e-12,
      why: 'turned by 0.25 rad',
    });
    expectClose(largestTwist_sin(square(0.2), square(0.3)), 0, { abs: 1e-15, why: 'parallel' });
  });

  it('a body that twists keeps the ruled volume, and one that does not has no more faces than it needs', () => {
    const twisted = unwrap(loftMesh(square(0.2), square(0.2, 0.3), 'x', 1));
    expectClose(meshVolume(twisted), loftVolume_m3(square(0.2), square(0.2, 0.3), 1), {
      rel: 1e-12,
      why: 'prismatoid',
    });
    expect(unwrap(loftMesh(square(0.2), square(0.3), 'x', 1)).triangles.length / 3).toBe(12);
  });
});

it('things joined have one root, others another, whatever the order', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(19), fc.nat(19)), { maxLength: 30 }), (pairs) => {
      const sets = new DisjointSets(20);
      pairs.forEach(([a, b]) => sets.join(a, b));
      // The plain way: spread the smallest number until nothing changes.
      const label = Array.from({ length: 20 }, (_, i) => i);
      for (let round = 0; round < 20; round++)
        for (const [a, b] of pairs) label[a] = label[b] = Math.min(label[a]!, label[b]!);
      for (let i = 0; i < 20; i++)
        for (let j = 0; j < 20; j++) expect(sets.root(i) === sets.root(j)).toBe(label[i] === label[j]);
    }),
    { seed: 5, numRuns: 100 },
  );
});
