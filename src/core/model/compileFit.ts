import { memoized } from '../memo';
import {
  drawnBay,
  surveyedBay,
  type Bay,
  type BayCode,
  type BayPlan,
  type Body,
  type Motion,
  type Piece,
  type Measurement,
  type Obstacle,
} from '../fit';
import {
  add,
  combine,
  composed,
  convexHull,
  insetMesh,
  meshBounds,
  placedBack,
  posedMesh,
  poseOf,
  prismMesh,
  rodMesh,
  scale,
  sectionAcross,
  shiftBy,
  type ClosedMesh,
  type Pose,
  type Vec3,
} from '../geometry';
import { failure, success, type Outcome } from '../outcome';
import { TAPE_SPREAD_M } from '../reference/standing';
import { tankBody } from './compileBody';
import { shapeMesh } from './compileShape';
import { SIDE_WAYS } from './axes';
import { radians } from '../units';
import { grown } from './grown';
import { mountBodies } from './mountBodies';
import { portSeat, standsOn, type PortSeat } from './portSeat';
import { withValue, toPath, valueAt } from '../plan/edit';
import type { Known } from '../schema/known';
import type {
  BayDocument,
  MountDocument,
  MeasuredBayDocument,
  PortDocument,
  SystemDocument,
  TankDocument,
  TankPlan,
  ObstacleDocument,
} from '../plan/schema';

export { portSeat, rimOf, standsOn, wallAt, type PortSeat } from './portSeat';

export type FitCode = BayCode | 'bad-shape';

type Placed = { readonly x_m: Known; readonly y_m: Known; readonly z_m: Known };
type Turned = { readonly yaw_deg: Known; readonly pitch_deg: Known; readonly roll_deg: Known };

/** A place of the plan as a point [m]. */
export const pointOf = ({ x_m, y_m, z_m }: Placed): Vec3 => [x_m.value, y_m.value, z_m.value];
/** A place and turn of the plan as a pose in vehicle axes [m]. */
export const placeOf = (at: Placed & Turned): Pose =>
  poseOf(pointOf(at), {
    yaw_rad: radians(at.yaw_deg.value),
    pitch_rad: radians(at.pitch_deg.value),
    roll_rad: radians(at.roll_deg.value),
  });

/** A spread is two standard deviations. */
const SIGMAS = 2;
/** What is decided rather than measured holds as set out with a tape. */
const spreadOf = ({ spread, origin }: Known): number =>
  spread ?? (origin === 'chosen' ? TAPE_SPREAD_M / 100 : TAPE_SPREAD_M);
const taken = (known: Known): Measurement => ({
  value_m: known.value,
  sigma_m: Math.max(1e-6, spreadOf(known) / SIGMAS),
  assumed: known.origin === 'assumed',
});

/** The bay with its corners adjusted to the measurements; undefined where nothing is said of it. */
export function compileBay(bay: BayDocument): Outcome<Bay | undefined, FitCode> {
  if (bay.kind === 'none') return success(undefined);
  if (bay.kind === 'measured') return surveyedBay(bayPlan(bay));
  const space = shapeMesh(bay.shape);
  return space.ok
    ? success(drawnBay(posedMesh(space.value, shiftBy(pointOf(bay))), bay.walls))
    : failure('bad-shape', 'the bay', space.error.detail);
}

/** A surveyed bay as the adjustment wants it: stations, corners, measures and their spreads [m]. */
export function bayPlan(bay: MeasuredBayDocument): BayPlan {
  const stationAt = (id: string): number => bay.stations.findIndex((station) => station.id === id);
  return {
    axis: bay.axis,
    origin_m: pointOf(bay),
    sides: bay.sides,
    nearEnd: bay.nearEnd,
    farEnd: bay.farEnd,
    stations: bay.stations.map(({ id, name, at_m, corners }) => ({
      id,
      name,
      at: taken(at_m),
      corners: corners.map(({ across_m, up_m }) => ({ across: taken(across_m), up: taken(up_m) })),
    })),
    measures: bay.measures.map(({ id, from, to, how, length_m }) => ({
      id,
      how,
      length: taken(length_m),
      from: { station: stationAt(from.station), corner: from.corner },
      to: { station: stationAt(to.station), corner: to.corner },
    })),
    curves: bay.curves.map(({ station, side, points }) => ({
      station: stationAt(station),
      side: bay.sides.findIndex(({ id }) => id === side),
      points: points.map(({ along_m, behind_m }) => ({ along_m: along_m.value, behind_m: behind_m.value })),
    })),
  };
}

/** Obstacles in the space, each as one surface in vehicle axes where it rests. */
export function compileObstacle(obstacle: ObstacleDocument, clearance_m: number): Outcome<Obstacle, FitCode> {
  const at = placeOf(obstacle);
  let surface: ClosedMesh | undefined;
  for (const body of obstacle.bodies) {
    const shape = shapeMesh(body.shape);
    if (!shape.ok) return failure('bad-shape', obstacle.name, shape.error.detail);
    const next = posedMesh(shape.value, composed(at, placeOf(body)));
    const joined: Outcome<ClosedMesh> = surface
      ? combine(surface, next, body.operation === 'cut' ? 'take' : 'add')
      : success(next);
    if (!joined.ok) return failure('bad-shape', obstacle.name, joined.error.detail);
    surface = joined.value;
  }
  return success({
    id: obstacle.id,
    name: obstacle.name,
    role: obstacle.role,
    surface: surface!,
    removable: obstacle.removable,
    motions: obstacle.motions.map((motion): Motion =>
      motion.kind === 'slide'
        ? { kind: 'slide', way: directionOf(motion.way), from_m: motion.from_m.value, to_m: motion.to_m.value }
        : {
            kind: 'hinge',
            point_m: pointOf(motion),
            axis: directionOf(motion.axis),
            from_rad: radians(motion.from_deg.value),
            to_rad: radians(motion.to_deg.value),
          },
    ),
    // An obstacle that the tank is fastened to may touch it.
    keep_m: obstacle.keep_m?.value ?? (obstacle.role === 'fixing' ? 0 : clearance_m),
  });
}

/** The unit vector of a direction given by its parts, not all of them zero. */
export const directionOf = ({
  forward,
  toPort,
  up,
}: {
  readonly forward: number;
  readonly toPort: number;
  readonly up: number;
}): Vec3 => {
  const length = Math.hypot(forward, toPort, up);
  return [forward / length, toPort / length, up / length];
};

/** Walls set out by their thickness. */
const setOut = memoized('outside', (walls: ClosedMesh, by_m: number) => insetMesh(walls, -by_m), 64);

/** The outside of a tank's walls, in the tank's frame. */
export function outerMesh(tank: TankPlan): Outcome<ClosedMesh, FitCode> {
  const body = tankBody(tank);
  if (!body.ok) return failure('bad-shape', `${tank.name}, ${body.error.at}`, body.error.detail);
  const { walls } = body.value;
  const outer = tank.dimensions === 'outside' ? success(walls) : setOut(walls, tank.material.thickness_m.value);
  return outer.ok ? outer : failure('bad-shape', tank.name, outer.error.detail);
}

/** A tank with all that stands on it, placed in the vehicle; straps too of which nothing more is said. */
export function compileTankBody(system: Pick<SystemDocument, 'mounts'>, tank: TankDocument): Outcome<Body, FitCode> {
  const outer = outerMesh(tank);
  if (!outer.ok) return outer;
  const at = placeOf(tank.mounting);
  return success({
    id: tank.id,
    name: tank.name,
    at,
    pieces: [
      { id: tank.id, name: `${tank.name}’s walls`, surface: outer.value },
      ...tank.ports.flatMap((port) => portPieces(port, portSeat(outer.value, port))),
      ...system.mounts
        .filter((mount) => mount.tank === tank.id && mount.kind === 'strap' && !mount.made)
        .flatMap((mount) => mountPieces(mount, outer.value, placedBack(at, pointOf(mount)))),
    ],
  });
}

/** A mount as a body of its own: welded to the tank, over it, or bolted beside it. */
export type MountBody = {
  readonly mount: MountDocument;
  readonly body: Body;
  /** It has bolts; what has none is there for good. */ readonly comesOff: boolean;
  /** It is part of the tank and goes where that goes. */ readonly goesWithTank: boolean;
};

/** What holds and guards a tank; what is not at the tank, or not said, is left out. */
export function compileMountBodies(
  system: Pick<SystemDocument, 'mounts'>,
  tank: TankDocument,
): Outcome<readonly MountBody[], FitCode> {
  const own = system.mounts.filter((mount) => mount.tank === tank.id && mount.made);
  if (own.length === 0) return success([]);
  const outer = outerMesh(tank);
  if (!outer.ok) return outer;
  const at = placeOf(tank.mounting);
  return success(
    own.flatMap((mount): MountBody[] => {
      const pieces = mountPieces(mount, outer.value, placedBack(at, pointOf(mount)));
      return pieces.length === 0
        ? []
        : [
            {
              mount,
              body: { id: mount.id, name: mount.name, pieces, at },
              comesOff: mount.made !== undefined && 'bolts' in mount.made && mount.made.bolts !== undefined,
              goesWithTank: mount.kind === 'tab' || mount.kind === 'flange',
            },
          ];
    }),
  );
}

/** What a mount is made of, in its tank’s frame. */
export const mountPieces = (mount: MountDocument, outer: ClosedMesh, place: Vec3): Piece[] =>
  mount.made
    ? mountBodies(outer, place, mount).map((surface) => ({ id: mount.id, name: mount.name, surface }))
    : mount.kind === 'strap'
      ? bandOf(mount, outer, place)
      : [];

/** The piece that turns aside from a port. */
export const hoseEndOf = (portId: string): string => `${portId}:end`;

/** Shorter than this nothing stands on the port. */
export const FLUSH_M = 0.001;

/** Where a hose end turns aside from what stands on a port: in its middle, as high as it may. */
export function bendOn(port: PortDocument, { seat_m, out }: PortSeat): Vec3 {
  const { height_m, diameter_m } = standsOn(port);
  return add(seat_m, scale(out, Math.max(0, height_m - diameter_m / 2)));
}

function portPieces(port: PortDocument, seat: PortSeat | undefined): Piece[] {
  const { height_m, diameter_m } = standsOn(port);
  if (!seat || height_m < FLUSH_M) return [];
  const rod = (from_m: Vec3, way: Vec3, length_m: number): ClosedMesh =>
    rodMesh(from_m, add(from_m, scale(way, length_m)), diameter_m / 2, ROD_SIDES);
  const pieces = [{ id: port.id, name: port.name, surface: rod(seat.seat_m, seat.out, height_m) }];
  const turns = port.stands?.turns ?? 'straight';
  const reach_m = port.stands?.reach_m.value ?? 0;
  if (turns === 'straight' || reach_m < FLUSH_M) return pieces;
  return [
    ...pieces,
    {
      id: hoseEndOf(port.id),
      name: `hose end of ${port.name}`,
      surface: rod(bendOn(port, seat), SIDE_WAYS[turns], reach_m),
    },
  ];
}

const ROD_SIDES = 16;

/** Common practice: a steel strap on a rubber strip. */
const STRAP_M = { width: 0.04, thickness: 0.006 };

/** A strap of which it is not said how it is made: a band all round, pulled taut over the hull of the section there. */
function bandOf(mount: MountDocument, outer: ClosedMesh, place: Vec3): Piece[] {
  const { min, max } = meshBounds(outer);
  const from = place[0] - STRAP_M.width / 2;
  if (from <= min[0] || from + STRAP_M.width >= max[0]) return [];
  const hull = convexHull([from, from + STRAP_M.width].flatMap((at) => sectionAcross(outer, 0, at).flat()));
  const strap = prismMesh(grown(hull, STRAP_M.thickness), 'x', STRAP_M.width);
  return strap.ok ? [{ id: mount.id, name: mount.name, surface: posedMesh(strap.value, shiftBy([from, 0, 0])) }] : [];
}

/** The tank as it was built: measured sizes in place of those that were planned. */
export function asBuilt(tank: TankDocument): TankDocument {
  return tank.built.reduce<TankDocument>(
    (built, { of, measured }) =>
      withValue(built, toPath(of), { ...(valueAt(built, toPath(of)) as Known), ...measured }),
    tank,
  );
}
