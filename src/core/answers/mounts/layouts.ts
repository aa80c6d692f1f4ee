import { meshBounds, placed, sectionAcross, type ClosedMesh } from '../../geometry';
import { outerMesh, placeOf } from '../../model/compileFit';
import { wallAt } from '../../model/portSeat';
import { failure, success, type Outcome } from '../../outcome';
import type { MountDocument, SpacePlan, TankDocument } from '../../plan/schema';
import { hasSpace } from '../fit/fitCache';
import { sceneOf, tankObstacle, wallsOf } from '../fit/fit';
import { foulsWith } from '../fit/mountGaps';
import { boltsReached } from '../fit/reach';
import { footingOf, HOLD_SCHOOLS, MAKES, OVER_M, TAB_STOCK, TRIES, type HoldSchool, type Room } from './layoutMakes';
import type { Mounted } from './loads';
import { holds, mountsOf, weakest, type MountsCode, type WorstUse } from './mounts';

/** A layout that is proposed: in place of what holds the tank today. */
export type Layout = {
  readonly school: HoldSchool;
  readonly mounts: readonly MountDocument[];
  /** Whether it holds with the factor that is needed; undefined where that is not known. */
  readonly holds: boolean | undefined;
  readonly weakest: WorstUse | undefined;
  /** What of it has no room, and what that runs into; undefined where nothing is said of the space. */
  readonly fouls: readonly { readonly name: string; readonly others: readonly string[] }[] | undefined;
  /** Of which no tool gets to every bolt; undefined where that could not be worked out. */
  readonly unreached: readonly string[] | undefined;
};

/**
 * Layouts of the schools for a tank that stands on a floor, each with bolts and
 * sheet as small as bear what it is thrown with, put where the space has room
 * for them as far as it has.
 */
export function layoutsFor(
  system: Mounted & Pick<SpacePlan, 'fit'>,
  t: number,
): Outcome<readonly Layout[], MountsCode> {
  const tank = system.tanks[t];
  if (!tank) return failure('no-tank', 'tanks', 'There is no such tank.');
  const outer = outerMesh(tank);
  if (!outer.ok) return failure('bad-shape', tank.name, outer.error.detail);
  const fouls = foulsIn(system, tank, outer.value);
  if (!fouls.ok) return fouls;
  const { min, max } = meshBounds(outer.value);
  const at = placeOf(tank.mounting);
  const others = system.mounts.filter((mount) => mount.tank !== tank.id);
  const layouts: Layout[] = [];
  for (const school of HOLD_SCHOOLS) {
    if (school === 'tabs' && !TAB_STOCK[tank.material.alloy]) continue;
    const roomFor = (tried: Room['tried']): Room => ({
      system: { ...system, mounts: others },
      tank: tank.id,
      tabs: TAB_STOCK[tank.material.alloy],
      ports: tank.ports.flatMap(({ x_m, y_m, bore_m, face }) =>
        face !== 'floor' ? [{ at_m: [x_m?.value, y_m?.value] as const, bore_m: bore_m.value }] : [],
      ),
      min,
      max,
      tried,
      toVehicle: (point) => placed(at, point),
      reaches: (x) => wallAt(outer.value, { face: 'floor' }, [x, (min[1] + max[1]) / 2, 0])?.point_m[2] ?? min[2],
      sidesAt: (x) => {
        const across = sectionAcross(outer.value, 0, x).flat();
        return across.length === 0
          ? [min[1], max[1]]
          : [Math.min(...across.map(([y]) => y)), Math.max(...across.map(([y]) => y))];
      },
      footing: (side, along_m) => footingOf(outer.value, side, along_m, OVER_M[school]),
      fits: (mount) => fouls.value === undefined || fouls.value(mount).length === 0,
    });
    let best: Layout | undefined;
    for (const make of MAKES[school]) {
      let layout: Omit<Layout, 'unreached'> | undefined;
      for (const tried of TRIES) {
        const mounts = make(roomFor(tried));
        if (mounts.length === 0) break;
        const found = mountsOf({ ...system, mounts: [...others, ...mounts] });
        if (!found.ok) return found;
        const own = found.value.shells.find(({ tanks }) => tanks.includes(t))!;
        layout = {
          school,
          mounts,
          holds: holds(own, found.value.needed),
          weakest: weakest(own),
          fouls: fouls.value && foulsOf(mounts, fouls.value),
        };
        if (layout.holds) break;
      }
      if (!layout) continue;
      const whole = {
        ...layout,
        unreached: unreachedOf({ ...system, mounts: [...others, ...layout.mounts] }, tank, layout.mounts),
      };
      if (!best || isBetter(whole, best)) best = whole;
      if (best.holds && (best.fouls ?? []).length === 0 && best.unreached?.length === 0) break;
    }
    if (best) layouts.push(best);
  }
  return success(layouts);
}

/** It holds where the other does not; less of it has no room; fewer bolts are out of reach. */
function isBetter(one: Layout, other: Layout): boolean {
  const order = ({ holds: held, fouls, unreached }: Layout): readonly number[] => [
    held === true ? 0 : 1,
    fouls?.length ?? 0,
    unreached?.length ?? Infinity,
  ];
  const [a, b] = [order(one), order(other)];
  const k = a.findIndex((value, i) => value !== b[i]);
  return k >= 0 && a[k]! < b[k]!;
}

const foulsOf = (mounts: readonly MountDocument[], met: (mount: MountDocument) => string[]): Layout['fouls'] =>
  mounts.flatMap((mount) => {
    const others = met(mount);
    return others.length === 0 ? [] : [{ name: mount.name, others }];
  });

function unreachedOf(
  system: Pick<SpacePlan, 'fit' | 'tanks' | 'mounts'>,
  tank: TankDocument,
  made: readonly MountDocument[],
): string[] | undefined {
  const when = boltsReached(system, tank);
  return when.ok ? made.flatMap(({ id, name }) => (when.value.get(id) === 'never' ? [name] : [])) : undefined;
}

/** What a mount of a tank would run into; undefined where nothing is said of the space. */
function foulsIn(
  system: Pick<SpacePlan, 'fit' | 'tanks' | 'mounts'>,
  tank: TankDocument,
  outer: ClosedMesh,
): Outcome<ReturnType<typeof foulsWith> | undefined, MountsCode> {
  if (!hasSpace(system)) return success(undefined);
  const scene = sceneOf(system);
  if (!scene.ok) return failure('bad-shape', scene.error.at, scene.error.detail);
  const { bay, obstacles } = scene.value;
  const others = system.tanks.flatMap((other) => (other === tank ? [] : (tankObstacle(system, other) ?? [])));
  return success(foulsWith(tank, outer, bay ? wallsOf(bay) : [], [...obstacles, ...others]));
}
