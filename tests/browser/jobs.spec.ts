import { enter, expect, numberText, openCopy, openTask, settled, test, type Page } from './app';

/** Opens the start page at a kind of job. */
async function begin(page: Page, job: string): Promise<void> {
  await page.goto('/new');
  await page.getByRole('radio', { name: new RegExp(`^${job}`) }).check();
}

/** Work it out, and wait for the numbers of what was made. */
async function workOut(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Work it out' }).click();
  await settled(page);
}

const valueOf = async (page: Page, key: string): Promise<number> =>
  parseFloat((await numberText(page, key)).replace('−', '-'));

test('main tank, 3 entries: holds what was asked, and its return goes back to it', async ({ page }) => {
  await begin(page, 'Main tank');
  await page.getByLabel('What is it in?').selectOption('road');
  await enter(page, 'How much should it hold?', '70');
  await workOut(page);
  expect(Math.abs((await valueOf(page, 'holds')) - 70)).toBeLessThan(0.5);
  // 40 kW × 240 g/kWh ÷ 0.835 kg/L = 11.50 L/h full; at road speed 0.08 + 0.92 × 0.2 of it: 3.035 L/h, 72 km/h.
  await expect(page.getByTestId('numbers')).toContainText('3.04 L/h (4.22 L/100 km)');
  await page.getByTestId('stage-lines').click();
  await page.getByTestId('task-circuits').filter({ visible: true }).click();
  await expect(page.getByTestId('circuits')).toContainText('back to Main tank');
});

test('auxiliary by pump, 4 entries: both tanks are counted, and the transfer moves', async ({ page }) => {
  await begin(page, 'Auxiliary tank');
  await enter(page, 'How much does the main tank hold?', '60');
  await enter(page, 'How much should the auxiliary hold?', '90');
  await page.getByLabel('How does the fuel get across?').selectOption('pump');
  await workOut(page);
  expect(Math.abs((await valueOf(page, 'holds')) - 150)).toBeLessThan(0.6);
  await expect(page.getByTestId('numbers')).toContainText(/Main tank 60\.\d L \+ Auxiliary tank 90\.\d L/);
  await page.getByTestId('stage-lines').click();
  await page.getByTestId('task-circuits').filter({ visible: true }).click();
  await expect(page.getByTestId('circuits')).toContainText('L/h now');
});

test('transfer tank, 4 entries: litres a minute at the nozzle, minutes a fill, fills in a load', async ({ page }) => {
  await begin(page, 'Transfer tank or drum');
  await enter(page, 'How much should it hold?', '200');
  await enter(page, 'How much is a fill?', '50');
  await enter(page, 'What does the pump’s plate say?', '40');
  await workOut(page);
  const numbers = page.getByTestId('numbers');
  await expect(numbers).toContainText('At the nozzle');
  await expect(numbers).toContainText('A fill takes');
  await expect(numbers).toContainText('50.0 L a fill');
  const flow = await valueOf(page, 'delivers');
  // Of 40 L/min free flow some three fifths arrive through filter, meter and 4 m of hose.
  expect(flow).toBeGreaterThan(20);
  expect(flow).toBeLessThan(36);
  expect(Math.abs((await valueOf(page, 'goes')) / (50 / flow) - 1)).toBeLessThan(0.06);
  await expect(page.getByTestId('number-gauge')).toHaveCount(0);
});

test('heater on a tank of its own, 3 entries: it runs for hours', async ({ page }) => {
  await begin(page, 'Heater or generator');
  await enter(page, 'How strong is it?', '2');
  await enter(page, 'How much should its tank hold?', '7');
  await workOut(page);
  await expect(page.getByTestId('numbers')).toContainText('Runs for');
  // 2 kW × 105 g/kWh ÷ 0.836 kg/L = 0.251 L/h full, 0.25 + 0.75 × 0.2 of it on: 0.1 L/h; usable less a fifth over it.
  const usable = await valueOf(page, 'usable');
  const hours = await valueOf(page, 'goes');
  expect(Math.abs(hours / ((usable * 0.8) / (((2 * 0.105) / 0.836) * 0.4)) - 1)).toBeLessThan(0.05);
});

test('surge pot, 3 entries: the tank behind the pot is counted too', async ({ page }) => {
  await begin(page, 'Surge pot, sump or in-tank pump');
  await enter(page, 'How much does the tank hold?', '45');
  await enter(page, 'How much should pot or sump hold?', '3');
  await workOut(page);
  expect(Math.abs((await valueOf(page, 'holds')) - 48)).toBeLessThan(0.5);
  await expect(page.getByTestId('numbers')).toContainText('Surge pot');
});

test('coolant recovery, 3 entries: room for what swells, and no number that it has not', async ({ page }) => {
  await begin(page, 'Catch, coolant or overflow tank');
  await page.getByLabel('What comes into it?').selectOption('coolant');
  await enter(page, 'How much is there of it in all?', '12');
  await workOut(page);
  // Some 6 to 7 % of 12 L from cold to hot, and half again of that stays in it.
  const litres = await valueOf(page, 'holds');
  expect(litres).toBeGreaterThan(12 * 0.05 * 1.5);
  expect(litres).toBeLessThan(12 * 0.09 * 1.5);
  for (const key of ['usable', 'delivers', 'goes', 'gauge'])
    await expect(page.getByTestId(`number-${key}`)).toHaveCount(0);
  await expect(page.getByTestId('numbers')).not.toContainText('none');
  // 1074 kg/m³ at 15 °C less 0.58 a kelvin: 1079.8 ÷ 1018.9 − 1 = 5.98 % from 5 to 110 °C, of 12 L 0.717 L.
  expect(await valueOf(page, 'comes')).toBeCloseTo(0.717, 1);
  await expect(page.getByTestId('numbers')).toContainText('over what stands in Coolant recovery tank');
});

test('catch tank, 2 entries: what may come, and the pressure that its gas builds on the way', async ({ page }) => {
  await begin(page, 'Catch, coolant or overflow tank');
  await enter(page, 'How much is there of it in all?', '5');
  await enter(page, 'How strong is the engine?', '60');
  await workOut(page);
  expect(await valueOf(page, 'comes')).toBe(5);
  await expect(page.getByTestId('numbers')).toContainText('at 60.0 L/min of blow-by; 1.50 kPa allowed');
  expect(await valueOf(page, 'backPressure')).toBeLessThan(1.5);
  for (const key of ['usable', 'delivers', 'goes', 'gauge'])
    await expect(page.getByTestId(`number-${key}`)).toHaveCount(0);
  // Its circuits are there, though it feeds nobody; another end point is a choice away.
  await openTask(page, 'runs', 'lines');
  await page.getByRole('button', { name: 'New run' }).click();
  const run = page.getByTestId('new-run');
  await run.getByLabel('For').selectOption('vent');
  await run.getByLabel('From').selectOption({ label: 'new: crankcase' });
  await run.getByLabel('To').selectOption({ label: 'new: open end' });
  await run.getByRole('button', { name: 'Add line' }).click();
  await expect(page.getByTestId('stage-lines')).toBeVisible();
  await openTask(page, 'delivery', 'lines');
  await expect(page.getByTestId('expelled')).toContainText('Crankcase 2: 4.00 L may come');
});

test('sump, module and drum, 2 choices each: what was there stays, and what is made shows', async ({ page }) => {
  await begin(page, 'Surge pot, sump or in-tank pump');
  await page.getByLabel('How is it kept fed?').selectOption('sump');
  await workOut(page);
  const usable = await valueOf(page, 'usable');
  await begin(page, 'Surge pot, sump or in-tank pump');
  await page.getByLabel('How is it kept fed?').selectOption('pump');
  await workOut(page);
  expect(usable).toBeGreaterThan(await valueOf(page, 'usable'));
  await begin(page, 'Transfer tank or drum');
  await page.getByLabel('What is it in?').selectOption({ label: 'steel drum, 200 L' });
  await expect(page.getByLabel('How much should it hold?')).toHaveCount(0);
  await workOut(page);
  // π/4 × 0.5715² × 0.851 = 0.2183 m³, at 95 % 207 L.
  expect(await valueOf(page, 'holds')).toBe(207);
  await expect(page.getByTestId('numbers')).toContainText('5 cans by hand take 22.5 min');
  await openTask(page, 'shape', 'tank');
  await expect(page.getByLabel('Bought vessel')).toHaveValue('drum-200');
  await page.getByLabel('Bought vessel').selectOption({ label: 'steel drum, 60 L' });
  await settled(page);
  // π/4 × 0.37² × 0.58 = 62.4 L, at 95 % 59.2 L.
  expect(await valueOf(page, 'holds')).toBeCloseTo(59.2, -0.5);
});

test('a cap, a seal and a timed speed, 1 choice each: judged where they are chosen', async ({ page }) => {
  await openCopy(page, 'van-heater', 'vents');
  await page.getByLabel('Its cap').selectOption({ label: 'lets air in only' });
  await expect(page.getByTestId('stage-vents')).toContainText('▲');
  await page.getByLabel('Its cap').selectOption({ label: 'plain, tight' });
  await expect(page.getByText('Tube tank has no vent, and a plain cap.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await openTask(page, 'seals', 'tank');
  const named = page.getByTestId('named-contacts');
  await named.getByLabel('Filler is sealed by').selectOption({ label: 'silicone rubber (gaskets and seals)' });
  await expect(page.getByText(/At Filler of Tube tank, in diesel: silicone rubber/)).toBeVisible();
  await page.getByTestId('stage-range').click();
  const rows = page.getByTestId('cruise-row');
  await expect(rows).toHaveCount(2);
  // 6.92 L less a fifth over 0.1044 L/h: 53 h.
  await expect(rows.first()).toContainText(/runs for 53\.\d h/);
  await rows.first().getByRole('button', { name: 'Go at it' }).click();
  await settled(page);
  await expect(page.getByTestId('numbers')).toContainText('at 0.10 L/h');
});

test('bench bottle, 3 entries: gravity feeds it for minutes', async ({ page }) => {
  await begin(page, 'Bench bottle');
  await enter(page, 'How much should it hold?', '1.5');
  await enter(page, 'How far does its foot hang over the carburettor?', '500');
  await workOut(page);
  await expect(page.getByTestId('numbers')).toContainText('Runs for');
  expect(await numberText(page, 'goes')).toContain('min');
  // Its foot 0.5 m over it; 1.58 L in a box twice as high as wide stand 0.185 m high, nine tenths of that now:
  // 0.667 m, shown with as many digits as its spread leaves.
  expect(Math.abs((await valueOf(page, 'head')) - 0.667)).toBeLessThan(0.04);
  expect(await valueOf(page, 'delivers')).toBeGreaterThan(0);
});

test('water, 2 entries: no consumer is asked for', async ({ page }) => {
  await begin(page, 'Water or urea tank');
  await enter(page, 'How much should it hold?', '80');
  await workOut(page);
  expect(Math.abs((await valueOf(page, 'holds')) - 80)).toBeLessThan(0.5);
  await expect(page.getByTestId('number-delivers')).toHaveCount(0);
});

test('a second tank in a plan that is there, 3 choices instead of 21 steps; and consumption as mpg', async ({
  page,
}) => {
  await begin(page, 'Main tank');
  await page.getByLabel('What is it in?').selectOption('road');
  await workOut(page);
  const before = await valueOf(page, 'holds');
  await page.getByRole('button', { name: 'Tank', exact: true }).click();
  await page.getByTestId('add-tank').getByLabel('How much should it hold?').fill('40');
  await page.getByRole('button', { name: 'Add tank' }).click();
  await settled(page);
  expect(Math.abs((await valueOf(page, 'holds')) - before - 40)).toBeLessThan(0.5);
  await expect(page.getByRole('button', { name: 'Undo: add a tank' })).toBeEnabled();
  await page.getByTestId('stage-range').click();
  await enter(page, 'Consumption as you know it', '40 mpg');
  await expect(page.getByText(/A gallon can be the US or the imperial one/)).toBeVisible();
  await enter(page, 'Consumption as you know it', '40 US mpg');
  await settled(page);
  // 235.2 ÷ 40 = 5.88 L/100 km, at 72 km/h 4.23 L/h.
  await expect(page.getByTestId('numbers')).toContainText('4.23 L/h (5.88 L/100 km)');
  await expect(page.getByTestId('said-consumption')).toHaveValue('5.88 L/100 km');
  await enter(page, 'Consumption as you know it', '90 L/100 km');
  await expect(page.getByText(/burns .* at idle and .* at full load/)).toBeVisible();
});
