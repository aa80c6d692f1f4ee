import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { unwrap } from '../outcome';
import { expectClose } from '../../../tests/expectClose';
import {
  between,
  boxMesh,
  combine,
  coneMesh,
  crossingTriangles,
  cutAcross,
  edgeSums,
  insetMesh,
  levelForVolume,
  meshBounds,
  meshVolume,
  movedMesh,
  offsetRange,
  parseMesh,
  prismMesh,
  surfacePieces,
  unitVector,
  vesselMesh,
  volumeBelow,
  withFillable,
  withoutBand,
  type Vec3,
} from '.';

const at = (size: Vec3, place: Vec3) => movedMesh(boxMesh(...size), place);
const sizes = fc.double({ min: 0.05, max: 1.5, noNaN: true });

describe('bodies added and taken away', () => {
  it('boxes that overlap anywhere: inclusion and exclusion to rounding, though the kernel is single precision', () => {
    fc.assert(
      fc.property(
        fc.tuple(sizes, sizes, sizes),
        fc.tuple(sizes, sizes, sizes),
        fc.tuple(sizes, sizes, sizes),
        (a, b, place) => {
          const [first, second] = [boxMesh(...a), at(b, place)];
          const shared = [0, 1, 2].reduce(
            (product, k) => product * Math.max(0, Math.min(a[k]!, place[k]! + b[k]!) - place[k]!),
            1,
          );
          // A sliver thinner than single precision sees is as good as none.
          fc.pre(
            [0, 1, 2].every((k) => Math.abs(a[k]! - place[k]!) > 1e-5 && Math.abs(a[k]! - place[k]! - b[k]!) > 1e-5),
          );
          const [va, vb] = [meshVolume(first), meshVolume(second)];
          expectClose(meshVolume(unwrap(combine(first, second, 'add'))), va + vb - shared, {
            rel: 1e-12,
            why: 'union',
          });
          expectClose(meshVolume(unwrap(combine(first, second, 'take'))), va - shared, {
            rel: 1e-12,
            why: 'difference',
          });
          if (shared > 0)
            expectClose(meshVolume(unwrap(combine(first, second, 'common'))), shared, {
              rel: 1e-12,
              abs: 1e-15,
              why: 'intersection',
            });
        },
      ),
      { seed: 31, numRuns: 60 },
    );
  });

  it('a sump under the floor touches it and becomes one body with it', () => {
    const whole = unwrap(combine(boxMesh(0.8, 0.4, 0.3), at([0.165, 0.1, 0.025], [0.3, 0.15, -0.025]), 'add'));
    expectClose(meshVolume(whole), 0.8 * 0.4 * 0.3 + 0.165 * 0.1 * 0.025, { rel: 1e-12, why: 'sum of two boxes' });
    expect(surfacePieces(whole)).toBe(1);
    expectClose(volumeBelow(whole, { normal: [0, 0, 1], offset_m: 0 }), 0.165 * 0.1 * 0.025, {
      rel: 1e-9,
      why: 'the sump alone',
    });
  });

  it('curved: a lying pipe with half of it taken by a box keeps half', () => {
    const pipe = unwrap(vesselMesh({ radius_m: 0.2, shell_m: 1, axis: 'x', nearEnd: 'flat', farEnd: 'flat' }));
    const half = unwrap(combine(pipe, at([3, 3, 3], [-1, -1, 0.2]), 'take'));
    expectClose(meshVolume(half), meshVolume(pipe) / 2, { rel: 1e-9, why: 'mirror image' });
  });

  it('what is wholly taken is refused, and apart stays two bodies', () => {
    expect(combine(boxMesh(1, 1, 1), at([3, 3, 3], [-1, -1, -1]), 'take')).toMatchObject({
      ok: false,
      error: { code: 'nothing-left' },
    });
    expect(combine(boxMesh(1, 1, 1), at([1, 1, 1], [2, 0, 0]), 'common')).toMatchObject({
      ok: false,
      error: { code: 'nothing-left' },
    });
    expect(surfacePieces(unwrap(combine(boxMesh(1, 1, 1), at([1, 1, 1], [2, 0, 0]), 'add')))).toBe(2);
  });

  it('keeps what share liquid can take', () => {
    expectClose(
      meshVolume(unwrap(combine(withFillable(boxMesh(1, 1, 1), 0.95), at([1, 1, 0.5], [0, 0, 0]), 'common'))),
      0.475,
      { rel: 1e-12, why: '95 % of half' },
    );
  });
});

describe('a band taken out', () => {
  const wedge = unwrap(
    prismMesh(
      [
        [0, 0],
        [1, 0],
        [1, 0.4],
        [0, 0.2],
      ],
      'y',
      0.5,
    ),
  );

  it('costs area times width, on a slope the band under it', () => {
    const sliced = unwrap(withoutBand(wedge, 0, 0.4, 0.1));
    const heightAt = (x: number): number => 0.2 + 0.2 * x;
    expectClose(meshVolume(wedge) - meshVolume(sliced), ((heightAt(0.4) + heightAt(0.5)) / 2) * 0.1 * 0.5, {
      rel: 1e-11,
      why: 'trapezium',
    });
    expectClose(meshBounds(sliced).max[0], 0.9, { rel: 1e-12, why: 'closed up' });
    expect(surfacePieces(sliced)).toBe(1);
  });

  it('at either end it only shortens, beyond it changes nothing, and over the whole it is refused', () => {
    expectClose(meshVolume(unwrap(withoutBand(boxMesh(1, 1, 1), 2, 0.9, 0.5))), 0.9, {
      rel: 1e-12,
      why: 'lid lowered',
    });
    expectClose(meshVolume(unwrap(withoutBand(boxMesh(1, 1, 1), 2, -0.1, 0.2))), 0.9, {
      rel: 1e-12,
      why: 'floor raised',
    });
    expect(unwrap(withoutBand(wedge, 0, 2, 0.1))).toBe(wedge);
    expect(withoutBand(wedge, 0, -1, 5)).toMatchObject({ ok: false, error: { code: 'nothing-left' } });
  });

  it('parts between planes add up to the whole', () => {
    const parts = [
      between(wedge, 0, undefined, 0.3),
      between(wedge, 0, 0.3, 0.7),
      between(wedge, 0, 0.7, undefined),
    ].map((part) => meshVolume(unwrap(part)));
    expectClose(
      parts.reduce((sum, part) => sum + part, 0),
      meshVolume(wedge),
      { rel: 1e-12, why: 'cut, not changed' },
    );
  });
});

describe('the inside of a wall', () => {
  it('box: two walls off each side', () => {
    expectClose(meshVolume(unwrap(insetMesh(boxMesh(1, 0.5, 0.3), 0.003))), 0.994 * 0.494 * 0.294, {
      rel: 1e-12,
      why: 'closed form',
    });
  });

  it('box with a sump: the sump opens into the tank without a wall between', () => {
    const outside = unwrap(combine(boxMesh(1, 0.5, 0.3), at([0.2, 0.2, 0.05], [0.4, 0.15, -0.05]), 'add'));
    expectClose(meshVolume(unwrap(insetMesh(outside, 0.004))), 0.992 * 0.492 * 0.292 + 0.192 * 0.192 * 0.05, {
      rel: 1e-10,
      why: 'closed form: the sump floor goes up as much as the tank floor',
    });
  });

  it('cylinder and cone: the radius less the wall, along the slope', () => {
    const pipe = unwrap(vesselMesh({ radius_m: 0.2, shell_m: 1, axis: 'x', nearEnd: 'flat', farEnd: 'flat' }));
    expectClose(meshVolume(unwrap(insetMesh(pipe, 0.005))), Math.PI * 0.195 ** 2 * 0.99, {
      rel: 5e-4,
      why: 'promise for curved walls',
    });
    const cone = unwrap(coneMesh(0.3, 0.2, 0.5, 'z'));
    const [slope, wall] = [0.1 / 0.5, 0.004];
    const off = wall * Math.sqrt(1 + slope * slope);
    const [low, high] = [0.3 - slope * wall - off, 0.2 + slope * wall - off];
    expectClose(
      meshVolume(unwrap(insetMesh(cone, wall))),
      ((Math.PI * (0.5 - 2 * wall)) / 3) * (low * low + low * high + high * high),
      { rel: 5e-4, why: 'frustum, promise for curved walls' },
    );
  });

  it('a ball keeps round', () => {
    const ball = unwrap(
      vesselMesh({ radius_m: 0.2, shell_m: 0, axis: 'z', nearEnd: 'hemispherical', farEnd: 'hemispherical' }),
    );
    expectClose(meshVolume(unwrap(insetMesh(ball, 0.003))), (4 / 3) * Math.PI * 0.197 ** 3, {
      rel: 5e-4,
      why: 'promise for curved walls',
    });
  });

  it('a wall thicker than half the shape is refused', () => {
    expect(insetMesh(boxMesh(1, 0.02, 0.3), 0.011)).toMatchObject({ ok: false, error: { code: 'wall-too-thick' } });
  });
});

describe('a mesh that runs through itself', () => {
  it('two boxes that overlap without being joined', () => {
    const [a, b] = [boxMesh(1, 1, 1), at([1, 1, 1], [0.5, 0.4, 0.3])];
    const both = {
      ...a,
      positions: Float64Array.from([...a.positions, ...b.positions]),
      triangles: Uint32Array.from([...a.triangles, ...b.triangles.map((v) => v + a.positions.length / 3)]),
    };
    expect(crossingTriangles(both)).toBeDefined();
  });

  it('sound bodies do not, non-convex and curved ones among them', () => {
    expect(crossingTriangles(boxMesh(1, 1, 1))).toBeUndefined();
    expect(
      crossingTriangles(unwrap(combine(boxMesh(1, 1, 1), at([0.5, 0.5, 2], [0.2, 0.2, -0.5]), 'add'))),
    ).toBeUndefined();
    expect(
      crossingTriangles(
        unwrap(vesselMesh({ radius_m: 0.2, shell_m: 0.5, axis: 'y', nearEnd: 'torispherical', farEnd: 'elliptical' })),
      ),
    ).toBeUndefined();
  });
});

describe('edges', () => {
  it('of a box turn by a right angle, and a wall round it is mitred', () => {
    const { crease_m, turning_m } = edgeSums(boxMesh(1, 0.5, 0.3));
    expectClose(crease_m, 4 * 1.8, { rel: 1e-12, why: 'twelve edges' });
    expectClose(turning_m, 4 * 1.8, { rel: 1e-12, why: 'tan 45 is 1' });
  });

  it('of a step inward turn back', () => {
    const stepped = unwrap(combine(boxMesh(1, 1, 1), at([0.5, 2, 2], [0.5, -0.5, 0.5]), 'take'));
    // Outward: 12 of a box, the lid's and end's shortened or moved; inward: one of 1 m.
    expectClose(edgeSums(stepped).turning_m, edgeSums(stepped).crease_m - 2, {
      rel: 1e-10,
      why: 'one metre counts against',
    });
  });

  it('of a ball: area grows as 4 pi r², so the turning is 4 pi r', () => {
    const ball = unwrap(
      vesselMesh({ radius_m: 0.2, shell_m: 0, axis: 'z', nearEnd: 'hemispherical', farEnd: 'hemispherical' }),
    );
    expectClose(edgeSums(ball).turning_m, 4 * Math.PI * 0.2, {
      rel: 0.01,
      why: 'Steiner: A(t) = A + 2 t M, facets straddle the ball',
    });
    expect(edgeSums(ball).crease_m).toBe(0);
  });
});

describe('our own cut against the kernel’s', () => {
  const slabOf = (axis: 0 | 1 | 2, from: number, to: number) => {
    const [size, place] = [[9, 9, 9] as [number, number, number], [-4, -4, -4] as [number, number, number]];
    size[axis] = to - from;
    place[axis] = from;
    return at(size, place);
  };
  const bodies = {
    box: boxMesh(1, 0.5, 0.4),
    'stepped box': unwrap(combine(boxMesh(1, 0.5, 0.4), at([0.5, 2, 2], [0.5, -0.5, 0.2]), 'take')),
    'box with a block inside': unwrap(combine(boxMesh(1, 0.5, 0.4), at([0.2, 0.2, 0.1], [0.4, 0.15, 0.2]), 'take')),
    'box with a hole through': unwrap(combine(boxMesh(1, 0.5, 0.4), at([0.2, 0.2, 2], [0.4, 0.15, -0.5]), 'take')),
    'dished drum': unwrap(
      vesselMesh({ radius_m: 0.2, shell_m: 0.7, axis: 'x', nearEnd: 'torispherical', farEnd: 'hemispherical' }),
    ),
    'V profile': unwrap(
      prismMesh(
        [
          [0, 0.1],
          [0.25, 0],
          [0.5, 0.1],
          [0.5, 0.4],
          [0, 0.4],
        ],
        'x',
        1,
      ),
    ),
  };
  it.each(Object.entries(bodies))('%s, at many places along each axis, edges and corners among them', (_, mesh) => {
    const { min, max } = meshBounds(mesh);
    for (const axis of [0, 1, 2] as const) {
      for (const share of [0.1, 0.2, 0.25, 0.4, 0.5, 0.5001, 0.6, 0.75, 0.9]) {
        const middle = min[axis] + share * (max[axis] - min[axis]);
        const [lower, upper] = [cutAcross(mesh, axis, middle, 'lower')!, cutAcross(mesh, axis, middle, 'upper')!];
        expectClose(meshVolume(lower) + meshVolume(upper), meshVolume(mesh), { rel: 1e-12, why: 'both sides' });
        expectClose(
          meshVolume(lower),
          meshVolume(unwrap(combine(mesh, slabOf(axis, min[axis] - 1, middle), 'common'))),
          { rel: 1e-6, why: 'kernel' },
        );
        expect(crossingTriangles(lower)).toBeUndefined();
      }
    }
  });

  it('all of it, or nothing', () => {
    expect(cutAcross(bodies.box, 0, 2, 'lower')).toBe(bodies.box);
    expect(cutAcross(bodies.box, 0, 1, 'lower')).toBe(bodies.box);
    expect(cutAcross(bodies.box, 0, 1, 'upper')).toBeUndefined();
  });
});

describe('bodies of several shapes, any plane', () => {
  const directions = fc
    .tuple(
      fc.double({ min: -1, max: 1, noNaN: true }),
      fc.double({ min: -1, max: 1, noNaN: true }),
      fc.double({ min: -1, max: 1, noNaN: true }),
    )
    .filter((v) => Math.hypot(...v) > 0.1)
    .map((v) => unitVector(v));
  const shares = fc.double({ min: 0.001, max: 0.999, noNaN: true });
  const tank = unwrap(
    combine(
      unwrap(combine(boxMesh(1, 0.5, 0.4), at([0.3, 0.2, 0.1], [0.2, 0.1, -0.1]), 'add')),
      at([0.3, 0.6, 0.3], [0.8, -0.05, 0.2]),
      'take',
    ),
  );
  const run = { seed: 47, numRuns: 150 };
  const heightAt = (normal: Vec3, share: number): number => {
    const [low, high] = offsetRange(tank, normal);
    return low + share * (high - low);
  };

  it('both sides of a plane add to the whole', () => {
    fc.assert(
      fc.property(directions, shares, (normal, share) => {
        const offset_m = heightAt(normal, share);
        const other = volumeBelow(tank, { normal: [-normal[0], -normal[1], -normal[2]], offset_m: -offset_m });
        expect(Math.abs(volumeBelow(tank, { normal, offset_m }) + other - meshVolume(tank))).toBeLessThanOrEqual(
          1e-12 * meshVolume(tank),
        );
      }),
      run,
    );
  });

  it('volume never falls as the level rises, and the level comes back', () => {
    fc.assert(
      fc.property(directions, shares, shares, (normal, a, b) => {
        const [low, high] = [Math.min(a, b), Math.max(a, b)].map((share) =>
          volumeBelow(tank, { normal, offset_m: heightAt(normal, share) }),
        ) as [number, number];
        expect(high).toBeGreaterThanOrEqual(low - 1e-13);
        const level = unwrap(levelForVolume(tank, normal, low));
        expect(Math.abs(volumeBelow(tank, { normal, offset_m: level.offset_m }) - low)).toBeLessThanOrEqual(
          1e-11 * meshVolume(tank),
        );
      }),
      run,
    );
  });

  it('the order of triangles and vertices changes nothing', () => {
    fc.assert(
      fc.property(directions, shares, fc.integer({ min: 1, max: 1e6 }), (normal, share, seed) => {
        const vertices = tank.positions.length / 3;
        const shuffled = (count: number): number[] =>
          Array.from({ length: count }, (_, i) => i).sort(
            (m, n) => ((m * 7919 + seed) % 10007) - ((n * 7919 + seed) % 10007),
          );
        const order = shuffled(vertices);
        const place = order.reduce<number[]>((at_, v, i) => ((at_[v] = i), at_), []);
        const positions = Float64Array.from(order.flatMap((v) => [...tank.positions.subarray(3 * v, 3 * v + 3)]));
        const triangles = Uint32Array.from(
          shuffled(tank.triangles.length / 3).flatMap((i) => [1, 2, 0].map((k) => place[tank.triangles[3 * i + k]!]!)),
        );
        const again = unwrap(parseMesh(positions, triangles));
        const offset_m = heightAt(normal, share);
        expectClose(volumeBelow(again, { normal, offset_m }), volumeBelow(tank, { normal, offset_m }), {
          abs: 1e-14,
          why: 'rounding of another order',
        });
      }),
      run,
    );
  });
});
