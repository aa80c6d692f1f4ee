import { dot, meshBounds, placed, type ClosedMesh, type Vec3 } from '../../geometry';
import { outerMesh, placeOf } from '../../model/compileFit';
import { SIDE_WAYS } from '../../model/axes';
import { wallAt } from '../../model/portSeat';
import { failure, success, type Outcome } from '../../outcome';
import { freshId } from '../../plan/edit';
import { sideText } from '../../plan/sides';
import type { MountDocument } from '../../plan/schema';
import { BOLTS, type BoltSize } from '../../reference/bolts';
import type { MountStock } from '../../reference/mountStock';
import { chosen } from '../../schema/known';
import type { Mounted } from './loads';
import { holds, mountsOf, WALL_STOCK, weakest, type MountsCode, type WorstUse } from './mounts';

/** Ways to hold a tank down that builders have. */
export const HOLD_SCHOOLS = ['straps', 'tabs', 'cradle'] as const;
export type HoldSchool = (typeof HOLD_SCHOOLS)[number];

/** A layout that is proposed: in place of what holds the tank today. */
export type Layout = {
  readonly school: HoldSchool;
  readonly mounts: readonly MountDocument[];
  /** Whether it holds with the factor that is needed; undefined where that is not known. */
  readonly holds: boolean | undefined;
  readonly weakest: WorstUse | undefined;
};

/** Straps stand no further apart than this [m]. @source common practice: a foot and a half to two feet */
export const STRAP_SPAN_M = 0.6;
/** Bolts and sheet are tried from small to large until all is borne. */
const TRIES: readonly { readonly size: BoltSize; readonly strap_m: number; readonly sheet_m: number }[] = [
  { size: 'M6', strap_m: 0.0015, sheet_m: 0.003 },
  { size: 'M8', strap_m: 0.002, sheet_m: 0.004 },
  { size: 'M10', strap_m: 0.003, sheet_m: 0.006 },
  { size: 'M12', strap_m: 0.004, sheet_m: 0.008 },
  { size: 'M16', strap_m: 0.006, sheet_m: 0.012 },
];

/**
 * Layouts of the schools for a tank that stands on a floor, each with bolts and
 * sheet as small as bear what it is thrown with.
 */
export function layoutsFor(system: Mounted, t: number): Outcome<readonly Layout[], MountsCode> {
  const tank = system.tanks[t];
  if (!tank) return failure('no-tank', 'tanks', 'There is no such tank.');
  const outer = outerMesh(tank);
  if (!outer.ok) return failure('bad-shape', tank.name, outer.error.detail);
  const { min, max } = meshBounds(outer.value);
  const at = placeOf(tank.mounting);
  const others = system.mounts.filter((mount) => mount.tank !== tank.id);
  const layouts: Layout[] = [];
  for (const school of HOLD_SCHOOLS) {
    if (school === 'tabs' && !TAB_STOCK[tank.material.alloy]) continue;
    let layout: Layout | undefined;
    for (const tried of TRIES) {
      const mounts = MAKES[school]({
        system: { ...system, mounts: others },
        tank: tank.id,
        tabs: TAB_STOCK[tank.material.alloy],
        ports: tank.ports.flatMap(({ x_m, bore_m, face }) =>
          x_m && face !== 'floor' ? [{ at_m: x_m.value, bore_m: bore_m.value }] : [],
        ),
        min,
        max,
        tried,
        toVehicle: (point) => placed(at, point),
        reaches: (x) => wallAt(outer.value, { face: 'floor' }, [x, (min[1] + max[1]) / 2, 0])?.point_m[2] ?? min[2],
        footing: (side, along_m) => footingOf(outer.value, side, along_m, OVER_M[school]),
      });
      const found = mountsOf({ ...system, mounts: [...others, ...mounts] });
      if (!found.ok) return found;
      const own = found.value.shells.find(({ tanks }) => tanks.includes(t))!;
      layout = { school, mounts, holds: holds(own, found.value.needed), weakest: weakest(own) };
      if (layout.holds) break;
    }
    if (layout!.mounts.length > 0) layouts.push(layout!);
  }
  return success(layouts);
}

/** Tabs are of the tank's own metal, or one that is welded to it; what is glued or not known has none. */
const TAB_STOCK: typeof WALL_STOCK = { ...WALL_STOCK, 'al-3003': 'aluminium-5052' };

type Room = {
  readonly system: Mounted;
  readonly tank: string;
  /** Where ports are along it that a strap across it could lie on. */
  readonly ports: readonly { readonly at_m: number; readonly bore_m: number }[];
  /** What a tab is made of that is welded to the tank. */ readonly tabs: MountStock | undefined;
  readonly min: Vec3;
  readonly max: Vec3;
  readonly tried: (typeof TRIES)[number];
  readonly toVehicle: (point: Vec3) => Vec3;
  /** The lowest place of a wall that stands, at a distance along it; none where there is none. */
  readonly footing: (side: StandingSide, along_m: number) => Vec3 | undefined;
  /** How low the tank comes at a distance from its aft end, in its middle. */
  readonly reaches: (x_m: number) => number;
};

/** A tab’s leg on the tank’s wall: near the floor, where the wall is held by it [m]. */
const TAB_LEG_M = 0.04;
const STEEL: MountStock = 'mild-steel';
const boltsOf = (size: BoltSize, count: number) => ({
  count,
  size,
  class: '8.8' as const,
  held: 'nut' as const,
  edge_m: chosen(Math.ceil(2e3 * BOLTS[size].hole_m) / 1e3),
});
const FRAME = { stock: STEEL, thickness_m: chosen(0.004) };
const RUBBER = { of: 'rubber' as const, thickness_m: chosen(0.004) };

/** A mount's id, after those that are there. */
const named = ({ system }: Room, made: readonly MountDocument[], prefix: string): string =>
  freshId({ ...system, mounts: [...system.mounts, ...made] }, prefix);

const on = (room: Room, point: Vec3) => {
  const [x, y, z] = room.toVehicle(point);
  return { x_m: chosen(mm(x)), y_m: chosen(mm(y)), z_m: chosen(mm(z)) };
};
const mm = (value: number): number => Math.round(1e3 * value) / 1e3;

/** Places along the tank for so many, the outer ones a fifth of its length in from its ends, each clear of ports. */
function along(room: Room, count: number): number[] {
  const { min, max, ports } = room;
  const length = max[0] - min[0];
  const isClear = (x: number): boolean =>
    ports.every(({ at_m, bore_m }) => Math.abs(at_m - x) > (strapWidth_m(room) + bore_m) / 2 + BESIDE_M);
  return Array.from({ length: count }, (_, i) => {
    const x = min[0] + length * (count === 1 ? 0.5 : 0.2 + (0.6 * i) / (count - 1));
    const aside = Array.from({ length: Math.floor((ASIDE_REL * length) / STEP_M) }, (__, k) => (k + 1) * STEP_M);
    return [x, ...aside.flatMap((by) => [x - by, x + by])].find(isClear) ?? x;
  });
}
/** A small tank has narrower straps [m]. @source common practice */
const strapWidth_m = ({ min, max }: Room): number => (max[0] - min[0] < SMALL_M ? 0.02 : 0.04);
const SMALL_M = 0.3;
/** Straps stand off a port's edge by so much; they move aside in steps [m]. */
const BESIDE_M = 0.005;
const STEP_M = 0.005;
const ASIDE_REL = 0.15;

const countFor = ({ min, max }: Room): number => Math.max(2, Math.ceil((0.6 * (max[0] - min[0])) / STRAP_SPAN_M) + 1);

function strapsOver(room: Room, count: number, made: MountDocument[]): void {
  const middle = (room.min[1] + room.max[1]) / 2;
  for (const [i, x] of along(room, count).entries())
    made.push({
      id: named(room, made, 'strap'),
      name: `Strap ${i + 1}`,
      kind: 'strap',
      tank: room.tank,
      ...on(room, [x, middle, room.reaches(x)]),
      made: {
        runs: 'across',
        side: 'down',
        stock: STEEL,
        width_m: chosen(strapWidth_m(room)),
        thickness_m: chosen(room.tried.strap_m),
        tension_N: chosen(800),
        splay_m: chosen(0.03),
        bolts: boltsOf(room.tried.size, 1),
        bears: FRAME,
        pad: RUBBER,
      },
    });
}

function stopsAt(room: Room, sides: readonly StandingSide[], made: MountDocument[]): void {
  const { min, max } = room;
  for (const side of sides) {
    const k = side === 'fore' || side === 'aft' ? 1 : 0;
    const place = room.footing(side, (min[k] + max[k]) / 2);
    if (!place) continue;
    made.push({
      id: named(room, made, 'stop'),
      name: sideText(room.system.vehicle.kind, `Stop, ${side} side`),
      kind: 'stop',
      tank: room.tank,
      ...on(room, place),
      made: {
        side,
        width_m: chosen(0.15),
        arm_m: chosen(STOP_UP_M),
        stock: STEEL,
        thickness_m: chosen(room.tried.sheet_m),
        bolts: boltsOf(room.tried.size, 2),
        bears: FRAME,
        pad: RUBBER,
      },
    });
  }
}
/** The middle of what a stop touches stands so far over its foot. */
const STOP_UP_M = 0.025;

type StandingSide = 'fore' | 'aft' | 'port' | 'starboard';
/** A wall stands that leans less than this. */
const STANDS_COS = 0.94;
const FEEL_M = 0.005;
/** How far over the floor the middle of what is put on a wall is, at least, by what is put there [m]. */
const OVER_M = { straps: STOP_UP_M, cradle: STOP_UP_M, tabs: 0.02 } as const;

/** The lowest place of a wall that stands where what is put on it has room above and below. */
function footingOf(outer: ClosedMesh, side: StandingSide, along_m: number, half_m: number): Vec3 | undefined {
  const { min, max } = meshBounds(outer);
  const point = (z: number): Vec3 => (side === 'fore' || side === 'aft' ? [0, along_m, z] : [along_m, 0, z]);
  const standsAt = (z: number): Vec3 | undefined => {
    const wall = wallAt(outer, { face: side }, point(z));
    return wall && dot(wall.normal, SIDE_WAYS[side]) > STANDS_COS ? wall.point_m : undefined;
  };
  for (let z = min[2] + half_m; z < max[2]; z += FEEL_M) {
    const middle = standsAt(z);
    if (middle && standsAt(z - half_m + 1e-4) && standsAt(Math.min(max[2] - 1e-4, z + half_m))) return middle;
  }
  return undefined;
}

const MAKES: Readonly<Record<HoldSchool, (room: Room) => MountDocument[]>> = {
  straps: (room) => {
    const made: MountDocument[] = [];
    const { min, max } = room;
    const count = countFor(room);
    for (const [i, x] of along(room, count).entries())
      made.push({
        id: named(room, made, 'bearer'),
        name: `Bearer ${i + 1}`,
        kind: 'cradle',
        tank: room.tank,
        ...on(room, [x, (min[1] + max[1]) / 2, room.reaches(x)]),
        made: {
          side: 'down',
          length_m: chosen(0.06),
          width_m: chosen(mm(max[1] - min[1])),
          lip_m: chosen(0.03),
          stock: STEEL,
          thickness_m: chosen(room.tried.sheet_m),
          bolts: boltsOf(room.tried.size, 2),
          bears: FRAME,
          pad: RUBBER,
        },
      });
    strapsOver(room, count, made);
    stopsAt(room, ['fore', 'aft'], made);
    return made;
  },
  tabs: (room) => {
    const made: MountDocument[] = [];
    for (const side of ['port', 'starboard'] as const)
      for (const [i, x] of along(room, countFor(room)).entries()) {
        const place = room.footing(side, x);
        if (!place) continue;
        made.push({
          id: named(room, made, 'tab'),
          name: sideText(room.system.vehicle.kind, `Tab ${i + 1}, ${side} side`),
          kind: 'tab',
          tank: room.tank,
          ...on(room, place),
          made: {
            wall: side,
            side: 'down',
            stock: room.tabs!,
            width_m: chosen(0.08),
            thickness_m: chosen(room.tried.sheet_m),
            arm_m: chosen(0.03),
            leg_m: chosen(TAB_LEG_M),
            weld: { throat_m: chosen(0.003), length_m: chosen(0.16) },
            bolts: boltsOf(room.tried.size, 2),
            bears: FRAME,
            pad: RUBBER,
          },
        });
      }
    return made;
  },
  cradle: (room) => {
    const made: MountDocument[] = [];
    const { min, max } = room;
    const middle = (min[0] + max[0]) / 2;
    made.push({
      id: named(room, made, 'cradle'),
      name: 'Cradle',
      kind: 'cradle',
      tank: room.tank,
      ...on(room, [middle, (min[1] + max[1]) / 2, room.reaches(middle)]),
      made: {
        side: 'down',
        length_m: chosen(mm(max[0] - min[0])),
        width_m: chosen(mm(max[1] - min[1])),
        lip_m: chosen(0.04),
        stock: STEEL,
        thickness_m: chosen(room.tried.sheet_m),
        bolts: boltsOf(room.tried.size, 6),
        bears: FRAME,
        pad: RUBBER,
      },
    });
    strapsOver(room, 2, made);
    return made;
  },
};
