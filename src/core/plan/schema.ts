import { type InferType } from 'yup';
import type { SenderDocument as Sender } from '../senders';
import type { ShapeDocument as Shape } from '../shapes';
import { FLUIDS, type FluidKey } from '../reference/fluids';
import { bounded, known } from '../schema/known';
import { component, type ComponentDocument as Component } from '../components';
import { consumer, line, linePrice } from './schemaLines';
import { fit } from './schemaFit';
import { MOST_RECORDS, record } from './schemaRecords';
import { conditions } from './schemaState';
import { mount, shocks } from './schemaMounts';
import { scenario } from './schemaScenario';
import { stance } from './schemaStance';
import { tank } from './schemaTank';
import { closed, id, keys, kindIs, listOf, name, oneOf, optionalList, text } from '../schema/tools';
import { constraints, envelope, limits, practice, rulebook, vehicle, wishes } from './schemaWishes';

/**
 * The system document, version 7. The one validator at every door; the
 * published JSON Schema in docs/format is written from it.
 *
 * Keys carry units. Lengths are metres, volumes cubic metres, pressures
 * pascals; angles are degrees, which the SI accepts. Positions in a tank are
 * from the aft, starboard, lower corner of its first shape, before anything is
 * added to it, inside or outside as its dimensions are given; in the vehicle
 * from any one datum; x forward, y to port, z up.
 */
export const FORMAT = 'gasline-system';
export const CURRENT_VERSION = 7;
export { ID_PATTERN, UNION_BRANCHES } from '../schema/tools';
export { SENDER_KINDS, SWINGS, type SwingArmDocument } from '../senders';
export { MEASURE_DIRECTIONS, SPOT_KINDS, OBSTACLE_ROLES } from './schemaFit';
export { FACES, PICKUP_KINDS, PORT_ROLES, STRAINERS, TURNS } from './schemaPorts';
export { MOUNT_KINDS, MOUNT_SIDES, POCKET_RUNS, STRAP_RUNS, type MountKind } from './schemaMounts';
export { WEIGHED } from './schemaStance';
export { FLAP_WAYS, PART_OPERATIONS } from './schemaTank';
export { RULEBOOKS, VEHICLES } from './schemaWishes';
export { COMPONENT_KINDS, END_NAMES, type ComponentKind, type EndName } from '../components';
export { CONSUMER_KINDS, LINE_KINDS, PURPOSES } from './schemaLines';
export { POUR_STATES, POUR_WAYS } from '../formats';

export const systemSchema = closed({
  format: kindIs(FORMAT),
  version: bounded(CURRENT_VERSION, CURRENT_VERSION).integer('must be a whole number'),
  name: name(),
  description: text(2000).defined('is missing'),
  vehicle,
  rulebook,
  constraints,
  practice,
  limits,
  wishes,
  envelope,
  conditions,
  fluids: listOf(
    closed({
      id: id(),
      fluid: oneOf<FluidKey>(keys(FLUIDS)),
      density15_kgPerM3: known(600, 1200, 'density at 15 °C', 'density').optional(),
    }),
    10,
  ),
  tanks: listOf(tank, 12),
  components: listOf(component, 100),
  lines: listOf(line, 200),
  consumers: listOf(consumer, 12),
  prices: listOf(linePrice, 100),
  mounts: listOf(mount, 60),
  shocks,
  stance,
  /** Courses that somebody wants to see played. */ scenarios: optionalList(scenario, 20),
  fit,
  records: listOf(record, MOST_RECORDS),
});

export type SystemDocument = InferType<typeof systemSchema>;
/** How it stands at a moment, as it is typed and kept beside the plan. */
export type Conditions = SystemDocument['conditions'];
/** What is planned, however it stands and whatever happened to it: a document without its conditions and records. */
export type Plan = Omit<SystemDocument, 'conditions' | 'records'>;
/** A plan as it stands at a moment: what answers are worked out of. */
export type PlanAt = Omit<SystemDocument, 'records'>;
/** What happened to what was built. */
export type RecordDocument = SystemDocument['records'][number];
export type ShapeDocument = Shape;
/** As much of a system as the space depends on, and what hands and tools get to in it. */
export type SpacePlan = Pick<SystemDocument, 'fit' | 'tanks' | 'mounts' | 'lines'>;
export type MountDocument = SystemDocument['mounts'][number];
/** What the vehicle stands on. */
export type StanceDocument = NonNullable<SystemDocument['stance']>;
export type ShocksDocument = NonNullable<SystemDocument['shocks']>;
export type EnvelopeDocument = SystemDocument['envelope'];
export type TankDocument = SystemDocument['tanks'][number];
/** As much of a tank as is planned: without what was measured on it after it was built. */
export type TankPlan = Omit<TankDocument, 'calibrations' | 'built'>;
export type PartDocument = TankDocument['parts'][number];
export type SliceDocument = TankDocument['slices'][number];
export type PlateDocument = TankDocument['plates'][number];
export type PortDocument = TankDocument['ports'][number];
export type PickupDocument = TankDocument['pickups'][number];
export type SenderDocument = Sender;
export type GaugeDocument = SenderDocument['gauge'];
export type ScaleDocument = SenderDocument['output'];
export type SightTubeDocument = TankDocument['sightTubes'][number];
export type DipstickDocument = TankDocument['dipsticks'][number];
export type CalibrationDocument = TankDocument['calibrations'][number];
export type PourDocument = Extract<RecordDocument, { kind: 'pour' }>;
export type FitDocument = SystemDocument['fit'];
export type BayDocument = FitDocument['bay'];
export type MeasuredBayDocument = Extract<BayDocument, { kind: 'measured' }>;
export type ObstacleDocument = FitDocument['obstacles'][number];
export type MotionDocument = ObstacleDocument['motions'][number];
export type SpotDocument = FitDocument['spots'][number];
export type WayStep = FitDocument['removals'][number]['steps'][number];
export type ComponentDocument = Component;
export type LineDocument = SystemDocument['lines'][number];
export type ConsumerDocument = SystemDocument['consumers'][number];
