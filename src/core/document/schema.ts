import { array, boolean, lazy, object, string, type InferType, type ObjectShape, type Schema } from 'yup';
import { END_SHAPES } from '../geometry';
import { ALLOYS, type AlloyKey } from '../reference/alloys';
import { FLUIDS, type FluidKey } from '../reference/fluids';
import { FITTINGS, ROUGHNESS, type FittingKey, type RoughnessKey } from '../reference/losses';
import { bounded, known, ORIGINS } from './known';

/**
 * The system document, version 2. The one validator at every door; the
 * published JSON Schema in docs/format is written from it.
 *
 * Keys carry units. Lengths are metres, volumes cubic metres, pressures
 * pascals; angles are degrees, which the SI accepts. Positions in a tank are
 * from the aft, starboard, lower corner of its first shape, before anything is
 * added to it, inside or outside as its dimensions are given; in the vehicle
 * from any one datum; x forward, y to port, z up.
 */
export const FORMAT = 'gasline-system';
export const CURRENT_VERSION = 2;

const closed = <T extends ObjectShape>(shape: T) =>
  object(shape)
    .noUnknown(({ unknown }) => `has keys that the format does not know: ${unknown}`)
    .required('is missing')
    .typeError('must be an object');

const listOf = <T extends Schema>(item: T, max: number) =>
  array(item as never).max(max, `must have no more than ${max} entries`).required('is missing').typeError('must be a list') as unknown as ListSchema<T>;
type ListSchema<T extends Schema> = Schema<InferType<T>[]>;

const oneOf = <T extends string>(values: readonly T[]) =>
  string().oneOf(values, `must be one of ${values.join(', ')}`).required('is missing').typeError('must be text');

const keys = <K extends string>(table: Readonly<Record<K, unknown>>): K[] => Object.keys(table) as K[];

const text = (max: number) => string().max(max, `must be no longer than ${max} characters`).typeError('must be text');
const name = () => text(80).required('must not be empty').trim('must not begin or end with a space');
export const ID_PATTERN = /^[a-z0-9][a-z0-9-]{0,39}$/;
const id = () => string().matches(ID_PATTERN, 'must be 1 to 40 of a-z, 0-9 and -').required('is missing').typeError('must be text');
const flag = () => boolean().required('is missing').typeError('must be true or false');

/** Schemas chosen by the value of `kind`. */
function byKind<T extends Record<string, Schema>>(branches: T) {
  const schema = lazy((value: unknown) => {
    const kind = (value as { kind?: unknown } | undefined)?.kind;
    const branch = typeof kind === 'string' && Object.hasOwn(branches, kind) ? branches[kind] : undefined;
    return branch ?? (closed({ kind: oneOf(Object.keys(branches)) }) as unknown as Schema);
  });
  UNION_BRANCHES.set(schema, Object.values(branches));
  return schema as unknown as Schema<InferType<T[keyof T]>>;
}

/** For the JSON Schema: what a `byKind` schema may be. */
export const UNION_BRANCHES = new WeakMap<object, Schema[]>();

const kindIs = <K extends string>(kind: K) => oneOf([kind] as const);

const ANGLE = 90;
const SPAN_M = 30;
const boxShape = closed({ kind: kindIs('box'), length_m: known(0.02, 20), width_m: known(0.02, 20), height_m: known(0.02, 20) });
const AXES = ['x', 'y', 'z'] as const;
/** An outline in the two axes across the third, in order (y, z), (x, z) or (x, y). */
const profile = () => listOf(closed({ u_m: bounded(-20, 20), v_m: bounded(-20, 20) }), 200);
const prismShape = closed({ kind: kindIs('prism'), axis: oneOf(AXES), length_m: known(0.02, 20), profile: profile(), profileOrigin: oneOf(ORIGINS) });
const loftShape = closed({ kind: kindIs('loft'), axis: oneOf(AXES), length_m: known(0.02, 20), near: profile(), far: profile(), profileOrigin: oneOf(ORIGINS) });
const cylinderShape = closed({ kind: kindIs('cylinder'), axis: oneOf(AXES), diameter_m: known(0.02, 10), shell_m: known(0, 20), nearEnd: oneOf(END_SHAPES), farEnd: oneOf(END_SHAPES) });
const coneShape = closed({ kind: kindIs('cone'), axis: oneOf(AXES), nearDiameter_m: known(0, 10), farDiameter_m: known(0, 10), length_m: known(0.02, 20) });
/** A closed mesh, as little-endian single-precision coordinates and vertex numbers in base64; see docs/format. */
const MESH_CHARACTERS = 600_000;
const meshShape = closed({ kind: kindIs('mesh'), file: text(120).defined('is missing'), vertices_m: text(MESH_CHARACTERS).required('is missing'), triangles: text(MESH_CHARACTERS).required('is missing') });
const shape = byKind({ box: boxShape, prism: prismShape, loft: loftShape, cylinder: cylinderShape, cone: coneShape, mesh: meshShape });

const TANK_M = 20;
const place = { x_m: known(-TANK_M, TANK_M), y_m: known(-TANK_M, TANK_M), z_m: known(-TANK_M, TANK_M) };
export const PART_DOES = ['add', 'take', 'displace'] as const;
/** A body added to the tank, taken away from it, or standing inside it; in the order of the list. Its place is its own aft, starboard, lower corner. */
const part = closed({ id: id(), name: name(), does: oneOf(PART_DOES), shape, ...place });
/** A band taken out across an axis, what lies beyond moved back to close it. */
const slice = closed({ id: id(), name: name(), axis: oneOf(AXES), at_m: known(-TANK_M, TANK_M), width_m: known(0.0005, 10) });

export const FLAP_WAYS = ['higher', 'lower'] as const;
/** A baffle across an axis, from wall to wall or over a part of the other way across. */
const plate = closed({
  id: id(), name: name(), axis: oneOf(AXES), at_m: known(-TANK_M, TANK_M), thickness_m: known(0.0003, 0.03),
  from_m: known(-TANK_M, TANK_M).optional(), to_m: known(-TANK_M, TANK_M).optional(),
  /** Leg of the triangle cut away at each lower corner. */
  cornerCut_m: known(0, 1),
  /** Left open above, for air. */
  topGap_m: known(0, 2),
  holes: closed({ count: bounded(0, 400).integer('must be a whole number'), diameter_m: known(0.001, 0.5), /** Of their centres over the plate's lowest point. */ height_m: known(0, 5) }),
  /** A trap door low in the plate; passes towards higher or lower coordinates and holds the other way but for what leaks. */
  flap: closed({ width_m: known(0.001, 1), height_m: known(0.001, 1), passes: oneOf(FLAP_WAYS), leak_ratio: known(0, 1) }).optional(),
});

export const FACES = ['lid', 'floor', 'fore', 'aft', 'port', 'starboard'] as const;
export const PORT_ROLES = ['filler', 'vent', 'feed', 'return', 'sender', 'drain', 'spare'] as const;

const port = closed({
  id: id(), name: name(), role: oneOf(PORT_ROLES), face: oneOf(FACES),
  /** Centre of the hole; the coordinate across the face follows from the shape. */
  x_m: known(-TANK_M, TANK_M).optional(), y_m: known(-TANK_M, TANK_M).optional(), z_m: known(-TANK_M, TANK_M).optional(),
  bore_m: known(0.0003, 0.5),
  /** Of the neck, hose or hole behind it. */
  length_m: known(0, SPAN_M),
});

export const PICKUP_KINDS = ['top-tube', 'bottom-outlet'] as const;
export const STRAINERS = ['none', 'sock', 'mesh'] as const;

const pickup = closed({
  id: id(), name: name(), port: id(), kind: oneOf(PICKUP_KINDS), strainer: oneOf(STRAINERS),
  heightOffFloor_m: known(0, 5), bore_m: known(0.001, 0.1),
  /** Liquid that must stand over the inlet before it draws air. */
  submergence_m: known(0, 0.1),
});

export const SWINGS = ['fore', 'aft', 'port', 'starboard'] as const;

const sender = closed({
  id: id(), name: name(), port: id(), kind: kindIs('swing-arm'), swing: oneOf(SWINGS),
  pivotDepth_m: known(0, 5), armLength_m: known(0.01, 3), floatDiameter_m: known(0.005, 0.3),
  lowStop_deg: known(-ANGLE, ANGLE), highStop_deg: known(-ANGLE, ANGLE),
  emptyResistance_ohm: known(0, 1e5), fullResistance_ohm: known(0, 1e5),
  gauge: closed({
    kind: kindIs('linear'), emptyResistance_ohm: known(0, 1e5), fullResistance_ohm: known(0, 1e5),
    /** Half-width of the needle's own error as a share of full scale. */
    tolerance_ratio: known(0, 0.5),
  }),
});

const tank = closed({
  id: id(), name: name(), fluid: id(),
  mounting: closed({
    x_m: known(-SPAN_M, SPAN_M), y_m: known(-SPAN_M, SPAN_M), z_m: known(-SPAN_M, SPAN_M),
    yaw_deg: known(-180, 180), pitch_deg: known(-ANGLE, ANGLE), roll_deg: known(-180, 180),
  }),
  material: closed({ alloy: oneOf<AlloyKey>(keys(ALLOYS)), thickness_m: known(0.0003, 0.03) }),
  /** Whether sizes are measured inside or outside the wall. */
  dimensions: oneOf(['inside', 'outside'] as const),
  shape,
  parts: listOf(part, 24), slices: listOf(slice, 6), plates: listOf(plate, 16),
  /** Of the space inside, taken by foam that fills it. */
  foam_ratio: known(0, 0.5).optional(),
  fillLimit_ratio: known(0.5, 1),
  ports: listOf(port, 60), pickups: listOf(pickup, 12), senders: listOf(sender, 6),
});

const filter = closed({
  id: id(), name: name(), kind: kindIs('filter'),
  ratedFlow_m3PerS: known(1e-8, 0.1), ratedDrop_Pa: known(0, 1e6), ratedViscosity_PaS: known(1e-4, 1),
  /** Loss as a multiple of the clean one. */
  dirt_ratio: known(1, 100),
});

const pump = closed({
  id: id(), name: name(), kind: kindIs('pump'), running: flag(), checkBuiltIn: flag(),
  ratedVoltage_V: known(1, 60), selfPrimingLift_m: known(0, 10),
  /** What it really moves, as a share of its curve: timed into a known can. */
  output_ratio: known(0.05, 2),
  curveOrigin: oneOf(ORIGINS),
  curve: listOf(closed({ flow_m3PerS: bounded(0, 0.1), rise_Pa: bounded(0, 5e6) }), 40),
});

const valve = closed({ id: id(), name: name(), kind: kindIs('valve'), open: flag(), fitting: oneOf<FittingKey>(['ball-valve', 'gate-valve', 'globe-valve', 'needle-valve']), bore_m: known(0.001, 0.1) });
const check = closed({ id: id(), name: name(), kind: kindIs('check-valve'), fitting: oneOf<FittingKey>(['check-swing', 'check-lift']), bore_m: known(0.001, 0.1) });
const component = byKind({ filter, pump, valve, 'check-valve': check });

export const PURPOSES = ['feed', 'return', 'transfer', 'fill', 'vent', 'overflow'] as const;
const end = () => closed({ item: id(), end: oneOf(['in', 'out'] as const) });

const line = closed({
  id: id(), name: name(), purpose: oneOf(PURPOSES), kind: oneOf(['hose', 'tube', 'pipe'] as const),
  from: end(), to: end(),
  bore_m: known(0.001, 0.1), length_m: known(0, 200), wall: oneOf<RoughnessKey>(keys(ROUGHNESS)),
  /** Where its far end lies from its near end, in vehicle axes. */
  forward_m: known(-SPAN_M, SPAN_M), toPort_m: known(-SPAN_M, SPAN_M), rise_m: known(-SPAN_M, SPAN_M),
  fittings: listOf(closed({ fitting: oneOf<FittingKey>(keys(FITTINGS)), count: bounded(0, 50).integer('must be a whole number') }), 20),
});

export const CONSUMER_KINDS = ['diesel-engine', 'petrol-injection', 'petrol-carburettor', 'heater', 'generator', 'nozzle'] as const;

const consumer = closed({
  id: id(), name: name(), kind: oneOf(CONSUMER_KINDS),
  neededFlow_m3PerS: known(1e-9, 0.1), neededPressure_Pa: known(-5e4, 2e6),
  burnIdle_m3PerS: known(0, 0.1), burnFull_m3PerS: known(1e-10, 0.1),
});

const MOUNT_KINDS = ['strap', 'tab', 'cradle'] as const;
const mount = closed({ id: id(), name: name(), kind: oneOf(MOUNT_KINDS), tank: id(), x_m: known(-SPAN_M, SPAN_M), y_m: known(-SPAN_M, SPAN_M), z_m: known(-SPAN_M, SPAN_M) });

export const VEHICLES = ['boat', 'road', 'snow', 'competition', 'trailer', 'bench'] as const;
export const RULEBOOKS = ['none', 'road-truck-tank', 'petrol-boat', 'small-craft'] as const;

const conditions = closed({
  pitch_deg: bounded(-60, 60), roll_deg: bounded(-60, 60),
  accelerationForward_mPerS2: bounded(-30, 30), accelerationPort_mPerS2: bounded(-30, 30), accelerationUp_mPerS2: bounded(-9, 50),
  fuelTemperature_K: bounded(213.15, 423.15), altitude_m: bounded(-500, 9000),
  duty_ratio: bounded(0, 1), pumpVoltage_V: bounded(0, 60),
  fills: listOf(closed({ tank: id(), fill_ratio: bounded(0, 1) }), 20),
});

export const systemSchema = closed({
  format: kindIs(FORMAT),
  version: bounded(CURRENT_VERSION, CURRENT_VERSION).integer('must be a whole number'),
  name: name(), description: text(2000).defined('is missing'),
  vehicle: closed({ kind: oneOf(VEHICLES), speed_mPerS: known(0, 150).optional() }),
  rulebook: oneOf(RULEBOOKS),
  constraints: closed({ nothingCut: flag(), noHoleBelowLiquid: flag(), partsOnHand: flag(), noHotWork: flag() }),
  practice: closed({
    vent: oneOf(['vent-line', 'vented-cap'] as const), outlet: oneOf(['top-tube', 'bottom-outlet'] as const),
    fill: oneOf(['95-percent', 'click-off'] as const), pickup: oneOf(['off-floor', 'on-floor'] as const),
    strainer: oneOf(['outside', 'inside'] as const),
  }),
  /** The builder's own limits: most that may surge freely in one bay. */
  limits: closed({ surgeBay_m3: known(0.001, 20) }),
  wishes: closed({ holds_m3: known(0, 20).optional(), endurance_s: known(0, 3e6).optional(), reserve_ratio: known(0, 0.9) }),
  envelope: closed({
    noseUp_deg: known(0, 60), noseDown_deg: known(0, 60), portDown_deg: known(0, 60), starboardDown_deg: known(0, 60),
    /** The hardest that it brakes, pulls away and corners. */
    braking_mPerS2: known(0, 50), driving_mPerS2: known(0, 50), cornering_mPerS2: known(0, 50),
  }),
  conditions,
  fluids: listOf(closed({ id: id(), fluid: oneOf<FluidKey>(keys(FLUIDS)), density15_kgPerM3: known(600, 1200).optional() }), 10),
  tanks: listOf(tank, 12),
  components: listOf(component, 100),
  lines: listOf(line, 200),
  consumers: listOf(consumer, 12),
  mounts: listOf(mount, 60),
});

export type SystemDocument = InferType<typeof systemSchema>;
export type ShapeDocument = SystemDocument['tanks'][number]['shape'];
export type TankDocument = SystemDocument['tanks'][number];
export type PartDocument = TankDocument['parts'][number];
export type SliceDocument = TankDocument['slices'][number];
export type PlateDocument = TankDocument['plates'][number];
export type PortDocument = TankDocument['ports'][number];
export type PickupDocument = TankDocument['pickups'][number];
export type SenderDocument = TankDocument['senders'][number];
export type ComponentDocument = SystemDocument['components'][number];
export type LineDocument = SystemDocument['lines'][number];
export type ConsumerDocument = SystemDocument['consumers'][number];
