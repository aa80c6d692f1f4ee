import type { ClosedMesh } from './mesh';
import { add, dot, scale, subtract, type Vec3 } from './vec';

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
export function depthInside(mesh: Pick<ClosedMesh, 'positions' | 'triangles'>, p: Vec3): number {
  const { positions, triangles } = mesh;
  let nearest = Infinity;
  let solidAngle = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [3 * triangles[i]!, 3 * triangles[i + 1]!, 3 * triangles[i + 2]!];
    const ax = positions[a]! - p[0],
      ay = positions[a + 1]! - p[1],
      az = positions[a + 2]! - p[2];
    const bx = positions[b]! - p[0],
      by = positions[b + 1]! - p[1],
      bz = positions[b + 2]! - p[2];
    const cx = positions[c]! - p[0],
      cy = positions[c + 1]! - p[1],
      cz = positions[c + 2]! - p[2];
    const volume = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
    const [la, lb, lc] = [
      Math.sqrt(ax * ax + ay * ay + az * az),
      Math.sqrt(bx * bx + by * by + bz * bz),
      Math.sqrt(cx * cx + cy * cy + cz * cz),
    ];
    solidAngle +=
      2 *
      Math.atan2(
        volume,
        la * lb * lc +
          (ax * bx + ay * by + az * bz) * lc +
          (bx * cx + by * cy + bz * cz) * la +
          (cx * ax + cy * ay + cz * az) * lb,
      );
    // No point of a triangle is nearer than the box round it.
    const gx = Math.max(0, Math.min(ax, bx, cx), -Math.max(ax, bx, cx));
    const gy = Math.max(0, Math.min(ay, by, cy), -Math.max(ay, by, cy));
    const gz = Math.max(0, Math.min(az, bz, cz), -Math.max(az, bz, cz));
    if (gx * gx + gy * gy + gz * gz >= nearest) continue;
    nearest = Math.min(nearest, squareToTriangle(ax, ay, az, bx, by, bz, cx, cy, cz));
  }
  const distance = Math.sqrt(nearest);
  return solidAngle > 2 * Math.PI ? distance : -distance;
}

/**
 * Square of the distance from the origin to a triangle: as `nearestOnTriangle`, without making anything, since it is
 * asked without end.
 */
function squareToTriangle(
  ax: number,
  ay: number,
  az: number,
  bx: number,
  by: number,
  bz: number,
  cx: number,
  cy: number,
  cz: number,
): number {
  const abx = bx - ax,
    aby = by - ay,
    abz = bz - az;
  const acx = cx - ax,
    acy = cy - ay,
    acz = cz - az;
  /** Square of the distance to a point so far along both sides from a. */
  const at = (along: number, across: number): number =>
    (ax + along * abx + across * acx) ** 2 +
    (ay + along * aby + across * acy) ** 2 +
    (az + along * abz + across * acz) ** 2;
  const d1 = -(abx * ax + aby * ay + abz * az),
    d2 = -(acx * ax + acy * ay + acz * az);
  if (d1 <= 0 && d2 <= 0) return at(0, 0);
  const d3 = -(abx * bx + aby * by + abz * bz),
    d4 = -(acx * bx + acy * by + acz * bz);
  if (d3 >= 0 && d4 <= d3) return at(1, 0);
  const vc = d1 * d4 - d3 * d2;
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return at(d1 / (d1 - d3), 0);
  const d5 = -(abx * cx + aby * cy + abz * cz),
    d6 = -(acx * cx + acy * cy + acz * cz);
  if (d6 >= 0 && d5 <= d6) return at(0, 1);
  const vb = d5 * d2 - d1 * d6;
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return at(0, d2 / (d2 - d6));
  const va = d3 * d6 - d5 * d4;
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
    const share = (d4 - d3) / (d4 - d3 + d5 - d6);
    return at(1 - share, share);
  }
  const total = va + vb + vc;
  return at(vb / total, vc / total);
}

/** A ray that runs along an edge belongs to both its triangles rather than to none. */
const EDGE_REL = 1e-9;

/**
 * Where a line first meets the mesh: distances along the ray at which it
 * crosses a face, in order.
 * @source T. Möller and B. Trumbore, J. Graphics Tools 2 (1997)
 */
export function rayCrossings(
  mesh: Pick<ClosedMesh, 'positions' | 'triangles'>,
  origin: Vec3,
  direction: Vec3,
): number[] {
  return crossings(mesh, origin, direction).map(({ distance }) => distance);
}

/** The triangle that a ray from a point meets first, by number; nearer than `least_m` it is not looked for. */
export const rayHit = (mesh: ClosedMesh, origin: Vec3, direction: Vec3, least_m = 0): number | undefined =>
  crossings(mesh, origin, direction).find(({ distance }) => distance >= least_m)?.index;

function crossings(
  { positions, triangles }: Pick<ClosedMesh, 'positions' | 'triangles'>,
  [ox, oy, oz]: Vec3,
  [dx, dy, dz]: Vec3,
): { distance: number; index: number }[] {
  const found: { distance: number; index: number }[] = [];
  // Written out, without making anything, since it is asked without end.
  for (let i = 0; i < triangles.length; i += 3) {
    const a = 3 * triangles[i]!,
      b = 3 * triangles[i + 1]!,
      c = 3 * triangles[i + 2]!;
    const ax = positions[a]!,
      ay = positions[a + 1]!,
      az = positions[a + 2]!;
    const px = positions[b]! - ax,
      py = positions[b + 1]! - ay,
      pz = positions[b + 2]! - az;
    const qx = positions[c]! - ax,
      qy = positions[c + 1]! - ay,
      qz = positions[c + 2]! - az;
    const hx = dy * qz - dz * qy,
      hy = dz * qx - dx * qz,
      hz = dx * qy - dy * qx;
    const determinant = px * hx + py * hy + pz * hz;
    if (Math.abs(determinant) < 1e-15) continue; // parallel to the face
    const sx = ox - ax,
      sy = oy - ay,
      sz = oz - az;
    const u = (sx * hx + sy * hy + sz * hz) / determinant;
    if (u < -EDGE_REL || u > 1 + 2 * EDGE_REL) continue;
    const rx = sy * pz - sz * py,
      ry = sz * px - sx * pz,
      rz = sx * py - sy * px;
    const v = (dx * rx + dy * ry + dz * rz) / determinant;
    if (v < -EDGE_REL || u + v > 1 + EDGE_REL) continue;
    found.push({ distance: (qx * rx + qy * ry + qz * rz) / determinant, index: i / 3 });
  }
  return found.sort((m, n) => m.distance - n.distance);
}
