import { compile, type Model, type ModelCode } from '../model';
import { success, type Outcome } from '../outcome';
import type { PlanAt } from '../plan/schema';
import { stateOf, type State, type StateCode } from '../state';

export type EvaluationCode = ModelCode | StateCode | 'temperature-range';

/** A plan's model, and a state that it is in. */
export type At = { readonly model: Model; readonly state: State };

/** The model of a document's plan, in the state that its conditions describe. */
export function documentAt(system: PlanAt): Outcome<At, EvaluationCode> {
  const model = compile(system);
  if (!model.ok) return model;
  const state = stateOf(model.value, system.conditions);
  return state.ok ? success({ model: model.value, state: state.value }) : state;
}
