import { describe, expect, it } from 'vitest';
import { holeChartCsv, type ChartHole, cutsCsv, partsCsv } from '.';

const HOLE: ChartHole = {
  face: 'Lid',
  port: 'Feed, left',
  part: 'bung',
  edges: [
    ['edge A–B', 0.0635],
    ['edge D–A', 0.102],
  ],
  hole_m: 0.018,
  pilot_m: 0.003,
  tool: 'step drill',
  size_m: 0.018,
  file_m: 0,
  screws: 0,
  tap: '',
  tapDrill_m: 0,
  tapDepth_m: 0,
  existing: false,
};
const rows = (text: string): string[] => text.trim().split('\r\n');

describe('the hole chart as CSV', () => {
  it('millimetres, two edges, the tool; names with commas in quotes', () => {
    expect(rows(holeChartCsv([HOLE]))[1]).toBe(
      'Lid,"Feed, left",bung,edge A–B,63.5,edge D–A,102,18,3,step drill,18,0,,,,,no',
    );
  });

  it('a hole that is there takes no tool; screws are tapped', () => {
    expect(rows(holeChartCsv([{ ...HOLE, existing: true }]))[1]).toContain(',18,,,,,');
    expect(
      rows(holeChartCsv([{ ...HOLE, screws: 5, tap: 'M5 x 0.8', tapDrill_m: 0.0042, tapDepth_m: 0.0075 }]))[1],
    ).toContain(',5,M5 x 0.8,4.2,7.5,no');
  });

  it('one edge is enough', () => {
    expect(rows(holeChartCsv([{ ...HOLE, edges: [['left', 0.01]] }]))[1]).toContain('left,10,,,18');
  });
});

describe('lists of lines', () => {
  it('parts with their count and places, quoted where they need it', () => {
    expect(
      partsCsv([
        { what: 'adapter', name: '1/4 NPT male thread to 3/8 in barb', count: 2, where: ['Feed, at Filter', 'Return'] },
      ]),
    ).toBe('what,name,count,where\r\nadapter,1/4 NPT male thread to 3/8 in barb,2,"Feed, at Filter; Return"\r\n');
  });
  it('pieces to the millimetre', () => {
    expect(cutsCsv([{ name: 'Feed', stock: '8 mm (5/16)', cut_m: 0.62349, ends: ['a', 'b'] }]).split('\r\n')[1]).toBe(
      'Feed,8 mm (5/16),623,a,b',
    );
  });
});
