/** A place on a sheet [mm]: to the right and down from its upper left corner. */
export type Place = readonly [number, number];

/**
 * What a line stands for, and so how it is drawn: what is cut is wide, what only helps is narrow. Common practice. The
 * kinds of things in a space are told apart by dash and weight as well as by colour.
 */
export const LINES = {
  /** Takes a press and is not seen. */ none: { width_mm: 0, dashes_mm: [] },
  /** Edges to be cut. */ outline: { width_mm: 0.35, dashes_mm: [] },
  /** Edges that lie behind. */ hidden: { width_mm: 0.25, dashes_mm: [3, 1.5] },
  /** Middles of holes. */ centre: { width_mm: 0.2, dashes_mm: [] },
  /** Distances between edges. */ dimension: { width_mm: 0.2, dashes_mm: [] },
  /** Marks of a scale: those that carry a value, and those between. */
  mark: { width_mm: 0.5, dashes_mm: [] },
  between: { width_mm: 0.3, dashes_mm: [] },
  /** From words to what they name. */ leader: { width_mm: 0.2, dashes_mm: [] },
  /** Metal of a tank, and plates in it, where they are cut. */ metal: { width_mm: 0.8, dashes_mm: [] },
  plate: { width_mm: 0.65, dashes_mm: [] },
  /** Plates behind a sheet. */ behind: { width_mm: 0.55, dashes_mm: [2.6, 1.6] },
  /** Where liquid ends. */ surface: { width_mm: 0.4, dashes_mm: [] },
  /** Things on or in a tank, and those that will not do where they are. */ thing: { width_mm: 0.45, dashes_mm: [] },
  fine: { width_mm: 0.3, dashes_mm: [] },
  wrong: { width_mm: 0.5, dashes_mm: [1.6, 0.8] },
  /** What is looked at, and what helps to move it. */ chosen: { width_mm: 0.8, dashes_mm: [] },
  guide: { width_mm: 0.4, dashes_mm: [0.8, 1] },
  /** What a float sweeps. */ travel: { width_mm: 0.35, dashes_mm: [1.6, 1.3] },
  /** What stands over a sheet. */ over: { width_mm: 0.26, dashes_mm: [0.5, 1] },
  /** A gap that is kept, and one that is not. */ kept: { width_mm: 0.6, dashes_mm: [] },
  tight: { width_mm: 0.6, dashes_mm: [] },
  /** A space: its sides, and what stands in it. */
  open: { width_mm: 0.26, dashes_mm: [0.5, 1.3] },
  removable: { width_mm: 0.66, dashes_mm: [3.7, 1] },
  tank: { width_mm: 0.66, dashes_mm: [] },
  standing: { width_mm: 0.32, dashes_mm: [] },
  obstacle: { width_mm: 0.42, dashes_mm: [] },
  fixing: { width_mm: 0.42, dashes_mm: [2.6, 0.8, 0.5, 0.8] },
  heat: { width_mm: 0.42, dashes_mm: [] },
  spray: { width_mm: 0.42, dashes_mm: [1.6, 0.8] },
  occupied: { width_mm: 0.42, dashes_mm: [2.1, 0.8] },
  reach: { width_mm: 0.42, dashes_mm: [] },
  swept: { width_mm: 0.26, dashes_mm: [1, 0.8] },
  /** Lines of circuits, by purpose. */
  feed: { width_mm: 0.8, dashes_mm: [] },
  return: { width_mm: 0.8, dashes_mm: [2.6, 1.6] },
  transfer: { width_mm: 0.8, dashes_mm: [0.6, 1.3] },
  fill: { width_mm: 0.8, dashes_mm: [3.7, 1, 0.6, 1] },
  vent: { width_mm: 0.5, dashes_mm: [1.3, 1.3] },
  overflow: { width_mm: 0.5, dashes_mm: [0.8, 2.1] },
} as const satisfies Readonly<Record<string, { readonly width_mm: number; readonly dashes_mm: readonly number[] }>>;
export type LineRole = keyof typeof LINES;

/** What an area is of; on paper each is a shade of grey, or hatched, or left white. */
export const FILLS = {
  none: 'none',
  sheet: 'white',
  paper: 'white',
  liquid: '#d9d9d9',
  metal: '#808080',
  solid: 'black',
  hatch: 'hatch',
  tank: '#ececec',
  obstacle: '#f4f4f4',
  heat: '#e2e2e2',
  reach: '#efefef',
  moving: '#cfcfcf',
} as const;
export type FillRole = keyof typeof FILLS;

export type Tone = 'plain' | 'soft' | 'accent' | 'bad' | 'good';

export type Anchor = 'start' | 'middle' | 'end';

/**
 * One thing on a sheet: a line through points; an area, its first loop the
 * outline and the others holes; an arc, a whole turn where it ends as it
 * begins (degrees from the right, clockwise as on the page); or words, from
 * the foot of their letters.
 */
export type Mark = { /** What of the system it shows, by its id. */ readonly of?: string } & (
  | {
      readonly kind: 'line';
      readonly points: readonly Place[];
      readonly line: LineRole;
      /** Where it is as wide as what it stands for. */ readonly width_mm?: number;
      /** Something goes this way along it; both for a length between its ends. */
      readonly arrow?: 'end' | 'start' | 'both';
    }
  | {
      readonly kind: 'area';
      readonly loops: readonly (readonly Place[])[];
      readonly line: LineRole;
      readonly fill?: FillRole;
      readonly title?: string;
    }
  | {
      readonly kind: 'arc';
      readonly at: Place;
      readonly radius_mm: number;
      readonly from_deg: number;
      readonly to_deg: number;
      readonly line: LineRole;
      readonly fill?: FillRole;
    }
  | {
      readonly kind: 'text';
      readonly at: Place;
      readonly text: string;
      readonly size_mm: number;
      readonly anchor: Anchor;
      readonly isBold: boolean;
      readonly tone?: Tone;
      /** Turned about its place, clockwise as on the page. */ readonly turn_deg?: number;
    }
);

/** A mark of one kind. */
export type Of<K extends Mark['kind']> = Extract<Mark, { kind: K }>;

/** A sheet at true size, from which screen, SVG and paper are written. */
export type Drawing = {
  readonly title: string;
  readonly width_mm: number;
  readonly height_mm: number;
  readonly marks: readonly Mark[];
};

/** A line through places. */
export const lineMark = (line: LineRole, ...points: readonly Place[]): Mark => ({ kind: 'line', points, line });
/** A whole circle [mm]. */
export const circleMark = (line: LineRole, at: Place, radius_mm: number, fill?: FillRole): Mark => ({
  kind: 'arc',
  at,
  radius_mm,
  from_deg: 0,
  to_deg: 360,
  line,
  ...(fill ? { fill } : {}),
});
/** An area, its first loop the outline. */
export const areaMark = (line: LineRole, loops: readonly (readonly Place[])[], fill?: FillRole): Mark => ({
  kind: 'area',
  loops,
  line,
  ...(fill ? { fill } : {}),
});
/** Words, from the foot of their letters; letters so high [mm]. */
export const textMark = (
  at: Place,
  text: string,
  size_mm = 4,
  {
    anchor = 'start',
    isBold = false,
    tone,
    turn_deg,
  }: { readonly anchor?: Anchor; readonly isBold?: boolean; readonly tone?: Tone; readonly turn_deg?: number } = {},
): Mark => ({
  kind: 'text',
  at,
  text,
  size_mm,
  anchor,
  isBold,
  ...(tone ? { tone } : {}),
  ...(turn_deg ? { turn_deg } : {}),
});
/** The same marks, as what shows one thing. */
export const ofThing = (of: string, marks: readonly Mark[]): Mark[] => marks.map((mark) => ({ ...mark, of }));

/** The same marks somewhere else on a sheet. */
export function shifted(marks: readonly Mark[], [dx, dy]: Place): Mark[] {
  const move = ([x, y]: Place): Place => [x + dx, y + dy];
  return marks.map((mark): Mark => {
    switch (mark.kind) {
      case 'line':
        return { ...mark, points: mark.points.map(move) };
      case 'area':
        return { ...mark, loops: mark.loops.map((loop) => loop.map(move)) };
      case 'arc':
      case 'text':
        return { ...mark, at: move(mark.at) };
    }
  });
}

/** A bar to lay a rule against [mm]: paper shrinks, and printers fit to the page. */
export const CHECK_BAR_MM = 100;

/** The bar with what it says, from its left end. */
export const checkBar = ([x, y]: Place, side: 'above' | 'below'): Mark[] => [
  lineMark('outline', [x, y], [x, y + 2], [x + CHECK_BAR_MM, y + 2], [x + CHECK_BAR_MM, y]),
  textMark(
    [x, side === 'above' ? y - 1.2 : y + 6],
    `This bar is ${CHECK_BAR_MM} mm long when the sheet is at true size.`,
    3,
  ),
];

/** Of a letter's height: what letters take on average in width. From memory, of sans-serif faces; on the safe side. */
export const LETTER_RATIO = 0.55;
const RISE_RATIO = 0.75;
const FALL_RATIO = 0.25;

export type Box = { readonly min: Place; readonly max: Place };

/** How wide a mark's line is drawn [mm]. */
export const widthOf = (mark: Of<'line' | 'area' | 'arc'>): number =>
  (mark.kind === 'line' ? mark.width_mm : undefined) ?? LINES[mark.line].width_mm;

/** The box round a mark, half the width of its line included; of words as wide as letters are on average. */
export function markBox(mark: Mark): Box {
  if (mark.kind === 'text') {
    const wide = mark.text.length * mark.size_mm * LETTER_RATIO;
    const left = mark.anchor === 'start' ? 0 : mark.anchor === 'middle' ? -wide / 2 : -wide;
    const turn = ((mark.turn_deg ?? 0) * Math.PI) / 180;
    const corners = [left, left + wide].flatMap((x) =>
      [-RISE_RATIO * mark.size_mm, FALL_RATIO * mark.size_mm].map((y): Place => [
        mark.at[0] + x * Math.cos(turn) - y * Math.sin(turn),
        mark.at[1] + x * Math.sin(turn) + y * Math.cos(turn),
      ]),
    );
    const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
    return { min: [Math.min(...xs), Math.min(...ys)], max: [Math.max(...xs), Math.max(...ys)] };
  }
  const half = widthOf(mark) / 2;
  const points = mark.kind === 'line' ? mark.points : mark.kind === 'area' ? mark.loops.flat() : arcExtremes(mark);
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return {
    min: [Math.min(...xs) - half, Math.min(...ys) - half],
    max: [Math.max(...xs) + half, Math.max(...ys) + half],
  };
}

/** A place on a circle, by its angle from the right, clockwise as on the page. */
export const onCircle = ([x, y]: Place, radius_mm: number, angle_deg: number): Place => [
  x + radius_mm * Math.cos((angle_deg * Math.PI) / 180),
  y + radius_mm * Math.sin((angle_deg * Math.PI) / 180),
];

/** Ends of an arc, and the places between at which it turns back. */
function arcExtremes({ at, radius_mm, from_deg, to_deg }: Of<'arc'>): Place[] {
  const first = Math.ceil(from_deg / 90);
  const turns = Array.from({ length: Math.max(0, Math.floor(to_deg / 90) - first + 1) }, (_, i) => 90 * (first + i));
  return [from_deg, ...turns, to_deg].map((angle) => onCircle(at, radius_mm, angle));
}
