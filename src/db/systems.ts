import { and, desc, eq, isNull, lte } from 'drizzle-orm';
import { migrate, type SystemDocument } from '@/core/document';
import { unwrap } from '@/core/outcome';
import { AT_ONCE, type Db } from './open';
import { facts, revisions, systems } from './schema';

export type SystemRow = { readonly id: string; readonly revision: number; readonly updatedAt_ms: number; readonly variantOf: string | null; readonly document: SystemDocument };

/** Saves kept for each system; older ones are dropped. */
export const REVISIONS_KEPT = 200;

/** A document that an earlier Gas Line saved, in today's format. */
const current = (text: string): SystemDocument => unwrap(migrate(JSON.parse(text) as Record<string, unknown>)) as unknown as SystemDocument;

const toRow = (row: typeof systems.$inferSelect): SystemRow => ({
  id: row.id, revision: row.revision, updatedAt_ms: row.updatedAt_ms, variantOf: row.variantOf, document: current(row.document),
});

export const listSystems = (db: Db): SystemRow[] =>
  db.select().from(systems).where(isNull(systems.deletedAt_ms)).orderBy(desc(systems.updatedAt_ms), systems.name).all().map(toRow);

export function findSystem(db: Db, id: string): SystemRow | undefined {
  const row = db.select().from(systems).where(and(eq(systems.id, id), isNull(systems.deletedAt_ms))).get();
  return row ? toRow(row) : undefined;
}

export type Origin = { readonly edit: string; /** The system it was forked from. */ readonly variantOf?: string | undefined };

export function createSystem(db: Db, id: string, document: SystemDocument, now_ms: number, { edit, variantOf: source }: Origin = { edit: 'created' }): SystemRow {
  const text = JSON.stringify(document);
  const variantOf = source === undefined ? null : familyOf(db, source);
  db.transaction((tx) => {
    tx.insert(systems).values({ id, name: document.name, document: text, revision: 1, variantOf, createdAt_ms: now_ms, updatedAt_ms: now_ms }).run();
    tx.insert(revisions).values({ systemId: id, revision: 1, edit, document: text, savedAt_ms: now_ms }).run();
  }, AT_ONCE);
  return { id, revision: 1, updatedAt_ms: now_ms, variantOf, document };
}

/** The system that all variants of one go back to; a fork of a fork belongs to the first. */
const familyOf = (db: Db, id: string): string => db.select({ variantOf: systems.variantOf }).from(systems).where(eq(systems.id, id)).get()?.variantOf ?? id;

export type SaveResult = { readonly saved: true; readonly revision: number } | { readonly saved: false; readonly reason: 'missing' | 'conflict'; readonly revision?: number };

/** Saves over the revision that the editor started from; refuses when another has been saved since. */
export function saveSystem(db: Db, id: string, document: SystemDocument, from: number, edit: string, now_ms: number): SaveResult {
  return db.transaction((tx): SaveResult => {
    const row = tx.select().from(systems).where(and(eq(systems.id, id), isNull(systems.deletedAt_ms))).get();
    if (!row) return { saved: false, reason: 'missing' };
    if (row.revision !== from) return { saved: false, reason: 'conflict', revision: row.revision };
    const revision = from + 1;
    const text = JSON.stringify(document);
    tx.update(systems).set({ name: document.name, document: text, revision, updatedAt_ms: now_ms }).where(eq(systems.id, id)).run();
    tx.insert(revisions).values({ systemId: id, revision, edit, document: text, savedAt_ms: now_ms }).run();
    tx.delete(revisions).where(and(eq(revisions.systemId, id), lte(revisions.revision, revision - REVISIONS_KEPT))).run();
    return { saved: true, revision };
  }, AT_ONCE);
}

/** Hides a system; `restoreSystem` brings it back. */
export const deleteSystem = (db: Db, id: string, now_ms: number): boolean =>
  db.update(systems).set({ deletedAt_ms: now_ms }).where(and(eq(systems.id, id), isNull(systems.deletedAt_ms))).run().changes > 0;

export const restoreSystem = (db: Db, id: string): boolean =>
  db.update(systems).set({ deletedAt_ms: null }).where(eq(systems.id, id)).run().changes > 0;

export const listRevisions = (db: Db, id: string) =>
  db.select({ revision: revisions.revision, edit: revisions.edit, savedAt_ms: revisions.savedAt_ms }).from(revisions).where(eq(revisions.systemId, id)).orderBy(desc(revisions.revision)).all();

const DEMO_LOADED = 'demo-loaded';

/** Loads the demo once in the life of a data folder, so that deleting a demo system lasts. */
export function loadDemoOnce(db: Db, demo: readonly { id: string; document: SystemDocument }[], now_ms: number): number {
  if (db.select().from(facts).where(eq(facts.key, DEMO_LOADED)).get()) return 0;
  db.transaction((tx) => {
    demo.forEach(({ id, document }, index) => {
      if (!tx.select().from(systems).where(eq(systems.id, id)).get()) createSystem(tx as unknown as Db, id, document, now_ms - index, { edit: 'loaded with the demo' });
    });
    tx.insert(facts).values({ key: DEMO_LOADED, value: new Date(now_ms).toISOString() }).run();
  }, AT_ONCE);
  return demo.length;
}
