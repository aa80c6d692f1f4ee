import { endKey, itemsOf, linesByEnd, runsOf, type EndRef, type Item } from '../../plan/circuits';
import { sunkParts } from '../../model/compileNetwork';
import { partPositions, surfaceHeight_m, type FlowInputs, type TankLevel } from '../../model/networkParts';
import { endsOfComponent, isShutOff, joinedEnds, kindOf, type EndName } from '../../components';
import type { ComponentDocument, LineDocument } from '../../plan/schema';
import { add, dot, volumeBelow, type Vec3 } from '../../geometry';
import { boreArea_m2 } from '../../network';
import { linePoints } from './profile';

/** A tank that empties through a break, and down to where. */
export type TankSpill = {
  readonly tank: string;
  readonly name: string;
  readonly volume_m3: number;
  readonly bySiphon: boolean;
};

/** What runs out where a line is opened or breaks, with the valves as they stand and the pumps at rest. */
export type Spill = {
  /** Out of lines alone [m³]. */
  readonly lines_m3: number;
  readonly tanks: readonly TankSpill[];
  /** Parts that hold the rest back. */
  readonly stoppedBy: readonly string[];
};

export type JointSpill = Spill & {
  readonly line: string;
  readonly lineName: string;
  readonly at: 'from' | 'to';
  readonly part: string;
  readonly height_m: number;
};
export type BreakSpill = Spill & {
  readonly run: string;
  readonly runName: string;
  /** The line that is taken to break at the run's lowest point. */ readonly lineName: string;
  readonly height_m: number;
};

const PIECES = 24;
/** Levels nearer than this are the same [m]. */
const LEVEL_M = 1e-4;

type Scene = {
  readonly inputs: FlowInputs;
  readonly items: ReadonlyMap<string, Item>;
  readonly byEnd: ReadonlyMap<string, readonly LineDocument[]>;
  readonly positions: ReadonlyMap<string, Vec3>;
  readonly weight: number;
};

function sceneOf(inputs: FlowInputs): Scene {
  const { system, levels } = inputs;
  return {
    inputs,
    items: new Map(itemsOf(system).map((item) => [item.id, item])),
    byEnd: linesByEnd(system),
    positions: partPositions(system, levels),
    weight: inputs.fluid.density_kgPerM3 * inputs.state.gravity.magnitude_mPerS2,
  };
}

/** What drains at each end of each liquid line when it is undone there. */
export function jointSpills(inputs: FlowInputs): JointSpill[] {
  const scene = sceneOf(inputs);
  return linesOutside(inputs).flatMap((line) =>
    (['from', 'to'] as const).flatMap((at): JointSpill[] => {
      const where = scene.positions.get(line[at].item);
      if (!where) return [];
      const height_m = dot(inputs.state.gravity.up, where);
      const walker = drained(scene, height_m);
      // Both sides of the joint are open: the line with all behind it, and the part.
      walker.along(line, at);
      walker.into(line[at]);
      return [{ ...walker.result(), line: line.id, lineName: line.name, at, part: line[at].item, height_m }];
    }),
  );
}

/** What runs out if each run's line breaks at its lowest point: to the ground, or into the bilge. */
export function breakSpills(inputs: FlowInputs): BreakSpill[] {
  const scene = sceneOf(inputs);
  const outside = linesOutside(inputs);
  return runsOf(inputs.system).flatMap((run): BreakSpill[] => {
    const lines = run.steps.flatMap((step) => (step.kind === 'line' ? outside.filter(({ id }) => id === step.id) : []));
    const lows = lines.flatMap((line) => {
      const heights = heightsOf(scene, line);
      return heights.length > 0 ? [{ line, height_m: Math.min(...heights) }] : [];
    });
    if (lows.length === 0) return [];
    const low = lows.reduce((best, each) => (each.height_m < best.height_m ? each : best));
    const walker = drained(scene, low.height_m);
    walker.along(low.line, 'from');
    walker.into(low.line.from);
    walker.into(low.line.to);
    return [{ ...walker.result(), run: run.id, runName: run.name, lineName: low.line.name, height_m: low.height_m }];
  });
}

/** Liquid lines, but for those between parts in a tank: what comes undone there spills nothing. */
function linesOutside(inputs: FlowInputs): LineDocument[] {
  const sunk = sunkParts(inputs);
  return inputs.system.lines.filter((line) => isWet(line) && !(sunk.has(line.from.item) && sunk.has(line.to.item)));
}

const isWet = ({ purpose }: LineDocument): boolean => purpose !== 'vent' && purpose !== 'overflow';

/** Heights of a line's points against effective gravity [m]; none where nobody knows where it is. */
function heightsOf({ inputs, positions }: Scene, line: LineDocument): number[] {
  const start = positions.get(line.from.item);
  return start ? linePoints(line).map(({ at }) => dot(inputs.state.gravity.up, add(start, at))) : [];
}

/** Follows liquid back from a break at a height, through all that lets it pass towards the break. */
function drained(scene: Scene, height_m: number) {
  const { inputs, items, byEnd } = scene;
  const seenLines = new Set<string>();
  const seenEnds = new Set<string>();
  const stopped = new Set<string>();
  const tanks = new Map<string, TankSpill>();
  let lines_m3 = 0;
  let head = { crest_m: -Infinity };

  /** A line with an end towards the break: what of it stands higher than the break, and what is at its other end. */
  const along = (line: LineDocument, towards: 'from' | 'to'): void => {
    if (seenLines.has(line.id)) return;
    seenLines.add(line.id);
    const heights = heightsOf(scene, line);
    lines_m3 += wetAbove_m3(line, heights, height_m);
    const before = head;
    head = { crest_m: Math.max(head.crest_m, ...heights) };
    into(line[towards === 'from' ? 'to' : 'from']);
    head = before;
  };

  /** A part with an end towards the break. */
  const into = (ref: EndRef): void => {
    const item = items.get(ref.item);
    if (!item || seenEnds.has(endKey(ref))) return;
    seenEnds.add(endKey(ref));
    if (item.kind === 'pickup' || item.kind === 'port') return tankAt(item);
    if (item.kind === 'consumer') return;
    for (const end of passesTowards(scene, item.component, ref.end, height_m, stopped)) {
      seenEnds.add(endKey({ item: item.id, end }));
      for (const line of byEnd.get(endKey({ item: item.id, end })) ?? [])
        along(line, line.from.item === item.id && line.from.end === end ? 'from' : 'to');
    }
  };

  const tankAt = (item: Extract<Item, { kind: 'pickup' | 'port' }>): void => {
    const level = inputs.levels.find(({ tank }) => tank.document.id === item.tank);
    if (!level || tanks.has(item.tank)) return;
    const spill = tankSpill(level, item, height_m, head.crest_m, inputs);
    if (spill) tanks.set(item.tank, spill);
  };

  return { along, into, result: (): Spill => ({ lines_m3, tanks: [...tanks.values()], stoppedBy: [...stopped] }) };
}

/** Volume of a line that stands over a height [m³]. */
function wetAbove_m3(line: LineDocument, heights: readonly number[], height_m: number): number {
  const points = linePoints(line);
  let length = 0;
  for (let i = 1; i < points.length; i++) {
    const piece = (points[i]!.along_m - points[i - 1]!.along_m) / PIECES;
    for (let p = 0; p < PIECES; p++) {
      const h = heights[i - 1]! + (heights[i]! - heights[i - 1]!) * ((p + 0.5) / PIECES);
      // What lies level with the break runs out too.
      if (h >= height_m - LEVEL_M) length += piece;
    }
  }
  return length * boreArea_m2(line.bore_m.value);
}

/** Ends of a part from which liquid comes through it towards the break; what holds it back is noted. */
function passesTowards(
  { inputs, positions, weight }: Scene,
  part: ComponentDocument,
  towards: EndName,
  break_m: number,
  stopped: Set<string>,
): readonly EndName[] {
  const surfaces = inputs.levels.map((level) => surfaceHeight_m(level, inputs.state.gravity.up));
  const highest = Math.max(...surfaces);
  const at = positions.get(part.id);
  const { drains } = kindOf(part);
  const draining = {
    head_Pa: weight * Math.max(0, highest - break_m),
    isOverSurfaces: at !== undefined && dot(inputs.state.gravity.up, at) > highest,
  };
  const from = isShutOff(part)
    ? []
    : joinedEnds(part, towards).filter((end) => drains?.(part, { from: end, towards }, draining) ?? true);
  if (from.length === 0 && endsOfComponent(part).length > 1) stopped.add(part.name);
  return from;
}

/**
 * What a tank loses through an inlet of it to a break at a height; nothing where the break lies over its surface, or
 * the inlet over the liquid.
 */
function tankSpill(
  level: TankLevel,
  item: Extract<Item, { kind: 'pickup' | 'port' }>,
  break_m: number,
  crest_m: number,
  { state: { gravity } }: FlowInputs,
): TankSpill | undefined {
  const { tank, up, offset_m } = level;
  const surface_m = surfaceHeight_m(level, gravity.up);
  const datum = surface_m - offset_m;
  const mouth =
    item.kind === 'pickup'
      ? tank.pickups.find(({ document }) => document.id === item.id)?.inlet.point_m
      : tank.ports
          .filter(({ document }) => document.id === item.id)
          .map(({ point_m, document }): Vec3 => [
            point_m[0],
            point_m[1],
            point_m[2] - (document.drop_m?.value ?? 0),
          ])[0];
  const port = item.kind === 'pickup' ? tank.pickups.find(({ document }) => document.id === item.id)?.port_m : mouth;
  if (!mouth || !port) return undefined;
  const mouth_m = datum + dot(up, mouth);
  if (mouth_m >= surface_m - LEVEL_M || break_m >= surface_m - LEVEL_M) return undefined;
  const left_m = Math.max(break_m, mouth_m);
  const volume = (height: number): number => volumeBelow(tank.mesh, { normal: up, offset_m: height - datum });
  const volume_m3 = volume(surface_m) - volume(left_m);
  const bySiphon = Math.max(crest_m, datum + dot(up, port)) > surface_m + LEVEL_M;
  return volume_m3 > 0 ? { tank: tank.document.id, name: tank.document.name, volume_m3, bySiphon } : undefined;
}
