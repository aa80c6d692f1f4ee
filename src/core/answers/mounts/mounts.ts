import { dot, flatFaces, placedBack, scale, subtract, turned, turnedBack, type Vec3 } from '../../geometry';
import { tankModel, type ModelCode } from '../../model';
import { sharedWall } from '../../model/sharedWall';
import { outerMesh, placeOf } from '../../model/compileFit';
import { SIDE_WAYS } from '../../model/axes';
import { compileMounts, holdsTank, type Astray, type MountSupport } from '../../model/compileMounts';
import { reactionOf, shiftAt, standOf, type Stand, type StaticsCode, type Support, type Wrench } from '../../mounts';
import { memoized } from '../../memo';
import { failure, success, type Outcome } from '../../outcome';
import { shellsIn } from '../../plan/divider';
import type { MountDocument, TankDocument } from '../../plan/schema';
import type { AlloyKey } from '../../reference/alloys';
import { MOUNT_STOCKS, type MountStock } from '../../reference/mountStock';
import { FACTORS } from '../../reference/shocks';
import { STANDARD_GRAVITY_M_PER_S2 } from '../../units';
import {
  heldMass,
  SHOCK_CASES,
  shocksOf,
  thrownIn,
  type Densities,
  type HeldMass,
  type Mounted,
  type MountPlan,
  type ShockCase,
} from './loads';
import { tankFluid } from '../flow/flowInputs';
import { metalOf } from '../tank/tankResult';
import { pressedBy, type Pressed } from './pressed';
import { swingsOf, type Swings, type Swung } from './vibration';
import { usesOf, type MountPart, type PartUse, type Wall } from './uses';

/** Which way what is not held goes. */
export type Goes = 'fore' | 'aft' | 'port' | 'starboard' | 'up' | 'down' | 'rolls' | 'pitches' | 'turns';

/** How what is not held goes. */
export const GOES_WORDS: Readonly<Record<Goes, string>> = {
  fore: 'slides forward',
  aft: 'slides aft',
  port: 'slides to port',
  starboard: 'slides to starboard',
  up: 'lifts off',
  down: 'sinks',
  rolls: 'rolls over to its side',
  pitches: 'tips over its end',
  turns: 'turns on the spot',
};

/** How the tank is held in one case. */
export type CaseHeld =
  | {
      readonly held: true;
      /** What each mount gives to the tank, by its number in the plan [N]. */
      readonly gives_N: Readonly<Record<number, Vec3>>;
      /** How it would go if nothing rubbed: shaken long enough it creeps that way. */
      readonly creeps: Goes | undefined;
      /** Mounts that press on it at rest and let go of it now. */
      readonly letGo: readonly number[];
    }
  | { readonly held: false; readonly goes: Goes }
  | { readonly held: undefined; readonly why: string };

/** The worst that a part of a mount is asked, of all cases. */
export type WorstUse = PartUse & {
  readonly mount: number;
  readonly shock: ShockCase;
  /** What it bears over what it is asked; Infinity where nothing is asked of it, undefined where that is not known. */
  readonly factor: number | undefined;
};

/** What holds a tank, or the tanks of one shell. */
export type MountsOf = {
  /** Their places among the plan’s tanks. */ readonly tanks: readonly number[];
  readonly name: string;
  readonly load: HeldMass;
  /** Mounts of which it is said how they are made, and those of which it is not. */
  readonly mounts: readonly number[];
  readonly undescribed: readonly number[];
  readonly astray: readonly Astray[];
  readonly cases: Readonly<Record<ShockCase, CaseHeld>>;
  /** The weakest first; those that are asked nothing left out. */
  readonly parts: readonly WorstUse[];
  /** How it swings by itself; why that is not known. */
  readonly swings: Outcome<Swings, 'not-held'>;
  /** What the liquid of each of its tanks presses when it is thrown, in their order; undefined where not known. */
  readonly pressed: readonly (Pressed | undefined)[];
  /** How long each strap’s way is between where its ends are held, by its number in the plan [m]. */
  readonly strapWays_m: Readonly<Record<number, number>>;
};

export type Mounts = { readonly needed: number; readonly shells: readonly MountsOf[] };

export type MountsCode = ModelCode | 'temperature-range' | 'not-found' | StaticsCode;

/** What a tank's wall comes back from, by what it is made of; welded seams are beside it. */
export const WALL_STOCK: Partial<Readonly<Record<AlloyKey, MountStock>>> = {
  'al-5052': 'aluminium-5052',
  'al-6061': 'aluminium-6061',
  'mild-steel': 'mild-steel',
  'stainless-304': 'stainless',
  'stainless-316': 'stainless',
};
/**
 * Of 3003 as H14 and annealed, of polyethylene and polypropylene for a while, by their welds half.
 * @source Aluminum Design Manual; makers of sheet; all from memory
 */
const WALL_YIELD_PA: Partial<Readonly<Record<AlloyKey, { readonly sheet: number; readonly beside: number }>>> = {
  'al-3003': { sheet: 115e6, beside: 35e6 },
  hdpe: { sheet: 20e6, beside: 10e6 },
  pp: { sheet: 25e6, beside: 12e6 },
};

/** A force this small is rounding [N]. */
const NONE_N = 1e-3;
/** A mount that presses with less than this of the weight does not hold. */
const PRESSES_REL = 0.01;

/** What holds each tank: how it is held when it is thrown, and what every part of its mounts bears of that. */
export const mountsOf = (system: Mounted): Outcome<Mounts, MountsCode> =>
  mountsWith(system, (t) => tankFluid(system, t));

/** The same where it is known what the liquids weigh. However it stands meanwhile, it is held as it was. */
export function mountsWith(
  { tanks, fluids, mounts, shocks, vehicle }: MountPlan,
  densities: Densities,
): Outcome<Mounts, MountsCode> {
  const known: number[] = [];
  for (const [t, { name }] of tanks.entries()) {
    const liquid = densities(t);
    if (!liquid.ok) return failure('temperature-range', name, liquid.error.detail);
    known.push(liquid.value.density_kgPerM3);
  }
  return mountsFor({ tanks, fluids, mounts, shocks, vehicle }, known);
}

const mountsFor = memoized('mounts', mountsIn, 8);

function mountsIn(system: MountPlan, densities: readonly number[]): Outcome<Mounts, MountsCode> {
  const shells: MountsOf[] = [];
  for (const shell of shellsIn(system.tanks)) {
    const held = heldBy(system, shell, densities);
    if (!held.ok) return held;
    shells.push(held.value);
  }
  return success({ needed: FACTORS[shocksOf(system).school].factor, shells });
}

function heldBy(
  system: MountPlan,
  shell: readonly TankDocument[],
  densities: readonly number[],
): Outcome<MountsOf, MountsCode> {
  const load = heldMass(system, shell, densities);
  if (!load.ok) return load;
  const supports: MountSupport[] = [];
  const astray: Astray[] = [];
  const swung: Swung[] = [];
  const pressed: (Pressed | undefined)[] = [];
  const shocks = shocksOf(system);
  const walls = new Map<string, Wall & { readonly tank: TankDocument }>();
  const own = system.mounts.flatMap((mount, index) =>
    holdsTank(mount) && shell.some(({ id }) => id === mount.tank) ? [{ mount, index }] : [],
  );
  for (const tank of shell) {
    const outer = outerMesh(tank);
    if (!outer.ok) return failure('bad-shape', tank.name, outer.error.detail);
    const compiled = compileMounts(
      outer.value,
      placeOf(tank.mounting),
      own.filter(({ mount }) => mount.tank === tank.id),
    );
    supports.push(...compiled.supports);
    const t = system.tanks.indexOf(tank);
    const model = tankModel(system, t);
    if (!model.ok) return model;
    swung.push({
      model: model.value,
      metal: metalOf(model.value, sharedWall(system.tanks, tank)),
      liquid_kg: model.value.gross_m3 * tank.fillLimit_ratio.value * densities[t]!,
    });
    pressed.push(
      pressedBy({
        mesh: model.value.mesh,
        plates: model.value.body.plates,
        volume_m3: model.value.gross_m3 * tank.fillLimit_ratio.value,
        density_kgPerM3: densities[t]!,
        thrown: SHOCK_CASES.map((shock) => ({
          shock,
          by_mPerS2: turnedBack(placeOf(tank.mounting), thrownIn(shocks, shock)),
        })),
      }),
    );
    astray.push(...compiled.astray);
    const { alloy, thickness_m } = tank.material;
    const stock = WALL_STOCK[alloy];
    walls.set(tank.id, {
      tank,
      thickness_m: thickness_m.value,
      yield_Pa: stock ? MOUNT_STOCKS[stock].yield_Pa : WALL_YIELD_PA[alloy]?.sheet,
      besideYield_Pa: stock ? MOUNT_STOCKS[stock].beside?.yield_Pa : WALL_YIELD_PA[alloy]?.beside,
      faces: own.some(({ mount }) => mount.tank === tank.id) ? flatFaces(outer.value) : [],
    });
  }
  const placesOf = (index: number): number[] => supports.flatMap((one, i) => (one.mount === index ? [i] : []));
  const described = own.filter(({ mount }) => mount.made !== undefined).map(({ index }) => index);
  const { mass_kg, centre_m, size_m } = load.value;
  // About its own centre, so that turns are small where the vehicle's datum is far.
  const arm_m = Math.max(0.05, size_m / 2);
  const near = tightened(
    supports.map((one): Support => ({
      ...one,
      legs: one.legs.map(({ at_m, way }) => ({ at_m: subtract(at_m, centre_m), way })),
    })),
    { force_N: scale(thrownIn(shocks, 'rest'), mass_kg), moment_Nm: [0, 0, 0] },
    arm_m,
  );
  const smooth = near.map((one): Support => ({ ...one, friction_ratio: 0 }));
  const cases = {} as Record<ShockCase, CaseHeld>;
  const worst = new Map<string, WorstUse>();
  let resting = new Set<number>();
  let swings: MountsOf['swings'] = failure(
    'not-held',
    'mounts',
    'Nothing is known to hold it at rest: how it swings is not known.',
  );
  for (const shock of SHOCK_CASES) {
    const wrench: Wrench = { force_N: scale(thrownIn(shocks, shock), mass_kg), moment_Nm: [0, 0, 0] };
    if (supports.length === 0) {
      const why =
        astray.length > 0 ? 'Nothing that is to hold it is at the tank.' : 'Nothing is said of what holds it.';
      cases[shock] = { held: undefined, why };
      continue;
    }
    const stand = standOf(near, wrench, arm_m);
    if (!stand.ok) {
      cases[shock] = { held: undefined, why: stand.error.detail };
      continue;
    }
    if (!stand.value.held) {
      cases[shock] = { held: false, goes: wayOf(stand.value, size_m) };
      continue;
    }
    const { by } = stand.value;
    const { forces_N, frictions_N } = by;
    const small = PRESSES_REL * mass_kg * STANDARD_GRAVITY_M_PER_S2;
    const pressing = new Set(supports.flatMap(({ mount }, i) => (Math.abs(forces_N[i]!) > small ? [mount] : [])));
    if (shock === 'rest') {
      resting = pressing;
      swings = success(swingsOf(swung, supports, forces_N));
    }
    const without = near.some(({ friction_ratio }) => friction_ratio > 0) ? standOf(smooth, wrench, arm_m) : stand;
    if (!without.ok) {
      cases[shock] = { held: undefined, why: without.error.detail };
      continue;
    }
    cases[shock] = {
      held: true,
      gives_N: Object.fromEntries(
        described.map((index) => {
          const places = placesOf(index);
          const held = { ...by, forces_N: pick(forces_N, places), frictions_N: pick(frictions_N, places) };
          return [index, reactionOf(pick(supports, places), held).force_N];
        }),
      ),
      creeps: !without.value.held ? wayOf(without.value, size_m) : undefined,
      letGo: [...resting].filter((mount) => !pressing.has(mount)),
    };
    for (const { mount, index } of own) {
      const places = placesOf(index);
      const wall = walls.get(mount.tank)!;
      const at = placeOf(wall.tank.mounting);
      const uses = usesOf(
        mount,
        { supports: pick(supports, places), forces_N: pick(forces_N, places), frictions_N: pick(frictions_N, places) },
        wall,
        (point) => placedBack(at, point),
        (one) => turned(at, axisOf(one)),
      );
      for (const use of uses) keepWorse(worst, { ...use, mount: index, shock, factor: factorOf(use) });
    }
  }
  return success({
    tanks: system.tanks.flatMap((tank, t) => (shell.includes(tank) ? [t] : [])),
    name: shell.map(({ name }) => name).join(' and '),
    load: load.value,
    mounts: described,
    undescribed: own.filter(({ mount }) => mount.made === undefined).map(({ index }) => index),
    astray,
    cases,
    swings,
    pressed,
    strapWays_m: Object.fromEntries(
      supports.flatMap(({ mount, role }) => (role.what === 'strap' ? [[mount, role.length_m]] : [])),
    ),
    parts: [...worst.values()]
      .filter(({ factor }) => factor !== Infinity)
      .sort((a, b) => (a.factor ?? -1) - (b.factor ?? -1)),
  });
}

const pick = <T>(all: readonly T[], places: readonly number[]): T[] => places.map((i) => all[i]!);

/** A strap this much softer than it is holds with about the same force wherever the tank settles. */
const SOFT_REL = 1e-4;
/** Pads and frames give no more than this when a strap is tightened [m]. */
const SETTLES_M = 0.02;

/**
 * Supports with what straps pull before the tank has settled: so much that they
 * pull what they were tightened to once it has, its weight on its pads.
 */
function tightened(supports: readonly Support[], rest: Wrench, arm_m: number): readonly Support[] {
  const isTight = ({ acts, preload_N }: Support): boolean => acts === 'pull' && preload_N > 0;
  if (!supports.some(isTight)) return supports;
  const soft = supports.map((one) =>
    isTight(one) ? { ...one, stiffness_NPerM: SOFT_REL * one.stiffness_NPerM } : one,
  );
  const stand = standOf(soft, rest, arm_m);
  if (!stand.ok || !stand.value.held) return supports;
  const { moved } = stand.value.by;
  return supports.map((one) => {
    if (!isTight(one)) return one;
    const along_m = one.legs.reduce((sum, { at_m, way }) => sum + dot(way, shiftAt(moved, at_m)), 0);
    // Where it gives further nothing of it is tight.
    return Math.abs(along_m) > SETTLES_M
      ? one
      : { ...one, preload_N: Math.max(0, one.preload_N + one.stiffness_NPerM * along_m) };
  });
}

/** Which way the bolts of a mount go, in the tank's axes. */
const axisOf = (mount: MountDocument): Vec3 => SIDE_WAYS[mount.made?.side ?? 'down'];

const factorOf = ({ demand_N, capacity_N }: PartUse): number | undefined =>
  demand_N <= NONE_N ? Infinity : capacity_N === undefined ? undefined : capacity_N / demand_N;

/** Of uses of one part the one with the least factor; one of which nothing is known before all. */
function keepWorse(worst: Map<string, WorstUse>, use: WorstUse): void {
  const key = `${use.mount} ${use.part}`;
  const before = worst.get(key);
  const rank = ({ factor }: WorstUse): number => factor ?? -1;
  if (!before || rank(use) < rank(before)) worst.set(key, use);
}

/** What a body that is not held does, in one word: how its middle goes, or how it turns where its ends go further. */
function wayOf(stand: Extract<Stand, { held: false }>, size_m: number): Goes {
  const { goes } = stand.how;
  const middle = shiftAt(goes, [0, 0, 0]);
  const most = (v: Vec3): 0 | 1 | 2 =>
    ([0, 1, 2] as const).reduce<0 | 1 | 2>((best, k) => (Math.abs(v[k]) > Math.abs(v[best]) ? k : best), 0);
  const [shift, turn] = [most(middle), most(goes.turn_rad)];
  if ((Math.abs(goes.turn_rad[turn]) * size_m) / 2 > Math.abs(middle[shift])) return TURNS[turn];
  return middle[shift] > 0 ? AHEAD[shift] : BEHIND[shift];
}
const TURNS = ['rolls', 'pitches', 'turns'] as const;
const AHEAD = ['fore', 'port', 'up'] as const;
const BEHIND = ['aft', 'starboard', 'down'] as const;

/** What of a shell’s mounts has the least factor of those that are known; undefined where none is. */
export const weakest = ({ parts }: MountsOf): WorstUse | undefined => parts.find(({ factor }) => factor !== undefined);

/** Whether everything is held, and borne with the factor that is needed; undefined where that is not known. */
export function holds({ cases, parts, mounts, undescribed, astray }: MountsOf, needed: number): boolean | undefined {
  const each = SHOCK_CASES.map((shock) => cases[shock].held);
  if (each.includes(false) || parts.some(({ factor }) => factor !== undefined && factor < needed)) return false;
  if (mounts.length === 0 || undescribed.length > 0 || astray.length > 0) return undefined;
  return each.includes(undefined) || parts.some(({ factor }) => factor === undefined) ? undefined : true;
}

export type { Astray, MountPart, PartUse, ShockCase };
