import { failure, success, type Outcome } from '../outcome';
import type { AirState, FluidState } from '../fluids';
import { boreArea_m2, regimeOf, reynoldsNumber, type Regime } from './friction';
import {
  checkedLaw, filterLaw, lineLaw, orificeLaw, seriesLaw, ventLaw, type FittingLoss, type LossLaw,
} from './laws';
import { atVoltage, parsePumpCurve, pumpLaw, type PumpCode, type PumpPoint } from './pump';
import { solveGraph, type GraphSolution, type SolveCode } from './solve';

/** Where pressures are asked for. Height is measured against effective gravity, above any one datum. */
export type NetworkNode = {
  readonly id: string;
  readonly name: string;
  readonly height_m: number;
  /** Given gauge pressure: a tank's ullage, an open end, a consumer held at its need. */
  readonly fixedGauge_Pa?: number;
  readonly outflow_m3PerS?: number;
};

export type LinkElement =
  | { readonly kind: 'line'; readonly bore_m: number; readonly length_m: number; readonly roughness_m: number; readonly fittings: readonly FittingLoss[] }
  | { readonly kind: 'filter'; readonly ratedFlow_m3PerS: number; readonly ratedDrop_Pa: number; readonly ratedViscosity_PaS: number; readonly dirtFactor: number }
  | { readonly kind: 'pump'; readonly curve: readonly PumpPoint[]; readonly voltageRatio: number }
  | { readonly kind: 'orifice'; readonly bore_m: number; readonly dischargeCoefficient: number }
  | { readonly kind: 'vent'; readonly bore_m: number; readonly length_m: number; readonly air: AirState }
  | { readonly kind: 'check' }
  | { readonly kind: 'closed' }
  /** A join without loss, such as the free surface of a tank to its pickup. */
  | { readonly kind: 'open' };

/** Elements in a row between two nodes, all at one flow. */
export type NetworkLink = {
  readonly id: string;
  readonly name: string;
  readonly from: string;
  readonly to: string;
  readonly elements: readonly LinkElement[];
};

export type Network = {
  readonly nodes: readonly NetworkNode[];
  readonly links: readonly NetworkLink[];
  readonly fluid: FluidState;
  readonly ambientAbs_Pa: number;
  readonly gravity_mPerS2: number;
};

export type NodeResult = { readonly id: string; readonly name: string; readonly gauge_Pa: number; readonly abs_Pa: number; readonly vapourMargin_Pa: number };

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
};

export type NetworkSolution = {
  readonly nodes: ReadonlyMap<string, NodeResult>;
  readonly links: ReadonlyMap<string, LinkResult>;
  readonly iterations: number;
  readonly massResidual_m3PerS: number;
  readonly energyResidual_Pa: number;
};

export type NetworkCode = SolveCode | PumpCode | 'bad-size' | 'no-such-node';

/**
 * Steady flow of one liquid through lines, fittings, filters, pumps and vents.
 *
 * @param network nodes with heights [m], links with elements; lengths >= 0, bores > 0
 * @returns pressures at every node and flow in every link, or why there are none
 */
export function solveNetwork(network: Network): Outcome<NetworkSolution, NetworkCode> {
  const { density_kgPerM3 } = network.fluid;
  const weight = (height_m: number): number => density_kgPerM3 * network.gravity_mPerS2 * height_m;
  const index = new Map(network.nodes.map((node, i) => [node.id, i]));
  const laws: { link: NetworkLink; law: LossLaw; from: number; to: number }[] = [];
  for (const link of network.links) {
    if (link.elements.some((element) => element.kind === 'closed')) continue;
    const law = linkLaw(link, network.fluid);
    if (!law.ok) return law;
    const [from, to] = [index.get(link.from), index.get(link.to)];
    if (from === undefined || to === undefined) return failure('no-such-node', link.name, `${link.name} ends at a joint that does not exist.`);
    laws.push({ link, law: law.value, from, to });
  }
  const solved = solveGraph({
    nodes: network.nodes.map((node) => ({
      id: node.name,
      ...(node.fixedGauge_Pa === undefined ? {} : { fixed_Pa: node.fixedGauge_Pa + weight(node.height_m) }),
      ...(node.outflow_m3PerS === undefined ? {} : { outflow_m3PerS: node.outflow_m3PerS }),
    })),
    links: laws.map(({ link, law, from, to }) => ({ id: link.name, from, to, law })),
  });
  return solved.ok ? success(report(network, laws, solved.value, weight)) : solved;
}

function report(
  network: Network, laws: readonly { link: NetworkLink; law: LossLaw }[], solution: GraphSolution, weight: (height_m: number) => number,
): NetworkSolution {
  const nodes = network.nodes.map((node, i): [string, NodeResult] => {
    const gauge_Pa = solution.potential_Pa[i]! - weight(node.height_m);
    const abs_Pa = gauge_Pa + network.ambientAbs_Pa;
    return [node.id, { id: node.id, name: node.name, gauge_Pa, abs_Pa, vapourMargin_Pa: abs_Pa - network.fluid.vapourPressureAbs_Pa }];
  });
  const links = laws.map(({ link, law }, l): [string, LinkResult] => {
    const flow_m3PerS = solution.flow_m3PerS[l]!;
    return [link.id, { id: link.id, name: link.name, flow_m3PerS, loss_Pa: law(flow_m3PerS).pressure_Pa, ...lineState(link, flow_m3PerS, network.fluid) }];
  });
  for (const link of network.links) {
    if (link.elements.some((element) => element.kind === 'closed')) links.push([link.id, { id: link.id, name: link.name, flow_m3PerS: 0, loss_Pa: 0 }]);
  }
  const { iterations, massResidual_m3PerS, energyResidual_Pa } = solution;
  return { nodes: new Map(nodes), links: new Map(links), iterations, massResidual_m3PerS, energyResidual_Pa };
}

function lineState(link: NetworkLink, flow_m3PerS: number, fluid: FluidState): Pick<LinkResult, 'velocity_mPerS' | 'reynolds' | 'regime'> {
  const bores = link.elements.flatMap((element) => (element.kind === 'line' ? [element.bore_m] : []));
  if (bores.length === 0) return {};
  const bore = Math.min(...bores);
  const reynolds = reynoldsNumber(flow_m3PerS, bore, fluid.kinematicViscosity_m2PerS);
  return { velocity_mPerS: flow_m3PerS / boreArea_m2(bore), reynolds, regime: regimeOf(reynolds) };
}

/**
 * The network without what no open link joins to a given pressure: parts that
 * are shut off or hang on nothing carry no flow and must not stop the rest
 * from being solved.
 *
 * @param keep a node that stays even so, to be complained of
 */
export function withoutIslands(network: Network, keep: string): Network {
  const open = network.links.filter((link) => link.elements.every((element) => element.kind !== 'closed'));
  const reached = new Set(network.nodes.filter((node) => node.fixedGauge_Pa !== undefined).map((node) => node.id));
  for (let grown = true; grown; ) {
    const before = reached.size;
    for (const { from, to } of open) if (reached.has(from) || reached.has(to)) reached.add(from).add(to);
    grown = reached.size > before;
  }
  const stays = (id: string): boolean => reached.has(id) || id === keep;
  return { ...network, nodes: network.nodes.filter((node) => stays(node.id)), links: network.links.filter((link) => stays(link.from) && stays(link.to)) };
}

/** The law of all of a link's elements at one flow. */
export function linkLaw(link: NetworkLink, fluid: FluidState): Outcome<LossLaw, NetworkCode> {
  const laws: LossLaw[] = [];
  for (const element of link.elements) {
    const law = elementLaw(element, link.name, fluid);
    if (!law.ok) return law;
    laws.push(law.value);
  }
  const whole = seriesLaw(laws);
  return success(link.elements.some((element) => element.kind === 'check') ? checkedLaw(whole) : whole);
}

function elementLaw(element: LinkElement, name: string, fluid: FluidState): Outcome<LossLaw, NetworkCode> {
  const bad = badSize(element, name);
  if (bad) return bad;
  switch (element.kind) {
    case 'line':
      return success(lineLaw(element.bore_m, element.length_m, element.roughness_m, element.fittings, fluid));
    case 'filter':
      return success(filterLaw(element.ratedFlow_m3PerS, element.ratedDrop_Pa, element.ratedViscosity_PaS, element.dirtFactor, fluid.viscosity_PaS));
    case 'pump': {
      const curve = parsePumpCurve(element.curve, name);
      return curve.ok ? success(pumpLaw(atVoltage(curve.value, element.voltageRatio))) : curve;
    }
    case 'orifice':
      return success(orificeLaw(element.bore_m, element.dischargeCoefficient, fluid));
    case 'vent':
      return success(ventLaw(element.bore_m, element.length_m, element.air));
    case 'check':
    case 'open':
    case 'closed':
      return success(() => ({ pressure_Pa: 0, slope_PaSPerM3: 0 }));
  }
}

function badSize(element: LinkElement, name: string): { ok: false; error: { code: 'bad-size' | 'no-voltage'; at: string; detail: string } } | undefined {
  if ('bore_m' in element && !(element.bore_m > 0)) return failure('bad-size', name, `The bore of ${name} must be above zero.`);
  if ('length_m' in element && !(element.length_m >= 0)) return failure('bad-size', name, `The length of ${name} cannot be negative.`);
  if (element.kind === 'filter' && !(element.ratedFlow_m3PerS > 0 && element.ratedDrop_Pa >= 0 && element.ratedViscosity_PaS > 0 && element.dirtFactor >= 0)) {
    return failure('bad-size', name, `${name} needs a rated flow above zero and a pressure drop at it.`);
  }
  if (element.kind === 'pump' && !(element.voltageRatio > 0)) return failure('no-voltage', name, `${name} has no voltage.`);
  return undefined;
}
