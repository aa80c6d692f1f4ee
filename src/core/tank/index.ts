/**
 * What a tank holds and what of it can be had, at any attitude.
 *
 * Read `pickup.ts` first: usable liquid is what lies above the surface at
 * which the pickup draws air, at the worst attitude asked for. `lobes.ts`
 * finds what saddles hold back; `strapping.ts` tabulates volume against
 * depth; `mass.ts` weighs the shell.
 */
export { starvingOffset_m, unusable_m3, worstUnusable, envelopeSteps, type Envelope, type Inlet, type WorstAttitude } from './pickup';
export { attitudeMap, symmetricSteps, type AttitudeMap } from './attitudeMap';
export { leftBehind_m3 } from './lobes';
export { strappingTable, tableByStep, type StrappingRow } from './strapping';
export { commonCentre_m, shellCentre_m, shellMass_kg } from './mass';
