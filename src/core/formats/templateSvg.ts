import type { Point2 } from '../geometry';

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
const MARGIN_MM = 15;
const LINE_MM = 6;
/** A bar to lay a rule against: paper shrinks, and printers fit to the page. */
const BAR_MM = 100;

/** Corners by letters: A to Z, then A2 to Z2 and so on. */
export const cornerLetter = (index: number): string =>
  `${String.fromCharCode(65 + (index % 26))}${index < 26 ? '' : Math.floor(index / 26) + 1}`;

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
const mm = (value: number): string => Number(value.toFixed(3)).toString();

/**
 * A template at true size: one unit of the drawing is one millimetre.
 * @source W3C, Scalable Vector Graphics (SVG) 1.1, sections 7.2 and 7.7: width and height with units beside a viewBox
 */
export function templateSvg({ title, loops, circles, notes }: TemplateSheet): string {
  const outline = loops[0] ?? [];
  const [wide, tall] = [0, 1].map((k) => Math.max(0, ...outline.map((point) => point[k]! * MM))) as [number, number];
  const place = ([u, v]: Point2): [number, number] => [MARGIN_MM + u * MM, MARGIN_MM + tall - v * MM];
  const width = Math.max(wide, BAR_MM) + 2 * MARGIN_MM;
  const foot = MARGIN_MM + tall + 2 * LINE_MM;
  const height = foot + (notes.length + 3) * LINE_MM + MARGIN_MM;
  const path = loops
    .map((loop) => `${loop.map((point, i) => `${i === 0 ? 'M' : 'L'}${place(point).map(mm).join(' ')}`).join('')}Z`)
    .join('');
  const middle = outline.reduce<[number, number]>(
    ([x, y], point) => [x + place(point)[0] / outline.length, y + place(point)[1] / outline.length],
    [0, 0],
  );
  const text = (x: number, y: number, words: string, size = 4, anchor = 'start'): string =>
    `<text x="${mm(x)}" y="${mm(y)}" font-size="${size}" text-anchor="${anchor}">${escaped(words)}</text>`;
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(width)}mm" height="${mm(height)}mm" viewBox="0 0 ${mm(width)} ${mm(height)}" font-family="sans-serif" fill="black">`,
    `<title>${escaped(title)}</title>`,
    `<path d="${path}" fill="none" stroke="black" stroke-width="0.35"/>`,
    ...outline.map((point, i) => {
      const [x, y] = place(point);
      const inward = Math.hypot(middle[0] - x, middle[1] - y) || 1;
      return text(
        x + (6 * (middle[0] - x)) / inward,
        y + (6 * (middle[1] - y)) / inward + 1.4,
        cornerLetter(i),
        4,
        'middle',
      );
    }),
    ...circles.flatMap(({ name, at_m, diameter_m }) => {
      const [x, y] = place(at_m);
      const r = (diameter_m * MM) / 2;
      return [
        `<circle cx="${mm(x)}" cy="${mm(y)}" r="${mm(r)}" fill="none" stroke="black" stroke-width="0.35"/>`,
        `<path d="M${mm(x - r - 3)} ${mm(y)}H${mm(x + r + 3)}M${mm(x)} ${mm(y - r - 3)}V${mm(y + r + 3)}" fill="none" stroke="black" stroke-width="0.2"/>`,
        text(x + r + 4, y - 1, name, 3.5),
      ];
    }),
    text(MARGIN_MM, foot, title, 5),
    ...notes.map((note, i) => text(MARGIN_MM, foot + (i + 1) * LINE_MM, note)),
    `<path d="M${MARGIN_MM} ${mm(foot + (notes.length + 1.6) * LINE_MM)}v2h${BAR_MM}v-2" fill="none" stroke="black" stroke-width="0.35"/>`,
    text(
      MARGIN_MM,
      foot + (notes.length + 1.4) * LINE_MM,
      `This bar is ${BAR_MM} mm long when the sheet is at true size.`,
      3.5,
    ),
    '</svg>',
  ].join('\n');
}
