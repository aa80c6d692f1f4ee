import { mark } from '../contentHash';
import { circuitsIn, feedPath, type Circuits } from '../document/circuits';
import type { FlowInputs, TankLevel } from '../document/compileNetwork';
import { batchOf, compileTank, gravityOf, type TankModel } from '../document/compileTank';
import type { ConsumerDocument } from '../document/schema';
import { ambientPressure_Pa, fluidState, type FluidState } from '../fluids';
import { toTankFrame, type EffectiveGravity } from '../geometry';
import { memoized } from '../memo';
import { failure, success, type Outcome } from '../outcome';
import { levelOf } from './tankResult';

export type EvaluationCode = 'weightless' | 'temperature-range' | 'altitude-range' | 'no-tank' | 'bad-shape';

/**
 * A system made ready to be reckoned with at its conditions: the tanks in the document's order, each with its level and
 * its fluid.
 */
export type Prepared = {
  readonly gravity: EffectiveGravity;
  readonly ambientAbs_Pa: number;
  readonly levels: readonly TankLevel[];
  readonly fluids: readonly FluidState[];
  /** What the flow solver takes, with the fluid of the tank that a consumer draws from. */
  readonly inputsFor: (consumer: ConsumerDocument | undefined) => FlowInputs;
};

/** Fails where the conditions or a tank make no sense, or where there is no tank. */
export const prepare = (system: Circuits): Outcome<Prepared, EvaluationCode> => prepared(circuitsIn(system));

const prepared = memoized('levels and fluids', (system: Circuits): Outcome<Prepared, EvaluationCode> => {
  const gravity = gravityOf(system);
  if (!gravity.ok) return gravity;
  const ambient = ambientPressure_Pa(system.conditions.altitude_m);
  if (!ambient.ok) return ambient;
  const models = modelsOf(system);
  if (!models.ok) return models;
  if (models.value.length === 0) return failure('no-tank', 'tanks', 'The system has no tank yet.');
  const fluids: FluidState[] = [];
  for (const model of models.value) {
    const state = fluidState(model.batch, system.conditions.fuelTemperature_K);
    if (!state.ok) return state;
    fluids.push(state.value);
  }
  const levels = models.value.map((tank): TankLevel => levelOf(tank, toTankFrame(gravity.value.up, tank.mounting)));
  const inputs = fluids.map((fluid): FlowInputs => ({
    system,
    levels,
    fluid,
    gravity: gravity.value,
    ambientAbs_Pa: ambient.value,
  }));
  // Asked again and again, and told apart by themselves.
  inputs.forEach(mark);
  return success({
    gravity: gravity.value,
    ambientAbs_Pa: ambient.value,
    levels,
    fluids,
    inputsFor: (consumer) => inputs[sourceTank(system, consumer)]!,
  });
});

/** What is in a tank, at the temperature that is set; straight from the document, without reckoning the rest. */
export function tankFluid(
  { tanks, fluids, conditions }: Circuits,
  t: number,
): Outcome<FluidState, 'no-tank' | 'temperature-range'> {
  const fluid = fluids.find(({ id }) => id === tanks[t]?.fluid);
  return fluid
    ? fluidState(batchOf(fluid), conditions.fuelTemperature_K)
    : failure('no-tank', `tanks[${t}]`, 'There is no such tank.');
}

/** Which tank a consumer's feed begins in; the first where it begins in none. */
function sourceTank(system: Circuits, consumer: ConsumerDocument | undefined): number {
  const source = consumer ? feedPath(system, consumer.id).at(-1) : undefined;
  return Math.max(
    0,
    system.tanks.findIndex((tank) => tank.pickups.some((pickup) => pickup.id === source)),
  );
}

function modelsOf(system: Circuits): Outcome<readonly TankModel[], 'bad-shape'> {
  const models: TankModel[] = [];
  for (const tank of system.tanks) {
    const model = compileTank(system, tank);
    if (!model.ok) return model;
    models.push(model.value);
  }
  return success(models);
}

/**
 * What the flow solver takes, for the tank that a consumer draws from; undefined where the conditions or a tank make no
 * sense.
 */
export function flowInputsOf(system: Circuits, consumer: ConsumerDocument | undefined): FlowInputs | undefined {
  const prepared = prepare(system);
  return prepared.ok ? prepared.value.inputsFor(consumer) : undefined;
}
