import { createRequire } from 'node:module';

type Rates = (t_s: number, y: number[]) => number[];
type Solver = {
  absoluteTolerance: number | number[];
  relativeTolerance: number | number[];
  maxSteps: number;
  solve: (rates: Rates, from: number, y: number[], to: number) => { y: number[]; nStep: number; nEval: number };
};

// Its own modules cannot be imported: it is asked for as Node did before there were any.
const { Solver } = createRequire(import.meta.url)('odex') as { Solver: new (size: number) => Solver };

/**
 * A general solver of ordinary differential equations beside ours: E. Hairer's ODEX, by extrapolation, for what is not
 * stiff.
 *
 * @param tolerance of each value
 */
export function solvedByOdex(rates: Rates, y: readonly number[], until_s: number, tolerance: readonly number[]) {
  const solver = new Solver(y.length);
  solver.absoluteTolerance = [...tolerance];
  solver.relativeTolerance = tolerance.map(() => 1e-13);
  solver.maxSteps = 1_000_000;
  return solver.solve(rates, 0, [...y], until_s);
}
