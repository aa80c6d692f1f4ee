import {
  AT_HOME,
  contacts,
  firstGone,
  norm,
  placed,
  scale,
  seenFrom,
  separation,
  travel,
  treeOf,
  turned,
  type BoxTree,
  type Pose,
  type Surface,
  type Vec3,
} from '../geometry';
import {
  alongMove,
  distanceAt,
  isNear,
  joinedSurface,
  lengthOut,
  moveBetween,
  radiusOf,
  reachOf,
  roomOf,
  type Blocker,
  type Move,
  type Part,
  type Room,
} from './moves';
import { alongWanted, lengthOf, pushedOff, slid, type Hold } from './slide';

/** How far a search has come. */
export type WayProgress = {
  readonly samples: number;
  /** Gaps narrower than this have not been looked at [m]. */ readonly leastGap_m: number;
};

/** How long a way is looked for. */
export type WaySearch = {
  readonly seed: number;
  /** Sampling at the distance after which the search gives up; Infinity where only `stop` ends it. */
  readonly mostSamples: number;
  /** Straight moves alone are tried: quick, and mostly enough. */
  readonly straightOnly?: boolean;
  /** Asked now and then; true ends the search. */
  readonly stop?: () => boolean;
  /** Told now and then. */
  readonly onProgress?: (progress: WayProgress) => void;
};

/** The search was stopped, or has looked often enough. */
export class GaveUp extends Error {
  constructor(readonly stopped: boolean) {
    super('gave up');
  }
}

/** The samples of a search, over all that it tries. */
export class Sampling {
  count = 0;
  leastGap_m = Infinity;
  private until = Infinity;

  constructor(private readonly search: Omit<WaySearch, 'seed'>) {}

  /** Lets what follows have so many samples, of those that are left. */
  allow(more: number): void {
    this.until = Math.min(this.search.mostSamples, this.count + more);
  }

  get spent(): boolean {
    return this.count >= this.search.mostSamples;
  }

  take(): void {
    if (++this.count > this.until) throw new GaveUp(false);
    if (this.count % LOOKS_BETWEEN !== 0) return;
    if (this.search.stop?.()) throw new GaveUp(true);
    this.search.onProgress?.({ samples: this.count, leastGap_m: this.leastGap_m });
  }
}
const LOOKS_BETWEEN = 200;

/** A move that meets something stops so far short of it [m]. */
const SHORT_M = 3e-3;
/** A part flies no further at once than this share of its own radius. */
const STRIDE = 0.6;
/** Along something it slides by so much at once, as a share of its radius. */
const SLIDE = 0.15;
/** Of what it is pushed, so much must come of it, or it is stuck. */
const LITTLE = 0.01;
/** Turns weigh against shifts by the path at this share of the radius. */
const WEIGHED_AT = 0.6;
/** So many contacts hold a part at once. */
const MOST_HOLDS = 40;
/** A slide that bends into what it slides along is halved so often. */
const HALVINGS = 5;
/** Held off by so many times the room that must be kept, so that rounding does not stop a slide. */
const HELD_OFF = 1.2;

/** Positions of the part among all that stands in its way, and which of them leave enough room round it. */
export class Space {
  readonly tree: BoxTree;
  readonly others: BoxTree;
  readonly radius_m: number;
  readonly room: Room;

  /** @param least_m nearer than this counts as in the way */
  constructor(
    readonly part: Part,
    readonly blockers: readonly Blocker[],
    readonly samples: Sampling,
    readonly least_m: number,
  ) {
    this.tree = treeOf(part.surface);
    this.others = treeOf(joinedSurface(blockers.map(({ surface }): Surface => surface)));
    this.radius_m = radiusOf(part);
    this.room = roomOf(blockers);
  }

  isFree(pose: Pose): boolean {
    return !this.isNear(pose, this.least_m);
  }

  private isNear(pose: Pose, within_m: number): boolean {
    this.samples.take();
    return isNear(this.tree, pose, this.others, within_m);
  }

  /** Whether a direct move leads from one position to another; a few places on the way are looked at first. */
  isDirect(from: Pose, to: Pose): boolean {
    const move = moveBetween(this.part, from, to);
    return (
      [0.5, 0.25, 0.75].every((share) => this.isFree(alongMove(from, this.part, move, share))) &&
      this.freeShare(from, move) === 1
    );
  }

  private roomAt(pose: Pose, atMost_m: number): number {
    this.samples.take();
    return distanceAt(this.tree, pose, this.others, atMost_m);
  }

  /**
   * Share of a move that is free from its beginning: 1 where all of it is.
   * Straight moves exactly, turns looked at as often as the room round them
   * asks for.
   */
  freeShare(from: Pose, move: Move): number {
    const reach = reachOf(this.part, move);
    const gone = norm(move.turn_rad) > 0 ? this.shareTurned(from, move, reach) : this.shareAhead(from, move.shift_m);
    return gone === undefined ? 1 : Math.max(0, gone - Math.min(gone / 2, SHORT_M / reach));
  }

  /**
   * What is declared free touches nothing at any place; what comes nearer than the room kept, where it is looked at, is
   * not.
   */
  private shareTurned(from: Pose, move: Move, reach: number): number | undefined {
    return firstGone(
      (share, within_m) => this.isNear(alongMove(from, this.part, move, share), within_m),
      reach,
      this.least_m,
    );
  }

  /** Where a straight move meets something first: exactly, and at one look. */
  private shareAhead(from: Pose, shift_m: Vec3): number | undefined {
    this.samples.take();
    const length = norm(shift_m);
    const met = travel(this.tree, from, this.others, AT_HOME, shift_m, 0);
    return met && met.travel_m <= length + this.least_m ? met.travel_m / length : undefined;
  }

  /**
   * One stride from a free position towards another: straight where there is room, else along what is in the way;
   * undefined where it is stuck.
   */
  advance(from: Pose, towards: Pose): Pose | undefined {
    const wanted = moveBetween(this.part, from, towards);
    const reach = reachOf(this.part, wanted);
    const room = this.roomAt(from, STRIDE * this.radius_m) - this.least_m;
    const stride = SLIDE * this.radius_m;
    if (room > stride) return alongMove(from, this.part, wanted, Math.min(1, room / reach));
    return this.slide(from, scaled(wanted, Math.min(1, stride / reach)), stride);
  }

  private slide(from: Pose, wanted: Move, stride: number): Pose | undefined {
    const radius = WEIGHED_AT * this.radius_m;
    const move = slid(
      wanted,
      placed(from, this.part.middle_m),
      radius,
      this.holds(from, HELD_OFF * this.least_m, stride),
    );
    if (alongWanted(move, wanted, radius) < LITTLE * lengthOf(wanted, radius)) return undefined;
    for (let share = 1; share > 2 ** -HALVINGS; share /= 2) {
      const there = alongMove(from, this.part, move, share);
      if (this.isFree(there) && this.isFree(alongMove(from, this.part, move, share / 2))) return there;
    }
    return undefined;
  }

  /** What holds the part off at a position. */
  private holds(pose: Pose, keep_m: number, stride: number): Hold[] {
    this.samples.take();
    return contacts(this.tree, this.others, seenFrom(pose, AT_HOME), keep_m + stride, MOST_HOLDS).map(
      ({ onFirst, away, distance_m }) => ({
        at_m: placed(pose, onFirst),
        away: turned(pose, away),
        room_m: distance_m - keep_m,
      }),
    );
  }

  /** A position near another with more room all round, as near to `keep_m` as may be. */
  eased(pose: Pose, keep_m: number): Pose {
    let [at, room] = [pose, this.roomAt(pose, keep_m)];
    for (let tries = 0; tries < EASINGS && room < keep_m; tries++) {
      const move = pushedOff(placed(at, this.part.middle_m), WEIGHED_AT * this.radius_m, this.holds(at, keep_m, 0));
      const there = alongMove(at, this.part, move, 1);
      const now = this.roomAt(there, keep_m);
      if (now <= room || this.freeShare(at, move) < 1) break;
      [at, room] = [there, now];
    }
    return at;
  }

  /** The point of what stands in the way that is nearest to the part. */
  nearestTo(pose: Pose): Vec3 {
    this.samples.take();
    return placed(pose, separation(this.tree, this.others, seenFrom(pose, AT_HOME))!.onSecond);
  }

  /** How far the part must go along a direction to be out. */
  lengthOut(pose: Pose, way: Vec3): number {
    return lengthOut(this.part, pose, way, this.room);
  }
}

/** A position is eased so often. */
const EASINGS = 4;

const scaled = ({ shift_m, turn_rad }: Move, share: number): Move => ({
  shift_m: scale(shift_m, share),
  turn_rad: scale(turn_rad, share),
});
