import { success, type Outcome } from '../../outcome';
import type { MountDocument } from '../../plan/schema';
import { BOLTS, type BoltClass, type BoltSize } from '../../reference/bolts';
import { chosen } from '../../schema/known';
import type { Mounted } from './loads';
import { mountsOf, weakest, type MountsCode, type MountsOf, type WorstUse } from './mounts';
import type { MountPart } from './uses';

/** One change of what holds a tank. */
export type MountChangeKind =
  | 'better-bolt'
  | 'larger-bolt'
  | 'nut-behind'
  | 'longer-weld'
  | 'further-edge'
  | 'more-bolts'
  | 'thicker'
  | 'wider'
  | 'wider-pad';

export type MountChange = {
  readonly kind: MountChangeKind;
  /** The mounts that are changed, by their numbers in the plan, and the plan's mounts then. */
  readonly changed: readonly number[];
  readonly mounts: readonly MountDocument[];
  /** What it comes to, in words and numbers. */
  readonly to: BoltSize | BoltClass | 'nut' | number;
  /** The weakest part then. */ readonly weakest: WorstUse | undefined;
};

const METRIC: readonly BoltSize[] = ['M5', 'M6', 'M8', 'M10', 'M12', 'M16'];
const INCH: readonly BoltSize[] = ['1/4-20', '5/16-18', '3/8-16', '7/16-14', '1/2-13', '5/8-11'];
const STEELS: readonly BoltClass[] = ['4.6', '8.8', '10.9'];
const GRADES: readonly BoltClass[] = ['grade-2', 'grade-5', 'grade-8'];
const STAINLESS: readonly BoltClass[] = ['18-8', 'A2-70'];

const after = <T>(rows: readonly (readonly T[])[], one: T): T | undefined => {
  const row = rows.find((each) => each.includes(one));
  return row?.[row.indexOf(one) + 1];
};

/** What helps each part, cheapest first. */
const HELPS: Readonly<Record<MountPart, readonly MountChangeKind[]>> = {
  bolt: ['better-bolt', 'larger-bolt', 'more-bolts'],
  thread: ['nut-behind', 'larger-bolt', 'more-bolts'],
  washer: ['larger-bolt', 'more-bolts'],
  'bolt-hole': ['further-edge', 'larger-bolt', 'more-bolts'],
  'own-hole': ['further-edge', 'larger-bolt', 'thicker', 'more-bolts'],
  strap: ['thicker', 'wider'],
  arm: ['thicker', 'wider'],
  weld: ['longer-weld'],
  'tank-wall': ['wider'],
  pad: ['wider-pad'],
};

/** Steps that are tried of one change, until the part bears what it must. */
const MOST_STEPS = 12;
/** Sheet as it is bought [m]. */
const SHEETS_M = [0.0015, 0.002, 0.003, 0.004, 0.005, 0.006, 0.008, 0.01, 0.012, 0.015, 0.02];
const roundUp = (value: number): number => Math.ceil(1e3 * value - 1e-6) / 1e3;

/** A mount changed by one step; undefined where that is not possible. */
function stepped(
  mount: MountDocument,
  kind: MountChangeKind,
): { readonly mount: MountDocument; readonly to: MountChange['to'] } | undefined {
  const { made } = mount;
  if (!made) return undefined;
  const give = (more: object, to: MountChange['to']) => ({
    mount: { ...mount, made: { ...made, ...more } } as MountDocument,
    to,
  });
  const bolts = 'bolts' in made ? made.bolts : undefined;
  switch (kind) {
    case 'better-bolt': {
      const next = bolts && after([STEELS, GRADES, STAINLESS], bolts.class);
      return next && give({ bolts: { ...bolts, class: next } }, next);
    }
    case 'larger-bolt': {
      const next = bolts && after([METRIC, INCH], bolts.size);
      const edge = bolts && next && Math.max(bolts.edge_m.value, roundUp(1.5 * BOLTS[next].hole_m));
      return next && give({ bolts: { ...bolts, size: next, edge_m: chosen(edge!) } }, next);
    }
    case 'nut-behind':
      return bolts && bolts.held !== 'nut' ? give({ bolts: { ...bolts, held: 'nut' } }, 'nut') : undefined;
    case 'further-edge': {
      const most = bolts && roundUp(3 * BOLTS[bolts.size].hole_m);
      return bolts && bolts.edge_m.value < most! - 1e-9
        ? give({ bolts: { ...bolts, edge_m: chosen(most!) } }, most!)
        : undefined;
    }
    case 'more-bolts':
      return bolts && bolts.count < 12
        ? give({ bolts: { ...bolts, count: bolts.count + 1 } }, bolts.count + 1)
        : undefined;
    case 'thicker': {
      if (!('thickness_m' in made)) return undefined;
      const next = SHEETS_M.find((sheet) => sheet > made.thickness_m.value + 1e-9);
      return next === undefined ? undefined : give({ thickness_m: chosen(next) }, next);
    }
    case 'longer-weld': {
      if (!('weld' in made) || !made.weld) return undefined;
      const next = roundUp(1.25 * made.weld.length_m.value);
      return give({ weld: { ...made.weld, length_m: chosen(next) } }, next);
    }
    case 'wider': {
      if (!('width_m' in made)) return undefined;
      const next = roundUp(1.25 * made.width_m.value);
      return give({ width_m: chosen(next) }, next);
    }
    case 'wider-pad': {
      if (mount.kind !== 'cradle' || !mount.made) return undefined;
      const next = roundUp(1.5 * mount.made.length_m.value);
      return give({ length_m: chosen(next) }, next);
    }
  }
}

const partOf = (of: MountsOf, mount: number, part: MountPart): WorstUse | undefined =>
  of.parts.find((use) => use.mount === mount && use.part === part);

/**
 * Changes that lift the weakest part of what holds a tank to what is needed,
 * cheapest kinds first; each with what is the weakest then. Mounts of its kind
 * that fall short in the same part are changed with it.
 *
 * @returns none where nothing falls short, or where no single change is enough
 */
export function changesOf(system: Mounted, t: number): Outcome<readonly MountChange[], MountsCode> {
  const found = mountsOf(system);
  if (!found.ok) return found;
  const { needed, shells } = found.value;
  const own = shells.find(({ tanks }) => tanks.includes(t));
  const first = own && weakest(own);
  if (!own || !first || first.factor! >= needed) return success([]);
  const { kind } = system.mounts[first.mount]!;
  const short = own.parts
    .filter(
      ({ mount, part, factor }) =>
        part === first.part && system.mounts[mount]!.kind === kind && factor !== undefined && factor < needed,
    )
    .map(({ mount }) => mount);
  const changes: MountChange[] = [];
  for (const change of HELPS[first.part]) {
    let mounts = system.mounts;
    let to: MountChange['to'] | undefined;
    for (let step = 0; step < MOST_STEPS; step++) {
      const next = short.map((m) => stepped(mounts[m]!, change));
      if (next.some((one) => one === undefined)) break;
      mounts = mounts.map((mount, m) => (short.includes(m) ? next[short.indexOf(m)]!.mount : mount));
      to = next[0]!.to;
      const then = mountsOf({ ...system, mounts });
      if (!then.ok) break;
      const shell = then.value.shells.find(({ tanks }) => tanks.includes(t))!;
      const isEnough = short.every((m) => {
        const use = partOf(shell, m, first.part);
        return use === undefined || (use.factor !== undefined && use.factor >= needed);
      });
      if (!isEnough) continue;
      changes.push({ kind: change, changed: short, mounts, to, weakest: weakest(shell) });
      break;
    }
  }
  return success(changes);
}
