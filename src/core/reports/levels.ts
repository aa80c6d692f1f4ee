import type { TankDrawing } from '../answers';
import { markBox, textMark, type Drawing, type Mark } from '../drawings';
import { SMALL_TEXT_MM, TEXT_MM, type Room } from './room';
import { viewMarks } from './section';

type LevelView = 'side' | 'end';

/** How far each view of a tank leans, anticlockwise. */
export type Turns = Readonly<Record<LevelView, number>>;

export type LevelTank = {
  readonly name: string;
  readonly drawing: TankDrawing;
  readonly turns_deg: Turns;
  /** The furthest that each view leans either way while it is looked at: room is kept for that. */
  readonly most_deg: Turns;
};

export type LevelsLook = {
  readonly title: string;
  readonly room: Room;
  readonly views: readonly LevelView[];
  /** Short ones: views may be narrow. */ readonly viewNames: Readonly<Record<LevelView, string>>;
};

const GAP_MM = 6;
const MARGIN_MM = 4;
/** Kept under views for a name of two rows; and a row. */
const FOOT_MM = 12;
const ROW_MM = 5;
/** Above a view for what stands on the lid. */
const HEAD_MM = 4;
/** Leans are looked through in steps of so much for the room that they take. */
const LEAN_STEP_DEG = 5;
/** A view takes at least so much, be it ever so small: what it is called stands under it. */
const LEAST_MM = 10;
/** With less room than this a view stands in a row further down. */
const USUAL_MM = 16;

/** Tanks side by side to one scale, leaning as they stand, with their liquid; the picture keeps its size meanwhile. */
export function levelsDrawing(tanks: readonly LevelTank[], { title, room, views, viewNames }: LevelsLook): Drawing {
  const reached = tanks.map((tank) => ({
    tank,
    reaches: views.map((view) => reachOf(tank.drawing, view, tank.most_deg[view])),
  }));
  // On a phone they stand in several rows.
  const abreast = Math.max(
    1,
    Math.floor((room.width_mm - 2 * MARGIN_MM + GAP_MM) / (views.length * (USUAL_MM + GAP_MM))),
  );
  const rows = Array.from({ length: Math.ceil(tanks.length / abreast) }, (_, row) =>
    reached.slice(row * abreast, (row + 1) * abreast),
  );
  const freeOf = (row: (typeof rows)[number]): number =>
    Math.max(LEAST_MM, room.width_mm - 2 * MARGIN_MM - GAP_MM * (row.length * views.length - 1));
  const widths = (row: (typeof rows)[number]): number[] =>
    row.flatMap(({ reaches }) => reaches.map((each) => each.width_m));
  const tallest = Math.max(...reached.flatMap(({ reaches }) => reaches.map(({ height_m }) => height_m)));
  const mmPerM = Math.min(
    ...rows.map((row) => scaleFor(widths(row), freeOf(row))),
    Math.max(LEAST_MM, room.height_mm - HEAD_MM - FOOT_MM) / tallest,
  );
  const marks: Mark[] = [];
  let top = 0;
  for (const row of rows) {
    const drawn = rowMarks(row, { views, viewNames, mmPerM, free_mm: freeOf(row), top });
    marks.push(...drawn.marks);
    top += drawn.height_mm;
  }
  return { title, width_mm: room.width_mm, height_mm: top, marks };
}

type Reach = { readonly width_m: number; readonly height_m: number };

/** One row of tanks, each with its views and its name under them. */
function rowMarks(
  row: readonly { readonly tank: LevelTank; readonly reaches: readonly Reach[] }[],
  at: Pick<LevelsLook, 'views' | 'viewNames'> & {
    readonly mmPerM: number;
    readonly free_mm: number;
    readonly top: number;
  },
): { readonly marks: Mark[]; readonly height_mm: number } {
  const { views, viewNames, mmPerM } = at;
  const widthOf = (width_m: number): number => Math.max(LEAST_MM, width_m * mmPerM);
  const all = row.flatMap(({ reaches }) => reaches);
  const used_mm = all.reduce((sum, { width_m }) => sum + widthOf(width_m), 0);
  const spare_mm = Math.max(0, at.free_mm - used_mm) / all.length;
  const tall_mm = Math.max(...all.map(({ height_m }) => height_m)) * mmPerM;
  const base = at.top + HEAD_MM + tall_mm;
  const marks: Mark[] = [];
  let [left, lines] = [MARGIN_MM, 1];
  for (const { tank, reaches } of row) {
    const begins = left;
    for (const [v, view] of views.entries()) {
      const width = widthOf(reaches[v]!.width_m) + spare_mm;
      const centre = [left + width / 2, at.top + HEAD_MM + tall_mm / 2] as const;
      const frame =
        view === 'side'
          ? ({ across: 0, upward: 2, mirror: 1, turn_deg: tank.turns_deg.side, centre } as const)
          : ({ across: 1, upward: 2, mirror: -1, turn_deg: tank.turns_deg.end, centre } as const);
      marks.push(...viewMarks(tank.drawing, view, frame, mmPerM, { grips: [] }).marks);
      if (views.length > 1)
        marks.push(
          textMark([centre[0], base + ROW_MM], viewNames[view], SMALL_TEXT_MM, { anchor: 'middle', tone: 'soft' }),
        );
      left += width + GAP_MM;
    }
    const room_mm = left - GAP_MM - begins;
    const words = rowsOf(tank.name, room_mm);
    lines = Math.max(lines, words.length);
    const first = base + ROW_MM * (views.length > 1 ? 2 : 1);
    for (const [line, text] of words.entries())
      marks.push(
        textMark([begins + room_mm / 2, first + line * ROW_MM], text, TEXT_MM, { anchor: 'middle', isBold: true }),
      );
  }
  return { marks, height_mm: HEAD_MM + tall_mm + (lines + (views.length > 1 ? 1 : 0)) * ROW_MM + 2 };
}

/** The scale at which views fill a width, those that would be less than the least taking that. */
function scaleFor(widths_m: readonly number[], free_mm: number): number {
  let wide = [...widths_m].sort((a, b) => a - b);
  let left_mm = free_mm;
  for (;;) {
    const scale = left_mm / wide.reduce((sum, width) => sum + width, 0);
    const [least, ...rest] = wide as [number, ...number[]];
    if (rest.length === 0 || least * scale >= LEAST_MM || left_mm <= LEAST_MM * wide.length) return scale;
    [wide, left_mm] = [rest, left_mm - LEAST_MM];
  }
}

/** A name in rows that are no wider than there is room, as far as its words can be parted. */
function rowsOf(name: string, room_mm: number): string[] {
  const rows: string[] = [];
  for (const word of name.split(' ')) {
    const longer = rows.length === 0 ? word : `${rows.at(-1)} ${word}`;
    const wide = markBox(textMark([0, 0], longer, TEXT_MM, { isBold: true })).max[0];
    if (rows.length > 0 && wide <= room_mm + GAP_MM / 2) rows[rows.length - 1] = longer;
    else rows.push(word);
  }
  return rows;
}

/** What a view takes up at any lean up to the furthest [m]. */
function reachOf({ bounds: { min, max } }: TankDrawing, view: LevelView, most_deg: number) {
  const wide = view === 'side' ? max[0] - min[0] : max[1] - min[1];
  const tall = max[2] - min[2];
  let [width_m, height_m] = [wide, tall];
  for (let lean = 0; lean <= Math.abs(most_deg); lean += LEAN_STEP_DEG) {
    const angle = (Math.min(lean + LEAN_STEP_DEG, Math.abs(most_deg)) * Math.PI) / 180;
    const [sin, cos] = [Math.abs(Math.sin(angle)), Math.abs(Math.cos(angle))];
    width_m = Math.max(width_m, wide * cos + tall * sin);
    height_m = Math.max(height_m, tall * cos + wide * sin);
  }
  return { width_m, height_m };
}
