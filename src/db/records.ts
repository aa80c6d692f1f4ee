import { dequal } from 'dequal';
import { asc, count, eq } from 'drizzle-orm';
import {
  CURRENT_VERSION,
  joinedRecords,
  migrate,
  MOST_RECORDS,
  type RecordDocument,
  type SystemDocument,
} from '@/core/plan';
import type { Db } from './connection';
import { records } from './schema';

type Row = Pick<typeof records.$inferSelect, 'record' | 'version'>;

/** A record as it was kept, in today's format: it comes up as it would inside a system. */
function current({ record, version }: Row): RecordDocument[] {
  const raw: unknown = JSON.parse(record);
  if (version === CURRENT_VERSION) return [raw as RecordDocument];
  const migrated = migrate({ version, records: [raw] });
  return migrated.ok ? (migrated.value.records as RecordDocument[]) : [];
}

/** All records of a system, in the order in which they came. */
export const findRecords = (db: Db, systemId: string): RecordDocument[] =>
  db
    .select({ record: records.record, version: records.version })
    .from(records)
    .where(eq(records.systemId, systemId))
    .orderBy(asc(records.place))
    .all()
    .flatMap(current);

/** How many there are: they only grow, so that more are newer. */
export const countRecords = (db: Db, systemId: string): number =>
  db.select({ count: count() }).from(records).where(eq(records.systemId, systemId)).get()?.count ?? 0;

/** A plan as it is kept, with its records; those of an earlier format that still stand in it are taken along. */
export const withKeptRecords = (db: Db, systemId: string, document: SystemDocument): SystemDocument => ({
  ...document,
  records: joinedRecords(findRecords(db, systemId), document.records) as SystemDocument['records'],
});

/** A document without its records: as plans are kept. */
export const withoutRecords = (document: SystemDocument): SystemDocument => ({ ...document, records: [] });

export type Appended =
  | { readonly ok: true; readonly added: number }
  /** One is there otherwise, or there would be more than a system takes. */
  | { readonly ok: false; readonly reason: 'altered' | 'too-many-records'; readonly record: string };

/** Keeps what is new among records. One that is there must come as it is, or nothing is kept. */
export function appendRecords(db: Db, systemId: string, list: readonly RecordDocument[], now_ms: number): Appended {
  const known = new Map(findRecords(db, systemId).map((record) => [record.id, record]));
  const altered = list.find((record) => known.has(record.id) && !dequal(known.get(record.id), record));
  if (altered) return { ok: false, reason: 'altered', record: altered.id };
  const added = list.filter(({ id }) => !known.has(id));
  if (known.size + added.length > MOST_RECORDS)
    return { ok: false, reason: 'too-many-records', record: added.at(-1)!.id };
  added.forEach((record, i) => {
    db.insert(records)
      .values({
        systemId,
        id: record.id,
        place: known.size + i,
        kind: record.kind,
        of: record.of,
        corrects: record.corrects ?? null,
        record: JSON.stringify(record),
        version: CURRENT_VERSION,
        keptAt_ms: now_ms,
      })
      .run();
  });
  return { ok: true, added: added.length };
}
