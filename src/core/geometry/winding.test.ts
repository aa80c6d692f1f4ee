import { describe, expect, it } from 'vitest';
import { seeded } from '../seeded';
import { unwrap } from '../outcome';
import { expectClose } from '../../../tests/expectClose';
import {
  boxMesh,
  combine,
  crossingTriangles,
  depthInside,
  meshVolume,
  misturned,
  movedMesh,
  parseMesh,
  posedMesh,
  vesselMesh,
  windingAt,
  type ClosedMesh,
  type Vec3,
} from '.';

/** Bodies beside each other in one mesh, the vertices of each its own; one turned inside-out where asked. */
function joined(...bodies: readonly (ClosedMesh | { readonly insideOut: ClosedMesh })[]): ClosedMesh {
  const positions: number[] = [];
  const triangles: number[] = [];
  for (const body of bodies) {
    const mesh = 'insideOut' in body ? body.insideOut : body;
    const first = positions.length / 3;
    const numbers = Array.from(mesh.triangles, (vertex) => first + vertex);
    positions.push(...mesh.positions);
    triangles.push(...('insideOut' in body ? numbers.reverse() : numbers));
  }
  return unwrap(parseMesh(Float64Array.from(positions), Uint32Array.from(triangles)));
}

const cube = boxMesh(1, 1, 1);

describe('how often a surface winds round a point', () => {
  it('agrees with the solid angle everywhere in and about a vessel (seeded)', () => {
    const chance = seeded(71);
    const vessel = unwrap(
      vesselMesh({ radius_m: 0.2, shell_m: 0.5, axis: 'x', nearEnd: 'torispherical', farEnd: 'flat' }),
    );
    const turned = posedMesh(vessel, {
      axes: [
        [0.36, 0.48, -0.8],
        [-0.8, 0.6, 0],
        [0.48, 0.64, 0.6],
      ],
      origin_m: [0.1, 0, 0.2],
    });
    for (let i = 0; i < 400; i++) {
      const p: Vec3 = [1.6 * chance.uniform() - 0.7, 1.6 * chance.uniform() - 0.7, 1.6 * chance.uniform() - 0.7];
      expect(windingAt(turned, p)).toBe(depthInside(turned, p) > 0 ? 1 : 0);
    }
  });

  it('counts what lies in two bodies twice, and what lies in one that is inside-out as less than nothing', () => {
    const p: Vec3 = [0.5, 0.5, 0.5];
    expect(windingAt(joined(cube, boxMesh(0.8, 0.8, 0.8)), p)).toBe(2);
    expect(windingAt(joined(movedMesh(boxMesh(3, 1, 1), [2, 0, 0]), { insideOut: cube }), p)).toBe(-1);
  });
});

describe('faces that do not part inside from outside', () => {
  const inner = movedMesh(boxMesh(0.4, 0.4, 0.4), [0.3, 0.3, 0.3]);
  it.each<[string, ClosedMesh, boolean]>([
    ['a cube', cube, true],
    ['a cube with a hollow', joined(cube, { insideOut: inner }), true],
    ['two cubes apart', joined(cube, movedMesh(cube, [2, 0, 0])), true],
    ['two cubes that share an edge', joined(cube, movedMesh(cube, [1, 1, 0])), true],
    [
      'a vessel',
      unwrap(vesselMesh({ radius_m: 0.2, shell_m: 0.5, axis: 'x', nearEnd: 'torispherical', farEnd: 'elliptical' })),
      true,
    ],
    ['a cube twice', joined(cube, cube), false],
    ['a cube in a cube, both facing outward', joined(cube, inner), false],
    ['a lower half upon a cube', joined(cube, boxMesh(1, 1, 0.5)), false],
    ['a cube that overlaps another in a face of both', joined(cube, movedMesh(cube, [0.5, 0, 0])), false],
    ['two cubes face to face', joined(cube, movedMesh(cube, [1, 0, 0])), false],
    [
      'a cube beside one that is inside-out',
      joined(movedMesh(boxMesh(3, 1, 1), [2, 0, 0]), { insideOut: cube }),
      false,
    ],
  ])('%s', (_, mesh, sound) => {
    expect(misturned(mesh) === undefined).toBe(sound);
  });

  it('boxes on a grid: whatever has space in common is found, and the rest has the volume that the kernel joins (seeded)', () => {
    const chance = seeded(72);
    const whole = (most: number): number => Math.floor(chance.uniform() * (most + 1));
    let [apart, common, touching] = [0, 0, 0];
    for (let run = 0; run < 120; run++) {
      // Faces, edges and corners fall together; a quarter of the boxes lie in each other.
      const boxes = Array.from({ length: 2 + (run % 3) }, () => ({
        at: [whole(8), whole(8), whole(8)] as const,
        size: [1 + whole(3), 1 + whole(3), 1 + whole(3)] as const,
      }));
      const bodies = boxes.map(({ at, size }) =>
        movedMesh(boxMesh(size[0] / 4, size[1] / 4, size[2] / 4), [at[0] / 4, at[1] / 4, at[2] / 4]),
      );
      const mesh = joined(...bodies);
      const cells = boxes.flatMap(({ at, size }) =>
        Array.from(
          { length: size[0] * size[1] * size[2] },
          (_, i) =>
            `${at[0] + (i % size[0])} ${at[1] + (Math.floor(i / size[0]) % size[1])} ${at[2] + Math.floor(i / size[0] / size[1])}`,
        ),
      );
      const wrong = crossingTriangles(mesh) !== undefined || misturned(mesh) !== undefined;
      if (new Set(cells).size < cells.length) {
        common++;
        expect(wrong, JSON.stringify(boxes)).toBe(true);
      } else if (wrong) {
        touching++;
      } else {
        apart++;
        const joined = bodies.reduce((sum, body) => unwrap(combine(sum, body, 'add')));
        expectClose(meshVolume(joined), meshVolume(mesh), { rel: 1e-6, why: 'the kernel works in single precision' });
      }
    }
    expect(
      [apart, common, touching].every((count) => count >= 10),
      `${apart} apart, ${common} in common, ${touching} touching`,
    ).toBe(true);
  });
});
