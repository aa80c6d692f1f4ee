/**
 * From a system document to everything that follows from it.
 *
 * Read `evaluate.ts` first: `evaluateSystem` runs every solver at the set
 * conditions and returns plain data. `numbers.ts` picks the four numbers out
 * of it, `workings.ts` shows how each came about, and `sensitivity.ts` says
 * which uncertain values move them. Solvers know nothing of documents; this
 * folder and `document/compile*.ts` are where the two meet.
 */
export { evaluateSystem, evaluation, mainPickup, mainTank, type Evaluation, type RangeResult } from './evaluate';
export type { GaugeResult, LampResult } from './gauge';
export { cardOf, cardSchema, failedCard, type Card, type CardFigure } from './card';
export { flowRole, numbersOf, NUMBER_KEYS, type Figure, type NumberKey, type Numbers } from './numbers';
export { allKnown, type KnownAt } from './allKnown';
export { influencesOf, sensitivity, together, type FindingsOf, type Influence, type Sensitivity } from './sensitivity';
export { MAP_LIMIT, tankMap, type MapMode, type TankMap } from './attitudeMap';
export {
  MANOEUVRES,
  REFILL_HEAD_M,
  type BayResult,
  type FeedResult,
  type InsideResult,
  type Manoeuvre,
} from './inside';
export { comparedFigures, type ComparedFigure } from './figures';
export { tankSolid, type TankSolid } from './solid';
export { tankTable, type TableAt } from './table';
export { workingOf, type Working, type WorkingStep, type WorkingTerm } from './workings';
export {
  COMFORT_RATIO,
  DIRTY_RATIO,
  LOW_VOLTS_RATIO,
  VAPOUR_MARGIN_PA,
  type DutyResult,
  type FlowResult,
  type LossShare,
  type PumpChartPoint,
  type PumpResult,
} from './flowResult';
export { MOST_DROP_RATIO, type ElectricsResult } from './electrics';
export { flowInputsOf, tankFluid, type EvaluationCode } from './flowInputs';
export * from './lines';
export type { BalancePoint, Detail, PickupResult, TankResult } from './tankResult';
export type { SectionDrawing, SenderDrawing, TankDrawing } from './drawing';
export { fitFor, fitForSteps, hasReach, hasSpace, reachFor, type FitOutcome, type ReachOutcome } from './fitCache';
export type { LineGap } from './lineGaps';
export { fitOf, type FitGap, type FitResult, type SurveyResult, type TankFit } from './fit';
export { type FitDoubt } from './fitDoubts';
export {
  checkedWay,
  MANY_LOOKS,
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
} from './ways';
export type { Move, Opening, Removal, StepCheck, WayCheck, WayOut, WayProgress } from '../fit';
export {
  builtResult,
  changesOf,
  withChange,
  type BuiltResult,
  type FaceName,
  type TankChange,
  type TankChangeResult,
} from './tankChanges';
export { largestTanks, withLargest, type LargestTank } from './largestTanks';
export { fitDrawing, type FitDrawing } from './fitDrawing';
export { reachOf, type ReachAnswer, type ReachJob, type ReachWhen, type ToolAtWork } from './reach';
export { mirrored, templatesOf, type Template, type TemplateEdge } from './templates';
export {
  calibrationResult,
  readingValue,
  taughtByPours,
  type CalibrationResult,
  type ReadingKind,
} from './calibration';
export { designedSender, refittedSender, type DesignedSender, type RefittedSender } from './senderDesign';
export { evenStep_m3, type DipResult, type SightResult } from './scales';
export { rigPlan, type RigPlan } from './rig';
export { faceSheets, onDocument, sheetsOf, type FaceSheet, type SheetPort, type SheetsOutcome } from './sheets';
export { SHEET_CHECKS, type FromEdge, type SheetCheck, type SheetCheckKind } from './sheetChecks';
export { heightForReserve, pickupCuts, type CutSpread, type PickupPlan, type ReserveResult } from './pickups';
