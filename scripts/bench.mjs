import { ensureChromium } from './chromium.mjs';
import { ensureBuilt, ensureInstalled, run } from './setup.mjs';

/** `npm run bench`: measures the built app in a real browser. Set-up speaks on stderr so that --json stays clean. */
console.log = console.error;
ensureInstalled();
const chromium = ensureChromium();
if (!chromium || ensureBuilt() !== 0) process.exit(1);
process.exit(run('npx', ['tsx', 'bench/index.ts', ...process.argv.slice(2)], { env: { GASLINE_CHROMIUM: chromium } }));
