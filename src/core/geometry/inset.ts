import { failure, success, type Outcome } from '../outcome';
import { meshSize_m, parseMesh, triangle, triangleCount, vertex, type ClosedMesh } from './mesh';
import { distinctPlanes, moveOntoPlanes, trianglePlanes } from './planes';
import type { Plane } from './clip';
import { cross, dot, subtract, type Vec3 } from './vec';

export type InsetCode = 'wall-too-thick';

/**
 * The inside of a vessel whose outside is given: every face moved inward by
 * the wall. Exact where three faces meet in a corner and for facets of curved walls;
 * where more do, the corner lies as near to all of them as it can.
 *
 * @param wall_m one that leaves no inside or swallows a face fails; less than 0 lays the wall round the outside
 */
export function insetMesh(mesh: ClosedMesh, wall_m: number): Outcome<ClosedMesh, InsetCode> {
  if (wall_m === 0) return success(mesh);
  const size = meshSize_m(mesh);
  const planes = trianglePlanes(mesh);
  const around = new Array<Plane[]>(mesh.positions.length / 3);
  for (let i = 0; i < mesh.triangles.length; i++) {
    const plane = planes[Math.floor(i / 3)];
    if (plane) (around[mesh.triangles[i]!] ??= []).push({ normal: plane.normal, offset_m: plane.offset_m - wall_m });
  }
  const positions = Float64Array.from(mesh.positions);
  around.forEach((list, v) =>
    positions.set(
      moveOntoPlanes(vertex(mesh, v), distinctPlanes(list, size)).map(clipped(vertex(mesh, v), Math.abs(wall_m))),
      3 * v,
    ),
  );
  const inside = parseMesh(positions, mesh.triangles);
  if (!inside.ok || turnsOver(inside.value, planes)) {
    return failure(
      'wall-too-thick',
      'thickness',
      'The wall is thicker than the shape allows: some face has no inside left.',
    );
  }
  return success({ ...inside.value, fillable: mesh.fillable });
}

/**
 * Mitres of sharp edges go no further than this many walls: beyond it faces are too nearly parallel to say where they
 * meet.
 */
const MITRE = 4;

/** Brings a corner that has moved too far back along each axis. */
const clipped =
  (from: Vec3, wall_m: number) =>
  (value: number, k: number): number =>
    Math.min(Math.max(value, from[k]! - MITRE * wall_m), from[k]! + MITRE * wall_m);

/** Whether some face points another way than it did: it has been squeezed out. */
const turnsOver = (inside: ClosedMesh, planes: readonly (Plane | undefined)[]): boolean =>
  Array.from({ length: triangleCount(inside) }, (_, i) => i).some((i) => {
    const [a, b, c] = triangle(inside, i);
    return planes[i] !== undefined && dot(cross(subtract(b, a), subtract(c, a)), planes[i].normal) < 0;
  });
