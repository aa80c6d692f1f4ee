import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parseSystemText, type SystemDocument } from '@/core/plan';
import { boxesMeet, markBox, type Box, type Of } from '@/core/drawings';
import { unwrap } from '@/core/outcome';
import { schematicDrawing } from '@/core/reports';
import {
  LEAST_SCALE,
  placedSchematic,
  plainSchematic,
  schematicGraph,
  wrapped,
  type PlacedSchematic,
  type SchematicGraph,
} from './schematicLayout';

const ROOM_PX = 960;

const demo = (file: string): SystemDocument => unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8')));

describe('every demo’s schematic', () => {
  it.each(readdirSync('demo').flatMap((file) => [[file, false] as const, [file, true] as const]))(
    '%s, narrow %s: no two boxes overlap, every line has a route between its own parts',
    async (file, narrow) => {
      const system = demo(file);
      const graph = schematicGraph(system);
      const placed = await placedSchematic(graph, narrow, ROOM_PX);
      const boxes = graph.boxes.map(({ id }) => placed.boxes.get(id)!);
      boxes.forEach((a, i) =>
        boxes.slice(i + 1).forEach((b) => {
          const apart = a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;
          expect(apart).toBe(true);
        }),
      );
      expect([...placed.lines.keys()].sort()).toEqual(system.lines.map(({ id }) => id).sort());
      const owner = (end: string): string => graph.boxes.find(({ ends }) => ends.some(({ id }) => id === end))!.id;
      for (const { id, from, to } of graph.lines) {
        const points = placed.lines.get(id)!;
        expect(points.length).toBeGreaterThan(1);
        for (const [end, point] of [
          [from, points[0]!],
          [to, points.at(-1)!],
        ] as const) {
          const box = placed.boxes.get(owner(end))!;
          expect(point[0]).toBeGreaterThanOrEqual(box.x - 2);
          expect(point[0]).toBeLessThanOrEqual(box.x + box.width + 2);
          expect(point[1]).toBeGreaterThanOrEqual(box.y - 2);
          expect(point[1]).toBeLessThanOrEqual(box.y + box.height + 2);
        }
      }
    },
  );
});

it('draws what lines touch, and no more', () => {
  const boat = demo('crab-boat.json');
  const cut = schematicGraph({ ...boat, lines: boat.lines.slice(0, 2) });
  expect(cut.boxes.map(({ id }) => id).sort()).toEqual(['filter', 'main', 'tank-cock']);
});

it('names break into lines that fit a box', () => {
  expect(wrapped('Pump')).toEqual(['Pump']);
  expect(wrapped('Coolant recovery bottle, aft')).toEqual(['Coolant recovery', 'bottle, aft']);
});

/** A graph of boxes with an end on either side, joined as told. */
const boxed = (
  names: readonly [string, 'tank' | 'component' | 'consumer'][],
  joins: readonly [string, string][],
): SchematicGraph => ({
  boxes: names.map(([id, kind]) => ({
    id,
    name: id,
    kind,
    width: 100,
    height: 50,
    ends: [
      { id: `${id}:in`, side: 'WEST', name: 'in' },
      { id: `${id}:out`, side: 'EAST', name: 'out' },
    ],
  })),
  lines: joins.map(([from, to], i) => ({ id: `line-${i}`, from: `${from}:out`, to: `${to}:in` })),
});
const overlaps = (a: { x: number; y: number; width: number; height: number }, b: typeof a): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

describe('a schematic is never blank', () => {
  const fed = boxed(
    [
      ['main', 'tank'],
      ['aux', 'tank'],
      ['engine', 'consumer'],
    ],
    [
      ['aux', 'main'],
      ['main', 'engine'],
    ],
  );
  const ring = boxed(
    [
      ['main', 'tank'],
      ['aux', 'tank'],
    ],
    [
      ['aux', 'main'],
      ['main', 'aux'],
    ],
  );

  it.each([[false], [true]])(
    'one feeding tank that joins another directly is laid out, narrow %s; so are two that feed each other',
    async (narrow) => {
      for (const graph of [fed, ring]) {
        const placed = await placedSchematic(graph, narrow, ROOM_PX);
        expect(placed.boxes.size).toBe(graph.boxes.length);
        expect(placed.lines.size).toBe(graph.lines.length);
      }
    },
  );

  it.each(readdirSync('demo'))(
    '%s: in fewer rows where there is more room, and never wider than its room for no reason',
    async (file) => {
      const graph = schematicGraph(demo(file));
      const [small, large] = [await placedSchematic(graph, false, 640), await placedSchematic(graph, false, 2000)];
      expect(large.width).toBeGreaterThanOrEqual(small.width);
      expect(large.height).toBeLessThanOrEqual(small.height);
      expect(large.width * LEAST_SCALE).toBeLessThanOrEqual(2000);
    },
  );

  it('a layout engine that fails, or gives back nothing, is done without', async () => {
    for (const layout of [
      () => Promise.reject(new Error('unsupported graph')),
      () => Promise.resolve({ id: 'system' }),
    ]) {
      let asked = 0;
      const placed = await placedSchematic(fed, false, ROOM_PX, {
        layout: () => {
          asked++;
          return layout();
        },
      });
      // As it is, without a first tank, with less; the first two in four ways of breaking rows.
      expect(asked).toBe(13);
      expect(placed).toEqual(plainSchematic(fed, false));
    }
  });

  it.each([[false], [true]])(
    'the plain layout: no two boxes overlap, nothing lies outside, each part stands beyond what feeds it; narrow %s',
    (narrow) => {
      const graphs = [
        fed,
        ring,
        ...['crab-boat', 'forest-trailer', 'snow-vehicle', 'hill-climb-car'].map((name) =>
          schematicGraph(demo(`${name}.json`)),
        ),
      ];
      for (const graph of graphs) {
        const placed = plainSchematic(graph, narrow);
        const boxes = graph.boxes.map(({ id }) => placed.boxes.get(id)!);
        boxes.forEach((a, i) => boxes.slice(i + 1).forEach((b) => expect(overlaps(a, b)).toBe(false)));
        for (const { x, y, width, height } of boxes)
          expect(x >= 0 && y >= 0 && x + width <= placed.width && y + height <= placed.height).toBe(true);
        expect(placed.lines.size).toBe(graph.lines.length);
      }
      const { boxes } = plainSchematic(fed, narrow);
      const along = (id: string): number => boxes.get(id)![narrow ? 'y' : 'x'];
      expect(along('aux')).toBeLessThan(along('main'));
      expect(along('main')).toBeLessThan(along('engine'));
    },
  );
});

describe('labels', () => {
  const within = (box: Box, at: PlacedSchematic): boolean =>
    box.min[0] >= 0 && box.min[1] >= 0 && box.max[0] <= at.width && box.max[1] <= at.height;
  /** The flows of a schematic as it is drawn, at a pixel a millimetre. */
  const flowsOf = (graph: SchematicGraph, at: PlacedSchematic, flow: (i: number) => string): Of<'text'>[] => {
    const texts = new Set(graph.lines.map((_, i) => flow(i)));
    const { marks } = schematicDrawing(
      {
        width_mm: at.width,
        height_mm: at.height,
        boxes: graph.boxes.map(({ id, kind, name }) => ({
          id,
          kind,
          rows: wrapped(name),
          at: [at.boxes.get(id)!.x, at.boxes.get(id)!.y],
          width_mm: at.boxes.get(id)!.width,
          height_mm: at.boxes.get(id)!.height,
          note: '',
          isShut: false,
        })),
        lines: graph.lines.map(({ id }, i) => ({
          id,
          purpose: 'feed' as const,
          points: at.lines.get(id)!,
          flow: flow(i),
          isBack: false,
        })),
      },
      'all',
      undefined,
    );
    return marks.filter((mark): mark is Of<'text'> => mark.kind === 'text' && texts.has(mark.text));
  };
  const many = boxed(
    [['a', 'tank'], ...Array.from({ length: 12 }, (_, i) => [`c${i}`, 'component'] as [string, 'component'])],
    Array.from({ length: 12 }, (_, i) => ['a', `c${i}`] as [string, string]),
  );

  it('never stand over a box, another label or the edge, in all demos and where many lines run side by side', async () => {
    const all: [SchematicGraph, PlacedSchematic][] = [
      [many, plainSchematic(many, false)],
      [many, plainSchematic(many, true)],
    ];
    for (const file of readdirSync('demo'))
      for (const narrow of [false, true]) {
        const graph = schematicGraph(demo(file));
        all.push([graph, await placedSchematic(graph, narrow, ROOM_PX)], [graph, plainSchematic(graph, narrow)]);
      }
    for (const [graph, placed] of all) {
      const labels = flowsOf(graph, placed, (i) => `${(i + 1) * 117}.4 L/min`).map((mark) => markBox(mark));
      labels.forEach((label, i) => {
        for (const { x, y, width, height } of placed.boxes.values())
          expect(boxesMeet(label, { min: [x, y], max: [x + width, y + height] })).toBe(false);
        for (const other of labels.slice(i + 1)) expect(boxesMeet(label, other)).toBe(false);
        expect(within(label, placed)).toBe(true);
      });
    }
  });

  it('every line of the demos has one', async () => {
    for (const file of readdirSync('demo')) {
      const graph = schematicGraph(demo(file));
      const labels = flowsOf(graph, await placedSchematic(graph, false, ROOM_PX), () => '72.1 L/h');
      expect(labels).toHaveLength(graph.lines.length);
    }
  });
});
