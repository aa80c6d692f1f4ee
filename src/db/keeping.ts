import { and, desc, eq, inArray, isNull, lt, sql } from 'drizzle-orm';
import { AT_ONCE, connectionOf, type Db } from './connection';
import { revisions, systems } from './schema';

/** Saves of a system that are all kept; of those before them the last of each day is. */
export const LAST_REVISIONS_KEPT = 100;
/** Saves kept of a system at most, and for how long those that stand for a day are. */
export const REVISIONS_KEPT = 200;
const DAYS_KEPT = 90;
/** A deleted system can be brought back for so long. */
export const DELETED_DAYS_KEPT = 30;
const DAY_MS = 86_400_000;

/** Drops what the policy does not keep of one system's saves. */
export function dropOldRevisions(db: Db, id: string, now_ms: number): void {
  const older = db
    .select({ revision: revisions.revision, savedAt_ms: revisions.savedAt_ms })
    .from(revisions)
    .where(and(eq(revisions.systemId, id), isNull(revisions.name)))
    .orderBy(desc(revisions.revision))
    .limit(REVISIONS_KEPT * 2)
    .offset(LAST_REVISIONS_KEPT)
    .all();
  const days = new Set<number>();
  const dropped = older
    .filter(({ savedAt_ms }) => {
      const day = Math.floor(savedAt_ms / DAY_MS);
      const kept =
        !days.has(day) && savedAt_ms > now_ms - DAYS_KEPT * DAY_MS && days.size < REVISIONS_KEPT - LAST_REVISIONS_KEPT;
      if (kept) days.add(day);
      return !kept;
    })
    .map(({ revision }) => revision);
  if (dropped.length > 0)
    db.delete(revisions)
      .where(and(eq(revisions.systemId, id), inArray(revisions.revision, dropped)))
      .run();
}

/** Of the file's pages; above this what is free is given back. */
const FREE_RATIO = 0.2;

/**
 * What was deleted long enough ago goes for good, old saves are packed, and the disk gets back what they took. Returns
 * how many systems went.
 */
export function tidy(db: Db, now_ms: number): number {
  const gone = db.transaction(
    (tx) =>
      tx
        .delete(systems)
        .where(lt(systems.deletedAt_ms, now_ms - DELETED_DAYS_KEPT * DAY_MS))
        .run().changes,
    AT_ONCE,
  );
  pack(db);
  const { pages, free } = db.get<{ pages: number; free: number }>(
    sql`SELECT (SELECT page_count FROM pragma_page_count) AS pages, (SELECT freelist_count FROM pragma_freelist_count) AS free`,
  )!;
  if (free > FREE_RATIO * pages) connectionOf(db).exec('VACUUM');
  return gone;
}

/** So many at a time, since other writers wait. */
const AT_A_TIME = 100;

/** Saves of an earlier Gas Line lie unpacked. */
function pack(db: Db): void {
  const plain = db
    .select({ id: revisions.id })
    .from(revisions)
    .where(sql`typeof(${revisions.document}) = 'text'`)
    .all();
  for (let i = 0; i < plain.length; i += AT_A_TIME) {
    db.transaction((tx) => {
      for (const { id } of plain.slice(i, i + AT_A_TIME)) {
        const row = tx.select({ document: revisions.document }).from(revisions).where(eq(revisions.id, id)).get();
        if (row) tx.update(revisions).set({ document: row.document }).where(eq(revisions.id, id)).run();
      }
    }, AT_ONCE);
  }
}
