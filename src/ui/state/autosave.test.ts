import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { draftSystem, toPath, valueAt, withRecords, withValue, type SystemDocument } from '@/core/plan';
import {
  isAtRisk,
  isDirty,
  markSaved,
  savedRevision,
  saveNow,
  settleConflict,
  takeOthers,
  useSaveState,
} from './autosave';
import { pourRecord } from '../../../tests/pourRecord';
import { openSystem, setValue, undoEdit, useEditor } from './editor';

const DRAFT = draftSystem({ name: 'Draft', vehicle: 'road', consumer: 'heater', power_W: 4e3, holds_m3: 0.02 });
const LENGTH = toPath('tanks[0].shape.length_m.value');
const POUR = pourRecord('r-1');
type Call = { readonly url: string; readonly headers: Record<string, string>; readonly body: string };

let calls: Call[];
const answer = (status: number, body: object) =>
  vi.stubGlobal('fetch', (url: string, init: { headers: Record<string, string>; body: string }) => {
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
    expect(calls[0]).toMatchObject({
      url: '/api/systems/one',
      headers: { 'if-match': '4', 'x-edit': encodeURIComponent('Länge') },
    });
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

  it('a conflict whose other side cannot be had is shown as one, with the server’s words, and nothing is overwritten', async () => {
    vi.stubGlobal('fetch', (url: string, init?: { method?: string }) => {
      calls.push({ url, headers: {}, body: init?.method ?? 'GET' });
      return Promise.resolve(
        new Response(JSON.stringify({ error: { code: 'x', detail: 'Changed in another window.' } }), {
          status: init?.method === 'PUT' ? 409 : 404,
        }),
      );
    });
    setValue('a', LENGTH, 2);
    await saveNow();
    expect(state()).toEqual({ kind: 'failed', why: 'Changed in another window.', conflict: true });
    expect(calls.map(({ body }) => body)).toEqual(['PUT', 'GET']);
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

describe('another device on the same system', () => {
  const WIDTH = toPath('tanks[0].shape.width_m.value');
  /** A server with one system at some revision. */
  const serving = (document: SystemDocument, revision: number) => {
    const there = { document, revision };
    vi.stubGlobal(
      'fetch',
      (url: string, init?: { method?: string; headers?: Record<string, string>; body?: string }) => {
        calls.push({ url, headers: init?.headers ?? {}, body: init?.body ?? '' });
        if (init?.method !== 'PUT') return Promise.resolve(new Response(JSON.stringify(there)));
        if (Number(init.headers?.['if-match']) !== there.revision)
          return Promise.resolve(
            new Response(JSON.stringify({ error: { code: 'conflict', detail: 'Changed elsewhere.' } }), {
              status: 409,
            }),
          );
        Object.assign(there, { document: JSON.parse(init.body!) as SystemDocument, revision: there.revision + 1 });
        return Promise.resolve(new Response(JSON.stringify({ revision: there.revision })));
      },
    );
    return there;
  };
  const lengths = (system: SystemDocument | undefined) => [LENGTH, WIDTH].map((path) => valueAt(system, path));
  const [length, width] = lengths(DRAFT) as [number, number];

  it('what the two changed in other places goes together, and neither is lost', async () => {
    const there = serving(withValue(DRAFT, WIDTH, width + 0.1), 9);
    setValue('mine', LENGTH, length + 0.2);
    await saveNow();
    expect(state()).toEqual({ kind: 'saved' });
    expect(lengths(there.document)).toEqual([length + 0.2, width + 0.1]);
    expect(lengths(useEditor.getState().system)).toEqual([length + 0.2, width + 0.1]);
    expect(there.revision).toBe(10);
  });

  it('the same place is asked about, and nothing is written before it is answered', async () => {
    for (const [keep, kept] of [
      ['mine', length + 0.2],
      ['theirs', length + 0.3],
    ] as const) {
      openSystem('one', DRAFT);
      markSaved('one', DRAFT, 4);
      const there = serving(withValue(DRAFT, LENGTH, length + 0.3), 9);
      setValue('mine', LENGTH, length + 0.2);
      await saveNow();
      expect(state()).toMatchObject({ kind: 'failed', conflict: true });
      expect(useSaveState.getState().conflict).toMatchObject({ revision: 9, places: [LENGTH.slice(0, -1)] });
      expect(there.revision).toBe(9);
      const asked = calls.length;
      await takeOthers('one', 9, 0);
      expect(calls).toHaveLength(asked);
      settleConflict(keep);
      await saveNow();
      expect(state()).toEqual({ kind: 'saved' });
      expect(useSaveState.getState().conflict).toBeUndefined();
      expect(lengths(there.document)[0]).toBe(kept);
      expect(lengths(useEditor.getState().system)[0]).toBe(kept);
    }
  });

  it('a save that was taken and whose answer was lost is no other device’s, whatever was edited since', async () => {
    vi.useFakeTimers();
    for (const [lost, isSilent] of [
      ['silent', true],
      ['broken gateway', false],
    ] as const)
      for (const again of [false, true]) {
        openSystem('one', DRAFT);
        markSaved('one', DRAFT, 4);
        const there = serving(DRAFT, 4);
        const serve = fetch;
        vi.stubGlobal('fetch', async (url: string, init: RequestInit) => {
          await serve(url, init);
          if (isSilent) throw new TypeError('connection reset');
          return new Response('<html>', { status: 502 });
        });
        setValue('first', LENGTH, length + 0.1);
        await saveNow();
        expect(state(), lost).toMatchObject({ kind: 'failed' });
        expect(there.revision).toBe(5);
        vi.stubGlobal('fetch', serve);
        const wanted = length + (again ? 0.2 : 0.1);
        if (again) setValue('second', LENGTH, wanted);
        const steps = useEditor.temporal.getState().pastStates.length;
        await vi.advanceTimersByTimeAsync(3500);
        expect(state(), lost).toEqual({ kind: 'saved' });
        expect(lengths(there.document)[0]).toBe(wanted);
        expect(lengths(useEditor.getState().system)[0]).toBe(wanted);
        expect(useEditor.temporal.getState().pastStates).toHaveLength(steps);
        expect(isDirty()).toBe(false);
      }
  });

  it('what another device saved over it is asked about all the same', async () => {
    const there = serving(DRAFT, 4);
    const serve = fetch;
    vi.stubGlobal('fetch', async (url: string, init: RequestInit) => {
      await serve(url, init);
      throw new TypeError('connection reset');
    });
    setValue('first', LENGTH, length + 0.1);
    await saveNow();
    Object.assign(there, { document: withValue(there.document, LENGTH, length + 0.4), revision: 6 });
    vi.stubGlobal('fetch', serve);
    setValue('second', LENGTH, length + 0.2);
    await saveNow();
    expect(state()).toMatchObject({ kind: 'failed', conflict: true });
    expect(lengths(there.document)[0]).toBe(length + 0.4);
  });

  it('what it saved is taken in where nothing here is unsaved, and only what is newer', async () => {
    serving(withValue(DRAFT, WIDTH, width + 0.1), 9);
    await takeOthers('one', 4, 0);
    expect(calls).toHaveLength(0);
    await takeOthers('one', 9, 0);
    expect(lengths(useEditor.getState().system)).toEqual([length, width + 0.1]);
    expect(savedRevision()).toBe(9);
    expect(isDirty()).toBe(false);
    await takeOthers('another', 12, 0);
    expect(calls).toHaveLength(1);
  });

  it('what was written down here stays, whichever plan a conflict ends with', async () => {
    for (const keep of ['mine', 'theirs'] as const) {
      openSystem('one', DRAFT);
      markSaved('one', DRAFT, 4);
      const there = serving(withRecords(withValue(DRAFT, LENGTH, length + 0.3), [pourRecord('there')]), 9);
      setValue('mine', LENGTH, length + 0.2);
      useEditor.setState({ system: withRecords(useEditor.getState().system!, [POUR]) });
      await saveNow();
      settleConflict(keep);
      await saveNow();
      expect(
        there.document.records.map(({ id }) => id),
        keep,
      ).toContain('r-1');
    }
  });

  it('records that it wrote down are taken in though no plan was saved, and are no step of undo', async () => {
    const there = serving(withRecords(DRAFT, [POUR]), 4);
    await takeOthers('one', 4, 1);
    expect(useEditor.getState().system!.records).toEqual([POUR]);
    expect(useEditor.getState().system!.tanks).toBe(DRAFT.tanks);
    expect(isDirty()).toBe(false);
    expect(useEditor.temporal.getState().pastStates).toHaveLength(0);
    // Undo of an edit made meanwhile leaves them.
    setValue('mine', LENGTH, length + 0.2);
    undoEdit();
    expect(useEditor.getState().system!.records).toEqual([POUR]);
    const asked = calls.length;
    await takeOthers('one', 4, 1);
    expect(calls).toHaveLength(asked);
    expect(there.revision).toBe(4);
  });

  it('work is at risk while it is not saved and could not be any more', async () => {
    expect(isAtRisk()).toBe(false);
    answer(422, { error: { code: 'invalid', detail: 'No.' } });
    setValue('a', LENGTH, length + 0.1);
    expect(isAtRisk()).toBe(false); // goes out though the page is left
    await saveNow();
    expect(isAtRisk()).toBe(true);
  });
});
