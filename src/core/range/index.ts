/**
 * How long and how far the fuel goes.
 *
 * Read `endurance.ts`: usable fuel less reserve, over burn at a duty. Legs,
 * stops and tank order will join here.
 */
export { burnAtDuty_m3PerS, burnFromPower_m3PerS, endurance, type Endurance, type Trip } from './endurance';
export {
  burnOf,
  dutyOfBurn_ratio,
  readConsumption,
  wayText,
  type ConsumptionCode,
  type StatedConsumption,
} from './consumption';
export { cruiseTable, type Cruise, type CruiseRow } from './cruise';
export { byHand, USUAL_CAN, type ByHand } from './cans';
