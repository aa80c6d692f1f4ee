/**
 * What the liquid (and the air that replaces it) is like at a temperature.
 *
 * Read `properties.ts` first: `fluidState` is the one way in. The laws' data
 * and sources stand in `reference/fluids.ts`; a new fluid is a new row there,
 * and a new law a new case here. `atmosphere.ts` gives ambient pressure by
 * altitude and the air in a vent.
 */
export {
  fluidState,
  densityAt,
  viscosityAt,
  vapourAt,
  volumeCorrection,
  type FluidBatch,
  type FluidState,
} from './properties';
export { ambientPressure_Pa, airState, type AirState } from './atmosphere';
