import { enter, expect, openCopy, saved, settled, test } from './app';

const HEIGHT = 'Inside height';

test('history: what each save changed in words; one is named, opened beside this one, and restored', async ({
  page,
}) => {
  const id = await openCopy(page, 'box-boat');
  const field = page.getByRole('textbox', { name: HEIGHT, exact: true });
  const before = await field.inputValue();
  await enter(page, HEIGHT, '280 mm');
  await saved(page);
  await enter(page, HEIGHT, '290 mm');
  await saved(page);
  await page.getByRole('button', { name: 'History: its earlier saves' }).click();
  const saves = page.getByTestId('save');
  await expect(saves).toHaveCount(3);
  await expect(saves.first()).toContainText('as it is now');

  await saves.first().getByRole('button', { name: 'What changed' }).click();
  await expect(page.getByTestId('save-changes')).toContainText('1 place');
  await expect(page.getByTestId('save-changes')).toContainText('280 mm');
  await expect(page.getByTestId('save-changes')).toContainText('290 mm');

  const name = page.getByRole('textbox', { name: 'Name of save 1, to keep it' });
  await name.fill('As first drawn');
  await name.press('Enter');
  await expect
    .poll(async () => (await (await page.request.get(`/api/systems/${id}/revisions`)).json()).revisions.at(-1).name)
    .toBe('As first drawn');

  await saves.last().getByRole('button', { name: 'Restore' }).click();
  await settled(page);
  await expect(page.getByRole('textbox', { name: HEIGHT, exact: true })).toHaveValue(before);
  await page.getByRole('button', { name: 'History: its earlier saves' }).click();
  await expect(page.getByTestId('save')).toHaveCount(4);
  await expect(page.getByTestId('save').first()).toContainText('restored save 1');

  await page.getByTestId('save').nth(1).getByRole('button', { name: 'Open a copy' }).click();
  await settled(page);
  expect(page.url()).not.toContain(id);
  await expect(page.getByRole('textbox', { name: HEIGHT, exact: true })).toHaveValue(/^290/);
  await page.request.delete(page.url().replace('/systems/', '/api/systems/').replace(/\?.*$/, ''), {
    headers: { 'content-type': 'application/json' },
  });
});

test('conditions make no save, are no step of undo, and are there again after a reload', async ({ page }) => {
  const id = await openCopy(page, 'box-boat');
  await enter(page, HEIGHT, '280 mm');
  await saved(page);
  await enter(page, 'Pitch', '7');
  await saved(page);
  const kept = (await (await page.request.get(`/api/systems/${id}`)).json()) as {
    revision: number;
    document: { conditions: { pitch_deg: number } };
  };
  expect(kept).toMatchObject({ revision: 2, document: { conditions: { pitch_deg: 7 } } });
  await page.getByRole('button', { name: /^Undo: / }).click();
  await expect(page.getByRole('textbox', { name: HEIGHT, exact: true })).not.toHaveValue(/^280/);
  await expect(page.getByRole('textbox', { name: 'Pitch', exact: true })).toHaveValue(/^7/);
  await saved(page);
  await page.reload();
  await settled(page);
  await expect(page.getByRole('textbox', { name: 'Pitch', exact: true })).toHaveValue(/^7/);
});

test('the doors of history say what is wrong', async ({ page }) => {
  const id = await openCopy(page, 'box-boat');
  const at = `/api/systems/${id}/revisions`;
  const json = { 'content-type': 'application/json' };
  const refused = async (answer: { status: () => number; json: () => Promise<unknown> }, status: number) => {
    expect(answer.status()).toBe(status);
    expect(((await answer.json()) as { error: { detail: string } }).error.detail.length).toBeGreaterThan(10);
  };
  await refused(await page.request.get('/api/systems/nowhere/revisions'), 404);
  await refused(await page.request.get(`${at}/77`), 404);
  await refused(await page.request.get(`${at}/one`), 404);
  await refused(await page.request.put(`${at}/1`, { headers: json, data: '{"title":"x"}' }), 422);
  await refused(
    await page.request.put(`${at}/1`, { headers: json, data: JSON.stringify({ name: 'x'.repeat(81) }) }),
    422,
  );
  await refused(await page.request.put(`${at}/77`, { headers: json, data: '{"name":"x"}' }), 404);
  await refused(await page.request.post(`${at}/1/restore`, { headers: json }), 428);
  await refused(await page.request.post(`${at}/1/restore`, { headers: { ...json, 'if-match': '5' } }), 409);
});
