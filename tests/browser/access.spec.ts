import AxeBuilder from '@axe-core/playwright';
import { expect, openCopy, settled, test } from './app';

for (const scheme of ['light', 'dark'] as const) {
  test(`no accessibility faults, ${scheme}`, async ({ page }) => {
    test.slow(); // twelve views, each looked through whole
    await page.emulateMedia({ colorScheme: scheme });
    const check = async (name: string): Promise<void> => {
      const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa']).analyze();
      expect(violations.map((violation) => `${name}: ${violation.id} ${violation.nodes[0]?.html.slice(0, 160)}`)).toEqual([]);
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
    for (const stage of ['tank', 'ports', 'lines', 'vents', 'gauge', 'range', 'findings', 'measure']) {
      await page.getByTestId(`stage-${stage}`).click();
      await settled(page);
      await check(stage);
    }
  });
}

test('on a phone nothing runs off the side, and the numbers stay in sight', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openCopy(page, 'box-boat');
  for (const stage of ['tank', 'ports', 'lines', 'vents', 'gauge', 'range', 'findings', 'measure']) {
    await page.getByTestId(`stage-${stage}`).click();
    await settled(page);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  }
  await page.getByTestId('stage-tank').click();
  await page.mouse.wheel(0, 1500);
  await expect(page.getByTestId('number-holds')).toBeInViewport();
});
