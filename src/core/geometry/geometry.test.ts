import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { unwrap } from '../outcome';
import { expectClose } from '../../../tests/expectClose';
import {
  boxMesh,
  clipBelow,
  depthInside,
  dot,
  effectiveGravity,
  levelForVolume,
  meshArea,
  meshVolume,
  nearestOnTriangle,
  norm,
  offsetRange,
  outlineBelow,
  parseMesh,
  rayCrossings,
  sectionAcross,
  subtract,
  surfaceInSection,
  tankAxes,
  toTankFrame,
  triangle,
  triangleCount,
  unitVector,
  vertex,
  vesselMesh,
  volumeBelow,
  volumesAlong,
  worldUpInVehicle,
  type Vec3,
} from '.';

const sizes = fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 0.05, max: 3, noNaN: true }))) as fc.Arbitrary<
  [number, number, number]
>;
const directions = fc
  .tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true })))
  .filter((v) => Math.hypot(...v) > 0.1)
  .map((v) => unitVector(v as unknown as Vec3));
const shares = fc.double({ min: 0, max: 1, noNaN: true });
const run = { seed: 11, numRuns: 200 };
const radians = (deg: number): number => (deg * Math.PI) / 180;

describe('volumes along one normal', () => {
  const bodies = {
    box: boxMesh(1.2, 0.5, 0.4),
    vessel: unwrap(
      vesselMesh({ radius_m: 0.25, shell_m: 0.6, nearEnd: 'elliptical', farEnd: 'hemispherical', axis: 'x' }),
    ),
    drum: unwrap(vesselMesh({ radius_m: 0.3, shell_m: 0.5, nearEnd: 'flat', farEnd: 'flat', axis: 'z' })),
  };
  it.each(Object.entries(bodies))(
    '%s: the same as one plane at a time, at corners, just beside them, below the floor and over the brim',
    (_, mesh) => {
      const full = meshVolume(mesh);
      fc.assert(
        fc.property(
          fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }),
          fc.double({ min: -1, max: 1, noNaN: true }),
          fc.boolean(),
          (turn, z, upright) => {
            const flat = Math.sqrt(1 - z * z);
            const normal: Vec3 = upright ? [0, 0, 1] : [flat * Math.cos(turn), flat * Math.sin(turn), z];
            const below = volumesAlong(mesh, normal);
            const [low, high] = offsetRange(mesh, normal);
            const corner = dot(normal, vertex(mesh, Math.floor((turn / 7) * (mesh.positions.length / 3))));
            for (const offset_m of [
              low - 0.1,
              low,
              corner,
              corner + 1e-12,
              corner - 1e-12,
              ...[0.1, 0.37, 0.5, 0.93].map((share) => low + share * (high - low)),
              high,
              high + 0.1,
            ]) {
              expectClose(below(offset_m), volumeBelow(mesh, { normal, offset_m }), {
                abs: 1e-13 * full,
                why: 'the same clip',
              });
            }
            expect(below(low - 0.1)).toBeLessThan(1e-14);
            expectClose(below(high + 0.1), full, { rel: 1e-13, why: 'all of it' });
          },
        ),
        { seed: 12, numRuns: 60 },
      );
    },
  );
});

describe('volume below a plane', () => {
  it('level box: area times depth', () => {
    expectClose(volumeBelow(boxMesh(1.2, 0.5, 0.4), { normal: [0, 0, 1], offset_m: 0.13 }), 1.2 * 0.5 * 0.13, {
      rel: 1e-14,
      why: 'closed form',
    });
  });

  it('box tilted so that the liquid is a triangular prism', () => {
    // Surface through the aft top edge direction: wedge of legs a along x and h along z.
    const pitch = radians(20);
    const normal = worldUpInVehicle(pitch, 0);
    const a = 0.3;
    const h = a * Math.tan(pitch);
    expectClose(volumeBelow(boxMesh(1, 0.5, 0.4), { normal, offset_m: normal[0] * a }), (a * h * 0.5) / 2, {
      rel: 1e-13,
      why: 'exact prism',
    });
  });

  it('box tilted so that the liquid is a truncated prism', () => {
    const pitch = radians(-9);
    const normal = worldUpInVehicle(pitch, 0);
    const depthAft = 0.1;
    const depthFore = depthAft + 1 * Math.tan(radians(9));
    expectClose(
      volumeBelow(boxMesh(1, 0.5, 0.4), { normal, offset_m: normal[2] * depthAft }),
      ((depthAft + depthFore) / 2) * 0.5,
      { rel: 1e-13, why: 'exact prism' },
    );
  });

  it('corner pool at pitch and roll is a tetrahedron', () => {
    const normal = worldUpInVehicle(radians(12), radians(17));
    const offset_m = 0.03;
    const legs = normal.map((component) => offset_m / component);
    expectClose(volumeBelow(boxMesh(2, 2, 2), { normal, offset_m }), (legs[0]! * legs[1]! * legs[2]!) / 6, {
      rel: 1e-12,
      why: 'exact tetrahedron',
    });
  });

  it('centroid of a level half-full box, and of a wedge', () => {
    const level = clipBelow(boxMesh(1, 0.6, 0.4), { normal: [0, 0, 1], offset_m: 0.2 });
    expect(level.centroid_m!.map((value) => Number(value.toFixed(12)))).toEqual([0.5, 0.3, 0.1]);
    expectClose(level.surface_m2, 0.6, { rel: 1e-12, why: 'plan area' });
    const normal = worldUpInVehicle(radians(30), 0);
    const wedge = clipBelow(boxMesh(1, 0.6, 0.4), { normal, offset_m: normal[0] * 0.3 });
    expectClose(wedge.centroid_m![0], 0.1, { rel: 1e-12, why: 'centroid of a triangle: a third of the leg' });
    expectClose(wedge.centroid_m![2], (0.3 * Math.tan(radians(30))) / 3, { rel: 1e-12, why: 'centroid of a triangle' });
    expectClose(wedge.surface_m2, (0.3 / Math.cos(radians(30))) * 0.6, { rel: 1e-12, why: 'slant length times width' });
  });

  it('planes through vertices and faces, empty and full', () => {
    const box = boxMesh(1, 1, 1);
    const up: Vec3 = [0, 0, 1];
    expect(volumeBelow(box, { normal: up, offset_m: 0 })).toBe(0);
    expect(volumeBelow(box, { normal: up, offset_m: 1 })).toBeCloseTo(1, 14);
    expect(volumeBelow(box, { normal: up, offset_m: -1 })).toBe(0);
    const diagonal = unitVector([1, 1, 1]);
    expectClose(volumeBelow(box, { normal: diagonal, offset_m: 1 / Math.sqrt(3) }), 1 / 6, {
      rel: 1e-13,
      why: 'corner tetrahedron through three vertices',
    });
  });

  it('the two sides of a plane add to the whole, and both ways of summing agree', () => {
    fc.assert(
      fc.property(sizes, directions, shares, (size, normal, share) => {
        const box = boxMesh(...size);
        const [low, high] = offsetRange(box, normal);
        const offset_m = low + share * (high - low);
        const below = volumeBelow(box, { normal, offset_m });
        const above = volumeBelow(box, { normal: normal.map((n) => -n) as unknown as Vec3, offset_m: -offset_m });
        const whole = meshVolume(box);
        expect(Math.abs(below + above - whole)).toBeLessThanOrEqual(1e-12 * whole);
        expect(Math.abs(clipBelow(box, { normal, offset_m }).volume_m3 - below)).toBeLessThanOrEqual(1e-12 * whole);
      }),
      run,
    );
  });

  it('volume rises with level', () => {
    fc.assert(
      fc.property(sizes, directions, shares, shares, (size, normal, a, b) => {
        const box = boxMesh(...size);
        const [low, high] = offsetRange(box, normal);
        const at = (share: number): number => volumeBelow(box, { normal, offset_m: low + share * (high - low) });
        expect(at(Math.max(a, b))).toBeGreaterThanOrEqual(at(Math.min(a, b)) - 1e-12 * meshVolume(box));
      }),
      run,
    );
  });

  it('turning tank and gravity together changes nothing', () => {
    fc.assert(
      fc.property(
        sizes,
        directions,
        shares,
        fc.double({ min: -3, max: 3, noNaN: true }),
        (size, normal, share, angle) => {
          const box = boxMesh(...size);
          const turn = ([x, y, z]: Vec3): Vec3 => [
            x * Math.cos(angle) - y * Math.sin(angle),
            x * Math.sin(angle) + y * Math.cos(angle),
            z,
          ];
          const positions = Array.from({ length: 8 }, (_, i) =>
            turn([box.positions[3 * i]!, box.positions[3 * i + 1]!, box.positions[3 * i + 2]!]),
          ).flat();
          const turned = unwrap(parseMesh(Float64Array.from(positions), box.triangles));
          const [low, high] = offsetRange(box, normal);
          const offset_m = low + share * (high - low);
          expect(
            Math.abs(volumeBelow(turned, { normal: turn(normal), offset_m }) - volumeBelow(box, { normal, offset_m })),
          ).toBeLessThanOrEqual(1e-11 * meshVolume(box));
        },
      ),
      run,
    );
  });
});

describe('level for a volume', () => {
  it('level(volume(level)) returns, within few steps', () => {
    fc.assert(
      fc.property(sizes, directions, fc.double({ min: 0.001, max: 0.999, noNaN: true }), (size, normal, share) => {
        const box = boxMesh(...size);
        const wanted = share * meshVolume(box);
        const level = unwrap(levelForVolume(box, normal, wanted));
        expect(Math.abs(volumeBelow(box, { normal, offset_m: level.offset_m }) - wanted)).toBeLessThanOrEqual(
          1e-11 * meshVolume(box),
        );
        expect(level.iterations).toBeLessThanOrEqual(60);
      }),
      run,
    );
  });

  it('empty and full are the ends, and beyond them it says so', () => {
    const box = boxMesh(1, 1, 1);
    expect(unwrap(levelForVolume(box, [0, 0, 1], 0)).offset_m).toBe(0);
    expect(unwrap(levelForVolume(box, [0, 0, 1], 1)).offset_m).toBe(1);
    expect(levelForVolume(box, [0, 0, 1], 1.1)).toMatchObject({ ok: false, error: { code: 'more-than-full' } });
    expect(levelForVolume(box, [0, 0, 1], -0.1)).toMatchObject({ ok: false, error: { code: 'less-than-empty' } });
    expect(levelForVolume(box, [0, 0, 1], Number.NaN)).toMatchObject({ ok: false });
  });
});

describe('attitude', () => {
  it('nose up lifts the bow, starboard down lifts port', () => {
    expect(worldUpInVehicle(radians(10), 0)[0]).toBeGreaterThan(0);
    expect(worldUpInVehicle(0, radians(10))[1]).toBeGreaterThan(0);
    expect(norm(worldUpInVehicle(0.4, -0.7))).toBeCloseTo(1, 14);
  });

  it('braking heaps the liquid forward like a nose-down slope', () => {
    const braking = unwrap(
      effectiveGravity({ pitch_rad: 0, roll_rad: 0, acceleration_mPerS2: [-9.80665 * Math.tan(0.2), 0, 0] }),
    );
    const nose = worldUpInVehicle(-0.2, 0);
    braking.up.forEach((component, axis) => expect(component).toBeCloseTo(nose[axis]!, 12));
    expect(braking.magnitude_mPerS2).toBeCloseTo(9.80665 / Math.cos(0.2), 10);
  });

  it('free fall has no surface', () => {
    expect(effectiveGravity({ pitch_rad: 0, roll_rad: 0, acceleration_mPerS2: [0, 0, -9.80665] })).toMatchObject({
      ok: false,
      error: { code: 'weightless' },
    });
  });

  it("a tank's axes are square, right-handed, and turn as the vehicle's attitude does", () => {
    fc.assert(
      fc.property(
        ...([0, 1, 2].map(() => fc.double({ min: -1.5, max: 1.5, noNaN: true })) as [
          fc.Arbitrary<number>,
          fc.Arbitrary<number>,
          fc.Arbitrary<number>,
        ]),
        (yaw_rad, pitch_rad, roll_rad) => {
          const [x, y, z] = tankAxes({ yaw_rad, pitch_rad, roll_rad });
          for (const [a, b] of [
            [x, y],
            [y, z],
            [z, x],
          ] as const)
            expect(Math.abs(dot(a, b))).toBeLessThan(1e-12);
          expect(
            x[0] * (y[1] * z[2] - y[2] * z[1]) +
              x[1] * (y[2] * z[0] - y[0] * z[2]) +
              x[2] * (y[0] * z[1] - y[1] * z[0]),
          ).toBeCloseTo(1, 12);
          // Mounted at an angle in a level vehicle, the tank sees what it would see in a vehicle so tilted.
          const seen = toTankFrame([0, 0, 1], { yaw_rad: 0, pitch_rad, roll_rad });
          worldUpInVehicle(pitch_rad, roll_rad).forEach((component, axis) =>
            expect(seen[axis]).toBeCloseTo(component, 12),
          );
        },
      ),
      run,
    );
  });
});

describe('meshes', () => {
  const box = boxMesh(1, 2, 3);
  it('box area and volume', () => {
    expect(meshArea(box)).toBeCloseTo(22, 12);
    expect(meshVolume(box)).toBeCloseTo(6, 12);
  });

  it.each<[string, Float64Array, Uint32Array]>([
    ['no-triangles', box.positions, new Uint32Array()],
    ['not-finite', Float64Array.from(box.positions, (v, i) => (i === 4 ? Number.NaN : v)), box.triangles],
    ['bad-index', box.positions, Uint32Array.from(box.triangles, (v, i) => (i === 0 ? 99 : v))],
    ['open-edge', box.positions, box.triangles.slice(3)],
    ['inside-out', box.positions, Uint32Array.from(box.triangles).reverse()],
    ['no-volume', Float64Array.from(box.positions, (v, i) => (i % 3 === 2 ? 0 : v)), box.triangles],
  ])('refuses %s', (code, positions, triangles) => {
    expect(parseMesh(positions, triangles)).toMatchObject({ ok: false, error: { code } });
  });

  it('depth inside: to the nearest wall, minus outside', () => {
    expect(depthInside(box, [0.5, 1, 0.2])).toBeCloseTo(0.2, 12);
    expect(depthInside(box, [0.5, 1, -0.3])).toBeCloseTo(-0.3, 12);
    expect(depthInside(box, [-3, -4, 1])).toBeCloseTo(-5, 12);
  });

  it('depth inside is the least distance to any triangle, corner, edge or face', () => {
    const vessel = unwrap(
      vesselMesh({ radius_m: 0.3, shell_m: 0.9, axis: 'x', nearEnd: 'flat', farEnd: 'torispherical' }),
    );
    fc.assert(
      fc.property(fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -0.5, max: 1.2, noNaN: true }))), (p) => {
        const point = p as unknown as Vec3;
        const least = Math.min(
          ...Array.from({ length: triangleCount(vessel) }, (_, i) =>
            norm(subtract(nearestOnTriangle(point, ...triangle(vessel, i)), point)),
          ),
        );
        expectClose(Math.abs(depthInside(vessel, point)), least, {
          abs: 1e-12,
          why: 'the same distance by another way of reckoning',
        });
      }),
      run,
    );
  });

  it('a ray crosses floor and lid', () => {
    const found = rayCrossings(box, [0.4, 0.7, -1], [0, 0, 1]);
    expect(new Set(found.map((t) => t.toFixed(9)))).toEqual(new Set(['1.000000000', '4.000000000']));
  });

  it('a section is the outline, and the liquid in it the part below', () => {
    const loops = sectionAcross(box, 1, 1);
    expect(loops).toHaveLength(1);
    const area = (loop: readonly (readonly [number, number])[]): number =>
      Math.abs(
        loop.reduce((sum, [x, y], i) => {
          const [u, v] = loop[(i + 1) % loop.length]!;
          return sum + x * v - u * y;
        }, 0),
      ) / 2;
    expect(area(loops[0]!)).toBeCloseTo(3, 10);
    const { normal, offset } = surfaceInSection({ normal: [0, 0, 1], offset_m: 1 }, 1, 1);
    expect(area(outlineBelow(loops[0]!, normal, offset))).toBeCloseTo(1, 10);
  });
});
