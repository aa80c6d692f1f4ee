import { norm, type Pose, type Vec3 } from '../geometry';
import type { Chance } from '../seeded';
import { alongMove, moveBetween, reachOf, shiftMove, type Move } from './moves';
import type { Space } from './waySpace';

const SHORTCUTS = 60;
/** Room that a way keeps where it can, as a share of the part's radius. */
const EASY = 0.05;
/** Positions nearer to the last than this share of the radius are left out before they are eased. */
const APART = 0.1;

/**
 * The same way with fewer and easier moves: positions brought to the middle of their gaps, then whatever a direct move
 * replaces left out.
 */
export function shortened(space: Space, way: readonly Pose[], chance: Chance): Pose[] {
  let poses = furthest(space, easedWay(space, thinned(space, way)));
  for (let tries = 0; tries < SHORTCUTS && poses.length > 2; tries++) {
    const [a, b] = [chance.uniform() * (poses.length - 1), chance.uniform() * (poses.length - 1)].sort(
      (x, y) => x - y,
    ) as [number, number];
    if (Math.floor(b) <= Math.floor(a)) continue;
    const [from, to] = [between(space, poses, a), between(space, poses, b)];
    if (space.isDirect(from, to))
      poses = [...poses.slice(0, Math.floor(a) + 1), from, to, ...poses.slice(Math.floor(b) + 1)];
  }
  return easedInPlace(space, furthest(space, poses));
}

/** Positions between the first and the last eased where the moves to and from them stay free. */
function easedInPlace(space: Space, way: readonly Pose[]): Pose[] {
  const poses = [...way];
  for (let i = 1; i < poses.length - 1; i++) {
    const easy = space.eased(poses[i]!, EASY * space.radius_m);
    if (space.isDirect(poses[i - 1]!, easy) && space.isDirect(easy, poses[i + 1]!)) poses[i] = easy;
  }
  return poses;
}

function between(space: Space, poses: readonly Pose[], at: number): Pose {
  const from = poses[Math.floor(at)]!;
  return alongMove(from, space.part, moveBetween(space.part, from, poses[Math.floor(at) + 1]!), at % 1);
}

function thinned(space: Space, way: readonly Pose[]): Pose[] {
  const kept = [way[0]!];
  way.slice(1).forEach((pose, i) => {
    const apart = reachOf(space.part, moveBetween(space.part, kept.at(-1)!, way[i + 2] ?? pose));
    if (i + 2 === way.length || apart > APART * space.radius_m || !space.isDirect(kept.at(-1)!, way[i + 2]!))
      kept.push(pose);
  });
  return kept;
}

/** Every position but the first and the last eased, where the way through the eased ones is free. */
function easedWay(space: Space, way: readonly Pose[]): Pose[] {
  const poses = [way[0]!];
  way.slice(1, -1).forEach((pose, i) => {
    const easy = space.eased(pose, EASY * space.radius_m);
    if (!space.isDirect(poses.at(-1)!, easy)) poses.push(...(poses.at(-1) === way[i] ? [] : [way[i]!]), pose);
    poses.push(easy);
  });
  const before = way.at(-2)!;
  return [
    ...poses,
    ...(poses.at(-1) === before || space.isDirect(poses.at(-1)!, way.at(-1)!) ? [] : [before]),
    way.at(-1)!,
  ];
}

/** From each position directly to the furthest one that halving finds. */
function furthest(space: Space, way: readonly Pose[]): Pose[] {
  const poses = [way[0]!];
  for (let at = 0; at < way.length - 1;) {
    let [next, beyond] = [at + 1, way.length];
    while (beyond - next > 1) {
      // The end is asked first.
      const middle = beyond === way.length && next === at + 1 ? way.length - 1 : Math.floor((next + beyond) / 2);
      if (space.isDirect(way[at]!, way[middle]!)) next = middle;
      else beyond = middle;
    }
    poses.push(way[next]!);
    at = next;
  }
  return poses;
}

/** More moves than this are not made of fewer. */
const MANY = 8;

/**
 * Moves between poses, each taken apart into one axis at a time where the way stays free and does not become long by
 * it.
 */
export function toldApart(space: Space, start: Pose, poses: readonly Pose[]): Move[] {
  const isSome = ({ shift_m, turn_rad }: Move): boolean => norm(shift_m) > 1e-6 || norm(turn_rad) > 1e-6;
  const whole = poses
    .slice(1)
    .map((pose, i) => moveBetween(space.part, poses[i]!, pose))
    .filter(isSome);
  if (whole.length > MANY) return whole;
  let at = start;
  const apart = poses.slice(1).flatMap((pose) => {
    const moves = orders(moveBetween(space.part, at, pose)).find((list) => isFreeWay(space, at, list)) ?? [
      moveBetween(space.part, at, pose),
    ];
    at = moves.reduce((here, move) => alongMove(here, space.part, move, 1), at);
    return moves.filter(isSome);
  });
  return apart.length > MANY ? whole : apart;
}

/** Ways of doing a move one axis after another: shifts in any order, the turn before, between or after. */
function orders({ shift_m, turn_rad }: Move): Move[][] {
  const singles = ([0, 1, 2] as const).flatMap((k) =>
    Math.abs(shift_m[k]) > 1e-6 ? [shiftMove([0, 1, 2].map((j) => (j === k ? shift_m[k] : 0)) as unknown as Vec3)] : [],
  );
  const turn: Move[] = norm(turn_rad) > 1e-6 ? [{ shift_m: [0, 0, 0], turn_rad }] : [];
  return permutations([...singles, ...turn]);
}

const permutations = <T>(list: readonly T[]): T[][] =>
  list.length < 2
    ? [[...list]]
    : list.flatMap((first, i) =>
        permutations([...list.slice(0, i), ...list.slice(i + 1)]).map((rest) => [first, ...rest]),
      );

function isFreeWay(space: Space, from: Pose, moves: readonly Move[]): boolean {
  let at = from;
  return moves.every((move) => {
    const free = space.freeShare(at, move) === 1;
    at = alongMove(at, space.part, move, 1);
    return free;
  });
}
