import { gravitySource, type Circuits } from '../plan/circuits';
import { flowRole } from '../plan/fields';
import type { Plan } from '../plan/schema';
import { failure, success, type Outcome } from '../outcome';
import type { Role } from '../units';
import { suppliesOf, type Evaluation } from './evaluate';

export const NUMBER_KEYS = ['holds', 'comes', 'usable', 'head', 'delivers', 'goes', 'backPressure', 'gauge'] as const;
export type NumberKey = (typeof NUMBER_KEYS)[number];

export type Figure = { readonly value: number; readonly role: Role };
export type Numbers = Readonly<Record<NumberKey, Outcome<Figure>>>;

const figure = (value: number, role: Role): Outcome<Figure> => success({ value, role });

/**
 * The four numbers and the gauge's worst error; of what is thrown out, how much may come and its back-pressure: each
 * with its value or its reason for having none.
 */
export function numbersOf(system: Plan, evaluation: Evaluation): Numbers {
  const { usable, range } = evaluation;
  const flow = evaluation.flows[0];
  return {
    holds: figure(
      suppliesOf(system, evaluation).reduce((sum, { tank }) => sum + tank.holds_m3, 0),
      'tankVolume',
    ),
    comes: expelledFigure(system, evaluation, 'tankVolume', ({ comes }) => comes),
    usable: usable.ok ? figure(usable.value, 'tankVolume') : usable,
    head: headFigure(flow),
    delivers: deliversOf(flow),
    goes: isTransfer(system)
      ? fillTime(system, flow)
      : range.ok
        ? goesFigure(system, range.value.endurance_s, range.value.range_m)
        : range,
    backPressure: expelledFigure(system, evaluation, 'pressure', ({ pressure }) => pressure),
    gauge: gaugeFigure(evaluation),
  };
}

/** The reason of the head of what gravity does not feed. */
const NOT_BY_GRAVITY = 'not-by-gravity';
/** The reason of numbers of what is thrown out, where a plan has nothing that throws out. */
const NOTHING_EXPELLED = 'nothing-expelled';

/** Whether a number has no value since the plan has nothing that it would be of. */
export const hasNone = ({ code }: { readonly code: string }): boolean =>
  code === NOTHING_EXPELLED || code === NOT_BY_GRAVITY;

/** Of the first part that such a thing comes out of; where the plan feeds somebody, `Lines` has it and no number. */
function expelledFigure(
  { consumers }: Pick<Plan, 'consumers'>,
  { expelled }: Evaluation,
  role: Role,
  of: (each: Evaluation['expelled'][number]) => Outcome<number> | undefined,
): Outcome<Figure> {
  for (const each of consumers.length === 0 ? expelled : []) {
    const value = of(each);
    if (value) return value.ok ? figure(value.value, role) : value;
  }
  return failure(NOTHING_EXPELLED, 'components', 'No crankcase or cooling system leads here yet.');
}

function deliversOf(flow: Evaluation['flows'][number] | undefined): Outcome<Figure> {
  if (!flow) return failure('no-consumer', 'consumers', 'Nothing to deliver to yet.');
  return flow.ok ? figure(flow.value.delivered_m3PerS, flowRole(flow.value.needed_m3PerS)) : flow;
}

/** How high the liquid stands over a consumer that gravity feeds. */
function headFigure(flow: Evaluation['flows'][number] | undefined): Outcome<Figure> {
  if (!flow) return failure(NOT_BY_GRAVITY, 'consumers', 'Nothing to feed yet.');
  if (!flow.ok) return flow;
  return flow.value.head
    ? figure(flow.value.head.now_m, 'run')
    : failure(NOT_BY_GRAVITY, 'consumers', 'A pump feeds it.');
}

const goesFigure = (system: Plan, endurance_s: number, range_m: number | undefined): Outcome<Figure> =>
  range_m === undefined
    ? figure(endurance_s, 'duration')
    : figure(range_m, system.vehicle.kind === 'boat' ? 'seaTrip' : 'trip');

/** Whether what it feeds is a nozzle: then a fill is asked for, and no range. */
export const isTransfer = ({ consumers }: Pick<Plan, 'consumers'>): boolean => consumers[0]?.kind === 'nozzle';

/** What a fill takes at the nozzle [s]; none where nothing is said of fills, or nothing arrives. */
function fillTime(system: Plan, flow: Evaluation['flows'][number] | undefined): Outcome<Figure> {
  const delivered = deliversOf(flow);
  if (!delivered.ok) return delivered;
  const fill = system.wishes.moves_m3;
  if (!fill) return failure('no-fill', 'wishes', 'Say how much a fill is, at Lines, Return & transfer.');
  return delivered.value.value > 0
    ? figure(fill.value / delivered.value.value, 'duration')
    : failure('no-flow', 'consumers', 'Nothing arrives at the nozzle.');
}

/** Whether its first consumer is fed from a tank without any pump, and does not suck for itself. */
function isByGravity(system: Circuits): boolean {
  const [consumer] = system.consumers;
  return (
    consumer !== undefined && consumer.neededPressure_Pa.value >= 0 && gravitySource(system, consumer.id) !== undefined
  );
}

/** The numbers that a job asks for: none of what it does not have. */
export function askedNumbers(system: Circuits): readonly NumberKey[] {
  const isFed = system.consumers.length > 0;
  const has = (kind: Plan['components'][number]['kind']): boolean =>
    // Beside what feeds an engine they are told by findings, and at Lines.
    !isFed && system.components.some((part) => part.kind === kind);
  const asks: Readonly<Record<NumberKey, boolean>> = {
    holds: true,
    comes: has('crankcase') || has('cooling-system'),
    usable: isFed || system.tanks.some(({ pickups }) => pickups.length > 0),
    head: isByGravity(system),
    delivers: isFed,
    goes: isFed,
    backPressure: has('crankcase'),
    gauge: system.tanks.some(({ senders }) => senders.length > 0),
  };
  return NUMBER_KEYS.filter((key) => asks[key]);
}

function gaugeFigure({ gauges }: Evaluation): Outcome<Figure> {
  const first = gauges[0];
  if (!first) return failure('no-sender', 'senders', 'No sender yet.');
  return first.ok ? figure(first.value.curve.worst.error_ratio, 'share') : first;
}
