import { failure, success, type Outcome } from '../outcome';
import { reached } from '../reached';
import { frictionNumber, LAMINAR_RE } from './friction';
import type { LossLaw } from './laws';
import { factorSparse, solveSparse, sparseShape, type SparseShape } from './sparse';

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
  /** A flow of the size to be expected, to begin with [m³/s]. */
  readonly about_m3PerS?: number;
  /** A regulator: it throttles so that the potential at one of its ends stays at a value. */
  readonly hold?: { readonly end: 'from' | 'to'; readonly potential_Pa: number };
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

export type SolveCode = 'no-path' | 'not-converged' | 'no-boundary' | 'not-settled';

/**
 * What of a graph stays while its values change: which nodes are free, the
 * order in which they are eliminated, and room to work in. One solution at a
 * time.
 */
export type GraphShape = {
  readonly matrix: SparseShape;
  /** The step at which each free node is eliminated; -1 where its potential is given. */
  readonly free: Int32Array;
  /** Where each link's entry lies in the matrix; -1 where an end is given. */
  readonly entries: Int32Array;
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly room: Room;
  /** Terms of plain lines, five to a link, with the laws that they were taken from. */
  readonly terms: Float64Array;
  readonly termsOf: (LossLaw | undefined)[];
};

const TERMS = 5;

/** By node: what is drawn there and its potential. By link: its flow, loss and slope, how the flow is to change, and flows on trial. Of the matrix: values and right side. */
type Room = Readonly<Record<'outflow' | 'potential' | 'balance' | 'flow' | 'loss' | 'slope' | 'change' | 'tried' | 'values' | 'right', Float64Array>>;

const MAX_ITERATIONS = 100;
/** A hundredth of a millimetre of fuel; and a billionth of the largest pressure at work. */
const ENERGY_ABS_PA = 1e-4;
const ENERGY_REL = 1e-9;
/** Far below a drop an hour; and rounding against the largest flow. */
const MASS_ABS_M3_PER_S = 1e-15;
const MASS_REL = 1e-9;
/** Slope added to every law so that a link without loss still has one: 0.1 mPa at 6 L/min. */
const LEAST_SLOPE = 1;
/** Flow that a solution is begun from where nothing is known of its size. */
export const START_FLOW_M3_PER_S = 1e-6;
/** A step is cut back when the content's slope at its end is above this share of that at its start. */
const OVERSHOOT = 0.5;
const SEARCH_SHARE = 0.1;
const SEARCH_STEPS = 40;

const SHAPES_KEPT = 6;
/** Shapes of the graphs solved last, newest first: from one edit to the next a network mostly changes in its values only. */
const shapes: GraphShape[] = [];

function keptShape(graph: Graph): Outcome<GraphShape, SolveCode> {
  const at = shapes.findIndex((shape) => hasShape(graph, shape));
  if (at >= 0) {
    const [kept] = shapes.splice(at, 1);
    shapes.unshift(kept!);
    return success(kept!);
  }
  const made = graphShape(graph);
  if (made.ok) {
    shapes.unshift(made.value);
    shapes.length = Math.min(shapes.length, SHAPES_KEPT);
  }
  return made;
}

function hasShape({ nodes, links }: Graph, { free, from, to }: GraphShape): boolean {
  if (nodes.length !== free.length || links.length !== from.length) return false;
  for (let n = 0; n < nodes.length; n++) if ((nodes[n]!.fixed_Pa === undefined) !== (free[n]! >= 0)) return false;
  for (let l = 0; l < links.length; l++) if (links[l]!.from !== from[l] || links[l]!.to !== to[l]) return false;
  return true;
}

/** Works out what stays of a graph; to be kept and handed to `solveGraph` while only values change. */
export function graphShape(graph: Graph): Outcome<GraphShape, SolveCode> {
  const cut = unreachable(graph);
  if (cut) return cut;
  const free = new Int32Array(graph.nodes.length).fill(-1);
  let size = 0;
  graph.nodes.forEach((node, index) => {
    if (node.fixed_Pa === undefined) free[index] = size++;
  });
  const pairs = graph.links.flatMap(({ from, to }) => (free[from]! >= 0 && free[to]! >= 0 ? [free[from]!, free[to]!] : []));
  const matrix = sparseShape(size, Int32Array.from(pairs));
  const entryOf = ({ from, to }: GraphLink): number => (from !== to && free[from]! >= 0 && free[to]! >= 0 ? matrix.entry(free[from]!, free[to]!) : -1);
  const entries = Int32Array.from(graph.links, entryOf);
  const [byNode, byLink] = [() => new Float64Array(graph.nodes.length), () => new Float64Array(graph.links.length)];
  return success({
    matrix, free: free.map((count) => (count < 0 ? -1 : matrix.step[count]!)), entries,
    terms: new Float64Array(TERMS * graph.links.length), termsOf: new Array<LossLaw | undefined>(graph.links.length).fill(undefined),
    from: Int32Array.from(graph.links, ({ from }) => from), to: Int32Array.from(graph.links, ({ to }) => to),
    room: {
      outflow: byNode(), potential: byNode(), balance: byNode(), flow: byLink(), loss: byLink(), slope: byLink(), change: byLink(), tried: byLink(),
      values: new Float64Array(matrix.values), right: new Float64Array(matrix.size),
    },
  });
}

/**
 * Steady flow in any network, loops and several sources included.
 *
 * The flows minimise the network's content (the integral of every link's
 * loss), which is strictly convex because every law rises with flow. Each
 * step is Newton's, solved through the node potentials (global gradient
 * method); a search along the step for the content's minimum makes it
 * converge from any start. Regulators stand as open links here; see
 * `regulate.ts`.
 *
 * @param shape of this graph, where it is known from an earlier solution
 * @param start flows to begin with [m³/s], such as those of an earlier solution
 * @source E. Todini and S. Pilati, "A gradient algorithm for the analysis of
 * pipe networks" (1988); content model: M. Collins et al., Management Science 24 (1978)
 */
export function solveGraph(graph: Graph, shape?: GraphShape, start?: Float64Array): Outcome<GraphSolution, SolveCode> {
  let known = shape;
  if (!known) {
    const kept = keptShape(graph);
    if (!kept.ok) return kept;
    known = kept.value;
  }
  begin(graph, known, start);
  for (let iterations = 1; iterations <= MAX_ITERATIONS; iterations++) {
    if (!newtonStep(known)) break;
    takeStep(known, iterations > 1 || start !== undefined);
    const residuals = residualsOf(known);
    if (residuals.small) {
      return success({
        potential_Pa: known.room.potential.slice(), flow_m3PerS: known.room.flow.slice(), iterations,
        massResidual_m3PerS: residuals.mass, energyResidual_Pa: residuals.energy,
      });
    }
  }
  const { energy, worst } = residualsOf(known);
  const at = graph.links[worst]?.id ?? '';
  return failure('not-converged', at, `The flow did not settle: ${Number.isFinite(energy) ? energy.toPrecision(2) : 'an endless'} Pa of disagreement remains at ${at}.`);
}

function begin({ nodes, links }: Graph, shape: GraphShape, start: Float64Array | undefined): void {
  const { outflow, potential, flow } = shape.room;
  for (let n = 0; n < nodes.length; n++) {
    outflow[n] = nodes[n]!.outflow_m3PerS ?? 0;
    potential[n] = nodes[n]!.fixed_Pa ?? 0;
  }
  if (start) flow.set(start);
  else for (let l = 0; l < links.length; l++) flow[l] = links[l]!.about_m3PerS ?? START_FLOW_M3_PER_S;
  for (let l = 0; l < links.length; l++) if (shape.termsOf[l] !== links[l]!.law) takeTerms(shape, l, links[l]!.law);
  evaluateLaws(shape, flow);
}

function takeTerms({ terms, termsOf }: GraphShape, l: number, law: LossLaw): void {
  termsOf[l] = law;
  const { line } = law;
  // What is no number marks a law that must be called.
  terms[TERMS * l] = line ? line.friction_Pa : Number.NaN;
  terms[TERMS * l + 1] = line?.rePerFlow_sPerM3 ?? 0;
  terms[TERMS * l + 2] = line?.linear_PaSPerM3 ?? 0;
  terms[TERMS * l + 3] = line?.square_PaS2PerM6 ?? 0;
  terms[TERMS * l + 4] = line?.relativeRoughness ?? 0;
}

/** Loss and slope of every link at its flow; those of lines in laminar flow, the most of them here, without a call. */
function evaluateLaws({ terms, termsOf, room: { loss, slope } }: GraphShape, flow: Float64Array): void {
  for (let l = 0; l < flow.length; l++) {
    const q = flow[l]!;
    const at = TERMS * l;
    const friction = terms[at]!;
    const size = q < 0 ? -q : q;
    const reynolds = size * terms[at + 1]!;
    if (reynolds <= LAMINAR_RE && friction === friction) {
      const linear = 64 * friction * terms[at + 1]! + terms[at + 2]! + LEAST_SLOPE;
      const square = terms[at + 3]! * size;
      loss[l] = (linear + square) * q;
      slope[l] = linear + 2 * square;
    } else if (friction === friction) {
      const number = frictionNumber(reynolds, terms[at + 4]!);
      const rest = terms[at + 2]! + LEAST_SLOPE;
      const square = terms[at + 3]! * size;
      const pressure = friction * number.value + (rest + square) * size;
      loss[l] = q < 0 ? -pressure : pressure;
      slope[l] = friction * number.slope * terms[at + 1]! + rest + 2 * square;
    } else {
      const { pressure_Pa, slope_PaSPerM3 } = termsOf[l]!(q);
      loss[l] = pressure_Pa + LEAST_SLOPE * q;
      slope[l] = slope_PaSPerM3 + LEAST_SLOPE;
    }
  }
}

/** Newton's step: new potentials from the linearised laws, and the flow changes that go with them. */
function newtonStep({ free, entries, matrix, from, to, room }: GraphShape): boolean {
  const { outflow, potential, flow, loss, slope, change, values, right } = room;
  values.fill(0);
  for (let node = 0; node < free.length; node++) if (free[node]! >= 0) right[free[node]!] = -outflow[node]!;
  for (let l = 0; l < flow.length; l++) {
    const a = from[l]!;
    const b = to[l]!;
    const i = free[a]!;
    const j = free[b]!;
    const conductance = 1 / slope[l]!;
    // Flow through the link = conductance x (difference of potentials) + constant.
    const constant = flow[l]! - loss[l]! * conductance;
    if (i >= 0) {
      values[i]! += conductance;
      right[i]! -= j >= 0 ? constant : constant - conductance * potential[b]!;
    }
    if (j >= 0) {
      values[j]! += conductance;
      right[j]! += i >= 0 ? constant : constant + conductance * potential[a]!;
    }
    if (entries[l]! >= 0) values[entries[l]!]! -= conductance;
  }
  if (!factorSparse(matrix, values)) return false;
  solveSparse(matrix, values, right);
  for (let node = 0; node < free.length; node++) if (free[node]! >= 0) potential[node] = right[free[node]!]!;
  for (let l = 0; l < flow.length; l++) change[l] = (potential[from[l]!]! - potential[to[l]!]! - loss[l]!) / slope[l]!;
  return true;
}

/** Goes along the step: all of it unless that overshoots the content's minimum badly. Leaves the laws evaluated where it ends. */
function takeStep(shape: GraphShape, searched: boolean): void {
  const { flow, change, tried } = shape.room;
  const atNone = contentSlope(shape);
  const move = (length: number): number => {
    for (let l = 0; l < flow.length; l++) tried[l] = flow[l]! + length * change[l]!;
    evaluateLaws(shape, tried);
    return contentSlope(shape);
  };
  if (move(1) > OVERSHOOT * Math.abs(atNone) && searched) {
    let [low, high, length] = [0, 1, 0.5];
    for (let i = 0; i < SEARCH_STEPS; i++) {
      const slope = move(length);
      if (Math.abs(slope) <= SEARCH_SHARE * Math.abs(atNone)) break;
      if (slope > 0) high = length;
      else low = length;
      length = (low + high) / 2;
    }
  }
  flow.set(tried);
}

/** Slope of the content along the step where the laws are evaluated; it rises with the step's length. */
function contentSlope({ from, to, room: { potential, loss, change } }: GraphShape): number {
  let slope = 0;
  for (let l = 0; l < change.length; l++) slope += change[l]! * (loss[l]! - potential[from[l]!]! + potential[to[l]!]!);
  return slope;
}

function residualsOf({ free, from, to, room }: GraphShape): { mass: number; energy: number; small: boolean; worst: number } {
  const { outflow, potential, flow, loss, balance } = room;
  balance.fill(0);
  let energy = 0;
  let worst = 0;
  let largestFlow = 0;
  let largestPressure = 0;
  for (let l = 0; l < flow.length; l++) {
    const a = from[l]!;
    const b = to[l]!;
    const q = flow[l]!;
    balance[a]! -= q;
    balance[b]! += q;
    const difference = potential[a]! - potential[b]!;
    const gap = Math.abs(loss[l]! - difference);
    if (!(gap <= energy)) {
      energy = gap;
      worst = l;
    }
    const size = Math.abs(q);
    if (size > largestFlow) largestFlow = size;
    const pressure = Math.max(Math.abs(difference), Math.abs(potential[a]!));
    if (pressure > largestPressure) largestPressure = pressure;
  }
  let mass = 0;
  for (let node = 0; node < balance.length; node++) {
    if (free[node]! >= 0) mass = Math.max(mass, Math.abs(balance[node]! - outflow[node]!));
  }
  const small = energy <= ENERGY_ABS_PA + ENERGY_REL * largestPressure && mass <= MASS_ABS_M3_PER_S + MASS_REL * largestFlow;
  return { mass, energy, small, worst };
}

/** Every free node must hang on a node of given pressure, or its pressure means nothing. */
function unreachable(graph: Graph): { ok: false; error: { code: SolveCode; at: string; detail: string } } | undefined {
  if (graph.nodes.every((node) => node.fixed_Pa === undefined)) return failure('no-boundary', 'network', 'No tank or open end fixes a pressure.');
  const hung = reached(graph.nodes.flatMap((node, index) => (node.fixed_Pa === undefined ? [] : [index])), graph.links.map(({ from, to }) => [from, to] as const));
  const cutOff = graph.nodes.findIndex((_, index) => !hung.has(index));
  return cutOff < 0 ? undefined : failure('no-path', graph.nodes[cutOff]!.id, `No open line joins ${graph.nodes[cutOff]!.id} to a tank or an open end.`);
}
