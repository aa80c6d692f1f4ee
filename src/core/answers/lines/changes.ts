import { carriesFlow, feedPath, stockOf } from '../../plan/circuits';
import { withValue } from '../../plan/edit';
import { kindOf } from '../../components';
import { chosen } from '../../schema/known';
import type { ConsumerDocument, LineDocument, PlanAt } from '../../plan/schema';
import type { FlowInputs } from '../../model/networkParts';
import { boreArea_m2, type NetworkSolution } from '../../network';
import { reachedAlong } from '../../reached';
import { LINE_STOCK, type LineStockRow } from '../../reference/lineStock';
import { FITTINGS } from '../../reference/losses';
import { flowInputsOf } from '../flow/flowInputs';
import { arriving, COMFORT_RATIO } from '../flow/flowResult';
import { steadySolution, whyBlocked } from '../flow/flowSolve';
import { transferCourse } from './course';
import { circuitOf, moved_m3 } from './transfers';

/** A line in one of the sizes that it could be bought in. */
export type SizeRow = {
  readonly stock: string;
  readonly name: string;
  readonly bore_m: number;
  readonly isNow: boolean;
  /** To the consumer that the line feeds, or into the tank that it fills. */
  readonly flow_m3PerS: number | undefined;
  readonly margin_ratio: number | undefined;
  readonly time_s: number | undefined;
  readonly velocity_mPerS: number | undefined;
  /** Of the whole line, in the builder's money, where a price is known. */
  readonly cost: number | undefined;
  /** Held by the line: what it spills when it is opened low. */
  readonly holds_m3: number;
  /**
   * The one to take, by the builder's school: the narrowest that has enough in hand and is not too fast, or the next
   * after it.
   */
  readonly suggested: boolean;
};

export type SizeTable = {
  readonly line: string;
  readonly name: string;
  readonly series: string;
  readonly serves: string;
  readonly volume_m3: number;
  readonly rows: readonly SizeRow[];
};

/** Common practice: no faster than this in a suction line. */
export const CALM_M_PER_S = 1.5;

/** What a line would do in every size of its series, all else as it is; undefined for parts screwed together. */
export function sizeTable(system: PlanAt, lineId: string): SizeTable | undefined {
  const l = system.lines.findIndex(({ id }) => id === lineId);
  const line = system.lines[l];
  const now = line && stockOf(line);
  if (!line || !now) return undefined;
  const consumer = servedBy(system, line);
  const volume_m3 = moved_m3(system);
  const rows = LINE_STOCK.filter(({ series }) => series === now.series).map((row) =>
    sizeRow(
      withLineStock(system, l, row),
      l,
      row,
      consumer,
      volume_m3,
      row.key === now.key && Math.abs(row.bore_m - line.bore_m.value) < 1e-6,
    ),
  );
  const enough = rows.findIndex(
    ({ margin_ratio, velocity_mPerS }) =>
      (margin_ratio ?? 0) >= COMFORT_RATIO && (velocity_mPerS ?? Infinity) <= CALM_M_PER_S,
  );
  const take = enough < 0 ? -1 : Math.min(rows.length - 1, enough + (system.practice.lineFor === 'later' ? 1 : 0));
  return {
    line: line.id,
    name: line.name,
    series: now.series,
    serves: consumer?.name ?? line.name,
    volume_m3,
    rows: rows.map((row, i) => ({ ...row, suggested: i === take })),
  };
}

/** A line cut from a row of the table of lines. */
export const withLineStock = <S extends PlanAt>(system: S, l: number, row: LineStockRow): S =>
  withValue(system, ['lines', l], {
    ...system.lines[l]!,
    kind: row.kind,
    stock: row.key,
    bore_m: chosen(row.bore_m),
    wall: row.wall,
  });

/** The consumer that a line feeds: by its own way back to a tank, or by another branch of it. */
function servedBy(system: PlanAt, line: LineDocument): ConsumerDocument | undefined {
  const own = system.consumers.find((each) => feedPath(system, each.id).includes(line.id));
  if (own || line.purpose !== 'feed') return own;
  const onward = reachedAlong(
    [line.to.item],
    system.lines.filter(({ purpose }) => purpose === 'feed').map(({ from, to }) => [from.item, to.item] as const),
  );
  return system.consumers.find(({ id }) => onward.has(id));
}

function sizeRow(
  system: PlanAt,
  l: number,
  row: LineStockRow,
  consumer: ConsumerDocument | undefined,
  volume_m3: number,
  isNow: boolean,
): Omit<SizeRow, 'suggested'> {
  const line = system.lines[l]!;
  const through = flowThrough(system, line, consumer, volume_m3);
  const price = system.prices.find(({ stock }) => stock === row.key)?.perMetre;
  return {
    stock: row.key,
    name: row.name,
    bore_m: row.bore_m,
    isNow,
    flow_m3PerS: through?.flow_m3PerS,
    margin_ratio:
      through === undefined || !consumer ? undefined : through.flow_m3PerS / consumer.neededFlow_m3PerS.value,
    time_s: through?.time_s,
    velocity_mPerS: through === undefined ? undefined : Math.abs(through.inLine_m3PerS) / boreArea_m2(row.bore_m),
    cost: price === undefined ? undefined : price * line.length_m.value,
    holds_m3: boreArea_m2(row.bore_m) * line.length_m.value,
  };
}

/** What a line passes, what comes of that to the consumer that it feeds, and how long a batch takes. */
type Through = { readonly flow_m3PerS: number; readonly inLine_m3PerS: number; readonly time_s: number | undefined };

/** Fewer steps than for the answer itself: a row of many. */
const COURSE_STEPS = 8;

function flowThrough(
  system: PlanAt,
  line: LineDocument,
  consumer: ConsumerDocument | undefined,
  volume_m3: number,
): Through | undefined {
  if (consumer) {
    const inputs = flowInputsOf(system, consumer);
    const solved = inputs && heldAtNeed(inputs, consumer);
    if (!solved) return undefined;
    const flow_m3PerS = arriving(inputs, consumer, solved);
    return {
      flow_m3PerS,
      inLine_m3PerS: solved.links.get(line.id)?.flow_m3PerS ?? 0,
      time_s: flow_m3PerS > 0 ? volume_m3 / flow_m3PerS : undefined,
    };
  }
  // A line past a tee, or on the way to one: what passes the line itself counts.
  const source = flowInputsOf(system, undefined);
  const inputs = source && circuitOf(source, line.from.item);
  const solved = inputs && steadySolution(inputs, []);
  if (!inputs || !solved?.ok) return undefined;
  const signed = solved.value.solution.links.get(line.id)?.flow_m3PerS ?? 0;
  const sense = signed < 0 ? -1 : 1;
  const course = transferCourse(inputs, line.id, sense, volume_m3, COURSE_STEPS);
  return {
    flow_m3PerS: Math.abs(signed),
    inLine_m3PerS: signed,
    time_s: course.ends === 'moved' ? course.time_s : undefined,
  };
}

function heldAtNeed(inputs: FlowInputs, consumer: ConsumerDocument): NetworkSolution | undefined {
  if (whyBlocked(inputs, consumer)) return undefined;
  const solved = steadySolution(
    inputs,
    [{ consumer: consumer.id, hold_Pa: consumer.neededPressure_Pa.value }],
    consumer.id,
  );
  return solved.ok ? solved.value.solution : undefined;
}

function deliveredTo(system: PlanAt, consumer: ConsumerDocument): number | undefined {
  const inputs = flowInputsOf(system, consumer);
  const solved = inputs && heldAtNeed(inputs, consumer);
  return solved && arriving(inputs, consumer, solved);
}

/** A change that would give a consumer more, and how much. */
export type Gain = { readonly change: string; readonly delivered_m3PerS: number; readonly gain_m3PerS: number };

/** One of the parts that cost most pressure, with the changes to it that gain most. */
export type Costliest = {
  readonly part: string;
  readonly name: string;
  readonly loss_Pa: number;
  readonly gains: readonly Gain[];
};

const COSTLIEST = 3;

/**
 * The parts of a feed that cost most pressure at the needed flow, and what
 * each change to them would gain: the whole network solved again with it.
 */
export function costliest(
  system: PlanAt,
  consumer: ConsumerDocument,
  losses: readonly { readonly id: string; readonly name: string; readonly loss_Pa: number }[],
): Costliest[] {
  const now = deliveredTo(system, consumer);
  if (now === undefined) return [];
  return losses.slice(0, COSTLIEST).map(({ id, name, loss_Pa }) => ({
    part: id.replace(/:.*$/, ''),
    name,
    loss_Pa,
    gains: changesTo(system, id.replace(/:.*$/, ''))
      .flatMap(({ change, system: changed }): Gain[] => {
        const delivered_m3PerS = deliveredTo(
          changed,
          changed.consumers.find((each) => each.id === consumer.id)!,
        );
        return delivered_m3PerS === undefined
          ? []
          : [{ change, delivered_m3PerS, gain_m3PerS: delivered_m3PerS - now }];
      })
      .sort((a, b) => b.gain_m3PerS - a.gain_m3PerS),
  }));
}

type Change = { readonly change: string; readonly system: PlanAt };

/** What can be done about a part: as one would at the bench. */
function changesTo(system: PlanAt, id: string): Change[] {
  const l = system.lines.findIndex((line) => line.id === id);
  if (l >= 0) return lineChanges(system, l);
  const c = system.components.findIndex((part) => part.id === id);
  const part = system.components[c];
  const remedies = part && kindOf(part).remedies?.(part);
  if (remedies)
    return remedies.map(({ change, key, value }) => ({
      change,
      system: withValue(system, ['components', c, key, 'value'], value),
    }));
  if (part && 'bore_m' in part)
    return [
      {
        change: 'half as wide again',
        system: withValue(system, ['components', c, 'bore_m', 'value'], Math.min(0.1, 1.5 * part.bore_m.value)),
      },
    ];
  const at = system.tanks
    .flatMap((tank, t) =>
      tank.pickups.map((pickup, p) => ({ pickup, path: ['tanks', t, 'pickups', p, 'bore_m', 'value'] })),
    )
    .find(({ pickup }) => pickup.id === id);
  return at
    ? [
        {
          change: 'a tube a quarter wider',
          system: withValue(system, at.path, Math.min(0.1, 1.25 * at.pickup.bore_m.value)),
        },
      ]
    : [];
}

function lineChanges(system: PlanAt, l: number): Change[] {
  const line = system.lines[l]!;
  const now = stockOf(line);
  const wider = now && LINE_STOCK.find((row) => row.series === now.series && row.bore_m > line.bore_m.value + 1e-6);
  const turns = line.fittings.findIndex(
    ({ fitting, count }) => count > 0 && (fitting === 'elbow-90' || fitting === 'bend-180'),
  );
  const steps = line.fittings.findIndex(({ fitting, count }) => count > 0 && fitting === 'barb-step');
  return [
    ...(wider ? [{ change: `one size up, ${wider.name}`, system: withLineStock(system, l, wider) }] : []),
    {
      change: 'a fifth shorter',
      system: withValue(system, ['lines', l, 'length_m', 'value'], 0.8 * line.length_m.value),
    },
    ...(turns >= 0
      ? [
          {
            change: `a long bend for one ${FITTINGS[line.fittings[turns]!.fitting].name}`,
            system: withoutOne(system, l, turns, true),
          },
        ]
      : []),
    ...(steps >= 0 ? [{ change: 'ends as wide as the line', system: withoutOne(system, l, steps, false) }] : []),
    ...(line.from.adapters.length + line.to.adapters.length > 0
      ? [
          {
            change: 'ends that need no adapters',
            system: withValue(
              withValue(system, ['lines', l, 'from', 'adapters'], []),
              ['lines', l, 'to', 'adapters'],
              [],
            ),
          },
        ]
      : []),
  ];
}

function withoutOne(system: PlanAt, l: number, at: number, replaced: boolean): PlanAt {
  const { fittings } = system.lines[l]!;
  const fewer = fittings
    .map((each, f) => (f === at ? { ...each, count: replaced ? each.count - 1 : 0 } : each))
    .filter(({ count }) => count > 0);
  return withValue(
    system,
    ['lines', l, 'fittings'],
    replaced ? [...fewer, { fitting: 'elbow-90-long', count: 1 }] : fewer,
  );
}

/** Lines that a size table is of use for. */
export const sizedLines = (system: PlanAt): LineDocument[] =>
  system.lines.filter((line) => carriesFlow(line) && line.kind !== 'direct');
