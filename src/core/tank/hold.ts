import { dot, offsetRange, volumeBelow, type ClosedMesh, type Vec3 } from '../geometry';
import { compartmentBelow_m3, type Division } from './compartments';
import { homeLobe } from './lobes';
import { starvingOffset_m, type Inlet } from './pickup';

/**
 * Share of the ideal flow that passes a sharp-edged opening.
 * @source the standard orifice coefficient; from memory
 */
export const ORIFICE_SHARE = 0.61;

/** Flow through openings under a head of liquid [m³/s]. @source Torricelli's law */
export const orificeFlow_m3PerS = (area_m2: number, head_m: number, gravity_mPerS2: number): number =>
  ORIFICE_SHARE * area_m2 * Math.sqrt(2 * gravity_mPerS2 * Math.max(0, head_m));

/** Head of liquid that openings need to pass a flow [m]; infinite where there are none. */
export const headForFlow_m = (flow_m3PerS: number, area_m2: number, gravity_mPerS2: number): number =>
  area_m2 > 0 ? (flow_m3PerS / (ORIFICE_SHARE * area_m2)) ** 2 / (2 * gravity_mPerS2) : Infinity;

/** What a pickup can still draw when the rest of the liquid has run away from it. */
export type Hold = {
  /** Whether the tank's liquid, run to its new level, still covers the pickup: then there is nothing to hold. */
  readonly staysWet: boolean;
  readonly volume_m3: number;
  /** Infinite where the pickup stays wet, and where nothing draws and nothing leaks. */
  readonly time_s: number;
};

const NOTHING: Hold = { staysWet: false, volume_m3: 0, time_s: 0 };

export type HoldInputs = {
  readonly mesh: ClosedMesh;
  readonly division: Division;
  readonly inlet: Inlet;
  /** Standing still, with the surface's offset, and while the vehicle moves; tank frame. */
  readonly still: Vec3;
  readonly stillOffset_m: number;
  readonly moving: Vec3;
  /** Of effective gravity while it moves. */
  readonly gravity_mPerS2: number;
  readonly liquid_m3: number;
  readonly draw_m3PerS: number;
};

const STEPS = 48;

/**
 * How long a pickup is fed from its own compartment or sump after the rest has run
 * away: what the compartment held standing still, less what spills over its sills,
 * goes to the draw and through openings that no flap shuts.
 *
 * The liquid beyond is taken to be gone at once and not to come back, which
 * errs to the safe side.
 */
export function hold({
  mesh,
  division,
  inlet,
  still,
  stillOffset_m,
  moving,
  gravity_mPerS2,
  liquid_m3,
  draw_m3PerS,
}: HoldInputs): Hold {
  const starving_m = starvingOffset_m(inlet, moving);
  const home = division.compartmentOf(inlet.point_m);
  const compartment = division.compartments[home];
  if (!compartment) return NOTHING;
  if (volumeBelow(mesh, { normal: moving, offset_m: starving_m }) <= liquid_m3)
    return { staysWet: true, volume_m3: liquid_m3, time_s: Infinity };
  const held_m3 = compartmentBelow_m3(compartment, still, stillOffset_m);
  const passages = division.passages.filter(({ compartments: [low, high] }) => low === home || high === home);
  const lobe = homeLobe(compartment.mesh, inlet.point_m, moving, starving_m);
  // Alone in the whole tank nothing holds liquid back but a sump's own rim.
  if (division.compartments.length === 1 && lobe.saddle_m === Infinity) return NOTHING;
  const top_m = levelIn(
    lobe.volume,
    held_m3,
    starving_m,
    Math.min(lobe.saddle_m, offsetRange(compartment.mesh, moving)[1]),
  );
  if (top_m <= starving_m) return NOTHING;
  const leak = (offset_m: number): number =>
    passages.reduce((sum, { compartments: [low], point_m, area_m2, into, leak_ratio }) => {
      const open = into[low === home ? 1 : 0] ? 1 : leak_ratio;
      return sum + orificeFlow_m3PerS(area_m2 * open, offset_m - dot(moving, point_m), gravity_mPerS2);
    }, 0);
  return drained(lobe.volume, [starving_m, top_m], (offset) => draw_m3PerS + leak(offset));
}

/**
 * What stands in a space between two levels, and how long it takes to leave.
 * @param volume up to a level [m³]
 * @param leaving at a level [m³/s]
 */
export function drained(
  volume: (level_m: number) => number,
  [low_m, high_m]: readonly [number, number],
  leaving: (level_m: number) => number,
): Hold {
  let [time_s, last] = [0, volume(low_m)];
  const first = last;
  for (let step = 1; step <= STEPS; step++) {
    const level = low_m + ((high_m - low_m) * step) / STEPS;
    const next = volume(level);
    const middle = level - (high_m - low_m) / (2 * STEPS);
    if (next > last) time_s += (next - last) / leaving(middle);
    last = next;
  }
  return { staysWet: false, volume_m3: last - first, time_s };
}

const HALVINGS = 50;

/** The level at which a space holds so much, or the highest of the range where it never does. */
export function levelIn(volume: (level_m: number) => number, volume_m3: number, low_m: number, high_m: number): number {
  if (high_m <= low_m || volume(high_m) <= volume_m3) return high_m;
  let [low, high] = [low_m, high_m];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (volume(middle) > volume_m3) high = middle;
    else low = middle;
  }
  return low;
}
