import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { percentile, type Bench } from './measure';

/** From the key that changes a value to the frame in which all numbers belong to it. */
const EDITS = 30;
const WARM_UP = 5;
const GOAL_MS = 50;
const PORT = 3219;

export const editToNumbers: Bench = {
  name: 'edit-to-numbers',
  async run() {
    const samples = await withServer(measureAll);
    const value = Number(percentile(samples, 0.95).toFixed(1));
    return { name: 'edit-to-numbers', value, unit: 'ms', reference: `95th percentile of ${samples.length} edits over all demo systems, real browser`, ratio: null, goal: GOAL_MS, met: value <= GOAL_MS };
  },
};

async function withServer<T>(work: (base: string) => Promise<T>): Promise<T> {
  const base = `http://127.0.0.1:${PORT}`;
  const server = spawn(process.execPath, ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(PORT)], {
    stdio: 'ignore', env: { ...process.env, NODE_ENV: 'production', GASLINE_DEMO: '1', GASLINE_DATA: mkdtempSync(path.join(tmpdir(), 'gasline-bench-')) },
  });
  try {
    for (let tries = 0; tries < 100 && !(await fetch(`${base}/api/systems`).then((r) => r.ok, () => false)); tries++) await new Promise((resolve) => setTimeout(resolve, 200));
    return await work(base);
  } finally {
    server.kill();
  }
}

async function measureAll(base: string): Promise<number[]> {
  const executablePath = process.env.GASLINE_CHROMIUM ?? ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync);
  const browser = await chromium.launch({ ...(executablePath ? { executablePath } : {}), args: ['--no-sandbox', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const samples: number[] = [];
    for (const file of readdirSync('demo').filter((name) => name.endsWith('.json'))) {
      await page.goto(`${base}/systems/${file.replace(/\.json$/, '')}`);
      samples.push(...(await measurePage(page)));
    }
    return samples;
  } finally {
    await browser.close();
  }
}

async function measurePage(page: Page): Promise<number[]> {
  await page.locator('[data-testid=numbers][data-fresh=true]').waitFor();
  // Whatever the tank's shape, one of its sizes.
  const field = page.getByTestId('sizes').getByLabel(/^(Inside|Outside) (length|diameter)$/).first();
  await field.focus();
  await page.evaluate(() => {
    const numbers = document.querySelector('[data-testid=numbers]')!;
    const times: number[] = [];
    let pressed = 0;
    window.addEventListener('keydown', () => (pressed = performance.now()), { capture: true });
    new MutationObserver(() => {
      if (pressed === 0 || numbers.getAttribute('data-fresh') !== 'true') return;
      const from = pressed;
      pressed = 0;
      requestAnimationFrame(() => times.push(performance.now() - from));
    }).observe(numbers, { attributes: true, attributeFilter: ['data-fresh'] });
    Object.assign(window, { editTimes: times });
  });
  for (let edit = 0; edit < EDITS + WARM_UP; edit++) {
    // Always onward: a size that was there before would come out of the cache.
    await page.keyboard.press('ArrowUp');
    await page.waitForFunction((count) => (window as unknown as { editTimes: number[] }).editTimes.length > count, edit);
    await page.waitForTimeout(120);
  }
  return (await page.evaluate(() => (window as unknown as { editTimes: number[] }).editTimes)).slice(WARM_UP);
}
