import { plainName } from '../../formats';
import { assumed, chosen, fromPart } from '../../schema/known';
import { failure, success, type Outcome } from '../../outcome';
import { withLine, withoutPart, withPartIn } from '../circuitEdits';
import { feedPath, runsOf, type Run } from '../circuits';
import { freshId } from '../edit';
import type { ComponentDocument, PortDocument, SystemDocument, TankDocument } from '../schema';
import {
  boreFor_m,
  boxTank,
  filterFor,
  lengthFor,
  portPlace,
  lidPort,
  linesOfRun,
  pickupIn,
  pumpFor,
  sizesFor,
  spanOf,
  spanOfTank,
  toMm,
  valveOf,
  type Point,
  type Stop,
} from './kit';

export const JOINED_BY = ['pump', 'gravity', 'vacuum', 'selector'] as const;
export const STANDS = ['behind', 'beside', 'above'] as const;

/** The five questions of a tank that joins another. */
export type SecondTank = {
  readonly name?: string | undefined;
  readonly holds_m3: number;
  readonly stands: (typeof STANDS)[number];
  readonly by: (typeof JOINED_BY)[number];
  /** Where it goes into the other tank: one of its free ports, or a new one. */ readonly port?: string | undefined;
  readonly vent: 'vent-line' | 'vented-cap';
  readonly run_m?: number | undefined;
};

/** Between two tanks, and under one that feeds another by gravity [m]. */
const APART_M = 0.15;
const ABOVE_M = 0.3;
/** Common practice: a small transfer pump moves some two litres a minute, or three times what is burned. */
const LEAST_TRANSFER_M3_PER_S = 2e-3 / 60;
const OVER_BURN = 3;
const TRANSFER_SHUT_OFF_PA = 30e3;
/** Common practice: gravity wants a line that costs next to nothing. */
const GRAVITY_BORE_M = 0.016;
const USUAL_RUN_M = 1.2;

/** Ports of a tank that a transfer can come in by: free, and neither vent nor filler nor of a sender. */
export const freeInlets = ({ tanks, lines }: SystemDocument, t: number): PortDocument[] => {
  const tank = tanks[t]!;
  const taken = new Set([
    ...lines.flatMap(({ from, to }) => [from.item, to.item]),
    ...[...tank.pickups, ...tank.senders].map(({ port }) => port),
  ]);
  return tank.ports.filter(({ id, role }) => (role === 'return' || role === 'spare') && !taken.has(id));
};

/**
 * A second tank joined to one that is there, whole: its ports and pickup, the run between them with what moves the
 * fuel, and the port that it comes in by. What was not asked is assumed and says so. Of a vacuum it says nothing shut:
 * which breathers of the other tank are to be shut is a finding.
 */
export function withSecondTank(system: SystemDocument, t: number, asked: SecondTank): SystemDocument {
  const main = system.tanks[t]!;
  const id = freshId(system, 'aux');
  const name = asked.name ?? plainName(`Auxiliary tank${id === 'aux' ? '' : ` ${id.slice(4)}`}`, 80);
  const fluid = system.fluids.find((each) => each.id === main.fluid)!.fluid;
  const sizes = sizesFor(asked.holds_m3);
  const isAbove = asked.by === 'gravity' || asked.stands === 'above';
  const burns = system.consumers.reduce((sum, { burnFull_m3PerS }) => sum + burnFull_m3PerS.value, 0);
  const flow = Math.max(LEAST_TRANSFER_M3_PER_S, OVER_BURN * burns);
  const bore = asked.by === 'gravity' ? GRAVITY_BORE_M : boreFor_m(flow, fluid);
  const part = (base: string): string => freshId(system, `${id}-${base}`);
  const isCap = asked.vent === 'vented-cap';
  const aux = boxTank({
    id,
    name,
    fluid: main.fluid,
    sizes,
    at: standsAt(main, [sizes.length.value, sizes.width.value, sizes.height.value], asked.stands, isAbove),
    ports: [
      lidPort(sizes, part('filler'), 'Filler', 'filler', [0.85, 0.2], {
        bore_m: assumed(0.038, 0.002),
        length_m: assumed(isCap ? 0.02 : 0.3, 0.01),
      }),
      lidPort(sizes, part('vent'), isCap ? 'Hole in the cap' : 'Vent', 'vent', [0.7, 0.5], {
        bore_m: assumed(isCap ? 0.003 : 0.012, 0.001),
        length_m: assumed(isCap ? 0.003 : 1, isCap ? 0.001 : 0.5),
      }),
      asked.by === 'gravity'
        ? {
            id: part('outlet'),
            name: 'Outlet',
            role: 'feed',
            face: 'floor',
            x_m: chosen(toMm(sizes.length.value * 0.25)),
            y_m: chosen(toMm(sizes.width.value * 0.5)),
            bore_m: fromPart(bore),
            length_m: chosen(0),
          }
        : lidPort(sizes, part('outlet'), 'Outlet', 'feed', [0.25, 0.5], {
            bore_m: fromPart(bore),
            length_m: chosen(0),
          }),
    ],
    pickups: [
      pickupIn(
        part('outlet'),
        part('pickup'),
        `${name} pickup`,
        asked.by === 'gravity' ? 'bottom-outlet' : 'top-tube',
        asked.by === 'gravity' ? 0 : Math.min(0.02, sizes.height.value / 4),
        bore,
      ),
    ],
  });
  const added: SystemDocument = {
    ...system,
    practice: { ...system.practice, transferBy: asked.by },
    tanks: [...system.tanks, aux],
    conditions: { ...system.conditions, fills: [...system.conditions.fills, { tank: id, fill_ratio: 0.9 }] },
  };
  return joined(added, t, aux, { by: asked.by, port: asked.port, run_m: asked.run_m, flow_m3PerS: flow, bore_m: bore });
}

type Joining = {
  readonly by: SecondTank['by'];
  readonly port: string | undefined;
  readonly run_m: number | undefined;
  readonly flow_m3PerS: number;
  readonly bore_m: number;
};

/** A tank's first pickup joined to another tank, with all that its school needs between them. */
function joined(
  added: SystemDocument,
  t: number,
  aux: TankDocument,
  { by, port: wanted, run_m, flow_m3PerS: flow, bore_m: bore }: Joining,
): SystemDocument {
  const main = added.tanks[t]!;
  const fluid = added.fluids.find((each) => each.id === main.fluid)!.fluid;
  const part = (base: string): string => freshId(added, `${aux.id}-${base}`);
  if (by === 'selector') {
    const selected = withSelector(added, t, aux, bore);
    if (selected) return selected;
  }
  const { system: open, port } = withInlet(added, t, aux, wanted, bore);
  const span = spanOf(outletPlace(aux), portPlace(open.tanks[t]!, port));
  const parts = partsBetween(by, part, flow, bore, fluid, run_m);
  const stops: Stop[] = [
    { item: aux.pickups[0]!.id, name: aux.pickups[0]!.name },
    ...parts.map((each) => ({ item: each.id, name: each.name })),
    { item: port.id, name: main.name },
  ];
  return {
    ...open,
    components: [...open.components, ...parts],
    lines: [
      ...open.lines,
      ...linesOfRun(open, {
        purpose: 'transfer',
        stops,
        bore_m: bore,
        length: lengthFor(span, run_m, USUAL_RUN_M),
        span,
      }),
    ],
  };
}

/** Where the port of a tank's first pickup stands. */
const outletPlace = (aux: TankDocument): Point | undefined => {
  const port = aux.ports.find(({ id }) => id === aux.pickups[0]?.port);
  return port && portPlace(aux, port);
};

/** A tank whose first pickup is that one. */
const drawnBy = (tank: TankDocument, pickup: string): TankDocument => ({
  ...tank,
  pickups: [...tank.pickups].sort((a, b) => Number(b.id === pickup) - Number(a.id === pickup)),
});

/** The pickup by which one tank gives to another: the one that does, else one that feeds nothing, else the first. */
export function transferPickup(
  system: Pick<SystemDocument, 'tanks'> & Parameters<typeof runsOf>[0],
  s: number,
  t: number,
): TankDocument['pickups'][number] | undefined {
  const pickups = system.tanks[s]?.pickups ?? [];
  const runs = runsOf(system);
  const feedsNothing = (id: string): boolean => !runs.some(({ steps }) => steps[0]?.id === id);
  return (
    pickups.find(({ id }) => joiningRun(system, id, t) !== undefined) ??
    pickups.find(({ id }) => feedsNothing(id)) ??
    pickups[0]
  );
}

/**
 * The run from a pickup into a tank, or to the second end of a selector valve that something else has the first end of;
 * undefined where it leads elsewhere, or nowhere.
 */
export function joiningRun(
  system: Pick<SystemDocument, 'tanks'> & Parameters<typeof runsOf>[0],
  pickup: string,
  t: number,
): { readonly run: Run; readonly selector: string | undefined; readonly port: string | undefined } | undefined {
  const run = runsOf(system).find(({ steps }) => steps[0]?.id === pickup);
  const last = run?.steps.at(-1);
  if (!run || last?.kind !== 'part') return undefined;
  const isSelector = system.components.some(({ id, kind }) => id === last.id && kind === 'selector');
  if (isSelector && last.enters === 'side') return { run, selector: last.id, port: undefined };
  return system.tanks[t]?.ports.some(({ id }) => id === last.id)
    ? { run, selector: undefined, port: last.id }
    : undefined;
}

export type RejoinCode = 'not-two-tanks' | 'other-fluid' | 'no-pickup' | 'not-straight';

/**
 * Two tanks of a system joined by one of the schools, from the first pickup of the one into the other: what joins them
 * now is taken out, and what takes its place has its bore and is as long.
 *
 * @param s the tank that it comes from, and `t` the one that it goes to, by their numbers from 0
 */
export function rejoined(
  system: SystemDocument,
  s: number,
  t: number,
  by: SecondTank['by'],
): Outcome<SystemDocument, RejoinCode> {
  const [from, to] = [system.tanks[s], system.tanks[t]];
  if (!from || !to || s === t) return failure('not-two-tanks', 'tanks', 'must be two tanks of the system.');
  if (from.fluid !== to.fluid)
    return failure('other-fluid', to.id, `${to.name} holds another fluid than ${from.name}.`);
  const pickup = transferPickup(system, s, t);
  if (!pickup) return failure('no-pickup', from.id, `${from.name} has no pickup to draw by.`);
  const now = joiningRun(system, pickup.id, t);
  const elsewhere = runsOf(system).find(({ steps }) => steps[0]?.id === pickup.id);
  if (!now && elsewhere)
    return failure(
      'not-straight',
      elsewhere.id,
      `${elsewhere.name} does not lead straight into ${to.name}, nor to the second end of a selector valve.`,
    );
  const run = now?.run;
  const lines = system.lines.filter(({ id }) => run?.steps.some((step) => step.id === id));
  // What stands between the two goes with its lines; ends of tanks stay.
  const between = new Set(run?.steps.slice(1, -1).flatMap((step) => (step.kind === 'part' ? [step.id] : [])));
  const parted: SystemDocument = {
    ...system,
    lines: system.lines.filter((line) => !lines.includes(line)),
    components: system.components.filter(({ id }) => !between.has(id)),
  };
  const bare = now?.selector === undefined ? parted : withoutPart(parted, now.selector);
  const burns = system.consumers.reduce((sum, { burnFull_m3PerS }) => sum + burnFull_m3PerS.value, 0);
  const run_m = lines.reduce((sum, { length_m }) => sum + length_m.value, 0);
  return success(
    joined({ ...bare, practice: { ...bare.practice, transferBy: by } }, t, drawnBy(bare.tanks[s]!, pickup.id), {
      by,
      port: now?.port,
      run_m: lines.length > 0 ? run_m : undefined,
      flow_m3PerS: Math.max(LEAST_TRANSFER_M3_PER_S, OVER_BURN * burns),
      bore_m: lines[0]?.bore_m.value ?? pickup.bore_m.value,
    }),
  );
}

/** Where it comes to stand, clear of the other. */
function standsAt(main: TankDocument, size: Point, stands: SecondTank['stands'], isAbove: boolean): Point {
  const span = spanOfTank(main) ?? [0.5, 0.5, 0.3];
  const [x, y, z] = [main.mounting.x_m.value, main.mounting.y_m.value, main.mounting.z_m.value];
  const up = isAbove ? z + span[2] + ABOVE_M : z;
  if (stands === 'behind') return [x - size[0] - APART_M, y, up];
  if (stands === 'beside') return [x, y + span[1] + APART_M, up];
  return [x, y, up];
}

function partsBetween(
  by: SecondTank['by'],
  part: (base: string) => string,
  flow: number,
  bore: number,
  fluid: Parameters<typeof filterFor>[3],
  run_m: number | undefined,
): ComponentDocument[] {
  if (by === 'pump')
    return [
      filterFor(part('filter'), 'Transfer filter', flow, fluid),
      pumpFor(part('pump'), 'Transfer pump', flow, TRANSFER_SHUT_OFF_PA, {
        type: 'transfer',
        // What stands high would siphon on without one.
        checkBuiltIn: true,
        wiring: {
          freeCurrent_A: assumed(2, 0.8),
          shutOffCurrent_A: assumed(4, 1.5),
          wire: 'mm2-1-5',
          length_m: assumed(Math.max(2, run_m ?? 0), 1),
          fuse_A: 7.5,
          relay: false,
          battery_Ah: assumed(70, 20),
        },
      }),
    ];
  return [valveOf(part('cock'), 'Transfer cock', bore)];
}

/** The port that it comes in by: one that is there, or a new one in the lid, clear of the others along it. */
function withInlet(
  system: SystemDocument,
  t: number,
  aux: TankDocument,
  wanted: string | undefined,
  bore: number,
): { readonly system: SystemDocument; readonly port: PortDocument } {
  const tank = system.tanks[t]!;
  const there = freeInlets(system, t).find(({ id }) => id === wanted);
  const span = spanOfTank(tank) ?? [0.5, 0.5, 0.3];
  const others = tank.ports.filter(({ face }) => face === 'lid');
  const clear = (x: number, y: number): number =>
    Math.min(Infinity, ...others.map((port) => Math.hypot((port.x_m?.value ?? 0) - x, (port.y_m?.value ?? 0) - y)));
  const places = [0.1, 0.25, 0.4, 0.55, 0.7, 0.85].flatMap((x) =>
    [0.25, 0.5, 0.75].map((y): readonly [number, number] => [x * span[0], y * span[1]]),
  );
  const [x, y] = places.reduce((best, place) => (clear(...place) > clear(...best) ? place : best));
  const port: PortDocument = there
    ? { ...there, role: 'return' }
    : {
        id: freshId(system, `${aux.id}-inlet`),
        name: plainName(`From ${aux.name.toLowerCase()}`, 80),
        role: 'return',
        face: 'lid',
        x_m: chosen(toMm(x)),
        y_m: chosen(toMm(y)),
        bore_m: fromPart(bore),
        length_m: chosen(0),
      };
  const ports = there ? tank.ports.map((each) => (each.id === port.id ? port : each)) : [...tank.ports, port];
  return { system: { ...system, tanks: system.tanks.map((each, k) => (k === t ? { ...each, ports } : each)) }, port };
}

const addTo = (a: Point, b: Point): Point => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** A selector valve in the first line of the feed that draws from a tank, and the other tank on its second end. */
function withSelector(system: SystemDocument, t: number, aux: TankDocument, bore: number): SystemDocument | undefined {
  const pickups = new Set(system.tanks[t]!.pickups.map(({ id }) => id));
  const fed = system.consumers.flatMap(({ id }) => feedPath(system, id)).find((item) => pickups.has(item));
  const line = system.lines.find(({ from }) => from.item === fed);
  if (!line) return undefined;
  const selector: ComponentDocument = {
    id: freshId(system, `${aux.id}-selector`),
    name: 'Selector valve',
    ends: [],
    kind: 'selector',
    position: 'in-out',
    fitting: 'ball-valve',
    bore_m: chosen(Math.max(bore, line.bore_m.value)),
  };
  const cut = withPartIn(system, line.id, selector, 0.5);
  if (!cut.ok) return undefined;
  const joined = withLine(
    cut.value,
    { item: aux.pickups[0]!.id, end: 'out' },
    { item: selector.id, end: 'side' },
    'feed',
  );
  if (!joined.ok) return undefined;
  // The valve stands where the line that it was put into has got to: so far the other tank's line goes.
  const before = cut.value.lines.find(({ to }) => to.item === selector.id)!;
  const tank = system.tanks[t]!;
  const pickup = tank.pickups.find(({ id }) => id === fed)!;
  const start = portPlace(
    tank,
    tank.ports.find(({ id }) => id === pickup.port)!,
  );
  const stands = start && addTo(start, [before.forward_m.value, before.toPort_m.value, before.rise_m.value]);
  const way = spanOf(outletPlace(aux), stands);
  return {
    ...joined.value,
    lines: joined.value.lines.map((each) =>
      each.from.item === aux.pickups[0]!.id && way
        ? {
            ...each,
            bore_m: line.bore_m,
            length_m: lengthFor(way, undefined, USUAL_RUN_M),
            forward_m: assumed(toMm(way[0]), 0.05),
            toPort_m: assumed(toMm(way[1]), 0.05),
            rise_m: assumed(toMm(way[2]), 0.05),
          }
        : each,
    ),
  };
}
