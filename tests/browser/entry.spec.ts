import { enter, expect, numberText, openCopy, openTask, saved, settled, test } from './app';

test('a wrong entry is answered with what is accepted, and changes nothing', async ({ page }) => {
  await openCopy(page, 'box-boat');
  const holds = await numberText(page, 'holds');
  const field = page.getByLabel('Inside length', { exact: true });
  for (const [text, answer] of [
    ['12 furlongs', /not a unit of length.*mm/],
    ['about a metre', /not understood/],
    ['-40', /out of range; enter 20 mm/],
    ['1,120', /two ways: write 1120 or 1\.120/],
    ['99 m', /out of range/],
  ] as const) {
    await field.fill(text);
    await field.press('Enter');
    await expect(page.getByRole('alert').filter({ hasText: answer })).toBeVisible();
    await expect(field).toHaveAttribute('aria-invalid', 'true');
    expect(Math.round(parseFloat(await numberText(page, 'holds')))).toBe(Math.round(parseFloat(holds)));
  }
  await field.press('Escape');
  await expect(field).toHaveValue('1120');
  await expect(page.getByRole('button', { name: 'Nothing to undo' })).toBeDisabled();
});

test('inches, gauges and dash sizes are read and said back', async ({ page }) => {
  await openCopy(page, 'box-boat');
  await enter(page, 'Inside length', '3\' 8 1/2"');
  await expect(page.getByText('3 ft 8 1/2 in = 1130 mm')).toBeVisible();
  await openTask(page, 'metal');
  await enter(page, 'Sheet thickness', '14 ga');
  await expect(page.getByText('14 ga aluminium = 1.63 mm')).toBeVisible();
  await openTask(page, 'schematic', 'lines');
  await page.getByLabel('Bore', { exact: true }).first().fill('-6');
  await page.getByLabel('Bore', { exact: true }).first().press('Enter');
  await expect(page.getByText(/dash 6 hose = 8 mm/)).toBeVisible();
});

test('the reader’s units change every number and none of the document', async ({ page }) => {
  const id = await openCopy(page, 'box-boat');
  const before = await (await page.request.get(`/api/systems/${id}`)).json();
  await page.getByLabel('Units').selectOption('us');
  await expect(page.getByTestId('number-holds')).toContainText('US gal');
  await expect(page.getByLabel('Inside length', { exact: true })).toHaveValue(/44/);
  await page.getByLabel('Units').selectOption('imperial');
  await expect(page.getByTestId('number-holds')).toContainText('imp gal');
  expect(await (await page.request.get(`/api/systems/${id}`)).json()).toEqual(before);
});

test('one kind of quantity is set apart by keys alone, holds after a reload, and is as the rest again', async ({
  page,
}) => {
  await openCopy(page, 'box-boat');
  await page.getByRole('button', { name: 'Set each unit apart' }).focus();
  await page.keyboard.press('Enter');
  await page.getByLabel('Volumes', { exact: true }).selectOption('us_gal');
  await page.getByLabel('Sizes, bores and sheet', { exact: true }).selectOption('cm');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('units-apart')).toBeHidden();
  await expect(page.getByRole('button', { name: 'Set each unit apart: 2 set' })).toBeFocused();
  await page.reload();
  await settled(page);
  await expect(page.getByTestId('number-holds')).toContainText('US gal');
  await expect(page.getByTestId('number-delivers')).toContainText('L/h');
  await expect(page.getByLabel('Inside length', { exact: true })).toHaveValue('112');
  await page.getByRole('button', { name: 'Set each unit apart: 2 set' }).click();
  await page.getByRole('button', { name: 'All as the rest again' }).click();
  await expect(page.getByTestId('number-holds')).not.toContainText('US gal');
});

test('undo and redo, by button and key, each edit by its name', async ({ page }) => {
  const id = await openCopy(page, 'box-boat');
  const first = await numberText(page, 'holds');
  await enter(page, 'Inside width', '600');
  await settled(page);
  const second = await numberText(page, 'holds');
  expect(second).not.toBe(first);
  await enter(page, 'Inside height', '310');
  await page.getByRole('button', { name: 'Undo: Inside height' }).click();
  await settled(page);
  expect(Math.round(parseFloat(await numberText(page, 'holds')))).toBe(Math.round(parseFloat(second)));
  await page.keyboard.press('Control+z');
  await settled(page);
  await expect(page.getByLabel('Inside width', { exact: true })).toHaveValue('560');
  await page.keyboard.press('Control+Shift+z');
  await page.keyboard.press('Control+y');
  await expect(page.getByLabel('Inside height', { exact: true })).toHaveValue('310');
  await saved(page);
  const row = (await (await page.request.get(`/api/systems/${id}`)).json()) as {
    document: { tanks: { shape: { height_m: { value: number } } }[] };
  };
  expect(row.document.tanks[0]!.shape.height_m.value).toBe(0.31);
});

test('a drag in the drawing is one step of undo, and the arrow keys do the same', async ({ page }) => {
  await openCopy(page, 'box-boat', 'ports/pickups');
  const height = page.getByTestId('pickup').getByLabel('Height off the floor', { exact: true });
  await expect(height).toHaveValue('22');
  const handle = page.getByTestId('handle-pickup-x');
  // What is worked out beside the numbers makes the page taller above it.
  await expect(page.getByTestId('cut')).toBeVisible();
  await handle.scrollIntoViewIfNeeded();
  const box = (await handle.locator('circle').last().boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  for (let step = 1; step <= 6; step++) await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 5 * step);
  await page.mouse.up();
  const raised = Number(await height.inputValue());
  expect(raised).toBeGreaterThan(60);
  await expect(page.getByTestId('here-pickup.too-high')).toBeVisible();
  await page.getByRole('button', { name: 'Undo: move Engine pickup' }).click();
  await expect(height).toHaveValue('22');
  await handle.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(height).toHaveValue('11');
});

test('an unknown thread is named from its diameter and pitch, with what would settle it', async ({ page }) => {
  await openCopy(page, 'box-boat', 'ports/threads');
  const panel = page.getByTestId('threads');
  await enter(page, 'Thread diameter', '200');
  await expect(panel).toContainText('out of range');
  await enter(page, 'Thread diameter', '13.9');
  await expect(page.getByTestId('thread-tell')).toContainText('pitch gauge');
  await enter(page, 'Thread pitch', 'fine');
  await expect(panel).toContainText('no pitch');
  await enter(page, 'Thread diameter', '13.0');
  await enter(page, 'Thread pitch', '19 tpi');
  await expect(page.getByTestId('thread-tell')).toContainText('narrows');
  await panel.getByLabel('Does it narrow?').selectOption('no');
  await expect(panel.getByRole('row').nth(1)).toContainText('G 1/4');
  await expect(panel.getByRole('row').nth(1)).toContainText('almost surely');
});
