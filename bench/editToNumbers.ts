import { readdirSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { percentile, type Bench } from './measure';
import { browsed, served } from './served';

/** From the key that changes a value to the frame in which all numbers belong to it. */
const EDITS = 30;
const WARM_UP = 5;
const GOAL_MS = 50;

export const editToNumbers: Bench = {
  name: 'edit-to-numbers',
  async run() {
    const samples = await served(({ url }) => measureAll(url), true);
    const value = Number(percentile(samples, 0.95).toFixed(1));
    return {
      name: 'edit-to-numbers',
      value,
      unit: 'ms',
      reference: `95th percentile of ${samples.length} edits over all demo systems, real browser`,
      ratio: null,
      goal: GOAL_MS,
      met: value <= GOAL_MS,
    };
  },
};

const measureAll = (base: string): Promise<number[]> =>
  browsed(async (page) => {
    const samples: number[] = [];
    for (const file of readdirSync('demo').filter((name) => name.endsWith('.json'))) {
      await page.goto(`${base}/systems/${file.replace(/\.json$/, '')}`);
      samples.push(...(await measurePage(page)));
    }
    return samples;
  });

async function measurePage(page: Page): Promise<number[]> {
  await page.locator('[data-testid=numbers][data-fresh=true]').waitFor();
  // Whatever the tank's shape, one of its sizes.
  const field = page
    .getByTestId('sizes')
    .getByLabel(/^(Inside|Outside) (length|diameter)$/)
    .first();
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
    await page.waitForFunction(
      (count) => (window as unknown as { editTimes: number[] }).editTimes.length > count,
      edit,
    );
    await page.waitForTimeout(120);
  }
  return (await page.evaluate(() => (window as unknown as { editTimes: number[] }).editTimes)).slice(WARM_UP);
}
