import { expect, numberText, openCopy, settled, test } from './app';

const shownNumber = (text: string): number =>
  Number(
    text
      .replace(/,/g, '')
      .match(/−?-?[\d.]+/)![0]
      .replace('−', '-'),
  );

for (const name of ['crab-boat', 'forest-trailer', 'hill-climb-car', 'snow-vehicle']) {
  test(`${name}: what the numbers say, the panels say`, async ({ page }) => {
    await openCopy(page, name, 'lines');
    // A steeper and a lazier day than the one that it was saved on.
    for (const [label, value] of [
      [/^Pitch$/, '4'],
      [/^(Engine duty|Flow setting)$/, '45'],
    ] as const) {
      const field = page.getByTestId('conditions').getByLabel(label).first();
      await field.fill(value);
      await field.press('Enter');
    }
    await settled(page);
    const delivers = await numberText(page, 'delivers');
    const answers = page.getByTestId('answers').first();
    await expect(answers).toContainText(delivers.split('\n')[0]!.trim().split(' ')[0]!);
    const goes = shownNumber(await numberText(page, 'goes'));
    await page.getByTestId('stage-range').click();
    await expect(page.locator('section', { hasText: /Range and running time|A fill takes/ }).last()).toContainText(
      String(goes),
    );
    // The count of findings is that of the list, once all has been looked at.
    await page.getByTestId('stage-findings').click();
    const counted = page.getByTestId('number-findings');
    await expect(counted).toHaveAttribute('data-sure', 'true', { timeout: 120_000 });
    await expect(page.locator('article[data-testid^="finding-"]')).toHaveCount(Number(await counted.innerText()));
  });
}
