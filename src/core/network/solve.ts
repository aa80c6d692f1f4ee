import { failure, success, type Outcome } from '../outcome';
import type { LossLaw } from './laws';
import { choleskySolve } from './cholesky';

/**
 * A network ready to solve. Node values are potentials: pressure plus the
 * weight of liquid above the datum, so that height needs no further thought.
 */
export type Graph = {
  readonly nodes: readonly GraphNode[];
  readonly links: readonly GraphLink[];
};

export type GraphNode = {
  readonly id: string;
  /** Given potential [Pa]; such a node gives or takes whatever flow that needs. */
  readonly fixed_Pa?: number;
  /** Liquid taken out at a free node [m³/s]; negative feeds in. */
  readonly outflow_m3PerS?: number;
};

export type GraphLink = {
  readonly id: string;
  readonly from: number;
  readonly to: number;
  readonly law: LossLaw;
};

export type GraphSolution = {
  readonly potential_Pa: Float64Array;
  readonly flow_m3PerS: Float64Array;
  readonly iterations: number;
  /** Largest imbalance at a free node [m³/s]. */
  readonly massResidual_m3PerS: number;
  /** Largest disagreement between a link's law and the pressures at its ends [Pa]. */
  readonly energyResidual_Pa: number;
};

export type SolveCode = 'no-path' | 'not-converged' | 'no-boundary';

const MAX_ITERATIONS = 100;
/** A hundredth of a millimetre of fuel; and a billionth of the largest pressure at work. */
const ENERGY_ABS_PA = 1e-4;
const ENERGY_REL = 1e-9;
/** Far below a drop an hour; and rounding against the largest flow. */
const MASS_ABS_M3_PER_S = 1e-15;
const MASS_REL = 1e-9;
/** Slope added to every law so that a link without loss still has one: 0.1 mPa at 6 L/min. */
const LEAST_SLOPE = 1;
const START_FLOW_M3_PER_S = 1e-6;

/**
 * Steady flow in any network, loops and several sources included.
 *
 * The flows minimise the network's content (the integral of every link's
 * loss), which is strictly convex because every law rises with flow. Each
 * step is Newton's, solved through the node potentials (global gradient
 * method); a search along the step for the content's minimum makes it
 * converge from any start.
 *
 * @source E. Todini and S. Pilati, "A gradient algorithm for the analysis of
 * pipe networks" (1988); content model: M. Collins et al., Management Science 24 (1978)
 */
export function solveGraph(graph: Graph): Outcome<GraphSolution, SolveCode> {
  const cut = unreachable(graph);
  if (cut) return cut;
  const state = start(graph);
  for (let iterations = 1; iterations <= MAX_ITERATIONS; iterations++) {
    const solved = newtonStep(graph, state);
    if (!solved) break;
    const step = iterations === 1 ? 1 : stepLength(graph, state, solved);
    for (let i = 0; i < graph.links.length; i++) state.flow[i]! += step * solved.change[i]!;
    state.potential = solved.potential;
    const residuals = residualsOf(graph, state);
    if (residuals.small) {
      return success({
        potential_Pa: state.potential,
        flow_m3PerS: state.flow,
        iterations,
        massResidual_m3PerS: residuals.mass,
        energyResidual_Pa: residuals.energy,
      });
    }
  }
  const { energy, worstLink } = residualsOf(graph, state);
  return failure('not-converged', worstLink, `The flow did not settle: ${Number.isFinite(energy) ? energy.toPrecision(2) : 'an endless'} Pa of disagreement remains at ${worstLink}.`);
}

type State = { flow: Float64Array; potential: Float64Array; readonly freeIndex: Int32Array; readonly freeCount: number };

function start(graph: Graph): State {
  const freeIndex = new Int32Array(graph.nodes.length).fill(-1);
  let freeCount = 0;
  const potential = new Float64Array(graph.nodes.length);
  graph.nodes.forEach((node, index) => {
    if (node.fixed_Pa === undefined) freeIndex[index] = freeCount++;
    else potential[index] = node.fixed_Pa;
  });
  return { flow: new Float64Array(graph.links.length).fill(START_FLOW_M3_PER_S), potential, freeIndex, freeCount };
}

function lossOf(link: GraphLink, flow: number): { pressure: number; slope: number } {
  const loss = link.law(flow);
  return { pressure: loss.pressure_Pa + LEAST_SLOPE * flow, slope: loss.slope_PaSPerM3 + LEAST_SLOPE };
}

type Step = { readonly potential: Float64Array; readonly change: Float64Array };

/** Newton's step: new potentials from the linearised laws, and the flow changes that go with them. */
function newtonStep(graph: Graph, state: State): Step | undefined {
  const { freeIndex, freeCount } = state;
  const matrix = new Float64Array(freeCount * freeCount);
  const right = new Float64Array(freeCount);
  graph.nodes.forEach((node, index) => {
    if (freeIndex[index]! >= 0) right[freeIndex[index]!]! -= node.outflow_m3PerS ?? 0;
  });
  const laws = graph.links.map((link, l) => lossOf(link, state.flow[l]!));
  graph.links.forEach((link, l) => {
    const { pressure, slope } = laws[l]!;
    const conductance = 1 / slope;
    const constant = state.flow[l]! - pressure * conductance;
    stamp(matrix, right, state, link, conductance, constant);
  });
  const free = choleskySolve(matrix, right, freeCount);
  if (!free) return undefined;
  const potential = Float64Array.from(state.potential);
  freeIndex.forEach((at, index) => {
    if (at >= 0) potential[index] = free[at]!;
  });
  const change = Float64Array.from(graph.links, (link, l) => {
    const { pressure, slope } = laws[l]!;
    return (potential[link.from]! - potential[link.to]! - pressure) / slope;
  });
  return { potential, change };
}

/** Adds one link, flow = conductance x (difference of potentials) + constant, to the node equations. */
function stamp(matrix: Float64Array, right: Float64Array, state: State, link: GraphLink, conductance: number, constant: number): void {
  const n = state.freeCount;
  const [i, j] = [state.freeIndex[link.from]!, state.freeIndex[link.to]!];
  if (i >= 0) {
    matrix[i * n + i]! += conductance;
    right[i]! -= constant;
    if (j < 0) right[i]! += conductance * state.potential[link.to]!;
  }
  if (j >= 0) {
    matrix[j * n + j]! += conductance;
    right[j]! += constant;
    if (i < 0) right[j]! += conductance * state.potential[link.from]!;
  }
  if (i >= 0 && j >= 0) {
    matrix[i * n + j]! -= conductance;
    matrix[j * n + i]! -= conductance;
  }
}

/** Slope of the content along the step; it rises with the step's length and is negative at none. */
function contentSlope(graph: Graph, state: State, step: Step, length: number): number {
  let slope = 0;
  graph.links.forEach((link, l) => {
    const change = step.change[l]!;
    const { pressure } = lossOf(link, state.flow[l]! + length * change);
    slope += change * (pressure - step.potential[link.from]! + step.potential[link.to]!);
  });
  return slope;
}

/** How much of the step to take: all of it unless that overshoots the content's minimum badly. */
function stepLength(graph: Graph, state: State, step: Step): number {
  const atNone = contentSlope(graph, state, step, 0);
  const atAll = contentSlope(graph, state, step, 1);
  if (atAll <= 0.5 * Math.abs(atNone)) return 1;
  let [low, high] = [0, 1];
  let length = 0.5;
  for (let i = 0; i < 40; i++) {
    const slope = contentSlope(graph, state, step, length);
    if (Math.abs(slope) <= 0.1 * Math.abs(atNone)) break;
    if (slope > 0) high = length;
    else low = length;
    length = (low + high) / 2;
  }
  return length;
}

function residualsOf(graph: Graph, state: State): { mass: number; energy: number; small: boolean; worstLink: string } {
  const balance = Float64Array.from(graph.nodes, (node) => -(node.outflow_m3PerS ?? 0));
  let energy = 0;
  let worstLink = graph.links[0]?.id ?? '';
  let [largestFlow, largestPressure] = [0, 0];
  graph.links.forEach((link, l) => {
    const flow = state.flow[l]!;
    balance[link.from]! -= flow;
    balance[link.to]! += flow;
    const difference = state.potential[link.from]! - state.potential[link.to]!;
    const { pressure } = lossOf(link, flow);
    const gap = Math.abs(pressure - difference);
    if (!(gap <= energy)) [energy, worstLink] = [gap, link.id];
    largestFlow = Math.max(largestFlow, Math.abs(flow));
    largestPressure = Math.max(largestPressure, Math.abs(difference), Math.abs(state.potential[link.from]!));
  });
  const mass = balance.reduce((worst, value, index) => (state.freeIndex[index]! >= 0 ? Math.max(worst, Math.abs(value)) : worst), 0);
  const small = energy <= ENERGY_ABS_PA + ENERGY_REL * largestPressure && mass <= MASS_ABS_M3_PER_S + MASS_REL * largestFlow;
  return { mass, energy, small, worstLink };
}

/** Every free node must hang on a node of given pressure, or its pressure means nothing. */
function unreachable(graph: Graph): { ok: false; error: { code: SolveCode; at: string; detail: string } } | undefined {
  if (graph.nodes.every((node) => node.fixed_Pa === undefined)) return failure('no-boundary', 'network', 'No tank or open end fixes a pressure.');
  const seen = new Set(graph.nodes.flatMap((node, index) => (node.fixed_Pa === undefined ? [] : [index])));
  for (let grown = true; grown; ) {
    grown = false;
    for (const { from, to } of graph.links) {
      if (seen.has(from) === seen.has(to)) continue;
      seen.add(from).add(to);
      grown = true;
    }
  }
  const cutOff = graph.nodes.findIndex((_, index) => !seen.has(index));
  return cutOff < 0 ? undefined : failure('no-path', graph.nodes[cutOff]!.id, `No open line joins ${graph.nodes[cutOff]!.id} to a tank or an open end.`);
}
