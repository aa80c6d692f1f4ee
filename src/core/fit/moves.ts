import { derived } from '../memo';
import {
  AT_HOME,
  composed,
  distance as apart,
  firstGone,
  leastOver,
  norm,
  placed,
  scale,
  seenFrom,
  separation,
  shiftBy,
  subtract,
  treeOf,
  turnAbout,
  unitVector,
  type BoxTree,
  type Pose,
  type Surface,
  type Vec3,
} from '../geometry';

/** A rigid part that is taken out: its surface in its own frame, and where it stands when fitted. */
export type Part = {
  readonly id: string;
  readonly name: string;
  readonly surface: Surface;
  readonly at: Pose;
  /** About which it is turned, in its own frame. */ readonly middle_m: Vec3;
};

/** Something that stands in the way, where it stands; in vehicle axes. */
export type Blocker = {
  readonly id: string;
  readonly name: string;
  readonly surface: Surface;
  readonly removable: boolean;
};

/**
 * One move: along `shift_m` and, while it goes, about `turn_rad` (axis times angle) through the part's middle; vehicle
 * axes.
 */
export type Move = { readonly shift_m: Vec3; readonly turn_rad: Vec3 };

/** Nearer than this a moving part touches [m]. */
export const TOUCH_M = 2e-4;
/** A part that rests on something has come off it after so far [m]. */
const LIFT_M = 1e-3;
/** The tightest place of a move is found to within this [m]. */
const TIGHT_M = 5e-4;
/** … or within this share of itself. */
const TIGHT_REL = 0.02;

export type StepCheck = {
  readonly from: Pose;
  readonly to: Pose;
  /** Least clearance on the way, and to what. */
  readonly tightest_m: number;
  readonly tightestTo: string;
  /** Share of the move at which it touches, and what. */
  readonly blocked?: { readonly share: number; readonly by: string; readonly pose: Pose };
};

export type WayCheck = {
  readonly steps: readonly StepCheck[];
  readonly isOut: boolean;
  readonly tightest_m: number;
  readonly tightestTo: string;
  readonly blockedAt?: number;
};

/** Where a part stands after a share of a move. */
export function alongMove(from: Pose, part: Pick<Part, 'middle_m'>, { shift_m, turn_rad }: Move, share: number): Pose {
  const angle = norm(turn_rad);
  const turnedTo = angle > 0 ? composed(turnAbout(placed(from, part.middle_m), turn_rad, angle * share), from) : from;
  return composed(shiftBy(scale(shift_m, share)), turnedTo);
}

/** A move without a turn [m]. */
export const shiftMove = (shift_m: Vec3): Move => ({ shift_m, turn_rad: [0, 0, 0] });

/** Most that any point of the part moves in a move [m]. */
export const reachOf = (part: Part, { shift_m, turn_rad }: Move): number =>
  norm(shift_m) + norm(turn_rad) * radiusOf(part);

/** Greatest distance of a part's surface from its middle [m]. */
export const radiusOf: (part: Part) => number = derived(({ surface, middle_m }: Part) => {
  let most = 0;
  for (let i = 0; i < surface.positions.length; i += 3)
    most = Math.max(
      most,
      apart(middle_m, [surface.positions[i]!, surface.positions[i + 1]!, surface.positions[i + 2]!]),
    );
  return most;
});

/**
 * Many surfaces as one, of those corners alone that their triangles use: a side of a bay shares its corners with the
 * others.
 */
export function joinedSurface(surfaces: readonly Surface[]): Surface {
  const positions: number[] = [];
  const triangles: number[] = [];
  for (const surface of surfaces) {
    const numbers = new Map<number, number>();
    for (const vertex of surface.triangles) {
      if (!numbers.has(vertex)) {
        numbers.set(vertex, positions.length / 3);
        positions.push(
          surface.positions[3 * vertex]!,
          surface.positions[3 * vertex + 1]!,
          surface.positions[3 * vertex + 2]!,
        );
      }
      triangles.push(numbers.get(vertex)!);
    }
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** Distance from a part at a pose to a tree in vehicle axes; `atMost_m` where it is further. */
export const distanceAt = (part: BoxTree, pose: Pose, others: BoxTree, atMost_m = Infinity): number =>
  separation(part, others, seenFrom(pose, AT_HOME), atMost_m)?.distance_m ?? atMost_m;

/** Whether a part at a pose comes nearer to a tree than a distance; cheaper than the distance itself. */
export const isNear = (part: BoxTree, pose: Pose, others: BoxTree, within_m: number): boolean =>
  separation(part, others, seenFrom(pose, AT_HOME), within_m, within_m) !== undefined;

/**
 * Checks a sequence of moves against everything that stands in the way,
 * without a gap between positions. What the part rests on when fitted may
 * touch it for the first millimetre.
 */
export function checkWay(part: Part, blockers: readonly Blocker[], moves: readonly Move[]): WayCheck {
  const steps: StepCheck[] = [];
  let pose = part.at;
  let travelled = 0;
  for (const move of moves) {
    const check = checkMove(part, blockers, pose, move, Math.max(0, LIFT_M - travelled));
    steps.push(check);
    if (check.blocked) break;
    travelled += reachOf(part, move);
    pose = check.to;
  }
  const tightest = steps.reduce((least, step) => (step.tightest_m < least.tightest_m ? step : least), {
    tightest_m: Infinity,
    tightestTo: '',
  });
  const blocked = steps.at(-1)?.blocked !== undefined;
  return {
    steps,
    isOut: !blocked && isOut(part, pose, blockers),
    tightest_m: tightest.tightest_m,
    tightestTo: tightest.tightestTo,
    ...(blocked ? { blockedAt: steps.length - 1 } : {}),
  };
}

/** One move; for the first `lift_m` of it, what touches the part already is left out. */
function checkMove(part: Part, blockers: readonly Blocker[], from: Pose, move: Move, lift_m: number): StepCheck {
  const tree = treeOf(part.surface);
  const reach = reachOf(part, move);
  const poseAt = (share: number): Pose => alongMove(from, part, move, share);
  const lifted = reach > 0 ? Math.min(1, lift_m / reach) : 1;
  let blocked: StepCheck['blocked'];
  let tightest = { distance: Infinity, to: '' };
  for (const blocker of blockers) {
    const other = treeOf(blocker.surface);
    const begin = lifted > 0 && distanceAt(tree, from, other, TOUCH_M) < TOUCH_M ? lifted : 0;
    const gone = firstGone(
      (share, within_m) => isNear(tree, poseAt(share), other, within_m),
      reach,
      TOUCH_M,
      begin,
      blocked?.share ?? 1,
    );
    if (gone !== undefined) blocked = { share: gone, by: blocker.id, pose: poseAt(gone) };
    const least = leastOver(
      { low: [begin], high: [1], slopes: [reach] },
      ([share], atMost_m) => distanceAt(tree, poseAt(share!), other, Math.min(atMost_m, tightest.distance + reach)),
      TIGHT_M,
      TIGHT_REL,
    ).value;
    if (least < tightest.distance) tightest = { distance: least, to: blocker.id };
  }
  return {
    from,
    to: poseAt(1),
    tightest_m: blocked ? 0 : tightest.distance,
    tightestTo: blocked?.by ?? tightest.to,
    ...(blocked ? { blocked } : {}),
  };
}

/** Least and most of a surface's coordinates at a pose. */
export function boundsAt({ positions }: Surface, pose: Pose): { min: Vec3; max: Vec3 } {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < positions.length; i += 3) {
    placed(pose, [positions[i]!, positions[i + 1]!, positions[i + 2]!]).forEach((value, k) => {
      min[k] = Math.min(min[k]!, value);
      max[k] = Math.max(max[k]!, value);
    });
  }
  return { min, max };
}

/** Whether a part has left the room that everything else takes up: along some axis it lies wholly beyond all of it. */
export function isOut(part: Part, pose: Pose, blockers: readonly Blocker[]): boolean {
  if (blockers.length === 0) return true;
  const room = roomOf(blockers);
  const { min, max } = boundsAt(part.surface, pose);
  return [0, 1, 2].some((k) => min[k]! >= room.max[k]! || max[k]! <= room.min[k]!);
}

/** The box round everything that stands in the way, in vehicle axes [m]. */
export function roomOf(blockers: readonly Blocker[]): Room {
  const all = blockers.map(({ surface }) => boundsAt(surface, AT_HOME));
  return {
    min: [0, 1, 2].map((k) => Math.min(...all.map(({ min }) => min[k]!))) as unknown as Vec3,
    max: [0, 1, 2].map((k) => Math.max(...all.map(({ max }) => max[k]!))) as unknown as Vec3,
  };
}

export type Room = { readonly min: Vec3; readonly max: Vec3 };

/** How far a part must go along a direction to be out of a room, and a hand's breadth more [m]. */
export function lengthOut(part: Part, pose: Pose, direction: Vec3, room: Room): number {
  const { min, max } = boundsAt(part.surface, pose);
  const lengths = [0, 1, 2].flatMap((k) =>
    Math.abs(direction[k]!) < 1e-6
      ? []
      : [(direction[k]! > 0 ? room.max[k]! - min[k]! : max[k]! - room.min[k]!) / Math.abs(direction[k]!)],
  );
  return Math.max(0, Math.min(...lengths)) + HAND_M;
}
export const HAND_M = 0.1;

/** The move that takes a part from one pose to another, turning about its middle. */
export function moveBetween(part: Pick<Part, 'middle_m'>, from: Pose, to: Pose): Move {
  return { shift_m: subtract(placed(to, part.middle_m), placed(from, part.middle_m)), turn_rad: turnBetween(from, to) };
}

/**
 * Axis times angle of the turn from one pose to another. @source Rodrigues' formula read backwards: trace and skew part
 * of the turn
 */
function turnBetween(from: Pose, to: Pose): Vec3 {
  const r = seenFrom(
    { axes: transposed(to.axes), origin_m: [0, 0, 0] },
    { axes: transposed(from.axes), origin_m: [0, 0, 0] },
  ).axes;
  // Columns of to * from^T, whose trace is 1 + 2 cos(angle).
  const cosine = (r[0][0] + r[1][1] + r[2][2] - 1) / 2;
  const skew: Vec3 = [r[1][2] - r[2][1], r[2][0] - r[0][2], r[0][1] - r[1][0]];
  const sine = norm(skew) / 2;
  const angle = Math.atan2(sine, cosine);
  if (sine > 1e-9) return scale(skew, angle / (2 * sine));
  if (cosine > 0) return [0, 0, 0];
  // Half a turn: the axis is the longest column of the turn plus one.
  const columns = ([0, 1, 2] as const).map((k): Vec3 => [
    r[k][0] + (k === 0 ? 1 : 0),
    r[k][1] + (k === 1 ? 1 : 0),
    r[k][2] + (k === 2 ? 1 : 0),
  ]);
  return scale(unitVector(columns.reduce((a, b) => (norm(a) >= norm(b) ? a : b))), Math.PI);
}

const transposed = (axes: Pose['axes']): Pose['axes'] => [
  [axes[0][0], axes[1][0], axes[2][0]],
  [axes[0][1], axes[1][1], axes[2][1]],
  [axes[0][2], axes[1][2], axes[2][2]],
];
