import { boxMesh, combine, loadKernel, movedMesh } from '@/core/geometry';
import { unwrap } from '@/core/outcome';
import { enter, expect, numberText, openCopy, saved, settled, stlFile as file, test } from './app';

test('a good STL becomes the tank; a bad one says what is wrong and changes nothing', async ({ page }) => {
  await loadKernel();
  await openCopy(page, 'box-boat');
  const before = await numberText(page, 'holds');
  const open = boxMesh(0.5, 0.4, 0.3);
  await page.getByTestId('stl-shape').setInputFiles(file('open.stl', { ...open, triangles: open.triangles.slice(3) }));
  await expect(page.getByTestId('sizes').getByRole('alert')).toContainText('open.stl: The mesh is open');
  await page.getByTestId('sizes').getByLabel('Unit of the STL file').selectOption('m');
  await page.getByTestId('stl-shape').setInputFiles(file('large.stl', open));
  await expect(page.getByTestId('sizes').getByRole('alert')).toContainText('500 m long');
  expect(await numberText(page, 'holds')).toBe(before);
  await page.getByTestId('sizes').getByLabel('Unit of the STL file').selectOption('mm');
  const stepped = unwrap(combine(boxMesh(1, 0.5, 0.4), movedMesh(boxMesh(0.3, 0.6, 0.3), [0.8, -0.05, -0.1]), 'take'));
  await page.getByTestId('stl-shape').setInputFiles(file('stepped.stl', stepped));
  // 0.2 m³ less a step of 0.2 x 0.5 x 0.2, filled to 95 %; the file is read and proved before it becomes the tank.
  await expect.poll(async () => parseFloat(await numberText(page, 'holds'))).toBeCloseTo(171, 0);
  await page.keyboard.press('Control+z');
  await settled(page);
  expect(await numberText(page, 'holds')).toBe(before);
});

test('a sump, a notch and a band each say what they make or cost', async ({ page }) => {
  await openCopy(page, 'box-boat');
  await page.getByRole('button', { name: 'Sump', exact: true }).click();
  await enter(page, 'Length, Sump', '165');
  await enter(page, 'Width, Sump', '100');
  await enter(page, 'Height, Sump', '25');
  await enter(page, 'Its bottom above the floor, Sump', '-25');
  await expect(page.getByTestId('change-sump')).toHaveText(/adds 0\.41\d L/);
  await page.getByRole('button', { name: 'Notch', exact: true }).click();
  await expect(page.getByTestId('change-notch')).toHaveText(/costs \d/);
  await page.getByRole('button', { name: 'Cut a slice out' }).click();
  await enter(page, 'Width taken out, Band', '50');
  // Less where the band meets sump or notch: over the middle it is the box and the sump.
  await expect(page.getByTestId('change-band')).toHaveText(/costs 8\.\d+ L/);
  await page.locator('[data-path="tanks.0.parts.1"] summary').click();
  await page.getByRole('button', { name: 'Remove Notch' }).click();
  await expect(page.getByTestId('change-notch')).toHaveCount(0);
  await page.getByLabel('Sizes are measured').selectOption('outside');
  await settled(page);
  await expect(page.getByLabel('Outside length', { exact: true })).toBeVisible();
});

test('a baffle makes two compartments, and one that lets nothing through is found out', async ({ page }) => {
  await openCopy(page, 'box-boat', 'tank/baffles');
  await page.getByTestId('baffles').getByRole('button', { name: 'Baffle', exact: true }).click();
  const compartments = page.getByRole('table', { name: 'Compartments' }).getByRole('row');
  await expect(compartments).toHaveCount(1 + 2);
  await enter(page, 'From aft, Baffle', '280');
  await expect(compartments.nth(1)).toContainText(/47\.\d L/); // a quarter of 189 L
  await enter(page, 'Lower corners cut, leg, Baffle', '0');
  await expect(compartments.nth(2)).toContainText(/1\d\d L.*1[23]\d(\.\d)? L/);
  await enter(page, 'Air gap above, Baffle', '0');
  await expect(compartments.nth(2)).toContainText('all of it');
  await page.getByTestId('stage-findings').click();
  await expect(page.getByRole('main')).toContainText('A compartment is cut off from the pickup');
});

test('fork, change, compare side by side', async ({ page }) => {
  await openCopy(page, 'box-boat');
  const first = page.url();
  await page.getByRole('button', { name: 'Fork a variant' }).click();
  await expect(page).not.toHaveURL(first);
  await expect(page.getByTestId('system-name')).toHaveValue(/, variant \d+$/);
  await settled(page);
  await enter(page, 'Inside height', '352');
  await saved(page);
  await page.getByRole('button', { name: 'Compare with its variants' }).click();
  const holds = page.getByTestId('figure-holds');
  await expect(holds.getByTestId('column-0')).toContainText('180 L');
  await expect(holds.getByTestId('column-1')).toContainText(/\+29\.8 L \(\+17 %\)/);
  await expect(page.getByTestId('figure-seams').getByTestId('column-1')).toContainText('+0.20 m');
  await expect(page.getByTestId('differences')).toContainText('Sole tank: inside height');
  await expect(page.getByTestId('differences')).toContainText('352 mm');
  await page.getByLabel('Second').selectOption('');
  await expect(holds.getByTestId('column-1')).toHaveCount(0);
});

test('a second tank: added, named, filled by itself, removed and brought back', async ({ page }) => {
  await openCopy(page, 'box-boat');
  await page.getByRole('button', { name: 'Tank', exact: true }).click();
  await page.getByLabel(/^How does its fuel get to/).selectOption('apart');
  await page.getByRole('button', { name: 'Add tank' }).click();
  await settled(page);
  await enter(page, 'Name of the tank', 'Day tank');
  await enter(page, 'Inside height', '200');
  await expect(page.getByLabel('Fill, Day tank', { exact: true })).toHaveValue('60');
  await page.getByTestId('stage-vents').click();
  await expect(page.getByRole('button', { name: 'Day tank' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByTestId('stage-tank').click();
  await page.getByRole('button', { name: 'Remove this tank' }).click();
  await expect(page.getByLabel('Fill, Day tank', { exact: true })).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Fill, Day tank', { exact: true })).toHaveCount(1);
});

test('the picture turns and cuts by key, or says why there is none', async ({ page }) => {
  await openCopy(page, 'crab-boat');
  const picture = page.getByTestId('picture');
  await expect(picture.getByText('mm').first().or(picture.getByText('shows no 3D'))).toBeVisible();
  await picture.getByRole('img').focus();
  await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: 'Enlarge the picture' }).click();
  await expect(page.getByTestId('tank-views')).toHaveCount(0);
  await page.getByRole('button', { name: 'Back to the views' }).click();
  await expect(page.getByTestId('tank-views')).toBeVisible();
});

test('what touches the fuel follows the fuel, and another can be looked up', async ({ page }) => {
  await openCopy(page, 'forest-trailer', 'tank/contact');
  const table = page.getByTestId('contact');
  await expect(table).toContainText('mild steel, bare, this tank');
  await table.getByLabel('Fluid').selectOption('alcohol-blend');
  await expect(table.locator('div', { hasText: /^.bad.*galvanized/ }).last()).toBeVisible();
});
