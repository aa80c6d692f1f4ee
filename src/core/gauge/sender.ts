import { memoized } from '../memo';
import type { ClosedMesh, Vec3 } from '../geometry';
import type { Scale } from './needle';
import { PROBE_LAW, type Probe } from './probe';
import { ARM_LAW, type SwingArm } from './swingArm';
import type { FreeRun, Hindrance, SenderLaw } from './senderLaw';

/** What follows the level in a tank. A share is how far along its own travel it stands, 0 at its low end. */
export type Sender = SwingArm | Probe;

const LAWS = { 'swing-arm': ARM_LAW, tube: PROBE_LAW, capacitive: PROBE_LAW } as const;

/** How a sender works, whatever its kind. */
export const lawOf = ({ kind }: Sender): SenderLaw<Sender> => LAWS[kind] as unknown as SenderLaw<Sender>;

const runOf = memoized(
  'free run',
  (sender: Sender, room: ClosedMesh, round: readonly Hindrance[], keep_m: number) => ({
    run: lawOf(sender).freeRun(sender, room, round, keep_m),
  }),
  256,
);

/** @returns undefined where it is free nowhere */
export const freeRun = (
  sender: Sender,
  room: ClosedMesh,
  round: readonly Hindrance[] = [],
  keep_m = 0,
): FreeRun | undefined => runOf(sender, room, round, keep_m).run;

/**
 * Where a sender stands at a surface.
 *
 * @param up       unit vector against effective gravity, tank frame
 * @param offset_m height of the surface along `up`
 */
export const shareAt = (sender: Sender, free: FreeRun, up: Vec3, offset_m: number): number =>
  lawOf(sender).shareAt(sender, free, up, offset_m);

/** What it gives [ohm or V]: linear between its own stops. */
export const readingOf = (output: Scale, share: number): number => output.empty + share * (output.full - output.empty);
