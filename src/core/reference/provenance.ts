/**
 * Where a table's numbers come from. A row without a source is a bug that
 * `tests/reference-tables.test.ts` finds.
 */
export type Status = 'published' | 'derived' | 'from memory' | 'common practice';

export type Sourced = { readonly source: string; readonly status: Status };

/** Where a value comes from, and how far it is to be trusted. */
export const sourced = (status: Status, source: string): Sourced => ({ status, source });
