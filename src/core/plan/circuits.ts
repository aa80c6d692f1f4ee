import { interned } from '../memo';
import { reached } from '../reached';
import type { FluidKey } from '../reference/fluids';
import { nearestStock, lineStock, USUAL_SERIES, type LineStockRow } from '../reference/lineStock';
import { BARB_BORE, hoseSize, joinOfThread, JOINS, type Join } from '../reference/joins';
import { portPart } from '../reference/portParts';
import { INCH_M } from '../units/units';
import { endsOfComponent, isInTank, isShutOff, joinedEnds, kindOf, type EndName } from '../components';
import type {
  ComponentDocument,
  ConsumerDocument,
  LineDocument,
  PickupDocument,
  PortDocument,
  SystemDocument,
} from './schema';

/** As much of a system as flow can depend on. */
export type Circuits = Pick<SystemDocument, 'tanks' | 'fluids' | 'lines' | 'components' | 'consumers' | 'practice'> & {
  readonly wishes: Pick<SystemDocument['wishes'], 'moves_m3'>;
};

const internedCircuits = interned<Circuits>('circuits');

/** A system's circuits; the very same as long as nothing in them changes. */
export function circuitsIn(system: Circuits): Circuits {
  const { tanks, fluids, lines, components, consumers, practice, wishes } = system;
  const { moves_m3 } = wishes;
  return internedCircuits({
    tanks,
    fluids,
    lines,
    components,
    consumers,
    practice,
    wishes: moves_m3 ? { moves_m3 } : {},
  });
}

/** One end of one part: what a line is joined to. */
export type EndRef = { readonly item: string; readonly end: EndName };

/** Whatever a line can be joined to, with the ends that it has. */
export type Item =
  | {
      readonly kind: 'pickup';
      readonly id: string;
      readonly name: string;
      readonly ends: readonly EndName[];
      readonly pickup: PickupDocument;
      readonly port: PortDocument | undefined;
      readonly tank: string;
    }
  | {
      readonly kind: 'port';
      readonly id: string;
      readonly name: string;
      readonly ends: readonly EndName[];
      readonly port: PortDocument;
      readonly tank: string;
    }
  | {
      readonly kind: 'component';
      readonly id: string;
      readonly name: string;
      readonly ends: readonly EndName[];
      readonly component: ComponentDocument;
    }
  | {
      readonly kind: 'consumer';
      readonly id: string;
      readonly name: string;
      readonly ends: readonly EndName[];
      readonly consumer: ConsumerDocument;
    };

/** Ports that something of its own hangs in: a line is joined to the pickup, not to the port. */
const portIsFree = (pickups: readonly PickupDocument[], port: PortDocument): boolean =>
  port.role !== 'sender' && !pickups.some((pickup) => pickup.port === port.id);
const CONSUMER_ENDS: Readonly<Record<ConsumerDocument['kind'], readonly EndName[]>> = {
  'diesel-engine': ['in', 'out'],
  'petrol-injection': ['in', 'out'],
  'petrol-carburettor': ['in', 'out'],
  heater: ['in'],
  generator: ['in', 'out'],
  // Its spout, which is held into what is filled.
  nozzle: ['in', 'side'],
};

/** All parts that lines can be joined to. */
export function itemsOf(system: Circuits): Item[] {
  return [
    ...system.tanks.flatMap((tank): Item[] => [
      ...tank.pickups.map((pickup): Item => ({
        kind: 'pickup',
        id: pickup.id,
        name: pickup.name,
        ends: ['out'],
        pickup,
        port: tank.ports.find((port) => port.id === pickup.port),
        tank: tank.id,
      })),
      ...tank.ports
        .filter((port) => portIsFree(tank.pickups, port))
        .map((port): Item => ({ kind: 'port', id: port.id, name: port.name, ends: ['in'], port, tank: tank.id })),
    ]),
    ...system.components.map((component): Item => ({
      kind: 'component',
      id: component.id,
      name: component.name,
      ends: endsOfComponent(component),
      component,
    })),
    ...system.consumers.map((consumer): Item => ({
      kind: 'consumer',
      id: consumer.id,
      name: consumer.name,
      ends: CONSUMER_ENDS[consumer.kind],
      consumer,
    })),
  ];
}

/** Ids of all that lines can be joined to, and of ports that something hangs in. */
export const joinableItems = (system: Circuits): string[] => [
  ...new Set([
    ...itemsOf(system).map(({ id }) => id),
    ...system.tanks.flatMap((tank) => tank.ports.map(({ id }) => id)),
  ]),
];

/** An end of an item as one word. */
export const endKey = ({ item, end }: EndRef): string => `${item}:${end}`;

/** The lines joined to each end. */
export function linesByEnd(system: Circuits): Map<string, LineDocument[]> {
  const found = new Map<string, LineDocument[]>();
  for (const line of system.lines) {
    for (const side of [line.from, line.to]) found.set(endKey(side), [...(found.get(endKey(side)) ?? []), line]);
  }
  return found;
}

/** How an end of a part is made; undefined where nobody has said. */
export function joinOfItem(item: Item, end: EndName): Join | undefined {
  if (item.kind === 'component' || item.kind === 'consumer') {
    const made = madeEnds(item).find((each) => each.end === end);
    return made && { system: made.system, size: made.size, side: made.side };
  }
  const { port } = item;
  if (port?.on && !port.part) return { system: 'barb', size: hoseSize(port.bore_m.value / BARB_BORE), side: 'male' };
  if (!port?.part) return undefined;
  const part = portPart(port.part);
  if (part.thread) return joinOfThread(part.thread, part.group === 'bulkhead' ? 'male' : 'female');
  // A hose goes over the outside of a welded tube, which is the hole that it passes.
  return part.group === 'tube' || part.group === 'neck'
    ? { system: 'barb', size: hoseSize(part.hole), side: 'male' }
    : undefined;
}

/** What a line is cut from: as chosen, or the size of its usual series that comes nearest. */
export const stockOf = (line: Pick<LineDocument, 'stock' | 'kind' | 'bore_m'>): LineStockRow | undefined =>
  line.kind === 'direct'
    ? undefined
    : ((line.stock ? lineStock(line.stock) : undefined) ?? nearestStock(USUAL_SERIES[line.kind], line.bore_m.value));

/**
 * How a line itself ends: as written, or as its kind has it: hose slipped over a barb, tube flared with a nut, pipe
 * threaded. Parts screwed together have no line.
 */
export function joinOfLine(line: LineDocument, at: 'from' | 'to'): Join | undefined {
  const written = line[at].join;
  if (written) return { system: written.system, size: written.size, side: written.side };
  if (line.kind === 'direct') return undefined;
  const stock = stockOf(line)!;
  if (stock.series === 'hose-dash') return { system: 'flare-37', size: stock.name, side: 'female' };
  if (line.kind === 'hose') return { system: 'barb', size: hoseSize(line.bore_m.value), side: 'female' };
  if (line.kind === 'pipe') return { system: 'npt', size: stock.name, side: 'male' };
  return { system: 'flare-37', size: flareFor(stock.outside_m), side: 'female' };
}

const SIXTEENTH_M = INCH_M / 16;
/** The dash of the flare that goes on a tube. */
function flareFor(outside_m: number): string {
  const dashes = JOINS['flare-37'].sizes.map((size) => -Number(size));
  const wanted = outside_m / SIXTEENTH_M;
  return `-${dashes.reduce((best, dash) => (Math.abs(dash - wanted) < Math.abs(best - wanted) ? dash : best))}`;
}

export type RunStep =
  | {
      readonly kind: 'part';
      readonly id: string;
      /** Ends by which the run comes and goes. */ readonly enters?: EndName;
      readonly leaves?: EndName;
    }
  | {
      readonly kind: 'line';
      readonly id: string;
      /** True where the line is written against the run's way. */ readonly reversed: boolean;
    };

/** A row of parts and lines from one port, tee or consumer to the next. */
export type Run = {
  readonly id: string;
  readonly name: string;
  readonly purpose: LineDocument['purpose'];
  readonly steps: readonly RunStep[];
};

/** The other end of a part that a run goes straight through; undefined where it begins or ends. */
function through(item: Item | undefined, end: EndName): EndName | undefined {
  if (item?.kind !== 'component' || item.ends.length !== 2) return undefined;
  return item.ends.find((other) => other !== end);
}

/** All runs, in the order in which their lines are written; each line is in one. */
export function runsOf(system: Circuits): Run[] {
  const items = new Map(itemsOf(system).map((item) => [item.id, item]));
  const byEnd = linesByEnd(system);
  const seen = new Set<string>();
  const runs: Run[] = [];
  for (const line of system.lines) {
    if (seen.has(line.id)) continue;
    const upstream = walk(line.from, items, byEnd, new Set([line.id]));
    const downstream = walk(line.to, items, byEnd, new Set([line.id, ...linesIn(upstream)]));
    const steps = [...turnedRound(upstream), { kind: 'line', id: line.id, reversed: false } as const, ...downstream];
    for (const id of linesIn(steps)) seen.add(id);
    const nameOf = (step: RunStep | undefined): string => (step ? (items.get(step.id)?.name ?? step.id) : '');
    runs.push({
      id: linesIn(steps)[0]!,
      name: `${nameOf(steps[0])} to ${nameOf(steps.at(-1))}`,
      purpose: line.purpose,
      steps,
    });
  }
  return runs;
}

const linesIn = (steps: readonly RunStep[]): string[] =>
  steps.flatMap((step) => (step.kind === 'line' ? [step.id] : []));

/** From an end of a line onward: the part there, and what follows it while it has but one way on. */
function walk(
  from: EndRef,
  items: ReadonlyMap<string, Item>,
  byEnd: ReadonlyMap<string, readonly LineDocument[]>,
  used: Set<string>,
): RunStep[] {
  const steps: RunStep[] = [];
  const parts = new Set<string>();
  for (let at = from; ;) {
    const leaves = parts.has(at.item) ? undefined : through(items.get(at.item), at.end);
    const next = leaves && byEnd.get(endKey({ item: at.item, end: leaves }))?.find((line) => !used.has(line.id));
    steps.push({ kind: 'part', id: at.item, enters: at.end, ...(leaves && next ? { leaves } : {}) });
    if (!leaves || !next) return steps;
    parts.add(at.item);
    used.add(next.id);
    const reversed = next.to.item === at.item && next.to.end === leaves;
    steps.push({ kind: 'line', id: next.id, reversed });
    at = reversed ? next.from : next.to;
  }
}

/** The same steps walked the other way. */
const turnedRound = (steps: readonly RunStep[]): RunStep[] =>
  [...steps].reverse().map((step): RunStep => {
    if (step.kind === 'line') return { ...step, reversed: !step.reversed };
    return {
      kind: 'part',
      id: step.id,
      ...(step.leaves ? { enters: step.leaves } : {}),
      ...(step.enters ? { leaves: step.enters } : {}),
    };
  });

/** What of a part its document says of its ends; nothing of a pickup or a port. */
const madeEnds = (item: Item) =>
  item.kind === 'component' ? item.component.ends : item.kind === 'consumer' ? item.consumer.ends : [];

/**
 * Ends of parts with neither line nor plug. A port's hole that has a use of its own, a spare or a filler, needs no
 * line; nor does a vent.
 */
export function openEnds(system: Circuits): EndRef[] {
  const byEnd = linesByEnd(system);
  const hung = hungParts(system);
  const drawn = new Set(system.tanks.filter(({ pickups }) => pickups.length > 0).map(({ id }) => id));
  return itemsOf(system).flatMap((item): EndRef[] => {
    // A can that only takes in what is expelled is no part of these circuits.
    if (item.kind === 'port')
      return item.port.role === 'return' && drawn.has(item.tank) && !byEnd.has(endKey({ item: item.id, end: 'in' }))
        ? [{ item: item.id, end: 'in' }]
        : [];
    const plugged = madeEnds(item)
      .filter((end) => end.plugged)
      .map(({ end }) => end);
    // What an engine does not burn need not come back by a line of its own.
    const needed = item.kind === 'consumer' ? item.ends.filter((end) => end === 'in') : item.ends;
    return (
      needed
        // What a regulator lets back in the tank needs no line.
        .filter((end) => !(hung.has(item.id) && end === 'side'))
        .filter((end) => !plugged.includes(end) && !byEnd.has(endKey({ item: item.id, end })))
        .map((end) => ({ item: item.id, end }))
    );
  });
}

/**
 * Parts that stand in the liquid, each with the pickup that they hang on: those that are meant for it and follow each
 * other from the pickup on, with nothing between that stands outside.
 */
export function hungParts({ tanks, lines, components }: Circuits): Map<string, string> {
  const meant = new Map(components.filter(isInTank).map((part) => [part.id, part]));
  const hung = new Map<string, string>();
  if (meant.size === 0) return hung;
  const next = (at: EndRef): ComponentDocument | undefined => {
    for (const { from, to } of lines) {
      const other = endsAt(from, at) ? to : endsAt(to, at) ? from : undefined;
      const part = other?.end === 'in' ? meant.get(other.item) : undefined;
      if (part && !hung.has(part.id)) return part;
    }
    return undefined;
  };
  for (const { id } of tanks.flatMap(({ pickups }) => pickups)) {
    for (let part = next({ item: id, end: 'out' }); part; part = next({ item: part.id, end: 'out' }))
      hung.set(part.id, id);
  }
  return hung;
}

/** Lines whose flow is liquid and steady: fill, vent and overflow lines are not. */
export const carriesFlow = ({ purpose }: Pick<LineDocument, 'purpose'>): boolean =>
  purpose === 'feed' || purpose === 'return' || purpose === 'transfer';

/**
 * The parts on the way from a consumer back to a pickup, consumer first. At a
 * branch the way that is open is taken; where none is, one that would be if
 * valves and selectors stood otherwise; where there is none at all, as far as
 * it goes.
 */
export function feedPath(system: Circuits, consumerId: string): string[] {
  const lines = system.lines.filter(carriesFlow);
  return (
    wayBack(system, lines, consumerId, 'open') ??
    wayBack(system, lines, consumerId, 'any') ??
    deadEnd(lines, consumerId)
  );
}

/** The pickup that feeds a consumer with no pump on the way; undefined where there is a pump, or no way from a tank. */
export function gravitySource(system: Circuits, consumerId: string): string | undefined {
  const path = feedPath(system, consumerId);
  const source = path.at(-1);
  const isFromTank = system.tanks.some(({ pickups }) => pickups.some(({ id }) => id === source));
  return isFromTank && !system.components.some((part) => part.kind === 'pump' && path.includes(part.id))
    ? source
    : undefined;
}

function wayBack(
  system: Circuits,
  lines: readonly LineDocument[],
  consumerId: string,
  which: 'open' | 'any',
): string[] | undefined {
  const pickups = new Set(system.tanks.flatMap((tank) => tank.pickups.map(({ id }) => id)));
  const shut = new Set(which === 'any' ? [] : system.components.filter(isShutOff).map(({ id }) => id));
  const tried = new Set<string>();
  const search = (at: EndRef, path: readonly string[]): string[] | undefined => {
    for (const line of lines) {
      if (!endsAt(line.to, at) || path.includes(line.from.item) || shut.has(line.from.item) || tried.has(line.id))
        continue;
      tried.add(line.id);
      const onward = [...path, line.id, line.from.item];
      if (pickups.has(line.from.item)) return onward;
      for (const end of upstreamEnds(system, line.from, which)) {
        const found = search({ item: line.from.item, end }, onward);
        if (found) return found;
      }
    }
    return undefined;
  };
  return search({ item: consumerId, end: 'in' }, [consumerId]);
}

/** A tank whose liquid comes to a consumer, by itself or through other tanks, and the pickups that it leaves by. */
export type ReachedTank = { readonly tank: number; readonly pickups: readonly string[] };

/**
 * The tanks that a consumer can draw empty by its circuits, that which feeds it now first: all that lead to it, and all
 * that refill those, however valves and pumps stand at the moment. What comes back by a return is no supply.
 */
export function reachedTanks(system: Circuits, consumerId: string): ReachedTank[] {
  const lines = system.lines.filter(({ purpose }) => purpose === 'feed' || purpose === 'transfer');
  const tankOf = new Map(
    system.tanks.flatMap(({ ports, pickups }, t) => [...ports, ...pickups].map(({ id }) => [id, t] as const)),
  );
  const left = new Map<number, string[]>();
  const now = feedPath(system, consumerId).at(-1);
  const open = [consumerId];
  const seen = new Set(open);
  const go = (item: string): void => {
    if (seen.has(item)) return;
    seen.add(item);
    open.push(item);
  };
  for (let at = open.shift(); at !== undefined; at = open.shift()) {
    for (const { from, to } of lines) {
      if (to.item !== at) continue;
      const t = tankOf.get(from.item);
      if (t === undefined) {
        go(from.item);
        continue;
      }
      left.set(t, [...new Set([...(left.get(t) ?? []), from.item])]);
      // What refills it comes in by any of its ports.
      for (const { id } of system.tanks[t]!.ports) go(id);
    }
  }
  const first = now === undefined ? undefined : tankOf.get(now);
  return [...left]
    .map(([tank, pickups]) => ({ tank, pickups }))
    .sort((a, b) => Number(b.tank === first) - Number(a.tank === first));
}

/** All parts that hang together with the given ones by lines. */
export const joinedTo = ({ lines }: Pick<Circuits, 'lines'>, items: Iterable<string>): Set<string> =>
  reached(
    items,
    lines.map(({ from, to }) => [from.item, to.item] as const),
  );

/** The fluid of the tank that a part hangs on; undefined where it hangs on none. */
export function fluidAt(system: Circuits, item: string): FluidKey | undefined {
  const joined = joinedTo(system, [item]);
  const tank = system.tanks.find(({ ports, pickups }) => [...ports, ...pickups].some(({ id }) => joined.has(id)));
  return tank && system.fluids.find(({ id }) => id === tank.fluid)?.fluid;
}

const endsAt = (a: EndRef, b: EndRef): boolean => a.item === b.item && a.end === b.end;

/** As far as a feed goes that begins nowhere. */
function deadEnd(lines: readonly LineDocument[], consumerId: string): string[] {
  const path = [consumerId];
  for (let at = consumerId; ;) {
    const line = lines.find((candidate) => candidate.to.item === at && !path.includes(candidate.from.item));
    if (!line) return path;
    path.push(line.id, line.from.item);
    at = line.from.item;
  }
}

/** Ends of a part by which flow comes that leaves by another: of a selector those that its position joins. */
function upstreamEnds(system: Circuits, { item, end }: EndRef, which: 'open' | 'any'): EndName[] {
  const component = system.components.find(({ id }) => id === item);
  if (!component) return [];
  if (kindOf(component).joins && which === 'open') return [...joinedEnds(component, end)];
  return endsOfComponent(component)
    .filter((each) => each !== end)
    .sort((a, b) => Number(b === 'in') - Number(a === 'in'));
}
