import {
  areaMark,
  labelled,
  lineMark,
  ofThing,
  textMark,
  type Drawing,
  type Mark,
  type Place,
  type Wish,
} from '../drawings';
import type { LineDocument } from '../plan';
import { SMALL_TEXT_MM, TEXT_MM } from './room';

/** Parts of all circuits as boxes, and lines between them, where a layout has put them [mm]. */
export type Placed = {
  readonly width_mm: number;
  readonly height_mm: number;
  readonly boxes: readonly {
    readonly id: string;
    readonly kind: 'tank' | 'component' | 'consumer';
    readonly rows: readonly string[];
    readonly at: Place;
    readonly width_mm: number;
    readonly height_mm: number;
    /** Pressure there, or how it stands. */ readonly note: string;
    /** Nothing passes it as it stands. */ readonly isShut: boolean;
  }[];
  readonly lines: readonly {
    readonly id: string;
    readonly purpose: LineDocument['purpose'];
    readonly points: readonly Place[];
    /** What flows, in words; empty where it is said already or not known. */ readonly flow: string;
    readonly isBack: boolean;
  }[];
};

const CORNER_MM = { tank: 0, component: 1.4, consumer: 3.4 } as const;
const ROW_MM = 4.7;

/** All circuits in one picture: flow on each line where it changes, pressure at each part. */
export function schematicDrawing(placed: Placed, title: string, chosen: string | undefined): Drawing {
  const marks: Mark[] = [];
  const wishes: Wish[] = [];
  for (const { id, purpose, points, flow, isBack } of placed.lines) {
    marks.push({
      // A line's role is its purpose: purposes are told apart by dash as well as by colour.
      ...lineMark(purpose, ...points),
      of: id,
      arrow: isBack ? 'start' : 'end',
      ...(id === chosen ? { width_mm: 1.3 } : {}),
    } as Mark);
    if (flow !== '')
      wishes.push({ text: flow, of: id, at: points[0]!, along: longest(points), size_mm: SMALL_TEXT_MM, isBold: true });
  }
  for (const box of placed.boxes) {
    const middle = box.at[0] + box.width_mm / 2;
    marks.push(
      ...ofThing(box.id, [
        {
          ...areaMark(
            box.isShut ? 'tight' : box.id === chosen ? 'chosen' : box.kind === 'tank' ? 'metal' : 'thing',
            [rounded(box, CORNER_MM[box.kind])],
            box.kind === 'tank' ? 'liquid' : 'paper',
          ),
        },
        ...box.rows.map((row, i) =>
          textMark([middle, box.at[1] + 5.8 + ROW_MM * i], row, TEXT_MM, { anchor: 'middle', isBold: true }),
        ),
        textMark([middle, box.at[1] + box.height_mm - 2.3], box.note, SMALL_TEXT_MM, {
          anchor: 'middle',
          isBold: box.isShut,
          tone: box.isShut ? 'bad' : 'soft',
        }),
      ]),
    );
  }
  const sheet = { width_mm: placed.width_mm, height_mm: placed.height_mm };
  const blocks = placed.boxes.map(({ at, width_mm, height_mm }) => ({
    min: at,
    max: [at[0] + width_mm, at[1] + height_mm] as Place,
  }));
  const labels = labelled(marks, wishes, sheet, blocks);
  return { title, ...sheet, marks: [...marks, ...labels.marks] };
}

/** The longest stretch of a line. */
function longest(points: readonly Place[]): readonly [Place, Place] {
  const stretches = points.slice(1).map((to, i) => [points[i]!, to] as const);
  const long = ([a, b]: readonly [Place, Place]): number => Math.hypot(b[0] - a[0], b[1] - a[1]);
  return stretches.reduce((best, one) => (long(one) > long(best) ? one : best));
}

/** A box with round corners, as a loop. */
function rounded(
  {
    at: [x, y],
    width_mm: w,
    height_mm: h,
  }: { readonly at: Place; readonly width_mm: number; readonly height_mm: number },
  r: number,
): Place[] {
  const corners: readonly (readonly [number, number, number])[] = [
    [x + w - r, y + r, -90],
    [x + w - r, y + h - r, 0],
    [x + r, y + h - r, 90],
    [x + r, y + r, 180],
  ];
  return corners.flatMap(([cx, cy, from]): Place[] =>
    [0, 30, 60, 90].map((turn) => {
      const angle = ((from + turn) * Math.PI) / 180;
      return [cx + r * Math.cos(angle), cy + r * Math.sin(angle)];
    }),
  );
}
