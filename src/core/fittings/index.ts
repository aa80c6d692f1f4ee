/**
 * Threads, and later the joints that they make: what an unknown one is, what
 * closes it.
 *
 * Read `threadFinder.ts` first: from a calliper's and a pitch gauge's reading
 * to the threads of `reference/threads.ts` that it may be.
 */
export { parsePitch, PITCH_EXAMPLE } from './pitchText';
export { findThread, type FoundThread, type ThreadCandidate, type ThreadCode, type ThreadReading, type ThreadTell } from './threadFinder';
export { holePlan, tapPlan, type HolePlan, type TapPlan } from './holes';
