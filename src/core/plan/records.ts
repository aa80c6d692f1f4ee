import type { Fault } from './fault';
import type { PourDocument, RecordDocument, SystemDocument } from './schema';

/**
 * A record as it counts now, by the id of what was written first; and what was written of it before, the first first.
 */
export type Counting<R extends RecordDocument = RecordDocument> = {
  readonly id: string;
  readonly now: R;
  readonly before: readonly R[];
};

/**
 * Records as they count: each with its last correction, in the order in which the first of each was written. Two
 * devices may each have corrected the same one: then what was kept last counts, and the other stays before it.
 */
export function counting(records: readonly RecordDocument[]): Counting[] {
  const first = new Map<string, string>();
  const chains = new Map<string, RecordDocument[]>();
  for (const record of records) {
    const root = record.corrects === undefined ? record.id : (first.get(record.corrects) ?? record.id);
    first.set(record.id, root);
    chains.set(root, [...(chains.get(root) ?? []), record]);
  }
  return [...chains].map(([id, chain]) => ({ id, now: chain.at(-1)!, before: chain.slice(0, -1) }));
}

/** The log of a calibration: its pours as they count. */
export const poursOf = ({ records }: Pick<SystemDocument, 'records'>, calibration: string): Counting<PourDocument>[] =>
  counting(records.filter(({ of }) => of === calibration));

/** What was poured for calibrations that the plan no longer has. */
export const loosePours = ({ records, tanks }: Pick<SystemDocument, 'records' | 'tanks'>): Counting<PourDocument>[] => {
  const planned = new Set(tanks.flatMap(({ calibrations }) => calibrations.map(({ id }) => id)));
  return counting(records.filter(({ of }) => !planned.has(of)));
};

/** A system with more records. */
export const withRecords = (system: SystemDocument, added: readonly RecordDocument[]): SystemDocument =>
  added.length === 0 ? system : { ...system, records: [...system.records, ...added] };

/** Records of two copies of one system: those of the first, and what only the second has after them. */
export function joinedRecords(
  one: readonly RecordDocument[],
  other: readonly RecordDocument[],
): readonly RecordDocument[] {
  const known = new Set(one.map(({ id }) => id));
  const more = other.filter(({ id }) => !known.has(id));
  return more.length === 0 ? one : [...one, ...more];
}

/** A system with another copy's records, its own after them; the very same where these are all. */
export function withRecordsOf(system: SystemDocument, other: Pick<SystemDocument, 'records'>): SystemDocument {
  const records = joinedRecords(other.records, system.records) as SystemDocument['records'];
  return records === system.records ? system : { ...system, records };
}

/** What is wrong with records: an id twice, or one that corrects and names none before it of the same log. */
export function recordFaults({ records }: SystemDocument): Fault[] {
  const before = new Map<string, RecordDocument>();
  return records.flatMap((record, r): Fault[] => {
    const path = `records[${r}]`;
    const same = before.get(record.id);
    before.set(record.id, record);
    if (same)
      return [
        { path: `${path}.id`, message: `"${record.id}" is the id of an earlier record; every record has its own` },
      ];
    if (record.corrects === undefined) return [];
    const to = before.get(record.corrects);
    if (!to || to === record)
      return [
        {
          path: `${path}.corrects`,
          message: `names the record "${record.corrects}", which is not among those before it`,
        },
      ];
    if (to.kind !== record.kind || to.of !== record.of)
      return [{ path: `${path}.corrects`, message: 'must name a record of the same kind and of the same log' }];
    return [];
  });
}
