import type { Vec3 } from './vec';

/** Which way each face of a tank lies from inside, in the tank's axes. */
export const OUTWARD = {
  lid: [0, 0, 1],
  floor: [0, 0, -1],
  fore: [1, 0, 0],
  aft: [-1, 0, 0],
  port: [0, 1, 0],
  starboard: [0, -1, 0],
} as const satisfies Readonly<Record<string, Vec3>>;
