import { offsetRange, volumeBelow } from './clip';
import { meshVolume, type ClosedMesh } from './mesh';
import { failure, success, type Outcome } from '../outcome';
import type { Vec3 } from './vec';

export type LevelCode = 'more-than-full' | 'less-than-empty' | 'not-converged';

export type Level = { readonly offset_m: number; readonly iterations: number; readonly residual_m3: number };

/** Of the gross volume: a thousand times above rounding, far below any drop. */
const VOLUME_REL = 1e-12;
const MAX_ITERATIONS = 100;

/**
 * Height of the liquid surface for a volume: the offset of the plane with the
 * given normal that has exactly this volume below it.
 *
 * The volume rises with the level between lowest and highest point, so the
 * root is bracketed from the start and stays so.
 *
 * @param mesh      closed mesh [m]
 * @param up        unit vector against effective gravity, tank frame
 * @param volume_m3 0 … gross volume
 * @source T. R. Chandrupatla, Adv. Eng. Softw. 28 (1997) 145: inverse
 * quadratic steps where they are safe, halving where they are not
 */
export function levelForVolume(mesh: ClosedMesh, up: Vec3, volume_m3: number): Outcome<Level, LevelCode> {
  const full = meshVolume(mesh);
  const tolerance = VOLUME_REL * full;
  if (!(volume_m3 >= -tolerance)) return failure('less-than-empty', 'volume', 'A tank cannot hold less than nothing.');
  if (volume_m3 > full + tolerance)
    return failure('more-than-full', 'volume', 'That is more than the tank holds to the brim.');
  const [low, high] = offsetRange(mesh, up);
  if (volume_m3 <= tolerance) return success({ offset_m: low, iterations: 0, residual_m3: volume_m3 });
  if (volume_m3 >= full - tolerance) return success({ offset_m: high, iterations: 0, residual_m3: volume_m3 - full });
  const excess = (offset_m: number): number => volumeBelow(mesh, { normal: up, offset_m }) - volume_m3;
  return bracketedLevel(excess, [low, -volume_m3], [high, full - volume_m3], tolerance, volume_m3 / full);
}

type Sample = readonly [offset_m: number, excess_m3: number];

function bracketedLevel(
  excess: (offset_m: number) => number,
  low: Sample,
  high: Sample,
  tolerance: number,
  firstShare: number,
): Outcome<Level, LevelCode> {
  let [b, a]: [Sample, Sample] = [low, high];
  let share = 1 - firstShare; // from a towards b: where a straight wall would put it
  for (let iterations = 1; iterations <= MAX_ITERATIONS; iterations++) {
    const offset = a[0] + share * (b[0] - a[0]);
    const next: Sample = [offset, excess(offset)];
    const c: Sample = Math.sign(next[1]) === Math.sign(a[1]) ? a : b;
    if (c === b) b = a;
    a = next;
    if (
      Math.abs(a[1]) <= tolerance ||
      Math.abs(b[0] - a[0]) <= 2 * Number.EPSILON * (Math.abs(a[0]) + Math.abs(b[0]))
    ) {
      return success({ offset_m: a[0], iterations, residual_m3: a[1] });
    }
    share = nextShare(a, b, c);
  }
  return failure('not-converged', 'volume', `The level did not settle in ${MAX_ITERATIONS} steps; ${a[1]} m³ remain.`);
}

/** Inverse quadratic step where Chandrupatla's test calls it safe; else the middle. */
function nextShare(a: Sample, b: Sample, c: Sample): number {
  const xi = (a[0] - b[0]) / (c[0] - b[0]);
  const phi = (a[1] - b[1]) / (c[1] - b[1]);
  if (!(phi * phi < xi && (1 - phi) * (1 - phi) < 1 - xi)) return 0.5;
  const quadratic =
    (a[1] / (b[1] - a[1])) * (c[1] / (b[1] - c[1])) +
    ((c[0] - a[0]) / (b[0] - a[0])) * (a[1] / (c[1] - a[1])) * (b[1] / (c[1] - b[1]));
  return Math.min(1 - 1e-9, Math.max(1e-9, quadratic));
}
