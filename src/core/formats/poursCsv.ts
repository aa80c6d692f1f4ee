import Papa from 'papaparse';
import { failure, success, type Outcome } from '../outcome';
import { isoSeconds, unitById, type Kind } from '../units';
import { PLAIN_TEXT } from './plainText';
import { csvText, unguarded } from './csv';
import { cellNumber, decimalMark, quoted, type DecimalMark } from './csvNumbers';

export const POUR_WAYS = ['can', 'meter', 'scale', 'drawn-off'] as const;
export const POUR_STATES = ['counts', 'reading-struck', 'entry-struck', 'spilt'] as const;

/** What was read, by the unit that stands beside it. */
export type PourReading =
  | { readonly kind: 'resistance'; readonly reading_ohm: number }
  | { readonly kind: 'voltage'; readonly reading_V: number }
  | { readonly kind: 'needle'; readonly shown_ratio: number }
  | { readonly kind: 'height'; readonly height_m: number }
  | { readonly kind: 'none' };

/** One line of a calibration log as it goes out and comes in. */
export type PourLine = {
  readonly at: string;
  readonly way: (typeof POUR_WAYS)[number];
  readonly added_m3: number;
  readonly spread_m3: number;
  readonly reading: PourReading;
  readonly note: string;
  readonly state: (typeof POUR_STATES)[number];
  readonly simulated: boolean;
};

export type PoursFault = { readonly row: number; readonly message: string };
export type PoursCode = 'empty' | 'no-columns' | 'bad-rows' | 'too-many' | 'two-marks' | 'unclear-mark';
/** What was read, and by which decimal mark; none where no number has one. */
export type PoursRead = { readonly lines: readonly PourLine[]; readonly mark: DecimalMark | undefined };

/** Columns of added volume that are understood, by the unit in their name. */
const ADDED: Readonly<Record<string, { readonly kind: Kind; readonly unit: string }>> = {
  added_l: { kind: 'volume', unit: 'L' },
  added_ml: { kind: 'volume', unit: 'mL' },
  added_us_gal: { kind: 'volume', unit: 'us_gal' },
  added_imp_gal: { kind: 'volume', unit: 'imp_gal' },
  added_m3: { kind: 'volume', unit: 'm3' },
};
const READ_UNITS = ['ohm', 'V', '%', 'mm'] as const;
const HEADER = ['time', 'way', 'added_L', 'spread_L', 'reading', 'unit', 'note', 'state', 'simulated'] as const;
const COLUMNS = HEADER.join(', ');
/** Lines that a log takes. */
export const MOST_POURS = 400;
const MOST_SHOWN = 8;
const LITRE_M3 = 1e-3;
const MOST_M3 = 20;
const ZERO_BYTES = '\uFEFF';

/** The log as CSV: litres, and readings with their unit beside them. */
export function poursCsv(lines: readonly PourLine[]): string {
  return csvText(
    HEADER,
    lines.map(({ at, way, added_m3, spread_m3, reading, note, state, simulated }) => {
      const [value, unit] = written(reading);
      return [
        at,
        way,
        tidy(added_m3 / LITRE_M3),
        tidy(spread_m3 / LITRE_M3),
        value,
        unit,
        note,
        state,
        simulated ? 'yes' : 'no',
      ];
    }),
  );
}

const tidy = (value: number): number => Number(value.toPrecision(12));
function written(reading: PourReading): [number | '', string] {
  switch (reading.kind) {
    case 'resistance':
      return [tidy(reading.reading_ohm), 'ohm'];
    case 'voltage':
      return [tidy(reading.reading_V), 'V'];
    case 'needle':
      return [tidy(reading.shown_ratio * 100), '%'];
    case 'height':
      return [tidy(reading.height_m * 1000), 'mm'];
    case 'none':
      return ['', ''];
  }
}

/**
 * A log of pours from CSV: commas, semicolons or tabs; decimal points or
 * commas, decided for the whole file from all its numbers; with or without a
 * byte-order mark. All of it is taken or none: every row that cannot be is told
 * with its number, the heading being row 1. Where “1,000” could be one or a
 * thousand it is asked for ("unclear-mark").
 *
 * @param given the decimal mark, where it was asked for
 * @source RFC 4180 for quoting; parsed by Papa Parse
 */
export function readPoursCsv(text: string, given?: DecimalMark): Outcome<PoursRead, PoursCode> {
  const parsed = Papa.parse<string[]>(text.startsWith(ZERO_BYTES) ? text.slice(1) : text, {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t'],
  });
  const [head, ...rows] = parsed.data.map((row) => row.map((cell) => cell.trim()));
  if (!head || rows.length === 0)
    return failure('empty', 'file', `The file has no rows. It wants a heading (${COLUMNS}) and a row for each pour.`);
  if (rows.length > MOST_POURS)
    return failure('too-many', `row ${MOST_POURS + 2}`, `The file has ${rows.length} rows; a log takes ${MOST_POURS}.`);
  const column = (name: string): number => head.findIndex((cell) => cell.toLowerCase() === name);
  const addedName = Object.keys(ADDED).find((name) => column(name) >= 0);
  if (addedName === undefined) {
    return failure(
      'no-columns',
      'row 1',
      `The heading has no column of what was added: it wants ${Object.keys(ADDED)
        .map((name) => name.replace('_l', '_L').replace('_ml', '_mL'))
        .join(', ')} (one of them). It has ${head
        .slice(0, 12)
        .map((name) => name.slice(0, 30))
        .join(', ')}.`,
    );
  }
  if (column('reading') >= 0 && column('unit') < 0)
    return failure(
      'no-columns',
      'row 1',
      `The heading has a reading and no unit beside it: it wants a column "unit" with ${READ_UNITS.join(', ')}.`,
    );
  const numeric = [addedName, 'spread_l', 'reading'].map(column).filter((at) => at >= 0);
  const found = decimalMark(
    rows.flatMap((row) => numeric.map((at) => row[at] ?? '')),
    parsed.meta.delimiter,
  );
  if (!given && found.kind === 'both')
    return failure(
      'two-marks',
      'file',
      `Numbers in the file have both points and commas, such as ${quoted(found.cell)}; write them with one of them, and thousands without a mark.`,
    );
  if (!given && found.kind === 'unclear')
    return failure('unclear-mark', 'file', `${quoted(found.cell)} may have a decimal mark or one of thousands.`);
  const mark = given ?? (found.kind === 'decided' ? found.mark : 'point');
  const numberOf = (text: string): number | undefined => cellNumber(text, mark);
  const faults: PoursFault[] = [];
  const lines = rows.flatMap((row, i): PourLine[] => {
    const number = i + 2;
    const wrong = (message: string): PourLine[] => {
      faults.push({ row: number, message });
      return [];
    };
    if (row.length !== head.length)
      return wrong(
        `has ${row.length} cells where the heading has ${head.length}${parsed.meta.delimiter === ',' && row.length > head.length ? '; numbers with a decimal comma must stand in quotes, or the cells be parted by semicolons' : ''}`,
      );
    const cell = (name: string): string => row[column(name)] ?? '';
    const unit = unitById(ADDED[addedName]!.kind, ADDED[addedName]!.unit);
    const added = numberOf(cell(addedName));
    if (added === undefined) return wrong(`added is ${quoted(cell(addedName))}, which is not a number`);
    const added_m3 = added * unit.toSI;
    if (Math.abs(added_m3) > MOST_M3)
      return wrong(
        `added is ${quoted(cell(addedName))} ${unit.symbol}; no more than ${MOST_M3 / unit.toSI} ${unit.symbol} is taken`,
      );
    const spread =
      cell('spread_l') === '' ? (Math.abs(added_m3) * USUAL_SPREAD_RATIO) / LITRE_M3 : numberOf(cell('spread_l'));
    if (spread === undefined || spread < 0 || spread * LITRE_M3 > MOST_M3)
      return wrong(
        `spread_L is ${quoted(cell('spread_l'))}; it wants a number of litres from 0 to ${MOST_M3 / LITRE_M3}`,
      );
    const way = cell('way') === '' ? (added_m3 < 0 ? 'drawn-off' : 'can') : oneOf(POUR_WAYS, cell('way'));
    if (!way) return wrong(`way is ${quoted(cell('way'))}; it wants ${POUR_WAYS.join(', ')}`);
    const state = cell('state') === '' ? 'counts' : oneOf(POUR_STATES, cell('state'));
    if (!state) return wrong(`state is ${quoted(cell('state'))}; it wants ${POUR_STATES.join(', ')}`);
    const at = cell('time');
    if (at.length > MOST_TIME || (at !== '' && isoSeconds(at) === undefined))
      return wrong(`time is ${quoted(at)}; it wants a form like 2026-05-03 14:30, or nothing`);
    const reading = readingOf(cell('reading'), cell('unit'), numberOf);
    if (typeof reading === 'string') return wrong(reading);
    const note = unguarded(cell('note'));
    if (note.length > MOST_NOTE) return wrong(`note has ${note.length} characters; up to ${MOST_NOTE} are taken`);
    if (!PLAIN_TEXT.test(note)) return wrong('note has control, direction or broken characters; it wants plain text');
    return [
      {
        at,
        way,
        added_m3,
        spread_m3: spread * LITRE_M3,
        reading,
        note,
        state,
        simulated: /^(yes|true|1)$/i.test(cell('simulated')),
      },
    ];
  });
  if (faults.length > 0) {
    const more = faults.length > MOST_SHOWN ? `; and ${faults.length - MOST_SHOWN} more` : '';
    return failure(
      'bad-rows',
      `row ${faults[0]!.row}`,
      `Nothing was imported. ${faults
        .slice(0, MOST_SHOWN)
        .map(({ row, message }) => `Row ${row}: ${message}`)
        .join('. ')}${more}.`,
    );
  }
  return success({ lines, mark: given ?? (found.kind === 'decided' ? found.mark : undefined) });
}
export const MOST_NOTE = 300;
export const MOST_TIME = 40;
/** Common practice: a can is filled to about a hundredth. */
const USUAL_SPREAD_RATIO = 0.01;

const oneOf = <T extends string>(words: readonly T[], text: string): T | undefined =>
  words.find((word) => word === text.toLowerCase());

/** A reading, or what is wrong with it. */
function readingOf(value: string, unit: string, numberOf: (text: string) => number | undefined): PourReading | string {
  if (value === '') return { kind: 'none' };
  const number = numberOf(value);
  if (number === undefined) return `reading is ${quoted(value)}, which is not a number`;
  switch (unit.toLowerCase()) {
    case 'ohm':
    case 'ω':
      return number >= 0 && number <= 1e6
        ? { kind: 'resistance', reading_ohm: number }
        : `reading is ${value} ohm; it wants 0 to 1000000`;
    case 'v':
      return Math.abs(number) <= 60
        ? { kind: 'voltage', reading_V: number }
        : `reading is ${value} V; it wants -60 to 60`;
    case '%':
      return number >= -50 && number <= 150
        ? { kind: 'needle', shown_ratio: number / 100 }
        : `reading is ${value} %; it wants -50 to 150`;
    case 'mm':
      return number >= -1000 && number <= 20_000
        ? { kind: 'height', height_m: number / 1000 }
        : `reading is ${value} mm; it wants -1000 to 20000`;
    default:
      return `unit is ${quoted(unit)}; it wants ${READ_UNITS.join(', ')}`;
  }
}
