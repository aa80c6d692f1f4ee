import type { EffectiveGravity, Vec3 } from '../../geometry';
import type { PickupModel, PortModel } from '../../model/compileTank';
import type { FlowInputs } from '../../model/networkParts';
import { mouthPoint } from '../../model/portMouth';
import { heldInto } from '../../plan/filled';
import type { Scenario } from '../../plan/schemaScenario';
import type { At } from '../at';
import { neckLoss_Pa } from './neck';
import type { Drawing } from './net';
import { neckPoint, type Mouth } from './nets';
import type { EventKind } from './played';
import type { Rates, Slots } from './rates';

/** Something that may happen: it does when its value comes down to nothing. */
export type Watch = {
  readonly value: () => number;
  /** Whether it looks at flows, and not only at what stands in tanks. */ readonly needsFlow: boolean;
  readonly kind: EventKind | undefined;
  readonly of: string;
  readonly name: string;
  /** What is then otherwise. */ readonly then: () => void;
  /** Whether it is only told: all flows on as it did. */ readonly isTold: boolean;
};

/** Gas that is on its way through a line, by what had passed its pickup when it came and when it ended [m³]. */
export type Slug = { readonly from_m3: number; to_m3: number | undefined; isOut: boolean };

/** What watches look at, and what they change. */
export type Watched = {
  readonly at: At;
  readonly scenario: Scenario;
  readonly t_s: number;
  /** The moment that is looked at, and the state then. */ readonly peeked_s: number;
  readonly peeked: Float64Array;
  readonly rates: Rates;
  readonly slots: Slots;
  readonly inputs: readonly FlowInputs[];
  readonly gravity: EffectiveGravity;
  readonly mouths: ReadonlyMap<string, Mouth>;
  /** Vents and fillers, and mouths of lines, under liquid. */
  readonly covered: Set<string>;
  readonly drowned: Set<string>;
  readonly pickups: Map<string, Drawing>;
  readonly slugs: Map<string, Slug[]>;
  /** Float valves that are shut. */
  readonly floats: Set<string>;
  readonly starving: Set<string>;
  /** Consumers that get next to nothing, since when; and those that have stopped for it. */
  readonly choking: Map<string, number>;
  readonly stopped: Set<string>;
  readonly spilling: Set<string>;
  readonly full: Set<string>;
  readonly poursDone: Set<number>;
  /** Nozzles of the system: what each has given when what it is held into was empty [kg]; those that have filled it. */
  readonly givenBefore_kg: Map<string, number>;
  readonly brimful: Set<string>;
  readonly density_kgPerM3: (id: string) => number;
  readonly pouring: () => { readonly pour: number; readonly tank: number; readonly port: PortModel }[];
  readonly height: (t: number, point_m: Vec3) => number;
  /** What lines after a pickup hold [m³]. */ readonly held: (pickup: string) => number;
  readonly nameOf: (id: string) => string;
};

type AddWatch = (
  value: () => number,
  kind: EventKind | undefined,
  of: { readonly id: string; readonly name: string },
  then: () => void,
  how?: { readonly needsFlow?: boolean; readonly isTold?: boolean },
) => void;

/** A port counts as covered when the surface is so near [m]: what is left over it is a film. */
export const FILM_M = 1e-3;
/** What was covered is free again when the surface is so much lower; the same of pickups the other way [m]. */
export const BACK_M = 1e-3;
/** Less than this stands in a tank that is empty [m]. */
export const EMPTY_M = 5e-4;
/** A float valve opens again when so much of its tank is gone. */
const FLOAT_BACK = 0.005;
/** Less than this share of what it needs, and a consumer starves; more than the other, and it is fed again. */
const [STARVES, FED] = [0.98, 0.99];
/** Common practice: an engine or heater that gets less than this share for so long stops, and does not start itself. */
const [CHOKES, BREATHES, STOPS_S] = [0.2, 0.25, 5];
/** So much out of an opening is a spill [m³]. */
const SPILL_M3 = 1e-6;
/** Less liquid than this in what is drawn is none. */
const LEAST_SHARE = 1e-3;
/** Of what a tank is limited to: so much less, and it may be filled up to there again. */
const LIMIT_BACK = 0.01;

/** Liquid that falls through a neck may stand so high in it before it is said to back up [m]. */
const SPOUT_SLACK_M = 0.01;

/** Whether gas goes by a port. */
export const isVent = ({ document: { role } }: PortModel): boolean => role === 'vent' || role === 'filler';

/** Where liquid shuts a vent or filler off, over the vehicle's datum [m]. */
export const ventHeight = ({ height }: Pick<Watched, 'height'>, t: number, port: PortModel): number =>
  height(t, port.document.role === 'filler' ? mouthPoint(port) : port.point_m);

/** The lowest surface at which a pickup draws no air, over the vehicle's datum [m]. */
export const pickupHeight = ({ height }: Pick<Watched, 'height'>, t: number, { inlet }: PickupModel): number =>
  height(t, inlet.point_m) + inlet.submergence_m;

/** A height, or that of a film on the lowest place of a tank where it lies lower: what is empty covers nothing. */
function over(c: Watched, t: number, height_m: number, more_m = 0): number {
  const { bases_m, curves } = c.rates.setting;
  return Math.max(height_m, bases_m[t]! + curves[t]!.lowest_m + EMPTY_M + more_m);
}

/** All that may happen next, as things stand. */
export function watchesOf(c: Watched, takes_m3PerS: ReadonlyMap<string, number>): Watch[] {
  const { tanks, circuits } = c.at.model;
  const list: Watch[] = [];
  const watch: AddWatch = (value, kind, { id, name }, then, { needsFlow = false, isTold = false } = {}) =>
    void list.push({ value, kind, of: id, name, then, needsFlow, isTold });
  const { now } = c.rates;
  tanks.forEach((tank, t) => {
    const surface = (): number => now[t]!.surface_m;
    for (const port of tank.ports) {
      const { id, name } = port.document;
      if (!isVent(port)) continue;
      const height = ventHeight(c, t, port) - FILM_M;
      if (c.covered.has(id))
        watch(
          () => surface() - over(c, t, height - BACK_M),
          'free',
          { id, name },
          () => c.covered.delete(id),
        );
      else
        watch(
          () => over(c, t, height, BACK_M) - surface(),
          'covered',
          { id, name },
          () => c.covered.add(id),
        );
    }
    for (const pickup of tank.pickups) watchPickup(c, t, pickup, watch);
    const { id, name, fillLimit_ratio } = tank.document;
    const limit = fillLimit_ratio.value * tank.gross_m3;
    if (c.full.has(id))
      watch(
        () => now[t]!.volume_m3 - limit + LIMIT_BACK * tank.gross_m3,
        undefined,
        { id, name },
        () => c.full.delete(id),
        { isTold: true },
      );
    else
      watch(
        () => limit * (1 + 1e-9) - now[t]!.volume_m3,
        'full',
        { id, name },
        () => c.full.add(id),
        { isTold: true },
      );
  });
  for (const [key, { tank, height_m }] of c.mouths) {
    const surface = (): number => now[tank]!.surface_m;
    if (c.drowned.has(key))
      watch(
        () => surface() - over(c, tank, height_m - BACK_M),
        undefined,
        { id: key, name: key },
        () => c.drowned.delete(key),
      );
    else
      watch(
        () => over(c, tank, height_m, BACK_M) - surface(),
        undefined,
        { id: key, name: key },
        () => c.drowned.add(key),
      );
  }
  for (const part of circuits.components) {
    if (part.kind !== 'float-valve') continue;
    const t = tanks.findIndex(({ document }) => document.id === part.tank);
    if (t < 0) continue;
    const closes = part.closesAt_ratio.value * tanks[t]!.gross_m3;
    const back = FLOAT_BACK * tanks[t]!.gross_m3;
    if (c.floats.has(part.id))
      watch(
        () => now[t]!.volume_m3 - closes + back,
        'float-opens',
        part,
        () => c.floats.delete(part.id),
      );
    else
      watch(
        () => closes - now[t]!.volume_m3,
        'float-shuts',
        part,
        () => c.floats.add(part.id),
      );
  }
  watchSwitches(c, watch);
  watchPours(c, watch);
  circuits.consumers.forEach((consumer, place) => {
    const most = takes_m3PerS.get(consumer.id) ?? 0;
    if (most === 0) return;
    const { id, name } = consumer;
    const share = (): number => (c.rates.taken_m3PerS[place]! * c.rates.liquid_ratio[place]!) / most;
    if (c.starving.has(id))
      watch(
        () => FED - share(),
        'fed',
        { id, name },
        () => c.starving.delete(id),
        { needsFlow: true, isTold: true },
      );
    else
      watch(
        () => share() - STARVES,
        'starves',
        { id, name },
        () => c.starving.add(id),
        { needsFlow: true, isTold: true },
      );
    if (consumer.kind === 'nozzle') return;
    const since_s = c.choking.get(id);
    if (since_s === undefined)
      watch(
        () => share() - CHOKES,
        undefined,
        { id, name },
        () => c.choking.set(id, c.t_s),
        { needsFlow: true, isTold: true },
      );
    else {
      watch(
        () => BREATHES - share(),
        undefined,
        { id, name },
        () => c.choking.delete(id),
        { needsFlow: true, isTold: true },
      );
      const stop = (): void => {
        c.stopped.add(id);
        c.choking.delete(id);
      };
      watch(() => since_s + STOPS_S - c.peeked_s, 'stops', { id, name }, stop);
    }
  });
  watchNozzles(c, takes_m3PerS, watch);
  for (const [id, slot] of c.slots.spilt) {
    if (c.spilling.has(id)) continue;
    const name = openingName(c, id);
    watch(
      () => SPILL_M3 * 1000 - c.peeked[slot]!,
      'spills',
      { id, name },
      () => c.spilling.add(id),
      { isTold: true },
    );
  }
  return list;
}

function openingName(c: Watched, id: string): string {
  const ports = c.at.model.tanks.flatMap((tank) => tank.ports);
  return ports.find(({ document }) => document.id === id)?.document.name ?? c.nameOf(id);
}

function watchPickup(c: Watched, t: number, pickup: PickupModel, watch: AddWatch): void {
  const { id, name } = pickup.document;
  const line = c.slots.lines.get(id)!;
  const { now } = c.rates;
  const starves = pickupHeight(c, t, pickup);
  const drawing = c.pickups.get(id)!;
  const slugs = c.slugs.get(id) ?? [];
  const passed = (): number => c.peeked[line.passed]!;
  const held = c.held(id);
  const covered = (): void => {
    c.pickups.set(id, 'clearing');
    const last = slugs.at(-1);
    if (last) last.to_m3 = passed();
  };
  if (drawing === 'liquid' || drawing === 'clearing')
    watch(
      () => now[t]!.surface_m - starves,
      'draws-air',
      { id, name },
      () => {
        c.pickups.set(id, 'air');
        c.slugs.set(id, [...slugs, { from_m3: passed(), to_m3: undefined, isOut: false }]);
      },
    );
  else watch(() => starves + 2 * BACK_M - now[t]!.surface_m, undefined, { id, name }, covered);
  const last = slugs.at(-1);
  if (drawing === 'air' && last) {
    const empty = (): void => {
      c.pickups.set(id, 'empty');
      c.slugs.set(id, [{ ...last, isOut: true }]);
    };
    const share = (): number => c.rates.share.get(id) ?? 0;
    // A line with some liquid among its air goes on; one without has run empty.
    if (last.isOut) watch(() => share() - LEAST_SHARE, 'line-empty', { id, name }, empty, { needsFlow: true });
    else if (slugs.length === 1)
      watch(
        () => last.from_m3 + held - passed(),
        'air-arrives',
        { id, name },
        () => {
          last.isOut = true;
        },
      );
  }
  const first = slugs[0];
  if (!first || drawing === 'empty') return;
  if (!first.isOut && (drawing === 'clearing' || slugs.length > 1))
    watch(
      () => first.from_m3 + held - passed(),
      'air-arrives',
      { id, name },
      () => {
        first.isOut = true;
      },
    );
  const { to_m3 } = first;
  if (first.isOut && to_m3 !== undefined)
    watch(
      () => to_m3 + held - passed(),
      slugs.length === 1 ? 'line-clear' : undefined,
      { id, name },
      () => {
        c.slugs.set(id, slugs.slice(1));
        if (slugs.length === 1) c.pickups.set(id, 'liquid');
      },
    );
}

function watchSwitches(c: Watched, watch: AddWatch): void {
  const { tanks, circuits } = c.at.model;
  const { now } = c.rates;
  for (const { pump, tank, stopsAt_ratio, startsAt_ratio } of c.scenario.switches) {
    const t = tanks.findIndex(({ document }) => document.id === tank);
    const part = c.inputs[0]!.system.components.find(({ id }) => id === pump);
    if (t < 0 || part?.kind !== 'pump') continue;
    const { gross_m3 } = tanks[t]!;
    const way = stopsAt_ratio > startsAt_ratio ? 1 : -1;
    // That it has happened is what sets it.
    const none = (): void => undefined;
    const { name } = circuits.components.find(({ id }) => id === pump)!;
    if (part.running)
      watch(() => way * (stopsAt_ratio * gross_m3 - now[t]!.volume_m3), 'switch-stops', { id: pump, name }, none);
    else watch(() => way * (now[t]!.volume_m3 - startsAt_ratio * gross_m3), 'switch-starts', { id: pump, name }, none);
  }
}

/** Nozzles of the system, held into what belongs to somebody else, until that is full. */
function watchNozzles(c: Watched, takes_m3PerS: ReadonlyMap<string, number>, watch: AddWatch): void {
  for (const { consumer, receivers } of heldInto(c.at.model.circuits)) {
    const { id, name } = consumer;
    if (receivers.length === 0 || c.brimful.has(id) || (takes_m3PerS.get(id) ?? 0) === 0) continue;
    const takes_m3 = receivers.reduce((sum, { takes_m3: each }) => sum + each.value, 0);
    const full_kg = (c.givenBefore_kg.get(id) ?? 0) + takes_m3 * c.density_kgPerM3(id);
    const slot = c.slots.consumers.get(id)!;
    const isAutomatic = consumer.nozzle?.stops !== 'manual';
    watch(
      () => full_kg - c.peeked[slot]!,
      isAutomatic ? 'nozzle-shuts' : 'runs-over',
      isAutomatic ? { id, name } : receivers.at(-1)!,
      () => {
        c.brimful.add(id);
        // What has shut wants nothing more.
        if (isAutomatic) c.starving.delete(id);
      },
    );
  }
}

function watchPours(c: Watched, watch: AddWatch): void {
  const { now } = c.rates;
  const { magnitude_mPerS2 } = c.gravity;
  for (const { pour, tank, port } of c.pouring()) {
    const { flow_m3PerS, volume_m3, inserted_m, stops } = c.scenario.pours[pour]!;
    const { id, name, bore_m, length_m, drop_m } = port.document;
    const fluid = c.inputs[tank]!.fluid;
    const weight = fluid.density_kgPerM3 * magnitude_mPerS2;
    const top = c.height(tank, neckPoint(port, 0));
    const mouth = c.height(tank, mouthPoint(port));
    const tip = Math.max(c.height(tank, neckPoint(port, inserted_m)), mouth);
    // From the spout down: over the liquid only its walls hold it back, and it falls; under it, it has to push in.
    const below_m = Math.max(0, length_m.value + (drop_m?.value ?? 0) - inserted_m);
    const loss_m = (exits: number): number => neckLoss_Pa(bore_m.value, below_m, flow_m3PerS, exits, fluid) / weight;
    const [falling_m, pushing_m] = [loss_m(0), loss_m(1)];
    /** How high liquid stands in the neck: pushed up by the gas that cannot get out, and by what flows in. */
    const stands = (): number => {
      const { surface_m, gauge_Pa } = now[tank]!;
      return c.covered.has(id)
        ? Math.max(surface_m, mouth) + gauge_Pa / weight + pushing_m
        : mouth + falling_m - SPOUT_SLACK_M;
    };
    const end = (): void => void c.poursDone.add(pour);
    const slot = c.slots.poured[pour]!;
    const all_kg = volume_m3 * fluid.density_kgPerM3;
    watch(() => all_kg - c.peeked[slot]!, 'poured', { id, name }, end);
    if (stops === 'automatic') watch(() => tip - stands(), 'clicks-off', { id, name }, end);
    else watch(() => Math.max(top, tip) - stands(), 'neck-full', { id, name }, end);
  }
}
