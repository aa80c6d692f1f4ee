/**
 * Threads and the joints that they make: what an unknown one is, what
 * closes it.
 *
 * Read `threadFinder.ts` first: from a calliper's and a pitch gauge's reading
 * to the threads of `reference/threads.ts` that it may be. `joints.ts` says which
 * ends go together, and finds the adapters for those that do not.
 */
export { parsePitch, PITCH_EXAMPLE } from './pitchText';
export {
  findThread,
  type FoundThread,
  type ThreadCandidate,
  type ThreadCode,
  type ThreadReading,
  type ThreadTell,
} from './threadFinder';
export { holePlan, tapPlan, type HolePlan, type TapPlan } from './holes';
export {
  adapterChains,
  mates,
  mismatch,
  MOST_ADAPTERS,
  placeChain,
  sealOf,
  spannersOf,
  type AdapterChain,
  type PlacedAdapter,
} from './joints';
