import { Project, Workspace } from 'epanet-js';
import { checkedLaw, pumpLaw, type Graph, type GraphLink, type LossLaw } from '@/core/network';

/**
 * A general-purpose hydraulic network solver (EPANET 2.2, as epanet-js) on
 * networks described once: as its input file, and as a graph of ours with its
 * friction law.
 */
export type PeerNetwork = {
  readonly name: string;
  readonly kinematic_m2PerS: number;
  readonly roughness_mm: number;
  /** Given heads [m]. */
  readonly reservoirs: Readonly<Record<string, number>>;
  /** Elevation [m] and draw [m³/s]. */
  readonly junctions: Readonly<Record<string, readonly [elevation: number, draw: number]>>;
  readonly pipes: readonly PeerPipe[];
  readonly pumps?: readonly {
    readonly id: string;
    readonly from: string;
    readonly to: string;
    /** Flow [m³/s] and head [m]: four points or more, straight between them. */ readonly curve: readonly (readonly [
      number,
      number,
    ])[];
  }[];
  /** Pressure-reducing and pressure-sustaining valves, settings in metres over the joint they hold. */
  readonly regulators?: readonly {
    readonly id: string;
    readonly from: string;
    readonly to: string;
    readonly bore_mm: number;
    readonly holds: 'from' | 'to';
    readonly set_m: number;
  }[];
};

export type PeerPipe = {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly length_m: number;
  readonly bore_mm: number;
  /** Sum of K of the fittings. */ readonly k?: number;
  readonly check?: boolean;
};

export const PEER_GRAVITY = 9.81456; // 32.2 ft/s²
const PEER_WATER_KINEMATIC = 1.1e-5 * 0.3048 ** 2; // viscosity 1 in its option
/** Density only scales pressures; 1000 keeps them of the usual size. */
export const PEER_DENSITY = 1000;

const lines = <T>(items: readonly T[] | undefined, of: (item: T) => string): string => (items ?? []).map(of).join('\n');

/** The network as an input file of EPANET. */
export const peerInput = (net: PeerNetwork): string => `[TITLE]
${net.name}
[JUNCTIONS]
${lines(Object.entries(net.junctions), ([id, [elevation, draw]]) => `${id} ${elevation} ${draw * 1e3}`)}
[RESERVOIRS]
${lines(Object.entries(net.reservoirs), ([id, head]) => `${id} ${head}`)}
[PIPES]
${lines(net.pipes, ({ id, from, to, length_m, bore_mm, k, check }) => `${id} ${from} ${to} ${length_m} ${bore_mm} ${net.roughness_mm} ${k ?? 0} ${check ? 'CV' : 'Open'}`)}
[PUMPS]
${lines(net.pumps, ({ id, from, to }) => `${id} ${from} ${to} HEAD curve-${id}`)}
[VALVES]
${lines(net.regulators, ({ id, from, to, bore_mm, holds, set_m }) => `${id} ${from} ${to} ${bore_mm} ${holds === 'to' ? 'PRV' : 'PSV'} ${set_m} 0`)}
[CURVES]
${lines(net.pumps, ({ id, curve }) => lines(curve, ([q, h]) => `curve-${id} ${q * 1e3} ${h}`))}
[OPTIONS]
Units LPS
Headloss D-W
Viscosity ${net.kinematic_m2PerS / PEER_WATER_KINEMATIC}
Accuracy 0.0000001
Trials 500
[END]
`;

export const peerLinks = (net: PeerNetwork): string[] => [
  ...net.pipes.map(({ id }) => id),
  ...(net.pumps ?? []).map(({ id }) => id),
  ...(net.regulators ?? []).map(({ id }) => id),
];

/** Flow in every link as EPANET finds it [m³/s]. */
export async function peerFlows(net: PeerNetwork): Promise<Map<string, number>> {
  const project = await openPeer(peerInput(net));
  project.solveH();
  const flows = new Map(
    peerLinks(net).map((id) => [id, project.getLinkValue(project.getLinkIndex(id), 8 /* flow */) / 1e3]),
  );
  project.close();
  return flows;
}

let workspace: Workspace | undefined;

export async function openPeer(input: string): Promise<Project> {
  if (!workspace) {
    workspace = new Workspace();
    await workspace.loadModule();
  }
  workspace.writeFile('net.inp', input);
  const project = new Project(workspace);
  project.open('net.inp', 'net.rpt', 'net.out');
  return project;
}

/**
 * EPANET's friction factor (EPANET 2 manual, appendix D, from memory): laminar to
 * Re 2000, Swamee and Jain above 4000, Dunlop's cubic between, which meets the upper law in value and slope at 4000.
 */
function peerFactor(re: number, relativeRoughness: number): number {
  if (re < 2000) return 64 / re;
  const rough = relativeRoughness / 3.7;
  if (re > 4000) return 0.25 / Math.log10(rough + 5.74 / re ** 0.9) ** 2;
  const y2 = rough + 5.74 / 4000 ** 0.9;
  const y3 = -0.86859 * Math.log(y2);
  const fa = y3 ** -2;
  const fb = fa * (2 - 0.00514215 / (y2 * y3));
  const r = re / 2000;
  return (
    7 * fa - fb + r * (0.128 - 17 * fa + 2.5 * fb + r * (-0.128 + 13 * fa - 2 * fb + r * (0.032 - 3 * fa + 0.5 * fb)))
  );
}

function peerPipe({ kinematic_m2PerS, roughness_mm }: PeerNetwork, { bore_mm, length_m, k, check }: PeerPipe): LossLaw {
  const bore = bore_mm / 1e3;
  const area = (Math.PI / 4) * bore ** 2;
  const loss = (flow: number): number => {
    const v = flow / area;
    return (
      (PEER_DENSITY *
        (peerFactor((v * bore) / kinematic_m2PerS, roughness_mm / bore_mm) * (length_m / bore) + (k ?? 0)) *
        v *
        v) /
      2
    );
  };
  const law: LossLaw = (flow) => {
    const size = Math.max(Math.abs(flow), 1e-9);
    const step = size * 1e-4;
    const slope = (loss(size + step) - loss(size - step)) / (2 * step);
    return {
      pressure_Pa: size === Math.abs(flow) ? Math.sign(flow) * loss(size) : slope * flow,
      slope_PaSPerM3: slope,
    };
  };
  return check ? checkedLaw(law) : law;
}

const head = (metres: number): number => PEER_DENSITY * PEER_GRAVITY * metres;

/** The network as a graph of ours, links in the order of `peerLinks`. */
export function peerGraph(net: PeerNetwork): Graph {
  const names = [...Object.keys(net.reservoirs), ...Object.keys(net.junctions)];
  const at = new Map(names.map((name, n) => [name, n]));
  const join = ({ id, from, to }: { id: string; from: string; to: string }): Omit<GraphLink, 'law'> => ({
    id,
    from: at.get(from)!,
    to: at.get(to)!,
  });
  return {
    nodes: names.map((id) =>
      id in net.reservoirs
        ? { id, fixed_Pa: head(net.reservoirs[id]!) }
        : { id, outflow_m3PerS: net.junctions[id]![1] },
    ),
    links: [
      ...net.pipes.map((pipe) => ({ ...join(pipe), law: peerPipe(net, pipe) })),
      ...(net.pumps ?? []).map((pump) => ({
        ...join(pump),
        law: pumpLaw({ points: pump.curve.map(([flow_m3PerS, metres]) => ({ flow_m3PerS, rise_Pa: head(metres) })) }),
      })),
      ...(net.regulators ?? []).map((valve) => {
        const held = valve.holds === 'to' ? valve.to : valve.from;
        const elevation = held in net.junctions ? net.junctions[held]![0] : 0;
        return {
          ...join(valve),
          law: (flow: number) => ({ pressure_Pa: flow, slope_PaSPerM3: 1 }),
          hold: { end: valve.holds, potential_Pa: head(valve.set_m + elevation) },
        };
      }),
    ],
  };
}
