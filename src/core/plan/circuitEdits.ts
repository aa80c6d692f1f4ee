import { plainName } from '../formats';
import { failure, success, type Outcome } from '../outcome';
import { endKey, fluidAt, itemsOf, linesByEnd, runsOf, type EndRef, type Item } from './circuits';
import { freshId } from './edit';
import { assumed, chosen, type Known } from '../schema/known';
import { endsOfComponent, endsOfKind, kindOf, type ComponentKind, type EndName } from '../components';
import type { ComponentDocument, LineDocument, SystemDocument } from './schema';

export type JoinCode =
  'taken' | 'same-part' | 'no-such-end' | 'vent-only' | 'other-fluid' | 'no-such-line' | 'not-in-a-row';

/** Ends that a line could still be joined to; those of a tank with its name, where there are several. */
export function freeEnds(system: SystemDocument): (EndRef & { readonly name: string })[] {
  const byEnd = linesByEnd(system);
  const ofTank = (item: ReturnType<typeof itemsOf>[number]): string => {
    if (system.tanks.length < 2 || !('tank' in item)) return '';
    return `, ${system.tanks.find(({ id }) => id === item.tank)!.name}`;
  };
  return itemsOf(system).flatMap((item) =>
    item.ends
      .filter((end) => !byEnd.has(endKey({ item: item.id, end })))
      .map((end) => ({
        item: item.id,
        end,
        name: `${item.name}${ofTank(item)}${item.ends.length > 1 ? `, ${wordOf(item, end)}` : ''}`,
      })),
  );
}

const wordOf = (item: Item, end: EndName): string =>
  (item.kind === 'component' ? kindOf(item.component).ends[end] : undefined) ??
  (item.kind === 'consumer' && end === 'side' ? 'spout' : END_WORDS[end]);

export const END_WORDS: Readonly<Record<EndName, string>> = {
  in: 'inlet',
  out: 'outlet',
  side: 'side',
  side2: 'other side',
};

/** Whether a line may run between two ends, and if not why. */
export function mayJoin(
  system: SystemDocument,
  from: EndRef,
  to: EndRef,
  purpose: LineDocument['purpose'],
): Outcome<true, JoinCode> {
  const items = new Map(itemsOf(system).map((item) => [item.id, item]));
  const byEnd = linesByEnd(system);
  if (from.item === to.item) return failure('same-part', from.item, 'A line cannot run from a part to itself.');
  for (const ref of [from, to]) {
    const item = items.get(ref.item);
    if (!item?.ends.includes(ref.end))
      return failure('no-such-end', ref.item, `${item?.name ?? ref.item} has no such end.`);
    const [taken] = byEnd.get(endKey(ref)) ?? [];
    if (taken)
      return failure('taken', taken.id, `That end of ${item.name} is taken by ${taken.name}; branch at a tee instead.`);
    if (item.kind === 'port' && item.port.role === 'vent' && purpose !== 'vent' && purpose !== 'overflow')
      return failure(
        'vent-only',
        item.id,
        `${item.name} is a vent: only a vent or an overflow line may be joined to it.`,
      );
  }
  const [a, b] = [from, to].map(({ item }) => fluidAt(system, item));
  if (a && b && a !== b) return failure('other-fluid', to.item, 'The two tanks hold different fluids.');
  return success(true);
}

/** A new line between two free ends; of it nothing is known but that it is there. */
export function withLine(
  system: SystemDocument,
  from: EndRef,
  to: EndRef,
  purpose: LineDocument['purpose'],
): Outcome<SystemDocument, JoinCode> {
  const may = mayJoin(system, from, to, purpose);
  if (!may.ok) return may;
  const names = new Map(itemsOf(system).map(({ id, name }) => [id, name]));
  const bore = usualBore_m(system);
  const line: LineDocument = {
    id: freshId(system, 'line'),
    name: plainName(`${names.get(from.item)!} to ${names.get(to.item)!}`, 80),
    purpose,
    kind: 'hose',
    from: { item: from.item, end: from.end, adapters: [] },
    to: { item: to.item, end: to.end, adapters: [] },
    bore_m: chosen(bore),
    length_m: assumed(1, 0.4),
    wall: 'hose',
    forward_m: chosen(0),
    toPort_m: chosen(0),
    rise_m: assumed(0, 0.2),
    points: [],
    passes: [],
    fittings: [{ fitting: 'barb-step', count: 2 }],
  };
  return success({ ...system, lines: [...system.lines, line] });
}

/** Places are known to no better than this [m]. Common practice. */
const PLACE_SPREAD_M = 0.03;

/** A line that goes as the places of its ends have it [m, vehicle axes]; at least as long as that. */
export function withWay(
  system: SystemDocument,
  lineId: string,
  [forward, toPort, rise]: readonly [number, number, number],
): SystemDocument {
  const taken = (value: number): Known => assumed(Number(value.toFixed(3)), PLACE_SPREAD_M);
  const least = Math.hypot(forward, toPort, rise);
  return {
    ...system,
    lines: system.lines.map((line) =>
      line.id === lineId
        ? {
            ...line,
            forward_m: taken(forward),
            toPort_m: taken(toPort),
            rise_m: taken(rise),
            // A length that was guessed too short for its way was no more than a guess.
            length_m:
              line.length_m.origin === 'assumed' && line.length_m.value < least
                ? assumed(Number((least * 1.1).toFixed(2)), Number((least * 0.3).toFixed(2)))
                : line.length_m,
          }
        : line,
    ),
  };
}

/** The bore that most lines of a system have [m]. */
function usualBore_m({ lines }: SystemDocument): number {
  const bores = lines.map(({ bore_m }) => bore_m.value).sort((a, b) => a - b);
  return bores[Math.floor(bores.length / 2)] ?? 0.008;
}

const part = (known: Known, share: number): Known => ({
  ...known,
  value: known.value * share,
  ...(known.spread === undefined ? {} : { spread: known.spread * share }),
});
const sum = (a: Known, b: Known): Known => {
  const spread = Math.hypot(a.spread ?? 0, b.spread ?? 0);
  const origin = a.origin === 'assumed' || b.origin === 'assumed' ? 'assumed' : a.origin;
  return { value: a.value + b.value, origin, ...(spread > 0 || origin === 'assumed' ? { spread } : {}) };
};

/**
 * Puts a part into a line: the line is cut in two there, with its length and
 * rise shared out.
 * @param share of the line before the part, 0 … 1
 */
export function withPartIn(
  system: SystemDocument,
  lineId: string,
  component: ComponentDocument,
  share = 0.5,
): Outcome<SystemDocument, JoinCode> {
  const l = system.lines.findIndex(({ id }) => id === lineId);
  const line = system.lines[l];
  if (!line) return failure('no-such-line', lineId, 'That line is not there any more.');
  const names = new Map(itemsOf(system).map(({ id, name }) => [id, name]));
  const through = (['in', 'out'] as const).every((end) => endsOfKind(component.kind).includes(end))
    ? (['in', 'out'] as const)
    : undefined;
  if (!through)
    return failure('not-in-a-row', component.id, `${component.name} has one end and cannot stand in a line.`);
  const cutAt = line.points.length * share;
  const before: LineDocument = {
    ...line,
    name: plainName(`${names.get(line.from.item) ?? 'start'} to ${component.name}`, 80),
    to: { item: component.id, end: through[0], adapters: [] },
    length_m: part(line.length_m, share),
    forward_m: part(line.forward_m, share),
    toPort_m: part(line.toPort_m, share),
    rise_m: part(line.rise_m, share),
    points: line.points.slice(0, Math.floor(cutAt)),
  };
  const rest = 1 - share;
  const [dx, dy, dz] = [before.forward_m.value, before.toPort_m.value, before.rise_m.value];
  const after: LineDocument = {
    ...line,
    id: freshId({ ...system, components: [...system.components, component] }, 'line'),
    name: plainName(`${component.name} to ${names.get(line.to.item) ?? 'end'}`, 80),
    from: { item: component.id, end: through[1], adapters: [] },
    length_m: part(line.length_m, rest),
    forward_m: part(line.forward_m, rest),
    toPort_m: part(line.toPort_m, rest),
    rise_m: part(line.rise_m, rest),
    points: line.points
      .slice(Math.ceil(cutAt))
      .map((point) => ({ forward_m: point.forward_m - dx, toPort_m: point.toPort_m - dy, rise_m: point.rise_m - dz })),
    // Elbows stay where they were counted; a cut hose has ends of its own.
    fittings: line.fittings.filter(({ fitting }) => fitting === 'barb-step'),
    passes: [],
  };
  return success({
    ...system,
    components: [...system.components, component],
    lines: [...system.lines.slice(0, l), before, after, ...system.lines.slice(l + 1)],
  });
}

/**
 * Takes a part out. The lines on its two ways become one again; what hung on
 * a side end goes with it.
 */
export function withoutPart(whole: SystemDocument, id: string): SystemDocument {
  // A sight tube that was teed at it stands by itself again.
  const system: SystemDocument = {
    ...whole,
    tanks: whole.tanks.map((tank) =>
      tank.sightTubes.some(({ tee }) => tee === id)
        ? {
            ...tank,
            sightTubes: tank.sightTubes.map(({ tee, ...sight }) =>
              tee === undefined || tee === id ? sight : { ...sight, tee },
            ),
          }
        : tank,
    ),
  };
  const removed = system.components.find((each) => each.id === id);
  const into = system.lines.find(({ to }) => to.item === id && to.end === 'in');
  const outOf = system.lines.find(({ from }) => from.item === id && from.end === 'out');
  const names = new Map(itemsOf(system).map((item) => [item.id, item.name]));
  const components = system.components.filter((each) => each.id !== id);
  const others = system.lines.filter(({ from, to }) => from.item !== id && to.item !== id);
  if (!removed || !into || !outOf || into.id === outOf.id) return { ...system, components, lines: others };
  const merged: LineDocument = {
    ...into,
    name: plainName(`${names.get(into.from.item) ?? 'start'} to ${names.get(outOf.to.item) ?? 'end'}`, 80),
    to: outOf.to,
    length_m: sum(into.length_m, outOf.length_m),
    forward_m: sum(into.forward_m, outOf.forward_m),
    toPort_m: sum(into.toPort_m, outOf.toPort_m),
    rise_m: sum(into.rise_m, outOf.rise_m),
    points: [
      ...into.points,
      ...outOf.points.map((point) => ({
        forward_m: point.forward_m + into.forward_m.value,
        toPort_m: point.toPort_m + into.toPort_m.value,
        rise_m: point.rise_m + into.rise_m.value,
      })),
    ].slice(0, 40),
    passes: [...into.passes, ...outOf.passes].slice(0, 20),
    // The ends at the part are gone; of elbows none.
    fittings: merge(
      into.fittings,
      outOf.fittings.filter(({ fitting }) => fitting !== 'barb-step'),
    ),
  };
  return {
    ...system,
    components,
    lines: system.lines.flatMap((line) => (line.id === into.id ? [merged] : others.includes(line) ? [line] : [])),
  };
}

function merge(a: LineDocument['fittings'], b: LineDocument['fittings']): LineDocument['fittings'] {
  const counts = new Map(a.map(({ fitting, count }) => [fitting, count]));
  for (const { fitting, count } of b) counts.set(fitting, Math.min(50, (counts.get(fitting) ?? 0) + count));
  return [...counts].map(([fitting, count]) => ({ fitting, count }));
}

/** Moves a part one line further along its run (+1) or back (-1); the document itself where there is no further. */
export function withPartMoved(system: SystemDocument, id: string, by: 1 | -1): SystemDocument {
  const component = system.components.find((each) => each.id === id);
  const run = runsOf(system).find(({ steps }) =>
    steps.some((step) => step.kind === 'part' && step.id === id && step.enters && step.leaves),
  );
  if (!component || !run) return system;
  const at = run.steps.findIndex((step) => step.id === id);
  const [over, beyond] = [run.steps[at + 2 * by], run.steps[at + 3 * by]];
  if (over?.kind !== 'part' || beyond?.kind !== 'line') return system;
  const moved = withPartIn(withoutPart(system, id), beyond.id, component);
  return moved.ok ? moved.value : system;
}

/** Another part in the place of one: its lines stay where they were joined. */
export function withPartReplaced(
  system: SystemDocument,
  id: string,
  component: ComponentDocument,
): Outcome<SystemDocument, JoinCode> {
  const has = endsOfComponent(component);
  const needed = system.lines
    .flatMap(({ from, to }) => [from, to])
    .filter(({ item }) => item === id)
    .map(({ end }) => end);
  const missing = needed.find((end) => !has.includes(end));
  if (missing)
    return failure(
      'no-such-end',
      component.id,
      `${component.name} has no ${END_WORDS[missing]} for the line that is joined there.`,
    );
  return success({
    ...system,
    components: system.components.map((each) => (each.id === id ? { ...component, id } : each)),
  });
}

/** A new end point, with the end that a line is joined to. */
export function withEndPoint(
  system: SystemDocument,
  kind: ComponentKind,
  bore_m: number,
): { readonly system: SystemDocument; readonly end: EndRef } {
  const part = newPart(system, kind, bore_m);
  return {
    system: { ...system, components: [...system.components, part] },
    end: { item: part.id, end: endsOfKind(kind)[0]! },
  };
}

/** A new line whose ends are free ones that are there, or new end points. */
export function withLineBetween(
  system: SystemDocument,
  from: EndRef | ComponentKind,
  to: EndRef | ComponentKind,
  purpose: LineDocument['purpose'],
): Outcome<SystemDocument, JoinCode> {
  const bore = usualBore_m(system);
  const start = typeof from === 'string' ? withEndPoint(system, from, bore) : { system, end: from };
  const goal = typeof to === 'string' ? withEndPoint(start.system, to, bore) : { system: start.system, end: to };
  return withLine(goal.system, start.end, goal.end, purpose);
}

/** Branches off a line at a new tee, to a free end or to a new end point. */
export function withBranch(
  system: SystemDocument,
  lineId: string,
  to: EndRef | ComponentKind,
  purpose: LineDocument['purpose'],
): Outcome<SystemDocument, JoinCode> {
  const line = system.lines.find(({ id }) => id === lineId);
  if (!line) return failure('no-such-line', lineId, 'That line is not there any more.');
  const tee = newPart(system, 'tee', line.bore_m.value);
  const teed = withPartIn(system, lineId, tee);
  if (!teed.ok) return teed;
  const side = { item: tee.id, end: 'side' } as const;
  if (typeof to !== 'string') return withLine(teed.value, side, to, purpose);
  const made = withEndPoint(teed.value, to, line.bore_m.value);
  return withLine(made.system, side, made.end, purpose);
}

/**
 * A system whose parts may have lost ends, such as a regulator that no longer
 * has a return: what was joined to those ends, or said of them, goes.
 */
export function withEndsThatAre(system: SystemDocument): SystemDocument {
  const ends = new Map(itemsOf(system).map((item) => [item.id, item.ends]));
  const has = (ref: EndRef): boolean => ends.get(ref.item)?.includes(ref.end) ?? true;
  const trimmed = <T extends ComponentDocument | SystemDocument['consumers'][number]>(part: T): T => {
    const kept = part.ends.filter(({ end }) => has({ item: part.id, end }));
    return kept.length === part.ends.length ? part : { ...part, ends: kept };
  };
  return {
    ...system,
    components: system.components.map(trimmed),
    consumers: system.consumers.map(trimmed),
    lines: system.lines.filter(({ from, to }) => has(from) && has(to)),
  };
}

/** A part from elsewhere, for this system: the same data with an id and a name of its own, on a tank that is there. */
export function partFor(system: SystemDocument, part: ComponentDocument): ComponentDocument {
  const placed = { ...part, id: freshId(system, part.kind), name: freshName(system, part.name.slice(0, 76)) };
  return placed.kind === 'float-valve' && !system.tanks.some(({ id }) => id === placed.tank)
    ? { ...placed, tank: system.tanks[0]!.id }
    : placed;
}

/** A new part of a kind with what is common for its bore; all that is not chosen is assumed. */
export function newPart(system: SystemDocument, kind: ComponentKind, bore_m: number): ComponentDocument {
  const { name, start } = kindOf({ kind });
  const beginning = start({
    bore: assumed(bore_m, 0.1 * bore_m),
    flow_m3PerS: Math.max(1e-7, ...system.consumers.map(({ neededFlow_m3PerS }) => neededFlow_m3PerS.value)),
    tank: system.tanks[0]!.id,
  });
  const common = { id: freshId(system, kind), name: freshName(system, name), ends: [] };
  return { ...common, kind, ...beginning } as ComponentDocument;
}

function freshName(system: SystemDocument, base: string): string {
  const used = new Set(itemsOf(system).map(({ name }) => name));
  let name = base;
  for (let number = 2; used.has(name); number++) name = `${base} ${number}`;
  return name;
}
