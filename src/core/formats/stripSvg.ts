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
const BAR_MM = 100;

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
const mm = (value: number): string => Number(value.toFixed(3)).toString();

/** Pieces in which a strip is printed side by side, to be joined end to end. */
export const stripPieces = (length_m: number): number => Math.max(1, Math.ceil((length_m * MM) / PIECE_MM));

/**
 * A scale at true size: one unit of the drawing is one millimetre. A long one
 * is cut into pieces that stand side by side; each begins where the one before
 * ends, and both carry the letter of the joint.
 * @source W3C, Scalable Vector Graphics (SVG) 1.1, sections 7.2 and 7.7: width and height with units beside a viewBox
 */
export function stripSvg({ title, length_m, marks, foot }: Strip): {
  readonly svg: string;
  readonly width_mm: number;
  readonly height_mm: number;
} {
  const pieces = stripPieces(length_m);
  const tall = Math.min(PIECE_MM, length_m * MM);
  const width_mm = Math.max(pieces * COLUMN_MM, BAR_MM) + 2 * MARGIN_MM;
  const height_mm = tall + 2 * MARGIN_MM + 2 * HEAD_MM;
  const text = (x: number, y: number, words: string, size = 3.5, weight = 400): string =>
    `<text x="${mm(x)}" y="${mm(y)}" font-size="${size}" font-weight="${weight}">${escaped(words)}</text>`;
  const column = (piece: number): string => {
    const from = piece * PIECE_MM;
    const to = Math.min(length_m * MM, from + PIECE_MM);
    const x = MARGIN_MM + piece * COLUMN_MM;
    const y = (at: number): number => MARGIN_MM + HEAD_MM + tall - (at - from);
    const joint = (at: number): string => String.fromCharCode(65 + Math.round(at / PIECE_MM) - 1);
    return [
      `<path d="M${mm(x)} ${mm(y(from))}V${mm(y(to))}M${mm(x)} ${mm(y(from))}H${mm(x + 16)}M${mm(x)} ${mm(y(to))}H${mm(x + 16)}" fill="none" stroke="black" stroke-width="0.4"/>`,
      text(x + 17, y(from) - 0.5, from === 0 ? foot : `joint ${joint(from)}`, 3),
      ...(to < length_m * MM ? [text(x + 17, y(to) + 3, `joint ${joint(to)}`, 3)] : []),
      ...marks
        .filter(
          ({ at_m }) => at_m * MM >= from - 1e-6 && (at_m * MM < to || (to >= length_m * MM && at_m * MM <= to + 1e-6)),
        )
        .flatMap(({ at_m, label, isMain }) => [
          `<path d="M${mm(x)} ${mm(y(at_m * MM))}h${isMain ? 14 : 8}" stroke="black" stroke-width="${isMain ? 0.5 : 0.3}"/>`,
          ...(isMain ? [text(x + 15.5, y(at_m * MM) + 1.3, label, 4, 700)] : []),
        ]),
    ].join('');
  };
  const barY = MARGIN_MM + HEAD_MM + tall + 8;
  return {
    width_mm,
    height_mm,
    svg: [
      `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(width_mm)}mm" height="${mm(height_mm)}mm" viewBox="0 0 ${mm(width_mm)} ${mm(height_mm)}" font-family="sans-serif" fill="black">`,
      `<title>${escaped(title)}</title><rect width="100%" height="100%" fill="white"/>`,
      text(MARGIN_MM, MARGIN_MM + 4, title, 4.5, 700),
      ...Array.from({ length: pieces }, (_, piece) => column(piece)),
      `<path d="M${MARGIN_MM} ${mm(barY)}v2h${BAR_MM}v-2" fill="none" stroke="black" stroke-width="0.35"/>`,
      text(MARGIN_MM, barY + 6, `This bar is ${BAR_MM} mm long when the sheet is at true size.`, 3),
      '</svg>',
    ].join('\n'),
  };
}
