import { airState, fluidState } from '@/core/fluids';
import { solveNetwork, type LinkElement, type Network, type NetworkNode } from '@/core/network';
import { unwrap } from '@/core/outcome';
import { seeded } from '@/core/seeded';
import { faultsOf } from './networkLaws';

const FLUIDS = [
  unwrap(fluidState({ key: 'diesel' }, 253.15)),
  unwrap(fluidState({ key: 'diesel' }, 293.15)),
  unwrap(fluidState({ key: 'petrol' }, 298.15)),
];
const AIR = airState(293.15, 101325);

/**
 * An odd but valid network: tanks high and low over vents from a pinhole to a
 * wide neck, lines from a needle to a hose of 100 mm, pumps of every size side
 * by side and in rows with and without checks, valves with springs, regulators,
 * draws; the datum anywhere within 20 m.
 *
 * @param regulators how many at the most
 */
export function randomNetwork(seed: number, regulators = 1): Network {
  const { uniform } = seeded(seed);
  const between = (low: number, high: number): number => low + (high - low) * uniform();
  const size = (low: number, high: number): number => low * (high / low) ** uniform();
  const whole = (low: number, high: number): number => Math.floor(between(low, high + 1));
  const chance = (share: number): boolean => uniform() < share;
  const pick = <T>(all: readonly T[]): T => all[whole(0, all.length - 1)]!;
  const fluid = pick(FLUIDS);
  const datum = chance(0.5) ? 0 : between(-20, 20);
  const nodes: NetworkNode[] = [];
  const links: Network['links'][number][] = [];
  const node = (height_m: number, rest: Partial<NetworkNode> = {}): string => {
    const id = `n${nodes.length}`;
    nodes.push({ id, name: id, height_m: height_m + datum, ...rest });
    return id;
  };
  const link = (from: string, to: string, elements: LinkElement[]): void => {
    const id = `l${links.length}`;
    links.push({ id, name: `${id} (${elements.map(({ kind }) => kind).join(' + ')})`, from, to, elements });
  };
  const line = (): LinkElement => ({
    kind: 'line',
    bore_m: chance(0.2) ? size(0.0008, 0.1) : size(0.003, 0.025),
    length_m: chance(0.15) ? 0 : size(0.01, 20),
    roughness_m: pick([0, 1.5e-6, 4.5e-5]),
    fittings: chance(0.4)
      ? [
          { k1: 800, kInfinity: 0.25, sized: true, count: whole(1, 4) },
          ...(chance(0.3) ? [{ k1: 150, kInfinity: 0.05, kd: 4, sized: true, count: 1 }] : []),
        ]
      : [],
  });
  const pump = (): LinkElement => {
    const [flow, rise] = [size(1e-7, 2e-3), size(1e3, 8e5)];
    const middle = { flow_m3PerS: flow * between(0.3, 0.7), rise_Pa: rise * between(0.4, 0.9) };
    const voltageRatio = chance(0.3) ? between(0.1, 1.3) : 1;
    return {
      kind: 'pump',
      voltageRatio,
      ...(chance(0.25) ? { shutOffVoltageRatio: voltageRatio * between(-0.4, 1.1) } : {}),
      curve: [
        { flow_m3PerS: 0, rise_Pa: rise },
        ...(chance(0.5) ? [middle] : []),
        { flow_m3PerS: flow, rise_Pa: chance(0.8) ? 0 : rise * 0.2 },
      ],
    };
  };
  const check = (): LinkElement => ({ kind: 'check', ...(chance(0.3) ? { opens_Pa: size(100, 3e5) } : {}) });
  const passive = (): LinkElement => {
    const roll = uniform();
    if (roll < 0.7) return line();
    if (roll < 0.8)
      return {
        kind: 'filter',
        ratedFlow_m3PerS: size(1e-6, 1e-3),
        ratedDrop_Pa: size(10, 1e5),
        ratedViscosity_PaS: 0.003,
        dirtFactor: pick([1, 5]),
      };
    if (roll < 0.9) return { kind: 'orifice', bore_m: size(0.0003, 0.02), dischargeCoefficient: between(0.5, 0.9) };
    if (roll < 0.97)
      return {
        kind: 'body',
        ratedFlow_m3PerS: size(1e-6, 1e-3),
        ratedDrop_Pa: size(10, 1e5),
        ratedDensity_kgPerM3: 1000,
      };
    return { kind: 'open' };
  };
  const elements = (): LinkElement[] => {
    const roll = uniform();
    if (roll < 0.55) return [passive(), ...(chance(0.2) ? [passive()] : [])];
    if (roll < 0.68) return [check(), passive()];
    if (roll < 0.85) return [pump(), check(), ...(chance(0.5) ? [passive()] : [])];
    if (roll < 0.97) return [pump(), ...(chance(0.5) ? [passive()] : [])];
    return [{ kind: 'closed' }];
  };
  // Tanks: open air, a vent, what stands over the liquid.
  const tanks = Array.from({ length: whole(1, 3) }, () => {
    const height = between(-1, 2);
    const air = node(height, { fixedGauge_Pa: chance(0.9) ? 0 : between(-2e4, 2e4) });
    if (chance(0.3)) return air;
    const ullage = node(height);
    for (let v = whole(1, 2); v > 0; v--)
      link(air, ullage, [
        { kind: 'vent', bore_m: size(0.0005, 0.1), length_m: chance(0.5) ? 0 : size(0.01, 3), air: AIR },
      ]);
    return ullage;
  });
  // Joined vents: air between tanks at different heights, which weighs nothing.
  if (chance(0.3)) {
    const [a, b] = [pick(tanks), pick(tanks)];
    if (a !== b)
      links.push({
        id: `l${links.length}`,
        name: `l${links.length} (air)`,
        from: a,
        to: b,
        air: AIR,
        elements: [
          { kind: 'vent', bore_m: size(0.001, 0.05), length_m: size(0.01, 5), air: AIR },
          ...(chance(0.3) ? [check()] : []),
        ],
      });
  }
  const joints: string[] = [];
  for (let n = whole(1, 9); n > 0; n--) {
    const at = node(between(-1, 2), chance(0.2) ? { outflow_m3PerS: size(1e-8, 1e-3) * (chance(0.1) ? -1 : 1) } : {});
    const [a, b] = chance(0.7) ? [pick([...tanks, ...joints]), at] : [at, pick([...tanks, ...joints])];
    // The tree that all hangs on is open both ways, so that whatever is drawn can come.
    link(a, b, [chance(0.25) ? pump() : passive()]);
    joints.push(at);
  }
  for (let n = whole(0, joints.length + 2); n > 0; n--) {
    const [a, b] = [pick([...tanks, ...joints]), pick([...tanks, ...joints])];
    if (a !== b) link(a, b, elements());
  }
  const held = new Set<string>();
  for (let n = whole(0, regulators); n > 0; n--) {
    const outlet = chance(0.5);
    const [a, b] = [pick([...tanks, ...joints]), pick([...tanks, ...joints])];
    const end = outlet ? b : a;
    if (a === b || held.has(end)) continue;
    held.add(end);
    link(a, b, [{ kind: outlet ? 'hold-outlet' : 'hold-inlet', set_Pa: size(1e3, 5e5) }, line()]);
  }
  return { nodes, links, fluid, ambientAbs_Pa: 101325, gravity_mPerS2: 9.80665 };
}

/**
 * Solves so many networks and works every law out again. What the solver refuses with a reason that is there to be
 * seen, pumps in a ring with nothing between, is left out.
 */
export function fuzzed(count: number, regulators: number, from: number): { wrong: string[]; refused: string[] } {
  const [wrong, refused]: [string[], string[]] = [[], []];
  for (let seed = from; seed < from + count; seed++) {
    const network = randomNetwork(seed, regulators);
    const solved = solveNetwork(network);
    if (solved.ok) wrong.push(...faultsOf(network, solved.value).map((fault) => `${seed}: ${fault}`));
    else if (solved.error.code !== 'pump-loop') refused.push(`${seed}: ${solved.error.detail}`);
  }
  return { wrong, refused };
}
