import { meshVolume, triangle, triangleCount, type ClosedMesh } from './mesh';
import { cross, dot, norm, subtract, type Vec3 } from './vec';

/** Second moments about the frame's origin: the integral of r·rᵀ, row by row. */
export type SecondMoments = readonly [Vec3, Vec3, Vec3];

type Sum = [number[], number[], number[]];
const none = (): Sum => [
  [0, 0, 0],
  [0, 0, 0],
  [0, 0, 0],
];

/** Adds what corners of a simplex give, all of its integral but its size and a whole number. */
function addCorners(sum: Sum, corners: readonly Vec3[], by: number): void {
  const all = [0, 1, 2].map((k) => corners.reduce((total, corner) => total + corner[k]!, 0));
  for (let i = 0; i < 3; i++)
    for (let j = 0; j < 3; j++)
      sum[i]![j]! += by * (all[i]! * all[j]! + corners.reduce((total, v) => total + v[i]! * v[j]!, 0));
}

const done = (sum: Sum): SecondMoments => sum as unknown as SecondMoments;

/**
 * Second moments of the inside of a closed surface [m⁵].
 *
 * @source the integral of a quadratic over a tetrahedron with a corner at the origin: V/20 (Σ v·vᵀ + Σv·Σvᵀ), F. Tonon
 * (2004) J. Math. Stat. 1, 8; from memory
 */
export function solidMoments(mesh: ClosedMesh): SecondMoments {
  const sum = none();
  for (let i = 0; i < triangleCount(mesh); i++) {
    const corners = triangle(mesh, i);
    const [a, b, c] = corners;
    addCorners(sum, corners, dot(a, cross(b, c)) / 120);
  }
  return done(sum);
}

/** The middle of what a closed surface encloses [m]. */
export function meshCentroid(mesh: ClosedMesh): Vec3 {
  const sum = [0, 0, 0];
  for (let i = 0; i < triangleCount(mesh); i++) {
    const [a, b, c] = triangle(mesh, i);
    const by = dot(a, cross(b, c)) / 24;
    for (let k = 0; k < 3; k++) sum[k]! += by * (a[k]! + b[k]! + c[k]!);
  }
  const volume = meshVolume(mesh);
  return [sum[0]! / volume, sum[1]! / volume, sum[2]! / volume];
}

/** The same of the surface itself, evenly thin [m⁴]: over a triangle A/12 (Σ v·vᵀ + Σv·Σvᵀ). */
export function shellMoments(mesh: Pick<ClosedMesh, 'positions' | 'triangles'>): SecondMoments {
  const sum = none();
  for (let i = 0; i < mesh.triangles.length / 3; i++) {
    const corners = triangle(mesh as ClosedMesh, i);
    const [a, b, c] = corners;
    addCorners(sum, corners, norm(cross(subtract(b, a), subtract(c, a))) / 24);
  }
  return done(sum);
}
