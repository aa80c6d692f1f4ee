import { standingUp } from '../model/compileTank';
import { bandAt, gaugeCurve, sightScale, stickScale } from '../gauge';
import { clipBelow, dot, levelForVolume, volumeBelow, type ClosedMesh, type Mounting, type Vec3 } from '../geometry';
import { hashOnce } from '../contentHash';
import { derived, memoized } from '../memo';
import { solveNetwork, type Network, type NetworkLink, type NetworkNode, type NetworkSolution } from '../network';
import {
  drawable_m3,
  envelopeSteps,
  hold,
  liquidReach,
  strappingTable,
  unusable_m3,
  worstUnusable,
  type Division,
  type Envelope,
  type Inlet,
} from '../tank';

/*
 * The solvers' work that takes long enough to be remembered. Each is a solver
 * as it stands, with only what it needs for arguments: what is asked again
 * after an edit that does not touch it is known already.
 */

/** The surface of so much liquid: its offset along `up` [m]. */
export const levelIn = memoized('level', levelForVolume, 64);

export const clippedBelow = memoized(
  'liquid',
  (mesh: ClosedMesh, up: Vec3, offset_m: number) => clipBelow(mesh, { normal: up, offset_m }),
  64,
);

export const leftBy = memoized(
  'unusable',
  (mesh: ClosedMesh, division: Division, inlet: Inlet, up: Vec3, from_m: number = Infinity) =>
    unusable_m3({ mesh, division }, inlet, up, from_m),
  128,
);

export const drawnFrom = memoized(
  'drawn',
  (mesh: ClosedMesh, division: Division, inlet: Inlet, up: Vec3, volume_m3: number) =>
    drawable_m3({ mesh, division }, inlet, up, volume_m3),
  128,
);

export const worstOver = memoized(
  'worst attitude',
  (mesh: ClosedMesh, division: Division, inlet: Inlet, mounting: Mounting, envelope: Envelope) =>
    worstUnusable({ mesh, division }, inlet, envelope, (pitch, roll) => standingUp({ mounting }, pitch, roll)),
  48,
);

/** What one pickup leaves for another: level, and where that is least over the slopes asked for. */
export type LeftBetween = {
  readonly level_m3: number;
  readonly worst_m3: number;
  readonly worstAt: { readonly pitch_rad: number; readonly roll_rad: number };
};

export const leftBetween = memoized(
  'reserve',
  (
    mesh: ClosedMesh,
    division: Division,
    [first, second]: readonly [Inlet, Inlet],
    mounting: Mounting,
    { pitch_rad, roll_rad }: Envelope,
  ): LeftBetween => {
    const left = (pitch: number, roll: number): number => {
      const up = standingUp({ mounting }, pitch, roll);
      return unusable_m3({ mesh, division }, first, up) - unusable_m3({ mesh, division }, second, up);
    };
    const level_m3 = left(0, 0);
    let worst = { worst_m3: level_m3, worstAt: { pitch_rad: 0, roll_rad: 0 } };
    for (const pitch of envelopeSteps(pitch_rad)) {
      for (const roll of envelopeSteps(roll_rad)) {
        const here = left(pitch, roll);
        if (here < worst.worst_m3) worst = { worst_m3: here, worstAt: { pitch_rad: pitch, roll_rad: roll } };
      }
    }
    return { level_m3, ...worst };
  },
);

/** A slope asked for, and what runs out at a point there. */
export type Lost = { readonly lost_m3: number; readonly pitch_rad: number; readonly roll_rad: number };

/**
 * The worst over level, limits and corners of the slopes asked for: filled with so much, down to where the surface
 * leaves the point.
 */
export function mostLost(
  mesh: ClosedMesh,
  filled_m3: number,
  mounting: Mounting,
  { pitch_rad: pitches, roll_rad: rolls }: Envelope,
  point_m: Vec3,
): Lost {
  return [pitches[0], 0, pitches[1]]
    .flatMap((pitch_rad) => [rolls[0], 0, rolls[1]].map((roll_rad) => ({ pitch_rad, roll_rad })))
    .map(({ pitch_rad, roll_rad }): Lost => {
      const up = standingUp({ mounting }, pitch_rad, roll_rad);
      const lost_m3 = filled_m3 - volumeBelow(mesh, { normal: up, offset_m: dot(up, point_m) });
      return { lost_m3, pitch_rad, roll_rad };
    })
    .reduce((worst, each) => (each.lost_m3 > worst.lost_m3 ? each : worst));
}

export const lostBy = memoized('vent over the slopes', mostLost, 64);

export const heldFor = memoized('hold', hold, 64);

export const reachOfLiquid = memoized('reach of liquid', liquidReach, 48);

export const strapped = memoized('strapping table', strappingTable, 16);

export const sightScaleOf = memoized('sight tube', sightScale, 64);

export const stickScaleOf = memoized('dipstick', stickScale, 16);

export const curveOf = memoized('gauge curve', gaugeCurve, 16);

export const bandOf = memoized('gauge band', bandAt, 128);

/** What has no name, made once of each: round after round most of a network is as it was. */
const anonymousNode = derived((node: NetworkNode): NetworkNode => hashOnce({ ...node, name: '' }));
const anonymousLink = derived((link: NetworkLink): NetworkLink => hashOnce({ ...link, name: '' }));

const isBoundary = ({ fixedGauge_Pa, outflow_m3PerS }: NetworkNode): boolean =>
  fixedGauge_Pa !== undefined || outflow_m3PerS !== undefined;

/** What is drawn and held stands first: by it questions to one network are told apart soonest. */
const flowIn = memoized(
  'steady flow',
  (_boundary: readonly NetworkNode[], network: Network) => solveNetwork(network),
  512,
);

/** Steady flow of a network, without the names of things, which change nothing in it; `withNames` gives them back. */
export function solvedNetwork(network: Network): ReturnType<typeof solveNetwork> {
  const bare = { ...network, nodes: network.nodes.map(anonymousNode), links: network.links.map(anonymousLink) };
  const solved = flowIn(bare.nodes.filter(isBoundary), bare);
  // Whoever has nothing to tell but why there is no answer needs the names.
  return solved.ok ? solved : solveNetwork(network);
}

/** A solution with things called as they are in the network that it is of. */
export const withNames = (network: Network, solution: NetworkSolution): NetworkSolution => ({
  ...solution,
  nodes: new Map(network.nodes.flatMap(({ id, name }) => named(solution.nodes, id, name))),
  links: new Map(network.links.flatMap(({ id, name }) => named(solution.links, id, name))),
});

function named<T extends { readonly name: string }>(
  of: ReadonlyMap<string, T>,
  id: string,
  name: string,
): [string, T][] {
  const found = of.get(id);
  return found ? [[id, { ...found, name }]] : [];
}
