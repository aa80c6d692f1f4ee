import type { Vec3 } from '../geometry';
import { unusable_m3, type Inlet, type LiquidSpace } from './pickup';

/** What every pickup leaves behind over a grid of two tilts. Rows follow `ys`, columns `xs`. */
export type AttitudeMap = {
  readonly xs: readonly number[];
  readonly ys: readonly number[];
  /** One grid a pickup, row by row [m³]; NaN where the liquid has no surface. */
  readonly left_m3: readonly Float64Array[];
};

/** Values from -limit to +limit in equal steps, zero among them. */
export const symmetricSteps = (limit: number, steps: number): number[] =>
  Array.from({ length: steps }, (_, i) => (i * 2 === steps - 1 ? 0 : -limit + (2 * limit * i) / (steps - 1)));

/**
 * Unusable volume of each pickup over a grid of attitudes.
 * @param upAt unit vector against effective gravity, tank frame; undefined in free fall
 */
export function attitudeMap(
  space: LiquidSpace,
  inlets: readonly Inlet[],
  xs: readonly number[],
  ys: readonly number[],
  upAt: (x: number, y: number) => Vec3 | undefined,
): AttitudeMap {
  const left_m3 = inlets.map(() => new Float64Array(xs.length * ys.length));
  ys.forEach((y, row) => {
    xs.forEach((x, column) => {
      const up = upAt(x, y);
      inlets.forEach((inlet, p) => {
        left_m3[p]![row * xs.length + column] = up ? unusable_m3(space, inlet, up) : Number.NaN;
      });
    });
  });
  return { xs, ys, left_m3 };
}
