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
