/**
 * Systems from the few questions of a job. Read `jobs.ts` first: the table of kinds with what each asks; each kind's
 * circuits are made in a file of its own, from what `kit.ts` has. To add a kind, add a row with its draft.
 */
export { JOBS } from './jobs';
export {
  answersFor,
  checkedAnswers,
  openQuestions,
  type AnswerValue,
  type Job,
  type JobAnswers,
  type Question,
} from './job';
export {
  freeInlets,
  JOINED_BY,
  joiningRun,
  rejoined,
  STANDS,
  transferPickup,
  withSecondTank,
  type RejoinCode,
  type SecondTank,
} from './secondTank';
export { withAppliance, type Appliance } from './appliance';
export { withSurgePot } from './surgePot';
export { withInTankPump, withSump } from './retrofit';
export { asVessel } from './boughtVessel';
export { coolantSwell_ratio, expelledVolume_m3 } from './expelled';
export { DRIVING } from './needs';
