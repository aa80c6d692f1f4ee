import { existsSync } from 'node:fs';
import { run } from './setup.mjs';

const PLACES = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

export const findChromium = () => process.env.GASLINE_CHROMIUM ?? PLACES.find(existsSync);

/** Debian's Chromium: installed when this runs as root on a Debian; otherwise says what is missing. */
export function ensureChromium() {
  const found = findChromium();
  if (found) return found;
  const canInstall = process.getuid?.() === 0 && existsSync('/usr/bin/apt-get');
  if (canInstall) {
    console.log('Installing Chromium for the browser tests …');
    const quiet = { stdio: ['ignore', 'ignore', 'inherit'], env: { DEBIAN_FRONTEND: 'noninteractive' } };
    if (run('apt-get', ['update', '-qq'], quiet) === 0)
      run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], quiet);
  }
  const installed = findChromium();
  if (!installed)
    console.error(
      'The browser tests need Chromium: install it (Debian: apt-get install chromium), or name it in GASLINE_CHROMIUM.',
    );
  return installed;
}
