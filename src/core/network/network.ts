import { failure, success, type Outcome } from '../outcome';
import { reached } from '../reached';
import type { AirState, FluidState } from '../fluids';
import { boreArea_m2, regimeOf, reynoldsNumber, type Regime } from './friction';
import {
  bodyLaw,
  checkedLaw,
  filterLaw,
  limitedLaw,
  lineLaw,
  orificeLaw,
  seriesLaw,
  ventLaw,
  type FittingLoss,
  type LossLaw,
} from './laws';
import { atVoltage, parsePumpCurve, pumpLaw, wiredPumpLaw, type PumpCode, type PumpPoint } from './pump';
import { solveRegulated } from './regulate';
import { FLOWS_M3_PER_S, type RegulatedSolution, type Regulating } from './regulating';
import { START_FLOW_M3_PER_S, type Graph, type GraphLink, type SolveCode } from './solve';

/** Where pressures are asked for. Height is measured against effective gravity, above any one datum. */
export type NetworkNode = {
  readonly id: string;
  readonly name: string;
  readonly height_m: number;
  /** Given gauge pressure: a tank's ullage, an open end, a consumer held at its need. */
  readonly fixedGauge_Pa?: number;
  readonly outflow_m3PerS?: number;
  /** Wide open, as a tank above its liquid: what comes to it has come to rest. */
  readonly still?: boolean;
};

export type LinkElement =
  | {
      readonly kind: 'line';
      readonly bore_m: number;
      readonly length_m: number;
      readonly roughness_m: number;
      readonly fittings: readonly FittingLoss[];
    }
  | {
      readonly kind: 'filter';
      readonly ratedFlow_m3PerS: number;
      readonly ratedDrop_Pa: number;
      readonly ratedViscosity_PaS: number;
      readonly dirtFactor: number;
    }
  | {
      readonly kind: 'pump';
      readonly curve: readonly PumpPoint[];
      /** Voltage over rated; of one whose wires take of it, against no pressure. */
      readonly voltageRatio: number;
      /** The same against its curve's largest pressure, straight between; as above where left out. */
      readonly shutOffVoltageRatio?: number;
    }
  | { readonly kind: 'orifice'; readonly bore_m: number; readonly dischargeCoefficient: number }
  | { readonly kind: 'vent'; readonly bore_m: number; readonly length_m: number; readonly air: AirState }
  /** A coupler, meter or the like, rated by one point; its loss goes with the square of flow. */
  | {
      readonly kind: 'body';
      readonly ratedFlow_m3PerS: number;
      readonly ratedDrop_Pa: number;
      readonly ratedDensity_kgPerM3: number;
    }
  /** Passes forward flow only; with a spring, above a pressure only: check, anti-siphon and relief valves. */
  | { readonly kind: 'check'; readonly opens_Pa?: number }
  /** A regulator that throttles to keep the pressure behind it at most at its setting. */
  | { readonly kind: 'hold-outlet'; readonly set_Pa: number }
  /** A regulator that lets flow by to keep the pressure before it at most at its setting. */
  | { readonly kind: 'hold-inlet'; readonly set_Pa: number }
  | { readonly kind: 'closed' }
  /** Passes so much and no more, however hard it is pushed: what draws no more than it needs. */
  | { readonly kind: 'limit'; readonly most_m3PerS: number }
  /** A join without loss, such as the free surface of a tank to its pickup. */
  | { readonly kind: 'open' };

/** Elements in a row between two nodes, all at one flow. */
export type NetworkLink = {
  readonly id: string;
  readonly name: string;
  readonly from: string;
  readonly to: string;
  readonly elements: readonly LinkElement[];
  /**
   * What flows in it where that is not the liquid; it weighs next to nothing, so that the heights of its ends count for
   * nothing.
   */
  readonly air?: AirState;
};

export type Network = {
  readonly nodes: readonly NetworkNode[];
  readonly links: readonly NetworkLink[];
  readonly fluid: FluidState;
  readonly ambientAbs_Pa: number;
  readonly gravity_mPerS2: number;
};

export type NodeResult = {
  readonly id: string;
  readonly name: string;
  /** Total pressure, what flowing liquid would have at rest: energy is reckoned by it. */
  readonly gauge_Pa: number;
  readonly abs_Pa: number;
  /** What a gauge in the wall reads, where the narrowest line beside it has its speed. */
  readonly staticGauge_Pa: number;
  /** Of the static pressure over that at which the liquid boils. */
  readonly vapourMargin_Pa: number;
};

export type LinkResult = {
  readonly id: string;
  readonly name: string;
  readonly flow_m3PerS: number;
  /** Pressure lost along it (negative where a pump adds more than is lost), without height. */
  readonly loss_Pa: number;
  /** In the narrowest line of the link. */
  readonly velocity_mPerS?: number;
  readonly reynolds?: number;
  readonly regime?: Regime;
  /** Of a link with a regulator. */
  readonly regulating?: Regulating;
  /** True where a valve in it is held shut by the pressures: a check, an anti-siphon or a relief valve. */
  readonly shut?: boolean;
};

export type NetworkSolution = {
  readonly nodes: ReadonlyMap<string, NodeResult>;
  readonly links: ReadonlyMap<string, LinkResult>;
  readonly iterations: number;
  readonly massResidual_m3PerS: number;
  readonly energyResidual_Pa: number;
};

export type NetworkCode =
  SolveCode | PumpCode | 'bad-size' | 'no-such-node' | 'pump-loop' | 'against-check' | 'two-regulators';

/**
 * Steady flow of one liquid through lines, fittings, filters, pumps and vents.
 *
 * @param network nodes with heights [m], links with elements; lengths >= 0, bores > 0
 * @returns pressures at every node and flow in every link, or why there are none
 */
export function solveNetwork(network: Network): Outcome<NetworkSolution, NetworkCode> {
  const laid = graphOf(network);
  if (!laid.ok) return laid;
  const { graph, joined } = laid.value;
  const solved = solveRegulated(graph);
  return solved.ok ? success(report(network, joined, solved.value, weightIn(network))) : solved;
}

const weightIn =
  ({ fluid, gravity_mPerS2 }: Network) =>
  (height_m: number): number =>
    fluid.density_kgPerM3 * gravity_mPerS2 * height_m;

/**
 * A network as the bare graph that is solved, to be solved again and again with other pressures given.
 *
 * @returns the graph, its nodes as the network's, and the links that it has: those that are closed are left out
 */
export function graphOf(
  network: Network,
): Outcome<{ readonly graph: Graph; readonly joined: readonly Joined[] }, NetworkCode> {
  const weight = weightIn(network);
  const index = new Map(network.nodes.map((node, i) => [node.id, i]));
  const round = pumpLoop(network);
  if (round) return round;
  const laws: Joined[] = [];
  for (const link of network.links) {
    if (link.elements.some((element) => element.kind === 'closed')) continue;
    const law = keptLaw(link, network.fluid);
    if (!law.ok) return law;
    const [from, to] = [index.get(link.from), index.get(link.to)];
    if (from === undefined || to === undefined)
      return failure('no-such-node', link.name, `${link.name} ends at a joint that does not exist.`);
    const apart_Pa = link.air ? weight(network.nodes[from]!.height_m) - weight(network.nodes[to]!.height_m) : 0;
    laws.push({
      link,
      law: apart_Pa === 0 ? law.value : weightless(law.value, apart_Pa),
      from,
      to,
      bore_m: narrowest(link),
    });
  }
  const graph: Graph = {
    nodes: network.nodes.map((node) => ({
      id: node.name,
      ...(node.fixedGauge_Pa === undefined ? {} : { fixed_Pa: node.fixedGauge_Pa + weight(node.height_m) }),
      ...(node.outflow_m3PerS === undefined ? {} : { outflow_m3PerS: node.outflow_m3PerS }),
    })),
    links: laws.map((joined) => graphLink(network, joined, weight)),
  };
  const twice = heldTwice(graph);
  if (twice) return twice;
  const stopped = against(network, laws);
  return stopped ?? success({ graph, joined: laws });
}

/** A link between its nodes, with its law. */
export type Joined = {
  readonly link: NetworkLink;
  readonly law: LossLaw;
  readonly from: number;
  readonly to: number;
  /** Narrowest bore in it; 0 where it has no line. */ readonly bore_m: number;
};

/** A law between ends whose heights count for nothing, though their potentials have them in. */
const weightless =
  (law: LossLaw, apart_Pa: number): LossLaw =>
  (flow) => {
    const { pressure_Pa, slope_PaSPerM3 } = law(flow);
    return { pressure_Pa: pressure_Pa + apart_Pa, slope_PaSPerM3 };
  };

function narrowest({ elements }: NetworkLink): number {
  let bore = 0;
  for (const element of elements)
    if (element.kind === 'line' && (bore === 0 || element.bore_m < bore)) bore = element.bore_m;
  return bore;
}

/** Speed in a line that a solution is begun from [m/s]. */
const START_SPEED_M_PER_S = 0.3;

function graphLink(
  { nodes }: Network,
  { link, law, from, to, bore_m }: Joined,
  weight: (height_m: number) => number,
): GraphLink {
  const holds = link.elements.find((element) => element.kind === 'hold-outlet' || element.kind === 'hold-inlet');
  const about_m3PerS = bore_m > 0 ? START_SPEED_M_PER_S * boreArea_m2(bore_m) : START_FLOW_M3_PER_S;
  if (!holds) return { id: link.name, from, to, law, about_m3PerS };
  const end = holds.kind === 'hold-outlet' ? 'to' : 'from';
  return {
    id: link.name,
    from,
    to,
    law,
    about_m3PerS,
    hold: { end, potential_Pa: holds.set_Pa + weight(nodes[end === 'to' ? to : from]!.height_m) },
  };
}

/** Two regulators that hold one joint fight; which wins is not to be computed. */
function heldTwice(graph: Graph): { ok: false; error: { code: NetworkCode; at: string; detail: string } } | undefined {
  const holds = new Map<number, string>();
  for (const { id, hold, from, to } of graph.links) {
    if (!hold) continue;
    const node = hold.end === 'to' ? to : from;
    const other = holds.get(node);
    if (other !== undefined)
      return failure(
        'two-regulators',
        id,
        `${id} and ${other} both hold the pressure at ${graph.nodes[node]!.id}; leave one out.`,
      );
    holds.set(node, id);
  }
  return undefined;
}

/** True of a link that lets flow pass its given way only. */
const isOneWay = ({ elements }: NetworkLink): boolean =>
  elements.some(({ kind }) => kind === 'check' || kind === 'hold-outlet' || kind === 'hold-inlet');

/**
 * What is drawn at a joint must be able to come to it, and what is fed in must
 * be able to leave: names the valve that stands the wrong way where it cannot.
 */
function against(
  { nodes }: Network,
  laws: readonly Joined[],
): { ok: false; error: { code: NetworkCode; at: string; detail: string } } | undefined {
  if (!laws.some(({ link }) => isOneWay(link))) return undefined;
  for (const [n, node] of nodes.entries()) {
    const drawn = node.fixedGauge_Pa === undefined ? (node.outflow_m3PerS ?? 0) : 0;
    if (drawn === 0) continue;
    const supplies = (index: number): boolean =>
      index !== n && (nodes[index]!.fixedGauge_Pa !== undefined || (nodes[index]!.outflow_m3PerS ?? 0) * drawn < 0);
    const seen = new Set([n]);
    for (const at of seen) {
      for (const { link, from, to } of laws) {
        const [near, far] = drawn > 0 ? [to, from] : [from, to];
        if (near === at) seen.add(far);
        else if (far === at && !isOneWay(link)) seen.add(near);
      }
    }
    if ([...seen].some(supplies)) continue;
    const stands = laws.find(({ link, from, to }) => isOneWay(link) && seen.has(from) !== seen.has(to));
    if (stands)
      return failure(
        'against-check',
        stands.link.name,
        `${stands.link.name} shuts the way that ${node.name} needs: it is in back to front, or two valves face each other.`,
      );
  }
  return undefined;
}

/** Costs nothing by itself: a pump, a check, a join, parts screwed together. */
const isBare = (element: LinkElement): boolean =>
  element.kind === 'pump' ||
  element.kind === 'open' ||
  element.kind === 'check' ||
  (element.kind === 'line' && element.length_m === 0 && element.fittings.length === 0);

/** Pumps that feed each other in a ring with nothing between have no operating point. */
function pumpLoop({
  links,
}: Network): { ok: false; error: { code: NetworkCode; at: string; detail: string } } | undefined {
  const bare = links.filter(({ elements }) => elements.every(isBare));
  const onward = new Map<string, NetworkLink[]>();
  for (const link of bare) onward.set(link.from, [...(onward.get(link.from) ?? []), link]);
  for (const first of bare.filter(({ elements }) => elements.some(({ kind }) => kind === 'pump'))) {
    const seen = new Set<string>();
    const open = [first.to];
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      if (at === first.from)
        return failure(
          'pump-loop',
          first.name,
          `${first.name} pumps in a ring with nothing in it but pumps; put the line between them in.`,
        );
      if (seen.has(at)) continue;
      seen.add(at);
      open.push(...(onward.get(at) ?? []).map(({ to }) => to));
    }
  }
  return undefined;
}

function report(
  network: Network,
  laws: readonly Joined[],
  solution: RegulatedSolution,
  weight: (height_m: number) => number,
): NetworkSolution {
  const dynamic = dynamicPressures(network, laws, solution);
  const nodes = network.nodes.map((node, i): [string, NodeResult] => {
    const gauge_Pa = solution.potential_Pa[i]! - weight(node.height_m);
    const staticGauge_Pa = gauge_Pa - dynamic[i]!;
    return [
      node.id,
      {
        id: node.id,
        name: node.name,
        gauge_Pa,
        abs_Pa: gauge_Pa + network.ambientAbs_Pa,
        staticGauge_Pa,
        vapourMargin_Pa: staticGauge_Pa + network.ambientAbs_Pa - network.fluid.vapourPressureAbs_Pa,
      },
    ];
  });
  const links = laws.map(({ link, law }, l): [string, LinkResult] => {
    const flow_m3PerS = solution.flow_m3PerS[l]!;
    const regulating = solution.regulators.get(l);
    const [from, to] = [solution.potential_Pa[laws[l]!.from]!, solution.potential_Pa[laws[l]!.to]!];
    return [
      link.id,
      {
        id: link.id,
        name: link.name,
        flow_m3PerS,
        ...lineState(laws[l]!.bore_m, flow_m3PerS, liquidIn(link, network.fluid).kinematicViscosity_m2PerS),
        // What a regulator throttles away is what is left between its ends.
        loss_Pa:
          regulating === undefined
            ? link.air
              ? keptPressure(link, network.fluid, flow_m3PerS)
              : law(flow_m3PerS).pressure_Pa
            : from - to,
        ...(regulating === undefined ? {} : { regulating }),
        ...(isShut(link, flow_m3PerS) ? { shut: true } : {}),
      },
    ];
  });
  for (const link of network.links) {
    if (link.elements.some((element) => element.kind === 'closed'))
      links.push([link.id, { id: link.id, name: link.name, flow_m3PerS: 0, loss_Pa: 0 }]);
  }
  const { iterations, massResidual_m3PerS, energyResidual_Pa } = solution;
  return { nodes: new Map(nodes), links: new Map(links), iterations, massResidual_m3PerS, energyResidual_Pa };
}

const isShut = ({ elements }: NetworkLink, flow_m3PerS: number): boolean =>
  flow_m3PerS < FLOWS_M3_PER_S && elements.some(({ kind }) => kind === 'check');

/** What of a node's pressure is in the speed of the liquid beside it [Pa]: by the fastest of its lines. */
function dynamicPressures(network: Network, laws: readonly Joined[], { flow_m3PerS }: RegulatedSolution): Float64Array {
  const dynamic = new Float64Array(network.nodes.length);
  for (const [l, { link, from, to, bore_m }] of laws.entries()) {
    if (bore_m === 0 || link.air || link.elements.some(({ kind }) => kind === 'vent')) continue;
    const pressure = (network.fluid.density_kgPerM3 / 2) * (flow_m3PerS[l]! / boreArea_m2(bore_m)) ** 2;
    for (const end of [from, to])
      if (!network.nodes[end]!.still && network.nodes[end]!.fixedGauge_Pa === undefined)
        dynamic[end] = Math.max(dynamic[end]!, pressure);
  }
  return dynamic;
}

/** Loss of a link by its own law, heights left out [Pa]. */
function keptPressure(link: NetworkLink, fluid: FluidState, flow_m3PerS: number): number {
  const law = keptLaw(link, fluid);
  return law.ok ? law.value(flow_m3PerS).pressure_Pa : 0;
}

function lineState(
  bore: number,
  flow_m3PerS: number,
  viscosity_m2PerS: number,
): Pick<LinkResult, 'velocity_mPerS' | 'reynolds' | 'regime'> {
  if (bore === 0) return {};
  const reynolds = reynoldsNumber(flow_m3PerS, bore, viscosity_m2PerS);
  return { velocity_mPerS: flow_m3PerS / boreArea_m2(bore), reynolds, regime: regimeOf(reynolds) };
}

/**
 * The network without what no open link joins to a given pressure: parts that
 * are shut off or hang on nothing carry no flow and must not stop the rest
 * from being solved.
 *
 * @param keep a node that stays even so, to be complained of
 */
export function withoutIslands(network: Network, keep?: string): Network {
  const fixed = network.nodes.filter((node) => node.fixedGauge_Pa !== undefined).map((node) => node.id);
  const left = reached(fixed, openPairs(network));
  return only(network, keep === undefined ? left : left.add(keep));
}

/**
 * The part of a network that hangs together with a node by open links: what is
 * cut off from it says nothing of it. All that is no island where nothing
 * there gives a pressure, so that the solver says so.
 */
export function partAround(network: Network, node: string): Network {
  const whole = withoutIslands(network, node);
  const part = reached([node], openPairs(whole));
  return whole.nodes.some(({ id, fixedGauge_Pa }) => part.has(id) && fixedGauge_Pa !== undefined)
    ? only(whole, part)
    : whole;
}

const openPairs = ({ links }: Network) =>
  links
    .filter(({ elements }) => elements.every(({ kind }) => kind !== 'closed'))
    .map(({ from, to }) => [from, to] as const);
const only = (network: Network, ids: ReadonlySet<string>): Network => ({
  ...network,
  nodes: network.nodes.filter(({ id }) => ids.has(id)),
  links: network.links.filter(({ from, to }) => ids.has(from) && ids.has(to)),
});

/** Laws of links that have been solved with: from one question to the next most links are the very same. */
const keptLaws = new WeakMap<
  NetworkLink,
  { readonly fluid: FluidState; readonly law: Outcome<LossLaw, NetworkCode> }
>();

function keptLaw(link: NetworkLink, fluid: FluidState): Outcome<LossLaw, NetworkCode> {
  const kept = keptLaws.get(link);
  if (kept?.fluid === fluid) return kept.law;
  const law = linkLaw(link, fluid);
  keptLaws.set(link, { fluid, law });
  return law;
}

/** What flows in a link, as far as its laws ask. */
type LiquidProperties = Pick<FluidState, 'density_kgPerM3' | 'viscosity_PaS' | 'kinematicViscosity_m2PerS'>;

const liquidIn = ({ air }: NetworkLink, fluid: FluidState): LiquidProperties =>
  air ? { ...air, kinematicViscosity_m2PerS: air.viscosity_PaS / air.density_kgPerM3 } : fluid;

/** The law of all of a link's elements at one flow. */
export function linkLaw(link: NetworkLink, fluid: FluidState): Outcome<LossLaw, NetworkCode> {
  const laws: LossLaw[] = [];
  const liquid = liquidIn(link, fluid);
  for (const element of link.elements) {
    const law = elementLaw(element, link.name, liquid);
    if (!law.ok) return law;
    laws.push(law.value);
  }
  const whole = seriesLaw(laws);
  const checks = link.elements.flatMap((element) => (element.kind === 'check' ? [element.opens_Pa ?? 0] : []));
  const checked =
    checks.length > 0
      ? checkedLaw(
          whole,
          checks.reduce((sum, opens) => sum + opens, 0),
        )
      : whole;
  const most = Math.min(...link.elements.map((element) => (element.kind === 'limit' ? element.most_m3PerS : Infinity)));
  return success(most < Infinity ? limitedLaw(checked, most) : checked);
}

function elementLaw(element: LinkElement, name: string, fluid: LiquidProperties): Outcome<LossLaw, NetworkCode> {
  const bad = badSize(element, name);
  if (bad) return bad;
  switch (element.kind) {
    case 'line':
      return success(lineLaw(element.bore_m, element.length_m, element.roughness_m, element.fittings, fluid));
    case 'filter':
      return success(
        filterLaw(
          element.ratedFlow_m3PerS,
          element.ratedDrop_Pa,
          element.ratedViscosity_PaS,
          element.dirtFactor,
          fluid.viscosity_PaS,
        ),
      );
    case 'pump': {
      const curve = parsePumpCurve(element.curve, name);
      if (!curve.ok) return curve;
      const { voltageRatio, shutOffVoltageRatio } = element;
      return shutOffVoltageRatio === undefined || shutOffVoltageRatio === voltageRatio
        ? success(pumpLaw(atVoltage(curve.value, voltageRatio)))
        : wiredPumpLaw(curve.value, voltageRatio, shutOffVoltageRatio, name);
    }
    case 'orifice':
      return success(orificeLaw(element.bore_m, element.dischargeCoefficient, fluid));
    case 'body':
      return success(
        bodyLaw(element.ratedFlow_m3PerS, element.ratedDrop_Pa, element.ratedDensity_kgPerM3, fluid.density_kgPerM3),
      );
    case 'vent':
      return success(ventLaw(element.bore_m, element.length_m, element.air));
    case 'check':
    case 'hold-outlet':
    case 'hold-inlet':
    case 'limit':
    case 'open':
    case 'closed':
      return success(() => ({ pressure_Pa: 0, slope_PaSPerM3: 0 }));
  }
}

function badSize(
  element: LinkElement,
  name: string,
): { ok: false; error: { code: 'bad-size' | 'no-voltage'; at: string; detail: string } } | undefined {
  if ('bore_m' in element && !(element.bore_m > 0))
    return failure('bad-size', name, `The bore of ${name} must be above zero.`);
  if ('length_m' in element && !(element.length_m >= 0))
    return failure('bad-size', name, `The length of ${name} cannot be negative.`);
  if (
    element.kind === 'filter' &&
    !(
      element.ratedFlow_m3PerS > 0 &&
      element.ratedDrop_Pa >= 0 &&
      element.ratedViscosity_PaS > 0 &&
      element.dirtFactor >= 0
    )
  ) {
    return failure('bad-size', name, `${name} needs a rated flow above zero and a pressure drop at it.`);
  }
  if (
    element.kind === 'body' &&
    !(element.ratedFlow_m3PerS > 0 && element.ratedDrop_Pa >= 0 && element.ratedDensity_kgPerM3 > 0)
  ) {
    return failure('bad-size', name, `${name} needs a rated flow above zero and a pressure drop at it.`);
  }
  if (element.kind === 'check' && !((element.opens_Pa ?? 0) >= 0))
    return failure('bad-size', name, `${name} cannot open below no pressure.`);
  if (element.kind === 'limit' && !(element.most_m3PerS > 0))
    return failure('bad-size', name, `${name} must let something pass.`);
  if (element.kind === 'pump' && !(element.voltageRatio > 0))
    return failure('no-voltage', name, `${name} has no voltage.`);
  return undefined;
}
