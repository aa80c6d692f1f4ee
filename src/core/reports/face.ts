import type { FaceSheet, SheetPort } from '../answers';
import {
  areaMark,
  circleMark,
  cornerLetter,
  labelled,
  lineMark,
  ofThing,
  textMark,
  type Drawing,
  type Mark,
  type Place,
  type Wish,
} from '../drawings';
import type { Point2 } from '../geometry';
import { HIT_MM, ruleScale, SMALL_TEXT_MM, TEXT_MM, type Room } from './room';

export type FaceLook = {
  readonly title: string;
  readonly room: Room;
  /** A length as words. */ readonly length: (value_m: number) => string;
  /** The port whose distances from the edges are drawn. */ readonly chosen?: string | undefined;
  /** On paper it stands at a scale that a scale rule has. */ readonly isPaper?: boolean;
  /** Lines that a hole on its way is in line with. */
  readonly guides?: readonly { readonly along: 'u' | 'v'; readonly at_m: number }[];
};

/** A drawing, and what a place on its sheet is on the face. */
export type FaceDrawing = { readonly drawing: Drawing; readonly mmPerM: number };

/** Room round the face for what is said of it [mm]. */
export const PAD_MM = 11;
export const MOST_LETTERED = 16;
const LETTER_OFF_MM = 4.6;
const LEAST_MM = { hole: 0.5, screw: 0.35, hose: 1, plate: 0.5 } as const;
const CROSS_MM = 1.3;
const FOOT_MM = 0.9;

/** What a port's marks are of. */
export const portId = (id: string): string => `port:${id}`;

/** A face as it is seen from outside: edges, plates behind it, what stands over it, holes with what covers them. */
export function faceDrawing(sheet: FaceSheet, look: FaceLook): FaceDrawing {
  const { room, length } = look;
  const most = Math.min((room.width_mm - 2 * PAD_MM) / sheet.width_m, (room.height_mm - 2 * PAD_MM) / sheet.height_m);
  const mmPerM = look.isPaper ? 1000 / ruleScale(1000 / most) : most;
  const [width_mm, height_mm] = [room.width_mm, sheet.height_m * mmPerM + 2 * PAD_MM];
  const left = (width_mm - sheet.width_m * mmPerM) / 2;
  const place = ([u, v]: Point2): Place => [left + u * mmPerM, height_mm - PAD_MM - v * mmPerM];
  const outline = sheet.loops[0]!;
  const wishes: Wish[] = [];

  const marks: Mark[] = [
    areaMark(
      'metal',
      sheet.loops.map((loop) => loop.map(place)),
      'sheet',
    ),
  ];
  for (const { name, outline: over, least_m } of sheet.over) {
    marks.push({ ...areaMark('over', [over.map(place)], 'hatch'), of: `over:${name}` });
    const middle = over.reduce<Point2>(([a, b], [u, v]) => [a + u / over.length, b + v / over.length], [0, 0]);
    wishes.push({
      text: `${name}, ${length(least_m)} over it`,
      of: `over:${name}`,
      at: within(place(middle), width_mm, height_mm),
      inside: [within(place(middle), width_mm, height_mm)],
      size_mm: SMALL_TEXT_MM,
      tone: 'soft',
    });
  }
  for (const { name, from, to, thickness_m } of sheet.baffles) {
    const ends: [Place, Place] = [place(from), place(to)];
    marks.push({
      ...lineMark('behind', ...ends),
      width_mm: Math.max(LEAST_MM.plate, thickness_m * mmPerM),
      of: `plate:${name}`,
    } as Mark);
    wishes.push({ text: name, of: `plate:${name}`, at: ends[0], along: ends, size_mm: SMALL_TEXT_MM, tone: 'soft' });
  }
  for (const { along, at_m } of look.guides ?? []) {
    const [x, y] = place(along === 'v' ? [at_m, 0] : [0, at_m]);
    marks.push(
      along === 'v'
        ? lineMark('guide', [x, PAD_MM / 2], [x, height_mm - PAD_MM / 2])
        : lineMark('guide', [PAD_MM / 2, y], [width_mm - PAD_MM / 2, y]),
    );
  }
  for (const [i, port] of sheet.ports.entries()) {
    marks.push(...portMarks(port, place, mmPerM, port.id === look.chosen));
    wishes.push({
      text: `${i + 1}${port.checks.length > 0 ? ' !' : ''}`,
      of: portId(port.id),
      at: place(port.at_m),
      clear_mm: (port.cover_m / 2) * mmPerM,
      size_mm: TEXT_MM,
      isBold: true,
      ...(port.checks.length > 0 ? { tone: 'bad' as const } : {}),
    });
  }
  if (outline.length <= MOST_LETTERED && sheet.kind === 'flat') marks.push(...letters(outline.map(place)));
  const chosen = sheet.ports.find(({ id }) => id === look.chosen);
  for (const { foot, distance_m, from } of chosen?.fromEdges ?? []) {
    const [middle, end] = [place(chosen!.at_m), place(foot)];
    const rim = (chosen!.cover_m / 2) * mmPerM;
    const long = Math.hypot(end[0] - middle[0], end[1] - middle[1]) || 1;
    const start: Place = [
      middle[0] + (rim * (end[0] - middle[0])) / long,
      middle[1] + (rim * (end[1] - middle[1])) / long,
    ];
    const of = `from:${from}`;
    marks.push({ ...lineMark('chosen', start, end), width_mm: 0.5, of } as Mark, {
      ...circleMark('none', end, FOOT_MM, 'solid'),
      of,
    });
    wishes.push({ text: length(distance_m), of, at: start, along: [start, end], size_mm: TEXT_MM, isBold: true });
  }
  const labels = labelled(marks, wishes, { width_mm, height_mm });
  return { drawing: { title: look.title, width_mm, height_mm, marks: [...marks, ...labels.marks] }, mmPerM };
}

const within = ([x, y]: Place, width_mm: number, height_mm: number): Place => [
  Math.min(width_mm, Math.max(0, x)),
  Math.min(height_mm, Math.max(0, y)),
];

/** A hole with what covers it, its screws and the hose end that leaves it. */
function portMarks(port: SheetPort, place: (point: Point2) => Place, mmPerM: number, isChosen: boolean): Mark[] {
  const at = place(port.at_m);
  const line = port.checks.length > 0 ? 'wrong' : isChosen ? 'chosen' : 'thing';
  const fine = port.checks.length > 0 ? 'wrong' : 'fine';
  const cover = (port.cover_m / 2) * mmPerM;
  return ofThing(portId(port.id), [
    circleMark('none', at, Math.max(HIT_MM, cover)),
    ...(port.hoseEnd ? [hose(at, place(port.hoseEnd.to), Math.max(LEAST_MM.hose, port.hoseEnd.width_m * mmPerM))] : []),
    circleMark(line, at, cover, 'paper'),
    circleMark(fine, at, Math.max(LEAST_MM.hole, (port.hole_m / 2) * mmPerM), port.existing ? 'metal' : 'sheet'),
    ...port.screws.map((screw, k) =>
      circleMark(fine, place(screw), Math.max(LEAST_MM.screw, (port.screw_m / 2) * mmPerM), k === 0 ? 'solid' : 'none'),
    ),
    lineMark('fine', [at[0] - CROSS_MM, at[1]], [at[0] + CROSS_MM, at[1]]),
    lineMark('fine', [at[0], at[1] - CROSS_MM], [at[0], at[1] + CROSS_MM]),
  ]);
}

/** The outline of a hose end seen from above, as wide as it is. */
function hose(from: Place, to: Place, width_mm: number): Mark {
  const long = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1;
  const [ax, ay] = [(-(to[1] - from[1]) / long) * (width_mm / 2), ((to[0] - from[0]) / long) * (width_mm / 2)];
  return areaMark(
    'fine',
    [
      [
        [from[0] + ax, from[1] + ay],
        [to[0] + ax, to[1] + ay],
        [to[0] - ax, to[1] - ay],
        [from[0] - ax, from[1] - ay],
      ],
    ],
    'moving',
  );
}

/** Corners by letters, outside of them. */
export function letters(outline: readonly Place[]): Mark[] {
  const turn = outline.reduce((sum, [x, y], i) => {
    const [nx, ny] = outline[(i + 1) % outline.length]!;
    return sum + x * ny - nx * y;
  }, 0);
  const side = turn < 0 ? -1 : 1;
  return outline.map((point, i) => {
    const [before, after] = [outline.at(i - 1)!, outline[(i + 1) % outline.length]!];
    // Outward between the two edges' own outward ways.
    const out = [edgeOut(before, point, side), edgeOut(point, after, side)];
    const [x, y] = [out[0]![0] + out[1]![0], out[0]![1] + out[1]![1]];
    const long = Math.hypot(x, y) || 1;
    return textMark(
      [point[0] + (LETTER_OFF_MM * x) / long, point[1] + (LETTER_OFF_MM * y) / long + TEXT_MM * 0.35],
      cornerLetter(i),
      TEXT_MM,
      { anchor: 'middle', isBold: true, tone: 'accent' },
    );
  });
}

function edgeOut(a: Place, b: Place, side: number): Place {
  const long = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  return [(side * (b[1] - a[1])) / long, (-side * (b[0] - a[0])) / long];
}
