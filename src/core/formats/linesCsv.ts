import { csvText } from './csv';

/** What the list of lines is written from; plain data, so that this needs to know nothing of systems. */
export type ListedPart = {
  readonly what: string;
  readonly name: string;
  readonly count: number;
  readonly where: readonly string[];
};
export type ListedCut = {
  readonly name: string;
  readonly stock: string;
  readonly cut_m: number;
  readonly ends: readonly string[];
};

/** Parts of all circuits, one row a kind of part. */
export const partsCsv = (parts: readonly ListedPart[]): string =>
  csvText(
    ['what', 'name', 'count', 'where'],
    parts.map(({ what, name, count, where }) => [what, name, count, where.join('; ')]),
  );

/** Lines to cut, one row a piece. */
export const cutsCsv = (cuts: readonly ListedCut[]): string =>
  csvText(
    ['line', 'cut_from', 'length_mm', 'near_end', 'far_end'],
    cuts.map(({ name, stock, cut_m, ends }) => [name, stock, Math.round(cut_m * 1e3), ends[0] ?? '', ends[1] ?? '']),
  );
