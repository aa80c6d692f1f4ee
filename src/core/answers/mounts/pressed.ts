import {
  cross,
  dot,
  levelForVolume,
  meshBounds,
  norm,
  scale,
  subtract,
  vertex,
  type ClosedMesh,
  type Vec3,
} from '../../geometry';
import { memoized } from '../../memo';
import { SIDE_WAYS } from '../../model/axes';
import type { MountSide } from '../../model/compileMounts';
import type { FittedPlate } from '../../tank';
import type { ShockCase } from './loads';

/** What the liquid does to one side of its tank when it is thrown: the worst case of it. */
export type PressedSide = {
  readonly side: MountSide;
  readonly shock: ShockCase;
  /** At its deepest place, and all over it together. */ readonly peak_Pa: number;
  readonly force_N: number;
};

/** What it does to a baffle, no more than this: as if its holes were shut at the moment that it is struck. */
export type PressedBaffle = {
  readonly id: string;
  readonly shock: ShockCase;
  readonly pressure_Pa: number;
  readonly force_N: number;
};

export type Pressed = { readonly sides: readonly PressedSide[]; readonly baffles: readonly PressedBaffle[] };

/** A tank with its liquid, in its own axes. */
export type ThrownLiquid = {
  /** The space that the liquid fills. */ readonly mesh: ClosedMesh;
  readonly plates: readonly { readonly plate: FittedPlate; readonly area_m2: number }[];
  readonly volume_m3: number;
  readonly density_kgPerM3: number;
  /** What each case throws a mass with, its weight counted in [m/s²]. */
  readonly thrown: readonly { readonly shock: ShockCase; readonly by_mPerS2: Vec3 }[];
};

const SIDES = Object.keys(SIDE_WAYS) as MountSide[];
/** Of a wall that faces a side at least so far. */
const FACES_COS = 0.7;

/**
 * How hard a liquid that is thrown presses on the sides and the baffles of its tank: once it has come to rest in the
 * throw, as under a heavier weight that points another way. A wave that strikes a side is shorter and may be harder.
 *
 * @returns each side's worst case, those that nothing presses left out
 * @source hydrostatics under the gravity that is felt; on a baffle the liquid behind it times the acceleration
 */
export const pressedBy = memoized('what a thrown liquid presses', pressed, 32);

function pressed({ mesh, plates, volume_m3, density_kgPerM3, thrown }: ThrownLiquid): Pressed | undefined {
  const sides = new Map<MountSide, PressedSide>();
  const baffles = new Map<string, PressedBaffle>();
  for (const { shock, by_mPerS2 } of thrown) {
    const felt = norm(by_mPerS2);
    if (felt === 0) continue;
    const up = scale(by_mPerS2, -1 / felt);
    const level = levelForVolume(mesh, up, volume_m3);
    // Of a case without a level the worst is not known.
    if (!level.ok) return undefined;
    const per_m = density_kgPerM3 * felt;
    for (const [side, { peak_Pa, force_N }] of onSides(mesh, up, level.value.offset_m, per_m)) {
      const before = sides.get(side);
      if (!before || peak_Pa > before.peak_Pa) sides.set(side, { side, shock, peak_Pa, force_N });
    }
    for (const { plate, area_m2 } of plates) {
      const pressure_Pa = density_kgPerM3 * Math.abs(by_mPerS2[plate.axis]) * behind_m(mesh, plates, plate, by_mPerS2);
      const before = baffles.get(plate.id);
      if (pressure_Pa > (before?.pressure_Pa ?? 0))
        baffles.set(plate.id, { id: plate.id, shock, pressure_Pa, force_N: pressure_Pa * area_m2 });
    }
  }
  return {
    sides: SIDES.flatMap((side) => sides.get(side) ?? []).filter(({ force_N }) => force_N > 0),
    baffles: [...baffles.values()],
  };
}

/** How far it is from a baffle to what stands behind it, where the liquid comes from [m]. */
function behind_m(
  mesh: ClosedMesh,
  plates: ThrownLiquid['plates'],
  { id, axis, at_m }: FittedPlate,
  by_mPerS2: Vec3,
): number {
  const { min, max } = meshBounds(mesh);
  const goesUp = by_mPerS2[axis] > 0;
  const stops = plates
    .filter(({ plate }) => plate.id !== id && plate.axis === axis && (goesUp ? plate.at_m < at_m : plate.at_m > at_m))
    .map(({ plate }) => plate.at_m);
  return goesUp ? at_m - Math.max(min[axis], ...stops) : Math.min(max[axis], ...stops) - at_m;
}

/** Greatest pressure on each side and the force on all of it; pressure is linear over what is below the surface. */
export function onSides(
  mesh: ClosedMesh,
  up: Vec3,
  offset_m: number,
  per_m: number,
): Map<MountSide, { peak_Pa: number; force_N: number }> {
  const found = new Map<MountSide, { peak_Pa: number; force_N: number }>();
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const corners = [0, 1, 2].map((k) => vertex(mesh, mesh.triangles[i + k]!)) as [Vec3, Vec3, Vec3];
    const whole = cross(subtract(corners[1], corners[0]), subtract(corners[2], corners[0]));
    const area = norm(whole) / 2;
    if (area === 0) continue;
    const side = SIDES.find((one) => dot(SIDE_WAYS[one], whole) > 2 * FACES_COS * area);
    if (!side) continue;
    const depths = corners.map((p) => offset_m - dot(p, up));
    const force_N = per_m * wetDepth(depths as [number, number, number]) * area;
    const before = found.get(side) ?? { peak_Pa: 0, force_N: 0 };
    found.set(side, {
      peak_Pa: Math.max(before.peak_Pa, per_m * Math.max(0, ...depths)),
      force_N: before.force_N + force_N,
    });
  }
  return found;
}

/** Mean over a whole triangle of how deep it lies below the surface, what is dry counted as 0 [m]. */
export function wetDepth(depths: readonly [number, number, number]): number {
  const [low, middle, high] = [...depths].sort((a, b) => a - b) as [number, number, number];
  const mean = (low + middle + high) / 3;
  if (low >= 0) return mean;
  if (high <= 0) return 0;
  // One corner wet: a smaller triangle like it. One dry: all of it, less what the dry one would count against it.
  if (middle <= 0) return (high * (high / (high - low)) * (high / (high - middle))) / 3;
  return mean - (low * (low / (low - middle)) * (low / (low - high))) / 3;
}
