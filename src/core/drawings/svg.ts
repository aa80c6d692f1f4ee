import { FILLS, LINES, onCircle, widthOf, type Drawing, type Mark, type Of, type Place } from './drawing';

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
const mm = (value: number): string => Number(value.toFixed(3)).toString();
const at = ([x, y]: Place): string => `${mm(x)} ${mm(y)}`;
const through = (points: readonly Place[]): string =>
  points.map((point, i) => `${i === 0 ? 'M' : 'L'}${at(point)}`).join('');

function stroke(mark: Of<'line' | 'area' | 'arc'>): string {
  const { dashes_mm } = LINES[mark.line];
  const fill = mark.kind === 'line' ? undefined : mark.fill;
  const filled = FILLS[fill ?? 'none'];
  const dashes = dashes_mm.length > 0 ? ` stroke-dasharray="${dashes_mm.join(' ')}"` : '';
  const inside = filled === 'hatch' ? 'url(#hatch)' : filled;
  return `fill="${inside}" stroke="${mark.line === 'none' ? 'none' : 'black'}" stroke-width="${mm(widthOf(mark))}"${dashes}`;
}

const HATCH =
  '<defs><pattern id="hatch" width="2.4" height="2.4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><line x1="0" y1="0" x2="0" y2="2.4" stroke="black" stroke-width="0.2"/></pattern></defs>';

/** The head of an arrow at a place, coming from another [mm]. */
const HEAD_MM = { long: 2.4, half: 0.9 };
/** The three corners of an arrow's head at a place, come from another [mm]. */
export function arrowHead([x, y]: Place, from: Place): Place[] {
  const long = Math.hypot(x - from[0], y - from[1]) || 1;
  const [ux, uy] = [(x - from[0]) / long, (y - from[1]) / long];
  const [bx, by] = [x - HEAD_MM.long * ux, y - HEAD_MM.long * uy];
  return [
    [x, y],
    [bx - HEAD_MM.half * uy, by + HEAD_MM.half * ux],
    [bx + HEAD_MM.half * uy, by - HEAD_MM.half * ux],
  ];
}

/** The heads of a line's arrows. */
export function headsOf({ points, arrow }: Of<'line'>): Place[][] {
  const [first, second, before, tip] = [points[0], points[1], points.at(-2), points.at(-1)];
  if (!arrow || !first || !second || !before || !tip) return [];
  return [
    ...(arrow === 'start' ? [] : [arrowHead(tip, before)]),
    ...(arrow === 'end' ? [] : [arrowHead(first, second)]),
  ];
}

function written(mark: Mark): string {
  switch (mark.kind) {
    case 'line': {
      const heads = headsOf(mark).map((head) => `<path d="${through(head)}Z" fill="black"/>`);
      return `<path d="${through(mark.points)}" ${stroke(mark)}/>${heads.join('')}`;
    }
    case 'area':
      return `<path d="${mark.loops.map((loop) => `${through(loop)}Z`).join('')}" fill-rule="evenodd" ${stroke(mark)}/>`;
    case 'arc': {
      const { radius_mm: r, from_deg, to_deg } = mark;
      if (to_deg - from_deg >= 360)
        return `<circle cx="${mm(mark.at[0])}" cy="${mm(mark.at[1])}" r="${mm(r)}" ${stroke(mark)}/>`;
      return `<path d="${arcPath(mark)}" ${stroke(mark)}/>`;
    }
    case 'text': {
      const turn = turnOf(mark);
      return `<text x="${mm(mark.at[0])}" y="${mm(mark.at[1])}"${turn ? ` transform="${turn}"` : ''} font-size="${mark.size_mm}" text-anchor="${mark.anchor}"${mark.isBold ? ' font-weight="700"' : ''}>${escaped(mark.text)}</text>`;
    }
  }
}

/** How words are turned about their place, as SVG has it. */
export const turnOf = ({ turn_deg, at: [x, y] }: Of<'text'>): string | undefined =>
  turn_deg ? `rotate(${mm(turn_deg)} ${mm(x)} ${mm(y)})` : undefined;

/** Straight lines through places, as the data of a path. */
export const pathOf = (loops: readonly (readonly Place[])[], isClosed: boolean): string =>
  loops.map((loop) => `${through(loop)}${isClosed ? 'Z' : ''}`).join('');

/** An arc that is no whole turn, as the data of a path. */
export function arcPath({ at: middle, radius_mm: r, from_deg, to_deg }: Of<'arc'>): string {
  const [from, to] = [from_deg, to_deg].map((angle) => onCircle(middle, r, angle)) as [Place, Place];
  return `M${at(from)}A${mm(r)} ${mm(r)} 0 ${to_deg - from_deg > 180 ? 1 : 0} 1 ${at(to)}`;
}

/**
 * A drawing at true size: one unit of it is one millimetre.
 * @source W3C, Scalable Vector Graphics (SVG) 1.1, sections 7.2 and 7.7: width and height with units beside a viewBox;
 * section 8.3.8 for arcs
 */
export const drawingSvg = ({ title, width_mm, height_mm, marks }: Drawing): string =>
  [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(width_mm)}mm" height="${mm(height_mm)}mm" viewBox="0 0 ${mm(width_mm)} ${mm(height_mm)}" font-family="sans-serif" fill="black">`,
    `<title>${escaped(title)}</title><rect width="100%" height="100%" fill="white"/>`,
    ...(marks.some((mark) => 'fill' in mark && mark.fill === 'hatch') ? [HATCH] : []),
    ...marks.filter((mark) => mark.kind === 'text' || mark.line !== 'none').map(written),
    '</svg>',
  ].join('\n');
