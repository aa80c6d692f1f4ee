import type { GraphSolution } from './solve';

/**
 * What a regulator does: it holds its pressure, stands open because it cannot
 * reach it, or is shut because flow would go backward or the pressure is there
 * without it.
 */
export type Regulating = 'holding' | 'open' | 'shut';

export type RegulatedSolution = GraphSolution & {
  /** By the number of its link. */ readonly regulators: ReadonlyMap<number, Regulating>;
};

/** A state changes only beyond rounding [Pa]. */
export const SLACK_PA = 1e-3;

/** More than this past a seat is flow, less is what it leaks, and rounding [m³/s]: a thousandth of a drop a second. */
export const FLOWS_M3_PER_S = 5e-11;
