import { asc, count, eq } from 'drizzle-orm';
import { CURRENT_VERSION, MOST_OWN_PARTS, partOfVersion, type ComponentDocument } from '@/core/plan';
import { AT_ONCE, type Db } from './connection';
import { ownParts } from './schema';

/** A part that a builder keeps for other systems. */
export type OwnPart = { readonly id: string; readonly name: string; readonly part: ComponentDocument };

/** One that this Gas Line cannot read, and why: kept as it is. */
export type UnreadPart = { readonly id: string; readonly name: string; readonly detail: string };

/** All of them in today's version, and those that cannot be brought up to it. */
export function listOwnParts(db: Db): { readonly parts: readonly OwnPart[]; readonly unread: readonly UnreadPart[] } {
  const rows = db
    .select()
    .from(ownParts)
    .orderBy(asc(ownParts.name))
    .all()
    .map(({ id, name, part, version }) => ({ id, name, read: partOfVersion(JSON.parse(part), version) }));
  return {
    parts: rows.flatMap(({ id, name, read }) => (read.ok ? [{ id, name, part: read.value }] : [])),
    unread: rows.flatMap(({ id, name, read }) => (read.ok ? [] : [{ id, name, detail: read.error.detail }])),
  };
}

/** Files parts, all of them or none; false where there would be too many. */
export function addOwnParts(
  db: Db,
  parts: readonly { readonly id: string; readonly part: ComponentDocument }[],
  now_ms: number,
): boolean {
  return db.transaction((tx) => {
    const there = tx.select({ there: count() }).from(ownParts).get()?.there ?? 0;
    if (there + parts.length > MOST_OWN_PARTS) return false;
    for (const { id, part } of parts)
      tx.insert(ownParts)
        .values({ id, name: part.name, part: JSON.stringify(part), version: CURRENT_VERSION, savedAt_ms: now_ms })
        .run();
    return true;
  }, AT_ONCE);
}

export const removeOwnPart = (db: Db, id: string): boolean =>
  db.delete(ownParts).where(eq(ownParts.id, id)).run().changes > 0;
