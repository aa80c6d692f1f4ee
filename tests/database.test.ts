import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { CURRENT_VERSION, draftSystem, MOST_OWN_PARTS, newPart } from '@/core/document';
import {
  addOwnParts,
  createSystem,
  deleteSystem,
  findSystem,
  listRevisions,
  listOwnParts,
  listSystems,
  loadDemoOnce,
  nameSystems,
  openDatabase,
  removeOwnPart,
  restoreSystem,
  LAST_REVISIONS_KEPT,
  REVISIONS_KEPT,
  saveSystem,
} from '@/db';
import { demoSystems } from '@/server/startup';

const DRAFT = draftSystem({ name: 'Test', vehicle: 'boat', consumer: 'heater', power_W: 4e3, holds_m3: 0.02 });
const BUILD = 'test';
const fileIn = (): string => path.join(mkdtempSync(path.join(tmpdir(), 'gasline-')), 'gasline.db');

describe('the data file', () => {
  it('is in WAL mode with foreign keys on, and its migrations run once', () => {
    const file = fileIn();
    const db = openDatabase(file);
    expect(db.get(sql`pragma journal_mode`)).toEqual({ journal_mode: 'wal' });
    expect(db.get(sql`pragma foreign_keys`)).toEqual({ foreign_keys: 1 });
    createSystem(db, 'a', DRAFT, 1);
    expect(findSystem(openDatabase(file), 'a')).toMatchObject({ ok: true, value: { document: DRAFT } });
  });

  it('keeps a revision with every save and refuses a save over a newer one', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'a', DRAFT, 1);
    expect(saveSystem(db, 'a', { ...DRAFT, name: 'B' }, 1, 'rename', 2)).toEqual({ saved: true, revision: 2 });
    expect(saveSystem(db, 'a', { ...DRAFT, name: 'C' }, 1, 'rename', 3)).toEqual({
      saved: false,
      reason: 'conflict',
      revision: 2,
    });
    expect(saveSystem(db, 'none', DRAFT, 1, 'rename', 3)).toEqual({ saved: false, reason: 'missing' });
    expect(findSystem(db, 'a')).toMatchObject({ ok: true, value: { revision: 2, document: { name: 'B' } } });
    expect(listRevisions(db, 'a').map(({ revision, edit }) => [revision, edit])).toEqual([
      [2, 'rename'],
      [1, 'created'],
    ]);
  });

  it('keeps the last hundred saves, then the last of each day for ninety days, and no more than 200', () => {
    const db = openDatabase(fileIn());
    const day_ms = 86_400_000;
    createSystem(db, 'a', DRAFT, 0);
    // Three saves a day for 150 days.
    for (let revision = 1; revision < 450; revision++)
      saveSystem(db, 'a', DRAFT, revision, 'edit', Math.floor(revision / 3) * day_ms + (revision % 3));
    const kept = listRevisions(db, 'a');
    expect(kept.slice(0, LAST_REVISIONS_KEPT).map(({ revision }) => revision)).toEqual(
      Array.from({ length: LAST_REVISIONS_KEPT }, (_, i) => 450 - i),
    );
    const older = kept.slice(LAST_REVISIONS_KEPT).map(({ savedAt_ms }) => savedAt_ms);
    expect(new Set(older.map((at) => Math.floor(at / day_ms))).size).toBe(older.length);
    expect(Math.min(...older)).toBeGreaterThan((149 - 91) * day_ms);
    expect(older.length).toBeGreaterThan(50);
    expect(kept.length).toBeLessThanOrEqual(REVISIONS_KEPT);
  });

  it('deletes and brings back', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'a', DRAFT, 1);
    expect(deleteSystem(db, 'a', 2)).toBe(true);
    expect(listSystems(db, BUILD)).toEqual({ systems: [], count: 0 });
    expect(saveSystem(db, 'a', DRAFT, 1, 'edit', 3)).toMatchObject({ saved: false, reason: 'missing' });
    expect(deleteSystem(db, 'a', 3)).toBe(false);
    expect(restoreSystem(db, 'a')).toBe(true);
    expect(listSystems(db, BUILD).count).toBe(1);
    expect(restoreSystem(db, 'none')).toBe(false);
  });

  it('a variant belongs to the system that it was forked from, and a fork of a fork to the first', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'a', DRAFT, 1);
    expect(createSystem(db, 'b', DRAFT, 2, { edit: 'forked', variantOf: 'a' }).variantOf).toBe('a');
    expect(createSystem(db, 'c', DRAFT, 3, { edit: 'forked', variantOf: 'b' }).variantOf).toBe('a');
    expect(findSystem(db, 'a')).toMatchObject({ ok: true, value: { variantOf: null } });
    expect(listRevisions(db, 'c').map(({ edit }) => edit)).toEqual(['forked']);
  });

  it('reads a document that an earlier version saved', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'old', JSON.parse(readFileSync('tests/fixtures/box-boat-v1.json', 'utf8')) as typeof DRAFT, 1);
    expect(findSystem(db, 'old')).toMatchObject({
      ok: true,
      value: { document: { version: CURRENT_VERSION, tanks: [{ parts: [], built: [] }] } },
    });
  });

  it('loads the demo once, in order, and not again after it was deleted', () => {
    const db = openDatabase(fileIn());
    expect(loadDemoOnce(db, demoSystems(), 1000)).toBe(4);
    expect(nameSystems(db).map((row) => row.id)).toEqual([
      'crab-boat',
      'snow-vehicle',
      'hill-climb-car',
      'forest-trailer',
    ]);
    deleteSystem(db, 'crab-boat', 2000);
    expect(loadDemoOnce(db, demoSystems(), 3000)).toBe(0);
    expect(nameSystems(db)).toHaveLength(3);
  });
});

describe('own parts', () => {
  const part = (name: string) => ({ ...newPart(DRAFT, 'tee', 0.008), name });

  it('are kept by name, found again and removed once', () => {
    const db = openDatabase(fileIn());
    expect(
      addOwnParts(
        db,
        [
          { id: 'b', part: part('B') },
          { id: 'a', part: part('A') },
        ],
        1,
      ),
    ).toBe(true);
    expect(listOwnParts(db).parts.map(({ id, part: { name } }) => [id, name])).toEqual([
      ['a', 'A'],
      ['b', 'B'],
    ]);
    expect(removeOwnPart(db, 'a')).toBe(true);
    expect(removeOwnPart(db, 'a')).toBe(false);
    expect(listOwnParts(db).parts).toHaveLength(1);
  });

  it('carry the version they were kept in; one of a later version is kept, told and not read', () => {
    const db = openDatabase(fileIn());
    addOwnParts(
      db,
      [
        { id: 'a', part: part('A') },
        { id: 'b', part: part('B') },
      ],
      1,
    );
    expect(db.get(sql`select version from own_parts where id = 'a'`)).toEqual({ version: CURRENT_VERSION });
    db.run(sql`update own_parts set version = ${CURRENT_VERSION + 1} where id = 'b'`);
    const { parts, unread } = listOwnParts(db);
    expect(parts.map(({ id }) => id)).toEqual(['a']);
    expect(unread).toMatchObject([{ id: 'b', name: 'B' }]);
    expect(unread[0]!.detail).toContain(`version ${CURRENT_VERSION + 1}`);
    db.run(sql`update own_parts set version = ${CURRENT_VERSION}, part = '{"kind":"pump"}' where id = 'b'`);
    expect(listOwnParts(db).unread).toHaveLength(1);
  });

  it('are taken all or none where there would be too many', () => {
    const db = openDatabase(fileIn());
    const many = Array.from({ length: MOST_OWN_PARTS }, (_, i) => ({ id: `p${i}`, part: part(`P${i}`) }));
    expect(addOwnParts(db, many, 1)).toBe(true);
    expect(addOwnParts(db, [{ id: 'one-more', part: part('One more') }], 2)).toBe(false);
    expect(listOwnParts(db).parts).toHaveLength(MOST_OWN_PARTS);
  });
});
