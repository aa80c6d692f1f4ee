/**
 * Whether a body fits into the space it is meant for, and how it comes in and out.
 *
 * Read `scene.ts` for the words (obstacle, panel, body, piece), then
 * `clearance.ts` for how near they come. `bay.ts` makes the space from tape
 * readings that `adjust.ts` brings to agree; `largest.ts` asks how big a tank
 * could be; `wayOut.ts` looks for a way out (`slide.ts` is how a part gives way
 * to what it touches), `moves.ts` checks one. `reach.ts`
 * asks whether a hand or a tool gets to a place.
 */
export { adjust, type Adjusted, type Contradiction, type How, type Reading, type SurveyPoint } from './adjust';
export {
  drawnBay,
  MESH_SIDES,
  readingOf,
  surveyedBay,
  type Bay,
  type BayAxis,
  type BayCode,
  type BayPlan,
  type MeshSide,
  type StationCorner,
  type Survey,
  type Measurement,
} from './bay';
export {
  clearanceAt,
  clearanceTo,
  clearanceToPanel,
  distanceTo,
  leastAt,
  leastToPanel,
  SIX_WAYS,
  type Clearance,
} from './clearance';
export {
  isSolid,
  movedTo,
  positionsOver,
  rangeOf,
  standing,
  type Body,
  type Motion,
  type Panel,
  type Piece,
  type Role,
  type Obstacle,
  type WallKind,
} from './scene';
export { chanceAllPositive, chancesAllPositive, movedBy_m, type Profile } from './chance';
export { seeded, type Chance } from '../seeded';
export {
  alongMove,
  checkWay,
  isOut,
  joinedSurface,
  lengthOut,
  moveBetween,
  roomOf,
  type Blocker,
  type Move,
  type Part,
  type Room,
  type StepCheck,
  type WayCheck,
} from './moves';
export { openingsBy, removalOrder, type Opening, type Removal } from './removal';
export { findWay, GAPS_M, type WayCode, type WayOut } from './wayOut';
export type { WayProgress, WaySearch } from './waySpace';
export {
  handHolds,
  meets,
  nozzleHolds,
  reached,
  screwHolds,
  sightHolds,
  tighteningHolds,
  torchHolds,
  widestArc,
  type Held,
  type Hold,
  type Reached,
  type Standing,
} from './reach';
export { fixedTool, socketTools, spannerTools, spunAt, type Tool } from './tools';
export { boxVolume_m3, largestBox, type FreeBox, type FreeSpace } from './largest';
export { largestPrism, type FreePrism } from './largestPrism';
