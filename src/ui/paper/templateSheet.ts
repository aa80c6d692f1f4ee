import type { Template } from '@/core/answers';
import { cornerLetter, OVERLAP_MM, TEMPLATE_MARGIN_MM, templateOutline, tilesOf, type Tile } from '@/core/drawings';
import {
  figureRoom,
  holeSizeWords,
  MOST_LETTERED,
  outlineDrawing,
  roundHoles,
  type Block,
  type PaperKey,
} from '@/core/reports';
import type { Write } from './sheets';

const MM = 1000;
/** Of a page: the outline with its pages, so that the checks begin below it. */
const KEY_SHARE = 0.4;

/** A face to be cut in card: its outline and what to hold a tape to, then the outline at true size, page by page. */
export function templateSheet(template: Template, title: string, paper: PaperKey, write: Write): Block[] {
  const isLettered = template.loops[0]!.length <= MOST_LETTERED;
  const circles = roundHoles(template.holes);
  const whole = templateOutline({ title, loops: template.loops, circles }, isLettered);
  const room = figureRoom(paper);
  const tiles = tilesOf(whole, room);
  const length = (value: number): string => write(value, 'tape');
  return [
    { kind: 'heading', text: title },
    {
      kind: 'text',
      text: `Cut the outline in card and hold it where the face will be, before metal is cut. If a number does not agree, the bay is not as measured: find out which. Outside of the sheet: add for folds, take off for corner welds.`,
    },
    {
      kind: 'figure',
      drawing: outlineDrawing(template, {
        title,
        room: { width_mm: room.width_mm, height_mm: room.height_mm * KEY_SHARE },
        length,
        pages: tiles.length > 1 ? tiles.map((tile) => pageOf(tile, template)) : [],
      }),
      caption:
        tiles.length > 1
          ? `${tiles.length} pages at true size follow. Neighbours share ${OVERLAP_MM} mm: lay joint line on joint line, and hold a rule to the bar of each page.`
          : 'A page at true size follows: hold a rule to its bar.',
    },
    checksTable(template, isLettered, length),
    ...(template.holes.length > 0 ? [holesTable(template, length)] : []),
    ...tiles.map(({ name, drawing }): Block => ({
      kind: 'figure',
      drawing,
      caption: tiles.length > 1 ? `${name} of ${title}, true size` : `${title}, true size`,
    })),
  ];
}

/** Where a page lies on the face, right and up from its lower left corner [m]. */
function pageOf({ name, window }: Tile, { width_m, height_m }: Template) {
  const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
  const right = (x: number): number => within((x - TEMPLATE_MARGIN_MM) / MM, width_m);
  const up = (y: number): number => within(height_m - (y - TEMPLATE_MARGIN_MM) / MM, height_m);
  return {
    name,
    min_m: [right(window.min[0]), up(window.max[1])] as const,
    max_m: [right(window.max[0]), up(window.min[1])] as const,
  };
}

/** What to hold a tape to: edges, what stands beside each, and lengths across. */
function checksTable(template: Template, isLettered: boolean, length: (value_m: number) => string): Block {
  const corners = ({ from, to }: { readonly from: number; readonly to: number }): string =>
    `${cornerLetter(from)} to ${cornerLetter(to)}`;
  return {
    kind: 'table',
    columns: [
      { title: 'check', share: 2, isBold: true },
      { title: 'length', share: 1.2, align: 'right', isBold: true },
      { title: 'beside it', share: 3 },
      { title: 'measured', share: 1.4 },
    ],
    rows: isLettered
      ? [
          ...template.edges.map((edge) => [
            corners(edge),
            length(edge.length_m),
            edge.gap ? `${length(edge.gap.distance_m)} to ${edge.gap.to}` : '',
            '',
          ]),
          ...template.diagonals.map((across) => [`${corners(across)}, across`, length(across.length_m), '', '']),
        ]
      : [
          ['overall width', length(template.width_m), '', ''],
          ['overall height', length(template.height_m), '', ''],
        ],
  };
}

const holesTable = ({ holes }: Template, length: (value_m: number) => string): Block => ({
  kind: 'table',
  columns: [
    { title: '#', share: 0.5, align: 'right', isBold: true },
    { title: 'hole', share: 2.4, isBold: true },
    { title: 'across', share: 1.2, align: 'right' },
    { title: 'from the left', share: 1.5, align: 'right' },
    { title: 'from below', share: 1.5, align: 'right' },
  ],
  rows: holes.map(({ name, at_m, size }, i) => [
    `${i + 1}`,
    name,
    holeSizeWords(size, length),
    length(at_m[0]),
    length(at_m[1]),
  ]),
});
