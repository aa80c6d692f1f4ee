import { describe, expect, it } from 'vitest';
import { seeded } from '../seeded';
import { areaMark, circleMark, markBox, textMark, type Drawing, type Of, type Place } from './drawing';
import { OVERLAP_MM, tilesOf } from './tiles';

const ROOM = { width_mm: 186, height_mm: 229 };
const chance = seeded(77);

const linesOf = (drawing: Drawing): Place[][] =>
  drawing.marks.flatMap((mark) => (mark.kind === 'line' && mark.line === 'outline' ? [[...mark.points]] : []));
const lengthOf = (points: readonly Place[]): number =>
  points.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - points[i]![0], y - points[i]![1]), 0);
/** How far a place is from a line through others. */
function distance([x, y]: Place, points: readonly Place[]): number {
  return Math.min(
    ...points.slice(1).map((to, i) => {
      const from = points[i]!;
      const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
      const share = Math.min(1, Math.max(0, ((x - from[0]) * dx + (y - from[1]) * dy) / (dx * dx + dy * dy || 1)));
      return Math.hypot(x - from[0] - share * dx, y - from[1] - share * dy);
    }),
  );
}
const drawn = (width_mm: number, height_mm: number, marks: Drawing['marks']): Drawing => ({
  title: 'A face',
  width_mm,
  height_mm,
  marks,
});

describe('a drawing parted for paper', () => {
  it('what fits is one page, without joints', () => {
    const [tile, ...others] = tilesOf(
      drawn(180, 220, [
        areaMark('outline', [
          [
            [1, 1],
            [179, 1],
            [90, 219],
          ],
        ]),
      ]),
      ROOM,
    );
    expect(others).toEqual([]);
    expect(tile!.drawing).toMatchObject({ title: 'A face', width_mm: 180, height_mm: 220 });
    expect(tile!.drawing.marks.filter((mark) => mark.kind === 'line' && mark.line === 'open')).toEqual([]);
  });

  it('30 pages abreast each have a name of their own', () => {
    const wide = 30 * (ROOM.width_mm - OVERLAP_MM) + OVERLAP_MM;
    const names = tilesOf(
      drawn(wide, 50, [
        areaMark('outline', [
          [
            [0, 0],
            [wide, 0],
            [wide, 50],
          ],
        ]),
      ]),
      ROOM,
    ).map(({ name }) => name);
    expect(names.slice(24, 28)).toEqual(['Y1', 'Z1', 'AA1', 'AB1']);
    expect(new Set(names).size).toBe(30);
  });

  it('a rectangle: as long on all pages together as it is, and the overlap again at each joint', () => {
    for (const [wide, tall] of [
      [500, 100],
      [362, 448],
      [1000, 700],
    ] as const) {
      const rectangle = areaMark('outline', [
        [
          [0, 0],
          [wide, 0],
          [wide, tall],
          [0, tall],
        ],
      ]);
      const tiles = tilesOf(drawn(wide, tall, [rectangle]), ROOM);
      const columns = Math.ceil((wide - OVERLAP_MM) / (ROOM.width_mm - OVERLAP_MM));
      const rows = Math.ceil((tall - OVERLAP_MM) / (ROOM.height_mm - OVERLAP_MM));
      const total = tiles.flatMap(({ drawing }) => linesOf(drawing)).reduce((sum, line) => sum + lengthOf(line), 0);
      expect(total).toBeCloseTo(2 * (wide + (columns - 1) * OVERLAP_MM) + 2 * (tall + (rows - 1) * OVERLAP_MM), 6);
      // A page in the middle has nothing on it.
      expect(tiles).toHaveLength(Math.min(columns * rows, 2 * (columns + rows) - 4 || 1));
    }
  });

  it('60 seeded outlines: every place of each is on a page where it belongs, and nothing else is', () => {
    for (let run = 0; run < 60; run += 1) {
      const [wide, tall] = [50 + 900 * chance.uniform(), 50 + 900 * chance.uniform()];
      const loop = Array.from({ length: 3 + Math.floor(6 * chance.uniform()) }, (): Place => [
        wide * chance.uniform(),
        tall * chance.uniform(),
      ]);
      const closed = [...loop, loop[0]!];
      const tiles = tilesOf(drawn(wide, tall, [areaMark('outline', [loop])]), ROOM);
      const back = tiles.flatMap(({ drawing, window: { min } }) =>
        linesOf(drawing).map((line) => line.map(([x, y]): Place => [x + min[0], y + min[1]])),
      );
      for (const line of back) for (const at of line) expect(distance(at, closed)).toBeLessThan(1e-9);
      for (let i = 0; i < 100; i += 1) {
        const k = Math.floor(loop.length * chance.uniform());
        const share = chance.uniform();
        const at: Place = [
          closed[k]![0] + share * (closed[k + 1]![0] - closed[k]![0]),
          closed[k]![1] + share * (closed[k + 1]![1] - closed[k]![1]),
        ];
        expect(Math.min(...back.map((line) => distance(at, line)))).toBeLessThan(1e-9);
      }
    }
  });

  it('joint lines of neighbours fall on each other, and every short word is on some page', () => {
    const names = Array.from({ length: 80 }, (_, i) =>
      textMark([5 + 790 * chance.uniform(), 5 + 790 * chance.uniform()], `${i}`, 3.5, { anchor: 'middle' }),
    );
    const tiles = tilesOf(
      drawn(800, 800, [
        areaMark('outline', [
          [
            [0, 0],
            [800, 0],
            [800, 800],
            [0, 800],
          ],
        ]),
        ...names,
      ]),
      ROOM,
    );
    const joints = tiles.flatMap(({ drawing, window: { min } }) =>
      drawing.marks
        .filter((mark): mark is Of<'line'> => mark.kind === 'line' && mark.line === 'open')
        .map(({ points }) => {
          const [[x, y], [x2]] = points as [Place, Place];
          return x === x2 ? `x ${(x + min[0]).toFixed(6)}` : `y ${(y + min[1]).toFixed(6)}`;
        }),
    );
    for (const joint of joints) expect(joints.filter((other) => other === joint).length, joint).toBeGreaterThan(1);
    for (const name of names) {
      if (name.kind !== 'text') continue;
      const pages = tiles.flatMap(({ drawing }) =>
        drawing.marks.filter((mark) => mark.kind === 'text' && mark.text === name.text && mark.size_mm === 3.5),
      );
      const { min, max } = markBox(name);
      if (min[0] >= 0 && min[1] >= 0 && max[0] <= 800 && max[1] <= 800) expect(pages.length).toBeGreaterThan(0);
    }
  });

  it('a hole across a joint is round on both pages', () => {
    const tiles = tilesOf(drawn(360, 100, [circleMark('outline', [180, 50], 40)]), ROOM);
    expect(tiles.map(({ name }) => name)).toEqual(['A1', 'B1']);
    for (const {
      drawing,
      window: { min },
    } of tiles) {
      for (const [x, y] of linesOf(drawing).flat()) {
        const r = Math.hypot(x + min[0] - 180, y - 50);
        // Its sides lie a sagitta within the circle: r (1 - cos(π / n)).
        expect(r).toBeLessThanOrEqual(40 + 1e-9);
        expect(r).toBeGreaterThan(40 * Math.cos(Math.PI / 120) - 1e-9);
      }
    }
  });
});
