import { add, clipBelow, convexHull, levelForVolume, placed, posedMesh, turnedBack, type Vec3 } from '../../geometry';
import { memoized } from '../../memo';
import { tankModel, type ModelCode } from '../../model';
import { placeOf } from '../../model/compileFit';
import type { TankModel } from '../../model/compileTank';
import { sharedWall } from '../../model/sharedWall';
import { failure, success, type Outcome } from '../../outcome';
import { shellsIn } from '../../plan/divider';
import type { StanceDocument, SystemDocument } from '../../plan/schema';
import { WATER_ROWS } from '../../reference/waters';
import { edgesOf, tipAngle_rad } from '../../tank';
import { radians } from '../../units';
import {
  afloat,
  ballastFor,
  inclinedGm_m,
  rolledGm_m,
  waterplaneOf,
  type Aboard,
  type Afloat,
  type AfloatCode,
  type Ballast,
  type Hull,
} from '../../weight';
import { wheelsOf, type OnWheels } from './onWheels';
import { tankFluid } from '../flow/flowInputs';
import type { Densities } from '../mounts/loads';
import { metalOf } from '../tank/tankResult';
import { facing, MAIN_WAYS, SHARES, TIP_FILLS, type TipFill } from '../tank/tips';

/** As much of a plan as what the vehicle stands on depends on. */
type StandPlan = Pick<SystemDocument, 'tanks' | 'fluids' | 'vehicle' | 'stance'>;

/** With the tanks filled so far. */
export type StandCase = {
  /** All alike; or those of one shell full and all others empty. */
  readonly fill: TipFill | 'only';
  readonly tanks: readonly number[];
  /** The tanks and what is in them. */ readonly aboard_kg: number;
  /** Where axles are said. */ readonly wheels?: Outcome<OnWheels, 'no-base'>;
  /** Leans at which it goes over, where its height is said [rad]. */
  readonly tips?: Outcome<Readonly<Record<(typeof MAIN_WAYS)[number], number>>, 'no-base' | 'not-found'>;
  /** Where a hull is said. */ readonly afloat?: Outcome<Afloat, AfloatCode>;
  /** What would lay her level then. */ readonly ballast?: Ballast;
};

/** What all tanks full do otherwise where those of one shell stand further one way. */
export type Moved = {
  readonly tanks: readonly number[];
  readonly way: 'fore' | 'port';
  /** More on each axle, and on the port side of all. */
  readonly axles_kg?: readonly number[];
  readonly hitch_kg?: number;
  readonly port_kg?: number;
  readonly bowDown_rad?: number;
  readonly portDown_rad?: number;
};

export type Stands = {
  readonly cases: readonly StandCase[];
  /** For each shell, moved by `MOVED_M`. */ readonly moved: readonly Moved[];
  /** Metacentric height of the hull as weighed, and its waterline’s ends [m]. */
  readonly hull?: { readonly gm_m: number; readonly aft_m: number; readonly fore_m: number };
};

export type { OnWheels };

export type StandsCode = ModelCode | 'temperature-range' | 'not-found' | 'not-said' | 'bad-hull';

/** What the tanks do to the vehicle’s axles, or to how its hull lies, as they fill. */
export const standsOf = (system: StandPlan & Pick<SystemDocument, 'conditions'>): Outcome<Stands, StandsCode> =>
  standsWith(system, (t) => tankFluid(system, t));

/** The same where it is known what the liquids weigh. */
export function standsWith(
  { tanks, fluids, vehicle, stance }: StandPlan,
  densities: Densities,
): Outcome<Stands, StandsCode> {
  if (!stance || !(stance.hull || (stance.axles ?? []).length > 0))
    return failure('not-said', 'stance', 'Nothing is said of what the vehicle stands on.');
  const known: number[] = [];
  if (tanks.every(({ elsewhere }) => elsewhere)) return failure('not-said', 'tanks', 'No tank stands on the vehicle.');
  for (const [t, { name }] of tanks.entries()) {
    const liquid = densities(t);
    if (!liquid.ok) return failure('temperature-range', name, liquid.error.detail);
    known.push(liquid.value.density_kgPerM3);
  }
  return standsFor({ tanks, fluids, vehicle, stance }, known);
}

const standsFor = memoized('stands', standsIn, 8);

/** A tank as the vehicle bears it. */
type Carried = {
  readonly metal: readonly Aboard[];
  readonly fullVolume_m3: number;
  readonly model: TankModel;
  readonly density_kgPerM3: number;
  /** Its liquid, filled to a share of its limit, with up some way; undefined where its level is not found. */
  readonly liquid: (share: number, up: Vec3) => readonly Aboard[] | undefined;
};

function standsIn(system: StandPlan, densities: readonly number[]): Outcome<Stands, StandsCode> {
  const stance = system.stance!;
  const carried: Carried[] = [];
  const isAboard = (t: number): boolean => !system.tanks[t]!.elsewhere;
  for (const [t, document] of system.tanks.entries()) {
    const model = tankModel(system, t);
    if (!model.ok) return model;
    const { mesh, gross_m3 } = model.value;
    const at = placeOf(document.mounting);
    const fullVolume_m3 = isAboard(t) ? gross_m3 * document.fillLimit_ratio.value : 0;
    const metal = isAboard(t) ? metalOf(model.value, sharedWall(system.tanks, document)) : [];
    carried.push({
      model: model.value,
      fullVolume_m3,
      density_kgPerM3: densities[t]!,
      metal: metal.map(({ mass_kg, at_m }) => ({ mass_kg, at_m: placed(at, at_m) })),
      liquid: (share, up) => {
        if (share === 0 || fullVolume_m3 === 0) return [];
        const normal = turnedBack(at, up);
        const level = levelForVolume(mesh, normal, share * fullVolume_m3);
        const centroid = level.ok ? clipBelow(mesh, { normal, offset_m: level.value.offset_m }).centroid_m : undefined;
        return centroid && [{ mass_kg: share * fullVolume_m3 * densities[t]!, at_m: placed(at, centroid) }];
      },
    });
  }
  const hull = stance.hull && hullOf(stance.hull, stance.middle_m.value);
  if (hull && !hull.ok) return hull;
  const shells = shellsIn(system.tanks)
    .map((shell) => shell.map((tank) => system.tanks.indexOf(tank)).filter(isAboard))
    .filter((tanks) => tanks.length > 0);
  const fillings = [
    ...TIP_FILLS.map((fill) => ({
      fill,
      tanks: carried.flatMap((_, t) => (isAboard(t) ? [t] : [])),
      shares: carried.map(() => SHARES[fill]),
    })),
    ...(shells.length > 1
      ? shells.map((tanks) => ({
          fill: 'only' as const,
          tanks,
          shares: carried.map((_, t) => (tanks.includes(t) ? 1 : 0)),
        }))
      : []),
  ];
  const cases: StandCase[] = [];
  for (const { fill, tanks, shares } of fillings) {
    const more = (up: Vec3): readonly Aboard[] | undefined => aboardSince(stance.weighed, carried, shares, up);
    const level = more(UP);
    if (!level) return failure('not-found', 'tanks', 'Where a liquid’s weight lies could not be worked out.');
    const wheels = (stance.axles ?? []).length > 0 ? wheelsOf(stance, level) : undefined;
    const isMain = fill !== 'only';
    cases.push({
      fill,
      tanks,
      aboard_kg: carried.reduce(
        (sum, { metal, fullVolume_m3, density_kgPerM3 }, t) =>
          sum + metal.reduce((own, { mass_kg }) => own + mass_kg, 0) + shares[t]! * fullVolume_m3 * density_kgPerM3,
        0,
      ),
      ...(wheels ? { wheels } : {}),
      ...(wheels?.ok && isMain && stance.height ? { tips: tipsOver(stance, carried, shares, stance.height) } : {}),
      ...(hull?.ok ? { afloat: afloat(hull.value, more) } : {}),
      ...(hull?.ok && stance.hull ? { ballast: ballastFor(hull.value, level, spanOf(stance.hull)) } : {}),
    });
  }
  const fullHere = cases.find(({ fill }) => fill === 'full')!;
  const moved = shells.flatMap((own) =>
    (['fore', 'port'] as const).flatMap((way) => {
      const by = way === 'fore' ? ([MOVED_M, 0, 0] as const) : ([0, MOVED_M, 0] as const);
      const there = carried.map((one, t) => (own.includes(t) ? shifted(one, by) : one));
      const more = (up: Vec3) =>
        aboardSince(
          stance.weighed,
          carried,
          carried.map(() => 1),
          up,
          there,
        );
      return movedBy(stance, fullHere, hull?.ok ? hull.value : undefined, more, { tanks: own, way }) ?? [];
    }),
  );
  const span = stance.hull && spanOf(stance.hull);
  return success({
    cases,
    moved,
    ...(hull?.ok && span ? { hull: { gm_m: hull.value.gm_m, aft_m: span.aft_m, fore_m: span.fore_m } } : {}),
  });
}

/** A boat that leans further shows it: loose things slide, and water stands at one side [rad]. */
export const HEEL_SHOWS_RAD = (1 * Math.PI) / 180;
export const TRIM_SHOWS_RAD = (0.5 * Math.PI) / 180;

/** So far a tank is moved to see what that does [m]. */
export const MOVED_M = 0.1;

const spanOf = ({ stations }: NonNullable<StanceDocument['hull']>) => ({
  aft_m: Math.min(...stations.map(({ x_m }) => x_m.value)),
  fore_m: Math.max(...stations.map(({ x_m }) => x_m.value)),
  beam_m: Math.max(...stations.map(({ beam_m }) => beam_m.value)),
});

const UP: Vec3 = [0, 0, 1];
/** Of what was filled to its limit when it was weighed. */
const shareWeighed = (weighed: StanceDocument['weighed']): number => (weighed === 'full' ? 1 : 0);

const gone = (masses: readonly Aboard[]): Aboard[] => masses.map(({ mass_kg, at_m }) => ({ mass_kg: -mass_kg, at_m }));

/** A tank that stands elsewhere. */
const shifted = (one: Carried, by: Vec3): Carried => {
  const move = (masses: readonly Aboard[]): Aboard[] =>
    masses.map(({ mass_kg, at_m }) => ({ mass_kg, at_m: add(at_m, by) }));
  return {
    ...one,
    metal: move(one.metal),
    liquid: (share, up) => {
      const masses = one.liquid(share, up);
      return masses && move(masses);
    },
  };
};

/** What came aboard since it was weighed, with what went as less than nothing. */
function aboardSince(
  weighed: StanceDocument['weighed'],
  carried: readonly Carried[],
  shares: readonly number[],
  up: Vec3,
  /** Where they stand now, if elsewhere than when it was weighed. */ now: readonly Carried[] = carried,
): readonly Aboard[] | undefined {
  const before = shareWeighed(weighed);
  const masses: Aboard[] = [];
  for (const [t, was] of carried.entries()) {
    const is = now[t]!;
    if (weighed === 'without') masses.push(...is.metal);
    else if (is !== was) masses.push(...is.metal, ...gone(was.metal));
    if (is === was && shares[t] === before) continue;
    const [holds, held] = [is.liquid(shares[t]!, up), was.liquid(before, up)];
    if (!holds || !held) return undefined;
    masses.push(...holds, ...gone(held));
  }
  return masses;
}

/** What differs from how it stands full; nothing where either cannot be told. */
function movedBy(
  stance: StanceDocument,
  here: StandCase,
  hull: Hull | undefined,
  more: (up: Vec3) => readonly Aboard[] | undefined,
  of: Pick<Moved, 'tanks' | 'way'>,
): Moved | undefined {
  const level = more(UP);
  if (!level) return undefined;
  const wheels = here.wheels && wheelsOf(stance, level);
  const lies = hull && afloat(hull, more);
  const [was, lay] = [here.wheels, here.afloat];
  const onPort = ({ axles }: OnWheels): number => axles.reduce((sum, { port_kg }) => sum + port_kg, 0);
  return {
    ...of,
    ...(wheels?.ok && was?.ok && wheels.value.lifts.length + was.value.lifts.length === 0
      ? {
          axles_kg: wheels.value.axles.map(({ load_kg }, a) => load_kg - was.value.axles[a]!.load_kg),
          port_kg: onPort(wheels.value) - onPort(was.value),
          ...(wheels.value.hitch_kg === undefined ? {} : { hitch_kg: wheels.value.hitch_kg - was.value.hitch_kg! }),
        }
      : {}),
    ...(lies?.ok && lay?.ok
      ? {
          bowDown_rad: lies.value.bowDown_rad - lay.value.bowDown_rad,
          portDown_rad: lies.value.portDown_rad - lay.value.portDown_rad,
        }
      : {}),
  };
}

/** How far it leans before it goes over its wheels, everything stiff but the liquids. */
function tipsOver(
  stance: StanceDocument,
  carried: readonly Carried[],
  shares: readonly number[],
  height: NonNullable<StanceDocument['height']>,
): StandCase['tips'] {
  const weighed = wheelsOf(stance, []);
  if (!weighed.ok) return weighed;
  const before = shareWeighed(stance.weighed);
  const fixed: Aboard[] = [
    { mass_kg: weighed.value.total_kg, at_m: [...weighed.value.centre_m, height.centre_m.value] },
  ];
  for (const { metal, liquid } of carried) {
    if (stance.weighed === 'without') fixed.push(...metal);
    const then = liquid(before, UP);
    if (!then) return failure('not-found', 'tanks', 'Where a liquid’s weight lies could not be worked out.');
    fixed.push(...gone(then));
  }
  const standing = {
    fixed,
    liquids: carried.map(({ model, fullVolume_m3, density_kgPerM3 }, t) => ({
      mesh: posedMesh(model.mesh, placeOf(model.document.mounting)),
      volume_m3: shares[t]! * fullVolume_m3,
      density_kgPerM3,
    })),
  };
  const middle = stance.middle_m.value;
  const outline = convexHull([
    ...(stance.axles ?? []).flatMap(({ x_m, track_m }): [number, number][] => [
      [x_m.value, middle + track_m.value / 2],
      [x_m.value, middle - track_m.value / 2],
    ]),
    ...(stance.hitch ? [[stance.hitch.x_m.value, middle] as [number, number]] : []),
  ]);
  if (outline.length < 3) return failure('no-base', 'stance', 'Its wheels stand on one line.');
  const edges = edgesOf(outline, height.ground_m.value);
  const angles = {} as Record<(typeof MAIN_WAYS)[number], number>;
  for (const way of MAIN_WAYS) {
    const angle = tipAngle_rad(standing, facing(edges, way));
    if (angle === undefined) return failure('not-found', 'tanks', 'How it leans could not be worked out.');
    angles[way] = angle;
  }
  return success(angles);
}

function hullOf(hull: NonNullable<StanceDocument['hull']>, middle_m: number): Outcome<Hull, 'bad-hull'> {
  const stations = hull.stations.map(({ x_m, beam_m }) => ({ x_m: x_m.value, beam_m: beam_m.value }));
  const waterplane = waterplaneOf(stations);
  if (!waterplane)
    return failure('bad-hull', 'stance', 'Its stations enclose no waterline: give a breadth at two places or more.');
  const { steady } = hull;
  const displacement_kg = hull.displacement_kg.value;
  const gm_m =
    steady.kind === 'given'
      ? steady.gm_m.value
      : steady.kind === 'moved'
        ? inclinedGm_m(displacement_kg, steady.moved_kg.value, steady.moved_m.value, radians(steady.heeled_deg.value))
        : rolledGm_m(Math.max(...stations.map(({ beam_m }) => beam_m)), steady.period_s.value);
  return success({
    waterplane,
    displacement_kg,
    density_kgPerM3: WATER_ROWS[hull.water].density_kgPerM3,
    gm_m,
    middle_m,
    waterline_m: hull.waterline_m.value,
  });
}
