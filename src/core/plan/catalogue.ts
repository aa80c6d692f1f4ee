import Papa from 'papaparse';
import { ValidationError } from 'yup';
import { cellNumber, csvText, decimalMark, quoted, unguarded, type DecimalMark } from '../formats';
import { failure, success, type Outcome } from '../outcome';
import { JOIN_SYSTEMS } from '../reference/joins';
import { migrate } from './migrations';
import { component, COMPONENT_KINDS, type ComponentKind } from '../components';
import type { ComponentDocument } from './schema';

export type CatalogueFault = { readonly row: number; readonly message: string };
export type CatalogueCode = 'empty' | 'no-columns' | 'bad-rows' | 'too-many' | 'unclear-mark' | 'invalid';

/** Parts that a catalogue takes. */
export const MOST_OWN_PARTS = 500;
const MOST_COLUMNS = 200;
const MOST_SHOWN = 8;
const BYTE_ORDER_MARK = '\uFEFF';

type Tree = Record<string, unknown>;
const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null && !Array.isArray(value);

/** A part from outside, checked as the document's validator would. */
export function parsePart(raw: unknown): Outcome<ComponentDocument, 'invalid'> {
  try {
    component.validateSync(raw, { strict: true, abortEarly: true });
    return success(raw as ComponentDocument);
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const { path, errors } = error;
    const message = (errors[0] ?? 'is not valid').replace(/^this /, '');
    return failure('invalid', path || 'part', path && !message.startsWith(path) ? `${path} ${message}` : message);
  }
}

/** A part that was kept with a version of the format, as today's; it comes up as it would inside a system. */
export function partOfVersion(raw: unknown, version: number): Outcome<ComponentDocument, 'invalid' | 'wrong-version'> {
  const migrated = migrate({ version, components: [raw] });
  return migrated.ok ? parsePart((migrated.value.components as readonly unknown[])[0]) : migrated;
}

/**
 * Own parts as CSV: one row a part, one column a value, in SI units as the
 * column's name has it. A pump's curve stands as flow:pressure pairs, ends as
 * "in npt 1/4 female".
 */
export function catalogueCsv(parts: readonly ComponentDocument[]): string {
  const rows = parts.map(flat);
  const columns = [...new Set(['kind', 'name', ...rows.flatMap((row) => Object.keys(row))])];
  return csvText(
    columns,
    rows.map((row) => columns.map((column) => row[column] ?? '')),
  );
}

function flat(part: ComponentDocument): Record<string, string | number> {
  const row: Record<string, string | number> = {};
  const put = (value: unknown, at: string): void => {
    if (isTree(value) && 'value' in value) row[at] = value.value as number;
    else if (isTree(value))
      for (const [key, child] of Object.entries(value)) put(child, at === '' ? key : `${at}.${key}`);
    else if (typeof value === 'boolean') row[at] = value ? 'yes' : 'no';
    else if (typeof value === 'number' || typeof value === 'string') row[at] = value;
  };
  const { id: _, ends, ...rest } = part;
  for (const [key, value] of Object.entries(rest)) if (key !== 'curve') put(value, key);
  if (part.kind === 'pump') row.curve = part.curve.map((point) => `${point.flow_m3PerS}:${point.rise_Pa}`).join(' ');
  if (ends.length > 0)
    row.ends = ends.map(({ end, system, size, side }) => `${end} ${system} ${size} ${side}`).join('; ');
  return row;
}

/**
 * Own parts from CSV, as `catalogueCsv` writes them: all of the file is taken
 * or none. Values count as the part's own data.
 *
 * @source RFC 4180 for quoting; parsed by Papa Parse
 */
export function readCatalogueCsv(text: string): Outcome<readonly ComponentDocument[], CatalogueCode> {
  const parsed = Papa.parse<string[]>(text.startsWith(BYTE_ORDER_MARK) ? text.slice(1) : text, {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t'],
  });
  const [titles, ...rows] = parsed.data.map((row) => row.map((cell) => cell.trim()));
  // As catalogues of before version 7 have it.
  const head = titles?.map((title) => (title === 'does' ? 'type' : title));
  if (!head || rows.length === 0)
    return failure(
      'empty',
      'file',
      'The file has no rows. It wants a heading and a row for each part; save the catalogue to see the form.',
    );
  if (!head.includes('kind') || !head.includes('name'))
    return failure(
      'no-columns',
      'row 1',
      `The heading wants the columns kind and name; it has ${head
        .slice(0, 12)
        .map((name) => name.slice(0, 30))
        .join(', ')}.`,
    );
  if (head.length > MOST_COLUMNS)
    return failure('too-many', 'row 1', `The heading has ${head.length} columns; up to ${MOST_COLUMNS} are taken.`);
  if (rows.length > MOST_OWN_PARTS)
    return failure('too-many', 'file', `The file has ${rows.length} rows; a catalogue takes ${MOST_OWN_PARTS}.`);
  const numeric = head.flatMap((column, c) => (HAS_UNIT.test(column) ? [c] : []));
  const found = decimalMark(
    rows.flatMap((row) => numeric.map((c) => row[c] ?? '')),
    parsed.meta.delimiter,
  );
  if (found.kind === 'both')
    return failure(
      'unclear-mark',
      'file',
      `Numbers in the file have both points and commas, such as ${quoted(found.cell)}. Write them with decimal points alone. Nothing was imported.`,
    );
  if (found.kind === 'unclear')
    return failure(
      'unclear-mark',
      'file',
      `${quoted(found.cell)} may have a decimal mark or one of thousands. Write numbers with decimal points and without marks of thousands. Nothing was imported.`,
    );
  const mark = found.kind === 'decided' ? found.mark : 'point';
  const faults: CatalogueFault[] = [];
  const parts = rows.flatMap((row, i): ComponentDocument[] => {
    const cells = Object.fromEntries(head.map((column, c) => [column, row[c] ?? ''])) as Record<string, string>;
    const read = rowPart(cells, mark);
    const part = read.ok ? parsePart(read.value) : read;
    if (part.ok) return [part.value];
    faults.push({ row: i + 2, message: part.error.detail });
    return [];
  });
  if (faults.length === 0) return success(parts);
  const shown = faults
    .slice(0, MOST_SHOWN)
    .map(({ row, message }) => `Row ${row}: ${message}`)
    .join(' ');
  return failure(
    'bad-rows',
    `row ${faults[0]!.row}`,
    `${shown}${faults.length > MOST_SHOWN ? ` There are ${faults.length - MOST_SHOWN} more.` : ''} Nothing was imported.`,
  );
}

/** A column of quantities has their unit at its end. */
const HAS_UNIT = /_[A-Za-z0-9]+$/;
/** Columns whose value stands by itself and is no quantity with an origin. */
const PLAIN_NUMBERS: ReadonlySet<string> = new Set(['fuse_A']);

function rowPart(cells: Record<string, string>, mark: DecimalMark): Outcome<Tree, 'invalid'> {
  const kind = cells.kind as ComponentKind;
  if (!COMPONENT_KINDS.includes(kind))
    return failure(
      'invalid',
      'kind',
      `${quoted(cells.kind ?? '')} is no kind of part; there is ${COMPONENT_KINDS.join(', ')}.`,
    );
  const part: Tree = { id: 'own-part', ends: [] };
  for (const [column, cell] of Object.entries(cells)) {
    if (cell === '' || column === '') continue;
    if (column === 'ends') {
      const ends = cell.split(';').map(readEnd);
      if (ends.some((end) => end === undefined))
        return failure(
          'invalid',
          'ends',
          `ends wants entries such as "in npt 1/4 female", parted by semicolons; the systems are ${JOIN_SYSTEMS.join(', ')}. It is ${quoted(cell)}.`,
        );
      part.ends = ends;
    } else if (column === 'curve') {
      const points = cell.split(/\s+/).map((pair) => pair.split(':').map(Number));
      if (points.some((pair) => pair.length !== 2 || pair.some((value) => !Number.isFinite(value))))
        return failure(
          'invalid',
          'curve',
          `curve wants pairs of flow_m3PerS:rise_Pa parted by spaces; it is ${quoted(cell)}.`,
        );
      part.curve = points.map(([flow_m3PerS, rise_Pa]) => ({ flow_m3PerS, rise_Pa }));
    } else {
      put(part, column.split('.'), column, readCell(column, cell, mark));
    }
  }
  return success(part);
}

function readEnd(text: string): Tree | undefined {
  const [end, system, ...rest] = text.trim().split(/\s+/);
  const side = rest.pop();
  return end && system && side && rest.length > 0 ? { end, system, size: rest.join(' '), side } : undefined;
}

/** Cells with a unit in their column's name are quantities; yes and no are yes and no. */
function readCell(column: string, cell: string, mark: DecimalMark): unknown {
  const key = column.split('.').at(-1)!;
  if (cell === 'yes' || cell === 'no') return cell === 'yes';
  const value = HAS_UNIT.test(key) ? cellNumber(cell, mark) : undefined;
  if (value === undefined) return unguarded(cell);
  return PLAIN_NUMBERS.has(key) ? value : { value, origin: 'part' };
}

function put(tree: Tree, path: readonly string[], column: string, value: unknown): void {
  const [key, ...rest] = path;
  if (key === undefined || !/^[a-z][A-Za-z0-9_]*$/.test(key)) return;
  if (rest.length === 0) {
    tree[key] = value;
    return;
  }
  if (!isTree(tree[key])) tree[key] = {};
  put(tree[key] as Tree, rest, column, value);
}
