/**
 * What weight does to what it stands on: `wheels.ts` shares it among wheels on
 * springs, `floating.ts` says how a hull lies with it.
 */
export { springShares, type Spring } from './wheels';
export {
  afloat,
  ballastFor,
  inclinedGm_m,
  MOST_LEAN_RAD,
  ROLL_COEFFICIENT,
  rolledGm_m,
  waterplaneOf,
  type Aboard,
  type Afloat,
  type AfloatCode,
  type Ballast,
  type Hull,
  type Station,
  type Waterplane,
} from './floating';
