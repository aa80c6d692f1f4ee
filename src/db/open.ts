import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { failure, success, type Outcome } from '@/core/outcome';
import { backUp } from './backup';
import { broughtUpToDate, connected, connectionOf, lastApplied, lastKnown, type Db } from './connection';
import { codeOf, lookedThrough, notSqlite, storeFault, type StoreCode, type StoreFault } from './lookThrough';

/** Where the one data file lives: GASLINE_DATA, or data/ beside the app. */
export const dataFolder = (): string => path.resolve(/*turbopackIgnore: true*/ process.env.GASLINE_DATA ?? 'data');
export const dataFile = (folder: string): string => path.join(folder, 'gasline.db');

/**
 * Opens the data of a folder, looked through before anything is done with it:
 * its folder and file can be written, the file is a whole one of Gas Line and
 * of no later version; a copy is kept before its tables are changed. What is
 * wrong is told in one sentence: which file, why, what to do.
 */
export function openStore(folder: string, now_ms: number): Outcome<Db, StoreCode> {
  const file = dataFile(folder);
  const folderFault = unwritable(folder);
  if (folderFault) return folderFault;
  const foreign = notSqlite(file);
  if (foreign) return foreign;
  try {
    const fresh = !existsSync(file);
    const db = connected(file);
    const fault = fresh ? undefined : lookedThrough(db, file);
    if (fault) {
      connectionOf(db).close();
      return fault;
    }
    if (!fresh && pending(db)) backUp(db, folder, 'before-update', now_ms);
    broughtUpToDate(db);
    return success(db);
  } catch (error) {
    return storeFault(error, file);
  }
}

function unwritable(folder: string): StoreFault | undefined {
  try {
    mkdirSync(folder, { recursive: true });
  } catch (error) {
    return failure(
      'no-folder',
      folder,
      `The data folder ${folder} cannot be made (${codeOf(error)}); name another in GASLINE_DATA, or put its path right.`,
    );
  }
  const probe = path.join(folder, `.write-${process.pid}`);
  try {
    writeFileSync(probe, '');
    rmSync(probe);
    return undefined;
  } catch (error) {
    return failure(
      'unwritable',
      folder,
      `Nothing can be written into the data folder ${folder} (${codeOf(error)}); give this user the right to, make room on the disk, or name another folder in GASLINE_DATA.`,
    );
  }
}

/** Tables are of an earlier Gas Line; an empty file has nothing that could be lost. */
const pending = (db: Db): boolean => lastApplied(db) > 0 && lastApplied(db) < lastKnown();

/** Kept on globalThis: the server's bundles each have their own module instances. */
const holder = globalThis as unknown as { gaslineDb?: Db };

/**
 * The data of this server. Whoever starts it has called `openData`; a route that runs without finds the reason in the
 * error.
 */
export function database(): Db {
  if (!holder.gaslineDb) {
    const opened = openData(Date.now());
    if (!opened.ok) throw new Error(opened.error.detail);
  }
  return holder.gaslineDb!;
}

/** Opens the data folder for this process, once. */
export function openData(now_ms: number): Outcome<Db, StoreCode> {
  if (holder.gaslineDb) return success(holder.gaslineDb);
  const opened = openStore(dataFolder(), now_ms);
  if (opened.ok) holder.gaslineDb = opened.value;
  return opened;
}
