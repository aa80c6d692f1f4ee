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

/** Tanks side by side to one scale, leaning as they stand, with their liquid; the picture keeps its size meanwhile. */
export function levelsDrawing(tanks: readonly LevelTank[], { title, room, views, viewNames }: LevelsLook): Drawing {
  const reaches = tanks.map((tank) => views.map((view) => reachOf(tank.drawing, view, tank.most_deg[view])));
  const tall = Math.max(...reaches.flat().map(({ height_m }) => height_m));
  const cells = tanks.length * views.length;
  const free_mm = Math.max(LEAST_MM, room.width_mm - 2 * MARGIN_MM - GAP_MM * (cells - 1));
  const most_mm = Math.max(LEAST_MM, room.height_mm - HEAD_MM - FOOT_MM);
  const mmPerM = Math.min(
    scaleFor(
      reaches.flat().map(({ width_m }) => width_m),
      free_mm,
    ),
    most_mm / tall,
  );
  const widthOf = (width_m: number): number => Math.max(LEAST_MM, width_m * mmPerM);
  const used_mm = reaches.flat().reduce((sum, { width_m }) => sum + widthOf(width_m), 0);
  const spare_mm = Math.max(0, free_mm - used_mm) / cells;
  const base = HEAD_MM + tall * mmPerM;
  const marks: Mark[] = [];
  let [left, rows] = [MARGIN_MM, 1];
  for (const [t, tank] of tanks.entries()) {
    const begins = left;
    for (const [v, view] of views.entries()) {
      const width = widthOf(reaches[t]![v]!.width_m) + spare_mm;
      const centre = [left + width / 2, HEAD_MM + (tall * mmPerM) / 2] as const;
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
    rows = Math.max(rows, words.length);
    const first = base + ROW_MM * (views.length > 1 ? 2 : 1);
    for (const [row, text] of words.entries())
      marks.push(
        textMark([begins + room_mm / 2, first + row * ROW_MM], text, TEXT_MM, { anchor: 'middle', isBold: true }),
      );
  }
  return { title, width_mm: room.width_mm, height_mm: base + (rows + (views.length > 1 ? 1 : 0)) * ROW_MM + 2, marks };
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
