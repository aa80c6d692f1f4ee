/**
 * What the needle says against what is in the tank.
 *
 * Read `gauge.ts` first: `gaugeCurve` goes from volume to surface to sender to
 * reading to needle. `senderLaw.ts` says what there is to know of a kind of
 * sender; `swingArm.ts` and `probe.ts` are the two, each with its free run in
 * three dimensions. `needle.ts` holds the kinds of gauge, `correction.ts` what
 * a gauge is taught, `design.ts` finds a sender for a tank, `scales.ts` marks
 * sight tubes and sticks, and `calibrate.ts` with `unknowns.ts` and `pourModel.ts` make sense of
 * measured pours; `rig.ts` pretends to be a tank.
 */
export {
  bentArm,
  floatCentre_m,
  freeSwing,
  armAngle_rad,
  armShare,
  armAngleAt,
  wireAt,
  WALL,
  type FreeSwing,
  type SwingArm,
} from './swingArm';
export { freeTravel, probePoint, probeShare, span_m, type Probe } from './probe';
export { freeRun, lawOf, readingOf, shareAt, type Sender } from './sender';
export type { FreeRun, Hindrance, SenderCode, SenderLaw } from './senderLaw';
export { crossCoil, needleAt, taughtAt, type Gauge, type NeedleCode, type Scale, type TaughtPoint } from './needle';
export { correctionTable, taughtFrom, type CorrectionTable, type Stood } from './correction';
export {
  bandAt,
  gaugeCurve,
  needleBand,
  readingAt,
  surfaceTable,
  volumesAt,
  withSlopes,
  type GaugeCode,
  type GaugeCurve,
  type GaugePoint,
  type Instrument,
  type Surround,
  type VolumeSpan,
} from './gauge';
export {
  BEND_AT_M,
  designArm,
  refitArm,
  type ArmPlan,
  type DesignSite,
  type DesignSteps,
  type Refit,
  type SenderDesign,
} from './design';
export { sightScale, stickScale, type Mark, type ScaleCode, type SightScale, type StickScale } from './scales';
export { isotonic } from './isotonic';
export { loggedPours, type LoggedPour, type LogLimits, type Pour, type PourFlag } from './pours';
export { straight } from './straight';
export { measuredCurve, type CalibrateCode, type MeasuredCurve, type MeasuredPoint } from './calibrate';
export { UNKNOWNS, type Plan, type UnknownKey } from './pourModel';
export { explained, type Explained, type ExplainCode, type FoundUnknown } from './unknowns';
export {
  AT_REST,
  pouring,
  rigReading,
  settledReading,
  stepRig,
  type RigReading,
  type RigSetup,
  type RigState,
} from './rig';
