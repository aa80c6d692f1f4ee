import { Project, Workspace } from 'epanet-js';
import { beforeAll, describe, expect, it } from 'vitest';
import { solveGraph, type LossLaw } from '@/core/network';
import { unwrap } from '@/core/outcome';
import { expectClose } from '../expectClose';

/**
 * The same network in EPANET 2.2 and here: two reservoirs, a booster pump, a
 * loop with a cross link and a draw, through small fuel-line-like pipes.
 */
const EPANET_GRAVITY = 9.81456; // 32.2 ft/s²
const KINEMATIC = 4.3e-6;
const EPANET_WATER_KINEMATIC = 1.1e-5 * 0.3048 ** 2; // viscosity 1 in its option
const PIPES = [
  ['p1', 'a', 'b', 12, 20], ['p2', 'b', 'c', 8, 25], ['p3', 'b', 'd', 15, 19], ['p4', 'c', 'd', 6, 12],
  ['p5', 'c', 'e', 10, 19], ['p6', 'd', 'e', 14, 12], ['p7', 'e', 'high', 9, 25],
] as const;
const ROUGHNESS_MM = 0.0457;
const HEADS = { low: 0, high: 3 } as const;
const DRAW_M3_PER_S = 0.1e-3;
const CURVE = [[0, 10], [0.6e-3, 6], [1.1e-3, 1]] as const;

const INPUT = `[TITLE]
check
[JUNCTIONS]
a 0 0
b 0 0
c 0 ${DRAW_M3_PER_S * 1e3}
d 0 0
e 0 0
[RESERVOIRS]
low ${HEADS.low}
high ${HEADS.high}
[PIPES]
${PIPES.map(([id, from, to, length, bore]) => `${id} ${from} ${to} ${length} ${bore} ${ROUGHNESS_MM} 0 Open`).join('\n')}
[PUMPS]
pump low a HEAD curve
[CURVES]
${CURVE.map(([q, h]) => `curve ${q * 1e3} ${h}`).join('\n')}
[OPTIONS]
Units LPS
Headloss D-W
Viscosity ${KINEMATIC / EPANET_WATER_KINEMATIC}
Accuracy 0.0000001
Trials 200
[END]
`;

/** Density only scales pressures; 1000 keeps them of the usual size. */
const DENSITY = 1000;

/**
 * EPANET's friction factor (EPANET 2 manual, appendix D, from memory): laminar to
 * Re 2000, Swamee and Jain above 4000, Dunlop's cubic between.
 */
function epanetFactor(re: number, relativeRoughness: number): number {
  if (re < 2000) return 64 / re;
  const rough = relativeRoughness / 3.7;
  if (re > 4000) return 0.25 / Math.log10(rough + 5.74 / re ** 0.9) ** 2;
  const y2 = rough + 5.74 / re ** 0.9;
  const y3 = -0.86859 * Math.log(rough + 5.74 / 4000 ** 0.9);
  const fa = y3 ** -2;
  const fb = fa * (2 - 0.00514215 / (y2 * y3));
  const r = re / 2000;
  return 7 * fa - fb + r * (0.128 - 17 * fa + 2.5 * fb + r * (-0.128 + 13 * fa - 2 * fb + r * (0.032 - 3 * fa + 0.5 * fb)));
}

function epanetPipe(bore: number, length: number): LossLaw {
  const area = (Math.PI / 4) * bore ** 2;
  const loss = (flow: number): number => {
    const v = flow / area;
    return DENSITY * epanetFactor((v * bore) / KINEMATIC, ROUGHNESS_MM / 1e3 / bore) * (length / bore) * v * v / 2;
  };
  return (flow) => {
    const size = Math.max(Math.abs(flow), 1e-9);
    const step = size * 1e-4;
    return { pressure_Pa: (Math.sign(flow) || 1) * loss(size), slope_PaSPerM3: (loss(size + step) - loss(size - step)) / (2 * step) };
  };
}

/** EPANET's three-point pump: head = a - b q^c through the points. */
function powerPump(): LossLaw {
  const [[, h0], [q1, h1], [q2, h2]] = CURVE;
  const c = Math.log((h0 - h2) / (h0 - h1)) / Math.log(q2 / q1);
  const b = (h0 - h1) / q1 ** c;
  return (flow) => {
    const size = Math.max(flow, 1e-9);
    return { pressure_Pa: -DENSITY * EPANET_GRAVITY * (h0 - b * size ** c), slope_PaSPerM3: DENSITY * EPANET_GRAVITY * b * c * size ** (c - 1) };
  };
}

describe('one network against EPANET 2.2', () => {
  const theirs = new Map<string, number>();

  beforeAll(async () => {
    const workspace = new Workspace();
    await workspace.loadModule();
    workspace.writeFile('net.inp', INPUT);
    const project = new Project(workspace);
    project.open('net.inp', 'net.rpt', 'net.out');
    project.solveH();
    for (const [id] of [...PIPES, ['pump'] as const]) theirs.set(id, project.getLinkValue(project.getLinkIndex(id), 8 /* flow */) / 1e3);
    project.close();
  });

  it('gives the same flow in every pipe with the same friction law', () => {
    const names = ['low', 'high', 'a', 'b', 'c', 'd', 'e'];
    const solution = unwrap(solveGraph({
      nodes: names.map((id) => (id === 'low' || id === 'high' ? { id, fixed_Pa: DENSITY * EPANET_GRAVITY * HEADS[id] } : { id, outflow_m3PerS: id === 'c' ? DRAW_M3_PER_S : 0 })),
      links: [
        ...PIPES.map(([id, from, to, length, bore]) => ({ id, from: names.indexOf(from), to: names.indexOf(to), law: epanetPipe(bore / 1e3, length) })),
        { id: 'pump', from: names.indexOf('low'), to: names.indexOf('a'), law: powerPump() },
      ],
    }));
    [...PIPES.map(([id]) => id), 'pump'].forEach((id, i) => {
      expect(Math.abs(theirs.get(id)!)).toBeGreaterThan(1e-6);
      expectClose(solution.flow_m3PerS[i]!, theirs.get(id)!, { rel: 0.005, why: 'same law; EPANET works in single-precision output and feet' });
    });
  });
});
