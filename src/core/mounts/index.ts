/**
 * What holds a tank: `statics.ts` shares a load among supports that push or
 * pull, `strength.ts` says what bolts, welds, straps and plates bear of it,
 * `vibration.ts` how it swings on them by itself.
 */
export {
  acrossOf,
  reactionOf,
  shiftAt,
  standOf,
  wrenchOf,
  type Held,
  type Leg,
  type Loose,
  type Shift,
  type Stand,
  type StaticsCode,
  type Support,
  type Wrench,
} from './statics';
export { naturalModes, stiffnessOf, type LineSpring, type Mode, type RigidMass } from './vibration';
export {
  armBends_N,
  armStiffness_NPerM,
  bearing_N,
  boltProof_N,
  boltUse_ratio,
  isWood,
  pressed_Pa,
  pullThrough_N,
  strapHolds_N,
  stressArea_m2,
  threadHolds_N,
  tightening_Nm,
  weld_N,
  type PressedPanel,
} from './strength';
