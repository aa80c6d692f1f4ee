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
