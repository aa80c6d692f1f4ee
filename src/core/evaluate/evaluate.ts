import { circuitsIn, feedPath } from '../document/circuits';
import type { FlowInputs } from '../document/compileNetwork';
import type { ConsumerDocument, SystemDocument } from '../document/schema';
import type { FluidState } from '../fluids';
import type { GaugeCode } from '../gauge';
import type { EffectiveGravity } from '../geometry';
import { memoized } from '../memo';
import { failure, success, type Outcome } from '../outcome';
import { allSteps, type Steps } from '../steps';
import { burnAtDuty_m3PerS, endurance, type Endurance } from '../range';
import { flowResult, type FlowCode, type FlowResult } from './flowResult';
import { prepare, type EvaluationCode } from './flowInputs';
import { lineAnswers, type LineAnswers } from './lines';
import type { Solved } from './lines/profile';
import { fitForSteps, reachFor, type FitOutcome, type ReachOutcome } from './fitCache';
import { gaugeResult, type GaugeResult } from './gauge';
import { reserves, type ReserveResult } from './pickups';
import { sheetsOf, type SheetsOutcome } from './sheets';
import { tankResult, type Detail, type TankResult } from './tankResult';

export type RangeResult = Endurance & { readonly usable_m3: number; readonly burn_m3PerS: number };

/** All that follows from a system document at its conditions. Plain data. */
export type Evaluation = {
  readonly gravity: EffectiveGravity;
  readonly ambientAbs_Pa: number;
  /** Of the tank that feeds the first consumer. */
  readonly fluid: FluidState;
  readonly tanks: readonly TankResult[];
  /** In the order of the document's consumers; the first is the one the four numbers speak of. */
  readonly flows: readonly Outcome<FlowResult, FlowCode>[];
  readonly gauges: readonly Outcome<GaugeResult, GaugeCode>[];
  readonly usable: Outcome<number, 'no-pickup' | 'no-tank'>;
  /** What a heater's pickup leaves for the engine; left out when only numbers were asked for. */
  readonly reserves: readonly ReserveResult[];
  /** Joints, profiles, spills and the like of all lines; absent when only numbers were asked for. */
  readonly lines: LineAnswers | undefined;
  /** Each tank's faces with their ports; absent as the fit is. */
  readonly sheets: SheetsOutcome | undefined;
  /** How the tanks fit their space; absent where nothing is said of it, or where it has not been worked out yet. */
  readonly fit: FitOutcome | undefined;
  /** What hands and tools get to; absent as the fit is. */
  readonly reach: ReachOutcome | undefined;
  readonly range: Outcome<RangeResult, 'no-burn' | 'no-consumer' | 'no-pickup' | 'no-tank'>;
};

/**
 * Evaluates a whole system at its conditions.
 *
 * A part that cannot be computed fails alone, with its reason; the whole
 * fails only where the conditions themselves make no sense.
 *
 * @param detail 'first': of flows and gauges only the first, which the four numbers speak of
 * @param fit takes longer than all the rest: the interface asks for it apart
 */
export const evaluateSystem = (
  system: SystemDocument,
  detail: Detail | 'first' = 'full',
  fit: 'with-fit' | 'without-fit' = 'with-fit',
): Outcome<Evaluation, EvaluationCode> => allSteps(evaluation(system, detail, fit));

/** The same in steps, one a part. */
export function* evaluation(
  system: SystemDocument,
  detail: Detail | 'first',
  fit: 'with-fit' | 'without-fit',
): Steps<Outcome<Evaluation, EvaluationCode>> {
  const prepared = prepare(system);
  if (!prepared.ok) return prepared;
  const { gravity, ambientAbs_Pa, levels, fluids, inputsFor } = prepared.value;
  const each = detail === 'first' ? 'numbers' : detail;
  const asked = <T>(all: readonly T[]): readonly T[] => (detail === 'first' ? all.slice(0, 1) : all);
  const circuits = circuitsIn(system);
  const tanks: TankResult[] = [];
  for (const [t, level] of levels.entries()) {
    tanks.push(tankResult(circuits, system.envelope, level, fluids[t]!, each));
    yield;
  }
  const usable = usableOf(system, tanks);
  const flows: Outcome<FlowResult, FlowCode>[] = [];
  for (const consumer of asked(system.consumers)) {
    flows.push(flowOf(inputsFor(consumer), consumer, each));
    yield;
  }
  const gauges: Outcome<GaugeResult, GaugeCode>[] = [];
  const senders = levels.flatMap((level, t) =>
    level.tank.senders.map((sender) => ({ level, sender, tank: tanks[t]! })),
  );
  for (const { level, sender, tank } of asked(senders)) {
    gauges.push(gaugeResult(system, level, sender, tank, each));
    yield;
  }
  const first = {
    gravity,
    ambientAbs_Pa,
    fluid: inputsFor(system.consumers[0]).fluid,
    tanks,
    flows,
    gauges,
    usable,
    range: usable.ok ? rangeOf(system, system.consumers[0], usable.value) : usable,
  };
  const none = { reserves: [], lines: undefined, sheets: undefined, fit: undefined, reach: undefined };
  if (each === 'numbers') return success({ ...first, ...none });
  const models = levels.map(({ tank }) => tank);
  const solved = flows.flatMap((flow) => (flow.ok ? [flow.value] : []));
  const details = { reserves: reserves(system, models), lines: linesOf(inputsFor(system.consumers[0]), solved) };
  if (fit === 'without-fit') return success({ ...first, ...none, ...details });
  yield;
  return success({
    ...first,
    ...details,
    sheets: sheetsOf(system),
    fit: yield* fitForSteps(system),
    reach: reachFor(system),
  });
}

// Searches go on from where the last one ended: each answer begins with inputs of its own, whatever was asked before.
const flowOf = memoized(
  'flow',
  (inputs: FlowInputs, consumer: ConsumerDocument, detail: Detail) => flowResult({ ...inputs }, consumer, detail),
  24,
);
const linesOf = memoized('lines', (inputs: FlowInputs, solutions: readonly Solved[]) =>
  lineAnswers({ ...inputs }, solutions),
);

/** The tank and pickup that feed the first consumer; the first of each where no line is joined. */
export function mainPickup(
  system: SystemDocument,
  tanks: readonly TankResult[],
): { tank: TankResult; pickup: TankResult['pickups'][number] } | undefined {
  const source = system.consumers[0] ? feedPath(system, system.consumers[0].id).at(-1) : undefined;
  const all = tanks.flatMap((tank) => tank.pickups.map((pickup) => ({ tank, pickup })));
  return all.find(({ pickup }) => pickup.id === source) ?? all[0];
}

/** The tank that the four numbers speak of. */
export const mainTank = (system: SystemDocument, tanks: readonly TankResult[]): TankResult =>
  mainPickup(system, tanks)?.tank ?? tanks[0]!;

function usableOf(system: SystemDocument, tanks: readonly TankResult[]): Outcome<number, 'no-pickup' | 'no-tank'> {
  const main = mainPickup(system, tanks);
  if (!main)
    return failure(
      'no-pickup',
      tanks[0]?.name ?? 'tank',
      'The tank has no pickup that stands in it, so nothing can be drawn.',
    );
  return success(Math.max(0, main.tank.holds_m3 - main.pickup.worst.unusable_m3));
}

function rangeOf(
  system: SystemDocument,
  consumer: ConsumerDocument | undefined,
  usable_m3: number,
): Outcome<RangeResult, 'no-burn' | 'no-consumer'> {
  if (!consumer) return failure('no-consumer', 'consumers', 'Nothing burns the fuel yet.');
  const burn_m3PerS = burnAtDuty_m3PerS(
    consumer.burnIdle_m3PerS.value,
    consumer.burnFull_m3PerS.value,
    system.conditions.duty_ratio,
  );
  const trip = endurance({
    usable_m3,
    burn_m3PerS,
    reserve_ratio: system.wishes.reserve_ratio.value,
    ...(system.vehicle.speed_mPerS ? { speed_mPerS: system.vehicle.speed_mPerS.value } : {}),
  });
  return trip.ok ? success({ ...trip.value, usable_m3, burn_m3PerS }) : trip;
}
