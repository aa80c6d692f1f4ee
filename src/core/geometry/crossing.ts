import { meshSize_m, triangle, triangleCount, vertex, type ClosedMesh } from './mesh';
import { cross, dot, subtract, type Vec3 } from './vec';

/** An edge that ends this near to a face, as a share of the size, touches it and does not cross. */
const TOUCH_REL = 1e-9;

/**
 * Two triangles of a mesh that run through each other, or undefined where none
 * do. Faces that only touch are let be.
 * @source sweep over boxes along x; edge against triangle as T. Möller and B. Trumbore (1997)
 */
export function crossingTriangles(mesh: ClosedMesh): readonly [number, number] | undefined {
  const touch = TOUCH_REL * meshSize_m(mesh);
  const boxes = Array.from({ length: triangleCount(mesh) }, (_, i) => boxOf(mesh, i)).sort(
    (a, b) => a.min[0] - b.min[0],
  );
  for (let i = 0; i < boxes.length; i++) {
    for (let j = i + 1; j < boxes.length && boxes[j]!.min[0] <= boxes[i]!.max[0]; j++) {
      const [a, b] = [boxes[i]!, boxes[j]!];
      if (a.min[1] > b.max[1] || b.min[1] > a.max[1] || a.min[2] > b.max[2] || b.min[2] > a.max[2]) continue;
      if (pierces(mesh, a.index, b.index, touch) || pierces(mesh, b.index, a.index, touch))
        return [Math.min(a.index, b.index), Math.max(a.index, b.index)];
    }
  }
  return undefined;
}

type TriangleBox = { readonly index: number; readonly min: Vec3; readonly max: Vec3 };

function boxOf(mesh: ClosedMesh, index: number): TriangleBox {
  const [a, b, c] = triangle(mesh, index);
  const along = (pick: (...values: number[]) => number): Vec3 => [
    pick(a[0], b[0], c[0]),
    pick(a[1], b[1], c[1]),
    pick(a[2], b[2], c[2]),
  ];
  return { index, min: along(Math.min), max: along(Math.max) };
}

/** Whether an edge of one triangle, none of whose ends is a corner of the other, goes through the other. */
function pierces(mesh: ClosedMesh, edgesOf: number, through: number, touch_m: number): boolean {
  const corners = mesh.triangles.subarray(3 * through, 3 * through + 3);
  for (let k = 0; k < 3; k++) {
    const [from, to] = [mesh.triangles[3 * edgesOf + k]!, mesh.triangles[3 * edgesOf + ((k + 1) % 3)]!];
    if (corners.includes(from) || corners.includes(to)) continue;
    if (edgeThrough(vertex(mesh, from), vertex(mesh, to), triangle(mesh, through), touch_m)) return true;
  }
  return false;
}

function edgeThrough(from: Vec3, to: Vec3, [a, b, c]: readonly [Vec3, Vec3, Vec3], touch_m: number): boolean {
  const normal = cross(subtract(b, a), subtract(c, a));
  const area = Math.sqrt(dot(normal, normal));
  if (area === 0) return false;
  const [start, end] = [dot(normal, subtract(from, a)) / area, dot(normal, subtract(to, a)) / area];
  if (Math.abs(start) <= touch_m || Math.abs(end) <= touch_m || start > 0 === end > 0) return false;
  const t = start / (start - end);
  const at: Vec3 = [from[0] + t * (to[0] - from[0]), from[1] + t * (to[1] - from[1]), from[2] + t * (to[2] - from[2])];
  const inside = (p: Vec3, q: Vec3): boolean => dot(cross(subtract(q, p), subtract(at, p)), normal) > touch_m * area;
  return inside(a, b) && inside(b, c) && inside(c, a);
}
