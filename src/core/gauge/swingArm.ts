import { add, depthInside, dot, roomDepth, scale, type ClosedMesh, type Vec3 } from '../geometry';
import type { Hindrance, SenderLaw } from './senderLaw';

/**
 * A swing-arm sender: a float on an arm that turns in one upright plane about
 * a pivot. Angles are those of the line from pivot to float, from the arm's
 * reach direction, positive upward.
 */
export type SwingArm = {
  readonly kind: 'swing-arm';
  readonly pivot_m: Vec3;
  /** Unit vector, horizontal in the tank, in which the arm reaches. */
  readonly reach: Vec3;
  /** Straight from the pivot to the middle of the float. */
  readonly armLength_m: number;
  readonly floatRadius_m: number;
  /** The float's middle over the surface. */
  readonly floatRise_m: number;
  /** The sender's own stops, low < high [rad]. */
  readonly lowStop_rad: number;
  readonly highStop_rad: number;
  readonly wireRadius_m: number;
  /** Where a bent arm bends: so far from the pivot, its first leg turned so far from the line to the float. */
  readonly elbow?: { readonly at_m: number; readonly from_rad: number };
};

const TANK_UP: Vec3 = [0, 0, 1];

/** The line from the pivot at an angle, tank frame. */
const along = (arm: SwingArm, angle_rad: number): Vec3 =>
  add(scale(arm.reach, Math.cos(angle_rad)), scale(TANK_UP, Math.sin(angle_rad)));

/** Centre of the float at an arm angle, tank frame [m]. */
export const floatCentre_m = (arm: SwingArm, angle_rad: number): Vec3 =>
  add(arm.pivot_m, scale(along(arm, angle_rad), arm.armLength_m));

/**
 * A wire bent at `bendAt_m` from the pivot, turned upward by `bend_rad`: the
 * straight length from pivot to float, and how far the float leads the first leg.
 *
 * @param wire_m along the wire, longer than `bendAt_m`
 * @source law of cosines
 */
export function bentArm(
  wire_m: number,
  bendAt_m: number,
  bend_rad: number,
): { readonly length_m: number; readonly lead_rad: number } {
  const second = wire_m - bendAt_m;
  const [x, y] = [bendAt_m + second * Math.cos(bend_rad), second * Math.sin(bend_rad)];
  return { length_m: Math.hypot(x, y), lead_rad: Math.atan2(y, x) };
}

/** The elbow of a bent arm, or nothing. */
const elbow_m = (arm: SwingArm, angle_rad: number): Vec3 | undefined =>
  arm.elbow && add(arm.pivot_m, scale(along(arm, angle_rad + arm.elbow.from_rad), arm.elbow.at_m));

/** Pivot, elbow and float, as drawn [m]. */
export const wireAt = (arm: SwingArm, angle_rad: number): readonly Vec3[] => [
  arm.pivot_m,
  ...[elbow_m(arm, angle_rad) ?? []].filter((point): point is Vec3 => point.length === 3),
  floatCentre_m(arm, angle_rad),
];

export type FreeSwing = {
  readonly low_rad: number;
  readonly high_rad: number;
  /** What stops the arm before its own stop does; undefined where nothing does. */
  readonly lowBy?: string;
  readonly highBy?: string;
};

/** Swing is searched in steps, then halved down to a twentieth of a degree. */
const SEARCH_STEPS = 72;
const ANGLE_TOLERANCE_RAD = (0.05 * Math.PI) / 180;
/** Points of the wire that are looked at, from the pivot on; the pivot itself sits in its bracket. */
const WIRE_POINTS = 6;
export const WALL = 'the wall';

/**
 * How far float and wire swing before they meet a wall, floor, lid or baffle,
 * or anything else that stands in the tank.
 *
 * @param room   where it swings: the compartment that holds it
 * @param round  bodies inside that room
 * @param keep_m kept free all round
 * @returns undefined when it is free nowhere between its stops
 */
export function freeSwing(
  room: ClosedMesh,
  arm: SwingArm,
  round: readonly Hindrance[] = [],
  keep_m = 0,
): FreeSwing | undefined {
  const { lowStop_rad: low, highStop_rad: high } = arm;
  const near = round.filter(({ mesh }) => couldMeet(mesh, arm, keep_m));
  const meets = (angle: number): string | undefined => meetsAt(room, arm, angle, near, keep_m);
  const free = (angle: number): boolean => meets(angle) === undefined;
  const angles = Array.from({ length: SEARCH_STEPS + 1 }, (_, i) => low + ((high - low) * i) / SEARCH_STEPS);
  const run = longestRun(angles.map(free));
  if (!run) return undefined;
  const [first, last] = run;
  const lowBy = first === 0 ? undefined : meets(angles[first - 1]!);
  const highBy = last === SEARCH_STEPS ? undefined : meets(angles[last + 1]!);
  return {
    low_rad: first === 0 ? low : edge(angles[first]!, angles[first - 1]!, free),
    high_rad: last === SEARCH_STEPS ? high : edge(angles[last]!, angles[last + 1]!, free),
    ...(lowBy ? { lowBy } : {}),
    ...(highBy ? { highBy } : {}),
  };
}

/** What the arm meets at an angle. */
function meetsAt(
  room: ClosedMesh,
  arm: SwingArm,
  angle_rad: number,
  round: readonly Hindrance[],
  keep_m: number,
): string | undefined {
  const float = floatCentre_m(arm, angle_rad);
  const clear = arm.floatRadius_m + keep_m;
  const depth = roomDepth(room);
  if (depth(float) < clear) return WALL;
  for (const { name, mesh } of round) if (depthInside(mesh, float) > -clear) return name;
  const elbow = elbow_m(arm, angle_rad);
  const points = wirePoints(arm, elbow, float);
  const wire = arm.wireRadius_m + keep_m;
  for (const point of points) if (depth(point) < arm.wireRadius_m) return WALL;
  for (const { name, mesh } of round) for (const point of points) if (depthInside(mesh, point) > -wire) return name;
  return undefined;
}

function wirePoints(arm: SwingArm, elbow: Vec3 | undefined, float: Vec3): Vec3[] {
  const mix = (a: Vec3, b: Vec3, share: number): Vec3 => [
    a[0] + (b[0] - a[0]) * share,
    a[1] + (b[1] - a[1]) * share,
    a[2] + (b[2] - a[2]) * share,
  ];
  const shares = Array.from({ length: WIRE_POINTS }, (_, i) => (i + 1) / (WIRE_POINTS + 1));
  return elbow
    ? [
        ...shares.filter((_, i) => i % 2 === 1).map((share) => mix(arm.pivot_m, elbow, share)),
        elbow,
        ...shares.filter((_, i) => i % 2 === 0).map((share) => mix(elbow, float, share)),
      ]
    : shares.map((share) => mix(arm.pivot_m, float, share));
}

/** Whether a body comes within reach of the arm at all. */
function couldMeet(mesh: ClosedMesh, arm: SwingArm, keep_m: number): boolean {
  return (
    depthInside(mesh, arm.pivot_m) > -(Math.max(arm.armLength_m, arm.elbow?.at_m ?? 0) + arm.floatRadius_m + keep_m)
  );
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
 * With the surface up . p = offset and the float's middle a rise above it,
 * up . pivot + L (cos a (up . reach) + sin a (up . z)) = offset + rise, whose
 * left side is one cosine.
 *
 * @param up       unit vector against effective gravity, tank frame
 * @param offset_m height of the surface along `up`
 */
export function armAngle_rad(
  arm: SwingArm,
  swing: Pick<FreeSwing, 'low_rad' | 'high_rad'>,
  up: Vec3,
  offset_m: number,
): number {
  const alongReach = dot(up, arm.reach);
  const alongUp = dot(up, TANK_UP);
  const amplitude = Math.hypot(alongReach, alongUp) * arm.armLength_m;
  // Gravity square to the plane of swing moves the float nowhere.
  if (amplitude < FLAT_REL * arm.armLength_m) return Math.min(swing.high_rad, Math.max(swing.low_rad, 0));
  const wanted = (offset_m + arm.floatRise_m - dot(up, arm.pivot_m)) / amplitude;
  const tilt = Math.atan2(alongReach, alongUp);
  const angle = Math.asin(Math.min(1, Math.max(-1, wanted))) - tilt;
  return Math.min(swing.high_rad, Math.max(swing.low_rad, angle));
}
const FLAT_REL = 1e-9;

/** How far along between its own stops the arm stands: 0 at the low one, 1 at the high one. */
export const armShare = (arm: SwingArm, angle_rad: number): number =>
  (angle_rad - arm.lowStop_rad) / (arm.highStop_rad - arm.lowStop_rad);

/** Angle of an arm at a share of its swing between the stops, low to high [rad]. */
export const armAngleAt = (arm: SwingArm, share: number): number =>
  arm.lowStop_rad + share * (arm.highStop_rad - arm.lowStop_rad);

const mixed = (a: Vec3, b: Vec3, share: number): Vec3 => [
  a[0] + (b[0] - a[0]) * share,
  a[1] + (b[1] - a[1]) * share,
  a[2] + (b[2] - a[2]) * share,
];
/** Places on each leg of the wire that stand for it. */
const POINTS_ALONG = 12;
const LEAST_ARM = 0.1;

export const ARM_LAW: SenderLaw<SwingArm> = {
  inside_m: ({ pivot_m }) => pivot_m,
  head_m: ({ pivot_m }) => pivot_m,
  foot_m: ({ pivot_m }) => pivot_m,
  // Its bracket is twice as wide as its wire.
  stemRadius_m: ({ wireRadius_m }) => 2 * wireRadius_m,
  contradiction: ({ lowStop_rad, highStop_rad }) =>
    highStop_rad > lowStop_rad
      ? undefined
      : { code: 'stops-crossed', detail: 'The high stop must lie above the low stop.' },
  stuck: {
    code: 'no-swing',
    detail: 'The float or its arm touches something wherever it stands; shorten the arm or move the sender.',
  },
  freeRun: (arm, room, round, keep_m) => {
    const swing = freeSwing(room, arm, round, keep_m);
    if (!swing) return undefined;
    const { low_rad, high_rad, ...by } = swing;
    return { low_share: armShare(arm, low_rad), high_share: armShare(arm, high_rad), ...by };
  },
  shareAt: (arm, free, up, offset_m) => {
    const swing = { low_rad: armAngleAt(arm, free.low_share), high_rad: armAngleAt(arm, free.high_share) };
    return armShare(arm, armAngle_rad(arm, swing, up, offset_m));
  },
  contact_share: () => 0,
  middle_m: (arm, share) => floatCentre_m(arm, armAngleAt(arm, share)),
  line_m: (arm, share) => wireAt(arm, armAngleAt(arm, share)),
  drawnRadius_m: ({ floatRadius_m }) => floatRadius_m,
  balls: (arm, share) => {
    const wire = wireAt(arm, armAngleAt(arm, share));
    return [
      { at_m: wire.at(-1)!, radius_m: arm.floatRadius_m },
      ...wire
        .slice(1)
        .flatMap((to, k) =>
          Array.from({ length: POINTS_ALONG + 1 }, (_, n) => ({
            at_m: mixed(wire[k]!, to, n / POINTS_ALONG),
            radius_m: arm.wireRadius_m,
          })),
        ),
    ];
  },
  arm: {
    length_m: ({ armLength_m }) => armLength_m,
    angle_rad: armAngleAt,
    // Its wire is longer throughout, bent where it was.
    longer: (arm, by_ratio) => {
      const longer = Math.max(LEAST_ARM, 1 + by_ratio);
      return {
        ...arm,
        armLength_m: arm.armLength_m * longer,
        ...(arm.elbow ? { elbow: { ...arm.elbow, at_m: arm.elbow.at_m * longer } } : {}),
      };
    },
  },
};
