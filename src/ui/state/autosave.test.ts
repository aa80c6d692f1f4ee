import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { draftSystem, toPath } from '@/core/document';
import { markSaved, saveNow, useSaveState } from './autosave';
import { openSystem, setValue } from './editor';

const DRAFT = draftSystem({ name: 'Draft', vehicle: 'road', consumer: 'heater', power_W: 4e3, holds_m3: 0.02 });
const LENGTH = toPath('tanks[0].shape.length_m.value');
type Call = { readonly url: string; readonly headers: Record<string, string>; readonly body: string };

let calls: Call[];
const answer = (status: number, body: object) => vi.stubGlobal('fetch', (url: string, init: { headers: Record<string, string>; body: string }) => {
  calls.push({ url, headers: init.headers, body: init.body });
  return Promise.resolve(new Response(JSON.stringify(body), { status }));
});
const state = () => useSaveState.getState().state;

beforeEach(() => {
  calls = [];
  openSystem('one', DRAFT);
  markSaved('one', DRAFT, 4);
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('saving', () => {
  it('sends the document over the revision it replaces, with the edit’s name', async () => {
    answer(200, { revision: 5 });
    setValue('Länge', LENGTH, 2);
    await saveNow();
    expect(calls).toHaveLength(1);
    expect(calls[0]).toMatchObject({ url: '/api/systems/one', headers: { 'if-match': '4', 'x-edit': encodeURIComponent('Länge') } });
    expect(JSON.parse(calls[0]!.body)).toMatchObject({ tanks: [{ shape: { length_m: { value: 2 } } }] });
    expect(state()).toEqual({ kind: 'saved' });
  });

  it('counts revisions on from what the server answered', async () => {
    answer(200, { revision: 5 });
    setValue('a', LENGTH, 2);
    await saveNow();
    answer(200, { revision: 6 });
    setValue('b', LENGTH, 3);
    await saveNow();
    expect(calls.map((call) => call.headers['if-match'])).toEqual(['4', '5']);
  });

  it('sends nothing where nothing changed', async () => {
    answer(200, { revision: 5 });
    await saveNow();
    expect(calls).toHaveLength(0);
  });

  it('undone to what the server has, it is saved again without sending', async () => {
    answer(200, { revision: 5 });
    setValue('a', LENGTH, 2);
    useSaveState.setState({ state: { kind: 'saving' } }); // as the pending save shows
    openSystem('one', DRAFT);
    await saveNow();
    expect(calls).toHaveLength(0);
    expect(state()).toEqual({ kind: 'saved' });
  });

  it('a conflict is shown as one, with the server’s words, and nothing is overwritten', async () => {
    answer(409, { error: { code: 'conflict', detail: 'Changed in another window.' } });
    setValue('a', LENGTH, 2);
    await saveNow();
    expect(state()).toEqual({ kind: 'failed', why: 'Changed in another window.', conflict: true });
    expect(calls).toHaveLength(1);
  });

  it('a refused document says what the validator said', async () => {
    answer(422, { error: { code: 'invalid', detail: 'tanks[0] is wrong.' } });
    setValue('a', LENGTH, 2);
    await saveNow();
    expect(state()).toMatchObject({ kind: 'failed', why: 'tanks[0] is wrong.', conflict: false });
  });

  it('a server that breaks or has no room is told as what it is, and tried again; what is refused is not', async () => {
    vi.useFakeTimers();
    answer(507, { error: { code: 'not-stored', detail: 'The disk is full.' } });
    setValue('a', LENGTH, 2);
    await saveNow();
    expect(state()).toMatchObject({ kind: 'failed', why: 'The disk is full.', conflict: false });
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('<html>', { status: 502 })));
    await vi.advanceTimersByTimeAsync(3500);
    expect(state()).toMatchObject({ kind: 'failed', why: 'The server answered 502.' });
    answer(422, { error: { code: 'invalid', detail: 'tanks[0] is wrong.' } });
    await vi.advanceTimersByTimeAsync(3500);
    expect(state()).toMatchObject({ kind: 'failed', why: 'tanks[0] is wrong.' });
    const tried = calls.length;
    await vi.advanceTimersByTimeAsync(10_000);
    expect(calls).toHaveLength(tried);
  });

  it('a silent server is told, and tried again until it answers', async () => {
    vi.useFakeTimers();
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('refused')));
    setValue('a', LENGTH, 2);
    await saveNow();
    expect(state()).toMatchObject({ kind: 'failed', conflict: false });
    answer(200, { revision: 5 });
    await vi.advanceTimersByTimeAsync(3500);
    expect(calls).toHaveLength(1);
    expect(state()).toEqual({ kind: 'saved' });
  });
});
