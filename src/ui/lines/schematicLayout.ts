import type { ElkNode } from 'elkjs/lib/elk-api';
import { itemsOf, type EndName, type SystemDocument } from '@/core/document';

/** What is drawn of a system's circuits: parts as boxes with their ends, tanks round what hangs on them, lines between. */
export type SchematicGraph = {
  readonly boxes: readonly { readonly id: string; readonly name: string; readonly kind: 'tank' | 'component' | 'consumer'; readonly width: number; readonly height: number; readonly ends: readonly { readonly id: string; readonly side: 'WEST' | 'EAST' | 'SOUTH' | 'NORTH'; readonly name: string }[] }[];
  readonly lines: readonly { readonly id: string; readonly from: string; readonly to: string }[];
};

export type PlacedSchematic = {
  readonly width: number;
  readonly height: number;
  readonly boxes: ReadonlyMap<string, { readonly x: number; readonly y: number; readonly width: number; readonly height: number }>;
  readonly lines: ReadonlyMap<string, readonly (readonly [number, number])[]>;
};

const SIDES: Readonly<Record<EndName, 'WEST' | 'EAST' | 'SOUTH' | 'NORTH'>> = { in: 'WEST', out: 'EAST', side: 'SOUTH', side2: 'NORTH' };
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
  const size = (name: string, rows: number): { width: number; height: number } => ({ width: Math.max(84, 24 + LETTER * Math.max(...wrapped(name).map(({ length }) => length))), height: 18 + LINE * (wrapped(name).length + rows) });
  const tanks = system.tanks.flatMap((tank): SchematicGraph['boxes'] => {
    const ends = items.flatMap((item) => ((item.kind === 'pickup' || item.kind === 'port') && item.tank === tank.id
      ? [{ id: `${item.id}:${item.ends[0]!}`, name: item.name, side: item.kind === 'pickup' ? 'EAST' as const : 'WEST' as const }] : []));
    return ends.length > 0 ? [{ id: tank.id, name: tank.name, kind: 'tank', ends, ...size(tank.name, 1) }] : [];
  });
  const parts = items.flatMap((item): SchematicGraph['boxes'] => (item.kind === 'component' || item.kind === 'consumer' ? [{
    id: item.id, name: item.name, kind: item.kind, ends: item.ends.map((end) => ({ id: `${item.id}:${end}`, side: SIDES[end], name: end })), ...size(item.name, 1),
  }] : []));
  return { boxes: [...tanks, ...parts], lines: system.lines.map(({ id, from, to }) => ({ id, from: `${from.item}:${from.end}`, to: `${to.item}:${to.end}` })) };
}

const OPTIONS = {
  'elk.algorithm': 'layered', 'elk.direction': 'RIGHT', 'elk.edgeRouting': 'ORTHOGONAL', 'elk.layered.spacing.nodeNodeBetweenLayers': '88', 'elk.spacing.nodeNode': '34', 'elk.spacing.edgeNode': '26', 'elk.spacing.edgeEdge': '14',
  'elk.layered.feedbackEdges': 'true', 'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX', 'elk.padding': '[top=30,left=12,bottom=16,right=12]', 'elk.aspectRatio': '1.25', 'elk.layered.wrapping.strategy': 'MULTI_EDGE',
};

/** On a phone from above downward. */
const DOWNWARD = { 'elk.direction': 'DOWN', 'elk.layered.wrapping.strategy': 'OFF', 'elk.layered.spacing.nodeNodeBetweenLayers': '40', 'elk.padding': '[top=16,left=12,bottom=16,right=64]' };
const TURNED = { WEST: 'NORTH', EAST: 'SOUTH', SOUTH: 'EAST', NORTH: 'WEST' } as const;

/** Lays a schematic out from left to right; the layout engine is fetched when the first one is wanted. */
export async function placedSchematic(graph: SchematicGraph, narrow: boolean): Promise<PlacedSchematic> {
  const { default: Elk } = await import('elkjs/lib/elk.bundled.js');
  const laid: ElkNode = await new Elk().layout({
    id: 'system', layoutOptions: { ...OPTIONS, ...(narrow ? DOWNWARD : {}) },
    children: graph.boxes.map(({ id, kind, width, height, ends }) => ({
      id, width, height, layoutOptions: { 'elk.portConstraints': 'FIXED_SIDE', ...(kind === 'tank' && ends.some(({ side }) => side === 'EAST') ? { 'elk.layered.layering.layerConstraint': 'FIRST' } : {}) },
      ports: ends.map((end) => ({ id: end.id, width: 1, height: 1, layoutOptions: { 'elk.port.side': narrow ? TURNED[end.side] : end.side } })),
    })),
    edges: graph.lines.map(({ id, from, to }) => ({ id, sources: [from], targets: [to] })),
  });
  const boxes = new Map((laid.children ?? []).map(({ id, x = 0, y = 0, width = 0, height = 0 }) => [id, { x, y, width, height }]));
  const lines = new Map((laid.edges ?? []).map((edge) => [edge.id, (edge.sections ?? []).flatMap(({ startPoint, bendPoints = [], endPoint }) => [startPoint, ...bendPoints, endPoint].map(({ x, y }) => [x, y] as const))]));
  return { width: laid.width ?? 0, height: laid.height ?? 0, boxes, lines };
}
