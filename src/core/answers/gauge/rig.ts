import { rangeOf, surroundOf } from '../../model/compileSender';
import { compileTank, standingUp } from '../../model/compileTank';
import type { Plan } from '../../plan/schema';
import { freeRun, readingOf, shareAt, surfaceTable } from '../../gauge';
import { failure, success, type Outcome } from '../../outcome';
import { HEIGHTS } from './calibration';

/** What a simulated rig needs of a planned tank and sender. */
export type RigPlan = {
  readonly tank: string;
  readonly sender: string;
  readonly signal: 'resistance' | 'voltage';
  readonly readingAt: (volume_m3: number, lowered_m: number) => number;
  readonly brim_m3: number;
  readonly span: number;
};

/**
 * A sender as a rig sees it: resistance or voltage by volume [Ω or V, m³]; fails where there is no such sender, or it
 * reads nowhere.
 */
export function rigPlan(system: Plan, senderId: string): Outcome<RigPlan, 'no-sender' | 'bad-shape' | 'no-reading'> {
  const document = system.tanks.find(({ senders }) => senders.some(({ id }) => id === senderId));
  if (!document) return failure('no-sender', 'sender', `The system has no sender "${senderId}".`);
  const tank = compileTank(system, document);
  if (!tank.ok) return tank;
  const model = tank.value.senders.find((one) => one.document.id === senderId);
  const surround = model && surroundOf(tank.value, model);
  const free = model && freeRun(model.sender, surround!.room, surround!.round);
  if (!model || !free)
    return failure(
      'no-reading',
      senderId,
      'The sender cannot move in the tank as planned, so that a rig of it would read nothing.',
    );
  const up = standingUp(tank.value, 0, 0);
  const surface = surfaceTable(tank.value.mesh, up, HEIGHTS);
  const output = rangeOf(model.document.output);
  return success({
    tank: document.name,
    sender: model.document.name,
    signal: model.document.output.kind,
    brim_m3: tank.value.gross_m3,
    span: Math.abs(output.full - output.empty),
    readingAt: (volume_m3, lowered_m) =>
      readingOf(output, shareAt(model.sender, free, up, surface(volume_m3) + lowered_m * up[2])),
  });
}
