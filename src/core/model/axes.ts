import { OUTWARD } from '../geometry';

export { OUTWARD };

/** The face of a tank on each of its sides. */
export const FACE_OF_SIDE = {
  down: 'floor',
  up: 'lid',
  fore: 'fore',
  aft: 'aft',
  port: 'port',
  starboard: 'starboard',
} as const;

/** Which way each side of a tank lies, in the tank's axes. */
export const SIDE_WAYS = {
  fore: OUTWARD.fore,
  aft: OUTWARD.aft,
  port: OUTWARD.port,
  starboard: OUTWARD.starboard,
  up: OUTWARD.lid,
  down: OUTWARD.floor,
} as const;
