import type { Page } from '@playwright/test';

/** A worker answers each key with six numbers, which are written into the page: no less can be done for an edit. */
const BARE = `<!doctype html><title>bare</title><main data-fresh="true"></main><script>
const worker = new Worker(URL.createObjectURL(new Blob(['onmessage = ({ data }) => postMessage([1, 2, 3, 4, 5, 6].map((n) => n * data))'])));
const main = document.querySelector('main');
let count = 0;
addEventListener('keydown', () => { main.dataset.fresh = 'false'; worker.postMessage(++count); });
worker.onmessage = ({ data }) => { main.replaceChildren(...data.map((n) => Object.assign(document.createElement('p'), { textContent: String(n) }))); main.dataset.fresh = 'true'; };
</script>`;

export async function openBare(page: Page): Promise<void> {
  await page.goto('about:blank');
  await page.setContent(BARE);
}

/**
 * Presses a key again and again, and tells how long it took each time from the
 * key to the frame in which all numbers belong to it [ms].
 */
export async function keyToFrame(
  page: Page,
  selector: string,
  { key, presses, pause_ms }: { readonly key: string; readonly presses: number; readonly pause_ms: number },
): Promise<number[]> {
  await page.evaluate((marked) => {
    const state = window as unknown as { keyTimes: number[]; keyStop?: AbortController };
    state.keyStop?.abort();
    const stop = new AbortController();
    const times: number[] = [];
    const numbers = document.querySelector(marked)!;
    let pressed = 0;
    window.addEventListener('keydown', (event) => (pressed = event.timeStamp), { capture: true, signal: stop.signal });
    const observer = new MutationObserver(() => {
      if (pressed === 0 || numbers.getAttribute('data-fresh') !== 'true') return;
      const from = pressed;
      pressed = 0;
      // The frame after the one in which they are drawn: then they stand on the screen.
      requestAnimationFrame(() => requestAnimationFrame(() => times.push(performance.now() - from)));
    });
    observer.observe(numbers, { attributes: true, attributeFilter: ['data-fresh'] });
    stop.signal.addEventListener('abort', () => observer.disconnect());
    Object.assign(state, { keyTimes: times, keyStop: stop });
  }, selector);
  for (let press = 0; press < presses; press++) {
    await page.keyboard.press(key);
    await page.waitForFunction(
      (count) => (window as unknown as { keyTimes: number[] }).keyTimes.length > count,
      press,
      { timeout: 20_000 },
    );
    await page.waitForTimeout(pause_ms);
  }
  return page.evaluate(() => (window as unknown as { keyTimes: number[] }).keyTimes);
}
