import { OTHERS_AFTER_MS } from '../../src/ui/workspace/ahead';
import { enter, expect, numberText, openCopy, openTask, saved, settled, test } from './app';

test('conditions act on everything at once', async ({ page }) => {
  await openCopy(page, 'box-boat');
  const liquid = page.getByTestId('liquid').first();
  const level = await liquid.getAttribute('d');
  const delivered = await numberText(page, 'delivers');
  await enter(page, 'Pitch', '-12');
  await settled(page);
  await expect(liquid).not.toHaveAttribute('d', level!);
  await page
    .getByTestId('conditions')
    .getByRole('button', { name: /^▸ Conditions/ })
    .click();
  await enter(page, 'Fuel temp.', '-20');
  await settled(page);
  expect(await numberText(page, 'delivers')).not.toBe(delivered);
  await enter(page, 'Fill', '3');
  await expect(page.getByTestId('number-delivers')).toHaveText('none');
  await expect(page.getByTestId('numbers')).toContainText('draws air');
  expect(await numberText(page, 'findings')).not.toBe('0');
  await page.getByRole('button', { name: 'Reset to level' }).click();
  await expect(page.getByLabel('Pitch', { exact: true })).toHaveValue('0');
});

test('each number opens its working, and leads to the value put in', async ({ page }) => {
  await openCopy(page, 'box-boat', 'gauge');
  for (const [key, words] of [
    ['holds', 'fill limit'],
    ['usable', 'left behind'],
    ['delivers', 'viscosity'],
    ['goes', 'reserve'],
    ['gauge', 'arm length'],
  ] as const) {
    await page.getByTestId(`number-${key}`).click();
    await expect(page.getByTestId('working')).toContainText(words);
  }
  await page.getByTestId('number-goes').click();
  await page.getByTestId('working').getByRole('button', { name: 'burn at full load' }).click();
  await expect(page.getByTestId('stage-range')).toHaveAttribute('aria-current', 'page');
  await expect(page.getByLabel('Burn at full load', { exact: true })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('working')).toHaveCount(0);
});

test('measure next lists what is assumed, most telling first, and shrinks when it is measured', async ({ page }) => {
  await openCopy(page, 'forest-trailer', 'measure');
  const rows = page.getByTestId('measure-row');
  await expect(rows.first()).toContainText('±');
  const first = (await rows.first().innerText()).split('\n');
  await rows.first().click();
  await expect(page.locator('input:focus')).toBeVisible();
  const value = await page.locator('input:focus').inputValue();
  await page.locator('input:focus').fill(String(Number(value) * 1.01));
  await page.keyboard.press('Enter');
  await page.getByTestId('stage-measure').click();
  await expect(rows.first()).not.toContainText(first[1]!);
});

for (const goesOn of [false, true])
  test(`a field that was asked for ${goesOn ? 'leaves the cursor to who goes on' : 'has the cursor'} when its stage comes late`, async ({
    page,
  }) => {
    // Longer than was once waited.
    const LATE_MS = 7000;
    // The rest of the page is not fetched ahead, as where one presses before it is.
    await page.addInitScript((ahead_ms) => {
      const later = window.setTimeout.bind(window);
      window.setTimeout = ((act: () => void, ms?: number) =>
        ms === ahead_ms ? 0 : later(act, ms)) as typeof window.setTimeout;
    }, OTHERS_AFTER_MS);
    await openCopy(page, 'forest-trailer', 'measure');
    const rows = page.getByTestId('measure-row');
    await expect(rows.first()).toContainText('±');
    await page.route(/_next\/static\/chunks\/.*\.js/, async (route) => {
      await new Promise((done) => setTimeout(done, LATE_MS));
      await route.continue();
    });
    await rows.filter({ hasText: 'real output' }).click();
    await expect(page.getByTestId('stage-opening')).toBeVisible();
    if (goesOn) await page.keyboard.press('Shift');
    await expect(page.getByTestId('pump')).toBeVisible();
    const field = page.getByTestId('pump').getByRole('textbox', { name: /real output/i });
    if (goesOn) await expect(field).not.toBeFocused();
    else await expect(field).toBeFocused();
  });

test('a finding leads to what mends it, and goes when it is mended', async ({ page }) => {
  await openCopy(page, 'box-boat', 'ports/pickups');
  await enter(page, 'Height off the floor', '60');
  await page.getByTestId('stage-findings').click();
  const finding = page.getByTestId('finding-pickup.too-high');
  await expect(finding).toContainText('Fix.');
  await finding.getByRole('button', { name: 'Go to it' }).click();
  await expect(page.getByTestId('pickup').getByLabel('Height off the floor', { exact: true })).toBeFocused();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('20');
  await page.keyboard.press('Enter');
  await page.getByTestId('stage-findings').click();
  await expect(finding).toHaveCount(0);
});

test('ports: add, move to another face, remove, with the constraint of their users', async ({ page }) => {
  await openCopy(page, 'box-boat', 'ports/list');
  await page.getByRole('button', { name: 'Add a port' }).click();
  const row = page.locator('[data-path="tanks.0.ports.5"]').first();
  await row.locator('summary').click();
  await row.getByLabel('On the').selectOption('aft');
  await expect(row.getByLabel('Above the floor', { exact: true })).toBeVisible();
  await expect(page.getByLabel('Remove Engine feed')).toBeDisabled();
  await page.getByLabel('Remove Spare, plugged').click();
  await expect(row).toHaveCount(0);
});

test('stages by number keys; names and everything else by keyboard', async ({ page }) => {
  await openCopy(page, 'hill-climb-car');
  await page.keyboard.press('4');
  await expect(page.getByTestId('answers')).toBeVisible();
  await page.keyboard.press('6');
  await expect(page.getByTestId('gauge-chart')).toBeVisible();
  await openTask(page, 'sender');
  await page.getByLabel('Arm length', { exact: true }).focus();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByLabel('Arm length', { exact: true })).toHaveValue('76');
});

test('the save state is visible, survives a silent server and sends what was kept', async ({ page }) => {
  const id = await openCopy(page, 'box-boat');
  await page.route(`**/api/systems/${id}`, (route) => route.abort());
  await enter(page, 'Inside width', '590');
  await expect(page.getByTestId('save-state')).toContainText('Not saved');
  await page.unroute(`**/api/systems/${id}`);
  await page.getByRole('button', { name: 'Try now' }).click();
  await saved(page);
  const row = (await (await page.request.get(`/api/systems/${id}`)).json()) as {
    document: { tanks: { shape: { width_m: { value: number } } }[] };
  };
  expect(row.document.tanks[0]!.shape.width_m.value).toBe(0.59);
});

test('two windows on one system: the second to save the same place is told, and can keep its own as a copy', async ({
  page,
}) => {
  const id = await openCopy(page, 'box-boat');
  await page.route('**/revision', (route) => route.abort()); // it does not hear of the other in time
  const other = await page.context().newPage();
  await other.goto(`/systems/${id}`);
  await settled(other);
  await enter(other, 'Inside width', '575');
  await saved(other);
  await enter(page, 'Inside width', '580');
  await expect(page.getByTestId('save-state')).toContainText('Another device changed the same place');
  await page.getByTestId('conflict').getByRole('button', { name: 'Save mine as a copy' }).click();
  await page.waitForURL((url) => !url.pathname.endsWith(id));
  await settled(page);
  await expect(page.getByLabel('Inside width', { exact: true })).toHaveValue('580');
  const there = (await (await page.request.get(`/api/systems/${id}`)).json()) as {
    document: { tanks: { shape: { width_m: { value: number } } }[] };
  };
  expect(there.document.tanks[0]!.shape.width_m.value).toBe(0.575);
});
