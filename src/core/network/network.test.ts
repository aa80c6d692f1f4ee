import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { unwrap } from '../outcome';
import { airState, fluidState, type FluidState } from '../fluids';
import {
  atVoltage,
  colebrook,
  frictionNumber,
  orificeLaw,
  parsePumpCurve,
  partAround,
  pumpLaw,
  solveNetwork,
  withoutIslands,
  type LinkElement,
  type Network,
  type NetworkNode,
} from '.';
import { expectClose } from '../../../tests/expectClose';

const DIESEL = unwrap(fluidState({ key: 'diesel' }, 293.15));
const line = (bore_m: number, length_m: number, roughness_m = 0): LinkElement => ({
  kind: 'line',
  bore_m,
  length_m,
  roughness_m,
  fittings: [],
});
const node = (id: string, height_m: number, rest: Partial<NetworkNode> = {}): NetworkNode => ({
  id,
  name: id,
  height_m,
  ...rest,
});

const PUMP_CURVE = [
  { flow_m3PerS: 0, rise_Pa: 40e3 },
  { flow_m3PerS: 30e-6, rise_Pa: 25e3 },
  { flow_m3PerS: 45e-6, rise_Pa: 0 },
];
const PUMP: LinkElement = { kind: 'pump', voltageRatio: 1, curve: PUMP_CURVE };

function network(nodes: NetworkNode[], links: [string, string, LinkElement[]][], fluid: FluidState = DIESEL): Network {
  return {
    nodes,
    fluid,
    ambientAbs_Pa: 101325,
    gravity_mPerS2: 9.80665,
    links: links.map(([from, to, elements], i) => ({ id: `link${i}`, name: `link ${i}`, from, to, elements })),
  };
}

const flow = (solution: ReturnType<typeof solveNetwork>, id: string): number =>
  unwrap(solution).links.get(id)!.flow_m3PerS;

describe('friction', () => {
  it('frictionNumber is continuous, rising, and its slope is its derivative', () => {
    for (const roughness of [0, 1e-4, 1e-2, 0.05]) {
      let before = 0;
      for (let re = 50; re < 2e5; re *= 1.013) {
        const { value, slope } = frictionNumber(re, roughness);
        expect(value).toBeGreaterThan(before);
        before = value;
        const step = re * 1e-5;
        const numeric =
          (frictionNumber(re + step, roughness).value - frictionNumber(re - step, roughness).value) / (2 * step);
        const crossesAnEnd = [2000, 4000].some((end) => Math.abs(re - end) <= step);
        if (!crossesAnEnd) expectClose(slope, numeric, { rel: 1e-5, why: 'central difference' });
      }
    }
  });

  it('the bridge meets laminar flow and Colebrook in value and slope', () => {
    for (const roughness of [0, 1e-4, 1e-2, 0.05]) {
      const [laminar, bridge] = [frictionNumber(2000, roughness), frictionNumber(2000 * (1 + 1e-13), roughness)];
      expectClose(bridge.value, laminar.value, { rel: 2e-12, why: 'the same point, to rounding in exp and log' });
      expectClose(bridge.slope, laminar.slope, { rel: 2e-11, why: 'the same point, to rounding' });
      const [below, turbulent] = [frictionNumber(4000 * (1 - 1e-13), roughness), frictionNumber(4000, roughness)];
      expectClose(below.value, turbulent.value, { rel: 2e-12, why: 'the same point, to rounding in exp and log' });
      expectClose(below.slope, turbulent.slope, { rel: 2e-11, why: 'the same point, to rounding' });
      expectClose(turbulent.value, colebrook(4000, roughness) * 4000 ** 2, { rel: 1e-14, why: 'f Re²' });
    }
  });

  it('colebrook satisfies its own equation to rounding', () => {
    for (const re of [4e3, 1e4, 1e5, 1e7]) {
      for (const roughness of [0, 1e-5, 1e-3, 0.05]) {
        const f = colebrook(re, roughness);
        expectClose(-2 * Math.log10(roughness / 3.7 + 2.51 / (re * Math.sqrt(f))), 1 / Math.sqrt(f), {
          rel: 1e-12,
          why: 'rounding',
        });
      }
    }
  });
});

describe('one line', () => {
  it('laminar flow under gravity is Hagen-Poiseuille', () => {
    const drop = 0.8;
    const solution = solveNetwork(
      network(
        [node('high', drop, { fixedGauge_Pa: 0 }), node('low', 0, { fixedGauge_Pa: 0 })],
        [['high', 'low', [line(0.006, 3)]]],
      ),
    );
    const expected =
      (Math.PI * DIESEL.density_kgPerM3 * 9.80665 * drop * 0.006 ** 4) / (128 * DIESEL.viscosity_PaS * 3);
    expectClose(flow(solution, 'link0'), expected, {
      rel: 1e-6,
      why: 'closed form; the least slope adds a few parts in 1e9',
    });
    expect(unwrap(solution).links.get('link0')!.regime).toBe('laminar');
  });

  it('a pump and a line meet where their curves cross', () => {
    const solution = solveNetwork(
      network(
        [node('tank', 0, { fixedGauge_Pa: 0 }), node('mid', 0), node('end', 0.5, { fixedGauge_Pa: 0 })],
        [
          ['tank', 'mid', [PUMP]],
          ['mid', 'end', [line(0.008, 4)]],
        ],
      ),
    );
    const q = flow(solution, 'link0');
    const pumpRise = -pumpLaw(unwrap(parsePumpCurve(PUMP_CURVE, 'pump')))(q).pressure_Pa;
    const lift = DIESEL.density_kgPerM3 * 9.80665 * 0.5;
    const loss = (128 * DIESEL.viscosity_PaS * 4 * q) / (Math.PI * 0.008 ** 4);
    expectClose(pumpRise, lift + loss, { rel: 1e-6, why: 'laminar by hand' });
  });

  it('a vent passes the same volume of air as the liquid drawn', () => {
    const air = airState(293.15, 101325);
    const open = solveNetwork(
      network(
        [node('air', 0, { fixedGauge_Pa: 0 }), node('ullage', 0), node('out', 0, { outflow_m3PerS: 20e-6 })],
        [
          ['air', 'ullage', [{ kind: 'vent', bore_m: 0.001, length_m: 0.002, air }]],
          ['ullage', 'out', [line(0.008, 1)]],
        ],
      ),
    );
    expect(flow(open, 'link0')).toBeCloseTo(20e-6, 12);
    const speed = 20e-6 / ((Math.PI / 4) * 0.001 ** 2);
    const suction = -unwrap(open).nodes.get('ullage')!.gauge_Pa;
    expect(suction).toBeGreaterThan((1.5 * air.density_kgPerM3 * speed ** 2) / 2);
    expect(suction).toBeLessThan((4 * air.density_kgPerM3 * speed ** 2) / 2);
  });
});

describe('any graph', () => {
  const bores = fc.double({ min: 0.003, max: 0.03, noNaN: true });
  const lengths = fc.double({ min: 0.05, max: 20, noNaN: true });

  it('a loop of random lines balances at every joint and around every loop', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(bores, lengths), { minLength: 6, maxLength: 6 }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        (sizes, height) => {
          const e = (i: number): LinkElement[] => [line(sizes[i]![0], sizes[i]![1], 1e-5)];
          const solution = unwrap(
            solveNetwork(
              network(
                [
                  node('a', height, { fixedGauge_Pa: 0 }),
                  node('b', 1),
                  node('c', -1),
                  node('d', 0),
                  node('e', 0, { fixedGauge_Pa: 0 }),
                ],
                [
                  ['a', 'b', e(0)],
                  ['a', 'c', e(1)],
                  ['b', 'c', e(2)],
                  ['b', 'd', e(3)],
                  ['c', 'd', e(4)],
                  ['d', 'e', [...e(5), PUMP]],
                ],
              ),
            ),
          );
          const q = [0, 1, 2, 3, 4, 5].map((i) => solution.links.get(`link${i}`)!.flow_m3PerS);
          const scale = Math.max(...q.map(Math.abs));
          expect(Math.abs(q[0]! - q[2]! - q[3]!)).toBeLessThanOrEqual(1e-8 * scale);
          expect(Math.abs(q[1]! + q[2]! - q[4]!)).toBeLessThanOrEqual(1e-8 * scale);
          expect(solution.iterations).toBeLessThan(40);
        },
      ),
      { seed: 3, numRuns: 150 },
    );
  });

  it('turning a line end for end changes only the sign', () => {
    const run = (from: string, to: string) =>
      flow(
        solveNetwork(
          network(
            [node('a', 2, { fixedGauge_Pa: 0 }), node('b', 0, { fixedGauge_Pa: 0 })],
            [[from, to, [line(0.01, 5, 1e-5)]]],
          ),
        ),
        'link0',
      );
    expectClose(run('a', 'b'), -run('b', 'a'), { rel: 1e-9, why: 'symmetry' });
  });

  it('a line split in two equal parts carries the same', () => {
    const ends = [node('a', 2, { fixedGauge_Pa: 0 }), node('b', 0, { fixedGauge_Pa: 0 })];
    const whole = flow(solveNetwork(network(ends, [['a', 'b', [line(0.01, 5, 1e-5)]]])), 'link0');
    const split = flow(
      solveNetwork(
        network(
          [...ends, node('m', 1)],
          [
            ['a', 'm', [line(0.01, 2.5, 1e-5)]],
            ['m', 'b', [line(0.01, 2.5, 1e-5)]],
          ],
        ),
      ),
      'link0',
    );
    expectClose(split, whole, { rel: 1e-7, why: 'least slope counted twice' });
  });

  it('a check valve stops backward flow and costs nothing forward', () => {
    const run = (height: number) =>
      flow(
        solveNetwork(
          network(
            [node('a', height, { fixedGauge_Pa: 0 }), node('b', 0, { fixedGauge_Pa: 0 })],
            [['a', 'b', [line(0.01, 5), { kind: 'check' }]]],
          ),
        ),
        'link0',
      );
    expect(run(1)).toBeGreaterThan(1e-5);
    expect(Math.abs(run(-1))).toBeLessThan(1e-11);
  });

  it('two pumps joined at a block: without a check the idle side takes the other pump back to the tank', () => {
    const weak: LinkElement = {
      kind: 'pump',
      voltageRatio: 1,
      curve: [
        { flow_m3PerS: 0, rise_Pa: 2e3 },
        { flow_m3PerS: 10e-6, rise_Pa: 0 },
      ],
    };
    const run = (checked: LinkElement[]) =>
      unwrap(
        solveNetwork(
          network(
            [node('tank', 0, { fixedGauge_Pa: 0 }), node('block', 0), node('end', 1, { fixedGauge_Pa: 0 })],
            [
              ['tank', 'block', [PUMP, line(0.008, 1)]],
              ['tank', 'block', [weak, line(0.008, 1), ...checked]],
              ['block', 'end', [line(0.008, 3)]],
            ],
          ),
        ),
      );
    expect(run([]).links.get('link1')!.flow_m3PerS).toBeLessThan(-1e-6);
    expect(run([{ kind: 'check' }]).links.get('link2')!.flow_m3PerS).toBeGreaterThan(
      run([]).links.get('link2')!.flow_m3PerS,
    );
  });
});

describe('what cannot be solved says why', () => {
  const ends = [node('tank', 0, { fixedGauge_Pa: 0 }), node('engine', 0, { outflow_m3PerS: 1e-5 })];
  it.each<[string, Network]>([
    ['no-path', network(ends, [['tank', 'engine', [{ kind: 'closed' }]]])],
    ['no-boundary', network([node('a', 0), node('b', 0)], [['a', 'b', [line(0.01, 1)]]])],
    ['bad-size', network(ends, [['tank', 'engine', [line(0, 1)]]])],
    ['bad-size', network(ends, [['tank', 'engine', [line(0.01, -1)]]])],
    [
      'bad-size',
      network(ends, [
        [
          'tank',
          'engine',
          [{ kind: 'filter', ratedFlow_m3PerS: 0, ratedDrop_Pa: 1, ratedViscosity_PaS: 1, dirtFactor: 1 }],
        ],
      ]),
    ],
    ['no-such-node', network(ends, [['tank', 'nowhere', [line(0.01, 1)]]])],
    ['no-voltage', network(ends, [['tank', 'engine', [{ ...PUMP, voltageRatio: 0 } as LinkElement]]])],
    ['too-few-points', network(ends, [['tank', 'engine', [{ kind: 'pump', voltageRatio: 1, curve: [] }]]])],
    [
      'curve-rises',
      network(ends, [
        [
          'tank',
          'engine',
          [
            {
              kind: 'pump',
              voltageRatio: 1,
              curve: [
                { flow_m3PerS: 0, rise_Pa: 1 },
                { flow_m3PerS: 1, rise_Pa: 2 },
              ],
            },
          ],
        ],
      ]),
    ],
    [
      'negative-point',
      network(ends, [
        [
          'tank',
          'engine',
          [
            {
              kind: 'pump',
              voltageRatio: 1,
              curve: [
                { flow_m3PerS: -1, rise_Pa: 1 },
                { flow_m3PerS: 1, rise_Pa: 0 },
              ],
            },
          ],
        ],
      ]),
    ],
    ['not-converged', network(ends, [['tank', 'engine', [line(0.01, Number.POSITIVE_INFINITY)]]])],
  ])('%s', (code, bad) => {
    expect(solveNetwork(bad)).toMatchObject({ ok: false, error: { code } });
  });
});

describe('pumps together', () => {
  const ends = [node('tank', 0, { fixedGauge_Pa: 0 }), node('end', 0, { fixedGauge_Pa: 0 })];
  const hose = (): LinkElement => line(0.006, 4);
  const run = (links: [string, string, LinkElement[]][], more: NetworkNode[] = []) =>
    unwrap(solveNetwork(network([...ends, ...more], links)));

  it('two alike in a row push as one of twice the pressure', () => {
    const twice: LinkElement = {
      ...PUMP,
      curve: PUMP_CURVE.map((point) => ({ ...point, rise_Pa: 2 * point.rise_Pa })),
    } as LinkElement;
    const row = run([['tank', 'end', [PUMP, PUMP, hose()]]]).links.get('link0')!.flow_m3PerS;
    const one = run([['tank', 'end', [twice, hose()]]]).links.get('link0')!.flow_m3PerS;
    expectClose(row, one, { rel: 1e-9, why: 'pressures add at one flow' });
  });

  it('two alike side by side push as one of twice the flow', () => {
    const twice: LinkElement = {
      ...PUMP,
      curve: PUMP_CURVE.map((point) => ({ ...point, flow_m3PerS: 2 * point.flow_m3PerS })),
    } as LinkElement;
    const pair = run(
      [
        ['tank', 'block', [PUMP]],
        ['tank', 'block', [PUMP]],
        ['block', 'end', [hose()]],
      ],
      [node('block', 0)],
    ).links.get('link2')!.flow_m3PerS;
    const one = run([['tank', 'end', [twice, hose()]]]).links.get('link0')!.flow_m3PerS;
    expectClose(pair, one, { rel: 1e-7, why: 'flows add at one pressure' });
  });

  it('the curve is met at its points and straight between them', () => {
    const law = pumpLaw(unwrap(parsePumpCurve(PUMP_CURVE, 'pump')));
    for (const point of PUMP_CURVE) expect(-law(point.flow_m3PerS).pressure_Pa).toBeCloseTo(point.rise_Pa, 6);
    expect(-law(15e-6).pressure_Pa).toBeCloseTo(32.5e3, 6);
    expect(law(60e-6).pressure_Pa).toBeGreaterThan(0);
  });
});

describe('islands', () => {
  const withIsland = network(
    [
      node('tank', 1, { fixedGauge_Pa: 0 }),
      node('end', 0, { fixedGauge_Pa: 0 }),
      node('lost', 0, { outflow_m3PerS: 1e-6 }),
      node('far', 0),
    ],
    [
      ['tank', 'end', [line(0.01, 2)]],
      ['end', 'lost', [{ kind: 'closed' }]],
      ['lost', 'far', [line(0.01, 1)]],
    ],
  );

  it('what is cut off would stop the whole, and without it the rest is solved', () => {
    expect(solveNetwork(withIsland)).toMatchObject({ ok: false, error: { code: 'no-path' } });
    const rest = withoutIslands(withIsland);
    expect(rest.nodes.map((each) => each.id)).toEqual(['tank', 'end']);
    expect(flow(solveNetwork(rest), 'link0')).toBeGreaterThan(0);
  });

  it('the part around a node is what is joined to it, and none of what runs beside it', () => {
    const two = network(
      [
        node('a', 1, { fixedGauge_Pa: 0 }),
        node('b', 0, { fixedGauge_Pa: 0 }),
        node('c', 1, { fixedGauge_Pa: 0 }),
        node('d', 0, { outflow_m3PerS: 1e-6 }),
      ],
      [
        ['a', 'b', [line(0.01, 2)]],
        ['c', 'd', [line(0.01, 2)]],
        ['b', 'c', [{ kind: 'closed' }]],
      ],
    );
    const part = partAround(two, 'd');
    expect(part.nodes.map(({ id }) => id)).toEqual(['c', 'd']);
    expect(part.links.map(({ id }) => id)).toEqual(['link1']);
    expectClose(flow(solveNetwork(part), 'link1'), flow(solveNetwork(two), 'link1'), {
      rel: 1e-9,
      why: 'the other says nothing of it',
    });
    // Without any pressure there the whole is given on, so that the solver says so.
    expect(solveNetwork(partAround(withIsland, 'lost'))).toMatchObject({ ok: false, error: { code: 'no-path' } });
  });

  it('what is asked for stays, to be complained of', () => {
    expect(withoutIslands(withIsland, 'lost').nodes.map((each) => each.id)).toContain('lost');
    expect(solveNetwork(withoutIslands(withIsland, 'lost'))).toMatchObject({ ok: false, error: { code: 'no-path' } });
  });
});

it('voltage moves a pump curve by the affinity laws', () => {
  const curve = unwrap(
    parsePumpCurve(
      [
        { flow_m3PerS: 0, rise_Pa: 100 },
        { flow_m3PerS: 10, rise_Pa: 0 },
      ],
      'pump',
    ),
  );
  expect(atVoltage(curve, 0.5).points).toEqual([
    { flow_m3PerS: 0, rise_Pa: 25 },
    { flow_m3PerS: 5, rise_Pa: 0 },
  ]);
});

it('a sharp orifice passes C A sqrt(2 dp / rho), and its loss is linear in creeping flow', () => {
  const law = orificeLaw(0.004, 0.61, DIESEL);
  const flow_m3PerS = 0.61 * (Math.PI / 4) * 0.004 ** 2 * Math.sqrt((2 * 20e3) / DIESEL.density_kgPerM3);
  expectClose(law(flow_m3PerS).pressure_Pa, 20e3, { rel: 1e-4, why: 'Torricelli; the blend adds (10/Re)²/2' });
  expectClose(law(2e-12).pressure_Pa / law(1e-12).pressure_Pa, 2, { rel: 1e-6, why: 'linear below Re 10' });
});

describe('what draws no more than it needs', () => {
  const most_m3PerS = 2e-6;
  const drawn = (head_m: number): number => {
    const tank = node('tank', head_m, { fixedGauge_Pa: 0 });
    const needs = node('needs', 0, { fixedGauge_Pa: 0 });
    const links: [string, string, LinkElement[]][] = [
      ['tank', 'joint', [line(0.004, 2)]],
      ['joint', 'needs', [{ kind: 'check' }, { kind: 'limit', most_m3PerS }]],
    ];
    return flow(solveNetwork(network([tank, node('joint', 0), needs], links)), 'link1');
  };
  it('gets what comes as long as that is less, by Hagen and Poiseuille, and then what it needs', () => {
    const resists = (128 * DIESEL.viscosity_PaS * 2) / (Math.PI * 0.004 ** 4);
    const free = (head_m: number): number => (DIESEL.density_kgPerM3 * 9.80665 * head_m) / resists;
    for (const head_m of [0.001, 0.005, 0.01, 0.1, 1, 5]) {
      const wanted = Math.min(most_m3PerS, free(head_m));
      expectClose(drawn(head_m), wanted, { rel: 1e-5, why: 'a hundred-thousandth more at a bar' });
    }
    expect(free(0.001)).toBeLessThan(most_m3PerS);
    expect(free(5)).toBeGreaterThan(most_m3PerS);
  });
  it('gives nothing back', () => expectClose(drawn(-1), 0, { abs: 1e-11, why: 'its seat' }));
  it('wants to be able to draw something', () => {
    const wrong = network(
      [node('a', 0, { fixedGauge_Pa: 0 }), node('b', 0, { fixedGauge_Pa: 0 })],
      [['a', 'b', [{ kind: 'limit', most_m3PerS: 0 }]]],
    );
    expect(solveNetwork(wrong)).toMatchObject({ ok: false, error: { code: 'bad-size' } });
  });
});
