import { existsSync, readFileSync } from 'node:fs';
import { expect, test as base, type Page } from '@playwright/test';
import { stlBytes } from '@/core/formats';
import type { ClosedMesh } from '@/core/geometry';

const made: string[] = [];

/** A page on which any console error or page error fails the test. */
export const test = base.extend<{ page: Page }>({
  page: async ({ page }, provide) => {
    const wrong: string[] = [];
    page.on('console', (message) => {
      if (message.type() === 'error') wrong.push(message.text());
    });
    page.on('pageerror', (error) => wrong.push(String(error)));
    await provide(page);
    // Each card of the library is worked out when it is shown: what no test needs any more is not left there.
    for (const id of made.splice(0))
      await page.request.delete(`/api/systems/${id}`, { headers: { 'content-type': 'application/json' } });
    const expected = /Failed to load resource/; // answers of 4xx that a test asked for
    expect(wrong.filter((text) => !expected.test(text))).toEqual([]);
  },
});

export { expect };
export type { Page } from '@playwright/test';

/** A closed mesh as an upload, one unit of the file a millimetre. */
export const stlFile = (name: string, mesh: ClosedMesh) => ({
  name,
  mimeType: 'model/stl',
  buffer: Buffer.from(stlBytes(mesh, name)),
});

/** A demo system, or one of the tests' own. */
export const demoText = (name: string): string =>
  readFileSync([`demo/${name}.json`, `tests/fixtures/${name}.json`].find(existsSync)!, 'utf8');

/** Makes a system of a test's own out of a demo file and opens it at a stage, or at a task of one: `fit/bay`. */
export const openCopy = (page: Page, name: string, place = 'tank'): Promise<string> =>
  openText(page, demoText(name), place);

/** Makes a system of a test's own out of a document's text and opens it. */
export async function openText(page: Page, text: string, place = 'tank'): Promise<string> {
  const response = await page.request.post('/api/systems', {
    headers: { 'content-type': 'application/json' },
    data: text,
  });
  expect(response.status()).toBe(201);
  const { id } = (await response.json()) as { id: string };
  made.push(id);
  const [stage, task] = place.split('/');
  await page.goto(`/systems/${id}?stage=${stage}${task === undefined ? '' : `&task=${task}`}`);
  await settled(page);
  return id;
}

/** Opens a task of the stage that is open, or of another. */
export async function openTask(page: Page, task: string, stage?: string): Promise<void> {
  if (stage) await page.getByTestId(`stage-${stage}`).click();
  await page.getByTestId(`task-${task}`).filter({ visible: true }).click();
}

/** Waits until the numbers on screen belong to the document on screen. */
export async function settled(page: Page): Promise<void> {
  await expect(page.getByTestId('numbers')).toHaveAttribute('data-fresh', 'true');
}

export const saved = (page: Page): Promise<void> =>
  expect(page.getByTestId('save-state')).toHaveAttribute('data-state', 'saved');

/** A number as shown, without the spread that follows a moment later. */
export const numberText = async (page: Page, key: string): Promise<string> =>
  (await page.getByTestId(`number-${key}`).innerText()).replace(/\s*±[\s\S]*$/, '').trim();

/** Types into a field and enters it. */
export async function enter(page: Page, label: string, text: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  await field.press('Enter');
}
