import { flowRole } from '../plan/fields';
import type { Plan } from '../plan/schema';
import { failure, success, type Outcome } from '../outcome';
import type { Role } from '../units';
import { mainTank, type Evaluation } from './evaluate';

export const NUMBER_KEYS = ['holds', 'usable', 'delivers', 'goes', 'gauge'] as const;
export type NumberKey = (typeof NUMBER_KEYS)[number];

export type Figure = { readonly value: number; readonly role: Role };
export type Numbers = Readonly<Record<NumberKey, Outcome<Figure>>>;

const figure = (value: number, role: Role): Outcome<Figure> => success({ value, role });

/** The four numbers and the gauge's worst error, each with its value or its reason for having none. */
export function numbersOf(system: Plan, evaluation: Evaluation): Numbers {
  const { usable, range } = evaluation;
  const flow = evaluation.flows[0];
  return {
    holds: figure(mainTank(system, evaluation).holds_m3, 'tankVolume'),
    usable: usable.ok ? figure(usable.value, 'tankVolume') : usable,
    delivers: deliversOf(flow),
    goes: range.ok ? goesFigure(system, range.value.endurance_s, range.value.range_m) : range,
    gauge: gaugeFigure(evaluation),
  };
}

function deliversOf(flow: Evaluation['flows'][number] | undefined): Outcome<Figure> {
  if (!flow) return failure('no-consumer', 'consumers', 'Nothing to deliver to yet.');
  return flow.ok ? figure(flow.value.delivered_m3PerS, flowRole(flow.value.needed_m3PerS)) : flow;
}

const goesFigure = (system: Plan, endurance_s: number, range_m: number | undefined): Outcome<Figure> =>
  range_m === undefined
    ? figure(endurance_s, 'duration')
    : figure(range_m, system.vehicle.kind === 'boat' ? 'seaTrip' : 'trip');

function gaugeFigure({ gauges }: Evaluation): Outcome<Figure> {
  const first = gauges[0];
  if (!first) return failure('no-sender', 'senders', 'No sender yet.');
  return first.ok ? figure(first.value.curve.worst.error_ratio, 'share') : first;
}
