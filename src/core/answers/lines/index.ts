/**
 * What the lines of a system do, in the trade's words.
 *
 * Read `joints.ts` first (what meets what, and the lists to buy and cut by),
 * then `profile.ts` (height and pressure along a run). `spills.ts` says what
 * runs out where a line is opened or breaks, `transfers.ts` what the circuits do
 * beside feeding, `changes.ts` what another size or part would do, `routing.ts`
 * what bends, holders and holes want. `answers.ts` puts together what every
 * full evaluation holds.
 */
export {
  jointsOf,
  linesList,
  mendsOf,
  type CutRow,
  type Joint,
  type JointState,
  type LinesList,
  type PartsRow,
  type StockTotal,
} from './joints';
export { linePoints, profilesOf, type ProfilePoint, type RunProfile } from './profile';
export { breakSpills, jointSpills, type BreakSpill, type JointSpill, type Spill, type TankSpill } from './spills';
export {
  circuitsOf,
  type BackflowResult,
  type CircuitsResult,
  type LowestResult,
  type ReturnResult,
  type SightErrorResult,
  type TransferResult,
} from './transfers';
export {
  CALM_M_PER_S,
  costliest,
  sizedLines,
  sizeTable,
  withLineStock,
  type Costliest,
  type Gain,
  type SizeRow,
  type SizeTable,
} from './changes';
export { developedLength_m, endsApart, routesOf, type EndsApart, type PassCheck, type RouteResult } from './routing';
export { expelledOf, type Expelled, type ExpelledCode } from './expelled';
export { overWater, type OverWater, type VentEnd } from './ventEnds';
export { BOILING_KNOWN_TO_K, type Coolant, type CoolantMark } from './coolant';
export { mixUpsOf, type MixUp } from './mixUps';
export { wrongFuelsOf, type WrongFuel } from './wrongFuel';
export { primingsOf, type Priming } from './priming';
export { engineNeed, type EngineNeed } from './engine';
export { lineAnswers, type LineAnswers } from './answers';
