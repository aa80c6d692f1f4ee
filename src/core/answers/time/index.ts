/**
 * What happens over time: a scenario played on a system.
 *
 * Read `simulate.ts` first: liquid and gas of each tank are the state, and at every moment the network is steady
 * between the pressures that they give. `nets.ts` sets out what can flow as things stand (`net.ts` says what a net is),
 * `rates.ts` works out what flows and books it, `course.ts` has what stands how, `watches.ts` what happens when;
 * `schedule.ts` reads what is set at times, `ventWay.ts` where liquid goes that gets into a vent, `lineVolumes.ts` what
 * lines hold.
 */
export { simulate, type SimulateCode } from './simulate';
export { type EventKind, type Sample, type Simulated, type TimeEvent, type Totals } from './played';
export { AS_IT_STANDS, scenariosFor, type ReadyScenario } from './scenarios';
export { tallyOf, type Extreme, type Tally } from './tally';
export { playedFor, readyFor, type Played, type PlayedCode, type PlayNews } from './playedFor';
export { type VerdictLine } from './verdict';
export { momentOf, type Instant, type Moment, type MomentCode, type TankAtMoment } from './moment';
export { transferDesign, type SchoolCourse, type SchoolResult } from './transferDesign';
export { joinablePairs, joinedBy, standsFor, type Stand, type TransferSchool } from './transferSchools';
export { sampleAt } from './sampleAt';
export { positionOf, positionsAt } from './positionsAt';
