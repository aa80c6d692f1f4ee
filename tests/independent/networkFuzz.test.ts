import { describe, expect, it } from 'vitest';
import { airState, fluidState } from '@/core/fluids';
import { solveNetwork, type LinkElement, type Network, type NetworkNode } from '@/core/network';
import { unwrap } from '@/core/outcome';
import { expectClose } from '../expectClose';
import { fuzzed } from './networkFuzz';
import { faultsOf } from './networkLaws';

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
  roughness_m: 0,
  fittings: [],
});
const network = (nodes: NetworkNode[], links: [string, string, LinkElement[]][]): Network => ({
  nodes,
  fluid: PETROL,
  ambientAbs_Pa: 101325,
  gravity_mPerS2: 9.80665,
  links: links.map(([from, to, elements], i) => ({ id: `l${i}`, name: `l${i}`, from, to, elements })),
});
const solved = (of: Network) => {
  const solution = unwrap(solveNetwork(of));
  expect(faultsOf(of, solution)).toEqual([]);
  return solution;
};

describe('random networks, every law and balance worked out again', () => {
  it('2,000 without regulators: none wrong, none refused', () =>
    expect(fuzzed(2000, 0, 0)).toEqual({ wrong: [], refused: [] }));
  it('2,000 with up to three regulators: none wrong, none refused', () =>
    expect(fuzzed(2000, 3, 50_000)).toEqual({ wrong: [], refused: [] }));

  it('the second way finds faults where there are: a flow, a pressure and a state that are not so', () => {
    const gravity = network(
      [node('a', 1, { fixedGauge_Pa: 0 }), node('b', 0), node('c', 0, { fixedGauge_Pa: 0 })],
      [
        ['a', 'b', [line(0.006, 1)]],
        ['b', 'c', [line(0.006, 1), { kind: 'check' }]],
      ],
    );
    const right = solved(gravity);
    const link = right.links.get('l0')!;
    const joint = right.nodes.get('b')!;
    expect(
      faultsOf(gravity, {
        ...right,
        links: new Map(right.links).set('l0', { ...link, flow_m3PerS: link.flow_m3PerS * 1.001 }),
      }),
    ).not.toEqual([]);
    expect(
      faultsOf(gravity, { ...right, nodes: new Map(right.nodes).set('b', { ...joint, gauge_Pa: joint.gauge_Pa + 5 }) }),
    ).not.toEqual([]);
    const still = new Map(right.links)
      .set('l0', { ...link, flow_m3PerS: 0 })
      .set('l1', { ...right.links.get('l1')!, flow_m3PerS: 0 });
    expect(faultsOf(gravity, { ...right, links: still })).not.toEqual([]);
  });
});

describe('pumps with built-in checks', () => {
  const pump = (shutOff_Pa: number): LinkElement[] => [
    {
      kind: 'pump',
      voltageRatio: 1,
      curve: [
        { flow_m3PerS: 0, rise_Pa: shutOff_Pa },
        { flow_m3PerS: 50e-6, rise_Pa: 0 },
      ],
    },
    { kind: 'check' },
  ];
  const pair = (first_Pa: number, second_Pa: number, draw: number) =>
    network(
      [node('tank', 0, { fixedGauge_Pa: 0 }), node('tee', 0), node('rail', 0, { outflow_m3PerS: draw })],
      [
        ['tank', 'tee', pump(first_Pa)],
        ['tank', 'tee', pump(second_Pa)],
        ['tee', 'rail', [{ kind: 'hold-outlet', set_Pa: 300e3 }, line(0.008, 0.05)]],
      ],
    );

  it('two equal ones into a tee share what is drawn, half each', () => {
    const { links } = solved(pair(698e3, 698e3, 24e-6));
    for (const id of ['l0', 'l1']) expectClose(links.get(id)!.flow_m3PerS, 12e-6, { rel: 1e-6, why: 'by symmetry' });
  });

  it('of two unequal ones the weaker stands shut while the stronger keeps more than its shut-off pressure', () => {
    const { links, nodes } = solved(pair(698e3, 400e3, 10e-6));
    expect(links.get('l1')).toMatchObject({ shut: true });
    expectClose(nodes.get('tee')!.gauge_Pa, 698e3 * (1 - 10e-6 / 50e-6), {
      rel: 1e-6,
      why: 'the curve of the stronger alone',
    });
  });

  it('into a shut end it stands at its shut-off pressure', () => {
    const { nodes } = solved(
      network(
        [node('tank', 0, { fixedGauge_Pa: 0 }), node('end', 0, { outflow_m3PerS: 0 })],
        [['tank', 'end', pump(30e3)]],
      ),
    );
    expectClose(nodes.get('end')!.gauge_Pa, 30e3, { rel: 1e-9, why: 'its curve at no flow' });
  });
});

describe('links of next to no loss', () => {
  const AIR = airState(293.15, 101325);
  it('a gravity feed is solved whatever the width of its vent and wherever the datum', () => {
    const flows: number[] = [];
    for (const datum of [-20, -5, 0, 5, 300]) {
      for (const bore_mm of [6, 10, 16, 25, 40, 60, 100]) {
        const { links } = solved(
          network(
            [
              node('air', datum + 0.6, { fixedGauge_Pa: 0 }),
              node('over', datum + 0.6),
              node('out', datum + 0.6),
              node('carburettor', datum, { fixedGauge_Pa: 0 }),
            ],
            [
              ['air', 'over', [{ kind: 'vent', bore_m: bore_mm / 1e3, length_m: 0.3, air: AIR }]],
              ['over', 'out', [line(0.1, 0.01)]],
              ['out', 'carburettor', [line(0.006, 1.2)]],
            ],
          ),
        );
        flows.push(links.get('l2')!.flow_m3PerS);
      }
    }
    for (const flow of flows)
      expectClose(flow, flows[0]!, { rel: 2e-3, why: 'what a vent of 6 mm and more still costs' });
  });

  it('joints joined to each other by nothing but openness, and to a tank by a seat alone, have a pressure', () => {
    const { nodes } = solved(
      network(
        [node('tank', 2, { fixedGauge_Pa: 0 }), node('a', 0), node('b', 0), node('c', 0)],
        [
          ['a', 'b', [{ kind: 'open' }]],
          ['b', 'c', [{ kind: 'open' }]],
          ['a', 'c', [{ kind: 'open' }]],
          ['c', 'tank', [{ kind: 'check', opens_Pa: 50e3 }]],
        ],
      ),
    );
    expectClose(nodes.get('a')!.gauge_Pa, PETROL.density_kgPerM3 * 9.80665 * 2, {
      rel: 1e-6,
      why: 'no flow: the height of the tank',
    });
  });
});
