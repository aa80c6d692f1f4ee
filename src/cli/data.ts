import path from 'node:path';
import type { Db } from '@/db';
import { UsageError } from './args';

/** A verb about all the data, not about one system's file. */
export type DataVerb = {
  readonly name: string;
  readonly summary: string;
  readonly takes: string;
  readonly run: (file: string | undefined, now_ms: number) => Promise<unknown>;
};

/** Only a verb that needs the store waits for it to be loaded. */
const store = () => import('@/db');

async function opened(now_ms: number): Promise<Db> {
  const { dataFolder, openStore } = await store();
  const db = openStore(dataFolder(), now_ms);
  if (!db.ok) throw new UsageError(db.error.detail);
  return db.value;
}

const backup: DataVerb = {
  name: 'backup',
  summary: 'makes a whole copy of the data, also while Gas Line runs',
  takes: '[FILE]: where to; in the data folder’s backups where it is left out',
  run: async (file, now_ms) => {
    const { backUp, copyTo, dataFolder } = await store();
    const db = await opened(now_ms);
    if (file === undefined) return { made: backUp(db, dataFolder(), 'asked-for', now_ms) };
    try {
      copyTo(db, path.resolve(file));
    } catch (error) {
      throw new UsageError(
        `No copy was made at ${file}: ${(error as Error).message}. Name a file that is not there yet, in a folder that can be written.`,
      );
    }
    return { made: { name: path.resolve(file) } };
  },
};

const restore: DataVerb = {
  name: 'restore',
  summary: 'brings back a copy; what was there is copied first',
  takes: '[FILE]: a copy, by its path or its name in backups; lists them where it is left out',
  run: async (file, now_ms) => {
    const { dataFolder, listBackups, restoreBackup } = await store();
    const folder = dataFolder();
    if (file === undefined) return { backups: listBackups(folder) };
    const named = listBackups(folder).find(({ name }) => name === file);
    const done = restoreBackup(
      await opened(now_ms),
      folder,
      named ? path.join(folder, 'backups', named.name) : path.resolve(file),
      now_ms,
    );
    if (!done.ok) throw new UsageError(`Nothing was changed. ${done.error.detail}`);
    return { broughtBack: done.value.systems, before: done.value.before };
  },
};

export const DATA_VERBS: readonly DataVerb[] = [backup, restore];
