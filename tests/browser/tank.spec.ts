import { readFileSync } from 'node:fs';
import { enter, expect, numberText, openCopy, openTask, settled, test } from './app';

test('a V-bottom tank from typed points, tilted, and its usable read', async ({ page }) => {
  await openCopy(page, 'box-boat');
  await page.getByLabel('Shape', { exact: true }).selectOption('prism');
  await page.getByRole('button', { name: 'Add a point after 1, profile' }).click();
  await enter(page, 'Profile, point 2, up', '-80');
  await settled(page);
  // 1120 long; a rectangle 560 x 302 with a triangle 560 x 80 below it, filled to 95 %.
  expect(await numberText(page, 'holds')).toMatch(/^(203\.8|204) L/);
  const usable = await numberText(page, 'usable');
  await openTask(page, 'slopes');
  await enter(page, 'Port side down', '3');
  await enter(page, 'Starboard side down', '3');
  await settled(page);
  expect(parseFloat(await numberText(page, 'usable'))).toBeGreaterThan(parseFloat(usable));
  await enter(page, 'Roll', '10');
  await settled(page);
  await openTask(page, 'shape');
  await expect(page.getByTestId('liquid').last()).toBeVisible();
});

test('a profile that crosses itself says so, shows no old number, and undo brings it back', async ({ page }) => {
  await openCopy(page, 'box-boat');
  await page.getByLabel('Shape', { exact: true }).selectOption('prism');
  await settled(page);
  await enter(page, 'Profile, point 3, to port', '-200');
  await expect(page.getByTestId('sizes').getByRole('alert')).toContainText('crosses itself');
  await expect(page.getByTestId('number-holds')).toHaveText('none');
  await page.keyboard.press('Control+z');
  await settled(page);
  expect(await numberText(page, 'holds')).toMatch(/^(179\.9|180) L/);
});

test('cylinder, cone and loft each have their sizes and their numbers', async ({ page }) => {
  await openCopy(page, 'forest-trailer');
  for (const [kind, field] of [
    ['round', 'Length of shell'],
    ['cone', 'Diameter, rear end'],
    ['loft', 'Inside length'],
    ['box', 'Inside width'],
  ] as const) {
    await page.getByLabel('Shape', { exact: true }).selectOption(kind);
    if (kind === 'cone') await page.getByLabel('Runs').selectOption('x');
    await settled(page);
    await expect(page.getByTestId('sizes').getByLabel(field, { exact: true })).toBeVisible();
    expect(await numberText(page, 'holds')).toMatch(/\d/);
  }
});

test('by the names that builders have: a V-bottom with its deadrise in two steps, sides as in its vehicle', async ({
  page,
}) => {
  await openCopy(page, 'forest-trailer');
  await page.getByLabel('Shape', { exact: true }).selectOption({ label: 'V-bottom' });
  await enter(page, 'Deadrise', '12');
  await settled(page);
  const holds = await numberText(page, 'holds');
  expect(holds).toMatch(/\d/);
  await page.getByLabel('Keel', { exact: true }).selectOption({ label: 'right' });
  await page.getByLabel('Shape', { exact: true }).selectOption({ label: 'L-shaped' });
  await expect(page.getByLabel('Cut out at', { exact: true }).locator('option')).toHaveText(['rear', 'front']);
  // More cut out than there is leaves no tank, and says so; no number stays from before.
  await enter(page, 'Cut-out, height', '2000');
  await expect(page.getByTestId('sizes').getByRole('alert').first()).toContainText('whole of one leg');
  await expect(page.getByTestId('number-holds')).toHaveText('none');
});

test('keep litres: another size changes, one gives way, and one step of undo takes both back', async ({ page }) => {
  await openCopy(page, 'box-boat');
  await page.getByLabel('Shape', { exact: true }).selectOption({ label: 'box' });
  await settled(page);
  const keep = page.getByTestId('keep-litres');
  const height = page.getByLabel('Inside height', { exact: true });
  const length = page.getByLabel('Inside length', { exact: true });
  const [before, long] = [await height.inputValue(), await length.inputValue()];
  await enter(page, 'To hold, to the fill limit', '100');
  await expect(page.getByTestId('number-holds')).toContainText('100');
  expect(await height.inputValue()).not.toBe(before);
  await page.getByTestId('change-undo').click();
  await expect(height).toHaveValue(before);
  await settled(page);
  await keep.getByRole('checkbox').check();
  await enter(page, 'Inside length', String(Number(long) * 2));
  await expect(height).toHaveValue(/\d/);
  await expect.poll(async () => Number(await height.inputValue())).toBeCloseTo(Number(before) / 2, 0);
  await expect(page.getByTestId('change')).toContainText('keeping');
  await expect(page.getByTestId('change')).not.toContainText('Holds');
  await page.getByTestId('change-undo').click();
  await expect(height).toHaveValue(before);
  await expect(length).toHaveValue(long);
  // Other litres are kept from then on.
  await enter(page, 'To hold, to the fill limit', '120');
  await expect(page.getByTestId('number-holds')).toContainText('120');
  await expect(keep.getByRole('checkbox')).toBeChecked();
  await expect(keep).toContainText('Keep 120 L');
  await page.getByTestId('change-undo').click();
  await expect(height).toHaveValue(before);
  await expect(keep.getByRole('status')).toContainText('no longer kept');
  // What cannot be had is told, and the sizes stay.
  await page.getByLabel('by changing', { exact: true }).selectOption({ label: 'Height' });
  await enter(page, 'To hold, to the fill limit', '7900000');
  await expect(keep.getByRole('status')).toContainText('cannot be had');
  await expect(height).toHaveValue(before);
});

test('one corner of a profile is known by itself', async ({ page }) => {
  await openCopy(page, 'box-boat', 'tank');
  await page.getByLabel('Shape', { exact: true }).selectOption('prism');
  await page.getByRole('button', { name: /^Profile, point 3 is chosen/ }).click();
  await page.getByLabel('How is Profile, point 3 known?').selectOption('assumed');
  await enter(page, 'Profile, point 3, spread', '20');
  await expect(page.getByRole('button', { name: /^Profile, point 3 is assumed ±20/ })).toBeVisible();
  await page.getByTestId('stage-measure').click();
  const row = page.getByTestId('measure-row').filter({ hasText: 'corner of its profile' });
  await expect(row).toContainText('Holds ±');
});

test('a corner of a profile is drawn aside, as one step of undo; by arrow keys; on a phone it can be read', async ({
  page,
}) => {
  await openCopy(page, 'crab-boat', 'tank/shape');
  const corner = page.getByRole('button', { name: 'Near profile, point 5: move with the arrow keys' });
  const up = page.getByLabel('Near profile, point 5, up', { exact: true });
  const across = page.getByLabel('Near profile, point 5, to port', { exact: true });
  // Findings that come stand above it, and it goes down with the page.
  await expect(page.getByTestId('number-findings')).toHaveAttribute('data-sure', 'true');
  await corner.locator('circle').last().hover();
  const { x, y, width, height } = (await corner.locator('circle').last().boundingBox())!;
  const [fromX, fromY] = [x + width / 2, y + height / 2];
  await page.mouse.move(fromX, fromY);
  await page.mouse.down();
  await page.mouse.move(fromX + 15, fromY + 6);
  await page.mouse.move(fromX + 30, fromY + 12);
  await page.mouse.up();
  // As far as the pointer went, to the scale of the drawing it was taken hold of in, on whole millimetres.
  await expect(up).not.toHaveValue('318');
  const [right_mm, down_mm] = [Number(await across.inputValue()), 318 - Number(await up.inputValue())];
  expect(right_mm / down_mm).toBeCloseTo(2.5, 0);
  expect(Number.isInteger(right_mm) && right_mm > 20).toBe(true);
  await page.keyboard.press('Control+z');
  await expect(up).toHaveValue('318');
  await expect(across).toHaveValue('0');
  await corner.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(across).toHaveValue('2');
  await page.setViewportSize({ width: 390, height: 844 });
  await expect.poll(async () => (await across.boundingBox())!.width).toBeGreaterThan(90);
});

test('the map of what stays behind: a click stands there, by mouse and by key', async ({ page }) => {
  await openCopy(page, 'box-boat', 'ports/attitude');
  const field = page.getByTestId('map-field');
  await expect(field).toBeVisible();
  await field.scrollIntoViewIfNeeded();
  await expect(page.getByTestId('attitude-map')).toContainText('at worst');
  const box = (await field.boundingBox())!;
  await page.mouse.click(box.x + box.width * 0.75, box.y + box.height * 0.25);
  await expect(page.getByLabel('Roll', { exact: true })).toHaveValue('15');
  await expect(page.getByLabel('Pitch', { exact: true })).toHaveValue('15');
  await field.focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByLabel('Pitch', { exact: true })).toHaveValue('14');
  await page.getByTestId('attitude-map').getByLabel('Over', { exact: true }).selectOption('g');
  await expect(page.getByTestId('attitude-map')).toContainText('braking');
});

test('the strapping table at a chosen step, as CSV and as STL', async ({ page }) => {
  await openCopy(page, 'box-boat', 'tank/tables');
  const table = page.getByTestId('table');
  await enter(page, 'Step of depth', '50');
  await expect(table.getByRole('row')).toHaveCount(1 + 8);
  const [csv] = await Promise.all([page.waitForEvent('download'), table.getByRole('button', { name: 'CSV' }).click()]);
  const lines = readFileSync((await csv.path())!, 'utf8')
    .trim()
    .split('\r\n');
  expect(lines[0]).toBe('depth_mm,volume_L');
  expect(Number(lines.at(-1)!.split(',')[1])).toBeCloseTo(189.41, 1);
  const [stl] = await Promise.all([page.waitForEvent('download'), table.getByRole('button', { name: 'STL' }).click()]);
  expect(stl.suggestedFilename()).toMatch(/inside\.stl$/);
  expect(readFileSync((await stl.path())!).readUInt32LE(80)).toBe(12);
});

test('how closely a profile’s corners are known spreads the litres, and is listed to measure', async ({ page }) => {
  await openCopy(page, 'box-boat', 'tank');
  await page.getByLabel('Shape', { exact: true }).selectOption('prism');
  await expect(page.getByText('not said: the numbers count it as exact')).toBeVisible();
  await page.getByLabel('All corners are', { exact: true }).selectOption('assumed');
  await page.getByLabel('All corners, within ±', { exact: true }).fill('25');
  await page.getByLabel('All corners, within ±', { exact: true }).press('Enter');
  await expect(page.getByText('not said: the numbers count it as exact')).toHaveCount(0);
  await page.getByTestId('stage-measure').click();
  await expect(page.getByTestId('measure-row').filter({ hasText: 'corners of its profile' })).toContainText('Holds ±');
});

test('a chart off the screen is drawn anew before the page goes on paper', async ({ page }) => {
  await openCopy(page, 'box-boat', 'tank');
  await enter(page, 'Inside height', '200 mm');
  await settled(page);
  await openTask(page, 'tables');
  // As under a table of many more rows: at its foot the chart is far out of sight.
  await page.evaluate(() => (document.getElementById('work')!.style.paddingBottom = '3000px'));
  const chart = page.locator('canvas[role=img]').first();
  await chart.scrollIntoViewIfNeeded();
  await expect.poll(() => chart.evaluate((canvas: HTMLCanvasElement) => canvas.width)).toBeGreaterThan(0);
  await page.waitForTimeout(500);
  await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
  await expect(chart).not.toBeInViewport();
  await page.waitForTimeout(500);
  const picture = (): Promise<string> => chart.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  const before = await picture();
  await page.keyboard.press('Control+z');
  await settled(page);
  await expect(page.getByTestId('table')).not.toHaveAttribute('aria-busy', 'true');
  await page.waitForTimeout(1000);
  expect(await picture()).toBe(before);
  // Within the event itself: the browser takes its picture as soon as that has gone round.
  const onPaper = await chart.evaluate((canvas: HTMLCanvasElement) => {
    window.dispatchEvent(new Event('beforeprint'));
    return canvas.toDataURL();
  });
  expect(onPaper).not.toBe(before);
});

test('a baffle pressed in the picture opens its fields, by mouse and by key', async ({ page }) => {
  await openCopy(page, 'crab-boat', 'tank/shape');
  // The first stands where the sender's handle takes presses.
  const plate = page.locator('[data-testid^="plate-"][data-testid$="-side"]').nth(1);
  await expect(plate).toBeVisible();
  const name = (await plate.getAttribute('aria-label'))!.replace(': its fields', '');
  // The middle of the strip round its line: nothing else may lie over it there.
  const box = (await plate.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height * 0.3);
  await expect(page).toHaveURL(/task=baffles|at=tanks\.0\.plates/);
  await expect(page.getByLabel(`From aft, ${name}`, { exact: true })).toBeVisible();
  await openTask(page, 'shape');
  await plate.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel(`From aft, ${name}`, { exact: true })).toBeVisible();
});
