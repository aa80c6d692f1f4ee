import { demoText, enter, expect, openCopy, saved, settled, test, type Page } from './app';

/** Numbers and findings as they are read, by what marks them; `± …` with them. */
const readings = (page: Page, within: string): Promise<string[]> =>
  page
    .getByTestId(within)
    .getByTestId(/^number-/)
    .evaluateAll((all) => all.map((each) => `${each.getAttribute('data-testid')}: ${each.textContent}`));

/** Until the numbers, their spreads and all findings are there, and the server has the card of them. */
async function kept(page: Page, id: string): Promise<void> {
  await expect(page.getByTestId('number-findings')).toHaveAttribute('data-sure', 'true');
  await expect(async () => expect(await htmlOf(page, id)).toContain('numbers-kept')).toPass();
}
const htmlOf = async (page: Page, id: string): Promise<string> => (await page.request.get(`/systems/${id}`)).text();

test('a system comes with the numbers that were worked out of it before, the same as it then shows', async ({
  page,
}) => {
  const id = await openCopy(page, 'crab-boat');
  await kept(page, id);
  await expect(page.getByTestId('numbers')).toContainText('±');
  // Before a line of the page's own code has run.
  await page.route('**/*.js', (route) => route.abort());
  await page.goto(`/systems/${id}?stage=tank`);
  const before = await readings(page, 'numbers-kept');
  expect(before.length).toBeGreaterThan(4);
  expect(before.filter((text) => text.includes('±')).length).toBeGreaterThan(2);
  expect(before.join()).not.toMatch(/none|…|NaN/);
  await page.unroute('**/*.js');
  await page.goto(`/systems/${id}?stage=tank`);
  await settled(page);
  await expect(page.getByTestId('number-findings')).toHaveAttribute('data-sure', 'true');
  await expect(async () => expect(await readings(page, 'numbers')).toEqual(before)).toPass();
});

test('after an edit, at other conditions and to a reader of other units it comes with no number of before', async ({
  page,
}) => {
  const id = await openCopy(page, 'forest-trailer', 'range');
  await kept(page, id);
  expect(await htmlOf(page, id)).toMatch(/<span[^>]*>L<\/span>/);
  await page.getByLabel('Units', { exact: true }).selectOption('us');
  const inGallons = await htmlOf(page, id);
  expect(inGallons).toMatch(/<span[^>]*>(US )?gal<\/span>/);
  expect(inGallons).not.toMatch(/<span[^>]*>L<\/span>/);

  const document = JSON.parse(demoText('forest-trailer')) as { conditions: { pitch_deg: number } };
  const put = (body: object, revision: number) =>
    page.request.put(`/api/systems/${id}`, {
      headers: { 'content-type': 'application/json', 'if-match': String(revision) },
      data: JSON.stringify(body),
    });
  // The page itself would work it out anew.
  await saved(page);
  await page.goto('about:blank');
  expect((await put({ ...document, conditions: { ...document.conditions, pitch_deg: 7 } }, 1)).ok()).toBe(true);
  expect(await htmlOf(page, id)).not.toContain('numbers-kept');
  // A card of other conditions, of another revision, or of what is no card, is not taken.
  const card = { numbers: [], stops: 0, warns: 0, notes: 0, notJudged: 0 };
  const putCard = async (body: object, revision: number) =>
    (
      await page.request.put(`/api/systems/${id}/card`, {
        headers: { 'content-type': 'application/json', 'if-match': String(revision) },
        data: JSON.stringify(body),
      })
    ).status();
  expect(await putCard({ card, conditions: document.conditions }, 1)).toBe(409);
  expect(await putCard({ card, conditions: { ...document.conditions, pitch_deg: 7 } }, 2)).toBe(409);
  expect(await putCard({ card: { ...card, stops: -1 }, conditions: document.conditions }, 1)).toBe(422);
  expect(await putCard(card, 1)).toBe(422);
  expect(await htmlOf(page, id)).not.toContain('numbers-kept');
  expect(await putCard({ card, conditions: { ...document.conditions, pitch_deg: 7 } }, 1)).toBe(204);
  expect(await htmlOf(page, id)).toContain('numbers-kept');
  const edited = { ...document, conditions: { ...document.conditions, pitch_deg: 7 }, description: 'Another' };
  expect((await put(edited, 1)).ok()).toBe(true);
  expect(await htmlOf(page, id)).not.toContain('numbers-kept');
});

test('what a system came with is gone with the first edit, and where the numbers cannot be worked out', async ({
  page,
}) => {
  const id = await openCopy(page, 'box-boat');
  await kept(page, id);
  const before = await page.getByTestId('number-holds').innerText();
  // The worker of the numbers answers nothing from here on.
  await page.addInitScript(() => {
    window.Worker = class extends EventTarget {
      postMessage(): void {}
      terminate(): void {}
    } as unknown as typeof Worker;
  });
  await page.goto(`/systems/${id}?stage=tank`);
  await expect(page.getByTestId('numbers').getByTestId('number-holds')).toHaveText(before);
  await expect(page.getByTestId('numbers')).toHaveAttribute('data-fresh', 'false');
  await expect(page.getByTestId('number-findings')).toHaveAttribute('data-sure', 'false');
  await enter(page, 'Inside height', '280 mm');
  await expect(page.getByTestId('number-holds')).toHaveText('…');
  await expect(page.getByTestId('number-findings')).toHaveText('…');

  await page.addInitScript(() => {
    window.Worker = class {
      constructor() {
        throw new Error('no workers here');
      }
    } as unknown as typeof Worker;
  });
  await page.goto(`/systems/${id}?stage=tank`);
  await expect(page.getByRole('alert').filter({ hasText: 'The calculation broke: no workers here' })).toBeVisible();
  await expect(page.getByTestId('numbers').getByTestId('number-holds')).toHaveText('…');
});
