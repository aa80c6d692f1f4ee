import { mark } from '../../contentHash';
import { feedPath, type Circuits } from '../../plan/circuits';
import type { FlowInputs, TankLevel } from '../../model/networkParts';
import { batchOf } from '../../model/compileTank';
import type { Model } from '../../model';
import type { ConsumerDocument, PlanAt } from '../../plan/schema';
import { fluidState, type FluidState } from '../../fluids';
import { toTankFrame } from '../../geometry';
import { memoized } from '../../memo';
import { failure, success, type Outcome } from '../../outcome';
import { withPositions, type State } from '../../state';
import { documentAt, type At } from '../at';
import { levelOf } from '../tank/tankResult';

/**
 * A model made ready to be reckoned with in a state: the tanks in the plan's order, each with its level and its fluid.
 */
export type Prepared = {
  readonly levels: readonly TankLevel[];
  readonly fluids: readonly FluidState[];
  /** What the flow solver takes, with the fluid of the tank that a consumer draws from. */
  readonly inputsFor: (consumer: ConsumerDocument | undefined) => FlowInputs;
};

/** Fails where fuel has no properties at the state's temperature. */
export const prepare = ({ model, state }: At): Outcome<Prepared, 'temperature-range'> => prepared(model, state);

const prepared = memoized(
  'levels and fluids',
  ({ tanks, circuits }: Model, state: State): Outcome<Prepared, 'temperature-range'> => {
    const fluids: FluidState[] = [];
    for (const { batch } of tanks) {
      const fluid = fluidState(batch, state.fuelTemperature_K);
      if (!fluid.ok) return fluid;
      fluids.push(fluid.value);
    }
    const levels = tanks.map((tank): TankLevel =>
      levelOf(tank, toTankFrame(state.gravity.up, tank.mounting), state.liquid_m3[tank.document.id]!),
    );
    const { gravity, ambientAbs_Pa, fuelTemperature_K, duty_ratio, supply_V } = state;
    const system = withPositions(circuits, state.positions);
    const inputs = fluids.map((fluid): FlowInputs => ({
      system,
      state: { gravity, ambientAbs_Pa, fuelTemperature_K, duty_ratio, supply_V },
      levels,
      fluid,
    }));
    // Asked again and again, and told apart by themselves.
    inputs.forEach(mark);
    return success({ levels, fluids, inputsFor: (consumer) => inputs[sourceTank(system, consumer)]! });
  },
);

/** What is in a tank, at the temperature that is set; straight from the document, without reckoning the rest. */
export function tankFluid(
  { tanks, fluids, conditions }: Pick<PlanAt, 'tanks' | 'fluids' | 'conditions'>,
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

/**
 * What the flow solver takes, for the tank that a consumer draws from; undefined where the conditions or a tank make no
 * sense.
 */
export function flowInputsOf(system: PlanAt, consumer: ConsumerDocument | undefined): FlowInputs | undefined {
  const at = documentAt(system);
  const made = at.ok ? prepare(at.value) : at;
  return made.ok ? made.value.inputsFor(consumer) : undefined;
}
