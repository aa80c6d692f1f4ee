import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { defineConfig } from '@playwright/test';

const PORT = Number(process.env.GASLINE_TEST_PORT ?? 3217);
const CHROMIUM =
  process.env.GASLINE_CHROMIUM ??
  ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].find(existsSync);

/** Each run has a data folder of its own, with the demo in it. */
const data = (process.env.GASLINE_TEST_DATA ??= mkdtempSync(path.join(tmpdir(), 'gasline-browser-')));

export default defineConfig({
  testDir: 'tests/browser',
  // A page has workers of its own and keeps more than one core busy: two at a time take two thirds of the time, but
  // each longer. No test stands on one before it: a long file does not keep one busy while the other has nothing left.
  fullyParallel: true,
  workers: 2,
  // What passes only at the second try is told by name at the end of `npm test`: to be looked into, but nothing lost.
  retries: 1,
  // Against what hangs; how fast it is, the benchmarks say.
  timeout: 240_000,
  expect: { timeout: 75_000 },
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    trace: { mode: 'on-first-retry', screenshots: false, sources: false },
    launchOptions: {
      ...(CHROMIUM ? { executablePath: CHROMIUM } : {}),
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: `node .next/serve.mjs --port ${PORT}`,
    url: `http://127.0.0.1:${PORT}/api/systems?most=1`,
    timeout: 60_000,
    reuseExistingServer: false,
    env: { NODE_ENV: 'production', GASLINE_DATA: data, GASLINE_DEMO: '1', NEXT_TELEMETRY_DISABLED: '1' },
  },
});
