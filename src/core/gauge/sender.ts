import type { ClosedMesh, Vec3 } from '../geometry';
import type { Scale } from './needle';
import { freeTravel, probeShare, type Probe } from './probe';
import { armAngle_rad, armShare, freeSwing, type Hindrance, type SwingArm } from './swingArm';

/** What follows the level in a tank. A share is how far along its own travel it stands, 0 at its low end. */
export type Sender = SwingArm | Probe;

/** The part of its travel that nothing stands in the way of, and what ends it before its own stops do. */
export type FreeRun = {
  readonly low_share: number;
  readonly high_share: number;
  readonly lowBy?: string;
  readonly highBy?: string;
};

export type SenderCode = 'stops-crossed' | 'no-swing' | 'no-span';

export const armAngleAt = (arm: SwingArm, share: number): number =>
  arm.lowStop_rad + share * (arm.highStop_rad - arm.lowStop_rad);

/** Runs found last, by room: most edits leave sender and room as they are. */
const found = new WeakMap<ClosedMesh, Map<string, FreeRun | undefined>>();
const KEPT = 64;

/** @returns undefined where it is free nowhere */
export function freeRun(
  sender: Sender,
  room: ClosedMesh,
  round: readonly Hindrance[] = [],
  keep_m = 0,
): FreeRun | undefined {
  const key = JSON.stringify([sender, keep_m, round.map(({ name, mesh }) => [name, [...mesh.positions]])]);
  const known = found.get(room) ?? new Map<string, FreeRun | undefined>();
  found.set(room, known);
  if (!known.has(key)) {
    if (known.size >= KEPT) known.delete(known.keys().next().value!);
    known.set(key, searchedRun(sender, room, round, keep_m));
  }
  return known.get(key);
}

function searchedRun(
  sender: Sender,
  room: ClosedMesh,
  round: readonly Hindrance[],
  keep_m: number,
): FreeRun | undefined {
  if (sender.kind !== 'swing-arm') return freeTravel(room, sender, round, keep_m);
  const swing = freeSwing(room, sender, round, keep_m);
  if (!swing) return undefined;
  const { low_rad, high_rad, ...by } = swing;
  return { low_share: armShare(sender, low_rad), high_share: armShare(sender, high_rad), ...by };
}

/**
 * Where a sender stands at a surface.
 *
 * @param up       unit vector against effective gravity, tank frame
 * @param offset_m height of the surface along `up`
 */
export function shareAt(sender: Sender, free: FreeRun, up: Vec3, offset_m: number): number {
  if (sender.kind !== 'swing-arm') return probeShare(sender, free, up, offset_m);
  const swing = { low_rad: armAngleAt(sender, free.low_share), high_rad: armAngleAt(sender, free.high_share) };
  return armShare(sender, armAngle_rad(sender, swing, up, offset_m));
}

/** What it gives [ohm or V]: linear between its own stops. */
export const readingOf = (output: Scale, share: number): number => output.empty + share * (output.full - output.empty);
