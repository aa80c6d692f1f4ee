import { fluidState, type FluidState } from '../../fluids';
import { effectiveGravity, toTankFrame, type EffectiveGravity, type Vec3 } from '../../geometry';
import { burnOf_m3PerS } from '../../model/burn';
import { outletNode, type FlowInputs } from '../../model/networkParts';
import { roomOf } from '../../model/necks';
import { isShutByFloat, isShutByLean } from '../../model/vents';
import type { PortModel } from '../../model/compileTank';
import type { NetworkCode } from '../../network';
import { failure, success, type Outcome } from '../../outcome';
import { endKey, feedPath, fluidAt } from '../../plan/circuits';
import { heldInto } from '../../plan/filled';
import type { ConsumerDocument } from '../../plan/schema';
import type { Scenario } from '../../plan/schemaScenario';
import { withPositions } from '../../state';
import { keptLevelCurve } from '../../tank';
import { degrees, radians } from '../../units';
import type { At } from '../at';
import { linesAfter, type LineAfter } from './lineVolumes';
import type { Drawing, Stretch } from './net';
import { heightIn, mouthsOf, netsOf, type Mouth } from './nets';
import { GAS, GAS_J_PER_MOL_K, LEAST_GAS, LIQUID, Rates, slotOf, VAPOUR, type Slots } from './rates';
import { positionsAt } from './positionsAt';
import { courseOf, holdsAt } from './schedule';
import type { EventKind, Sample, TimeEvent } from './played';
import { BACK_M, EMPTY_M, FILM_M, isVent, pickupHeight, ventHeight, watchesOf, type Slug, type Watch } from './watches';

/** So near below its limit a tank begins as full. */
const FULL_SLACK = 1e-6;
/** The least that a line is taken to hold [m³]. */
const LEAST_LINE_M3 = 1e-7;

export type CourseCode = NetworkCode | 'weightless';

/** A scenario as it goes on: its state, and how all stands that changes in steps. */
export class Course {
  t_s = 0;
  y: Float64Array;
  rates!: Rates;
  isTimed = false;
  readonly slots: Slots;
  readonly events: TimeEvent[] = [];
  /** What each tank can hold of liquid, and of gas. */
  readonly most: readonly { readonly mass_kg: number; readonly gas_mol: number }[];
  readonly pitchBefore_deg: number;
  readonly rollBefore_deg: number;

  private readonly pitch: (t_s: number) => number;
  private readonly roll: (t_s: number) => number;
  private readonly temperature: (t_s: number) => number;
  gravity!: EffectiveGravity;
  private ups!: readonly Vec3[];
  inputs!: readonly FlowInputs[];
  private after!: ReadonlyMap<string, LineAfter>;
  mouths!: ReadonlyMap<string, Mouth>;
  private watching: readonly Watch[] = [];
  private isStale = true;

  readonly covered = new Set<string>();
  private shut: ReadonlySet<string> = new Set();
  readonly drowned = new Set<string>();
  readonly pickups = new Map<string, Drawing>();
  readonly slugs = new Map<string, Slug[]>();
  readonly floats = new Set<string>();
  readonly starving = new Set<string>();
  /** Consumers that get next to nothing, since when; and those that have stopped for it. */
  readonly choking = new Map<string, number>();
  readonly stopped = new Set<string>();
  readonly spilling = new Set<string>();
  readonly full = new Set<string>();
  readonly poursDone = new Set<number>();
  /** Nozzles of the system: what each has given when what it is held into was empty [kg]; those that have filled it. */
  readonly givenBefore_kg = new Map<string, number>();
  readonly brimful = new Set<string>();
  private readonly links = new Map<string, readonly [net: number, link: number]>();

  constructor(
    readonly at: At,
    readonly scenario: Scenario,
  ) {
    const { model, state } = at;
    this.pitchBefore_deg = degrees(state.attitude.pitch_rad);
    this.rollBefore_deg = degrees(state.attitude.roll_rad);
    this.pitch = courseOf(scenario.slopes, ({ pitch_deg }) => pitch_deg, this.pitchBefore_deg);
    this.roll = courseOf(scenario.slopes, ({ roll_deg }) => roll_deg, this.rollBefore_deg);
    this.temperature = courseOf(scenario.temperatures, ({ temperature_K }) => temperature_K, state.fuelTemperature_K);
    const begin_K = this.temperature(0);
    this.slots = slotsOf(at, scenario);
    this.y = new Float64Array(this.slots.size);
    this.most = model.tanks.map((tank, t) => {
      const { gross_m3 } = tank;
      const room_m3 = roomOf(tank).gross_m3;
      const { density_kgPerM3, vapourPressureAbs_Pa } = this.fluid(t, begin_K);
      const { id } = model.tanks[t]!.document;
      const fill = scenario.fills.find(({ tank }) => tank === id)?.fill_ratio;
      const said_m3 = fill === undefined ? state.liquid_m3[id]! : fill * gross_m3;
      const volume_m3 = Math.min(said_m3, (1 - LEAST_GAS) * room_m3);
      const gas_m3 = room_m3 - volume_m3;
      const perVolume = 1 / (GAS_J_PER_MOL_K * begin_K);
      this.y[slotOf(t, LIQUID)] = volume_m3 * density_kgPerM3;
      this.y[slotOf(t, GAS)] = state.ambientAbs_Pa * gas_m3 * perVolume;
      // It has stood: the air over it has its vapour.
      this.y[slotOf(t, VAPOUR)] = Math.min(0.95 * state.ambientAbs_Pa, vapourPressureAbs_Pa) * gas_m3 * perVolume;
      return { mass_kg: gross_m3 * density_kgPerM3, gas_mol: state.ambientAbs_Pa * gross_m3 * perVolume };
    });
  }

  /** Of what comes to a part or out of a port, as it was at the beginning [kg/m³]. */
  readonly density_kgPerM3 = (id: string): number => {
    const { tanks, circuits } = this.at.model;
    const source = feedPath(circuits, id).at(-1);
    const own = tanks.findIndex((tank) =>
      [...tank.ports, ...tank.pickups].some(({ document }) => document.id === id || document.id === source),
    );
    const fluid = fluidAt(circuits, id);
    const alike = tanks.findIndex(({ batch }) => batch.key === fluid);
    return this.fluid(Math.max(0, own >= 0 ? own : alike), this.temperature(0)).density_kgPerM3;
  };

  private fluid(tank: number, temperature_K: number): FluidState {
    const state = fluidState(this.at.model.tanks[tank]!.batch, temperature_K);
    if (!state.ok) throw new RangeError(state.error.detail);
    return state.value;
  }

  /** Sets all that the scenario has at the moment where the course stands. */
  set(): Outcome<undefined, CourseCode> {
    const { model, state } = this.at;
    const { scenario, t_s } = this;
    const gravity = effectiveGravity({
      pitch_rad: radians(this.pitch(this.t_s)),
      roll_rad: radians(this.roll(this.t_s)),
      acceleration_mPerS2: state.attitude.acceleration_mPerS2,
    });
    if (!gravity.ok) return gravity;
    this.gravity = gravity.value;
    this.ups = model.tanks.map(({ mounting }) => toTankFrame(gravity.value.up, mounting));
    const next = scenario.temperatures.find(({ at_s }) => at_s > t_s);
    this.isTimed = next !== undefined;
    for (const { at_s, part } of scenario.sets)
      if (at_s === t_s) {
        this.note('set', part, this.nameOf(part));
      }
    // Whoever sets how hard engines work has started again what had stopped.
    if (scenario.duties.some(({ at_s }) => at_s === t_s)) {
      this.stopped.clear();
      this.choking.clear();
      // What a nozzle has filled is taken away, and something empty is there.
      for (const id of this.brimful) this.givenBefore_kg.set(id, this.y[this.slots.consumers.get(id)!]!);
      this.brimful.clear();
      // Begun anew, or off: what was short of fuel is looked at afresh.
      for (const id of this.starving) this.note('set', id, this.nameOf(id));
      this.starving.clear();
    }
    this.isStale = true;
    return success(undefined);
  }

  /** Makes what hangs on how things stand ready, where something has changed; and works the moment out. */
  work(): Outcome<undefined, CourseCode> {
    if (this.isStale) {
      const made = this.remake();
      if (!made.ok) return made;
      this.isStale = false;
    }
    this.peek(this.t_s, this.y, true);
    const { fault } = this.rates;
    return fault ? failure(fault.code, fault.at, fault.detail) : success(undefined);
  }

  private remake(): Outcome<undefined, CourseCode> {
    const { model, state } = this.at;
    const temperature_K = this.temperature(this.t_s);
    const moved = positionsAt(this.scenario, this.events, model.circuits, this.t_s);
    const system = this.clogged(withPositions(model.circuits, { ...state.positions, ...moved }));
    const duty = holdsAt(this.scenario.duties, this.t_s);
    const duty_ratio = duty?.duty_ratio ?? state.duty_ratio;
    const supply_V = holdsAt(this.scenario.volts, this.t_s)?.supply_V ?? state.supply_V;
    const curves = model.tanks.map((tank, t) => keptLevelCurve(roomOf(tank).mesh, this.ups[t]!));
    const levels = model.tanks.map((tank, t) => ({
      tank,
      volume_m3: 0,
      offset_m: curves[t]!.lowest_m,
      up: this.ups[t]!,
    }));
    const flow = {
      gravity: this.gravity,
      ambientAbs_Pa: state.ambientAbs_Pa,
      fuelTemperature_K: temperature_K,
      duty_ratio,
      supply_V,
    };
    const stuck = this.openings('stuck');
    const fluids = new Map<string, FluidState>();
    this.inputs = model.tanks.map(({ document: { fluid } }, t): FlowInputs => {
      const own = fluids.get(fluid) ?? this.fluid(t, temperature_K);
      fluids.set(fluid, own);
      return { system, state: flow, levels, fluid: own, stuck };
    });
    const [inputs] = this.inputs as [FlowInputs];
    this.after = linesAfter(inputs);
    this.mouths = mouthsOf(inputs);
    const bases_m = model.tanks.map((tank, t) =>
      heightIn(tank, { tank: this.ups[t]!, vehicle: this.gravity.up }, [0, 0, 0]),
    );
    if (this.rates === undefined)
      this.begin(
        curves.map((curve, t) => bases_m[t]! + curve.surface_m(this.volume(t))),
        curves.map(({ lowest_m }, t) => bases_m[t]! + lowest_m),
      );
    const runs = duty?.runs ?? true;
    const returns = new Set(system.lines.flatMap(({ from, to }) => [endKey(from), endKey(to)]));
    const takes_m3PerS = new Map(
      system.consumers.map((consumer) => [
        consumer.id,
        !runs || this.stopped.has(consumer.id) || this.isShut(consumer)
          ? 0
          : consumer.kind === 'nozzle' || returns.has(outletNode(consumer.id))
            ? consumer.neededFlow_m3PerS.value
            : burnOf_m3PerS(consumer, duty_ratio),
      ]),
    );
    const shut = this.shutVents(stuck);
    const stretch: Stretch = {
      inputs: this.inputs,
      covered: this.covered,
      drowned: this.drowned,
      pickups: this.pickups,
      floats: this.floats,
      blocked: new Set([...this.openings('blocked'), ...shut]),
      uncapped: this.uncapped(),
      takes_m3PerS,
      over: this.over(),
      blows: runs,
      damps_PaSPerM3: new Float64Array(model.tanks.length),
    };
    const nets = netsOf(stretch);
    if (!nets.ok) return nets;
    this.links.clear();
    nets.value.forEach((net, n) => net.joined.forEach(({ link }, l) => this.links.set(link.id, [n, l])));
    const airing = new Set([...this.slugs].flatMap(([pickup, slugs]) => (slugs[0]?.isOut ? [pickup] : [])));
    this.rates = new Rates({
      slots: this.slots,
      tanks: model.tanks,
      curves,
      bases_m,
      temperature_K: this.temperature,
      ambientAbs_Pa: state.ambientAbs_Pa,
      vapourLag_s: this.scenario.vapourLag_s,
      nets: nets.value,
      damps_PaSPerM3: stretch.damps_PaSPerM3,
      consumers: system.consumers,
      duty_ratio,
      airing,
      pours: this.pouring().map(({ pour, tank }) => ({
        pour,
        tank,
        flow_m3PerS: this.scenario.pours[pour]!.flow_m3PerS,
      })),
    });
    this.takes_m3PerS = takes_m3PerS;
    this.watching = watchesOf(this, takes_m3PerS);
    this.made++;
    return success(undefined);
  }
  private takes_m3PerS: ReadonlyMap<string, number> = new Map();
  /** How often what flows has been laid out anew. */ made = 0;

  /** True of a nozzle that has shut by itself. */
  private isShut({ id, nozzle }: ConsumerDocument): boolean {
    return this.brimful.has(id) && nozzle?.stops !== 'manual';
  }

  /** Nozzles that nobody has shut though what they are held into is full, each with that. */
  private over(): Map<string, string> {
    return new Map(
      heldInto(this.at.model.circuits).flatMap(({ consumer, receivers }) => {
        const last = receivers.at(-1);
        return last && this.brimful.has(consumer.id) ? [[consumer.id, last.id] as const] : [];
      }),
    );
  }

  /** How pickups, vents and mouths stand at the beginning: that is nothing that happens. */
  private begin(surfaces_m: readonly number[], lowest_m: readonly number[]): void {
    const { tanks, circuits } = this.at.model;
    tanks.forEach((tank, t) => {
      const surface = surfaces_m[t]!;
      for (const port of tank.ports)
        if (isVent(port) && surface >= Math.max(ventHeight(this, t, port) - FILM_M, lowest_m[t]! + EMPTY_M + BACK_M))
          this.covered.add(port.document.id);
      for (const pickup of tank.pickups) {
        const starved = surface <= pickupHeight(this, t, pickup);
        // What has stood so has air in its line.
        this.pickups.set(pickup.document.id, starved ? 'empty' : 'liquid');
        if (starved)
          this.slugs.set(pickup.document.id, [
            { from_m3: -this.held(pickup.document.id), to_m3: undefined, isOut: true },
          ]);
      }
    });
    for (const [t, { document, gross_m3 }] of tanks.entries())
      if (this.volume(t) > document.fillLimit_ratio.value * gross_m3 * (1 - FULL_SLACK)) this.full.add(document.id);
    for (const [key, { tank, height_m }] of this.mouths)
      if (surfaces_m[tank]! >= Math.max(height_m, lowest_m[tank]! + EMPTY_M + BACK_M)) this.drowned.add(key);
    for (const part of circuits.components)
      if (part.kind === 'float-valve') {
        const t = tanks.findIndex(({ document }) => document.id === part.tank);
        if (t >= 0 && this.volume(t) >= part.closesAt_ratio.value * tanks[t]!.gross_m3) this.floats.add(part.id);
      }
  }

  private volume(t: number): number {
    return this.y[slotOf(t, LIQUID)]! / this.fluid(t, this.temperature(this.t_s)).density_kgPerM3;
  }

  readonly held = (pickup: string): number => Math.max(LEAST_LINE_M3, this.after.get(pickup)?.volume_m3 ?? 0);

  readonly height = (t: number, point_m: Vec3): number =>
    heightIn(this.at.model.tanks[t]!, { tank: this.ups[t]!, vehicle: this.gravity.up }, point_m);

  /** The circuits with filters as dirty as the scenario has them by now. */
  private clogged<C extends Pick<At['model']['circuits'], 'components'>>(circuits: C): C {
    const dirt = new Map(
      this.scenario.filters.flatMap(({ at_s, part, dirt_ratio }) => (at_s <= this.t_s ? [[part, dirt_ratio]] : [])),
    );
    if (dirt.size === 0) return circuits;
    const components = circuits.components.map((part) => {
      const value = dirt.get(part.id);
      return part.kind === 'filter' && value !== undefined
        ? { ...part, dirt_ratio: { ...part.dirt_ratio, value } }
        : part;
    });
    return { ...circuits, components };
  }

  /** Vents that the scenario has standing so: blocked, or with a valve that sticks open. */
  private openings(how: 'blocked' | 'stuck'): Set<string> {
    const found = new Set<string>();
    for (const { at_s, port, stands } of this.scenario.openings) {
      if (at_s > this.t_s) continue;
      if (stands === how) found.add(port);
      else found.delete(port);
    }
    return found;
  }

  /** Vents that their own valves shut as things stand, by leaning or by a float; what has changed in that is told. */
  private shutVents(stuck: ReadonlySet<string>): Set<string> {
    const shut = new Set<string>();
    for (const { ports } of this.at.model.tanks)
      for (const { document } of ports) {
        const { id, name, role, shutOff } = document;
        if (role !== 'vent' || !shutOff) continue;
        const isShut =
          !stuck.has(id) &&
          (isShutByLean(document, this.gravity.up) || (isShutByFloat(document) && this.covered.has(id)));
        if (isShut) shut.add(id);
        if (isShut !== this.shut.has(id)) this.note(isShut ? 'vent-shuts' : 'vent-opens', id, name);
      }
    this.shut = shut;
    return shut;
  }

  /** Fillers without a cap, each with the spout that stands in it. */
  private uncapped(): Map<string, number> {
    const off = new Map<string, number>();
    for (const { at_s, port, stands } of this.scenario.openings) {
      if (at_s > this.t_s) continue;
      if (stands === 'off') off.set(port, 0);
      if (stands === 'on') off.delete(port);
    }
    for (const { pour } of this.pouring()) {
      const { port, spout_m } = this.scenario.pours[pour]!;
      off.set(port, spout_m);
    }
    return off;
  }

  readonly pouring = (): { readonly pour: number; readonly tank: number; readonly port: PortModel }[] =>
    this.scenario.pours.flatMap(({ at_s, port: id }, pour) => {
      if (at_s > this.t_s || this.poursDone.has(pour)) return [];
      return this.at.model.tanks.flatMap((tank, t) => {
        const port = tank.ports.find(({ document }) => document.id === id);
        return port ? [{ pour, tank: t, port }] : [];
      });
    });

  /** Where the course now stands. */
  goTo(t_s: number, y: Float64Array): void {
    this.t_s = t_s;
    this.y = y.slice();
    this.peek(t_s, this.y, true);
  }

  /** Looks at another moment, near by, without going there. */
  peek(t_s: number, y: Float64Array, needsFlow: boolean): void {
    this.peeked = y;
    this.peeked_s = t_s;
    if (needsFlow) this.rates.rates(t_s, y, this.unused);
    else this.rates.look(t_s, y);
  }
  peeked: Float64Array = new Float64Array(0);
  peeked_s = 0;
  private get unused(): Float64Array {
    return (this.room ??= new Float64Array(this.slots.size));
  }
  private room: Float64Array | undefined;

  watches(): readonly Watch[] {
    return this.watching;
  }

  happen(watch: Watch): Outcome<undefined, CourseCode> {
    watch.then();
    if (watch.kind) this.note(watch.kind, watch.of, watch.name);
    if (watch.isTold) this.watching = watchesOf(this, this.takes_m3PerS);
    else this.isStale = true;
    return success(undefined);
  }

  private note(kind: EventKind, of: string, name: string): void {
    this.events.push({ t_s: this.t_s, kind, of, name });
  }

  lastWords(): string {
    const last = this.events.at(-1);
    return last ? `${last.name}, ${last.kind} at ${last.t_s.toFixed(1)} s` : 'nothing has happened yet';
  }

  readonly nameOf = (id: string): string => {
    const { components, consumers } = this.at.model.circuits;
    return [...components, ...consumers].find((each) => each.id === id)?.name ?? id;
  };

  /** How it all stands now. */
  sample(): Sample {
    const { circuits } = this.at.model;
    const { now, flows, taken_m3PerS } = this.rates;
    return {
      t_s: this.t_s,
      pitch_deg: this.pitch(this.t_s),
      roll_deg: this.roll(this.t_s),
      temperature_K: this.temperature(this.t_s),
      tanks: now.map(({ volume_m3, gauge_Pa, surface_m }, t) => ({
        volume_m3,
        gauge_Pa,
        offset_m: surface_m - this.rates.setting.bases_m[t]!,
      })),
      lines_m3PerS: circuits.lines.map(({ id }) => {
        const at = this.links.get(id);
        return at ? flows[at[0]]![at[1]]! : 0;
      }),
      consumers_m3PerS: circuits.consumers.map((_, c) => taken_m3PerS[c]! * this.rates.liquid_ratio[c]!),
    };
  }
}

function slotsOf({ model }: At, { pours }: Scenario): Slots {
  const { tanks, circuits } = model;
  let size = 3 * tanks.length;
  const next = (): number => size++;
  const ports = tanks.flatMap((tank) => tank.ports.filter(isVent).map(({ document }) => document.id));
  const consumers = new Map(circuits.consumers.map(({ id }) => [id, next()]));
  const spilt = new Map([...ports, ...circuits.components.map(({ id }) => id)].map((id) => [id, next()]));
  const lines = new Map(
    tanks.flatMap((tank) =>
      tank.pickups.map(({ document }) => [document.id, { liquid: next(), gas: next(), passed: next() }] as const),
    ),
  );
  return {
    tanks: tanks.length,
    consumers,
    spilt,
    lines,
    outside: next(),
    evaporated: next(),
    blown: next(),
    swallowed: next(),
    poured: pours.map(next),
    size,
  };
}
