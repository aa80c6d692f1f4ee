import { closeSync, existsSync, openSync, readSync, statSync } from 'node:fs';
import { failure } from '@/core/outcome';
import { APPLICATION_ID, connectionOf, lastApplied, lastKnown, type Db } from './connection';

export type StoreCode = 'no-folder' | 'unwritable' | 'foreign' | 'newer' | 'corrupt' | 'busy' | 'not-opened';

export type StoreFault = ReturnType<typeof failure<StoreCode>>;

/** The first bytes of every SQLite file. @source SQLite, "Database File Format", 1.3 */
const MAGIC = 'SQLite format 3\0';

export function notSqlite(file: string): StoreFault | undefined {
  try {
    if (!existsSync(file)) return undefined;
    if (!statSync(file).isFile())
      return failure('foreign', file, `${file} is no file; move it away, or name another folder in GASLINE_DATA.`);
    if (statSync(file).size === 0) return undefined;
    const head = Buffer.alloc(MAGIC.length);
    const handle = openSync(file, 'r');
    try {
      readSync(handle, head, 0, MAGIC.length, 0);
    } finally {
      closeSync(handle);
    }
    return head.toString('latin1') === MAGIC
      ? undefined
      : failure(
          'foreign',
          file,
          `${file} is no data file of Gas Line, or its beginning is damaged; move it away, and bring back a copy with npm run -s gasline -- restore.`,
        );
  } catch (error) {
    return storeFault(error, file);
  }
}

/**
 * What is wrong with a file that SQLite opens: another program's, a later Gas Line's, damaged, or not to be written.
 */
export function lookedThrough(db: Db, file: string): StoreFault | undefined {
  const connection = connectionOf(db);
  const wrong = connection.pragma('quick_check(1)', { simple: true });
  if (wrong !== 'ok')
    return failure(
      'corrupt',
      file,
      `${file} is damaged (${String(wrong).split('\n')[0]!.slice(0, 100)}); move it away, and bring back a copy with npm run -s gasline -- restore.`,
    );
  const tables = new Set(
    (connection.prepare("SELECT name FROM sqlite_master WHERE type = 'table'").all() as { name: string }[]).map(
      ({ name }) => name,
    ),
  );
  const id = connection.pragma('application_id', { simple: true });
  if (
    tables.size > 0 &&
    (!tables.has('systems') || !tables.has('__drizzle_migrations') || (id !== 0 && id !== APPLICATION_ID))
  )
    return failure(
      'foreign',
      file,
      `${file} is a database of another program; move it away, or name another folder in GASLINE_DATA.`,
    );
  if (lastApplied(db) > lastKnown())
    return failure(
      'newer',
      file,
      `${file} was written by a later Gas Line, and this one would lose what it does not know; update Gas Line, or name another folder in GASLINE_DATA.`,
    );
  connection.exec('BEGIN IMMEDIATE; ROLLBACK');
  return undefined;
}

export const codeOf = (error: unknown): string =>
  (error instanceof Error && 'code' in error ? String(error.code) : String(error)).slice(0, 80);

/** What SQLite says of a file, in a sentence. @source SQLite, "Result and Error Codes" */
export function storeFault(error: unknown, file: string): StoreFault {
  const code = codeOf(error);
  if (/^SQLITE_(CORRUPT|NOTADB|IOERR)/.test(code))
    return failure(
      'corrupt',
      file,
      `${file} is damaged or cannot be read (${code}); move it away, and bring back a copy with npm run -s gasline -- restore.`,
    );
  if (/^SQLITE_(READONLY|PERM|CANTOPEN|FULL)|^E(ACCES|PERM|ROFS|NOSPC)/.test(code))
    return failure(
      'unwritable',
      file,
      `${file} cannot be written (${code}); give this user the right to, make room on the disk, or name another folder in GASLINE_DATA.`,
    );
  if (/^SQLITE_(BUSY|LOCKED)/.test(code))
    return failure('busy', file, `${file} is held by another program; close that, then start again.`);
  return failure(
    'not-opened',
    file,
    `${file} could not be opened (${error instanceof Error ? error.message.slice(0, 160) : code}); look at it, or name another folder in GASLINE_DATA.`,
  );
}
