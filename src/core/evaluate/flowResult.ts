import { compileNetwork, feedPath, inletNode, outletNode, ullageNode, type Draw, type FlowInputs } from '../document/compileNetwork';
import type { ComponentDocument, ConsumerDocument, SystemDocument } from '../document/schema';
import { failure, success, type Outcome } from '../outcome';
import { solveNetwork, withoutIslands, type LinkResult, type NetworkCode, type NetworkSolution, type NodeResult } from '../network';
import type { Detail } from './tankResult';

export type PumpResult = {
  readonly id: string;
  readonly name: string;
  /** At the consumer's needed flow. */
  readonly rise_Pa: number;
  readonly inletGauge_Pa: number;
  readonly lift_m: number;
};

/** A point of the pump chart: what the pump gives and what the line asks, at a flow. */
export type PumpChartPoint = { readonly flow_m3PerS: number; readonly given_Pa: number; readonly asked_Pa: number };

export type FlowResult = {
  readonly consumer: string;
  readonly needed_m3PerS: number;
  readonly neededPressure_Pa: number;
  /** Flow when the consumer is held at its needed pressure. */
  readonly delivered_m3PerS: number;
  readonly margin_ratio: number;
  /** Pressure at the consumer when it draws its needed flow. */
  readonly pressureAtNeed_Pa: number;
  /** The place nearest to boiling at the needed flow. */
  readonly suction: { readonly node: string; readonly margin_Pa: number; readonly gauge_Pa: number };
  readonly ullageGauge_Pa: number;
  readonly nodes: readonly NodeResult[];
  readonly links: readonly LinkResult[];
  readonly pumps: readonly PumpResult[];
  readonly chart: readonly PumpChartPoint[];
  readonly iterations: number;
  readonly massResidual_m3PerS: number;
  readonly energyResidual_Pa: number;
};

export type FlowCode = NetworkCode | 'not-joined' | 'pickup-in-air' | 'vent-shut' | 'valve-shut';

const CHART_STEPS = 24;
/** The chart runs this far past the pump's free flow or the delivered flow. */
const CHART_REACH = 1.1;

/** The deepest vacuum in any tank [Pa, gauge]; a tank that nothing draws from has no node and stands at the air's. */
const lowestUllage_Pa = ({ levels }: FlowInputs, { nodes }: NetworkSolution): number =>
  Math.min(...levels.map(({ tank }) => nodes.get(ullageNode(tank.document.id))?.gauge_Pa ?? 0));

/**
 * What one consumer gets: the flow at its needed pressure, and the pressure at
 * its needed flow, with all other consumers drawing what they need, those left
 * out whose own feed is shut or starved.
 */
export function flowResult(inputs: FlowInputs, consumer: ConsumerDocument, detail: Detail): Outcome<FlowResult, FlowCode> {
  const blocked = whyBlocked(inputs, consumer);
  if (blocked) return blocked;
  const needed_m3PerS = consumer.neededFlow_m3PerS.value;
  const neededPressure_Pa = consumer.neededPressure_Pa.value;
  const held = solveFor(inputs, consumer, { consumer: consumer.id, hold_Pa: neededPressure_Pa });
  if (!held.ok) return held;
  const drawn = solveFor(inputs, consumer, { consumer: consumer.id, outflow_m3PerS: needed_m3PerS });
  if (!drawn.ok) return drawn;
  const delivered_m3PerS = arriving(inputs.system, consumer, held.value);
  const path = new Set(feedPath(inputs.system, consumer.id));
  const pumps = inputs.system.components.filter((part): part is PumpPart => part.kind === 'pump' && path.has(part.id));
  return success({
    consumer: consumer.id,
    needed_m3PerS,
    neededPressure_Pa,
    delivered_m3PerS,
    margin_ratio: delivered_m3PerS / needed_m3PerS,
    pressureAtNeed_Pa: drawn.value.nodes.get(consumer.id)!.gauge_Pa,
    suction: worstSuction(drawn.value),
    ullageGauge_Pa: lowestUllage_Pa(inputs, drawn.value),
    nodes: [...drawn.value.nodes.values()],
    links: [...drawn.value.links.values()],
    pumps: pumps.map((pump) => pumpResult(pump, drawn.value, inputs)),
    chart: detail === 'full' ? pumpChart(inputs, consumer, pumps, delivered_m3PerS) : [],
    iterations: Math.max(held.value.iterations, drawn.value.iterations),
    massResidual_m3PerS: Math.max(held.value.massResidual_m3PerS, drawn.value.massResidual_m3PerS),
    energyResidual_Pa: Math.max(held.value.energyResidual_Pa, drawn.value.energyResidual_Pa),
  });
}

type PumpPart = Extract<ComponentDocument, { kind: 'pump' }>;

function solveFor(inputs: FlowInputs, consumer: ConsumerDocument, draw: Draw): Outcome<NetworkSolution, NetworkCode> {
  const others = inputs.system.consumers
    .filter((other) => other.id !== consumer.id && !whyBlocked(inputs, other))
    .map((other): Draw => ({ consumer: other.id, outflow_m3PerS: other.neededFlow_m3PerS.value }));
  return solveNetwork(withoutIslands(compileNetwork(inputs, [draw, ...others]), consumer.id));
}

const arriving = (system: SystemDocument, consumer: ConsumerDocument, solution: NetworkSolution): number =>
  system.lines.filter((line) => line.to.item === consumer.id).reduce((sum, line) => sum + (solution.links.get(line.id)?.flow_m3PerS ?? 0), 0);

function worstSuction(solution: NetworkSolution): FlowResult['suction'] {
  const liquid = [...solution.nodes.values()].filter((node) => !/:(air|ullage)$/.test(node.id));
  const worst = liquid.reduce((low, node) => (node.vapourMargin_Pa < low.vapourMargin_Pa ? node : low));
  return { node: worst.name, margin_Pa: worst.vapourMargin_Pa, gauge_Pa: worst.gauge_Pa };
}

function pumpResult(pump: PumpPart, solution: NetworkSolution, inputs: FlowInputs): PumpResult {
  const inlet = solution.nodes.get(inletNode(pump.id))!;
  const outlet = solution.nodes.get(outletNode(pump.id))!;
  return {
    id: pump.id, name: pump.name,
    rise_Pa: outlet.gauge_Pa - inlet.gauge_Pa,
    inletGauge_Pa: inlet.gauge_Pa,
    lift_m: -inlet.gauge_Pa / (inputs.fluid.density_kgPerM3 * inputs.gravity.magnitude_mPerS2),
  };
}

/**
 * The pump's curve and the line's, at a row of flows. What the line asks is
 * what the pumps give less the pressure that is over at the consumer.
 */
function pumpChart(inputs: FlowInputs, consumer: ConsumerDocument, pumps: readonly PumpPart[], delivered: number): PumpChartPoint[] {
  const freeFlows = pumps.flatMap((pump) => pump.curve.map((point) => point.flow_m3PerS * pump.output_ratio.value * (inputs.system.conditions.pumpVoltage_V / pump.ratedVoltage_V.value)));
  const reach = CHART_REACH * Math.max(delivered, consumer.neededFlow_m3PerS.value, ...freeFlows);
  return Array.from({ length: CHART_STEPS + 1 }, (_, i) => (reach * i) / CHART_STEPS).flatMap((flow) => {
    const solved = solveFor(inputs, consumer, { consumer: consumer.id, outflow_m3PerS: flow });
    if (!solved.ok) return [];
    const given_Pa = pumps.reduce((sum, pump) => sum + pumpResult(pump, solved.value, inputs).rise_Pa, 0);
    const over = solved.value.nodes.get(consumer.id)!.gauge_Pa - consumer.neededPressure_Pa.value;
    return [{ flow_m3PerS: flow, given_Pa, asked_Pa: given_Pa - over }];
  });
}

/** The plain reasons why nothing can flow, before any solving. */
function whyBlocked(inputs: FlowInputs, consumer: ConsumerDocument): { ok: false; error: { code: FlowCode; at: string; detail: string } } | undefined {
  const { system, levels } = inputs;
  const path = feedPath(system, consumer.id);
  const source = path.at(-1)!;
  const level = levels.find(({ tank }) => tank.document.pickups.some((pickup) => pickup.id === source));
  if (!level) return failure('not-joined', consumer.name, `No line leads from a tank's pickup to ${consumer.name}.`);
  const network = compileNetwork(inputs, []);
  const shut = network.links.filter((link) => link.elements.some((element) => element.kind === 'closed'));
  if (shut.some((link) => link.id === `${source}:tube`)) {
    return failure('pickup-in-air', source, `At this fill and slope the pickup of ${level.tank.document.name} draws air.`);
  }
  const valve = system.components.find((part) => part.kind === 'valve' && !part.open && path.includes(part.id));
  if (valve) return failure('valve-shut', valve.name, `${valve.name} is shut.`);
  const vents = level.tank.ports.filter(({ document }) => document.role === 'vent').map(({ document }) => document.id);
  if (vents.every((id) => shut.some((link) => link.id === id))) {
    return failure('vent-shut', level.tank.document.name, vents.length === 0
      ? `${level.tank.document.name} has no vent: no air can follow the fuel out.`
      : `Every vent of ${level.tank.document.name} lies under the liquid at this fill and slope: no air can follow the fuel out.`);
  }
  return undefined;
}
