import { spawnSync } from 'node:child_process';
import { percentile, type Bench } from './measure';

const RUNS = 9;

/** How long a command takes [s], median of some runs after the first, which may have to compile it. */
function seconds(args: readonly string[]): number {
  const times = Array.from({ length: RUNS + 1 }, () => {
    const began = performance.now();
    const { status, stderr } = spawnSync(process.execPath, args, { encoding: 'utf8', maxBuffer: 1e8 });
    if (status !== 0) throw new Error(`${args.join(' ')} failed: ${stderr}`);
    return (performance.now() - began) / 1000;
  });
  return percentile(times.slice(1), 0.5);
}

const overNode = (name: string, verb: string, goal: number): Bench => ({
  name,
  run: () => {
    const node = seconds(['-e', '0']);
    const asked = seconds(['scripts/gasline.mjs', verb, 'demo/crab-boat.json']);
    const ratio = Number((asked / node).toFixed(2));
    return Promise.resolve({
      name,
      value: ratio,
      unit: '×',
      ratio,
      goal,
      met: ratio <= goal,
      reference: `"${verb}" of the crab boat, ${(1000 * asked).toFixed(0)} ms, over node that does nothing, ${(1000 * node).toFixed(0)} ms; medians of ${RUNS}, without npm's own start`,
    });
  },
});

export const cliTank = overNode('cli-tank', 'tank', 6);
export const cliCheck = overNode('cli-check', 'check', 20);
