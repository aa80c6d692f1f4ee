import { expose } from 'comlink';
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { draftSystem, toPath } from '@/core/plan';
import { receiving } from '@/workers/sent';
import { followEditor, forgetAnswers, question, standingOf, useCame, want } from './answers';
import { openDocument, openSystem, setValue, undoEdit } from './editor';
import { URGENCY } from './lanes';

/** What workers were asked, in order; each waits until it is answered, or told to break. */
type Put = {
  readonly slot: string;
  readonly key: string;
  readonly urgency: number;
  readonly answer: (value: unknown) => void;
  readonly fail: (why: string) => void;
};
let puts: Put[] = [];
let dropped: string[] = [];

/** Stands for a worker: the door of the real one, with answers given by hand. */
class Stand {
  private readonly far: MessagePort;
  private readonly near: MessagePort;
  constructor() {
    const { port1, port2 } = new MessageChannel();
    [this.near, this.far] = [port1, port2];
    expose(
      receiving({
        ask: (slot: string, urgency: number, key: string): Promise<unknown> =>
          new Promise((resolve, reject) => {
            puts.push({
              slot,
              key,
              urgency,
              answer: (value) => resolve({ value, judged: undefined }),
              fail: (why) => reject(new Error(why)),
            });
          }),
        drop: (slots: readonly string[]) => void dropped.push(...slots),
      }),
      this.far,
    );
    this.near.start();
  }
  postMessage(message: unknown, transfer: Transferable[]): void {
    this.near.postMessage(message, transfer);
  }
  addEventListener(name: string, listener: EventListener): void {
    if (name === 'message') this.near.addEventListener(name, listener);
  }
  removeEventListener(name: string, listener: EventListener): void {
    this.near.removeEventListener(name, listener);
  }
  terminate(): void {
    this.near.close();
    this.far.close();
  }
}

const DRAFT = draftSystem({ name: 'Draft', vehicle: 'boat', consumer: 'diesel-engine', power_W: 40e3, holds_m3: 0.1 });
const LENGTH = toPath('tanks[0].shape.length_m.value');
const PITCH = toPath('conditions.pitch_deg');
let end: () => void;
let openedFirst: unknown;

/** The latest question of a slot that waits for its answer. */
async function asked(slot: string, count = 1): Promise<Put> {
  await vi.waitFor(() => expect(puts.filter((put) => put.slot === slot).length).toBeGreaterThanOrEqual(count), {
    timeout: 3000,
  });
  return puts.filter((put) => put.slot === slot).at(-1)!;
}
const countOf = (slot: string): number => puts.filter((put) => put.slot === slot).length;
const came = (slot: string) => useCame.getState()[slot];
const until = (slot: string, standing: string): Promise<void> =>
  vi.waitFor(() => expect(standingOf(came(slot), openDocument())).toBe(standing), { timeout: 3000 });
/** Longer than edits take to rest. */
const rested = (): Promise<void> => new Promise((go) => setTimeout(go, 450));

const QUIET_ROUNDS = 4;

beforeAll(() => {
  vi.stubGlobal('Worker', Stand);
  // One worker for what takes longer, so that it is asked in one order.
  vi.stubGlobal('navigator', { hardwareConcurrency: 2 });
  vi.stubGlobal('requestAnimationFrame', (act: () => void) => setTimeout(act, 1));
  return () => vi.unstubAllGlobals();
});
beforeEach(() => {
  puts = [];
  dropped = [];
  forgetAnswers();
  openSystem('one', DRAFT);
  openedFirst = openDocument();
  end = followEditor();
});
afterEach(async () => {
  end();
  // Numbers of the newest document follow those that are answered here, and frames follow them: until none has come
  // for several rounds, since on a busy machine one may be late.
  for (let [seen, quiet] = [0, 0]; quiet < QUIET_ROUNDS; await new Promise((go) => setTimeout(go, 20))) {
    const open = puts.slice(seen);
    quiet = open.length === 0 ? quiet + 1 : 0;
    seen = puts.length;
    for (const put of open) put.answer(undefined);
  }
});

describe('one scheduler', () => {
  it('asks for the numbers at once, then for details, then for the rest in the order of the table', async () => {
    const numbers = await asked('numbers');
    expect(puts.map(({ key }) => key)).toEqual(['numbers']);
    numbers.answer('numbers of the first');
    await asked('details');
    await asked('spreads');
    // On a busy machine the rest may be asked for while the page is painted: the worker takes the most urgent first.
    const later = puts.slice(1);
    const inTable = ['sheets', 'clearances', 'reach', 'mounts', 'stands', 'spreads'];
    expect(later.map(({ key }) => key).filter((key) => key !== 'details')).toEqual(inTable);
    const byUrgency = later.toSorted((one, other) => one.urgency - other.urgency);
    expect(byUrgency.map(({ key }) => key)).toEqual(['details', ...inTable]);
    expect(new Set(later.map(({ urgency }) => urgency)).size).toBe(later.length);
    await until('numbers', 'fresh');
  });

  it('while a value is held down the numbers under way are finished, and then those of the newest follow', async () => {
    const first = await asked('numbers');
    for (const value of [1.1, 1.2, 1.3]) setValue('drag', LENGTH, value);
    expect(countOf('numbers')).toBe(1);
    first.answer('old');
    const second = await asked('numbers', 2);
    await until('numbers', 'stale');
    second.answer('new');
    await until('numbers', 'fresh');
    await rested();
    expect(countOf('numbers')).toBe(2);
    expect(came('numbers')!.value).toBe('new');
  });

  it('what an answer does not read does not make it old, and it is not asked for again', async () => {
    (await asked('numbers')).answer('numbers');
    for (const slot of ['sheets', 'clearances', 'reach', 'spreads']) (await asked(slot)).answer(slot);
    await until('clearances', 'fresh');
    setValue('Pitch', PITCH, 4);
    expect(standingOf(came('clearances'), openDocument())).toBe('fresh');
    expect(standingOf(came('spreads'), openDocument())).toBe('stale');
    await asked('spreads', 2);
    expect([countOf('sheets'), countOf('clearances'), countOf('reach')]).toEqual([1, 1, 1]);
    setValue('length', LENGTH, 1.2);
    expect(standingOf(came('clearances'), openDocument())).toBe('stale');
    await asked('clearances', 2);
  });

  it('an edit and its undo before anything came: what was left off for the edit is asked for again', async () => {
    (await asked('numbers')).answer('numbers');
    await asked('sheets');
    setValue('length', LENGTH, 1.2);
    undoEdit();
    expect(openDocument()).toBe(openedFirst);
    // The worker left the first off: nothing comes of it.
    expect(dropped).toContain('sheets');
    (await asked('sheets', 2)).answer('faces');
    await until('sheets', 'fresh');
  });

  it('one that fails is shown as failed, never as an old value, and is tried again with the next edit of anything', async () => {
    (await asked('numbers')).answer('numbers');
    (await asked('clearances')).fail('out of memory');
    await until('clearances', 'failed');
    expect(came('clearances')).toMatchObject({ value: undefined, failed: 'out of memory' });
    setValue('Pitch', PITCH, 4);
    (await asked('clearances', 2)).answer('better');
    await until('clearances', 'fresh');
  });

  it('what comes of an older document while a newer one is asked is nobody’s; older work is dropped', async () => {
    (await asked('numbers')).answer('numbers');
    const older = await asked('clearances');
    setValue('length', LENGTH, 1.2);
    await vi.waitFor(() => expect(dropped).toContain('clearances'));
    const newer = await asked('clearances', 2);
    newer.answer('newer');
    await until('clearances', 'fresh');
    older.answer('older');
    await rested();
    expect(came('clearances')!.value).toBe('newer');
  });

  it('what is looked at is asked for at once and before what is not; left, it is dropped and asked for no more', async () => {
    (await asked('numbers')).answer('numbers');
    await rested();
    const leave = want(question('solid', [0], URGENCY.screen));
    const leaveAgain = want(question('solid', [0], URGENCY.screen));
    const solid = await asked('solid [0]');
    expect(countOf('solid [0]')).toBe(1);
    expect(solid.urgency).toBeLessThan((await asked('sheets')).urgency);
    solid.answer('picture');
    await until('solid [0]', 'fresh');
    leave();
    setValue('length', LENGTH, 1.2);
    await asked('solid [0]', 2);
    leaveAgain();
    await vi.waitFor(() => expect(dropped).toContain('solid [0]'));
    setValue('length', LENGTH, 1.3);
    await rested();
    expect(countOf('solid [0]')).toBe(2);
  });

  it('of another system nothing is kept, and what comes late is not taken for it', async () => {
    const first = await asked('numbers');
    forgetAnswers();
    openSystem('two', { ...DRAFT, name: 'Another' });
    first.answer('of the first');
    const second = await asked('numbers', 2);
    expect(came('numbers')).toBeUndefined();
    second.answer('of the second');
    await until('numbers', 'fresh');
  });
});

it('an answer that has not come, or came without a value, is on its way', () => {
  expect(standingOf(undefined, DRAFT)).toBe('on its way');
  const of = { ...DRAFT, tanks: [] };
  expect(standingOf({ key: 'clearances', of, value: undefined, judged: undefined, failed: undefined }, DRAFT)).toBe(
    'on its way',
  );
});
