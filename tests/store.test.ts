import { mkdirSync, mkdtempSync, readdirSync, readFileSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Database from 'better-sqlite3';
import { sql } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { draftSystem, newPart, type SystemDocument } from '@/core/plan';
import { unwrap } from '@/core/outcome';
import {
  addOwnParts,
  backUp,
  backUpDaily,
  COPIES_KEPT,
  copyTo,
  createSystem,
  dataFile,
  deleteSystem,
  deviceKey,
  findSystem,
  cardOfSystem,
  keepCard,
  letIn,
  listBackups,
  listDevices,
  listOwnParts,
  listRevisions,
  listSystems,
  openDatabase,
  openStore,
  restoreBackup,
  restoreSystem,
  revisionOf,
  saveSystem,
  sendAway,
  systemText,
  tidy,
  type Db,
} from '@/db';
import { main } from '@/cli';
import { connectionOf } from '@/db/connection';
import { storeFault } from '@/db/lookThrough';
import { pourRecord } from './pourRecord';

const DRAFT = draftSystem({ name: 'Test', vehicle: 'boat', consumer: 'heater', power_W: 4e3, holds_m3: 0.02 });
const BOAT = JSON.parse(readFileSync('demo/crab-boat.json', 'utf8')) as SystemDocument;
const folderIn = (): string => mkdtempSync(path.join(tmpdir(), 'gasline-store-'));
const NOW = Date.UTC(2026, 4, 3, 12);
const DAY = 86_400_000;
const close = (db: Db): void => void connectionOf(db).close();

/** A data folder with one system in it, closed. */
function folderWith(change: (file: string) => void = () => undefined): string {
  const folder = folderIn();
  const db = unwrap(openStore(folder, NOW));
  createSystem(db, 'a', DRAFT, NOW);
  connectionOf(db).pragma('wal_checkpoint(TRUNCATE)');
  close(db);
  change(dataFile(folder));
  return folder;
}

describe('what is looked at before the data is used', () => {
  it.each<[string, () => string, string, RegExp]>([
    [
      'a folder whose path is a file',
      () => {
        const file = path.join(folderIn(), 'file');
        writeFileSync(file, '');
        return path.join(file, 'data');
      },
      'no-folder',
      /cannot be made/,
    ],
    [
      'a file that is no database',
      () => folderWith((file) => writeFileSync(file, 'PNG and nothing else, long enough')),
      'foreign',
      /no data file of Gas Line/,
    ],
    [
      'a folder in its place',
      () => {
        const folder = folderIn();
        mkdirSync(dataFile(folder));
        return folder;
      },
      'foreign',
      /is no file/,
    ],
    [
      'a database of another program',
      () =>
        folderWith((file) => {
          writeFileSync(file, '');
          const other = new Database(file);
          other.exec('CREATE TABLE songs (name text)');
          other.close();
        }),
      'foreign',
      /another program/,
    ],
    [
      'a file cut off in the middle',
      () => folderWith((file) => truncateSync(file, Math.floor(statSync(file).size / 2 / 4096) * 4096)),
      'corrupt',
      /damaged/,
    ],
    [
      'a file with a page overwritten',
      () =>
        folderWith((file) => {
          const bytes = readFileSync(file);
          bytes.fill(0xff, 4096, 8192);
          writeFileSync(file, bytes);
        }),
      'corrupt',
      /damaged/,
    ],
    [
      'a file of a later Gas Line',
      () =>
        folderWith((file) => {
          const later = new Database(file);
          later.exec("INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('later', 9000000000000)");
          later.close();
        }),
      'newer',
      /later Gas Line/,
    ],
    [
      'a file that another program holds',
      () => {
        const folder = folderWith();
        const other = new Database(dataFile(folder));
        other.exec('BEGIN EXCLUSIVE');
        return folder;
      },
      'busy',
      /held by another program/,
    ],
  ])(
    '%s ends with one sentence: which file, why, what to do',
    (_, make, code, words) => {
      const folder = make();
      const opened = openStore(folder, NOW);
      expect(opened).toMatchObject({ ok: false, error: { code } });
      if (opened.ok) return;
      expect(opened.error.detail).toMatch(words);
      expect(opened.error.detail).toContain(path.dirname(folder).slice(0, 8));
      expect(opened.error.detail.trim().split('\n')).toHaveLength(1);
      expect(opened.error.detail).toMatch(/;.*\.$/);
    },
    20_000,
  );

  it.each([
    ['SQLITE_READONLY', 'unwritable'],
    ['EROFS', 'unwritable'],
    ['SQLITE_FULL', 'unwritable'],
    ['SQLITE_IOERR_READ', 'corrupt'],
    ['SQLITE_CANTOPEN', 'unwritable'],
    ['SQLITE_BUSY_SNAPSHOT', 'busy'],
    ['SOMETHING', 'not-opened'],
  ])('%s is told as %s', (code, told) => {
    expect(storeFault(Object.assign(new Error('why'), { code }), '/x/gasline.db')).toMatchObject({
      error: { code: told, detail: expect.stringContaining('/x/gasline.db') as string },
    });
  });

  it('a read-only file is told as such', () => {
    const folder = folderWith();
    const readonly = new Database(dataFile(folder), { readonly: true });
    let fault: unknown;
    try {
      readonly.exec('BEGIN IMMEDIATE; DELETE FROM systems; COMMIT');
    } catch (error) {
      fault = error;
    }
    readonly.close();
    expect(storeFault(fault, dataFile(folder))).toMatchObject({ error: { code: 'unwritable' } });
  });

  it('a new folder, an empty file and what was there before are opened; commits reach the disk before they are answered', () => {
    const db = unwrap(openStore(path.join(folderIn(), 'new', 'data'), NOW));
    expect(db.get(sql`pragma synchronous`)).toEqual({ synchronous: 2 });
    const folder = folderIn();
    writeFileSync(dataFile(folder), '');
    expect(openStore(folder, NOW)).toMatchObject({ ok: true });
    expect(findSystem(unwrap(openStore(folderWith(), NOW)), 'a')).toMatchObject({ ok: true });
  });

  it('before its tables are changed a copy is kept', () => {
    const folder = folderWith((file) => {
      const earlier = new Database(file);
      earlier.exec(
        'DROP TABLE records; DROP TABLE devices; DROP INDEX systems_updated; ALTER TABLE systems DROP COLUMN card; ALTER TABLE systems DROP COLUMN card_revision; ALTER TABLE systems DROP COLUMN card_build; ALTER TABLE revisions DROP COLUMN name; DELETE FROM __drizzle_migrations WHERE created_at IN (SELECT created_at FROM __drizzle_migrations ORDER BY created_at DESC LIMIT 3)',
      );
      earlier.close();
    });
    const db = unwrap(openStore(folder, NOW));
    expect(findSystem(db, 'a')).toMatchObject({ ok: true });
    const [copy] = listBackups(folder);
    expect(copy).toMatchObject({ kind: 'before-update', at_ms: NOW });
    const kept = new Database(path.join(folder, 'backups', copy!.name), { readonly: true });
    expect(kept.prepare("SELECT count(*) AS n FROM sqlite_master WHERE name = 'devices'").get()).toEqual({ n: 0 });
    expect(kept.prepare('SELECT id FROM systems').all()).toEqual([{ id: 'a' }]);
    close(db);
    unwrap(openStore(folder, NOW + 1));
    expect(listBackups(folder)).toHaveLength(1);
  });
});

describe('copies', () => {
  it('one a day, the last seven; those that were asked for stay', () => {
    const folder = folderWith();
    const db = unwrap(openStore(folder, NOW));
    for (let day = 0; day < 12; day++) {
      expect(backUpDaily(db, folder, NOW + day * DAY)).toMatchObject({ kind: 'daily' });
      expect(backUpDaily(db, folder, NOW + day * DAY + 3_600_000)).toBeUndefined();
      backUp(db, folder, 'asked-for', NOW + day * DAY);
    }
    const names = listBackups(folder);
    expect(names.filter(({ kind }) => kind === 'daily').map(({ at_ms }) => at_ms)).toEqual(
      Array.from({ length: COPIES_KEPT }, (_, i) => NOW + (11 - i) * DAY),
    );
    expect(names.filter(({ kind }) => kind === 'asked-for')).toHaveLength(12);
    expect(readdirSync(path.join(folder, 'backups')).filter((name) => name.startsWith('.'))).toEqual([]);
  });

  it('two within a second have names of their own', () => {
    const folder = folderWith();
    const db = unwrap(openStore(folder, NOW));
    expect(new Set([backUp(db, folder, 'asked-for', NOW).name, backUp(db, folder, 'asked-for', NOW).name]).size).toBe(
      2,
    );
    expect(listBackups(folder)).toHaveLength(2);
  });

  const recordsOf = (db: Db): string[] => {
    const found = findSystem(db, 'a');
    return found.ok ? found.value.document.records.map(({ id }) => id) : [];
  };

  it('bring everything back but devices; count as a change; and what was there is kept', () => {
    const folder = folderWith();
    const db = unwrap(openStore(folder, NOW));
    addOwnParts(db, [{ id: 'p', part: { ...newPart(DRAFT, 'tee', 0.008), name: 'Kept pump' } as never }], NOW);
    letIn(db, 'phone', 'Phone', NOW);
    const key = deviceKey(db);
    saveSystem(db, 'a', { ...DRAFT, records: [pourRecord('kept')] }, 1, 'pour', NOW);
    const { name } = backUp(db, folder, 'asked-for', NOW);
    const later = { ...DRAFT, name: 'Later', records: [pourRecord('kept'), pourRecord('later')] };
    saveSystem(db, 'a', later, 1, 'rename', NOW + 1);
    createSystem(db, 'b', DRAFT, NOW + 1);
    sendAway(db, 'phone');
    const done = unwrap(restoreBackup(db, folder, path.join(folder, 'backups', name), NOW + 2));
    expect(done).toMatchObject({ systems: 1, before: { kind: 'before-restore' } });
    expect(findSystem(db, 'a')).toMatchObject({ ok: true, value: { revision: 3, document: { name: 'Test' } } });
    expect(recordsOf(db)).toEqual(['kept']);
    expect(findSystem(db, 'b')).toMatchObject({ ok: false, error: { code: 'missing' } });
    expect(listRevisions(db, 'a')[0]).toMatchObject({ revision: 3, edit: 'brought back from a copy' });
    expect(listOwnParts(db).parts).toMatchObject([{ name: 'Kept pump' }]);
    // Who was sent away stays away.
    expect(listDevices(db)).toEqual([]);
    expect(deviceKey(db)).toEqual(key);
    // A page that was open at the time saves over nothing.
    expect(saveSystem(db, 'a', DRAFT, 2, 'edit', NOW + 3)).toMatchObject({ saved: false, reason: 'conflict' });
    // And back again.
    unwrap(restoreBackup(db, folder, path.join(folder, 'backups', done.before.name), NOW + 4));
    expect(findSystem(db, 'b')).toMatchObject({ ok: true });
    expect(findSystem(db, 'a')).toMatchObject({ ok: true, value: { document: { name: 'Later' } } });
    expect(recordsOf(db)).toEqual(['kept', 'later']);
  });

  it.each<[string, (file: string) => void, string]>([
    ['is not there', () => undefined, 'missing'],
    ['is no database', (file) => writeFileSync(file, 'nothing of the kind at all'), 'foreign'],
    [
      'is another program’s',
      (file) => {
        const other = new Database(file);
        other.exec('CREATE TABLE songs (name text)');
        other.close();
      },
      'foreign',
    ],
    [
      'is cut off',
      (file) => {
        const whole = path.join(path.dirname(file), 'whole.db');
        const db = openDatabase(whole);
        createSystem(db, 'x', BOAT, 1);
        connectionOf(db).pragma('wal_checkpoint(TRUNCATE)');
        close(db);
        writeFileSync(file, readFileSync(whole).subarray(0, 16_384));
      },
      'corrupt',
    ],
  ])('one that %s changes nothing', (_, make, code) => {
    const folder = folderWith();
    const db = unwrap(openStore(folder, NOW));
    const file = path.join(folderIn(), 'copy.db');
    make(file);
    expect(restoreBackup(db, folder, file, NOW)).toMatchObject({ ok: false, error: { code } });
    expect(revisionOf(db, 'a')).toBe(1);
    expect(readdirSync(folder).filter((name) => name.startsWith('.restore'))).toEqual([]);
  });

  it('where the data cannot be written, that is told of the data and not of the copy, and nothing is changed', () => {
    const folder = folderWith();
    const db = unwrap(openStore(folder, NOW));
    const { name } = backUp(db, folder, 'asked-for', NOW);
    for (let i = 0; i < 30; i++) createSystem(db, `s${i}`, DRAFT, NOW);
    const other = new Database(dataFile(folder));
    db.run(sql`pragma busy_timeout = 50`);
    other.exec('BEGIN IMMEDIATE');
    const done = restoreBackup(db, folder, path.join(folder, 'backups', name), NOW);
    expect(done).toMatchObject({ ok: false, error: { code: 'busy', at: dataFile(folder) } });
    other.exec('ROLLBACK');
    expect(listSystems(db, 'b').count).toBe(31);
  });

  it('half a copy has no name of its own, and what a killed one left behind goes with the next', () => {
    const folder = folderWith();
    const db = unwrap(openStore(folder, NOW));
    const { name } = backUp(db, folder, 'asked-for', NOW);
    mkdirSync(path.join(folder, '.restore-killed'));
    writeFileSync(path.join(folder, 'kept.db.half'), 'half');
    writeFileSync(path.join(folder, 'backups', 'gasline-2026-01-01T000000-daily.db.half'), 'half');
    copyTo(db, path.join(folder, 'kept.db'));
    unwrap(restoreBackup(db, folder, path.join(folder, 'backups', name), NOW));
    expect(
      [...readdirSync(folder), ...readdirSync(path.join(folder, 'backups'))].filter((one) =>
        /\.restore-|half/.test(one),
      ),
    ).toEqual([]);
    expect(() => copyTo(db, path.join(folder, 'kept.db'))).toThrow(/there already/);
  });

  it('one of an earlier Gas Line is brought up to date on the way, and stays as it is', () => {
    const folder = folderWith();
    const db = unwrap(openStore(folder, NOW));
    const file = path.join(folderIn(), 'earlier.db');
    connectionOf(db).prepare('VACUUM INTO ?').run(file);
    const earlier = new Database(file);
    earlier.exec(
      'DROP TABLE records; DROP TABLE devices; DROP INDEX systems_updated; ALTER TABLE systems DROP COLUMN card; ALTER TABLE systems DROP COLUMN card_revision; ALTER TABLE systems DROP COLUMN card_build; ALTER TABLE revisions DROP COLUMN name; DELETE FROM __drizzle_migrations WHERE created_at IN (SELECT created_at FROM __drizzle_migrations ORDER BY created_at DESC LIMIT 3)',
    );
    earlier.close();
    const before = readFileSync(file);
    deleteSystem(db, 'a', NOW);
    expect(restoreBackup(db, folder, file, NOW)).toMatchObject({ ok: true, value: { systems: 1 } });
    expect(findSystem(db, 'a')).toMatchObject({ ok: true });
    expect(readFileSync(file)).toEqual(before);
  });
});

describe('what the library costs', () => {
  it('200 saves of a system of 24 kB take less than 1 MB', () => {
    const folder = folderIn();
    const db = unwrap(openStore(folder, NOW));
    expect(JSON.stringify(BOAT).length).toBeGreaterThan(20_000);
    createSystem(db, 'a', BOAT, NOW);
    for (let revision = 1; revision <= 200; revision++)
      saveSystem(db, 'a', { ...BOAT, description: `Edit ${revision}` }, revision, 'edit', NOW + (revision * DAY) / 2);
    const { bytes } = connectionOf(db).prepare('SELECT sum(length(document)) AS bytes FROM revisions').get() as {
      bytes: number;
    };
    const { count } = connectionOf(db).prepare('SELECT count(*) AS count FROM revisions').get() as { count: number };
    expect((bytes / count) * 200).toBeLessThan(1e6);
  });

  it('saves of an earlier Gas Line are packed, and read the same', () => {
    const folder = folderIn();
    const db = unwrap(openStore(folder, NOW));
    createSystem(db, 'a', BOAT, NOW);
    connectionOf(db).prepare('UPDATE revisions SET document = ?').run(JSON.stringify(BOAT));
    tidy(db, NOW);
    expect(connectionOf(db).prepare('SELECT typeof(document) AS kind FROM revisions').get()).toEqual({ kind: 'blob' });
    const file = backUp(db, folder, 'asked-for', NOW);
    unwrap(restoreBackup(db, folder, path.join(folder, 'backups', file.name), NOW));
    expect(findSystem(db, 'a')).toMatchObject({ ok: true, value: { document: BOAT } });
  });

  it('what was deleted can be brought back for thirty days, and then is gone, its saves with it, and the disk has its space', () => {
    const folder = folderIn();
    const db = unwrap(openStore(folder, NOW));
    createSystem(db, 'stays', DRAFT, NOW);
    for (let i = 0; i < 60; i++) createSystem(db, `gone-${i}`, BOAT, NOW);
    for (let i = 0; i < 60; i++) deleteSystem(db, `gone-${i}`, NOW);
    expect(tidy(db, NOW + 29 * DAY)).toBe(0);
    expect(restoreSystem(db, 'gone-0')).toBe(true);
    const before = (db.get(sql`pragma page_count`) as { page_count: number }).page_count;
    expect(tidy(db, NOW + 31 * DAY)).toBe(59);
    expect(restoreSystem(db, 'gone-1')).toBe(false);
    expect(listRevisions(db, 'gone-1')).toEqual([]);
    expect(listSystems(db, 'b').count).toBe(2);
    expect((db.get(sql`pragma page_count`) as { page_count: number }).page_count).toBeLessThan(before / 3);
  });

  it('a card counts while it is of the present revision and of this build', () => {
    const db = unwrap(openStore(folderIn(), NOW));
    createSystem(db, 'a', DRAFT, NOW);
    const cardAt = (build: string): unknown => (listSystems(db, build).systems[0] as { card: unknown }).card;
    const of = (build: string) => ({ revision: 1, build, conditions: DRAFT.conditions });
    expect(cardAt('one')).toBeNull();
    expect(keepCard(db, 'a', of('one'), '{"x":1}')).toBe(true);
    expect([cardAt('one'), cardAt('two')]).toEqual(['{"x":1}', null]);
    expect([cardOfSystem(db, 'a', 'one'), cardOfSystem(db, 'a', 'two')]).toEqual(['{"x":1}', undefined]);
    saveSystem(db, 'a', { ...DRAFT, description: 'Another' }, 1, 'edit', NOW);
    expect(cardAt('one')).toBeNull();
    expect(keepCard(db, 'a', of('one'), '{}')).toBe(false);
    expect(cardOfSystem(db, 'a', 'one')).toBeUndefined();
    expect(keepCard(db, 'none', of('one'), '{}')).toBe(false);
  });

  it('comes in pieces, the last changed first, by what is in a name', () => {
    const db = unwrap(openStore(folderIn(), NOW));
    for (let i = 0; i < 30; i++)
      createSystem(db, `s${i}`, { ...DRAFT, name: i % 10 === 0 ? `100 % of ${i}_` : `Boat ${i}` }, NOW + i);
    expect(listSystems(db, 'b')).toMatchObject({
      count: 30,
      systems: Array.from({ length: 12 }, (_, i) => ({ id: `s${29 - i}` })),
    });
    expect(listSystems(db, 'b', { from: 24, most: 12 }).systems.map(({ id }) => id)).toEqual([
      's5',
      's4',
      's3',
      's2',
      's1',
      's0',
    ]);
    // Signs that the query language reads as more are letters here.
    expect(listSystems(db, 'b', { having: '0 %' }).count).toBe(3);
    expect(listSystems(db, 'b', { having: '_' }).count).toBe(3);
    expect(listSystems(db, 'b', { having: 'boat 2' }).count).toBe(10);
    createSystem(db, 'x', { ...DRAFT, name: 'Бот Ölstand' }, NOW);
    expect(listSystems(db, 'b', { having: 'бОТ öl' }).count).toBe(1);
  });
});

describe('a system that cannot be read', () => {
  it.each([
    ['{"format":"gasline-system","version":6,', /damaged/],
    ['[]', /holds no object/],
    [JSON.stringify({ ...DRAFT, version: 99 }), /version 99/],
  ])('%s is listed as such, with its text, and spoils nothing else', (text, words) => {
    const db = unwrap(openStore(folderIn(), NOW));
    createSystem(db, 'good', DRAFT, NOW);
    createSystem(db, 'bad', { ...DRAFT, name: 'Bad' }, NOW + 1);
    db.run(sql`UPDATE systems SET document = ${text} WHERE id = 'bad'`);
    expect(listSystems(db, 'b').systems).toMatchObject([
      { id: 'bad', name: 'Bad', readable: false, detail: expect.stringMatching(words) as string },
      { id: 'good', readable: true },
    ]);
    expect(findSystem(db, 'bad')).toMatchObject({ ok: false, error: { code: 'unreadable' } });
    expect(systemText(db, 'bad')).toEqual({ name: 'Bad', text });
  });
});

describe('the command line', () => {
  const run = async (...args: string[]): Promise<{ code: number; out: string; err: string }> => {
    const said = { out: '', err: '' };
    const code = await main(
      args,
      (text) => {
        said.out += text;
      },
      (text) => {
        said.err += text;
      },
    );
    return { code, ...said };
  };

  it('makes a copy and brings it back', async () => {
    const folder = folderWith();
    process.env.GASLINE_DATA = folder;
    const made = await run('backup');
    expect(made).toMatchObject({ code: 0, err: '' });
    const { name } = (JSON.parse(made.out) as { made: { name: string } }).made;
    const elsewhere = path.join(folderIn(), 'kept.db');
    expect((await run('backup', elsewhere)).code).toBe(0);
    expect(await run('backup', elsewhere)).toMatchObject({
      code: 2,
      err: expect.stringContaining('Name a file that is not there yet') as string,
    });
    deleteSystem(unwrap(openStore(folder, NOW)), 'a', NOW);
    expect(
      (JSON.parse((await run('restore')).out) as { backups: { name: string }[] }).backups.map((one) => one.name),
    ).toEqual([name]);
    for (const from of [name, elsewhere]) {
      expect(await run('restore', from)).toMatchObject({ code: 0 });
      expect(revisionOf(unwrap(openStore(folder, NOW)), 'a')).toBeGreaterThan(1);
      deleteSystem(unwrap(openStore(folder, NOW)), 'a', NOW);
    }
    expect(await run('restore', 'nowhere.db')).toMatchObject({
      code: 2,
      err: expect.stringMatching(/Nothing was changed.*no file/) as string,
    });
    expect(await run('restore', 'a', 'b')).toMatchObject({
      code: 2,
      err: expect.stringContaining('left over') as string,
    });
  });

  it('a folder that cannot be used is told', async () => {
    process.env.GASLINE_DATA = folderWith((file) => writeFileSync(file, 'something else entirely'));
    expect(await run('backup')).toMatchObject({
      code: 2,
      err: expect.stringContaining('no data file of Gas Line') as string,
    });
  });
});
