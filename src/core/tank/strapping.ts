import { failure, success, type Outcome } from '../outcome';
import { offsetRange, volumeBelow, type ClosedMesh, type Vec3 } from '../geometry';

export type StrappingRow = { readonly depth_m: number; readonly volume_m3: number };

/** A table longer than this is a slip of the step. */
const MOST_ROWS = 5000;

/**
 * The strapping table at a chosen step of depth, from empty to the brim; the
 * brim has the last row, whether it falls on a step or not.
 *
 * @param step_m > 0
 */
export function tableByStep(mesh: ClosedMesh, up: Vec3, step_m: number): Outcome<StrappingRow[], 'bad-step'> {
  const [low, high] = offsetRange(mesh, up);
  const whole = Math.floor((high - low) / step_m + 1e-9);
  if (!(step_m > 0) || whole > MOST_ROWS)
    return failure('bad-step', 'step', `The step must be above zero and leave no more than ${MOST_ROWS} rows.`);
  const depths = Array.from({ length: whole + 1 }, (_, i) => i * step_m);
  if (high - low - depths.at(-1)! > 1e-9 * (high - low)) depths.push(high - low);
  return success(
    depths.map((depth_m) => ({ depth_m, volume_m3: volumeBelow(mesh, { normal: up, offset_m: low + depth_m }) })),
  );
}

/**
 * Volume against depth of liquid, measured along effective gravity from the
 * lowest point: the strapping table.
 *
 * @param up    unit vector against effective gravity, tank frame
 * @param steps number of equal steps, >= 1
 */
export function strappingTable(mesh: ClosedMesh, up: Vec3, steps: number): StrappingRow[] {
  const [low, high] = offsetRange(mesh, up);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const depth_m = ((high - low) * i) / steps;
    return { depth_m, volume_m3: volumeBelow(mesh, { normal: up, offset_m: low + depth_m }) };
  });
}
