import { add, clipBelow, combine, depthInside, meshVolume, scale, type ClosedMesh, type Vec3 } from '../geometry';
import { memoized } from '../memo';
import { shareWall } from '../plan/divider';
import type { TankPlan } from '../plan/schema';
import { OUTWARD } from './axes';
import { tankBody } from './compileBody';
import { outerMesh } from './compileFit';
import { portPoint } from './portSeat';

/** A wall that two tanks of one shell share, in the frame of both. */
export type SharedWall = {
  readonly with: string;
  /** What stands in the walls of both; absent where they do not meet. */
  readonly metal: { readonly volume_m3: number; readonly centre_m: Vec3; readonly mesh: ClosedMesh } | undefined;
  /** Of the one's metal that stands in the other's space [m³]; undefined where it could not be worked out. */
  readonly reachesIn_m3: number | undefined;
  /** Ports of either that lead through it. */ readonly ports: readonly string[];
};

/** Whether two tanks stand in the vehicle in one place, as one shell does. */
const oneShell = (a: TankPlan, b: TankPlan): boolean =>
  shareWall(a, b) &&
  (['x_m', 'y_m', 'z_m', 'yaw_deg', 'pitch_deg', 'roll_deg'] as const).every(
    (key) => a.mounting[key].value === b.mounting[key].value,
  );

/**
 * The wall between a tank and the one that it says it shares it with: what the outsides of both have in common, which
 * is there once.
 *
 * @returns undefined where it says of none, or a body cannot be built; without metal where they do not meet
 */
export function sharedWall(tanks: readonly TankPlan[], tank: TankPlan): SharedWall | undefined {
  const other = tanks.find(({ id }) => id === tank.sharesWallWith);
  if (!other) return undefined;
  const [first, second] = [other, tank].map((each) => {
    const [outer, body] = [outerMesh(each), tankBody(each)];
    return outer.ok && body.ok ? { tank: each, outer: outer.value, shell: body.value.shell } : undefined;
  });
  if (!first || !second) return undefined;
  if (!oneShell(other, tank)) return { with: other.id, metal: undefined, reachesIn_m3: 0, ports: [] };
  const wall = wallBetween(first.outer, second.outer, first.shell, second.shell);
  return { with: other.id, ...wall, ports: [first, second].flatMap((side) => portsIn(wall.metal?.mesh, side)) };
}

/** Ports of a tank that sit in a body of metal. */
const portsIn = (
  metal: ClosedMesh | undefined,
  { tank, outer }: { readonly tank: TankPlan; readonly outer: ClosedMesh },
): string[] =>
  tank.ports.flatMap((port) => {
    const at = portPoint(outer, port);
    const under = at && add(at, scale(OUTWARD[port.face], -tank.material.thickness_m.value / 2));
    return metal && under && depthInside(metal, under) > 0 ? [port.id] : [];
  });

/** What two bodies have in common [m³]: none is an answer, and a failure is another. */
function commonTo(a: ClosedMesh, b: ClosedMesh) {
  const mesh = combine(a, b, 'common');
  if (mesh.ok) return { mesh: mesh.value, volume_m3: meshVolume(mesh.value) };
  return mesh.error.code === 'nothing-left' ? { mesh: undefined, volume_m3: 0 } : undefined;
}

const wallBetween = memoized(
  'shared wall',
  (outer: ClosedMesh, other: ClosedMesh, shell: ClosedMesh, otherShell: ClosedMesh) => {
    const common = commonTo(outer, other);
    const centre_m = common?.mesh && clipBelow(common.mesh, { normal: [0, 0, 1], offset_m: FAR_M }).centroid_m;
    const into = [commonTo(outer, otherShell), commonTo(other, shell)];
    return {
      metal: common?.mesh && centre_m ? { mesh: common.mesh, volume_m3: common.volume_m3, centre_m } : undefined,
      reachesIn_m3: [common, ...into].every((each) => each !== undefined)
        ? into.reduce((sum, each) => sum + each!.volume_m3, 0)
        : undefined,
    };
  },
  8,
);
/** Over every tank. */
const FAR_M = 1e3;
