import { readingAt, type GaugeCode } from '../../gauge';
import { effectiveGravity, toTankFrame, volumeBelow } from '../../geometry';
import { tankModel, type ModelCode } from '../../model';
import { surroundOf } from '../../model/compileSender';
import { standingUp } from '../../model/compileTank';
import { roomOf } from '../../model/necks';
import { failure, success, type Outcome } from '../../outcome';
import { stateOf, type StateCode } from '../../state';
import { keptLevelCurve } from '../../tank';
import { radians } from '../../units';
import { GAUGE_STEPS } from '../gauge/gauge';
import { curveOf } from '../remembered';
import { tankDrawing, type TankDrawing } from '../tank/drawing';
import { solidOf, type TankSolid } from '../tank/solid';
import type { Stood } from '../tank/standing';
import { levelOf } from '../tank/tankResult';
import type { Sample } from './played';

/** How tanks stand and what is in them at one moment of a course: as much of a sample as they are drawn from. */
export type Instant = Pick<Sample, 'pitch_deg' | 'roll_deg'> & { readonly volumes_m3: readonly number[] };

/** A tank at a moment of a course. */
export type TankAtMoment = {
  readonly drawing: TankDrawing;
  /** What each of its gauges shows then, as a share of full. */
  readonly needles: readonly {
    readonly id: string;
    readonly name: string;
    readonly needle: Outcome<number, GaugeCode>;
  }[];
  /** Of the one that is looked at from all sides. */ readonly solid?: TankSolid;
};
export type Moment = { readonly tanks: readonly TankAtMoment[] };
export type MomentCode = ModelCode | StateCode | 'not-a-moment';

/** A course may have so much more in a brimful tank than its space by rounding, as a share. */
const ROUNDED = 1e-6;

/**
 * Every tank of a system as it is drawn at a moment of a course.
 *
 * @param solid which tank is wanted in three dimensions, by its number from 0; none where there is no such tank
 */
export function momentOf(
  { conditions, ...plan }: Stood,
  { pitch_deg, roll_deg, volumes_m3 }: Instant,
  solid: number,
): Outcome<Moment, MomentCode> {
  if (volumes_m3.length !== plan.tanks.length)
    return failure(
      'not-a-moment',
      'volumes_m3',
      `must have one volume for each of ${plan.tanks.length} tanks; there are ${volumes_m3.length}.`,
    );
  const tanks: TankAtMoment[] = [];
  for (const [t, volume_m3] of volumes_m3.entries()) {
    const tank = tankModel(plan, t);
    if (!tank.ok) return tank;
    const stood = stateOf({ tanks: [tank.value] }, conditions);
    if (!stood.ok) return stood;
    const gravity = effectiveGravity({
      pitch_rad: radians(pitch_deg),
      roll_rad: radians(roll_deg),
      acceleration_mPerS2: stood.value.attitude.acceleration_mPerS2,
    });
    if (!gravity.ok) return gravity;
    const { document, mesh, mounting, gross_m3, senders } = tank.value;
    const room = roomOf(tank.value);
    if (!(volume_m3 >= 0 && volume_m3 <= (1 + ROUNDED) * room.gross_m3))
      return failure('not-a-moment', `volumes_m3[${t}]`, `must be from 0 to ${room.gross_m3}; it is ${volume_m3}.`);
    const up = toTankFrame(gravity.value.up, mounting);
    // Some of it may stand in necks, up to where it stands in the tank.
    const offset_m = keptLevelCurve(room.mesh, up).surface_m(Math.min(volume_m3, room.gross_m3));
    const below_m3 = volumeBelow(mesh, { normal: up, offset_m });
    const isInNecks = volume_m3 - below_m3 > ROUNDED * gross_m3;
    const level = levelOf(tank.value, up, Math.min(isInNecks ? below_m3 : volume_m3, gross_m3));
    const holds_m3 = gross_m3 * document.fillLimit_ratio.value;
    tanks.push({
      drawing: tankDrawing(level),
      needles: senders.map((sender) => {
        const { id, name } = sender.document;
        const { instrument } = sender;
        if (!instrument.ok) return { id, name, needle: instrument };
        const upright = standingUp(tank.value, 0, 0);
        const surround = surroundOf(tank.value, sender);
        const curve = curveOf(mesh, instrument.value, holds_m3, upright, GAUGE_STEPS, surround);
        if (!curve.ok) return { id, name, needle: curve };
        const { gauge, free } = curve.value;
        const { needle_ratio } = readingAt(instrument.value, gauge, free, level.up, level.offset_m);
        return { id, name, needle: success(needle_ratio) };
      }),
      ...(t === solid ? { solid: solidOf(level) } : {}),
    });
  }
  return success({ tanks });
}
