import { enter, expect, openCopy, openTask, settled, test } from './app';

test('from "hold this tank down" to the bolt that limits changed, and the sheet printed', async ({ page }) => {
  await openCopy(page, 'box-boat', 'mounts/layout');
  await page.getByRole('button', { name: 'Hold this tank down here' }).click();
  const layouts = page.getByTestId('layouts');
  await expect(layouts).toContainText(/Straps over bearers[\s\S]*Holds, with \d/);
  await expect(layouts).toContainText(/Welded tabs[\s\S]*Holds, with \d/);
  await page.getByRole('button', { name: 'Take straps over bearers' }).click();
  const mounts = page.getByTestId('mounts');
  await expect(mounts).toContainText('Strap 1');
  // By mouse and by key: the tank itself lies over none of them.
  await page.getByTestId('mount-picture').getByRole('button', { name: 'Fields of Strap 1' }).click();
  await expect(mounts.locator('details[open]')).toContainText('Strap 1');
  // A bolt of soft steel that is far too small.
  await page.getByTestId('mount-picture').getByRole('button', { name: 'Fields of Stop, fore side' }).press('Enter');
  const fields = mounts.locator('details[open]');
  await expect(fields).toContainText('Stop, fore side');
  await fields.getByLabel('Bolt size, Stop, fore side').selectOption('M5');
  await fields.getByLabel('Bolt class, Stop, fore side').selectOption('4.6');
  await enter(page, 'Bolts, Stop, fore side', '1');
  await enter(page, 'Thickness, Stop, fore side', '12');
  await settled(page);
  await openTask(page, 'loads', 'mounts');
  await page.getByRole('button', { name: 'Set them here' }).click();
  await enter(page, 'Thrown forward, as when it stops', '4');
  await settled(page);
  await expect(page.getByTestId('pressed')).toContainText(/Fore end[\s\S]*kPa/);
  await openTask(page, 'strength', 'mounts');
  const verdict = page.getByTestId('mount-verdict');
  await expect(verdict).toContainText('Too weak');
  const strength = page.getByTestId('strength');
  await expect(strength).toContainText('First at Stop, fore side: bolt');
  const changes = page.getByTestId('mount-changes');
  const better = changes.getByRole('button').first();
  await expect(better).toContainText('Stop, fore side');
  await better.click();
  await settled(page);
  await expect(verdict).toContainText('Holds');
  await expect(changes).toHaveCount(0);
  // The sheet has each mount, its bolts and torque, and what it was worked out for.
  await page.getByTestId('stage-paper').click();
  await page.getByLabel('Sheet', { exact: true }).selectOption({ label: 'Mounts and bolts' });
  const sheet = page.getByTestId('paper');
  await expect(sheet).toContainText('What it was worked out for');
  await expect(sheet).toContainText('Stop, fore side');
});

test('without mounts nothing is called held; a mount that is loose, astray or unsaid says so', async ({ page }) => {
  await openCopy(page, 'box-boat', 'mounts/strength');
  await expect(page.getByTestId('mount-verdict')).toContainText('Nothing is said of how it is held');
  await expect(page.getByTestId('stage-mounts')).toContainText(/not judged|\?/);
  await openTask(page, 'layout', 'mounts');
  await page.getByRole('button', { name: 'Hold this tank down here' }).click();
  await page.getByRole('button', { name: 'Take straps over bearers' }).click();
  const mounts = page.getByTestId('mounts');
  await expect(mounts).toContainText('Bearer 1');
  // What a rivet nut of that size bears stands in no table: not known, and not held.
  await mounts.getByText('Strap 1', { exact: true }).click();
  await mounts.getByLabel('Its thread is in, Strap 1').selectOption('rivet-nut');
  await mounts.getByLabel('Bolt size, Strap 1').selectOption('M16');
  await openTask(page, 'strength', 'mounts');
  await expect(page.getByTestId('mount-verdict')).toContainText('Not known whether it holds');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('mount-verdict')).toContainText('Holds');
  await openTask(page, 'layout', 'mounts');
  for (const name of ['Stop, fore side', 'Stop, aft side']) {
    await mounts.getByText(name, { exact: true }).click();
    await mounts.getByRole('button', { name: `Remove ${name}` }).click();
  }
  await settled(page);
  await openTask(page, 'strength', 'mounts');
  await expect(page.getByTestId('strength')).toContainText(
    /held by friction alone; shaken, it slides forward|slides forward/,
  );
  await openTask(page, 'layout', 'mounts');
  await mounts.getByText('Strap 1', { exact: true }).click();
  await enter(page, 'From aft, Strap 1', '9000');
  await settled(page);
  await page.getByTestId('stage-findings').click();
  await expect(page.getByRole('main')).toContainText('Strap 1 holds nothing');
});

test('axles weighed, the tank drawn to one side, and put back where both sides are alike', async ({ page }) => {
  await openCopy(page, 'box-boat', 'mounts/weight');
  await page.getByRole('button', { name: 'Say what its axles bear' }).click();
  const stands = page.getByTestId('stands');
  const table = stands.getByRole('table', { name: 'What each axle bears' });
  await expect(table).toContainText('Coupling');
  // What it may bear is not said: nothing is called good.
  await expect(page.getByTestId('stand-verdict')).toContainText('Not known whether it bears them');
  await expect(page.getByTestId('halved')).toContainText('half is taken for each side');
  const stance = page.getByTestId('stance');
  await stance.getByRole('button', { name: 'Most it may bear, Axle' }).click();
  await enter(page, 'Most it may bear, Axle', '200');
  await settled(page);
  await expect(page.getByTestId('stand-verdict')).toContainText(/Axle: \d+ kg of 200 kg/);
  await enter(page, 'Most it may bear, Axle', '9000');
  await settled(page);
  // By keys, and by the pointer, as one step of undo each.
  const tank = page.getByTestId('stand-picture').getByRole('button', { name: /move with the arrow keys/ });
  const width = async (): Promise<string> => (await table.getByRole('row', { name: /^Full/ }).textContent()) ?? '';
  const before = await width();
  await tank.press('Shift+ArrowUp');
  await tank.press('Shift+ArrowUp');
  await settled(page);
  await expect.poll(width).not.toBe(before);
  const box = (await tank.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 30, box.y + box.height / 2, { steps: 3 });
  await page.mouse.up();
  await settled(page);
  const even = page.getByTestId('elsewhere').getByRole('button', { name: /both sides alike/ });
  await even.click();
  await settled(page);
  await expect(table.getByRole('row', { name: /^Full/ })).toContainText('50 %');
  await expect(even).toHaveCount(0);
});

test('how a boat lies as her tanks fill, and what uses up her steadiness', async ({ page }) => {
  await openCopy(page, 'crab-boat', 'mounts/weight');
  const table = page.getByTestId('stands').getByRole('table', { name: 'How she lies' });
  await expect(table).toContainText(/Full[\s\S]*to port/);
  await expect(page.getByTestId('stand-verdict')).toContainText('trims level');
  await page.getByLabel('Metacentric height', { exact: true }).selectOption({ label: 'given' });
  await enter(page, 'Metacentric height, GM', '12');
  await settled(page);
  await expect(table).toContainText('leans more than 12°');
  await expect(page.getByTestId('stand-verdict')).toContainText('not known');
});

test('lifted on forks and from slings: closer forks let it go sooner, a low hook is too flat', async ({ page }) => {
  await openCopy(page, 'box-boat', 'mounts/lifted');
  const carried = page.getByTestId('carried');
  const table = carried.getByRole('table', { name: 'Lifted and carried' });
  const forks = table.getByRole('row', { name: /On forks/ });
  await expect(forks).toContainText('°');
  const before = await forks.textContent();
  await carried.getByLabel('Forks apart, outside to outside').selectOption({ label: '300 mm' });
  await expect.poll(() => forks.textContent()).not.toBe(before);
  await expect(table).not.toContainText('too flat');
  await carried.getByLabel('Hook over its top, four slings').selectOption({ label: '300 mm' });
  await expect(table).toContainText('too flat, hook higher');
});

test('a guard is added, drawn aside, put by the tank’s edges and mirrored; it stands in Fit and in the lists', async ({
  page,
}) => {
  await openCopy(page, 'box-boat', 'mounts/layout');
  await page.getByRole('button', { name: 'Hold this tank down here' }).click();
  await page.getByRole('button', { name: 'Take straps over bearers' }).click();
  await settled(page);
  const panel = page.getByTestId('mounts');
  await panel.getByRole('button', { name: 'Mount', exact: true }).click();
  await panel.getByRole('button', { name: 'Guard', exact: true }).click();
  await settled(page);
  const picture = page.getByTestId('mount-picture');
  const grip = picture.getByRole('button', { name: 'Fields of Guard 1' });
  await grip.press('Enter');
  const fields = panel.locator('details[open]');
  await expect(fields).toContainText('Guard 1');
  const fromAft = fields.getByRole('textbox', { name: /^From aft/ });
  const before = Number(await fromAft.inputValue());
  // By key, then with the pointer, as one step of undo each.
  await grip.press('ArrowRight');
  await settled(page);
  const stepped = Number(await fromAft.inputValue());
  expect(stepped).toBeGreaterThan(before);
  // By the tank's own edge.
  await enter(page, 'Off the tank’s aft end, Guard 1', '300');
  await settled(page);
  await fields.getByRole('button', { name: 'One more at the other end' }).click();
  await settled(page);
  await expect(panel).toContainText('Guard 2');
  // A strap is drawn along with the pointer, as one step of undo.
  const strap = picture.getByRole('button', { name: 'Fields of Strap 1' });
  await strap.press('Enter');
  await expect(fields).toContainText('Strap 1');
  const stood = Number(await fromAft.inputValue());
  await settled(page);
  // Its number beside it is no handle.
  const drawn = strap.locator('path').first();
  await drawn.hover();
  const box = (await drawn.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.down();
  await page.mouse.move(x + 20, y, { steps: 4 });
  await page.mouse.up();
  await settled(page);
  expect(Number(await fromAft.inputValue())).toBeGreaterThan(stood);
  await page.getByRole('button', { name: 'Undo: move Strap 1' }).click();
  await settled(page);
  expect(Number(await fromAft.inputValue())).toBe(stood);
  // Rubber mounts under a bearer are asked for by what their maker says.
  await picture.getByRole('button', { name: 'Fields of Bearer 1' }).press('Enter');
  await fields.getByRole('button', { name: 'On rubber mounts' }).click();
  await settled(page);
  await expect(fields.getByRole('textbox', { name: /^They carry at most/ })).toBeVisible();
  await openTask(page, 'shopping', 'lines');
  await expect(page.getByTestId('lists-mounts')).toContainText('M6 bolt');
  await openTask(page, 'reach', 'fit');
  await expect(page.getByTestId('reach')).toContainText('Bolts of Guard 1');
});
