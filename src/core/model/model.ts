import { memoized } from '../memo';
import { failure, success, type Outcome } from '../outcome';
import { circuitsIn, type Circuits } from '../plan/circuits';
import type { Plan, TankDocument } from '../plan/schema';
import { compileTank, type TankModel } from './compileTank';

/** What a plan comes to. Nothing in it changes in use: that is the state. */
export type Model = {
  /** In the order of the plan's tanks. */
  readonly tanks: readonly TankModel[];
  /** Parts and lines as a graph, valves as they are drawn. */
  readonly circuits: Circuits;
};

export type ModelCode = 'no-tank' | 'bad-shape';

/**
 * Bodies, openings, compartments, pickups, senders and circuits of a plan. The scene
 * round the tanks takes longer and is made by whoever asks for it (`sceneOf`).
 * Fails where there is no tank, or where one's shape encloses nothing.
 */
export function compile(plan: Plan): Outcome<Model, ModelCode> {
  if (plan.tanks.length === 0) return failure('no-tank', 'tanks', 'The system has no tank yet.');
  const tanks: TankModel[] = [];
  for (const tank of plan.tanks) {
    const model = compileTank(plan, tank);
    if (!model.ok) return model;
    tanks.push(model.value);
  }
  return success(modelOf(tanks, circuitsIn(plan)));
}

const modelOf = memoized('model', (tanks: readonly TankModel[], circuits: Circuits): Model => ({ tanks, circuits }));

/** One tank of a plan, by its number from 0. */
export function tankModel(plan: Pick<Plan, 'tanks' | 'fluids'>, t: number): Outcome<TankModel, ModelCode> {
  const tank: TankDocument | undefined = plan.tanks[t];
  return tank ? compileTank(plan, tank) : failure('no-tank', 'tanks', 'There is no such tank.');
}
