import { triangle, triangleCount, type ClosedMesh } from './mesh';
import { add, cross, dot, norm, scale, subtract, type Vec3 } from './vec';

/**
 * Nearest point of a triangle to a point.
 * @source C. Ericson, Real-Time Collision Detection (2005), section 5.1.5: Voronoi regions
 */
export function nearestOnTriangle(p: Vec3, a: Vec3, b: Vec3, c: Vec3): Vec3 {
  const ab = subtract(b, a);
  const ac = subtract(c, a);
  const ap = subtract(p, a);
  const [d1, d2] = [dot(ab, ap), dot(ac, ap)];
  if (d1 <= 0 && d2 <= 0) return a;
  const bp = subtract(p, b);
  const [d3, d4] = [dot(ab, bp), dot(ac, bp)];
  if (d3 >= 0 && d4 <= d3) return b;
  const vc = d1 * d4 - d3 * d2;
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return add(a, scale(ab, d1 / (d1 - d3)));
  const cp = subtract(p, c);
  const [d5, d6] = [dot(ab, cp), dot(ac, cp)];
  if (d6 >= 0 && d5 <= d6) return c;
  const vb = d5 * d2 - d1 * d6;
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return add(a, scale(ac, d2 / (d2 - d6)));
  const va = d3 * d6 - d5 * d4;
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
    return add(b, scale(subtract(c, b), (d4 - d3) / (d4 - d3 + d5 - d6)));
  }
  const total = va + vb + vc;
  return add(add(a, scale(ab, vb / total)), scale(ac, vc / total));
}

/**
 * Distance from a point to the mesh's surface [m], positive inside and
 * negative outside.
 * @source inside by the winding number: solid angles (A. Van Oosterom and
 * J. Strackee, IEEE Trans. Biomed. Eng. 30, 1983) sum to 4 pi
 */
export function depthInside(mesh: ClosedMesh, p: Vec3): number {
  let nearest = Infinity;
  let solidAngle = 0;
  for (let i = 0; i < triangleCount(mesh); i++) {
    const [a, b, c] = triangle(mesh, i);
    nearest = Math.min(nearest, norm(subtract(p, nearestOnTriangle(p, a, b, c))));
    solidAngle += triangleSolidAngle(subtract(a, p), subtract(b, p), subtract(c, p));
  }
  return solidAngle > 2 * Math.PI ? nearest : -nearest;
}

function triangleSolidAngle(a: Vec3, b: Vec3, c: Vec3): number {
  const [la, lb, lc] = [norm(a), norm(b), norm(c)];
  const numerator = dot(a, cross(b, c));
  const denominator = la * lb * lc + dot(a, b) * lc + dot(b, c) * la + dot(c, a) * lb;
  return 2 * Math.atan2(numerator, denominator);
}

/** A ray that runs along an edge belongs to both its triangles rather than to none. */
const EDGE_REL = 1e-9;

/**
 * Where a line first meets the mesh: distances along the ray at which it
 * crosses a face, in order.
 * @source T. Möller and B. Trumbore, J. Graphics Tools 2 (1997)
 */
export function rayCrossings(mesh: ClosedMesh, origin: Vec3, direction: Vec3): number[] {
  return crossings(mesh, origin, direction).map(({ distance }) => distance);
}

/** The triangle that a ray from a point meets first, by number. */
export const rayHit = (mesh: ClosedMesh, origin: Vec3, direction: Vec3): number | undefined =>
  crossings(mesh, origin, direction).find(({ distance }) => distance >= 0)?.index;

function crossings(mesh: ClosedMesh, origin: Vec3, direction: Vec3): { distance: number; index: number }[] {
  const found: { distance: number; index: number }[] = [];
  for (let i = 0; i < triangleCount(mesh); i++) {
    const [a, b, c] = triangle(mesh, i);
    const e1 = subtract(b, a);
    const e2 = subtract(c, a);
    const h = cross(direction, e2);
    const determinant = dot(e1, h);
    if (Math.abs(determinant) < 1e-15) continue; // parallel to the face
    const s = subtract(origin, a);
    const u = dot(s, h) / determinant;
    const q = cross(s, e1);
    const v = dot(direction, q) / determinant;
    if (u < -EDGE_REL || v < -EDGE_REL || u + v > 1 + EDGE_REL) continue;
    found.push({ distance: dot(e2, q) / determinant, index: i });
  }
  return found.sort((m, n) => m.distance - n.distance);
}
