import http from 'node:http';
import { demoText, expect, test } from './app';

const json = { 'content-type': 'application/json' };
const boat = (): Record<string, unknown> => JSON.parse(demoText('crab-boat')) as Record<string, unknown>;

test('the routes refuse what the validator refuses, with the path', async ({ request }) => {
  const post = async (data: string | object) => {
    const response = await request.post('/api/systems', {
      headers: json,
      data: typeof data === 'string' ? Buffer.from(data) : data,
    });
    return {
      status: response.status(),
      body: (await response.json()) as { error: { code: string; detail: string; faults?: { path: string }[] } },
    };
  };
  expect(await post('{')).toMatchObject({ status: 422, body: { error: { code: 'not-json' } } });
  expect(await post({ ...boat(), version: 9 })).toMatchObject({
    status: 422,
    body: { error: { code: 'wrong-version' } },
  });
  expect(await post({ ...boat(), lines: [{}] })).toMatchObject({ status: 422, body: { error: { code: 'invalid' } } });
  expect((await post({ ...boat(), surprise: 1 })).body.error.detail).toContain('surprise');
  const { status, body } = await post(`{"format":"${'x'.repeat(3_000_000)}"}`);
  expect([status, body.error.code]).toEqual([413, 'too-large']);
  expect(
    (
      await request.post('/api/systems', { headers: { 'content-type': 'text/plain' }, data: demoText('crab-boat') })
    ).status(),
  ).toBe(415);
});

test('a save names its revision; a stale or unnamed one changes nothing', async ({ request }) => {
  const { id } = (await (await request.post('/api/systems', { headers: json, data: boat() })).json()) as { id: string };
  const put = (headers: Record<string, string>, data: object) =>
    request.put(`/api/systems/${id}`, { headers: { ...json, ...headers }, data });
  expect((await put({}, boat())).status()).toBe(428);
  expect((await put({ 'if-match': '7' }, boat())).status()).toBe(409);
  expect((await put({ 'if-match': '1' }, { ...boat(), name: '' })).status()).toBe(422);
  expect(await (await put({ 'if-match': '1' }, { ...boat(), name: 'Renamed' })).json()).toEqual({ revision: 2 });
  expect(await (await request.get(`/api/systems/${id}`)).json()).toMatchObject({
    revision: 2,
    document: { name: 'Renamed' },
  });
});

test('a fork is filed under what it was forked from, and of nothing there is none', async ({ request }) => {
  const made = async (query: string) => request.post(`/api/systems${query}`, { headers: json, data: boat() });
  const { id } = (await (await made('')).json()) as { id: string };
  const fork = (await (await made(`?variantOf=${id}`)).json()) as { id: string };
  const { systems } = (await (await request.get('/api/systems')).json()) as {
    systems: { id: string; variantOf: string | null }[];
  };
  expect(systems.find((system) => system.id === fork.id)).toMatchObject({ variantOf: id });
  expect((await made('?variantOf=ghost')).status()).toBe(404);
});

test('what is not there is 404, and a deleted system can be restored', async ({ request }) => {
  for (const path of ['/api/systems/none', '/api/systems/none/file'])
    expect((await request.get(path)).status()).toBe(404);
  expect((await request.delete('/api/systems/none')).status()).toBe(404);
  const { id } = (await (await request.post('/api/systems', { headers: json, data: boat() })).json()) as { id: string };
  expect((await request.delete(`/api/systems/${id}`)).status()).toBe(204);
  expect((await request.get(`/api/systems/${id}`)).status()).toBe(404);
  expect((await request.post(`/api/systems/${id}/restore`)).status()).toBe(204);
  expect((await request.get(`/api/systems/${id}`)).status()).toBe(200);
});

test('writes from another site or under another host name are refused', async ({ request, baseURL }) => {
  expect(
    (
      await request.post('/api/systems', { headers: { ...json, origin: 'http://elsewhere.example' }, data: boat() })
    ).status(),
  ).toBe(403);
  const { port } = new URL(baseURL!);
  const status = await new Promise<number>((resolve, reject) => {
    const call = http.request(
      { host: '127.0.0.1', port, path: '/api/systems', method: 'POST', headers: { ...json, host: 'rebound.example' } },
      (response) => resolve(response.statusCode ?? 0),
    );
    call.on('error', reject);
    call.end(JSON.stringify(boat()));
  });
  expect(status).toBe(421);
});

test('pages carry a policy that lets only this app’s own scripts run', async ({ request }) => {
  const policy = (await request.get('/')).headers()['content-security-policy'];
  expect(policy).toContain("script-src 'self' 'nonce-");
  expect(policy).toContain("frame-ancestors 'none'");
});

test('the simulated rig: what is wrong with a query or a pour, and what would be taken', async ({ request }) => {
  const headers = { 'content-type': 'application/json' };
  const start = (query: string) => request.post(`/api/rig${query}`, { headers, data: demoText('box-boat') });
  expect((await start('')).status()).toBe(422);
  expect(await (await start('?sender=ghost')).json()).toMatchObject({ error: { code: 'no-sender' } });
  expect(await (await start('?sender=sender&speed=1000')).json()).toMatchObject({
    error: { code: 'bad-query', detail: 'speed must be from 1 to 120.' },
  });
  const started = await start('?sender=sender&seed=7&speed=120');
  expect(started.status()).toBe(201);
  const { id, simulated } = (await started.json()) as { id: string; simulated: boolean };
  expect(simulated).toBe(true);
  const pour = (data: unknown) => request.post(`/api/rig/${id}`, { headers, data });
  expect(await (await pour({ volume_m3: '5' })).json()).toMatchObject({ error: { code: 'bad-pour' } });
  expect(await (await pour({ volume_m3: 900 })).json()).toMatchObject({
    error: { code: 'bad-pour', detail: 'volume_m3 must be from -20 to 20.' },
  });
  expect((await request.post(`/api/rig/${id}`, { headers, data: Buffer.from('{') })).status()).toBe(422);
  expect(await (await pour({ volume_m3: 0.02 })).json()).toMatchObject({ simulated: true, pouring: true });
  expect(await (await request.delete(`/api/rig/${id}`)).json()).toMatchObject({
    simulated: true,
    volume_ratio: expect.any(Number),
  });
  expect((await pour({ volume_m3: 0.02 })).status()).toBe(404);
  expect((await request.get(`/api/rig/${id}`)).status()).toBe(404);
});
