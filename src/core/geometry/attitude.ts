import { failure, success, type Outcome } from '../outcome';
import { STANDARD_GRAVITY_M_PER_S2 } from '../units';
import { dot, norm, scale, type Vec3 } from './vec';

/**
 * How a vehicle stands and moves. Axes: x forward, y to port, z up. Pitch is
 * positive nose up; roll follows about the vehicle's own x, positive starboard
 * side down. Accelerations are in vehicle axes.
 */
export type Attitude = { readonly pitch_rad: number; readonly roll_rad: number; readonly acceleration_mPerS2: Vec3 };

export const LEVEL: Attitude = { pitch_rad: 0, roll_rad: 0, acceleration_mPerS2: [0, 0, 0] };

/** What the liquid feels as "up", in the frame asked for, and how strongly it is pulled. */
export type EffectiveGravity = { readonly up: Vec3; readonly magnitude_mPerS2: number };

/** A fiftieth of g: below it the liquid has no surface to speak of. */
const WEIGHTLESS_REL = 0.02;

/** The world's up, seen from the vehicle. */
export function worldUpInVehicle(pitch_rad: number, roll_rad: number): Vec3 {
  return [Math.sin(pitch_rad), Math.cos(pitch_rad) * Math.sin(roll_rad), Math.cos(pitch_rad) * Math.cos(roll_rad)];
}

/**
 * Effective gravity in vehicle axes: the liquid feels gravity less the
 * vehicle's acceleration.
 *
 * @source d'Alembert's principle; liquid at rest in an accelerating vessel
 */
export function effectiveGravity(attitude: Attitude): Outcome<EffectiveGravity, 'weightless'> {
  const gravity = scale(worldUpInVehicle(attitude.pitch_rad, attitude.roll_rad), STANDARD_GRAVITY_M_PER_S2);
  const felt: Vec3 = [
    gravity[0] + attitude.acceleration_mPerS2[0],
    gravity[1] + attitude.acceleration_mPerS2[1],
    gravity[2] + attitude.acceleration_mPerS2[2],
  ];
  const magnitude = norm(felt);
  if (magnitude < WEIGHTLESS_REL * STANDARD_GRAVITY_M_PER_S2) {
    return failure('weightless', 'acceleration', 'These accelerations cancel gravity; the liquid has no surface.');
  }
  return success({ up: scale(felt, 1 / magnitude), magnitude_mPerS2: magnitude });
}

/** How a tank is turned in the vehicle: yaw, then pitch, then roll about its own axes. */
export type Mounting = { readonly yaw_rad: number; readonly pitch_rad: number; readonly roll_rad: number };

/** The tank's own axes, each as a unit vector in vehicle axes. */
export function tankAxes({ yaw_rad, pitch_rad, roll_rad }: Mounting): readonly [Vec3, Vec3, Vec3] {
  const [cy, sy] = [Math.cos(yaw_rad), Math.sin(yaw_rad)];
  const [cp, sp] = [Math.cos(pitch_rad), Math.sin(pitch_rad)];
  const [cr, sr] = [Math.cos(roll_rad), Math.sin(roll_rad)];
  return [
    [cy * cp, sy * cp, sp],
    [-sy * cr - cy * sp * sr, cy * cr - sy * sp * sr, cp * sr],
    [sy * sr - cy * sp * cr, -cy * sr - sy * sp * cr, cp * cr],
  ];
}

/** A direction in vehicle axes, seen from the tank. */
export function toTankFrame(direction: Vec3, mounting: Mounting): Vec3 {
  const [x, y, z] = tankAxes(mounting);
  return [dot(direction, x), dot(direction, y), dot(direction, z)];
}
