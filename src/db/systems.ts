import { and, count, desc, eq, isNull, sql } from 'drizzle-orm';
import { readJson } from '@/core/formats';
import { migrate, sameContent, samePlan, type SystemDocument } from '@/core/plan';
import { failure, success, type Outcome } from '@/core/outcome';
import { dropOldRevisions } from './keeping';
import { AT_ONCE, type Db } from './connection';
import { appendRecords, withKeptRecords, withoutRecords } from './records';
import { facts, revisions, systems } from './schema';

export type SystemRow = {
  readonly id: string;
  readonly revision: number;
  readonly updatedAt_ms: number;
  readonly variantOf: string | null;
  readonly document: SystemDocument;
};

export type Found = Outcome<SystemRow, 'missing' | 'unreadable'>;

/** A document that an earlier Gas Line saved, in today's format. */
function current(text: string): Outcome<SystemDocument, 'unreadable'> {
  try {
    const raw: unknown = JSON.parse(text);
    if (typeof raw !== 'object' || raw === null || Array.isArray(raw))
      return failure('unreadable', 'document', 'It is damaged: it holds no object.');
    const migrated = migrate(raw as Record<string, unknown>);
    return migrated.ok
      ? success(migrated.value as unknown as SystemDocument)
      : failure('unreadable', migrated.error.at, migrated.error.detail);
  } catch (error) {
    return failure('unreadable', 'document', `It is damaged: ${(error as Error).message.slice(0, 160)}.`);
  }
}

type Kept = Pick<typeof systems.$inferSelect, 'id' | 'revision' | 'updatedAt_ms' | 'variantOf' | 'document'>;

function toRow(db: Db, { id, revision, updatedAt_ms, variantOf, document }: Kept): Outcome<SystemRow, 'unreadable'> {
  const read = current(document);
  return read.ok
    ? success({ id, revision, updatedAt_ms, variantOf, document: withKeptRecords(db, id, read.value) })
    : read;
}

const live = isNull(systems.deletedAt_ms);

/** One system with its records; or that there is none, or that it cannot be read. */
export function findSystem(db: Db, id: string): Found {
  const row = db
    .select()
    .from(systems)
    .where(and(eq(systems.id, id), live))
    .get();
  return row ? toRow(db, row) : failure('missing', 'id', 'There is no such system; it may have been deleted.');
}

/** A system's text as it is kept, whether it can be read or not. */
export const systemText = (db: Db, id: string): { readonly name: string; readonly text: string } | undefined =>
  db
    .select({ name: systems.name, text: systems.document })
    .from(systems)
    .where(and(eq(systems.id, id), live))
    .get();

/** What a system is at, without reading it. */
export const revisionOf = (db: Db, id: string): number | undefined =>
  db
    .select({ revision: systems.revision })
    .from(systems)
    .where(and(eq(systems.id, id), live))
    .get()?.revision;

export type NamedSystem = { readonly id: string; readonly name: string; readonly variantOf: string | null };

/** All systems by name alone, the last changed first. */
export const nameSystems = (db: Db): NamedSystem[] =>
  db
    .select({ id: systems.id, name: systems.name, variantOf: systems.variantOf })
    .from(systems)
    .where(live)
    .orderBy(desc(systems.updatedAt_ms), systems.name)
    .all();

/** A system with the card that was worked out of it, where that is of its present revision and by this build. */
export type ListedSystem = {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly updatedAt_ms: number;
  readonly variantOf: string | null;
} & (
  | {
      readonly readable: true;
      readonly description: string;
      readonly vehicle: SystemDocument['vehicle']['kind'];
      readonly consumer: SystemDocument['consumers'][number]['kind'] | null;
      readonly card: string | null;
    }
  | { readonly readable: false; readonly detail: string }
);

export type Listing = { readonly systems: readonly ListedSystem[]; /** Of all that match. */ readonly count: number };

/** A piece of the library, the last changed first: names that have a text in them, so many from a place on. */
export function listSystems(
  db: Db,
  build: string,
  {
    from = 0,
    most = 12,
    having = '',
  }: { readonly from?: number; readonly most?: number; readonly having?: string } = {},
): Listing {
  const matching = having === '' ? live : and(live, sql`has_text(${systems.name}, ${having})`);
  const rows = db
    .select()
    .from(systems)
    .where(matching)
    .orderBy(desc(systems.updatedAt_ms), systems.name)
    .limit(most)
    .offset(from)
    .all();
  return {
    systems: rows.map((row) => listed(row, build)),
    count: db.select({ count: count() }).from(systems).where(matching).get()?.count ?? 0,
  };
}

function listed(row: typeof systems.$inferSelect, build: string): ListedSystem {
  const { id, name, revision, updatedAt_ms, variantOf } = row;
  const read = current(row.document);
  if (!read.ok) return { id, name, revision, updatedAt_ms, variantOf, readable: false, detail: read.error.detail };
  const { description, vehicle, consumers } = read.value;
  return {
    id,
    name,
    revision,
    updatedAt_ms,
    variantOf,
    readable: true,
    description,
    vehicle: vehicle.kind,
    consumer: consumers[0]?.kind ?? null,
    card: row.cardRevision === revision && row.cardBuild === build ? row.card : null,
  };
}

/** What a card was worked out of, and by which build. */
export type CardSource = {
  readonly revision: number;
  readonly build: string;
  /** At other conditions a revision is still the same. */ readonly conditions: unknown;
};

/** Keeps what a card shows beside what it was worked out of; false where the system is no longer that. */
export const keepCard = (db: Db, id: string, { revision, build, conditions }: CardSource, card: string): boolean =>
  db.transaction((tx): boolean => {
    const of = and(eq(systems.id, id), eq(systems.revision, revision), live);
    const kept = tx.select({ text: systems.document }).from(systems).where(of).get();
    const there = kept && current(kept.text);
    if (!there?.ok || !sameContent(there.value.conditions, conditions)) return false;
    return tx.update(systems).set({ card, cardRevision: revision, cardBuild: build }).where(of).run().changes > 0;
  }, AT_ONCE);

/** The card of a system as it is now, where this build has worked one out. */
export function cardOfSystem(db: Db, id: string, build: string): string | undefined {
  const row = db
    .select({ card: systems.card })
    .from(systems)
    .where(and(eq(systems.id, id), eq(systems.cardRevision, systems.revision), eq(systems.cardBuild, build), live))
    .get();
  return row?.card ?? undefined;
}

export type Origin = {
  readonly edit: string;
  /** The system it was forked from. */ readonly variantOf?: string | undefined;
};

/** Files a new system. A fork is another plan for what may never be built: records stay with the system they are of. */
export function createSystem(
  db: Db,
  id: string,
  document: SystemDocument,
  now_ms: number,
  { edit, variantOf: source }: Origin = { edit: 'created' },
): SystemRow {
  const plan = withoutRecords(document);
  const text = JSON.stringify(plan);
  const variantOf = source === undefined ? null : familyOf(db, source);
  db.transaction((tx) => {
    tx.insert(systems)
      .values({
        id,
        name: document.name,
        document: text,
        revision: 1,
        variantOf,
        createdAt_ms: now_ms,
        updatedAt_ms: now_ms,
      })
      .run();
    tx.insert(revisions).values({ systemId: id, revision: 1, edit, document: text, savedAt_ms: now_ms }).run();
    if (source === undefined) appendRecords(tx as unknown as Db, id, document.records, now_ms);
  }, AT_ONCE);
  return { id, revision: 1, updatedAt_ms: now_ms, variantOf, document: source === undefined ? document : plan };
}

/** The system that all variants of one go back to; a fork of a fork belongs to the first. */
const familyOf = (db: Db, id: string): string =>
  db.select({ variantOf: systems.variantOf }).from(systems).where(eq(systems.id, id)).get()?.variantOf ?? id;

export type SaveResult =
  | { readonly saved: true; readonly revision: number }
  | { readonly saved: false; readonly reason: 'missing' | 'conflict'; readonly revision?: number }
  /** A record is there otherwise, or there are too many: nothing was kept. */
  | { readonly saved: false; readonly reason: 'altered' | 'too-many-records'; readonly record: string };

/**
 * Saves over the revision that the editor started from; refuses when another has been saved since. Other conditions
 * or more records alone are kept without a revision, since the plan is the same. Records are added to those there.
 */
export function saveSystem(
  db: Db,
  id: string,
  document: SystemDocument,
  from: number,
  edit: string,
  now_ms: number,
): SaveResult {
  return db.transaction((tx): SaveResult => {
    const there = revisionOf(tx as unknown as Db, id);
    if (there === undefined) return { saved: false, reason: 'missing' };
    if (there !== from) return { saved: false, reason: 'conflict', revision: there };
    const appended = appendRecords(tx as unknown as Db, id, document.records, now_ms);
    if (!appended.ok) return { saved: false, reason: appended.reason, record: appended.record };
    const text = JSON.stringify(withoutRecords(document));
    const kept = keptAs(tx as unknown as Db, id, document);
    if (kept === 'the same') return { saved: true, revision: there };
    if (kept === 'at other conditions') {
      // Numbers hang on conditions: the card is worked out anew.
      tx.update(systems).set({ document: text, card: null }).where(eq(systems.id, id)).run();
      return { saved: true, revision: there };
    }
    const revision = from + 1;
    tx.update(systems)
      .set({ name: document.name, document: text, revision, updatedAt_ms: now_ms })
      .where(eq(systems.id, id))
      .run();
    tx.insert(revisions).values({ systemId: id, revision, edit, document: text, savedAt_ms: now_ms }).run();
    dropOldRevisions(tx as unknown as Db, id, now_ms);
    return { saved: true, revision };
  }, AT_ONCE);
}

/** How a document stands to the plan that is kept. */
function keptAs(db: Db, id: string, document: SystemDocument): 'the same' | 'at other conditions' | 'another plan' {
  const kept = db.select({ text: systems.document }).from(systems).where(eq(systems.id, id)).get();
  const there = kept && readJson(kept.text);
  if (!there?.ok) return 'another plan';
  // An older format is another plan until it has been saved in this one.
  const before = there.value as SystemDocument;
  if (!samePlan(before, document, sameContent)) return 'another plan';
  return sameContent(before.conditions, document.conditions) ? 'the same' : 'at other conditions';
}

/** Hides a system; `restoreSystem` brings it back. */
export const deleteSystem = (db: Db, id: string, now_ms: number): boolean =>
  db
    .update(systems)
    .set({ deletedAt_ms: now_ms })
    .where(and(eq(systems.id, id), live))
    .run().changes > 0;

export const restoreSystem = (db: Db, id: string): boolean =>
  db.update(systems).set({ deletedAt_ms: null }).where(eq(systems.id, id)).run().changes > 0;

const DEMO_LOADED = 'demo-loaded';

/** Loads the demo once in the life of a data folder, so that deleting a demo system lasts. */
export function loadDemoOnce(
  db: Db,
  demo: readonly { id: string; document: SystemDocument }[],
  now_ms: number,
): number {
  if (db.select().from(facts).where(eq(facts.key, DEMO_LOADED)).get()) return 0;
  db.transaction((tx) => {
    demo.forEach(({ id, document }, index) => {
      if (!tx.select().from(systems).where(eq(systems.id, id)).get())
        createSystem(tx as unknown as Db, id, document, now_ms - index, { edit: 'loaded with the demo' });
    });
    tx.insert(facts)
      .values({ key: DEMO_LOADED, value: new Date(now_ms).toISOString() })
      .run();
  }, AT_ONCE);
  return demo.length;
}
