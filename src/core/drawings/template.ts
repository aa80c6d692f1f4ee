import type { Point2 } from '../geometry';
import { checkBar, CHECK_BAR_MM, circleMark, lineMark, textMark, type Drawing, type Mark, type Place } from './drawing';

/** A flat outline to be cut out, with what is said on it. */
export type TemplateSheet = {
  readonly title: string;
  /** The first loop is the outline, the others are holes [m]. */
  readonly loops: readonly (readonly Point2[])[];
  readonly circles: readonly { readonly name: string; readonly at_m: Point2; readonly diameter_m: number }[];
  /** Lines of text under the outline. */
  readonly notes: readonly string[];
};

const MM = 1000;
/** White round an outline [mm]. */
export const TEMPLATE_MARGIN_MM = 15;
const LINE_MM = 6;
/** A letter stands so far inward from its corner, and a cross reaches so far out of its hole [mm]. */
const INWARD_MM = 6;
const CROSS_MM = 3;

/** Corners by letters: A to Z, then A2 to Z2 and so on. */
export const cornerLetter = (index: number): string =>
  `${String.fromCharCode(65 + (index % 26))}${index < 26 ? '' : Math.floor(index / 26) + 1}`;

/** Edges, letters of the corners and holes of a template at true size, from its upper left corner. */
function outlineMarks(
  { loops, circles }: Pick<TemplateSheet, 'loops' | 'circles'>,
  tall: number,
  isLettered = true,
): Mark[] {
  const outline = loops[0] ?? [];
  const place = ([u, v]: Point2): Place => [TEMPLATE_MARGIN_MM + u * MM, TEMPLATE_MARGIN_MM + tall - v * MM];
  const middle = outline.reduce<Place>(
    ([x, y], point) => [x + place(point)[0] / outline.length, y + place(point)[1] / outline.length],
    [0, 0],
  );
  return [
    { kind: 'area', loops: loops.map((loop) => loop.map(place)), line: 'outline' },
    ...(isLettered ? outline : []).map((point, i) => {
      const [x, y] = place(point);
      const away = Math.hypot(middle[0] - x, middle[1] - y) || 1;
      const inward: Place = [x + (INWARD_MM * (middle[0] - x)) / away, y + (INWARD_MM * (middle[1] - y)) / away + 1.4];
      return textMark(inward, cornerLetter(i), 4, { anchor: 'middle' });
    }),
    ...circles.flatMap(({ name, at_m, diameter_m }) => {
      const [x, y] = place(at_m);
      const r = (diameter_m * MM) / 2;
      return [
        circleMark('outline', [x, y], r),
        lineMark('centre', [x - r - CROSS_MM, y], [x + r + CROSS_MM, y]),
        lineMark('centre', [x, y - r - CROSS_MM], [x, y + r + CROSS_MM]),
        textMark([x + r + CROSS_MM + 1, y - 1], name, 3.5),
      ];
    }),
  ];
}

/** How wide and high an outline is [mm]. */
const spanOf = (loops: TemplateSheet['loops']): Place =>
  [0, 1].map((k) => Math.max(0, ...(loops[0] ?? []).map((point) => point[k]! * MM))) as [number, number];

/** The outline alone at true size, with white round it: what is parted for paper smaller than it. */
export function templateOutline({ title, loops, circles }: Omit<TemplateSheet, 'notes'>, isLettered: boolean): Drawing {
  const [wide, tall] = spanOf(loops);
  return {
    title,
    width_mm: wide + 2 * TEMPLATE_MARGIN_MM,
    height_mm: tall + 2 * TEMPLATE_MARGIN_MM,
    marks: outlineMarks({ loops, circles }, tall, isLettered),
  };
}

/** A template to be cut in card, at true size. */
export function templateDrawing({ title, loops, circles, notes }: TemplateSheet): Drawing {
  const [wide, tall] = spanOf(loops);
  const foot = TEMPLATE_MARGIN_MM + tall + 2 * LINE_MM;
  return {
    title,
    width_mm: Math.max(wide, CHECK_BAR_MM) + 2 * TEMPLATE_MARGIN_MM,
    height_mm: foot + (notes.length + 3) * LINE_MM + TEMPLATE_MARGIN_MM,
    marks: [
      ...outlineMarks({ loops, circles }, tall),
      textMark([TEMPLATE_MARGIN_MM, foot], title, 5),
      ...notes.map((note, i) => textMark([TEMPLATE_MARGIN_MM, foot + (i + 1) * LINE_MM], note)),
      ...checkBar([TEMPLATE_MARGIN_MM, foot + (notes.length + 1.6) * LINE_MM], 'above'),
    ],
  };
}
