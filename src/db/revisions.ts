import { and, count, desc, eq, isNotNull, ne } from 'drizzle-orm';
import { atConditionsOf, parseSystemText, type SystemDocument } from '@/core/plan';
import { failure, success, type Outcome } from '@/core/outcome';
import type { Db } from './connection';
import { findRecords } from './records';
import { revisions } from './schema';
import { findSystem, revisionOf, saveSystem, type SaveResult } from './systems';

/** One save of a system, as far as a list of them tells it. */
export type Revision = {
  readonly revision: number;
  /** Name of the edit that led to it. */
  readonly edit: string;
  readonly name: string | null;
  readonly savedAt_ms: number;
};

/** Saves with a name, which are kept for good. */
export const MOST_NAMED = 100;
export const MOST_REVISION_NAME = 80;

const of = (id: string, revision: number) => and(eq(revisions.systemId, id), eq(revisions.revision, revision));

/** Every save of a system that is kept, the latest first. */
export const listRevisions = (db: Db, id: string): Revision[] =>
  db
    .select({
      revision: revisions.revision,
      edit: revisions.edit,
      name: revisions.name,
      savedAt_ms: revisions.savedAt_ms,
    })
    .from(revisions)
    .where(eq(revisions.systemId, id))
    .orderBy(desc(revisions.revision))
    .all();

/** What a system was at one of its saves, brought to today's format. */
export function findRevision(db: Db, id: string, revision: number): Outcome<SystemDocument, 'missing' | 'unreadable'> {
  // Of a system that was deleted nothing is given out until it is brought back.
  const kept =
    revisionOf(db, id) === undefined
      ? undefined
      : db.select({ document: revisions.document }).from(revisions).where(of(id, revision)).get();
  if (!kept)
    return failure('missing', 'revision', 'There is no such save; older ones are kept one a day, then dropped.');
  const parsed = parseSystemText(kept.document);
  return parsed.ok ? success(parsed.value) : failure('unreadable', 'revision', parsed.error.detail);
}

/** Gives a save a name, by which it is kept for good, or takes it away. */
export function nameRevision(
  db: Db,
  id: string,
  revision: number,
  name: string | null,
): 'named' | 'missing' | 'too-many' {
  if (revisionOf(db, id) === undefined) return 'missing';
  // Another name for one that has one already takes no more room.
  const named = db
    .select({ many: count() })
    .from(revisions)
    .where(and(eq(revisions.systemId, id), isNotNull(revisions.name), ne(revisions.revision, revision)))
    .get()!.many;
  if (name !== null && named >= MOST_NAMED) return 'too-many';
  return db.update(revisions).set({ name }).where(of(id, revision)).run().changes > 0 ? 'named' : 'missing';
}

/**
 * Makes an earlier save the present one, as a new save: nothing between is lost, it stands as it stands now, and what
 * happened has happened.
 *
 * @param from the revision that whoever asks has seen
 */
export function restoreRevision(
  db: Db,
  id: string,
  revision: number,
  from: number,
  now_ms: number,
): SaveResult | Outcome<never, 'missing' | 'unreadable'> {
  const [now, then] = [findSystem(db, id), findRevision(db, id, revision)];
  if (!then.ok) return then;
  const document = now.ok
    ? { ...atConditionsOf(then.value, now.value.document), records: now.value.document.records }
    : { ...then.value, records: findRecords(db, id) as SystemDocument['records'] };
  return saveSystem(db, id, document, from, `restored save ${revision}`, now_ms);
}
