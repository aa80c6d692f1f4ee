import type { Page } from '@playwright/test';
import { percentile, type Bench } from './measure';
import { browsed, served } from './served';

const OPENS = 8;
const NUMBERS = '[data-testid=numbers][data-fresh=true]';
const KEPT = '[data-testid=numbers-kept]';
const OPEN_RATIO = 2.5;
const SCRIPT_BYTES = 600e3;

/** From the request for a page to what is waited for, each time in a browser that has nothing yet [ms]. */
async function coldLoads(url: string, until: (page: Page) => Promise<unknown>): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; i < OPENS; i++) {
    await browsed(async (page) => {
      await page.goto('about:blank');
      const began = performance.now();
      await page.goto(url, { waitUntil: 'commit' });
      await until(page);
      times.push(performance.now() - began);
    });
  }
  return times;
}

export const openToNumbers: Bench = {
  name: 'open-to-numbers',
  run: () =>
    served(async ({ url }) => {
      const empty = percentile(
        await coldLoads(`${url}/nothing-here`, (page) => page.getByRole('heading').first().waitFor()),
        0.5,
      );
      const crabBoat = `${url}/systems/crab-boat`;
      const first = percentile(await coldLoads(crabBoat, (page) => page.locator(NUMBERS).waitFor()), 0.5);
      // Opened before, as from the library: then they come with the page.
      await browsed(async (page) => {
        await page.goto(crabBoat);
        await page.waitForResponse((response) => response.url().endsWith('/card') && response.ok());
      });
      const open = percentile(await coldLoads(crabBoat, (page) => page.locator(KEPT).waitFor()), 0.5);
      const ratio = Number((open / empty).toFixed(2));
      return {
        name: 'open-to-numbers',
        value: ratio,
        unit: '×',
        ratio,
        goal: OPEN_RATIO,
        met: ratio <= OPEN_RATIO,
        reference: `crab boat that this build has worked out once, asked for to its four numbers in a cold browser, ${open.toFixed(0)} ms, over the page for an unknown address, ${empty.toFixed(0)} ms; medians of ${OPENS}. Never opened before, and until they have been worked out anew: ${first.toFixed(0)} ms, ${(first / empty).toFixed(2)} ×`,
      };
    }, true),
};

export const firstLoadJs: Bench = {
  name: 'first-load-js',
  run: () =>
    served(
      ({ url }) =>
        browsed(async (page) => {
          // By address: what a second worker takes from the browser's own store is not loaded again.
          const scripts = new Map<string, { readonly bytes: number; readonly before: boolean }>();
          let numbers = false;
          page.on('requestfinished', (request) => {
            const before = !numbers;
            if (!/\.js($|\?)/.test(request.url())) return;
            void request.sizes().then(({ responseBodySize }) => {
              if (!scripts.has(request.url())) scripts.set(request.url(), { bytes: responseBodySize, before });
            });
          });
          await page.goto(`${url}/systems/crab-boat?stage=tank`);
          await page.locator(NUMBERS).waitFor();
          numbers = true;
          await page.waitForTimeout(5000);
          const sum = (of: readonly { readonly bytes: number }[]): number =>
            of.reduce((all, { bytes }) => all + bytes, 0);
          const loaded = [...scripts.values()];
          const [first, all] = [sum(loaded.filter(({ before }) => before)), sum(loaded)];
          return {
            name: 'first-load-js',
            value: Math.round(first / 1e3),
            unit: 'kB',
            ratio: null,
            goal: SCRIPT_BYTES / 1e3,
            met: first <= SCRIPT_BYTES,
            reference: `packed, of the page and its workers, until the numbers stand; ${Math.round(all / 1e3)} kB five seconds later`,
          };
        }),
      true,
    ),
};
