import { enter, expect, openCopy, openTask, settled, test } from './app';

test('foam: what is bought and how it is cut follow the opening that it goes through', async ({ page }) => {
  await openCopy(page, 'hill-climb-car', 'tank/foam');
  const foam = page.getByTestId('foam');
  await expect(foam).toContainText('To buy 23.3 L in 3 pieces');
  await enter(page, 'Opening they go through', '60');
  await settled(page);
  await expect(foam).not.toContainText('in 3 pieces');
  await expect(foam).toContainText(/in \d+ pieces/);
  await foam.getByLabel('It goes in', { exact: true }).selectOption({ label: 'before the lid' });
  await expect(foam).toContainText('To buy 23.3 L in 2 pieces');
  await foam.getByLabel('Foam', { exact: true }).selectOption({ label: 'none' });
  await expect(foam).not.toContainText('To buy');
  await page.keyboard.press('Control+z');
  await expect(foam).toContainText('in 2 pieces');
});

test('a can about a pickup: its openings are judged, and a bad count is told', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'ports/pickups');
  const can = page.getByTestId('can');
  await can.getByLabel('Can about it', { exact: true }).selectOption({ label: 'with doors that open inward' });
  await expect(can.getByLabel('Doors leak when shut', { exact: true })).toHaveValue('5');
  const openings = can.getByLabel('Openings', { exact: true });
  await openings.fill('some');
  await openings.press('Enter');
  await expect(can.getByRole('alert')).toContainText('A whole number from 1 to 400');
  await openings.fill('1');
  await openings.press('Enter');
  await enter(page, 'Width of an opening', '2');
  await settled(page);
  await openTask(page, 'baffles', 'tank');
  await expect(page.getByRole('region', { name: 'Findings here' })).toContainText('A can that fills too slowly');
});

test('bosses of a sight tube stand on the hole chart; a spigot takes no hole', async ({ page }) => {
  await openCopy(page, 'forest-trailer', 'ports/list');
  const chart = page.getByTestId('hole-chart');
  await expect(chart).toContainText('Sight tube, lower boss');
  const rows = chart.locator('tbody tr');
  const before = await rows.count();
  await openTask(page, 'scales', 'gauge');
  await page.getByLabel('Bosses, Sight tube', { exact: true }).selectOption({ label: 'not said' });
  await openTask(page, 'list', 'ports');
  await expect(rows).toHaveCount(before - 2);
  await page.locator('summary').filter({ hasText: 'Sender flange' }).click();
  await page.getByRole('button', { name: 'Add a spigot on it' }).click();
  await expect(page.locator('summary').filter({ hasText: 'Spigot 1 of Sender flange' })).toBeVisible();
  await settled(page);
  await expect(rows).toHaveCount(before - 2);
});

test('fillers that are marked unlike are told apart, and what the wrong one does is said', async ({ page }) => {
  await openCopy(page, 'forest-trailer', 'lines/shopping');
  const mixUps = page.getByTestId('mix-ups');
  await expect(mixUps).toContainText('Each with its fuel on it');
  await expect(page.getByTestId('wrong-fuel')).toContainText('Petrol (gasoline) into Filler of Transfer tank');
  await page.getByTestId('stage-vents').click();
  await page.getByRole('button', { name: 'Bench bottle', exact: true }).click();
  const says = page.getByLabel('Says', { exact: true });
  await says.fill('PETROL');
  await says.press('Enter');
  await page.getByLabel('Colour', { exact: true }).selectOption({ label: 'red' });
  await settled(page);
  await openTask(page, 'shopping', 'lines');
  await expect(mixUps).toContainText('Told apart: DIESEL, yellow against PETROL, red');
});

test('one shell made two by a sealed wall, in 3 choices: both hold, and the wall is counted once', async ({ page }) => {
  await openCopy(page, 'forest-trailer', 'tank/shape');
  await page.getByRole('button', { name: 'Tank', exact: true }).click();
  const form = page.getByTestId('add-tank');
  await form.getByLabel(/How does its fuel get/).selectOption('divided');
  await enter(page, 'Its rear side from the rear', '5');
  await form.getByRole('button', { name: 'Divide it' }).click();
  await expect(form.getByRole('alert')).toContainText('It must leave 20 mm or more');
  await enter(page, 'Its rear side from the rear', '200');
  await form.getByRole('button', { name: 'Divide it' }).click();
  await expect(page.getByTestId('shared-wall')).toContainText('One shell with Transfer tank');
  await settled(page);
  await page.getByTestId('stage-fit').click();
  await openTask(page, 'removal', 'fit');
  await expect(page.getByLabel('What comes out').locator('option').first()).toHaveText(
    'Transfer tank with Transfer tank 2',
  );
  await openTask(page, 'shape', 'tank');
  await page.getByRole('button', { name: 'Give it walls of its own' }).click();
  await expect(page.getByTestId('shared-wall')).toHaveCount(0);
});

test('a filter with the pump on its module stands in the tank; one that follows nothing there is told', async ({
  page,
}) => {
  await openCopy(page, 'crab-boat', 'lines/runs');
  await page.getByText('Water separator').first().click();
  await page.getByLabel('It stands', { exact: true }).selectOption({ label: 'in the tank, on the module' });
  await settled(page);
  await openTask(page, 'schematic', 'lines');
  await expect(page.getByText(/Water separator is said to stand in the tank, but does not follow/)).toBeVisible();
});

test('a hard line is tried out of its place, and a bracket is cut by a template like a tank’s face', async ({
  page,
}) => {
  await openCopy(page, 'crab-boat', 'fit/removal');
  await page.getByLabel('What comes out').selectOption({ label: 'Day tank to heater cock' });
  await page.getByRole('button', { name: 'Find a way out' }).click();
  await expect(page.getByTestId('way-found')).toContainText('A way out');
  await openTask(page, 'templates', 'fit');
  const templates = page.getByTestId('templates');
  await templates.getByLabel('Of', { exact: true }).selectOption({ label: 'Sole beam' });
  await expect(templates.getByRole('table')).toContainText('A to B');
  await expect(templates.getByRole('img').first()).toHaveAccessibleName(/Sole beam/);
  await page.getByRole('button', { name: 'Day tank', exact: true }).click();
  await expect(templates.getByLabel('Of', { exact: true })).toHaveValue('-');
});

test('set down loose: the lean at which a tank goes over, and one that rolls says so', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'tank/slopes');
  const tips = page.getByTestId('tips');
  await expect(tips).toContainText('First at 33°, half full, over its front side');
  await expect(tips.getByRole('row')).toHaveCount(5);
  await openCopy(page, 'forest-trailer', 'tank/slopes');
  await expect(tips.getByRole('alert')).toContainText('it rolls at once');
});
