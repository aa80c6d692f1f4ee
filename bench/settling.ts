import type { Page } from '@playwright/test';
import { keyToFrame, openBare } from './bare';
import { percentile, type Bench } from './measure';
import { browsed, served } from './served';

const SYSTEMS = ['crab-boat', 'snow-vehicle', 'hill-climb-car', 'forest-trailer'];
const NUMBERS = '[data-testid=numbers][data-fresh=true]';
const SETTLED = `${NUMBERS}:has([data-testid=number-findings][data-sure=true]):not(:has([data-fresh=false]))`;
const TILTS = 40;
const TILT_PAUSE_MS = 50;
const TILT_GOAL = 1.5;
const EDITS = 5;
const SETTLED_GOAL = 30;

const opened = async (page: Page, url: string, system: string): Promise<void> => {
  await page.goto(`${url}/systems/${system}?stage=tank`);
  await page.locator(SETTLED).waitFor({ state: 'attached', timeout: 60_000 });
};
const ms = (times: readonly number[], share = 0.95): string => `${percentile(times, share).toFixed(0)} ms`;

/** The pitch moved on and on, as fast as its numbers come. */
export const tiltToNumbers: Bench = {
  name: 'tilt-to-numbers',
  run: () =>
    served(
      ({ url }) =>
        browsed(async (page) => {
          const keys = { key: 'ArrowUp', presses: TILTS, pause_ms: TILT_PAUSE_MS };
          await openBare(page);
          const bare = (await keyToFrame(page, 'main', keys)).slice(5);
          const tilts: number[] = [];
          for (const system of SYSTEMS) {
            await opened(page, url, system);
            await page.getByRole('slider', { name: /^Pitch/ }).focus();
            tilts.push(...(await keyToFrame(page, '[data-testid=numbers]', keys)).slice(5));
          }
          const ratio = Number((percentile(tilts, 0.95) / percentile(bare, 0.95)).toFixed(2));
          return {
            name: 'tilt-to-numbers',
            value: ratio,
            unit: '×',
            ratio,
            goal: TILT_GOAL,
            met: ratio <= TILT_GOAL,
            reference: `bare page; ${tilts.length} steps of the pitch of ${SYSTEMS.length} systems, 95th percentile ${ms(tilts)} (median ${ms(tilts, 0.5)}), bare ${ms(bare)} (${ms(bare, 0.5)})`,
          };
        }),
      true,
    ),
};

/** From the last edit until all findings, spreads and clearances belong to it. */
export const editToSettled: Bench = {
  name: 'edit-to-settled',
  run: () =>
    served(
      ({ url }) =>
        browsed(async (page) => {
          await openBare(page);
          const bare = (await keyToFrame(page, 'main', { key: 'ArrowUp', presses: 40, pause_ms: 300 })).slice(5);
          const settled: number[] = [];
          const each: string[] = [];
          for (const system of SYSTEMS) {
            await opened(page, url, system);
            const field = page.locator('[data-path$="shape.length_m"] input, [data-path$="shape.diameter_m"] input');
            await field.first().focus();
            const times: number[] = [];
            for (let i = 0; i < EDITS; i++) {
              const began = performance.now();
              await page.keyboard.press('ArrowUp');
              await page.locator('[data-testid=number-findings][data-sure=false]').waitFor({ state: 'attached' });
              await page.locator(SETTLED).waitFor({ state: 'attached', timeout: 120_000 });
              times.push(performance.now() - began);
            }
            settled.push(...times);
            each.push(`${system} ${ms(times, 0.5)}`);
          }
          const ratio = Number((percentile(settled, 0.95) / percentile(bare, 0.95)).toFixed(1));
          return {
            name: 'edit-to-settled',
            value: ratio,
            unit: '×',
            ratio,
            goal: SETTLED_GOAL,
            met: ratio <= SETTLED_GOAL,
            reference: `bare page; ${settled.length} edits of a size, 95th percentile ${ms(settled)}, bare ${ms(bare)}; medians: ${each.join(', ')}`,
          };
        }),
      true,
    ),
};
