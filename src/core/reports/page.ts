import {
  areaMark,
  checkBar,
  CHECK_BAR_MM,
  LETTER_RATIO,
  lineMark,
  shifted,
  textMark,
  type Drawing,
  type Mark,
  type Place,
  type Tone,
} from '../drawings';

/** Sheets of paper that printers have. @source ISO 216; ANSI/ASME Y14.1 (size A) */
export const PAPERS = {
  a4: { name: 'A4', width_mm: 210, height_mm: 297 },
  letter: { name: 'Letter', width_mm: 215.9, height_mm: 279.4 },
} as const;
export type PaperKey = keyof typeof PAPERS;

/** What stands at the foot of every page. */
export type TitleBlock = {
  readonly system: string;
  readonly sheet: string;
  readonly revision: string;
  readonly date: string;
  readonly units: string;
};

export type Column = {
  readonly title: string;
  /** Of the width that all columns share. */ readonly share: number;
  readonly align?: 'left' | 'right';
  readonly isBold?: boolean;
};

/** A piece of a sheet, one under the other; none but tables is ever parted between two pages, and no row is. */
export type Block =
  | { readonly kind: 'heading'; readonly text: string }
  | { readonly kind: 'text'; readonly text: string; readonly tone?: Tone; readonly isBold?: boolean }
  | { readonly kind: 'figure'; readonly drawing: Drawing; readonly caption?: string }
  | {
      readonly kind: 'table';
      readonly columns: readonly Column[];
      readonly rows: readonly (readonly string[])[];
      /** Rows to be written into with a pencil are taller. */ readonly isForm?: boolean;
    };

/** Printers leave so much white [mm]. */
const MARGIN_MM = 12;
const FOOT_MM = 24;
const TEXT_MM = 3.5;
const HEADING_MM = 5;
const LINE_RATIO = 1.35;
const GAP_MM = 4;
const CELL_MM = { across: 1.6, over: 1.2 } as const;
const FORM_ROW_MM = 9;
/** The room that a figure may take on a page of its own [mm]. */
export const figureRoom = (paper: PaperKey): { readonly width_mm: number; readonly height_mm: number } => ({
  width_mm: PAPERS[paper].width_mm - 2 * MARGIN_MM,
  height_mm: PAPERS[paper].height_mm - 2 * MARGIN_MM - FOOT_MM - 4 * HEADING_MM,
});

/** Words broken into lines of a width [mm]; a word longer than a line is broken itself. */
export function brokenLines(text: string, width_mm: number, size_mm: number): string[] {
  const most = Math.max(1, Math.floor(width_mm / (size_mm * LETTER_RATIO)));
  return text.split('\n').flatMap((paragraph) => {
    const lines: string[] = [];
    for (const word of paragraph.split(' ').flatMap((each) => pieces(each, most))) {
      const last = lines.at(-1);
      if (last !== undefined && last.length + 1 + word.length <= most) lines[lines.length - 1] = `${last} ${word}`;
      else lines.push(word);
    }
    return lines.length > 0 ? lines : [''];
  });
}

const pieces = (word: string, most: number): string[] =>
  word.length <= most
    ? [word]
    : Array.from({ length: Math.ceil(word.length / most) }, (_, i) => word.slice(i * most, (i + 1) * most));

/** A piece of known height, drawn where it comes to stand; what goes before it on a page that it begins. */
type Piece = { readonly height_mm: number; readonly marks: (at: Place) => Mark[]; readonly head?: Piece };

/**
 * Blocks set on pages of paper: each page a drawing at true size, with its title block and a bar to check the print by.
 * A heading stays with what follows it, and a table that goes on has its head again.
 */
export function pagesOf(blocks: readonly Block[], title: TitleBlock, paper: PaperKey): Drawing[] {
  const { width_mm, height_mm } = PAPERS[paper];
  const wide = width_mm - 2 * MARGIN_MM;
  const foot = height_mm - MARGIN_MM - FOOT_MM;
  const pages: Mark[][] = [[]];
  let y = MARGIN_MM;
  const fresh = (): void => {
    pages.push([]);
    y = MARGIN_MM;
  };
  const put = (piece: Piece): void => {
    pages.at(-1)!.push(...piece.marks([MARGIN_MM, y]));
    y += piece.height_mm;
  };
  const all = blocks.map((block) => piecesOf(block, wide));
  all.forEach((list, b) => {
    const next = all[b + 1]?.[0];
    const needed = (list[0]?.height_mm ?? 0) + (blocks[b]!.kind === 'heading' && next ? GAP_MM + next.height_mm : 0);
    if (y > MARGIN_MM && y + needed > foot) fresh();
    for (const piece of list) {
      if (y > MARGIN_MM && y + piece.height_mm > foot) {
        fresh();
        if (piece.head) put(piece.head);
      }
      put(piece);
    }
    y += GAP_MM;
  });
  return pages.map((marks, i) => ({
    title: `${title.sheet}, page ${i + 1} of ${pages.length}`,
    width_mm,
    height_mm,
    marks: [...marks, ...titleBlock(title, `${i + 1} of ${pages.length}`, width_mm, height_mm)],
  }));
}

function piecesOf(block: Block, wide: number): Piece[] {
  switch (block.kind) {
    case 'heading':
      return [words(block.text, wide, HEADING_MM, { isBold: true })];
    case 'text':
      return [words(block.text, wide, TEXT_MM, block)];
    case 'figure': {
      const { drawing, caption } = block;
      const under = caption === undefined ? undefined : words(caption, wide, TEXT_MM, { tone: 'soft' });
      return [
        {
          height_mm: drawing.height_mm + (under?.height_mm ?? 0),
          marks: ([x, y]) => [
            ...shifted(drawing.marks, [x + (wide - drawing.width_mm) / 2, y]),
            ...(under?.marks([x, y + drawing.height_mm]) ?? []),
          ],
        },
      ];
    }
    case 'table':
      return tablePieces(block, wide);
  }
}

function words(
  text: string,
  wide: number,
  size_mm: number,
  { isBold = false, tone }: { readonly isBold?: boolean; readonly tone?: Tone },
): Piece {
  const lines = brokenLines(text, wide, size_mm);
  const step = size_mm * LINE_RATIO;
  return {
    height_mm: lines.length * step,
    marks: ([x, y]) =>
      lines.map((line, i) =>
        textMark([x, y + size_mm + i * step], line, size_mm, { isBold, ...(tone ? { tone } : {}) }),
      ),
  };
}

function tablePieces({ columns, rows, isForm = false }: Extract<Block, { kind: 'table' }>, wide: number): Piece[] {
  const shares = columns.reduce((sum, { share }) => sum + share, 0);
  const widths = columns.map(({ share }) => (share / shares) * wide);
  const lefts = widths.map((_, i) => widths.slice(0, i).reduce((sum, width) => sum + width, 0));
  const row = (cells: readonly string[], isHead: boolean): Piece => {
    const lines = columns.map((_, i) => brokenLines(cells[i] ?? '', widths[i]! - 2 * CELL_MM.across, TEXT_MM));
    const step = TEXT_MM * LINE_RATIO;
    const height_mm = Math.max(
      isForm && !isHead ? FORM_ROW_MM : 0,
      Math.max(...lines.map(({ length }) => length)) * step + 2 * CELL_MM.over,
    );
    return {
      height_mm,
      marks: ([x, y]) => [
        ...lines.flatMap((cell, i) => {
          const { align = 'left', isBold = false } = columns[i]!;
          const at = align === 'left' ? x + lefts[i]! + CELL_MM.across : x + lefts[i]! + widths[i]! - CELL_MM.across;
          return cell.map((line, k) =>
            textMark([at, y + CELL_MM.over + TEXT_MM + k * step - 0.3], line, TEXT_MM, {
              anchor: align === 'left' ? 'start' : 'end',
              isBold: isHead || isBold,
              ...(isHead ? { tone: 'soft' as const } : {}),
            }),
          );
        }),
        lineMark(isHead ? 'outline' : 'dimension', [x, y + height_mm], [x + wide, y + height_mm]),
        ...(isForm && !isHead
          ? lefts.slice(1).map((left) => lineMark('dimension', [x + left, y], [x + left, y + height_mm]))
          : []),
      ],
    };
  };
  const head = row(
    columns.map(({ title }) => title),
    true,
  );
  return [head, ...rows.map((cells): Piece => ({ ...row(cells, false), head }))];
}

/** A drawing made smaller or larger, letters and all. */
export function scaledDrawing(drawing: Drawing, factor: number): Drawing {
  const size = ([x, y]: Place): Place => [x * factor, y * factor];
  return {
    title: drawing.title,
    width_mm: drawing.width_mm * factor,
    height_mm: drawing.height_mm * factor,
    marks: drawing.marks.map((mark): Mark => {
      switch (mark.kind) {
        case 'line':
          return {
            ...mark,
            points: mark.points.map(size),
            ...(mark.width_mm === undefined ? {} : { width_mm: mark.width_mm * factor }),
          };
        case 'area':
          return { ...mark, loops: mark.loops.map((loop) => loop.map(size)) };
        case 'arc':
          return { ...mark, at: size(mark.at), radius_mm: mark.radius_mm * factor };
        case 'text':
          return { ...mark, at: size(mark.at), size_mm: mark.size_mm * factor };
      }
    }),
  };
}

/** What is whose, of when, in which units, and a bar of a known length. */
function titleBlock(title: TitleBlock, page: string, width_mm: number, height_mm: number): Mark[] {
  const top = height_mm - MARGIN_MM - FOOT_MM + 6;
  const bottom = height_mm - MARGIN_MM;
  const [left, right] = [MARGIN_MM, width_mm - MARGIN_MM];
  const middle = top + (bottom - top) / 2;
  const split = left + CHECK_BAR_MM + 6;
  const cell = (x: number, y: number, label: string, text: string, wide: number): Mark[] => [
    textMark([x + 1.2, y + 3], label, 2.2, { tone: 'soft' }),
    textMark([x + 1.2, y + 7.2], brokenLines(text, wide - 2.4, 3.2)[0]!, 3.2, { isBold: true }),
  ];
  const columns = [split, split + (right - split) / 2];
  const half = (right - split) / 2;
  return [
    areaMark('outline', [
      [
        [left, top],
        [right, top],
        [right, bottom],
        [left, bottom],
      ],
    ]),
    lineMark('outline', [split, top], [split, bottom]),
    lineMark('dimension', [left, middle], [right, middle]),
    lineMark('dimension', [columns[1]!, middle], [columns[1]!, bottom]),
    ...cell(left, top, 'System', title.system, split - left),
    ...checkBar([left + 3, middle + 1.6], 'below'),
    ...cell(split, top, 'Sheet', title.sheet, right - split),
    ...cell(split, middle, `Revision ${title.revision}, ${title.units}`, title.date, half),
    ...cell(columns[1]!, middle, 'Page', page, half),
  ];
}
