import { ensureChromium } from './chromium.mjs';
import { bundled, ensureBuilt, ensureInstalled, run } from './setup.mjs';

/**
 * `npm run bench`: measures the built app in a real browser, and the core as it is shipped. Set-up speaks on stderr so
 * that --json stays clean.
 */
console.log = console.error;
await ensureInstalled();
const chromium = ensureChromium();
if (!chromium || (await ensureBuilt()) !== 0) process.exit(1);
// Compiled ahead as the app is: what compiles while it runs names every function anew, each time that one is made.
const outfile = await bundled('bench/index.ts', '.next/bench.mjs');
process.exit(run('node', [outfile, ...process.argv.slice(2)], { env: { GASLINE_CHROMIUM: chromium } }));
