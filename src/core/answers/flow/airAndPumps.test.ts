import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import {
  chosen,
  newPart,
  parseSystemText,
  type ComponentDocument,
  type LineDocument,
  type SystemDocument,
} from '../../plan';
import { hungParts } from '../../plan/circuits';
import { inVehicle } from '../../model/compileTank';
import { partPositions, ullageNode } from '../../model/networkParts';
import { airState } from '../../fluids';
import { dot, loadKernel } from '../../geometry';
import { lineLaw, ventLaw } from '../../network';
import { fittingKs, ROUGHNESS } from '../../reference/losses';
import { seeded } from '../../seeded';
import { unwrap } from '../../outcome';
import { evaluateSystem } from '../evaluate';
import { flowInputsOf } from './flowInputs';
import { steadySolution } from './flowSolve';
import { circuitsOf } from '../lines';

await loadKernel();
const BOX = unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')));
const end = (item: string, name: 'in' | 'out' | 'side') => ({ item, end: name, adapters: [] });
const first = (system: SystemDocument) => unwrap(evaluateSystem(system, 'numbers')).flows[0]!;
const part = (
  kind: ComponentDocument['kind'],
  id: string,
  change: Partial<ComponentDocument> = {},
): ComponentDocument => ({ ...newPart(BOX, kind, 0.004), id, name: id, ...change }) as ComponentDocument;
const air = (id: string, from: LineDocument['from'], to: LineDocument['to'], length_m = 0.5): LineDocument => ({
  ...BOX.lines[0]!,
  id,
  name: id,
  purpose: 'vent',
  from,
  to,
  bore_m: chosen(0.004),
  length_m: chosen(length_m),
  rise_m: chosen(0.2),
  forward_m: chosen(0),
  toPort_m: chosen(0),
  fittings: [],
});
const vented = (parts: ComponentDocument[], lines: LineDocument[]): SystemDocument => ({
  ...BOX,
  components: [...BOX.components, ...parts],
  lines: [...BOX.lines, ...lines],
});
const ullage = (system: SystemDocument): number => unwrap(first(system)).ullageGauge_Pa;

describe('what stands on a vent line', () => {
  it('a shut valve starves the consumer, and the reason names it', () => {
    const open = vented([part('valve', 'vent cock')], [air('up', end('vent', 'in'), end('vent cock', 'in'))]);
    expect(first(open).ok).toBe(true);
    const shut = vented(
      [part('valve', 'vent cock', { open: false })],
      [air('up', end('vent', 'in'), end('vent cock', 'in'))],
    );
    expect(first(shut)).toMatchObject({
      ok: false,
      error: { code: 'vent-shut', detail: expect.stringMatching(/vent cock shuts the vent line/) },
    });
  });

  it('a line costs what the law of air in it says', () => {
    const air_ = airState(BOX.conditions.fuelTemperature_K, 101325);
    const flow = unwrap(first(BOX)).needed_m3PerS;
    const lined = vented([part('outlet', 'mouth')], [air('up', end('vent', 'in'), end('mouth', 'in'), 3)]);
    const port = BOX.tanks[0]!.ports.find(({ id }) => id === 'vent')!;
    const expected =
      ventLaw(0.004, 3, air_)(flow).pressure_Pa +
      ventLaw(port.bore_m.value, port.length_m.value, air_)(flow).pressure_Pa;
    expectClose(ullage(lined), -expected, { rel: 1e-4, why: 'both in a row; the least slope' });
  });

  it('an orifice or a clogged filter on it deepens the vacuum', () => {
    const line = [air('up', end('vent', 'in'), end('x', 'in'))];
    const bare = ullage(vented([part('outlet', 'x')], line));
    const narrow = ullage(
      vented([part('orifice', 'x', { bore_m: chosen(0.001) } as Partial<ComponentDocument>)], line),
    );
    expect(narrow).toBeLessThan(3 * bare);
    const screened = (dirt: number): number =>
      ullage(vented([part('filter', 'x', { dirt_ratio: chosen(dirt) } as Partial<ComponentDocument>)], line));
    expect(screened(50)).toBeLessThan(screened(1));
  });

  it('a check that only lets air out lets nothing be drawn, and is named', () => {
    const outward = vented([part('check-valve', 'cap')], [air('up', end('vent', 'in'), end('cap', 'in'))]);
    expect(first(outward)).toMatchObject({ ok: false, error: { code: 'against-check', at: 'cap' } });
    const inward = vented([part('check-valve', 'cap')], [air('up', end('cap', 'out'), end('vent', 'in'))]);
    expect(unwrap(first(inward)).delivered_m3PerS).toBeGreaterThan(1e-6);
  });

  it('a line that comes nowhere to the open is no vent', () => {
    const plugged = vented(
      [
        part('tee', 'tee', {
          ends: [
            { end: 'out', system: 'npt', size: '1/4', side: 'female', plugged: true },
            { end: 'side', system: 'npt', size: '1/4', side: 'female', plugged: true },
          ],
        }),
      ],
      [air('up', end('vent', 'in'), end('tee', 'in'))],
    );
    expect(first(plugged)).toMatchObject({
      ok: false,
      error: { code: 'vent-shut', detail: expect.stringMatching(/nowhere to the open/) },
    });
  });

  it('two tanks with joined vents breathe by their own lines: the other one’s length costs nothing', () => {
    const other = JSON.parse(
      JSON.stringify(BOX.tanks[0]!)
        .replace(/"id":"([a-z-]+)"/g, '"id":"b-$1"')
        .replace(/"port":"([a-z-]+)"/g, '"port":"b-$1"'),
    ) as SystemDocument['tanks'][number];
    const joined = (length_m: number): SystemDocument => ({
      ...vented(
        [part('tee', 'tee')],
        [
          air('mine', end('vent', 'in'), end('tee', 'in'), 0.5),
          air('its', end('b-vent', 'in'), end('tee', 'side'), length_m),
        ],
      ),
      tanks: [BOX.tanks[0]!, { ...other, mounting: { ...other.mounting, z_m: chosen(3) } }],
    });
    expectClose(ullage(joined(8)), ullage(joined(0.2)), {
      rel: 1e-6,
      abs: 1e-3,
      why: 'nothing is drawn from the other',
    });
    // Joined to each other alone, they are shut off from the open.
    const sealed: SystemDocument = {
      ...joined(1),
      components: BOX.components,
      lines: [...BOX.lines, air('across', end('vent', 'in'), end('b-vent', 'in'))],
    };
    expect(first(sealed)).toMatchObject({ ok: false, error: { code: 'vent-shut' } });
  });

  it('air weighs nothing: vents joined far above or below the tank leave the air over the liquid at the air outside', () => {
    const far = vented(
      [part('tee', 'tee')],
      [{ ...air('up', end('vent', 'in'), end('tee', 'in')), rise_m: chosen(20), bore_m: chosen(0.03) }],
    );
    const solution = unwrap(
      steadySolution(flowInputsOf(far, undefined)!, [{ consumer: 'consumer', outflow_m3PerS: 0 }]),
    ).solution;
    expectClose(solution.nodes.get(ullageNode('main'))!.gauge_Pa, 0, { abs: 1e-2, why: 'no flow, no weight' });
  });
});

describe('kinds of pumps', () => {
  const asType = (type: 'inline' | 'hand' | 'pulse' | 'siphon' | 'in-tank', volts: number): SystemDocument => ({
    ...BOX,
    conditions: { ...BOX.conditions, pumpVoltage_V: volts },
    components: BOX.components.map((each) => (each.kind === 'pump' ? { ...each, type } : each)),
  });
  it.each(['hand', 'pulse', 'siphon'] as const)('a %s pump does not follow the battery', (type) => {
    expectClose(unwrap(first(asType(type, 6))).delivered_m3PerS, unwrap(first(asType(type, 14))).delivered_m3PerS, {
      rel: 1e-9,
      why: 'it has no motor',
    });
    const { pumps } = unwrap(first(asType(type, 6)));
    expect(pumps[0]!.electrics).toBeUndefined();
  });
  it('an electric pump does', () =>
    expect(unwrap(first(asType('inline', 6))).delivered_m3PerS).toBeLessThan(
      0.8 * unwrap(first(asType('inline', 14))).delivered_m3PerS,
    ));

  it('an in-tank pump on its pickup lifts nothing: its inlet stands under the liquid', () => {
    const system = asType('in-tank', 13);
    const direct: LineDocument = {
      ...BOX.lines[0]!,
      id: 'screwed',
      name: 'screwed',
      kind: 'direct',
      length_m: chosen(0),
      rise_m: chosen(0),
      forward_m: chosen(0),
      toPort_m: chosen(0),
      fittings: [],
      from: end('pickup', 'out'),
      to: end('pump', 'in'),
    };
    const sunk: SystemDocument = {
      ...system,
      components: system.components.filter(({ id }) => id === 'pump'),
      lines: [direct, { ...BOX.lines[2]!, from: end('pump', 'out') }],
    };
    const onLid: SystemDocument = {
      ...sunk,
      components: sunk.components.map((each) => (each.kind === 'pump' ? { ...each, type: 'inline' as const } : each)),
    };
    const [under, above] = [unwrap(first(sunk)), unwrap(first(onLid))];
    expect(under.pumps[0]!.lift_m).toBeLessThan(0);
    expect(above.pumps[0]!.lift_m).toBeGreaterThan(0);
    // Height is only moved from before the pump to behind it: what arrives is the same.
    expectClose(under.delivered_m3PerS, above.delivered_m3PerS, {
      rel: 1e-6,
      why: 'the same heights and losses in another order',
    });
    expect(under.suction.margin_Pa).toBeGreaterThan(above.suction.margin_Pa);
  });

  /** A module: pump, filter and a regulator that lets back into the tank right there, and one line out. */
  const moduleOf = (set_Pa: number, inTank: boolean): SystemDocument => {
    const joint = (id: string, from: string, to: string): LineDocument => ({
      ...BOX.lines[0]!,
      id,
      name: id,
      kind: 'direct',
      length_m: chosen(0),
      rise_m: chosen(0),
      forward_m: chosen(0),
      toPort_m: chosen(0),
      points: [],
      fittings: [],
      from: end(from, 'out'),
      to: end(to, 'in'),
    });
    const regulator = { ...newPart(BOX, 'regulator', 0.008), id: 'regulator', style: 'bypass', set_Pa: chosen(set_Pa) };
    return {
      ...asType('in-tank', 13),
      components: [
        ...asType('in-tank', 13).components.map((each) => (each.kind === 'filter' ? { ...each, inTank } : each)),
        { ...regulator, inTank } as SystemDocument['components'][number],
      ],
      lines: [
        joint('a', 'pickup', 'pump'),
        joint('b', 'pump', 'filter'),
        joint('c', 'filter', 'regulator'),
        { ...BOX.lines[2]!, from: end('regulator', 'out') },
      ],
    };
  };

  it('seeded modules: what a regulator in the tank lets back comes out there, and Darcy by hand gives the rest', () => {
    const { uniform } = seeded(5);
    let letBack = 0;
    for (let n = 0; n < 30; n++) {
      const set_Pa = 5e3 + 35e3 * uniform();
      const made = moduleOf(set_Pa, true);
      const system = {
        ...made,
        conditions: {
          ...made.conditions,
          pitch_deg: 20 * (uniform() - 0.5),
          fills: [{ tank: 'main', fill_ratio: 0.2 + 0.7 * uniform() }],
        },
      };
      const inputs = flowInputsOf(system, system.consumers[0])!;
      const drawn = (0.2 + uniform()) * system.consumers[0]!.neededFlow_m3PerS.value;
      const solved = steadySolution(inputs, [{ consumer: 'consumer', outflow_m3PerS: drawn }], 'consumer');
      if (!solved.ok) continue;
      const { nodes, links } = solved.value.solution;
      const flow = (id: string): number => links.get(id)!.flow_m3PerS;
      const back = flow('regulator:back');
      expectClose(flow('pump'), back + drawn, { abs: 1e-10, why: 'what it moves goes on or back' });
      expectClose(flow('regulator:mouth'), back, { abs: 1e-10, why: 'what is let back comes out in the tank' });
      const before = nodes.get('regulator:in')!.gauge_Pa;
      if (back > 1e-7) {
        letBack++;
        expectClose(before, set_Pa, { abs: 5, why: 'it holds what is before it' });
      } else expect(before).toBeLessThanOrEqual(set_Pa + 5);
      // From it by the tube to the lid and the line to the engine, over the heights between, as by hand.
      const up = inputs.state.gravity.up;
      const [level] = inputs.levels;
      const pickup = level!.tank.pickups[0]!;
      const rise_m =
        dot(up, partPositions(inputs.system, inputs.levels).get('consumer')!) -
        dot(up, inVehicle(level!.tank, pickup.inlet.point_m));
      const last = BOX.lines[2]!;
      const of = (bore_m: number, length_m: number, wall: LineDocument['wall'], fittings: LineDocument['fittings']) =>
        lineLaw(
          bore_m,
          length_m,
          ROUGHNESS[wall].roughness_m,
          fittings.map(({ fitting, count }) => ({ ...fittingKs(fitting, system.practice.losses), count })),
          inputs.fluid,
        )(drawn).pressure_Pa;
      const line =
        of(pickup.document.bore_m.value, pickup.tubeLength_m, 'drawn-tube', []) +
        of(last.bore_m.value, last.length_m.value, last.wall, last.fittings);
      const behind = nodes.get('regulator:out')!.gauge_Pa;
      const weight = inputs.fluid.density_kgPerM3 * inputs.state.gravity.magnitude_mPerS2;
      expectClose(nodes.get('consumer:in')!.gauge_Pa, behind - line - weight * rise_m, {
        abs: 0.1,
        why: 'hydrostatics and what the line loses',
      });
    }
    expect(letBack).toBeGreaterThan(8);
  });

  it('a regulator in the tank warms and stirs that tank; its parts drain nothing there, and need no return line', () => {
    const [inside, outside] = [moduleOf(15e3, true), moduleOf(15e3, false)];
    const lines = (system: SystemDocument) => unwrap(evaluateSystem(system, 'full', 'without-fit')).lines!;
    const [of, apart] = [lines(inside), lines(outside)];
    expect(of.circuits.returns).toMatchObject([{ from: 'regulator', tank: 'main', elsewhere: false, aerates: false }]);
    expect(of.circuits.returns[0]!.flow_m3PerS).toBeGreaterThan(0);
    const open = ({ list }: typeof of) => list.openEnds.filter(({ item }) => item === 'regulator');
    expect(open(of)).toEqual([]);
    expect(open(apart)).toEqual([{ item: 'regulator', name: 'Regulator', end: 'side' }]);
    expect(of.jointSpills.map(({ line }) => line)).not.toContain('b');
    expect(apart.jointSpills.map(({ line }) => line)).toContain('b');
  });

  it('what follows nothing in the tank is worked out as outside, in any order of lines', () => {
    const system = moduleOf(15e3, true);
    const shuffled = { ...system, lines: system.lines.toReversed() };
    expect([...hungParts(shuffled)].sort()).toEqual([...hungParts(system)].sort());
    expect([...hungParts(system).keys()]).toEqual(['pump', 'filter', 'regulator']);
    const between = {
      ...system,
      components: system.components.map((each) => ({ ...each, inTank: each.id !== 'filter' })),
    };
    expect([...hungParts(between as SystemDocument).keys()]).toEqual(['pump']);
  });

  it('a weak pump beside a strong one without checks is told to run backward', () => {
    const pump = BOX.components.find(({ kind }) => kind === 'pump')!;
    const weak = {
      ...pump,
      id: 'weak',
      name: 'Weak pump',
      curve: [
        { flow_m3PerS: 0, rise_Pa: 2e3 },
        { flow_m3PerS: 1e-5, rise_Pa: 0 },
      ],
    } as ComponentDocument;
    const tee = (id: string) => part('tee', id, { bore_m: chosen(0.01) } as Partial<ComponentDocument>);
    const hose = (id: string, from: LineDocument['from'], to: LineDocument['to']): LineDocument => ({
      ...BOX.lines[1]!,
      id,
      name: id,
      from,
      to,
      rise_m: chosen(0),
      forward_m: chosen(0),
      toPort_m: chosen(0),
    });
    const system: SystemDocument = {
      ...BOX,
      components: [...BOX.components, weak, tee('before'), tee('behind')],
      lines: [
        BOX.lines[0]!,
        { ...BOX.lines[1]!, to: end('before', 'in') },
        hose('a', end('before', 'out'), end('pump', 'in')),
        hose('b', end('before', 'side'), end('weak', 'in')),
        hose('c', end('pump', 'out'), end('behind', 'in')),
        hose('d', end('weak', 'out'), end('behind', 'side')),
        { ...BOX.lines[2]!, from: end('behind', 'out') },
      ],
    };
    expect(circuitsOf(flowInputsOf(system, system.consumers[0])!).backflows).toMatchObject([
      { pump: 'weak', running: true },
    ]);
    const checked = {
      ...system,
      components: system.components.map(
        (each) => (each.id === 'weak' ? { ...each, checkBuiltIn: true } : each) as ComponentDocument,
      ),
    };
    expect(circuitsOf(flowInputsOf(checked, checked.consumers[0])!).backflows).toEqual([]);
  });
});

describe('static pressure', () => {
  it('the margin to boiling is that of the consumer’s own feed, whatever another circuit does', () => {
    const twice = <T>(of: T): T =>
      JSON.parse(
        JSON.stringify(of)
          .replace(/"id":"([a-z0-9-]+)"/g, '"id":"b-$1"')
          .replace(/"(port|item)":"([a-z0-9-]+)"/g, '"$1":"b-$2"'),
      ) as T;
    const thin = BOX.lines.map((line) => ({ ...line, bore_m: chosen(0.004), length_m: chosen(6) }));
    const tanks = [
      {
        ...BOX.tanks[0]!,
        ports: [...BOX.tanks[0]!.ports, ...twice(BOX.tanks[0]!.ports.filter(({ id }) => id === 'feed'))],
        pickups: [...BOX.tanks[0]!.pickups, ...twice(BOX.tanks[0]!.pickups)],
      },
    ];
    const both: SystemDocument = {
      ...BOX,
      tanks,
      components: [...BOX.components, ...twice(BOX.components)],
      consumers: [...BOX.consumers, ...twice(BOX.consumers)],
      lines: [...BOX.lines, ...twice(thin)],
    };
    const [alone, engine, second] = [
      unwrap(first(BOX)),
      ...unwrap(evaluateSystem(both, 'numbers')).flows.map(unwrap),
    ] as const;
    expect(second!.suction.margin_Pa).toBeLessThan(engine!.suction.margin_Pa - 5e3);
    expectClose(engine!.suction.margin_Pa, alone.suction.margin_Pa, {
      abs: 50,
      why: 'only the shared vent draws a little more',
    });
  });

  it('is less than the total by half the density times the speed squared', () => {
    const { nodes, links, fluid } = unwrap(first(BOX));
    const [node, line] = [nodes.find(({ id }) => id === 'pump:in')!, links.find(({ id }) => id === 'line-2')!];
    expectClose(node.gauge_Pa - node.staticGauge_Pa, (fluid.density_kgPerM3 / 2) * line.velocity_mPerS! ** 2, {
      rel: 1e-9,
      why: 'Bernoulli, in the line beside it',
    });
    expectClose(node.vapourMargin_Pa, node.staticGauge_Pa + 101325 - fluid.vapourPressureAbs_Pa, {
      rel: 1e-9,
      why: 'by definition',
    });
  });
});
