/**
 * How long and how far the fuel goes.
 *
 * Read `endurance.ts`: usable fuel less reserve, over burn at a duty. Legs,
 * stops and tank order will join here.
 */
export { burnAtDuty_m3PerS, burnFromPower_m3PerS, endurance, type Endurance, type Trip } from './endurance';
