import { describe, expect, it } from 'vitest';
import { solveRegulated } from '@/core/network';
import { unwrap } from '@/core/outcome';
import { expectClose } from '../expectClose';
import { peerFlows, peerGraph, peerLinks, type PeerNetwork, type PeerPipe } from './epanetPeer';

const DIESEL = { kinematic_m2PerS: 4.3e-6, roughness_mm: 0.01 };
const PETROL = { kinematic_m2PerS: 0.6e-6, roughness_mm: 0.0457 };
const pipe = (
  id: string,
  from: string,
  to: string,
  length_m: number,
  bore_mm: number,
  more: Partial<PeerPipe> = {},
): PeerPipe => ({ id, from, to, length_m, bore_mm, ...more });
const CURVE = [
  [0, 10],
  [0.3e-3, 8.4],
  [0.6e-3, 6],
  [1.1e-3, 1],
] as const;
const SMALL = [
  [0, 6],
  [0.02e-3, 5.2],
  [0.05e-3, 3.4],
  [0.09e-3, 0.2],
] as const;
/** EPANET stops solving the content of a shut valve below about this [m³/s]. */
const STILL = 3e-8;

export const NETWORKS: readonly PeerNetwork[] = [
  {
    name: 'two reservoirs, a pump, a loop with a cross link and a draw',
    ...DIESEL,
    roughness_mm: 0.0457,
    reservoirs: { low: 0, high: 3 },
    junctions: { a: [0, 0], b: [0, 0], c: [0, 0.1e-3], d: [0, 0], e: [0, 0] },
    pipes: [
      pipe('p1', 'a', 'b', 12, 20),
      pipe('p2', 'b', 'c', 8, 25),
      pipe('p3', 'b', 'd', 15, 19),
      pipe('p4', 'c', 'd', 6, 12),
      pipe('p5', 'c', 'e', 10, 19),
      pipe('p6', 'd', 'e', 14, 12),
      pipe('p7', 'e', 'high', 9, 25),
    ],
    pumps: [{ id: 'pump', from: 'low', to: 'a', curve: CURVE }],
  },
  {
    name: 'three lines side by side, one laminar, one between, one turbulent',
    ...DIESEL,
    reservoirs: { high: 1.2, low: 0 },
    junctions: { a: [0, 0], b: [0, 0] },
    pipes: [
      pipe('in', 'high', 'a', 0.5, 25),
      pipe('thin', 'a', 'b', 3, 6),
      pipe('middle', 'a', 'b', 4, 12),
      pipe('wide', 'a', 'b', 3, 19),
      pipe('out', 'b', 'low', 0.5, 25),
    ],
  },
  {
    name: 'fittings as K in every line',
    ...PETROL,
    reservoirs: { tank: 0.9, bowl: 0 },
    junctions: { valve: [0.3, 0], filter: [0.1, 0] },
    pipes: [
      pipe('p1', 'tank', 'valve', 0.8, 8, { k: 3.5 }),
      pipe('p2', 'valve', 'filter', 1.1, 8, { k: 12 }),
      pipe('p3', 'filter', 'bowl', 0.4, 6, { k: 2.2 }),
    ],
  },
  {
    name: 'a check valve that stops a tank from filling its neighbour',
    ...DIESEL,
    reservoirs: { left: 0.4, right: 1.5, outlet: -1 },
    junctions: { tee: [0, 0] },
    pipes: [
      pipe('left', 'left', 'tee', 2, 12, { check: true }),
      pipe('right', 'right', 'tee', 2, 10),
      pipe('down', 'tee', 'outlet', 3, 16),
    ],
  },
  {
    name: 'a check valve held shut by a higher tank',
    ...DIESEL,
    reservoirs: { left: 0.1, right: 2.5, outlet: 1.6 },
    junctions: { tee: [0, 0] },
    pipes: [
      pipe('left', 'left', 'tee', 2, 12, { check: true }),
      pipe('right', 'right', 'tee', 2, 12),
      pipe('down', 'tee', 'outlet', 3, 10),
    ],
  },
  {
    name: 'two pumps to one block, each through its own line, and a long way out',
    ...DIESEL,
    reservoirs: { a: 0, b: 0.3, end: 2.2 },
    junctions: { pa: [0, 0], pb: [0, 0], block: [0.5, 0] },
    pipes: [pipe('la', 'pa', 'block', 1.2, 8), pipe('lb', 'pb', 'block', 2, 8), pipe('out', 'block', 'end', 4, 10)],
    pumps: [
      { id: 'one', from: 'a', to: 'pa', curve: SMALL },
      { id: 'two', from: 'b', to: 'pb', curve: SMALL.map(([q, h]) => [q * 0.8, h * 1.1] as const) },
    ],
  },
  {
    name: 'two pumps in a row',
    ...PETROL,
    reservoirs: { tank: 0, rail: 7 },
    junctions: { a: [0, 0], b: [0, 0], c: [0, 0], d: [0, 0] },
    pipes: [pipe('p1', 'a', 'b', 0.6, 8), pipe('p2', 'c', 'd', 2.4, 6), pipe('p3', 'd', 'rail', 0.3, 6)],
    pumps: [
      { id: 'lift', from: 'tank', to: 'a', curve: SMALL },
      { id: 'high', from: 'b', to: 'c', curve: SMALL },
    ],
  },
  {
    name: 'a grid of nine joints fed at two corners',
    ...DIESEL,
    reservoirs: { nw: 3, se: 2.6 },
    junctions: Object.fromEntries(
      Array.from({ length: 9 }, (_, n) => [`j${n}`, [0.1 * n, n === 4 ? 0.12e-3 : 0.02e-3] as const]),
    ),
    pipes: [
      pipe('from-nw', 'nw', 'j0', 2, 19),
      pipe('from-se', 'se', 'j8', 2, 16),
      ...[0, 1, 2].flatMap((r) =>
        [0, 1].map((c) => pipe(`h${r}${c}`, `j${3 * r + c}`, `j${3 * r + c + 1}`, 1.5 + 0.3 * r, 10 + 2 * c)),
      ),
      ...[0, 1].flatMap((r) =>
        [0, 1, 2].map((c) => pipe(`v${r}${c}`, `j${3 * r + c}`, `j${3 * r + c + 3}`, 2 - 0.2 * c, 12 - r)),
      ),
    ],
  },
  {
    name: 'draws fed against the given way of their lines',
    ...PETROL,
    reservoirs: { tank: 1 },
    junctions: { a: [0, 0.05e-3], b: [0, 0.03e-3], c: [0, -0.02e-3] },
    pipes: [
      pipe('p1', 'a', 'tank', 3, 12),
      pipe('p2', 'b', 'a', 2, 10),
      pipe('p3', 'c', 'b', 2, 8),
      pipe('p4', 'c', 'tank', 5, 8),
    ],
  },
  {
    name: 'a regulator that lowers the pressure for one branch',
    ...PETROL,
    reservoirs: { tank: 0, end: 0 },
    junctions: { out: [0, 0], tee: [0, 0], carb: [0.3, 0.004e-3], main: [0.1, 0], low: [0.3, 0] },
    pipes: [
      pipe('p1', 'out', 'tee', 2, 8),
      pipe('p2', 'tee', 'main', 3, 6, { k: 4 }),
      pipe('p3', 'main', 'end', 1, 4),
      pipe('p4', 'low', 'carb', 0.8, 6),
    ],
    pumps: [{ id: 'pump', from: 'tank', to: 'out', curve: SMALL }],
    regulators: [{ id: 'reg', from: 'tee', to: 'low', bore_mm: 6, holds: 'to', set_m: 1.8 }],
  },
  {
    name: 'a regulator that sends back what the rail does not take',
    ...PETROL,
    reservoirs: { tank: 0.3, back: 0.3 },
    junctions: { out: [0, 0], rail: [0.8, 0.012e-3], return: [0.8, 0] },
    pipes: [pipe('feed', 'out', 'rail', 3, 8), pipe('back', 'return', 'back', 3, 8)],
    pumps: [{ id: 'pump', from: 'tank', to: 'out', curve: SMALL }],
    regulators: [{ id: 'reg', from: 'rail', to: 'return', bore_mm: 8, holds: 'from', set_m: 3.5 }],
  },
  {
    name: 'a regulator set above what the pump reaches stands shut',
    ...PETROL,
    reservoirs: { tank: 0.3, back: 0.3 },
    junctions: { out: [0, 0], rail: [0.8, 0.06e-3], return: [0.8, 0] },
    pipes: [pipe('feed', 'out', 'rail', 3, 8), pipe('back', 'return', 'back', 3, 8)],
    pumps: [{ id: 'pump', from: 'tank', to: 'out', curve: SMALL }],
    regulators: [{ id: 'reg', from: 'rail', to: 'return', bore_mm: 8, holds: 'from', set_m: 4.5 }],
  },
];

describe('against EPANET 2.2, with its friction law and gravity', () => {
  it.each(NETWORKS.map((net) => [net.name, net] as const))('%s', async (_, net) => {
    const theirs = await peerFlows(net);
    const ours = unwrap(solveRegulated(peerGraph(net)));
    peerLinks(net).forEach((id, l) => {
      const flow = theirs.get(id)!;
      if (Math.abs(flow) < STILL) expect(Math.abs(ours.flow_m3PerS[l]!), id).toBeLessThan(STILL);
      else
        expectClose(ours.flow_m3PerS[l]!, flow, {
          rel: 0.005,
          why: `${id}: same law; EPANET writes single precision and reckons in feet`,
        });
    });
    expect(
      peerLinks(net).filter((id) => Math.abs(theirs.get(id)!) > STILL).length,
      'most lines carry flow',
    ).toBeGreaterThan(net.pipes.length / 2);
  });
});
