import { failure, success, type Outcome } from '../outcome';
import { reached } from '../reached';
import { SEAT_PA_S_PER_M3, type LossLaw } from './laws';
import { byThrottling } from './throttle';
import { FLOWS_M3_PER_S, SLACK_PA, type Cut, type RegulatedSolution, type Regulating } from './regulating';
import { solveGraph, type Graph, type GraphSolution, type SolveCode } from './solve';

const MOST_CHANGES = 40;
const MOST_MATCHES = 60;
const MATCH_REL = 1e-10;
const MATCH_ABS_M3_PER_S = 1e-15;
const SHUT_LAW: LossLaw = (flow) => ({ pressure_Pa: SEAT_PA_S_PER_M3 * flow, slope_PaSPerM3: SEAT_PA_S_PER_M3 });

/** Where a graph stood when it was solved before: with other given pressures, say. */
export type Before = Pick<RegulatedSolution, 'flow_m3PerS' | 'regulators' | 'able' | 'cut'>;

/**
 * Steady flow where regulators hold pressures.
 *
 * A holding regulator cuts the graph: its held end becomes a given potential,
 * its other end gives or takes what then passes there. That flow is found by
 * Broyden's method (one step where the two sides have nothing else in common);
 * then each regulator's state is looked at, one is changed at a time, and the
 * whole repeated until all are as they should be. Where that comes to no end
 * the slow and sure way is gone, see `throttle.ts`.
 *
 * @param before the same graph solved earlier: it is begun with what flowed and stood there, and anew where that does
 * not lead on
 * @source the three states: L. A. Rossman, EPANET 2 manual, appendix D (from memory);
 * C. G. Broyden, Math. Comp. 19 (1965) 577
 */
export function solveRegulated(graph: Graph, before?: Before): Outcome<RegulatedSolution, SolveCode> {
  const regulators = graph.links.flatMap(({ hold }, link) => (hold ? [link] : []));
  if (regulators.length === 0) {
    const solved = solveGraph(graph);
    return solved.ok ? success({ ...solved.value, regulators: new Map(), able: new Set(), cut: undefined }) : solved;
  }
  const able = before?.able ?? new Set(regulators.filter((link) => canHold(graph, link)));
  if (before) {
    const near = byStates(graph, able, new Map(before.regulators), before);
    if (near.ok) return near;
  }
  const states = new Map(regulators.map((link) => [link, able.has(link) ? ('holding' as const) : ('open' as const)]));
  const quick = byStates(graph, able, states);
  if (quick.ok || (quick.error.code !== 'not-settled' && quick.error.code !== 'not-converged')) return quick;
  const sure = byThrottling(graph, [...able]);
  return sure.ok
    ? success({
        ...sure.value,
        able,
        cut: undefined,
        regulators: new Map(regulators.map((link) => [link, sure.value.regulators.get(link) ?? 'open'])),
      })
    : quick;
}

/**
 * @param able regulators that have something to hold
 * @param states of all of them to begin with; what they come to is put here
 */
function byStates(
  graph: Graph,
  able: ReadonlySet<number>,
  states: Map<number, Regulating>,
  before?: Before,
): Outcome<RegulatedSolution, SolveCode> {
  const regulators = [...states.keys()];
  const seen = new Set<string>();
  let start = before?.flow_m3PerS;
  let cut = before?.cut && cutFor(before.cut, graph);
  for (let changes = 0; changes < MOST_CHANGES; changes++) {
    cut ??= cutBy(graph, states);
    const solved = matched(graph, cut, start);
    if (!solved.ok) return solved;
    start = before && solved.value.flow_m3PerS;
    const wrong = regulators
      .map((link) => [link, shouldBe(graph, link, able.has(link) && states.get(link)!, solved.value)] as const)
      .find(([link, state]) => state !== states.get(link));
    if (!wrong) return success({ ...solved.value, regulators: states, able, cut });
    states.set(...wrong);
    cut = undefined;
    const key = [...states.values()].join(' ');
    if (seen.has(key)) return unsettled(graph, wrong[0]);
    seen.add(key);
  }
  return unsettled(graph, regulators[0]!);
}

const unsettled = (graph: Graph, link: number) =>
  failure(
    'not-settled' as const,
    graph.links[link]!.id,
    `${graph.links[link]!.id} finds no state to rest in: it opens and shuts by turns with what stands round it.`,
  );

/**
 * A regulator whose held end has a given pressure already has nothing to hold;
 * one whose other end leads nowhere can let nothing by.
 */
function canHold(graph: Graph, link: number): boolean {
  const { hold, from, to } = graph.links[link]!;
  const [held, other] = hold!.end === 'to' ? [to, from] : [from, to];
  return graph.nodes[held]!.fixed_Pa === undefined && leadsOn(graph, other, link);
}

/** Whether a node still hangs on a given pressure when a link is taken away. */
function leadsOn({ nodes, links }: Graph, node: number, without: number): boolean {
  const hangs = reached(
    [node],
    links.flatMap(({ from, to }, l) => (l === without ? [] : [[from, to] as const])),
  );
  return [...hangs].some((each) => nodes[each]!.fixed_Pa !== undefined);
}

function shouldBe(
  graph: Graph,
  link: number,
  /** None of one that can hold nothing. */
  state: Regulating | false,
  { potential_Pa, flow_m3PerS }: GraphSolution,
): Regulating {
  const { hold, from, to, law } = graph.links[link]!;
  if (!state) return 'open';
  const [inlet, outlet, flow, set] = [potential_Pa[from]!, potential_Pa[to]!, flow_m3PerS[link]!, hold!.potential_Pa];
  const reached = hold!.end === 'to' ? outlet > set + SLACK_PA : inlet < set - SLACK_PA;
  if (state === 'holding') {
    if (flow < -MATCH_ABS_M3_PER_S) return 'shut';
    return inlet - outlet < law(flow).pressure_Pa - SLACK_PA ? 'open' : 'holding';
  }
  if (state === 'open') return flow < -FLOWS_M3_PER_S ? 'shut' : reached ? 'holding' : 'open';
  // Shut: it opens again when its pressure is missing and there is some to give.
  const missing = hold!.end === 'to' ? outlet < set - SLACK_PA : inlet > set + SLACK_PA;
  return missing && inlet > outlet + SLACK_PA ? 'holding' : 'shut';
}

/** Solves with the states as they are, the flows through holding regulators matched on both of their sides. */
function matched(graph: Graph, cut: Cut, flow?: Float64Array): Outcome<GraphSolution, SolveCode> {
  const { holding, kept } = cut;
  let through = holding.map((link) => flow?.[link] ?? 0);
  let inverse: number[][] = holding.map((_, i) => holding.map((__, j) => (i === j ? -1 : 0)));
  let before: { through: number[]; miss: number[] } | undefined;
  let start: Float64Array | undefined = flow && Float64Array.from(kept, (link) => flow[link]!);
  let iterations = 0;
  for (let match = 0; match < MOST_MATCHES; match++) {
    const solved = solvedWith(graph, cut, through, start);
    if (!solved.ok) return solved;
    iterations += solved.value.solution.iterations;
    start = solved.value.solution.flow_m3PerS;
    const miss = solved.value.wanted.map((each, r) => each - through[r]!);
    const largest = Math.max(0, ...through.map(Math.abs));
    if (miss.every((each) => Math.abs(each) <= MATCH_ABS_M3_PER_S + MATCH_REL * largest))
      return success({ ...whole(graph, holding, through, solved.value.solution, kept), iterations });
    if (before)
      inverse = broyden(
        inverse,
        through.map((q, r) => q - before!.through[r]!),
        miss.map((m, r) => m - before!.miss[r]!),
      );
    before = { through, miss };
    through = through.map((q, r) => q - inverse[r]!.reduce((sum, value, c) => sum + value * miss[c]!, 0));
  }
  return unsettled(graph, holding[0]!);
}

/** Broyden's update of the inverse Jacobian, by Sherman and Morrison's formula. */
function broyden(inverse: readonly number[][], step: readonly number[], change: readonly number[]): number[][] {
  const times = inverse.map((row) => row.reduce((sum, value, c) => sum + value * change[c]!, 0));
  const denominator = step.reduce((sum, s, r) => sum + s * times[r]!, 0);
  if (denominator === 0) return inverse.map((row) => [...row]);
  const left = step.map((_, c) => step.reduce((sum, s, r) => sum + s * inverse[r]![c]!, 0));
  return inverse.map((row, r) => row.map((value, c) => value + ((step[r]! - times[r]!) / denominator) * left[c]!));
}

function cutBy({ nodes, links }: Graph, states: ReadonlyMap<number, Regulating>): Cut {
  const holding = [...states].flatMap(([link, state]) => (state === 'holding' ? [link] : []));
  const held = new Map(
    holding.map((link) => {
      const { hold, from, to } = links[link]!;
      return [hold!.end === 'to' ? to : from, hold!.potential_Pa] as const;
    }),
  );
  const kept = links.flatMap((_, link) => (states.get(link) === 'holding' ? [] : [link]));
  return {
    nodes: nodes.map((node, n) => {
      const fixed_Pa = held.get(n) ?? node.fixed_Pa;
      return { id: node.id, outflow_m3PerS: 0, ...(fixed_Pa === undefined ? {} : { fixed_Pa }) };
    }),
    held: new Set(held.keys()),
    links: kept.map((link) => (states.get(link) === 'shut' ? { ...links[link]!, law: SHUT_LAW } : links[link]!)),
    holding,
    kept,
  };
}

/** The same cut, with the pressures that are given now. */
function cutFor(cut: Cut, { nodes }: Graph): Cut {
  for (const [n, node] of cut.nodes.entries())
    if (node.fixed_Pa !== undefined && !cut.held.has(n)) node.fixed_Pa = nodes[n]!.fixed_Pa!;
  return cut;
}

type Solved = {
  readonly solution: GraphSolution;
  /** What would have to pass each holding regulator. */ readonly wanted: readonly number[];
};

function solvedWith(
  { nodes, links }: Graph,
  cut: Cut,
  through: readonly number[],
  start: Float64Array | undefined,
): Outcome<Solved, SolveCode> {
  const { holding, kept } = cut;
  for (const [n, node] of cut.nodes.entries()) node.outflow_m3PerS = nodes[n]!.outflow_m3PerS ?? 0;
  holding.forEach((link, r) => {
    const { hold, from, to } = links[link]!;
    cut.nodes[hold!.end === 'to' ? from : to]!.outflow_m3PerS += hold!.end === 'to' ? through[r]! : -through[r]!;
  });
  const solved = solveGraph(cut, undefined, start);
  if (!solved.ok) return solved;
  const gain = cut.nodes.map(({ outflow_m3PerS }) => -outflow_m3PerS);
  kept.forEach((link, k) => {
    gain[links[link]!.from]! -= solved.value.flow_m3PerS[k]!;
    gain[links[link]!.to]! += solved.value.flow_m3PerS[k]!;
  });
  const wanted = holding.map((link) => {
    const { hold, from, to } = links[link]!;
    return hold!.end === 'to' ? -gain[to]! : gain[from]!;
  });
  return success({ solution: solved.value, wanted });
}

/** The solution of the cut graph as one of the whole. */
function whole(
  graph: Graph,
  holding: readonly number[],
  through: readonly number[],
  solution: GraphSolution,
  kept: readonly number[],
): GraphSolution {
  const flow = new Float64Array(graph.links.length);
  kept.forEach((link, k) => {
    flow[link] = solution.flow_m3PerS[k]!;
  });
  holding.forEach((link, r) => {
    flow[link] = through[r]!;
  });
  return { ...solution, flow_m3PerS: flow };
}
