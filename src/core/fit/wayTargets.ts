import {
  composed,
  cross,
  dot,
  norm,
  placed,
  scale,
  subtract,
  turnAbout,
  turned,
  unitVector,
  type Pose,
  type Vec3,
} from '../geometry';
import type { Chance } from '../seeded';
import { alignments, alike, edgeWays, framesAmong, gathered, type EdgeWay, type Frame } from './axes';
import { alongMove, moveBetween } from './moves';
import type { Tree } from './poseTree';
import type { Space } from './waySpace';

const VEHICLE: Frame = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** So many directions of edges are followed, and frames of them tried. */
const MOST_WAYS = 10;
const MOST_FRAMES = 6;
const MOST_PART_FRAMES = 2;

/**
 * Directions worth following among the obstacles in the way: the vehicle's axes, the part's own, those of edges, and
 * those square to two edges.
 */
export type Directions = {
  /** The vehicle's axes and the part's own, both ways. */
  readonly main: readonly Vec3[];
  /** Those, and the corridors'. */
  readonly all: readonly Vec3[];
  readonly places: readonly Frame[];
  readonly parts: readonly Frame[];
};

/**
 * The straight ways along which a part may leave: along its own edges, and those of what stands round it; unit
 * vectors.
 */
export function directionsOf(space: Space): Directions {
  const { part, blockers } = space;
  const own = edgeWays(part.surface)
    .slice(0, MOST_WAYS)
    .map(({ way }) => way);
  const edges = gathered(blockers.flatMap(({ surface }): readonly EdgeWay[] => edgeWays(surface)))
    .slice(0, MOST_WAYS)
    .map(({ way }) => way);
  const found = framesAmong(own, MOST_PART_FRAMES);
  const partFrames = found.length > 0 ? found : [VEHICLE];
  const turnedOwn = partFrames.flatMap((frame) => frame.map((way) => turned(part.at, way)));
  const square = edges.flatMap((one, i) =>
    edges
      .slice(i + 1)
      .filter((other) => norm(cross(one, other)) > 0.1)
      .map((other) => unitVector(cross(one, other))),
  );
  const bothWays = (directions: readonly Vec3[]): Vec3[] =>
    gathered(directions.map((way) => ({ way, length_m: 1 }))).flatMap(({ way }) => [way, scale(way, -1)]);
  return {
    main: bothWays([...VEHICLE, ...turnedOwn]),
    all: bothWays([...VEHICLE, ...turnedOwn, ...edges, ...square]),
    places: framesAmong([...VEHICLE, ...edges], MOST_FRAMES),
    parts: partFrames,
  };
}

/** A turn of the part that lays it along a place. */
type Aligned = { readonly frame: Frame; readonly axes: Frame };

/**
 * Of the targets, so many pull outside, keep to a plane, turn about the nearest point, or lie in narrow places; the
 * rest lie anywhere.
 */
const [OUTSIDE, IN_PLANE, ABOUT_A_POINT, NARROW] = [0.12, 0.38, 0.2, 0.15];

/** Where trees are grown to. */
export class Targets {
  private readonly aligned: Aligned[];

  constructor(
    private readonly space: Space,
    private readonly start: Pose,
    private readonly chance: Chance,
    directions: Directions,
    private readonly outside: readonly Pose[],
  ) {
    this.aligned = directions.places
      .flatMap((frame) => directions.parts.flatMap((part) => alignments(part, frame)).map((axes) => ({ frame, axes })))
      .sort((a, b) => alike(b.axes, start.axes) - alike(a.axes, start.axes));
  }

  /**
   * One of the turns along the place, those that turn the part least the likelier: a box needs none of its somersaults.
   */
  private anyAligned(): Aligned {
    return this.aligned[Math.floor(this.aligned.length * this.chance.uniform() ** 2)]!;
  }

  /** The next target, of one of the kinds that lead somewhere in one place or another. */
  next(tree: Tree): Pose {
    const kind = this.chance.uniform();
    if (kind < OUTSIDE) return this.outside[Math.floor(this.chance.uniform() * this.outside.length)] ?? this.anywhere();
    if (kind < OUTSIDE + IN_PLANE) return this.inPlane(tree.any(this.chance).pose);
    if (kind < OUTSIDE + IN_PLANE + ABOUT_A_POINT) return this.turnedAbout(tree.any(this.chance).pose);
    return kind < OUTSIDE + IN_PLANE + ABOUT_A_POINT + NARROW ? this.narrow() : this.anywhere();
  }

  /** Shifted and turned within one plane of what has been reached: what lies flat under a cover goes out flat. */
  private inPlane(pose: Pose): Pose {
    const { part } = this.space;
    const frame = this.anyFrame();
    const across = Math.floor(3 * this.chance.uniform());
    const shift = subtract(placed(this.anywhere(), part.middle_m), placed(pose, part.middle_m));
    const turn_rad = scale(frame[across]!, this.chance.uniform() < 0.3 ? 0 : Math.PI * (2 * this.chance.uniform() - 1));
    return alongMove(
      pose,
      part,
      { shift_m: subtract(shift, scale(frame[across]!, dot(shift, frame[across]!))), turn_rad },
      1,
    );
  }

  private anyFrame(): Frame {
    return this.anyAligned().frame;
  }

  /**
   * Turned about the point that is nearest in its way: an inner corner goes round a post so, which turning about the
   * middle does not do.
   */
  private turnedAbout(pose: Pose): Pose {
    const axis = this.anyFrame()[Math.floor(3 * this.chance.uniform())]!;
    return composed(turnAbout(this.space.nearestTo(pose), axis, ABOUT_RAD * (2 * this.chance.uniform() - 1)), pose);
  }

  private static readonly NARROW_TRIES = 6;

  /**
   * Free, between two positions that are not. @source D. Hsu et al., "The bridge test for sampling narrow passages",
   * IEEE ICRA 2003
   */
  private narrow(): Pose {
    const { space, chance } = this;
    const deviates = (): Vec3 => [chance.normal(), chance.normal(), chance.normal()];
    for (let tries = 0; tries < Targets.NARROW_TRIES; tries++) {
      const one = this.anywhere();
      if (space.isFree(one)) continue;
      const other = alongMove(
        one,
        space.part,
        { shift_m: scale(deviates(), space.radius_m / 2), turn_rad: scale(deviates(), 0.3) },
        1,
      );
      const between = alongMove(one, space.part, moveBetween(space.part, one, other), 0.5);
      if (!space.isFree(other) && space.isFree(between)) return between;
    }
    return this.anywhere();
  }

  /** Anywhere in the room or near where the part is fitted, turned as a person would try. */
  private anywhere(): Pose {
    const { chance } = this;
    const { room, radius_m, part } = this.space;
    const middle = placed(this.start, part.middle_m);
    const wide = chance.uniform() < 0.3;
    const at = [0, 1, 2].map((k) => {
      const [low, high] = [room.min[k]! - radius_m, room.max[k]! + radius_m];
      const [from, to] = wide
        ? [low, high]
        : [Math.max(low, middle[k]! - NEAR_RADII * radius_m), Math.min(high, middle[k]! + NEAR_RADII * radius_m)];
      return from + chance.uniform() * (to - from);
    }) as unknown as Vec3;
    const axes = this.anyTurn();
    return { axes, origin_m: subtract(at, placed({ axes, origin_m: [0, 0, 0] }, part.middle_m)) };
  }

  /** As it is fitted, along the place, tilted from that about one of its axes, or anyhow. */
  private anyTurn(): Frame {
    const { chance } = this;
    const kind = Math.floor(4 * chance.uniform());
    if (kind === 0) return this.start.axes;
    const { axes, frame } = this.anyAligned();
    if (kind === 1) return axes;
    const [way, angle] =
      kind === 2
        ? ([frame[Math.floor(3 * chance.uniform())]!, TILT_RAD * (2 * chance.uniform() - 1)] as const)
        : ([unitVector([chance.normal(), chance.normal(), chance.normal()]), Math.PI * chance.uniform()] as const);
    return composed(turnAbout([0, 0, 0], way, angle), {
      axes: chance.uniform() < 0.5 ? this.start.axes : axes,
      origin_m: [0, 0, 0],
    }).axes;
  }
}

/** Part of the targets is taken from no further than this many radii from where the part is fitted. */
const NEAR_RADII = 3;
/** A tilt of the middling kind, and a turn about the nearest point [rad]. */
const TILT_RAD = Math.PI / 3;
const ABOUT_RAD = 0.6;
