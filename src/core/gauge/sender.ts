import { add, depthInside, dot, scale, type ClosedMesh, type Vec3 } from '../geometry';

/**
 * A swing-arm sender: a float on an arm that turns in one upright plane about
 * a pivot. Angles are from the arm's reach direction, positive upward.
 */
export type SwingArm = {
  readonly pivot_m: Vec3;
  /** Unit vector, horizontal in the tank, in which the arm reaches. */
  readonly reach: Vec3;
  readonly armLength_m: number;
  readonly floatRadius_m: number;
  /** The sender's own stops, low < high [rad]. */
  readonly lowStop_rad: number;
  readonly highStop_rad: number;
  readonly emptyResistance_ohm: number;
  readonly fullResistance_ohm: number;
};

const TANK_UP: Vec3 = [0, 0, 1];

/** Centre of the float at an arm angle, tank frame [m]. */
export const floatCentre_m = (sender: SwingArm, angle_rad: number): Vec3 =>
  add(sender.pivot_m, scale(add(scale(sender.reach, Math.cos(angle_rad)), scale(TANK_UP, Math.sin(angle_rad))), sender.armLength_m));

export type FreeSwing = {
  readonly low_rad: number;
  readonly high_rad: number;
  /** What stops the arm before its own stop does. */
  readonly lowBlocked: boolean;
  readonly highBlocked: boolean;
};

/** Swing is searched in steps, then halved down to a twentieth of a degree. */
const SEARCH_STEPS = 72;
const ANGLE_TOLERANCE_RAD = (0.05 * Math.PI) / 180;

/**
 * How far the float swings before it meets a wall, floor or lid.
 *
 * @returns undefined when the float is free nowhere between its stops
 */
export function freeSwing(mesh: ClosedMesh, sender: SwingArm): FreeSwing | undefined {
  const { lowStop_rad: low, highStop_rad: high, floatRadius_m } = sender;
  const free = (angle: number): boolean => depthInside(mesh, floatCentre_m(sender, angle)) >= floatRadius_m;
  const angles = Array.from({ length: SEARCH_STEPS + 1 }, (_, i) => low + ((high - low) * i) / SEARCH_STEPS);
  const run = longestRun(angles.map(free));
  if (!run) return undefined;
  const [first, last] = run;
  return {
    low_rad: first === 0 ? low : edge(angles[first]!, angles[first - 1]!, free),
    high_rad: last === SEARCH_STEPS ? high : edge(angles[last]!, angles[last + 1]!, free),
    lowBlocked: first > 0,
    highBlocked: last < SEARCH_STEPS,
  };
}

function longestRun(flags: readonly boolean[]): [number, number] | undefined {
  let best: [number, number] | undefined;
  let begin = -1;
  flags.forEach((flag, index) => {
    if (flag && begin < 0) begin = index;
    if (flag && (!best || index - begin > best[1] - best[0])) best = [begin, index];
    if (!flag) begin = -1;
  });
  return best;
}

/** Angle nearest to `taken` that is still free, between a free and a taken one. */
function edge(freeAngle: number, taken: number, free: (angle: number) => boolean): number {
  let [inside, outside] = [freeAngle, taken];
  while (Math.abs(outside - inside) > ANGLE_TOLERANCE_RAD) {
    const middle = (inside + outside) / 2;
    if (free(middle)) inside = middle;
    else outside = middle;
  }
  return inside;
}

/**
 * Arm angle at which the float rides the surface, held within its free swing.
 *
 * The float's centre is taken to ride in the surface. With the surface
 * up . p = offset, up . pivot + L (cos a (up . reach) + sin a (up . z)) =
 * offset, whose left side is one cosine.
 *
 * @param up       unit vector against effective gravity, tank frame
 * @param offset_m height of the surface along `up`
 */
export function armAngle_rad(sender: SwingArm, swing: FreeSwing, up: Vec3, offset_m: number): number {
  const alongReach = dot(up, sender.reach);
  const alongUp = dot(up, TANK_UP);
  const amplitude = Math.hypot(alongReach, alongUp) * sender.armLength_m;
  const wanted = (offset_m - dot(up, sender.pivot_m)) / amplitude;
  const tilt = Math.atan2(alongReach, alongUp);
  const angle = Math.asin(Math.min(1, Math.max(-1, wanted))) - tilt;
  return Math.min(swing.high_rad, Math.max(swing.low_rad, angle));
}

/** Resistance at an arm angle [ohm]: linear in angle between the sender's own stops. */
export function resistanceAt_ohm(sender: SwingArm, angle_rad: number): number {
  const share = (angle_rad - sender.lowStop_rad) / (sender.highStop_rad - sender.lowStop_rad);
  return sender.emptyResistance_ohm + share * (sender.fullResistance_ohm - sender.emptyResistance_ohm);
}
