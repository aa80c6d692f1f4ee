import { clipBelow, levelForVolume, meshBounds, meshCentroid, meshVolume, placed, type Vec3 } from '../../geometry';
import { tankModel, type ModelCode } from '../../model';
import { compileMountBodies, placeOf } from '../../model/compileFit';
import { standingUp } from '../../model/compileTank';
import { sharedWall } from '../../model/sharedWall';
import { failure, success, type Outcome } from '../../outcome';
import type { ShocksDocument, SystemDocument, TankDocument } from '../../plan/schema';
import { MOUNT_STOCKS } from '../../reference/mountStock';
import { SHOCKS, type ShockKind } from '../../reference/shocks';
import { chosen } from '../../schema/known';
import { commonCentre_m } from '../../tank';
import { STANDARD_GRAVITY_M_PER_S2 } from '../../units';
import { metalOf } from '../tank/tankResult';

/** As much of a plan as what holds its tanks depends on. */
export type MountPlan = Pick<SystemDocument, 'tanks' | 'fluids' | 'mounts' | 'shocks' | 'vehicle'>;
/** The same with what its liquids weigh. */
export type Mounted = MountPlan & Pick<SystemDocument, 'conditions'>;
/** What the liquid of each tank weighs, by its place among them. */
export type Densities = (t: number) => Outcome<{ readonly density_kgPerM3: number }>;

/** At rest, and thrown each way. */
export const SHOCK_CASES = ['rest', 'fore', 'aft', 'port', 'starboard', 'up', 'down'] as const;
export type ShockCase = (typeof SHOCK_CASES)[number];

/** The table's row for each kind of vehicle. */
const KIND_OF: Readonly<Record<SystemDocument['vehicle']['kind'], ShockKind>> = {
  boat: 'boat',
  road: 'road',
  snow: 'snow',
  competition: 'competition',
  trailer: 'trailer',
  bench: 'carried',
};

/** A row of the table as a plan has it. */
export function shocksFrom(kind: ShockKind, school: ShocksDocument['school'] = 'builder'): ShocksDocument {
  const row = SHOCKS[kind];
  const known = (g: number) => chosen(g * STANDARD_GRAVITY_M_PER_S2);
  return {
    fore_mPerS2: known(row.fore_g),
    aft_mPerS2: known(row.aft_g),
    side_mPerS2: known(row.side_g),
    up_mPerS2: known(row.up_g),
    down_mPerS2: known(row.down_g),
    school,
  };
}

/** The kind of shocks that a vehicle is taken to give where the plan does not say. */
export const shockKindOf = (system: Pick<SystemDocument, 'vehicle'>): ShockKind => KIND_OF[system.vehicle.kind];

/** How hard the tanks are thrown: as the plan has it, else as the vehicle's kind does. */
export const shocksOf = (system: Pick<SystemDocument, 'shocks' | 'vehicle'>): ShocksDocument =>
  system.shocks ?? shocksFrom(shockKindOf(system));

/** What each case throws a mass with, its weight counted in, in vehicle axes [m/s²]. */
export function thrownIn(shocks: ShocksDocument, shock: ShockCase): Vec3 {
  const g = STANDARD_GRAVITY_M_PER_S2;
  switch (shock) {
    case 'rest':
      return [0, 0, -g];
    case 'fore':
      return [shocks.fore_mPerS2.value, 0, -g];
    case 'aft':
      return [-shocks.aft_mPerS2.value, 0, -g];
    case 'port':
      return [0, shocks.side_mPerS2.value, -g];
    case 'starboard':
      return [0, -shocks.side_mPerS2.value, -g];
    case 'up':
      return [0, 0, shocks.up_mPerS2.value];
    case 'down':
      return [0, 0, -Math.max(g, shocks.down_mPerS2.value)];
  }
}

/** What is held as one: filled to its limit, in vehicle axes. */
export type HeldMass = { readonly mass_kg: number; readonly centre_m: Vec3; readonly size_m: number };

/**
 * The mass of the tanks of one shell filled to their limit, with what hangs on them and the tabs that are welded to
 * them, and its centre with the vehicle level.
 *
 * @param densities of the liquid of each tank of the plan [kg/m³]
 */
export function heldMass(
  system: MountPlan,
  shell: readonly TankDocument[],
  densities: readonly number[],
): Outcome<HeldMass, ModelCode | 'not-found'> {
  const masses: { mass_kg: number; at_m: Vec3 }[] = [];
  let size_m = 0;
  for (const [t, document] of system.tanks.entries()) {
    if (!shell.includes(document)) continue;
    const tank = tankModel(system, t);
    if (!tank.ok) return tank;
    const { mesh, gross_m3 } = tank.value;
    const at = placeOf(document.mounting);
    const up = standingUp(tank.value, 0, 0);
    const volume_m3 = gross_m3 * document.fillLimit_ratio.value;
    const level = levelForVolume(mesh, up, volume_m3);
    const centroid = level.ok ? clipBelow(mesh, { normal: up, offset_m: level.value.offset_m }).centroid_m : undefined;
    if (!centroid)
      return failure('not-found', document.name, 'Where its liquid’s weight lies could not be worked out.');
    masses.push(
      ...metalOf(tank.value, sharedWall(system.tanks, document)).map(({ mass_kg, at_m }) => ({
        mass_kg,
        at_m: placed(at, at_m),
      })),
      { mass_kg: volume_m3 * densities[t]!, at_m: placed(at, centroid) },
    );
    const welded = system.mounts.filter(({ kind }) => kind === 'tab' || kind === 'flange');
    const mounts = compileMountBodies({ mounts: welded }, document);
    if (!mounts.ok) return failure('bad-shape', document.name, mounts.error.detail);
    // What is welded to it is thrown with it; what it is bolted to bears it.
    for (const { mount, body, goesWithTank } of mounts.value)
      if (goesWithTank && mount.made)
        for (const { surface } of body.pieces)
          masses.push({
            mass_kg: meshVolume(surface) * MOUNT_STOCKS[mount.made.stock].density_kgPerM3,
            at_m: placed(at, meshCentroid(surface)),
          });
    const { min, max } = meshBounds(mesh);
    size_m = Math.max(size_m, ...max.map((value, k) => value - min[k]!));
  }
  const centre_m = commonCentre_m(masses);
  return centre_m
    ? success({ mass_kg: masses.reduce((sum, { mass_kg }) => sum + mass_kg, 0), centre_m, size_m })
    : failure('not-found', shell[0]?.name ?? 'tanks', 'It weighs nothing.');
}
