import { checkBar, CHECK_BAR_MM, lineMark, textMark, type Drawing, type Mark } from './drawing';

/** A scale to be laid along a stick or tube: marks by their distance from its foot. */
export type Strip = {
  readonly title: string;
  readonly length_m: number;
  readonly marks: readonly { readonly at_m: number; readonly label: string; readonly isMain: boolean }[];
  readonly foot: string;
};

const MM = 1000;
/** A piece fits on a page of A4 or Letter with its margins. */
const PIECE_MM = 240;
const COLUMN_MM = 44;
const MARGIN_MM = 10;
const HEAD_MM = 12;

/** Pieces in which a strip is printed side by side, to be joined end to end. */
export const stripPieces = (length_m: number): number => Math.max(1, Math.ceil((length_m * MM) / PIECE_MM));

/**
 * A scale at true size. A long one is cut into pieces that stand side by side;
 * each begins where the one before ends, and both carry the letter of the joint.
 */
export function stripDrawing({ title, length_m, marks, foot }: Strip): Drawing {
  const pieces = stripPieces(length_m);
  const long = length_m * MM;
  const tall = Math.min(PIECE_MM, long);
  const column = (piece: number): Mark[] => {
    const from = piece * PIECE_MM;
    const to = Math.min(long, from + PIECE_MM);
    const x = MARGIN_MM + piece * COLUMN_MM;
    const y = (at: number): number => MARGIN_MM + HEAD_MM + tall - (at - from);
    const joint = (at: number): string => `joint ${String.fromCharCode(65 + Math.round(at / PIECE_MM) - 1)}`;
    const isHere = (at: number): boolean => at >= from - 1e-6 && (at < to || (to >= long && at <= to + 1e-6));
    return [
      lineMark('outline', [x + 16, y(from)], [x, y(from)], [x, y(to)], [x + 16, y(to)]),
      textMark([x + 17, y(from) - 0.5], from === 0 ? foot : joint(from), 3),
      ...(to < long ? [textMark([x + 17, y(to) + 3], joint(to), 3)] : []),
      ...marks
        .filter(({ at_m }) => isHere(at_m * MM))
        .flatMap(({ at_m, label, isMain }) => [
          lineMark(isMain ? 'mark' : 'between', [x, y(at_m * MM)], [x + (isMain ? 14 : 8), y(at_m * MM)]),
          ...(isMain ? [textMark([x + 15.5, y(at_m * MM) + 1.3], label, 4, { isBold: true })] : []),
        ]),
    ];
  };
  return {
    title,
    width_mm: Math.max(pieces * COLUMN_MM, CHECK_BAR_MM) + 2 * MARGIN_MM,
    height_mm: tall + 2 * MARGIN_MM + 2 * HEAD_MM,
    marks: [
      textMark([MARGIN_MM, MARGIN_MM + 4], title, 4.5, { isBold: true }),
      ...Array.from({ length: pieces }, (_, piece) => column(piece)).flat(),
      ...checkBar([MARGIN_MM, MARGIN_MM + HEAD_MM + tall + 8], 'below'),
    ],
  };
}
