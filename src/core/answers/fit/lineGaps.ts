import { stockOf } from '../../plan/circuits';
import { partPositions } from '../../model/networkParts';
import { tankGeometry } from '../../model/compileTank';
import type { SpacePlan } from '../../plan/schema';
import { clearanceTo, type Body, type Piece, type Obstacle } from '../../fit';
import { add, AT_HOME, norm, rodMesh, subtract } from '../../geometry';
import { linePoints } from '../lines/profile';

/** How near a line comes to something hot or something that moves, over the whole of its travel. */
export type LineGap = {
  readonly line: string;
  readonly name: string;
  readonly to: string;
  readonly obstacle: string;
  readonly kind: 'heat' | 'moving';
  /** Negative where they meet [m]. */
  readonly distance_m: number;
  readonly keep_m: number;
};

const SIDES = 8;
const LEAST_PIECE_M = 1e-3;

/**
 * Distances from every line to what is hot or moves. A line is taken straight
 * between its points: how it hangs between them nobody has said.
 */
export function lineGaps(system: SpacePlan, obstacles: readonly Obstacle[]): LineGap[] {
  const dangers = obstacles.filter(({ role, motions }) => role === 'heat' || motions.length > 0);
  if (dangers.length === 0) return [];
  const tanks = system.tanks.flatMap((tank) => {
    const model = tankGeometry(tank);
    return model.ok ? [{ tank: model.value }] : [];
  });
  const positions = partPositions(system, tanks);
  return system.lines
    .flatMap((line) => {
      const start = positions.get(line.from.item);
      const stock = stockOf(line);
      if (!start || !stock) return [];
      const points = linePoints(line).map(({ at }) => add(start, at));
      const pieces = points
        .slice(1)
        .flatMap((point, i): Piece[] =>
          norm(subtract(point, points[i]!)) < LEAST_PIECE_M
            ? []
            : [
                {
                  id: `${line.id}-${i}`,
                  name: line.name,
                  surface: rodMesh(points[i]!, point, stock.outside_m / 2, SIDES),
                },
              ],
        );
      if (pieces.length === 0) return [];
      const body: Body = { id: line.id, name: line.name, pieces, at: AT_HOME };
      return dangers.map((obstacle): LineGap => ({
        line: line.id,
        name: line.name,
        to: obstacle.id,
        obstacle: obstacle.name,
        kind: obstacle.role === 'heat' ? 'heat' : 'moving',
        distance_m: clearanceTo(body, obstacle).distance_m,
        keep_m: obstacle.keep_m,
      }));
    })
    .sort((a, b) => a.distance_m - a.keep_m - (b.distance_m - b.keep_m));
}
