import type { Vec3 } from '../geometry';
import type { PortDocument } from './schema';

export const radians = (degrees: number): number => (degrees * Math.PI) / 180;
export const degrees = (angle_rad: number): number => (angle_rad * 180) / Math.PI;

/** Where each face lies from inside, and the two coordinates that place a port on it. */
export const OUTWARD: Readonly<Record<PortDocument['face'], Vec3>> = {
  lid: [0, 0, 1],
  floor: [0, 0, -1],
  fore: [1, 0, 0],
  aft: [-1, 0, 0],
  port: [0, 1, 0],
  starboard: [0, -1, 0],
};
