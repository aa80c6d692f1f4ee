import { enter, expect, openCopy, saved, settled, test } from './app';

test('a worker that dies is said to have died, and started anew: the next edit has its numbers', async ({ page }) => {
  await openCopy(page, 'box-boat');
  const before = await page.getByTestId('number-holds').innerText();
  // The workers are ours alone: each is made to break, as a fault in one would.
  for (const worker of page.workers())
    await worker.evaluate(
      () =>
        void setTimeout(() => {
          throw new Error('broken on purpose');
        }),
    );
  await expect(page.getByText(/broke off, and is started anew/)).toBeVisible();
  await expect(page.getByText('What you have entered is untouched')).toBeVisible();
  await enter(page, 'Inside height', '280 mm');
  await settled(page);
  await expect(page.getByTestId('number-holds')).not.toHaveText(before);
  await saved(page);
});

test('on a machine of more cores one more worker has a part of what takes longer, and all comes to the same', async ({
  page,
}) => {
  const readings = async (): Promise<string[]> => {
    await expect(page.getByTestId('number-findings')).toHaveAttribute('data-sure', 'true');
    await expect(page.getByTestId('numbers').locator('[data-fresh=true]').first()).toContainText('±');
    return page
      .getByTestId('numbers')
      .getByTestId(/^number-/)
      .allInnerTexts();
  };
  const withCores = (count: number) =>
    page.addInitScript(
      (cores) => Object.defineProperty(navigator, 'hardwareConcurrency', { get: () => cores, configurable: true }),
      count,
    );
  const lowered = async (cores: number) => {
    await withCores(cores);
    await openCopy(page, 'box-boat');
    // Another than it may have come with.
    await enter(page, 'Inside height', '280 mm');
    return { readings: await readings(), workers: page.workers().length };
  };
  const [few, many] = [await lowered(2), await lowered(8)];
  expect(many.workers).toBe(few.workers + 1);
  expect(many.readings).toEqual(few.readings);
  expect(few.readings.join()).toMatch(/\d.*±/);
});
