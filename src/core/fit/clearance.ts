import {
  AT_HOME,
  depthInside,
  leastOver,
  norm,
  placed,
  placedBack,
  scale,
  seenFrom,
  separation,
  subtract,
  travel,
  treeOf,
  type Pose,
  type Travel,
  type Vec3,
} from '../geometry';
import { movedTo, pointsOf, positionsOver, rangeOf, type Body, type Panel, type Obstacle } from './scene';

/** The tightest place between a body and something else. */
export type Clearance = {
  /** What it is to: id and name of the obstacle or the panel. */
  readonly to: string;
  readonly name: string;
  /** The piece of the body that comes nearest. */
  readonly piece: string;
  readonly pieceName: string;
  /**
   * Least distance [m]; negative where they overlap, by the least straight shift along a vehicle axis that frees the
   * body.
   */
  readonly distance_m: number;
  /** The two points, in vehicle axes. */
  readonly onBody: Vec3;
  readonly onObstacle: Vec3;
  /** Unit vector along which the body moves to gain clearance. */
  readonly away: Vec3;
  /** Position of the obstacle's motions at which this happens; as many as it has motions. */
  readonly at: readonly number[];
};

/** Least distance over a motion is found to within this [m]. */
const SWEEP_M = 1e-4;
/** … or within this share of itself: what is far off need not be known so well. */
const SWEEP_REL = 0.01;
/** Positions at which an overlap is measured over a motion of one part, and over each of two. */
const OVERLAP_STEPS = [32, 8] as const;

export const SIX_WAYS: readonly Vec3[] = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
];

/**
 * The tightest clearance between a body and an obstacle over the whole of the
 * obstacle's motion, found to within a tenth of a millimetre, or a hundredth of
 * itself where that is more, with no position left out.
 */
export function clearanceTo(body: Body, obstacle: Obstacle): Clearance {
  if (obstacle.motions.length === 0) return clearanceAt(body, obstacle, []);
  const { low, high, slopes } = rangeOf(obstacle);
  const least = leastOver(
    { low, high, slopes },
    (at, atMost_m) => distanceTo(body, obstacle, movedTo(obstacle, at), atMost_m)?.distance_m ?? atMost_m,
    SWEEP_M,
    SWEEP_REL,
  );
  if (least.value > 0) return clearanceAt(body, obstacle, least.at);
  return overlapOver(body, obstacle, [...positionsOver(obstacle, OVERLAP_STEPS[low.length > 1 ? 1 : 0]), least.at]);
}

/** By so much a clearance is expected to be off what it is said to be about [m], and by such a share of itself. */
const ABOUT = { abs_m: 5e-3, rel: 0.05 } as const;
const atMostAbout = (about_m: number): number => Math.max(0, about_m) * (1 + ABOUT.rel) + ABOUT.abs_m;

/**
 * The tightest clearance at one position of the obstacle's motions.
 * @param about_m what it is thought to be: the answer is the same, and found sooner where that is so
 */
export function clearanceAt(body: Body, obstacle: Obstacle, at: readonly number[], about_m = Infinity): Clearance {
  const pose = movedTo(obstacle, at);
  const found = distanceTo(body, obstacle, pose, atMostAbout(about_m)) ?? distanceTo(body, obstacle, pose);
  if (!found || found.distance_m === 0) return overlapOver(body, obstacle, [at]);
  const gap = subtract(found.onBody, found.onObstacle);
  return {
    to: obstacle.id,
    name: obstacle.name,
    piece: found.piece,
    pieceName: found.pieceName,
    distance_m: found.distance_m,
    onBody: found.onBody,
    onObstacle: found.onObstacle,
    away: scale(gap, 1 / norm(gap)),
    at,
  };
}

/**
 * The least clearance at any of some positions of the obstacle's motions [m]; see `clearanceAt` for the rest.
 * @param upTo_m all that is more than this is told as endless
 */
export function leastAt(
  body: Body,
  obstacle: Obstacle,
  tried: readonly (readonly number[])[],
  about_m: number,
  upTo_m = Infinity,
): number {
  const ask_m = Math.max(upTo_m, LEAST_ASKED_M);
  let least = Infinity;
  for (const at of tried) {
    const least_m = Math.min(least, ask_m);
    // Where it is clear at one position, all that matters of another is whether it is tighter there.
    if (least > 0 && least_m < Infinity && !distanceTo(body, obstacle, movedTo(obstacle, at), least_m)) continue;
    least = Math.min(least, clearanceAt(body, obstacle, at, Math.min(about_m, least_m)).distance_m);
  }
  return least;
}
/** What touches is always found [m]. */
const LEAST_ASKED_M = 1e-6;

type Nearest = {
  readonly piece: string;
  readonly pieceName: string;
  readonly distance_m: number;
  readonly onBody: Vec3;
  readonly onObstacle: Vec3;
};

/**
 * Distance between a body and an obstacle that stands at a pose; 0 where they overlap, one inside the other included.
 */
export function distanceTo(
  body: Body,
  obstacle: Pick<Obstacle, 'surface'>,
  pose: Pose,
  atMost_m = Infinity,
): Nearest | undefined {
  const other = treeOf(obstacle.surface);
  let best: Nearest | undefined;
  for (const piece of body.pieces) {
    const found = separation(treeOf(piece.surface), other, seenFrom(body.at, pose), best?.distance_m ?? atMost_m);
    if (!found) continue;
    best = {
      piece: piece.id,
      pieceName: piece.name,
      distance_m: found.distance_m,
      onBody: placed(body.at, found.onFirst),
      onObstacle: placed(body.at, found.onSecond),
    };
    if (best.distance_m === 0) return best;
  }
  const swallowed = body.pieces.find(
    (piece) =>
      holdsAny(piece.surface, body.at, obstacle.surface, pose) ||
      holdsAny(obstacle.surface, pose, piece.surface, body.at),
  );
  if (!swallowed) return best;
  // Deep within one another their surfaces may be further apart than was to be looked at.
  return best
    ? { ...best, piece: swallowed.id, pieceName: swallowed.name, distance_m: 0 }
    : distanceTo(body, obstacle, pose);
}

/** Whether any body of the second surface has a point within the first, which is closed, as both stand. */
export const holdsAny = (closed: Obstacle['surface'], at: Pose, other: Obstacle['surface'], otherAt: Pose): boolean =>
  pointsOf(other).some((point) => contains(closed, placedBack(at, placed(otherAt, point))));

/** Whether a point lies within a closed surface; far points cost nothing. */
export function contains(surface: Obstacle['surface'], point: Vec3): boolean {
  const { boxes } = treeOf(surface);
  for (let k = 0; k < 3; k++) if (Math.abs(point[k]! - boxes[k]!) > boxes[3 + k]!) return false;
  return depthInside(surface, point) > 0;
}

/**
 * How far a body must shift to be free of an obstacle at all the given positions:
 * along each vehicle axis the most that any position asks, and of the six the
 * least.
 */
function overlapOver(body: Body, obstacle: Obstacle, tried: readonly (readonly number[])[]): Clearance {
  let best: Clearance | undefined;
  for (const way of SIX_WAYS) {
    let most: Clearance | undefined;
    for (const at of tried) {
      const pose = movedTo(obstacle, at);
      for (const piece of body.pieces) {
        const found = travel(treeOf(piece.surface), body.at, treeOf(obstacle.surface), pose, way);
        if (found && found.travel_m < (most?.distance_m ?? Infinity))
          most = overlapFrom(obstacle, piece, found, way, at);
      }
    }
    if (most && most.distance_m > (best?.distance_m ?? -Infinity)) best = most;
  }
  // Bodies that only just touch pass each other in every direction.
  if (best) return { ...best, distance_m: Math.min(0, best.distance_m) };
  const touch = distanceTo(body, obstacle, movedTo(obstacle, tried[0]!))!;
  return {
    to: obstacle.id,
    name: obstacle.name,
    piece: touch.piece,
    pieceName: touch.pieceName,
    distance_m: 0,
    onBody: touch.onBody,
    onObstacle: touch.onObstacle,
    away: [0, 0, 1],
    at: tried[0]!,
  };
}

const overlapFrom = (
  obstacle: { id: string; name: string },
  piece: { id: string; name: string },
  found: Travel,
  way: Vec3,
  at: readonly number[],
): Clearance => ({
  to: obstacle.id,
  name: obstacle.name,
  piece: piece.id,
  pieceName: piece.name,
  distance_m: found.travel_m,
  onBody: found.onMoved,
  onObstacle: found.onMet,
  away: scale(way, -1),
  at,
});

/**
 * Clearance between a body and one side of the bay, seen from within: negative
 * by as much as the body goes through it, measured squarely to the side.
 * @param about_m what it is thought to be: the answer is the same, and found sooner where that is so
 */
export function clearanceToPanel(body: Body, panel: Panel, about_m = Infinity): Clearance {
  return throughPanel(body, panel) ?? nearestTo(body, panel, atMostAbout(about_m)) ?? nearestTo(body, panel, Infinity)!;
}

/** The same distance alone [m]; all that is more than `upTo_m` is told as endless. */
export const leastToPanel = (body: Body, panel: Panel, about_m: number, upTo_m = Infinity): number =>
  upTo_m === Infinity
    ? clearanceToPanel(body, panel, about_m).distance_m
    : ((throughPanel(body, panel) ?? nearestTo(body, panel, Math.max(upTo_m, LEAST_ASKED_M)))?.distance_m ?? Infinity);

function throughPanel(body: Body, panel: Panel): Clearance | undefined {
  const tree = treeOf(panel.surface);
  let through: Clearance | undefined;
  for (const piece of body.pieces) {
    const found = travel(treeOf(piece.surface), body.at, tree, AT_HOME, scale(panel.inward, -1));
    if (found && found.travel_m <= 0 && found.travel_m < (through?.distance_m ?? Infinity)) {
      through = {
        to: panel.id,
        name: panel.name,
        piece: piece.id,
        pieceName: piece.name,
        distance_m: found.travel_m,
        onBody: found.onMoved,
        onObstacle: found.onMet,
        away: panel.inward,
        at: [],
      };
    }
  }
  return through;
}

function nearestTo(body: Body, panel: Panel, atMost_m: number): Clearance | undefined {
  const tree = treeOf(panel.surface);
  let best: Clearance | undefined;
  for (const piece of body.pieces) {
    const found = separation(treeOf(piece.surface), tree, seenFrom(body.at, AT_HOME), best?.distance_m ?? atMost_m);
    if (!found) continue;
    const [onBody, onObstacle] = [placed(body.at, found.onFirst), placed(body.at, found.onSecond)];
    const gap = subtract(onBody, onObstacle);
    best = {
      to: panel.id,
      name: panel.name,
      piece: piece.id,
      pieceName: piece.name,
      distance_m: found.distance_m,
      onBody,
      onObstacle,
      away: norm(gap) > 0 ? scale(gap, 1 / norm(gap)) : panel.inward,
      at: [],
    };
  }
  return best;
}
