import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { gzipSync } from 'node:zlib';
import { describe, expect, it, vi } from 'vitest';
import { draftSystem, MAX_DOCUMENT_BYTES } from '@/core/plan';
import { createSystem, listSystems, openDatabase, saveSystem, type Db } from '@/db';
import { answering, bodySystem, bodyText, decodedHeader, refusedOrigin } from './http';

const DRAFT = draftSystem({ name: 'Draft', vehicle: 'boat', consumer: 'heater', power_W: 4e3, holds_m3: 0.02 });
const HOST = '127.0.0.1:3000';

function post(body: BodyInit, headers: Record<string, string> = {}): Request {
  const request = new Request(`http://${HOST}/api/systems`, {
    method: 'POST',
    body,
    headers: { 'content-type': 'application/json', ...headers },
    duplex: 'half',
  } as RequestInit);
  request.headers.set('host', headers.host ?? HOST);
  return request;
}

/** A body that has no announced length and never ends. */
const endless = (): ReadableStream<Uint8Array> =>
  new ReadableStream({ pull: (controller) => controller.enqueue(new Uint8Array(65536).fill(32)) });

describe('who may write', () => {
  it.each([
    ['127.0.0.1:3000', undefined],
    ['localhost:8080', undefined],
    ['[::1]:3000', undefined],
    ['127.0.0.1:3000', 'http://127.0.0.1:3000'],
  ])('host %s, origin %s', (host, origin) => {
    expect(refusedOrigin(post('{}', { host, ...(origin ? { origin } : {}) }))).toBeUndefined();
  });

  it.each([
    ['evil.example', undefined, 421],
    ['127.0.0.1.evil.example', undefined, 421],
    ['127.0.0.1:3000', 'http://evil.example', 403],
    ['127.0.0.1:3000', 'http://127.0.0.1:9999', 403],
    ['127.0.0.1:3000', 'null', 403],
    ['127.0.0.1:3000', '%', 403],
  ])('not host %s, origin %s', async (host, origin, status) => {
    expect(refusedOrigin(post('{}', { host, ...(origin ? { origin } : {}) }))?.status).toBe(status);
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
    expect(await bodyText(post(packed('{"name":"Öltank €"}'), gzip))).toEqual({
      ok: true,
      text: '{"name":"Öltank €"}',
    });
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

describe('whatever happens in a route', () => {
  const file = (): string => path.join(mkdtempSync(path.join(tmpdir(), 'gasline-')), 'gasline.db');
  const answerOf = async (work: () => void): Promise<{ status: number; detail: string }> => {
    const response = await answering(() => {
      work();
      return Response.json({});
    })(post('{}'), undefined);
    return {
      status: response.status,
      detail: ((await response.json()) as { error?: { detail: string } }).error?.detail ?? '',
    };
  };
  const large = { ...DRAFT, description: 'x'.repeat(2000) };

  it('a full disk is told as one, and what was saved before is there', async () => {
    const db = openDatabase(file());
    createSystem(db, 'a', DRAFT, 1);
    const pages = (db.get(sql`pragma page_count`) as { page_count: number }).page_count;
    db.run(sql.raw(`pragma max_page_count = ${pages}`));
    let revision = 1;
    const full = await answerOf(() => {
      for (; revision < 1000; revision++) saveSystem(db, 'a', { ...large, name: `${revision}` }, revision, 'edit', 2);
    });
    expect(full).toMatchObject({ status: 507, detail: expect.stringContaining('disk is full') as string });
    expect(listSystems(db, 'test').systems).toMatchObject([{ id: 'a', revision }]);
  });

  it('a file that another program writes to is waited for, then told; nothing is half-written', async () => {
    const at = file();
    const [db, other] = [openDatabase(at), openDatabase(at)];
    createSystem(db, 'a', DRAFT, 1);
    db.run(sql`pragma busy_timeout = 100`);
    const save = (one: Db): void => void saveSystem(one, 'a', large, 1, 'edit', 2);
    other.run(sql`begin immediate`);
    const from = performance.now();
    expect(await answerOf(() => save(db))).toMatchObject({
      status: 503,
      detail: expect.stringContaining('Another program') as string,
    });
    expect(performance.now() - from).toBeGreaterThan(90);
    other.run(sql`rollback`);
    expect(listSystems(db, 'test').systems).toMatchObject([{ revision: 1 }]);
    expect((await answerOf(() => save(db))).status).toBe(200);
    expect(listSystems(other, 'test').systems).toMatchObject([{ revision: 2 }]);
  });

  it.each([
    ['SQLITE_BUSY_SNAPSHOT', 503],
    ['SQLITE_LOCKED', 503],
    ['SQLITE_FULL', 507],
    ['SQLITE_READONLY_DBMOVED', 507],
    ['SQLITE_CANTOPEN', 507],
    ['SQLITE_IOERR_WRITE', 507],
    ['SQLITE_CORRUPT', 500],
    ['SQLITE_NOTADB', 500],
  ])('%s is told as what it is, with %d', async (code, status) => {
    const told = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    const answer = await answerOf(() => {
      throw Object.assign(new Error('store'), { code });
    });
    expect(answer).toMatchObject({ status, detail: expect.stringMatching(/data file|disk/) as string });
    // What is known needs no look at the server's window.
    expect(told).not.toHaveBeenCalled();
    told.mockRestore();
  });

  it('a file that may only be read is told as one', async () => {
    const db = openDatabase(file());
    createSystem(db, 'a', DRAFT, 1);
    db.run(sql`pragma query_only = 1`);
    expect((await answerOf(() => void saveSystem(db, 'a', large, 1, 'edit', 2))).status).toBe(507);
  });

  it('what nobody thought of answers with a sentence too, and goes to the server’s window', async () => {
    const told = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    expect(
      await answerOf(() => {
        throw new Error('odd');
      }),
    ).toMatchObject({ status: 500, detail: expect.stringContaining('server') as string });
    expect(told).toHaveBeenCalledOnce();
    told.mockRestore();
  });

  it('a header that is not whole is none', () => {
    expect(decodedHeader(post('{}', { 'x-edit': 'L%C3%A4nge' }), 'x-edit')).toBe('Länge');
    expect(decodedHeader(post('{}', { 'x-edit': '%' }), 'x-edit')).toBeUndefined();
    expect(decodedHeader(post('{}'), 'x-edit')).toBeUndefined();
  });
});
