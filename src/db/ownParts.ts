import { asc, count, eq } from 'drizzle-orm';
import { MOST_OWN_PARTS, type ComponentDocument } from '@/core/document';
import type { Db } from './open';
import { ownParts } from './schema';

/** A part that a builder keeps for other systems. */
export type OwnPart = { readonly id: string; readonly name: string; readonly part: ComponentDocument };

export const listOwnParts = (db: Db): OwnPart[] =>
  db.select().from(ownParts).orderBy(asc(ownParts.name)).all().map(({ id, name, part }) => ({ id, name, part: JSON.parse(part) as ComponentDocument }));

/** Files parts, all of them or none; false where there would be too many. */
export function addOwnParts(db: Db, parts: readonly { readonly id: string; readonly part: ComponentDocument }[], now_ms: number): boolean {
  return db.transaction((tx) => {
    const there = tx.select({ there: count() }).from(ownParts).get()?.there ?? 0;
    if (there + parts.length > MOST_OWN_PARTS) return false;
    for (const { id, part } of parts) tx.insert(ownParts).values({ id, name: part.name, part: JSON.stringify(part), savedAt_ms: now_ms }).run();
    return true;
  });
}

export const removeOwnPart = (db: Db, id: string): boolean => db.delete(ownParts).where(eq(ownParts.id, id)).run().changes > 0;
