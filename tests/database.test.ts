import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { CURRENT_VERSION, draftSystem, MOST_OWN_PARTS, MOST_RECORDS, newPart, parseSystem } from '@/core/plan';
import {
  addOwnParts,
  countRecords,
  createSystem,
  deleteSystem,
  findRevision,
  findSystem,
  keepCard,
  MOST_NAMED,
  nameRevision,
  restoreRevision,
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
  tidy,
} from '@/db';
import { demoSystems } from '@/server/startup';
import { pourRecord } from './pourRecord';
import { asVersion6, sayableIn6 } from './version6';

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
      saveSystem(
        db,
        'a',
        { ...DRAFT, description: `${revision}` },
        revision,
        'edit',
        Math.floor(revision / 3) * day_ms + (revision % 3),
      );
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

  it('other conditions alone are kept, and make no revision; with another value they do', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'a', DRAFT, 1);
    const tilted = { ...DRAFT, conditions: { ...DRAFT.conditions, pitch_deg: 9 } };
    expect(saveSystem(db, 'a', tilted, 1, 'pitch', 2)).toEqual({ saved: true, revision: 1 });
    expect(findSystem(db, 'a')).toMatchObject({ ok: true, value: { revision: 1, document: tilted } });
    expect(listRevisions(db, 'a')).toHaveLength(1);
    expect(saveSystem(db, 'a', { ...tilted, description: 'Another' }, 1, 'edit', 3)).toMatchObject({ revision: 2 });
  });

  it('other conditions have the card worked out anew', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'a', DRAFT, 1);
    expect(keepCard(db, 'a', { revision: 1, build: BUILD, conditions: DRAFT.conditions }, '{}')).toBe(true);
    const pitched = { ...DRAFT.conditions, pitch_deg: 9 };
    saveSystem(db, 'a', { ...DRAFT, conditions: pitched }, 1, 'pitch', 2);
    expect(listSystems(db, BUILD).systems[0]).toMatchObject({ card: null });
    // One that was on its way meanwhile comes too late, though the revision is the same.
    expect(keepCard(db, 'a', { revision: 1, build: BUILD, conditions: DRAFT.conditions }, '{}')).toBe(false);
    expect(keepCard(db, 'a', { revision: 1, build: BUILD, conditions: pitched }, '{}')).toBe(true);
  });

  it('an earlier save is read, named, and made the newest; what came between stays', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'a', DRAFT, 1);
    saveSystem(db, 'a', { ...DRAFT, description: 'second' }, 1, 'describe', 2);
    const third = { ...DRAFT, description: 'third', conditions: { ...DRAFT.conditions, roll_deg: 5 } };
    saveSystem(db, 'a', third, 2, 'describe', 3);
    expect(findRevision(db, 'a', 2)).toMatchObject({ ok: true, value: { description: 'second' } });
    expect(restoreRevision(db, 'a', 1, 2, 4)).toEqual({ saved: false, reason: 'conflict', revision: 3 });
    expect(restoreRevision(db, 'a', 1, 3, 4)).toEqual({ saved: true, revision: 4 });
    // The plan is the earlier one; how it stands is as it was.
    expect(findSystem(db, 'a')).toMatchObject({
      ok: true,
      value: { revision: 4, document: { description: DRAFT.description, conditions: { roll_deg: 5 } } },
    });
    expect(listRevisions(db, 'a').map(({ revision, edit }) => `${revision} ${edit}`)).toEqual([
      '4 restored save 1',
      '3 describe',
      '2 describe',
      '1 created',
    ]);
    expect(restoreRevision(db, 'a', 9, 4, 5)).toMatchObject({ ok: false, error: { code: 'missing' } });
    expect(findRevision(db, 'none', 1)).toMatchObject({ ok: false, error: { code: 'missing' } });
  });

  const idsOf = (db: ReturnType<typeof openDatabase>, id: string): string[] => {
    const found = findSystem(db, id);
    return found.ok ? found.value.document.records.map((record) => record.id) : [];
  };

  it('records are added and make no revision; what one page does not know of stays', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'a', { ...DRAFT, records: [pourRecord('first')] }, 1);
    expect(
      saveSystem(db, 'a', { ...DRAFT, records: [pourRecord('first'), pourRecord('second')] }, 1, 'pour', 2),
    ).toEqual({ saved: true, revision: 1 });
    // Another page had neither.
    expect(
      saveSystem(db, 'a', { ...DRAFT, description: 'Another', records: [pourRecord('third')] }, 1, 'edit', 3),
    ).toEqual({ saved: true, revision: 2 });
    expect(idsOf(db, 'a')).toEqual(['first', 'second', 'third']);
    expect(countRecords(db, 'a')).toBe(3);
    expect(listRevisions(db, 'a')).toHaveLength(2);
  });

  it('two devices that correct the same record leave a system that can still be saved', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'a', { ...DRAFT, records: [pourRecord('first')] }, 1);
    for (const own of ['mine', 'theirs'])
      saveSystem(
        db,
        'a',
        { ...DRAFT, records: [pourRecord('first'), pourRecord(own, { corrects: 'first' })] },
        1,
        'correct',
        2,
      );
    expect(idsOf(db, 'a')).toEqual(['first', 'mine', 'theirs']);
    const found = findSystem(db, 'a');
    expect(found.ok && parseSystem(found.value.document)).toMatchObject({ ok: true });
  });

  it('a record that is there otherwise is refused, and nothing of that save is kept', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'a', { ...DRAFT, records: [pourRecord('first')] }, 1);
    const altered = {
      ...DRAFT,
      description: 'Another',
      records: [pourRecord('first', { added_m3: 1 }), pourRecord('new')],
    };
    expect(saveSystem(db, 'a', altered, 1, 'edit', 2)).toEqual({ saved: false, reason: 'altered', record: 'first' });
    expect(findSystem(db, 'a')).toMatchObject({ value: { revision: 1, document: { description: DRAFT.description } } });
    expect(idsOf(db, 'a')).toEqual(['first']);
    expect(() => db.run(sql`UPDATE records SET record = '{}'`)).toThrow();
    expect(() => db.run(sql`DELETE FROM records`)).toThrow();
    expect(countRecords(db, 'a')).toBe(1);
  });

  it('takes no more records than a system may have, all of two devices together', () => {
    const db = openDatabase(fileIn());
    const many = Array.from({ length: MOST_RECORDS - 1 }, (_, i) => pourRecord(`r-${i}`));
    createSystem(db, 'a', { ...DRAFT, records: many }, 1);
    const of = (...ids: string[]) => ({ ...DRAFT, records: ids.map((id) => pourRecord(id)) });
    expect(saveSystem(db, 'a', of('one', 'two'), 1, 'pour', 2)).toMatchObject({ reason: 'too-many-records' });
    expect(countRecords(db, 'a')).toBe(MOST_RECORDS - 1);
    expect(saveSystem(db, 'a', of('one'), 1, 'pour', 3)).toEqual({ saved: true, revision: 1 });
    expect(saveSystem(db, 'a', of('two'), 1, 'pour', 4)).toMatchObject({ reason: 'too-many-records' });
  });

  it('a restored save, a fork and a deletion leave records alone; they go with their system', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'a', { ...DRAFT, records: [pourRecord('first')] }, 1);
    saveSystem(
      db,
      'a',
      { ...DRAFT, description: 'second', records: [pourRecord('first'), pourRecord('second')] },
      1,
      'edit',
      2,
    );
    expect(restoreRevision(db, 'a', 1, 2, 3)).toEqual({ saved: true, revision: 3 });
    expect(idsOf(db, 'a')).toEqual(['first', 'second']);
    const fork = createSystem(db, 'b', { ...DRAFT, records: [pourRecord('first')] }, 4, {
      edit: 'forked',
      variantOf: 'a',
    });
    expect(fork.document.records).toEqual([]);
    expect(idsOf(db, 'b')).toEqual([]);
    deleteSystem(db, 'a', 5);
    restoreSystem(db, 'a');
    expect(idsOf(db, 'a')).toEqual(['first', 'second']);
    deleteSystem(db, 'a', 6);
    tidy(db, 6 + 40 * 86_400_000);
    expect(countRecords(db, 'a')).toBe(0);
  });

  it('pours that an earlier Gas Line kept in the plan become records with the next save', () => {
    const db = openDatabase(fileIn());
    const boat = JSON.parse(readFileSync('demo/crab-boat.json', 'utf8')) as typeof DRAFT;
    const { records } = boat;
    const old = asVersion6(boat);
    createSystem(db, 'a', boat, 1);
    db.run(sql`DELETE FROM systems`);
    createSystem(db, 'a', { ...boat, records: [] }, 1);
    db.run(sql`UPDATE systems SET document = ${JSON.stringify(old)} WHERE id = 'a'`);
    expect(countRecords(db, 'a')).toBe(0);
    const found = findSystem(db, 'a');
    if (!found.ok) throw new Error(found.error.detail);
    expect(found.value.document).toEqual(sayableIn6(boat));
    saveSystem(db, 'a', { ...found.value.document, description: 'saved anew' }, 1, 'edit', 2);
    expect(countRecords(db, 'a')).toBe(records.length);
    expect(idsOf(db, 'a')).toEqual(records.map(({ id }) => id));
  });

  it('a save that cannot be read says so, and is not restored', () => {
    const db = openDatabase(fileIn());
    createSystem(db, 'a', DRAFT, 1);
    saveSystem(db, 'a', { ...DRAFT, version: 99 } as never, 1, 'from the future', 2);
    saveSystem(db, 'a', { ...DRAFT, name: 'Now' }, 2, 'rename', 3);
    expect(restoreRevision(db, 'a', 2, 3, 4)).toMatchObject({ ok: false, error: { code: 'unreadable' } });
    expect(findSystem(db, 'a')).toMatchObject({ value: { revision: 3, document: { name: 'Now' } } });
  });

  it('a save with a name outlives all others, until the name is taken away; a hundred at most', () => {
    const db = openDatabase(fileIn());
    const day_ms = 86_400_000;
    createSystem(db, 'a', DRAFT, 0);
    expect(nameRevision(db, 'a', 1, 'As first drawn')).toBe('named');
    for (let revision = 1; revision < 420; revision++)
      saveSystem(db, 'a', { ...DRAFT, description: String(revision) }, revision, 'edit', revision * day_ms);
    expect(listRevisions(db, 'a').at(-1)).toMatchObject({ revision: 1, name: 'As first drawn' });
    expect(nameRevision(db, 'a', 1, null)).toBe('named');
    saveSystem(db, 'a', { ...DRAFT, description: 'last' }, 420, 'edit', 421 * day_ms);
    expect(listRevisions(db, 'a').at(-1)!.revision).toBeGreaterThan(1);
    expect(nameRevision(db, 'a', 1, 'Gone')).toBe('missing');
    for (let i = 0; i < MOST_NAMED; i++) expect(nameRevision(db, 'a', 421 - i, `Save ${i}`)).toBe('named');
    expect(nameRevision(db, 'a', 421 - MOST_NAMED, 'One more')).toBe('too-many');
    expect(nameRevision(db, 'a', 421, 'By another name')).toBe('named');
    deleteSystem(db, 'a', 422 * day_ms);
    expect(nameRevision(db, 'a', 421, 'Of a deleted one')).toBe('missing');
    expect(findRevision(db, 'a', 421)).toMatchObject({ ok: false, error: { code: 'missing' } });
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
    createSystem(db, 'old', DRAFT, 1);
    const old = readFileSync('tests/fixtures/box-boat-v1.json', 'utf8');
    db.run(sql`UPDATE systems SET document = ${old} WHERE id = 'old'`);
    expect(findSystem(db, 'old')).toMatchObject({
      ok: true,
      value: { document: { version: CURRENT_VERSION, tanks: [{ parts: [], built: [] }] } },
    });
  });

  it('loads the demo once, in order, and not again after it was deleted', () => {
    const db = openDatabase(fileIn());
    expect(loadDemoOnce(db, demoSystems(), 1000)).toBe(5);
    expect(nameSystems(db).map((row) => row.id)).toEqual([
      'crab-boat',
      'snow-vehicle',
      'hill-climb-car',
      'forest-trailer',
      'van-heater',
    ]);
    deleteSystem(db, 'crab-boat', 2000);
    expect(loadDemoOnce(db, demoSystems(), 3000)).toBe(0);
    expect(nameSystems(db)).toHaveLength(4);
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
