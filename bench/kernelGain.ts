import { solveNetwork } from '../src/core/network';
import { lawFor, runKernel, type Kernel } from '../src/core/network/kernel';
import { plainKernel } from '../scripts/plainKernel';
import { grid, ours } from './network';
import { percentile, type Bench } from './measure';

const SIZES = [10, 60, 500] as const;
const TURNS = 60;
/** Solutions in one reading of the clock. */
const AT_ONCE: Readonly<Record<number, number>> = { 10: 100, 60: 30, 500: 3 };
/** For less than this a compiled part is not worth its keep. */
const GOAL = 1.2;

/** The compiled kernel and its own source as plain JavaScript, by turns on the same networks. */
export const kernelGain: Bench = {
  name: 'kernel-gain',
  async run() {
    const plain = await plainKernel(lawFor);
    const each = SIZES.map((lines) => {
      const network = ours(grid(lines));
      const timed = (kernel: Kernel | undefined): number => {
        runKernel(kernel);
        const began = performance.now();
        for (let i = 0; i < AT_ONCE[lines]!; i++) solveNetwork(network);
        return (performance.now() - began) / AT_ONCE[lines]!;
      };
      for (let i = 0; i < 10; i++) {
        timed(undefined);
        timed(plain);
      }
      const turns = Array.from({ length: TURNS }, () => [timed(undefined), timed(plain)] as const);
      runKernel(undefined);
      const [compiled, slow] = [0, 1].map((which) =>
        percentile(
          turns.map((turn) => turn[which]!),
          0.5,
        ),
      ) as [number, number];
      return { lines, compiled, slow, gain: slow / compiled };
    });
    const least = Number(Math.min(...each.map(({ gain }) => gain)).toFixed(2));
    return {
      name: 'kernel-gain',
      value: least,
      unit: '×',
      ratio: least,
      goal: GOAL,
      met: least >= GOAL,
      reference: `plain JavaScript of the same source over the compiled kernel, whole solutions: ${each.map(({ lines, compiled, slow, gain }) => `${lines} lines ${(1e3 * slow).toFixed(0)} over ${(1e3 * compiled).toFixed(0)} µs, ${gain.toFixed(2)} ×`).join('; ')}`,
    };
  },
};
