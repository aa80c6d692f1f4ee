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
import { movedTo, positionsOver, rangeOf, somePoint, type Body, type Panel, type Thing } from './scene';

/** The tightest place between a body and something else. */
export type Clearance = {
  /** What it is to: id and name of the thing or the panel. */
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
  readonly onThing: Vec3;
  /** Unit vector along which the body moves to gain clearance. */
  readonly away: Vec3;
  /** Position of the thing's motions at which this happens; as many as it has motions. */
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
 * The tightest clearance between a body and a thing over the whole of the
 * thing's motion, found to within a tenth of a millimetre, or a hundredth of
 * itself where that is more, with no position left out.
 */
export function clearanceTo(body: Body, thing: Thing): Clearance {
  if (thing.motions.length === 0) return clearanceAt(body, thing, []);
  const { low, high, slopes } = rangeOf(thing);
  const least = leastOver(
    { low, high, slopes },
    (at, atMost_m) => distanceTo(body, thing, movedTo(thing, at), atMost_m)?.distance_m ?? atMost_m,
    SWEEP_M,
    SWEEP_REL,
  );
  if (least.value > 0) return clearanceAt(body, thing, least.at);
  return overlapOver(body, thing, [...positionsOver(thing, OVERLAP_STEPS[low.length > 1 ? 1 : 0]), least.at]);
}

/** The tightest clearance at one position of the thing's motions. */
export function clearanceAt(body: Body, thing: Thing, at: readonly number[]): Clearance {
  const pose = movedTo(thing, at);
  const found = distanceTo(body, thing, pose);
  if (!found || found.distance_m === 0) return overlapOver(body, thing, [at]);
  const gap = subtract(found.onBody, found.onThing);
  return {
    to: thing.id,
    name: thing.name,
    piece: found.piece,
    pieceName: found.pieceName,
    distance_m: found.distance_m,
    onBody: found.onBody,
    onThing: found.onThing,
    away: scale(gap, 1 / norm(gap)),
    at,
  };
}

type Nearest = {
  readonly piece: string;
  readonly pieceName: string;
  readonly distance_m: number;
  readonly onBody: Vec3;
  readonly onThing: Vec3;
};

/** Distance between a body and a thing that stands at a pose; 0 where they overlap, one inside the other included. */
export function distanceTo(
  body: Body,
  thing: Pick<Thing, 'surface'>,
  pose: Pose,
  atMost_m = Infinity,
): Nearest | undefined {
  const other = treeOf(thing.surface);
  let best: Nearest | undefined;
  for (const piece of body.pieces) {
    const found = separation(treeOf(piece.surface), other, seenFrom(body.at, pose), best?.distance_m ?? atMost_m);
    if (!found) continue;
    best = {
      piece: piece.id,
      pieceName: piece.name,
      distance_m: found.distance_m,
      onBody: placed(body.at, found.onFirst),
      onThing: placed(body.at, found.onSecond),
    };
    if (best.distance_m === 0) return best;
  }
  const swallowed =
    best &&
    body.pieces.find(
      (piece) =>
        contains(piece.surface, placedBack(body.at, somePoint(thing.surface, pose))) ||
        contains(thing.surface, placedBack(pose, somePoint(piece.surface, body.at))),
    );
  return swallowed ? { ...best!, piece: swallowed.id, pieceName: swallowed.name, distance_m: 0 } : best;
}

/** Whether a point lies within a closed surface; far points cost nothing. */
export function contains(surface: Thing['surface'], point: Vec3): boolean {
  const { boxes } = treeOf(surface);
  for (let k = 0; k < 3; k++) if (Math.abs(point[k]! - boxes[k]!) > boxes[3 + k]!) return false;
  return depthInside(surface, point) > 0;
}

/**
 * How far a body must shift to be free of a thing at all the given positions:
 * along each vehicle axis the most that any position asks, and of the six the
 * least.
 */
function overlapOver(body: Body, thing: Thing, tried: readonly (readonly number[])[]): Clearance {
  let best: Clearance | undefined;
  for (const way of SIX_WAYS) {
    let most: Clearance | undefined;
    for (const at of tried) {
      const pose = movedTo(thing, at);
      for (const piece of body.pieces) {
        const found = travel(treeOf(piece.surface), body.at, treeOf(thing.surface), pose, way);
        if (found && found.travel_m < (most?.distance_m ?? Infinity)) most = overlapFrom(thing, piece, found, way, at);
      }
    }
    if (most && most.distance_m > (best?.distance_m ?? -Infinity)) best = most;
  }
  // Bodies that only just touch pass each other in every direction.
  if (best) return { ...best, distance_m: Math.min(0, best.distance_m) };
  const touch = distanceTo(body, thing, movedTo(thing, tried[0]!))!;
  return {
    to: thing.id,
    name: thing.name,
    piece: touch.piece,
    pieceName: touch.pieceName,
    distance_m: 0,
    onBody: touch.onBody,
    onThing: touch.onThing,
    away: [0, 0, 1],
    at: tried[0]!,
  };
}

const overlapFrom = (
  thing: { id: string; name: string },
  piece: { id: string; name: string },
  found: Travel,
  way: Vec3,
  at: readonly number[],
): Clearance => ({
  to: thing.id,
  name: thing.name,
  piece: piece.id,
  pieceName: piece.name,
  distance_m: found.travel_m,
  onBody: found.onMoved,
  onThing: found.onMet,
  away: scale(way, -1),
  at,
});

/**
 * Clearance between a body and one side of the bay, seen from within: negative
 * by as much as the body goes through it, measured squarely to the side.
 */
export function clearanceToPanel(body: Body, panel: Panel): Clearance {
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
        onThing: found.onMet,
        away: panel.inward,
        at: [],
      };
    }
  }
  if (through) return through;
  let best: Clearance | undefined;
  for (const piece of body.pieces) {
    const found = separation(treeOf(piece.surface), tree, seenFrom(body.at, AT_HOME), best?.distance_m);
    if (!found) continue;
    const [onBody, onThing] = [placed(body.at, found.onFirst), placed(body.at, found.onSecond)];
    const gap = subtract(onBody, onThing);
    best = {
      to: panel.id,
      name: panel.name,
      piece: piece.id,
      pieceName: piece.name,
      distance_m: found.distance_m,
      onBody,
      onThing,
      away: norm(gap) > 0 ? scale(gap, 1 / norm(gap)) : panel.inward,
      at: [],
    };
  }
  return best!;
}
