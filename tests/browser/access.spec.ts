import AxeBuilder from '@axe-core/playwright';
import { tasksOf } from '@/ui/workspace/tasks';
import { expect, openCopy, openTask, settled, test } from './app';

const STAGES = ['fit', 'tank', 'ports', 'lines', 'vents', 'gauge', 'range', 'findings', 'measure'];

test('no accessibility faults, and none of contrast in the dark', async ({ page }) => {
  test.slow(); // every task, each looked through whole
  const faults = async (name: string, runOnly: { type: 'tag' | 'rule'; values: string[] }): Promise<void> => {
    // What passes is not asked for: naming each such part of a page takes longer than looking through it.
    const { violations } = await new AxeBuilder({ page })
      .setLegacyMode()
      .options({ runOnly, rules: { 'page-has-heading-one': { enabled: true } }, resultTypes: ['violations'] })
      .analyze();
    expect(violations.map((violation) => `${name}: ${violation.id} ${violation.nodes[0]?.html.slice(0, 160)}`)).toEqual(
      [],
    );
  };
  const check = async (name: string): Promise<void> => {
    await faults(name, { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21aa'] });
    await page.emulateMedia({ colorScheme: 'dark' });
    await expect(page.locator('html')).toHaveClass(/dark/);
    // Built the same way, it differs only in its colours.
    await faults(`${name}, dark`, { type: 'rule', values: ['color-contrast'] });
    await page.emulateMedia({ colorScheme: 'light' });
  };
  await page.goto('/');
  await expect(page.getByTestId('system-card').first()).toContainText('L');
  await check('library');
  await page.goto('/new');
  await check('new');
  await page.goto('/compare?with=crab-boat&with=snow-vehicle');
  await expect(page.getByTestId('figure-holds')).toContainText('L');
  await check('compare');
  await openCopy(page, 'forest-trailer');
  for (const stage of STAGES) {
    await page.getByTestId(`stage-${stage}`).click();
    for (const { key } of tasksOf(stage)) {
      await openTask(page, key);
      await settled(page);
      if (key === 'reach') await expect(page.getByTestId('reach-sum')).toBeVisible();
      if (key !== tasksOf(stage)[0]!.key)
        await faults(`${stage}, ${key}`, { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21aa'] });
    }
    if (tasksOf(stage).length > 0) await openTask(page, tasksOf(stage)[0]!.key);
    await settled(page);
    await check(stage);
  }
});

test('on a phone nothing runs off the side, and the numbers stay in sight', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openCopy(page, 'box-boat');
  for (const stage of STAGES) {
    await page.getByTestId(`stage-${stage}`).click();
    for (const { key } of tasksOf(stage)) {
      await openTask(page, key);
      await settled(page);
      expect(await page.evaluate(() => document.documentElement.scrollWidth), key).toBeLessThanOrEqual(390);
    }
    await settled(page);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  }
  await page.getByTestId('stage-tank').click();
  await page.mouse.wheel(0, 1500);
  await expect(page.getByTestId('number-holds')).toBeInViewport();
});

test('from the top of the page to the work of a task are at most 25 stops of the tab key', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await openCopy(page, 'crab-boat');
  for (const [stage, task] of [
    ['tank', 'shape'],
    ['lines', 'failure'],
    ['fit', 'clearance'],
    ['gauge', 'sender'],
  ] as const) {
    await openTask(page, task, stage);
    await settled(page);
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await page.evaluate(() => window.getSelection()?.removeAllRanges());
    await page.mouse.click(1, 795);
    await page.locator('a[href="#work"]').focus();
    let stops = 1;
    const isAtWork = (): Promise<boolean> =>
      page.evaluate(
        () =>
          document.activeElement !== document.getElementById('work') &&
          document.getElementById('work')!.contains(document.activeElement),
      );
    while (!(await isAtWork()) && stops < 60) {
      await page.keyboard.press('Tab');
      stops++;
    }
    expect(stops, `${stage}/${task}`).toBeLessThanOrEqual(25);
  }
});

test('arrow keys go along the rail, and enter opens', async ({ page }) => {
  await openCopy(page, 'crab-boat', 'tank/shape');
  await page.getByTestId('task-shape').filter({ visible: true }).focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByTestId('task-baffles').filter({ visible: true })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/task=baffles/);
  await page.keyboard.press('Home');
  await expect(page.getByTestId('stage-fit')).toBeFocused();
});

test('at 200 % nothing runs off the side, and in forced colours what is open is still told', async ({ page }) => {
  // 1280 x 800 at 200 % is a page of 640 x 400.
  await page.setViewportSize({ width: 640, height: 400 });
  await openCopy(page, 'box-boat');
  for (const stage of STAGES) {
    await page.getByTestId(`stage-${stage}`).click();
    await settled(page);
    expect(await page.evaluate(() => document.documentElement.scrollWidth), stage).toBeLessThanOrEqual(640);
    // What stays at the top leaves room for the work.
    await page.evaluate(() => window.scrollTo(0, 600));
    const bar = (await page.getByTestId('numbers').boundingBox())!;
    expect(bar.y + bar.height, stage).toBeLessThan(200);
  }
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.emulateMedia({ forcedColors: 'active' });
  await page.getByTestId('stage-tank').click();
  const look = (id: string): Promise<string> =>
    page
      .getByTestId(id)
      .filter({ visible: true })
      .evaluate((element) => {
        const { backgroundColor, color, outlineStyle, borderTopWidth, forcedColorAdjust } = getComputedStyle(element);
        return [backgroundColor, color, outlineStyle, borderTopWidth, forcedColorAdjust].join(' ');
      });
  expect(await look('stage-tank')).not.toBe(await look('stage-ports'));
  expect(await look('task-shape')).not.toBe(await look('task-baffles'));
});

/** Presses of which each takes what was pressed off the page, or puts it off. */
const GOING: readonly (readonly [place: string, names: readonly string[]])[] = [
  ['fit/bay', ['Remove corner 2 to corner 5, At the aft frame', 'Delete bay']],
  ['fit/removal', ['Find a way out']],
  ['ports/faces', ['Its hole differs', 'A hose end turns aside']],
  ['lines/runs', ['New run', 'Move Tank shut-off on', 'Remove Water separator']],
  ['lines/sizing', ['Use 6 mm (1/4)']],
  ['gauge/sender', ['The arm is bent', 'Remove Sender']],
  ['gauge/scales', ['Remove Brass dipstick']],
  // Last, since another tank is looked at after it.
  ['tank/shape', ['Enlarge the picture', 'Remove this tank']],
];

test('after every action the focus is on the page: at what took the place of what was pressed', async ({ page }) => {
  test.slow();
  await openCopy(page, 'crab-boat');
  const lost: string[] = [];
  const where = () =>
    page.evaluate(() => {
      const { activeElement } = document;
      return activeElement === document.body || activeElement?.matches(':disabled') ? 'lost' : 'kept';
    });
  for (const [place, names] of GOING) {
    const [stage, task] = place.split('/') as [string, string];
    await openTask(page, task, stage);
    for (const name of names) {
      const button = page.locator('#work').getByRole('button', { name, exact: true }).first();
      await button.focus();
      const before = await button.elementHandle();
      await page.keyboard.press('Enter');
      // Only when what was pressed is gone, or cannot be pressed any more, does it tell.
      await page.waitForFunction((pressed) => !pressed!.isConnected || (pressed as HTMLButtonElement).disabled, before);
      await expect.poll(where, `${place}: ${name}`).toBe('kept');
      if ((await page.getByRole('button', { name: /^Undo: / }).count()) === 0) continue;
      await page.keyboard.press('Control+z');
      await settled(page);
      if ((await where()) === 'lost') lost.push(`${place}: undo of ${name}`);
    }
  }
  expect(lost).toEqual([]);
});
