import { dot, levelForVolume, volumeBelow, type ClosedMesh, type Vec3 } from '../geometry';
import { unwrap } from '../outcome';
import { compartmentBelow_m3, type Compartment, type Division } from './compartments';
import { isConvexSpace, leftBehind_m3, saddlesTo } from './lobes';

/** The space of a tank, and the compartments its plates make of it; left out where there are none. */
export type LiquidSpace = { readonly mesh: ClosedMesh; readonly division?: Division | undefined };

/** Where a pickup draws, in the tank frame [m], and the liquid it needs over its inlet. */
export type Inlet = { readonly point_m: Vec3; readonly submergence_m: number };

/** The lowest surface at which the pickup still draws liquid: an offset along `up` [m]. */
export const starvingOffset_m = (inlet: Inlet, up: Vec3): number => dot(up, inlet.point_m) + inlet.submergence_m;

/**
 * Liquid the pickup leaves behind at one attitude [m³]: what lies below the
 * surface at which it begins to draw air, what lobes hold back that are cut
 * off before, and what compartments keep below their lowest way to the pickup.
 *
 * @param up     unit vector against effective gravity, tank frame
 * @param from_m the surface that it is drawn down from, from the brim where left out: what lobes and compartments
 * hold back is no more than lies in them then
 */
export function unusable_m3({ mesh, division }: LiquidSpace, inlet: Inlet, up: Vec3, from_m = Infinity): number {
  const starving_m = starvingOffset_m(inlet, up);
  if (from_m <= starving_m) return volumeBelow(mesh, { normal: up, offset_m: from_m });
  if (!division || division.compartments.length < 2) return leftBehind_m3(mesh, inlet.point_m, up, starving_m, from_m);
  const home = division.compartmentOf(inlet.point_m);
  const kept = keptLevels_m(division, home, up);
  // A pit that a plate crosses holds on both sides of it what lies under its rim.
  const rims = saddlesTo(
    mesh,
    inlet.point_m,
    up,
    starving_m,
    division.passages.map(({ beside_m }) => beside_m[0]),
  );
  // What is cut out of a convex space is convex too: there the lowest way keeps back least.
  const isConvex = isConvexSpace(mesh);
  const stays = (compartment: Compartment, towards_m: Vec3, level_m: number): number =>
    !isConvex && level_m < from_m
      ? leftBehind_m3(compartment.mesh, towards_m, up, level_m, from_m)
      : compartmentBelow_m3(compartment, up, Math.min(level_m, from_m));
  return division.compartments.reduce((sum, compartment, b) => {
    if (b === home) return sum + stays(compartment, inlet.point_m, starving_m);
    const routes = waysOut(division, b)
      .map(({ passage, to, sill_m, beside_m }) => ({
        towards_m: beside_m,
        level_m: Math.max(rims[passage]!, dot(up, sill_m), kept[to]!),
      }))
      .sort((one, other) => one.level_m - other.level_m);
    if (isConvex) return sum + stays(compartment, inlet.point_m, routes[0]?.level_m ?? Infinity);
    let least_m3 = compartmentBelow_m3(compartment, up, from_m);
    for (const { towards_m, level_m } of routes) {
      // All that lies under its level stays in any case: a way higher up need not be gone.
      if (!(compartmentBelow_m3(compartment, up, Math.min(level_m, from_m)) < least_m3)) break;
      least_m3 = Math.min(least_m3, stays(compartment, towards_m, level_m));
    }
    return sum + least_m3;
  }, 0);
}

/**
 * Openings by which a compartment lets liquid out: which, where to, over what, and a point within the compartment
 * beside it.
 */
const waysOut = (
  { passages }: Division,
  compartment: number,
): { readonly passage: number; readonly to: number; readonly sill_m: Vec3; readonly beside_m: Vec3 }[] =>
  passages.flatMap(({ compartments, into, point_m, beside_m }, passage) => {
    if (compartments[1] === compartment && into[0])
      return [{ passage, to: compartments[0], sill_m: point_m, beside_m: beside_m[1] }];
    return compartments[0] === compartment && into[1]
      ? [{ passage, to: compartments[1], sill_m: point_m, beside_m: beside_m[0] }]
      : [];
  });

/**
 * Of so much liquid in a tank, what a pickup can draw at one attitude [m³].
 * @param volume_m3 from nothing to what the tank holds to the brim
 */
export function drawable_m3(space: LiquidSpace, inlet: Inlet, up: Vec3, volume_m3: number): number {
  const { offset_m } = unwrap(levelForVolume(space.mesh, up, volume_m3));
  return offset_m > starvingOffset_m(inlet, up) ? Math.max(0, volume_m3 - unusable_m3(space, inlet, up, offset_m)) : 0;
}

/**
 * The level down to which each compartment drains towards one of them: over the way
 * whose highest sill is lowest. Infinite where no way leads there.
 */
export function keptLevels_m({ compartments, passages }: Division, towards: number, up: Vec3): number[] {
  const levels = compartments.map((_, compartment) => (compartment === towards ? -Infinity : Infinity));
  // As often as there are compartments settles the longest way.
  for (let round = 0; round < compartments.length; round++) {
    for (const {
      compartments: [low, high],
      point_m,
      into,
    } of passages) {
      const sill = dot(up, point_m);
      if (into[0]) levels[high] = Math.min(levels[high]!, Math.max(sill, levels[low]!));
      if (into[1]) levels[low] = Math.min(levels[low]!, Math.max(sill, levels[high]!));
    }
  }
  return levels;
}

/** Attitudes asked for, as limits of pitch and roll [rad]; min <= 0 <= max. */
export type Envelope = { readonly pitch_rad: readonly [number, number]; readonly roll_rad: readonly [number, number] };

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
  space: LiquidSpace,
  inlet: Inlet,
  envelope: Envelope,
  upAt: (pitch_rad: number, roll_rad: number) => Vec3,
): WorstAttitude {
  let worst: WorstAttitude = { unusable_m3: -1, pitch_rad: 0, roll_rad: 0 };
  const look = (pitch_rad: number, roll_rad: number): void => {
    const left = unusable_m3(space, inlet, upAt(pitch_rad, roll_rad));
    // Rounding does not make one attitude worse than another.
    if (left > worst.unusable_m3 * (1 + 1e-12)) worst = { unusable_m3: left, pitch_rad, roll_rad };
  };
  for (const pitch_rad of envelopeSteps(envelope.pitch_rad))
    for (const roll_rad of envelopeSteps(envelope.roll_rad)) look(pitch_rad, roll_rad);
  for (let share = 1 / (2 * STEPS_A_SIDE), closing = 0; closing < CLOSINGS; share /= 2, closing++) {
    const { pitch_rad, roll_rad } = worst;
    for (const pitch of around(envelope.pitch_rad, pitch_rad, share))
      for (const roll of around(envelope.roll_rad, roll_rad, share))
        if (pitch !== pitch_rad || roll !== roll_rad) look(pitch, roll);
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
  const side = (end: number): number[] =>
    end === 0 ? [] : Array.from({ length: STEPS_A_SIDE }, (_, i) => end * ((i + 1) / STEPS_A_SIDE));
  return [...side(low).reverse(), 0, ...side(high)];
}
