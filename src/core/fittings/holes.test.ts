import { describe, expect, it } from 'vitest';
import { HOLE_TOOLS } from '../reference/holeTools';
import { PARTS_FOR_ROLE, PORT_PARTS, portPart } from '../reference/portParts';
import { THREADS } from '../reference/threads';
import { expectClose } from '../../../tests/expectClose';
import { holePlan, tapPlan } from '.';

const MM = 1e-3;

describe('how a hole is made', () => {
  it.each([
    [6.5, 2, 'twist-drill', 6.5],
    [20, 2, 'step-drill', 20],
    [20.5, 3, 'step-drill', 20],
    [20, 6, 'hole-saw', 20],
    [51, 3, 'hole-saw', 51],
    [42, 3, 'hole-saw', 41],
    [112, 3, 'hole-saw', 111],
    [300, 3, 'jigsaw', 300],
    [98.5, 30, 'jigsaw', 98.5],
  ])('%d mm in %d mm sheet', (hole, sheet, tool, size) => {
    const plan = holePlan(hole * MM, sheet * MM);
    expect(plan.tool).toBe(tool);
    expectClose(plan.size_m, size * MM, { abs: 1e-9, why: 'largest size of the table that is not over the hole' });
    expectClose(plan.file_m, (hole - size) * MM, { abs: 1e-9, why: 'the rest is filed' });
    expect(plan.pilot_m).toBeLessThanOrEqual(plan.size_m);
  });

  it('never cuts over the hole, whatever its size and sheet', () => {
    for (let hole = 1; hole < 160; hole += 0.37)
      for (const sheet of [1, 2, 4.5, 8])
        expect(holePlan(hole * MM, sheet * MM).size_m).toBeLessThanOrEqual(hole * MM + 1e-9);
  });

  it('screws of a ring: drill by diameter less pitch, depth by the metal', () => {
    const ring = portPart('sender-5');
    const soft = tapPlan(ring, 3 * MM, true)!;
    expect(soft).toMatchObject({ thread: 'M5 x 0.8', count: 5, inSheet: false });
    expectClose(soft.drill_m, 4.2 * MM, { abs: 1e-9, why: 'ISO 2306 (from memory): 4.2 for M5' });
    expectClose(soft.depth_m, 7.5 * MM, { abs: 1e-9, why: 'one and a half diameters in aluminium' });
    expect(tapPlan(ring, 5 * MM, false)).toMatchObject({ inSheet: true });
    expect(tapPlan(portPart('bung-npt-1-4'), 3 * MM, true)).toBeUndefined();
  });

  it('a thread in the wall: as many turns as pitches go into the sheet', () => {
    const quarter = tapPlan(portPart('tapped-npt-1-4'), 3 * MM, true)!;
    expectClose(quarter.turns, (3 * 18) / 25.4, { rel: 1e-12, why: '18 turns an inch (ASME B1.20.1, from memory)' });
    expectClose(quarter.drill_m, 0.4375 * 25.4 * MM, { rel: 1e-12, why: 'tap chart: 7/16' });
    expect(quarter).toMatchObject({ thread: '1/4 NPT', count: 1, inSheet: false });
    expect(tapPlan(portPart('tapped-m12'), 12 * MM, true)).toMatchObject({ turns: 8, inSheet: true });
  });
});

describe('parts of ports', () => {
  it.each(PORT_PARTS.map((row) => [row.key, row] as const))(
    '%s: hole under its cover, thread in the table, every size above nothing',
    (_, row) => {
      expect(row.cover).toBeGreaterThan(row.hole);
      expect(row.bore).toBeLessThanOrEqual(row.hole);
      if (row.thread) {
        const thread = THREADS.find(({ name }) => name === row.thread)!;
        expect(thread).toBeDefined();
        // What is tapped in the wall starts from its drill.
        if (row.join === 'tapped') expect(row.hole).toBe(thread.tapDrill_m);
        else expect(row.hole).toBeGreaterThanOrEqual(thread.major_m);
        // The hexagon that turns it goes over it.
        if (row.acrossFlats) expect(row.acrossFlats).toBeGreaterThan(thread.major_m);
      }
      if (row.bolts) {
        expect(THREADS.some(({ name }) => name === row.bolts!.thread)).toBe(true);
        // Between hole and rim, with half a screw of metal on either side.
        expect(row.bolts.circle).toBeGreaterThan(row.hole);
        expect(row.bolts.circle).toBeLessThan(row.cover);
      }
      for (const size of [row.hole, row.cover, row.above, row.below, row.bore]) expect(size).toBeGreaterThan(0);
    },
  );

  it('are each of one key, and each role has some', () => {
    expect(new Set(PORT_PARTS.map(({ key }) => key)).size).toBe(PORT_PARTS.length);
    for (const groups of Object.values(PARTS_FOR_ROLE))
      expect(PORT_PARTS.some(({ group }) => groups.includes(group))).toBe(true);
  });

  it('tools come in rising sizes', () => {
    for (const { sizes } of HOLE_TOOLS) sizes.slice(1).forEach((size, i) => expect(size).toBeGreaterThan(sizes[i]!));
  });
});
