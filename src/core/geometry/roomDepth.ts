import { derived } from '../memo';
import { depthInside } from './distance';
import { meshSize_m, type ClosedMesh } from './mesh';
import { trianglePlanes } from './planes';
import type { Vec3 } from './vec';

/** Of the mesh's size: corners so near to a plane lie in it. */
const FLAT_REL = 1e-7;
/** Normals and offsets that differ by less are those of one plane. */
const SAME = 1e-9;

/**
 * How deep points lie inside a body, for many points of one body [m]: the
 * distance to its surface, positive inside. For a convex body that is the
 * least distance to any of its planes, which is quickly had; outside it is
 * then no more than negative. Other bodies go by `depthInside`.
 */
export const roomDepth: (mesh: ClosedMesh) => (point: Vec3) => number = derived((mesh: ClosedMesh) => made(mesh));

function made(mesh: ClosedMesh): (point: Vec3) => number {
  const planes = convexPlanes(mesh);
  if (!planes) return (point) => depthInside(mesh, point);
  return ([x, y, z]) => {
    let least = Infinity;
    for (let i = 0; i < planes.length; i += 4)
      least = Math.min(least, planes[i + 3]! - planes[i]! * x - planes[i + 1]! * y - planes[i + 2]! * z);
    return least;
  };
}

/** Normals and offsets of a convex body's planes; nothing for any other. */
function convexPlanes(mesh: ClosedMesh): Float64Array | undefined {
  const slack = FLAT_REL * meshSize_m(mesh);
  const distinct: { readonly normal: Vec3; readonly offset_m: number }[] = [];
  const seen = new Set<string>();
  for (const plane of trianglePlanes(mesh)) {
    if (!plane) continue;
    const key = [...plane.normal, plane.offset_m].map((value) => Math.round(value / SAME)).join();
    if (seen.has(key)) continue;
    seen.add(key);
    distinct.push(plane);
  }
  const { positions } = mesh;
  for (const { normal, offset_m } of distinct) {
    for (let k = 0; k < positions.length; k += 3)
      if (normal[0] * positions[k]! + normal[1] * positions[k + 1]! + normal[2] * positions[k + 2]! > offset_m + slack)
        return undefined;
  }
  return Float64Array.from(distinct.flatMap(({ normal, offset_m }) => [...normal, offset_m]));
}
