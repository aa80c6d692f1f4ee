import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { chosen, parseSystemText, toPath, withValue, type LineDocument, type SystemDocument } from '../../plan';
import { openEnds, runsOf } from '../../plan/circuits';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { evaluateSystem } from '../evaluate';
import { flowInputsOf } from '../flow/flowInputs';
import { boreArea_m2 } from '../../network';
import { LINE_STOCK as LINE_ROWS } from '../../reference/lineStock';
import {
  breakSpills,
  circuitsOf,
  costliest,
  developedLength_m,
  engineNeed,
  jointsOf,
  jointSpills,
  linesList,
  mendsOf,
  routesOf,
  sizeTable,
  withLineStock,
} from './';

await loadKernel();
const BOX = unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')));
const changed = (system: SystemDocument, ...changes: readonly (readonly [string, unknown])[]): SystemDocument =>
  changes.reduce((at, [path, value]) => withValue(at, toPath(path), value), system);
const inputs = (system: SystemDocument) => flowInputsOf(system, system.consumers[0])!;
const TAKEN = { system: 'flare-37', size: '-6', side: 'female' } as const;
const end = (item: string, name: 'in' | 'out' | 'side') => ({ item, end: name, adapters: [] });

/** The box with a return from its engine to the spare port, dropped in from above. */
const RETURN: LineDocument = {
  ...BOX.lines[2]!,
  id: 'return-line',
  name: 'Return',
  purpose: 'return',
  from: end('consumer', 'out'),
  to: end('spare', 'in'),
};
const withReturn: SystemDocument = {
  ...BOX,
  lines: [...BOX.lines, RETURN],
  tanks: BOX.tanks.map((tank) => ({
    ...tank,
    ports: tank.ports.some(({ id }) => id === 'spare')
      ? tank.ports
      : [
          ...tank.ports,
          {
            ...tank.ports[0]!,
            id: 'spare',
            name: 'Spare',
            role: 'return' as const,
            x_m: chosen(0.1),
            y_m: chosen(0.1),
          },
        ],
  })),
};

describe('runs', () => {
  it('the feed is one run from pickup to engine, part by part', () => {
    const [run, ...more] = runsOf(BOX);
    expect(more).toEqual([]);
    expect(run!.steps.map(({ id }) => id)).toEqual([
      'pickup',
      'line-1',
      'filter',
      'line-2',
      'pump',
      'line-3',
      'consumer',
    ]);
  });

  it('a line written the other way round is walked against its writing', () => {
    const turned = {
      ...BOX,
      lines: BOX.lines.map((line) => (line.id === 'line-2' ? { ...line, from: line.to, to: line.from } : line)),
    };
    expect(runsOf(turned)[0]!.steps).toContainEqual({ kind: 'line', id: 'line-2', reversed: true });
  });

  it('a tee ends a run and begins two', () => {
    const tee = { id: 'tee', name: 'Tee', ends: [], kind: 'tee' as const, bore_m: chosen(0.008) };
    const branch: LineDocument = { ...BOX.lines[2]!, id: 'branch', from: end('tee', 'side'), to: end('spare', 'in') };
    const teed: SystemDocument = {
      ...withReturn,
      components: [...BOX.components, tee],
      lines: [
        { ...BOX.lines[0]!, to: end('tee', 'in') },
        { ...BOX.lines[0]!, id: 'on', from: end('tee', 'out'), to: end('filter', 'in') },
        ...BOX.lines.slice(1),
        branch,
      ],
    };
    expect(runsOf(teed).map(({ steps }) => [steps[0]!.id, steps.at(-1)!.id])).toEqual([
      ['pickup', 'tee'],
      ['tee', 'consumer'],
      ['tee', 'spare'],
    ]);
  });

  it('every line is in exactly one run, in all demos', () => {
    for (const file of ['crab-boat', 'forest-trailer', 'hill-climb-car', 'snow-vehicle']) {
      const system = unwrap(parseSystemText(readFileSync(`demo/${file}.json`, 'utf8')));
      const walked = runsOf(system).flatMap(({ steps }) =>
        steps.flatMap((step) => (step.kind === 'line' ? [step.id] : [])),
      );
      expect([...walked].sort()).toEqual(system.lines.map(({ id }) => id).sort());
    }
  });

  it('lists ends that nothing is joined to, and leaves out those with a plug', () => {
    const cut = { ...BOX, lines: BOX.lines.slice(0, 2) };
    const ofParts = (system: SystemDocument) => openEnds(system).filter(({ item }) => item !== 'return');
    expect(openEnds(cut).map(({ item }) => item)).toContain('return');
    expect(ofParts(cut)).toEqual([
      { item: 'pump', end: 'out' },
      { item: 'consumer', end: 'in' },
    ]);
    const plugged = changed(cut, ['components[1].ends', [{ ...TAKEN, end: 'out', plugged: true }]]);
    expect(ofParts(plugged)).toEqual([{ item: 'consumer', end: 'in' }]);
  });
});

describe('joints', () => {
  const made = changed(
    BOX,
    [
      'components[0].ends',
      [
        { end: 'in', system: 'npt', size: '1/4', side: 'female' },
        { end: 'out', system: 'barb', size: '3/8', side: 'male' },
      ],
    ],
    ['lines[1].bore_m', chosen(0.0095)],
  );
  const jointAt = (system: SystemDocument, line: string, at: 'from' | 'to') =>
    jointsOf(system).find((joint) => joint.line === line && joint.at === at)!;

  it('says nothing of ends that nobody has described', () => {
    expect(jointsOf(BOX).every(({ state }) => state === 'unsaid')).toBe(true);
  });
  it('hose goes over a barb of its size, with a clamp', () => {
    expect(jointAt(made, 'line-2', 'from')).toMatchObject({
      state: 'mates',
      seals: ['a smooth-band clamp over the barb'],
      spanners_m: [],
    });
  });
  it('a hose on a thread is broken, and is mended by the first chain that is offered', () => {
    const joint = jointAt(made, 'line-1', 'to');
    expect(joint.state).toBe('broken');
    const [best] = mendsOf(joint);
    expect(best!.adapters).toHaveLength(1);
    const mended = changed(made, ['lines[0].to.adapters', best!.adapters.map(({ row }) => row.key)]);
    const after = jointAt(mended, 'line-1', 'to');
    expect(after.state).toBe('mates');
    expect(after.seals).toHaveLength(2);
    expect(after.seals[1]).toMatch(/sealant/);
    expect(after.spanners_m.length).toBeGreaterThan(0);
    expect(linesList(mended, jointsOf(mended)).parts).toContainEqual(
      expect.objectContaining({ what: 'adapter', count: 1 }),
    );
  });
  it('an adapter costs pressure', () => {
    const [best] = mendsOf(jointAt(made, 'line-1', 'to'));
    const mended = changed(made, ['lines[0].to.adapters', best!.adapters.map(({ row }) => row.key)]);
    const delivered = (system: SystemDocument): number =>
      unwrap(unwrap(evaluateSystem(system, 'numbers')).flows[0]!).delivered_m3PerS;
    expect(delivered(mended)).toBeLessThan(delivered(made));
  });
  it('cuts add what goes over barbs, and totals add up', () => {
    const { cuts, totals } = linesList(made, jointsOf(made));
    cuts.forEach((cut, i) =>
      expectClose(cut.cut_m, BOX.lines[i]!.length_m.value + 0.05, { abs: 1e-12, why: 'two barbs of 25 mm' }),
    );
    expectClose(
      totals.reduce((sum, { total_m }) => sum + total_m, 0),
      cuts.reduce((sum, { cut_m }) => sum + cut_m, 0),
      { abs: 1e-12, why: 'the same metres' },
    );
  });
});

describe('the profile of a run', () => {
  const profile = (system: SystemDocument) => {
    const evaluation = unwrap(evaluateSystem(system, 'full', 'without-fit'));
    return { profile: evaluation.lines!.profiles[0]!, flow: unwrap(evaluation.flows[0]!) };
  };
  it('runs as long as its lines and ends at the pressure of the solution', () => {
    const { profile: run, flow } = profile(BOX);
    expectClose(
      run.points.at(-1)!.along_m,
      BOX.lines.reduce((sum, line) => sum + line.length_m.value, 0),
      { abs: 1e-9, why: 'the same lengths' },
    );
    expectClose(run.points.at(-1)!.gauge_Pa!, flow.nodes.find(({ id }) => id === 'consumer:in')!.staticGauge_Pa, {
      abs: 1e-6,
      why: 'the same node',
    });
  });
  it('a hump in the suction line is where it comes nearest to boiling', () => {
    const line = BOX.lines[1]!;
    const hump = changed(BOX, ['lines[1].points', [{ forward_m: line.forward_m.value / 2, toPort_m: 0, rise_m: 1.1 }]]);
    const { profile: run } = profile(hump);
    expect(run.highest!.line).toBe(line.name);
    expect(run.nearestBoiling!.line).toBe(line.name);
    const flat = profile(BOX).profile;
    expectClose(
      unwrap(unwrap(evaluateSystem(hump, 'numbers')).flows[0]!).suction.margin_Pa,
      run.nearestBoiling!.margin_Pa!,
      { abs: 1e-6, why: 'the number on top and the profile speak of one place' },
    );
    expect(run.nearestBoiling!.margin_Pa!).toBeLessThan(flat.nearestBoiling!.margin_Pa!);
    const weight = inputs(BOX).fluid.density_kgPerM3 * 9.80665;
    const [a, b] = [run.points.filter(({ line: name }) => name === line.name)[0]!, run.highest!];
    expectClose(a.gauge_Pa! - b.gauge_Pa!, weight * (b.height_m - a.height_m), { abs: 1e-6, why: 'one point' });
  });
});

describe('what runs out', () => {
  const weightless = (system: SystemDocument) => jointSpills(inputs(system));
  it('a joint over the tank gives back the line above it, and no tank', () => {
    const spill = weightless(BOX).find(({ line, at }) => line === 'line-3' && at === 'to')!;
    expect(spill.tanks).toEqual([]);
    expect(spill.lines_m3).toBeLessThanOrEqual(
      BOX.lines.reduce((sum, line) => sum + boreArea_m2(line.bore_m.value) * line.length_m.value, 0) + 1e-12,
    );
  });

  /** The engine so far under the tank's surface, by a line that falls to it. */
  const below = (drop_m: number, more: Partial<SystemDocument> = {}): SystemDocument => ({
    ...changed(
      BOX,
      ['lines[2].rise_m', chosen(-drop_m)],
      ['lines[1].rise_m', chosen(0)],
      ['lines[0].rise_m', chosen(0)],
      ['tanks[0].mounting.pitch_deg', chosen(0)],
    ),
    ...more,
  });

  it('a break under the surface siphons the tank down to the pickup, by Torricelli no further', () => {
    const low = below(2);
    const spill = breakSpills(inputs(low))[0]!;
    expect(spill.tanks).toHaveLength(1);
    const [tank] = low.tanks;
    const { length_m, width_m } = tank!.shape as unknown as { length_m: { value: number }; width_m: { value: number } };
    const [level] = inputs(low).levels;
    const inlet = level!.tank.pickups[0]!.inlet.point_m[2];
    const expected = length_m.value * width_m.value * (level!.offset_m - inlet);
    expectClose(spill.tanks[0]!.volume_m3, expected, { rel: 1e-3, why: 'a box: area times depth' });
    expect(spill.tanks[0]!.bySiphon).toBe(true);
  });

  it('a shut valve, a check valve the other way, an anti-siphon valve above the head each stop it', () => {
    const replaced = (part: SystemDocument['components'][number]): SystemDocument =>
      below(1, { components: BOX.components.map((each) => (each.id === 'filter' ? part : each)) });
    const valve = {
      id: 'filter',
      name: 'Cock',
      ends: [],
      kind: 'valve' as const,
      open: false,
      fitting: 'ball-valve' as const,
      bore_m: chosen(0.01),
    };
    expect(breakSpills(inputs(replaced(valve)))[0]).toMatchObject({ tanks: [], stoppedBy: ['Cock'] });
    expect(breakSpills(inputs(replaced({ ...valve, open: true })))[0]!.tanks).toHaveLength(1);
    const check = (opens_Pa: number) => ({
      id: 'filter',
      name: 'Anti-siphon',
      ends: [],
      kind: 'check-valve' as const,
      fitting: 'check-lift' as const,
      bore_m: chosen(0.008),
      opens_Pa: chosen(opens_Pa),
    });
    expect(breakSpills(inputs(replaced(check(30e3))))[0]).toMatchObject({ tanks: [], stoppedBy: ['Anti-siphon'] });
    expect(breakSpills(inputs(replaced(check(500))))[0]!.tanks).toHaveLength(1);
  });
});

describe('what holds a siphon', () => {
  const low = changed(
    BOX,
    ['lines[2].rise_m', chosen(-2)],
    ['lines[1].rise_m', chosen(0)],
    ['lines[0].rise_m', chosen(0)],
    ['tanks[0].mounting.pitch_deg', chosen(0)],
  );
  const instead = (part: Partial<SystemDocument['components'][number]>): SystemDocument => ({
    ...low,
    components: low.components.map((each) =>
      each.id === 'filter' ? ({ id: 'filter', name: 'Breaker', ends: [], ...part } as typeof each) : each,
    ),
  });
  const breaker = { kind: 'vacuum-breaker' as const, opens_Pa: chosen(500), bore_m: chosen(0.008) };

  it('a vacuum breaker over the surface lets air in; one under it does not', () => {
    const high = changed(instead(breaker), ['lines[0].rise_m', chosen(1)], ['lines[1].rise_m', chosen(-1)]);
    expect(breakSpills(inputs(high))[0]).toMatchObject({ tanks: [], stoppedBy: ['Breaker'] });
    const deep = changed(instead(breaker), ['lines[0].rise_m', chosen(-1)], ['lines[1].rise_m', chosen(1)]);
    expect(breakSpills(inputs(deep))[0]).toMatchObject({ stoppedBy: [], tanks: [{ bySiphon: true }] });
  });
  it('a relief valve above the head, and a pump with a check valve only the other way', () => {
    const relief = (opens_Pa: number) =>
      instead({ kind: 'relief-valve', opens_Pa: chosen(opens_Pa), bore_m: chosen(0.008) });
    expect(breakSpills(inputs(relief(50e3)))[0]!.tanks).toEqual([]);
    expect(breakSpills(inputs(relief(500)))[0]!.tanks).toHaveLength(1);
    const checked = {
      ...low,
      components: low.components.map((part) => (part.kind === 'pump' ? { ...part, checkBuiltIn: true } : part)),
    };
    // The tank's side of it comes out of the outlet, where its check valve opens.
    expect(breakSpills(inputs(checked))[0]!.tanks).toHaveLength(1);
  });
  it('by a tee both of its other ways run out: the branch adds what stands in it', () => {
    const teed = instead({ kind: 'tee', bore_m: chosen(0.008) });
    const up: LineDocument = {
      ...low.lines[0]!,
      id: 'up',
      name: 'Up',
      purpose: 'return',
      from: end('filter', 'side'),
      to: end('spare', 'in'),
      rise_m: chosen(0.5),
      length_m: chosen(2),
    };
    const branched: SystemDocument = { ...teed, tanks: withReturn.tanks, lines: [...teed.lines, up] };
    const [alone, both] = [teed, branched].map((system) =>
      breakSpills(inputs(system)).find(({ lineName }) => lineName === low.lines[2]!.name)!,
    );
    expectClose(both!.lines_m3 - alone!.lines_m3, boreArea_m2(up.bore_m.value) * 2, {
      rel: 1e-9,
      why: 'two metres of branch over the break',
    });
  });
});

describe('the list to buy by', () => {
  const parts = (system: SystemDocument) => linesList(system, jointsOf(system)).parts;
  it('holders by their distance, none at the ends', () => {
    const held = changed(BOX, ['lines[0].length_m', chosen(1)], ['lines[0].held_m', chosen(0.3)]);
    expect(parts(held).filter(({ what }) => what === 'holder')).toEqual([
      expect.objectContaining({ count: 3, where: [BOX.lines[0]!.name] }),
    ]);
    expect(parts(changed(held, ['lines[0].length_m', chosen(0.25)])).filter(({ what }) => what === 'holder')).toEqual(
      [],
    );
  });
  it('a grommet for each hole that a line passes', () => {
    const through = changed(BOX, [
      'lines[0].passes',
      [
        { name: 'frame', hole_m: chosen(0.03) },
        { name: 'bulkhead', hole_m: chosen(0.03) },
      ],
    ]);
    expect(parts(through).filter(({ what }) => what === 'grommet')).toEqual([
      expect.objectContaining({
        count: 2,
        where: [`${BOX.lines[0]!.name}, through frame`, `${BOX.lines[0]!.name}, through bulkhead`],
      }),
    ]);
  });
  it('fuse and relay of a wired pump, and every part once', () => {
    const wired: SystemDocument = {
      ...BOX,
      components: BOX.components.map((part) =>
        part.kind === 'pump'
          ? {
              ...part,
              wiring: {
                freeCurrent_A: chosen(3),
                shutOffCurrent_A: chosen(6),
                wire: 'mm2-2-5',
                length_m: chosen(4),
                fuse_A: 10,
                relay: true,
                battery_Ah: chosen(70),
              },
            }
          : part,
      ),
    };
    expect(
      parts(wired)
        .filter(({ what }) => what === 'pump electrics')
        .map(({ name }) => name),
    ).toEqual(['fuse 10 A with its holder', 'relay']);
    expect(
      parts(wired)
        .filter(({ what }) => what === 'part')
        .map(({ name, count }) => [name, count]),
    ).toEqual(BOX.components.map(({ name }) => [name, 1]));
  });
});

describe('circuits beside the feed', () => {
  it('what a bypass regulator lets by comes back too, and is what the pump gives over', () => {
    const regulator = {
      id: 'regulator',
      name: 'Regulator',
      ends: [],
      kind: 'regulator' as const,
      style: 'bypass' as const,
      set_Pa: chosen(8e3),
      bore_m: chosen(0.008),
    };
    const system: SystemDocument = {
      ...withReturn,
      components: [...BOX.components, regulator],
      lines: [
        BOX.lines[0]!,
        BOX.lines[1]!,
        { ...BOX.lines[2]!, to: end('regulator', 'in') },
        {
          ...BOX.lines[2]!,
          id: 'rail',
          name: 'Rail',
          rise_m: chosen(0),
          from: end('regulator', 'out'),
          to: end('consumer', 'in'),
        },
        { ...RETURN, from: end('regulator', 'side') },
      ],
    };
    const back = circuitsOf(inputs(system)).returns.find(({ from }) => from === 'regulator')!;
    const flow = unwrap(unwrap(evaluateSystem(system, 'full', 'without-fit')).flows[0]!);
    const of = (id: string): number => flow.links.find((link) => link.id === id)!.flow_m3PerS;
    expect(back.flow_m3PerS).toBeGreaterThan(0);
    expectClose(of('line-3'), of('rail') + of('return-line'), { rel: 1e-6, why: 'what comes goes on or back' });
    expectClose(back.flow_m3PerS, of('return-line'), { rel: 1e-3, why: 'the same need in both solutions' });
  });

  it('a return to the tank that feeds fills nothing, and one that drops in from above aerates', () => {
    const [back] = circuitsOf(inputs(withReturn)).returns;
    expect(back).toMatchObject({ elsewhere: false, full_s: undefined, aerates: true });
    const deep = {
      ...withReturn,
      tanks: withReturn.tanks.map((tank) => ({
        ...tank,
        ports: tank.ports.map((port) => (port.id === 'spare' ? { ...port, drop_m: chosen(0.25) } : port)),
      })),
    };
    expect(circuitsOf(inputs(deep)).returns[0]!.aerates).toBe(false);
  });

  it('what returns comes back to the tank: the feed carries the need, the return what is not burned', () => {
    const flow = unwrap(unwrap(evaluateSystem(withReturn, 'full', 'without-fit')).flows[0]!);
    const of = (id: string): number => flow.links.find((link) => link.id === id)!.flow_m3PerS;
    expectClose(
      of('return-line'),
      BOX.consumers[0]!.neededFlow_m3PerS.value - BOX.consumers[0]!.burnFull_m3PerS.value,
      { rel: 1e-6, why: 'the balance of the engine' },
    );
    expectClose(of('line-1'), BOX.consumers[0]!.neededFlow_m3PerS.value, { rel: 1e-6, why: 'what is drawn' });
  });

  it('gravity: less comes at the lowest level than at the set one', () => {
    const gravity = changed(
      { ...BOX, components: [], lines: [{ ...BOX.lines[0]!, to: end('consumer', 'in'), rise_m: chosen(-1) }] },
      ['consumers[0].neededPressure_Pa', chosen(0)],
    );
    const [lowest] = circuitsOf(inputs(gravity)).lowest;
    const now = unwrap(unwrap(evaluateSystem(gravity, 'numbers')).flows[0]!).delivered_m3PerS;
    expect(lowest!.delivered_m3PerS!).toBeLessThan(now);
    expect(lowest!.head_m).toBeGreaterThan(0.5);
  });
});

it('pumps screwed straight together push in a row, and round a ring they only stir', () => {
  const pump = BOX.components.find(({ kind }) => kind === 'pump')!;
  const tee = { id: 'tee', name: 'Tee', ends: [], kind: 'tee' as const, bore_m: chosen(0.01) };
  const direct = (id: string, from: LineDocument['from'], to: LineDocument['to']): LineDocument => ({
    ...BOX.lines[0]!,
    id,
    name: id,
    kind: 'direct',
    length_m: chosen(0),
    fittings: [],
    from,
    to,
  });
  const row: SystemDocument = {
    ...BOX,
    components: [...BOX.components, { ...pump, id: 'second', name: 'Second pump' }],
    lines: [
      BOX.lines[0]!,
      BOX.lines[1]!,
      direct('a', end('pump', 'out'), end('second', 'in')),
      { ...BOX.lines[2]!, from: end('second', 'out') },
    ],
  };
  const delivered = (system: SystemDocument): number =>
    unwrap(unwrap(evaluateSystem(system, 'numbers')).flows[0]!).delivered_m3PerS;
  expect(delivered(row)).toBeGreaterThan(1.1 * delivered(BOX));
  // Both in a ring that hangs on the tank by a tee: they turn the fuel round at about their free flow.
  const ring: SystemDocument = {
    ...row,
    components: [...row.components, tee],
    lines: [
      BOX.lines[0]!,
      { ...BOX.lines[1]!, to: end('tee', 'side') },
      direct('a', end('tee', 'out'), end('pump', 'in')),
      direct('b', end('pump', 'out'), end('second', 'in')),
      direct('c', end('second', 'out'), end('tee', 'in')),
    ],
  };
  expect(circuitsOf(inputs(ring)).failed).toBeUndefined();
  expect(unwrap(evaluateSystem(ring, 'numbers')).flows[0]).toMatchObject({ ok: false, error: { code: 'not-joined' } });
});

describe('two fluids', () => {
  it('each circuit runs with its own: thinner fuel runs faster through the same line', () => {
    const second = (id: string, z: number): SystemDocument['tanks'][number] => {
      const tank = JSON.parse(
        JSON.stringify(BOX.tanks[0]!)
          .replace(/"id":"([a-z-]+)"/g, `"id":"${id}-$1"`)
          .replace(/"port":"([a-z-]+)"/g, `"port":"${id}-$1"`),
      ) as SystemDocument['tanks'][number];
      return { ...tank, fluid: 'other', mounting: { ...tank.mounting, z_m: chosen(z) } };
    };
    const down: LineDocument = {
      ...BOX.lines[0]!,
      id: 'down',
      name: 'Down',
      purpose: 'transfer',
      from: end('b-pickup', 'out'),
      to: end('c-return', 'in'),
      rise_m: chosen(-1),
    };
    const both = (fluid: SystemDocument['fluids'][number]['fluid']): SystemDocument => ({
      ...BOX,
      fluids: [...BOX.fluids, { id: 'other', fluid }],
      tanks: [...BOX.tanks, second('b', 1), second('c', 0)],
      lines: [...BOX.lines, down],
    });
    const flow = (fluid: SystemDocument['fluids'][number]['fluid']): number =>
      circuitsOf(inputs(both(fluid))).transfers[0]!.flow_m3PerS;
    // Turbulent, so that thickness tells little between fuels; oil creeps.
    expect(flow('petrol')).toBeGreaterThan(flow('diesel'));
    expect(flow('engine-oil')).toBeLessThan(0.5 * flow('diesel'));
  });

  it('the profile of the second circuit boils by its own fluid', () => {
    const again = (text: string): string =>
      text.replace(/"id":"([a-z0-9-]+)"/g, '"id":"b-$1"').replace(/"(port|item)":"([a-z0-9-]+)"/g, '"$1":"b-$2"');
    const twice = <T>(of: T): T => JSON.parse(again(JSON.stringify(of))) as T;
    const both: SystemDocument = {
      ...BOX,
      fluids: [...BOX.fluids, { id: 'other', fluid: 'petrol' }],
      tanks: [...BOX.tanks, { ...twice(BOX.tanks[0]!), fluid: 'other' }],
      components: [...BOX.components, ...twice(BOX.components)],
      consumers: [...BOX.consumers, ...twice(BOX.consumers)],
      lines: [...BOX.lines, ...twice(BOX.lines)],
    };
    const { flows, lines } = unwrap(evaluateSystem(both, 'full', 'without-fit'));
    const [diesel, petrol] = flows.map(unwrap);
    expect(petrol!.fluid.vapourPressureAbs_Pa).toBeGreaterThan(10 * diesel!.fluid.vapourPressureAbs_Pa);
    const [first, second] = lines!.profiles;
    expectClose(first!.nearestBoiling!.margin_Pa!, diesel!.suction.margin_Pa, {
      abs: 1e-6,
      why: 'the number on top of the first',
    });
    expectClose(second!.nearestBoiling!.margin_Pa!, petrol!.suction.margin_Pa, {
      abs: 1e-6,
      why: 'the number on top of the second',
    });
    expectClose(second!.headPerPa, 1 / (petrol!.fluid.density_kgPerM3 * 9.80665), {
      rel: 1e-9,
      why: 'a lighter fuel stands higher',
    });
  });
});

describe('other sizes and parts', () => {
  it('a wider line never carries less, is slower and holds more; and one row is what is there', () => {
    const line = withLineStock(BOX, 2, { ...sizeRowOf('hose-push-8-mm-5-16') });
    const { rows } = sizeTable(line, 'line-3')!;
    expect(rows.filter(({ isNow }) => isNow)).toHaveLength(1);
    rows.slice(1).forEach((row, i) => {
      expect(row.flow_m3PerS!).toBeGreaterThanOrEqual(rows[i]!.flow_m3PerS! * (1 - 1e-9));
      expect(row.holds_m3).toBeGreaterThan(rows[i]!.holds_m3);
      expect(row.time_s!).toBeLessThanOrEqual(rows[i]!.time_s! * (1 + 1e-9));
    });
    const take = rows.findIndex(({ suggested }) => suggested);
    expect(rows[take]!.margin_ratio!).toBeGreaterThanOrEqual(1.2);
    const larger = sizeTable({ ...line, practice: { ...line.practice, lineFor: 'later' } }, 'line-3')!.rows.findIndex(
      ({ suggested }) => suggested,
    );
    expect(larger).toBe(take + 1);
    expect(rows[0]!.cost).toBeUndefined();
    const priced = sizeTable({ ...line, prices: [{ stock: rows[0]!.stock, perMetre: 4 }] }, 'line-3')!;
    expectClose(priced.rows[0]!.cost!, 4 * BOX.lines[2]!.length_m.value, { rel: 1e-12, why: 'metres times price' });
  });

  it('with a return too, the row that is there delivers what the number on top says', () => {
    const system = withLineStock(withReturn, 2, { ...sizeRowOf('hose-push-8-mm-5-16') });
    const top = unwrap(unwrap(evaluateSystem(system, 'numbers')).flows[0]!).delivered_m3PerS;
    const now = sizeTable(system, 'line-3')!.rows.find(({ isNow }) => isNow)!;
    expectClose(now.flow_m3PerS!, top, { rel: 1e-9, why: 'one network, one answer' });
    const [worst] = costliest(
      system,
      system.consumers[0]!,
      unwrap(unwrap(evaluateSystem(system, 'full', 'without-fit')).flows[0]!).losses,
    );
    for (const gain of worst!.gains)
      expectClose(gain.delivered_m3PerS - gain.gain_m3PerS, top, {
        rel: 1e-9,
        why: 'gains are over the number on top',
      });
  });

  it('the costliest parts come first, and what is offered for each gains or at least loses nothing much', () => {
    const flow = unwrap(unwrap(evaluateSystem(BOX, 'full', 'without-fit')).flows[0]!);
    const worst = costliest(BOX, BOX.consumers[0]!, flow.losses);
    expect(worst).toHaveLength(3);
    expect(worst[0]!.loss_Pa).toBeGreaterThanOrEqual(worst[1]!.loss_Pa);
    for (const { gains } of worst) {
      expect(gains.length).toBeGreaterThan(0);
      expect(gains[0]!.gain_m3PerS).toBeGreaterThan(0);
    }
  });
});

describe('how lines are led', () => {
  it('a square corner rounded to R saves 2R and adds a quarter circle', () => {
    const length = developedLength_m(
      [
        [0, 0, 0],
        [1, 0, 0],
        [1, 1, 0],
      ],
      0.1,
    );
    expectClose(length, 2 - 0.2 + (Math.PI / 2) * 0.1, { abs: 1e-12, why: 'tangents and arc' });
    expect(
      developedLength_m(
        [
          [0, 0, 0],
          [1, 0, 0],
          [2, 0, 0],
        ],
        0.1,
      ),
    ).toBe(2);
  });
  it('an offset of two bends of 45° is longer than its ends are apart', () => {
    const offset = 0.2;
    const points = [
      [0, 0, 0],
      [0.5, 0, 0],
      [0.5 + offset, offset, 0],
      [1.2 + offset, offset, 0],
    ] as const;
    const length = developedLength_m(
      points.map(([x, y, z]): [number, number, number] => [x, y, z]),
      0.03,
    );
    const sharp = 0.5 + offset * Math.SQRT2 + 0.7;
    expectClose(length, sharp - 2 * (2 * 0.03 * Math.tan(Math.PI / 8) - 0.03 * (Math.PI / 4)), {
      abs: 1e-12,
      why: 'two bends of 45°',
    });
  });
  it('finds a bend too tight, holders too far apart, a hole without room for its grommet, a line too short', () => {
    const [route] = routesOf(
      changed(
        BOX,
        ['lines[0].bend_m', chosen(0.02)],
        ['lines[0].held_m', chosen(2)],
        ['lines[0].passes', [{ name: 'bulkhead', hole_m: chosen(0.016) }]],
        ['lines[0].length_m', chosen(0.3)],
      ),
    );
    expect(route).toMatchObject({
      tooTight: true,
      heldTooFar: true,
      isShort: true,
      passes: [{ state: 'no-grommet-room' }],
    });
    expect(routesOf(BOX).every(({ tooTight, heldTooFar }) => !tooTight && !heldTooFar)).toBe(true);
  });
});

it('an engine of 100 kW at 250 g/kWh burns 33.6 L/h of petrol, and eight small injectors may not pass it', () => {
  const engine = {
    power_W: chosen(100e3),
    specific_kgPerJ: chosen(250e-3 / 3.6e6),
    injectors: 8,
    injectorFlow_m3PerS: chosen(1e-6),
    injectorDuty_ratio: chosen(0.85),
  };
  const need = engineNeed({ engine }, 745)!;
  expectClose(need.burn_m3PerS * 3.6e6, 33.557, { rel: 1e-4, why: '25 kg/h over 745 kg/m³' });
  expect(need.injectorsEnough).toBe(false);
  expectClose(need.duty_ratio!, need.burn_m3PerS / 8e-6, { rel: 1e-12, why: 'definition' });
});

function sizeRowOf(key: string) {
  const table = sizeTable({ ...BOX, lines: BOX.lines.map((line) => ({ ...line, kind: 'hose' as const })) }, 'line-3')!;
  const row = table.rows.find(({ stock }) => stock === key)!;
  return { ...LINE_ROWS.find((each) => each.key === row.stock)! };
}
