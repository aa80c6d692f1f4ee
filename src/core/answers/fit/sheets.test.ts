import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  chosen,
  draftSystem,
  parseSystemText,
  toPath,
  withValue,
  type PortDocument,
  type SystemDocument,
} from '../../plan';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { expectClose } from '../../../../tests/expectClose';
import { portPart } from '../../reference/portParts';
import { bossesOf } from '../tank/scales';
import { tankModel } from '../../model';
import { bossPorts } from '../../model/sightBosses';
import { faceSheets, holePath, onDocument, type FaceSheet, type SheetPort } from '..';

beforeAll(loadKernel);

/** A box 600 by 400 by 300 mm outside, 3 mm sheet, with the ports that a test asks for. */
function boxWith(ports: readonly PortDocument[], changes: Readonly<Record<string, unknown>> = {}): SystemDocument {
  const draft = draftSystem({ name: 'x', vehicle: 'road', consumer: 'diesel-engine', power_W: 30e3, holds_m3: 0.06 });
  const box = {
    ...draft.tanks[0]!,
    dimensions: 'outside' as const,
    shape: { kind: 'box' as const, length_m: chosen(0.6), width_m: chosen(0.4), height_m: chosen(0.3) },
    ports: [...ports],
    pickups: [],
    senders: [],
  };
  const system = { ...draft, lines: [], tanks: [box] };
  return Object.entries(changes).reduce(
    (tree: SystemDocument, [path, value]) => withValue(tree, toPath(path), value),
    system,
  );
}
const port = (id: string, x: number, y: number, changes: Partial<PortDocument> = {}): PortDocument => ({
  id,
  name: id,
  role: 'spare',
  face: 'lid',
  x_m: chosen(x),
  y_m: chosen(y),
  bore_m: chosen(0.01),
  length_m: chosen(0),
  part: 'bung-npt-1-4',
  ...changes,
});

const sheetsOf = (system: SystemDocument): readonly FaceSheet[] => unwrap(faceSheets(system, 0));
const lidOf = (system: SystemDocument): FaceSheet => sheetsOf(system).find(({ name }) => name === 'Lid')!;
const checksOf = (system: SystemDocument, id: string): string[] =>
  sheetsOf(system)
    .flatMap(({ ports }) => ports)
    .find((one) => one.id === id)!
    .checks.map(({ kind }) => kind);
const portOf = (system: SystemDocument, id: string): SheetPort =>
  sheetsOf(system)
    .flatMap(({ ports }) => ports)
    .find((one) => one.id === id)!;

describe('a face as a sheet', () => {
  it('a box has six, each as large as its side', () => {
    const sheets = sheetsOf(boxWith([]));
    expect(sheets.map(({ name }) => name).sort()).toEqual([
      'Aft side',
      'Floor',
      'Fore side',
      'Lid',
      'Port side',
      'Starboard side',
    ]);
    const fore = sheets.find(({ name }) => name === 'Fore side')!;
    expect([fore.width_m, fore.height_m].map((value) => Number(value.toFixed(9)))).toEqual([0.4, 0.3]);
  });

  it('a centre is measured from two edges that cross, as a square finds it', () => {
    const { fromEdges } = portOf(boxWith([port('a', 0.08, 0.15)]), 'a');
    expect(fromEdges.map(({ distance_m }) => Number(distance_m.toFixed(9)))).toEqual([0.08, 0.15]);
  });

  it('a point of a sheet goes back to where the document has it', () => {
    for (const face of ['lid', 'floor', 'fore', 'port'] as const) {
      const place = {
        lid: { x_m: 0.2, y_m: 0.1 },
        floor: { x_m: 0.2, y_m: 0.1 },
        fore: { y_m: 0.1, z_m: 0.2 },
        port: { x_m: 0.2, z_m: 0.2 },
      }[face];
      const at = { ...Object.fromEntries(Object.entries(place).map(([key, value]) => [key, chosen(value)])) };
      const system = boxWith([{ ...port('a', 0, 0), x_m: undefined, y_m: undefined, ...at, face } as PortDocument]);
      const sheet = sheetsOf(system).find(({ ports }) => ports.length > 0)!;
      const back = onDocument(sheet, sheet.ports[0]!.at_m);
      for (const [key, value] of Object.entries(place))
        expectClose(back[key as 'x_m']!, value, { abs: 1e-9, why: `there and back on the ${face}` });
    }
  });

  it('screws stand on their circle, the first where the clock has it', () => {
    const ring = portOf(boxWith([port('a', 0.3, 0.2, { part: 'sender-5', clock_deg: chosen(90) })]), 'a');
    expect(ring.screws).toHaveLength(5);
    for (const [u, v] of ring.screws)
      expectClose(Math.hypot(u - ring.at_m[0], v - ring.at_m[1]), 0.027, { abs: 1e-9, why: 'half of 54 mm' });
    expectClose(ring.screws[0]![0] - ring.at_m[0], 0.027, {
      abs: 1e-9,
      why: 'clockwise from up by a quarter: to the right',
    });
    expect(ring.tap).toMatchObject({ thread: 'M5 x 0.8', inSheet: false });
  });
});

describe('the bosses of a sight tube', () => {
  const sight = (changes: Readonly<Record<string, unknown>> = {}) => ({
    id: 'sight',
    name: 'Sight tube',
    face: 'aft',
    along_m: chosen(0.15),
    lower_m: chosen(0.05),
    upper_m: chosen(0.22),
    markEvery_m3: chosen(0.005),
    boss: 'bung-npt-3-8',
    ...changes,
  });
  const withSight = (changes?: Readonly<Record<string, unknown>>): SystemDocument =>
    boxWith([port('low', 0, 0, { face: 'fore' })], { 'tanks[0].sightTubes': [sight(changes)] });

  it.each([
    ['aft', 0],
    ['fore', 0],
    ['port', 1],
    ['starboard', 1],
  ] as const)('on the %s side stand where the tube is read, one over the other', (face, across) => {
    const system = withSight({ face });
    const sheet = sheetsOf(system).find(({ ports }) => ports.some(({ boss }) => boss))!;
    const bosses = sheet.ports.filter(({ boss }) => boss);
    expect(bosses.map(({ name }) => name)).toEqual(['Sight tube, lower boss', 'Sight tube, upper boss']);
    expect(bosses.map((hole) => holePath(0, hole).join('.'))).toEqual([
      'tanks.0.sightTubes.0.lower_m',
      'tanks.0.sightTubes.0.upper_m',
    ]);
    // The other way to them: rays from without at the inner shell, as the scale is reckoned.
    const model = unwrap(tankModel(system, 0));
    const inside = bossesOf(model, system.tanks[0]!.sightTubes[0]!)!;
    bosses.forEach(({ at_m, hole_m }, i) => {
      const { origin_m, u, v } = sheet.frame;
      ([0, 1, 2] as const)
        .filter((axis) => axis !== across)
        .forEach((axis) =>
          expectClose(origin_m[axis] + u[axis] * at_m[0] + v[axis] * at_m[1], inside[i]![axis], {
            abs: 1e-9,
            why: 'boss on the sheet and in the scale',
          }),
        );
      expect(hole_m).toBe(portPart('bung-npt-3-8').hole);
    });
  });

  it('are checked like any other hole, and left out where nobody said what they are', () => {
    expect(checksOf(withSight({ upper_m: chosen(0.07) }), 'sight lower_m')).toContain('neighbour');
    expect(
      sheetsOf(withSight({ boss: undefined }))
        .flatMap(({ ports }) => ports)
        .map(({ id }) => id),
    ).toEqual(['low']);
  });
});

describe('a thread cut in the wall', () => {
  const tapped = (sheet_m: number): SheetPort =>
    portOf(
      boxWith([port('a', 0.3, 0.2, { part: 'tapped-npt-1-4' })], { 'tanks[0].material.thickness_m': chosen(sheet_m) }),
      'a',
    );
  it('wants the turns that are screwed in by hand', () => {
    // 0.2278 in by hand (ASME B1.20.1, from memory).
    expect(tapped(0.0057).checks.map(({ kind }) => kind)).toEqual(['few-turns']);
    expect(tapped(0.0058).checks).toEqual([]);
    expect(tapped(0.003).checks[0]!.with).toBe('2.1 turns of 1/4 NPT');
  });
});

describe('a ring whose screws do not stand evenly', () => {
  const angles = (ports: readonly PortDocument[]): number[] => {
    const ring = portOf(boxWith(ports), 'a');
    return ring.screws
      .map(([u, v]) => ((Math.atan2(u - ring.at_m[0], v - ring.at_m[1]) * 180) / Math.PI + 360) % 360)
      .map((angle) => Number(angle.toFixed(6)) % 360);
  };
  it('is charted so: one gap of five is narrower, and it goes in one way only', () => {
    const at = angles([port('a', 0.3, 0.2, { part: 'sender-5', clock_deg: chosen(0) })]);
    const gaps = at.map((angle, i) => (at[(i + 1) % 5]! - angle + 360) % 360).map((gap) => Number(gap.toFixed(6)));
    expect(gaps).toEqual([73, 73, 68, 73, 73]);
  });
  it('measured on the part at hand: even, but for the last', () => {
    const bolts = { count: 4, circle_m: chosen(0.06), diameter_m: chosen(0.0055), outOfStep_deg: chosen(12) };
    expect(angles([port('a', 0.3, 0.2, { part: 'sender-6', clock_deg: chosen(10), bolts })])).toEqual([
      10, 100, 190, 292,
    ]);
  });
});

describe('parts on round walls and small holes', () => {
  const round = {
    'tanks[0].shape': {
      kind: 'cylinder',
      axis: 'x',
      diameter_m: chosen(0.3),
      shell_m: chosen(0.6),
      nearEnd: 'flat',
      farEnd: 'flat',
    },
  };
  it.each([
    ['neck-38', 'filler'],
    ['neck-51', 'filler'],
    ['tube-16', 'vent'],
    ['bung-npt-1-4', 'spare'],
  ] as const)('%s in the crown of a drum does not run into the drum’s own wall', (part, role) => {
    expect(checksOf(boxWith([port('a', 0.3, 0.15, { part, role })], round), 'a')).not.toContain('inside');
  });
  it('a fitting near a corner of a box still runs into the wall beside it', () => {
    expect(checksOf(boxWith([port('a', 0.3, 0.012, { part: 'bulkhead-12', existing: true })]), 'a')).toContain(
      'inside',
    );
  });
  it('two holes of 3.5 mm drilled in a cap, 10 mm apart, do not overlap; 3 mm apart they do', () => {
    const pair = (apart: number) =>
      boxWith([
        port('a', 0.3, 0.2, { part: undefined, role: 'vent', bore_m: chosen(0.0035) } as Partial<PortDocument>),
        port('b', 0.3 + apart, 0.2, { part: undefined, role: 'vent', bore_m: chosen(0.0035) } as Partial<PortDocument>),
      ]);
    expect(checksOf(pair(0.01), 'a')).not.toContain('neighbour');
    expect(checksOf(pair(0.003), 'a')).toContain('neighbour');
  });
});

describe('what will not do', () => {
  it('is nothing where all stand free', () => {
    expect(checksOf(boxWith([port('a', 0.1, 0.1), port('b', 0.3, 0.2)]), 'a')).toEqual([]);
  });

  // A 1/4 NPT bung covers 21 mm: half as wide again as 13.7 mm.
  it('covers closer than 3 mm, by hand; and a millimetre further none', () => {
    expect(checksOf(boxWith([port('a', 0.2, 0.2), port('b', 0.2235, 0.2)]), 'a')).toContain('neighbour');
    expect(checksOf(boxWith([port('a', 0.2, 0.2), port('b', 0.2245, 0.2)]), 'a')).toEqual([]);
  });

  it('hose ends that cross, though their bungs stand far apart', () => {
    const turned = (id: string, x: number, turns: 'fore' | 'aft'): PortDocument =>
      port(id, x, 0.2, { stands: { height_m: chosen(0.05), diameter_m: chosen(0.024), turns, reach_m: chosen(0.08) } });
    expect([...new Set(checksOf(boxWith([turned('a', 0.2, 'fore'), turned('b', 0.34, 'aft')]), 'a'))]).toEqual([
      'hose-end',
    ]);
    expect(checksOf(boxWith([turned('a', 0.2, 'aft'), turned('b', 0.34, 'fore')]), 'a')).toEqual([]);
  });

  it('over the edge, too near a bend, too near the seam: by hand from hole and cover', () => {
    expect(checksOf(boxWith([port('a', 0.008, 0.2)]), 'a')).toContain('off-sheet');
    // Hole 18 mm: at 19 mm the rim is 10 mm off, less than four sheets of 3 mm.
    expect(checksOf(boxWith([port('a', 0.019, 0.2)]), 'a')).toEqual(expect.arrayContaining(['bend', 'seam']));
    expect(checksOf(boxWith([port('a', 0.0225, 0.2)]), 'a')).toEqual([]);
    // A bulkhead is not welded: no seam to keep from.
    expect(checksOf(boxWith([port('a', 0.026, 0.2, { part: 'bulkhead-6' })]), 'a')).not.toContain('seam');
  });

  it('a baffle under the hole, unless it ends below what hangs there', () => {
    const plate = {
      id: 'plate',
      name: 'Middle plate',
      axis: 'x' as const,
      at_m: chosen(0.3),
      thickness_m: chosen(0.002),
      cornerCut_m: chosen(0.03),
      topGap_m: chosen(0),
      holes: { count: 0, diameter_m: chosen(0.03), height_m: chosen(0.1) },
    };
    const system = (gap: number) =>
      boxWith([port('a', 0.305, 0.2)], { 'tanks[0].plates': [{ ...plate, topGap_m: chosen(gap) }] });
    expect(checksOf(system(0), 'a')).toContain('baffle');
    expect(checksOf(system(0.03), 'a')).not.toContain('baffle');
    expect(lidOf(system(0)).baffles.map(({ name }) => name)).toEqual(['Middle plate']);
  });

  it('a nut under the lid that runs into the wall', () => {
    // The nut of a -8 bulkhead is 28 mm across: 13 mm from the outside of a 3 mm wall it stands 4 mm into it.
    expect(
      checksOf(
        boxWith([
          port('a', 0.013, 0.2, {
            part: 'bulkhead-8',
            stands: { height_m: chosen(0.04), diameter_m: chosen(0.02), turns: 'straight', reach_m: chosen(0) },
          }),
        ]),
        'a',
      ),
    ).toContain('inside');
    expect(checksOf(boxWith([port('a', 0.04, 0.2, { part: 'bulkhead-8' })]), 'a')).not.toContain('inside');
  });

  it('a fitting in a recess that is too narrow for it', () => {
    const box = { kind: 'box' as const, length_m: chosen(0.04), width_m: chosen(0.4), height_m: chosen(0.05) };
    const recess = {
      id: 'cut',
      name: 'Recess',
      operation: 'take' as const,
      shape: box,
      x_m: chosen(0.3),
      y_m: chosen(0),
      z_m: chosen(0.25),
    };
    const system = (x: number) => boxWith([port('a', x, 0.2)], { 'tanks[0].parts': [recess] });
    expect(checksOf(system(0.308), 'a')).toContain('outside');
    expect(checksOf(system(0.32), 'a')).not.toContain('outside');
  });

  it('a thick sheet for a nut, a hole that is there already', () => {
    expect(
      checksOf(
        boxWith([port('a', 0.3, 0.2, { part: 'bulkhead-6' })], { 'tanks[0].material.thickness_m': chosen(0.008) }),
        'a',
      ),
    ).toContain('too-thick');
    expect(checksOf(boxWith([port('a', 0.019, 0.2, { existing: true })]), 'a')).not.toContain('bend');
  });
});

describe('a curved wall', () => {
  const drum = (part: string, y: number): SystemDocument =>
    boxWith([port('a', 0.3, y, { part })], {
      'tanks[0].shape': {
        kind: 'cylinder',
        axis: 'x',
        diameter_m: chosen(0.4),
        shell_m: chosen(0.6),
        nearEnd: 'flat',
        farEnd: 'flat',
      },
    });

  it('is seen along the way its port faces, and its rise under the cover is that of the circle', () => {
    const system = drum('sender-5', 0.2);
    const sheet = sheetsOf(system).find(({ ports }) => ports.length > 0)!;
    expect(sheet).toMatchObject({ kind: 'projected', name: 'From above' });
    // A 70 mm flange on a drum of 400 mm: r - sqrt(r² - 35²).
    expectClose(portOf(system, 'a').sag_m, 0.2 - Math.sqrt(0.2 ** 2 - 0.035 ** 2), {
      abs: 4e-4,
      why: 'arrow of the arc; the drum has many flat strips',
    });
  });

  it('takes a weld-in bung, and wants a boss under a gasket', () => {
    expect(portOf(drum('sender-5', 0.2), 'a').seal).toBe('boss');
    expect(checksOf(drum('sender-5', 0.2), 'a')).toContain('not-flat');
    expect(portOf(drum('bung-npt-1-4', 0.2), 'a').seal).toBe('seals');
  });
});

it('every demo has its sheets, each port on one of them', () => {
  for (const name of ['crab-boat', 'forest-trailer', 'hill-climb-car', 'snow-vehicle']) {
    const system = unwrap(parseSystemText(readFileSync(`demo/${name}.json`, 'utf8')));
    system.tanks.forEach((tank, t) =>
      expect(
        unwrap(faceSheets(system, t))
          .flatMap(({ ports }) => ports)
          .map(({ id }) => id)
          .sort(),
      ).toEqual([...tank.ports, ...bossPorts(tank).map(({ port: of }) => of)].map(({ id }) => id).sort()),
    );
  }
});
