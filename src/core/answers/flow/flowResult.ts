import { DIRTY_RATIO } from '../../reference/filters';
import { driveRatio, kindOf, pumpPoints, type PumpDocument } from '../../components';
import { carriesFlow, endKey, feedPath, type Circuits } from '../../plan/circuits';
import { isAirNode, inletNode, returned_m3PerS, partLink, ullageNode, type FlowInputs } from '../../model/networkParts';
import type { ConsumerDocument } from '../../plan/schema';
import type { FluidState } from '../../fluids';
import { success, type Outcome } from '../../outcome';
import {
  atVoltage,
  parsePumpCurve,
  pumpLaw,
  type LinkResult,
  type NetworkSolution,
  type NodeResult,
} from '../../network';
import { burnOf_m3PerS } from '../../model/burn';
import { electricsOf, type ElectricsResult } from './electrics';
import { headOf, type Head } from './head';
import { lowestBetween } from '../lines/profile';
import { riseOf, steadySolution, whyBlocked, workedAgainst_Pa, type FlowCode, type SteadySolution } from './flowSolve';
import type { Detail } from '../tank/tankResult';

export type { FlowCode } from './flowSolve';

export type PumpResult = {
  readonly id: string;
  readonly name: string;
  readonly running: boolean;
  /** At the consumer's needed flow. */
  readonly flow_m3PerS: number;
  readonly rise_Pa: number;
  readonly inletGauge_Pa: number;
  readonly lift_m: number;
  readonly volts_V: number;
  readonly electrics: ElectricsResult | undefined;
};

/**
 * A point of the pump chart: what the pump gives and what the line asks at a flow; on low voltage, and with dirty
 * filters.
 */
export type PumpChartPoint = {
  readonly flow_m3PerS: number;
  readonly given_Pa: number;
  readonly asked_Pa: number;
  readonly givenLow_Pa: number;
  readonly askedDirty_Pa: number;
};

/** Need and pressure at an engine's duty; absent where the solver finds none. */
export type DutyResult = {
  readonly duty: 'idle' | 'cruise' | 'full';
  readonly drawn_m3PerS: number;
  readonly pressure_Pa: number | undefined;
};

/** A part of the feed with the pressure that it costs at the needed flow. */
export type LossShare = { readonly id: string; readonly name: string; readonly loss_Pa: number };

export type FlowResult = {
  readonly consumer: string;
  /** What it draws: that of the tank that feeds it. */
  readonly fluid: FluidState;
  readonly needed_m3PerS: number;
  readonly neededPressure_Pa: number;
  /** Flow when the consumer is held at its needed pressure. */
  readonly delivered_m3PerS: number;
  readonly margin_ratio: number;
  /** Pressure at the consumer when it draws its needed flow. */
  readonly pressureAtNeed_Pa: number;
  readonly duties: readonly DutyResult[];
  /** The place nearest to boiling at the needed flow. */
  readonly suction: { readonly node: string; readonly margin_Pa: number; readonly gauge_Pa: number };
  /** Where gravity alone feeds it. */
  readonly head: Head | undefined;
  readonly ullageGauge_Pa: number;
  /** Goes back to a tank, where the consumer has a line for it. */
  readonly returned_m3PerS: number;
  readonly nodes: readonly NodeResult[];
  readonly links: readonly LinkResult[];
  readonly pumps: readonly PumpResult[];
  /** Of the feed, costliest first. */
  readonly losses: readonly LossShare[];
  readonly chart: readonly PumpChartPoint[];
  /** Flows of the chart at which there is no answer: not drawn, and told. */
  readonly chartLost: number;
  readonly iterations: number;
  readonly massResidual_m3PerS: number;
  readonly energyResidual_Pa: number;
};

/** Common practice: under this share over need a worn pump or a dirty filter starves the consumer. */
export const COMFORT_RATIO = 1.2;
/** Common practice: closer to boiling than this a warm day or a bend vapour-locks the line [Pa]. */
export const VAPOUR_MARGIN_PA = 15e3;

const CHART_STEPS = 24;
/** The chart runs this far past the pump's free flow or the delivered flow. */
const CHART_REACH = 1.1;
/** Common practice: cranking, a tired battery, a long wire. */
export const LOW_VOLTS_RATIO = 0.85;

/** The deepest vacuum in any tank [Pa, gauge]; a tank that nothing draws from has no node and stands at the air's. */
const lowestUllage_Pa = ({ levels }: FlowInputs, { nodes }: NetworkSolution): number =>
  Math.min(...levels.map(({ tank }) => nodes.get(ullageNode(tank.document.id))?.gauge_Pa ?? 0));

/**
 * What one consumer gets: the flow at its needed pressure, and the pressure at
 * its needed flow, with all other consumers drawing what they need, those left
 * out whose own feed is shut or starved.
 */
export function flowResult(
  inputs: FlowInputs,
  consumer: ConsumerDocument,
  detail: Detail,
): Outcome<FlowResult, FlowCode> {
  const blocked = whyBlocked(inputs, consumer);
  if (blocked) return blocked;
  const needed_m3PerS = consumer.neededFlow_m3PerS.value;
  const neededPressure_Pa = consumer.neededPressure_Pa.value;
  const back = inputs.system.lines.some(({ from }) => from.item === consumer.id && from.end === 'out')
    ? returned_m3PerS(consumer)
    : 0;
  const held = steadySolution(inputs, [{ consumer: consumer.id, hold_Pa: neededPressure_Pa }], consumer.id);
  if (!held.ok) return held;
  const drawn = steadySolution(inputs, [{ consumer: consumer.id, outflow_m3PerS: needed_m3PerS }], consumer.id);
  if (!drawn.ok) return drawn;
  const delivered_m3PerS = arriving(inputs, consumer, held.value.solution);
  const path = feedPath(inputs.system, consumer.id);
  const pumps = inputs.system.components.filter(
    (part): part is PumpDocument => part.kind === 'pump' && path.includes(part.id),
  );
  const { solution } = drawn.value;
  return success({
    consumer: consumer.id,
    fluid: inputs.fluid,
    needed_m3PerS,
    neededPressure_Pa,
    delivered_m3PerS,
    margin_ratio: delivered_m3PerS / needed_m3PerS,
    pressureAtNeed_Pa: solution.nodes.get(inletNode(consumer.id))!.gauge_Pa,
    duties: detail === 'full' ? dutiesOf(inputs, consumer, back) : [],
    suction: worstSuction(inputs, path, solution),
    head: headOf(inputs, consumer),
    ullageGauge_Pa: lowestUllage_Pa(inputs, solution),
    returned_m3PerS: back,
    nodes: [...solution.nodes.values()],
    links: [...solution.links.values()],
    pumps: pumps.map((pump) => pumpResult(pump, drawn.value, inputs)),
    losses: lossesOn(inputs.system, path, solution),
    ...(detail === 'full' ? pumpChart(inputs, consumer, pumps, delivered_m3PerS) : { chart: [], chartLost: 0 }),
    iterations: Math.max(held.value.solution.iterations, solution.iterations),
    massResidual_m3PerS: Math.max(held.value.solution.massResidual_m3PerS, solution.massResidual_m3PerS),
    energyResidual_Pa: Math.max(held.value.solution.energyResidual_Pa, solution.energyResidual_Pa),
  });
}

/**
 * What comes to a consumer by its lines; nothing where a regulator or a low
 * tank holds less pressure than it is held at and flow would leave it.
 */
export const arriving = ({ system }: FlowInputs, consumer: ConsumerDocument, solution: NetworkSolution): number =>
  Math.max(
    0,
    system.lines
      .filter((line) => carriesFlow(line) && line.to.item === consumer.id && line.to.end === 'in')
      .reduce((sum, line) => sum + (solution.links.get(line.id)?.flow_m3PerS ?? 0), 0),
  );

function dutiesOf(inputs: FlowInputs, consumer: ConsumerDocument, back: number): DutyResult[] {
  const duties = [
    ['idle', 0],
    ['cruise', inputs.state.duty_ratio],
    ['full', 1],
  ] as const;
  return duties.map(([duty, share]) => {
    // A nozzle has no duty: it takes what it takes.
    const burn_m3PerS = burnOf_m3PerS(consumer, share);
    const drawn_m3PerS =
      consumer.kind === 'nozzle' || share === 1 ? consumer.neededFlow_m3PerS.value : burn_m3PerS + back;
    const solved = steadySolution(inputs, [{ consumer: consumer.id, outflow_m3PerS: drawn_m3PerS }], consumer.id);
    return {
      duty,
      drawn_m3PerS,
      pressure_Pa: solved.ok ? solved.value.solution.nodes.get(inletNode(consumer.id))?.gauge_Pa : undefined,
    };
  });
}

/** The place on a feed nearest to boiling, ends of parts and humps of lines alike. */
function worstSuction(inputs: FlowInputs, path: readonly string[], solution: NetworkSolution): FlowResult['suction'] {
  const on = new Set(path);
  const liquid = [...solution.nodes.values()].filter(
    (node) => !isAirNode(node.id) && on.has(node.id.slice(0, node.id.lastIndexOf(':'))),
  );
  const worst = liquid.reduce((low, node) => (node.vapourMargin_Pa < low.vapourMargin_Pa ? node : low));
  const hump = lowestBetween(inputs, solution, on);
  return hump && hump.gauge_Pa < worst.staticGauge_Pa
    ? {
        node: `${hump.line}, on its way`,
        margin_Pa: worst.vapourMargin_Pa + hump.gauge_Pa - worst.staticGauge_Pa,
        gauge_Pa: hump.gauge_Pa,
      }
    : { node: worst.name, margin_Pa: worst.vapourMargin_Pa, gauge_Pa: worst.staticGauge_Pa };
}

/** What each part on a way costs; what pumps give, what regulators hold back and what is shut is no loss. */
function lossesOn(system: Circuits, path: readonly string[], { links }: NetworkSolution): LossShare[] {
  const lines = system.lines.filter(({ id }) => path.includes(id));
  // A tee has a link to each of its ends: those that the way goes by are its own.
  const ends = lines.flatMap(({ from, to }) => [endKey(from), endKey(to)]);
  const onWay = path.flatMap((id) => {
    const part = system.components.find((each) => each.id === id);
    const pairs = part && kindOf(part).joins?.(part);
    if (!pairs) return [id];
    const pair = pairs.find((each) => each.every((end) => ends.includes(endKey({ item: id, end }))));
    return pair ? [partLink(part, pair)] : [];
  });
  return (
    [...new Set([...onWay, `${path.at(-1)}:tube`, ...ends])]
      .flatMap((id) => links.get(id) ?? [])
      .filter(({ regulating, shut }) => regulating === undefined && !shut)
      // A link's loss is reckoned the way that it is written; what flows the other way loses as much.
      .map(({ id, name, loss_Pa, flow_m3PerS }) => ({ id, name, loss_Pa: flow_m3PerS < 0 ? -loss_Pa : loss_Pa }))
      .filter(({ loss_Pa }) => loss_Pa > 0)
      .sort((a, b) => b.loss_Pa - a.loss_Pa)
  );
}

function pumpResult(pump: PumpDocument, { solution, volts }: SteadySolution, inputs: FlowInputs): PumpResult {
  const inletGauge_Pa = solution.nodes.get(inletNode(pump.id))?.gauge_Pa ?? 0;
  const rise_Pa = riseOf(pump, solution);
  const flow_m3PerS = solution.links.get(pump.id)?.flow_m3PerS ?? 0;
  return {
    id: pump.id,
    name: pump.name,
    running: pump.running,
    flow_m3PerS,
    rise_Pa,
    inletGauge_Pa,
    lift_m: -inletGauge_Pa / (inputs.fluid.density_kgPerM3 * inputs.state.gravity.magnitude_mPerS2),
    volts_V: volts.get(pump.id) ?? inputs.state.supply_V,
    electrics: electricsOf(inputs.state, pump, workedAgainst_Pa(inputs, pump, solution), flow_m3PerS),
  };
}

/**
 * The pump's curve and the line's, at a row of flows. What the line asks is
 * what the pumps give less the pressure that is over at the consumer.
 */
function pumpChart(
  inputs: FlowInputs,
  consumer: ConsumerDocument,
  pumps: readonly PumpDocument[],
  delivered: number,
): { readonly chart: readonly PumpChartPoint[]; readonly chartLost: number } {
  const freeFlows = pumps.flatMap((pump) =>
    pumpPoints(pump).map(({ flow_m3PerS }) => flow_m3PerS * driveRatio(pump, inputs.state.supply_V)),
  );
  const reach = CHART_REACH * Math.max(delivered, consumer.neededFlow_m3PerS.value, ...freeFlows);
  const path = new Set(feedPath(inputs.system, consumer.id));
  const filters = inputs.system.components.flatMap((part) =>
    part.kind === 'filter' && path.has(part.id) ? [part] : [],
  );
  const chart = Array.from({ length: CHART_STEPS + 1 }, (_, i) => (reach * i) / CHART_STEPS).flatMap(
    (flow): PumpChartPoint[] => {
      const solved = steadySolution(inputs, [{ consumer: consumer.id, outflow_m3PerS: flow }], consumer.id);
      if (!solved.ok) return [];
      const { solution, volts } = solved.value;
      const through = (id: string): number => solution.links.get(id)?.flow_m3PerS ?? flow;
      const given_Pa = pumps.reduce((sum, pump) => sum + riseOf(pump, solution), 0);
      const over = solution.nodes.get(inletNode(consumer.id))!.gauge_Pa - consumer.neededPressure_Pa.value;
      const givenLow_Pa = pumps.reduce(
        (sum, pump) =>
          sum + riseAtVolts(pump, through(pump.id), LOW_VOLTS_RATIO * (volts.get(pump.id) ?? inputs.state.supply_V)),
        0,
      );
      // A filter's loss goes with its dirt; what is there already is counted.
      const dirt_Pa = filters.reduce(
        (sum, filter) =>
          sum + (solution.links.get(filter.id)?.loss_Pa ?? 0) * Math.max(0, DIRTY_RATIO / filter.dirt_ratio.value - 1),
        0,
      );
      return [
        {
          flow_m3PerS: flow,
          given_Pa,
          asked_Pa: given_Pa - over,
          givenLow_Pa,
          askedDirty_Pa: given_Pa - over + dirt_Pa,
        },
      ];
    },
  );
  return { chart, chartLost: CHART_STEPS + 1 - chart.length };
}

function riseAtVolts(pump: PumpDocument, flow_m3PerS: number, volts: number): number {
  const curve = parsePumpCurve(pumpPoints(pump), pump.name);
  return curve.ok && pump.running && volts > 0
    ? -pumpLaw(atVoltage(curve.value, driveRatio(pump, volts)))(flow_m3PerS).pressure_Pa
    : 0;
}
