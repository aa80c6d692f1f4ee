import {
  dot,
  levelForVolume,
  offsetRange,
  rayCrossings,
  scale,
  volumeBelow,
  type ClosedMesh,
  type Vec3,
} from '../geometry';
import { failure, success, unwrap, type Outcome } from '../outcome';

/** A mark beside a height: along a stick from its foot, or up a sight tube from its lower boss [m]. */
export type Mark = { readonly at_m: number; readonly volume_m3: number };

export type SightScale = {
  readonly marks: readonly Mark[];
  /** Under the lower boss, and over the upper one, none of which is ever seen [m³]. */
  readonly unseenLow_m3: number;
  readonly unseenHigh_m3: number;
};

export type ScaleCode = 'bosses-crossed' | 'outside-tank' | 'no-floor';

/**
 * Volume against the height in a clear tube between two bosses.
 *
 * @param lower_m  inside end of the lower boss, tank frame
 * @param upper_m  of the upper boss
 * @param every_m3 volume from mark to mark
 */
export function sightScale(
  mesh: ClosedMesh,
  lower_m: Vec3,
  upper_m: Vec3,
  up: Vec3,
  holds_m3: number,
  every_m3: number,
): Outcome<SightScale, ScaleCode> {
  const [low, high] = [dot(up, lower_m), dot(up, upper_m)];
  if (!(high > low))
    return failure('bosses-crossed', 'sight tube', 'The upper boss must lie above the lower one as the tank stands.');
  const [bottom, top] = offsetRange(mesh, up);
  if (low < bottom || high > top)
    return failure('outside-tank', 'sight tube', 'Both bosses must lie between floor and lid.');
  const below = volumeBelow(mesh, { normal: up, offset_m: low });
  const above = volumeBelow(mesh, { normal: up, offset_m: high });
  const marks = multiplesBetween(below, Math.min(above, holds_m3), every_m3).map((volume_m3): Mark => ({
    volume_m3,
    at_m: unwrap(levelForVolume(mesh, up, volume_m3)).offset_m - low,
  }));
  return success({ marks, unseenLow_m3: Math.min(below, holds_m3), unseenHigh_m3: Math.max(0, holds_m3 - above) });
}

export type StickScale = {
  readonly marks: readonly Mark[];
  /** From its foot on the floor to the outside of its port [m]. */
  readonly length_m: number;
  /** Below its foot, never wetted [m³]. */
  readonly unseenLow_m3: number;
};

/**
 * Volume against the wetted length of a stick that stands on the floor under
 * a port, along the tank's own upright.
 *
 * @param port_m where it goes through the sheet, tank frame
 */
export function stickScale(
  mesh: ClosedMesh,
  port_m: Vec3,
  up: Vec3,
  holds_m3: number,
  every_m3: number,
): Outcome<StickScale, ScaleCode> {
  const down: Vec3 = [0, 0, -1];
  const under = rayCrossings(mesh, port_m, down).filter((distance) => distance > TOUCH_M);
  const length_m = under[0];
  if (length_m === undefined || up[2] <= 0)
    return failure('no-floor', 'dipstick', 'There is no floor under the port for the stick to stand on.');
  const foot: Vec3 = [port_m[0], port_m[1], port_m[2] - length_m];
  const low = dot(up, foot);
  // Along the stick the surface lies where up . (foot + t z) = offset.
  const along = (offset_m: number): number => (offset_m - low) / up[2];
  const brim = volumeBelow(mesh, { normal: up, offset_m: dot(up, add(foot, scale([0, 0, 1], length_m))) });
  const below = volumeBelow(mesh, { normal: up, offset_m: low });
  const marks = multiplesBetween(below, Math.min(brim, holds_m3), every_m3).map((volume_m3): Mark => ({
    volume_m3,
    at_m: along(unwrap(levelForVolume(mesh, up, volume_m3)).offset_m),
  }));
  return success({ marks, length_m, unseenLow_m3: below });
}
/** A ray that starts on the sheet meets it at once [m]. */
const TOUCH_M = 1e-6;
const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** More marks than anyone reads. */
const MOST_MARKS = 400;

function multiplesBetween(from: number, to: number, every: number): number[] {
  const first = Math.floor(from / every) + 1;
  const count = Math.min(MOST_MARKS, Math.max(0, Math.floor(to / every + 1e-9) - first + 1));
  return Array.from({ length: count }, (_, i) => (first + i) * every);
}
