import { readdirSync, readFileSync } from 'node:fs';
import { chromium, type BrowserContext } from '@playwright/test';
import { demoText, enter, expect, openCopy, saved, settled, test, type Page } from './app';
import { OwnServer, ownFolder } from './ownServer';

const HEIGHT = 'Inside height';

/** A system of a server's own, opened. */
async function openAt(page: Page, url: string, name = 'box-boat'): Promise<string> {
  const made = await page.request.post(`${url}/api/systems`, {
    headers: { 'content-type': 'application/json' },
    data: demoText(name),
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${url}/systems/${id}?stage=tank`);
  await settled(page);
  return id;
}

const heightAt = async (page: Page, url: string, id: string): Promise<number> =>
  (
    (await (await page.request.get(`${url}/api/systems/${id}`)).json()) as {
      document: { tanks: { shape: { height_m: { value: number } } }[] };
    }
  ).document.tanks[0]!.shape.height_m.value;

const noSaves = (page: Page): Promise<unknown> =>
  page.route('**/api/systems/*', (route) => (route.request().method() === 'PUT' ? route.abort() : route.fallback()));

/** Kills every process that was started for a profile, as the loss of power would. */
function killAll(profile: string): void {
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
    try {
      if (readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(profile)) process.kill(Number(pid), 'SIGKILL');
    } catch {
      // It ended by itself meanwhile.
    }
  }
}

test.describe('a browser that is killed', () => {
  const launch = (profile: string): Promise<BrowserContext> =>
    chromium.launchPersistentContext(profile, {
      ...(process.env.GASLINE_CHROMIUM
        ? { executablePath: process.env.GASLINE_CHROMIUM }
        : { executablePath: '/usr/bin/chromium' }),
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    });

  test('a tenth of a second after an edit that the server never got: offered with what differs, and taken in', async ({
    baseURL,
    request,
  }) => {
    const profile = ownFolder();
    const first = await launch(profile);
    const page = await first.newPage();
    const id = await openAt(page, baseURL!);
    await noSaves(page);
    await enter(page, HEIGHT, '311');
    await page.waitForTimeout(100);
    killAll(profile);
    await first.close().catch(() => undefined);
    const again = await launch(profile);
    const back = await again.newPage();
    await back.goto(`${baseURL}/systems/${id}?stage=tank`);
    const offer = back.getByTestId('unsaved-work');
    await expect(offer).toContainText('never saved');
    await expect(offer).toContainText('311 mm');
    await offer.getByRole('button', { name: 'Use it' }).click();
    await expect(offer).toBeHidden();
    await expect(back.getByLabel(HEIGHT, { exact: true })).toHaveValue('311');
    await saved(back);
    expect(await heightAt(back, baseURL!, id)).toBeCloseTo(0.311, 9);
    await back.reload();
    await settled(back);
    await expect(offer).toBeHidden();
    await again.close();
    await request.delete(`/api/systems/${id}`);
  });
});

test('text that was typed and not entered is there after a reload, to be put back into its field', async ({ page }) => {
  await openCopy(page, 'box-boat');
  await page.getByLabel(HEIGHT, { exact: true }).fill('29');
  await page.waitForTimeout(150);
  await page.reload();
  await settled(page);
  const typed = page.getByTestId('typed-text');
  await expect(typed).toContainText('“29” into “Inside height”');
  await typed.getByRole('button', { name: 'Put it back' }).click();
  await expect(page.getByLabel(HEIGHT, { exact: true })).toHaveValue('29');
  await page.getByLabel(HEIGHT, { exact: true }).press('Enter');
  await saved(page);
  await page.reload();
  await settled(page);
  await expect(typed).toBeHidden();
  await expect(page.getByLabel(HEIGHT, { exact: true })).toHaveValue('29');
});

test('what is not saved is asked about before a link is followed, goes out as a file, and can be left', async ({
  page,
}) => {
  await openCopy(page, 'box-boat');
  await page.route('**/api/systems/*', (route) =>
    route.request().method() === 'PUT'
      ? route.fulfill({ status: 507, json: { error: { code: 'not-stored', detail: 'The disk is full.' } } })
      : route.fallback(),
  );
  await enter(page, HEIGHT, '312');
  await expect(page.getByTestId('save-state')).toContainText('The disk is full.');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export as a file' }).click(),
  ]);
  expect(JSON.parse(readFileSync((await download.path())!, 'utf8'))).toMatchObject({
    tanks: [{ shape: { height_m: { value: 0.312 } } }],
  });
  await page.getByRole('link', { name: 'All systems' }).click();
  const question = page.getByTestId('leaving');
  await expect(question).toContainText('not saved');
  await question.getByRole('button', { name: 'Stay' }).click();
  await expect(question).toBeHidden();
  let asked = false;
  page.once('dialog', (dialog) => {
    asked = dialog.type() === 'beforeunload';
    void dialog.dismiss();
  });
  await page.close({ runBeforeUnload: true });
  await page.waitForTimeout(500);
  expect(asked).toBe(true);
  expect(page.isClosed()).toBe(false);
  await Promise.all([
    page.waitForRequest((request) => request.method() === 'PUT', { timeout: 1000 }),
    page.getByRole('button', { name: 'Try now' }).click(),
  ]);
  // From here on it is tried again without being asked.
  await page.unroute('**/api/systems/*');
  await saved(page);
});

for (const isTaken of [true, false])
  test(`a server that is killed between an edit and its answer, ${isTaken ? 'having taken it' : 'before it came'}: told, kept, and saved when it is back`, async ({
    page,
  }) => {
    const server = await OwnServer.of();
    await server.start();
    const id = await openAt(page, server.url);
    await page.route('**/api/systems/*', async (route) => {
      if (route.request().method() !== 'PUT') return route.fallback();
      if (isTaken) await route.fetch().catch(() => undefined);
      return route.abort();
    });
    await enter(page, HEIGHT, '313');
    await expect(page.getByTestId('save-state')).toContainText('does not answer');
    expect(Math.abs((await heightAt(page, server.url, id)) - 0.313) < 1e-9).toBe(isTaken);
    await server.kill();
    // A save that is tried again just now is let end first.
    await page.unrouteAll({ behavior: 'wait' });
    await enter(page, HEIGHT, '314');
    await expect(page.getByTestId('save-state')).toContainText('does not answer');
    await server.start();
    await saved(page);
    await expect(page.getByTestId('conflict')).toBeHidden();
    expect(await heightAt(page, server.url, id)).toBeCloseTo(0.314, 9);
    await server.kill();
  });

test('two pages on one system see each other’s edits without a reload, put together what does not meet, and ask about what does', async ({
  page,
  context,
}) => {
  const id = await openCopy(page, 'box-boat');
  const other = await context.newPage();
  await other.goto(`/systems/${id}?stage=tank`);
  await settled(other);
  await enter(page, HEIGHT, '315');
  await expect(other.getByLabel(HEIGHT, { exact: true })).toHaveValue('315');
  // Both at once, in two places.
  await Promise.all([enter(page, 'Inside width', '401'), enter(other, 'Inside length', '1101')]);
  for (const one of [page, other]) {
    await expect(one.getByLabel('Inside width', { exact: true })).toHaveValue('401');
    await expect(one.getByLabel('Inside length', { exact: true })).toHaveValue('1101');
  }
  // Both in one place: the second to be saved is asked.
  await page.route('**/api/systems/*/revision', (route) => route.abort());
  await other.route('**/api/systems/*/revision', (route) => route.abort());
  await enter(page, HEIGHT, '320');
  await saved(page);
  await enter(other, HEIGHT, '330');
  const conflict = other.getByTestId('conflict');
  await expect(conflict).toContainText('320 mm');
  await expect(conflict).toContainText('330 mm');
  await expect(other.getByTestId('save-state')).toHaveAttribute('data-state', 'failed');
  await conflict.getByRole('button', { name: 'Use theirs for everything' }).click();
  await expect(other.getByLabel(HEIGHT, { exact: true })).toHaveValue('320');
  await expect(conflict).toBeHidden();
  await other.close();
});
