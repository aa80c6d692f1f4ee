import { readFileSync } from 'node:fs';
import { boxMesh, loadKernel, movedMesh } from '@/core/geometry';
import { enter, expect, openCopy, openTask, settled, stlFile as file, test } from './app';

test.describe.configure({ timeout: 400_000 });

test('measure up a bay: lengths replace guesses, and one that cannot be is named', async ({ page }) => {
  await openCopy(page, 'box-boat', 'fit/bay');
  await page.getByRole('button', { name: 'Measure up a bay' }).click();
  const bay = page.getByTestId('bay');
  await expect(bay.getByText('Lengths taken')).toBeVisible();
  await openTask(page, 'clearance');
  await expect(page.getByTestId('tightest')).toBeVisible();
  await openTask(page, 'measure-up');
  await expect(page.getByTestId('sheet').getByRole('row').nth(1)).toContainText('moves the gap to');
  await openTask(page, 'bay');
  for (const [name, value] of [
    ['lower starboard to lower port', '700'],
    ['lower port to upper port', '420'],
    ['upper port to upper starboard', '700'],
    ['upper starboard to lower starboard', '420'],
    ['lower starboard to upper port', '816.3'],
    ['lower port to upper starboard', '816.3'],
  ] as const) {
    await enter(page, `${name}, At the aft end`, value);
  }
  await settled(page);
  await expect(page.getByTestId('contradictions')).toBeHidden();
  await enter(page, 'lower starboard to upper port, At the aft end', '870');
  await expect(page.getByTestId('contradictions')).toContainText('would agree at');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('contradictions')).toBeHidden();
});

test('the tank fouls an axle at full bump; cutting the floor frees it and says what it costs', async ({ page }) => {
  await openCopy(page, 'forest-trailer', 'fit/obstacles');
  const obstacles = page.getByTestId('obstacles');
  await obstacles.getByText('Axle beam', { exact: true }).first().click();
  await enter(page, 'From rest to full bump, Axle beam', '130');
  await openTask(page, 'clearance');
  await expect(page.getByTestId('tightest')).toContainText('−');
  await expect(page.getByTestId('gap-axle')).toContainText('overlaps');
  await expect(page.getByTestId('gaps')).toContainText('at full bump');
  await page
    .getByTestId('gaps')
    .getByRole('button', { name: /^Axle beam/ })
    .click();
  const mends = page.getByTestId('mends');
  await expect(mends.getByRole('button', { name: /^Floor raised/ })).toBeVisible();
  await expect(mends).toContainText('costs');
  await mends.getByRole('button', { name: /^Floor raised/ }).click();
  await expect(page.getByTestId('gap-axle')).not.toContainText('overlaps');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('gap-axle')).toContainText('overlaps');
  await mends.getByRole('button', { name: /^Move the tank/ }).click();
  await expect(page.getByTestId('gap-axle')).not.toContainText('overlaps');
});

test('the way out is checked as typed, found, played step by step and kept', async ({ page }) => {
  await openCopy(page, 'forest-trailer', 'fit/removal');
  const ways = page.getByTestId('removals');
  await enter(page, 'Or say how, and see whether it goes', 'sideways 20');
  await expect(ways.getByRole('alert')).toContainText('is no move');
  await enter(page, 'Or say how, and see whether it goes', 'forward 400');
  await expect(page.getByTestId('way-check')).toContainText('touches');
  await ways.getByRole('button', { name: 'Find a way out' }).click();
  await expect(page.getByTestId('way-found')).toContainText('A way out');
  await ways.getByRole('button', { name: 'Step on' }).click();
  await expect(page.getByTestId('moving-part').first()).toBeVisible();
  await ways.getByRole('button', { name: 'Keep this way' }).click();
  await expect(ways.getByRole('button', { name: 'This way is kept' })).toBeVisible();
});

test('a search without a way says how far it is, what opens one, and goes on until it is stopped', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'fit/removal');
  const ways = page.getByTestId('removals');
  await ways.getByLabel('What comes out').selectOption({ label: 'Tool tray' });
  await ways.getByRole('button', { name: 'Find a way out' }).click();
  const search = page.getByTestId('way-search');
  await expect(search).toContainText(/Looked at [\d,]+ positions .* gaps down to 0\.3 mm/);
  await expect(search).toContainText('One opens with Deck cover out of the way first.', { timeout: 120_000 });
  // Nothing else waits behind it.
  await enter(page, 'Or say how, and see whether it goes', 'forward 400');
  await expect(page.getByTestId('way-check')).toContainText('touches');
  await expect(search).toContainText('it goes on until');
  await ways.getByRole('button', { name: 'Stop' }).click();
  await expect(search).toContainText(/Stopped after [\d,]+ positions.*does not prove/);
  await expect(ways.getByRole('alert')).toHaveCount(0);
  await expect(page.getByText('broke')).toHaveCount(0);
  // The next question finds a worker again.
  await ways.getByRole('button', { name: 'What must come out first?' }).click();
  await expect(page.getByTestId('removal-order')).toContainText('Deck cover');
  // A search belongs to its part, and to a stage that is looked at.
  await ways.getByRole('button', { name: 'Find a way out' }).click();
  await expect(search).toContainText('it goes on until');
  await ways.getByLabel('What comes out').selectOption({ label: 'Main tank' });
  await expect(search).toHaveCount(0);
  await ways.getByRole('button', { name: 'Find a way out' }).click();
  await expect(search).toContainText('it goes on until');
  await page.getByTestId('stage-range').click();
  await page.getByTestId('stage-fit').click();
  await expect(ways.getByRole('button', { name: 'Find a way out' })).toBeEnabled();
  await expect(search).toHaveCount(0);
});

test('what must come out first, how big it could be, and what a face costs', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'fit/removal');
  await page.getByRole('button', { name: 'What must come out first?' }).click();
  await expect(page.getByTestId('removal-order').getByRole('listitem')).toHaveCount(4, { timeout: 120_000 });
  await openTask(page, 'size');
  await page.getByRole('button', { name: 'What does each face cost?' }).click();
  await expect(page.getByTestId('face-costs')).toContainText('Lid lowered 10 mm');
  await page.getByRole('button', { name: 'Find the largest tank' }).click();
  await expect(page.getByTestId('largest').getByRole('button', { name: 'Make the tank this size' })).toHaveCount(2, {
    timeout: 120_000,
  });
});

test('the builder’s constraints are set here and found at their stage; a built size changes the litres', async ({
  page,
}) => {
  await openCopy(page, 'box-boat', 'fit/size');
  await page.getByLabel('No new hole below the liquid').check();
  await openTask(page, 'built');
  await page.getByTestId('built').getByLabel('Measured on the built tank').selectOption('shape.height_m');
  const height = page.getByTestId('built').getByLabel(/inside height, .*, as built$/);
  await height.fill('290');
  await height.press('Enter');
  await page.getByRole('button', { name: 'What does it change?' }).click();
  await expect(page.getByTestId('built-result')).toContainText('less');
  await page.keyboard.press('9');
  await expect(page.getByRole('heading', { name: 'Findings' })).toBeVisible();
});

test('hands and tools: what comes off first is named, the tool is drawn, a named bolt is tried too', async ({
  page,
}) => {
  await openCopy(page, 'hill-climb-car', 'fit/reach');
  const reach = page.getByTestId('reach');
  const feed = page.getByTestId('reach-feed-tighten');
  await expect(feed).toContainText('First off: Cell cover', { timeout: 120_000 });
  await feed.click();
  await expect(reach.getByTestId('moving-part').first()).toBeVisible();
  await reach.getByRole('button', { name: 'a bolt to tighten' }).click();
  const bolt = reach.getByTestId('reach-bolt-tighten');
  await expect(bolt).toContainText('Bolt 1', { timeout: 120_000 });
  await reach.locator('summary').filter({ hasText: 'Bolt 1' }).click();
  await enter(page, 'From its rear end, Bolt 1', '40');
  await expect(bolt).toContainText('not at all', { timeout: 120_000 });
  await expect(bolt).toContainText('In the way: Fuel cell’s walls');
  await page.keyboard.press('Control+z');
  await expect(bolt).not.toContainText('not at all', { timeout: 120_000 });
});

test('a bay and an obstacle come in as STL; a bad one changes nothing; a template goes out at true size', async ({
  page,
}) => {
  await loadKernel();
  await openCopy(page, 'box-boat', 'fit/bay');
  const bay = page.getByTestId('bay');
  await bay.getByLabel('Unit of the STL file').selectOption('m');
  await page.getByTestId('stl-bay').setInputFiles(file('vast.stl', boxMesh(0.9, 0.8, 0.7)));
  await expect(bay.getByRole('alert')).toContainText('another unit');
  await bay.getByLabel('Unit of the STL file').selectOption('mm');
  await page
    .getByTestId('stl-bay')
    .setInputFiles(file('hold.stl', movedMesh(boxMesh(0.9, 0.8, 0.7), [-0.1, -0.1, -0.1])));
  await expect(bay).toContainText('900 mm');
  await openTask(page, 'clearance');
  await expect(page.getByTestId('tightest')).toBeVisible();
  await openTask(page, 'obstacles');
  const obstacles = page.getByTestId('obstacles');
  await page
    .getByTestId('stl-obstacle')
    .setInputFiles(file('post.stl', movedMesh(boxMesh(0.05, 0.05, 0.3), [0.1, -0.08, 0])));
  await openTask(page, 'clearance');
  await expect(page.getByTestId('gap-obstacle')).toBeVisible();
  await openTask(page, 'obstacles');
  await obstacles.getByText('Obstacle 1', { exact: true }).first().click();
  await obstacles.getByRole('button', { name: 'One more body' }).click();
  await enter(page, 'Above it, Obstacle 1, body 2', '350');
  await settled(page);
  await obstacles.getByRole('button', { name: 'Remove this body' }).click();
  await expect(obstacles.getByRole('button', { name: 'Remove this body' })).toBeHidden();
  await openTask(page, 'templates');
  await page.getByTestId('templates').getByLabel('Turned over, for the other side').check();
  await expect(page.getByTestId('template-outline')).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save at true size (SVG)' }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/turned-over\.svg$/);
  const svg = readFileSync(await download.path(), 'utf8');
  const [, width, box] = /width="([\d.]+)mm" height="[\d.]+mm" viewBox="0 0 ([\d.]+) /.exec(svg)!;
  expect(width).toBe(box);
});
