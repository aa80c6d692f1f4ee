import {
  depthInside,
  meshBounds,
  placed,
  placedBack,
  subtract,
  cross,
  dot,
  norm,
  scale,
  add,
  vertex,
  type ClosedMesh,
  type Vec3,
} from '../../geometry';
import type { Obstacle } from '../../fit';
import { SIDE_WAYS } from '../../model/axes';
import { outerMesh, placeOf, pointOf, type FitCode } from '../../model/compileFit';
import { guardPlate } from '../../model/mountBodies';
import { success, type Outcome } from '../../outcome';
import type { MountDocument, SpacePlan, TankDocument } from '../../plan/schema';

/** How much of a tank’s wall lies bare where something is thrown at it. */
export type Bare = {
  readonly tank: string;
  /** Of the zone. */ readonly zone: string;
  /** Wall within reach of the zone [m²], and the share of it that no guard covers. */
  readonly reached_m2: number;
  readonly bare_ratio: number;
};

/** Patches of wall are no larger across than this [m]. */
const PATCH_M = 0.02;
/** A guard covers walls that face its way, at least so far. */
const FACES_COS = 0.3;

/**
 * For each tank and each zone where something is thrown: how much of its wall is within reach, and what of that lies
 * behind no guard. Patches of wall are taken one by one, each by its middle.
 */
export function bareWalls(system: SpacePlan, obstacles: readonly Obstacle[]): Outcome<readonly Bare[], FitCode> {
  const zones = obstacles.filter(({ role }) => role === 'spray');
  if (zones.length === 0) return success([]);
  const bare: Bare[] = [];
  for (const tank of system.tanks) {
    const outer = outerMesh(tank);
    if (!outer.ok) return outer;
    const covers = guardsOf(system.mounts, tank, outer.value);
    const at = placeOf(tank.mounting);
    const patches = patchesOf(outer.value);
    for (const zone of zones) {
      const { min, max } = meshBounds(zone.surface);
      let [reached, open] = [0, 0];
      for (const { middle_m, normal, area_m2 } of patches) {
        const point = placed(at, middle_m);
        if (point.some((value, k) => value < min[k]! - zone.keep_m || value > max[k]! + zone.keep_m)) continue;
        if (depthInside(zone.surface, point) < -zone.keep_m) continue;
        reached += area_m2;
        if (!covers.some((isBehind) => isBehind(middle_m, normal))) open += area_m2;
      }
      if (reached > 0) bare.push({ tank: tank.id, zone: zone.id, reached_m2: reached, bare_ratio: open / reached });
    }
  }
  return success(bare);
}

type Cover = (point_m: Vec3, normal: Vec3) => boolean;

/** What each guard of a tank covers, in the tank’s axes. */
function guardsOf(mounts: readonly MountDocument[], tank: TankDocument, outer: ClosedMesh): Cover[] {
  return mounts.flatMap((mount): Cover[] => {
    if (mount.kind !== 'guard' || mount.tank !== tank.id || !mount.made) return [];
    const { made } = mount;
    const plate = guardPlate(outer, placedBack(placeOf(tank.mounting), pointOf(mount)), made);
    if (!plate) return [];
    const [length, width] = [made.length_m.value, made.width_m.value];
    return [
      (point, normal) => {
        if (dot(normal, SIDE_WAYS[made.side]) < FACES_COS) return false;
        const off = subtract(point, plate.corner_m);
        const [along, across] = [dot(off, plate.a), dot(off, plate.b)];
        return along >= 0 && along <= length && across >= 0 && across <= width && dot(off, plate.out) <= 0;
      },
    ];
  });
}

/** A surface in triangles no larger than a patch, each with its middle, its way out and its area. */
function patchesOf(mesh: ClosedMesh): { middle_m: Vec3; normal: Vec3; area_m2: number }[] {
  const patches: { middle_m: Vec3; normal: Vec3; area_m2: number }[] = [];
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => vertex(mesh, mesh.triangles[i + k]!)) as [Vec3, Vec3, Vec3];
    const [ab, ac] = [subtract(b, a), subtract(c, a)];
    const whole = cross(ab, ac);
    const area = norm(whole) / 2;
    if (area === 0) continue;
    const longest = Math.max(norm(ab), norm(ac), norm(subtract(c, b)));
    const n = Math.max(1, Math.ceil(longest / PATCH_M));
    const [normal, each] = [scale(whole, 1 / (2 * area)), area / n ** 2];
    const corner = (u: number, v: number): Vec3 => add(a, add(scale(ab, u / n), scale(ac, v / n)));
    for (let u = 0; u < n; u++)
      for (let v = 0; v < n - u; v++) {
        patches.push({ middle_m: corner(u + 1 / 3, v + 1 / 3), normal, area_m2: each });
        if (v < n - u - 1) patches.push({ middle_m: corner(u + 2 / 3, v + 2 / 3), normal, area_m2: each });
      }
  }
  return patches;
}
