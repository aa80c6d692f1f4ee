import { describe, expect, it } from 'vitest';
import { CHECK_BAR_MM, markBox, shifted, type Drawing, type Mark, type Of } from '../drawings';
import { seeded } from '../seeded';
import { brokenLines, pagesOf, PAPERS, scaledDrawing, type Block, type PaperKey } from '.';

const TITLE = { system: 'A boat', sheet: 'Holes', revision: '7', date: '1 May 2026', units: 'mm, litres' };
const chance = seeded(41);
const words = (most: number): string =>
  Array.from({ length: 1 + Math.floor(most * chance.uniform()) }, () =>
    'abcdefghij'.repeat(2).slice(0, 1 + Math.floor(12 * chance.uniform() ** 2)),
  ).join(' ');
const figure = (width_mm: number, height_mm: number): Block => ({
  kind: 'figure',
  drawing: {
    title: 'figure',
    width_mm,
    height_mm,
    marks: [
      { kind: 'area', loops: [[[0, 0], [width_mm, 0], [width_mm, height_mm], [0, height_mm]]], line: 'metal' }, // prettier-ignore
    ],
  },
});
/** Blocks of any kind and length, their words told apart by a running number. */
const anyBlocks = (): { readonly blocks: Block[]; readonly said: string[] } => {
  const said: string[] = [];
  const say = (most: number): string => {
    const text = `${said.length}: ${words(most)}`;
    said.push(text);
    return text;
  };
  const blocks = Array.from({ length: 1 + Math.floor(12 * chance.uniform()) }, (): Block => {
    const kind = Math.floor(4 * chance.uniform());
    if (kind === 0) return { kind: 'heading', text: say(6) };
    if (kind === 1) return { kind: 'text', text: say(60) };
    if (kind === 2) return figure(20 + 150 * chance.uniform(), 10 + 180 * chance.uniform());
    return {
      kind: 'table',
      columns: [
        { title: 'one', share: 1 },
        { title: 'two', share: 3, align: 'right' },
      ],
      rows: Array.from({ length: Math.floor(50 * chance.uniform()) }, () => [say(2), say(12)]),
      isForm: chance.uniform() < 0.5,
    };
  });
  return { blocks, said };
};
const textsOf = ({ marks }: Drawing): Of<'text'>[] => marks.filter((mark): mark is Of<'text'> => mark.kind === 'text');

describe('pages', () => {
  it('hold every word once and in order, within their margins, and nothing over the title block (seeded)', () => {
    for (let run = 0; run < 60; run++) {
      const paper: PaperKey = run % 2 === 0 ? 'a4' : 'letter';
      const { width_mm, height_mm } = PAPERS[paper];
      const { blocks, said } = anyBlocks();
      const pages = pagesOf(blocks, TITLE, paper);
      for (const [i, page] of pages.entries()) {
        expect([page.width_mm, page.height_mm]).toEqual([width_mm, height_mm]);
        expect(textsOf(page).some(({ text }) => text === `${i + 1} of ${pages.length}`)).toBe(true);
        for (const mark of page.marks) {
          const { min, max } = markBox(mark);
          expect(min[0], JSON.stringify(mark)).toBeGreaterThan(10);
          expect(max[0], JSON.stringify(mark)).toBeLessThan(width_mm - 10);
          expect(min[1]).toBeGreaterThan(10);
          expect(max[1]).toBeLessThan(height_mm - 10);
        }
      }
      // What is not of the title block stands over it.
      const body = pages.flatMap((page) =>
        page.marks.filter((mark) => markBox(mark).min[1] < height_mm - 12 - 24 + 5).map((mark) => ({ page, mark })),
      );
      for (const { mark } of body) expect(markBox(mark).max[1]).toBeLessThan(height_mm - 12 - 24 + 6);
      const letters = body
        .flatMap(({ mark }) => (mark.kind === 'text' && mark.text !== 'one' && mark.text !== 'two' ? [mark.text] : []))
        .join('')
        .replaceAll(' ', '');
      // Cells of a row stand side by side, each broken by itself: their letters are all there, and no more.
      expect([...letters].sort().join('')).toBe([...said.join('').replaceAll(' ', '')].sort().join(''));
      const numbers = body.flatMap(({ mark }) =>
        mark.kind === 'text' ? [/^(\d+): ?/.exec(mark.text)?.[1] ?? []].flat() : [],
      );
      expect(numbers.map(Number)).toEqual(said.map((_, i) => i));
    }
  });

  it('no row and no drawing is parted between two: what begins on a page ends on it (seeded)', () => {
    for (let run = 0; run < 30; run++) {
      const { blocks } = anyBlocks();
      const pages = pagesOf(blocks, TITLE, 'a4');
      const figures = blocks.filter(({ kind }) => kind === 'figure').length;
      const drawn = pages.flatMap(({ marks }) => marks.filter((mark) => mark.kind === 'area' && mark.line === 'metal'));
      expect(drawn).toHaveLength(figures);
    }
  });

  it('a table that goes on has its head again on every page', () => {
    const rows = Array.from({ length: 120 }, (_, i) => [`row ${i}`, 'x']);
    const pages = pagesOf(
      [{ kind: 'table', columns: [{ title: 'what', share: 2 }, { title: 'done', share: 1 }], rows }], // prettier-ignore
      TITLE,
      'a4',
    );
    expect(pages.length).toBeGreaterThan(2);
    for (const page of pages) expect(textsOf(page).filter(({ text }) => text === 'what')).toHaveLength(1);
  });

  it('a heading never stands alone at the foot of a page', () => {
    for (let tall = 150; tall < 240; tall += 5) {
      const pages = pagesOf([figure(100, tall), { kind: 'heading', text: 'Next' }, figure(100, 60)], TITLE, 'a4');
      const at = pages.findIndex((page) => textsOf(page).some(({ text }) => text === 'Next'));
      const second = pages.findLastIndex(({ marks }) =>
        marks.some((mark) => mark.kind === 'area' && mark.line === 'metal'),
      );
      expect(at).toBe(second);
    }
  });

  it('each has a bar of a hundred millimetres', () => {
    for (const page of pagesOf([{ kind: 'text', text: 'x' }], TITLE, 'letter')) {
      const bars = page.marks.filter(
        (mark) =>
          mark.kind === 'line' && mark.points.length === 4 && mark.points[3]![0] - mark.points[0]![0] === CHECK_BAR_MM,
      );
      expect(bars).toHaveLength(1);
    }
  });
});

it('lines are never longer than their column, and lose no letter', () => {
  for (let run = 0; run < 200; run++) {
    const text = words(30);
    const lines = brokenLines(text, 20 + 60 * chance.uniform(), 3.5);
    expect(lines.join('').replaceAll(' ', '')).toBe(text.replaceAll(' ', ''));
  }
  expect(brokenLines('abcdefghij', 5, 3.5).every((line) => line.length <= 2)).toBe(true);
});

it('a drawing is moved and made smaller as a whole', () => {
  const marks: Mark[] = [
    { kind: 'line', points: [[1, 2], [3, 4]], line: 'thing', width_mm: 2 }, // prettier-ignore
    { kind: 'arc', at: [1, 1], radius_mm: 2, from_deg: 0, to_deg: 90, line: 'fine' },
    { kind: 'text', at: [1, 2], text: 'a', size_mm: 4, anchor: 'start', isBold: false },
    { kind: 'area', loops: [[[0, 0], [1, 0], [0, 1]]], line: 'metal' }, // prettier-ignore
  ];
  const half = scaledDrawing({ title: 'x', width_mm: 10, height_mm: 20, marks }, 0.5);
  expect(half).toMatchObject({ width_mm: 5, height_mm: 10 });
  for (const [i, mark] of marks.entries()) {
    const [was, small, moved] = [mark, half.marks[i]!, shifted(marks, [10, 20])[i]!].map(markBox);
    if (mark.kind === 'text' || mark.kind === 'line')
      expect(small!.max[0] - small!.min[0]).toBeCloseTo((was!.max[0] - was!.min[0]) / 2, 9);
    expect(moved!.min[0] - was!.min[0]).toBeCloseTo(10, 9);
    expect(moved!.max[1] - was!.max[1]).toBeCloseTo(20, 9);
  }
});
