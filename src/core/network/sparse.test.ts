import fc from 'fast-check';
import { Matrix, solve } from 'ml-matrix';
import { expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import { regimeOf, reynoldsNumber, type Regime } from './friction';
import { lineLaw, lineTerms, type LossLaw } from './laws';
import { graphShape, setLine, solveAgain, solveGraph, type Graph } from './solve';
import { sparseShape } from './sparse';

const linear =
  (slope: number): LossLaw =>
  (flow) => ({ pressure_Pa: slope * flow, slope_PaSPerM3: slope });

/** Every node hangs on the first, which is given, by a way of its own; the rest joins them at will. */
const graphs = fc
  .integer({ min: 1, max: 24 })
  .chain((size) =>
    fc.record({
      given: fc.double({ min: -1e5, max: 1e5, noNaN: true }),
      own: fc.array(fc.double({ min: 1e8, max: 1e11, noNaN: true }), { minLength: size, maxLength: size }),
      more: fc.array(fc.tuple(fc.nat(size), fc.nat(size), fc.double({ min: 1e8, max: 1e12, noNaN: true })), {
        maxLength: 60,
      }),
      drawn: fc.array(fc.double({ min: -1e-6, max: 1e-6, noNaN: true }), { minLength: size, maxLength: size }),
    }),
  );

it('a network of linear laws has the potentials that ml-matrix finds by a dense solution', () => {
  fc.assert(
    fc.property(graphs, ({ given, own, more, drawn }) => {
      const size = own.length;
      const ways = [...own.map((slope, n) => [0, n + 1, slope] as const), ...more];
      const graph: Graph = {
        nodes: [
          { id: 'given', fixed_Pa: given },
          ...drawn.map((outflow_m3PerS, n) => ({ id: `n${n}`, outflow_m3PerS })),
        ],
        links: ways.map(([from, to, slope], l) => ({ id: `l${l}`, from, to, law: linear(slope) })),
      };
      const [dense, right] = [Matrix.zeros(size, size), drawn.map((flow) => -flow)];
      for (const [from, to, slope] of ways) {
        const conductance = 1 / (slope + 1); /* the solver's least slope */
        if (from === to) continue;
        for (const [a, b] of [
          [from, to],
          [to, from],
        ] as const) {
          if (a === 0) continue;
          dense.set(a - 1, a - 1, dense.get(a - 1, a - 1) + conductance);
          if (b === 0) right[a - 1]! += conductance * given;
          else dense.set(a - 1, b - 1, dense.get(a - 1, b - 1) - conductance);
        }
      }
      const expected = solve(dense, Matrix.columnVector(right)).to1DArray();
      const solution = unwrap(solveGraph(graph));
      const scale = Math.max(...expected.map(Math.abs), Math.abs(given), 1);
      expected.forEach((value, n) =>
        expectClose(solution.potential_Pa[n + 1]!, value, {
          abs: 1e-8 * scale,
          why: 'rounding at a condition of up to 1e5',
        }),
      );
      expect(solution.potential_Pa[0]).toBe(given);
    }),
    { seed: 5, numRuns: 200 },
  );
});

it('a link from a node to itself moves nothing and changes nothing', () => {
  const base: Graph = {
    nodes: [
      { id: 'tank', fixed_Pa: 5e3 },
      { id: 'joint', outflow_m3PerS: 1e-6 },
    ],
    links: [{ id: 'line', from: 0, to: 1, law: linear(1e9) }],
  };
  const looped = unwrap(
    solveGraph({ ...base, links: [...base.links, { id: 'loop', from: 1, to: 1, law: linear(1e6) }] }),
  );
  expect(looped.potential_Pa).toEqual(unwrap(solveGraph(base)).potential_Pa);
  expectClose(looped.flow_m3PerS[1]!, 0, { abs: 1e-20, why: 'nothing drives it' });
});

it('a law that is no number at some flow is named, not solved', () => {
  const odd: LossLaw = (flow) =>
    Math.abs(flow) > 5e-7
      ? { pressure_Pa: Number.NaN, slope_PaSPerM3: Number.NaN }
      : { pressure_Pa: 1e9 * flow, slope_PaSPerM3: 1e9 };
  const refused = solveGraph({
    nodes: [
      { id: 'tank', fixed_Pa: 0 },
      { id: 'joint', outflow_m3PerS: 1e-6 },
    ],
    links: [{ id: 'the odd one', from: 0, to: 1, law: odd }],
  });
  expect(refused).toMatchObject({ ok: false, error: { code: 'not-converged', at: 'the odd one' } });
});

it('the solver reckons lines by itself as their law does: laminar, between and turbulent, either way, fittings and all', () => {
  const oil = { density_kgPerM3: 830, kinematicViscosity_m2PerS: 4e-6 };
  const reached = new Set<Regime>();
  for (const roughness_m of [0, 1e-5, 2e-4]) {
    const law = lineLaw(
      0.009,
      2.5,
      roughness_m,
      [
        { k1: 800, kInfinity: 0.9, sized: true, count: 2 },
        { k1: 0, kInfinity: 1.2, sized: false, count: 1 },
      ],
      oil,
    );
    for (let drop_Pa = 1; drop_Pa < 1e6; drop_Pa *= 1.15) {
      for (const side of [1, -1]) {
        const graph: Graph = {
          nodes: [{ id: 'a', fixed_Pa: side * drop_Pa }, { id: 'between' }, { id: 'b', fixed_Pa: 0 }],
          links: [
            { id: 'first', from: 0, to: 1, law },
            { id: 'second', from: 1, to: 2, law },
          ],
        };
        const { flow_m3PerS, potential_Pa } = unwrap(solveGraph(graph));
        expectClose(law(flow_m3PerS[0]!).pressure_Pa, (side * drop_Pa) / 2, {
          abs: 3e-4 + 3e-9 * drop_Pa,
          why: 'what the solver leaves of disagreement, and its least slope of 1 Pa s/m³',
        });
        expectClose(potential_Pa[1]!, (side * drop_Pa) / 2, { abs: 3e-4 + 3e-9 * drop_Pa, why: 'two alike share it' });
        expect(Math.sign(flow_m3PerS[0]!)).toBe(side);
        reached.add(regimeOf(reynoldsNumber(flow_m3PerS[0]!, 0.009, oil.kinematicViscosity_m2PerS)));
      }
    }
  }
  expect([...reached].sort()).toEqual(['laminar', 'transitional', 'turbulent']);
});

it('solving again after one changed line is solving the changed network, with others solved between', () => {
  const water = { density_kgPerM3: 998, kinematicViscosity_m2PerS: 1e-6 };
  const line = (bore_m: number): LossLaw =>
    Object.assign(linear(1), {
      line: lineTerms(bore_m, 2, 1e-5, [{ k1: 200, kInfinity: 1, sized: true, count: 2 }], water),
    });
  const network = (bore_m: number): Graph => ({
    nodes: [{ id: 'high', fixed_Pa: 2e4 }, { id: 'a' }, { id: 'b', outflow_m3PerS: 2e-5 }, { id: 'low', fixed_Pa: 0 }],
    links: [
      [0, 1, bore_m],
      [1, 2, 0.008],
      [0, 2, 0.006],
      [2, 3, 0.01],
      [1, 3, 0.005],
    ].map(([from, to, bore], l) => ({ id: `l${l}`, from: from!, to: to!, law: line(bore!) })),
  });
  const shape = unwrap(graphShape(network(0.008)));
  unwrap(solveGraph(network(0.008), shape));
  for (const bore_m of [0.009, 0.004, 0.02]) {
    setLine(shape, 0, lineTerms(bore_m, 2, 1e-5, [{ k1: 200, kInfinity: 1, sized: true, count: 2 }], water));
    unwrap(
      solveGraph({
        nodes: [{ id: 'tank', fixed_Pa: 1 }, { id: 'end' }],
        links: [{ id: 'line', from: 0, to: 1, law: linear(1e9) }],
      }),
    );
    const again = unwrap(solveAgain(shape));
    const anew = unwrap(solveGraph(network(bore_m)));
    anew.flow_m3PerS.forEach((flow, l) =>
      expectClose(again.flow_m3PerS[l]!, flow, { rel: 1e-8, why: 'both to a billionth of the pressure' }),
    );
    expect(again.iterations).toBeLessThan(30);
  }
});

it('a chain of any length fills in nothing', () => {
  const size = 300;
  const shape = sparseShape(size, Int32Array.from(Array.from({ length: size - 1 }, (_, i) => [i, i + 1]).flat()));
  expect(shape.rows).toHaveLength(size - 1);
});
