import { execFileSync, spawn } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { seeded } from '@/core/seeded';
import { demoText, enter, expect, saved, settled, test } from './app';
import { freePort } from '../../bench/served';
import { OwnServer, ownFolder } from './ownServer';

test('with --lan a phone comes in by the code, works on the same system, and is sent away; without it nothing but this machine is answered', async ({
  page,
  browser,
}) => {
  // 127.0.0.2 stands for this machine's address on the network, and what asks there for the phone.
  const server = await OwnServer.of({ lan: '127.0.0.2' });
  await server.start();
  const there = `http://127.0.0.2:${server.port}`;
  await expect.poll(() => server.said).toMatch(/Code: [A-Z0-9]{8}/);
  const code = /Code: ([A-Z0-9]{8})/.exec(server.said)![1]!;
  expect(server.said).toContain(`${there}`);
  expect(server.said).toContain('not encrypted');
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 800 } })).newPage();

  // Nothing is seen before the code.
  await phone.goto(`${there}/`);
  await expect(phone).toHaveURL(`${there}/pair`);
  expect((await phone.request.get(`${there}/api/systems`)).status()).toBe(401);
  expect((await phone.request.get(`${there}/systems/x`, { maxRedirects: 0 })).status()).toBe(303);
  await phone.getByLabel('Name of this device').fill('Bench phone');
  await phone.getByLabel('Code', { exact: true }).fill('WRONGWRO');
  await phone.getByRole('button', { name: 'Let this device in' }).click();
  await expect(phone.getByText('That is not the code.')).toBeVisible();
  await phone.getByLabel('Code', { exact: true }).fill(code);
  await phone.waitForTimeout(1100); // who was wrong waits
  await phone.getByRole('button', { name: 'Let this device in' }).click();
  await expect(phone.getByText('Your systems')).toBeVisible();
  const [cookie] = await phone.context().cookies(there);
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Strict' });

  // Both on one system.
  const made = await page.request.post(`${server.url}/api/systems`, {
    headers: { 'content-type': 'application/json' },
    data: demoText('box-boat'),
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${server.url}/systems/${id}?stage=tank`);
  await phone.goto(`${there}/systems/${id}?stage=tank`);
  await settled(page);
  await settled(phone);
  await enter(phone, 'Inside height', '316');
  await saved(phone);
  await expect(page.getByLabel('Inside height', { exact: true })).toHaveValue('316');
  await enter(page, 'Inside height', '317');
  await expect(phone.getByLabel('Inside height', { exact: true })).toHaveValue('317');

  // What stays with the machine.
  for (const only of ['/api/data', '/api/devices', '/data', '/%64ata', '/data?x=1'])
    expect((await phone.request.get(`${there}${only}`)).status(), only).toBe(403);
  await page.goto(`${server.url}/data`);
  const devices = page.getByTestId('devices');
  await expect(devices).toContainText('Bench phone');
  await devices.getByRole('button', { name: 'Let another device in' }).click();
  await expect(page.getByTestId('code')).toContainText(/[A-Z0-9]{8}/);
  await devices.getByRole('button', { name: 'Send away Bench phone' }).click();
  await expect(devices).not.toContainText('Bench phone');
  expect((await phone.request.get(`${there}/api/systems`)).status()).toBe(401);
  await phone.goto(`${there}/`);
  await expect(phone).toHaveURL(`${there}/pair`);
  // Another name for the same address is another site's.
  expect((await phone.request.get(`${there}/pair`, { headers: { host: 'evil.example' } })).status()).toBe(421);
  await server.kill();
  await phone.context().close();

  const alone = await OwnServer.of();
  await alone.start();
  await expect(page.request.get(`http://127.0.0.2:${alone.port}/pair`)).rejects.toThrow(/ECONNREFUSED/);
  await page.goto(`${alone.url}/data`);
  await expect(page.getByTestId('devices')).toContainText('--lan');
  await page.goto('about:blank');
  await alone.kill();
});

test('a copy of the data is made and brought back by a button; what cannot be read is listed as such', async ({
  page,
}) => {
  const server = await OwnServer.of();
  await server.start();
  const add = async (name: string): Promise<string> => {
    const made = await page.request.post(`${server.url}/api/systems`, {
      headers: { 'content-type': 'application/json' },
      data: JSON.stringify({ ...(JSON.parse(demoText('box-boat')) as object), name }),
    });
    return ((await made.json()) as { id: string }).id;
  };
  await add('Kept boat');
  const broken = await add('Broken boat');
  await page.goto(`${server.url}/data`);
  await page.getByRole('button', { name: 'Make a copy now' }).click();
  await expect(page.getByTestId('data-said')).toContainText('Copied');
  const file = new Database(path.join(server.data, 'gasline.db'));
  file.prepare('UPDATE systems SET document = \'{"format":\' WHERE id = ?').run(broken);
  file.close();
  await page.goto(server.url);
  const card = page.getByTestId('system-card').filter({ hasText: 'Broken boat' });
  await expect(card).toContainText('It cannot be read.');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    card.getByText('Download it as it is kept').click(),
  ]);
  expect(download.suggestedFilename()).toBe('broken-boat.gasline.json');
  await expect(page.getByTestId('system-card').filter({ hasText: 'Kept boat' })).not.toContainText('cannot be read');
  expect((await page.goto(`${server.url}/systems/${broken}`))!.status()).toBe(200);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('cannot be read');
  expect((await page.request.get(`${server.url}/systems/nope`)).status()).toBe(404);
  await page.goto(`${server.url}/data`);
  const copy = page.getByTestId('backups').getByRole('listitem').filter({ hasText: 'made by hand' });
  await copy.getByRole('button', { name: 'Bring back' }).click();
  await copy.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByTestId('data-said')).toContainText('Brought back 2 systems');
  await page.goto(server.url);
  await expect(page.getByTestId('system-card').filter({ hasText: 'Broken boat' })).not.toContainText('cannot be read');
  await page.goto('about:blank');
  await server.kill();
});

function timeOf(act: () => unknown): number {
  const began = Date.now();
  act();
  return Date.now() - began;
}

test('data that cannot be used ends the start with one sentence within three seconds, and the demo passes it on', async () => {
  const folder = ownFolder();
  writeFileSync(path.join(folder, 'gasline.db'), 'this was never a database');
  const server = await OwnServer.of({ data: folder });
  // Three seconds on a machine that starts Node in a tenth of one: by the ratio, whatever else it does meanwhile.
  const node_ms = timeOf(() => execFileSync(process.execPath, ['-e', '0']));
  const began = Date.now();
  expect(await server.start()).toBe(1);
  const took_ms = Date.now() - began;
  expect(
    took_ms /
      Math.max(
        node_ms,
        timeOf(() => execFileSync(process.execPath, ['-e', '0'])),
      ),
  ).toBeLessThan(30);
  expect(server.said.trim().split('\n')).toEqual([
    expect.stringMatching(/gasline\.db is no data file of Gas Line.*restore\.$/),
  ]);
  const demo = spawn(process.execPath, ['scripts/demo.mjs', '--port', String(await freePort())], {
    env: { ...process.env, GASLINE_DATA: folder },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  for (const stream of [demo.stdout, demo.stderr])
    stream.on('data', (text: Buffer) => {
      said += text.toString();
    });
  expect(await new Promise((done) => demo.on('exit', done))).toBe(1);
  expect(said).toContain('is no data file of Gas Line');
  const inFile = path.join(ownFolder(), 'file');
  writeFileSync(inFile, '');
  const nowhere = await OwnServer.of({ data: path.join(inFile, 'data') });
  expect(await nowhere.start()).toBe(1);
  expect(nowhere.said).toMatch(/cannot be made/);
  const taken = await OwnServer.of();
  await taken.start();
  mkdirSync(path.join(folder, 'x'));
  const second = spawn(process.execPath, ['.next/serve.mjs', '--port', String(taken.port)], {
    env: { ...process.env, NODE_ENV: 'production', GASLINE_DATA: path.join(folder, 'x') },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let refused = '';
  second.stderr.on('data', (text: Buffer) => {
    refused += text.toString();
  });
  expect(await new Promise((done) => second.on('exit', done))).toBe(1);
  expect(refused).toMatch(/Port \d+ is taken/);
  await taken.kill();
});

test('300 hostile bodies and headers are each answered with a 4xx and a sentence (seeded)', async ({
  request,
  baseURL,
}) => {
  const chance = seeded(41);
  const whole = demoText('box-boat');
  const pick = <T>(list: readonly T[]): T => list[Math.floor(chance.uniform() * list.length)]!;
  const mutated = (): Buffer => {
    const bytes = Buffer.from(whole);
    const kind = Math.floor(chance.uniform() * 8);
    const at = Math.floor(chance.uniform() * bytes.length);
    if (kind === 0) return bytes.subarray(0, at);
    if (kind === 1) bytes[at] = 0xff;
    if (kind === 2)
      return Buffer.from(
        whole.replace(/"value": [-\d.]+/g, (text) =>
          chance.uniform() < 0.1 ? `"value": ${pick(['1e999', '-1', 'null', '"1"', '[]', '1e-400', '{}'])}` : text,
        ),
      );
    if (kind === 3) return Buffer.from(whole.replace('"tanks": [', `"tanks": [${'{},'.repeat(10_000)}`));
    if (kind === 4)
      return Buffer.from(
        `{"format":"gasline-system","version":${pick([0, -1, 1.5, 1e9, 3])},"a":${'['.repeat(20_000)}${']'.repeat(20_000)}}`,
      );
    if (kind === 5)
      return Buffer.from(
        whole.replace(
          '"name"',
          `"name":"${pick(['\\u0000', '\\u202e', '\\ud800', ' ', '<script>'])}","__proto__":{"x":1},"name"`,
        ),
      );
    if (kind === 6)
      return Buffer.from(JSON.stringify(Object.fromEntries(Array.from({ length: 5000 }, (_, i) => [`k${i}`, i]))));
    return Buffer.from(Array.from({ length: 500 }, () => Math.floor(chance.uniform() * 256)));
  };
  let refused = 0;
  for (let i = 0; i < 300; i++) {
    const answer = await request.fetch(
      `${baseURL}/api/${pick(['systems', 'systems/nope', 'parts', 'rig?sender=x', 'pair', 'systems/nope/card'])}`,
      {
        method: pick(['POST', 'PUT']),
        data: mutated(),
        failOnStatusCode: false,
        headers: {
          'content-type': pick(['application/json', 'text/plain', 'application/json; charset=x']),
          'if-match': pick(['1', 'x', '-1', '1e400', '*']),
          'x-edit': pick(['%', '%E0', 'ok']),
        },
      },
    );
    // A byte changed within a text leaves a system that is one.
    if (answer.status() === 201) {
      await request.delete(`${baseURL}/api/systems/${((await answer.json()) as { id: string }).id}`);
      continue;
    }
    refused++;
    expect(answer.status(), await answer.text()).toBeGreaterThanOrEqual(400);
    expect(answer.status()).toBeLessThan(500);
    if (answer.status() !== 405)
      expect(((await answer.json()) as { error: { detail: string } }).error.detail).toMatch(/\.$/);
  }
  expect(refused).toBeGreaterThan(250);
});
