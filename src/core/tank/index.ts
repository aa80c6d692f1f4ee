/**
 * What a tank holds and what of it can be had, at any attitude.
 *
 * Read `pickup.ts` first: usable liquid is what lies above the surface at
 * which the pickup draws air, at the worst attitude asked for. `lobes.ts`
 * finds what saddles hold back, `compartments.ts` the compartments that baffles make,
 * `hold.ts` how long one feeds its pickup and `can.ts` how long a can about it does,
 * `slosh.ts` how liquid swings, `foam.ts` what foam does to it and how it is cut;
 * `strapping.ts` tabulates volume against depth, `levelCurve.ts` has it ready; `mass.ts` weighs the shell,
 * `tipping.ts` finds how far it leans before it goes over.
 */
export {
  drawable_m3,
  keptLevels_m,
  starvingOffset_m,
  unusable_m3,
  worstUnusable,
  envelopeSteps,
  type Envelope,
  type Inlet,
  type LiquidSpace,
  type WorstAttitude,
} from './pickup';
export {
  compartmentBelow_m3,
  divided,
  fitPlate,
  onPlate,
  plateArea_m2,
  type Compartment,
  type Division,
  type FittedPlate,
  type Passage,
  type PassageKind,
  type Plate,
} from './compartments';
export { keptLevelCurve, levelCurve, type LevelCurve } from './levelCurve';
export { headForFlow_m, hold, ORIFICE_SHARE, orificeFlow_m3PerS, type Hold, type HoldInputs } from './hold';
export { canHold, canVolume_m3, type Can, type CanInputs } from './can';
export { liquidReach, roundSloshFrequency_Hz, sloshFrequency_Hz, type LiquidReach } from './slosh';
export { foamCrossing_s, foamDamping_ratio, foamPieces, passes, PEAKLESS_RATIO, type FoamPieces } from './foam';
export { attitudeMap, symmetricSteps, type AttitudeMap } from './attitudeMap';
export { homeLobe, leftBehind_m3, type HomeLobe } from './lobes';
export { strappingTable, tableByStep, type StrappingRow } from './strapping';
export { hangingUp, slingLeg } from './hanging';
export { edgesOf, rigidTip_rad, tipAngle_rad, type Standing, type TipEdge } from './tipping';
export { commonCentre_m, shellCentre_m } from './mass';
export { panelBulge_m, panelYields_Pa, type Panel } from './panel';
