import { unwrap } from '../outcome';
import { prismMesh } from './loft';
import type { ClosedMesh } from './mesh';
import { frameAlong, posedMesh } from './pose';
import type { Point2 } from './section';
import { norm, subtract, type Vec3 } from './vec';

/**
 * A round rod from one point to another, as the many-sided one that encloses
 * it: never smaller than the rod itself.
 * @param radius_m > 0; the points apart
 */
export function rodMesh(from_m: Vec3, to_m: Vec3, radius_m: number, sides: number): ClosedMesh {
  const around = radius_m / Math.cos(Math.PI / sides);
  const outline = Array.from({ length: sides }, (_, i): Point2 => [
    around * Math.cos((2 * Math.PI * i) / sides),
    around * Math.sin((2 * Math.PI * i) / sides),
  ]);
  const along = subtract(to_m, from_m);
  return posedMesh(unwrap(prismMesh(outline, 'z', norm(along))), frameAlong(from_m, along));
}
