import { bundled, ensureBuilt, ensureInstalled, run } from './setup.mjs';

/** `npm run drill`: hard kills, mutated files and races, on the built app. */
console.log = console.error;
await ensureInstalled();
if ((await ensureBuilt()) !== 0) process.exit(1);
// Where packages are found, and where a build that runs meanwhile takes nothing away.
const CACHE = 'node_modules/.cache/gasline';
const writer = await bundled('drill/writer.ts', `${CACHE}/drill-writer.mjs`);
process.exit(
  run('node', [await bundled('drill/index.ts', `${CACHE}/drill.mjs`), ...process.argv.slice(2)], {
    env: { GASLINE_DRILL_WRITER: writer },
  }),
);
