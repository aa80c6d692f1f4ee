/**
 * Everything that follows from a plan in a state.
 *
 * Read `table.ts` first: every answer there is, what it reads, when it is
 * worked out and who shows it; `work.ts` has how. `evaluate.ts` runs every
 * solver and returns plain data. `numbers.ts` picks the four numbers out
 * of it, `workings.ts` shows how each came about, and `sensitivity.ts` says
 * which uncertain values move them. Solvers know nothing of documents; this
 * folder and `model/` are where the two meet.
 */
export {
  evaluateSystem,
  evaluation,
  evaluationAt,
  mainPickup,
  suppliesOf,
  usableIn_m3,
  type Supply,
  tankAnswers,
  type Evaluation,
  type RangeResult,
  type TankAnswers,
} from './evaluate';
export type { GaugeResult, LampResult } from './gauge/gauge';
export { cardOf, failedCard, sentCardSchema, type Card, type CardFigure } from './card';
export {
  askedNumbers,
  isTransfer,
  hasNone,
  numbersOf,
  NUMBER_KEYS,
  type Figure,
  type NumberKey,
  type Numbers,
} from './numbers';
export { allKnown, valuesOf, type KnownAt } from './allKnown';
export {
  influencesOf,
  sensitivity,
  combinedUncertainty,
  type FindingsOf,
  type Influence,
  type Sensitivity,
} from './sensitivity';
export { MAP_LIMIT, tankMap, type MapMode, type TankMap } from './tank/attitudeMap';
export {
  MANOEUVRES,
  REFILL_HEAD_M,
  type CompartmentResult,
  type FeedResult,
  type InsideResult,
  type Manoeuvre,
} from './tank/inside';
export { comparedFigures, type ComparedFigure } from './figures';
export { tankSolid, type TankSolid } from './tank/solid';
export {
  ventDesign,
  type FlatWall,
  type Heat,
  type VentDesign,
  type VentDesignCode,
  type VentLimit,
  type VentRise,
  type VolumeCorrection,
  type VentSize,
} from './tank/ventDesign';
export { tankTable, type TableAt } from './tank/table';
export { workingOf, type Working, type WorkingStep, type WorkingTerm } from './workings';
export {
  COMFORT_RATIO,
  LOW_VOLTS_RATIO,
  VAPOUR_MARGIN_PA,
  type DutyResult,
  type FlowResult,
  type LossShare,
  type PumpChartPoint,
  type PumpResult,
} from './flow/flowResult';
export { DIRTY_RATIO } from '../reference/filters';
export { MOST_DROP_RATIO, type ElectricsResult } from './flow/electrics';
export {
  ANSWERS,
  ANSWER_KEYS,
  findingsHoldFor,
  holdsFor,
  type AnswerKey,
  type AnswerRow,
  type Cost,
  type Read,
} from './table';
export {
  answerWork,
  type AnswerOf,
  type AskedOf,
  type CalibrationData,
  type Compared,
  type Results,
  type WayNews,
} from './work';
export { documentAt, type At, type EvaluationCode } from './at';
export { flowInputsOf, tankFluid } from './flow/flowInputs';
export * from './lines';
export * from './time';
export {
  GOES_WORDS,
  holds,
  mountsOf,
  weakest,
  type Astray,
  type CaseHeld,
  type Goes,
  type Mounts,
  type MountsCode,
  type MountsOf,
  type WorstUse,
} from './mounts/mounts';
export type { MountPart, PartUse } from './mounts/uses';
export { mountList, mountRows, type MountList } from './mounts/list';
export {
  shakingOf,
  SWING_WORDS,
  unheldOf,
  type Shaking,
  type Swing,
  type Swings,
  type SwingWay,
} from './mounts/vibration';
export {
  SHOCK_CASES,
  shockKindOf,
  shocksFrom,
  shocksOf,
  thrownIn,
  type HeldMass,
  type Mounted,
  type ShockCase,
} from './mounts/loads';
export { layoutsFor, type Layout } from './mounts/layouts';
export { HOLD_SCHOOLS, STRAP_SPAN_M, type HoldSchool } from './mounts/layoutMakes';
export { changesOf as mountChangesOf, type MountChange, type MountChangeKind } from './mounts/changes';
export {
  HEEL_SHOWS_RAD,
  TRIM_SHOWS_RAD,
  MOVED_M,
  standsOf,
  type Moved,
  type OnWheels,
  type StandCase,
  type Stands,
  type StandsCode,
} from './weight/stands';
export { carriedOf, type Carried, type Hangs, type Lifted } from './tank/carried';
export { MAIN_WAYS, TIP_FILLS, tipsOf, type TipFill, type TipRow, type Tips, type TipWay } from './tank/tips';
export type { BalancePoint, Detail, PickupResult, TankResult } from './tank/tankResult';
export type { SectionDrawing, SenderDrawing, TankDrawing } from './tank/drawing';
export { fitFor, fitForSteps, hasReach, hasSpace, reachFor, type FitOutcome, type ReachOutcome } from './fit/fitCache';
export type { LineGap } from './fit/lineGaps';
export type { MountGap } from './fit/mountGaps';
export { fitOf, type FitGap, type FitResult, type SurveyResult, type TankFit } from './fit/fit';
export { type FitDoubt } from './fit/fitDoubts';
export {
  checkedWay,
  MANY_SAMPLES,
  foundWay,
  moveOf,
  orderOut,
  partChoices,
  stepOf,
  wayPicture,
  type FoundWay,
  type PartChoice,
  type WayPicture,
  type WaysCode,
} from './fit/ways';
export type { Move, Opening, Removal, StepCheck, WayCheck, WayOut, WayProgress } from '../fit';
export {
  builtResult,
  changesOf,
  withChange,
  type BuiltResult,
  type FaceName,
  type TankChange,
  type TankChangeResult,
} from './tank/tankChanges';
export { largestTanks, withLargest, type LargestTank } from './fit/largestTanks';
export { fitDrawing, type FitDrawing, type FitShape, type FitViewKey } from './fit/fitDrawing';
export { reachOf, type ReachAnswer, type ReachJob, type ReachWhen, type ToolAtWork } from './fit/reach';
export {
  cutObstacles,
  mirrored,
  obstacleTemplates,
  templatesOf,
  type Template,
  type TemplateEdge,
  type TemplateHole,
} from './fit/templates';
export {
  calibrationResult,
  readingValue,
  taughtByPours,
  type CalibrationResult,
  type ReadingKind,
} from './gauge/calibration';
export { designedSender, refittedSender, type DesignedSender, type RefittedSender } from './gauge/senderDesign';
export { evenStep_m3, type DipResult, type SightResult } from './tank/scales';
export { rigPlan, type RigPlan } from './gauge/rig';
export {
  faceSheets,
  holePath,
  onDocument,
  sheetsOf,
  type FaceSheet,
  type SheetPort,
  type SheetsOutcome,
} from './fit/sheets';
export { SHEET_CHECKS, type FromEdge, type SheetCheck, type SheetCheckKind } from './fit/sheetChecks';
export type { FoamBlock, FoamWell } from './tank/foam';
export { heightForReserve, pickupCuts, type CutSpread, type PickupPlan, type ReserveResult } from './tank/pickups';
export type { Expelled } from './lines';
