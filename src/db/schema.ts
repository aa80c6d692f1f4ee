import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { packedText } from './packed';

/** One row a system; the document is the JSON text that the validator passed. */
export const systems = sqliteTable(
  'systems',
  {
    id: text('id').primaryKey(),
    name: text('name').notNull(),
    document: text('document').notNull(),
    revision: integer('revision').notNull(),
    /** The system that this one was forked from, and that all its variants share; none for one that was not forked. */
    variantOf: text('variant_of'),
    createdAt_ms: integer('created_at_ms').notNull(),
    updatedAt_ms: integer('updated_at_ms').notNull(),
    /** Set while a deleted system can still be brought back. */
    deletedAt_ms: integer('deleted_at_ms'),
    /**
     * What its card in the library shows: JSON as `card.ts` has it, of the revision and by the build that stand beside
     * it.
     */
    card: text('card'),
    cardRevision: integer('card_revision'),
    cardBuild: text('card_build'),
  },
  (table) => [index('systems_updated').on(table.updatedAt_ms)],
);

/** What a system was at each save. */
export const revisions = sqliteTable(
  'revisions',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    systemId: text('system_id')
      .notNull()
      .references(() => systems.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    /** Name of the edit that led here. */
    edit: text('edit').notNull(),
    /** Given by the builder: one with a name is kept for good. */
    name: text('name'),
    document: packedText('document').notNull(),
    savedAt_ms: integer('saved_at_ms').notNull(),
  },
  (table) => [
    uniqueIndex('revisions_system_revision').on(table.systemId, table.revision),
    index('revisions_saved').on(table.savedAt_ms),
  ],
);

/**
 * What happened to what was built, as the document's validator passed it. Rows are only ever added: a trigger refuses
 * to alter one, and they go with their system alone.
 */
export const records = sqliteTable(
  'records',
  {
    systemId: text('system_id')
      .notNull()
      .references(() => systems.id, { onDelete: 'cascade' }),
    id: text('id').notNull(),
    /** In the order in which they came. */
    place: integer('place').notNull(),
    kind: text('kind').notNull(),
    /** What it is about: of a pour, the calibration. */
    of: text('of').notNull(),
    corrects: text('corrects'),
    record: text('record').notNull(),
    /** Of the format that it is written in. */
    version: integer('version').notNull(),
    keptAt_ms: integer('kept_at_ms').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.systemId, table.id] }),
    uniqueIndex('records_system_place').on(table.systemId, table.place),
  ],
);

/** Parts that a builder keeps for other systems: the part as the document's validator passed it. */
export const ownParts = sqliteTable('own_parts', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  part: text('part').notNull(),
  /** Of the format that the part is written in; parts began with version 6. */
  version: integer('version').notNull().default(6),
  savedAt_ms: integer('saved_at_ms').notNull(),
});

/** Facts about this data folder, such as whether the demo was loaded. */
export const facts = sqliteTable('facts', { key: text('key').primaryKey(), value: text('value').notNull() });

/** Other devices that were let in, until they are sent away. */
export const devices = sqliteTable('devices', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  letInAt_ms: integer('let_in_at_ms').notNull(),
  seenAt_ms: integer('seen_at_ms').notNull(),
});
