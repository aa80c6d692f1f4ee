import { feedPath, reachedTanks } from '../plan/circuits';
import { DRIVING } from '../plan/jobs/needs';
import type { ConsumerDocument, Plan, PlanAt } from '../plan/schema';
import type { FluidState } from '../fluids';
import type { GaugeCode } from '../gauge';
import { memoized } from '../memo';
import { failure, success, type Outcome } from '../outcome';
import { allSteps, type Steps } from '../steps';
import { burnOf_m3PerS } from '../model/burn';
import { cruiseTable, endurance, type CruiseRow, type Endurance } from '../range';
import { flowResult, type FlowCode, type FlowResult } from './flow/flowResult';
import { withPositions, type State } from '../state';
import { envelopeOf } from '../model/compileTank';
import { documentAt, type At, type EvaluationCode } from './at';
import { prepare, type Prepared } from './flow/flowInputs';
import { expelledOf, lineAnswers, type Expelled, type LineAnswers } from './lines';
import { fitForSteps, reachFor, type FitOutcome, type ReachOutcome } from './fit/fitCache';
import { mountsWith, type Mounts, type MountsCode } from './mounts/mounts';
import { standsWith, type Stands, type StandsCode } from './weight/stands';
import { gaugeResult, type GaugeResult } from './gauge/gauge';
import { reserves, type ReserveResult } from './tank/pickups';
import { sheetsOf, type SheetsOutcome } from './fit/sheets';
import { surroundingsOf, tankResult, type Detail, type TankResult } from './tank/tankResult';

export type RangeResult = Endurance & {
  readonly usable_m3: number;
  readonly burn_m3PerS: number;
  /** The same at each speed or load that was timed. */ readonly cruise: readonly CruiseRow[];
};

/** All that follows from a plan in a state. Plain data. */
export type Evaluation = {
  /** What it all holds for. */ readonly state: State;
  /** Of the tank that feeds the first consumer. */
  readonly fluid: FluidState;
  readonly tanks: readonly TankResult[];
  /** In the order of the document's consumers; the first is the one the four numbers speak of. */
  readonly flows: readonly Outcome<FlowResult, FlowCode>[];
  readonly gauges: readonly Outcome<GaugeResult, GaugeCode>[];
  readonly usable: Outcome<number, 'no-pickup' | 'no-tank'>;
  /** What engines throw out, of each crankcase and cooling system. */
  readonly expelled: readonly Expelled[];
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
  /** What holds the tanks, and what of it gives first; absent as the fit is. */
  readonly mounts: Outcome<Mounts, MountsCode> | undefined;
  /** What the tanks do to what the vehicle stands on; absent as the fit is. */
  readonly stands: Outcome<Stands, StandsCode> | undefined;
  readonly range: Outcome<RangeResult, 'no-burn' | 'no-consumer' | 'no-pickup' | 'no-tank'>;
};

/**
 * Evaluates a whole system at its conditions.
 *
 * A part that cannot be computed fails alone, with its reason; the whole
 * fails only where the conditions themselves make no sense.
 *
 * @param detail 'first': of flows and gauges only the first, which the four numbers speak of
 * @param fit takes longer than all the rest: the interface asks for it apart; one that is worked out elsewhere at the
 * same time is called for at the end
 */
export const evaluateSystem = (
  system: PlanAt,
  detail: Detail | 'first' = 'full',
  fit: Fit = 'with-fit',
): Outcome<Evaluation, EvaluationCode> => allSteps(evaluation(system, detail, fit));

/** Whether what stands round the tanks is wanted, or whoever gives their clearances when all else is there. */
export type Fit = 'with-fit' | 'without-fit' | (() => FitOutcome | undefined);

/** The same in steps, one a part. */
export function* evaluation(
  system: PlanAt,
  detail: Detail | 'first',
  fit: Fit,
): Steps<Outcome<Evaluation, EvaluationCode>> {
  const at = documentAt(system);
  return at.ok ? yield* evaluationAt(system, at.value, detail, fit) : at;
}

/** The tanks alone: what each holds and leaves, and what can be used. */
export type TankAnswers = Pick<Evaluation, 'state' | 'tanks' | 'usable'>;

/** The tanks of a document at its conditions, without what flows out of them. */
export function tankAnswers(system: PlanAt): Outcome<TankAnswers, EvaluationCode> {
  const at = documentAt(system);
  if (!at.ok) return at;
  const prepared = prepare(at.value);
  if (!prepared.ok) return prepared;
  const tanks = allSteps(tanksAt(system, at.value, prepared.value, 'full'));
  return success({ state: at.value.state, tanks, usable: usableOf(system, { tanks, state: at.value.state }) });
}

function* tanksAt(
  { envelope }: Plan,
  { model, state }: At,
  { levels, fluids }: Prepared,
  detail: Detail,
): Steps<TankResult[]> {
  const circuits = withPositions(model.circuits, state.positions);
  const tanks: TankResult[] = [];
  for (const [t, level] of levels.entries()) {
    tanks.push(
      tankResult(surroundingsOf(circuits, circuits.tanks[t]!), envelope, state.gravity, level, fluids[t]!, detail),
    );
    yield;
  }
  return tanks;
}

/** What follows from a plan whose model is in a state, in steps. */
export function* evaluationAt(
  system: Plan,
  at: At,
  detail: Detail | 'first',
  fit: Fit,
): Steps<Outcome<Evaluation, EvaluationCode>> {
  const prepared = prepare(at);
  if (!prepared.ok) return prepared;
  const { state } = at;
  const { levels, inputsFor } = prepared.value;
  const each = detail === 'first' ? 'numbers' : detail;
  const asked = <T>(all: readonly T[]): readonly T[] => (detail === 'first' ? all.slice(0, 1) : all);
  const tanks = yield* tanksAt(system, at, prepared.value, each);
  const usable = usableOf(system, { tanks, state });
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
    gauges.push(gaugeResult(system, state.duty_ratio, level, sender, tank, each));
    yield;
  }
  const first = {
    state,
    fluid: inputsFor(system.consumers[0]).fluid,
    tanks,
    flows,
    gauges,
    usable,
    expelled: expelledOf(inputsFor(undefined), envelopeOf(system)),
    range: usable.ok ? rangeOf(system, state.duty_ratio, system.consumers[0], usable.value) : usable,
  };
  const none = {
    reserves: [],
    lines: undefined,
    sheets: undefined,
    fit: undefined,
    reach: undefined,
    mounts: undefined,
    stands: undefined,
  };
  if (each === 'numbers') return success({ ...first, ...none });
  const solved = flows.flatMap((flow) => (flow.ok ? [flow.value] : []));
  const details = { reserves: reserves(system, at), lines: linesOf(inputsFor(system.consumers[0]), solved) };
  if (fit === 'without-fit') return success({ ...first, ...none, ...details });
  yield;
  const around = {
    sheets: sheetsOf(system),
    reach: reachFor(system),
    mounts: mountsWith(system, (t) => success(prepared.value.fluids[t]!)),
    stands: standsWith(system, (t) => success(prepared.value.fluids[t]!)),
  };
  return success({
    ...first,
    ...details,
    ...around,
    fit: typeof fit === 'function' ? fit() : yield* fitForSteps(system),
  });
}

const flowOf = memoized('flow', flowResult, 24);
const linesOf = memoized('lines', lineAnswers);

/** The tank and pickup that feed the first consumer as valves stand; the first of each where no line is joined. */
export function mainPickup(
  plan: Plan,
  { tanks, state }: Pick<Evaluation, 'tanks' | 'state'>,
): { tank: TankResult; pickup: TankResult['pickups'][number] } | undefined {
  const [consumer] = plan.consumers;
  const source = consumer ? feedPath(withPositions(plan, state.positions), consumer.id).at(-1) : undefined;
  const all = tanks.flatMap((tank) => tank.pickups.map((pickup) => ({ tank, pickup })));
  return all.find(({ pickup }) => pickup.id === source) ?? all[0];
}

/** A tank that the first consumer draws on, and the pickup that leaves least behind of those that lead to it. */
export type Supply = { readonly tank: TankResult; readonly pickup: TankResult['pickups'][number] | undefined };

/** All tanks that the four numbers speak of: those that the first consumer reaches by its circuits, or the main one. */
export function suppliesOf(plan: Plan, of: Pick<Evaluation, 'tanks' | 'state'>): Supply[] {
  const [consumer] = plan.consumers;
  const reached = consumer ? reachedTanks(withPositions(plan, of.state.positions), consumer.id) : [];
  const supplies = reached.flatMap(({ tank: t, pickups }): Supply[] => {
    const tank = of.tanks[t];
    if (!tank) return [];
    const leading = tank.pickups.filter(({ id }) => pickups.includes(id));
    const deepest = leading.reduce<Supply['pickup']>(
      (best, one) => (best && best.worst.unusable_m3 <= one.worst.unusable_m3 ? best : one),
      undefined,
    );
    return [{ tank, pickup: deepest }];
  });
  if (supplies.length > 0) return supplies;
  const main = mainPickup(plan, of);
  return [{ tank: main?.tank ?? of.tanks[0]!, pickup: main?.pickup }];
}

function usableOf(plan: Plan, of: Pick<Evaluation, 'tanks' | 'state'>): Outcome<number, 'no-pickup' | 'no-tank'> {
  const supplies = suppliesOf(plan, of).filter(({ pickup }) => pickup);
  if (supplies.length === 0)
    return failure(
      'no-pickup',
      of.tanks[0]?.name ?? 'tank',
      'The tank has no pickup that stands in it, so nothing can be drawn.',
    );
  return success(supplies.reduce((sum, supply) => sum + usableIn_m3(supply), 0));
}

/** What can be drawn of one tank on the worst slope [m³]. */
export const usableIn_m3 = ({ tank, pickup }: Supply): number =>
  pickup ? Math.max(0, tank.holds_m3 - pickup.worst.unusable_m3) : 0;

function rangeOf(
  system: Plan,
  duty_ratio: number,
  consumer: ConsumerDocument | undefined,
  usable_m3: number,
): Outcome<RangeResult, 'no-burn' | 'no-consumer'> {
  if (!consumer) return failure('no-consumer', 'consumers', 'Nothing burns the fuel yet.');
  const burn_m3PerS = burnOf_m3PerS(consumer, duty_ratio);
  const trip = endurance({
    usable_m3,
    burn_m3PerS,
    reserve_ratio: system.wishes.reserve_ratio.value,
    // What does not move the vehicle runs for hours, not for miles.
    ...(system.vehicle.speed_mPerS && DRIVING.has(consumer.kind)
      ? { speed_mPerS: system.vehicle.speed_mPerS.value }
      : {}),
  });
  const timed = (system.vehicle.cruise ?? []).map(({ name, burn_m3PerS: burn, speed_mPerS: speed }) => ({
    name,
    burn_m3PerS: burn.value,
    ...(speed && DRIVING.has(consumer.kind) ? { speed_mPerS: speed.value } : {}),
  }));
  const cruise = cruiseTable(timed, usable_m3, system.wishes.reserve_ratio.value);
  return trip.ok ? success({ ...trip.value, usable_m3, burn_m3PerS, cruise }) : trip;
}
