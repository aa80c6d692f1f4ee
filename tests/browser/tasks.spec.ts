import { allKnown } from '@/core/answers';
import { parseSystemText, valueAt } from '@/core/plan';
import { unwrap } from '@/core/outcome';
import { TASKS } from '@/ui/workspace/tasks';
import { demoText, expect, openCopy, openTask, settled, test, type Page } from './app';

const PAPERS = [
  'measure',
  'template',
  'holes',
  'cutting',
  'parts',
  'schematic',
  'card',
  'strapping',
  'correction',
  'pours',
  'findings',
];
const DIVIDED = Object.entries(TASKS).filter(([, tasks]) => tasks.length > 1);
/** What a task may take at 1280 x 800: two windows. */
const MOST_PX = 1600;

/** Waits until nothing of a task is on its way and its height rests: a panel that has not come has no height. */
async function laidOut(page: Page): Promise<void> {
  await expect(
    page.locator('#work').getByText(/^(Drawing|Laying out|Working out|Trying|Looking|Opening)[^.]*…$/),
  ).toHaveCount(0);
  await page.waitForFunction(() => {
    const work = document.getElementById('work')!;
    const seen = window as unknown as { height?: number; times?: number };
    seen.times = seen.height === work.scrollHeight ? (seen.times ?? 0) + 1 : 0;
    seen.height = work.scrollHeight;
    return seen.times > 12;
  });
}

/** What of a page is said as in a boat, with the words round it. */
const boatWords = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const texts = [...document.querySelectorAll('body > :not(script)')].map(({ textContent }) => textContent ?? '');
    for (const one of document.querySelectorAll('[aria-label], [title]'))
      texts.push(one.getAttribute('aria-label') ?? '', one.getAttribute('title') ?? '');
    const boat = /.{0,24}\b(?:starboard|aft|fore|to port|port (?:side|face|wall|down|end))\b.{0,16}/gi;
    return texts.flatMap((text) => text.match(boat) ?? []);
  });

for (const name of ['crab-boat', 'forest-trailer', 'hill-climb-car', 'snow-vehicle'])
  test(`${name}: each task is a screen or two, and names sides as its vehicle does`, async ({ page }) => {
    test.slow();
    await page.setViewportSize({ width: 1280, height: 800 });
    await openCopy(page, name);
    // With every finding there that will be: they stand over the tasks and count.
    await expect(page.getByTestId('number-findings')).toHaveAttribute('data-sure', 'true', { timeout: 120_000 });
    const [tall, afloat]: [string[], string[]] = [[], []];
    for (const [stage, tasks] of Object.entries(TASKS))
      for (const { key } of tasks) {
        if (tasks.length > 1) await openTask(page, key, stage);
        else await page.getByTestId(`stage-${stage}`).click();
        await settled(page);
        await laidOut(page);
        const height = await page.evaluate(() => document.getElementById('work')!.scrollHeight);
        if (height > MOST_PX) tall.push(`${stage}/${key} ${height}`);
        if (name !== 'crab-boat') afloat.push(...(await boatWords(page)).map((word) => `${stage}/${key} ${word}`));
      }
    if (name !== 'crab-boat') {
      const look = async (place: string): Promise<void> => {
        await settled(page);
        await laidOut(page);
        afloat.push(...(await boatWords(page)).map((word) => `${place} ${word}`));
      };
      for (const stage of ['findings', 'measure', 'paper']) {
        await page.getByTestId(`stage-${stage}`).click();
        await look(stage);
      }
      for (const sheet of PAPERS) {
        await page.getByLabel('Sheet', { exact: true }).selectOption(sheet);
        await look(`sheet ${sheet}`);
      }
    }
    expect(tall).toEqual([]);
    expect(afloat).toEqual([]);
  });

test('on a phone the work of each task starts within 250 px, and more is a press away', async ({ page }) => {
  test.slow();
  await page.setViewportSize({ width: 390, height: 844 });
  await openCopy(page, 'crab-boat');
  const late: string[] = [];
  for (const [stage, tasks] of Object.entries(TASKS))
    for (const { key } of tasks) {
      if (tasks.length > 1) await openTask(page, key, stage);
      else await page.getByTestId(`stage-${stage}`).click();
      await settled(page);
      await page.evaluate(() => window.scrollTo(0, 0));
      const top = await page
        .getByTestId('conditions')
        .evaluate((conditions) => conditions.nextElementSibling!.getBoundingClientRect().top + window.scrollY);
      if (top > 250) late.push(`${stage}/${key} ${top}`);
    }
  expect(late).toEqual([]);
  await expect(page.getByRole('button', { name: 'History: its earlier saves' })).toBeHidden();
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await expect(page.getByRole('button', { name: 'History: its earlier saves' })).toBeVisible();
});

test('each task by the rail, by its address and by the command box; back leads back', async ({ page }) => {
  const id = await openCopy(page, 'crab-boat');
  for (const [stage, tasks] of DIVIDED) {
    const { key, label } = tasks.at(-1)!;
    await openTask(page, key, stage);
    await expect(page).toHaveURL(new RegExp(`stage=${stage}&task=${key}$`));
    await expect(page.getByTestId(`task-${key}`).filter({ visible: true })).toHaveAttribute('aria-current', 'true');
    await expect(page).toHaveTitle(`${label}, Crab boat, 7.9 m · Gas Line`);
    const first = tasks[0]!;
    await page.locator('body').press('Control+k');
    const typed = page.getByTestId('command-box').getByRole('combobox');
    await typed.fill(first.question);
    await typed.press('Enter');
    await expect(page.getByTestId(`task-${first.key}`).filter({ visible: true })).toHaveAttribute(
      'aria-current',
      'true',
    );
    await page.goBack();
    await expect(page.getByTestId(`task-${key}`).filter({ visible: true })).toHaveAttribute('aria-current', 'true');
  }
  // Back to where one came in: the first task, whatever was open since.
  const address = (): Promise<string> => page.evaluate(() => window.location.search);
  for (let steps = 0; steps < 40 && (await address()).includes('task='); steps++) {
    const from = await address();
    await page.goBack();
    // The step may be told before it is made: asked too soon, one more would lead out of the app.
    await expect.poll(address).not.toBe(from);
  }
  await expect(page.getByTestId('task-shape').filter({ visible: true })).toHaveAttribute('aria-current', 'true');
  await page.goto(`/systems/${id}?stage=lines&task=sizing`);
  await settled(page);
  await expect(page.getByTestId('sizes')).toBeVisible();
  // What an address does not say right is the first task, or the tank.
  await page.goto(`/systems/${id}?stage=lines&task=ghost`);
  await expect(page.getByTestId('answers')).toBeVisible();
  await page.goto(`/systems/${id}?stage=ghost`);
  await expect(page.getByTestId('sizes')).toBeVisible();
});

test('asked for again, a value is led to again though another of its kind was opened meanwhile', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'ports/pickups');
  const pickup = page.getByLabel('Pickup', { exact: true });
  const height = page.getByTestId('pickup').getByLabel('Height off the floor', { exact: true });
  for (let turn = 0; turn < 2; turn++) {
    await pickup.selectOption({ label: 'Feed pickup' });
    await expect(page.getByTestId('pickup').getByRole('heading')).toHaveText('Feed pickup');
    await page.locator('body').press('Control+k');
    const typed = page.getByTestId('command-box').getByRole('combobox');
    await typed.fill('height off the floor Heater standpipe');
    await typed.press('Enter');
    await expect(page.getByTestId('pickup').getByRole('heading')).toHaveText('Heater standpipe');
    await expect(height).toBeFocused();
  }
});

for (const name of ['crab-boat', 'snow-vehicle'])
  test(`${name}: every value leads to its field`, async ({ page }) => {
    test.slow();
    await openCopy(page, name);
    const system = unwrap(parseSystemText(demoText(name)));
    const lost: string[] = [];
    for (const { path } of allKnown(system)) {
      const at = path.join('.');
      // The first body of an obstacle lies where the obstacle does; a plate without holes has no sizes of them, and an
      // engine without injection none of injectors.
      if (/bodies\.0\.(._m|\w+_deg)$|engine\.injector/.test(at)) continue;
      if (valueAt(system, [...path.slice(0, -1), 'count']) === 0) continue;
      await page.evaluate((to) => {
        (document.activeElement as HTMLElement | null)?.blur();
        history.pushState(null, '', `?at=${to}`);
        window.dispatchEvent(new PopStateEvent('popstate'));
      }, at);
      const found = await page
        .waitForFunction((to) => document.activeElement?.closest('[data-path]')?.getAttribute('data-path') === to, at, {
          timeout: 20_000,
        })
        .catch(() => undefined);
      if (!found) lost.push(at);
    }
    expect(lost).toEqual([]);
  });
