import { AT_HOME, norm, placed, seenFrom, separation, travel, treeOf, type BoxTree, type Pose, type Surface, type Vec3 } from '../geometry';
import { alongMove, boundsAt, isNear, joinedSurface, lengthOut, radiusOf, reachOf, roomOf, type Blocker, type Move, type Part } from './moves';

/** How long a way is looked for. */
export type WaySearch = {
  readonly seed: number;
  /** Looks at the distance after which the search gives up. */
  readonly mostLooks: number;
  /** Straight moves alone are tried: quick, and mostly enough. */
  readonly straightOnly?: boolean;
  /** Asked now and then; true ends the search. */
  readonly stop?: () => boolean;
};

/** The search was stopped, or has looked often enough. */
export class GaveUp extends Error {
  constructor(readonly stopped: boolean) {
    super('gave up');
  }
}

/** While a way is looked for, nearer than this counts as in the way [m]; it makes the search quick, and a way with less is of no use. */
const PLAN_M = 1.5e-3;
/** Turns are looked at no further apart than this [m], and than a third of the part's least size. */
const PACE_M = 8e-3;
/** Sheet has no thickness to speak of; it is looked at this often [m]. */
const PACE_LEAST_M = 2e-3;
/** A move that meets something stops so far short of it [m]. */
const SHORT_M = 3e-3;

/** Positions of the part among all that stands in its way, and which of them are free. */
export class Space {
  looks = 0;
  readonly tree: BoxTree;
  readonly others: BoxTree;
  readonly radius_m: number;
  /** How far any point of the part moves at most between two looks [m]. */
  readonly pace_m: number;
  readonly room: { readonly min: Vec3; readonly max: Vec3 };
  /** Middles of gaps between edges along each axis that the part's least size would go through [m]. */
  readonly gaps_m: readonly (readonly number[])[];

  constructor(readonly part: Part, readonly blockers: readonly Blocker[], private readonly search: WaySearch, finer: number) {
    this.tree = treeOf(part.surface);
    this.others = treeOf(joinedSurface(blockers.map(({ surface }): Surface => surface)));
    this.radius_m = radiusOf(part);
    const { min, max } = boundsAt(part.surface, AT_HOME);
    const least = Math.min(...max.map((value, k) => value - min[k]!));
    this.pace_m = Math.max(PACE_LEAST_M, Math.min(PACE_M, least / 3)) / finer;
    this.room = roomOf(blockers);
    this.gaps_m = [0, 1, 2].map((axis) => gapMiddles(blockers, axis, least, 2 * this.radius_m));
  }

  isWithin(pose: Pose, within_m: number): boolean {
    this.count();
    return isNear(this.tree, pose, this.others, within_m);
  }

  isFree(pose: Pose): boolean {
    return !this.isWithin(pose, PLAN_M);
  }

  /**
   * Share of a move that is free from its beginning: 1 where all of it is.
   * Straight moves exactly, turns looked at every few millimetres; the way
   * that is found in the end is checked without gaps.
   */
  freeShare(from: Pose, move: Move): number {
    const reach = reachOf(this.part, move);
    const gone = norm(move.turn_rad) > 0 ? this.shareWalked(from, move, reach) : this.shareAhead(from, move.shift_m);
    return gone === undefined ? 1 : Math.max(0, gone - Math.min(gone / 2, SHORT_M / reach));
  }

  private shareWalked(from: Pose, move: Move, reach: number): number | undefined {
    const steps = Math.max(1, Math.ceil(reach / this.pace_m));
    for (let step = 1; step <= steps; step++) if (this.isWithin(alongMove(from, this.part, move, step / steps), PLAN_M)) return (step - 1) / steps;
    return undefined;
  }

  /** Where a straight move meets something first: exactly, and at one look. */
  private shareAhead(from: Pose, shift_m: Vec3): number | undefined {
    this.count();
    const length = norm(shift_m);
    const met = travel(this.tree, from, this.others, AT_HOME, shift_m, 0);
    return met && met.travel_m <= length + PLAN_M ? met.travel_m / length : undefined;
  }

  /** The point of what stands in the way that is nearest to the part. */
  nearestTo(pose: Pose): Vec3 {
    this.count();
    return placed(pose, separation(this.tree, this.others, seenFrom(pose, AT_HOME))!.onSecond);
  }

  /** How far the part must go along one of the vehicle's axes to be out. */
  lengthOut(pose: Pose, way: Vec3): number {
    return lengthOut(this.part, pose, way, this.room);
  }

  private count(): void {
    if (++this.looks > this.search.mostLooks) throw new GaveUp(false);
    if (this.looks % 200 === 0 && this.search.stop?.()) throw new GaveUp(true);
  }
}

/** Edges nearer than this are one [m]. */
const SAME_EDGE_M = 2e-3;
/** A gap lies between edges with no more than so many others between them. */
const EDGES_BETWEEN = 3;

/** Middles of the gaps between edges along an axis that are wide enough for a part and not wider than it could need. */
function gapMiddles(blockers: readonly Blocker[], axis: number, least_m: number, most_m: number): number[] {
  const all = blockers.flatMap(({ surface }) => Array.from(surface.triangles, (vertex) => surface.positions[3 * vertex + axis]!)).sort((a, b) => a - b);
  const edges = all.filter((value, i) => i === 0 || value - all[i - 1]! > SAME_EDGE_M);
  return edges.flatMap((low, i) => edges.slice(i + 1, i + 2 + EDGES_BETWEEN).filter((high) => high - low > least_m && high - low < most_m + least_m).map((high) => (low + high) / 2));
}

