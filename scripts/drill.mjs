import path from 'node:path';
import { ensureBuilt, ensureInstalled, root, run } from './setup.mjs';

/** `npm run drill`: hard kills, mutated files and races, on the built app. */
console.log = console.error;
await ensureInstalled();
if ((await ensureBuilt()) !== 0) process.exit(1);
const { build } = await import('esbuild');
const bundled = async (entry, name) => {
  // Where packages are found, and where a build that runs meanwhile takes nothing away.
  const outfile = path.join(root, 'node_modules/.cache/gasline', name);
  await build({ entryPoints: [path.join(root, entry)], bundle: true, platform: 'node', format: 'esm', packages: 'external', outfile, logLevel: 'warning' });
  return outfile;
};
const writer = await bundled('drill/writer.ts', 'drill-writer.mjs');
process.exit(run('node', [await bundled('drill/index.ts', 'drill.mjs'), ...process.argv.slice(2)], { env: { GASLINE_DRILL_WRITER: writer } }));
