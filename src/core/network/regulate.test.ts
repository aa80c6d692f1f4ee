import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { fluidState } from '../fluids';
import { unwrap } from '../outcome';
import {
  graphOf,
  solveNetwork,
  solveRegulated,
  type LinkElement,
  type Network,
  type NetworkNode,
  type RegulatedSolution,
} from '.';
import { expectClose } from '../../../tests/expectClose';

const PETROL = unwrap(fluidState({ key: 'petrol' }, 293.15));
const node = (id: string, height_m: number, rest: Partial<NetworkNode> = {}): NetworkNode => ({
  id,
  name: id,
  height_m,
  ...rest,
});
const line = (bore_m: number, length_m: number): LinkElement => ({
  kind: 'line',
  bore_m,
  length_m,
  roughness_m: 1e-5,
  fittings: [],
});
const pump = (shutOff_Pa: number, free_m3PerS: number): LinkElement => ({
  kind: 'pump',
  voltageRatio: 1,
  curve: [
    { flow_m3PerS: 0, rise_Pa: shutOff_Pa },
    { flow_m3PerS: free_m3PerS, rise_Pa: 0 },
  ],
});
const network = (nodes: NetworkNode[], links: [string, string, LinkElement[]][]): Network => ({
  nodes,
  fluid: PETROL,
  ambientAbs_Pa: 101325,
  gravity_mPerS2: 9.80665,
  links: links.map(([from, to, elements], i) => ({ id: `link${i}`, name: `link ${i}`, from, to, elements })),
});

/** Tank, pump, rail that an engine draws from, and a bypass regulator that sends the rest back to the tank. */
const railWith = (draw_m3PerS: number, set_Pa: number, shutOff_Pa = 600e3) =>
  network(
    [
      node('tank', 0, { fixedGauge_Pa: 0 }),
      node('pump', 0),
      node('rail', 0.5, { outflow_m3PerS: draw_m3PerS }),
      node('back', 0.5),
    ],
    [
      ['tank', 'pump', [pump(shutOff_Pa, 60e-6)]],
      ['pump', 'rail', [line(0.006, 3)]],
      ['rail', 'back', [{ kind: 'hold-inlet', set_Pa }, line(0.006, 0.05)]],
      ['back', 'tank', [line(0.006, 3)]],
    ],
  );

describe('a bypass regulator', () => {
  it('holds the rail at its setting whatever the engine takes, and sends the rest back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 20e-6, noNaN: true }),
        fc.double({ min: 250e3, max: 350e3, noNaN: true }),
        (draw, set_Pa) => {
          const solution = unwrap(solveNetwork(railWith(draw, set_Pa)));
          expect(solution.links.get('link2')!.regulating).toBe('holding');
          expectClose(solution.nodes.get('rail')!.gauge_Pa, set_Pa, { rel: 1e-12, why: 'held' });
          const [pumped, back] = [solution.links.get('link1')!.flow_m3PerS, solution.links.get('link3')!.flow_m3PerS];
          expectClose(pumped - back, draw, { rel: 1e-6, abs: 1e-13, why: 'what is not drawn returns' });
          expectClose(solution.links.get('link2')!.loss_Pa, set_Pa - solution.nodes.get('back')!.gauge_Pa, {
            rel: 1e-9,
            why: 'same height: what is throttled away',
          });
        },
      ),
      { seed: 2, numRuns: 60 },
    );
  });

  it('shuts when the pump does not reach its setting', () => {
    const solution = unwrap(solveNetwork(railWith(10e-6, 300e3, 200e3)));
    expect(solution.links.get('link2')!.regulating).toBe('shut');
    expect(solution.nodes.get('rail')!.gauge_Pa).toBeLessThan(200e3);
    expect(Math.abs(solution.links.get('link3')!.flow_m3PerS)).toBeLessThan(1e-10);
  });

  it('without a way back it lets nothing by, and the rest is solved', () => {
    const rail = railWith(10e-6, 300e3);
    const solution = unwrap(solveNetwork({ ...rail, links: rail.links.filter(({ id }) => id !== 'link3') }));
    expect(solution.links.get('link2')!.regulating).toBe('open');
    expect(Math.abs(solution.links.get('link2')!.flow_m3PerS)).toBeLessThan(1e-12);
    expect(solution.nodes.get('rail')!.gauge_Pa).toBeGreaterThan(300e3);
  });

  it('stands open when the return line is too narrow, and the rail goes above its setting', () => {
    const narrow = railWith(0, 100e3);
    const links = narrow.links.map((link) => (link.id === 'link3' ? { ...link, elements: [line(0.0012, 3)] } : link));
    const solution = unwrap(solveNetwork({ ...narrow, links }));
    expect(solution.links.get('link2')!.regulating).toBe('open');
    expect(solution.nodes.get('rail')!.gauge_Pa).toBeGreaterThan(150e3);
  });
});

describe('a regulator that lowers the pressure', () => {
  const carb = (set_Pa: number, draw: number, shutOff_Pa = 60e3) =>
    network(
      [
        node('tank', 0, { fixedGauge_Pa: 0 }),
        node('pump', 0),
        node('reg', 0.4),
        node('bowl', 0.6, { outflow_m3PerS: draw }),
      ],
      [
        ['tank', 'pump', [pump(shutOff_Pa, 40e-6)]],
        ['pump', 'reg', [line(0.008, 2), { kind: 'hold-outlet', set_Pa }]],
        ['reg', 'bowl', [line(0.006, 0.5)]],
      ],
    );

  it('keeps its setting behind it', () => {
    const solution = unwrap(solveNetwork(carb(20e3, 8e-6)));
    expect(solution.links.get('link1')!.regulating).toBe('holding');
    expectClose(solution.nodes.get('reg')!.gauge_Pa, 20e3, { rel: 1e-12, why: 'held' });
  });

  it('stands open when the pump gives less than its setting', () => {
    const solution = unwrap(solveNetwork(carb(20e3, 8e-6, 15e3)));
    expect(solution.links.get('link1')!.regulating).toBe('open');
    expect(solution.nodes.get('reg')!.gauge_Pa).toBeLessThan(15e3);
  });

  it('shuts when the pressure behind it is higher', () => {
    const solution = unwrap(
      solveNetwork(
        network(
          [
            node('tank', 0, { fixedGauge_Pa: 0 }),
            node('pump', 0),
            node('reg', 0),
            node('high', 5, { fixedGauge_Pa: 0 }),
          ],
          [
            ['tank', 'pump', [pump(60e3, 40e-6)]],
            ['pump', 'reg', [line(0.008, 2), { kind: 'hold-outlet', set_Pa: 20e3 }]],
            ['reg', 'high', [line(0.006, 6)]],
          ],
        ),
      ),
    );
    expect(solution.links.get('link1')!.regulating).toBe('shut');
  });

  it('two after one another each hold their own', () => {
    const solution = unwrap(
      solveNetwork(
        network(
          [
            node('tank', 0, { fixedGauge_Pa: 0 }),
            node('pump', 0),
            node('first', 0),
            node('mid', 0, { outflow_m3PerS: 3e-6 }),
            node('second', 0),
            node('bowl', 0, { outflow_m3PerS: 4e-6 }),
          ],
          [
            ['tank', 'pump', [pump(400e3, 60e-6)]],
            ['pump', 'first', [line(0.008, 1), { kind: 'hold-outlet', set_Pa: 200e3 }]],
            ['first', 'mid', [line(0.006, 1)]],
            ['mid', 'second', [{ kind: 'hold-outlet', set_Pa: 20e3 }]],
            ['second', 'bowl', [line(0.006, 1)]],
          ],
        ),
      ),
    );
    expectClose(solution.nodes.get('first')!.gauge_Pa, 200e3, { rel: 1e-12, why: 'held' });
    expectClose(solution.nodes.get('second')!.gauge_Pa, 20e3, { rel: 1e-12, why: 'held' });
    expectClose(solution.links.get('link1')!.flow_m3PerS, 7e-6, { rel: 1e-6, why: 'both draws' });
  });
});

describe('valves that open at a pressure', () => {
  const dropTo = (height_m: number, opens_Pa: number) =>
    unwrap(
      solveNetwork(
        network(
          [node('tank', 0, { fixedGauge_Pa: 0 }), node('break', -height_m, { fixedGauge_Pa: 0 })],
          [['tank', 'break', [line(0.008, 2), { kind: 'check', opens_Pa }]]],
        ),
      ),
    ).links.get('link0')!;

  it('an anti-siphon valve holds a head below its opening pressure and lets a higher one flow', () => {
    const head = (height_m: number): number => PETROL.density_kgPerM3 * 9.80665 * height_m;
    expect(dropTo(0.5, head(0.5) * 1.02)).toMatchObject({ shut: true });
    expect(Math.abs(dropTo(0.5, head(0.5) * 1.02).flow_m3PerS)).toBeLessThan(1e-10);
    expect(dropTo(0.5, head(0.5) * 0.5).flow_m3PerS).toBeGreaterThan(1e-6);
  });

  it('what flows has lost the opening pressure', () => {
    const open = dropTo(0.5, 0).flow_m3PerS;
    const head = PETROL.density_kgPerM3 * 9.80665 * 0.5;
    expectClose(dropTo(1, head).flow_m3PerS, open, {
      rel: 1e-3,
      why: 'half of twice the head is left to the same line',
    });
  });

  it('a relief valve lets a dead-headed pump go round', () => {
    const solution = unwrap(
      solveNetwork(
        network(
          [node('tank', 0, { fixedGauge_Pa: 0 }), node('pump', 0)],
          [
            ['tank', 'pump', [pump(100e3, 50e-6)]],
            ['pump', 'tank', [line(0.008, 0.2), { kind: 'check', opens_Pa: 40e3 }]],
          ],
        ),
      ),
    );
    expect(solution.nodes.get('pump')!.gauge_Pa).toBeGreaterThan(40e3);
    expect(solution.links.get('link1')!.flow_m3PerS).toBeGreaterThan(20e-6);
  });
});

it('a body rated by one point loses that much there, and four times as much at twice the flow', () => {
  const at = (flow: number) =>
    unwrap(
      solveNetwork(
        network(
          [node('tank', 0, { fixedGauge_Pa: 0 }), node('end', 0, { outflow_m3PerS: flow })],
          [
            [
              'tank',
              'end',
              [
                {
                  kind: 'body',
                  ratedFlow_m3PerS: 20e-6,
                  ratedDrop_Pa: 5e3,
                  ratedDensity_kgPerM3: PETROL.density_kgPerM3,
                },
              ],
            ],
          ],
        ),
      ),
    ).links.get('link0')!.loss_Pa;
  expectClose(at(20e-6), 5e3, { rel: 1e-6, why: 'its rating' });
  expectClose(at(40e-6), 20e3, { rel: 1e-6, why: 'square law' });
});

describe('what has no answer says why, and names the part', () => {
  const ends = [
    node('tank', 0, { fixedGauge_Pa: 0 }),
    node('a', 0),
    node('b', 0),
    node('engine', 0, { outflow_m3PerS: 1e-5 }),
  ];
  it.each<[string, string, Network]>([
    [
      'pump-loop',
      'link 1',
      network(ends, [
        ['tank', 'a', [line(0.01, 1)]],
        ['a', 'b', [pump(10e3, 1e-5)]],
        ['b', 'a', [pump(20e3, 1e-5)]],
        ['b', 'engine', [line(0.01, 1)]],
      ]),
    ],
    [
      'pump-loop',
      'link 1',
      network(ends, [
        ['tank', 'a', [line(0.01, 1)]],
        ['a', 'b', [pump(10e3, 1e-5)]],
        ['b', 'a', [pump(20e3, 1e-5), { kind: 'line', bore_m: 0.01, length_m: 0, roughness_m: 0, fittings: [] }]],
        ['b', 'engine', [line(0.01, 1)]],
      ]),
    ],
    [
      'against-check',
      'link 1',
      network(ends, [
        ['tank', 'a', [line(0.01, 1)]],
        ['b', 'a', [line(0.01, 1), { kind: 'check' }]],
        ['b', 'engine', [line(0.01, 1)]],
      ]),
    ],
    [
      'two-regulators',
      'link 2',
      network(ends, [
        ['tank', 'a', [pump(90e3, 4e-5)]],
        ['a', 'b', [{ kind: 'hold-outlet', set_Pa: 2e4 }]],
        ['b', 'tank', [{ kind: 'hold-inlet', set_Pa: 1e4 }]],
        ['b', 'engine', [line(0.01, 1)]],
      ]),
    ],
    [
      'bad-size',
      'link 0',
      network(
        [ends[0]!, ends[3]!],
        [['tank', 'engine', [{ kind: 'body', ratedFlow_m3PerS: 0, ratedDrop_Pa: 1, ratedDensity_kgPerM3: 800 }]]],
      ),
    ],
    ['bad-size', 'link 0', network([ends[0]!, ends[3]!], [['tank', 'engine', [{ kind: 'check', opens_Pa: -1 }]]])],
  ])('%s at %s', (code, at, bad) => {
    expect(solveNetwork(bad)).toMatchObject({ ok: false, error: { code, at } });
  });
});

describe('scaling', () => {
  const fall = (length_m: number, drop_m: number) =>
    unwrap(
      solveNetwork(
        network(
          [node('tank', drop_m, { fixedGauge_Pa: 0 }), node('end', 0, { fixedGauge_Pa: 0 })],
          [['tank', 'end', [line(0.008, length_m)]]],
        ),
      ),
    ).links.get('link0')!.flow_m3PerS;
  it('twice the length under twice the head carries the same', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 30, noNaN: true }),
        fc.double({ min: 0.05, max: 3, noNaN: true }),
        (length, drop) => {
          expectClose(fall(2 * length, 2 * drop), fall(length, drop), {
            rel: 1e-6,
            why: 'friction goes with length; the least slope adds a little',
          });
        },
      ),
      { seed: 8, numRuns: 80 },
    );
  });
  it('a longer line carries less, a higher tank more', () => {
    expect(fall(3, 1)).toBeLessThan(fall(2, 1));
    expect(fall(2, 1.1)).toBeGreaterThan(fall(2, 1));
  });
});

describe('solved again from where it stood', () => {
  it('gives what is solved from nothing, whatever a draw, a pump and a level do meanwhile (seeded walks)', () => {
    const step = fc.record({
      draw: fc.double({ min: 0, max: 40e-6, noNaN: true }),
      tank_Pa: fc.double({ min: -20e3, max: 350e3, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.array(step, { minLength: 2, maxLength: 8 }),
        fc.double({ min: 150e3, max: 600e3, noNaN: true }),
        (walk, shutOff_Pa) => {
          const { graph } = unwrap(graphOf(railWith(10e-6, 300e3, shutOff_Pa)));
          const nodes = graph.nodes.map((each) => ({ ...each }));
          const ids = nodes.map(({ id }) => id);
          let before: RegulatedSolution | undefined;
          for (const { draw, tank_Pa } of walk) {
            nodes[ids.indexOf('tank')]!.fixed_Pa = tank_Pa;
            nodes[ids.indexOf('rail')]!.outflow_m3PerS = draw;
            const again = unwrap(solveRegulated({ nodes, links: graph.links }, before));
            const anew = unwrap(solveRegulated({ nodes, links: graph.links }));
            for (const [l, flow] of anew.flow_m3PerS.entries())
              expectClose(again.flow_m3PerS[l]!, flow, { rel: 1e-6, abs: 1e-11, why: 'one answer' });
            expect([...again.regulators]).toEqual([...anew.regulators]);
            before = again;
          }
        },
      ),
      { seed: 19, numRuns: 60 },
    );
  });
});
