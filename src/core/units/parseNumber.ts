import { failure, success, type Outcome } from '../outcome';

export type NumberCode = 'not-a-number' | 'ambiguous-comma' | 'division-by-zero' | 'too-large';

/** A number as people write one, without a sign: 12, .090, 12,5, 3/8, 12 3/8, 12-3/8, 1e-3. */
export const NUMBER_PATTERN = String.raw`(?:\d+(?:\s+|\s*-\s*)\d+\s*/\s*\d+|\d+\s*/\s*\d+|(?:\d{1,3}(?:,\d{3})+(?=\.)|\d+)?(?:[.,]\d+)(?:e[+-]?\d+)?|\d+\.?(?:e[+-]?\d+)?)`;

const VULGAR: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
};

/** Folds typographic signs to the plain ones that the patterns know. */
export function plainText(text: string): string {
  return text
    .replace(/[½¼¾⅛⅜⅝⅞⅓⅔]/g, (sign) => ` ${VULGAR[sign]}`)
    .replace(/[−–—‐‑]/g, '-')
    .replace(/[⁄∕]/g, '/')
    .replace(/[″”“]|''/g, '"')
    .replace(/[′’‘]/g, "'")
    .replace(/\s+/g, ' ')
    .trim();
}

/** Whether a number is written as a fraction. */
export const isFraction = (text: string): boolean => text.includes('/');

/** Reads one unsigned number that NUMBER_PATTERN matched. */
export function parseNumber(text: string): Outcome<number, NumberCode> {
  const read = isFraction(text) ? parseFraction(text) : parseDecimal(text);
  if (!read.ok || Number.isFinite(read.value)) return read;
  return failure('too-large', text, `"${text}" is too large to be a real measurement.`);
}

function parseFraction(text: string): Outcome<number, NumberCode> {
  const match = /^(?:(\d+)(?:\s+|\s*-\s*))?(\d+)\s*\/\s*(\d+)$/.exec(text.trim());
  if (!match) return failure('not-a-number', text, `"${text}" is not a fraction; write 3/8 or 12 3/8.`);
  const [, whole, numerator, denominator] = match;
  if (Number(denominator) === 0) return failure('division-by-zero', text, 'A fraction cannot have 0 below the line.');
  return success(Number(whole ?? 0) + Number(numerator) / Number(denominator));
}

function parseDecimal(text: string): Outcome<number, NumberCode> {
  if (/^[1-9]\d{0,2}(,\d{3})+$/.test(text)) {
    const plain = text.replaceAll(',', '');
    const decimal = text.replace(',', '.');
    return failure('ambiguous-comma', text, `"${text}" can be read two ways: write ${plain} or ${decimal}.`);
  }
  const value = Number(text.includes('.') ? text.replaceAll(',', '') : text.replace(',', '.'));
  return Number.isNaN(value) ? failure('not-a-number', text, `"${text}" is not a number.`) : success(value);
}
