import path from 'node:path';
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import * as schema from './schema';

export type Db = BetterSQLite3Database<typeof schema>;

const MIGRATIONS = path.join(process.cwd(), 'src/db/migrations');

/**
 * A transaction that writes takes the file from its beginning: it waits for another writer, and never finds at its end
 * that what it read is old.
 */
export const AT_ONCE = { behavior: 'immediate' } as const;

/** “GasL”: says in a file's head whose it is. @source SQLite, "PRAGMA application_id" */
export const APPLICATION_ID = 0x4761734c;

/** SQLite itself, for what has no place in the query language. */
export const connectionOf = (db: Db): Database.Database =>
  (db as unknown as { readonly $client: Database.Database }).$client;

/**
 * Opens a database file with WAL and foreign keys, and brings its tables up to
 * date. What is acknowledged survives the loss of power: every commit is on the
 * disk before it is answered.
 */
export function openDatabase(file: string): Db {
  const db = connected(file);
  broughtUpToDate(db);
  return db;
}

/** A start that another program holds up says so soon; a save waits for longer. */
const AT_START_MS = 2000;
const SAVE_WAITS_MS = 5000;

/** Brings the tables of an open file up to date; from then on it is waited for as a save waits. */
export function broughtUpToDate(db: Db): void {
  migrate(db, { migrationsFolder: MIGRATIONS });
  // Setting it writes, even what is there already.
  if (connectionOf(db).pragma('application_id', { simple: true }) !== APPLICATION_ID)
    connectionOf(db).pragma(`application_id = ${APPLICATION_ID}`);
  connectionOf(db).pragma(`busy_timeout = ${SAVE_WAITS_MS}`);
}

const folded = (text: unknown): string => String(text).normalize('NFKC').toLowerCase();

/** Opens a file as it is: no table is changed. */
export function connected(file: string): Db {
  const connection = new Database(file);
  try {
    connection.pragma(`busy_timeout = ${AT_START_MS}`);
    connection.pragma('journal_mode = WAL');
    connection.pragma('synchronous = FULL');
    connection.pragma('foreign_keys = ON');
    // SQLite's own LIKE knows capitals of the Latin letters alone.
    connection.function('has_text', { deterministic: true }, (text, part) =>
      Number(folded(text).includes(folded(part))),
    );
    return drizzle(connection, { schema });
  } catch (error) {
    connection.close();
    throw error;
  }
}

/**
 * When the last change of tables that this Gas Line knows was made; and the last that a file has had, 0 where it has
 * none.
 */
export const lastKnown = (): number =>
  Math.max(...readMigrationFiles({ migrationsFolder: MIGRATIONS }).map(({ folderMillis }) => folderMillis));

export function lastApplied(db: Db): number {
  const connection = connectionOf(db);
  if (!connection.prepare("SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'").get()) return 0;
  return (
    (connection.prepare('SELECT max(created_at) AS last FROM __drizzle_migrations').get() as { last: number | null })
      .last ?? 0
  );
}
