import { expect, openCopy, openTask, settled, test, type Page } from './app';

test('a sender is designed for the tank and taken, and the gauge follows', async ({ page }) => {
  await openCopy(page, 'box-boat', 'gauge');
  const chart = page.getByTestId('gauge-chart');
  await expect(chart).toContainText('The sender does not see the lowest');
  const unseen = async (): Promise<number> =>
    Number(/does not see the lowest ([\d.]+) L/.exec((await chart.textContent())!)![1]);
  const before = await unseen();
  await openTask(page, 'sender');
  await page.getByTestId('ask-design').click();
  const designed = page.getByTestId('designed');
  await expect(designed).toContainText('follows');
  await designed.getByRole('button', { name: 'Use it' }).click();
  await settled(page);
  await expect(page.getByTestId('sender').getByLabel('Arm length', { exact: true })).not.toHaveValue('');
  await openTask(page, 'needle');
  await expect.poll(unseen).toBeLessThan(before);
  await openTask(page, 'sender');
  await page.getByTestId('ask-refit').click();
  await expect(page.getByTestId('refitted')).toContainText('As it is');
});

test('a tube with reeds, and a gauge of crossed coils', async ({ page }) => {
  await openCopy(page, 'box-boat', 'gauge/sender');
  await page.getByLabel('It is a', { exact: true }).selectOption('tube');
  await expect(page.getByLabel('Between its contacts', { exact: true })).toBeVisible();
  await page.getByLabel('Range', { exact: true }).selectOption('240-33');
  await openTask(page, 'needle');
  await page.getByLabel('It moves', { exact: true }).selectOption('cross-coil');
  await expect(page.getByLabel('Gauge shows half at', { exact: true })).toHaveValue('103');
  await expect(page.getByTestId('gauge-chart')).toContainText('“Quarter” is');
  await page.getByLabel('Gauge shows half at', { exact: true }).fill('230');
  await page.getByLabel('Gauge shows half at', { exact: true }).press('Enter');
  await expect(page.getByText(/No cross-coil gauge shows half at/).first()).toBeVisible();
});

/** Pours 22 L into the simulated rig until it stands still, and writes down what it reads. */
async function pourOnce(page: Page): Promise<void> {
  await page.getByTestId('rig-pour').click();
  // The meter may count some percent wrong; how long it pours is too short to be seen on a busy machine.
  await expect.poll(async () => parseFloat(await page.getByTestId('rig-meter').innerText())).toBeGreaterThan(20);
  await expect(page.getByTestId('rig-state')).toContainText('still, at');
  await expect(page.getByTestId('rig-take')).toBeEnabled();
  const lines = await page
    .getByTestId('pours')
    .getByRole('row')
    .count()
    .catch(() => 1);
  await page.getByTestId('rig-take').click();
  await expect(page.getByTestId('pours').getByRole('row')).toHaveCount(Math.max(1, lines) + 1);
}

test('a calibration from the simulated rig to a correction table that the gauge is taught', async ({ page }) => {
  await openCopy(page, 'box-boat', 'gauge/calibration');
  await page.getByRole('button', { name: 'New log of Sender' }).click();
  await page.getByLabel('Its time runs', { exact: true }).selectOption('60');
  await page.getByTestId('start-rig').click();
  await expect(page.getByTestId('rig')).toContainText('Simulated rig');
  await page.getByLabel('Pour in', { exact: true }).fill('22');
  await page.getByLabel('Pour in', { exact: true }).press('Enter');
  for (let i = 0; i < 7; i++) await pourOnce(page);
  await expect(page.getByTestId('simulated-log')).toBeVisible();
  await expect(page.locator('[data-testid="calibrated"][data-fresh="true"]')).toContainText(
    'Why it does not read as planned',
  );
  const table = page.getByTestId('points-measured');
  await expect(table.getByRole('row')).toHaveCount(1 + 5);
  await page.getByTestId('teach-measured').click();
  await page.getByRole('button', { name: 'End the rig' }).click();
  await expect(page.getByTestId('rig-truth')).toContainText('the tank held');
  // On paper the table stands without the buttons round it.
  await page.emulateMedia({ media: 'print' });
  await expect(table).toBeVisible();
  await expect(page.getByTestId('pour-entry')).toBeHidden();
  await page.emulateMedia({ media: null });
  await openTask(page, 'needle');
  await expect(page.getByTestId('needle')).toContainText('It was taught 5 points');
});

test('a log by hand and by file: weights, strikes, and a bad file that is refused with its rows', async ({ page }) => {
  await openCopy(page, 'box-boat', 'gauge/calibration');
  await page.getByRole('button', { name: 'New log of Sender' }).click();
  await page.getByLabel('Poured by', { exact: true }).selectOption('scale');
  await page.getByLabel('Weight or volume poured', { exact: true }).fill('8.4 kg');
  await page.getByLabel('Weight or volume poured', { exact: true }).press('Enter');
  await expect(page.getByTestId('pour-entry')).toContainText('8.40 kg =');
  await page.getByLabel('Reading after it', { exact: true }).fill('221');
  await page.getByLabel('Reading after it', { exact: true }).press('Enter');
  await page.getByTestId('write-pour').click();
  await expect(page.getByTestId('pours').getByRole('row')).toHaveCount(2);
  const file = page.getByTestId('pours-file');
  const csv = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await file.setInputFiles(csv('bad.csv', 'added_L,reading,unit\n5,212,ohm\n5,0,190,ohm\nsix,180,ohm\n'));
  await expect(page.getByTestId('pours-said')).toContainText('Nothing was imported. Row 3: has 4 cells');
  await expect(page.getByTestId('pours-said')).toContainText('Row 4');
  await expect(page.getByTestId('pours').getByRole('row')).toHaveCount(2);
  await file.setInputFiles(
    csv(
      'good.csv',
      '\uFEFFadded_L;reading;unit\r\n20,0;205,5;ohm\r\n20;190;ohm\r\n20;230;ohm\r\n20;140;ohm\r\n500;120;ohm\r\n',
    ),
  );
  await expect(page.getByTestId('pours-said')).toContainText('5 rows imported');
  await expect(page.getByTestId('pours').getByRole('row')).toHaveCount(7);
  await expect(page.getByTestId('pours')).toContainText('reading went the wrong way');
  await expect(page.getByTestId('pours')).toContainText('more than the tank can hold');
  // Struck, it stays in the log and no longer counts.
  await page.getByLabel('Line 6 counts as', { exact: true }).selectOption('entry-struck');
  await expect(page.getByTestId('pours').getByRole('row')).toHaveCount(7);
  await expect(page.getByTestId('pours')).not.toContainText('more than the tank can hold');
  // What was written first stays beside it; and undo takes back what is planned, not what happened.
  await expect(page.getByTestId('pour-corrected')).toContainText('before: counts');
  await page.getByRole('button', { name: 'Remove this log' }).click();
  await expect(page.getByTestId('loose-pours')).toContainText('6 pours');
  await page.getByRole('button', { name: /^Undo: remove the log/ }).click();
  await expect(page.getByTestId('pours').getByRole('row')).toHaveCount(7);
  await expect(page.getByTestId('pour-corrected')).toBeVisible();
  await expect(page.getByTestId('save-state')).toHaveAttribute('data-state', 'saved');
  await page.reload();
  await expect(page.getByTestId('pours').getByRole('row')).toHaveCount(7);
  await expect(page.getByTestId('pour-corrected')).toBeVisible();
});
