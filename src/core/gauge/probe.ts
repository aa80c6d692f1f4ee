import { add, depthInside, dot, roomDepth, scale, type ClosedMesh, type Vec3 } from '../geometry';
import type { FreeRun, Hindrance, SenderLaw } from './senderLaw';
import { WALL } from './swingArm';

/** A straight sender that hangs down from its port: a float on a tube, or a capacitive probe without one. */
export type Probe = {
  readonly kind: 'tube' | 'capacitive';
  /** Where it leaves the sheet, and the unit vector down along it, tank frame. */
  readonly top_m: Vec3;
  readonly down: Vec3;
  readonly length_m: number;
  /** Dead at its foot and under the sheet. */
  readonly lowDead_m: number;
  readonly highDead_m: number;
  readonly tubeRadius_m: number;
  /** Of the float, if there is one; 0 otherwise. */
  readonly floatRadius_m: number;
  readonly floatRise_m: number;
  /** Between the contacts of a tube; 0 where it is continuous. */
  readonly step_m: number;
};

const SEARCH_STEPS = 60;

/** Length of a probe that measures [m]. */
export const span_m = ({ length_m, lowDead_m, highDead_m }: Probe): number => length_m - lowDead_m - highDead_m;
/** A point of the probe at a share of its measuring span, from its foot. */
export const probePoint = (probe: Probe, share: number): Vec3 =>
  add(probe.top_m, scale(probe.down, probe.length_m - probe.lowDead_m - share * span_m(probe)));

/**
 * How much of a probe's span is in the tank with room about it for the float.
 *
 * @returns undefined where the probe itself does not go into the tank, or has no span
 */
export function freeTravel(
  room: ClosedMesh,
  probe: Probe,
  round: readonly Hindrance[] = [],
  keep_m = 0,
): FreeRun | undefined {
  if (!(span_m(probe) > 0) || roomDepth(room)(add(probe.top_m, scale(probe.down, probe.length_m))) < 0)
    return undefined;
  const clear = Math.max(probe.floatRadius_m, probe.tubeRadius_m);
  const meets = (share: number): string | undefined => {
    const point = probePoint(probe, share);
    // The end of the span may lie as near to floor or lid as the probe itself does.
    if (!standsClear(room, probe, point, clear + keep_m)) return WALL;
    return round.find(({ mesh }) => depthInside(mesh, point) > -(clear + keep_m))?.name;
  };
  const shares = Array.from({ length: SEARCH_STEPS + 1 }, (_, i) => i / SEARCH_STEPS);
  const found = shares.map(meets);
  const first = found.findIndex((by) => by === undefined);
  const last = found.findLastIndex((by) => by === undefined);
  if (first < 0) return undefined;
  const [lowBy, highBy] = [found[first - 1], found[last + 1]];
  return {
    low_share: shares[first]!,
    high_share: shares[last]!,
    ...(lowBy ? { lowBy } : {}),
    ...(highBy ? { highBy } : {}),
  };
}

/** Whether nothing stands beside the probe: floor and lid, which it runs into end on, do not count. */
function standsClear(room: ClosedMesh, probe: Probe, point: Vec3, clear_m: number): boolean {
  const depthOf = roomDepth(room);
  const depth = depthOf(point);
  if (depth < 0 || depth >= clear_m) return depth >= 0;
  const [side, other] = sidesOf(probe.down);
  return [side, scale(side, -1), other, scale(other, -1)].every((way) => depthOf(add(point, scale(way, clear_m))) >= 0);
}

function sidesOf([x, y, z]: Vec3): readonly [Vec3, Vec3] {
  const side: Vec3 = Math.abs(x) < 0.9 ? [1, 0, 0] : [0, 1, 0];
  const across: Vec3 = [y * side[2] - z * side[1], z * side[0] - x * side[2], x * side[1] - y * side[0]];
  const length = Math.hypot(...across);
  const one: Vec3 = [across[0] / length, across[1] / length, across[2] / length];
  return [one, [y * one[2] - z * one[1], z * one[0] - x * one[2], x * one[1] - y * one[0]]];
}

/**
 * Share of its span that a probe reads at a surface, within what is free. Reeds
 * close one at a time: it reads the last contact that the float has passed.
 */
export function probeShare(probe: Probe, free: FreeRun, up: Vec3, offset_m: number): number {
  const steep = -dot(up, probe.down);
  const lowest = dot(up, probePoint(probe, 0));
  // A probe that lies along the surface is wet all over or not at all.
  const share =
    Math.abs(steep) < FLAT
      ? offset_m >= lowest
        ? 1
        : 0
      : (offset_m + probe.floatRise_m - lowest) / (steep * span_m(probe));
  const held = Math.min(free.high_share, Math.max(free.low_share, share));
  if (probe.step_m <= 0) return held;
  const steps = Math.max(1, Math.round(span_m(probe) / probe.step_m));
  return Math.floor(held * steps + STEP_ROUNDING) / steps;
}
const FLAT = 1e-6;
const STEP_ROUNDING = 1e-9;

/** So far under the sheet is within the tank [m]. */
const JUST_UNDER_M = 1e-4;

export const PROBE_LAW: SenderLaw<Probe> = {
  inside_m: ({ top_m, down }) => add(top_m, scale(down, JUST_UNDER_M)),
  head_m: ({ top_m }) => top_m,
  foot_m: ({ top_m, down, length_m }) => add(top_m, scale(down, length_m)),
  stemRadius_m: ({ tubeRadius_m }) => tubeRadius_m,
  contradiction: (probe) =>
    span_m(probe) > 0
      ? undefined
      : {
          code: 'no-span',
          detail: 'The probe is dead over all its length: it must be longer than its dead ends together.',
        },
  stuck: {
    code: 'no-span',
    detail: 'The probe does not go into the tank, or is dead over all its length; shorten it or move it.',
  },
  freeRun: (probe, room, round, keep_m) => freeTravel(room, probe, round, keep_m),
  shareAt: probeShare,
  contact_share: (probe) => (probe.step_m > 0 ? probe.step_m / span_m(probe) : 0),
  middle_m: probePoint,
  line_m: (probe) => [probe.top_m, probePoint(probe, 0)],
  drawnRadius_m: ({ kind, tubeRadius_m, floatRadius_m }) => (kind === 'capacitive' ? tubeRadius_m : floatRadius_m),
  balls: (probe, share) => [
    { at_m: probePoint(probe, share), radius_m: Math.max(probe.floatRadius_m, probe.tubeRadius_m) },
  ],
};
