import { describe, expect, it } from 'vitest';
import type { FaceSheet, SheetPort } from '@/core/answers';
import { fromEdge, snapped } from './sheetPlace';

const port = (id: string, u: number, v: number, fromEdges: SheetPort['fromEdges'] = []): SheetPort =>
  ({ id, name: id, at_m: [u, v], fromEdges }) as unknown as SheetPort;
/** A sheet 400 by 200 mm whose left side leans in by 100 mm. */
const SHEET = {
  kind: 'flat',
  width_m: 0.4,
  height_m: 0.2,
  loops: [
    [
      [0, 0],
      [0.4, 0],
      [0.4, 0.2],
      [0.1, 0.2],
    ],
  ],
  ports: [port('a', 0.2, 0.05), port('b', 0.3, 0.15)],
} as unknown as FaceSheet;

describe('where a dragged hole comes to rest', () => {
  it('on whole millimetres in the open', () => {
    expect(snapped(SHEET, 'a', [0.1234, 0.0621])).toEqual({ at: [0.123, 0.062], lines: [] });
  });

  it('in line with another, and in the middle', () => {
    const { at, lines } = snapped(SHEET, 'a', [0.302, 0.0985]);
    expect(at).toEqual([0.3, 0.1]);
    expect(lines.map((line) => line.with)).toEqual(['b', 'the middle']);
  });
});

describe('a centre measured from edges', () => {
  it('square edges: one distance changes, the other stays', () => {
    const at = fromEdge(
      SHEET,
      port('c', 0.35, 0.05, [
        { from: 0, to: 1, distance_m: 0.05, foot: [0.35, 0] },
        { from: 1, to: 2, distance_m: 0.05, foot: [0.4, 0.05] },
      ]),
      1,
      0.08,
    )!;
    expect(at[0]).toBeCloseTo(0.32, 12);
    expect(at[1]).toBeCloseTo(0.05, 12);
  });

  it('a leaning edge: the distance is square to it', () => {
    const lean = fromEdge(
      SHEET,
      port('c', 0.15, 0.05, [
        { from: 3, to: 0, distance_m: 0.1, foot: [0, 0] },
        { from: 0, to: 1, distance_m: 0.05, foot: [0.15, 0] },
      ]),
      0,
      0.06,
    )!;
    // The side runs from (0, 0) to (0.1, 0.2): the distance of (u, v) is (2u - v) / sqrt 5.
    expect((2 * lean[0] - lean[1]) / Math.sqrt(5)).toBeCloseTo(0.06, 12);
    expect(lean[1]).toBeCloseTo(0.05, 12);
  });

  it('on a projected sheet: from the left and from below', () => {
    expect(fromEdge({ ...SHEET, kind: 'projected' }, port('c', 0.1, 0.05), 1, 0.07)).toEqual([0.1, 0.07]);
  });
});
