import { stockOf, type Circuits } from '../../plan/circuits';
import type { LineDocument } from '../../plan/schema';
import { lineRun, partPositions, type FlowInputs } from '../../model/networkParts';
import { norm, subtract, type Vec3 } from '../../geometry';
import { grommetFor, supportSpacing_m, type LineStockRow } from '../../reference/lineStock';
import { linePoints } from './profile';

export type PassCheck = {
  readonly name: string;
  readonly hole_m: number;
  /** Hole that the line's grommet wants; none where there is no grommet so large. */ readonly wants_m:
    number | undefined;
  readonly state: 'fits' | 'no-grommet-room' | 'line-too-wide';
};

/** How a line is led: what its bends, holders and holes want against what is planned. */
export type RouteResult = {
  readonly line: string;
  readonly name: string;
  readonly stock: LineStockRow;
  /** Straight from point to point [m]: a line cannot be shorter. */
  readonly shortest_m: number;
  /** With its bends rounded to the tightest radius and, where its ends move, a loop's slack [m]. */
  readonly developed_m: number;
  readonly length_m: number;
  readonly isShort: boolean;
  readonly leastBend_m: number;
  readonly bend_m: number | undefined;
  readonly tooTight: boolean;
  readonly mostApart_m: number;
  readonly held_m: number | undefined;
  readonly heldTooFar: boolean;
  readonly passes: readonly PassCheck[];
  /** A hard line between ends that move, with nothing in it that gives. */
  readonly rigidButFlexes: boolean;
};

/** Common practice: hose between parts that move against each other is a twentieth longer than its way. */
const FLEX_SLACK = 0.05;
/** A length typed to the centimetre may come out so much short [m]. */
const ROUNDING_M = 0.005;
const STRAIGHT_RAD = 0.02;

/** How every line is bent and led, held against what its stock allows [m]; lines without a stock are left out. */
export const routesOf = (system: Circuits): RouteResult[] =>
  system.lines.flatMap((line) => {
    const stock = stockOf(line);
    return stock ? [routeOf(line, stock)] : [];
  });

/**
 * A line between two parts whose places are known, and that does not get from the one to the other as it is written.
 */
export type EndsApart = { readonly line: string; readonly name: string; readonly gap_m: number };

/** Tape readings of a run add up to no better than this [m]; their own spreads come on top. */
const APART_M = 0.08;

/** A line whose two ends have places: how its far end lies from its near one, in vehicle axes [m]. */
export type PlacedPath = { readonly line: string; readonly way_m: Vec3 };

/** The ways of all lines whose two ends have places, as those places have them, whatever the lines say. */
export function placedPaths({ system, levels }: Pick<FlowInputs, 'system' | 'levels'>): PlacedPath[] {
  const positions = partPositions(system, levels);
  return system.lines.flatMap(({ id, from, to }): PlacedPath[] => {
    const [start, end] = [positions.get(from.item), positions.get(to.item)];
    return start && end ? [{ line: id, way_m: subtract(end, start) }] : [];
  });
}

/**
 * How far what a line joins lies apart, beside how far the line says that it goes [m], of lines whose two ends have
 * places.
 */
export function endsApart({ lines }: Circuits, paths: readonly PlacedPath[]): EndsApart[] {
  const lineOf = new Map(lines.map((line) => [line.id, line]));
  return paths.flatMap(({ line: id, way_m }): EndsApart[] => {
    const line = lineOf.get(id)!;
    const spread = Math.hypot(line.forward_m.spread ?? 0, line.toPort_m.spread ?? 0, line.rise_m.spread ?? 0);
    const gap_m = norm(subtract(lineRun(line), way_m));
    return gap_m > APART_M + spread ? [{ line: id, name: line.name, gap_m }] : [];
  });
}

function routeOf(line: LineDocument, stock: LineStockRow): RouteResult {
  const points = linePoints(line).map(({ at }) => at);
  const shortest_m = points.slice(1).reduce((sum, point, i) => sum + norm(subtract(point, points[i]!)), 0);
  const bend_m = line.bend_m?.value;
  const rounded = developedLength_m(points, bend_m ?? stock.bend_m);
  const developed_m = rounded * (line.flexes ? 1 + FLEX_SLACK : 1);
  const mostApart_m = supportSpacing_m(stock.kind, stock.outside_m);
  return {
    line: line.id,
    name: line.name,
    stock,
    shortest_m,
    developed_m,
    length_m: line.length_m.value,
    // Where nothing is said of the way between the ends, the straight line is all that is known.
    isShort: line.length_m.value < (line.points.length > 0 ? developed_m : shortest_m) - ROUNDING_M,
    leastBend_m: stock.bend_m,
    bend_m,
    tooTight: bend_m !== undefined && bend_m < stock.bend_m,
    mostApart_m,
    held_m: line.held_m?.value,
    heldTooFar: line.held_m !== undefined && line.held_m.value > mostApart_m,
    passes: line.passes.map(({ name, hole_m }) => passOf(name, hole_m.value, stock)),
    rigidButFlexes: line.flexes === true && line.kind !== 'hose',
  };
}

function passOf(name: string, hole_m: number, stock: LineStockRow): PassCheck {
  const wants_m = grommetFor(stock.outside_m)?.hole_m;
  const state =
    hole_m < stock.outside_m ? 'line-too-wide' : wants_m === undefined || hole_m < wants_m ? 'no-grommet-room' : 'fits';
  return { name, hole_m, wants_m, state };
}

/**
 * Length of a line through points with every corner rounded to a radius: each
 * bend saves the two tangents and adds its arc.
 *
 * @param points  at least two, in order [m]
 * @param bend_m  radius of the bends, to the middle of the line
 * @returns length [m]; a corner too close to the next is rounded as far as the room goes
 * @source tangent R tan(a/2), arc R a: plane trigonometry, as in any bender's manual
 */
export function developedLength_m(points: readonly Vec3[], bend_m: number): number {
  const directions = points
    .slice(1)
    .map((point, i) => subtract(point, points[i]!))
    .filter((way) => norm(way) > 0);
  const straight = directions.reduce((sum, way) => sum + norm(way), 0);
  return directions.slice(1).reduce((length, way, i) => {
    const before = directions[i]!;
    const cosine = (way[0] * before[0] + way[1] * before[1] + way[2] * before[2]) / (norm(way) * norm(before));
    const angle = Math.acos(Math.min(1, Math.max(-1, cosine)));
    if (angle < STRAIGHT_RAD || angle > Math.PI - STRAIGHT_RAD) return length;
    const room = Math.min(norm(way), norm(before)) / 2;
    const radius = Math.min(bend_m, room / Math.tan(angle / 2));
    return length - 2 * radius * Math.tan(angle / 2) + radius * angle;
  }, straight);
}
