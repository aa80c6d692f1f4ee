import { evenLaw, LEAST_SLOPE, SEAT_PA_S_PER_M3, solveGraph, type GraphShape, type Regulating } from '../../network';
import { factored, squareOf } from '../../time';
import type { Net } from './net';

/** With more nodes than this a full matrix takes longer than the network's own elimination. */
const MOST_DENSE = 24;

/**
 * How a net's flows answer to pressures at its ends, by the slopes of its laws where it stands. A regulator that holds
 * passes whatever leaves the pressure that it holds as it is; one that is shut has the slope of its seat.
 *
 * @param regulators how those of the net stand, by link
 * @returns from a change of each given node's potential [Pa] to that of each link's flow [m³/s]
 */
export function conductance(
  { nodes, links, shape }: Pick<Net, 'nodes' | 'links' | 'shape'>,
  flows: Float64Array,
  regulators: ReadonlyMap<number, Regulating>,
): (by: Float64Array) => Float64Array {
  const free = new Int32Array(nodes.length).fill(-1);
  let size = 0;
  nodes.forEach(({ fixed_Pa }, n) => {
    if (fixed_Pa === undefined) free[n] = size++;
  });
  if (size > MOST_DENSE && regulators.size === 0 && shape)
    return sparsely(
      nodes,
      links.map(({ law }, l) => law(flows[l]!).slope_PaSPerM3),
      { links, shape },
    );
  /** Of a link that holds, which unknown its flow is. */
  const through = new Map<number, number>();
  for (const [link, state] of regulators) if (state === 'holding') through.set(link, size++);
  const conducts = links.map(({ law }, l) => {
    if (through.has(l)) return 0;
    const slope = regulators.get(l) === 'shut' ? SEAT_PA_S_PER_M3 : law(flows[l]!).slope_PaSPerM3;
    return 1 / (slope + LEAST_SLOPE);
  });
  const { values } = squareOf(size);
  const add = (row: number, column: number, value: number): void => {
    if (row >= 0 && column >= 0) values[row * size + column]! += value;
  };
  // What leaves each free node sums to nothing; what is held does not move.
  links.forEach(({ from, to, hold }, l) => {
    const [a, b, g] = [free[from]!, free[to]!, conducts[l]!];
    const q = through.get(l);
    if (q !== undefined) {
      add(a, q, 1);
      add(b, q, -1);
      add(q, hold!.end === 'to' ? b : a, 1);
    } else if (a !== b) {
      add(a, a, g);
      add(b, b, g);
      add(a, b, -g);
      add(b, a, -g);
    }
  });
  const factors = factored({ size, values });
  // What hangs on nothing that is given moves nothing.
  if (!factors) return () => new Float64Array(links.length);
  return (by) => {
    const flow = new Float64Array(links.length);
    const moved = by.slice();
    const right = new Float64Array(size);
    for (let l = 0; l < links.length; l++) {
      const { from, to } = links[l]!;
      const [a, b] = [free[from]!, free[to]!];
      if (a >= 0 && b < 0) right[a]! += conducts[l]! * by[to]!;
      if (b >= 0 && a < 0) right[b]! += conducts[l]! * by[from]!;
    }
    const solved = factors.solve(right);
    for (let n = 0; n < free.length; n++) if (free[n]! >= 0) moved[n] = solved[free[n]!]!;
    for (let l = 0; l < links.length; l++) {
      const { from, to } = links[l]!;
      const q = through.get(l);
      flow[l] = q === undefined ? conducts[l]! * (moved[from]! - moved[to]!) : solved[q]!;
    }
    return flow;
  };
}

/** The same by the network's own elimination: a network of laws that rise evenly, with each link's slope. */
function sparsely(
  nodes: Net['nodes'],
  slopes: readonly number[],
  { links, shape }: { readonly links: Net['links']; readonly shape: GraphShape },
): (by: Float64Array) => Float64Array {
  const even = links.map((link, l) => ({ ...link, law: evenLaw(slopes[l]!) }));
  return (by) => {
    const given = nodes.map(({ id, fixed_Pa }, n) => (fixed_Pa === undefined ? { id } : { id, fixed_Pa: by[n]! }));
    const solved = solveGraph({ nodes: given, links: even }, shape, new Float64Array(links.length));
    // As with a matrix that cannot be solved: nothing is known to move.
    return solved.ok ? solved.value.flow_m3PerS : new Float64Array(links.length);
  };
}
