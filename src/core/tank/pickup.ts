import { dot, type ClosedMesh, type Vec3 } from '../geometry';
import { bayBelow_m3, type Compartments } from './compartments';
import { leftBehind_m3 } from './lobes';

/** The space of a tank, and the bays its plates make of it; left out where there are none. */
export type LiquidSpace = { readonly mesh: ClosedMesh; readonly bays?: Compartments | undefined };

/** Where a pickup draws, in the tank frame [m], and the liquid it needs over its inlet. */
export type Inlet = { readonly point_m: Vec3; readonly submergence_m: number };

/** The lowest surface at which the pickup still draws liquid: an offset along `up` [m]. */
export const starvingOffset_m = (inlet: Inlet, up: Vec3): number => dot(up, inlet.point_m) + inlet.submergence_m;

/**
 * Liquid the pickup leaves behind at one attitude [m³]: what lies below the
 * surface at which it begins to draw air, what lobes hold back that are cut
 * off before, and what bays keep below their lowest way to the pickup.
 *
 * @param up unit vector against effective gravity, tank frame
 */
export function unusable_m3({ mesh, bays }: LiquidSpace, inlet: Inlet, up: Vec3): number {
  const starving_m = starvingOffset_m(inlet, up);
  const left = leftBehind_m3(mesh, inlet.point_m, up, starving_m);
  if (!bays || bays.bays.length < 2) return left;
  const kept = keptLevels_m(bays, bays.bayOf(inlet.point_m), up);
  return bays.bays.reduce((sum, bay, b) => (kept[b]! > starving_m ? sum + Math.max(0, bayBelow_m3(bay, up, kept[b]!) - bayBelow_m3(bay, up, starving_m)) : sum), left);
}

/**
 * The level down to which each bay drains towards one of them: over the way
 * whose highest sill is lowest. Infinite where no way leads there.
 */
export function keptLevels_m({ bays, passages }: Compartments, towards: number, up: Vec3): number[] {
  const levels = bays.map((_, bay) => (bay === towards ? -Infinity : Infinity));
  // As often as there are bays settles the longest way.
  for (let round = 0; round < bays.length; round++) {
    for (const { bays: [low, high], point_m, into } of passages) {
      const sill = dot(up, point_m);
      if (into[0]) levels[high] = Math.min(levels[high]!, Math.max(sill, levels[low]!));
      if (into[1]) levels[low] = Math.min(levels[low]!, Math.max(sill, levels[high]!));
    }
  }
  return levels;
}

/** Attitudes asked for, as limits of pitch and roll [rad]; min <= 0 <= max. */
export type Envelope = {
  readonly pitch_rad: readonly [number, number];
  readonly roll_rad: readonly [number, number];
};

export type WorstAttitude = { readonly unusable_m3: number; readonly pitch_rad: number; readonly roll_rad: number };

/** Steps of the envelope on each side; corners, edges and level are always among them. */
const STEPS_A_SIDE = 3;
/** How often the search halves its steps round the worst that it has found. */
const CLOSINGS = 3;

/**
 * The attitude within an envelope that leaves most liquid behind.
 *
 * Searches a grid that holds corners, edges and level, then closes in on the
 * worst of its points: between them the volume changes smoothly.
 *
 * @param upAt unit vector against gravity in the tank frame, for pitch and roll [rad]
 */
export function worstUnusable(
  space: LiquidSpace, inlet: Inlet, envelope: Envelope, upAt: (pitch_rad: number, roll_rad: number) => Vec3,
): WorstAttitude {
  let worst: WorstAttitude = { unusable_m3: -1, pitch_rad: 0, roll_rad: 0 };
  const look = (pitch_rad: number, roll_rad: number): void => {
    const left = unusable_m3(space, inlet, upAt(pitch_rad, roll_rad));
    // Rounding does not make one attitude worse than another.
    if (left > worst.unusable_m3 * (1 + 1e-12)) worst = { unusable_m3: left, pitch_rad, roll_rad };
  };
  for (const pitch_rad of envelopeSteps(envelope.pitch_rad)) for (const roll_rad of envelopeSteps(envelope.roll_rad)) look(pitch_rad, roll_rad);
  for (let share = 1 / (2 * STEPS_A_SIDE), closing = 0; closing < CLOSINGS; share /= 2, closing++) {
    const { pitch_rad, roll_rad } = worst;
    for (const pitch of around(envelope.pitch_rad, pitch_rad, share)) for (const roll of around(envelope.roll_rad, roll_rad, share)) if (pitch !== pitch_rad || roll !== roll_rad) look(pitch, roll);
  }
  return worst;
}

/** An angle and what lies a share of its side of the envelope before and behind it, within the limits. */
function around([low, high]: readonly [number, number], angle: number, share: number): number[] {
  const step = share * Math.max(-low, high);
  return [...new Set([Math.max(low, angle - step), angle, Math.min(high, angle + step)])];
}

/** Angles from one limit through level to the other, without repeats. */
export function envelopeSteps([low, high]: readonly [number, number]): number[] {
  const side = (end: number): number[] => (end === 0 ? [] : Array.from({ length: STEPS_A_SIDE }, (_, i) => end * ((i + 1) / STEPS_A_SIDE)));
  return [...side(low).reverse(), 0, ...side(high)];
}
