import { enter, expect, openCopy, settled, test } from './app';

test.describe.configure({ timeout: 90_000 });

test('measure up a bay: lengths replace guesses, and one that cannot be is named', async ({ page }) => {
  await openCopy(page, 'box-boat', 'fit');
  await page.getByRole('button', { name: 'Measure up a bay' }).click();
  const bay = page.getByTestId('bay');
  await expect(bay.getByText('Lengths taken')).toBeVisible();
  await expect(page.getByTestId('tightest')).toBeVisible();
  await expect(page.getByTestId('sheet').getByRole('row').nth(1)).toContainText('moves the gap to');
  for (const [name, value] of [['lower starboard to lower port', '700'], ['lower port to upper port', '420'], ['upper port to upper starboard', '700'], ['upper starboard to lower starboard', '420'], ['lower starboard to upper port', '816.3'], ['lower port to upper starboard', '816.3']] as const) {
    await enter(page, `${name}, At the aft end`, value);
  }
  await settled(page);
  await expect(page.getByTestId('contradictions')).toBeHidden();
  await enter(page, 'lower starboard to upper port, At the aft end', '870');
  await expect(page.getByTestId('contradictions')).toContainText('would agree at');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('contradictions')).toBeHidden();
});

test('the tank fouls an axle at full bump; cutting the floor frees it and says what it costs', async ({ page }) => {
  await openCopy(page, 'forest-trailer', 'fit');
  const things = page.getByTestId('things');
  await things.getByText('Axle beam', { exact: true }).first().click();
  await enter(page, 'From rest to full bump, Axle beam', '130');
  await expect(page.getByTestId('tightest')).toContainText('−');
  await expect(page.getByTestId('gap-axle')).toContainText('overlaps');
  await expect(page.getByTestId('gaps')).toContainText('at full bump');
  await page.getByTestId('gaps').getByRole('button', { name: /Axle beam/ }).click();
  const mends = page.getByTestId('mends');
  await expect(mends.getByRole('button', { name: /^Floor raised/ })).toBeVisible();
  await expect(mends).toContainText('costs');
  await mends.getByRole('button', { name: /^Floor raised/ }).click();
  await expect(page.getByTestId('gap-axle')).not.toContainText('overlaps');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('gap-axle')).toContainText('overlaps');
  await mends.getByRole('button', { name: /^Move the tank/ }).click();
  await expect(page.getByTestId('gap-axle')).not.toContainText('overlaps');
});

test('the way out is checked as typed, found, played step by step and kept', async ({ page }) => {
  await openCopy(page, 'forest-trailer', 'fit');
  const ways = page.getByTestId('ways');
  await enter(page, 'Or say how, and see whether it goes', 'sideways 20');
  await expect(ways.getByRole('alert')).toContainText('is no move');
  await enter(page, 'Or say how, and see whether it goes', 'forward 400');
  await expect(page.getByTestId('way-check')).toContainText('touches');
  await ways.getByRole('button', { name: 'Find a way out' }).click();
  await expect(page.getByTestId('way-found')).toContainText('A way out');
  await ways.getByRole('button', { name: 'Step on' }).click();
  await expect(page.getByTestId('moving-part').first()).toBeVisible();
  await ways.getByRole('button', { name: 'Keep this way' }).click();
  await expect(ways.getByRole('button', { name: 'This way is kept' })).toBeVisible();
});

test('what must come out first, how big it could be, and what a face costs', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'fit');
  await page.getByRole('button', { name: 'What must come out first?' }).click();
  await expect(page.getByTestId('removal-order').getByRole('listitem')).toHaveCount(4, { timeout: 60_000 });
  await page.getByRole('button', { name: 'What does each face cost?' }).click();
  await expect(page.getByTestId('face-costs')).toContainText('Lid lowered 10 mm');
  await page.getByRole('button', { name: 'Find the largest tank' }).click();
  await expect(page.getByTestId('largest').getByRole('button', { name: 'Make the tank this size' })).toHaveCount(2, { timeout: 60_000 });
});

test('the builder’s constraints are set here and found at their stage; a built size changes the litres', async ({ page }) => {
  await openCopy(page, 'box-boat', 'fit');
  await page.getByLabel('No new hole below the liquid').check();
  await page.getByTestId('built').getByLabel('Measured on the built tank').selectOption('shape.height_m');
  const height = page.getByTestId('built').getByLabel(/inside height, .*, as built$/);
  await height.fill('290');
  await height.press('Enter');
  await page.getByRole('button', { name: 'What does it change?' }).click();
  await expect(page.getByTestId('built-result')).toContainText('less');
  await page.keyboard.press('8');
  await expect(page.getByRole('heading', { name: 'Findings' })).toBeVisible();
});
