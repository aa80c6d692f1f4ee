import {
  clearanceTo,
  clearanceToPanel,
  movedTo,
  positionsOver,
  rangeOf,
  type Clearance,
  type Obstacle,
  type Panel,
} from '../../fit';
import { meshBounds, placedBack, posedMesh, type Bounds, type ClosedMesh } from '../../geometry';
import { compileMountBodies, mountPieces, placeOf, pointOf, type FitCode } from '../../model/compileFit';
import { success, type Outcome } from '../../outcome';
import type { MountDocument, SpacePlan, TankDocument } from '../../plan/schema';

/** How near a mount comes to something, as measured. */
export type MountGap = Clearance & {
  /** Of the mount. */ readonly mount: string;
  readonly mountName: string;
  readonly kind: 'wall' | 'tank' | Obstacle['role'];
  readonly keep_m: number;
};

/**
 * How near every mount comes to the space round it and to the other tanks, the
 * tightest first. It is bolted to what stands still and may touch that; to what moves, is hot or is
 * another tank it keeps what the tank keeps.
 *
 * @param asObstacle another tank with all that stands on it
 */
export function mountGaps(
  system: SpacePlan,
  walls: readonly Panel[],
  obstacles: readonly Obstacle[],
  asObstacle: (tank: TankDocument) => Obstacle | undefined,
): Outcome<readonly MountGap[], FitCode> {
  const gaps: MountGap[] = [];
  for (const tank of system.tanks) {
    const bodies = compileMountBodies(system, tank);
    if (!bodies.ok) return bodies;
    if (bodies.value.length === 0) continue;
    const others = system.tanks.flatMap((other) => (other.id === tank.id ? [] : (asObstacle(other) ?? [])));
    for (const { mount, body } of bodies.value) {
      const gap = (clearance: Clearance, kind: MountGap['kind'], keep_m: number): MountGap => ({
        ...clearance,
        mount: mount.id,
        mountName: mount.name,
        kind,
        keep_m,
      });
      gaps.push(...walls.map((panel) => gap(clearanceToPanel(body, panel), 'wall', 0)));
      gaps.push(...others.map((other) => gap(clearanceTo(body, other), 'tank', other.keep_m)));
      gaps.push(
        ...obstacles.filter(isInItsWay).map((obstacle) => {
          return gap(clearanceTo(body, obstacle), obstacle.role, keepOf(obstacle));
        }),
      );
    }
  }
  return success(gaps.sort((a, b) => a.distance_m - a.keep_m - (b.distance_m - b.keep_m)));
}

/** Steel may stand where stones fly, and where only vapour must not be. */
const isInItsWay = ({ role }: Obstacle): boolean => role !== 'spray' && role !== 'occupied';
/** Bolted to what stands still it may touch that. */
const keepOf = ({ role, motions, keep_m }: Obstacle): number => (motions.length > 0 || role === 'heat' ? keep_m : 0);

/** Less than this of an overlap is rounding and rubber [m]. */
const TOUCH_M = 5e-4;

/**
 * Says of one mount after another what of the space and the other tanks it would run into, or come too near to, by
 * name; nothing where it has room, or is not at its tank.
 *
 * @param outer outside of its tank, in the tank’s axes
 */
export function foulsWith(
  tank: TankDocument,
  outer: ClosedMesh,
  walls: readonly Panel[],
  obstacles: readonly Obstacle[],
): (mount: MountDocument) => string[] {
  const at = placeOf(tank.mounting);
  const solid = obstacles.filter(isInItsWay);
  const room = new Map(solid.map((obstacle) => [obstacle, roomOf(obstacle)]));
  return (mount) => {
    const pieces = mountPieces(mount, outer, placedBack(at, pointOf(mount)));
    if (pieces.length === 0) return [];
    const body = { id: mount.id, name: mount.name, pieces, at };
    const bounds = pieces.map(({ surface }) => meshBounds(posedMesh(surface, at)));
    const isFar = (obstacle: Obstacle): boolean => {
      const { min, max } = room.get(obstacle)!;
      return bounds.every((own) =>
        [0, 1, 2].some((k) => own.min[k]! > max[k]! + obstacle.keep_m || own.max[k]! < min[k]! - obstacle.keep_m),
      );
    };
    return [
      ...walls.filter((panel) => clearanceToPanel(body, panel).distance_m < -TOUCH_M),
      ...solid.filter(
        (obstacle) => !isFar(obstacle) && clearanceTo(body, obstacle).distance_m < keepOf(obstacle) - TOUCH_M,
      ),
    ].map(({ name }) => name);
  };
}

const SWEEP_STEPS = 8;

/** A box round all that an obstacle takes up as it moves, and what it may reach between the places looked at. */
function roomOf(obstacle: Obstacle): Bounds {
  if (obstacle.motions.length === 0) return meshBounds(obstacle.surface);
  const { low, high, slopes } = rangeOf(obstacle);
  const between_m = slopes.reduce((sum, slope, k) => sum + (slope * (high[k]! - low[k]!)) / SWEEP_STEPS / 2, 0);
  const each = positionsOver(obstacle, SWEEP_STEPS).map((at) =>
    meshBounds(posedMesh(obstacle.surface, movedTo(obstacle, at))),
  );
  const end = (key: 'min' | 'max', k: number): number =>
    key === 'min'
      ? Math.min(...each.map(({ min }) => min[k]!)) - between_m
      : Math.max(...each.map(({ max }) => max[k]!)) + between_m;
  return { min: [end('min', 0), end('min', 1), end('min', 2)], max: [end('max', 0), end('max', 1), end('max', 2)] };
}
