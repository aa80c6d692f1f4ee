import {
  add,
  AT_HOME,
  composed,
  firstGone,
  frameAlong,
  scale,
  seenFrom,
  separation,
  shiftBy,
  treeOf,
  turnAbout,
  turned,
  type Pose,
  type Vec3,
} from '../geometry';
import type { SpannerRow } from '../reference/reachTools';
import { radians } from '../units';
import { holdsAny } from './clearance';
import { TOUCH_M, type Blocker } from './moves';
import { fixedTool, socketTools, spannerTools, spunAt, sweepOf, tilted, type Tool } from './tools';

/** What stands round a place that is worked at; a closed one also blocks what lies wholly within it. */
export type Standing = Blocker & { readonly closed: boolean };

/** One way of holding a tool. A swinging one is tried all round its pose's z axis. */
export type Hold = {
  readonly tool: Tool;
  readonly pose: Pose;
  /** One of these must be free too, the tool being there. */ readonly partners?: readonly Hold[];
};

/**
 * A tool found a place: how it stands there; with the free arc, from where it stands to where it can be turned [rad].
 */
export type Held = { readonly tool: Tool; readonly pose: Pose; readonly arc_rad: number; readonly partner?: Held };

export type Reached =
  | { readonly ok: true; readonly held: Held }
  /** What is in the way where least is: ids of what stands there. */
  | { readonly ok: false; readonly inTheWay: readonly string[] };

/**
 * Whether a place has at least one way of holding a tool that touches nothing;
 * a tool that turns must be free over the whole of its swing, with no angle
 * left out.
 *
 * Tools are rigid, and the arm behind them straight: what a bent wrist reaches
 * may be refused; what is granted is free as the solids stand.
 */
export function reached(holds: Iterable<Hold>, standing: readonly Standing[]): Reached {
  const held = firstHeld(holds, standing);
  return held ? { ok: true, held } : { ok: false, inTheWay: leastInTheWay(holds, standing) };
}

function firstHeld(holds: Iterable<Hold>, standing: readonly Standing[]): Held | undefined {
  const isMet = meeting(standing);
  for (const { tool, pose, partners } of holds) {
    if (tool.swing_rad > 0) {
      const arc = widestArc(tool, pose, standing, tool.swing_rad);
      if (arc && arc.to - arc.from >= tool.swing_rad)
        return { tool, pose: spunAt(pose, arc.from), arc_rad: arc.to - arc.from };
      continue;
    }
    if (isMet(tool, pose)) continue;
    if (!partners) return { tool, pose, arc_rad: 0 };
    const partner = partners.find((other) => !isMet(other.tool, other.pose) && !toolsMeet({ tool, pose }, other));
    if (partner) return { tool, pose, arc_rad: 0, partner: { tool: partner.tool, pose: partner.pose, arc_rad: 0 } };
  }
  return undefined;
}

/** Whether a tool meets any of several: what it met last is looked at first, since its next place is near its last. */
function meeting(standing: readonly Standing[]): (tool: Tool, pose: Pose) => boolean {
  let last: Standing | undefined;
  return (tool, pose) => {
    if (last && meets(tool, pose, last)) return true;
    last = standing.find((other) => other !== last && meets(tool, pose, other));
    return last !== undefined;
  };
}

/** Whether a tool at a pose touches something, or one lies within the other. */
export function meets(tool: Tool, pose: Pose, { surface, closed }: Standing): boolean {
  if (separation(treeOf(tool.surface), treeOf(surface), seenFrom(pose, AT_HOME), TOUCH_M, TOUCH_M)) return true;
  return (
    closed &&
    (holdsAny(surface, AT_HOME, tool.surface, pose) ||
      tool.pieces.some((piece) => holdsAny(piece, pose, surface, AT_HOME)))
  );
}

const toolsMeet = (a: Hold, b: Hold): boolean =>
  separation(treeOf(a.tool.surface), treeOf(b.tool.surface), seenFrom(a.pose, b.pose), TOUCH_M, TOUCH_M) !== undefined;

const TURN = 2 * Math.PI;
/** Angles at which a swing is first looked at: closer than the least swing asked of any tool. */
const LOOKS_ROUND = 24;
/** Ends of a free arc are found to within this [rad]. */
const ARC_RAD = 2e-3;

type Arc = { readonly from: number; readonly to: number };

/**
 * The widest arc about z over which a tool is free; a whole turn where nothing is in its way.
 *
 * @param least_rad narrower ones are of no use: where the widest is one, the answer may be another of these, or none
 */
export function widestArc(tool: Tool, pose: Pose, standing: readonly Standing[], least_rad = 0): Arc | undefined {
  const near = standing.filter((other) => isInSweep(tool, pose, other));
  const isMet = meeting(near);
  const meetsAt = (angle: number): boolean => isMet(tool, spunAt(pose, angle));
  const isFree = Array.from({ length: LOOKS_ROUND }, (_, i) => !meetsAt((i * TURN) / LOOKS_ROUND));
  const first = isFree.indexOf(false);
  if (first < 0) return widest(freeWithin({ from: 0, to: TURN }, tool, pose, near, meetsAt));
  const arcs: Arc[] = [];
  for (let i = 1; i <= LOOKS_ROUND; i++) {
    const at = first + i;
    if (!isFree[at % LOOKS_ROUND] || isFree[(at - 1) % LOOKS_ROUND]) continue;
    let end = at;
    while (isFree[(end + 1) % LOOKS_ROUND]) end++;
    const [from, to] = [(at * TURN) / LOOKS_ROUND, (end * TURN) / LOOKS_ROUND];
    // It ends before the looks on either side, at which something is met.
    if (to - from + (2 * TURN) / LOOKS_ROUND < Math.max(least_rad, widthOf(widest(arcs)))) continue;
    const run = {
      from: edgeOf(from, from - TURN / LOOKS_ROUND, meetsAt),
      to: edgeOf(to, to + TURN / LOOKS_ROUND, meetsAt),
    };
    arcs.push(...freeWithin(run, tool, pose, near, meetsAt));
  }
  return widest(arcs);
}

/** Whether something may be met in any turn: it cuts what the tool sweeps, or one lies within the other. */
function isInSweep(tool: Tool, pose: Pose, { surface, closed }: Standing): boolean {
  const sweep = sweepOf(tool);
  return (
    separation(treeOf(sweep), treeOf(surface), seenFrom(pose, AT_HOME), TOUCH_M, TOUCH_M) !== undefined ||
    holdsAny(sweep, pose, surface, AT_HOME) ||
    (closed && holdsAny(surface, AT_HOME, sweep, pose))
  );
}

const widthOf = (arc: Arc | undefined): number => (arc ? arc.to - arc.from : 0);
const widest = (arcs: readonly Arc[]): Arc | undefined =>
  arcs.reduce<Arc | undefined>(
    (best, arc) => (!best || arc.to - arc.from > best.to - best.from ? arc : best),
    undefined,
  );

/** The last free angle between a free one and one that is not. */
function edgeOf(free: number, blocked: number, meetsAt: (angle: number) => boolean): number {
  let [good, bad] = [free, blocked];
  while (Math.abs(bad - good) > ARC_RAD) {
    const middle = (good + bad) / 2;
    if (meetsAt(middle)) bad = middle;
    else good = middle;
  }
  return good;
}

/**
 * Something thin may have been missed between two samples: the arc is gone over without a gap, and parted where it is
 * met.
 */
function freeWithin(
  arc: Arc,
  tool: Tool,
  pose: Pose,
  near: readonly Standing[],
  meetsAt: (angle: number) => boolean,
): Arc[] {
  const span = arc.to - arc.from;
  const gone = near.flatMap(({ surface }) => {
    const tree = treeOf(surface);
    const share = firstGone(
      (t, within_m) =>
        separation(
          treeOf(tool.surface),
          tree,
          seenFrom(spunAt(pose, arc.from + t * span), AT_HOME),
          within_m,
          within_m,
        ) !== undefined,
      tool.radius_m * span,
      TOUCH_M,
    );
    return share === undefined ? [] : [arc.from + share * span];
  });
  if (gone.length === 0) return [arc];
  const met = Math.min(...gone);
  if (met - arc.from < ARC_RAD && arc.to - met < ARC_RAD) return [];
  return [
    ...(met - arc.from > 2 * ARC_RAD ? [{ from: arc.from, to: met - ARC_RAD }] : []),
    ...(arc.to - met > 2 * ARC_RAD
      ? freeWithin({ from: edgeOf(arc.to, met, meetsAt), to: arc.to }, tool, pose, near, meetsAt)
      : []),
  ];
}

/** Of all holds the one that fewest obstacles are in the way of, and those. */
function leastInTheWay(holds: Iterable<Hold>, standing: readonly Standing[]): string[] {
  let least: string[] | undefined;
  for (const { tool, pose } of holds) {
    const isTurned = tool.swing_rad > 0;
    const near = isTurned ? standing.filter((other) => isInSweep(tool, pose, other)) : standing;
    for (const angle of isTurned ? ROUND : [0]) {
      const isMet = (other: Standing): boolean =>
        (isTurned ? [0, 0.5, 1] : [0]).some((share) =>
          meets(tool, spunAt(pose, angle + share * tool.swing_rad), other),
        );
      const met: string[] = [];
      for (const other of near) {
        // As many as were in the way elsewhere are no fewer.
        if (least && met.length === least.length) break;
        if (isMet(other)) met.push(other.id);
      }
      if (met.length > 0 && (!least || met.length < least.length)) least = met;
      if (least?.length === 1) return least;
    }
  }
  return least ?? [];
}
const ROUND = Array.from({ length: 12 }, (_, i) => (i * TURN) / 12);

const HEXAGON_LOOKS = 3;
/** Over the face, so that a tool need not scrape it [m]. */
const OFF_M = 0.002;

/** Spanners at several heights of a hexagon, then sockets over it where its top is free. */
export function tighteningHolds(site: Pose, height_m: number, row: SpannerRow, topIsFree: boolean): Hold[] {
  const low = row.thickness / 2 + OFF_M;
  const high = Math.max(low, height_m - row.thickness / 2);
  const heights =
    high - low < OFF_M
      ? [low]
      : Array.from({ length: HEXAGON_LOOKS }, (_, i) => low + ((high - low) * i) / (HEXAGON_LOOKS - 1));
  return [
    ...spannerTools(row).flatMap((tool) =>
      heights.map((z): Hold => ({ tool, pose: composed(site, shiftBy([0, 0, z])) })),
    ),
    ...(topIsFree ? socketTools(row).map((tool): Hold => ({ tool, pose: site })) : []),
  ];
}

/** A screwdriver, or a stubby one, on every screw of a ring; each screw is a place of its own. */
export const screwHolds = (site: Pose, circle_m: number, count: number): Hold[][] =>
  Array.from({ length: count }, (_, i) => {
    const at: Vec3 = [circle_m * Math.cos((i * TURN) / count), circle_m * Math.sin((i * TURN) / count), 0];
    return (['driver', 'short-driver'] as const).map((key): Hold => ({
      tool: fixedTool(key),
      pose: composed(site, shiftBy(at)),
    }));
  });

const AZIMUTHS = Array.from({ length: 12 }, (_, i) => (i * TURN) / 12);

/** Tilts from straight on to nearly flat, all round; least tilted first. */
const directions = (site: Pose, tilts_deg: readonly number[]): Vec3[] =>
  tilts_deg.flatMap((tilt) =>
    tilt === 0 ? [tilted(site, 0, 0)] : AZIMUTHS.map((azimuth) => tilted(site, radians(tilt), azimuth)),
  );

/** Over the fastener's top, as the fingers close about it or push on it [m]. */
const FINGERTIPS_M = [0, 0.01, 0.02] as const;

/**
 * A hand with its forearm, from any side but through the face; flat or on edge; then one that is laid over the place
 * and bends its fingers down to it.
 */
export const handHolds = (site: Pose): Hold[] => [
  ...directions(site, [0, 25, 50, 75]).flatMap((along) =>
    [0, 45, 90, 135].map((roll): Hold => ({
      tool: fixedTool('hand'),
      pose: spunAt(frameAlong(site.origin_m, along), radians(roll)),
    })),
  ),
  ...FINGERTIPS_M.flatMap((over) =>
    AZIMUTHS.map((azimuth): Hold => ({
      tool: fixedTool('bent-hand'),
      pose: spunAt(composed(site, shiftBy([0, 0, over])), azimuth),
    })),
  ),
];

/**
 * A nozzle straight into the neck, its grip turned any way; upwards first, so `up` is told in the frame of the pose.
 */
export const nozzleHolds = (site: Pose, up: Vec3): Hold[] =>
  AZIMUTHS.map((_, i) => (i % 2 === 0 ? i / 2 : AZIMUTHS.length - (i + 1) / 2)).map((step): Hold => ({
    tool: fixedTool('nozzle'),
    pose: spunAt(frameAlong(site.origin_m, site.axes[2], up), (step * TURN) / AZIMUTHS.length),
  }));

/** An eye anywhere within 40° of straight on. */
export const sightHolds = (site: Pose): Hold[] =>
  directions(site, [0, 20, 40]).map((along): Hold => ({
    tool: fixedTool('eye'),
    pose: frameAlong(site.origin_m, along),
  }));

const SIDE_TILTS = [0, 15, -15, 30, -30].map(radians);
const LEANS = [15, 30, 45, 0].map(radians);
const ROD_RISES = [25, 40, 15, 55].map(radians);

/**
 * A torch in the middle between the two faces of a seam, or tilted some to
 * either, leaning back along the seam with its rod fed from ahead; then a
 * wire-feed gun, which needs no second hand. They are many, and mostly the first few will do: each is made as it is
 * looked at.
 *
 * @param out unit vector away from the metal, midway between the faces' normals
 * @param along unit vector of the seam
 */
export const torchHolds = (point_m: Vec3, out: Vec3, along: Vec3): Iterable<Hold> => ({
  *[Symbol.iterator]() {
    const directions = [along, scale(along, -1)].map((ahead) => ({
      ahead,
      rods: ROD_RISES.flatMap((rise) =>
        SIDE_TILTS.map((tilt): Hold => ({
          tool: fixedTool('filler-rod'),
          pose: frameAlong(point_m, leaning(leaningAcross(out, along, tilt), ahead, Math.PI / 2 - rise)),
        })),
      ),
    }));
    for (const key of ['tig-torch', 'wire-gun'] as const)
      for (const side of SIDE_TILTS)
        for (const lean of LEANS)
          for (const { ahead, rods } of directions) {
            const pose = frameAlong(
              point_m,
              leaning(leaningAcross(out, along, side), scale(ahead, -1), lean),
              scale(ahead, -1),
            );
            for (const roll of AZIMUTHS)
              yield {
                tool: fixedTool(key),
                pose: spunAt(pose, roll),
                ...(key === 'tig-torch' ? { partners: rods } : {}),
              };
          }
  },
});

/** A direction turned about the seam, towards one face or the other. */
const leaningAcross = (out: Vec3, along: Vec3, by_rad: number): Vec3 =>
  turned(turnAbout([0, 0, 0], along, by_rad), out);

/** A direction laid over towards another, square to it. */
const leaning = (out: Vec3, towards: Vec3, by_rad: number): Vec3 =>
  add(scale(out, Math.cos(by_rad)), scale(towards, Math.sin(by_rad)));
