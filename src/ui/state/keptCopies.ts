'use client';

import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { SystemDocument } from '@/core/plan';
import { tabId, tabsAlive } from './tabs';

/** A system as a page had it before the server did. */
export type KeptCopy = {
  /** System and page: two pages on one system keep one each. */
  readonly key: string;
  readonly id: string;
  readonly tab: string;
  /** The revision that it was changed from, and what that was. */
  readonly from: number;
  readonly base: SystemDocument;
  readonly system: SystemDocument;
  readonly edit: string;
  readonly at_ms: number;
};

/** What was typed into a field and not entered. */
export type KeptText = {
  readonly key: string;
  readonly id: string;
  readonly tab: string;
  readonly stage: string;
  readonly label: string;
  readonly text: string;
  readonly at_ms: number;
};

interface Store extends DBSchema {
  copies: { key: string; value: KeptCopy; indexes: { id: string } };
  texts: { key: string; value: KeptText; indexes: { id: string } };
}

let opened: Promise<IDBPDatabase<Store>> | undefined;

/** A browser may have none, or refuse it: then nothing is kept here, and the server alone has the work. */
const store = (): Promise<IDBPDatabase<Store>> =>
  (opened ??= openDB<Store>('gasline', 1, {
    upgrade(db) {
      for (const name of ['copies', 'texts'] as const)
        db.createObjectStore(name, { keyPath: 'key' }).createIndex('id', 'id');
    },
  }));

const keyOf = (id: string): string => `${id} ${tabId()}`;

/** What is still to be written, by its key; only the last of each counts. */
const waiting = new Map<string, () => Promise<unknown>>();
let writing: Promise<void> | undefined;

/** One write at a time, the newest wins, and a failure is told to whoever asked for the copy to be kept. */
function soon(key: string, write: () => Promise<unknown>): Promise<void> {
  waiting.set(key, write);
  return (writing ??= writeAll().finally(() => {
    writing = undefined;
  }));
}

async function writeAll(): Promise<void> {
  while (waiting.size > 0) {
    const [key, write] = waiting.entries().next().value!;
    waiting.delete(key);
    await write();
  }
}

/** Keeps a system before the server has it. */
export const keepCopy = (copy: Omit<KeptCopy, 'key' | 'tab'>): Promise<void> =>
  soon(`copy ${copy.id}`, async () => (await store()).put('copies', { ...copy, key: keyOf(copy.id), tab: tabId() }));

/** The server has it: this page's own copy is not needed any more. */
export const dropCopy = (id: string): Promise<void> =>
  soon(`copy ${id}`, async () => (await store()).delete('copies', keyOf(id)));

/** Keeps what is being typed; an empty text keeps nothing. */
export const keepText = (id: string, stage: string, label: string, text: string): Promise<void> =>
  soon(`text ${id}`, async () =>
    text === ''
      ? (await store()).delete('texts', keyOf(id))
      : (await store()).put('texts', { key: keyOf(id), id, tab: tabId(), stage, label, text, at_ms: Date.now() }),
  );

/** What pages that are gone left behind of one system, the newest first. */
export async function leftBehind(
  id: string,
): Promise<{ readonly copies: readonly KeptCopy[]; readonly texts: readonly KeptText[] }> {
  const db = await store();
  const alive = await tabsAlive();
  const gone = <T extends { readonly tab: string; readonly at_ms: number }>(list: readonly T[]): T[] =>
    list.filter(({ tab }) => !alive.has(tab)).sort((a, b) => b.at_ms - a.at_ms);
  return {
    copies: gone(await db.getAllFromIndex('copies', 'id', id)),
    texts: gone(await db.getAllFromIndex('texts', 'id', id)),
  };
}

/** Forgets what was left behind, once it was taken or thrown away. */
export async function forget(kind: 'copies' | 'texts', key: string): Promise<void> {
  await (await store()).delete(kind, key);
}
