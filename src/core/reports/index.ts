/**
 * What a reader is shown, composed of answers and drawings: the pictures of a
 * system, to scale and with their words placed, for screen and paper alike.
 */
export { faceDrawing, MOST_LETTERED, portId, type FaceDrawing, type FaceLook } from './face';
export { levelsDrawing, type LevelsLook, type LevelTank, type Turns } from './levels';
export { cornerId, profileDrawing } from './profile';
export { HIT_MM, ruleScale, SMALL_TEXT_MM, TEXT_MM, type Room } from './room';
export { schematicDrawing, type Placed } from './schematic';
export {
  gripId,
  plateId,
  TANK_VIEWS,
  tankSheet,
  type Grip,
  type TankLook,
  type TankSheet,
  type TankViewKey,
  type ViewFrame,
} from './section';
export { silhouetteDrawing } from './silhouette';
export { spaceDrawing, VIEW_AXES, withRoomFor, type Moving, type SpaceDrawing, type SpaceLook } from './space';
export { holeSizeWords, outlineDrawing, roundHoles, type OutlineLook } from './outline';
export {
  brokenLines,
  figureRoom,
  pagesOf,
  PAPERS,
  scaledDrawing,
  type Block,
  type Column,
  type PaperKey,
  type TitleBlock,
} from './page';
