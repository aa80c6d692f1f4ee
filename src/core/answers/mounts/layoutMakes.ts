import { dot, meshBounds, type ClosedMesh, type Vec3 } from '../../geometry';
import { SIDE_WAYS } from '../../model/axes';
import { wallAt } from '../../model/portSeat';
import { freshId } from '../../plan/edit';
import { sideText } from '../../plan/sides';
import type { MountDocument } from '../../plan/schema';
import { BOLTS, type BoltSize } from '../../reference/bolts';
import type { MountStock } from '../../reference/mountStock';
import { chosen } from '../../schema/known';
import type { Mounted } from './loads';
import { WALL_STOCK } from './mounts';

/** Ways to hold a tank down that builders have. */
export const HOLD_SCHOOLS = ['straps', 'tabs', 'cradle'] as const;
export type HoldSchool = (typeof HOLD_SCHOOLS)[number];

/** Straps stand no further apart than this [m]. @source common practice: a foot and a half to two feet */
export const STRAP_SPAN_M = 0.6;
/** Bolts and sheet are tried from small to large until all is borne. */
export const TRIES: readonly { readonly size: BoltSize; readonly strap_m: number; readonly sheet_m: number }[] = [
  { size: 'M6', strap_m: 0.0015, sheet_m: 0.003 },
  { size: 'M8', strap_m: 0.002, sheet_m: 0.004 },
  { size: 'M10', strap_m: 0.003, sheet_m: 0.006 },
  { size: 'M12', strap_m: 0.004, sheet_m: 0.008 },
  { size: 'M16', strap_m: 0.006, sheet_m: 0.012 },
];

/** Tabs are of the tank's own metal, or one that is welded to it; what is glued or not known has none. */
export const TAB_STOCK: typeof WALL_STOCK = { ...WALL_STOCK, 'al-3003': 'aluminium-5052' };

/** What a maker of layouts goes by: the tank, its space, and the sizes that are tried. */
export type Room = {
  readonly system: Mounted;
  readonly tank: string;
  /** Where ports are along and across it that a strap could lie on. */
  readonly ports: readonly {
    readonly at_m: readonly [number | undefined, number | undefined];
    readonly bore_m: number;
  }[];
  /** What a tab is made of that is welded to the tank. */ readonly tabs: MountStock | undefined;
  readonly min: Vec3;
  readonly max: Vec3;
  readonly tried: (typeof TRIES)[number];
  readonly toVehicle: (point: Vec3) => Vec3;
  /** The lowest place of a wall that stands, at a distance along it; none where there is none. */
  readonly footing: (side: StandingSide, along_m: number) => Vec3 | undefined;
  /** How low the tank comes at a distance from its aft end, in its middle. */
  readonly reaches: (x_m: number) => number;
  /** Its starboard and port side at a distance from its aft end. */
  readonly sidesAt: (x_m: number) => readonly [number, number];
  /** Whether a mount has room where it would be. */ readonly fits: (mount: MountDocument) => boolean;
};

/** A tab’s leg on the tank’s wall: near the floor, where the wall is held by it [m]. */
const TAB_LEG_M = 0.04;
const STEEL: MountStock = 'mild-steel';
const boltsOf = (size: BoltSize, count: number, edgeHoles = EDGE_HOLES) => ({
  count,
  size,
  class: '8.8' as const,
  held: 'nut' as const,
  edge_m: chosen(Math.ceil(1e3 * edgeHoles * BOLTS[size].hole_m) / 1e3),
});
/** Bolts stand two holes from an edge, and a little less where there is no room. */
const EDGE_HOLES = 2;
const NARROW_HOLES = 1.6;
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

/** Where one of several stands along the tank: the outer ones a fifth of its length in from its ends. */
const shareAlong = (i: number, count: number): number => (count === 1 ? 0.5 : 0.2 + (0.6 * i) / (count - 1));

/** From a place step by step to either side of it [m]. */
function asides(from: number, length_m: number): number[] {
  const most = Math.floor((ASIDE_REL * length_m) / STEP_M);
  // As near as a tape has marks; of a long tank no more than some.
  const every = Math.max(1, Math.ceil(most / MOST_ASIDE));
  const steps = Array.from({ length: Math.floor(most / every) }, (_, k) => (k + 1) * every * STEP_M);
  return [from, ...steps.flatMap((by) => [from - by, from + by])];
}

const isClearOfPorts = (room: Room, axis: 0 | 1, at: number): boolean =>
  room.ports.every(
    ({ at_m, bore_m }) =>
      at_m[axis] === undefined || Math.abs(at_m[axis] - at) > (strapWidth_m(room) + bore_m) / 2 + BESIDE_M,
  );

/** Of several ways to put some mounts the first that has room; the first of all where none has. */
function firstThatFits(
  room: Room,
  places: readonly number[],
  make: (at: number) => readonly MountDocument[] | undefined,
): readonly MountDocument[] {
  let first: readonly MountDocument[] | undefined;
  for (const at of places) {
    const mounts = make(at);
    if (!mounts) continue;
    if (mounts.every((mount) => room.fits(mount))) return mounts;
    first ??= mounts;
  }
  return first ?? [];
}

/** A small tank has narrower straps [m]. @source common practice */
const strapWidth_m = ({ min, max }: Room): number => (max[0] - min[0] < SMALL_M ? 0.02 : 0.04);
const SMALL_M = 0.3;
/** Straps stand off a port's edge by so much; they move aside in steps [m]. */
const BESIDE_M = 0.005;
const STEP_M = 0.005;
const ASIDE_REL = 0.15;
const MOST_ASIDE = 8;

const countFor = ({ min, max }: Room): number => Math.max(2, Math.ceil((0.6 * (max[0] - min[0])) / STRAP_SPAN_M) + 1);

/** How high over its lowest a strap’s ends may be held, of its height: beside it where there is no room. */
const HELD_UP = [0, 0.15, 0.3, 0.45, 0.6];
/** Off the tank’s side, so that they are reached, and closer where it is narrow [m]. */
const SPLAYS_M = [0.03, 0.015];

type Runs = 'across' | 'along';

/** A strap over the tank, its ends held as low as there is room. */
function strapAt(room: Room, id: string, name: string, runs: Runs, at: number): MountDocument {
  const { min, max } = room;
  const x = runs === 'across' ? at : (min[0] + max[0]) / 2;
  const [starboard, port] = room.sidesAt(x);
  const y = runs === 'across' ? (starboard + port) / 2 : at;
  const low = room.reaches(x);
  const make = (up: number, splay_m: number, edgeHoles: number): MountDocument => ({
    id,
    name,
    kind: 'strap',
    tank: room.tank,
    ...on(room, [x, y, low + up * (max[2] - low)]),
    made: {
      runs,
      side: 'down',
      stock: STEEL,
      width_m: chosen(strapWidth_m(room)),
      thickness_m: chosen(room.tried.strap_m),
      tension_N: chosen(800),
      splay_m: chosen(splay_m),
      bolts: boltsOf(room.tried.size, 1, edgeHoles),
      bears: FRAME,
      pad: RUBBER,
    },
  });
  const makes = [EDGE_HOLES, NARROW_HOLES].flatMap((edgeHoles) =>
    SPLAYS_M.flatMap((splay_m) => HELD_UP.map((up) => make(up, splay_m, edgeHoles))),
  );
  return makes.find((mount) => room.fits(mount)) ?? makes[0]!;
}

/**
 * Straps over the tank, each with a bearer under it where they are wanted.
 *
 * @returns whether they are there: along the tank none is put over a port
 */
function strapsOver(
  room: Room,
  count: number,
  runs: Runs,
  made: MountDocument[],
  bearer?: (x: number, i: number) => MountDocument,
): boolean {
  const axis = runs === 'across' ? 0 : 1;
  const length = room.max[axis] - room.min[axis];
  for (let i = 0; i < count; i++) {
    const places = asides(room.min[axis] + length * shareAlong(i, count), length);
    const clear = places.filter((at) => isClearOfPorts(room, axis, at));
    if (clear.length === 0 && runs === 'along') return false;
    const id = named(room, made, 'strap');
    made.push(
      ...firstThatFits(room, clear.length > 0 ? clear : places.slice(0, 1), (at) => [
        ...(bearer ? [bearer(at, i)] : []),
        strapAt(room, id, `Strap ${i + 1}`, runs, at),
      ]),
    );
  }
  return true;
}

function stopsAt(room: Room, sides: readonly StandingSide[], made: MountDocument[]): void {
  const { min, max } = room;
  for (const side of sides) {
    const k = side === 'fore' || side === 'aft' ? 1 : 0;
    const id = named(room, made, 'stop');
    made.push(
      ...firstThatFits(room, asides((min[k] + max[k]) / 2, max[k] - min[k]), (at) => {
        const place = room.footing(side, at);
        if (!place) return undefined;
        const make = (edgeHoles: number): MountDocument => ({
          id,
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
            bolts: boltsOf(room.tried.size, 2, edgeHoles),
            bears: FRAME,
            pad: RUBBER,
          },
        });
        const makes = [EDGE_HOLES, NARROW_HOLES].map(make);
        return [makes.find((mount) => room.fits(mount)) ?? makes[0]!];
      }),
    );
  }
}
/** The middle of what a stop touches stands so far over its foot. */
const STOP_UP_M = 0.025;

type StandingSide = 'fore' | 'aft' | 'port' | 'starboard';
/** A wall stands that leans less than this. */
const STANDS_COS = 0.94;
const FEEL_M = 0.005;
/** How far over the floor the middle of what is put on a wall is, at least, by what is put there [m]. */
export const OVER_M = { straps: STOP_UP_M, cradle: STOP_UP_M, tabs: 0.02 } as const;

/** The lowest place of a wall that stands where what is put on it has room above and below. */
export function footingOf(outer: ClosedMesh, side: StandingSide, along_m: number, half_m: number): Vec3 | undefined {
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

/** Layouts of each school, the usual one first: others are for where that has no room, or no tool gets to it. */
export const MAKES: Readonly<Record<HoldSchool, readonly ((room: Room) => MountDocument[])[]>> = {
  straps: [(room) => strapped(room, 'across'), (room) => strapped(room, 'along')],
  tabs: [(room) => tabsOn(room, ['port', 'starboard']), (room) => tabsOn(room, ['fore', 'aft'])],
  cradle: [(room) => cradled(room, 'across'), (room) => cradled(room, 'along')],
};

/** Bearers first, as they are put in. */
const ORDER: readonly MountDocument['kind'][] = ['cradle', 'strap', 'stop'];
/** Tabs along two walls: the sides, or the ends where these have no room. */
function tabsOn(room: Room, walls: readonly StandingSide[]): MountDocument[] {
  const made: MountDocument[] = [];
  for (const wall of walls) {
    const k = wall === 'port' || wall === 'starboard' ? 0 : 1;
    const length = room.max[k] - room.min[k];
    const count = k === 0 ? countFor(room) : 2;
    for (let i = 0; i < count; i++) {
      const id = named(room, made, 'tab');
      made.push(
        ...firstThatFits(room, asides(room.min[k] + length * shareAlong(i, count), length), (at) => {
          const place = room.footing(wall, at);
          return (
            place && [
              {
                id,
                name: sideText(room.system.vehicle.kind, `Tab ${i + 1}, ${wall} side`),
                kind: 'tab',
                tank: room.tank,
                ...on(room, place),
                made: {
                  wall,
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
              },
            ]
          );
        }),
      );
    }
  }
  return made;
}

/** Straps over bearers, a stop at each end. Straps along the tank have no bearers of their own: these lie across. */
function strapped(room: Room, runs: Runs): MountDocument[] {
  const made: MountDocument[] = [];
  const count = countFor(room);
  const bearer = (x: number, i: number): MountDocument => ({
    id: named(room, made, 'bearer'),
    name: `Bearer ${i + 1}`,
    kind: 'cradle',
    tank: room.tank,
    ...on(room, [x, (room.sidesAt(x)[0] + room.sidesAt(x)[1]) / 2, room.reaches(x)]),
    made: {
      side: 'down',
      length_m: chosen(0.06),
      width_m: chosen(mm(room.sidesAt(x)[1] - room.sidesAt(x)[0])),
      lip_m: chosen(0.03),
      stock: STEEL,
      thickness_m: chosen(room.tried.sheet_m),
      bolts: boltsOf(room.tried.size, 2),
      bears: FRAME,
      pad: RUBBER,
    },
  });
  if (runs === 'across') strapsOver(room, count, runs, made, bearer);
  else {
    const length = room.max[0] - room.min[0];
    for (let i = 0; i < count; i++)
      made.push(
        ...firstThatFits(room, asides(room.min[0] + length * shareAlong(i, count), length), (x) => [bearer(x, i)]),
      );
    if (!strapsOver(room, 2, runs, made)) return [];
  }
  stopsAt(room, ['fore', 'aft'], made);
  return made.sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));
}

function cradled(room: Room, runs: Runs): MountDocument[] {
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
  return strapsOver(room, 2, runs, made) ? made : [];
}
