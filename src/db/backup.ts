import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import { failure, success, type Outcome } from '@/core/outcome';
import { connected, connectionOf, openDatabase, type Db } from './connection';
import { lookedThrough, notSqlite, storeFault, type StoreCode } from './lookThrough';
import { revisions, systems } from './schema';

/**
 * Why a copy was made: once a day, before an update of the tables, before another copy was brought back, or because
 * someone asked.
 */
export const BACKUP_KINDS = ['daily', 'before-update', 'before-restore', 'asked-for'] as const;
export type BackupKind = (typeof BACKUP_KINDS)[number];
export type Backup = {
  readonly name: string;
  readonly kind: BackupKind;
  readonly at_ms: number;
  readonly bytes: number;
};

/** Copies kept of each kind that is made unasked. */
export const COPIES_KEPT = 7;

const folderOf = (folder: string): string => path.join(folder, 'backups');
const NAME = /^gasline-(\d{4}-\d\d-\d\d)T(\d\d)(\d\d)(\d\d)(?:-\d+)?-([a-z-]+)\.db$/;

/** Of a copy that is not whole yet, or whose maker was killed. */
const HALF = '.half';

const stamp = (at_ms: number): string => new Date(at_ms).toISOString().slice(0, 19).replaceAll(':', '');

/** Copies of a data folder, the last first. */
export function listBackups(folder: string): Backup[] {
  const at = folderOf(folder);
  if (!existsSync(at)) return [];
  return readdirSync(at)
    .flatMap((name): Backup[] => {
      const [, day, hour, minute, second, kind] = NAME.exec(name) ?? [];
      return BACKUP_KINDS.includes(kind as BackupKind)
        ? [
            {
              name,
              kind: kind as BackupKind,
              at_ms: Date.parse(`${day}T${hour}:${minute}:${second}Z`),
              bytes: statSync(path.join(at, name)).size,
            },
          ]
        : [];
    })
    .sort((a, b) => b.at_ms - a.at_ms || b.name.localeCompare(a.name));
}

/** Where a copy lies, by its name alone; undefined where there is none. */
export const backupFile = (folder: string, name: string): string | undefined =>
  listBackups(folder).some((one) => one.name === name) ? path.join(folderOf(folder), name) : undefined;

/** Makes a whole copy of the data as it is now; drops the oldest of its kind. */
export function backUp(db: Db, folder: string, kind: BackupKind, now_ms: number): Backup {
  mkdirSync(folderOf(folder), { recursive: true });
  for (const half of readdirSync(folderOf(folder)).filter((name) => name.endsWith(HALF)))
    rmSync(path.join(folderOf(folder), half), { force: true });
  const free = [...Array(100).keys()]
    .map((i) => `gasline-${stamp(now_ms)}${i === 0 ? '' : `-${i}`}-${kind}.db`)
    .find((name) => !existsSync(path.join(folderOf(folder), name)))!;
  copyTo(db, path.join(folderOf(folder), free));
  if (kind !== 'asked-for')
    for (const old of listBackups(folder)
      .filter((one) => one.kind === kind)
      .slice(COPIES_KEPT))
      rmSync(path.join(folderOf(folder), old.name), { force: true });
  return listBackups(folder).find(({ name }) => name === free)!;
}

/**
 * A copy of the data as it is now, in one file that was not there, under its name only when it is whole. @source
 * SQLite, "VACUUM INTO"
 */
export function copyTo(db: Db, file: string): void {
  if (existsSync(file)) throw new Error(`${file} is there already`);
  const half = file + HALF;
  rmSync(half, { force: true }); // of one that was killed
  try {
    connectionOf(db).prepare('VACUUM INTO ?').run(half);
    renameSync(half, file);
  } finally {
    rmSync(half, { force: true });
  }
}

const DAY_MS = 86_400_000;

/** The day's copy, where there is none of it yet. */
export function backUpDaily(db: Db, folder: string, now_ms: number): Backup | undefined {
  const last = listBackups(folder).find(({ kind }) => kind === 'daily');
  return last && Math.floor(last.at_ms / DAY_MS) >= Math.floor(now_ms / DAY_MS)
    ? undefined
    : backUp(db, folder, 'daily', now_ms);
}

/** Where a copy is looked through before it is put in place. */
const BESIDE = '.restore-';
/** What belongs to the devices that were let in is not brought back: who was sent away stays away. */
const RESTORED = ['facts', 'own_parts', 'systems', 'revisions', 'records'] as const;
/** What goes with its system, and not otherwise. */
const CASCADES: ReadonlySet<string> = new Set(['records']);

/**
 * Brings back a copy: looked through and brought up to date beside the data,
 * then put in place of it in one transaction, so that a running server goes on
 * and a stop in between changes nothing. What was there is copied first. Every
 * system counts as changed, so that no open page saves over it unasked.
 */
export function restoreBackup(
  db: Db,
  folder: string,
  file: string,
  now_ms: number,
): Outcome<{ readonly systems: number; readonly before: Backup }, StoreCode | 'missing'> {
  if (!existsSync(file)) return failure('missing', file, `There is no file ${file}.`);
  const foreign = notSqlite(file);
  if (foreign) return foreign;
  // What one that was killed left behind goes with the next.
  for (const old of readdirSync(folder).filter((name) => name.startsWith(BESIDE)))
    rmSync(path.join(folder, old), { recursive: true, force: true });
  const beside = path.join(mkdtempSync(path.join(folder, BESIDE)), 'copy.db');
  let at = file;
  try {
    copyFileSync(file, beside);
    const faulty = broughtUp(beside, file);
    if (faulty) return faulty;
    at = connectionOf(db).name; // from here on it is the data that cannot be written
    const before = backUp(db, folder, 'before-restore', now_ms);
    const count = putInPlace(db, beside, now_ms);
    return success({ systems: count, before });
  } catch (error) {
    return storeFault(error, at);
  } finally {
    rmSync(path.dirname(beside), { recursive: true, force: true });
  }
}

/**
 * Looks through the copy and brings its tables up to date; what is wrong with it is said of the file that it came from.
 */
function broughtUp(beside: string, file: string): ReturnType<typeof lookedThrough> {
  const before = openAsItIs(beside, file);
  if (before) return before;
  const copy = openDatabase(beside);
  connectionOf(copy).close();
  return undefined;
}

function openAsItIs(beside: string, file: string): ReturnType<typeof lookedThrough> {
  // Opening also migrates; what is of a later Gas Line or of another program must be found before.
  const raw = connected(beside);
  try {
    return lookedThrough(raw, file);
  } finally {
    connectionOf(raw).close();
  }
}

function putInPlace(db: Db, beside: string, now_ms: number): number {
  const connection = connectionOf(db);
  const present = new Map(
    db
      .select({ id: systems.id, revision: systems.revision })
      .from(systems)
      .all()
      .map(({ id, revision }) => [id, revision]),
  );
  connection.prepare('ATTACH ? AS copy').run(beside);
  try {
    return connection
      .transaction(() => {
        for (const table of [...RESTORED].reverse().filter((name) => !CASCADES.has(name)))
          connection.exec(`DELETE FROM main."${table}" ${table === 'facts' ? "WHERE key NOT LIKE 'device%'" : ''}`);
        for (const table of RESTORED) {
          const columns = (
            connection.prepare(`SELECT name FROM pragma_table_info('${table}')`).all() as { name: string }[]
          )
            .map(({ name }) => `"${name}"`)
            .join(', ');
          connection.exec(
            `INSERT INTO main."${table}" (${columns}) SELECT ${columns} FROM copy."${table}" ${table === 'facts' ? "WHERE key NOT LIKE 'device%'" : ''}`,
          );
        }
        const back = db
          .select({ id: systems.id, revision: systems.revision, document: systems.document })
          .from(systems)
          .all();
        for (const { id, revision, document } of back) {
          const next = Math.max(revision, present.get(id) ?? 0) + 1;
          db.update(systems).set({ revision: next }).where(eq(systems.id, id)).run();
          db.insert(revisions)
            .values({ systemId: id, revision: next, edit: 'brought back from a copy', document, savedAt_ms: now_ms })
            .run();
        }
        return back.length;
      })
      .immediate();
  } finally {
    connection.exec('DETACH copy');
  }
}
