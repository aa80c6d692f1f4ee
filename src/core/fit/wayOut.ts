import { add, scale, subtract, treeOf, unitVector, type Pose, type Vec3 } from '../geometry';
import { failure, success, type Outcome } from '../outcome';
import { seeded, type Chance } from '../seeded';
import { SIX_WAYS } from './clearance';
import {
  alongMove,
  checkWay,
  distanceAt,
  HAND_M,
  isOut,
  moveBetween,
  reachOf,
  shiftMove,
  TOUCH_M,
  type Blocker,
  type Move,
  type Part,
  type WayCheck,
} from './moves';
import { Tree, type Node } from './poseTree';
import { GaveUp, Sampling, Space, type WaySearch } from './waySpace';
import { poseInRims } from './wayGates';
import { Targets, directionsOf, type Directions } from './wayTargets';
import { shortened, toldApart } from './wayTold';

export type WayCode = 'does-not-fit' | 'none-found' | 'stopped';

export type WayOut = {
  readonly moves: readonly Move[];
  readonly check: WayCheck;
  /** Places at which the distance to everything was looked at. */ readonly samples: number;
};

/**
 * Room that is kept all round while a way is looked for, wide gaps first: they
 * are quick to search and easy to go through. A gap under the last of these is
 * not gone through.
 */
export const GAPS_M = [1.5e-3, 3e-4] as const;
/** Trees that lead nowhere are begun anew, each time with so many times the samples. */
const FIRST_SAMPLES = 3000;
const LONGER = 1.7;
/** … up to this many: beyond it trees cost more than they find. */
const MOST_SAMPLES = 200_000;

/**
 * A way out for a rigid part, in all six freedoms.
 *
 * First straight moves and pairs of them, along the vehicle's axes, the part's
 * own and those of the edges round it; then two trees of positions, one from
 * where the part is fitted and one from outside, grown towards each other and
 * joined. A part that is pushed against something slides along it and turns
 * about it. The way found is shortened, and told apart into moves along one
 * axis where it can be. The same seed gives the same way.
 *
 * Finding none does not prove that there is none: the outcome says how long it
 * was looked for, and how narrow the gaps were.
 *
 * @source J. Kuffner and S. LaValle, "RRT-Connect", IEEE ICRA 2000; begun anew with more samples each
 * time after M. Luby
 * et al., "Optimal speedup of Las Vegas algorithms" (1993)
 */
export function findWay(part: Part, blockers: readonly Blocker[], search: WaySearch): Outcome<WayOut, WayCode> {
  if (blockers.length === 0) {
    const moves = [shiftMove([0, 0, HAND_M])];
    return success({ moves, check: checkWay(part, [], moves), samples: 0 });
  }
  const fouled = blockers.find((blocker) => fouls(part, blocker));
  if (fouled) return failure('does-not-fit', fouled.name, `${part.name} overlaps ${fouled.name} where it is fitted.`);
  const samples = new Sampling(search);
  for (let round = 0; ; round++) {
    for (const least_m of GAPS_M) {
      samples.allow(Math.min(MOST_SAMPLES, FIRST_SAMPLES * LONGER ** round));
      const { moves, tried, stopped } = searched(
        new Space(part, blockers, samples, least_m),
        search,
        search.seed + round,
      );
      if (stopped) return failure('stopped', part.name, 'The search was stopped.');
      samples.leastGap_m = Math.min(samples.leastGap_m, least_m);
      const check = moves && checkWay(part, blockers, moves);
      if (check?.isOut) return success({ moves: moves!, check, samples: samples.count });
      if (!tried && least_m === GAPS_M.at(-1))
        return failure(
          'none-found',
          part.name,
          `It has less than ${inMm(least_m)} of room where it is fitted: no way can begin.`,
        );
      if (samples.spent || (search.straightOnly && tried)) return failure('none-found', part.name, noneAmong(samples));
    }
  }
}

const noneAmong = ({ count, leastGap_m }: Sampling): string =>
  `No way out was found among ${count} positions looked at, with ${inMm(leastGap_m)} or more left all round.`;
const inMm = (length_m: number): string => `${Number((1000 * length_m).toPrecision(2))} mm`;

/** A way that is free, or none; `tried` is false where the part has no room to begin with. */
type Searched = { readonly moves?: readonly Move[]; readonly tried: boolean; readonly stopped: boolean };

function searched(space: Space, { straightOnly }: WaySearch, seed: number): Searched {
  const { part, samples } = space;
  let tried = false;
  try {
    const directions = directionsOf(space);
    for (const lift of lifts(space, directions)) {
      const start = lift ? alongMove(part.at, part, lift, 1) : part.at;
      const again = tried;
      tried = true;
      const found =
        straightWay(space, straightOnly ? { ...directions, all: directions.main } : directions, start, again) ??
        (straightOnly ? undefined : grownWay(space, directions, start, seeded(seed)));
      if (!found) continue;
      samples.allow(Infinity);
      return {
        moves: [...(lift ? [lift] : []), ...toldApart(space, start, shortened(space, found, seeded(seed + 1)))],
        tried,
        stopped: false,
      };
    }
  } catch (error) {
    if (!(error instanceof GaveUp)) throw error;
    if (error.stopped) return { tried, stopped: true };
  }
  return { tried, stopped: false };
}

/** Deeper than this the fitted part overlaps what it should only touch [m]. */
const SHALLOW_M = 2e-3;

/** Whether a part, fitted, goes through something by more than a touch: it does where no small shift frees it. */
function fouls(part: Part, blocker: Blocker): boolean {
  const [tree, other] = [treeOf(part.surface), treeOf(blocker.surface)];
  if (distanceAt(tree, part.at, other, TOUCH_M) > 0) return false;
  return !TWENTY_SIX.some(
    (way) =>
      distanceAt(tree, { ...part.at, origin_m: add(part.at.origin_m, scale(way, SHALLOW_M)) }, other, TOUCH_M) > 0,
  );
}

const TWENTY_SIX: readonly Vec3[] = [
  ...SIX_WAYS,
  ...[-1, 0, 1].flatMap((x) =>
    [-1, 0, 1].flatMap((y) =>
      [-1, 0, 1].flatMap((z) => (Math.abs(x) + Math.abs(y) + Math.abs(z) > 1 ? [unitVector([x, y, z])] : [])),
    ),
  ),
];

/** A part that rests on something is lifted off it by the gap that is kept and so much more. */
const LIFTS = [1.1, 2.7] as const;

/** No lift where the part stands free; else small shifts that free it. */
function lifts(space: Space, { main }: Directions): (Move | undefined)[] {
  if (space.isFree(space.part.at)) return [undefined];
  return LIFTS.flatMap((times) => [...main, ...TWENTY_SIX].map((way) => shiftMove(scale(way, times * space.least_m))))
    .filter((move) => space.isFree(alongMove(space.part.at, space.part, move, 1)))
    .slice(0, MOST_LIFTS);
}
const MOST_LIFTS = 4;

/** Where the shortest straight move along one of the ways takes the part out. */
function outFrom(space: Space, directions: readonly Vec3[], pose: Pose): Pose | undefined {
  const lengths = directions
    .map((way) => ({ way, length: space.lengthOut(pose, way) }))
    .sort((a, b) => a.length - b.length);
  for (const { way, length } of lengths) {
    const move = shiftMove(scale(way, length));
    // What is blocked is so soon mostly: a look or two tells that sooner than the exact way does.
    if (
      SOON.some(
        (share) =>
          share * space.radius_m < length &&
          !space.isFree(alongMove(pose, space.part, shiftMove(scale(way, share * space.radius_m)), 1)),
      )
    )
      continue;
    if (space.freeShare(pose, move) === 1) return alongMove(pose, space.part, move, 1);
  }
  return undefined;
}
/** Shares of the radius after which a straight way is looked at first. */
const SOON = [0.1, 0.4, 1] as const;

/** Shorter than this a first straight move frees nothing [m]. */
const SHORTEST_M = 4e-3;

/** A straight move out, or, unless such pairs were tried from next to here, one after another straight move. */
function straightWay(space: Space, { all, main }: Directions, start: Pose, single: boolean): Pose[] | undefined {
  const { part } = space;
  const out = outFrom(space, all, start);
  if (out) return [start, out];
  if (single) return undefined;
  for (const way of all) {
    const length = space.lengthOut(start, way);
    const free = space.freeShare(start, shiftMove(scale(way, length)));
    for (const share of [free, free / 2]) {
      if (share * length < SHORTEST_M) continue;
      const there = alongMove(start, part, shiftMove(scale(way, share * length)), 1);
      const beyond = outFrom(space, main, there);
      if (beyond) return [start, there, beyond];
    }
  }
  return undefined;
}

/** Two trees of free positions, grown until they meet. */
function grownWay(space: Space, directions: Directions, start: Pose, chance: Chance): Pose[] | undefined {
  const outside = directions.all
    .map((way) => alongMove(start, space.part, shiftMove(scale(way, space.lengthOut(start, way))), 1))
    .filter((pose) => space.isFree(pose));
  if (outside.length === 0) return undefined;
  const [inner, outer] = [new Tree(space.part, space.radius_m), new Tree(space.part, space.radius_m)];
  inner.add(start);
  outside.forEach((pose) => outer.add(pose));
  const targets = new Targets(space, start, chance, directions, outside);
  const mouths = poseInRims(space.part, space.blockers).flatMap((pose) => gate(space, directions, outer, pose) ?? []);
  for (;;) {
    // It is narrow within; outside there is little to find.
    const mouth = mouths.shift();
    const nearIsStart = mouth !== undefined || chance.uniform() < FROM_WITHIN;
    const [near, far] = nearIsStart ? [inner, outer] : [outer, inner];
    const drawn = mouth ?? targets.next(near);
    const target = (!mouth && nearIsStart && gate(space, directions, outer, drawn)) || drawn;
    const grown = extend(space, near, target);
    if (grown) {
      const beyond = nearIsStart ? outFrom(space, directions.all, grown.pose) : undefined;
      if (beyond) return [...chain(grown).reverse(), beyond];
      const met = extend(space, far, grown.pose);
      if (met && same(space, met.pose, grown.pose)) {
        const [a, b] = nearIsStart ? [chain(grown), chain(met)] : [chain(met), chain(grown)];
        return [...a.reverse(), ...b.slice(1)];
      }
    }
  }
}

/**
 * A place within from which a straight move leads out is as good as outside,
 * and so is all that lies straight behind it: the part is brought there, and
 * not into the narrow place itself. How far in that goes, where it is one.
 */
function gate(space: Space, { all }: Directions, outer: Tree, pose: Pose): Pose | undefined {
  const out = !isOut(space.part, pose, space.blockers) && space.isFree(pose) ? outFrom(space, all, pose) : undefined;
  if (!out) return undefined;
  const inward = unitVector(subtract(pose.origin_m, out.origin_m));
  const length = space.lengthOut(pose, inward);
  const free = space.freeShare(pose, shiftMove(scale(inward, length)));
  const at = outer.add(pose, outer.add(out));
  const [, deep] = [0.5, 1]
    .map((share) => alongMove(pose, space.part, shiftMove(scale(inward, share * free * length)), 1))
    .reduce((from: Node[], to) => [...from, outer.add(to, from.at(-1) ?? at)], []);
  return deep!.pose;
}

/** So often it is the tree from where the part is fitted that grows. */
const FROM_WITHIN = 0.8;

const chain = (node: Node): Pose[] => {
  const poses: Pose[] = [];
  for (let at: Node | undefined = node; at; at = at.parent) poses.push(at.pose);
  return poses;
};
const same = (space: Space, a: Pose, b: Pose): boolean =>
  reachOf(space.part, moveBetween(space.part, a, b)) < 10 * TOUCH_M;

/** Grows a tree towards a pose, stride by stride, until it is there or stuck; the last node that it made. */
function extend(space: Space, tree: Tree, towards: Pose): Node | undefined {
  let from = tree.nearest(towards);
  let last: Node | undefined;
  let left = reachOf(space.part, moveBetween(space.part, from.pose, towards));
  while (left >= 10 * TOUCH_M) {
    const pose = space.advance(from.pose, towards);
    if (!pose) return last;
    const now = reachOf(space.part, moveBetween(space.part, pose, towards));
    // Sliding to and fro leads nowhere.
    if (now > left - LEAST_GAIN * space.radius_m && now >= 10 * TOUCH_M) return last;
    last = from = tree.add(pose, from);
    left = now;
  }
  return last ?? from;
}
/** Each stride must bring the part nearer by this share of its radius. */
const LEAST_GAIN = 1e-4;
