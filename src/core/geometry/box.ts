import { unwrap } from '../outcome';
import { parseMesh, type ClosedMesh } from './mesh';

const CORNERS = [
  [0, 0, 0],
  [1, 0, 0],
  [1, 1, 0],
  [0, 1, 0],
  [0, 0, 1],
  [1, 0, 1],
  [1, 1, 1],
  [0, 1, 1],
] as const;

/** Two triangles a face, counter-clockwise from outside. */
const FACES = [
  0,
  2,
  1,
  0,
  3,
  2, // floor
  4,
  5,
  6,
  4,
  6,
  7, // lid
  0,
  1,
  5,
  0,
  5,
  4, // starboard
  3,
  7,
  6,
  3,
  6,
  2, // port
  0,
  4,
  7,
  0,
  7,
  3, // aft
  1,
  2,
  6,
  1,
  6,
  5, // fore
];

/**
 * A box with its aft, starboard, lower corner at the origin.
 *
 * @param length_m along x, > 0
 * @param width_m  along y, > 0
 * @param height_m along z, > 0
 */
export function boxMesh(length_m: number, width_m: number, height_m: number): ClosedMesh {
  const positions = CORNERS.flatMap(([x, y, z]) => [x * length_m, y * width_m, z * height_m]);
  return unwrap(parseMesh(Float64Array.from(positions), Uint32Array.from(FACES)));
}
