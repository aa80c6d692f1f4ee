import { failure, success, type Outcome } from '../outcome';
import { SEAT_PA_S_PER_M3, type LossLaw } from './laws';
import { FLOWS_M3_PER_S, SLACK_PA, type RegulatedSolution, type Regulating } from './regulating';
import { solveGraph, type Graph, type GraphSolution, type SolveCode } from './solve';

/** Each regulator is set anew so often, one after the other. */
const MOST_SWEEPS = 60;
const MOST_TRIES = 120;
/** A pressure counts as held when it is this near its setting, by its size. */
const HELD_REL = 1e-9;
/** Less than this in a regulator is no throttling [Pa s/m³]: 0.1 mPa at 6 L/min. */
const LEAST_THROTTLE = 1;
/** Two settings of a throttle in a row that differ by less, by the logarithm, are the same. */
const SAME = 1e-9;

/** What a regulator adds to its own loss [Pa s/m³]: nothing when open, a seat when shut. */
type Throttles = Map<number, number>;

type Tried = {
  readonly solution: GraphSolution;
  /** By how much the held pressure is on the side that asks for more throttling [Pa]. */ readonly over_Pa: number;
  readonly flow_m3PerS: number;
};

/**
 * Steady flow where regulators hold pressures, the slow and sure way: each
 * throttles by a loss that is linear in flow, from none to that of a seat. More
 * of it lets less pass, so that the pressure behind falls and that before
 * rises: for one regulator there is but one answer, and halving finds it.
 * Several are set by turns until none moves.
 *
 * @param holding links of regulators that have something to hold
 */
export function byThrottling(
  graph: Graph,
  holding: readonly number[],
): Outcome<Omit<RegulatedSolution, 'able' | 'cut'>, SolveCode> {
  const throttles: Throttles = new Map(holding.map((link) => [link, 0]));
  const states = new Map<number, Regulating>();
  let iterations = 0;
  let start: Float64Array | undefined;
  const tried = (link: number, throttle: number): Outcome<Tried, SolveCode> => {
    const solved = solveGraph(throttled(graph, new Map([...throttles, [link, throttle]])), undefined, start);
    if (!solved.ok) return solved;
    start = solved.value.flow_m3PerS;
    iterations += solved.value.iterations;
    const { hold, from, to } = graph.links[link]!;
    const held = solved.value.potential_Pa[hold!.end === 'to' ? to : from]! - hold!.potential_Pa;
    return success({
      solution: solved.value,
      over_Pa: hold!.end === 'to' ? held : -held,
      flow_m3PerS: solved.value.flow_m3PerS[link]!,
    });
  };
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    let moved = false;
    let last: GraphSolution | undefined;
    for (const link of holding) {
      const found = settleOne(graph, link, (throttle) => tried(link, throttle));
      if (!found.ok) return found;
      const before = throttles.get(link)!;
      if (
        states.get(link) !== found.value.state ||
        (found.value.state === 'holding' && Math.abs(Math.log(found.value.throttle / before)) > SAME)
      )
        moved = true;
      throttles.set(link, found.value.throttle);
      states.set(link, found.value.state);
      last = found.value.solution;
    }
    if (!moved && last) return success({ ...last, iterations, regulators: states });
  }
  const name = graph.links[holding[0] ?? 0]?.id ?? '';
  return failure(
    'not-settled',
    name,
    `${name} finds no state to rest in: it opens and shuts by turns with what stands round it.`,
  );
}

const throttled = ({ nodes, links }: Graph, throttles: Throttles): Graph => ({
  nodes,
  links: links.map((link, l) => (throttles.get(l) ? { ...link, law: adding(link.law, throttles.get(l)!) } : link)),
});

const adding =
  (law: LossLaw, throttle: number): LossLaw =>
  (flow) => {
    const { pressure_Pa, slope_PaSPerM3 } = law(flow);
    return { pressure_Pa: pressure_Pa + throttle * flow, slope_PaSPerM3: slope_PaSPerM3 + throttle };
  };

type Setting = { readonly throttle: number; readonly state: Regulating; readonly solution: GraphSolution };

/** How one regulator stands while the others stay as they are. */
function settleOne(
  graph: Graph,
  link: number,
  tried: (throttle: number) => Outcome<Tried, SolveCode>,
): Outcome<Setting, SolveCode> {
  const slack = SLACK_PA + HELD_REL * Math.abs(graph.links[link]!.hold!.potential_Pa);
  const at = (throttle: number, state: Regulating): Outcome<Setting, SolveCode> => {
    const found = tried(throttle);
    return found.ok ? success({ throttle, state, solution: found.value.solution }) : found;
  };
  const open = tried(0);
  if (!open.ok) return open;
  if (open.value.flow_m3PerS < -FLOWS_M3_PER_S) return at(SEAT_PA_S_PER_M3, 'shut');
  if (open.value.over_Pa <= slack) return success({ throttle: 0, state: 'open', solution: open.value.solution });
  const shut = tried(SEAT_PA_S_PER_M3);
  if (!shut.ok) return shut;
  if (shut.value.over_Pa >= -slack)
    return success({ throttle: SEAT_PA_S_PER_M3, state: 'shut', solution: shut.value.solution });
  return between(link, graph, slack, tried);
}

/** The throttle at which the pressure is held: halved in by its logarithm, by the chord where that serves. */
function between(
  link: number,
  graph: Graph,
  slack: number,
  tried: (throttle: number) => Outcome<Tried, SolveCode>,
): Outcome<Setting, SolveCode> {
  let [low, high] = [Math.log(LEAST_THROTTLE), Math.log(SEAT_PA_S_PER_M3)];
  const found = tried(LEAST_THROTTLE);
  if (!found.ok) return found;
  if (found.value.over_Pa <= slack)
    return success({ throttle: LEAST_THROTTLE, state: 'holding', solution: found.value.solution });
  let [over, under] = [found.value.over_Pa, -Infinity];
  for (let i = 0; i < MOST_TRIES; i++) {
    const chord = low + (high - low) * (over / (over - under));
    // Every other time by halves, so that a bent curve cannot hold it up.
    const next = i % 2 === 1 && chord > low && chord < high ? chord : (low + high) / 2;
    const each = tried(Math.exp(next));
    if (!each.ok) return each;
    if (Math.abs(each.value.over_Pa) <= slack)
      return success({ throttle: Math.exp(next), state: 'holding', solution: each.value.solution });
    if (each.value.over_Pa > 0) [low, over] = [next, each.value.over_Pa];
    else [high, under] = [next, each.value.over_Pa];
  }
  const { id } = graph.links[link]!;
  return failure('not-settled', id, `${id} finds no opening at which it holds its pressure.`);
}
