import { clipBelow, offsetRange, volumeBelow } from './clip';
import { meshVolume, type ClosedMesh } from './mesh';
import { failure, success, type Outcome } from '../outcome';
import type { Vec3 } from './vec';

export type LevelCode = 'more-than-full' | 'less-than-empty' | 'not-converged';

export type Level = { readonly offset_m: number; readonly iterations: number; readonly residual_m3: number };

/** Of the gross volume: a thousand times above rounding, far below any drop. */
const VOLUME_REL = 1e-12;
const MAX_ITERATIONS = 80;

/**
 * Height of the liquid surface for a volume: the offset of the plane with the
 * given normal that has exactly this volume below it.
 *
 * Newton's method, whose slope is the free-surface area, kept inside a bracket
 * that halves whenever a step would leave it, so it cannot fail to shrink.
 *
 * @param mesh      closed mesh [m]
 * @param up        unit vector against effective gravity, tank frame
 * @param volume_m3 0 … gross volume
 */
export function levelForVolume(mesh: ClosedMesh, up: Vec3, volume_m3: number): Outcome<Level, LevelCode> {
  const full = meshVolume(mesh);
  const tolerance = VOLUME_REL * full;
  if (!(volume_m3 >= -tolerance)) return failure('less-than-empty', 'volume', 'A tank cannot hold less than nothing.');
  if (volume_m3 > full + tolerance) return failure('more-than-full', 'volume', 'That is more than the tank holds to the brim.');
  let [low, high] = offsetRange(mesh, up);
  if (volume_m3 <= tolerance) return success({ offset_m: low, iterations: 0, residual_m3: volume_m3 });
  if (volume_m3 >= full - tolerance) return success({ offset_m: high, iterations: 0, residual_m3: volume_m3 - full });
  let offset = low + (high - low) * (volume_m3 / full);
  for (let iterations = 1; iterations <= MAX_ITERATIONS; iterations++) {
    const body = clipBelow(mesh, { normal: up, offset_m: offset });
    const residual_m3 = body.volume_m3 - volume_m3;
    if (Math.abs(residual_m3) <= tolerance || high - low <= Number.EPSILON * (Math.abs(low) + Math.abs(high))) {
      return success({ offset_m: offset, iterations, residual_m3 });
    }
    if (residual_m3 > 0) high = offset;
    else low = offset;
    const newton = offset - residual_m3 / body.surface_m2;
    offset = newton > low && newton < high ? newton : (low + high) / 2;
  }
  const residual_m3 = volumeBelow(mesh, { normal: up, offset_m: offset }) - volume_m3;
  return failure('not-converged', 'volume', `The level did not settle in ${MAX_ITERATIONS} steps; ${residual_m3} m³ remain.`);
}
