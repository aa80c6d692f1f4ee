import { XMLParser } from 'fast-xml-parser';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Point2 } from '../geometry';
import {
  CHECK_BAR_MM,
  circleMark,
  cornerLetter,
  drawingSvg,
  dimensionMarks,
  headsOf,
  lineMark,
  LINES,
  markBox,
  onCircle,
  stripDrawing,
  stripPieces,
  templateDrawing,
  textMark,
  type Drawing,
  type Mark,
  type Of,
  type Place,
  type Strip,
} from '.';

const lidOf = (title: string): Drawing =>
  templateDrawing({
    title,
    loops: [
      [
        [0, 0],
        [0.2, 0],
        [0.2, 0.3],
        [0, 0.3],
      ],
      [
        [0.05, 0.05],
        [0.05, 0.1],
        [0.1, 0.05],
      ],
    ],
    circles: [{ name: 'Filler', at_m: [0.15, 0.25], diameter_m: 0.04 }],
    notes: ['A-B 200.0 mm'],
  });
const LID = lidOf('Lid <1> & "more"');
const STRIP: Strip = {
  title: 'Boat: <stick>',
  length_m: 0.2,
  foot: 'foot',
  marks: [
    { at_m: 0.05, label: '10 L', isMain: true },
    { at_m: 0.1, label: '20 L', isMain: false },
  ],
};
const of = <K extends Mark['kind']>(drawing: Drawing, kind: K) =>
  drawing.marks.filter((mark): mark is Extract<Mark, { kind: K }> => mark.kind === kind);
const wordsIn = (drawing: Drawing): string[] => of(drawing, 'text').map(({ text }) => text);

/** Numbers of a path, as pairs. */
const placesIn = (path: string): number[][] =>
  [...path.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);

describe('a drawing as SVG', () => {
  it('is at true size: a millimetre of the sheet is a unit of the drawing', () => {
    const [, width, height, box] = /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="([\d. ]+)"/.exec(drawingSvg(LID))!;
    expect([Number(width), Number(height)]).toEqual([LID.width_mm, LID.height_mm]);
    expect(box).toBe(`0 0 ${width} ${height}`);
  });

  it('has every mark of the list, where the list has it, read back by a general XML reader', () => {
    for (const drawing of [LID, stripDrawing(STRIP)]) {
      const { svg } = new XMLParser({ ignoreAttributes: false, trimValues: false }).parse(drawingSvg(drawing)) as {
        svg: { title: string; text: Record<string, string>[]; path: Record<string, string>[]; circle?: unknown };
      };
      expect(svg.title).toBe(drawing.title);
      expect(svg.text.map((text) => text['#text'])).toEqual(wordsIn(drawing));
      expect(svg.text.map((text) => [Number(text['@_x']), Number(text['@_y'])])).toEqual(
        of(drawing, 'text').map(({ at }) => at.map((value) => Number(value.toFixed(3)))),
      );
      const lines = drawing.marks.flatMap((mark) =>
        mark.kind === 'line' ? [mark.points] : mark.kind === 'area' ? [mark.loops.flat()] : [],
      );
      expect(svg.path.map((path) => placesIn(path['@_d']!))).toEqual(
        lines.map((points) => points.map((point) => point.map((value) => Number(value.toFixed(3))))),
      );
      expect([svg.circle ?? []].flat()).toHaveLength(of(drawing, 'arc').length);
    }
  });

  it('an arc goes from its first place to its last, the long way round where it is long', () => {
    const arc: Mark = { kind: 'arc', at: [10, 10], radius_mm: 5, from_deg: 0, to_deg: 270, line: 'hidden' };
    const svg = drawingSvg({ title: 'arc', width_mm: 20, height_mm: 20, marks: [arc] });
    expect(svg).toContain('M15 10A5 5 0 1 1 10 5');
    expect(svg).toContain('stroke-dasharray="3 1.5"');
    expect(markBox(arc).min.map((value) => Number((value + LINES.hidden.width_mm / 2).toFixed(9)))).toEqual([5, 5]);
  });
});

it('a head stands at the end of its line, at its beginning, or at both, and points along it', () => {
  const line = lineMark('feed', [0, 0], [10, 0], [10, 20]) as Extract<Mark, { kind: 'line' }>;
  const [[tip, left, right]] = headsOf({ ...line, arrow: 'end' }) as [Place[]];
  expect(tip).toEqual([10, 20]);
  expect([left![1] < 20, right![1] < 20, (left![0] + right![0]) / 2]).toEqual([true, true, 10]);
  const [back] = headsOf({ ...line, arrow: 'start' }) as [Place[]];
  expect(back[0]).toEqual([0, 0]);
  expect(back[1]![0] > 0 && back[2]![0] > 0).toBe(true);
  expect(headsOf({ ...line, arrow: 'both' }).map(([at]) => at)).toEqual([
    [10, 20],
    [0, 0],
  ]);
  expect(headsOf(line)).toEqual([]);
});

describe('a size as on a workshop drawing', () => {
  const turns = Array.from({ length: 72 }, (_, i) => (i * 5 * Math.PI) / 180);
  it.each(turns)('leaning by %f: as long as what it measures, off it, and never upside down', (turn) => {
    const [from, to]: [Place, Place] = [
      [50 - 30 * Math.cos(turn), 50 - 30 * Math.sin(turn)],
      [50 + 30 * Math.cos(turn), 50 + 30 * Math.sin(turn)],
    ];
    const away: Place = [-Math.sin(turn), Math.cos(turn)];
    const marks = dimensionMarks(from, to, away, 7.5, '60 mm');
    const arrowed = marks.find((mark): mark is Of<'line'> => mark.kind === 'line' && mark.arrow === 'both')!;
    const [a, b] = arrowed.points as [Place, Place];
    expect(Math.hypot(b[0] - a[0], b[1] - a[1])).toBeCloseTo(60, 9);
    expect((a[0] - from[0]) * away[0] + (a[1] - from[1]) * away[1]).toBeCloseTo(7.5, 9);
    const figure = marks.find((mark): mark is Of<'text'> => mark.kind === 'text')!;
    const turn_deg = figure.turn_deg ?? 0;
    expect(turn_deg).toBeGreaterThanOrEqual(-105 - 1e-9);
    expect(turn_deg).toBeLessThan(75);
    // Its foot lies beside the line and along it.
    const along = (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;
    expect(Math.abs(Math.sin(((along - turn_deg) * Math.PI) / 180))).toBeLessThan(1e-9);
    const off = (figure.at[0] - a[0]) * away[0] + (figure.at[1] - a[1]) * away[1];
    expect(Math.abs(off)).toBeCloseTo(0.9, 9);
  });

  it('turned words have the box of their corners', () => {
    const flat = markBox(textMark([10, 10], 'abcd', 4));
    const upright = markBox(textMark([10, 10], 'abcd', 4, { turn_deg: -90 }));
    expect(upright.max[1] - upright.min[1]).toBeCloseTo(flat.max[0] - flat.min[0], 9);
    expect(upright.max[0] - upright.min[0]).toBeCloseTo(flat.max[1] - flat.min[1], 9);
    // Read from the right: what was to its right is over it, what was over it is to its left.
    expect(upright.min[1]).toBeCloseTo(10 - (flat.max[0] - 10), 9);
    expect(upright.min[0]).toBeCloseTo(10 - (10 - flat.min[1]), 9);
    expect(
      drawingSvg({ title: '', width_mm: 20, height_mm: 20, marks: [textMark([10, 10], 'a', 4, { turn_deg: -90 })] }),
    ).toContain('transform="rotate(-90 10 10)"');
  });
});

describe('the box round a mark', () => {
  it('of an arc holds all its places and touches the furthest (seeded)', () => {
    fc.assert(
      fc.property(fc.nat({ max: 359 }), fc.integer({ min: 1, max: 360 }), (from_deg, turn) => {
        const arc: Mark = {
          kind: 'arc',
          at: [3, -2],
          radius_mm: 7,
          from_deg,
          to_deg: from_deg + turn,
          line: 'outline',
        };
        const half = LINES.outline.width_mm / 2;
        const { min, max } = markBox(arc);
        const places = Array.from({ length: 2001 }, (_, i) => onCircle([3, -2], 7, from_deg + (turn * i) / 2000));
        for (const axis of [0, 1] as const) {
          const along = places.map((place) => place[axis]);
          expect(Math.abs(Math.min(...along) - half - min[axis])).toBeLessThan(1e-3);
          expect(Math.abs(Math.max(...along) + half - max[axis])).toBeLessThan(1e-3);
        }
      }),
      { seed: 11, numRuns: 200 },
    );
  });

  it('of words lies on the side that they are set from', () => {
    const box = (anchor: 'start' | 'middle' | 'end') => markBox(textMark([50, 50], 'abcd', 5, { anchor }));
    expect(box('start').min[0]).toBe(50);
    expect(box('end').max[0]).toBe(50);
    expect(box('middle').min[0] + box('middle').max[0]).toBeCloseTo(100, 9);
  });

  it('of every mark of a template and of a scale lies on its sheet', () => {
    const sides: Point2[] = [
      [0, 0],
      [0.9, 0],
      [0.9, 0.4],
      [0, 0.2],
    ];
    const long = templateDrawing({ title: 'Side', loops: [sides], circles: [], notes: ['A-B', 'B-C'] });
    const strip = stripDrawing({ ...STRIP, length_m: 0.7 });
    for (const drawing of [LID, long, strip])
      for (const mark of drawing.marks) {
        const { min, max } = markBox(mark);
        expect(
          min.every((value) => value >= 0),
          JSON.stringify(mark),
        ).toBe(true);
        expect(max[1], JSON.stringify(mark)).toBeLessThanOrEqual(drawing.height_mm);
        if (mark.kind !== 'text') expect(max[0], JSON.stringify(mark)).toBeLessThanOrEqual(drawing.width_mm);
      }
  });
});

describe('a template', () => {
  it('is as large as what it is cut for, its holes in place', () => {
    const [area] = of(LID, 'area');
    const [xs, ys] = [0, 1].map((axis) => area!.loops[0]!.map((place) => place[axis]!)) as [number[], number[]];
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(200, 9);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(300, 9);
    expect(of(LID, 'arc')[0]).toMatchObject({ radius_mm: 20 });
    // 150 from its left edge and 250 up from its foot.
    const [x, y] = of(LID, 'arc')[0]!.at;
    expect(x - Math.min(...xs)).toBeCloseTo(150, 9);
    expect(Math.max(...ys) - y).toBeCloseTo(250, 9);
  });

  it('has a bar to check the print by, of a hundred millimetres', () => {
    const bars = [LID, stripDrawing(STRIP)].map((drawing) =>
      of(drawing, 'line').filter(({ points }) => points.length === 4 && points[3]![0] - points[0]![0] === CHECK_BAR_MM),
    );
    for (const bar of bars) expect(bar).toHaveLength(1);
  });

  it('letters corners past Z', () =>
    expect([0, 25, 26, 51, 52].map(cornerLetter)).toEqual(['A', 'Z', 'A2', 'Z2', 'A3']));
});

describe('a scale', () => {
  it('has each mark as far from its foot as it is in the hand', () => {
    const drawing = stripDrawing(STRIP);
    const [frame] = of(drawing, 'line');
    const foot = frame!.points[0]![1];
    const marks = of(drawing, 'line').filter(({ line }) => line === 'mark' || line === 'between');
    expect(marks.map(({ points, line }) => [line, foot - points[0]![1]])).toEqual([
      ['mark', 50],
      ['between', 100],
    ]);
  });

  it('only main marks carry their volume', () => {
    expect(wordsIn(stripDrawing(STRIP))).toContain('10 L');
    expect(wordsIn(stripDrawing(STRIP))).not.toContain('20 L');
  });

  it('a long one is cut into pieces, each mark on one of them, and both ends of a joint carry its letter', () => {
    expect([0.1, 0.24, 0.25, 0.7].map(stripPieces)).toEqual([1, 1, 2, 3]);
    const marks = Array.from({ length: 14 }, (_, i) => ({ at_m: 0.05 * (i + 1), label: `${i + 1} L`, isMain: true }));
    const drawing = stripDrawing({ ...STRIP, length_m: 0.7, marks });
    expect(drawing.width_mm).toBe(3 * 44 + 20);
    const words = wordsIn(drawing);
    for (const { label } of marks) expect(words.filter((word) => word === label)).toHaveLength(1);
    for (const joint of ['joint A', 'joint B']) expect(words.filter((word) => word === joint)).toHaveLength(2);
  });
});

it('lines and circles are made of what they are given', () => {
  expect(lineMark('hidden', [0, 0], [1, 1])).toEqual({
    kind: 'line',
    points: [
      [0, 0],
      [1, 1],
    ],
    line: 'hidden',
  });
  expect(circleMark('outline', [1, 2], 3)).toMatchObject({ from_deg: 0, to_deg: 360, radius_mm: 3 });
});
