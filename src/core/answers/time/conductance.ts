import { LuDecomposition, Matrix } from 'ml-matrix';
import { solveRegulated } from '../../network';
import type { Net } from './net';

/** Slope added to a law so that a link without loss has one, as the solver does [Pa s/m³]. */
const LEAST_SLOPE = 1;

/**
 * How a net's flows answer to pressures at its ends: by the slopes of its laws where it stands, or, where a regulator
 * holds, by solving it again beside.
 *
 * @returns from a change of each given node's potential [Pa] to that of each link's flow [m³/s]
 */
export function conductance(net: Net, flows: Float64Array): (by: Float64Array) => Float64Array {
  const { nodes, links } = net;
  if (net.isRegulated) return (by) => besideBy(net, flows, by);
  const free = new Int32Array(nodes.length).fill(-1);
  let size = 0;
  nodes.forEach(({ fixed_Pa }, n) => {
    if (fixed_Pa === undefined) free[n] = size++;
  });
  const conducts = links.map(({ law }, l) => 1 / (law(flows[l]!).slope_PaSPerM3 + LEAST_SLOPE));
  const matrix = new Matrix(size, size);
  links.forEach(({ from, to }, l) => {
    const [a, b, g] = [free[from]!, free[to]!, conducts[l]!];
    if (a >= 0) matrix.set(a, a, matrix.get(a, a) + g);
    if (b >= 0) matrix.set(b, b, matrix.get(b, b) + g);
    if (a >= 0 && b >= 0 && a !== b) {
      matrix.set(a, b, matrix.get(a, b) - g);
      matrix.set(b, a, matrix.get(b, a) - g);
    }
  });
  const factors = size > 0 ? new LuDecomposition(matrix) : undefined;
  return (by) => {
    const moved = by.slice();
    if (factors) {
      const right = new Float64Array(size);
      links.forEach(({ from, to }, l) => {
        if (free[from]! >= 0 && free[to]! < 0) right[free[from]!]! += conducts[l]! * by[to]!;
        if (free[to]! >= 0 && free[from]! < 0) right[free[to]!]! += conducts[l]! * by[from]!;
      });
      const solved = factors.solve(Matrix.columnVector([...right])).to1DArray();
      free.forEach((place, n) => {
        if (place >= 0) moved[n] = solved[place]!;
      });
    }
    return Float64Array.from(links, ({ from, to }, l) => conducts[l]! * (moved[from]! - moved[to]!));
  };
}

/** Pressures are changed by so much at most to see what flows then [Pa]. */
const BESIDE_PA = 1;

function besideBy(net: Net, flows: Float64Array, by: Float64Array): Float64Array {
  const most = by.reduce((largest, each) => Math.max(largest, Math.abs(each)), 0);
  if (most === 0) return new Float64Array(flows.length);
  const share = BESIDE_PA / most;
  const nodes = net.nodes.map((node, n) =>
    node.fixed_Pa === undefined ? node : { ...node, fixed_Pa: node.fixed_Pa + by[n]! * share },
  );
  const solved = solveRegulated({ nodes, links: net.links });
  return solved.ok
    ? solved.value.flow_m3PerS.map((flow, l) => (flow - flows[l]!) / share)
    : new Float64Array(flows.length);
}
