/** A cell with its quotes doubled where it needs quotes at all (RFC 4180). */
const cell = (value: string | number): string => (typeof value === 'string' && /[",\n\r]/.test(value) ? `"${value.replaceAll('"', '""')}"` : String(value));

/** Rows as CSV text with a header line; lines end as RFC 4180 has it. */
export const csvText = (header: readonly string[], rows: readonly (readonly (string | number)[])[]): string =>
  [header, ...rows].map((row) => row.map(cell).join(',')).join('\r\n') + '\r\n';
