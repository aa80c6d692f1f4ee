import { tankModel, type ModelCode } from '../../model';
import type { TankLevel } from '../../model/networkParts';
import { toTankFrame } from '../../geometry';
import { success, type Outcome } from '../../outcome';
import type { PlanAt } from '../../plan/schema';
import { stateOf, type StateCode } from '../../state';
import { levelOf } from './tankResult';

/** As much of a document as one tank with what is in it depends on. */
export type Stood = Pick<PlanAt, 'tanks' | 'fluids' | 'conditions'>;

/** One tank, by its number from 0, with its liquid as the conditions have it. */
export function tankLevel({ conditions, ...plan }: Stood, t: number): Outcome<TankLevel, ModelCode | StateCode> {
  const tank = tankModel(plan, t);
  if (!tank.ok) return tank;
  const state = stateOf({ tanks: [tank.value] }, conditions);
  if (!state.ok) return state;
  const { gravity, liquid_m3 } = state.value;
  return success(levelOf(tank.value, toTankFrame(gravity.up, tank.value.mounting), liquid_m3[tank.value.document.id]!));
}
