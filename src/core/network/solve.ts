import { failure, success, type Outcome } from '../outcome';
import { reached } from '../reached';
import type { LineTerms, LossLaw } from './laws';
import { putLaw, putLine, settle, workFor, type Settled, type Work } from './newton';
import { sparseShape } from './sparse';

/**
 * A network ready to solve. Node values are potentials: pressure plus the
 * weight of liquid above the datum, so that height needs no further thought.
 */
export type Graph = { readonly nodes: readonly GraphNode[]; readonly links: readonly GraphLink[] };

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
 * A graph laid out for solving, to be kept while only its values change: which
 * nodes are free, the order in which they are eliminated, and room to work in.
 * One solution at a time.
 */
export type GraphShape = {
  readonly work: Work;
  /** Where each node stands in the work. */
  readonly places: Int32Array;
  /** The links' ends as they were given, and their names. */
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly names: string[];
  /** Of the nodes. */
  readonly joints: string[];
  readonly potential_Pa: Float64Array;
};

/** Flow that a solution is begun from where nothing is known of its size. */
export const START_FLOW_M3_PER_S = 1e-6;

const SHAPES_KEPT = 6;
/**
 * Shapes of the graphs solved last, newest first: from one edit to the next a network mostly changes in its values
 * only.
 */
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

function hasShape({ nodes, links }: Graph, { work, places, from, to }: GraphShape): boolean {
  if (nodes.length !== places.length || links.length !== from.length) return false;
  for (let n = 0; n < nodes.length; n++)
    if ((nodes[n]!.fixed_Pa === undefined) !== places[n]! < work.matrix.size) return false;
  for (let l = 0; l < links.length; l++) if (links[l]!.from !== from[l] || links[l]!.to !== to[l]) return false;
  return true;
}

/** Lays a graph out; to be kept and handed to `solveGraph` while only values change. */
export function graphShape({ nodes, links }: Graph): Outcome<GraphShape, SolveCode> {
  const cut = unreachable({ nodes, links });
  if (cut) return cut;
  const free = new Int32Array(nodes.length).fill(-1);
  let size = 0;
  nodes.forEach((node, index) => {
    if (node.fixed_Pa === undefined) free[index] = size++;
  });
  const joins = ({ from, to }: GraphLink): boolean => from !== to && free[from]! >= 0 && free[to]! >= 0;
  const matrix = sparseShape(
    size,
    Int32Array.from(links.filter(joins).flatMap(({ from, to }) => [free[from]!, free[to]!])),
  );
  let given = size;
  const places = free.map((count) => (count < 0 ? given++ : matrix.step[count]!));
  const nobodys = matrix.rows.length;
  // A link that ends where it begins moves nothing anywhere: it is hung on the first node that has its potential given.
  const placeOf = (link: GraphLink, end: number): number => (link.from === link.to ? size : places[end]!);
  const work = workFor(
    matrix,
    nodes.length,
    Int32Array.from(links, (link) => placeOf(link, link.from)),
    Int32Array.from(links, (link) => placeOf(link, link.to)),
    Int32Array.from(links, (link) => (joins(link) ? matrix.entry(free[link.from]!, free[link.to]!) : nobodys)),
  );
  return success({
    work,
    places,
    from: Int32Array.from(links, ({ from }) => from),
    to: Int32Array.from(links, ({ to }) => to),
    names: links.map(({ id }) => id),
    joints: nodes.map(({ id }) => id),
    potential_Pa: new Float64Array(nodes.length),
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
  const known = shape ? success(shape) : keptShape(graph);
  if (!known.ok) return known;
  putIn(graph, known.value, start);
  const found = solved(known.value, start !== undefined);
  return found.ok
    ? success({
        ...found.value,
        potential_Pa: found.value.potential_Pa.slice(),
        flow_m3PerS: found.value.flow_m3PerS.slice(),
      })
    : found;
}

/**
 * Solves again after `setLine`, from the flows of the last solution. What it
 * gives back is the shape's own: the next solution writes over it.
 */
export const solveAgain = (shape: GraphShape): Outcome<GraphSolution, SolveCode> => solved(shape, true);

/** Puts another line into a graph that is laid out and has been solved. */
export const setLine = ({ work }: GraphShape, link: number, line: LineTerms): void => putLine(work, link, line);

function putIn(
  { nodes, links }: Graph,
  { work, places, names, joints }: GraphShape,
  start: Float64Array | undefined,
): void {
  for (let n = 0; n < nodes.length; n++) {
    joints[n] = nodes[n]!.id;
    work.outflow[places[n]!] = nodes[n]!.outflow_m3PerS ?? 0;
    work.given[places[n]!] = nodes[n]!.fixed_Pa ?? 0;
  }
  for (let l = 0; l < links.length; l++) {
    names[l] = links[l]!.id;
    putLaw(work, l, links[l]!.law);
    work.flow[l] = start ? start[l]! : (links[l]!.about_m3PerS ?? START_FLOW_M3_PER_S);
  }
}

function solved(shape: GraphShape, near: boolean): Outcome<GraphSolution, SolveCode> {
  const { work, places, potential_Pa } = shape;
  const settled = settle(work, near);
  if (settled.iterations === 0) return unsettled(shape, settled);
  for (let n = 0; n < places.length; n++) potential_Pa[n] = work.potential[places[n]!]!;
  return success({
    potential_Pa,
    flow_m3PerS: work.flow,
    iterations: settled.iterations,
    massResidual_m3PerS: settled.mass_m3PerS,
    energyResidual_Pa: settled.energy_Pa,
  });
}

/** Says which of the two residuals did not come down, and where. */
function unsettled(
  { places, names, joints }: GraphShape,
  { energy_Pa, energyMost_Pa, worst, mass_m3PerS, worstPlace }: Settled,
) {
  if (!(energy_Pa <= energyMost_Pa)) {
    const at = names[worst] ?? '';
    return failure(
      'not-converged' as const,
      at,
      `The flow did not settle: ${Number.isFinite(energy_Pa) ? energy_Pa.toPrecision(2) : 'an endless'} Pa of disagreement remains at ${at}.`,
    );
  }
  const at = joints[places.indexOf(worstPlace)] ?? '';
  return failure(
    'not-converged' as const,
    at,
    `The flow did not settle: what comes to ${at} and what leaves it differ by ${Number.isFinite(mass_m3PerS) ? (mass_m3PerS * 3.6e6).toPrecision(2) : 'no end of'} L/h.`,
  );
}

/** Every free node must hang on a node of given pressure, or its pressure means nothing. */
function unreachable(graph: Graph): { ok: false; error: { code: SolveCode; at: string; detail: string } } | undefined {
  if (graph.nodes.every((node) => node.fixed_Pa === undefined))
    return failure('no-boundary', 'network', 'No tank or open end fixes a pressure.');
  const hung = reached(
    graph.nodes.flatMap((node, index) => (node.fixed_Pa === undefined ? [] : [index])),
    graph.links.map(({ from, to }) => [from, to] as const),
  );
  const cutOff = graph.nodes.findIndex((_, index) => !hung.has(index));
  return cutOff < 0
    ? undefined
    : failure(
        'no-path',
        graph.nodes[cutOff]!.id,
        `No open line joins ${graph.nodes[cutOff]!.id} to a tank or an open end.`,
      );
}
