/**
 * The state: what changes in use while the model stays as it is.
 *
 * Read `state.ts`: attitude and acceleration, liquid in each tank, temperature,
 * ambient pressure, duty, volts, and where valves, selectors, couplers and pumps
 * stand. Conditions, as they are typed and kept beside the plan, describe one;
 * a course of states is a scenario.
 */
export { attitudeOf, stateOf, type State, type StateCode } from './state';
export { pumpsStopped, withPositions, type Position, type Positions } from './positions';
