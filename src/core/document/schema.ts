import { boolean, type InferType } from 'yup';
import { END_SHAPES } from '../geometry';
import { ALLOYS, type AlloyKey } from '../reference/alloys';
import { FLUIDS, type FluidKey } from '../reference/fluids';
import { LOSS_METHODS } from '../reference/losses';
import { PORT_PARTS } from '../reference/portParts';
import { bounded, known, ORIGINS } from './known';
import { component, consumer, line, linePrice } from './schemaLines';
import { calibration, dipstick, sender, sightTube } from './schemaGauge';
import { byKind, bytesText, closed, flag, id, keys, kindIs, listOf, name, oneOf, text } from './schemaTools';

/**
 * The system document, version 6. The one validator at every door; the
 * published JSON Schema in docs/format is written from it.
 *
 * Keys carry units. Lengths are metres, volumes cubic metres, pressures
 * pascals; angles are degrees, which the SI accepts. Positions in a tank are
 * from the aft, starboard, lower corner of its first shape, before anything is
 * added to it, inside or outside as its dimensions are given; in the vehicle
 * from any one datum; x forward, y to port, z up.
 */
export const FORMAT = 'gasline-system';
export const CURRENT_VERSION = 6;
export { ID_PATTERN, UNION_BRANCHES } from './schemaTools';
export { SENDER_KINDS, SWINGS } from './schemaGauge';
export {
  COMPONENT_KINDS,
  CONSUMER_KINDS,
  END_NAMES,
  ENDS_OF_KIND,
  FILTER_KINDS,
  LINE_KINDS,
  PUMP_TYPES,
  PURPOSES,
  SELECTED,
  type ComponentKind,
  type EndName,
} from './schemaLines';
export { POUR_STATES, POUR_WAYS } from '../formats';

const ANGLE = 90;
const SPAN_M = 30;
const boxShape = closed({
  kind: kindIs('box'),
  length_m: known(0.02, 20),
  width_m: known(0.02, 20),
  height_m: known(0.02, 20),
});
const AXES = ['x', 'y', 'z'] as const;
/** An outline in the two axes across the third, in order (y, z), (x, z) or (x, y). */
const profile = () => listOf(closed({ u_m: bounded(-20, 20), v_m: bounded(-20, 20) }), 200);
const prismShape = closed({
  kind: kindIs('prism'),
  axis: oneOf(AXES),
  length_m: known(0.02, 20),
  profile: profile(),
  profileOrigin: oneOf(ORIGINS),
  profileSpread_m: bounded(0, 0.5).optional(),
});
const loftShape = closed({
  kind: kindIs('loft'),
  axis: oneOf(AXES),
  length_m: known(0.02, 20),
  near: profile(),
  far: profile(),
  profileOrigin: oneOf(ORIGINS),
  profileSpread_m: bounded(0, 0.5).optional(),
});
const cylinderShape = closed({
  kind: kindIs('cylinder'),
  axis: oneOf(AXES),
  diameter_m: known(0.02, 10),
  shell_m: known(0, 20),
  nearEnd: oneOf(END_SHAPES),
  farEnd: oneOf(END_SHAPES),
});
const coneShape = closed({
  kind: kindIs('cone'),
  axis: oneOf(AXES),
  nearDiameter_m: known(0, 10),
  farDiameter_m: known(0, 10),
  length_m: known(0.02, 20),
});
/** A closed mesh, as little-endian single-precision coordinates and vertex numbers in base64; see docs/format. */
const MESH_CHARACTERS = 600_000;
const meshShape = closed({
  kind: kindIs('mesh'),
  file: text(120).defined('is missing'),
  vertices_m: bytesText(MESH_CHARACTERS).required('is missing'),
  triangles: bytesText(MESH_CHARACTERS).required('is missing'),
});
const shape = byKind({
  box: boxShape,
  prism: prismShape,
  loft: loftShape,
  cylinder: cylinderShape,
  cone: coneShape,
  mesh: meshShape,
});

const TANK_M = 20;
const place = { x_m: known(-TANK_M, TANK_M), y_m: known(-TANK_M, TANK_M), z_m: known(-TANK_M, TANK_M) };
export const PART_DOES = ['add', 'take', 'displace'] as const;
/**
 * A body added to the tank, taken away from it, or standing inside it; in the order of the list. Its place is its own
 * aft, starboard, lower corner.
 */
const part = closed({ id: id(), name: name(), does: oneOf(PART_DOES), shape, ...place });
/** A band taken out across an axis, what lies beyond moved back to close it. */
const slice = closed({
  id: id(),
  name: name(),
  axis: oneOf(AXES),
  at_m: known(-TANK_M, TANK_M),
  width_m: known(0.0005, 10),
});

export const FLAP_WAYS = ['higher', 'lower'] as const;
/** A baffle across an axis, from wall to wall or over a part of the other way across. */
const plate = closed({
  id: id(),
  name: name(),
  axis: oneOf(AXES),
  at_m: known(-TANK_M, TANK_M),
  thickness_m: known(0.0003, 0.03),
  from_m: known(-TANK_M, TANK_M).optional(),
  to_m: known(-TANK_M, TANK_M).optional(),
  /** Leg of the triangle cut away at each lower corner. */
  cornerCut_m: known(0, 1),
  /** Left open above, for air. */
  topGap_m: known(0, 2),
  holes: closed({
    count: bounded(0, 400).integer('must be a whole number'),
    diameter_m: known(0.001, 0.5),
    /** Of their centres over the plate's lowest point. */ height_m: known(0, 5),
  }),
  /**
   * A trap door low in the plate; passes towards higher or lower coordinates and holds the other way but for what
   * leaks.
   */
  flap: closed({
    width_m: known(0.001, 1),
    height_m: known(0.001, 1),
    passes: oneOf(FLAP_WAYS),
    leak_ratio: known(0, 1),
  }).optional(),
});

export const FACES = ['lid', 'floor', 'fore', 'aft', 'port', 'starboard'] as const;
export const PORT_ROLES = ['filler', 'vent', 'feed', 'return', 'sender', 'drain', 'spare'] as const;

/** Where a hose end on a port goes on to: straight out, or to one side in the tank's axes. */
export const TURNS = ['straight', 'fore', 'aft', 'port', 'starboard', 'up', 'down'] as const;

const port = closed({
  id: id(),
  name: name(),
  role: oneOf(PORT_ROLES),
  face: oneOf(FACES),
  /** Centre of the hole; the coordinate across the face follows from the shape. */
  x_m: known(-TANK_M, TANK_M).optional(),
  y_m: known(-TANK_M, TANK_M).optional(),
  z_m: known(-TANK_M, TANK_M).optional(),
  bore_m: known(0.0003, 0.5),
  /** Of the neck, hose or hole behind it. */
  length_m: known(0, SPAN_M),
  /** What stands on it outside, where it is not as usual for its role. */
  stands: closed({
    height_m: known(0, 2),
    diameter_m: known(0.002, 1),
    /** A hose end that turns aside from the top of it, and how far it reaches. */
    turns: oneOf(TURNS),
    reach_m: known(0, 2),
  }).optional(),
  /** The part that goes into the hole, by its key in the table of port parts; nothing is said of it where left out. */
  part: oneOf(PORT_PARTS.map(({ key }) => key)).optional(),
  /** The hole to be cut, where the part at hand differs from the table's. */
  hole_m: known(0.001, 0.5).optional(),
  /** Its screws, where they differ. */
  bolts: closed({
    count: bounded(1, 36).integer('must be a whole number'),
    circle_m: known(0.01, 0.6),
    diameter_m: known(0.002, 0.02),
    /** By how much the last screw stands off where it would be if all stood evenly, clockwise as seen from outside. */
    outOfStep_deg: known(-90, 90).optional(),
  }).optional(),
  /** The way of the first screw from the sheet's upward way, clockwise as seen from outside. */
  clock_deg: known(-180, 180).optional(),
  /** Of a tube inside that leads what comes in down from it; falls freely where left out. */
  drop_m: known(0, 5).optional(),
  /** A hole that is there already: nothing is cut. */
  existing: boolean().typeError('must be true or false').optional(),
});

export const PICKUP_KINDS = ['top-tube', 'hose', 'module', 'bottom-outlet'] as const;
export const STRAINERS = ['none', 'sock', 'mesh'] as const;

const pickup = closed({
  id: id(),
  name: name(),
  port: id(),
  kind: oneOf(PICKUP_KINDS),
  strainer: oneOf(STRAINERS),
  heightOffFloor_m: known(0, 5),
  bore_m: known(0.001, 0.1),
  /** Liquid that must stand over the inlet before it draws air. */
  submergence_m: known(0, 0.1),
  /** Where its upper end is seated, over the outside of the sheet; as its port's part has it where left out. */
  seat_m: known(-0.3, 0.3).optional(),
});

const tank = closed({
  id: id(),
  name: name(),
  fluid: id(),
  mounting: closed({
    x_m: known(-SPAN_M, SPAN_M),
    y_m: known(-SPAN_M, SPAN_M),
    z_m: known(-SPAN_M, SPAN_M),
    yaw_deg: known(-180, 180),
    pitch_deg: known(-ANGLE, ANGLE),
    roll_deg: known(-180, 180),
  }),
  material: closed({ alloy: oneOf<AlloyKey>(keys(ALLOYS)), thickness_m: known(0.0003, 0.03) }),
  /** Whether sizes are measured inside or outside the wall. */
  dimensions: oneOf(['inside', 'outside'] as const),
  shape,
  parts: listOf(part, 24),
  slices: listOf(slice, 6),
  plates: listOf(plate, 16),
  /** Of the space inside, taken by foam that fills it. */
  foam_ratio: known(0, 0.5).optional(),
  fillLimit_ratio: known(0.5, 1),
  ports: listOf(port, 60),
  pickups: listOf(pickup, 12),
  senders: listOf(sender, 6),
  sightTubes: listOf(sightTube, 4),
  dipsticks: listOf(dipstick, 4),
  calibrations: listOf(calibration, 12),
  /** What the built tank really measures, by the path of the planned value within the tank. */
  built: listOf(closed({ of: text(80).required('is missing'), measured: known(-SPAN_M, SPAN_M) }), 60),
});

const MOUNT_KINDS = ['strap', 'tab', 'cradle'] as const;
const mount = closed({
  id: id(),
  name: name(),
  kind: oneOf(MOUNT_KINDS),
  tank: id(),
  x_m: known(-SPAN_M, SPAN_M),
  y_m: known(-SPAN_M, SPAN_M),
  z_m: known(-SPAN_M, SPAN_M),
});

const WALL_KINDS = ['wall', 'open', 'removable'] as const;
const TAKEN_M = 12;
const endWall = () => closed({ name: name(), kind: oneOf(WALL_KINDS) });
const stationCorner = () => closed({ station: id(), corner: bounded(0, 15).integer('must be a whole number') });
export const HOWS = ['straight', 'along', 'across', 'up'] as const;

/**
 * A bay by outlines at stations, tape lengths between their corners, and curved sides by offsets from a straight edge.
 */
const measuredBay = closed({
  kind: kindIs('measured'),
  axis: oneOf(['x', 'y'] as const),
  x_m: known(-SPAN_M, SPAN_M),
  y_m: known(-SPAN_M, SPAN_M),
  z_m: known(-SPAN_M, SPAN_M),
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
      at_m: known(0, SPAN_M),
      corners: listOf(closed({ across_m: known(-TAKEN_M, TAKEN_M), up_m: known(-TAKEN_M, TAKEN_M) }), 16),
    }),
    12,
    2,
  ),
  measures: listOf(
    closed({ id: id(), from: stationCorner(), to: stationCorner(), how: oneOf(HOWS), length_m: known(0.001, SPAN_M) }),
    200,
  ),
  curves: listOf(
    closed({
      station: id(),
      side: id(),
      points: listOf(closed({ along_m: known(0, SPAN_M), behind_m: known(-2, 2) }), 40),
    }),
    60,
  ),
});
const wallKinds = () => oneOf(WALL_KINDS);
const drawnBay = closed({
  kind: kindIs('drawn'),
  shape,
  x_m: known(-SPAN_M, SPAN_M),
  y_m: known(-SPAN_M, SPAN_M),
  z_m: known(-SPAN_M, SPAN_M),
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

const turnKeys = { yaw_deg: known(-180, 180), pitch_deg: known(-ANGLE, ANGLE), roll_deg: known(-180, 180) };
const placeInVehicle = { x_m: known(-SPAN_M, SPAN_M), y_m: known(-SPAN_M, SPAN_M), z_m: known(-SPAN_M, SPAN_M) };
const direction = () => closed({ forward: bounded(-1, 1), toPort: bounded(-1, 1), up: bounded(-1, 1) });
const motion = byKind({
  slide: closed({
    kind: kindIs('slide'),
    way: direction(),
    fromName: name(),
    toName: name(),
    from_m: known(-5, 5),
    to_m: known(-5, 5),
  }),
  hinge: closed({
    kind: kindIs('hinge'),
    ...placeInVehicle,
    axis: direction(),
    fromName: name(),
    toName: name(),
    from_deg: known(-180, 180),
    to_deg: known(-180, 180),
  }),
});
export const THING_ROLES = ['obstacle', 'heat', 'spray', 'occupied', 'reach', 'fixing'] as const;
const thing = closed({
  id: id(),
  name: name(),
  role: oneOf(THING_ROLES),
  /** Its place is the aft, starboard, lower corner of its first body, turned about that. */
  ...placeInVehicle,
  ...turnKeys,
  bodies: listOf(closed({ shape, ...placeInVehicle, ...turnKeys }), 12, 1),
  motions: listOf(motion, 2),
  /** Kept free round it; the clearance asked for where it is left out. */
  keep_m: known(0, 3).optional(),
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
  acrossFlats_m: known(0.003, 0.1).optional(),
});

const fit = closed({
  clearance_m: known(0, 0.5),
  bay,
  things: listOf(thing, 60),
  /** Ways out of parts, as typed or as found. */
  ways: listOf(closed({ part: id(), steps: listOf(step, 60) }), 40),
  spots: listOf(spot, 60),
});

export const VEHICLES = ['boat', 'road', 'snow', 'competition', 'trailer', 'bench'] as const;
export const RULEBOOKS = ['none', 'road-truck-tank', 'petrol-boat', 'small-craft'] as const;

const conditions = closed({
  pitch_deg: bounded(-60, 60),
  roll_deg: bounded(-60, 60),
  accelerationForward_mPerS2: bounded(-30, 30),
  accelerationPort_mPerS2: bounded(-30, 30),
  accelerationUp_mPerS2: bounded(-9, 50),
  fuelTemperature_K: bounded(213.15, 423.15),
  altitude_m: bounded(-500, 9000),
  duty_ratio: bounded(0, 1),
  pumpVoltage_V: bounded(0, 60),
  fills: listOf(closed({ tank: id(), fill_ratio: bounded(0, 1) }), 20),
});

export const systemSchema = closed({
  format: kindIs(FORMAT),
  version: bounded(CURRENT_VERSION, CURRENT_VERSION).integer('must be a whole number'),
  name: name(),
  description: text(2000).defined('is missing'),
  vehicle: closed({ kind: oneOf(VEHICLES), speed_mPerS: known(0, 150).optional() }),
  rulebook: oneOf(RULEBOOKS),
  constraints: closed({ nothingCut: flag(), noHoleBelowLiquid: flag(), partsOnHand: flag(), noHotWork: flag() }),
  practice: closed({
    vent: oneOf(['vent-line', 'vented-cap'] as const),
    outlet: oneOf(['top-tube', 'bottom-outlet'] as const),
    fill: oneOf(['95-percent', 'click-off'] as const),
    pickup: oneOf(['off-floor', 'on-floor'] as const),
    strainer: oneOf(['outside', 'inside'] as const),
    heaterPickup: oneOf(['higher', 'deep'] as const),
    ports: oneOf(['new', 'existing'] as const),
    sender: oneOf(['new', 'salvaged'] as const),
    returnOutlet: oneOf(['low', 'high'] as const),
    transferBy: oneOf(['pump', 'gravity', 'vacuum', 'selector'] as const),
    lineFor: oneOf(['today', 'later'] as const),
    meter: oneOf(['after-filter', 'before-filter'] as const),
    losses: oneOf(LOSS_METHODS),
  }),
  /** The builder's own limits: most that may surge freely in one bay. */
  limits: closed({ surgeBay_m3: known(0.001, 20) }),
  wishes: closed({
    /** To be moved from tank to tank or into a can at one go. */ moves_m3: known(1e-4, 20).optional(),
    holds_m3: known(0, 20).optional(),
    endurance_s: known(0, 3e6).optional(),
    reserve_ratio: known(0, 0.9),
  }),
  envelope: closed({
    noseUp_deg: known(0, 60),
    noseDown_deg: known(0, 60),
    portDown_deg: known(0, 60),
    starboardDown_deg: known(0, 60),
    /** The hardest that it brakes, pulls away and corners. */
    braking_mPerS2: known(0, 50),
    driving_mPerS2: known(0, 50),
    cornering_mPerS2: known(0, 50),
  }),
  conditions,
  fluids: listOf(
    closed({ id: id(), fluid: oneOf<FluidKey>(keys(FLUIDS)), density15_kgPerM3: known(600, 1200).optional() }),
    10,
  ),
  tanks: listOf(tank, 12),
  components: listOf(component, 100),
  lines: listOf(line, 200),
  consumers: listOf(consumer, 12),
  prices: listOf(linePrice, 100),
  mounts: listOf(mount, 60),
  fit,
});

export type SystemDocument = InferType<typeof systemSchema>;
export type ShapeDocument = SystemDocument['tanks'][number]['shape'];
/** As much of a system as the space depends on, and what hands and tools get to in it. */
export type SpacePlan = Pick<SystemDocument, 'fit' | 'tanks' | 'mounts' | 'lines'>;
export type EnvelopeDocument = SystemDocument['envelope'];
export type TankDocument = SystemDocument['tanks'][number];
/** As much of a tank as is planned: without what was measured on it after it was built. */
export type TankPlan = Omit<TankDocument, 'calibrations' | 'built'>;
export type PartDocument = TankDocument['parts'][number];
export type SliceDocument = TankDocument['slices'][number];
export type PlateDocument = TankDocument['plates'][number];
export type PortDocument = TankDocument['ports'][number];
export type PickupDocument = TankDocument['pickups'][number];
export type SenderDocument = TankDocument['senders'][number];
export type SwingArmDocument = Extract<SenderDocument, { kind: 'swing-arm' }>;
export type GaugeDocument = SenderDocument['gauge'];
export type ScaleDocument = SenderDocument['output'];
export type SightTubeDocument = TankDocument['sightTubes'][number];
export type DipstickDocument = TankDocument['dipsticks'][number];
export type CalibrationDocument = TankDocument['calibrations'][number];
export type PourDocument = CalibrationDocument['pours'][number];
export type FitDocument = SystemDocument['fit'];
export type BayDocument = FitDocument['bay'];
export type MeasuredBayDocument = Extract<BayDocument, { kind: 'measured' }>;
export type ThingDocument = FitDocument['things'][number];
export type MotionDocument = ThingDocument['motions'][number];
export type SpotDocument = FitDocument['spots'][number];
export type WayStep = FitDocument['ways'][number]['steps'][number];
export type ComponentDocument = SystemDocument['components'][number];
export type LineDocument = SystemDocument['lines'][number];
export type ConsumerDocument = SystemDocument['consumers'][number];
