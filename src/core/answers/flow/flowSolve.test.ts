import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import {
  chosen,
  newPart,
  parseSystemText,
  withBranch,
  withPartIn,
  type ComponentDocument,
  type LineDocument,
  type SystemDocument,
} from '../../plan';
import { feedPath } from '../../plan/circuits';
import { compileNetwork } from '../../model/compileNetwork';
import { partPositions, surfaceHeight_m, type Draw } from '../../model/networkParts';
import { dot, loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { evaluateSystem } from '../evaluate';
import { documentAt } from '../at';
import { flowInputsOf, prepare as prepareAt } from './flowInputs';
import { steadySolution } from './flowSolve';

await loadKernel();
const BOX = unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')));
const first = (system: SystemDocument) => unwrap(evaluateSystem(system, 'numbers')).flows[0]!;
const end = (item: string, name: 'in' | 'out' | 'side') => ({ item, end: name, adapters: [] });
/** A part put into a line of the box, changed as asked. */
function inLine(line: string, kind: ComponentDocument['kind'], change: Partial<ComponentDocument>): SystemDocument {
  return unwrap(withPartIn(BOX, line, { ...newPart(BOX, kind, 0.009), ...change } as ComponentDocument));
}

describe('why nothing flows', () => {
  it.each<[string, SystemDocument, string, RegExp]>([
    ['a valve before the pump', inLine('line-1', 'valve', { open: false }), 'valve-shut', /Shut-off valve is shut\.$/],
    [
      'a valve after the pump',
      inLine('line-3', 'valve', { open: false }),
      'dead-headed',
      /is shut\. .* runs against it/,
    ],
    ['a coupler parted', inLine('line-1', 'coupler', { joined: false }), 'valve-shut', /is parted/],
    ['a selector shut', inLine('line-1', 'selector', { position: 'shut' }), 'valve-shut', /does not stand this way/],
    [
      'a selector turned to its other end',
      inLine('line-1', 'selector', { position: 'side-out' }),
      'valve-shut',
      /does not stand this way/,
    ],
  ])('%s', (_, system, code, detail) => {
    const flow = first(system);
    expect(flow).toMatchObject({ ok: false, error: { code } });
    expect(flow.ok ? '' : flow.error.detail).toMatch(detail);
  });

  it('the valve of the only vent, once it leans beyond it; a cap that lets air in helps', () => {
    const leaning = (lean_deg: number): SystemDocument => ({
      ...BOX,
      conditions: { ...BOX.conditions, roll_deg: 12, fills: [{ tank: BOX.tanks[0]!.id, fill_ratio: 0.5 }] },
      tanks: BOX.tanks.map((tank) => ({
        ...tank,
        ports: tank.ports.map((port) =>
          port.role === 'vent' ? { ...port, shutOff: { lean_deg: chosen(lean_deg) } } : port,
        ),
      })),
    });
    expect(first(leaning(13))).toMatchObject({ ok: true });
    const shut = first(leaning(11));
    expect(shut).toMatchObject({ ok: false, error: { code: 'vent-shut' } });
    expect(shut.ok ? '' : shut.error.detail).toMatch(/^At this lean the valve of .* shuts .* off/);
    const capped = leaning(11);
    const drilled = { kind: 'drilled' as const, hole_m: chosen(0.004) };
    const helped = {
      ...capped,
      tanks: capped.tanks.map((tank) => ({
        ...tank,
        ports: tank.ports.map((port) => (port.role === 'filler' ? { ...port, cap: drilled } : port)),
      })),
    };
    expect(first(helped)).toMatchObject({ ok: true });
  });

  it('a pump with a relief valve is not dead-headed: it goes round itself', () => {
    const shut = inLine('line-3', 'valve', { open: false });
    const relieved = {
      ...shut,
      components: shut.components.map((part) => (part.kind === 'pump' ? { ...part, relief_Pa: chosen(20e3) } : part)),
    };
    expect(first(relieved)).toMatchObject({ ok: false, error: { code: 'valve-shut' } });
  });

  it('open parts of every kind let it through, and none gives more than none', () => {
    const bare = unwrap(first(BOX)).delivered_m3PerS;
    for (const kind of [
      'valve',
      'selector',
      'check-valve',
      'coupler',
      'meter',
      'damper',
      'vacuum-breaker',
      'tee',
      'cross',
      'fitting',
      'float-valve',
      'filter',
    ] as const) {
      const delivered = unwrap(first(inLine('line-2', kind, {}))).delivered_m3PerS;
      expect(delivered, kind).toBeGreaterThan(0.3 * bare);
      expect(delivered, kind).toBeLessThanOrEqual(bare * (1 + 1e-6));
    }
  });

  it('a float valve is shut by its full tank', () => {
    const full = inLine('line-2', 'float-valve', { closesAt_ratio: chosen(0.05) } as Partial<ComponentDocument>);
    expect(first(full).ok).toBe(false);
  });
});

describe('a regulator in the feed', () => {
  it('dead-head: the consumer gets no more than it holds', () => {
    const held = inLine('line-3', 'regulator', { set_Pa: chosen(18e3) } as Partial<ComponentDocument>);
    const flow = unwrap(first(held));
    const rise = held.lines.at(-1)!.rise_m.value;
    expect(flow.pressureAtNeed_Pa).toBeLessThanOrEqual(18e3 - 840 * 9.8 * rise + 100);
    expect(flow.links.some(({ regulating }) => regulating === 'holding')).toBe(true);
    expect(flow.margin_ratio).toBeGreaterThan(0);
  });

  it('set below the need, nothing is delivered at that pressure, and it is not negative', () => {
    const low = inLine('line-3', 'regulator', { set_Pa: chosen(2e3) } as Partial<ComponentDocument>);
    const { delivered_m3PerS } = unwrap(first(low));
    expect(delivered_m3PerS).toBeGreaterThanOrEqual(0);
    // What the regulator's seat leaks: a drop an hour at a bar.
    expect(delivered_m3PerS).toBeLessThan(1e-10);
  });
});

describe('ways of the feed', () => {
  it('a selector between two pickups decides where the fuel comes from', () => {
    const selector = newPart(BOX, 'selector', 0.009);
    const [tank] = BOX.tanks;
    const two: SystemDocument = {
      ...BOX,
      tanks: [
        {
          ...tank!,
          pickups: [...tank!.pickups, { ...tank!.pickups[0]!, id: 'deep', name: 'Deep pickup', port: 'return' }],
        },
      ],
      components: [...BOX.components, { ...selector, position: 'side-out' } as ComponentDocument],
      lines: [
        { ...BOX.lines[0]!, to: end(selector.id, 'in') },
        { ...BOX.lines[0]!, id: 'second', from: end('deep', 'out'), to: end(selector.id, 'side') },
        { ...BOX.lines[0]!, id: 'on', from: end(selector.id, 'out'), to: end('filter', 'in') },
        ...BOX.lines.slice(1),
      ],
    };
    expect(feedPath(two, 'consumer').at(-1)).toBe('deep');
    expect(
      feedPath(
        {
          ...two,
          components: two.components.map((part) =>
            part.kind === 'selector' ? { ...part, position: 'in-out' as const } : part,
          ),
        },
        'consumer',
      ).at(-1),
    ).toBe('pickup');
    expect(first(two).ok).toBe(true);
  });

  it('a vent line makes the vent harder to breathe through', () => {
    const long: LineDocument = {
      ...BOX.lines[0]!,
      id: 'vent-line',
      purpose: 'vent',
      from: end('vent', 'in'),
      to: end('outside', 'in'),
      bore_m: chosen(0.001),
      length_m: chosen(3),
    };
    const outlet = { ...newPart(BOX, 'outlet', 0.006), id: 'outside' };
    const vented = { ...BOX, components: [...BOX.components, outlet], lines: [...BOX.lines, long] };
    expect(unwrap(first(vented)).ullageGauge_Pa).toBeLessThan(unwrap(first(BOX)).ullageGauge_Pa);
  });
});

/** The box with a return from its engine to the tank that feeds it. */
const RETURN: LineDocument = {
  ...BOX.lines[2]!,
  id: 'back',
  name: 'Back',
  purpose: 'return',
  from: end('consumer', 'out'),
  to: end('return', 'in'),
};
const WITH_RETURN: SystemDocument = { ...BOX, lines: [...BOX.lines, RETURN] };

describe('duties', () => {
  const consumer = BOX.consumers[0]!;
  const [idle, full, need] = [
    consumer.burnIdle_m3PerS.value,
    consumer.burnFull_m3PerS.value,
    consumer.neededFlow_m3PerS.value,
  ];
  const drawn = (system: SystemDocument) =>
    unwrap(unwrap(evaluateSystem(system, 'full', 'without-fit')).flows[0]!).duties.map(
      ({ drawn_m3PerS }) => drawn_m3PerS,
    );
  const cruise = idle + (full - idle) * BOX.conditions.duty_ratio;

  it('without a return it draws what it burns, and its whole need at full load', () => {
    drawn(BOX).forEach((value, i) =>
      expectClose(value, [idle, cruise, need][i]!, { rel: 1e-12, why: 'burned at the duty' }),
    );
  });
  it('with one it draws at every duty what always comes back besides', () => {
    drawn(WITH_RETURN).forEach((value, i) =>
      expectClose(value, [idle + need - full, cruise + need - full, need][i]!, {
        rel: 1e-12,
        why: 'burned and returned',
      }),
    );
  });
  it('the less it draws the more pressure there is', () => {
    const { duties } = unwrap(unwrap(evaluateSystem(BOX, 'full', 'without-fit')).flows[0]!);
    expect(duties[0]!.pressure_Pa!).toBeGreaterThan(duties[1]!.pressure_Pa!);
    expect(duties[1]!.pressure_Pa!).toBeGreaterThan(duties[2]!.pressure_Pa!);
  });
});

describe('losses on the way', () => {
  const teed = unwrap(withBranch(BOX, 'line-3', 'outlet', 'overflow'));
  const losses = (system: SystemDocument) => unwrap(first(system)).losses;

  it('of a tee the ends that the way goes by, not its branch', () => {
    const tee = teed.components.find(({ kind }) => kind === 'tee')!.id;
    const ids = losses(teed)
      .map(({ id }) => id)
      .filter((id) => id.startsWith(tee));
    expect(ids.sort()).toEqual([`${tee}:in`, `${tee}:out`]);
  });
  it('of a selector the pair of ends that the way uses, however it is turned', () => {
    const [selector, other] = [
      { ...newPart(BOX, 'selector', 0.008), id: 'three', position: 'all' } as ComponentDocument,
      BOX.lines[0]!,
    ];
    const system = {
      ...BOX,
      components: [...BOX.components, selector],
      lines: [
        { ...other, to: end('three', 'side') },
        { ...other, id: 'on', from: end('three', 'out'), to: end('filter', 'in') },
        ...BOX.lines.slice(1),
      ],
    };
    const found = losses(system).filter(({ id }) => id.startsWith('three'));
    expect(found.map(({ id }) => id)).toEqual(['three:1']);
    const alone = losses({
      ...system,
      components: system.components.map((part) =>
        part.id === 'three' ? ({ ...part, position: 'side-out' } as ComponentDocument) : part,
      ),
    }).filter(({ id }) => id.startsWith('three'));
    expect(alone.map(({ id }) => id)).toEqual(['three']);
    // All three ends joined: some goes round by the end that is plugged, so that less is lost.
    expect(found[0]!.loss_Pa).toBeLessThanOrEqual(alone[0]!.loss_Pa * (1 + 1e-9));
  });
  it('all of them and what the pump gives make up the pressure at the consumer', () => {
    const flow = unwrap(first(BOX));
    const lost = flow.losses.reduce((sum, { loss_Pa }) => sum + loss_Pa, 0);
    const given = flow.pumps.reduce((sum, { rise_Pa }) => sum + rise_Pa, 0);
    const { levels, fluid, state } = flowInputsOf(BOX, BOX.consumers[0])!;
    const { gravity } = state;
    const positions = partPositions(BOX, levels);
    const head =
      fluid.density_kgPerM3 *
      gravity.magnitude_mPerS2 *
      (surfaceHeight_m(levels[0]!, gravity.up) - dot(gravity.up, positions.get('consumer')!));
    expectClose(flow.pressureAtNeed_Pa, flow.ullageGauge_Pa + head + given - lost, {
      abs: 1,
      why: 'Bernoulli from the surface to the consumer',
    });
  });
});

describe('pumps with long wires', () => {
  const wired = (length_m: number, wire: string): SystemDocument => ({
    ...BOX,
    components: BOX.components.map((part) =>
      part.kind === 'pump'
        ? {
            ...part,
            wiring: {
              freeCurrent_A: chosen(3),
              shutOffCurrent_A: chosen(9),
              wire,
              length_m: chosen(length_m),
              fuse_A: 10,
              relay: false,
              battery_Ah: chosen(70),
            },
          }
        : part,
    ),
  });
  it('the voltage that is shown is the one that its own current leaves it', () => {
    const [pump] = unwrap(first(wired(8, 'mm2-1'))).pumps;
    expectClose(pump!.volts_V, pump!.electrics!.pump_V, { abs: 1e-3, why: 'settled' });
    expect(pump!.volts_V).toBeLessThan(BOX.conditions.pumpVoltage_V);
  });
  it('thinner wire gives less flow, and never more', () => {
    const delivered = ['mm2-6', 'mm2-2-5', 'mm2-1'].map((wire) => unwrap(first(wired(8, wire))).delivered_m3PerS);
    expect(delivered[1]!).toBeLessThan(delivered[0]!);
    expect(delivered[2]!).toBeLessThan(delivered[1]!);
  });
  it.each([8, 40])('the order of the questions does not matter, nor what was asked before: %s m', (length) => {
    const system = wired(length, 'mm2-1');
    const draws = [0, 0.3, 0.7, 1, 1.3].map((share): Draw[] => [
      { consumer: 'consumer', outflow_m3PerS: share * BOX.consumers[0]!.neededFlow_m3PerS.value },
    ]);
    const anew = draws.map((draw) =>
      unwrap(steadySolution(flowInputsOf(system, system.consumers[0])!, draw, 'consumer')),
    );
    for (const order of [
      [0, 1, 2, 3, 4],
      [4, 0, 3, 1, 2],
    ]) {
      const inputs = flowInputsOf(system, system.consumers[0])!;
      for (const i of order) {
        const { solution, volts } = unwrap(steadySolution(inputs, draws[i]!, 'consumer'));
        expect(volts.size).toBe(1);
        for (const [pump, volt] of volts)
          expectClose(volt, anew[i]!.volts.get(pump)!, { abs: 2e-4, why: 'each settled to 1e-4 V' });
        for (const [id, { gauge_Pa }] of solution.nodes)
          expectClose(gauge_Pa, anew[i]!.solution.nodes.get(id)!.gauge_Pa, {
            abs: 5,
            why: '1e-4 V of a pump that pushes 50 kPa at some 12 V',
          });
      }
    }
  });
  it.each([5, 20, 30, 40, 60, 200])(
    'even where a plain repetition would swing to and fro: %s m of the thinnest wire',
    (length) => {
      const flow = unwrap(first(wired(length, 'mm2-0-5')));
      const [pump] = flow.pumps;
      expectClose(pump!.volts_V, pump!.electrics!.pump_V, { abs: 2e-3, why: 'settled' });
      // With 200 m the free current alone takes all of it: the pump stands.
      if (length === 200) expect(flow.delivered_m3PerS).toBe(0);
    },
  );
});

const prepare = (system: SystemDocument) => {
  const at = documentAt(system);
  return at.ok ? prepareAt(at.value) : at;
};

describe('made ready', () => {
  it('a change of a line leaves the tanks as they were compiled; one of the fill does not', () => {
    const [before, lineMoved] = [unwrap(prepare(BOX)), unwrap(prepare({ ...BOX, lines: BOX.lines.slice(1) }))];
    expect(lineMoved.levels[0]!.tank).toBe(before.levels[0]!.tank);
    const filled = unwrap(
      prepare({ ...BOX, conditions: { ...BOX.conditions, fills: [{ tank: BOX.tanks[0]!.id, fill_ratio: 0.2 }] } }),
    );
    expect(filled.levels[0]!.tank).toBe(before.levels[0]!.tank);
    expect(filled.levels[0]!.volume_m3).toBe(0.2 * before.levels[0]!.tank.gross_m3);
    expect(filled.levels[0]!.offset_m).toBeLessThan(before.levels[0]!.offset_m);
  });
  it.each([
    ['no-tank', { tanks: [] }],
    ['temperature-range', { conditions: { ...BOX.conditions, fuelTemperature_K: 900 } }],
    ['altitude-range', { conditions: { ...BOX.conditions, altitude_m: 1e6 } }],
  ] as [string, Partial<SystemDocument>][])('says what is wrong with the conditions: %s', (code, change) => {
    const system = { ...BOX, ...change };
    expect(prepare(system)).toMatchObject({ ok: false, error: { code } });
    expect(flowInputsOf(system, undefined)).toBeUndefined();
  });
});

describe('one network for many questions', () => {
  const inputs = flowInputsOf(BOX, BOX.consumers[0])!;
  it('what is drawn changes the consumer’s node and nothing else', () => {
    const [held, drawn] = [
      compileNetwork(inputs, [{ consumer: 'consumer', hold_Pa: 2e4 }]),
      compileNetwork(inputs, [{ consumer: 'consumer', outflow_m3PerS: 1e-6 }]),
    ];
    expect(drawn.links).toBe(held.links);
    const differing = drawn.nodes.filter((node, n) => JSON.stringify(node) !== JSON.stringify(held.nodes[n]));
    expect(differing).toEqual([expect.objectContaining({ id: 'consumer:in', outflow_m3PerS: 1e-6 })]);
    expect(differing[0]).not.toHaveProperty('fixedGauge_Pa');
  });
  it('another voltage changes the pump’s link and nothing else, in shares of its rated one', () => {
    const pump = BOX.components.find((part) => part.kind === 'pump')!;
    const at = (supply_V: number) => compileNetwork({ ...inputs, state: { ...inputs.state, supply_V } }, []);
    const rated_V = pump.kind === 'pump' ? pump.ratedVoltage_V.value : 0;
    const [full, low] = [at(rated_V), at(rated_V / 2)];
    const differing = low.links.filter((link, l) => JSON.stringify(link) !== JSON.stringify(full.links[l]));
    expect(differing.map(({ id }) => id)).toEqual([pump.id]);
    expect(differing[0]!.elements[0]).toMatchObject({ kind: 'pump', voltageRatio: 0.5 });
  });
});
