import { gunzipSync, gzipSync } from 'node:zlib';
import { customType } from 'drizzle-orm/sqlite-core';

/**
 * Text that is kept packed. What was written before it was packed is still
 * text, and is read as it is: SQLite keeps what it is given, whatever the
 * column says.
 */
export const packedText = customType<{ data: string; driverData: Buffer | string }>({
  dataType: () => 'text',
  toDriver: (text) => gzipSync(text),
  fromDriver: (kept) => (typeof kept === 'string' ? kept : gunzipSync(kept).toString('utf8')),
});
