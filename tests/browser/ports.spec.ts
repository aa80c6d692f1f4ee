import { readFileSync } from 'node:fs';
import { enter, expect, openCopy, openTask, saved, settled, test } from './app';

const sum = '[data-testid="sheets-sum"][data-fresh="true"]';

test('a port is put beside another, clashes, and is moved clear by hand', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'ports');
  await expect(page.locator(sum)).toContainText('Every port fits');
  await page.getByRole('button', { name: 'Add a plugged spare beside the feed' }).click();
  await expect(page.getByTestId('line-spare')).toBeVisible();
  await page.getByTestId('line-spare').click();
  // On to the heater's bung, measured from two edges as on metal; then away from it.
  const place = page.getByTestId('port-place');
  await expect(place).toContainText('Spare, plugged: centre');
  // By what takes the press: the number beside a port is of it too.
  const middle = (id: string) => page.getByTestId(`sheet-port-${id}`).locator('circle').first().boundingBox();
  const [from, to] = [(await middle('spare'))!, (await middle('feed'))!];
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + to.width / 2 + 2, to.y + to.height / 2 + 2, { steps: 6 });
  await page.mouse.up();
  await expect(page.locator(sum)).toContainText('2 ports do not fit');
  await expect(page.getByTestId('line-spare').getByTestId('sheet-check')).toContainText('Overlaps Feed');
  await page.getByTestId('stage-findings').click();
  await expect(page.getByTestId('finding-port.neighbour').first()).toContainText('overlap');
  await page.getByTestId('stage-ports').click();
  await page.getByTestId('line-spare').click();
  // The arrow keys move it by a centimetre with shift.
  await page.getByTestId('sheet-port-spare').focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+ArrowUp');
  await expect(page.locator(sum)).toContainText('Every port fits');
  await saved(page);
  await page.keyboard.press('Control+z');
  await settled(page);
});

test('a centre typed from an edge, a part chosen, the hole chart as CSV', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'ports');
  await page.getByTestId('line-feed').click();
  const place = page.getByTestId('port-place');
  const field = place.getByRole('textbox').first();
  await field.fill('150');
  await field.press('Enter');
  await expect(page.locator(sum)).toBeVisible();
  await openTask(page, 'list');
  await expect(page.getByTestId('hole-chart')).toContainText('150 mm from edge A–B');
  const row = page.locator('[data-path="tanks.0.ports.2"]').first();
  await row.getByText('Feed').first().click();
  await row.getByLabel('Part, Feed').selectOption('bulkhead-8');
  await expect(page.getByTestId('hole-chart')).toContainText('bulkhead fitting, -8');
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByTestId('hole-chart').getByRole('button', { name: 'CSV' }).click(),
  ]);
  const lines = readFileSync((await csv.path())!, 'utf8')
    .trim()
    .split('\r\n');
  expect(lines[0]).toContain('from_1,distance_1_mm,from_2,distance_2_mm,hole_mm');
  expect(lines.find((line) => line.includes(',Feed,'))).toContain('150');
  expect(lines).toHaveLength(1 + 7);
});

test('what a heater’s pickup leaves for the engine, and the height that leaves so much', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'ports/pickups');
  const reserve = page.getByTestId('reserve');
  await expect(reserve).toContainText('left for Petrol V6');
  await enter(page, 'Keep for Petrol V6', '5');
  await expect(reserve).toContainText('Heater standpipe ends');
  await reserve.getByRole('button', { name: 'Set it so' }).click();
  await expect(reserve).toContainText('5.0');
  await expect(page.getByTestId('cut').first()).toContainText('Cut it to');
});
