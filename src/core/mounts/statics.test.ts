import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { add, cross, dot, norm, scale, turnAbout, turned, type Vec3 } from '../geometry';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { acrossOf, reactionOf, standOf, wrenchOf, type Held, type Stand, type Support, type Wrench } from './statics';

type Quadratic = {
  readonly solveQP: (
    d: number[][],
    linear: number[],
    constraints: number[][],
    right: number[],
    equalities: number,
  ) => { readonly solution: number[]; readonly message: string };
};
type Linear = {
  readonly Solve: (
    model: unknown,
  ) => { readonly feasible: boolean; readonly result?: number } & Record<string, unknown>;
};
const require = createRequire(import.meta.url);
const { solveQP } = require('quadprog') as Quadratic;
const linear = require('javascript-lp-solver') as Linear;

const foot = (at_m: Vec3, more: Partial<Support> = {}): Support => ({
  acts: 'push',
  legs: [{ at_m, way: [0, 0, 1] }],
  stiffness_NPerM: 1e6,
  preload_N: 0,
  friction_ratio: 0,
  ...more,
});
const at = (force_N: Vec3, point: Vec3): Wrench => ({ force_N, moment_Nm: cross(point, force_N) });
const held = (stand: Stand): Held => {
  if (!stand.held) throw new Error(`loose: ${JSON.stringify(stand.how)}`);
  return stand.by;
};
const stood = (supports: readonly Support[], load: Wrench): Held => held(unwrap(standOf(supports, load, 0.5)));

describe('a body on supports, in closed form', () => {
  it('a weight between two props is shared by the lever', () => {
    const { forces_N } = stood(
      [foot([0, 0, 0]), foot([1, 0.3, 0]), foot([1, -0.3, 0])],
      at([0, 0, -900], [0.25, 0, 0.4]),
    );
    expectClose(forces_N[0]!, 675, { rel: 1e-4, why: '900 N at a quarter of the way' });
    expectClose(forces_N[1]! + forces_N[2]!, 225, { rel: 1e-4, why: 'the rest' });
  });

  it('four equal feet share as a rigid body on springs does: weight over four, and moment over arms squared', () => {
    const feet = [-1, 1].flatMap((x) => [-0.5, 0.5].map((y) => foot([x, y, 0])));
    const { forces_N } = stood(feet, at([0, 0, -400], [0.2, 0.1, 1]));
    // N = W/4 (1 + x·ex/mean(x²) + y·ey/mean(y²))
    for (const [i, [x, y]] of [
      [-1, -0.5],
      [-1, 0.5],
      [1, -0.5],
      [1, 0.5],
    ].entries() as Iterable<[number, [number, number]]>)
      expectClose(forces_N[i]!, 100 * (1 + x * 0.2 + (y * 0.1) / 0.25), {
        rel: 1e-4,
        why: 'springs under a rigid plate',
      });
  });

  it('a block on rough ground is held up to its friction, and slides beyond', () => {
    const feet = [-0.3, 0.3].flatMap((x) => [-0.3, 0.3].map((y) => foot([x, y, 0], { friction_ratio: 0.4 })));
    const pushed = (share: number) => unwrap(standOf(feet, at([share * 1000, 0, -1000], [0, 0, 0.1]), 0.5));
    expect(pushed(0.39).held).toBe(true);
    const slid = pushed(0.41);
    expect(slid.held).toBe(false);
    if (!slid.held) expect(slid.how.goes.shift_m[0]).toBeCloseTo(1, 2);
  });

  it('a tall block on feet tips at half its base over its height', () => {
    const feet = [-0.2, 0.2].flatMap((x) => [-0.2, 0.2].map((y) => foot([x, y, 0], { friction_ratio: 2 })));
    const pushed = (share: number) => unwrap(standOf(feet, at([share * 1000, 0, -1000], [0, 0, 0.8]), 0.5));
    expect(pushed(0.249).held).toBe(true);
    const tipped = pushed(0.251);
    expect(tipped.held).toBe(false);
    if (!tipped.held) expect(Math.abs(tipped.how.goes.turn_rad[1])).toBeGreaterThan(0.5);
  });

  it('what is pulled down with 2T bears 2T more and may be lifted by it, the strap taking as its stiffness has it', () => {
    const legs = [-0.3, 0.3].map((y) => ({ at_m: [0, y, 0.4] as Vec3, way: [0, 0, -1] as Vec3 }));
    const strap: Support = { acts: 'pull', legs, stiffness_NPerM: 1e5, preload_N: 500, friction_ratio: 0 };
    // Sideways it is held by a guide, so that only up and down is asked.
    const guides: Support[] = [
      { ...foot([0, 0, 0]), acts: 'both', legs: [{ at_m: [0, 0, 0], way: [1, 0, 0] }] },
      { ...foot([0, 0, 0]), acts: 'both', legs: [{ at_m: [0, 0, 0], way: [0, 1, 0] }] },
      { ...foot([0, 0, 0]), acts: 'both', legs: [{ at_m: [0.5, 0, 0], way: [0, 1, 0] }] },
    ];
    const feet = [-0.3, 0.3].flatMap((x) => [-0.3, 0.3].map((y) => foot([x, y, 0])));
    const up = (lift_N: number) => stood([strap, ...feet, ...guides], at([0, 0, lift_N], [0, 0, 0.2])).forces_N;
    // Let go: feet 4k d + 4 kₛ d (strap with two legs: w = 2, so k w²) = 2T.
    const d = 1000 / (4e6 + 4e5);
    expectClose(up(0)[1]!, 1e6 * d, { rel: 1e-4, why: 'pressed by the strap alone' });
    expectClose(up(0)[0]!, 500 - 1e5 * 2 * d, { rel: 1e-4, why: 'and it has given so much' });
    // Lifted off: all of it is the strap's.
    expectClose(up(3000)[0]!, 1500, { rel: 1e-3, why: 'half of the lift in each leg' });
    expect(up(3000)[1]).toBe(0);
  });

  it('refuses what is no support, and nothing holds a body that has none', () => {
    expect(standOf([foot([0, 0, 0], { stiffness_NPerM: 0 })], at([0, 0, -1], [0, 0, 0]), 1)).toMatchObject({
      ok: false,
    });
    expect(standOf([foot([0, NaN, 0])], at([0, 0, -1], [0, 0, 0]), 1)).toMatchObject({ ok: false });
    const loose = unwrap(standOf([], at([0, 0, -10], [0, 0, 0]), 1));
    expect(loose).toMatchObject({ held: false, how: { goes: { shift_m: [0, 0, -1] } } });
    expect(unwrap(standOf([], at([0, 0, 0], [0, 0, 0]), 1)).held).toBe(true);
  });
});

/** A layout of chance: rests, ties, struts and straps about a body, some of them not enough to hold it. */
function layoutOf(seed: number): { readonly supports: Support[]; readonly load: Wrench } {
  const { uniform, normal } = seeded(seed);
  const place = (): Vec3 =>
    [2 * uniform() - 1, 2 * uniform() - 1, 2 * uniform() - 1].map((v) => 0.5 * v) as unknown as Vec3;
  const unit = (): Vec3 => {
    const way: Vec3 = [normal(), normal(), normal()];
    return scale(way, 1 / norm(way));
  };
  const supports = Array.from({ length: 4 + Math.floor(9 * uniform()) }, (): Support => {
    const kind = uniform();
    return {
      acts: kind < 0.5 ? 'push' : kind < 0.75 ? 'pull' : 'both',
      legs:
        kind >= 0.5 && kind < 0.75
          ? [1, 2].map(() => ({ at_m: place(), way: unit() }))
          : [{ at_m: place(), way: unit() }],
      stiffness_NPerM: 10 ** (5 + 2 * uniform()),
      preload_N: kind >= 0.5 && kind < 0.75 ? 300 * uniform() : 0,
      friction_ratio: 0,
    };
  });
  return { supports, load: at(scale(unit(), 1000), place()) };
}

const rowsOf = (supports: readonly Support[]): number[][] =>
  supports.map(({ legs }) => {
    const { force_N: f, moment_Nm: m } = wrenchOf(legs);
    return [...f, ...m];
  });

/**
 * The least sum of forces that push or pull as they may and bear a load [N]: linear programming; infinite where none
 * can.
 */
function leastForces_N(rows: readonly (readonly number[])[], bilateral: readonly boolean[], load: Wrench): number {
  const right = [...load.force_N, ...load.moment_Nm].map((value) => -value);
  const variables: Record<string, Record<string, number>> = {};
  for (const [i, row] of rows.entries())
    for (const sign of bilateral[i] ? [1, -1] : [1])
      variables[`s${i}${sign}`] = { cost: 1, ...Object.fromEntries(row.map((value, k) => [`e${k}`, sign * value])) };
  const { feasible, result } = linear.Solve({
    optimize: 'cost',
    opType: 'min',
    constraints: Object.fromEntries(right.map((value, k) => [`e${k}`, { equal: value }])),
    variables,
  });
  return feasible ? result! : Infinity;
}

describe('against general solvers', () => {
  it('what is held without friction is what linear programming can bear, on layouts of chance', () => {
    let [heldOnes, looseOnes] = [0, 0];
    for (let seed = 1; seed <= 150; seed++) {
      const { supports, load } = layoutOf(seed);
      const stand = unwrap(standOf(supports, load, 0.5));
      const least_N = leastForces_N(
        rowsOf(supports),
        supports.map(({ acts }) => acts === 'both'),
        load,
      );
      // Jammed with levers of twenty to one it gives way by its own size before it holds.
      if (least_N > 2e4 && least_N < Infinity) continue;
      expect(stand.held, `seed ${seed}`).toBe(least_N < Infinity);
      if (stand.held) heldOnes++;
      else looseOnes++;
    }
    expect(heldOnes).toBeGreaterThan(30);
    expect(looseOnes).toBeGreaterThan(30);
  });

  it('shares are those of least complementary energy (quadratic programming over forces, not movements)', () => {
    let seen = 0;
    for (let seed = 1; seed <= 150; seed++) {
      const { supports, load } = layoutOf(seed);
      const stand = unwrap(standOf(supports, load, 0.5));
      if (!stand.held) continue;
      const rows = rowsOf(supports);
      const n = supports.length;
      // quadprog counts from 1. Forces in kN, so that its numbers are near one.
      const wall = <T>(values: readonly T[]): T[] => [undefined as T, ...values];
      const d = wall(supports.map((one, i) => wall(supports.map((_, j) => (i === j ? 1e6 / one.stiffness_NPerM : 0)))));
      const toward = wall(supports.map((one) => (1e6 / one.stiffness_NPerM) * (one.preload_N / 1e3)));
      const pushes = supports.flatMap(({ acts }, i) => (acts === 'both' ? [] : [i]));
      const constraints = wall(
        supports.map((_, i) => wall([...rows[i]!, ...pushes.map((push) => (push === i ? 1 : 0))])),
      );
      const right = wall([...[...load.force_N, ...load.moment_Nm].map((v) => -v / 1e3), ...pushes.map(() => 0)]);
      const { solution, message } = solveQP(d, toward, constraints, right, 6);
      if (message !== '') continue;
      const forces = solution.slice(1, n + 1).map((v) => 1e3 * v);
      const most = Math.max(...forces.map(Math.abs));
      // Nearly jammed: small changes of the load make all of the answer.
      if (most > 5e4) continue;
      seen++;
      for (const [i, force] of stand.by.forces_N.entries())
        expectClose(force, forces[i]!, { abs: 2e-3 * most, why: `seed ${seed}, support ${i}` });
    }
    expect(seen).toBeGreaterThan(40);
  });

  it('with friction: never more than its share of what presses, never what linear programming says cannot be', () => {
    const FACETS = 16;
    let [heldOnes, rubbing] = [0, 0];
    for (let seed = 1; seed <= 120; seed++) {
      const { supports: bare, load } = layoutOf(seed);
      const { uniform } = seeded(1000 + seed);
      const supports = bare.map((one): Support => ({
        ...one,
        friction_ratio: one.acts === 'push' ? 0.6 * uniform() : 0,
      }));
      const stand = standOf(supports, load, 0.5);
      if (!stand.ok) {
        expect(stand.error.code).toBe('not-found');
        continue;
      }
      if (!stand.value.held) continue;
      heldOnes++;
      const { forces_N, frictions_N } = stand.value.by;
      for (const [i, { acts, friction_ratio, legs }] of supports.entries()) {
        if (acts !== 'both') expect(forces_N[i]).toBeGreaterThanOrEqual(0);
        expect(norm(frictions_N[i]!)).toBeLessThanOrEqual(friction_ratio * Math.abs(forces_N[i]!) + 1e-2);
        expect(Math.abs(dot(frictions_N[i]!, legs[0]!.way))).toBeLessThan(1e-6);
        if (norm(frictions_N[i]!) > 1) rubbing++;
      }
      const sum = reactionOf(supports, stand.value.by);
      expect(norm(add(sum.force_N, load.force_N)), `seed ${seed}`).toBeLessThan(2);
      expect(norm(add(sum.moment_Nm, load.moment_Nm)), `seed ${seed}`).toBeLessThan(2);
      // A cone that is a little wider than the round one, cut into facets.
      const rows = [...rowsOf(supports)];
      const bilateral = supports.map(({ acts }) => acts === 'both');
      for (const { acts, friction_ratio, legs } of supports) {
        if (acts !== 'push') continue;
        const [a, b] = acrossOf(legs[0]!.way);
        const wide = (1.01 * friction_ratio) / Math.cos(Math.PI / FACETS) + 1e-6;
        for (let f = 0; f < FACETS; f++) {
          const angle = (2 * Math.PI * f) / FACETS;
          const way = add(legs[0]!.way, add(scale(a, wide * Math.cos(angle)), scale(b, wide * Math.sin(angle))));
          rows.push([...way, ...cross(legs[0]!.at_m, way)]);
          bilateral.push(false);
        }
      }
      expect(leastForces_N(rows, bilateral, load), `seed ${seed}`).toBeLessThan(Infinity);
    }
    expect(heldOnes).toBeGreaterThan(30);
    expect(rubbing).toBeGreaterThan(30);
  });
});

describe('what must hold of any layout', () => {
  const feet = [-0.5, 0.5].flatMap((x) => [-0.3, 0.3].map((y) => foot([x, y, 0], { friction_ratio: 0.5 })));
  const legs = (x: number) => [-0.3, 0.3].map((y) => ({ at_m: [x, y, 0.4] as Vec3, way: [0, 0, -1] as Vec3 }));
  const straps = [-0.4, 0.4].map((x): Support => ({
    acts: 'pull',
    legs: legs(x),
    stiffness_NPerM: 1e6,
    preload_N: 400,
    friction_ratio: 0,
  }));

  it('turned together with its load it is held alike', () => {
    const pose = turnAbout([0.2, 0.3, -0.1], [0.6, 0.48, 0.64], 1.1);
    const spin = (v: Vec3): Vec3 => turned(pose, v);
    const layout = [...feet, ...straps];
    const load = at([700, 200, -1500], [0.1, -0.05, 0.3]);
    const one = stood(layout, load);
    const other = stood(
      layout.map((each) => ({ ...each, legs: each.legs.map((leg) => ({ at_m: spin(leg.at_m), way: spin(leg.way) })) })),
      { force_N: spin(load.force_N), moment_Nm: spin(load.moment_Nm) },
    );
    for (const [i, force] of one.forces_N.entries())
      expectClose(other.forces_N[i]!, force, { abs: 0.05, why: `support ${i}` });
  });

  it('without preload twice the load is twice every force', () => {
    const [one, two] = [1, 2].map((by) => stood(feet, at([by * 150, by * 60, by * -1000], [0.05, 0, 0.2])));
    for (const [i, force] of one!.forces_N.entries())
      expectClose(two!.forces_N[i]!, 2 * force, { rel: 1e-4, abs: 0.01, why: `foot ${i}` });
  });

  it('a foot that is moved towards the load takes more of it', () => {
    const load = at([0, 0, -1000], [0.4, 0, 0.2]);
    const taken = [1.2, 1, 0.8, 0.6, 0.5].map((x) => {
      const stand = stood([foot([-0.5, 0.3, 0]), foot([-0.5, -0.3, 0]), foot([x, 0, 0])], load);
      return stand.forces_N[2]!;
    });
    for (const [i, force] of taken.entries()) if (i > 0) expect(force).toBeGreaterThan(taken[i - 1]!);
  });
});
