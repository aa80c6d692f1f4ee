import { add, composed, norm, placed, scale, seenFrom, subtract, treeOf, turnAbout, unitVector, type Pose, type Vec3 } from '../geometry';
import { failure, success, type Outcome } from '../outcome';
import { SIX_WAYS } from './clearance';
import { alongMove, checkWay, distanceAt, HAND_M, reachOf, TOUCH_M, type Blocker, type Move, type Part, type WayCheck } from './moves';
import { Tree, type Node } from './poseTree';
import { seeded, type Chance } from '../seeded';
import { GaveUp, Space, type WaySearch } from './waySpace';

export type WayCode = 'does-not-fit' | 'none-found' | 'stopped';

export type WayOut = { readonly moves: readonly Move[]; readonly check: WayCheck; /** Places at which the distance to everything was looked at. */ readonly looks: number };

/** A part that rests on something is lifted off by this before it is moved further [m]. */
const LIFT_M = 4e-3;

/**
 * A way out for a rigid part, in all six freedoms.
 *
 * First straight moves and pairs of them, as a person would try; then two
 * trees of positions, one from where the part is fitted and one from outside,
 * grown towards each other and joined. The way found is shortened, and told
 * apart into moves along one axis where it can be. The same seed gives the
 * same way.
 *
 * Finding none does not prove that there is none: the outcome says how long it
 * was looked for.
 *
 * @source J. Kuffner and S. LaValle, "RRT-Connect", IEEE ICRA 2000; D. Hsu et
 *   al., "The bridge test for sampling narrow passages", IEEE ICRA 2003
 */
export function findWay(part: Part, blockers: readonly Blocker[], search: WaySearch): Outcome<WayOut, WayCode> {
  if (blockers.length === 0) {
    const moves = [shiftMove([0, 0, HAND_M])];
    return success({ moves, check: checkWay(part, [], moves), looks: 0 });
  }
  const fouled = blockers.find((blocker) => fouls(part, blocker));
  if (fouled) return failure('does-not-fit', fouled.name, `${part.name} overlaps ${fouled.name} where it is fitted.`);
  let looks = 0;
  for (const finer of [1, 4]) {
    const space = new Space(part, blockers, search, finer);
    const found = searched(space, search);
    looks += space.looks;
    if (!found.ok) return found;
    const check = checkWay(part, blockers, found.value);
    if (check.isOut) return success({ moves: found.value, check, looks });
  }
  return failure('none-found', part.name, noneAmong(looks));
}

const noneAmong = (looks: number): string => `No way out was found among ${looks} positions looked at.`;

/** A way that is free as far as it was looked at. */
function searched(space: Space, { seed, straightOnly }: WaySearch): Outcome<Move[], WayCode> {
  const { part } = space;
  try {
    for (const lift of lifts(space)) {
      const start = lift ? alongMove(part.at, part, lift, 1) : part.at;
      const found = straightWay(space, start) ?? (straightOnly ? undefined : grownWay(space, start, seeded(seed)));
      if (found) return success([...(lift ? [lift] : []), ...toldApart(space, start, shortened(space, found, seeded(seed + 1)))]);
    }
  } catch (error) {
    if (error instanceof GaveUp) return failure(error.stopped ? 'stopped' : 'none-found', part.name, error.stopped ? 'The search was stopped.' : noneAmong(space.looks));
    throw error;
  }
  return failure('none-found', part.name, noneAmong(space.looks));
}

const shiftMove = (shift_m: Vec3): Move => ({ shift_m, turn_rad: [0, 0, 0] });

/** Deeper than this the fitted part overlaps what it should only touch [m]. */
const SHALLOW_M = 2e-3;

/** Whether a part, fitted, goes through something by more than a touch: it does where no small shift frees it. */
function fouls(part: Part, blocker: Blocker): boolean {
  const [tree, other] = [treeOf(part.surface), treeOf(blocker.surface)];
  if (distanceAt(tree, part.at, other, TOUCH_M) > 0) return false;
  return !TWENTY_SIX.some((way) => distanceAt(tree, { ...part.at, origin_m: add(part.at.origin_m, scale(way, SHALLOW_M)) }, other, TOUCH_M) > 0);
}

const TWENTY_SIX: readonly Vec3[] = [...SIX_WAYS, ...[-1, 0, 1].flatMap((x) => [-1, 0, 1].flatMap((y) => [-1, 0, 1].flatMap((z) => (Math.abs(x) + Math.abs(y) + Math.abs(z) > 1 ? [unitVector([x, y, z])] : []))))];

/** No lift where the part stands free; else small shifts that free it. */
function lifts(space: Space): (Move | undefined)[] {
  if (space.isFree(space.part.at)) return [undefined];
  return TWENTY_SIX.map((way) => shiftMove(scale(way, LIFT_M))).filter((move) => space.isFree(alongMove(space.part.at, space.part, move, 1)));
}

/** Where the shortest straight move along one of the vehicle's axes takes the part out. */
function outFrom(space: Space, pose: Pose): Pose | undefined {
  const lengths = SIX_WAYS.map((way) => ({ way, length: space.lengthOut(pose, way) })).sort((a, b) => a.length - b.length);
  for (const { way, length } of lengths) {
    const move = shiftMove(scale(way, length));
    if (space.freeShare(pose, move) === 1) return alongMove(pose, space.part, move, 1);
  }
  return undefined;
}

/** A straight move out, or one after another straight move. */
function straightWay(space: Space, start: Pose): Pose[] | undefined {
  const { part } = space;
  const out = outFrom(space, start);
  if (out) return [start, out];
  for (const way of SIX_WAYS) {
    const length = space.lengthOut(start, way);
    const free = space.freeShare(start, shiftMove(scale(way, length)));
    for (const share of [free, free / 2]) {
      if (share * length < LIFT_M) continue;
      const there = alongMove(start, part, shiftMove(scale(way, share * length)), 1);
      const beyond = outFrom(space, there);
      if (beyond) return [start, there, beyond];
    }
  }
  return undefined;
}

/** A step of the trees, as a share of the part's own radius. */
const STRIDE = 0.6;
/** An advance shorter than this share of a step is not worth a node. */
const LITTLE = 0.05;

/** Two trees of free positions, grown until they meet. */
function grownWay(space: Space, start: Pose, chance: Chance): Pose[] | undefined {
  const outside = SIX_WAYS.map((way) => alongMove(start, space.part, shiftMove(scale(way, space.lengthOut(start, way))), 1)).filter((pose) => space.isFree(pose));
  if (outside.length === 0) return undefined;
  let [near, far] = [new Tree(space.part, space.radius_m), new Tree(space.part, space.radius_m)];
  near.add(start);
  outside.forEach((pose) => far.add(pose));
  let nearIsStart = true;
  for (;;) {
    const grown = extend(space, near, nextTarget(space, near, start, chance));
    if (grown) {
      const beyond = nearIsStart ? outFrom(space, grown.pose) : undefined;
      if (beyond) return [...chain(grown).reverse(), beyond];
      const met = extend(space, far, grown.pose);
      if (met && same(space, met.pose, grown.pose)) {
        const [a, b] = nearIsStart ? [chain(grown), chain(met)] : [chain(met), chain(grown)];
        return [...a.reverse(), ...b.slice(1)];
      }
    }
    [near, far] = [far, near];
    nearIsStart = !nearIsStart;
  }
}

const chain = (node: Node): Pose[] => (node.parent ? [node.pose, ...chain(node.parent)] : [node.pose]);
const same = (space: Space, a: Pose, b: Pose): boolean => reachOf(space.part, moveBetween(space.part, a, b)) < 10 * TOUCH_M;

/** Grows a tree towards a pose, stride by stride, until it is there or something is in the way; the last node that it made. */
function extend(space: Space, tree: Tree, towards: Pose): Node | undefined {
  let from = tree.nearest(towards);
  let last: Node | undefined;
  for (;;) {
    const whole = moveBetween(space.part, from.pose, towards);
    const reach = reachOf(space.part, whole);
    if (reach < 10 * TOUCH_M) return last ?? from;
    const share = Math.min(1, (STRIDE * space.radius_m) / reach);
    const advance = freest(space, from.pose, { shift_m: scale(whole.shift_m, share), turn_rad: scale(whole.turn_rad, share) });
    if (!advance) return last;
    last = tree.add(advance.pose, from);
    if (!advance.straight) return last;
    from = last;
  }
}

/** What is kept of a move that is blocked: shifts alone, or shifts and turns in one of the three planes. */
const KEPT: readonly { readonly shift: Vec3; readonly turn: Vec3 }[] = [
  { shift: [1, 1, 1], turn: [0, 0, 0] }, { shift: [1, 1, 0], turn: [0, 0, 1] }, { shift: [1, 0, 1], turn: [0, 1, 0] }, { shift: [0, 1, 1], turn: [1, 0, 0] },
  { shift: [1, 0, 0], turn: [0, 0, 0] }, { shift: [0, 1, 0], turn: [0, 0, 0] }, { shift: [0, 0, 1], turn: [0, 0, 0] },
];

/** As much of a move as is free; where that is next to nothing, as much of a part of it: the part slides along what blocks it. */
function freest(space: Space, from: Pose, move: Move): { pose: Pose; straight: boolean } | undefined {
  const free = space.freeShare(from, move);
  if (free >= LITTLE) return { pose: alongMove(from, space.part, move, free), straight: free === 1 };
  const whole = reachOf(space.part, move);
  for (const { shift, turn } of KEPT) {
    const some: Move = { shift_m: masked(move.shift_m, shift), turn_rad: masked(move.turn_rad, turn) };
    if (reachOf(space.part, some) < LITTLE * whole) continue;
    const share = space.freeShare(from, some);
    if (share * reachOf(space.part, some) >= LITTLE * whole) return { pose: alongMove(from, space.part, some, share), straight: false };
  }
  return undefined;
}

const masked = (v: Vec3, mask: Vec3): Vec3 => [v[0] * mask[0], v[1] * mask[1], v[2] * mask[2]];

function nextTarget(space: Space, tree: Tree, start: Pose, chance: Chance): Pose {
  const kind = chance.uniform();
  if (kind < IN_PLANE) return inPlane(space, tree.any(chance).pose, start, chance);
  return kind < IN_PLANE + ABOUT_A_POINT ? turnedAbout(space, tree.any(chance), chance) : target(space, start, chance);
}

/** Of the targets, so many keep to a plane of what has been reached: what lies flat under a cover goes out flat. */
const IN_PLANE = 0.4;

function inPlane(space: Space, pose: Pose, start: Pose, chance: Chance): Pose {
  const across = Math.floor(3 * chance.uniform());
  const middle = placed(pose, space.part.middle_m);
  const to = placed(randomPose(space, start, chance), space.part.middle_m);
  const turn_rad = scale(SIX_WAYS[2 * across]!, Math.PI * (2 * chance.uniform() - 1));
  return alongMove(pose, space.part, { shift_m: [0, 1, 2].map((k) => (k === across ? 0 : to[k]! - middle[k]!)) as unknown as Vec3, turn_rad }, 1);
}

/** Of the targets, so many turn what has been reached about the point that is nearest in its way: an inner corner goes round a post so, which turning about the middle does not do. */
const ABOUT_A_POINT = 0.2;
const ABOUT_RAD = 0.6;

function turnedAbout(space: Space, { pose }: Node, chance: Chance): Pose {
  const pivot = space.nearestTo(pose);
  return composed(turnAbout(pivot, SIX_WAYS[2 * Math.floor(3 * chance.uniform())]!, ABOUT_RAD * (2 * chance.uniform() - 1)), pose);
}

/** Of the targets, so many lie in narrow places, where those taken at random seldom fall. */
const NARROW = 0.4;
const NARROW_TRIES = 6;

/** A target for a tree: anywhere, near where the part is fitted, or in a narrow place. */
function target(space: Space, start: Pose, chance: Chance): Pose {
  if (chance.uniform() >= NARROW) return randomPose(space, start, chance);
  for (let tries = 0; tries < NARROW_TRIES; tries++) {
    const one = randomPose(space, start, chance);
    if (space.isFree(one)) continue;
    const other = alongMove(one, space.part, { shift_m: scale([chance.normal(), chance.normal(), chance.normal()], space.radius_m / 2), turn_rad: scale([chance.normal(), chance.normal(), chance.normal()], 0.3) }, 1);
    const between = alongMove(one, space.part, moveBetween(space.part, one, other), 0.5);
    if (!space.isFree(other) && space.isFree(between)) return between;
  }
  return randomPose(space, start, chance);
}

/** How often a target's coordinate is the middle of a gap between edges. */
const IN_GAP = 0.4;
/** Part of the targets is taken from no further than this many radii from where the part is fitted. */
const NEAR_RADII = 3;

/** A tilt of the middling kind [rad], and the unevenness of a quarter turn [rad]. */
const TILT_RAD = Math.PI / 3;
const UNEVEN_RAD = 0.08;

/** As it is fitted, tilted about one of the vehicle's axes, turned by quarters, or anyhow: in equal parts, as a person would try. */
function randomTurn(chance: Chance): Vec3 {
  const kind = Math.floor(4 * chance.uniform());
  const about = (angle_rad: number): Vec3 => scale(SIX_WAYS[2 * Math.floor(3 * chance.uniform())]!, angle_rad);
  if (kind === 0) return [0, 0, 0];
  if (kind === 1) return about(TILT_RAD * (2 * chance.uniform() - 1));
  if (kind === 2) return about((Math.PI / 2) * (Math.floor(4 * chance.uniform()) - 1) + UNEVEN_RAD * chance.normal());
  return scale(unitVector([chance.normal(), chance.normal(), chance.normal()]), Math.PI * chance.uniform());
}

function randomPose(space: Space, start: Pose, chance: Chance): Pose {
  const { room, radius_m, part } = space;
  const middle = placed(start, part.middle_m);
  const wide = chance.uniform() < 0.3;
  const at = [0, 1, 2].map((k) => {
    const gaps = space.gaps_m[k]!;
    if (gaps.length > 0 && chance.uniform() < IN_GAP) return gaps[Math.floor(chance.uniform() * gaps.length)]!;
    const [low, high] = [room.min[k]! - radius_m, room.max[k]! + radius_m];
    const [from, to] = wide ? [low, high] : [Math.max(low, middle[k]! - NEAR_RADII * radius_m), Math.min(high, middle[k]! + NEAR_RADII * radius_m)];
    return from + chance.uniform() * (to - from);
  }) as unknown as Vec3;
  const tilted = alongMove(start, part, { shift_m: [0, 0, 0], turn_rad: randomTurn(chance) }, 1);
  return { ...tilted, origin_m: add(tilted.origin_m, subtract(at, placed(tilted, part.middle_m))) };
}

/** The move that takes a part from one pose to another, turning about its middle. */
export function moveBetween(part: Pick<Part, 'middle_m'>, from: Pose, to: Pose): Move {
  return { shift_m: subtract(placed(to, part.middle_m), placed(from, part.middle_m)), turn_rad: turnBetween(from, to) };
}

/** Axis times angle of the turn from one pose to another. @source Rodrigues' formula read backwards: trace and skew part of the turn */
function turnBetween(from: Pose, to: Pose): Vec3 {
  const r = seenFrom({ axes: transposed(to.axes), origin_m: [0, 0, 0] }, { axes: transposed(from.axes), origin_m: [0, 0, 0] }).axes;
  // Columns of to * from^T, whose trace is 1 + 2 cos(angle).
  const cosine = (r[0][0] + r[1][1] + r[2][2] - 1) / 2;
  const skew: Vec3 = [r[1][2] - r[2][1], r[2][0] - r[0][2], r[0][1] - r[1][0]];
  const sine = norm(skew) / 2;
  const angle = Math.atan2(sine, cosine);
  if (sine > 1e-9) return scale(skew, angle / (2 * sine));
  if (cosine > 0) return [0, 0, 0];
  // Half a turn: the axis is the longest column of the turn plus one.
  const columns = ([0, 1, 2] as const).map((k): Vec3 => [r[k][0] + (k === 0 ? 1 : 0), r[k][1] + (k === 1 ? 1 : 0), r[k][2] + (k === 2 ? 1 : 0)]);
  return scale(unitVector(columns.reduce((a, b) => (norm(a) >= norm(b) ? a : b))), Math.PI);
}

const transposed = (axes: Pose['axes']): Pose['axes'] => [
  [axes[0][0], axes[1][0], axes[2][0]], [axes[0][1], axes[1][1], axes[2][1]], [axes[0][2], axes[1][2], axes[2][2]],
];

const SHORTCUTS = 60;

/** Leaves out what a direct move can replace. */
function shortened(space: Space, way: readonly Pose[], chance: Chance): Pose[] {
  let poses = [...way];
  for (let tries = 0; tries < SHORTCUTS && poses.length > 2; tries++) {
    const from = Math.floor(chance.uniform() * (poses.length - 2));
    const to = from + 2 + Math.floor(chance.uniform() * (poses.length - from - 2));
    if (space.freeShare(poses[from]!, moveBetween(space.part, poses[from]!, poses[to]!)) === 1) poses = [...poses.slice(0, from + 1), ...poses.slice(to)];
  }
  return poses;
}

/** Moves between poses, each taken apart into one axis at a time where the way stays free. */
function toldApart(space: Space, start: Pose, poses: readonly Pose[]): Move[] {
  let at = start;
  return poses.slice(1).flatMap((pose) => {
    const moves = orders(moveBetween(space.part, at, pose)).find((list) => isFreeWay(space, at, list)) ?? [moveBetween(space.part, at, pose)];
    at = moves.reduce((here, move) => alongMove(here, space.part, move, 1), at);
    return moves.filter(({ shift_m, turn_rad }) => norm(shift_m) > 1e-6 || norm(turn_rad) > 1e-6);
  });
}

/** Ways of doing a move one axis after another: shifts in any order, the turn before, between or after. */
function orders({ shift_m, turn_rad }: Move): Move[][] {
  const singles = ([0, 1, 2] as const).flatMap((k) => (Math.abs(shift_m[k]) > 1e-6 ? [shiftMove([0, 1, 2].map((j) => (j === k ? shift_m[k] : 0)) as unknown as Vec3)] : []));
  const turn: Move[] = norm(turn_rad) > 1e-6 ? [{ shift_m: [0, 0, 0], turn_rad }] : [];
  return permutations([...singles, ...turn]);
}

const permutations = <T>(list: readonly T[]): T[][] => (list.length < 2 ? [[...list]] : list.flatMap((first, i) => permutations([...list.slice(0, i), ...list.slice(i + 1)]).map((rest) => [first, ...rest])));

function isFreeWay(space: Space, from: Pose, moves: readonly Move[]): boolean {
  let at = from;
  return moves.every((move) => {
    const free = space.freeShare(at, move) === 1;
    at = alongMove(at, space.part, move, 1);
    return free;
  });
}

