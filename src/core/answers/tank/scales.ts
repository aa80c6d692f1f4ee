import { floorUnder_m, standingUp, type TankModel } from '../../model/compileTank';
import type { DipstickDocument, SightTubeDocument } from '../../plan/schema';
import { rayCrossings, meshBounds, type Vec3 } from '../../geometry';
import { type ScaleCode, type SightScale, type StickScale } from '../../gauge';
import { failure, success, type Outcome } from '../../outcome';
import type { Envelope } from '../../tank';
import { sightScaleOf, stickScaleOf } from '../remembered';

/** Marks so far apart that a scale has about so many of them, in numbers that are read easily. */
const WANTED_MARKS = 10;

/** 1, 2 or 5 times a power of ten, in the volume unit of the reader [m³]. */
export function evenStep_m3(holds_m3: number, unit_m3: number): number {
  const raw = holds_m3 / WANTED_MARKS / unit_m3;
  const power = 10 ** Math.floor(Math.log10(raw));
  return [1, 2, 5, 10].map((step) => step * power).find((step) => step >= raw - 1e-12)! * unit_m3;
}

/** Inside ends of a sight tube's bosses, or nothing where they miss the wall. */
export function bossesOf(
  tank: TankModel,
  { face, along_m, lower_m, upper_m }: SightTubeDocument,
): readonly [Vec3, Vec3] | undefined {
  const { min, max } = meshBounds(tank.body.shell);
  const across = face === 'fore' || face === 'aft' ? 0 : 1;
  const from = face === 'fore' || face === 'port' ? max[across] + 1 : min[across] - 1;
  const inward = face === 'fore' || face === 'port' ? -1 : 1;
  const at = (z: number): Vec3 | undefined => {
    const start: Vec3 = across === 0 ? [from, along_m.value, z] : [along_m.value, from, z];
    const way: Vec3 = across === 0 ? [inward, 0, 0] : [0, inward, 0];
    const first = rayCrossings(tank.body.shell, start, way)[0];
    return first === undefined ? undefined : [start[0] + way[0] * first, start[1] + way[1] * first, z];
  };
  const [lower, upper] = [at(lower_m.value), at(upper_m.value)];
  return lower && upper ? [lower, upper] : undefined;
}

export type SightResult = {
  readonly id: string;
  readonly name: string;
  readonly scale: Outcome<SightScale, ScaleCode>;
  /** Unseen below at the worst slope asked for [m³]. */ readonly unseenWorst_m3?: number;
};
export type DipResult = { readonly id: string; readonly name: string; readonly scale: Outcome<StickScale, ScaleCode> };

/** The scale of a sight tube on a tank of so much [m³], and how far a lean within the envelope shifts it. */
export function sightResult(
  { pitch_rad, roll_rad }: Envelope,
  tank: TankModel,
  holds_m3: number,
  sight: SightTubeDocument,
): SightResult {
  const bosses = bossesOf(tank, sight);
  const base = { id: sight.id, name: sight.name };
  if (!bosses)
    return {
      ...base,
      scale: failure('outside-tank', sight.name, `A boss of ${sight.name} misses the ${sight.face} wall.`),
    };
  const scale = (up: Vec3) => sightScaleOf(tank.mesh, bosses[0], bosses[1], up, holds_m3, sight.markEvery_m3.value);
  const worst = pitch_rad
    .flatMap((pitch) => roll_rad.map((roll) => scale(standingUp(tank, pitch, roll))))
    .flatMap((one) => (one.ok ? [one.value.unseenLow_m3] : []));
  return {
    ...base,
    scale: scale(standingUp(tank, 0, 0)),
    ...(worst.length > 0 ? { unseenWorst_m3: Math.max(...worst) } : {}),
  };
}

/** The marks of a dipstick for a tank of so much [m³]; why there are none where it finds no floor. */
export function dipResult(tank: TankModel, holds_m3: number, stick: DipstickDocument): DipResult {
  const port = tank.ports.find(({ document }) => document.id === stick.port);
  const base = { id: stick.id, name: stick.name };
  if (!port || port.document.face !== 'lid' || floorUnder_m(tank.body.shell, port.point_m) === undefined)
    return {
      ...base,
      scale: failure('no-floor', stick.name, `${stick.name} wants a port in the lid with floor under it.`),
    };
  const scale = stickScaleOf(tank.mesh, port.point_m, standingUp(tank, 0, 0), holds_m3, stick.markEvery_m3.value);
  return { ...base, scale: scale.ok ? success(scale.value) : scale };
}
