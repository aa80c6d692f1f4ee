import { mkdirSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import * as schema from './schema';

export type Db = BetterSQLite3Database<typeof schema>;

/** Where the one data file lives: GASLINE_DATA, or data/ beside the app. */
export const dataFolder = (): string => path.resolve(/*turbopackIgnore: true*/ process.env.GASLINE_DATA ?? 'data');

const MIGRATIONS = path.join(process.cwd(), 'src/db/migrations');

/** A transaction that writes takes the file from its beginning: it waits for another writer, and never finds at its end that what it read is old. */
export const AT_ONCE = { behavior: 'immediate' } as const;

/** Opens a database file with WAL and foreign keys, and brings its tables up to date. */
export function openDatabase(file: string): Db {
  const connection = new Database(file);
  connection.pragma('journal_mode = WAL');
  connection.pragma('foreign_keys = ON');
  connection.pragma('busy_timeout = 5000');
  const db = drizzle(connection, { schema });
  migrate(db, { migrationsFolder: MIGRATIONS });
  return db;
}

/** Kept on globalThis: the server's bundles each have their own module instances. */
const holder = globalThis as unknown as { gaslineDb?: Db };

export function database(): Db {
  if (!holder.gaslineDb) {
    const folder = dataFolder();
    mkdirSync(folder, { recursive: true });
    holder.gaslineDb = openDatabase(path.join(folder, 'gasline.db'));
  }
  return holder.gaslineDb;
}
