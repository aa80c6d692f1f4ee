import { outerMesh, placeOf } from '../../model/compileFit';
import { partPositions } from '../../model/networkParts';
import { portSeat, standsOn } from '../../model/portSeat';
import { tankGeometry } from '../../model/compileTank';
import { stockOf } from '../../plan/circuits';
import type { LineDocument, SpacePlan, TankDocument } from '../../plan/schema';
import { joinedSurface, type Part } from '../../fit';
import { add, AT_HOME, norm, placed, rodMesh, roundedWay, scale, subtract, type Vec3 } from '../../geometry';
import { linePoints } from '../lines/profile';

/** A bend is looked at as straight pieces that turn by no more [rad]. */
const PIECE_RAD = Math.PI / 12;
const SIDES = 12;
const LEAST_PIECE_M = 1e-3;

/** Lines that keep their shape when they are carried: tube and pipe of a known width. */
export const hardLines = ({ lines }: Pick<SpacePlan, 'lines'>): LineDocument[] =>
  lines.filter((line) => (line.kind === 'tube' || line.kind === 'pipe') && stockOf(line) !== undefined);

/** A hard line as a body that is carried into its place, and the ports that it screws to. */
export type HardLine = { readonly part: Part; readonly ports: ReadonlySet<string> };

/**
 * A hard line where it lies: its corners rounded as it is bent, from the top of what stands on the port at its end.
 * @returns undefined where its ends have no places, or it has no length
 */
export function hardLine(system: SpacePlan, line: LineDocument): HardLine | undefined {
  const stock = stockOf(line);
  const tanks = system.tanks.flatMap((tank) => {
    const model = tankGeometry(tank);
    return model.ok ? [{ tank: model.value }] : [];
  });
  const start = partPositions(system, tanks).get(line.from.item);
  if (!stock || !start) return undefined;
  const told = linePoints(line).map(({ at }) => add(start, at));
  const tops = [line.from.item, line.to.item].map((item) => topOf(system.tanks, item));
  const way = [tops[0]?.top_m ?? told[0]!, ...told.slice(1, -1), tops[1]?.top_m ?? told.at(-1)!];
  const points = roundedWay(way, line.bend_m?.value ?? stock.bend_m, PIECE_RAD);
  const radius_m = stock.outside_m / 2;
  const rods = points.slice(1).flatMap((point, i) => {
    const along = subtract(point, points[i]!);
    const length = norm(along);
    if (length < LEAST_PIECE_M) return [];
    // Pieces of a bend overlap, so that no gap is left on its outside.
    const over = scale(along, (radius_m * Math.tan(PIECE_RAD / 2)) / length);
    const isFirst = i === 0;
    const isLast = i === points.length - 2;
    return [
      rodMesh(isFirst ? points[i]! : subtract(points[i]!, over), isLast ? point : add(point, over), radius_m, SIDES),
    ];
  });
  if (rods.length === 0) return undefined;
  return {
    part: { id: line.id, name: line.name, surface: joinedSurface(rods), at: AT_HOME, middle_m: middleOf(points) },
    ports: new Set(tops.flatMap((top) => (top ? [top.port] : []))),
  };
}

/** Half way along. */
function middleOf(points: readonly Vec3[]): Vec3 {
  const chords = points.slice(1).map((point, i) => norm(subtract(point, points[i]!)));
  let left = chords.reduce((sum, chord) => sum + chord, 0) / 2;
  for (const [i, chord] of chords.entries()) {
    if (left <= chord)
      return add(points[i]!, scale(subtract(points[i + 1]!, points[i]!), chord > 0 ? left / chord : 0));
    left -= chord;
  }
  return points.at(-1)!;
}

/** Where a line leaves what stands on a tank's port, that of a pickup or its own. */
function topOf(
  tanks: readonly TankDocument[],
  item: string,
): { readonly port: string; readonly top_m: Vec3 } | undefined {
  for (const tank of tanks) {
    const id = tank.pickups.find((pickup) => pickup.id === item)?.port ?? item;
    const port = tank.ports.find((each) => each.id === id);
    const outer = port && outerMesh(tank);
    const seat = outer?.ok ? portSeat(outer.value, port!) : undefined;
    if (port && seat)
      return {
        port: port.id,
        top_m: placed(placeOf(tank.mounting), add(seat.seat_m, scale(seat.out, standsOn(port).height_m))),
      };
  }
  return undefined;
}
