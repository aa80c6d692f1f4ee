import { parseArgs } from 'node:util';
import { loadKernel } from '@/core/geometry';
import { imports } from './imports';
import { serverKills, writerKills } from './kills';
import { races } from './races';

/** What a drill found; it passes when nothing of what must not happen did. */
export type Drilled = { readonly figures: string; readonly passed: boolean };
export type Drill = { readonly name: string; readonly run: (share: number, seed: number) => Promise<Drilled> };

const DRILLS: readonly Drill[] = [writerKills, serverKills, imports, races];

/**
 * `npm run drill [-- --only NAME] [-- --share 0.1] [-- --seed N]`: what tests have no time for, on folders and
 * ports of its own and on this machine alone. One line a drill.
 */
async function main(): Promise<number> {
  const { values } = parseArgs({
    options: { only: { type: 'string' }, share: { type: 'string' }, seed: { type: 'string' } },
  });
  const chosen = DRILLS.filter(({ name }) => values.only === undefined || name === values.only);
  const [share, seed] = [Number(values.share ?? 1), Number(values.seed ?? 14)];
  if (chosen.length === 0 || !(share > 0 && share <= 1) || !Number.isInteger(seed)) {
    console.error(
      `There is ${DRILLS.map(({ name }) => name).join(', ')}; --share is above 0 and up to 1, --seed a whole number.`,
    );
    return 2;
  }
  await loadKernel();
  let failed = 0;
  for (const { name, run } of chosen) {
    const { figures, passed } = await run(share, seed);
    if (!passed) failed++;
    console.log(`${passed ? 'passed' : 'FAILED'} ${name}: ${figures}`);
  }
  return failed === 0 ? 0 : 1;
}

main().then(
  (code) => process.exit(code),
  (error: unknown) => {
    console.error(error);
    process.exit(1);
  },
);
