import { chosen } from '../schema/known';
import { plainName } from '../formats';
import { failure, success, type Outcome } from '../outcome';
import { shapeKind, type AXES } from '../shapes';
import { add, meshBounds, type Bounds, type Vec3 } from '../geometry';
import { reachedAlong } from '../reached';
import { freshId } from './edit';
import { ACROSS_FACE } from './references';
import type { PartDocument, PortDocument, SystemDocument, TankDocument } from './schema';

type Axis = (typeof AXES)[number];
const INDEX = { x: 0, y: 1, z: 2 } as const;
/** What is taken away reaches so far past the tank [m]. */
const PAST_M = 0.05;
/** A half that is thinner than this holds next to nothing [m]. */
const LEAST_HALF_M = 0.02;
const NEXT_TO: Readonly<Record<Axis, readonly [PortDocument['face'], PortDocument['face']]>> = {
  x: ['aft', 'fore'],
  y: ['starboard', 'port'],
  z: ['floor', 'lid'],
};

export type Divider = { readonly axis: Axis; /** Its near side, in the tank's frame. */ readonly at_m: number };

/** Half way along a tank, to the millimetre [m]. */
export function middleOf({ shape }: Pick<TankDocument, 'shape'>, axis: Axis): number {
  const mesh = shapeKind(shape).mesh(shape);
  if (!mesh.ok) return 0;
  const { min, max } = meshBounds(mesh.value);
  return Math.round(500 * (min[INDEX[axis]]! + max[INDEX[axis]]!)) / 1000;
}

/** How far a tank's first shape and all that is added to it reach, in the tank's frame. */
function boundsOf({ shape, parts }: TankDocument): Outcome<Bounds> {
  const none = chosen(0);
  let reach: Bounds | undefined;
  for (const body of [
    { shape, x_m: none, y_m: none, z_m: none },
    ...parts.filter(({ operation }) => operation === 'add'),
  ]) {
    const mesh = shapeKind(body.shape).mesh(body.shape);
    if (!mesh.ok) return mesh;
    const { min, max } = meshBounds(mesh.value);
    const at: Vec3 = [body.x_m.value, body.y_m.value, body.z_m.value];
    const [low, high] = [add(at, min), add(at, max)];
    const each = (of: typeof Math.min, a: Vec3, b: Vec3): Vec3 => [of(a[0], b[0]), of(a[1], b[1]), of(a[2], b[2])];
    reach = reach
      ? { min: each(Math.min, reach.min, low), max: each(Math.max, reach.max, high) }
      : { min: low, max: high };
  }
  return success(reach!);
}

/**
 * One tank made two by a sealed wall across it: the near part keeps the tank's id, the far part is a new one that
 * shares the wall. Ports go with the part that they sit on, and what hangs in them with them; baffles along the
 * divider with theirs, others into both. Logs and sizes as built were of the whole, and go.
 *
 * @returns why not, where the wall would miss the tank or bands were taken out of it
 */
export function withSealedDivider(
  system: SystemDocument,
  t: number,
  { axis, at_m }: Divider,
): Outcome<SystemDocument, 'no-divider'> {
  const whole = system.tanks[t]!;
  const bounds = boundsOf(whole);
  const no = (detail: string) => failure('no-divider', whole.name, detail);
  if (!bounds.ok) return no(bounds.error.detail);
  if (whole.sharesWallWith !== undefined || system.tanks.some(({ sharesWallWith }) => sharesWallWith === whole.id))
    return no('It is a part of a shell of two already: a third part is a tank by itself.');
  if (whole.slices.length > 0) return no('Bands were taken out of it: say its sizes as they are first.');
  const { min, max } = bounds.value;
  const [low, high] = [min[INDEX[axis]]!, max[INDEX[axis]]!];
  const wall_m = whole.material.thickness_m.value;
  // Between its sizes inside, or outside, as the tank's own.
  const [end, begin] = whole.dimensions === 'inside' ? [at_m, at_m + wall_m] : [at_m + wall_m, at_m];
  if (!(end - low >= LEAST_HALF_M && high - begin >= LEAST_HALF_M))
    return no(`It must leave ${1000 * LEAST_HALF_M} mm or more on either side.`);
  const given = new Set<string>();
  /** Of this edit no two are alike either. */
  const fresh = (base: string): string => {
    let id = freshId(system, base);
    for (let n = 2; given.has(id); n++) id = freshId(system, `${base}-${n}`);
    given.add(id);
    return id;
  };
  const id = fresh(`${whole.id}-2`);
  const cut = (of: string, from_m: number, to_m: number): PartDocument => {
    const reach = (k: 0 | 1 | 2): readonly [number, number] =>
      k === INDEX[axis] ? [from_m, to_m] : [min[k] - PAST_M, max[k] + PAST_M];
    const [x, y, z] = [reach(0), reach(1), reach(2)];
    const size = ([from, to]: readonly [number, number]) => chosen(to - from);
    return {
      id: fresh(`${of}-beyond`),
      name: 'Beyond the divider',
      operation: 'take',
      shape: { kind: 'box', length_m: size(x), width_m: size(y), height_m: size(z) },
      x_m: chosen(x[0]),
      y_m: chosen(y[0]),
      z_m: chosen(z[0]),
    };
  };
  const across = `${axis}_m` as const;
  const isFar = (port: PortDocument): boolean => {
    const carrier = whole.ports.find(({ id: other }) => other === port.on) ?? port;
    return ACROSS_FACE[carrier.face] === across
      ? carrier.face === NEXT_TO[axis][1]
      : (carrier[across]?.value ?? low) > at_m + wall_m / 2;
  };
  const part = (far: boolean): Partial<TankDocument> => {
    const ports = whole.ports.filter((port) => isFar(port) === far);
    const on = new Set(ports.map((port) => port.id));
    const hangs = <T extends { readonly port: string }>(all: readonly T[]): T[] =>
      all.filter(({ port }) => on.has(port));
    return {
      ports,
      pickups: hangs(whole.pickups),
      senders: hangs(whole.senders),
      dipsticks: hangs(whole.dipsticks),
      plates: whole.plates
        .filter((plate) => plate.axis !== axis || plate.at_m.value > at_m === far)
        // What runs across both is two plates.
        .map((plate) => (far && plate.axis !== axis ? { ...plate, id: fresh(`${plate.id}-2`) } : plate)),
      sightTubes: far ? [] : whole.sightTubes,
      calibrations: [],
      built: [],
    };
  };
  const near: TankDocument = { ...whole, ...part(false), parts: [...whole.parts, cut(whole.id, end, high + PAST_M)] };
  const far: TankDocument = {
    ...whole,
    ...part(true),
    id,
    name: plainName(`${whole.name} 2`, 80),
    sharesWallWith: whole.id,
    parts: [...whole.parts.map((each) => ({ ...each, id: fresh(`${each.id}-2`) })), cut(id, low - PAST_M, begin)],
    ...(whole.inside ? { inside: [] } : {}),
  };
  const fill = system.conditions.fills.find(({ tank }) => tank === whole.id)?.fill_ratio ?? 0.5;
  return success({
    ...system,
    tanks: [...system.tanks.map((tank, k) => (k === t ? near : tank)), far],
    conditions: { ...system.conditions, fills: [...system.conditions.fills, { tank: id, fill_ratio: fill }] },
  });
}

type Sharing = Pick<TankDocument, 'id' | 'sharesWallWith'>;

/** The tanks by shells: those of one together, the one that the others share a wall with first. */
export const shellsIn = <T extends Sharing>(tanks: readonly T[]): T[][] =>
  tanks
    .filter(({ sharesWallWith }) => sharesWallWith === undefined)
    .map(({ id }) => {
      const ids = reachedAlong(
        [id],
        tanks.flatMap((tank): [string, string][] => (tank.sharesWallWith ? [[tank.sharesWallWith, tank.id]] : [])),
      );
      return tanks.filter((tank) => ids.has(tank.id));
    });

/** Whether two tanks are one shell with a sealed wall between them. */
export const shareWall = (a: Sharing, b: Sharing): boolean => a.sharesWallWith === b.id || b.sharesWallWith === a.id;
