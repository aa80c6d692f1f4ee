import type { ElkNode } from 'elkjs/lib/elk-api';
import { itemsOf, type EndName, type SystemDocument } from '@/core/plan';

/**
 * What is drawn of a system's circuits: parts as boxes with their ends, tanks round what hangs on them, lines between.
 */
export type SchematicGraph = {
  readonly boxes: readonly {
    readonly id: string;
    readonly name: string;
    readonly kind: 'tank' | 'component' | 'consumer';
    readonly width: number;
    readonly height: number;
    readonly ends: readonly {
      readonly id: string;
      readonly side: 'WEST' | 'EAST' | 'SOUTH' | 'NORTH';
      readonly name: string;
    }[];
  }[];
  readonly lines: readonly { readonly id: string; readonly from: string; readonly to: string }[];
};

export type PlacedSchematic = {
  readonly width: number;
  readonly height: number;
  readonly boxes: ReadonlyMap<
    string,
    { readonly x: number; readonly y: number; readonly width: number; readonly height: number }
  >;
  readonly lines: ReadonlyMap<string, readonly (readonly [number, number])[]>;
};

const SIDES: Readonly<Record<EndName, 'WEST' | 'EAST' | 'SOUTH' | 'NORTH'>> = {
  in: 'WEST',
  out: 'EAST',
  side: 'SOUTH',
  side2: 'NORTH',
};
const LETTER = 8.6;
const LINE = 20;
const WIDEST = 19;

/** A name broken into lines that fit a box. */
export function wrapped(name: string): string[] {
  const rows: string[] = [];
  for (const word of name.split(' ')) {
    const last = rows.at(-1);
    if (last !== undefined && `${last} ${word}`.length <= WIDEST) rows[rows.length - 1] = `${last} ${word}`;
    else rows.push(word);
  }
  return rows.slice(0, 3);
}

/** Only what lines touch is drawn, and tanks. */
export function schematicGraph(system: SystemDocument): SchematicGraph {
  const touched = new Set(system.lines.flatMap(({ from, to }) => [from.item, to.item]));
  const items = itemsOf(system).filter(({ id }) => touched.has(id));
  const size = (name: string, rows: number): { width: number; height: number } => ({
    width: Math.max(84, 24 + LETTER * Math.max(...wrapped(name).map(({ length }) => length))),
    height: 18 + LINE * (wrapped(name).length + rows),
  });
  const tanks = system.tanks.flatMap((tank): SchematicGraph['boxes'] => {
    const ends = items.flatMap((item) =>
      (item.kind === 'pickup' || item.kind === 'port') && item.tank === tank.id
        ? [
            {
              id: `${item.id}:${item.ends[0]!}`,
              name: item.name,
              side: item.kind === 'pickup' ? ('EAST' as const) : ('WEST' as const),
            },
          ]
        : [],
    );
    return ends.length > 0 ? [{ id: tank.id, name: tank.name, kind: 'tank', ends, ...size(tank.name, 1) }] : [];
  });
  const parts = items.flatMap((item): SchematicGraph['boxes'] =>
    item.kind === 'component' || item.kind === 'consumer'
      ? [
          {
            id: item.id,
            name: item.name,
            kind: item.kind,
            ends: item.ends.map((end) => ({ id: `${item.id}:${end}`, side: SIDES[end], name: end })),
            ...size(item.name, 1),
          },
        ]
      : [],
  );
  return {
    boxes: [...tanks, ...parts],
    lines: system.lines.map(({ id, from, to }) => ({
      id,
      from: `${from.item}:${from.end}`,
      to: `${to.item}:${to.end}`,
    })),
  };
}

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.layered.spacing.nodeNodeBetweenLayers': '88',
  'elk.spacing.nodeNode': '34',
  'elk.spacing.edgeNode': '26',
  'elk.spacing.edgeEdge': '14',
  'elk.layered.feedbackEdges': 'true',
  'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
  'elk.padding': '[top=30,left=12,bottom=16,right=12]',
};

const WRAPPING = 'elk.layered.wrapping.strategy';
/** Broken into rows or not, the widest first: what fits the room is taken. */
const WRAPS: readonly Readonly<Record<string, string>>[] = [
  { [WRAPPING]: 'OFF' },
  ...['3.5', '2.5', '1.25', '0.6'].map((ratio) => ({ [WRAPPING]: 'MULTI_EDGE', 'elk.aspectRatio': ratio })),
];
/** In rows, and last of all from above downward. */
const WAYS = [...WRAPS.map((wrap) => ({ wrap, down: false })), { wrap: {}, down: true }];
/** What is a little wider than its room is drawn smaller, down to this share. */
export const LEAST_SCALE = 0.9;

/** On a phone from above downward. */
const DOWNWARD = {
  'elk.direction': 'DOWN',
  [WRAPPING]: 'OFF',
  'elk.layered.spacing.nodeNodeBetweenLayers': '40',
  'elk.padding': '[top=16,left=12,bottom=16,right=64]',
};
const TURNED = { WEST: 'NORTH', EAST: 'SOUTH', SOUTH: 'EAST', NORTH: 'WEST' } as const;

/** A tank that feeds stands first, unless it is fed itself: the engine refuses a first one that a line leads to. */
const isFirst = ({ lines }: SchematicGraph, { kind, ends }: SchematicGraph['boxes'][number]): boolean =>
  kind === 'tank' &&
  ends.some(({ side }) => side === 'EAST') &&
  !lines.some(({ to, from }) => ends.some(({ id }) => id === to) && !ends.some(({ id }) => id === from));

/** What is asked of the layout engine, first the best; each next asks for less, should it refuse. */
const TRIES = [
  { first: true, options: {} as Readonly<Record<string, string>> },
  { first: false, options: {} },
  {
    first: false,
    options: {
      [WRAPPING]: 'OFF',
      'elk.layered.feedbackEdges': 'false',
      'elk.layered.nodePlacement.strategy': 'SIMPLE',
    },
  },
] as const;

type Engine = { readonly layout: (graph: ElkNode) => Promise<ElkNode> };

/**
 * Lays a schematic out from left to right, in as few rows as the room's width allows, or from above downward where no
 * number of rows fits it; the layout engine is fetched when the first one is wanted. Where it fails, however little is
 * asked of it, a plain layout takes its place: a schematic is never blank.
 */
export async function placedSchematic(
  graph: SchematicGraph,
  narrow: boolean,
  room_px: number,
  engine?: Engine,
): Promise<PlacedSchematic> {
  for (const { first, options } of TRIES) {
    let best: PlacedSchematic | undefined;
    const layouts = narrow || WRAPPING in options ? [{ wrap: {}, down: narrow }] : WAYS;
    for (const { wrap, down } of layouts) {
      try {
        const asking = asked(graph, down, first, { ...wrap, ...options });
        const laid = laidOut(await (engine ?? (await theEngine())).layout(asking));
        if (isWhole(graph, laid) && (!best || laid.width < best.width)) best = laid;
      } catch {
        // It is asked for less, or done without.
      }
      if (best && (narrow || best.width * LEAST_SCALE <= room_px)) break;
    }
    if (best) return best;
  }
  return plainSchematic(graph, narrow);
}

const isWhole = (graph: SchematicGraph, laid: PlacedSchematic): boolean =>
  graph.boxes.every(({ id }) => laid.boxes.has(id)) &&
  graph.lines.every(({ id }) => (laid.lines.get(id)?.length ?? 0) > 1);

async function theEngine(): Promise<Engine> {
  const { default: Elk } = await import('elkjs/lib/elk.bundled.js');
  return new Elk();
}

const asked = (
  graph: SchematicGraph,
  narrow: boolean,
  first: boolean,
  options: Readonly<Record<string, string>>,
): ElkNode => ({
  id: 'system',
  layoutOptions: { ...OPTIONS, ...(narrow ? DOWNWARD : {}), ...options },
  children: graph.boxes.map((box) => ({
    id: box.id,
    width: box.width,
    height: box.height,
    layoutOptions: {
      'elk.portConstraints': 'FIXED_SIDE',
      ...(first && isFirst(graph, box) ? { 'elk.layered.layering.layerConstraint': 'FIRST' } : {}),
    },
    ports: box.ends.map((end) => ({
      id: end.id,
      width: 1,
      height: 1,
      layoutOptions: { 'elk.port.side': narrow ? TURNED[end.side] : end.side },
    })),
  })),
  edges: graph.lines.map(({ id, from, to }) => ({ id, sources: [from], targets: [to] })),
});

function laidOut(laid: ElkNode): PlacedSchematic {
  const boxes = new Map(
    (laid.children ?? []).map(({ id, x = 0, y = 0, width = 0, height = 0 }) => [id, { x, y, width, height }]),
  );
  const lines = new Map(
    (laid.edges ?? []).map((edge) => [
      edge.id,
      (edge.sections ?? []).flatMap(({ startPoint, bendPoints = [], endPoint }) =>
        [startPoint, ...bendPoints, endPoint].map(({ x, y }) => [x, y] as const),
      ),
    ]),
  );
  return { width: laid.width ?? 0, height: laid.height ?? 0, boxes, lines };
}

const [GAP_ALONG, GAP_ACROSS, MARGIN] = [96, 40, 20];

/**
 * The plain layout: each part one step further than what feeds it, tanks that
 * nothing feeds first, those of one step side by side; lines go straight from
 * side to side.
 */
export function plainSchematic({ boxes, lines }: SchematicGraph, narrow: boolean): PlacedSchematic {
  const boxOf = new Map(boxes.flatMap((box) => box.ends.map((end) => [end.id, box.id] as const)));
  const joins = lines.map(({ from, to }) => [boxOf.get(from), boxOf.get(to)] as const);
  const step = new Map<string, number>();
  const open = boxes.filter(({ id }) => !joins.some(([from, to]) => to === id && from !== id)).map(({ id }) => id);
  // In a ring nothing comes first: then the first box does.
  for (const begin of [...open, ...boxes.map(({ id }) => id)]) {
    if (step.has(begin)) continue;
    step.set(begin, 0);
    for (const queue = [begin]; queue.length > 0;) {
      const at = queue.shift()!;
      for (const [from, to] of joins) {
        if (from !== at || to === undefined || step.has(to)) continue;
        step.set(to, step.get(at)! + 1);
        queue.push(to);
      }
    }
  }
  const placed = new Map<string, { x: number; y: number; width: number; height: number }>();
  const [along, across] = narrow ? (['height', 'width'] as const) : (['width', 'height'] as const);
  let at = MARGIN;
  let widest = 0;
  for (let k = 0; k <= Math.max(0, ...step.values()); k++) {
    const column = boxes.filter(({ id }) => step.get(id) === k);
    let beside = MARGIN;
    for (const box of column) {
      placed.set(box.id, {
        ...(narrow ? { x: beside, y: at } : { x: at, y: beside }),
        width: box.width,
        height: box.height,
      });
      beside += box[across] + GAP_ACROSS;
    }
    widest = Math.max(widest, beside);
    at += Math.max(0, ...column.map((box) => box[along])) + GAP_ALONG;
  }
  const end = (id: string, leaves: boolean): readonly [number, number] => {
    const { x, y, width, height } = placed.get(boxOf.get(id)!)!;
    return narrow ? [x + width / 2, leaves ? y + height : y] : [leaves ? x + width : x, y + height / 2];
  };
  const drawn = new Map(
    lines
      .filter(({ from, to }) => boxOf.has(from) && boxOf.has(to))
      .map(({ id, from, to }) => [id, [end(from, true), end(to, false)] as const]),
  );
  return narrow
    ? { width: widest, height: at, boxes: placed, lines: drawn }
    : { width: at, height: widest, boxes: placed, lines: drawn };
}
