import {
  add,
  convexHull,
  cross,
  distance,
  dot,
  placed,
  placedBack,
  scale,
  sectionAcross,
  subtract,
  turned,
  unitVector,
  type Axis,
  type ClosedMesh,
  type Point2,
  type Pose,
  type Vec3,
} from '../geometry';
import { acrossOf, armStiffness_NPerM, type Support } from '../mounts';
import type { MountDocument, MOUNT_SIDES } from '../plan/schema';
import { MOUNT_STOCKS, PAD_ROWS } from '../reference/mountStock';
import { FACE_OF_SIDE, OUTWARD, SIDE_WAYS } from './axes';
import { wallAt } from './portSeat';

export type MountSide = (typeof MOUNT_SIDES)[number];
/** What a support is of its mount. */
export type SupportRole =
  | { readonly what: 'strap'; readonly ends: readonly StrapEnd[]; readonly length_m: number }
  | { readonly what: 'rest'; readonly area_m2: number }
  | { readonly what: 'lip' | 'stop' }
  /** A bolt's force along itself, or one of two across. */
  | { readonly what: 'bolt'; readonly bolt: number; readonly along: boolean };

/** Where a strap's end is held, and how it comes there, in vehicle axes. */
export type StrapEnd = { readonly at_m: Vec3; readonly leaves_m: Vec3; readonly way: Vec3 };

export type MountSupport = Own & { readonly mount: number };

/** A mount that stands nowhere near the wall that it names. */
export type Astray = { readonly mount: number; readonly why: string };

export type CompiledMounts = { readonly supports: readonly MountSupport[]; readonly astray: readonly Astray[] };

type Made<K extends MountDocument['kind']> = NonNullable<Extract<MountDocument, { kind: K }>['made']>;

/** A frame or a stiffener gives by about this under a mount. @source common practice */
const SEAT_NPERM = 2e7;
/** Metal on metal touches as if so much of it lay between [m]. */
const BARE_M = 0.002;
/** A lip this much off the tank still stops it [m]. */
const LIP_REACH_M = 0.005;
/** … and faces it, not a side that runs past. */
const LIP_FACES_COS = 0.7;
/** Along a lip, of its length, where the tank is felt for. */
const LIP_PLACES = [-0.45, -0.225, 0, 0.225, 0.45];
/** Along a stop, of its width. */
const STOP_PLACES = [-0.5, -0.25, 0, 0.25, 0.5];
/** Of a stop, what touches the tank is about so high [m]. @source common practice */
const STOP_HIGH_M = 0.04;
const inSeries = (...each: readonly number[]): number => 1 / each.reduce((sum, k) => sum + 1 / k, 0);

type PadDocument = Made<'tab'>['pad'];
const padOver = ({ of, thickness_m }: PadDocument): number =>
  of === 'none' ? BARE_M : Math.max(1e-4, thickness_m.value);

/** Of all of a mount’s pads together, which are so large in all. */
const padStiffness_NPerM = (pad: PadDocument, area_m2: number): number =>
  pad.own?.pressed_NPerM.value ?? (PAD_ROWS[pad.of].modulus_Pa * area_m2) / padOver(pad);

const padShear_NPerM = (pad: PadDocument, area_m2: number): number =>
  pad.own?.sheared_NPerM.value ?? (PAD_ROWS[pad.of].shear_Pa * area_m2) / padOver(pad);

/**
 * What a tank's mounts are to it as a body: supports that push, pull or do both, in vehicle axes.
 *
 * @param outer its outside, in the tank's axes
 * @param at how it stands in the vehicle
 * @param mounts with their numbers in the plan; those of which it is not said how they are made are left out
 */
export function compileMounts(
  outer: ClosedMesh,
  at: Pose,
  mounts: readonly { readonly mount: MountDocument; readonly index: number }[],
): CompiledMounts {
  const supports: MountSupport[] = [];
  const astray: Astray[] = [];
  for (const { mount, index } of mounts) {
    const place = placedBack(at, [mount.x_m.value, mount.y_m.value, mount.z_m.value]);
    const found = supportsOf(outer, place, mount);
    if (typeof found === 'string') astray.push({ mount: index, why: found });
    else
      for (const support of found)
        supports.push({
          ...support,
          mount: index,
          role: roleIn(at, support.role),
          legs: support.legs.map(({ at_m, way }) => ({ at_m: placed(at, at_m), way: turned(at, way) })),
        });
  }
  return { supports, astray };
}

const roleIn = (at: Pose, role: SupportRole): SupportRole =>
  role.what === 'strap'
    ? {
        ...role,
        ends: role.ends.map((end) => ({
          at_m: placed(at, end.at_m),
          leaves_m: placed(at, end.leaves_m),
          way: turned(at, end.way),
        })),
      }
    : role;

type Own = Support & {
  readonly role: SupportRole;
  /** What it gives along its own face while it sticks; none where that slides. */ readonly shear_NPerM?: number;
};

/** The supports of one mount in the tank's axes, none where nothing is said of how it is made; or why it has none. */
function supportsOf(outer: ClosedMesh, place: Vec3, mount: MountDocument): Own[] | string {
  if (!mount.made) return [];
  switch (mount.kind) {
    case 'strap':
      return strap(outer, place, mount.made);
    case 'tab':
      return tab(outer, place, mount.made);
    case 'cradle':
      return cradle(outer, place, mount.made);
    case 'stop':
      return stop(outer, place, mount.made);
    case 'flange':
      return flange(outer, place, mount.made);
    case 'guard':
      return [];
  }
}

/** Whether it holds the tank; what only guards it does not. */
export const holdsTank = ({ kind }: MountDocument): boolean => kind !== 'guard';

/** The axis that a strap runs across. */
export const RUN_AXIS: Readonly<Record<'across' | 'along' | 'round', Axis>> = { across: 0, along: 1, round: 2 };

/** A strap that is held beside the tank, and not under it, goes at least so far round it [m]. */
const ROUND_M = 1e-5;

/**
 * The way of a strap that is pulled taut over a tank, from where one end is
 * held to where the other is, in the plane across one axis. Its ends are held
 * as low as the place is, beside the tank or under it.
 *
 * @returns undefined where the tank is not there, or its ends would have to be held within it
 */
export function strapWay(
  outer: ClosedMesh,
  place: Vec3,
  { runs, side, splay_m }: Pick<Made<'strap'>, 'runs' | 'side' | 'splay_m'>,
): Vec3[] | undefined {
  const axis = RUN_AXIS[runs];
  const directions = ([0, 1, 2] as const).filter((k) => k !== axis) as [Axis, Axis];
  const out = SIDE_WAYS[side];
  if (out[axis] !== 0) return undefined;
  const to2 = (v: Vec3): Point2 => [v[directions[0]], v[directions[1]]];
  const down = to2(out);
  const aside: Point2 = [-down[1], down[0]];
  const section = convexHull(sectionAcross(outer, axis, place[axis]).flat());
  if (section.length < 3) return undefined;
  const dot2 = (a: Point2, b: Point2): number => a[0] * b[0] + a[1] * b[1];
  const lowest = Math.max(...section.map((p) => dot2(p, down)));
  const widest = section.map((p) => dot2(p, aside));
  const highest = Math.min(...section.map((p) => dot2(p, down)));
  const level = dot2(to2(place), down);
  // Over the tank nothing of it would be pulled down.
  if (level <= highest) return undefined;
  const splay = level < lowest - ROUND_M ? Math.max(ROUND_M, splay_m.value) : splay_m.value;
  const held = (by: number): Point2 => [aside[0] * by + down[0] * level, aside[1] * by + down[1] * level];
  const ends = [held(Math.min(...widest) - splay), held(Math.max(...widest) + splay)] as const;
  // Round the hull of the tank and both ends, by the way that does not lie along what holds them.
  const hull = convexHull([...section, ...ends]);
  const near = (a: Point2, b: Point2): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) < 1e-9;
  const from = hull.findIndex((p) => near(p, ends[0]));
  if (from < 0) return undefined;
  const round = [...hull.slice(from), ...hull.slice(0, from)];
  const to = round.findIndex((p) => near(p, ends[1]));
  if (to < 0) return undefined;
  const [one, other] = [round.slice(0, to + 1), [round[0]!, ...round.slice(to).reverse()]];
  // The way over the tank is the one that goes further from what holds it.
  const far = (way: readonly Point2[]): number => Math.min(...way.map((p) => dot2(p, down)));
  const over = far(one) < far(other) ? one : other;
  return over.map((p) => {
    const point = [0, 0, 0] as [number, number, number];
    point[axis] = place[axis];
    [point[directions[0]], point[directions[1]]] = p;
    return point;
  });
}

function strap(outer: ClosedMesh, place: Vec3, made: Made<'strap'>): Own[] | string {
  const way = strapWay(outer, place, made);
  if (!way || way.length < 3) return 'it runs past the tank, is held over it, or lies across the way it is held';
  const length_m = way.reduce((sum, p, i) => sum + (i === 0 ? 0 : distance(p, way[i - 1]!)), 0);
  const end = (at_m: Vec3, leaves_m: Vec3): StrapEnd => ({ at_m, leaves_m, way: unitVector(subtract(at_m, leaves_m)) });
  const ends = [end(way[0]!, way[1]!), end(way.at(-1)!, way.at(-2)!)];
  const section_m2 = made.width_m.value * made.thickness_m.value;
  return [
    {
      acts: 'pull',
      legs: ends.map(({ leaves_m, way: pulls }) => ({ at_m: leaves_m, way: pulls })),
      stiffness_NPerM: (MOUNT_STOCKS[made.stock].modulus_Pa * section_m2) / length_m,
      preload_N: made.tension_N.value,
      friction_ratio: 0,
      role: { what: 'strap', ends, length_m },
    },
  ];
}

/** The two axes across a side, the one along the tank first where there is one. */
export function axesAcross(side: MountSide): readonly [Vec3, Vec3] {
  const [first, second] = ([OUTWARD.fore, OUTWARD.port, OUTWARD.lid] as const).filter(
    (axis) => dot(axis, SIDE_WAYS[side]) === 0,
  );
  return [first!, second!];
}

/** Simpson's weights: nine places press together as the whole pad does, and the outer ones lie at its edge. */
const SIMPSON = [
  [-0.5, 1 / 6],
  [0, 4 / 6],
  [0.5, 1 / 6],
] as const;

const pushAt = (at_m: Vec3, way: Vec3, stiffness_NPerM: number, friction_ratio: number, role: SupportRole): Own => ({
  acts: 'push',
  legs: [{ at_m, way }],
  stiffness_NPerM,
  preload_N: 0,
  friction_ratio,
  role,
});

function cradle(outer: ClosedMesh, place: Vec3, made: Made<'cradle'>): Own[] | string {
  const face = { face: FACE_OF_SIDE[made.side] };
  const [u, v] = axesAcross(made.side);
  const [length, width] = [made.length_m.value, made.width_m.value];
  const area_m2 = length * width;
  const k = inSeries(padStiffness_NPerM(made.pad, area_m2), SEAT_NPERM);
  const shear = inSeries(padShear_NPerM(made.pad, area_m2), SEAT_NPERM);
  const { friction_ratio } = PAD_ROWS[made.pad.of];
  const rests = SIMPSON.flatMap(([a, wa]) =>
    SIMPSON.flatMap(([b, wb]) => {
      const wall = wallAt(outer, face, add(place, add(scale(u, a * length), scale(v, b * width))));
      return wall
        ? [
            {
              ...pushAt(wall.point_m, scale(wall.normal, -1), k * wa * wb, friction_ratio, {
                what: 'rest',
                area_m2: area_m2 * wa * wb,
              }),
              shear_NPerM: shear * wa * wb,
            },
          ]
        : [];
    }),
  );
  if (rests.length === 0) return 'nothing of the tank lies over it';
  return [...rests, ...lips(outer, place, made)];
}

/** One side of a cradle that stands up beside the tank and reaches it. */
export type Lip = {
  /** Out of the cradle. */ readonly way: Vec3;
  readonly across: Vec3;
  /** From the cradle’s middle out to it, or to the tank where that goes on a little; and how wide it is [m]. */
  readonly out_m: number;
  readonly wide_m: number;
  readonly walls: readonly { readonly point_m: Vec3; readonly normal: Vec3 }[];
};

/** The sides on which a cradle stands up beside the tank; where the tank goes on past it there is no lip. */
export function lipsOf(outer: ClosedMesh, place: Vec3, made: Made<'cradle'>): Lip[] {
  if (made.lip_m.value <= 0) return [];
  const [u, v] = axesAcross(made.side);
  const out = SIDE_WAYS[made.side];
  const floor = wallAt(outer, { face: FACE_OF_SIDE[made.side] }, place);
  if (!floor) return [];
  const sides = [
    [u, v, made.length_m.value, made.width_m.value],
    [v, u, made.width_m.value, made.length_m.value],
  ] as const;
  return sides.flatMap(([along, across, size, wide]) =>
    ([1, -1] as const).flatMap((sign): Lip[] => {
      const way = scale(along, sign);
      const side = (Object.keys(SIDE_WAYS) as MountSide[]).find((one) => dot(SIDE_WAYS[one], way) > 0.5)!;
      const walls = LIP_PLACES.flatMap((share) => {
        // Half way up the lip, from one end of it to the other.
        const up = scale(out, -made.lip_m.value / 2);
        const on = add(add(floor.point_m, up), scale(across, share * wide));
        const wall = wallAt(outer, { face: FACE_OF_SIDE[side] }, on);
        const gap = wall && dot(way, add(place, scale(way, size / 2))) - dot(way, wall.point_m);
        return wall && dot(wall.normal, way) > LIP_FACES_COS && gap !== undefined && gap > -LIP_REACH_M ? [wall] : [];
      });
      if (walls.length === 0) return [];
      const reach = walls.map(({ point_m }) => dot(way, subtract(point_m, place)));
      return [{ way, across, out_m: Math.max(size / 2, ...reach), wide_m: wide, walls }];
    }),
  );
}

const lips = (outer: ClosedMesh, place: Vec3, made: Made<'cradle'>): Own[] =>
  lipsOf(outer, place, made).flatMap(({ walls }) =>
    walls.map(({ point_m, normal }) =>
      pushAt(point_m, scale(normal, -1), SEAT_NPERM / 2 / walls.length, 0, { what: 'lip' }),
    ),
  );

function stop(outer: ClosedMesh, place: Vec3, made: Made<'stop'>): Own[] | string {
  const face = { face: FACE_OF_SIDE[made.side] };
  const out = SIDE_WAYS[made.side];
  const across: Vec3 = out[2] === 0 ? cross([0, 0, 1], out) : [0, 1, 0];
  const arm = armStiffness_NPerM(
    MOUNT_STOCKS[made.stock].modulus_Pa,
    made.width_m.value,
    made.thickness_m.value,
    made.arm_m.value,
  );
  const touched_m2 = made.width_m.value * Math.min(STOP_HIGH_M, made.width_m.value);
  const k = inSeries(padStiffness_NPerM(made.pad, touched_m2), SEAT_NPERM, arm);
  const walls = STOP_PLACES.flatMap(
    (share) => wallAt(outer, face, add(place, scale(across, share * made.width_m.value))) ?? [],
  );
  const pushes = walls.map(({ point_m, normal }) =>
    pushAt(point_m, scale(normal, -1), k / walls.length, 0, { what: 'stop' }),
  );
  return pushes.length > 0 ? pushes : 'nothing of the tank stands before it';
}

/** A bolt holds along itself and, as a pin, both ways across. */
function bolted(bolt: number, at_m: Vec3, axis: Vec3, along_NPerM: number, across_NPerM: number): Own[] {
  const [first, second] = acrossOf(axis);
  return [
    [axis, along_NPerM, true] as const,
    [first, across_NPerM, false] as const,
    [second, across_NPerM, false] as const,
  ].map(([way, stiffness_NPerM, along]) => ({
    acts: 'both',
    legs: [{ at_m, way }],
    stiffness_NPerM,
    preload_N: 0,
    friction_ratio: 0,
    role: { what: 'bolt', bolt, along },
  }));
}

/** Where bolts in a row stand, from its middle [m]: the outer ones so far in from its ends. */
export function rowOf(count: number, width_m: number, edge_m: number): number[] {
  const half = Math.max(0, width_m / 2 - edge_m);
  return Array.from({ length: count }, (_, i) => (count === 1 ? 0 : -half + (2 * half * i) / (count - 1)));
}

function tab(outer: ClosedMesh, place: Vec3, made: Made<'tab'>): Own[] | string {
  const wall = wallAt(outer, { face: FACE_OF_SIDE[made.wall] }, place);
  if (!wall) return 'there is no wall of the tank where it is';
  const [out, axis] = [SIDE_WAYS[made.wall], SIDE_WAYS[made.side]];
  // A foot on the wall that looks at what it stands on goes straight down.
  const isFoot = Math.abs(dot(out, axis)) > 0.5;
  const along = isFoot ? axesAcross(made.side)[1] : cross(out, axis);
  const count = made.bolts.count;
  const arm =
    armStiffness_NPerM(
      MOUNT_STOCKS[made.stock].modulus_Pa,
      made.width_m.value,
      made.thickness_m.value,
      made.arm_m.value,
    ) / count;
  const pad = padStiffness_NPerM(made.pad, made.width_m.value * made.arm_m.value) / count;
  // Through a rubber mount a bolt holds sideways no harder than the rubber.
  const pin = made.pad.own
    ? inSeries(made.pad.own.sheared_NPerM.value / count, SEAT_NPERM / count)
    : SEAT_NPERM / count;
  const axial = isFoot ? inSeries(pad, SEAT_NPERM / count) : inSeries(arm, pad, SEAT_NPERM / count);
  return rowOf(count, made.width_m.value, made.bolts.edge_m.value).flatMap((share, k) =>
    bolted(
      k,
      add(add(wall.point_m, scale(isFoot ? [0, 0, 0] : out, made.arm_m.value)), scale(along, share)),
      axis,
      axial,
      pin,
    ),
  );
}

function flange(outer: ClosedMesh, place: Vec3, made: Made<'flange'>): Own[] | string {
  const wall = wallAt(outer, { face: FACE_OF_SIDE[made.side] }, place);
  if (!wall) return 'there is no wall of the tank where it is';
  const [u, v] = axesAcross(made.side);
  const { count } = made.bolts;
  return Array.from({ length: count }, (_, k) => {
    const angle = (2 * Math.PI * k) / count;
    const radius = made.circle_m.value / 2;
    const at_m = add(wall.point_m, add(scale(u, radius * Math.cos(angle)), scale(v, radius * Math.sin(angle))));
    return bolted(k, at_m, SIDE_WAYS[made.side], SEAT_NPERM / count, SEAT_NPERM / count);
  }).flat();
}
