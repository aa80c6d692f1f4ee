/** A spreadsheet takes a text that begins so for a formula. @source OWASP, "CSV Injection" */
const FORMULA = /^'*[=+\-@\t\r＝＋－＠]/;

/**
 * A text that no spreadsheet runs: every one that goes out is guarded here, and every one that comes in is freed again.
 */
const guarded = (text: string): string => (FORMULA.test(text) ? `'${text}` : text);
/** A cell without the mark that keeps a spreadsheet from taking it for a formula. */
export const unguarded = (text: string): string =>
  text.startsWith("'") && FORMULA.test(text.slice(1)) ? text.slice(1) : text;

/** A cell with its quotes doubled where it needs quotes at all (RFC 4180). */
function cell(value: string | number): string {
  const text = typeof value === 'string' ? guarded(value) : String(value);
  return /[",;\t\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/** Rows as CSV text with a header line; lines end as RFC 4180 has it. */
export const csvText = (header: readonly string[], rows: readonly (readonly (string | number)[])[]): string =>
  [header, ...rows].map((row) => row.map(cell).join(',')).join('\r\n') + '\r\n';
