import { quiet, type SystemDocument } from '@/core/plan';
import { rig, rigEngine, rigPump } from '../timeSystems';
import { enter, expect, openCopy, openTask, openText, saved, settled, test, type Page } from './app';

/** A tank whose filler leads down by a tube: while it fills, gas gets out by its thin vent alone. */
const thinlyVented = (): SystemDocument =>
  rig(
    [
      {
        id: 'a',
        box: [0.6, 0.4, 0.3],
        vent_m: 0.004,
        ventLength_m: 1,
        filler_m: 0.038,
        neck_m: 0.25,
        tube_m: 0.25,
        fill: 0.05,
      },
    ],
    [],
  );

/** A main whose only breather is a small hole, over a vented auxiliary that it draws from while that is shut. */
const vacuumDraw = (): SystemDocument => ({
  ...rig(
    [
      { id: 'main', box: [0.4, 0.3, 0.3], outlet_m: 0.008, inlet_m: 0.008, vent_m: 0.006, fill: 0.9 },
      { id: 'aux', box: [0.4, 0.3, 0.3], at_m: [1, 0, -0.5], outlet_m: 0.008, vent_m: 0.006, fill: 0.9 },
    ],
    [
      { id: 'suck', from: ['main-pickup', 'out'], to: ['lift', 'in'], bore_m: 0.008, length_m: 1, purpose: 'feed' },
      { id: 'push', from: ['lift', 'out'], to: ['engine', 'in'], bore_m: 0.008, length_m: 0.3, purpose: 'feed' },
      { id: 'rise', from: ['aux-pickup', 'out'], to: ['main-in', 'in'], bore_m: 0.008, length_m: 2, rise_m: 0.8 },
    ],
    [rigPump('lift', 40_000, 3e-5)],
    [rigEngine(4e-6, 0)],
  ),
  scenarios: [{ ...quiet('An hour and a half under way', 6000), duties: [{ at_s: 0, duty_ratio: 1, runs: true }] }],
});

const play = async (page: Page): Promise<void> => {
  await page.getByRole('button', { name: 'Play it' }).click();
  await expect(page.getByRole('button', { name: 'Play it' })).toBeVisible();
};
const verdict = (page: Page) => page.getByTestId('verdict');
const litresIn = async (page: Page, tank: string): Promise<number> =>
  Number((await page.getByTestId(`moment-${tank}`).innerText()).match(/([\d.]+) L/)![1]);
const goToEnd = async (page: Page): Promise<void> => {
  await page.getByLabel('Time', { exact: true }).focus();
  await page.keyboard.press('End');
};

test('a fill clicks off early by a thin vent; with a larger one it is played again, and both stand side by side', async ({
  page,
}) => {
  await openText(page, JSON.stringify(thinlyVented()), 'vents/time');
  await expect(verdict(page)).toContainText('The nozzle clicks off early');
  // Where it clicks off is what is looked at first; the chart and the slider agree with it.
  const clicked = (await page.getByTestId('moment-time').innerText()).trim();
  await expect(
    page.getByTestId('events').getByRole('button', { name: 'The nozzle in a filler clicks off' }),
  ).toContainText(clicked);
  expect(await litresIn(page, 'a')).toBeLessThan(36);
  await page.getByLabel('Scenario', { exact: true }).selectOption({ label: 'Fill a at 68 L/min' });
  await expect(verdict(page)).toContainText('Fill a at 68 L/min');
  await page.getByLabel('Scenario', { exact: true }).selectOption({ label: 'Fill a at 38 L/min' });

  await openTask(page, 'vents');
  await page.locator('[data-path="tanks.0.ports.0.bore_m"] input').first().fill('16 mm');
  await page.keyboard.press('Enter');
  await settled(page);
  await openTask(page, 'time');
  await expect(verdict(page)).toContainText('It has been changed since');
  await play(page);
  await expect(verdict(page)).not.toContainText('It has been changed since');
  await expect(verdict(page)).not.toContainText('clicks off early');
  await expect(verdict(page)).toContainText('The nozzle clicks off after');
  expect(await litresIn(page, 'a')).toBeGreaterThan(66);
  const row = page.getByTestId('compared-courses').getByRole('row', { name: /In the tank then/ });
  await expect(row.getByRole('cell')).toHaveText([/^[12]\d(\.\d)? L$|^3[0-5](\.\d)? L$/, /^(6[6-9]|7[0-2])(\.\d)? L$/]);
});

test('an auxiliary is drawn from only while the main’s breather is shut; a scenario of one’s own tells', async ({
  page,
}) => {
  await openText(page, JSON.stringify(vacuumDraw()), 'vents/time');
  await expect(verdict(page)).toContainText('Engine gets all it needs while it runs');
  await goToEnd(page);
  expect(await litresIn(page, 'aux')).toBeGreaterThan(32);
  expect(await litresIn(page, 'main')).toBeLessThan(12);

  // The breather is shut from the beginning.
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByLabel('Set one thing more').selectOption({ label: 'A vent or cap' });
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByLabel('Opening', { exact: true })).toHaveValue('main-vent');
  await expect(verdict(page)).toContainText('It has been changed since');
  await play(page);
  await expect(verdict(page)).toContainText('main is drawn to −');
  await goToEnd(page);
  expect(await litresIn(page, 'aux')).toBeLessThan(12);
  expect(await litresIn(page, 'main')).toBeGreaterThan(28);
  await expect(page.getByTestId('compared-courses')).toContainText('aux: at the end');

  // It is kept with the system, and undone like any edit.
  await saved(page);
  await page.reload();
  await settled(page);
  await expect(page.getByTestId('scenario')).toContainText('main vent: blocked');
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByRole('button', { name: 'Remove: A vent or cap' }).click();
  await expect(page.getByTestId('scenario')).not.toContainText('main vent: blocked');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('scenario')).toContainText('main vent: blocked');
});

test('time is gone through by slider, events and chart; tanks, circuits and gauge follow', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'vents/time');
  await page.getByLabel('Scenario', { exact: true }).selectOption('run-dry');
  await expect(verdict(page)).toContainText('comes out by');
  const slider = page.getByLabel('Time', { exact: true });
  await slider.focus();
  await page.keyboard.press('Home');
  await expect(page.getByTestId('moment-time')).toHaveText('0 s');
  const liquid = page.getByTestId('moment-levels');
  await expect(liquid).toBeVisible();
  const full = await page.getByTestId('moment-main').innerText();
  expect(full).toMatch(/shows 9\d/);
  const before = await liquid.innerHTML();
  await page.getByTestId('events').getByRole('button', { name: 'Transfer pickup draws air' }).click();
  await expect(page.getByTestId('moment-time')).toHaveText('42 min 1 s');
  await expect.poll(() => liquid.innerHTML()).not.toBe(before);
  await page.getByRole('button', { name: 'All circuits' }).click();
  await expect(page.getByTestId('moment').getByRole('button', { name: /^Transfer pump, runs/ })).toBeVisible();
  // A press in the middle of a chart goes to the middle of the time.
  const canvas = page.getByTestId('time-charts').locator('canvas').first();
  await canvas.scrollIntoViewIfNeeded();
  const box = (await canvas.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2 + 38, box.y + box.height / 2);
  await expect(slider).toHaveValue(/^(4[89]|5[01])\d$/);
  await page.getByLabel('Closer: less time about this moment').click();
  await expect(slider).toHaveValue(/^(49|50)\d$/);
});

test('what cannot be played is said where it stands, and a time without a unit is refused', async ({ page }) => {
  const gone = vacuumDraw();
  const [scenario] = gone.scenarios!;
  await openText(
    page,
    JSON.stringify({
      ...gone,
      scenarios: [{ ...scenario!, openings: [{ at_s: 0, port: 'nowhere', stands: 'blocked' }] }],
    }),
    'vents/time',
  );
  await expect(verdict(page).getByRole('alert')).toContainText(
    'openings[0].port: names no vent; there are main-vent, aux-vent',
  );
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await expect(page.getByLabel('Opening', { exact: true })).toContainText('nowhere, which is not there');
  await enter(page, 'Lasts', '12');
  await expect(page.getByText('Say 12 s, 12 min or 12 h')).toBeVisible();
  await enter(page, 'Lasts', '12 min');
  await expect(page.getByTestId('scenario')).toContainText('Lasts 12 min at most');
  await enter(page, 'Lasts', '200 h');
  await expect(page.getByText('is out of range; enter 1 s to 7 d')).toBeVisible();
});

test('a vent’s size follows what it is made for; limits are said and undone', async ({ page }) => {
  await openCopy(page, 'crab-boat', 'vents/size');
  const sizes = page.getByTestId('vent-size');
  await expect(sizes).toContainText('A hole of 5 mm');
  await expect(page.getByTestId('vent-now')).toContainText('What it has is enough');
  await page.getByRole('button', { name: 'Say: Fastest that it is filled' }).click();
  await page.locator('[data-path="limits.fill_m3PerS"] input').first().fill('900 L/min');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('vent-now')).toContainText('What it has is not enough');
  await expect(sizes).not.toContainText('A hole of 5 mm');
  await expect(page.getByTestId('vent-rise')).toContainText('Vent to the coaming');
  await expect(page.getByTestId('vent-heat')).toContainText(/become 18\d L at 45 °C/);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('vent-now')).toContainText('What it has is enough');
});

test('every school of moving it from tank to tank, and the card that hangs beside them', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'vents/transfer');
  const pump = page.getByTestId('school-pump');
  await expect(pump).toContainText('as it is now');
  await expect(pump).toContainText(/come out on the way/);
  const vacuum = page.getByTestId('school-vacuum');
  await expect(vacuum).not.toContainText('come out on the way');
  await expect(vacuum.getByRole('row', { name: /Vent with rollover valve/ })).toContainText('SHUT');
  await page.getByRole('button', { name: 'Print the valve card' }).click();
  await expect(page.getByText('Auxiliary tank to Main tank: by pump')).toBeVisible();
  await openCopy(page, 'van-heater', 'vents/transfer');
  await expect(page.getByText('There are no two tanks of one fluid here')).toBeVisible();
});

test('a long course is drawn while it is worked out, and can be stopped', async ({ page }) => {
  // To and fro for hours, each degree of it a step of its own.
  const sways = Array.from({ length: 100 }, (_, n) => ({
    at_s: n * 100,
    pitch_deg: n % 2 ? 25 : -25,
    roll_deg: n % 2 ? -10 : 10,
    evenly: true,
  }));
  const system = {
    ...vacuumDraw(),
    scenarios: [{ ...quiet('Swaying', 10_000), duties: [{ at_s: 0, duty_ratio: 0.1, runs: true }], slopes: sways }],
  };
  await openText(page, JSON.stringify(system), 'vents/time');
  const way = page.getByTestId('on-its-way');
  await expect(way.getByTestId('moment-levels')).toBeVisible();
  const [first] = (await way.innerText()).match(/Played to [^\n]+/)!;
  await expect(way).not.toContainText(first);
  await expect(way).toContainText(/[\d.]+ L/);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByText(/Stopped at .* what it comes to is not known/)).toBeVisible();
  await expect(way).toHaveCount(0);
  await expect(verdict(page)).toHaveCount(0);
  // Begun again it goes on from the beginning.
  await page.getByRole('button', { name: 'Play it' }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
});
