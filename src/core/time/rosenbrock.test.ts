import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { Stepper, within, type Dynamics } from './rosenbrock';

const dynamics = (
  size: number,
  rates: Dynamics['rates'],
  { tolerance = 1e-8, acting = Array.from({ length: size }, (_, n) => n), isTimed = false } = {},
): Dynamics => ({
  size,
  acting,
  rates,
  isTimed,
  tolerance: new Float64Array(size).fill(tolerance),
  nudge: new Float64Array(size).fill(1e-6),
});

function run(of: Dynamics, y: number[], until_s: number, first_s = 1e-3): { y: Float64Array; steps: number } {
  const stepper = new Stepper(of, 0, Float64Array.from(y), first_s);
  let steps = 0;
  for (; stepper.t_s < until_s && steps < 100000; steps++)
    if (!stepper.step(until_s, 1e-14)) throw new Error('no step');
  return { y: stepper.y, steps };
}

/** Steps of one length, whatever their error. */
function fixed(of: Dynamics, y: number[], until_s: number, steps: number): Float64Array {
  const loose: Dynamics = { ...of, tolerance: new Float64Array(of.size).fill(1e9) };
  const stepper = new Stepper(loose, 0, Float64Array.from(y), 0);
  for (let s = 1; s <= steps; s++) {
    stepper.next_s = until_s;
    stepper.step((until_s * s) / steps, 1e-14);
  }
  return stepper.y;
}

describe('order, measured by halving the step', () => {
  const order = (of: Dynamics, y: number[], exact: number): number => {
    const miss = (steps: number): number => Math.abs(fixed(of, y, 1, steps)[0]! - exact);
    return Math.log2(miss(8) / miss(16));
  };
  it('y′ = −y², which ends at 1/2', () => {
    expect(
      order(
        dynamics(1, (_, y, out) => void (out[0] = -y[0]! * y[0]!)),
        [1],
        0.5,
      ),
    ).toBeGreaterThan(3.7);
  });
  it('two that drive each other, of an angle that grows: x² + y² stays', () => {
    // x = cos(s), y = sin(s) with s = t + t²: rates of time too.
    const of = dynamics(
      2,
      (t, y, out) => {
        out[0] = -y[1]! * (1 + 2 * t);
        out[1] = y[0]! * (1 + 2 * t);
      },
      { isTimed: true },
    );
    expect(order(of, [1, 0], Math.cos(2))).toBeGreaterThan(3.7);
  });
  it('a stiff one that follows a slow one, to where it is led', () => {
    const of = dynamics(
      2,
      (_, y, out) => {
        out[0] = -2e5 * (y[0]! - y[1]! * y[1]!);
        out[1] = -y[1]!;
      },
      { tolerance: 1e-7 },
    );
    const { y, steps } = run(of, [0, 1], 3);
    // Behind what it follows by the slope of that over its own quickness.
    expectClose(y[0]!, Math.exp(-6) * (1 + 2 / 2e5), { abs: 1e-7, why: 'tolerance' });
    expect(steps).toBeLessThan(200);
  });
});

describe('known courses', () => {
  it('Torricelli’s tank: the root of the depth falls evenly', () => {
    const { y } = run(
      dynamics(1, (_, y, out) => void (out[0] = -0.02 * Math.sqrt(Math.max(0, y[0]!)))),
      [1],
      60,
    );
    expectClose(y[0]!, (1 - 0.01 * 60) ** 2, { abs: 1e-7, why: 'tolerance over some steps' });
  });
  it('Robertson’s chemistry at 40 s', () => {
    // Reference: Hairer and Wanner, problem ROBER; values at 40 s as widely published, from memory.
    const of: Dynamics = {
      ...dynamics(3, (_, y, out) => {
        const [a, b, c] = [0.04 * y[0]!, 1e4 * y[1]! * y[2]!, 3e7 * y[1]! * y[1]!];
        out[0] = -a + b;
        out[1] = a - b - c;
        out[2] = c;
      }),
      tolerance: Float64Array.of(1e-8, 1e-12, 1e-8),
      nudge: Float64Array.of(1e-6, 1e-10, 1e-6),
    };
    const { y } = run(of, [1, 0, 0], 40, 1e-6);
    expectClose(y[0]!, 0.7158270688, { abs: 1e-6, why: 'tolerance' });
    expectClose(y[1]!, 9.185534765e-6, { rel: 1e-5, why: 'tolerance' });
    expectClose(y[0]! + y[1]! + y[2]!, 1, { abs: 1e-13, why: 'sums stay' });
  });
});

it('what only gives sums is summed as closely, and what leaves one comes to the other', () => {
  const of = dynamics(
    3,
    (_, y, out) => {
      out[0] = -0.3 * y[0]! ** 1.5;
      out[1] = 0.2 * y[0]! ** 1.5;
      out[2] = 0.1 * y[0]! ** 1.5;
    },
    { acting: [0] },
  );
  const { y } = run(of, [2, 0, 0], 5);
  expectClose(y[0]!, (2 ** -0.5 + 0.15 * 5) ** -2, { abs: 1e-7, why: 'closed form' });
  expectClose(y[1]!, 2 * y[2]!, { rel: 1e-13, why: 'shares' });
  expectClose(y[0]! + y[1]! + y[2]!, 2, { abs: 1e-13, why: 'nothing is lost' });
});

it('a step taken anew, shorter, is as a step of that length', () => {
  const of = dynamics(1, (_, y, out) => void (out[0] = -y[0]! * y[0]!), { tolerance: 1e-3 });
  const long = new Stepper(of, 0, Float64Array.of(1), 0.5);
  const step = long.step(0.5, 1e-12)!;
  long.redo(step, 0.2, 1e-8);
  const short = new Stepper(of, 0, Float64Array.of(1), 0.2);
  short.step(0.2, 1e-12);
  expect(long.t_s).toBe(0.2);
  expect([...long.y]).toEqual([...short.y]);
  expectClose(within(step, 0.2)[0]!, 1 / 1.2, { abs: 2e-3, why: 'a cubic over half a second' });
});
