import { enter, expect, numberText, openCopy, settled, test } from './app';

test('after a change a strip says what moved and by how much, takes it back, and tells a reader of the screen', async ({
  page,
}) => {
  await openCopy(page, 'box-boat', 'tank');
  const strip = page.getByTestId('change');
  await expect(strip).toBeHidden();
  // With its spread known a number has the digits that it keeps.
  await expect(page.getByTestId('number-holds')).toContainText('±');
  const before = await numberText(page, 'holds');
  await enter(page, 'Inside height', '340');
  await expect(strip).toContainText(/Inside height: .*Holds [\d.]+ → [\d.]+ L/);
  await expect(page.getByTestId('change-spoken')).toContainText('Holds');
  const said = (await strip.innerText()).match(/Holds ([\d.]+) → ([\d.]+) L/)!;
  expect(before.replace(/\s+/g, ' ')).toBe(`${said[1]} L`);
  await expect(page.getByTestId('number-holds')).toContainText(said[2]!);
  await page.getByTestId('change-undo').click();
  await settled(page);
  await expect(strip).toContainText('Undone, Inside height');
  await expect(strip).toContainText(`Holds ${said[2]} → ${said[1]} L`);
  // What moves no number says so.
  await enter(page, 'Name of the system', 'Another name');
  await expect(strip).toContainText('no number moved');
});

test('the measurement worth most is named under the numbers, and one press goes to it', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'range');
  const next = page.getByTestId('next');
  await expect(next).toContainText('Next: measure');
  const first = (await next.innerText()).replace(/^Next: measure\s*/, '');
  await next.click();
  await expect(page.locator('[data-path]:focus-within')).toBeVisible();
  await page.getByTestId('stage-measure').click();
  await expect(page.getByTestId('measure-row').first()).toContainText(first);
});

test('one key goes to any stage, sheet, part or field by its name', async ({ page }) => {
  await openCopy(page, 'crab-boat', 'tank');
  await page.locator('body').press('/');
  const box = page.getByTestId('command-box');
  await expect(box.getByTestId('keys')).toContainText('undo, redo');
  const typed = box.getByRole('combobox');
  await typed.fill('strapping');
  await typed.press('Enter');
  await expect(box).toBeHidden();
  await expect(page.getByTestId('paper')).toContainText('Strapping table');
  // A field, two down in the list.
  await page.locator('body').press('Control+k');
  await typed.fill('engine pickup height');
  await expect(box.getByRole('option').first()).toContainText(/height/i);
  await typed.press('ArrowDown');
  await typed.press('ArrowUp');
  await typed.press('Enter');
  await expect(page.getByLabel('Height off the floor', { exact: true })).toBeFocused();
  // Esc leaves everything as it was.
  await page.getByTestId('stage-findings').click();
  await page.locator('body').press('?');
  await expect(box).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(box).toBeHidden();
  await expect(page).toHaveTitle(/^Findings, Crab boat/);
});
