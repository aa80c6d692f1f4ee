import { ALLOYS, type AlloyKey } from '../reference/alloys';
import { INSIDE_KEYS } from '../reference/compatibility';
import { bounded, known } from '../schema/known';
import { sender } from '../senders';
import { calibration, dipstick, sightTube } from './schemaGauge';
import { pickup, port } from './schemaPorts';
import { AXES, shape } from '../shapes';
import {
  ANGLE,
  closed,
  flag,
  id,
  keys,
  listOf,
  name,
  optionalList,
  oneOf,
  SPAN_M,
  TANK_M,
  text,
} from '../schema/tools';

/** A tank: its body, what stands inside it, and what is on it and in it. */
const place = {
  x_m: known(-TANK_M, TANK_M, 'distance from aft', 'tape'),
  y_m: known(-TANK_M, TANK_M, 'distance from starboard', 'tape'),
  z_m: known(-TANK_M, TANK_M, 'height', 'tape'),
};
export const PART_OPERATIONS = ['add', 'take', 'displace'] as const;
/**
 * A body added to the tank, taken away from it, or standing inside it; in the order of the list. Its place is its own
 * aft, starboard, lower corner.
 */
const part = closed({ id: id(), name: name(), operation: oneOf(PART_OPERATIONS), shape, ...place });
/** A band taken out across an axis, what lies beyond moved back to close it. */
const slice = closed({
  id: id(),
  name: name(),
  axis: oneOf(AXES),
  at_m: known(-TANK_M, TANK_M, 'place', 'tape'),
  width_m: known(0.0005, 10, 'width taken out', 'tape'),
});

export const FLAP_WAYS = ['higher', 'lower'] as const;
/** A baffle across an axis, from wall to wall or over a part of the other way across. */
const plate = closed({
  id: id(),
  name: name(),
  axis: oneOf(AXES),
  at_m: known(-TANK_M, TANK_M, 'place', 'tape'),
  thickness_m: known(0.0003, 0.03, 'thickness', 'thickness'),
  from_m: known(-TANK_M, TANK_M, 'begins at', 'tape').optional(),
  to_m: known(-TANK_M, TANK_M, 'ends at', 'tape').optional(),
  /** Leg of the triangle cut away at each lower corner. */
  cornerCut_m: known(0, 1, 'lower corners cut', 'tape'),
  /** Left open above, for air. */
  topGap_m: known(0, 2, 'air gap above', 'tape'),
  holes: closed({
    count: bounded(0, 400).integer('must be a whole number'),
    diameter_m: known(0.001, 0.5, 'hole diameter', 'tape'),
    /** Of their centres over the plate's lowest point. */ height_m: known(0, 5, 'height of its holes', 'tape'),
  }),
  /**
   * A trap door low in the plate; passes towards higher or lower coordinates and holds the other way but for what
   * leaks.
   */
  flap: closed({
    width_m: known(0.001, 1, 'flap width', 'tape'),
    height_m: known(0.001, 1, 'flap height', 'tape'),
    passes: oneOf(FLAP_WAYS),
    leak_ratio: known(0, 1, 'leak of the shut flap', 'share'),
  }).optional(),
});

export const tank = closed({
  id: id(),
  name: name(),
  fluid: id(),
  /** The tank whose sealed divider closes it: two tanks in one shell. */
  sharesWallWith: id().optional(),
  mounting: closed({
    x_m: known(-SPAN_M, SPAN_M, 'distance from aft', 'tape'),
    y_m: known(-SPAN_M, SPAN_M, 'distance from starboard', 'tape'),
    z_m: known(-SPAN_M, SPAN_M, 'height', 'tape'),
    yaw_deg: known(-180, 180, 'mounted yaw', 'slope'),
    pitch_deg: known(-ANGLE, ANGLE, 'mounted pitch', 'slope'),
    roll_deg: known(-180, 180, 'mounted roll', 'slope'),
  }),
  /** Fittings, pumps and all else that hangs on it or in it. */
  fitted_kg: known(0, 500, 'fittings and what hangs on it weigh', 'mass').optional(),
  /** It stands in a shed or on shore: the vehicle does not bear it. */ elsewhere: flag().optional(),
  material: closed({
    alloy: oneOf<AlloyKey>(keys(ALLOYS)),
    thickness_m: known(0.0003, 0.03, 'sheet thickness', 'thickness'),
    /** Where it is known better than by its name. */
    density_kgPerM3: known(500, 20000, 'density of the wall', 'density').optional(),
  }),
  /** Whether sizes are measured inside or outside the wall. */
  dimensions: oneOf(['inside', 'outside'] as const),
  shape,
  parts: listOf(part, 24),
  slices: listOf(slice, 6),
  plates: listOf(plate, 16),
  /** Of the space inside, taken by foam that fills it. */
  foam_ratio: known(0, 0.5, 'taken by foam', 'share').optional(),
  /** How that foam is cut; nothing is said of it where left out. */
  foam: closed({
    /** Larger than the space, each way. */ over_m: known(0, 0.2, 'cut larger by', 'tape'),
    /** Round tubes, pumps and floats. */ clear_m: known(0, 0.2, 'kept free round what hangs in it', 'tape'),
    /** Of the opening that its pieces go through; laid in before the lid where left out. */
    opening_m: known(0.01, 2, 'opening they go through', 'tape').optional(),
    squeezed_ratio: known(0.05, 1, 'squeezed to', 'share'),
  }).optional(),
  fillLimit_ratio: known(0.5, 1, 'fill limit', 'share'),
  ports: listOf(port, 60),
  pickups: listOf(pickup, 12),
  senders: listOf(sender, 6),
  sightTubes: listOf(sightTube, 4),
  dipsticks: listOf(dipstick, 4),
  calibrations: listOf(calibration, 12),
  /** What stands in the fuel beside wall, baffles and pickups: hose, clamps, ties, socks, foam, a liner on the wall. */
  inside: optionalList(closed({ id: id(), name: name(), material: oneOf(INSIDE_KEYS) }), 40),
  /** What the built tank really measures, by the path of the planned value within the tank. */
  built: listOf(
    closed({ of: text(80).required('is missing'), measured: known(-SPAN_M, SPAN_M, 'as built', 'tape') }),
    60,
  ),
});
