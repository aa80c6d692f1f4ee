/**
 * The plan: what a builder wrote of a system, as one document.
 *
 * Read `schema.ts` first: the one validator at every door. `parse.ts` is the
 * way in for anything from outside; `edit.ts` changes a document without
 * touching the old one; `draft.ts` makes a whole one from a few questions.
 * `model/` makes of it what solvers take.
 * A change of format is a new version and an entry in `migrations.ts`.
 */
export { parseScenario } from './parseScenario';
export { quiet, SCENARIO_FIELDS, TIMED, type Scenario, type ScenarioField, type Timed } from './schemaScenario';
export {
  entriesOf,
  firstEntry,
  setOf,
  settable,
  STATION_M3_PER_S,
  stationPour,
  withoutTimed,
  withTimed,
  withTimedChanged,
  type TimedEntry,
} from './scenarioEdits';
export { assumed, chosen, fromPart, measured, ORIGINS, type Known, type Origin } from '../schema/known';
export {
  COMPONENT_KINDS,
  CONSUMER_KINDS,
  CURRENT_VERSION,
  END_NAMES,
  LINE_KINDS,
  PURPOSES,
  type ComponentKind,
  type EndName,
  FACES,
  FLAP_WAYS,
  FORMAT,
  PART_OPERATIONS,
  PICKUP_KINDS,
  PORT_ROLES,
  RULEBOOKS,
  STRAINERS,
  SWINGS,
  systemSchema,
  UNION_BRANCHES,
  VEHICLES,
  WEIGHED,
  POUR_STATES,
  POUR_WAYS,
  SENDER_KINDS,
  type CalibrationDocument,
  type DipstickDocument,
  type GaugeDocument,
  type PourDocument,
  type ScaleDocument,
  type SightTubeDocument,
  type SwingArmDocument,
  MEASURE_DIRECTIONS,
  SPOT_KINDS,
  OBSTACLE_ROLES,
  TURNS,
  type BayDocument,
  type Conditions,
  type Plan,
  type PlanAt,
  type RecordDocument,
  type FitDocument,
  type MeasuredBayDocument,
  type MotionDocument,
  type SpotDocument,
  type ObstacleDocument,
  type StanceDocument,
  type WayStep,
  type ComponentDocument,
  type ConsumerDocument,
  type LineDocument,
  type PartDocument,
  type MountDocument,
  type MountKind,
  MOUNT_KINDS,
  MOUNT_SIDES,
  POCKET_RUNS,
  STRAP_RUNS,
  type ShocksDocument,
  type PickupDocument,
  type PlateDocument,
  type PortDocument,
  type SliceDocument,
  type SenderDocument,
  type ShapeDocument,
  type SystemDocument,
  type TankDocument,
} from './schema';
export {
  MAX_DOCUMENT_BYTES,
  parseSystem,
  parseSystemText,
  tooLarge,
  unsavable,
  type DocumentFailure,
  type ParsedDocument,
} from './parse';
export { flowRole, limitsAt, quantitiesAt, wordsAt, type Limits } from './fields';
export { endWord, FACE_SIDES, sideText, type VehicleKind } from './sides';
export type { FieldWords } from '../schema/known';
export { ACROSS_FACE, type Fault } from './references';
export { mergeSystems, type Merged } from './merge';
export { migrate, MIGRATIONS, type Migration } from './migrations';
export { counting, joinedRecords, loosePours, poursOf, withRecords, withRecordsOf, type Counting } from './records';
export { MOST_RECORDS } from './schemaRecords';
export { atConditionsOf, differences, sameContent, samePlan, type Difference } from './differences';
export { freshId, toPath, valueAt, withAdded, withoutEntry, withValue, type Path } from './edit';
export { parseWay, WAY_EXAMPLE } from './wayText';
export { meshText, textMesh, type MeshText } from '../shapes';
export { stlShape, type StlShape } from './stlShape';
export { fileNameOf } from './fileName';
export * from './jobs';
export { draftSystem, type Answers } from './draft';
export {
  endKey,
  feedPath,
  fluidAt,
  itemsOf,
  joinOfItem,
  joinOfLine,
  linesByEnd,
  openEnds,
  runsOf,
  stockOf,
  type EndRef,
  type Item,
  type Run,
  type RunStep,
} from './circuits';
export {
  END_WORDS,
  withLineBetween,
  freeEnds,
  mayJoin,
  newPart,
  partFor,
  withBranch,
  withEndsThatAre,
  withLine,
  withoutPart,
  withPartIn,
  withWay,
  withPartMoved,
  withPartReplaced,
  type JoinCode,
} from './circuitEdits';
export {
  catalogueCsv,
  MOST_OWN_PARTS,
  parsePart,
  partOfVersion,
  readCatalogueCsv,
  type CatalogueCode,
} from './catalogue';
export { editsBetween, withEdits, type PathEdit } from './edits';
export { withMountMoved, withTankMoved } from './moved';
export { middleOf, shareWall, shellsIn, withSealedDivider, type Divider } from './divider';
export { CAP_WORDS, capWays, letsAirIn, letsAirOut, newCap, type Cap, type CapKind } from './caps';
export { CAP_KINDS, MARK_COLOURS } from './schemaPorts';
export { colourWords, markWords, toldApart, type FillerMark } from './marks';
