import { BULK } from '../../reference/bulk';
import { densityAt, fluidState, type FluidState } from '../../fluids';
import { success, type Outcome } from '../../outcome';
import type { TankModel } from '../../model/compileTank';
import { solveGraph, solveRegulated, type NetworkCode, type RegulatedSolution } from '../../network';
import { returned_m3PerS } from '../../model/networkParts';
import { burnOf_m3PerS } from '../../model/burn';
import type { ConsumerDocument } from '../../plan/schema';
import { FLUIDS } from '../../reference/fluids';
import type { LevelCurve } from '../../tank';
import { conductance } from './conductance';
import { flowThrough } from './through';
import type { End, Net } from './net';

/** Of a mole of gas [J/(mol K)]: the exact value of the SI of 2019. */
export const GAS_J_PER_MOL_K = 8.31446261815324;
/**
 * Where liquid leaves no more room for gas than this share of its tank it is full: gas is reckoned as if it had so
 * much, as bubbles in corners and walls that give are, and liquid is pressed.
 */
export const LEAST_GAS = 1e-4;
/**
 * Through a port under liquid gas does not find its pressure quicker than this: holes are taken to be so much tighter.
 * It is 20 Pa at 1 L/s with 10 L of gas, less than what a bubble that breaks takes; and with hardly any gas left no
 * more than with this share of its tank.
 */
const [QUICKEST_S, LEAST_DAMPED] = [2e-3, 5e-3];
/** A flow to begin with where there is none of before. */
const START_M3_PER_S = 1e-6;
/** Turns after which what consumers send back, and what air is in what, is taken as it is. */
const [SEND_TURNS, SIP_TURNS] = [20, 4];
/** Of fuel; a tank's walls give more. */
const BULK_PA = BULK.modulus_Pa;

/** Where each value of the state stands: liquid, gas and vapour of each tank first, then what has gone where. */
export type Slots = {
  readonly size: number;
  readonly tanks: number;
  readonly consumers: ReadonlyMap<string, number>;
  /** Out of vents, fillers and open ends [kg]. */ readonly spilt: ReadonlyMap<string, number>;
  /** By pickup: liquid that its line has more than at the beginning [kg], gas in it [mol], what has passed it [m³]. */
  readonly lines: ReadonlyMap<string, { readonly liquid: number; readonly gas: number; readonly passed: number }>;
  /** Gas that has gone out, less what has come in [mol]. */ readonly outside: number;
  readonly evaporated: number;
  readonly blown: number;
  /** Gas that consumers took with the liquid [mol]. */ readonly swallowed: number;
  /** By pour [kg]. */ readonly poured: readonly number[];
};

export const LIQUID = 0;
export const GAS = 1;
export const VAPOUR = 2;
/** Where a value of a tank stands. */
export const slotOf = (tank: number, what: typeof LIQUID | typeof GAS | typeof VAPOUR): number => 3 * tank + what;

/** What a tank is at a moment. */
export type TankNow = {
  volume_m3: number;
  density_kgPerM3: number;
  /** Of the surface, over the vehicle's datum against effective gravity. */ surface_m: number;
  gas_m3: number;
  abs_Pa: number;
  gauge_Pa: number;
};

/** All that rates follow from, beside the state, in a stretch. */
export type Setting = {
  readonly slots: Slots;
  readonly tanks: readonly TankModel[];
  readonly curves: readonly LevelCurve[];
  /** Of each tank's origin, over the vehicle's datum. */ readonly bases_m: readonly number[];
  readonly temperature_K: (t_s: number) => number;
  readonly ambientAbs_Pa: number;
  readonly vapourLag_s: number;
  readonly nets: readonly Net[];
  /** What the nets' laws look up. */ readonly damps_PaSPerM3: Float64Array;
  readonly consumers: readonly ConsumerDocument[];
  readonly duty_ratio: number;
  /** Pickups whose air has come to the far end of their lines. */
  readonly airing: ReadonlySet<string>;
  readonly pours: readonly { readonly pour: number; readonly tank: number; readonly flow_m3PerS: number }[];
};

/** Why the flow at a moment could not be worked out. */
export type FlowFault = { readonly code: NetworkCode; readonly at: string; readonly detail: string };

/** What stood at the last moment that was looked at. */
export class Rates {
  readonly now: TankNow[];
  /** By net: flow of each link [m³/s]; of air as at the pressure outside. */
  readonly flows: (Float64Array | undefined)[];
  /** By net: how its regulators stand. */
  private readonly regulators: Pick<RegulatedSolution, 'regulators' | 'able' | 'cut'>[];
  /** Of each consumer, what comes to it [m³/s]. */
  readonly taken_m3PerS: Float64Array;
  /** What each sends back [m³/s]. */ private readonly sends_m3PerS: Float64Array;
  /** Of what is taken, the share that is liquid. */ readonly liquid_ratio: Float64Array;
  /** Of what a pickup draws that the surface has come down to, the share that is liquid: what comes to its tank. */
  readonly share = new Map<string, number>();
  fault: FlowFault | undefined;
  solutions = 0;
  /** Nets by how many take something out of them, the most first. */ private readonly order: readonly number[];
  /** By net: the tanks that it ends in. */ private readonly tanksOf: readonly (readonly number[])[];
  /** Gas that leaves each tank. */
  private readonly leaving_molPerS: Float64Array;
  private readonly unused: Float64Array;
  private readonly given: Float64Array[];
  private known: { temperature_K: number; states: FluidState[] } | undefined;

  constructor(readonly setting: Setting) {
    this.now = setting.tanks.map(() => ({
      volume_m3: 0,
      density_kgPerM3: 1,
      surface_m: 0,
      gas_m3: 0,
      abs_Pa: 0,
      gauge_Pa: 0,
    }));
    const takers = (n: number): number => setting.nets[n]!.takers.length;
    this.order = [...setting.nets.keys()].sort((a, b) => takers(b) - takers(a));
    this.tanksOf = setting.nets.map(({ ends }) => [
      ...new Set(ends.flatMap(({ place }) => ('tank' in place ? [place.tank] : []))),
    ]);
    this.leaving_molPerS = new Float64Array(setting.tanks.length);
    this.unused = new Float64Array(setting.slots.size);
    this.last = new Float64Array(setting.slots.size);
    this.lastOut = new Float64Array(setting.slots.size);
    this.flows = setting.nets.map(() => undefined);
    this.regulators = setting.nets.map(() => ({ regulators: new Map(), able: new Set(), cut: undefined }));
    this.given = setting.nets.map(({ ends }) => new Float64Array(ends.length).fill(NaN));
    this.taken_m3PerS = new Float64Array(setting.consumers.length);
    this.sends_m3PerS = Float64Array.from(setting.consumers, returned_m3PerS);
    this.liquid_ratio = new Float64Array(setting.consumers.length);
  }

  private statesAt(temperature_K: number): FluidState[] {
    if (this.known?.temperature_K !== temperature_K)
      this.known = {
        temperature_K,
        states: this.setting.tanks.map(({ batch }) => {
          const state = fluidState(batch, temperature_K);
          // Temperatures of a scenario lie where fluids have properties.
          if (!state.ok) throw new RangeError(state.error.detail);
          return state.value;
        }),
      };
    return this.known!.states;
  }

  /** Tanks as a state has them; nothing of flow. */
  look(t_s: number, y: Float64Array): readonly TankNow[] {
    const { tanks, curves, bases_m, ambientAbs_Pa } = this.setting;
    const temperature_K = this.setting.temperature_K(t_s);
    this.last_s = NaN;
    for (const [t, now] of this.now.entries()) {
      const { batch } = tanks[t]!;
      const { gross_m3 } = curves[t]!;
      now.density_kgPerM3 = densityAt(FLUIDS[batch.key].density, temperature_K, batch.density15_kgPerM3);
      now.volume_m3 = y[slotOf(t, LIQUID)]! / now.density_kgPerM3;
      now.surface_m = bases_m[t]! + curves[t]!.surface_m(now.volume_m3);
      now.gas_m3 = Math.max(gross_m3 - now.volume_m3, LEAST_GAS * gross_m3);
      now.abs_Pa = (y[slotOf(t, GAS)]! * GAS_J_PER_MOL_K * temperature_K) / now.gas_m3;
      const over_m3 = now.volume_m3 - (1 - LEAST_GAS) * gross_m3;
      if (over_m3 > 0) now.abs_Pa += (BULK_PA * over_m3) / gross_m3;
      now.gauge_Pa = now.abs_Pa - ambientAbs_Pa;
      this.setting.damps_PaSPerM3[t] = (QUICKEST_S * ambientAbs_Pa) / Math.max(now.gas_m3, LEAST_DAMPED * gross_m3);
    }
    return this.now;
  }

  /** Whether rates were worked out last just there. */
  private isAt(t_s: number, y: Float64Array): boolean {
    return t_s === this.last_s && y.every((value, n) => value === this.last[n]);
  }
  private last_s = NaN;
  private readonly last: Float64Array;
  private readonly lastOut: Float64Array;

  /** Puts the rates of a state into `out`; not numbers where the flow cannot be worked out. */
  rates(t_s: number, y: Float64Array, out: Float64Array): void {
    if (this.isAt(t_s, y)) return void out.set(this.lastOut);
    this.look(t_s, y);
    this.workOut(t_s, y, out);
    this.last_s = t_s;
    this.last.set(y);
    this.lastOut.set(out);
  }

  private workOut(t_s: number, y: Float64Array, out: Float64Array): void {
    const { setting } = this;
    this.fault = undefined;
    this.taken_m3PerS.fill(0);
    this.leaving_molPerS.fill(0);
    const temperature_K = setting.temperature_K(t_s);
    if (!this.solveAll()) {
      out.fill(NaN);
      return;
    }
    this.share.clear();
    const sips = setting.nets.some(({ ends }) => ends.some(({ account }) => account.of === 'line'));
    // What comes to a tank may itself have air in it that comes of another: looked at anew until it is known.
    for (let turn = 0; turn < (sips ? SIP_TURNS : 1); turn++) {
      out.fill(0);
      this.leaving_molPerS.fill(0);
      for (const [n, net] of setting.nets.entries()) {
        this.book(net, this.flows[n]!, this.flows[n]!, temperature_K, y, out);
        this.bookGiven(net, temperature_K, out);
      }
      for (const { pour, tank, flow_m3PerS } of setting.pours) {
        const kg = flow_m3PerS * this.now[tank]!.density_kgPerM3;
        out[slotOf(tank, LIQUID)]! += kg;
        out[setting.slots.poured[pour]!]! += kg;
      }
      if (sips)
        for (const [n, net] of setting.nets.entries()) this.bookSips(net, this.flows[n]!, temperature_K, y, out);
    }
    for (const [n, net] of setting.nets.entries()) {
      const liquid_ratio = this.aeration(net, this.flows[n]!)?.liquid_ratio ?? 1;
      for (const { consumer } of net.takers) this.liquid_ratio[consumer] = liquid_ratio;
    }
    const states = this.statesAt(temperature_K);
    for (const [t, now] of this.now.entries()) {
      const saturated = (states[t]!.vapourPressureAbs_Pa * now.gas_m3) / (GAS_J_PER_MOL_K * temperature_K);
      const comes = (saturated - y[slotOf(t, VAPOUR)]!) / setting.vapourLag_s;
      out[slotOf(t, GAS)]! += comes;
      out[slotOf(t, VAPOUR)]! += comes;
      out[setting.slots.evaporated]! += comes;
    }
  }

  /**
   * Slopes of all rates over liquid, gas and vapour of each tank, and over time as it warms: of each net from its laws'
   * slopes, of each tank from its surface and its gas.
   */
  slopes(t_s: number, y: Float64Array, columns: readonly Float64Array[], timed: Float64Array): void {
    const { setting } = this;
    this.rates(t_s, y, this.unused);
    const leaving = this.leaving_molPerS.slice();
    for (const column of columns) column.fill(0);
    const temperature_K = setting.temperature_K(t_s);
    const perMol = GAS_J_PER_MOL_K * temperature_K;
    const warms_KPerS = (setting.temperature_K(t_s + WARM_S) - setting.temperature_K(t_s)) / WARM_S;
    for (const [n, net] of setting.nets.entries()) {
      const moved = this.tanksOf[n]!;
      if (moved.length === 0 || !this.flows[n]) continue;
      const conducts = conductance(net, this.flows[n]!, this.regulators[n]!.regulators);
      for (const tank of moved) {
        const { gas_m3, abs_Pa, density_kgPerM3, volume_m3, surface_m } = this.now[tank]!;
        const lifts_mPerKg = 1 / (density_kgPerM3 * Math.max(1e-9, setting.curves[tank]!.area_m2(volume_m3)));
        const { gross_m3 } = setting.curves[tank]!;
        const isBrimful = volume_m3 > (1 - LEAST_GAS) * gross_m3;
        const squeezes_PaPerKg = (isBrimful ? BULK_PA / gross_m3 : abs_Pa / gas_m3) / density_kgPerM3;
        // As it warms its liquid swells as if so much more came to it.
        const swells_kgPerS =
          warms_KPerS * this.statesAt(temperature_K)[tank]!.expansion_perK * y[slotOf(tank, LIQUID)]!;
        const heats_PaPerS = (y[slotOf(tank, GAS)]! * GAS_J_PER_MOL_K * warms_KPerS) / gas_m3;
        const overPressure = new Float64Array(net.nodes.length);
        const overSurface = new Float64Array(net.nodes.length);
        for (const { node, place } of net.ends) {
          if (!('tank' in place) || place.tank !== tank) continue;
          const isOver = 'height_m' in place && surface_m <= place.height_m;
          const perMetre = place.at === 'under' ? density_kgPerM3 * this.gravity_mPerS2 : net.weight_PaPerM;
          overPressure[node] = 1;
          overSurface[node] = place.at === 'ullage' || place.at === 'gas' || isOver ? 0 : perMetre;
        }
        const byPressure = conducts(overPressure);
        const bySurface = overSurface.some((each) => each !== 0) ? conducts(overSurface) : undefined;
        const moves = new Float64Array(byPressure.length);
        for (const [column, pressure_Pa, rises_m] of [
          [columns[slotOf(tank, LIQUID)]!, squeezes_PaPerKg, lifts_mPerKg],
          [columns[slotOf(tank, GAS)]!, perMol / gas_m3, 0],
          ...(warms_KPerS === 0
            ? []
            : [[timed, squeezes_PaPerKg * swells_kgPerS + heats_PaPerS, lifts_mPerKg * swells_kgPerS] as const]),
        ] as const) {
          for (let l = 0; l < moves.length; l++)
            moves[l] = byPressure[l]! * pressure_Pa + (bySurface ? bySurface[l]! * rises_m : 0);
          this.book(net, moves, this.flows[n]!, temperature_K, y, column);
          this.bookShares(net, moves, temperature_K, column);
        }
      }
    }
    // What is booked of changes is nothing that leaves.
    this.leaving_molPerS.set(leaving);
    const states = this.statesAt(temperature_K);
    for (const [t, { density_kgPerM3 }] of this.now.entries()) {
      const lag = setting.vapourLag_s;
      const booked = (column: Float64Array, rate: number): void => {
        for (const slot of [slotOf(t, GAS), slotOf(t, VAPOUR), setting.slots.evaporated]) column[slot]! += rate;
      };
      booked(columns[slotOf(t, LIQUID)]!, -states[t]!.vapourPressureAbs_Pa / (perMol * lag * density_kgPerM3));
      booked(columns[slotOf(t, VAPOUR)]!, -1 / lag);
      if (warms_KPerS !== 0) {
        const warmer = this.statesAt(temperature_K + 1)[t]!.vapourPressureAbs_Pa / (perMol + GAS_J_PER_MOL_K);
        const now = states[t]!.vapourPressureAbs_Pa / perMol;
        booked(timed, ((warmer - now) * warms_KPerS * this.now[t]!.gas_m3) / lag);
      }
      // What leaves takes its share of vapour along.
      const gas = y[slotOf(t, GAS)]!;
      if (!(gas > 0)) continue;
      columns[slotOf(t, VAPOUR)]![slotOf(t, VAPOUR)]! -= leaving[t]! / gas;
      columns[slotOf(t, GAS)]![slotOf(t, VAPOUR)]! += (leaving[t]! * y[slotOf(t, VAPOUR)]!) / gas ** 2;
    }
  }

  /** Pressure that an end of a net is given [Pa], in the net's potentials. */
  private givenAt({ weight_PaPerM }: Net, { place }: End): number {
    switch (place.at) {
      case 'open':
        return place.gauge_Pa + weight_PaPerM * place.height_m;
      case 'ullage':
        return this.now[place.tank]!.gauge_Pa;
      case 'liquid':
        return this.now[place.tank]!.gauge_Pa + weight_PaPerM * this.now[place.tank]!.surface_m;
      case 'gas':
        return this.now[place.tank]!.gauge_Pa + weight_PaPerM * place.height_m;
      case 'mouth': {
        const { gauge_Pa, surface_m } = this.now[place.tank]!;
        return gauge_Pa + weight_PaPerM * Math.max(surface_m, place.height_m);
      }
      case 'under': {
        const { gauge_Pa, surface_m, density_kgPerM3 } = this.now[place.tank]!;
        return gauge_Pa + density_kgPerM3 * this.gravity_mPerS2 * Math.max(0, surface_m - place.height_m);
      }
    }
  }

  private get gravity_mPerS2(): number {
    const net = this.setting.nets.find(({ medium }) => medium === 'liquid');
    return net ? net.weight_PaPerM / net.fluid.density_kgPerM3 : 0;
  }

  /** Solves a net for the pressures of now, where they are not those of before. */
  private solve(n: number, net: Net): boolean {
    const given = this.given[n]!;
    let isSame = this.flows[n] !== undefined;
    for (const [e, end] of net.ends.entries()) {
      const value = this.givenAt(net, end);
      if (given[e] !== value) isSame = false;
      given[e] = value;
      net.nodes[end.node]!.fixed_Pa = value;
    }
    for (const { consumer, node } of net.givers)
      if (net.nodes[node]!.outflow_m3PerS !== -this.sends_m3PerS[consumer]!) {
        isSame = false;
        net.nodes[node]!.outflow_m3PerS = -this.sends_m3PerS[consumer]!;
      }
    if (isSame) return true;
    this.solutions++;
    const before = this.flows[n];
    const solved = this.solved(n, net, before);
    if (!solved.ok) {
      this.fault = solved.error;
      this.flows[n] = undefined;
      return false;
    }
    this.flows[n] = solved.value.flow_m3PerS;
    return true;
  }

  private solved(
    n: number,
    net: Net,
    before: Float64Array | undefined,
  ): Outcome<{ readonly flow_m3PerS: Float64Array }, NetworkCode> {
    const [only] = net.links;
    if (net.links.length === 1 && only && !net.isRegulated) {
      const [from, to] = [net.nodes[only.from]!, net.nodes[only.to]!];
      if (from.fixed_Pa !== undefined && to.fixed_Pa !== undefined) {
        const flow = flowThrough(only.law, from.fixed_Pa - to.fixed_Pa, before?.[0] ?? START_M3_PER_S);
        if (flow !== undefined) return success({ flow_m3PerS: Float64Array.of(flow) });
      }
    }
    const graph = { nodes: net.nodes, links: net.links };
    if (!net.isRegulated) return solveGraph(graph, net.shape, before);
    const solved = solveRegulated(graph, before && { ...this.regulators[n]!, flow_m3PerS: before });
    if (solved.ok) this.regulators[n] = solved.value;
    return solved;
  }

  /** Solves all nets, those into which consumers send something back after those that they take it from. */
  private solveAll(): boolean {
    const { nets } = this.setting;
    for (let turn = 0; turn < SEND_TURNS; turn++) {
      let isSettled = true;
      for (const n of this.order) {
        const net = nets[n]!;
        if (!this.solve(n, net)) return false;
        for (const { consumer, link } of net.takers) {
          const taken = this.flows[n]![link]!;
          this.taken_m3PerS[consumer] = taken;
          // With air in what comes to it nothing is left to send back.
          const sends = this.isAiring(net) ? 0 : Math.max(0, taken - this.burnt_m3PerS(consumer));
          if (Math.abs(sends - this.sends_m3PerS[consumer]!) > 1e-9 * sends + 1e-15) isSettled = false;
          this.sends_m3PerS[consumer] = sends;
        }
      }
      if (isSettled) break;
    }
    return true;
  }

  private burnt_m3PerS(consumer: number): number {
    return burnOf_m3PerS(this.setting.consumers[consumer]!, this.setting.duty_ratio);
  }

  /**
   * Books what a net moves to those whose it is: its flow, or how that changes.
   *
   * @param flows what flows now, by which gas comes or goes
   */
  private book(
    net: Net,
    flow: Float64Array,
    flows: Float64Array,
    temperature_K: number,
    y: Float64Array,
    out: Float64Array,
  ): void {
    const { slots, ambientAbs_Pa } = this.setting;
    const outsideMol = ambientAbs_Pa / (GAS_J_PER_MOL_K * temperature_K);
    const aerated = net.medium === 'liquid' ? this.aeration(net, flows) : undefined;
    for (const { node, account, link, place } of net.ends) {
      const sign = net.links[link]!.to === node ? 1 : -1;
      const into = sign * flow[link]!;
      const now = sign * flows[link]!;
      const leaves = now < 0;
      if (net.medium === 'air') {
        const mol = into * outsideMol;
        if (account.of === 'tank') this.gas(account.tank, mol, leaves, y, out);
        else out[slots.outside]! += mol;
        continue;
      }
      let kg = into * net.fluid.density_kgPerM3;
      if (aerated && now > 0 && place.at !== 'liquid' && place.at !== 'gas') {
        // Air comes out here, with the liquid that is in it, and the line fills behind it.
        const gas = 1 - aerated.liquid_ratio;
        const mol = into * outsideMol * gas;
        for (const { pickup, weight } of aerated.from) {
          const line = slots.lines.get(pickup)!;
          out[line.liquid]! += kg * gas * weight;
          out[line.gas]! -= mol * weight;
        }
        kg -= kg * gas;
        if (account.of === 'tank') this.gas(account.tank, mol, leaves, y, out);
        else out[slots.swallowed]! += mol;
      }
      switch (account.of) {
        case 'tank':
          out[slotOf(account.tank, LIQUID)]! += kg;
          break;
        case 'line':
          break;
        case 'consumer':
          out[slots.consumers.get(account.id)!]! += kg;
          break;
        case 'spilt':
          out[slots.spilt.get(account.id)!]! += kg;
          break;
        case 'outside':
          break;
      }
      const line = place.at === 'liquid' || place.at === 'gas' ? slots.lines.get(pickupOf(net, link)) : undefined;
      if (line) out[line.passed]! -= into;
    }
  }

  /** Of a net that air has come through: how much of what comes out is liquid, and by which pickups air comes. */
  private aeration(net: Net, flows: Float64Array) {
    const { airing } = this.setting;
    if (airing.size === 0) return undefined;
    let [all, gas] = [0, 0];
    const from: { readonly pickup: string; weight: number }[] = [];
    for (const { node, link, place } of net.ends) {
      if (place.at !== 'liquid' && place.at !== 'gas') continue;
      const drawn = Math.max(0, net.links[link]!.to === node ? -flows[link]! : flows[link]!);
      const pickup = pickupOf(net, link);
      all += drawn;
      if (!airing.has(pickup)) continue;
      const airy = drawn * (1 - (this.share.get(pickup) ?? 0));
      gas += airy;
      from.push({ pickup, weight: airy });
    }
    if (!(gas > 0)) return undefined;
    for (const each of from) each.weight /= gas;
    return { liquid_ratio: 1 - gas / all, from };
  }

  /** True of a net that air has come through to the ends of. */
  isAiring(net: Net): boolean {
    const { airing } = this.setting;
    return airing.size > 0 && net.ends.some(({ link }) => airing.has(pickupOf(net, link)));
  }

  /**
   * Books what pickups draw that the surface has come down to: of liquid no more than comes to their tank, and gas for
   * the rest.
   */
  private bookSips(net: Net, flow: Float64Array, temperature_K: number, y: Float64Array, out: Float64Array): void {
    const { slots } = this.setting;
    for (const { node, account, link } of net.ends) {
      if (account.of !== 'line') continue;
      const line = slots.lines.get(account.pickup)!;
      const drawn = net.links[link]!.to === node ? -flow[link]! : flow[link]!;
      const kg = drawn * net.fluid.density_kgPerM3;
      const comes = out[slotOf(account.tank, LIQUID)]!;
      const share = kg > 0 ? Math.min(1, Math.max(0, comes / kg)) : 0;
      this.share.set(account.pickup, share);
      out[slotOf(account.tank, LIQUID)]! -= kg * share;
      out[line.liquid]! -= kg * (1 - share);
      const mol = this.gasIn(account.tank, drawn * (1 - share), temperature_K);
      out[line.gas]! += mol;
      this.gas(account.tank, -mol, mol > 0, y, out);
    }
  }

  /** Gas in a volume as it is in a tank [mol]. */
  private gasIn(tank: number, volume_m3: number, temperature_K: number): number {
    return (volume_m3 * this.now[tank]!.abs_Pa) / (GAS_J_PER_MOL_K * temperature_K);
  }

  /** Books how what pickups draw with air in it changes: its shares stay. */
  private bookShares(net: Net, moves: Float64Array, temperature_K: number, out: Float64Array): void {
    const { slots } = this.setting;
    for (const { node, account, link } of net.ends) {
      if (account.of !== 'line') continue;
      const line = slots.lines.get(account.pickup)!;
      const drawn = net.links[link]!.to === node ? -moves[link]! : moves[link]!;
      const share = this.share.get(account.pickup) ?? 0;
      const kg = drawn * net.fluid.density_kgPerM3;
      const mol = this.gasIn(account.tank, drawn * (1 - share), temperature_K);
      out[slotOf(account.tank, LIQUID)]! -= kg * share;
      out[line.liquid]! -= kg * (1 - share);
      out[line.gas]! += mol;
      out[slotOf(account.tank, GAS)]! -= mol;
    }
  }

  /** Books what is fed into a net without coming from an end of it: what consumers send back, what an engine blows. */
  private bookGiven(net: Net, temperature_K: number, out: Float64Array): void {
    const { slots, ambientAbs_Pa, consumers } = this.setting;
    for (const { consumer, node } of net.givers)
      out[slots.consumers.get(consumers[consumer]!.id)!]! +=
        net.nodes[node]!.outflow_m3PerS! * net.fluid.density_kgPerM3;
    if (net.medium === 'liquid') return;
    const outsideMol = ambientAbs_Pa / (GAS_J_PER_MOL_K * temperature_K);
    for (const { outflow_m3PerS } of net.nodes) if (outflow_m3PerS) out[slots.blown]! += outflow_m3PerS * outsideMol;
  }

  /** Gas that comes to a tank, or leaves it with its share of vapour. */
  private gas(tank: number, mol: number, leaves: boolean, y: Float64Array, out: Float64Array): void {
    out[slotOf(tank, GAS)]! += mol;
    const gas = y[slotOf(tank, GAS)]!;
    if (leaves) this.leaving_molPerS[tank]! -= mol;
    if (leaves && gas > 0) out[slotOf(tank, VAPOUR)]! += mol * Math.min(1, y[slotOf(tank, VAPOUR)]! / gas);
  }
}

/** The pickup that a link is the tube of; any other is nobody's. */
const pickupOf = ({ joined }: Net, link: number): string => {
  const { id } = joined[link]!.link;
  return id.endsWith(':tube') ? id.slice(0, -':tube'.length) : '';
};

/** A while over which what is set of temperatures goes evenly [s]. */
const WARM_S = 1e-3;
