import { readFileSync } from 'node:fs';
import { enter, expect, numberText, openCopy, openTask, openText, saved, settled, test, type Page } from './app';

type Saved = {
  document: {
    components: { id: string; kind: string; name: string; ends: unknown[] }[];
    lines: {
      id: string;
      stock?: string;
      from: { item: string; adapters: string[] };
      to: { item: string; adapters: string[] };
    }[];
  };
};
const documentOf = async (page: Page, id: string) =>
  ((await (await page.request.get(`/api/systems/${id}`)).json()) as Saved).document;

/** The system of a demo without its lines and parts. */
async function openBare(page: Page): Promise<string> {
  const bare = JSON.parse(readFileSync('demo/crab-boat.json', 'utf8')) as {
    lines: unknown[];
    components: unknown[];
    tanks: { sightTubes: unknown[] }[];
  };
  const response = await page.request.post('/api/systems', {
    headers: { 'content-type': 'application/json' },
    data: { ...bare, name: 'Bare boat', lines: [], components: [] },
  });
  expect(response.status()).toBe(201);
  const { id } = (await response.json()) as { id: string };
  await page.goto(`/systems/${id}?stage=lines`);
  await settled(page);
  return id;
}

test('the crab boat’s feed is built from tank to engine, with a filter, a valve and a pump', async ({ page }) => {
  const id = await openBare(page);
  await expect(page.getByTestId('answers')).toContainText('No line leads');
  await openTask(page, 'runs');
  await page.getByRole('button', { name: 'New run' }).click();
  const form = page.getByTestId('new-run');
  await form.getByLabel('From').selectOption({ label: 'Engine pickup, Sole tank' });
  await form.getByLabel('To').selectOption({ label: '38 kW diesel, inlet' });
  await form.getByRole('button', { name: 'Add line' }).click();
  await settled(page);
  const steps = page.getByTestId('run-steps').getByRole('listitem');
  await expect(steps).toHaveCount(3);
  for (const [kind, count] of [
    ['shut-off valve', 5],
    ['filter or separator', 7],
    ['pump', 9],
  ] as const) {
    await page.getByRole('button', { name: /^Insert a part into .* to 38 kW diesel$/ }).click();
    await page.getByLabel('Part', { exact: true }).selectOption({ label: kind });
    await page.getByRole('button', { name: 'Insert', exact: true }).click();
    await expect(steps).toHaveCount(count);
  }
  await settled(page);
  await openTask(page, 'delivery');
  await expect(page.getByTestId('answers')).toContainText('needed');
  await openTask(page, 'schematic');
  await expect(page.getByTestId('schematic').getByRole('button', { name: /^Filter,/ })).toBeVisible();
  await openTask(page, 'runs');
  // Shutting the valve stops all of it, and says what the pump then does.
  await steps
    .filter({ hasText: 'shut-off valve' })
    .getByRole('button', { name: 'Shut-off valve', exact: true })
    .click();
  await page.getByLabel('Stands', { exact: true }).selectOption({ label: 'shut' });
  await settled(page);
  await openTask(page, 'delivery');
  await expect(page.getByTestId('answers')).toContainText('Shut-off valve is shut.');
  await openTask(page, 'runs');
  await page.getByRole('button', { name: /^Undo: / }).click();
  await settled(page);
  // The filter moves behind the pump, and comes out again.
  await page.getByRole('button', { name: 'Move Filter on' }).click();
  await settled(page);
  await expect(steps.nth(4)).toContainText('Pump');
  await page.getByRole('button', { name: 'Remove Filter', exact: true }).click();
  await expect(steps).toHaveCount(7);
  await saved(page);
  const { components, lines } = await documentOf(page, id);
  expect(components.map(({ kind }) => kind).sort()).toEqual(['pump', 'valve']);
  expect(lines).toHaveLength(3);
  await page.request.delete(`/api/systems/${id}`, { headers: { 'content-type': 'application/json' } });
});

test('another line size is taken from the table with one press, and the numbers follow', async ({ page }) => {
  const id = await openCopy(page, 'crab-boat', 'lines/sizing');
  await page.getByLabel('Line to size').selectOption({ label: 'Lift pump to injection pump' });
  const rows = page.getByTestId('size-row');
  await expect(rows.filter({ hasText: 'is there now' })).toContainText('8 mm (5/16)');
  const before = parseFloat(await numberText(page, 'delivers'));
  await page.getByRole('button', { name: 'Use 6 mm (1/4)' }).click();
  await settled(page);
  await expect(rows.filter({ hasText: 'is there now' })).toContainText('6 mm (1/4)');
  expect(parseFloat(await numberText(page, 'delivers'))).toBeLessThan(before);
  await enter(page, 'Price of a metre of 6 mm (1/4)', '10');
  await expect(rows.filter({ hasText: 'is there now' })).toContainText('4.50');
  await saved(page);
  expect((await documentOf(page, id)).lines.find((line) => line.id === 'line-3')!.stock).toBe('hose-marine-6-mm-1-4');
});

test('a join is broken, mended with a proposed chain of adapters, and counted in the parts list', async ({ page }) => {
  const id = await openCopy(page, 'crab-boat', 'lines/joints');
  await expect(page.getByTestId('joints')).toContainText('go together');
  await page.getByRole('button', { name: 'Change the end of 38 kW diesel for Lift pump to injection pump' }).click();
  await page.getByLabel('End is').selectOption('npt');
  await page.getByLabel('Size', { exact: true }).selectOption('1/4');
  await page.getByLabel('Side', { exact: true }).selectOption('female');
  await page.getByRole('button', { name: 'Set the end' }).click();
  await settled(page);
  const broken = page.getByTestId('joint').and(page.locator('[data-state=broken]'));
  await expect(broken).toHaveCount(1);
  await openTask(page, 'runs');
  await expect(page.getByTestId('run-steps')).toContainText('does not fit 38 kW diesel');
  await openTask(page, 'joints');
  await broken.getByRole('button', { name: /Find adapters/ }).click();
  const first = broken.getByTestId('mends').getByRole('button').first();
  await expect(first).toContainText('1 adapter');
  await first.click();
  await settled(page);
  await expect(broken).toHaveCount(0);
  await expect(page.getByTestId('joint').filter({ hasText: '38 kW diesel with Lift pump' })).toContainText('sealant');
  await openTask(page, 'shopping');
  await expect(page.getByTestId('lists')).toContainText('1/4 NPT male thread to 5/16 in barb');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Parts CSV' }).click();
  expect(readFileSync((await (await download).path())!, 'utf8')).toContain(
    'adapter,1/4 NPT male thread to 5/16 in barb,1,',
  );
  await saved(page);
  expect((await documentOf(page, id)).lines.find((line) => line.id === 'line-3')!.to.adapters).toHaveLength(1);
});

test('joins that cannot be are not offered, and a branch ends where it is told to', async ({ page }) => {
  await openCopy(page, 'box-boat', 'lines/runs');
  await page.getByRole('button', { name: 'New run' }).click();
  const to = page.getByTestId('new-run').getByLabel('To', { exact: true });
  await expect(to.getByRole('option', { name: /Vent/ })).toHaveCount(0);
  await page.getByTestId('new-run').getByRole('button', { name: 'Cancel' }).click();
  await page
    .getByRole('button', { name: /^Branch off/ })
    .last()
    .click();
  await page.getByLabel('Branch leads to').selectOption({ label: 'new: open end' });
  await page.getByLabel('Its purpose').selectOption('overflow');
  await page.getByRole('button', { name: 'Branch here' }).click();
  await settled(page);
  await expect(page.getByLabel('Run', { exact: true }).getByRole('option')).toHaveCount(3);
  await openTask(page, 'schematic');
  await expect(page.getByTestId('schematic').getByRole('button', { name: /^Tee,/ })).toBeVisible();
});

test('a part is kept among one’s own, goes out as CSV, comes back in, and stands in another run', async ({ page }) => {
  await openCopy(page, 'crab-boat', 'lines/schematic');
  await page
    .getByTestId('schematic')
    .getByRole('button', { name: /^Water separator/ })
    .click();
  await page.getByRole('button', { name: 'Keep among own parts' }).click();
  await openTask(page, 'shopping');
  const own = page.getByTestId('own-part');
  await expect(own).toHaveCount(1);
  const download = page.waitForEvent('download');
  await page.getByTestId('catalogue').getByRole('button', { name: 'CSV', exact: true }).click();
  const csv = readFileSync((await (await download).path())!, 'utf8');
  expect(csv).toContain('Water separator');
  await page.getByRole('button', { name: 'Remove Water separator from own parts' }).click();
  await expect(own).toHaveCount(0);
  await page
    .getByLabel('Import CSV')
    .setInputFiles({ name: 'parts.csv', mimeType: 'text/csv', buffer: Buffer.from('kind,name\ncarousel,X\n') });
  await expect(page.getByTestId('catalogue').getByRole('alert')).toContainText('Row 2');
  await page
    .getByLabel('Import CSV')
    .setInputFiles({ name: 'parts.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(own).toHaveCount(1);
  await openTask(page, 'runs');
  await page
    .getByRole('button', { name: /^Insert a part into/ })
    .last()
    .click();
  await page.getByLabel('Part', { exact: true }).selectOption({ label: 'Water separator (own parts)' });
  await page.getByRole('button', { name: 'Insert', exact: true }).click();
  await expect(page.getByTestId('run-steps')).toContainText('Water separator 2');
  await openTask(page, 'shopping');
  await page.getByRole('button', { name: 'Remove Water separator from own parts' }).click();
  await expect(own).toHaveCount(0);
});

test('thin wire is told, and the wire that would do is named', async ({ page }) => {
  await openCopy(page, 'forest-trailer', 'lines/schematic');
  await page
    .getByTestId('schematic')
    .getByRole('button', { name: /^12 V transfer pump/ })
    .click();
  const wiring = page.getByTestId('wiring');
  await expect(wiring).toContainText('of 12.4 V');
  const before = parseFloat(await numberText(page, 'delivers'));
  await wiring.getByLabel('Wire', { exact: true }).selectOption({ label: '1.5 mm²' });
  await settled(page);
  expect(parseFloat(await numberText(page, 'delivers'))).toBeLessThan(before);
  await expect(page.getByText(/lets the wire burn/)).toBeVisible();
});

test('the part of another site or of no use is refused at the door', async ({ page }) => {
  const json = { 'content-type': 'application/json' };
  expect(
    (await page.request.post('/api/parts', { headers: json, data: { part: { kind: 'carousel' } } })).status(),
  ).toBe(422);
  expect((await page.request.post('/api/parts', { headers: json, data: {} })).status()).toBe(422);
  expect(
    (await page.request.post('/api/parts', { headers: { 'content-type': 'text/plain' }, data: 'x' })).status(),
  ).toBe(415);
  expect((await page.request.delete('/api/parts/none')).status()).toBe(404);
});

test('without a vent: that no air follows, and how long it runs all the same', async ({ page }) => {
  const boat = JSON.parse(readFileSync('demo/crab-boat.json', 'utf8')) as { tanks: { ports: { role: string }[] }[] };
  for (const port of boat.tanks.flatMap(({ ports }) => ports)) if (port.role === 'vent') port.role = 'spare';
  await openText(page, JSON.stringify({ ...boat, name: 'Unvented' }), 'lines/delivery');
  await expect(page.getByTestId('answers').first()).toContainText('No air follows');
  await expect(page.getByTestId('answers').first()).not.toContainText('Nothing flows');
  const playedOut = page.getByTestId('played-out').first();
  const told = playedOut.getByRole('listitem').first();
  await expect(told).toContainText(/runs for .*, then gets too little: Sole tank is drawn to/);
  const words = (await told.innerText()).trim();
  await playedOut.getByRole('button', { name: 'See it over time' }).click();
  await expect(page.getByTestId('verdict')).toContainText(words);
});
