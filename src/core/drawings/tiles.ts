import {
  lineMark,
  markBox,
  onCircle,
  shifted,
  textMark,
  type Box,
  type Drawing,
  type Mark,
  type Place,
} from './drawing';

/** One page's part of a drawing at true size; columns are letters from the left, rows numbers from the top. */
export type Tile = { readonly name: string; readonly window: Box; readonly drawing: Drawing };

/** Neighbours share a strip so wide, in which both show the same [mm]. */
export const OVERLAP_MM = 10;
const LABEL_MM = 3;
/** A circle is drawn as so many sides: 0.02 mm off at a radius of 60 mm. */
const CIRCLE_SIDES = 120;

/** Where tiles begin along one direction [mm]. */
function starts(long_mm: number, room_mm: number): number[] {
  const pitch = room_mm - OVERLAP_MM;
  const count = Math.max(1, Math.ceil((long_mm - OVERLAP_MM) / pitch - 1e-9));
  return Array.from({ length: count }, (_, i) => i * pitch);
}

/**
 * A drawing at true size, parted for sheets of paper that are smaller. Neighbouring tiles overlap, with a joint line in
 * the middle of the strip: line laid on line, they are whole again. Tiles with nothing on them are left out. Words
 * stand on each tile that has room for the whole of them; none wider than the overlap is lost.
 * @param room what a tile may take [mm], larger than the overlap
 */
export function tilesOf(drawing: Drawing, room: { readonly width_mm: number; readonly height_mm: number }): Tile[] {
  const columns = starts(drawing.width_mm, room.width_mm);
  const rows = starts(drawing.height_mm, room.height_mm);
  const isOne = columns.length * rows.length === 1;
  const name = (c: number, r: number): string => `${columnLetters(c)}${r + 1}`;
  const parts = rows.flatMap((y, r) =>
    columns.map((x, c) => {
      const window: Box = {
        min: [x, y],
        max: [Math.min(x + room.width_mm, drawing.width_mm), Math.min(y + room.height_mm, drawing.height_mm)],
      };
      return { c, r, window, marks: drawing.marks.flatMap((mark) => clipped(mark, window)) };
    }),
  );
  const isThere = (c: number, r: number): boolean =>
    parts.some((part) => part.c === c && part.r === r && part.marks.length > 0);
  return parts
    .filter(({ c, r }) => isThere(c, r))
    .map(({ c, r, window, marks }) => {
      const [left, top] = window.min;
      const [wide, tall] = [window.max[0] - left, window.max[1] - top];
      const half = OVERLAP_MM / 2;
      const joints: Mark[] = [
        ...(isThere(c - 1, r) ? vertical(half, tall, name(c - 1, r)) : []),
        ...(isThere(c + 1, r) ? vertical(wide - half, tall, name(c + 1, r)) : []),
        ...(isThere(c, r - 1) ? horizontal(half, wide, name(c, r - 1)) : []),
        ...(isThere(c, r + 1) ? horizontal(tall - half, wide, name(c, r + 1)) : []),
      ];
      return {
        name: name(c, r),
        window,
        drawing: {
          title: isOne ? drawing.title : `${drawing.title}, ${name(c, r)}`,
          width_mm: wide,
          height_mm: tall,
          marks: [...shifted(marks, [-left, -top]), ...joints],
        },
      };
    });
}

/** A to Z, then AA to AZ and so on. */
const columnLetters = (c: number): string =>
  `${c < 26 ? '' : columnLetters(Math.floor(c / 26) - 1)}${String.fromCharCode(65 + (c % 26))}`;

const vertical = (x: number, tall: number, beyond: string): Mark[] => [
  lineMark('open', [x, 0], [x, tall]),
  textMark([x, tall / 2], beyond, LABEL_MM, { anchor: 'middle', tone: 'soft' }),
];

const horizontal = (y: number, wide: number, beyond: string): Mark[] => [
  lineMark('open', [0, y], [wide, y]),
  textMark([wide / 2, y - 0.6], beyond, LABEL_MM, { anchor: 'middle', tone: 'soft' }),
];

/** What of a mark lies in a window; outlines become lines, since a part of an area has other edges than it. */
function clipped(mark: Mark, window: Box): Mark[] {
  switch (mark.kind) {
    case 'text': {
      const { min, max } = markBox(mark);
      const isIn = min.every((value, k) => value >= window.min[k]!) && max.every((value, k) => value <= window.max[k]!);
      return isIn ? [mark] : [];
    }
    case 'line':
      return clippedLine(mark.points, window).map((points) => lineMark(mark.line, ...points));
    case 'area':
      return mark.loops.flatMap((loop) =>
        clippedLine([...loop, loop[0]!], window).map((points) => lineMark(mark.line, ...points)),
      );
    case 'arc': {
      const sides = Math.max(1, Math.ceil((CIRCLE_SIDES * (mark.to_deg - mark.from_deg)) / 360));
      const points = Array.from({ length: sides + 1 }, (_, i) =>
        onCircle(mark.at, mark.radius_mm, mark.from_deg + ((mark.to_deg - mark.from_deg) * i) / sides),
      );
      return clippedLine(points, window).map((each) => lineMark(mark.line, ...each));
    }
  }
}

/** The runs of a line that lie in a window. */
function clippedLine(points: readonly Place[], window: Box): Place[][] {
  const runs: Place[][] = [];
  for (let i = 1; i < points.length; i += 1) {
    const part = clippedSegment(points[i - 1]!, points[i]!, window);
    if (!part) continue;
    const last = runs.at(-1)?.at(-1);
    if (last && last[0] === part[0][0] && last[1] === part[0][1]) runs.at(-1)!.push(part[1]);
    else runs.push([...part]);
  }
  return runs;
}

/**
 * The part of a segment in a window; none where it only touches it.
 * @source Liang and Barsky, A new concept and method for line clipping, ACM Transactions on Graphics 3 (1984)
 */
function clippedSegment(from: Place, to: Place, { min, max }: Box): [Place, Place] | undefined {
  const step = [to[0] - from[0], to[1] - from[1]];
  let [enter, leave] = [0, 1];
  for (const k of [0, 1] as const) {
    if (step[k] === 0) {
      if (from[k] < min[k] || from[k] > max[k]) return undefined;
      continue;
    }
    const [a, b] = [(min[k] - from[k]) / step[k]!, (max[k] - from[k]) / step[k]!];
    enter = Math.max(enter, Math.min(a, b));
    leave = Math.min(leave, Math.max(a, b));
  }
  if (enter >= leave) return undefined;
  const at = (share: number): Place => [from[0] + share * step[0]!, from[1] + share * step[1]!];
  return [enter === 0 ? from : at(enter), leave === 1 ? to : at(leave)];
}
