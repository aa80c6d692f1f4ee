import { allKnown } from '@/core/answers';
import { unwrap } from '@/core/outcome';
import { parseSystemText, type SystemDocument } from '@/core/plan';
import { demoText, enter, expect, numberText, openCopy, saved, settled, test } from './app';

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

test('on a phone, a walk of five readings: one after another, large, and each is taken', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const id = await openCopy(page, 'forest-trailer', 'measure');
  await page.getByRole('button', { name: 'Walk through them' }).click();
  const walk = page.getByTestId('walk');
  const input = walk.getByLabel('Reading', { exact: true });
  for (let reading = 1; reading <= 5; reading++) {
    await expect(walk.getByRole('heading')).toHaveText(new RegExp(`^Reading ${reading} of \\d+$`));
    await expect(input).toBeFocused();
    await expect(input).toBeInViewport();
    if (reading === 3) await walk.getByRole('button', { name: 'It is as assumed' }).click();
    else {
      await page.keyboard.press('Control+a');
      await page.keyboard.type(String(Number((Number(await input.inputValue()) * 1.02).toPrecision(4))));
      await page.keyboard.press('Enter');
    }
    await expect(walk.getByTestId('walk-taken')).toContainText('Taken:');
  }
  // What is refused, or half typed, for one is not entered for it, nor shown for the next.
  await expect(walk.getByRole('heading')).toHaveText(/^Reading 6 of/);
  const before = await input.inputValue();
  await input.fill('about a metre');
  await input.press('Enter');
  await expect(walk.getByRole('alert')).toBeVisible();
  await walk.getByRole('button', { name: 'Leave it' }).click();
  await expect(walk.getByRole('heading')).toHaveText(/^Reading 7 of/);
  await expect(input).not.toHaveValue('about a metre');
  await input.fill('7');
  await walk.getByRole('button', { name: 'Leave it' }).click();
  await expect(walk.getByRole('heading')).toHaveText(/^Reading 8 of/);
  for (const reading of [7, 6]) {
    await walk.getByRole('button', { name: 'Back' }).click();
    await expect(walk.getByRole('heading')).toHaveText(new RegExp(`^Reading ${reading} of`));
  }
  await expect(input).toHaveValue(before);
  // One that is taken back is a reading again, and no longer said to be taken.
  await walk.getByRole('button', { name: 'It is as assumed' }).click();
  await expect(walk.getByRole('heading')).toHaveText(/^Reading 7 of/);
  await page.getByRole('button', { name: /^Undo: .*measured as assumed$/ }).click();
  await expect(walk.getByTestId('walk-taken')).not.toContainText('Taken:');
  await walk.getByRole('button', { name: 'Back' }).click();
  await walk.getByRole('button', { name: 'Show where' }).click();
  await expect(page.locator('[data-path]:focus-within')).toBeVisible();
  await saved(page);
  const assumed = (system: SystemDocument): number =>
    allKnown(system).filter(({ known }) => known.origin === 'assumed').length;
  const { document } = (await (await page.request.get(`/api/systems/${id}`)).json()) as { document: SystemDocument };
  expect(assumed(document)).toBe(assumed(unwrap(parseSystemText(demoText('forest-trailer')))) - 5);
});

test('the keyboard alone changes a line and sees what moved', async ({ page }) => {
  await openCopy(page, 'crab-boat', 'tank');
  await expect(page.getByTestId('number-delivers')).toContainText('±');
  await page.keyboard.press('4');
  await page.keyboard.press('/');
  await expect(page.getByTestId('command-box').getByRole('combobox')).toBeFocused();
  await page.keyboard.type('bore Lift pump to injection pump');
  await page.keyboard.press('Enter');
  const bore = page.getByLabel('Bore', { exact: true });
  await expect(bore).toBeFocused();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('6');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('change')).toContainText(/Bore: .*Delivers [\d.]+ → [\d.]+ L\/h/);
  await expect(page.getByTestId('change-spoken')).toContainText('Delivers');
  await expect(bore).toBeFocused();
});
