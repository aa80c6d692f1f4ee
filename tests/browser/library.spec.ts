import { readFileSync } from 'node:fs';
import { demoText, enter, expect, openCopy, saved, settled, test } from './app';

const file = (name: string, text: string) => ({ name, mimeType: 'application/json', buffer: Buffer.from(text) });

test('a broken import gets the path of its fault and changes nothing', async ({ page }) => {
  await page.goto('/');
  const cards = page.getByTestId('system-card');
  await expect(cards.first()).toBeVisible();
  const broken = (change: (text: string) => string): string => {
    const text = demoText('box-boat').replace(/"name": "[^"]*"/, '"name": "Broken import"');
    expect(change(text)).not.toBe(text);
    return change(text);
  };
  const cases: readonly (readonly [string, string, RegExp])[] = [
    ['not JSON', '{ tank', /not JSON/],
    ['wrong version', broken((text) => text.replace(/"version": \d+/, '"version": 99')), /version 99/],
    [
      'negative size',
      broken((text) => text.replace('"value": 1.12', '"value": -1.12')),
      /tanks\[0\]\.shape\.length_m\.value/,
    ],
    ['missing reference', broken((text) => text.replace('"fluid": "fuel"', '"fluid": "ghost"')), /tanks\[0\]\.fluid/],
    ['NaN', broken((text) => text.replace('"value": 1.12', '"value": NaN')), /not JSON/],
    ['something else', '{"hello": 1}', /format must be/],
    ['50 MB', ' '.repeat(50_000_000), /50\.0 MB/],
  ];
  for (const [name, text, answer] of cases) {
    await page.getByTestId('import-file').setInputFiles(file('bad.json', text));
    await expect(page.getByTestId('refusal'), name).toContainText(answer);
    await expect(page.getByTestId('refusal'), name).toContainText('Nothing was changed');
    await page.getByRole('button', { name: 'Close' }).click();
  }
  await page.reload();
  await expect(cards.first()).toBeVisible();
  await expect(cards.filter({ hasText: 'Broken import' })).toHaveCount(0);
});

test('export and import bring the same system back', async ({ page }) => {
  await openCopy(page, 'snow-vehicle');
  await enter(page, 'Inside height', '305');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export as a file' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('tracked-snow-vehicle.gasline.json');
  const text = readFileSync((await download.path())!, 'utf8');
  expect(JSON.parse(text)).toMatchObject({
    format: 'gasline-system',
    tanks: [{ shape: { height_m: { value: 0.305 } } }, { id: 'aux' }],
  });
  await page.goto('/');
  await page.getByTestId('import-file').setInputFiles(file('back.json', text));
  await settled(page);
  await expect(page.getByLabel('Inside height', { exact: true })).toHaveValue('305');
});

test('fork, rename, delete and undo the delete', async ({ page }) => {
  await openCopy(page, 'hill-climb-car');
  await page.getByRole('button', { name: 'Fork a variant of this system' }).click();
  await expect(page.getByTestId('system-name')).toHaveValue('Hill-climb single-seater, variant 2');
  await enter(page, 'Name of the system', 'Second car');
  await saved(page);
  await page.goto('/');
  const card = page.getByTestId('system-card').filter({ hasText: 'Second car' });
  await expect(card).toHaveCount(1);
  await card.getByRole('button', { name: 'Delete Second car' }).click();
  await expect(card).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card).toHaveCount(1);
  await card.getByRole('button', { name: 'Duplicate Second car' }).click();
  await expect(page.getByTestId('system-card').filter({ hasText: 'Second car (copy)' })).toHaveCount(1);
});
