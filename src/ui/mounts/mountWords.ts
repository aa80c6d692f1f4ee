import type { HoldSchool, MountChange, MountPart, ShockCase } from '@/core/answers';
import type { MountDocument, MountKind } from '@/core/plan';
import { BOLT_CLASS_ROWS, type BoltClass, type BoltHeld } from '@/core/reference/bolts';

/** Words of mounts; sides as in boats, for `useSides`. */
export const KIND_WORDS: Readonly<Record<MountKind, string>> = {
  strap: 'Strap',
  tab: 'Tab or foot',
  cradle: 'Bearer or cradle',
  stop: 'Stop',
  flange: 'Bolted flange',
  guard: 'Guard',
};

export const SIDE_WORDS = {
  down: 'below',
  up: 'above',
  fore: 'fore side',
  aft: 'aft side',
  port: 'port side',
  starboard: 'starboard side',
} as const;

export const SIDE_HEADS = {
  down: 'Floor',
  up: 'Lid',
  fore: 'Fore end',
  aft: 'Aft end',
  port: 'Port side',
  starboard: 'Starboard side',
} as const;

export const RUN_WORDS = { across: 'across the tank', along: 'along the tank', round: 'round it, level' } as const;

export const HELD_WORDS: Readonly<Record<BoltHeld, string>> = {
  nut: 'a nut behind',
  tapped: 'a tapped hole',
  insert: 'a thread insert',
  'rivet-nut': 'a rivet nut',
  'wood-screw': 'the wood, as a screw',
};

export const classWord = (of: BoltClass): string => BOLT_CLASS_ROWS[of].name;

export const CASE_HEADS: Readonly<Record<ShockCase, string>> = {
  rest: 'standing still',
  fore: 'thrown forward',
  aft: 'thrown aft',
  port: 'thrown to port',
  starboard: 'thrown to starboard',
  up: 'thrown up',
  down: 'pressed down',
};

/** What gives, in a column. */
export const PART_HEADS: Readonly<Record<MountPart, string>> = {
  strap: 'strap stretches',
  bolt: 'bolt',
  thread: 'thread pulls out',
  washer: 'washer pulls through',
  'bolt-hole': 'hole in what it stands on',
  'own-hole': 'its own hole',
  arm: 'bends',
  weld: 'weld',
  'tank-wall': 'tank’s wall bends in',
  pad: 'pad pressed flat',
};

export const SCHOOL_WORDS: Readonly<Record<HoldSchool, { readonly name: string; readonly because: string }>> = {
  straps: {
    name: 'Straps over bearers',
    because:
      'Comes out without a torch; no weld on the tank. Straps pull down and do nothing sideways: lips and stops do that.',
  },
  tabs: {
    name: 'Welded tabs',
    because:
      'Least height, nothing to slacken. Each weld is a place to crack, and the tank must be empty to change it.',
  },
  cradle: {
    name: 'Cradle with straps',
    because: 'Bears the floor all over, best for thin or plastic tanks. Heaviest; let water drain out of it.',
  },
};

/** What gives at a mount, in a column. */
export const partHead = (part: MountPart, kind: MountKind | undefined): string =>
  part === 'arm' && kind === 'cradle' ? 'lip bends' : PART_HEADS[part];

/** What a change does, its number put in by the panel. */
export const changeWords = (
  { kind, to }: MountChange,
  names: string,
  length: (value_m: number, role: 'tape' | 'thickness') => string,
): string => {
  switch (kind) {
    case 'better-bolt':
      return `Bolts of class ${classWord(to as BoltClass)} in ${names}`;
    case 'larger-bolt':
      return `Bolts of ${to} in ${names}`;
    case 'nut-behind':
      return `Nuts behind the bolts of ${names}`;
    case 'longer-weld':
      return `${length(to as number, 'tape')} of weld on ${names}`;
    case 'further-edge':
      return `Bolts ${length(to as number, 'tape')} from the edge in ${names}`;
    case 'more-bolts':
      return `${to} bolts instead in ${names}`;
    case 'thicker':
      return `${names} ${length(to as number, 'thickness')} thick`;
    case 'wider':
      return `${names} ${length(to as number, 'tape')} wide`;
    case 'wider-pad':
      return `${names} ${length(to as number, 'tape')} long`;
  }
};

/** What a mount is, in a line. */
export function mountNote(mount: MountDocument): string {
  if (!mount.made) return `${KIND_WORDS[mount.kind].toLowerCase()}, not said how it is made`;
  const bolts = 'bolts' in mount.made ? mount.made.bolts : undefined;
  const bolted = bolts ? `, ${bolts.count} × ${bolts.size}` : '';
  return `${KIND_WORDS[mount.kind].toLowerCase()}${bolted}`;
}

/** What of a tank’s own is in a weight: said of those whose fittings are, and of those whose are not. */
export const countedWords = (tanks: readonly { readonly fitted_kg?: unknown }[]): string =>
  tanks.every(({ fitted_kg }) => fitted_kg !== undefined)
    ? 'welded tabs and what hangs on it counted'
    : 'welded tabs counted, what hangs on it not';
