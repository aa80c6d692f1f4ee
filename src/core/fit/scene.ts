import { derived } from '../memo';
import {
  cornerOfEach,
  AT_HOME,
  composed,
  posedMesh,
  shiftBy,
  turnAbout,
  vertex,
  type ClosedMesh,
  type Pose,
  type Surface,
  type Vec3,
} from '../geometry';

/** What an obstacle in the space is to the tank. */
export type Role = 'obstacle' | 'heat' | 'spray' | 'occupied' | 'reach' | 'fixing';

/** Zones are no bodies; everything else can be run into. */
export const isSolid = (role: Role): boolean => role !== 'spray' && role !== 'occupied';

/** An obstacle's travel along a straight way, or about an axis; both in vehicle axes, from where it rests. */
export type Motion =
  | { readonly kind: 'slide'; readonly way: Vec3; readonly from_m: number; readonly to_m: number }
  | {
      readonly kind: 'hinge';
      readonly point_m: Vec3;
      readonly axis: Vec3;
      readonly from_rad: number;
      readonly to_rad: number;
    };

/** An obstacle that stands in the space, or moves in it. */
export type Obstacle = {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  /** Closed, or several closed ones together; in vehicle axes, where it rests. */
  readonly surface: Surface;
  /** The first acts on the obstacle, the second carries both: a wheel steers, and its axle travels. */
  readonly motions: readonly Motion[];
  /** Distance that the tank shall keep from it [m]. */
  readonly keep_m: number;
  readonly removable: boolean;
};

export type WallKind = 'wall' | 'open' | 'removable';

/** One side of the bay: a surface in vehicle axes and the way into the bay from it. */
export type Panel = {
  readonly id: string;
  readonly name: string;
  readonly kind: WallKind;
  readonly surface: Surface;
  readonly inward: Vec3;
};

/** A piece of what is fitted: the tank's own walls, or what stands on them; in the body's frame. */
export type Piece = { readonly id: string; readonly name: string; readonly surface: ClosedMesh };

/** A rigid body that is fitted, with all that is fixed to it. */
export type Body = { readonly id: string; readonly name: string; readonly pieces: readonly Piece[]; readonly at: Pose };

const motionEnds = (motion: Motion): readonly [number, number] =>
  motion.kind === 'slide' ? [motion.from_m, motion.to_m] : [motion.from_rad, motion.to_rad];

const motionPose = (motion: Motion, at: number): Pose =>
  motion.kind === 'slide'
    ? shiftBy([motion.way[0] * at, motion.way[1] * at, motion.way[2] * at])
    : turnAbout(motion.point_m, motion.axis, at);

/** Where an obstacle stands at a position of its motions. */
export const movedTo = ({ motions }: Obstacle, at: readonly number[]): Pose =>
  motions.reduce<Pose>((pose, motion, k) => composed(motionPose(motion, at[k]!), pose), AT_HOME);

/** Steps over the inner motion at which the reach of the outer one is looked at. */
const REACH_STEPS = 16;

/** The range of an obstacle's motions, and how far any of its points moves at most with a unit of each [m/m, m/rad]. */
export function rangeOf(obstacle: Obstacle): { low: number[]; high: number[]; slopes: number[] } {
  const ends = obstacle.motions.map(motionEnds);
  const slopes = obstacle.motions.map((motion, k) => {
    if (motion.kind === 'slide') return Math.hypot(...motion.way);
    if (k === 0) return farthest(obstacle.surface, motion.point_m, motion.axis);
    const [low, high] = ends[0]!;
    const step = (high - low) / REACH_STEPS;
    const inner = { ...obstacle, motions: obstacle.motions.slice(0, 1) };
    const reached = Array.from({ length: REACH_STEPS + 1 }, (_, i) =>
      farthest(posedMesh(obstacle.surface, movedTo(inner, [low + i * step])), motion.point_m, motion.axis),
    );
    return Math.max(...reached) + (rangeOf(inner).slopes[0]! * step) / 2;
  });
  return { low: ends.map(([low]) => low), high: ends.map(([, high]) => high), slopes };
}

/** Greatest distance of a surface from an axis [m]. */
function farthest({ positions }: Surface, point: Vec3, axis: Vec3): number {
  const length = Math.hypot(...axis);
  let most = 0;
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = [positions[i]! - point[0], positions[i + 1]! - point[1], positions[i + 2]! - point[2]];
    const along = (x * axis[0] + y * axis[1] + z * axis[2]) / length;
    most = Math.max(most, x * x + y * y + z * z - along * along);
  }
  return Math.sqrt(most);
}

/** Positions evenly over every motion of an obstacle, both ends included: one, of nothing, where it stands still. */
export function positionsOver(obstacle: Obstacle, steps: number): number[][] {
  const { low, high } = rangeOf(obstacle);
  return low.reduce<number[][]>(
    (all, from, k) =>
      all.flatMap((at) => Array.from({ length: steps + 1 }, (_, i) => [...at, from + ((high[k]! - from) * i) / steps])),
    [[]],
  );
}

/** A body's pieces as they stand in the vehicle. */
export const standing = ({ pieces, at }: Body): Piece[] =>
  pieces.map((piece) => ({ ...piece, surface: posedMesh(piece.surface, at) }));

/**
 * A point of each body that a surface is of: what lies wholly within something else shows by these, and by no one of
 * them alone.
 */
export const pointsOf: (surface: Surface) => readonly Vec3[] = derived((surface: Surface) =>
  cornerOfEach(surface).map((corner) => vertex(surface, corner)),
);
