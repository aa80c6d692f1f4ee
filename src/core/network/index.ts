/**
 * Steady flow in any network of lines, fittings, filters, pumps and vents.
 *
 * Read `network.ts` first: `solveNetwork` takes nodes with heights and links
 * made of elements. `laws.ts` and `friction.ts` say what each element costs;
 * `solve.ts` finds flows and pressures on a bare graph and knows nothing of
 * fuel, over `newton.ts` and `sparse.ts`; `regulate.ts` adds what regulators hold. To add an element, add a case to
 * LinkElement and its law.
 */
export {
  graphOf,
  solveNetwork,
  linkLaw,
  partAround,
  withoutIslands,
  type Joined,
  type LinkElement,
  type LinkResult,
  type Network,
  type NetworkCode,
  type NetworkLink,
  type NetworkNode,
  type NetworkSolution,
  type NodeResult,
} from './network';
export {
  graphShape,
  setLine,
  solveAgain,
  solveGraph,
  type Graph,
  type GraphLink,
  type GraphNode,
  type GraphShape,
  type GraphSolution,
  type SolveCode,
} from './solve';
export { solveRegulated } from './regulate';
export { LEAST_SLOPE } from './newton';
export { type RegulatedSolution, type Regulating } from './regulating';
export {
  boreArea_m2,
  colebrook,
  frictionFactor,
  frictionNumber,
  LAMINAR_RE,
  regimeOf,
  reynoldsNumber,
  TURBULENT_RE,
  type Regime,
} from './friction';
export {
  bodyLaw,
  checkedLaw,
  evenLaw,
  filterLaw,
  limitedLaw,
  lineLaw,
  lineTerms,
  orificeLaw,
  SEAT_PA_S_PER_M3,
  seriesLaw,
  sizedK,
  ventLaw,
  type FittingLoss,
  type Liquid,
  type Loss,
  type LossLaw,
} from './laws';
export {
  atVoltage,
  parsePumpCurve,
  pumpLaw,
  wiredPumpLaw,
  type PumpCode,
  type PumpCurve,
  type PumpPoint,
} from './pump';
