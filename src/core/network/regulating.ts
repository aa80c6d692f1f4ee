import type { GraphLink, GraphNode, GraphSolution } from './solve';

/**
 * What a regulator does: it holds its pressure, stands open because it cannot
 * reach it, or is shut because flow would go backward or the pressure is there
 * without it.
 */
export type Regulating = 'holding' | 'open' | 'shut';

export type RegulatedSolution = GraphSolution & {
  /** By the number of its link. */ readonly regulators: ReadonlyMap<number, Regulating>;
  /** Those that have something to hold, however they stand. */ readonly able: ReadonlySet<number>;
  /** What was solved, to be solved again with other pressures given; none where it was gone the slow way. */
  readonly cut: Cut | undefined;
};

/** A graph without the links of holding regulators, and with what they hold given at nodes. */
export type Cut = {
  readonly nodes: readonly (Omit<GraphNode, 'fixed_Pa' | 'outflow_m3PerS'> & {
    fixed_Pa?: number;
    outflow_m3PerS: number;
  })[];
  readonly held: ReadonlySet<number>;
  readonly links: readonly GraphLink[];
  readonly holding: readonly number[];
  readonly kept: readonly number[];
};

/** A state changes only beyond rounding [Pa]. */
export const SLACK_PA = 1e-3;

/** More than this past a seat is flow, less is what it leaks, and rounding [m³/s]: a thousandth of a drop a second. */
export const FLOWS_M3_PER_S = 5e-11;
