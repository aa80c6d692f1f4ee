import { triangle, triangleCount, type ClosedMesh, type Vec3 } from '../geometry';

/** Centre of a shell of even thickness: its faces' centres weighted by area. */
export function shellCentre_m(mesh: ClosedMesh): Vec3 {
  const sum = [0, 0, 0];
  let whole = 0;
  for (let i = 0; i < triangleCount(mesh); i++) {
    const [a, b, c] = triangle(mesh, i);
    const [ux, uy, uz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
    const [vx, vy, vz] = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
    const area = Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
    whole += area;
    for (let axis = 0; axis < 3; axis++) sum[axis]! += (area * (a[axis]! + b[axis]! + c[axis]!)) / 3;
  }
  return [sum[0]! / whole, sum[1]! / whole, sum[2]! / whole];
}

/** Common centre of masses at points; undefined where nothing weighs anything. */
export function commonCentre_m(parts: readonly { readonly mass_kg: number; readonly at_m: Vec3 }[]): Vec3 | undefined {
  const mass = parts.reduce((sum, part) => sum + part.mass_kg, 0);
  if (!(mass > 0)) return undefined;
  const along = (axis: 0 | 1 | 2): number =>
    parts.reduce((sum, part) => sum + part.mass_kg * part.at_m[axis], 0) / mass;
  return [along(0), along(1), along(2)];
}
