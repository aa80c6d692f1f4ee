import { describe, expect, it } from 'vitest';
import { fluidState } from '@/core/fluids';
import { solveNetwork, type LinkElement, type Network, type NetworkNode } from '@/core/network';
import { unwrap } from '@/core/outcome';
import { expectClose } from '../expectClose';

const WATER = unwrap(fluidState({ key: 'water' }, 293.15));
const G = 9.80665;
const node = (id: string, height_m: number, rest: Partial<NetworkNode> = {}): NetworkNode => ({
  id,
  name: id,
  height_m,
  ...rest,
});
const network = (nodes: NetworkNode[], links: [string, string, LinkElement[]][], fluid = WATER): Network => ({
  nodes,
  fluid,
  ambientAbs_Pa: 101325,
  gravity_mPerS2: G,
  links: links.map(([from, to, elements], i) => ({ id: `link${i}`, name: `link ${i}`, from, to, elements })),
});
const line = (bore_m: number, length_m: number, roughness_m: number, k = 0): LinkElement => ({
  kind: 'line',
  bore_m,
  length_m,
  roughness_m,
  fittings: k > 0 ? [{ k1: 0, kInfinity: k, sized: false, count: 1 }] : [],
});
const flowOf = (net: Network, id = 'link0'): number => unwrap(solveNetwork(net)).links.get(id)!.flow_m3PerS;

describe('orifice and tank, Torricelli 1643', () => {
  it('a sharp hole under a head passes C A sqrt(2 g h): White, Fluid Mechanics, 7th ed., section 6.12 (from memory), C about 0.61', () => {
    const flow = flowOf(
      network(
        [node('tank', 1.5, { fixedGauge_Pa: 0 }), node('jet', 0, { fixedGauge_Pa: 0 })],
        [['tank', 'jet', [{ kind: 'orifice', bore_m: 0.01, dischargeCoefficient: 0.61 }]]],
      ),
    );
    expectClose(flow, 0.61 * (Math.PI / 4) * 0.01 ** 2 * Math.sqrt(2 * G * 1.5), {
      rel: 1e-4,
      why: 'closed form; the blend at low flow adds (10/Re)²/2',
    });
  });

  it('a box drains through a hole in 2 A / (C a) sqrt(h / 2g): quasi-steady steps of the solver against the closed form', () => {
    const [area, bore, c, depth] = [0.4, 0.012, 0.62, 0.5];
    const steps = 2000;
    let time = 0;
    // Heights in even steps of the root of depth, so that the last are not the largest.
    for (let i = 0; i < steps; i++) {
      const [high, low] = [depth * ((steps - i) / steps) ** 2, depth * ((steps - i - 1) / steps) ** 2];
      const flow = flowOf(
        network(
          [
            node('tank', (Math.sqrt(high) + Math.sqrt(low)) ** 2 / 4, { fixedGauge_Pa: 0 }),
            node('jet', 0, { fixedGauge_Pa: 0 }),
          ],
          [['tank', 'jet', [{ kind: 'orifice', bore_m: bore, dischargeCoefficient: c }]]],
        ),
      );
      time += (area * (high - low)) / flow;
    }
    const closed = ((2 * area) / (c * (Math.PI / 4) * bore ** 2)) * Math.sqrt(depth / (2 * G));
    expectClose(time, closed, {
      rel: 2e-3,
      why: 'quasi-steady steps; at the last drops the blend of the orifice slows it',
    });
  });
});

describe('siphon, by Bernoulli with losses', () => {
  // A form of the textbook siphon (White, Fluid Mechanics, 7th ed., problems of chapter 3, from memory): ends h apart,
  // crest z over the surface.
  const [bore, length, drop, crest] = [0.02, 3, 1.2, 0.9];
  const siphon = network(
    [node('tank', 0, { fixedGauge_Pa: 0 }), node('crest', crest), node('end', -drop, { fixedGauge_Pa: 0 })],
    [
      ['tank', 'crest', [line(bore, length / 2, 0, 0.5)]],
      ['crest', 'end', [line(bore, length / 2, 0, 1)]],
    ],
  );

  it('speed follows from drop and losses', () => {
    const solution = unwrap(solveNetwork(siphon));
    const link = solution.links.get('link0')!;
    const velocity = link.velocity_mPerS!;
    // Friction by Blasius' law for smooth pipes, f = 0.316 Re^-1/4 (H. Blasius, 1913), independent of ours.
    const byBlasius = (v: number): number =>
      Math.sqrt(
        (2 * G * drop) / (1.5 + 0.316 * ((v * bore) / WATER.kinematicViscosity_m2PerS) ** -0.25 * (length / bore)),
      );
    let v = 1;
    for (let i = 0; i < 50; i++) v = byBlasius(v);
    expectClose(velocity, v, { rel: 0.02, why: 'Blasius against Colebrook: 2 % at this Reynolds number' });
  });

  it('pressure at the crest is the head over it less speed and loss: below the air’s, above boiling', () => {
    const { nodes, links } = unwrap(solveNetwork(siphon));
    const v = links.get('link0')!.velocity_mPerS!;
    const loss = links.get('link0')!.loss_Pa;
    expectClose(nodes.get('crest')!.gauge_Pa, -WATER.density_kgPerM3 * G * crest - loss, {
      rel: 1e-6,
      why: 'energy along the line; entrance and speed are in the loss',
    });
    expect(v).toBeGreaterThan(1);
    expect(nodes.get('crest')!.vapourMargin_Pa).toBeGreaterThan(0);
  });

  it('runs the same whatever the crest, until its water boils', () => {
    const at = (height: number) =>
      unwrap(
        solveNetwork({
          ...siphon,
          nodes: siphon.nodes.map((each) => (each.id === 'crest' ? { ...each, height_m: height } : each)),
        }),
      );
    expectClose(at(5).links.get('link0')!.flow_m3PerS, at(0.5).links.get('link0')!.flow_m3PerS, {
      rel: 1e-9,
      why: 'height of the crest cancels',
    });
    expect(at(10).nodes.get('crest')!.vapourMargin_Pa).toBeLessThan(0);
  });
});

describe('pump and system', () => {
  it('operating point where H = 50 - 1.2e5 Q² meets 20 + 8e4 Q²: the quadratic by hand, as in White chapter 11 (from memory)', () => {
    // In metres and m³/s; the pump's curve in forty pieces.
    const head = (q: number): number => 50 - 1.2e5 * q * q;
    const free = Math.sqrt(50 / 1.2e5);
    const curve = Array.from({ length: 40 }, (_, i) => ({
      flow_m3PerS: (free * i) / 39,
      rise_Pa: Math.max(0, WATER.density_kgPerM3 * G * head((free * i) / 39)),
    }));
    const solution = unwrap(
      solveNetwork(
        network(
          [node('low', 0, { fixedGauge_Pa: 0 }), node('pump', 0), node('high', 20, { fixedGauge_Pa: 0 })],
          [
            ['low', 'pump', [{ kind: 'pump', voltageRatio: 1, curve }]],
            [
              'pump',
              'high',
              [
                {
                  kind: 'body',
                  ratedFlow_m3PerS: 0.01,
                  ratedDrop_Pa: WATER.density_kgPerM3 * G * 8e4 * 1e-4,
                  ratedDensity_kgPerM3: WATER.density_kgPerM3,
                },
              ],
            ],
          ],
        ),
      ),
    );
    const q = Math.sqrt(30 / 2e5);
    expectClose(solution.links.get('link0')!.flow_m3PerS, q, { rel: 1e-3, why: 'curve in straight pieces' });
    expectClose(solution.nodes.get('pump')!.gauge_Pa, WATER.density_kgPerM3 * G * head(q), {
      rel: 2e-3,
      why: 'curve in straight pieces',
    });
  });

  it('three reservoirs: White, Fluid Mechanics, 7th ed., example 6.22’s method (from memory): flows into the junction balance and each line’s head is its own', () => {
    const net = network(
      [
        node('a', 20, { fixedGauge_Pa: 0 }),
        node('b', 100, { fixedGauge_Pa: 0 }),
        node('c', 40, { fixedGauge_Pa: 0 }),
        node('j', 0),
      ],
      [
        ['a', 'j', [line(0.08, 100, 0.24e-3)]],
        ['b', 'j', [line(0.06, 150, 0.12e-3)]],
        ['c', 'j', [line(0.04, 80, 0.2e-3)]],
      ],
    );
    const { nodes, links } = unwrap(solveNetwork(net));
    const [a, b, c] = ['link0', 'link1', 'link2'].map((id) => links.get(id)!);
    expectClose(a!.flow_m3PerS + b!.flow_m3PerS + c!.flow_m3PerS, 0, { abs: 1e-11, why: 'mass at the junction' });
    const junction = nodes.get('j')!.gauge_Pa / (WATER.density_kgPerM3 * G);
    [
      [a!, 20],
      [b!, 100],
      [c!, 40],
    ].forEach(([link, height]) =>
      expectClose((link as typeof a)!.loss_Pa / (WATER.density_kgPerM3 * G), (height as number) - junction, {
        abs: 1e-4,
        why: 'energy along each line',
      }),
    );
    // From b down to the others: the book's way of flow for such heights.
    expect(b!.flow_m3PerS).toBeGreaterThan(0);
    expect(a!.flow_m3PerS).toBeLessThan(0);
  });
});
