import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { draftSystem, MAX_DOCUMENT_BYTES } from '@/core/document';
import { bodySystem, bodyText, refusedOrigin } from './http';

const DRAFT = draftSystem({ name: 'Draft', vehicle: 'boat', consumer: 'heater', power_W: 4e3, holds_m3: 0.02 });
const HOST = '127.0.0.1:3000';

function post(body: BodyInit, headers: Record<string, string> = {}): Request {
  const request = new Request(`http://${HOST}/api/systems`, { method: 'POST', body, headers: { 'content-type': 'application/json', ...headers }, duplex: 'half' } as RequestInit);
  request.headers.set('host', headers.host ?? HOST);
  return request;
}

/** A body that has no announced length and never ends. */
const endless = (): ReadableStream<Uint8Array> => new ReadableStream({ pull: (controller) => controller.enqueue(new Uint8Array(65536).fill(32)) });

describe('who may write', () => {
  it.each([['127.0.0.1:3000', undefined], ['localhost:8080', undefined], ['[::1]:3000', undefined], ['127.0.0.1:3000', 'http://127.0.0.1:3000']])('host %s, origin %s', (host, origin) => {
    expect(refusedOrigin(post('{}', { host, ...(origin ? { origin } : {}) }))).toBeUndefined();
  });

  it.each([['evil.example', undefined], ['127.0.0.1.evil.example', undefined], ['127.0.0.1:3000', 'http://evil.example'], ['127.0.0.1:3000', 'http://127.0.0.1:9999']])('not host %s, origin %s', async (host, origin) => {
    expect(refusedOrigin(post('{}', { host, ...(origin ? { origin } : {}) }))?.status).toBe(403);
  });
});

describe('bodies', () => {
  it('are read whole, across chunks and letters cut in two', async () => {
    const bytes = new TextEncoder().encode('{"name":"Öltank €"}');
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        for (const byte of bytes) controller.enqueue(Uint8Array.of(byte));
        controller.close();
      },
    });
    expect(await bodyText(post(stream))).toEqual({ ok: true, text: '{"name":"Öltank €"}' });
  });

  it('too large by announcement, and too large in fact, are refused without reading on', async () => {
    const announced = await bodyText(post('{}', { 'content-length': String(MAX_DOCUMENT_BYTES + 1) }));
    expect(announced.ok ? 0 : announced.response.status).toBe(413);
    const streamed = await bodyText(post(endless()));
    expect(streamed.ok ? 0 : streamed.response.status).toBe(413);
  });

  it('packed by gzip are read; the limit is on what comes out; what is not whole or packed otherwise is refused', async () => {
    const packed = (text: string): Uint8Array<ArrayBuffer> => Uint8Array.from(gzipSync(text));
    const gzip = { 'content-encoding': 'gzip' };
    expect(await bodyText(post(packed('{"name":"Öltank €"}'), gzip))).toEqual({ ok: true, text: '{"name":"Öltank €"}' });
    const bomb = packed(' '.repeat(MAX_DOCUMENT_BYTES + 1));
    expect(bomb.length).toBeLessThan(MAX_DOCUMENT_BYTES / 100);
    const statusOf = async (body: BodyInit, headers: Record<string, string>): Promise<number> => {
      const read = await bodyText(post(body, headers));
      return read.ok ? 200 : read.response.status;
    };
    expect(await statusOf(bomb, gzip)).toBe(413);
    expect(await statusOf(packed('{"name":"cut off"}').slice(0, 12), gzip)).toBe(400);
    expect(await statusOf('{}', gzip)).toBe(400);
    expect(await statusOf('{}', { 'content-encoding': 'deflate' })).toBe(415);
  });

  it('of another type are refused', async () => {
    const text = await bodyText(post('name=x', { 'content-type': 'text/plain' }));
    expect(text.ok ? 0 : text.response.status).toBe(415);
  });

  it('that are a system come back as one, and others with their faults', async () => {
    expect(await bodySystem(post(JSON.stringify(DRAFT)))).toEqual({ ok: true, document: DRAFT });
    const bad = await bodySystem(post(JSON.stringify({ ...DRAFT, rulebook: 'mine' })));
    if (bad.ok) throw new Error('was accepted');
    expect(bad.response.status).toBe(422);
    expect(await bad.response.json()).toMatchObject({ error: { code: 'invalid', faults: [{ path: 'rulebook' }] } });
  });
});
