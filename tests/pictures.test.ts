import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { evaluateSystem, fitDrawing, fitOf, sheetsOf, templatesOf } from '@/core/answers';
import { drawingSvg, markBox, type Drawing, type Mark, type Of, type Place } from '@/core/drawings';
import { unwrap } from '@/core/outcome';
import { expectClose } from './expectClose';
import { parseSystemText, type SystemDocument } from '@/core/plan';
import {
  cornerId,
  faceDrawing,
  levelsDrawing,
  outlineDrawing,
  portId,
  profileDrawing,
  silhouetteDrawing,
  spaceDrawing,
  tankSheet,
} from '@/core/reports';
import { seeded } from '@/core/seeded';
import { formatQuantity, type ReaderSystem } from '@/core/units';

/** What a page is wide on a phone, on a small screen and on a large one [px]. */
const WIDTHS_PX = [350, 595, 1030] as const;
const READERS = ['metric', 'us'] as const satisfies readonly ReaderSystem[];
const MM_A_PX = 25.4 / 96;

const SYSTEMS = readdirSync('demo').map((file): readonly [string, SystemDocument] => [
  file,
  unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8')) as never),
]);
const texts = ({ marks }: Drawing): Of<'text'>[] => marks.filter((mark): mark is Of<'text'> => mark.kind === 'text');

/** A port’s stub stands out so far at most [mm]. */
const ROUND_MM = 3.5;
/** Places along everything that a mark draws, closer than letters are wide [mm]. */
const STEP_MM = 0.4;
function placesAlong(mark: Mark): Place[] {
  if (mark.kind === 'text') return [];
  if (mark.kind === 'arc')
    return Array.from({ length: 120 }, (_, i): Place => {
      const angle = ((mark.from_deg + ((mark.to_deg - mark.from_deg) * i) / 119) * Math.PI) / 180;
      return [mark.at[0] + mark.radius_mm * Math.cos(angle), mark.at[1] + mark.radius_mm * Math.sin(angle)];
    });
  const loops = mark.kind === 'line' ? [mark.points] : mark.loops.map((loop) => [...loop, loop[0]!]);
  return loops.flatMap((points) =>
    points.slice(1).flatMap((to, i) => {
      const from = points[i]!;
      const steps = Math.max(1, Math.ceil(Math.hypot(to[0] - from[0], to[1] - from[1]) / STEP_MM));
      return Array.from({ length: steps + 1 }, (_, k): Place => [
        from[0] + ((to[0] - from[0]) * k) / steps,
        from[1] + ((to[1] - from[1]) * k) / steps,
      ]);
    }),
  );
}

/** No words on other words, on what they name or over the edge. */
function expectReadable(drawing: Drawing, what: string): void {
  const words = texts(drawing).map((mark) => ({ mark, box: markBox(mark) }));
  for (const [i, { mark, box }] of words.entries()) {
    expect(box.min[0] >= -0.01 && box.max[0] <= drawing.width_mm + 0.01, `${what}: “${mark.text}” in its width`).toBe(
      true,
    );
    for (const other of words.slice(i + 1))
      expect(
        box.max[0] <= other.box.min[0] ||
          other.box.max[0] <= box.min[0] ||
          box.max[1] <= other.box.min[1] ||
          other.box.max[1] <= box.min[1],
        `${what}: “${mark.text}” and “${other.mark.text}” apart`,
      ).toBe(true);
    if (mark.of === undefined) continue;
    // A label that was put there stands off all that it names; letters printed on a part are part of it.
    const named = drawing.marks.filter(
      (other) => other.of === mark.of && other.kind !== 'text' && other.line !== 'none' && other.line !== 'leader',
    );
    const on = named
      .flatMap(placesAlong)
      .find(
        ([x, y]) => x > box.min[0] + 0.05 && x < box.max[0] - 0.05 && y > box.min[1] + 0.05 && y < box.max[1] - 0.05,
      );
    expect(on, `${what}: “${mark.text}” off what it names`).toBeUndefined();
  }
}

describe.each(SYSTEMS)('the pictures of %s', (_, system) => {
  const evaluation = unwrap(evaluateSystem(system) as never) as { tanks: readonly { drawing: never }[] };
  const each = (act: (width_mm: number, isNarrow: boolean, reader: ReaderSystem, what: string) => void): void => {
    for (const width of WIDTHS_PX)
      for (const reader of READERS) act(width * MM_A_PX, width < 400, reader, `${width} px, ${reader}`);
  };
  const length = (reader: ReaderSystem) => (value: number) => formatQuantity(value, 'tape', { reader }).text;

  it('tanks from three sides, level and leaning: words are readable, and every grip has one', () => {
    each((width_mm, isNarrow, reader, what) => {
      for (const [t, tank] of system.tanks.entries())
        for (const lean of [0, 8]) {
          const grips = [
            ...(evaluation.tanks[t]!.drawing as { pickups: { id: string; name: string; inlet: never }[] }).pickups.map(
              ({ id, name, inlet }) => ({ id, label: name, at: inlet }),
            ),
            ...(evaluation.tanks[t]!.drawing as { ports: { id: string; name: string; at: never }[] }).ports.map(
              ({ id, name, at }) => ({ id, label: name, at }),
            ),
          ];
          const { drawing } = tankSheet(evaluation.tanks[t]!.drawing, {
            title: tank.name,
            room: { width_mm, height_mm: 140 },
            isNarrow,
            viewNames: { side: 'Side, from starboard', end: 'End, looking forward', plan: 'Plan, from above' },
            sizes: { length: length(reader)(1.2), width: length(reader)(0.4), height: length(reader)(0.3) },
            turns_deg: { side: lean, end: -lean },
            grips,
          });
          expectReadable(drawing, `${tank.name}, ${what}, ${lean}°`);
          for (const { label } of grips)
            expect(
              texts(drawing).map(({ text }) => text),
              `${tank.name}, ${what}, ${lean}°`,
            ).toContain(label);
        }
    });
  });

  it('tanks from their side, several to one scale: the largest fits, and each is as much smaller as it is', () => {
    const drawings = unwrap(evaluateSystem(system, 'full', 'without-fit')).tanks.map((tank) => tank.drawing!);
    const room = { width_mm: 60, height_mm: 36 };
    const sizes = drawings.map((tank, t) => {
      const drawing = silhouetteDrawing('Side view', tank, drawings, room);
      const shell = drawing.marks.filter(({ of }) => of === 'shell:side').flatMap(placesAlong);
      const [xs, ys] = [shell.map(([x]) => x), shell.map(([, y]) => y)];
      for (const [x, y] of drawing.marks.filter((mark) => mark.kind === 'area').flatMap(placesAlong)) {
        expect(x >= 0 && x <= room.width_mm, `${t}: ${x}`).toBe(true);
        expect(y >= 0 && y <= room.height_mm, `${t}: ${y}`).toBe(true);
      }
      const { min, max } = tank.bounds;
      const [wide_mm, high_mm] = [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
      return { mmPerM: wide_mm / (max[0] - min[0]), wide_mm, high_mm };
    });
    // A round tank is cut between two of its facets' edges, some ten thousandths narrower.
    for (const { mmPerM } of sizes) expectClose(mmPerM, sizes[0]!.mmPerM, { rel: 1e-3, why: 'one scale' });
    // A sixth of the room is left round the largest, whichever way that is.
    const fills = sizes.map(({ wide_mm, high_mm }) => Math.max(wide_mm / room.width_mm, high_mm / room.height_mm));
    expectClose(Math.max(...fills), 1 / 1.2, { rel: 1e-3, why: 'the largest fits' });
  });

  it('tanks side by side at a moment: names are readable however they lean, and nothing leaves the picture', () => {
    const drawings = unwrap(evaluateSystem(system, 'full', 'without-fit')).tanks.map((tank) => tank.drawing!);
    each((width_mm, _isNarrow, _reader, what) => {
      for (const views of [['side'], ['side', 'end']] as const)
        for (const lean of [0, 30, 180]) {
          const drawing = levelsDrawing(
            drawings.map((one, t) => ({
              name: system.tanks[t]!.name,
              drawing: one,
              turns_deg: { side: lean / 2, end: -lean },
              most_deg: { side: 90, end: 180 },
            })),
            { title: 'All', room: { width_mm, height_mm: 62 }, views, viewNames: { side: 'side', end: 'end' } },
          );
          const all = `${what}, ${views.length} views, ${lean}°`;
          expectReadable(drawing, all);
          const words = texts(drawing)
            .map(({ text }) => text)
            .join(' ');
          for (const { name } of system.tanks) for (const word of name.split(' ')) expect(words, all).toContain(word);
          for (const [x, y] of drawing.marks.filter((mark) => mark.kind === 'area').flatMap(placesAlong)) {
            expect(x >= -ROUND_MM && x <= drawing.width_mm + ROUND_MM, `${all}: ${x}`).toBe(true);
            expect(y >= -ROUND_MM && y <= drawing.height_mm + ROUND_MM, `${all}: ${y}`).toBe(true);
          }
        }
    });
  });

  it('faces: words are readable whichever port is chosen, and every port has its number', () => {
    each((width_mm, _isNarrow, reader, what) => {
      for (const sheet of unwrap(sheetsOf(system)).flat())
        for (const chosen of [undefined, ...sheet.ports.map(({ id }) => id)]) {
          const { drawing } = faceDrawing(sheet, {
            title: sheet.name,
            room: { width_mm, height_mm: 111 },
            length: length(reader),
            chosen,
          });
          expectReadable(drawing, `${sheet.name}, ${what}, ${chosen ?? 'none'}`);
          for (const port of sheet.ports)
            expect(
              texts(drawing).some(({ of }) => of === portId(port.id)),
              `${sheet.name}, ${port.name}, ${what}`,
            ).toBe(true);
        }
    });
  });

  it('templates: words are readable, every hole has its number', () => {
    each((width_mm, _isNarrow, reader, what) => {
      for (const t of system.tanks.keys())
        for (const template of unwrap(templatesOf(system, t))) {
          const drawing = outlineDrawing(template, {
            title: template.name,
            room: { width_mm, height_mm: 111 },
            length: length(reader),
          });
          expectReadable(drawing, `${template.name}, ${what}`);
          for (const i of template.holes.keys())
            expect(
              texts(drawing).some(({ of }) => of === `hole:${i}`),
              `${template.name}, hole ${i + 1}, ${what}`,
            ).toBe(true);
        }
    });
  });

  it('the space: words are readable whichever gap is looked at, and each has its size', () => {
    const fit = fitOf(system);
    for (const [t] of system.tanks.entries()) {
      const seen = fitDrawing(system, t);
      if (!seen.ok || !fit.ok) continue;
      each((width_mm, isNarrow, reader, what) => {
        for (const gap of [undefined, ...fit.value.tanks[t]!.gaps]) {
          const { drawing } = spaceDrawing(seen.value, {
            title: 'Space',
            room: { width_mm, height_mm: 137 },
            isNarrow,
            viewNames: { side: 'Side, from starboard', end: 'End, looking forward', plan: 'Plan, from above' },
            length: length(reader),
            gap,
          });
          expectReadable(drawing, `${what}, ${gap?.name ?? 'no gap'}`);
          if (gap)
            expect(
              texts(drawing).filter(({ of }) => of?.startsWith('gap:')),
              `${what}, ${gap.name}`,
            ).toHaveLength(3);
        }
      });
    }
  });

  it('are written for paper as they are for the screen: every word, and nothing that only takes presses', () => {
    const [sheet] = unwrap(sheetsOf(system)).flat();
    const { drawing, mmPerM } = faceDrawing(sheet!, {
      title: sheet!.name,
      room: { width_mm: 180, height_mm: 200 },
      length: length('metric'),
      isPaper: true,
    });
    // At a scale that a scale rule has, and the largest that fits.
    const scale = 1000 / mmPerM;
    expect([1, 2, 5, 10, 20, 50, 100].some((of) => Math.abs(of - scale) < 1e-9)).toBe(true);
    expect(drawing.height_mm).toBeLessThanOrEqual(200);
    const svg = drawingSvg(drawing);
    expect(svg.match(/<text /g) ?? []).toHaveLength(texts(drawing).length);
    expect(svg).not.toContain('none" stroke="none"');
  });
});

describe('a profile', () => {
  const room = { width_mm: 90, height_mm: 42 };
  const profileOf = (seed: number) => {
    const chance = seeded(seed);
    const count = 3 + Math.floor(7 * chance.uniform());
    return Array.from({ length: count }, (_, i) => ({
      u_m: Math.cos((2 * Math.PI * i) / count) * (0.2 + 0.8 * chance.uniform()),
      v_m: Math.sin((2 * Math.PI * i) / count) * (0.05 + 0.3 * chance.uniform()),
    }));
  };
  it('by chance: to one scale both ways, in its room, each corner once with its number', () => {
    for (let seed = 0; seed < 40; seed++) {
      const points = profileOf(seed);
      const { drawing, mmPerM } = profileDrawing('Profile', points, room);
      const corners = points.map((_, i) => drawing.marks.filter(({ of }) => of === cornerId(i)));
      const at = corners.map((marks) => marks.find((mark): mark is Of<'arc'> => mark.kind === 'arc')!.at);
      for (const [i, point] of points.entries()) {
        expect(corners[i]!.filter(({ kind }) => kind === 'text')).toMatchObject([{ text: String(i + 1) }]);
        const [next, there] = [points[(i + 1) % points.length]!, at[(i + 1) % points.length]!];
        expect(there[0] - at[i]![0]).toBeCloseTo((next.u_m - point.u_m) * mmPerM, 9);
        expect(there[1] - at[i]![1]).toBeCloseTo(-(next.v_m - point.v_m) * mmPerM, 9);
        for (const k of [0, 1] as const) {
          expect(at[i]![k]).toBeGreaterThan(0);
          expect(at[i]![k]).toBeLessThan([room.width_mm, room.height_mm][k]!);
        }
      }
      for (const mark of texts(drawing)) {
        const { min, max } = markBox(mark);
        expect(min[0] > 0 && min[1] > 0 && max[0] < room.width_mm && max[1] < room.height_mm, `${seed}`).toBe(true);
      }
    }
  });

  it('that is a point or a line is drawn all the same', () => {
    for (const points of [
      [{ u_m: 0.2, v_m: 0.1 }],
      [
        { u_m: 0, v_m: 0 },
        { u_m: 0, v_m: 0.4 },
      ],
    ]) {
      const { drawing, mmPerM } = profileDrawing('Profile', points, room);
      expect(Number.isFinite(mmPerM)).toBe(true);
      expect(drawing.marks.flatMap(placesAlong).flat().every(Number.isFinite)).toBe(true);
    }
  });
});
