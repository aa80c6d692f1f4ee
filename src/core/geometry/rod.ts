import { memoized } from '../memo';
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
  const along = subtract(to_m, from_m);
  const [around_m, length_m] = [radius_m / Math.cos(Math.PI / sides), norm(along)];
  const rod = rodOfOne(sides);
  const positions = rod.positions.map((value, i) => value * (i % 3 < 2 ? around_m : length_m));
  return posedMesh({ ...rod, positions }, frameAlong(from_m, along));
}

/** A rod along z, a metre round its corners and a metre long. */
const rodOfOne = memoized('rod of one', (sides: number): ClosedMesh => {
  const outline = Array.from({ length: sides }, (_, i): Point2 => [
    Math.cos((2 * Math.PI * i) / sides),
    Math.sin((2 * Math.PI * i) / sides),
  ]);
  return unwrap(prismMesh(outline, 'z', 1));
});
