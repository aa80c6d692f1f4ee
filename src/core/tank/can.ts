import { dot, type Vec3 } from '../geometry';
import { drained, levelIn, orificeFlow_m3PerS, type Hold } from './hold';
import { starvingOffset_m, type Inlet } from './pickup';

/** An upright round can about a pickup, open above. */
export type Can = {
  readonly diameter_m: number;
  readonly height_m: number;
  /** Of the openings at its foot. */
  readonly area_m2: number;
  /** What of them lets liquid out again: all of plain holes, little of doors that open inward. */
  readonly leak_ratio: number;
};

export type CanInputs = {
  readonly can: Can;
  /** Middle of its foot. */
  readonly foot_m: Vec3;
  /** In its middle. */
  readonly inlet: Inlet;
  /** Of the liquid over the foot, standing still. */
  readonly depth_m: number;
  readonly moving: Vec3;
  readonly gravity_mPerS2: number;
  readonly draw_m3PerS: number;
};

const NOTHING: Hold = { staysWet: false, volume_m3: 0, time_s: 0 };
const CHORDS = 256;

/**
 * How long a pickup is fed from the can about it after the rest has run away: what stood in the can, less what spills
 * over its rim as the surface leans, goes to the draw and out by its openings.
 *
 * @source geometry of a cylinder under a leaning plane; Torricelli's law at the openings, taken where the liquid stands
 * deepest on them
 */
export function canHold({ can, foot_m, inlet, depth_m, moving, gravity_mPerS2, draw_m3PerS }: CanInputs): Hold {
  const [mx, my, mz] = moving;
  // On its side, or upside down, a can that is open above holds nothing.
  if (!(mz > LEAST_UP) || depth_m <= 0) return NOTHING;
  const radius = can.diameter_m / 2;
  const lean = Math.hypot(mx, my) / mz;
  const volume = (axis_m: number): number => canVolume_m3(radius, can.height_m, lean, axis_m - foot_m[2]);
  /** Height of a surface over the can's own axis. */
  const onAxis = (offset_m: number): number => (offset_m - mx * foot_m[0] - my * foot_m[1]) / mz;
  const starving_m = onAxis(starvingOffset_m(inlet, moving));
  const rim_m = foot_m[2] + can.height_m - lean * radius;
  const held_m3 = Math.PI * radius ** 2 * Math.min(depth_m, can.height_m);
  const top_m = levelIn(volume, held_m3, foot_m[2] - lean * radius, rim_m);
  if (top_m <= starving_m) return NOTHING;
  const deepest = dot(moving, foot_m) - radius * Math.hypot(mx, my);
  return drained(volume, [starving_m, top_m], (axis_m) => {
    const head_m = mx * foot_m[0] + my * foot_m[1] + mz * axis_m - deepest;
    return draw_m3PerS + orificeFlow_m3PerS(can.area_m2 * can.leak_ratio, head_m, gravity_mPerS2);
  });
}

/** Leaning further than 84° nothing stands in a can. */
const LEAST_UP = 0.1;

/**
 * What an upright cylinder holds below a plane that falls by `lean` in one along it and stands so high over its foot on
 * the axis; by chords across the lean, Simpson's rule in the angle.
 */
export function canVolume_m3(radius_m: number, height_m: number, lean: number, axis_m: number): number {
  const chord = (k: number): number => {
    const angle = (Math.PI * k) / CHORDS;
    const depth = Math.min(height_m, Math.max(0, axis_m - lean * radius_m * Math.cos(angle)));
    return 2 * (radius_m * Math.sin(angle)) ** 2 * depth;
  };
  let sum = chord(0) + chord(CHORDS);
  for (let k = 1; k < CHORDS; k++) sum += chord(k) * (k % 2 === 1 ? 4 : 2);
  return (sum * Math.PI) / (3 * CHORDS);
}
