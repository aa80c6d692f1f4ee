import { dot, type ClosedMesh, type Vec3 } from '../geometry';
import { leftBehind_m3 } from './lobes';

/** Where a pickup draws, in the tank frame [m], and the liquid it needs over its inlet. */
export type Inlet = { readonly point_m: Vec3; readonly submergence_m: number };

/** The lowest surface at which the pickup still draws liquid: an offset along `up` [m]. */
export const starvingOffset_m = (inlet: Inlet, up: Vec3): number => dot(up, inlet.point_m) + inlet.submergence_m;

/**
 * Liquid the pickup leaves behind at one attitude [m³]: what lies below the
 * surface at which it begins to draw air, and what lobes hold back that are
 * cut off before.
 *
 * @param up unit vector against effective gravity, tank frame
 */
export const unusable_m3 = (mesh: ClosedMesh, inlet: Inlet, up: Vec3): number =>
  leftBehind_m3(mesh, inlet.point_m, up, starvingOffset_m(inlet, up));

/** Attitudes asked for, as limits of pitch and roll [rad]; min <= 0 <= max. */
export type Envelope = {
  readonly pitch_rad: readonly [number, number];
  readonly roll_rad: readonly [number, number];
};

export type WorstAttitude = { readonly unusable_m3: number; readonly pitch_rad: number; readonly roll_rad: number };

/** Steps of the envelope on each side; corners, edges and level are always among them. */
const STEPS_A_SIDE = 6;

/**
 * The attitude within an envelope that leaves most liquid behind.
 *
 * Searches a grid that holds corners, edges and level; between its points the
 * volume changes smoothly.
 *
 * @param upAt unit vector against gravity in the tank frame, for pitch and roll [rad]
 */
export function worstUnusable(
  mesh: ClosedMesh, inlet: Inlet, envelope: Envelope, upAt: (pitch_rad: number, roll_rad: number) => Vec3,
): WorstAttitude {
  let worst: WorstAttitude = { unusable_m3: -1, pitch_rad: 0, roll_rad: 0 };
  for (const pitch_rad of envelopeSteps(envelope.pitch_rad)) {
    for (const roll_rad of envelopeSteps(envelope.roll_rad)) {
      const left = unusable_m3(mesh, inlet, upAt(pitch_rad, roll_rad));
      if (left > worst.unusable_m3) worst = { unusable_m3: left, pitch_rad, roll_rad };
    }
  }
  return worst;
}

/** Angles from one limit through level to the other, without repeats. */
export function envelopeSteps([low, high]: readonly [number, number]): number[] {
  const side = (end: number): number[] => (end === 0 ? [] : Array.from({ length: STEPS_A_SIDE }, (_, i) => end * ((i + 1) / STEPS_A_SIDE)));
  return [...side(low).reverse(), 0, ...side(high)];
}
