import { clippedTriangle, triangleCount, type ClosedMesh, type Vec3 } from '../geometry';

/** Depth and reach of a compartment's liquid: what a rectangular compartment of the same surface would have. */
export type LiquidReach = {
  readonly volume_m3: number;
  readonly depth_m: number;
  readonly length_m: number;
  readonly width_m: number;
};

/**
 * The level surface's reach along x and y, and the mean depth under it.
 * @returns undefined where the surface does not cut the compartment
 */
export function liquidReach(mesh: ClosedMesh, up: Vec3, offset_m: number, volume_m3: number): LiquidReach | undefined {
  const [low, high] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  let surface = 0;
  for (let i = 0; i < triangleCount(mesh); i++) {
    const { cut } = clippedTriangle(mesh, i, { normal: up, offset_m });
    if (!cut) continue;
    surface += (cut[1][0] * cut[0][1] - cut[0][0] * cut[1][1]) / 2;
    for (const point of cut) {
      for (const axis of [0, 1] as const) {
        low[axis] = Math.min(low[axis]!, point[axis]);
        high[axis] = Math.max(high[axis]!, point[axis]);
      }
    }
  }
  const area = Math.abs(surface) * mesh.fillable;
  return area > 0 && volume_m3 > 0
    ? { volume_m3, depth_m: volume_m3 / area, length_m: high[0]! - low[0]!, width_m: high[1]! - low[1]! }
    : undefined;
}

/**
 * First sloshing frequency of a rectangular compartment [Hz], liquid of even depth,
 * walls upright, waves low.
 * @param reach_m along the motion, > 0
 * @source linear theory: omega² = g (pi/L) tanh(pi h/L); H. Lamb, Hydrodynamics, art. 257; NASA SP-106 (1966), chapter
 * 2
 */
export const sloshFrequency_Hz = (reach_m: number, depth_m: number, gravity_mPerS2: number): number =>
  Math.sqrt((gravity_mPerS2 * Math.PI * Math.tanh((Math.PI * depth_m) / reach_m)) / reach_m) / (2 * Math.PI);

/** First root of the derivative of the Bessel function J1. */
const BESSEL_ROOT = 1.8411837813;

/**
 * First sloshing frequency of an upright round tank [Hz].
 * @source linear theory: omega² = g (k/R) tanh(k h/R), k = 1.8412; NASA SP-106 (1966), chapter 2
 */
export const roundSloshFrequency_Hz = (radius_m: number, depth_m: number, gravity_mPerS2: number): number =>
  Math.sqrt((gravity_mPerS2 * BESSEL_ROOT * Math.tanh((BESSEL_ROOT * depth_m) / radius_m)) / radius_m) / (2 * Math.PI);
