import {
  chosen,
  freshId,
  type MountDocument,
  type MountKind,
  type MOUNT_SIDES,
  type SystemDocument,
} from '@/core/plan';
import type { FitDrawing } from '@/core/answers';

type Made<K extends MountKind> = NonNullable<Extract<MountDocument, { kind: K }>['made']>;

const BOLTS = { count: 1, size: 'M8', class: '8.8', held: 'nut', edge_m: chosen(0.02) } as const;
const BEARS = { stock: 'mild-steel', thickness_m: chosen(0.004) } as const;
const PAD = { of: 'rubber', thickness_m: chosen(0.004) } as const;

/** How a new mount of each kind is made, to begin with. */
export const NEW_MADE: { readonly [K in MountKind]: Made<K> } = {
  strap: {
    runs: 'across',
    side: 'down',
    stock: 'mild-steel',
    width_m: chosen(0.04),
    thickness_m: chosen(0.002),
    tension_N: chosen(800),
    splay_m: chosen(0.03),
    bolts: BOLTS,
    bears: BEARS,
    pad: PAD,
  },
  tab: {
    wall: 'port',
    side: 'down',
    stock: 'aluminium-5052',
    width_m: chosen(0.08),
    thickness_m: chosen(0.006),
    arm_m: chosen(0.03),
    leg_m: chosen(0.04),
    weld: { throat_m: chosen(0.003), length_m: chosen(0.16) },
    bolts: { ...BOLTS, count: 2 },
    bears: BEARS,
    pad: PAD,
  },
  cradle: {
    side: 'down',
    length_m: chosen(0.06),
    width_m: chosen(0.3),
    lip_m: chosen(0.03),
    stock: 'mild-steel',
    thickness_m: chosen(0.004),
    bolts: { ...BOLTS, count: 2 },
    bears: BEARS,
    pad: PAD,
  },
  stop: {
    side: 'fore',
    width_m: chosen(0.1),
    arm_m: chosen(0.025),
    stock: 'mild-steel',
    thickness_m: chosen(0.004),
    bolts: { ...BOLTS, count: 2 },
    bears: BEARS,
    pad: PAD,
  },
  flange: {
    side: 'down',
    circle_m: chosen(0.2),
    stock: 'mild-steel',
    thickness_m: chosen(0.006),
    bolts: { ...BOLTS, count: 6 },
    bears: BEARS,
  },
  guard: {
    side: 'down',
    length_m: chosen(0.4),
    width_m: chosen(0.3),
    off_m: chosen(0.01),
    stock: 'aluminium-5052',
    thickness_m: chosen(0.003),
    bolts: { ...BOLTS, size: 'M6', count: 4, edge_m: chosen(0.015) },
  },
};

/** Rubber mounts and fork pockets as they begin. */
export const NEW_RUBBER = { pressed_NPerM: chosen(400e3), sheared_NPerM: chosen(100e3), most_N: chosen(1500) };
export const NEW_POCKETS = {
  runs: 'across',
  apart_m: chosen(0.4),
  width_m: chosen(0.15),
  height_m: chosen(0.06),
} as const;

const NAMES: Readonly<Record<MountKind, string>> = {
  strap: 'Strap',
  tab: 'Tab',
  cradle: 'Bearer',
  stop: 'Stop',
  flange: 'Flange',
  guard: 'Guard',
};

export type Span = { readonly low: readonly number[]; readonly high: readonly number[] };

/** From where to where the tank itself reaches in its drawing, in vehicle axes [m]. */
export function spanOf({ views }: FitDrawing): Span {
  const points = (view: 'side' | 'plan') =>
    views[view].filter(({ kind }) => kind === 'tank').flatMap(({ outline }) => outline.flat());
  const [side, plan] = [points('side'), points('plan')];
  const each = [side.map(([x]) => x), plan.map(([, y]) => y), side.map(([, z]) => z)];
  return { low: each.map((values) => Math.min(...values)), high: each.map((values) => Math.max(...values)) };
}

/** One more mount of a kind, in the middle of the side of the tank that it is for. */
export function withMount(system: SystemDocument, t: number, kind: MountKind, { low, high }: Span): SystemDocument {
  const tank = system.tanks[t]!;
  // A guard is as large as what it covers.
  const made =
    kind === 'guard'
      ? { ...NEW_MADE.guard, length_m: chosen(mm(high[0]! - low[0]!)), width_m: chosen(mm(high[1]! - low[1]!)) }
      : NEW_MADE[kind];
  const middle = low.map((value, k) => (value + high[k]!) / 2) as [number, number, number];
  const on = kind === 'tab' ? (made as Made<'tab'>).wall : made.side;
  if (on === 'down') middle[2] = low[2]!;
  if (on === 'fore') [middle[0], middle[2]] = [high[0]!, low[2]! + 0.025];
  if (on === 'port') [middle[1], middle[2]] = [high[1]!, low[2]! + 0.02];
  const at = { x_m: chosen(mm(middle[0])), y_m: chosen(mm(middle[1])), z_m: chosen(mm(middle[2])) };
  const mount = {
    id: freshId(system, kind),
    name: nextName(system, { kind, tank: tank.id }),
    kind,
    tank: tank.id,
    ...at,
    made,
  } as MountDocument;
  return { ...system, mounts: [...system.mounts, mount] };
}

const mm = (value: number): number => Math.round(1e3 * value) / 1e3;

/** The plan with another layout in place of what holds a tank. */
export const withLayout = (system: SystemDocument, t: number, mounts: readonly MountDocument[]): SystemDocument => ({
  ...system,
  mounts: [...system.mounts.filter(({ tank }) => tank !== system.tanks[t]!.id), ...mounts],
});

const TURNED: Readonly<Record<'sides' | 'ends', readonly [MountSide, MountSide]>> = {
  sides: ['port', 'starboard'],
  ends: ['fore', 'aft'],
};
type MountSide = (typeof MOUNT_SIDES)[number];

/** One more mount like another, on the other side or at the other end of its tank. */
export function withMirrored(
  system: SystemDocument,
  m: number,
  over: 'sides' | 'ends',
  { low, high }: Span,
): SystemDocument {
  const mount = system.mounts[m]!;
  const [axis, key] = over === 'sides' ? ([1, 'y_m'] as const) : ([0, 'x_m'] as const);
  const [one, other] = TURNED[over];
  const turned = (side: MountSide): MountSide => (side === one ? other : side === other ? one : side);
  const { made } = mount;
  const copy = {
    ...mount,
    id: freshId(system, mount.kind),
    name: nextName(system, mount),
    [key]: chosen(mm(low[axis]! + high[axis]! - mount[key].value)),
    made: made && { ...made, side: turned(made.side), ...('wall' in made ? { wall: turned(made.wall) } : {}) },
  } as MountDocument;
  return { ...system, mounts: [...system.mounts.slice(0, m + 1), copy, ...system.mounts.slice(m + 1)] };
}

/** A name of its kind that no mount of the tank has. */
function nextName(system: SystemDocument, { kind, tank }: Pick<MountDocument, 'kind' | 'tank'>): string {
  const taken = new Set(system.mounts.filter((one) => one.tank === tank).map(({ name }) => name));
  let number = 1;
  while (taken.has(`${NAMES[kind]} ${number}`)) number++;
  return `${NAMES[kind]} ${number}`;
}
