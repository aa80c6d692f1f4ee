import { bounded, known } from '../schema/known';
import { shape } from '../shapes';
import { ANGLE, byKind, closed, flag, id, kindIs, listOf, name, oneOf, SPAN_M } from '../schema/tools';

/** The space that tanks stand in, and what hands and tools must get to. */
const WALL_KINDS = ['wall', 'open', 'removable'] as const;
const TAKEN_M = 12;
const endWall = () => closed({ name: name(), kind: oneOf(WALL_KINDS) });
const stationCorner = () => closed({ station: id(), corner: bounded(0, 15).integer('must be a whole number') });
export const MEASURE_DIRECTIONS = ['straight', 'along', 'across', 'up'] as const;

/**
 * A bay by outlines at stations, tape lengths between their corners, and curved sides by offsets from a straight edge.
 */
const measuredBay = closed({
  kind: kindIs('measured'),
  axis: oneOf(['x', 'y'] as const),
  x_m: known(-SPAN_M, SPAN_M, 'distance from aft', 'tape'),
  y_m: known(-SPAN_M, SPAN_M, 'distance from starboard', 'tape'),
  z_m: known(-SPAN_M, SPAN_M, 'height', 'tape'),
  /**
   * Side k runs from corner k to the next: along the floor from starboard to port (from aft to fore where the stations
   * run to port), then up, and back.
   */
  sides: listOf(closed({ id: id(), name: name(), kind: oneOf(WALL_KINDS) }), 16, 3),
  nearEnd: endWall(),
  farEnd: endWall(),
  stations: listOf(
    closed({
      id: id(),
      name: name(),
      at_m: known(0, SPAN_M, 'place', 'tape'),
      corners: listOf(
        closed({
          across_m: known(-TAKEN_M, TAKEN_M, 'place across', 'tape'),
          up_m: known(-TAKEN_M, TAKEN_M, 'height', 'tape'),
        }),
        16,
      ),
    }),
    12,
    2,
  ),
  measures: listOf(
    closed({
      id: id(),
      from: stationCorner(),
      to: stationCorner(),
      how: oneOf(MEASURE_DIRECTIONS),
      length_m: known(0.001, SPAN_M, 'length', 'tape'),
    }),
    200,
  ),
  curves: listOf(
    closed({
      station: id(),
      side: id(),
      points: listOf(
        closed({
          along_m: known(0, SPAN_M, 'place along the straight edge', 'tape'),
          behind_m: known(-2, 2, 'behind the straight edge', 'tape'),
        }),
        40,
      ),
    }),
    60,
  ),
});
const wallKinds = () => oneOf(WALL_KINDS);
const drawnBay = closed({
  kind: kindIs('drawn'),
  shape,
  x_m: known(-SPAN_M, SPAN_M, 'distance from aft', 'tape'),
  y_m: known(-SPAN_M, SPAN_M, 'distance from starboard', 'tape'),
  z_m: known(-SPAN_M, SPAN_M, 'height', 'tape'),
  walls: closed({
    fore: wallKinds(),
    aft: wallKinds(),
    port: wallKinds(),
    starboard: wallKinds(),
    top: wallKinds(),
    floor: wallKinds(),
  }),
});
/** Nothing said of the space round the tanks. */
const noBay = closed({ kind: kindIs('none') });
const bay = byKind({ none: noBay, measured: measuredBay, drawn: drawnBay });

const turnKeys = {
  yaw_deg: known(-180, 180, 'mounted yaw', 'slope'),
  pitch_deg: known(-ANGLE, ANGLE, 'mounted pitch', 'slope'),
  roll_deg: known(-180, 180, 'mounted roll', 'slope'),
};
const placeInVehicle = {
  x_m: known(-SPAN_M, SPAN_M, 'distance from aft', 'tape'),
  y_m: known(-SPAN_M, SPAN_M, 'distance from starboard', 'tape'),
  z_m: known(-SPAN_M, SPAN_M, 'height', 'tape'),
};
const direction = () => closed({ forward: bounded(-1, 1), toPort: bounded(-1, 1), up: bounded(-1, 1) });
const motion = byKind({
  slide: closed({
    kind: kindIs('slide'),
    way: direction(),
    fromName: name(),
    toName: name(),
    from_m: known(-5, 5, 'begins at', 'tape'),
    to_m: known(-5, 5, 'ends at', 'tape'),
  }),
  hinge: closed({
    kind: kindIs('hinge'),
    ...placeInVehicle,
    axis: direction(),
    fromName: name(),
    toName: name(),
    from_deg: known(-180, 180, 'swings from', 'slope'),
    to_deg: known(-180, 180, 'swings to', 'slope'),
  }),
});
export const OBSTACLE_ROLES = ['obstacle', 'heat', 'spray', 'occupied', 'reach', 'fixing'] as const;
export const BODY_OPERATIONS = ['add', 'cut'] as const;
const obstacle = closed({
  id: id(),
  name: name(),
  role: oneOf(OBSTACLE_ROLES),
  /** Its place is the aft, starboard, lower corner of its first body, turned about that. */
  ...placeInVehicle,
  ...turnKeys,
  /** Each joined to those before it, or an opening cut out of them. */
  bodies: listOf(
    closed({ shape, operation: oneOf(BODY_OPERATIONS).optional(), ...placeInVehicle, ...turnKeys }),
    12,
    1,
  ),
  motions: listOf(motion, 2),
  /** Kept free round it; the clearance asked for where it is left out. */
  keep_m: known(0, 3, 'distance to keep', 'tape').optional(),
  removable: flag(),
});

/** One move of a part on its way out, in vehicle axes; it turns about its middle while it moves. */
const step = closed({
  forward_m: bounded(-SPAN_M, SPAN_M),
  toPort_m: bounded(-SPAN_M, SPAN_M),
  up_m: bounded(-SPAN_M, SPAN_M),
  noseUp_deg: bounded(-180, 180),
  starboardDown_deg: bounded(-180, 180),
  noseToPort_deg: bounded(-180, 180),
});

export const SPOT_KINDS = ['bolt', 'weld', 'gauge', 'filler', 'grip'] as const;
/** A place that a hand or a tool must reach: on a tank, in its frame, or in the vehicle. */
const spot = closed({
  id: id(),
  name: name(),
  kind: oneOf(SPOT_KINDS),
  tank: id().optional(),
  ...placeInVehicle,
  /** The way from the metal to whoever works there: a bolt's head, a dial, a filler's mouth face that way. */
  facing: direction(),
  /** Of a bolt. */
  acrossFlats_m: known(0.003, 0.1, 'across its flats', 'tape').optional(),
});

export const fit = closed({
  clearance_m: known(0, 0.5, 'clearance asked for', 'tape'),
  bay,
  obstacles: listOf(obstacle, 60),
  /** Ways out of parts, as typed or as found. */
  removals: listOf(closed({ part: id(), steps: listOf(step, 60) }), 40),
  spots: listOf(spot, 60),
});
