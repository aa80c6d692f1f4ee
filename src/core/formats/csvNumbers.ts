export type DecimalMark = 'point' | 'comma';
const SIGN: Readonly<Record<DecimalMark, string>> = { point: '.', comma: ',' };

/** A number in a table is no longer than this; what is longer is something else. */
const MOST_CHARACTERS = 40;

/**
 * What a whole file says of its decimal mark: which it is, that no number has one, that it has both, or that it may be
 * a mark of thousands.
 */
export type MarkFound =
  | { readonly kind: 'decided'; readonly mark: DecimalMark }
  | { readonly kind: 'none' }
  | { readonly kind: 'both' | 'unclear'; readonly cell: string };

/**
 * The decimal mark of a file, from all its numbers together: “1,000” alone may
 * be one or a thousand, and beside “212,5” it is one.
 * @param delimiter a file parted by commas has points; where it is parted by anything else either may be
 */
export function decimalMark(cells: readonly string[], delimiter: string): MarkFound {
  const numbers = cells.filter((cell) => cell.length <= MOST_CHARACTERS && /^[+\-−–]?[\d.,]+(e[+-]?\d+)?$/i.test(cell));
  const having = (mark: DecimalMark): string[] => numbers.filter((cell) => cell.includes(SIGN[mark]));
  const [points, commas] = [having('point'), having('comma')];
  if (points.length > 0 && commas.length > 0)
    return { kind: 'both', cell: (points[0] === numbers.find((cell) => /[.,]/.test(cell)) ? commas : points)[0]! };
  const mark: DecimalMark | undefined = points.length > 0 ? 'point' : commas.length > 0 ? 'comma' : undefined;
  if (!mark) return { kind: 'none' };
  if (mark === 'point' && delimiter === ',') return { kind: 'decided', mark };
  const marked = mark === 'point' ? points : commas;
  return marked.every((cell) => hasThousands(cell, mark))
    ? { kind: 'unclear', cell: marked[0]! }
    : { kind: 'decided', mark };
}

const hasThousands = (cell: string, mark: DecimalMark): boolean =>
  new RegExp(`^[+\\-−–]?[1-9]\\d{0,2}(\\${SIGN[mark]}\\d{3})+$`).test(cell);

/**
 * A number from a cell of a file with this decimal mark; the other mark only where it parts thousands. Undefined where
 * it is none.
 */
export function cellNumber(text: string, mark: DecimalMark): number | undefined {
  if (text.length > MOST_CHARACTERS) return undefined;
  const other: DecimalMark = mark === 'point' ? 'comma' : 'point';
  const [whole, ...rest] = text.split(SIGN[mark]);
  const bare = hasThousands(whole!, other) ? whole!.replaceAll(SIGN[other], '') : whole!;
  const plain = [bare, ...rest].join('.').replace(/^[−–]/, '-').replace(/^\+/, '');
  return /^-?(\d+(\.\d*)?|\.\d+)(e[+-]?\d{1,3})?$/i.test(plain) ? Number(plain) : undefined;
}

/** A cell as it is shown in a message. */
export const quoted = (cell: string): string =>
  `"${cell.length > MOST_CHARACTERS ? `${cell.slice(0, MOST_CHARACTERS)}…` : cell}"`;
