import { describe, expect, it } from 'vitest';
import { SHEET_CHECKS, type FaceSheet, type SheetPort } from '@/core/answers';
import { checkWords, fromWords, toolSteps } from './sheetWords';

const mm = (value: number): string => `${Number((value * 1000).toFixed(1))} mm`;
const plan = { hole_m: 0.042, pilot_m: 0.0064, tool: 'hole-saw', size_m: 0.041, file_m: 0.001 } as const;
const port = (changes: Partial<SheetPort>): SheetPort => ({ plan, existing: false, ...changes }) as SheetPort;

describe('words beside a hole', () => {
  it.each(SHEET_CHECKS)('%s is said with what there is', (kind) => {
    const text = checkWords(
      { kind, with: 'edge 0-1', have_m: kind === 'not-flat' || kind === 'too-thick' ? 0.005 : -0.002, want_m: 0.003 },
      mm,
      mm,
    );
    expect(text.length).toBeGreaterThan(8);
    expect(text).not.toMatch(/undefined|NaN|-2 mm/);
  });

  it('edges go by the letters of their corners', () => {
    expect(checkWords({ kind: 'seam', with: 'edge 2-3', have_m: 0.004, want_m: 0.01 }, mm, mm)).toBe(
      'Weld 4 mm from edge C–D; 10 mm wanted',
    );
    expect(fromWords({ kind: 'flat' } as FaceSheet, { from: 3, to: 0, distance_m: 0, foot: [0, 0] })).toBe('edge D–A');
    expect(
      [-1, -2].map((from) =>
        fromWords({ kind: 'projected' } as FaceSheet, { from, to: from, distance_m: 0, foot: [0, 0] }),
      ),
    ).toEqual(['left', 'below']);
  });

  it('how it is made, in the order of the work', () => {
    expect(toolSteps(port({}), mm)).toBe('pilot 6.4 mm, hole saw 41 mm, file out 1 mm, deburr');
    expect(
      toolSteps(port({ plan: { hole_m: 0.005, pilot_m: 0.003, tool: 'twist-drill', size_m: 0.005, file_m: 0 } }), mm),
    ).toBe('drill 5 mm, deburr');
    expect(toolSteps(port({ existing: true }), mm)).toBe('there already');
    const tap = { thread: 'M5 x 0.8', count: 5, turns: 3.75, drill_m: 0.0042, depth_m: 0.0075, inSheet: false };
    expect(toolSteps(port({ tap, screws: [[0, 0]] }), mm)).toContain(
      '5 × M5 x 0.8, drill 4.2 mm, 7.5 mm of thread: the sheet alone gives 3.8 turns',
    );
    expect(toolSteps(port({ tap: { ...tap, count: 1 }, screws: [] }), mm)).toMatch(
      /, tap M5 x 0\.8: 3\.8 turns in this wall, 7\.5 mm of thread wanted$/,
    );
  });
});
