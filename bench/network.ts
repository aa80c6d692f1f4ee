import { fluidState } from '../src/core/fluids';
import { graphShape, linkLaw, solveGraph, solveNetwork, type Graph, type Network } from '../src/core/network';
import { unwrap } from '../src/core/outcome';
import { seeded } from '../src/core/seeded';
import { openPeer, peerInput, PEER_GRAVITY, type PeerNetwork } from '../tests/published/epanetPeer';
import { percentile, type Bench } from './measure';

const FLUID = unwrap(fluidState({ key: 'diesel' }, 293.15));
const ROUGHNESS_MM = 0.01;
const SEED = 7;
const RUNS: Readonly<Record<number, number>> = { 10: 400, 60: 200, 500: 40 };

/** A grid of lines with a few rows, cut off at the number asked for, two tanks at its ends and draws in it. */
export function grid(lines: number): PeerNetwork {
  const { uniform: random } = seeded(SEED);
  const wide = Math.max(2, Math.round(Math.sqrt(lines / 2)));
  const all: { from: number; to: number }[] = [];
  for (let joint = 0; all.length < lines - 2; joint++) {
    if (joint % wide !== 0) all.push({ from: joint - 1, to: joint });
    if (joint >= wide) all.push({ from: joint - wide, to: joint });
  }
  const kept = all.slice(0, lines - 2);
  const joints = Math.max(...kept.map(({ to }) => to)) + 1;
  const size = (): { length_m: number; bore_mm: number } => ({ length_m: 0.5 + 3 * random(), bore_mm: 6 + 14 * random() });
  return {
    name: `grid of ${lines}`, kinematic_m2PerS: FLUID.kinematicViscosity_m2PerS, roughness_mm: ROUGHNESS_MM, reservoirs: { high: 2.5, low: 1.2 },
    junctions: Object.fromEntries(Array.from({ length: joints }, (_, n) => [`j${n}`, [0, n % 5 === 2 ? 2e-6 * random() : 0] as const])),
    pipes: [
      ...kept.map(({ from, to }, i) => ({ id: `p${i}`, from: `j${from}`, to: `j${to}`, ...size() })),
      { id: 'first', from: 'high', to: 'j0', length_m: 1, bore_mm: 19 }, { id: 'last', from: `j${joints - 1}`, to: 'low', length_m: 1, bore_mm: 19 },
    ],
  };
}

export const ours = (net: PeerNetwork): Network => ({
  fluid: FLUID, ambientAbs_Pa: 101325, gravity_mPerS2: PEER_GRAVITY,
  nodes: [
    ...Object.entries(net.reservoirs).map(([id, height_m]) => ({ id, name: id, height_m, fixedGauge_Pa: 0 })),
    ...Object.entries(net.junctions).map(([id, [height_m, draw]]) => ({ id, name: id, height_m, outflow_m3PerS: draw })),
  ],
  links: net.pipes.map(({ id, from, to, length_m, bore_mm }) => ({ id, name: id, from, to, elements: [{ kind: 'line', bore_m: bore_mm / 1e3, length_m, roughness_m: ROUGHNESS_MM / 1e3, fittings: [] }] })),
});

/** Turns before any is counted, so that both sides run compiled code. */
const WARM_UP = 400;
/** Turns within one reading of the clock, by the size of the network: the smallest take microseconds. */
const AT_ONCE: Readonly<Record<number, number>> = { 10: 200, 60: 50, 500: 5 };

/** Median time of a number of runs [ms], the first ones not counted. */
async function median(runs: number, run: (turn: number) => unknown): Promise<number> {
  const times: number[] = [];
  for (let turn = 0; turn < runs + WARM_UP; turn++) {
    const from = performance.now();
    await run(turn);
    if (turn >= WARM_UP) times.push(performance.now() - from);
  }
  return percentile(times, 0.5);
}

/** The same for what takes microseconds: many turns to a reading of the clock. */
async function medianOfMany(lines: number, run: (turn: number) => void): Promise<number> {
  const many = AT_ONCE[lines]!;
  const time = await median(RUNS[lines]!, (turn) => {
    for (let i = 0; i < many; i++) run(turn * many + i);
  });
  return time / many;
}

const report = (name: string, mine: number, theirs: number, goal: number, what: string) => ({
  name, value: Number(mine.toFixed(3)), unit: 'ms', ratio: Number((theirs / mine).toFixed(2)), goal, met: theirs / mine >= goal,
  reference: `EPANET 2.2 in the same run: ${theirs.toFixed(3)} ms to ${what}; ratio ${(theirs / mine).toFixed(1)}, medians`,
});

/** From a changed description to flows and pressures, against its load and solution. */
const fromDescription = (lines: number, goal: number): Bench => ({
  name: `network-${lines}`,
  async run() {
    const turned = (turn: number): PeerNetwork => {
      const net = grid(lines);
      return { ...net, pipes: net.pipes.map((pipe, p) => (p === turn % lines ? { ...pipe, length_m: pipe.length_m + 0.01 } : pipe)) };
    };
    const runs = RUNS[lines]!;
    const descriptions = Array.from({ length: runs + WARM_UP }, (_, turn) => ours(turned(turn)));
    const inputs = Array.from({ length: runs + WARM_UP }, (_, turn) => peerInput(turned(turn)).replace('Accuracy 0.0000001', 'Accuracy 0.001'));
    const mine = await median(runs, (turn) => unwrap(solveNetwork(descriptions[turn]!)));
    const theirs = await median(runs, async (turn) => {
      const project = await openPeer(inputs[turn]!);
      project.solveH();
      project.close();
    });
    return report(`network-${lines}`, mine, theirs, goal, 'load and solve');
  },
});

const DIAMETER = 0; // its link property

/** The bare solution after one changed value, both loaded; both may begin from the flows they have. */
const again = (lines: number, goal: number): Bench => ({
  name: `resolve-${lines}`,
  async run() {
    const net = grid(lines);
    const network = ours(net);
    const nodes = network.nodes.map((node) => ({ id: node.id, ...(node.fixedGauge_Pa === undefined ? { outflow_m3PerS: node.outflow_m3PerS ?? 0 } : { fixed_Pa: FLUID.density_kgPerM3 * PEER_GRAVITY * node.height_m }) }));
    const at = new Map(nodes.map(({ id }, n) => [id, n]));
    const links = network.links.map((link) => ({ id: link.id, from: at.get(link.from)!, to: at.get(link.to)!, law: unwrap(linkLaw(link, FLUID)) }));
    const graph: Graph = { nodes, links };
    const shape = unwrap(graphShape(graph));
    let flow = unwrap(solveGraph(graph, shape)).flow_m3PerS;
    const bore = (turn: number): number => net.pipes[0]!.bore_mm * (1 + 0.1 * (turn % 2));
    const mine = await medianOfMany(lines, (turn) => {
      const element = { ...network.links[0]!.elements[0]!, bore_m: bore(turn) / 1e3 } as Network['links'][number]['elements'][number];
      links[0] = { ...links[0]!, law: unwrap(linkLaw({ ...network.links[0]!, elements: [element] }, FLUID)) };
      flow = unwrap(solveGraph({ nodes, links }, shape, flow)).flow_m3PerS;
    });
    const theirs = Math.min(await peerAgain(net, lines, bore, false), await peerAgain(net, lines, bore, true));
    return report(`resolve-${lines}`, mine, theirs, goal, 'solve again, the faster of from new and from its flows');
  },
});

async function peerAgain(net: PeerNetwork, lines: number, bore: (turn: number) => number, warm: boolean): Promise<number> {
  const project = await openPeer(peerInput(net).replace('Accuracy 0.0000001', 'Accuracy 0.001'));
  const first = project.getLinkIndex(net.pipes[0]!.id);
  project.openH();
  project.initH(warm ? 0 : 10);
  project.runH();
  const time = await medianOfMany(lines, (turn) => {
    project.setLinkValue(first, DIAMETER, bore(turn));
    if (!warm) project.initH(10);
    project.runH();
  });
  project.closeH();
  project.close();
  return time;
}

export const networkBenches: readonly Bench[] = [fromDescription(10, 5), fromDescription(60, 5), fromDescription(500, 1), again(10, 1), again(60, 1), again(500, 1)];
