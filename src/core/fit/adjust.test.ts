import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import { adjust, type Adjusted, type Reading, type SurveyPoint } from './adjust';
import { seeded } from '../seeded';

/** A quadrangle in one station: x of the station, then y and z of four corners. */
const CORNERS: readonly SurveyPoint[] = [
  [0, 1, 2],
  [0, 3, 4],
  [0, 5, 6],
  [0, 7, 8],
];
const TRUE_M = [0, 0, 0, 0.52, 0.015, 0.535, 0.41, -0.02, 0.395];
const TAPE_M = 0.0005;

const truth = (from: number, to: number): number =>
  Math.hypot(
    TRUE_M[CORNERS[from]![1]]! - TRUE_M[CORNERS[to]![1]]!,
    TRUE_M[CORNERS[from]![2]]! - TRUE_M[CORNERS[to]![2]]!,
  );
const tape = (id: string, from: number, to: number, error = 0): Reading => ({
  id,
  of: { from: CORNERS[from]!, to: CORNERS[to]!, how: 'straight' },
  value_m: truth(from, to) + error,
  sigma_m: TAPE_M,
  assumed: false,
});
const SIDES: [string, number, number][] = [
  ['floor', 0, 1],
  ['port', 1, 2],
  ['top', 2, 3],
  ['starboard', 3, 0],
  ['diagonal', 0, 2],
  ['other diagonal', 1, 3],
];
/** The datum corner, the floor's level by a spirit level, and a sketch for all the rest. */
const base = (): Reading[] => [
  ...[0, 1, 2].map((unknown): Reading => ({
    id: `datum ${unknown}`,
    of: { unknown },
    value_m: 0,
    sigma_m: 1e-6,
    assumed: false,
  })),
  { id: 'level', of: { unknown: 4 }, value_m: 0.015, sigma_m: TAPE_M, assumed: false },
  ...[3, 5, 6, 7, 8].map((unknown): Reading => ({
    id: `sketch ${unknown}`,
    of: { unknown },
    value_m: [0, 0, 0, 0.5, 0, 0.5, 0.4, 0, 0.4][unknown]!,
    sigma_m: 0.005,
    assumed: true,
  })),
];
const SKETCH_M = [0, 0, 0, 0.5, 0, 0.5, 0.4, 0, 0.4];

/** Standard deviation of each unknown [m], by the law of propagation. */
const deviations_m = ({ gain, sigmas_m }: Adjusted): number[] =>
  Array.from({ length: gain.rows }, (_, k) => Math.hypot(...sigmas_m.map((sigma, i) => gain.get(k, i) * sigma)));

describe('a bay from tape readings', () => {
  it('exact readings give the true corners, and no contradiction', () => {
    const { values_m, contradictions } = unwrap(adjust(SKETCH_M, [...base(), ...SIDES.map((side) => tape(...side))]));
    TRUE_M.forEach((value, k) =>
      expectClose(values_m[k]!, value, { abs: 2e-7, why: 'exact but for the assumptions’ tiny weight' }),
    );
    expect(contradictions).toEqual([]);
  });

  it('an assumption decides only what no reading does', () => {
    const few = unwrap(adjust(SKETCH_M, [...base(), tape('floor', 0, 1), tape('starboard', 3, 0)]));
    expectClose(Math.hypot(few.values_m[3]!, few.values_m[4]!), truth(0, 1), { abs: 1e-7, why: 'the reading stands' });
    expectClose(few.values_m[5]!, 0.5, { abs: 1e-7, why: 'nobody measured the upper corner' });
    const spread = deviations_m(few);
    expectClose(spread[5]!, 0.005, { rel: 1e-3, why: 'the guess’s own spread' });
    expect(spread[3]!).toBeLessThan(0.001);
  });

  it('seeded errors: the same corners and spreads as a general-purpose least-squares fit', () => {
    const chance = seeded(7);
    const readings = [...base(), ...SIDES.map(([id, from, to]) => tape(id, from, to, chance.normal() * TAPE_M))];
    const ours = unwrap(adjust(SKETCH_M, readings));
    const unknowns = [3, 4, 5, 6, 7, 8];
    const measured = readings.filter((reading) => !reading.assumed && !reading.id.startsWith('datum'));
    const fit = levenbergMarquardt(
      { x: measured.map((_, i) => i), y: measured.map((reading) => reading.value_m) },
      (p: number[]) => (x: number) => {
        const all = [0, 0, 0, ...p];
        const { of } = measured[x]!;
        if ('unknown' in of) return all[of.unknown]!;
        return Math.hypot(...[1, 2].map((axis) => all[of.to[axis]!]! - all[of.from[axis]!]!));
      },
      {
        initialValues: unknowns.map((k) => TRUE_M[k]! + 0.002),
        damping: 1e-6,
        gradientDifference: 1e-6,
        centralDifference: true,
        maxIterations: 1000,
        errorTolerance: 0,
        improvementThreshold: 1e-9,
      },
    );
    const misfit = (p: readonly number[]) =>
      measured.reduce(
        (sum, { of, value_m }) =>
          sum +
          (('unknown' in of
            ? p[of.unknown]!
            : Math.hypot(...[1, 2].map((axis) => p[of.to[axis]!]! - p[of.from[axis]!]!))) -
            value_m) **
            2,
        0,
      );
    unknowns.forEach((k, i) =>
      expectClose(ours.values_m[k]!, fit.parameterValues[i]!, { abs: 2e-6, why: 'ml-levenberg-marquardt 5.1.0' }),
    );
    // Never worse than the reference by the sum that both make least.
    expect(misfit([...ours.values_m])).toBeLessThanOrEqual(misfit([0, 0, 0, ...fit.parameterValues]) * (1 + 1e-5));
  });

  it('the stated spread covers the truth as often as it says', () => {
    const chance = seeded(11);
    let inside = 0;
    const rounds = 400;
    for (let round = 0; round < rounds; round++) {
      const readings = [
        ...base().map((reading) =>
          reading.id === 'level' ? { ...reading, value_m: 0.015 + chance.normal() * TAPE_M } : reading,
        ),
        ...SIDES.map(([id, from, to]) => tape(id, from, to, chance.normal() * TAPE_M)),
      ];
      const adjusted = unwrap(adjust(SKETCH_M, readings));
      if (
        adjusted.contradictions.length === 0 &&
        Math.abs(adjusted.values_m[6]! - TRUE_M[6]!) < 2 * deviations_m(adjusted)[6]!
      )
        inside++;
    }
    // 95.4 % of a normal distribution lie within two deviations; four standard errors of 400 trials are 4.2 %.
    expect(inside / rounds).toBeGreaterThan(0.91);
    expect(inside / rounds).toBeLessThan(0.995);
  });

  it('a diagonal that cannot be is named, with what would agree', () => {
    const wrong = SIDES.map(([id, from, to]) => tape(id, from, to, id === 'diagonal' ? 0.03 : 0));
    const doubted = unwrap(adjust(SKETCH_M, [...base(), ...wrong]));
    const { contradictions, values_m } = doubted;
    expect(contradictions).toHaveLength(1);
    const ids = contradictions[0]!.suspects.map(({ id }) => id);
    // One surplus reading shows that something is wrong, not which: all that share it are named.
    expect(ids).toContain('diagonal');
    expectClose(contradictions[0]!.suspects.find(({ id }) => id === 'diagonal')!.wouldAgree_m, truth(0, 2), {
      abs: 1e-3,
      why: 'the true length',
    });
    // Its disagreement counts as its doubt, and reaches the corners.
    expect(deviations_m(doubted)[6]!).toBeGreaterThan(
      5 * deviations_m(unwrap(adjust(SKETCH_M, [...base(), ...SIDES.map((side) => tape(...side))])))[6]!,
    );
    // A set-aside reading does not pull the corners to a wrong mean.
    expectClose(values_m[3]!, TRUE_M[3]!, { abs: 0.02, why: 'no worse than the doubt' });
  });

  it('with a second station to check by, the one wrong reading stands alone', () => {
    const two: SurveyPoint[] = [...CORNERS, ...CORNERS.map(([, y, z]): SurveyPoint => [9, y + 9, z + 9])];
    const values = [...TRUE_M, 0.6, ...TRUE_M.slice(1)];
    const far = (from: number, to: number) =>
      Math.hypot(...[0, 1, 2].map((axis) => values[two[from]![axis]!]! - values[two[to]![axis]!]!));
    const pairs = two.flatMap((_, i) => two.map((__, j) => [i, j] as const).filter(([, j]) => j > i));
    const readings: Reading[] = [
      ...[0, 1, 2].map((unknown): Reading => ({
        id: `datum ${unknown}`,
        of: { unknown },
        value_m: 0,
        sigma_m: 1e-6,
        assumed: false,
      })),
      { id: 'level', of: { unknown: 4 }, value_m: 0.015, sigma_m: TAPE_M, assumed: false },
      { id: 'line', of: { unknown: 10 }, value_m: 0, sigma_m: TAPE_M, assumed: false },
      { id: 'floor', of: { unknown: 11 }, value_m: 0, sigma_m: TAPE_M, assumed: false },
      ...pairs.map(([from, to]): Reading => ({
        id: `${from}-${to}`,
        of: { from: two[from]!, to: two[to]!, how: 'straight' },
        value_m: far(from, to) + (from === 1 && to === 6 ? -0.012 : 0),
        sigma_m: TAPE_M,
        assumed: false,
      })),
    ];
    const { contradictions } = unwrap(
      adjust(
        values.map((value, k) => value + (k % 3 ? 0.004 : -0.003)),
        readings,
      ),
    );
    expect(contradictions.map(({ suspects }) => suspects.map(({ id }) => id))).toEqual([['1-6']]);
    expectClose(contradictions[0]!.suspects[0]!.wouldAgree_m, far(1, 6), {
      abs: 1e-4,
      why: 'first order in an error of 12 mm',
    });
  });

  it('corners that nothing places are refused', () => {
    expect(adjust(SKETCH_M, [tape('floor', 0, 1)])).toMatchObject({ ok: false, error: { code: 'undetermined' } });
  });
});
