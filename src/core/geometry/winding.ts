import { treeOf, type BoxTree } from './boxTree';
import { depthInside } from './distance';
import { meshSize_m, triangle, triangleCount, type ClosedMesh } from './mesh';
import { cross, norm, scale, subtract, unitVector, type Vec3 } from './vec';

/**
 * Ways in which rays are sent, one after the other where one grazes an edge: along none of the axes that builders draw
 * by.
 */
const WAYS: readonly Vec3[] = (
  [
    [0.6137, 0.5293, 0.5862],
    [-0.3421, 0.8119, 0.4733],
    [0.7411, -0.2287, 0.6311],
    [0.1973, 0.4127, -0.8893],
    [-0.5119, -0.6211, 0.5937],
    [0.8713, 0.1361, -0.4717],
    [-0.2633, 0.3371, -0.9041],
    [0.4079, -0.8831, -0.2311],
  ] as const
).map((way) => unitVector(way));
/** A ray that passes an edge within this share of a triangle is not trusted. */
const GRAZE = 1e-7;

/**
 * How many times a closed surface winds round a point: 1 inside, 0 outside, 2
 * where a body lies in another, -1 in one that is inside-out. The point must not
 * lie on the surface.
 *
 * @source faces that a ray leaves by, less those that it enters by; ray against
 * triangle as T. Möller and B. Trumbore (1997)
 */
export function windingAt(mesh: ClosedMesh, point: Vec3): number {
  const tree = treeOf(mesh);
  for (const way of WAYS) {
    const sum = leftLessEntered(tree, point, way);
    if (sum !== undefined) return sum;
  }
  // Eight rays out of one point that all graze are not met with; the solid angle still tells inside from outside.
  return depthInside(mesh, point) > 0 ? 1 : 0;
}

/** Undefined where the ray grazes an edge or a face. */
function leftLessEntered({ boxes, inner, span, corners }: BoxTree, from: Vec3, way: Vec3): number | undefined {
  const pending = [0];
  let sum = 0;
  while (pending.length > 0) {
    const box = pending.pop()!;
    if (!meets(boxes, 6 * box, from, way)) continue;
    if (inner[box] !== 0) {
      pending.push(inner[box]!, inner[box]! + 1);
      continue;
    }
    for (let t = span[2 * box]!; t < span[2 * box]! + span[2 * box + 1]!; t++) {
      const through = passes(corners, 9 * t, from, way);
      if (through === undefined) return undefined;
      sum += through;
    }
  }
  return sum;
}

/** Whether a ray meets a box, by its slabs. */
function meets(boxes: Float64Array, at: number, from: Vec3, way: Vec3): boolean {
  let near = 0;
  let far = Infinity;
  for (let k = 0; k < 3; k++) {
    const middle = boxes[at + k]! - from[k]!,
      half = boxes[at + 3 + k]!;
    const a = (middle - half) / way[k]!,
      b = (middle + half) / way[k]!;
    if (a < b) {
      if (a > near) near = a;
      if (b < far) far = b;
    } else {
      if (b > near) near = b;
      if (a < far) far = a;
    }
  }
  // Rounding must not lose a face that lies in the side of its box.
  return near <= far * (1 + 1e-12) + 1e-15;
}

/**
 * 1 where a ray leaves by a triangle, -1 where it enters, 0 where it passes by; undefined where that is too near to
 * tell. Makes nothing, since it is asked without end.
 */
function passes(corners: Float64Array, at: number, from: Vec3, way: Vec3): number | undefined {
  const ax = corners[at]!,
    ay = corners[at + 1]!,
    az = corners[at + 2]!;
  const e1x = corners[at + 3]! - ax,
    e1y = corners[at + 4]! - ay,
    e1z = corners[at + 5]! - az;
  const e2x = corners[at + 6]! - ax,
    e2y = corners[at + 7]! - ay,
    e2z = corners[at + 8]! - az;
  const nx = e1y * e2z - e1z * e2y,
    ny = e1z * e2x - e1x * e2z,
    nz = e1x * e2y - e1y * e2x;
  const area = Math.sqrt(nx * nx + ny * ny + nz * nz);
  if (area === 0) return 0;
  const [wx, wy, wz] = way;
  const facing = wx * nx + wy * ny + wz * nz;
  const sx = from[0] - ax,
    sy = from[1] - ay,
    sz = from[2] - az;
  const height = sx * nx + sy * ny + sz * nz;
  if (Math.abs(facing) < GRAZE * area) return Math.abs(height) > GRAZE * area * Math.sqrt(area) ? 0 : undefined;
  // Möller and Trumbore's determinant is -facing.
  const u = -(sx * (wy * e2z - wz * e2y) + sy * (wz * e2x - wx * e2z) + sz * (wx * e2y - wy * e2x)) / facing;
  if (u < -GRAZE || u > 1 + GRAZE) return 0;
  const v = -(wx * (sy * e1z - sz * e1y) + wy * (sz * e1x - sx * e1z) + wz * (sx * e1y - sy * e1x)) / facing;
  if (v < -GRAZE || u + v > 1 + GRAZE || -height / facing < 0) return 0;
  return u < GRAZE || v < GRAZE || u + v > 1 - GRAZE ? undefined : Math.sign(facing);
}

/** How far beside a face it is looked, as a share of the size: above rounding in double precision, below any wall. */
const BESIDE_REL = 1e-7;
/** And no further than this share of a triangle's own inscribed circle. */
const BESIDE_SHARE = 0.01;

export type Misturned = {
  readonly triangle: number;
  /** How often the surface winds round what lies before the face, and behind it. */ readonly before: number;
  readonly behind: number;
};

/**
 * The first face of a closed mesh that does not part inside from outside: it
 * lies within another body or upon one, or its body is inside-out. With none,
 * the mesh's volume counts no space twice: every region of space borders on a
 * face, so each has been looked into.
 */
export function misturned(mesh: ClosedMesh): Misturned | undefined {
  const size = meshSize_m(mesh);
  for (let i = 0; i < triangleCount(mesh); i++) {
    const [a, b, c] = triangle(mesh, i);
    const normal = cross(subtract(b, a), subtract(c, a));
    const area = norm(normal);
    if (area === 0) continue;
    const inscribed = area / (norm(subtract(b, a)) + norm(subtract(c, b)) + norm(subtract(a, c)));
    const beside = scale(normal, Math.min(BESIDE_REL * size, BESIDE_SHARE * inscribed) / area);
    const beyond = (side: 1 | -1): Vec3 =>
      [0, 1, 2].map((k) => (a[k]! + b[k]! + c[k]!) / 3 + side * beside[k]!) as unknown as Vec3;
    const [before, behind] = [windingAt(mesh, beyond(1)), windingAt(mesh, beyond(-1))];
    if (before !== 0 || behind !== 1) return { triangle: i, before, behind };
  }
  return undefined;
}
