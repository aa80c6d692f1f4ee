import { failure, success, type Outcome } from '../outcome';
import { AMBIGUOUS, toSI, unitById, unitBySpelling, UNITS, type Kind, type Unit } from './units';
import { isFraction, NUMBER_PATTERN, parseNumber, plainText, type NumberCode } from './parseNumber';
import { parseNominal, type NominalCode, type NominalField } from './parseNominal';
import type { Quantity } from './quantity';
import { systemOf, unitApart, type Reader } from './reader';

/** What a field expects; a bare number is in `unit`. */
export type EntryField = NominalField & {
  readonly kind: Kind;
  readonly unit: string;
  /** Settles what a plain "gal" or "qt" means. A metric reader must say which. */
  readonly reader?: Reader;
};

export type EntryCode =
  NumberCode | NominalCode | 'empty' | 'not-a-quantity' | 'unknown-unit' | 'ambiguous-unit' | 'mixed-units';

type Term = { readonly number: number; readonly text: string; readonly unitText: string; readonly fraction: boolean };

const TERM = new RegExp(String.raw`^\s*(${NUMBER_PATTERN})\s*(.*?)\s*$`, 'i');
/** One term of several, such as the 1' in 1' 2 1/2". */
const LEADING_TERM = new RegExp(
  String.raw`^\s*(${NUMBER_PATTERN})\s*(?!e[+-]?\d)([^\d\s.,/+-][^\d.,/+-]*?)\s*(?=[\d.,])`,
  'i',
);

/** Kinds in which people write one quantity as a sum: 1' 2 1/2", 1 h 30 min. */
const SUMMED: ReadonlySet<Kind> = new Set(['length', 'time']);

/**
 * Reads a quantity as people write it and returns SI.
 *
 * Accepts whole and decimal numbers (point or comma), fractions and mixed
 * numbers, every spelling in UNITS, feet with inches, sheet gauges where the
 * metal is known, dash and pipe sizes in a bore field. A bare number is in
 * the field's unit, but a bare fraction in a length field is inches.
 *
 * @param text  as typed
 * @param field kind, unit of a bare number, and what nominal sizes mean here
 * @returns SI value and how it was understood; an error says what is accepted
 */
export function parseQuantity(text: string, field: EntryField): Outcome<Quantity, EntryCode> {
  const plain = plainText(text);
  if (plain === '') return failure('empty', text, `Enter ${acceptedText(field)}.`);
  const nominal = field.kind === 'length' ? parseNominal(plain, field) : undefined;
  if (nominal) return nominal;
  const negative = /^-\s*/.exec(plain);
  const unsigned = plain.slice(negative ? negative[0].length : 0).replace(/^\+\s*/, '');
  const terms = splitTerms(unsigned, field);
  if (!terms.ok) return terms;
  const sum = addTerms(terms.value, field, negative ? -1 : 1);
  return sum.ok ? success({ si: sum.value, reading: `${negative ? '-' : ''}${readingOf(terms.value, field)}` }) : sum;
}

/** What the field accepts, in words, for messages and hints. */
export function acceptedText(field: EntryField): string {
  const own = unitById(field.kind, field.unit).symbol;
  const others = UNITS[field.kind].map((unit) => unit.symbol).filter((symbol) => symbol !== '' && symbol !== own);
  const bare = own === '' ? 'a plain number' : `a number in ${own}`;
  const examples = field.kind === 'length' ? ', or a form like 12 3/8, 1\' 2 1/2" or 310 mm' : '';
  const units = others.length > 0 ? `, or one with ${listed(others.slice(0, 6))}` : '';
  return `${bare}${units}${examples}${nominalText(field)}`;
}

function nominalText(field: EntryField): string {
  if (field.kind !== 'length') return '';
  if (field.metal) return `; a gauge such as 14 ga is read for ${field.metal}`;
  return field.line ? '; a size such as -6 or 1/4 NPT is read as its bore' : '';
}

const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} or ${words.at(-1)}`;

function splitTerms(text: string, field: EntryField): Outcome<Term[], EntryCode> {
  const terms: Term[] = [];
  let rest = text;
  while (SUMMED.has(field.kind) && terms.length < 3) {
    const match = LEADING_TERM.exec(rest);
    if (!match) break;
    const term = readTerm(match[1]!, match[2]!);
    if (!term.ok) return term;
    terms.push(term.value);
    rest = rest.slice(match[0].length);
  }
  const last = TERM.exec(rest);
  if (!last) return failure('not-a-quantity', text, `"${text}" is not understood. Enter ${acceptedText(field)}.`);
  const term = readTerm(last[1]!, last[2]!);
  if (!term.ok) return term;
  return success([...terms, term.value]);
}

function readTerm(numberText: string, unitText: string): Outcome<Term, EntryCode> {
  const number = parseNumber(numberText);
  if (!number.ok) return number;
  return success({
    number: number.value,
    text: numberText,
    unitText: unitText.trim(),
    fraction: isFraction(numberText),
  });
}

function addTerms(terms: readonly Term[], field: EntryField, sign: 1 | -1): Outcome<number, EntryCode> {
  let total = 0;
  let previous: Unit | undefined;
  for (const term of terms) {
    const unit = unitOf(term, field, previous);
    if (!unit.ok) return unit;
    if (previous && unit.value.toSI >= previous.toSI) {
      return failure(
        'mixed-units',
        term.text,
        `In a sum the units must get smaller, as in 1' 2 1/2"; ${unit.value.symbol} cannot follow ${previous.symbol}.`,
      );
    }
    total += terms.length > 1 ? term.number * unit.value.toSI : toSI(sign * term.number, unit.value) * sign;
    previous = unit.value;
  }
  return Number.isFinite(total)
    ? success(sign * total)
    : failure('too-large', terms[0]!.text, 'That number is too large.');
}

function unitOf(term: Term, field: EntryField, previous: Unit | undefined): Outcome<Unit, EntryCode> {
  if (term.unitText === '') return success(bareUnit(term, field, previous));
  const choices = AMBIGUOUS[field.kind]?.[term.unitText.toLowerCase()];
  if (choices && gallonOf(field.reader) === undefined) {
    return failure(
      'ambiguous-unit',
      term.unitText,
      `"${term.unitText}" can be ${listed(choices)}, which differ by a fifth; say which.`,
    );
  }
  const found = choices
    ? unitBySpelling(field.kind, choices[gallonOf(field.reader) === 'imperial' ? 1 : 0]!)
    : unitBySpelling(field.kind, imperialQuart(term.unitText, field));
  return found
    ? success(found)
    : failure(
        'unknown-unit',
        term.unitText,
        `"${term.unitText}" is not a unit of ${field.kind}. Enter ${acceptedText(field)}.`,
      );
}

/** Whose gallon a plain one is: that of the reader's volumes; undefined where they are in litres. */
function gallonOf(reader: Reader = 'metric'): 'us' | 'imperial' | undefined {
  const apart = unitApart('tankVolume', reader);
  if (apart !== undefined) return apart === 'us_gal' ? 'us' : apart === 'imp_gal' ? 'imperial' : undefined;
  const system = systemOf(reader);
  return system === 'metric' ? undefined : system;
}

/** A plain quart is the US one, except for a reader who works in imperial. */
const imperialQuart = (unitText: string, field: EntryField): string =>
  gallonOf(field.reader) === 'imperial' && /^(qt|quarts?)$/i.test(unitText) ? 'imp qt' : unitText;

/** After feet come inches; a bare fraction is inches too, since nobody writes 3/8 mm. */
function bareUnit(term: Term, field: EntryField, previous: Unit | undefined): Unit {
  if (previous?.id === 'ft') return unitById('length', 'in');
  if (previous?.id === 'h') return unitById('time', 'min');
  const metric = ['mm', 'cm', 'm'].includes(field.unit);
  if (field.kind === 'length' && term.fraction && metric) return unitById('length', 'in');
  return unitById(field.kind, field.unit);
}

function readingOf(terms: readonly Term[], field: EntryField): string {
  let previous: Unit | undefined;
  return terms
    .map((term) => {
      const unit = unitOf(term, field, previous);
      previous = unit.ok ? unit.value : previous;
      return `${term.text} ${unit.ok ? unit.value.symbol : ''}`.trim();
    })
    .join(' ');
}
