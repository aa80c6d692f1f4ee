import type { TankDrawing } from '../answers';
import type { Drawing } from '../drawings';
import type { Room } from './room';
import { viewMarks } from './section';

/** Left round the largest of them, as a share: stubs of ports stand out. */
const MARGIN = 0.1;

/**
 * A tank from its side with its liquid, one of several to one scale.
 *
 * @param all the tanks that it stands beside, itself among them: the largest of them fits
 */
export function silhouetteDrawing(title: string, tank: TankDrawing, all: readonly TankDrawing[], room: Room): Drawing {
  const reach_m = (axis: 0 | 2): number => Math.max(...all.map(({ bounds }) => bounds.max[axis] - bounds.min[axis]));
  const mmPerM = Math.min(room.width_mm / reach_m(0), room.height_mm / reach_m(2)) / (1 + 2 * MARGIN);
  const frame = {
    across: 0,
    upward: 2,
    mirror: 1,
    turn_deg: 0,
    centre: [room.width_mm / 2, room.height_mm / 2],
  } as const;
  return { title, ...room, marks: viewMarks(tank, 'side', frame, mmPerM, { grips: [] }).marks };
}
