import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { FILLING } from '../../../../tests/raisedSystems';
import { played, rig, rigEngine, rigPump, type RigTank } from '../../../../tests/timeSystems';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { chosen, parseSystemText, type SystemDocument } from '../../plan';
import { quiet } from '../../plan/schemaScenario';
import { allSteps } from '../../steps';
import { documentAt } from '../at';
import { evaluateSystem } from '../evaluate';
import { AS_IT_STANDS, playedFor } from '.';
import { simulate } from './simulate';

/** What builders know of tanks that are joined, vented and filled: it has to come of itself. */
beforeAll(loadKernel);

const ENGINE = rigEngine(4e-6, 0);
const LIFT_PUMP = rigPump('lift', 40_000, 3e-5);
const FEED = [
  { id: 'suck', from: ['main-pickup', 'out'], to: ['lift', 'in'], bore_m: 0.008, length_m: 1, purpose: 'feed' },
  { id: 'push', from: ['lift', 'out'], to: ['engine', 'in'], bore_m: 0.008, length_m: 0.3, purpose: 'feed' },
] as const;
const main = (more: Partial<RigTank>): RigTank => ({
  id: 'main',
  box: [0.4, 0.3, 0.3],
  outlet_m: 0.008,
  inlet_m: 0.008,
  fill: 0.9,
  ...more,
});
/** Lower than the main: nothing comes of itself. */
const aux = (more: Partial<RigTank>): RigTank => ({
  id: 'aux',
  box: [0.4, 0.3, 0.3],
  at_m: [1, 0, -0.5],
  outlet_m: 0.008,
  vent_m: 0.006,
  fill: 0.9,
  ...more,
});
const RISE = {
  id: 'rise',
  from: ['aux-pickup', 'out'],
  to: ['main-in', 'in'],
  bore_m: 0.008,
  length_m: 2,
  rise_m: 0.8,
} as const;

describe('a main without a vent draws from an auxiliary by its own vacuum', () => {
  const system = rig([main({ vent_m: 0.006 }), aux({})], [...FEED, RISE], [LIFT_PUMP], [ENGINE]);
  it('with its breather shut: the auxiliary empties first, and the main stays as full as it was', () => {
    const run = played(system, 6000, { openings: [{ at_s: 0, port: 'main-vent', stands: 'blocked' }] });
    const last = run.samples.at(-1)!;
    const burnt = run.totals.burnt_m3[0]!.volume_m3;
    expectClose(burnt, 6000 * 4e-6, { rel: 1e-3, why: 'as much as it needs' });
    expectClose(0.9 * 0.036 - last.tanks[1]!.volume_m3, burnt, { rel: 0.1, why: 'out of the auxiliary' });
    // The lift, half a metre and what the levels make of it.
    expect(last.tanks[0]!.gauge_Pa).toBeLessThan(-3000);
    expect(run.events.some(({ kind }) => kind === 'starves')).toBe(false);
  });
  it('with it open nothing comes, and nobody sees why', () => {
    const last = played(system, 6000).samples.at(-1)!;
    expectClose(last.tanks[1]!.volume_m3, 0.9 * 0.036, { rel: 5e-3, why: 'what first fills the line, if that' });
    expectClose(last.tanks[0]!.volume_m3, 0.9 * 0.036 - 6000 * 4e-6, { rel: 0.02, why: 'the main alone' });
  });
  it('open, with a tube down to its floor and no check valve, the main siphons back into the auxiliary', () => {
    const siphon = rig([main({ vent_m: 0.006, drop_m: 0.29 }), aux({})], [...FEED, RISE], [LIFT_PUMP], [ENGINE]);
    const last = played(siphon, 6000).samples.at(-1)!;
    expect(last.tanks[1]!.volume_m3).toBeGreaterThan(0.98 * 0.036);
    expect(last.lines_m3PerS[2]!).toBeLessThanOrEqual(0);
  });
  it('opened on the way, it stops there', () => {
    const run = played(system, 6000, {
      openings: [
        { at_s: 0, port: 'main-vent', stands: 'blocked' },
        { at_s: 3000, port: 'main-vent', stands: 'free' },
      ],
    });
    const at = (t_s: number) => run.samples.find((sample) => sample.t_s >= t_s)!.tanks[1]!.volume_m3;
    expect(at(3000)).toBeLessThan(0.9 * 0.036 - 0.006);
    expect(at(6000)).toBeGreaterThan(at(3000) - 5e-4);
  });
  it('with the auxiliary’s own vent blocked too, the engine dies', () => {
    const run = played(system, 20_000, {
      openings: [
        { at_s: 0, port: 'main-vent', stands: 'blocked' },
        { at_s: 0, port: 'aux-vent', stands: 'blocked' },
      ],
    });
    expect(run.events.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['starves', 'stops']));
    expect(run.samples.at(-1)!.tanks[0]!.volume_m3).toBeGreaterThan(0.01);
  });
});

describe('a high tank over a low one', () => {
  const low = (more: Partial<RigTank>): RigTank => ({
    id: 'low',
    box: [0.3, 0.3, 0.3],
    inlet_m: 0.01,
    fill: 0.2,
    ...more,
  });
  const high: RigTank = { id: 'high', box: [0.5, 0.4, 0.3], at_m: [0, 0, 1], outlet_m: 0.01, vent_m: 0.008, fill: 0.9 };
  const DOWN = {
    id: 'down',
    from: ['high-pickup', 'out'],
    to: ['low-in', 'in'],
    bore_m: 0.01,
    length_m: 1.5,
    rise_m: -0.7,
  } as const;
  it('goes on until the low one is full, and then out of its vent', () => {
    const run = played(rig([high, low({ vent_m: 0.008 })], [DOWN]), 3600);
    const spilt = run.totals.spilt_m3.find(({ id }) => id === 'low-vent')!.volume_m3;
    const last = run.samples.at(-1)!;
    expect(spilt).toBeGreaterThan(0.02);
    expect(run.events.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['full', 'covered', 'spills']));
    expectClose(last.tanks[0]!.volume_m3 + last.tanks[1]!.volume_m3 + spilt, 0.9 * 0.06 + 0.2 * 0.027, {
      rel: 2e-3,
      why: 'all of it, but for what stands in the line',
    });
  });
  it('into one that is sealed: until the gas pushes back as hard as it falls', () => {
    const run = played(rig([high, low({})], [DOWN]), 3600, { vapourLag_s: 1e7 });
    const last = run.samples.at(-1)!;
    const [from, into] = [last.tanks[0]!, last.tanks[1]!];
    const gas_m3 = 0.027 - into.volume_m3;
    expectClose(into.gauge_Pa + 101_325, (101_325 * 0.8 * 0.027) / gas_m3, { rel: 1e-3, why: 'Boyle' });
    // It falls into the low one's lid: from the high one's surface down to there.
    const head_m = 1 + from.offset_m - 0.3;
    expectClose(into.gauge_Pa, from.gauge_Pa + 834 * 9.80665 * head_m, {
      rel: 0.02,
      why: 'head of diesel, some 834 kg/m³',
    });
    expectClose(
      run.totals.spilt_m3.reduce((sum, { volume_m3 }) => sum + volume_m3, 0),
      0,
      { abs: 1e-9, why: 'none' },
    );
  });
});

describe('a pump that moves fuel into the main', () => {
  const TRANSFER = rigPump('transfer', 30_000, 1e-4);
  const LINES = [
    { id: 'in', from: ['aux-pickup', 'out'], to: ['transfer', 'in'], bore_m: 0.01, length_m: 1 },
    { id: 'up', from: ['transfer', 'out'], to: ['main-in', 'in'], bore_m: 0.01, length_m: 1, rise_m: 0.8 },
  ] as const;
  const system = rig([main({ vent_m: 0.008, fill: 0.1, drop_m: 0.01 }), aux({ box: [0.8, 0.3, 0.3] })], LINES, [
    TRANSFER,
  ]);
  it('left on, it overfills it', () => {
    const run = played(system, 1800);
    expect(run.totals.spilt_m3.find(({ id }) => id === 'main-vent')!.volume_m3).toBeGreaterThan(0.01);
  });
  it('with a level switch it stops and starts there', () => {
    const run = played(system, 1800, {
      switches: [{ pump: 'transfer', tank: 'main', stopsAt_ratio: 0.8, startsAt_ratio: 0.4 }],
    });
    expect(run.events.filter(({ kind }) => kind === 'switch-stops')).toHaveLength(1);
    expectClose(run.samples.at(-1)!.tanks[0]!.volume_m3, 0.8 * 0.036, { rel: 1e-3, why: 'there it stopped' });
    expect(run.totals.spilt_m3).toEqual([]);
  });
  it('with a float valve too', () => {
    const FLOAT: SystemDocument['components'][number] = {
      id: 'float',
      name: 'Float valve',
      kind: 'float-valve',
      tank: 'main',
      closesAt_ratio: chosen(0.7),
      bore_m: chosen(0.01),
      ends: [],
    };
    const lines = [
      LINES[0],
      { ...LINES[1], to: ['float', 'in'] as const, rise_m: 0.4 },
      { id: 'last', from: ['float', 'out'], to: ['main-in', 'in'], bore_m: 0.01, length_m: 0.3, rise_m: 0.4 } as const,
    ];
    const run = played(
      rig([main({ vent_m: 0.008, fill: 0.1, drop_m: 0.01 }), aux({ box: [0.8, 0.3, 0.3] })], lines, [TRANSFER, FLOAT]),
      1800,
    );
    expect(run.events.map(({ kind }) => kind)).toContain('float-shuts');
    expectClose(run.samples.at(-1)!.tanks[0]!.volume_m3, 0.7 * 0.036, { rel: 1e-3, why: 'there it shuts' });
  });
  it('it stops by itself when its source is dry, and its line runs empty', () => {
    const run = played(
      rig([main({ vent_m: 0.008, fill: 0.1, drop_m: 0.01 }), aux({ fill: 0.3 })], LINES, [TRANSFER]),
      1800,
    );
    expect(run.events.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['draws-air', 'line-empty']));
    const last = run.samples.at(-1)!;
    expect(last.tanks[1]!.volume_m3).toBeLessThan(1e-4);
    expectClose(last.lines_m3PerS[0]!, 0, { abs: 1e-9, why: 'nothing moves' });
  });
});

describe('a fill at a station', () => {
  const tank = (vent_m: number, tube_m: number): SystemDocument =>
    rig(
      [{ id: 'a', box: [0.6, 0.4, 0.3], vent_m, ventLength_m: 1, filler_m: 0.038, neck_m: 0.25, tube_m, fill: 0.05 }],
      [],
    );
  const fill = (vent_m: number, tube_m: number) =>
    played(tank(vent_m, tube_m), 600, {
      pours: [
        {
          at_s: 1,
          port: 'a-filler',
          flow_m3PerS: 38e-3 / 60,
          volume_m3: 1,
          spout_m: 0.025,
          inserted_m: 0.08,
          stops: 'automatic',
        },
      ],
    });
  const clicked = (vent_m: number, tube_m = 0.25) => {
    const run = fill(vent_m, tube_m);
    const click = run.events.find(({ kind }) => kind === 'clicks-off')!;
    return run.samples.find(({ t_s }) => t_s >= click.t_s)!.tanks[0]!;
  };
  it('without a tube below its neck gas gets out there too, and a thin vent does no harm', () => {
    expect(clicked(0.004, 0).volume_m3).toBeGreaterThan(0.95 * 0.072);
  });
  it('with a wide vent it clicks off full; the thinner the vent, the sooner, and the harder gas pushes', () => {
    const [wide, thin, thinner] = [clicked(0.016), clicked(0.006), clicked(0.004)];
    expect(wide.volume_m3).toBeGreaterThan(0.95 * 0.072);
    expect(thin.volume_m3).toBeLessThan(wide.volume_m3 * (1 + 1e-6));
    expect(thinner.volume_m3).toBeLessThan(0.5 * 0.072);
    expect(thinner.gauge_Pa).toBeGreaterThan(1500);
  });
});

describe('what stands on a vent or filler', () => {
  const VALVE: SystemDocument['components'][number] = {
    id: 'tap',
    name: 'Tap',
    kind: 'valve',
    open: false,
    fitting: 'ball-valve',
    bore_m: chosen(0.01),
    ends: [],
  } as SystemDocument['components'][number];
  const pair = (tap: boolean) =>
    rig(
      [
        { id: 'a', box: [0.3, 0.3, 0.3], vent_m: 0.01, filler_m: 0.05, cap: { kind: 'plain' }, neck_m: 0.5, fill: 0.5 },
        {
          id: 'b',
          box: [0.3, 0.3, 0.3],
          at_m: [1, 0, 0],
          vent_m: 0.01,
          filler_m: 0.05,
          cap: { kind: 'drilled', hole_m: chosen(0.003) },
          fill: 0.1,
        },
      ],
      [
        {
          id: 'up',
          from: ['a-vent', 'in'],
          to: ['tap', 'in'],
          bore_m: 0.01,
          length_m: 0.5,
          rise_m: 0.05,
          purpose: 'vent',
        },
        {
          id: 'over',
          from: ['tap', 'out'],
          to: ['b-vent', 'in'],
          bore_m: 0.01,
          length_m: 0.5,
          rise_m: -0.05,
          purpose: 'vent',
        },
      ],
      [{ ...VALVE, open: tap } as SystemDocument['components'][number]],
    );
  const pour = {
    at_s: 1,
    port: 'a-filler',
    flow_m3PerS: 2e-5,
    volume_m3: 0.02,
    spout_m: 0.0499,
    inserted_m: 0.01,
    stops: 'manual',
  } as const;
  it('two vents joined over a tap: what overfills one comes over into the other, up past the joint', () => {
    const run = played(pair(true), 1500, { pours: [pour] });
    const last = run.samples.at(-1)!;
    expect(last.tanks[1]!.volume_m3).toBeGreaterThan(0.1 * 0.027 + 1e-3);
    expectClose(
      last.tanks[0]!.volume_m3 +
        last.tanks[1]!.volume_m3 +
        run.totals.spilt_m3.reduce((sum, { volume_m3 }) => sum + volume_m3, 0),
      0.6 * 0.027 + run.totals.poured_m3,
      { rel: 1e-6, why: 'all of it' },
    );
  });
  it('with the tap shut nothing comes over, and its gas is squeezed instead', () => {
    const run = played(pair(false), 1500, { pours: [pour] });
    const last = run.samples.at(-1)!;
    expectClose(last.tanks[1]!.volume_m3, 0.1 * 0.027, { rel: 1e-4, why: 'as it was' });
    expect(Math.max(...run.samples.map(({ tanks }) => tanks[0]!.gauge_Pa))).toBeGreaterThan(500);
  });
  it('opened on the way by the scenario, gas finds its way over', () => {
    const heat = {
      temperatures: [
        { at_s: 0, temperature_K: 285.15 },
        { at_s: 500, temperature_K: 305.15 },
      ],
      vapourLag_s: 1e7,
    };
    const shut = played(pair(false), 600, heat).samples.at(-1)!.tanks[0]!.gauge_Pa;
    const opened = played(pair(false), 600, { ...heat, sets: [{ at_s: 550, part: 'tap', on: true }] }).samples.at(-1)!;
    expectClose(shut, 101_325 * (305.15 / 285.15) * (0.5 / (1 - 0.5 * (1 + 20 * 8.3e-4))) - 101_325, {
      rel: 0.02,
      why: 'gas law, fuel swelling by some 0.083 % a kelvin',
    });
    expect(Math.abs(opened.tanks[0]!.gauge_Pa)).toBeLessThan(50);
  });
  const warmed = (cap: RigTank['cap']) =>
    played(rig([{ id: 'a', box: [0.3, 0.3, 0.3], filler_m: 0.05, ...(cap ? { cap } : {}), fill: 0.5 }], []), 4000, {
      temperatures: [
        { at_s: 0, temperature_K: 285.15 },
        { at_s: 2000, temperature_K: 305.15 },
        { at_s: 4000, temperature_K: 285.15 },
      ],
      vapourLag_s: 1e7,
    });
  const pressures = (cap: RigTank['cap']) => {
    const all = warmed(cap).samples.map(({ tanks }) => tanks[0]!.gauge_Pa);
    return { most: Math.max(...all), least: Math.min(...all) };
  };
  it('a cap that only lets in holds what builds up in the sun; one of both ways lets it go at its pressure', () => {
    const [holds, both] = [
      pressures({ kind: 'in-only', hole_m: chosen(0.003), opensIn_Pa: chosen(500) }),
      pressures({ kind: 'both-ways', hole_m: chosen(0.003), opensIn_Pa: chosen(500), opensOut_Pa: chosen(3000) }),
    ];
    expect(holds.most).toBeGreaterThan(7000);
    expect(holds.least).toBeGreaterThan(-510);
    expectClose(both.most, 3000, { abs: 20, why: 'its spring, and next to nothing for its hole' });
    expectClose(both.least, -500, { abs: 20, why: 'the other one' });
  });
  it('off, a cap holds nothing', () => {
    const open = played(
      rig([{ id: 'a', box: [0.3, 0.3, 0.3], filler_m: 0.05, cap: { kind: 'plain' }, fill: 0.5 }], []),
      2000,
      {
        openings: [{ at_s: 0, port: 'a-filler', stands: 'off' }],
        temperatures: [
          { at_s: 0, temperature_K: 285.15 },
          { at_s: 2000, temperature_K: 305.15 },
        ],
      },
    );
    expect(Math.max(...open.samples.map(({ tanks }) => Math.abs(tanks[0]!.gauge_Pa)))).toBeLessThan(1);
  });
});

describe('what shuts a vent by itself', () => {
  type ShutOff = NonNullable<SystemDocument['tanks'][number]['ports'][number]['shutOff']>;
  const vented = (shutOff: ShutOff | undefined, fill = 0.6): SystemDocument => {
    const system = rig([{ id: 'a', box: [0.6, 0.4, 0.3], vent_m: 0.008, ventLength_m: 0.1, fill }], []);
    return {
      ...system,
      tanks: system.tanks.map((tank) => ({
        ...tank,
        ports: tank.ports.map((port) => (port.role === 'vent' && shutOff ? { ...port, shutOff } : port)),
      })),
    };
  };
  const OVER = [{ at_s: 2, pitch_deg: 0, roll_deg: 180, evenly: true }];
  const spilt = (run: ReturnType<typeof played>): number =>
    run.totals.spilt_m3.reduce((sum, { volume_m3 }) => sum + volume_m3, 0);

  it('rolled over an open vent spills, one with a valve does not, and one whose valve sticks spills as the open one', () => {
    const open = played(vented(undefined), 300, { slopes: OVER });
    const valved = played(vented({ lean_deg: chosen(45) }), 300, { slopes: OVER });
    const stuck = played(vented({ lean_deg: chosen(45) }), 300, {
      slopes: OVER,
      openings: [{ at_s: 0, port: 'a-vent', stands: 'stuck' }],
    });
    expect(spilt(open)).toBeGreaterThan(1e-4);
    expect(spilt(valved)).toBe(0);
    expect(spilt(stuck)).toBe(spilt(open));
    const shuts = valved.events.find(({ kind }) => kind === 'vent-shuts')!;
    // A quarter of the way to 180 degrees in 2 s, to a step of a degree.
    expectClose(shuts.t_s, 0.5, { abs: 0.012, why: 'a slope goes in steps of a degree' });
    expect(stuck.events.some(({ kind }) => kind === 'vent-shuts')).toBe(false);
  });

  it('righted again it opens, and gas comes in by it', () => {
    const run = played(vented({ lean_deg: chosen(45) }), 100, {
      slopes: [
        ...OVER,
        { at_s: 50, pitch_deg: 0, roll_deg: 180, evenly: false },
        { at_s: 52, pitch_deg: 0, roll_deg: 0, evenly: true },
      ],
    });
    expect(run.events.filter(({ kind }) => kind.startsWith('vent-')).map(({ kind }) => kind)).toEqual([
      'vent-shuts',
      'vent-opens',
    ]);
    expectClose(run.samples.at(-1)!.tanks[0]!.gauge_Pa, 0, { abs: 1, why: 'the open vent evens it out' });
  });

  it('less than its lean leaves it open', () => {
    const run = played(vented({ lean_deg: chosen(45) }), 60, {
      slopes: [{ at_s: 10, pitch_deg: 0, roll_deg: 44, evenly: true }],
    });
    expect(run.events.some(({ kind }) => kind === 'vent-shuts')).toBe(false);
  });

  it('a float holds liquid back wherever it comes from, and lets air in again when it has gone', () => {
    const floats = played(vented({ float: true }), 300, { slopes: OVER });
    expect(spilt(floats)).toBe(0);
    expect(floats.events.some(({ kind }) => kind === 'vent-shuts')).toBe(true);
    const filled = (shutOff: ShutOff | undefined) => played(twoTanks(shutOff), 3000);
    expect(spilt(filled(undefined))).toBeGreaterThan(0.01);
    expect(spilt(filled({ float: true }))).toBe(0);
  });
  const twoTanks = (shutOff: ShutOff | undefined): SystemDocument => {
    const system = rig(
      [
        { id: 'a', box: [0.6, 0.4, 0.3], vent_m: 0.008, ventLength_m: 0.1, inlet_m: 0.01, fill: 0.9 },
        { id: 'b', box: [0.6, 0.4, 0.3], at_m: [0, 1, 1], vent_m: 0.01, outlet_m: 0.01, fill: 0.9 },
      ],
      [{ id: 'down', from: ['b-pickup', 'out'], to: ['a-in', 'in'], bore_m: 0.01, length_m: 1, rise_m: -0.7 }],
    );
    return {
      ...system,
      tanks: system.tanks.map((tank) => ({
        ...tank,
        ports: tank.ports.map((port) => (port.id === 'a-vent' && shutOff ? { ...port, shutOff } : port)),
      })),
    };
  };

  it('a silencer resists beside the hole, by the one point that it is rated at', () => {
    const draws = (screened: boolean): number => {
      const system = rig(
        [{ id: 'a', box: [0.6, 0.4, 0.3], vent_m: 0.02, ventLength_m: 0.01, outlet_m: 0.012, fill: 0.9 }],
        [
          { id: 'in', from: ['a-pickup', 'out'], to: ['lift', 'in'], bore_m: 0.012, length_m: 0.3 },
          { id: 'on', from: ['lift', 'out'], to: ['engine', 'in'], bore_m: 0.012, length_m: 0.3 },
        ],
        [rigPump('lift', 40_000, 2e-4)],
        [rigEngine(1e-4, 0)],
      );
      const screen = { flow_m3PerS: chosen(5e-4), loss_Pa: chosen(3000) };
      const run = played(
        {
          ...system,
          tanks: system.tanks.map((tank) => ({
            ...tank,
            ports: tank.ports.map((port) => (port.role === 'vent' && screened ? { ...port, screen } : port)),
          })),
        },
        60,
      );
      return run.samples.at(-1)!.tanks[0]!.gauge_Pa;
    };
    // 3000 Pa at 0.5 L/s are 600 Pa at 0.1 L/s, air a little thinner in the cold than at 20 °C.
    expectClose(draws(true) - draws(false), -600, { rel: 0.04, why: 'air of 12 °C against 20 °C' });
  });
});

it('a filter that clogs on the way starves what it fed; a new element feeds it again', () => {
  const filter = {
    id: 'sieve',
    name: 'Sieve',
    kind: 'filter',
    type: 'filter',
    ratedFlow_m3PerS: chosen(4e-6),
    ratedDrop_Pa: chosen(2000),
    ratedViscosity_PaS: chosen(0.003),
    dirt_ratio: chosen(1),
    ends: [],
  } as unknown as SystemDocument['components'][number];
  const system = rig(
    [{ id: 'a', box: [0.6, 0.4, 0.3], vent_m: 0.02, outlet_m: 0.01, fill: 0.9 }],
    [
      { id: 'in', from: ['a-pickup', 'out'], to: ['sieve', 'in'], bore_m: 0.01, length_m: 0.3 },
      { id: 'on', from: ['sieve', 'out'], to: ['engine', 'in'], bore_m: 0.01, length_m: 0.3, rise_m: -0.6 },
    ],
    [filter],
    [rigEngine(4e-6, 0)],
  );
  const clogged = (dirt_ratio: number) =>
    played(system, 600, {
      filters: [
        { at_s: 100, part: 'sieve', dirt_ratio },
        { at_s: 300, part: 'sieve', dirt_ratio: 1 },
      ],
    });
  const [some, all] = [clogged(5), clogged(20)];
  const at = (run: typeof some, kind: string): number | undefined =>
    run.events.find((event) => event.kind === kind)?.t_s;
  expect([at(some, 'starves'), at(all, 'starves')]).toEqual([100, 100]);
  expectClose(at(some, 'fed')!, 300, { abs: 0.01, why: 'it is changed then' });
  expect(at(some, 'stops')).toBeUndefined();
  // Less than a fifth for five seconds: it stops, and a new element does not start it.
  expectClose(at(all, 'stops')!, 105, { abs: 0.01, why: 'five seconds after' });
  expect(at(all, 'fed')).toBeUndefined();
  // Darcy: what gets through is as the dirt, but for what pipes lose.
  const through = (run: typeof some): number => run.samples.find(({ t_s }) => t_s > 101)!.consumers_m3PerS[0]!;
  expectClose(through(some) / through(all), 4, { rel: 0.02, why: 'pipes lose little at such flows' });
});

describe('a nozzle of the system, held into a can', () => {
  const FLOW = 5e-4;
  const filling = (stops: 'automatic' | 'manual'): SystemDocument => ({
    ...FILLING,
    consumers: FILLING.consumers.map((each) => ({ ...each, nozzle: { ...each.nozzle!, stops } })),
  });
  const takes_m3 = FILLING.components.flatMap((part) => (part.kind === 'receiver' ? [part.takes_m3.value] : []))[0]!;
  const runs = { at_s: 0, duty_ratio: 1, runs: true };

  it('that shuts by itself gives what the can takes, and again into the next one', () => {
    const one = played(filling('automatic'), 400, { duties: [runs] });
    const shuts = one.events.filter(({ kind }) => kind === 'nozzle-shuts');
    expectClose(shuts[0]!.t_s, takes_m3 / FLOW, { rel: 1e-4, why: 'volume over flow' });
    expectClose(one.totals.burnt_m3[0]!.volume_m3, takes_m3, { rel: 1e-6, why: 'what it takes' });
    expect(one.totals.spilt_m3).toEqual([]);
    const two = played(filling('automatic'), 600, { duties: [runs, { ...runs, at_s: 300 }] });
    expect(two.events.filter(({ kind }) => kind === 'nozzle-shuts')).toHaveLength(2);
    expectClose(two.totals.burnt_m3[0]!.volume_m3, 2 * takes_m3, { rel: 1e-6, why: 'two cans' });
  });

  it('that nobody shuts runs the rest over the can', () => {
    const run = played(filling('manual'), 300, { duties: [runs] });
    const full_s = run.events.find(({ kind }) => kind === 'runs-over')!.t_s;
    expectClose(full_s, takes_m3 / FLOW, { rel: 1e-4, why: 'volume over flow' });
    expectClose(run.totals.burnt_m3[0]!.volume_m3, takes_m3, { rel: 1e-6, why: 'what it takes' });
    const [over] = run.totals.spilt_m3;
    expect(over!.id).toBe('receiver');
    expectClose(over!.volume_m3, (300 - full_s) * FLOW, { rel: 1e-4, why: 'all that comes after' });
    // Shut by hand in time, nothing does.
    const shut = played(filling('manual'), 300, { duties: [runs, { at_s: full_s - 1, duty_ratio: 0, runs: false }] });
    expect(shut.totals.spilt_m3).toEqual([]);
  });
});

describe('a neck', () => {
  const [BORE_M, SLOPE_DEG] = [0.05, 30];
  const t = Math.tan((SLOPE_DEG * Math.PI) / 180);

  it.each([0.05, 0.03])('below a vent that stays free takes its share, up to the spout (%s m over the lid)', (up_m) => {
    // Nose down the filler is a hand lower than the vent: the tank fills into its neck before the vent is covered.
    const neck_m = 0.12;
    const run = played(
      rig([{ id: 'a', box: [0.4, 0.3, 0.3], filler_m: BORE_M, neck_m, vent_m: 0.01, fill: 0.5 }], []),
      1500,
      {
        vapourLag_s: 1e7,
        slopes: [{ at_s: 0, pitch_deg: -SLOPE_DEG, roll_deg: 0, evenly: false }],
        pours: [
          {
            at_s: 1,
            port: 'a-filler',
            flow_m3PerS: 1e-5,
            volume_m3: 1,
            spout_m: 0.02,
            inserted_m: neck_m - up_m,
            stops: 'automatic',
          },
        ],
      },
    );
    const clicks = run.events.find(({ kind }) => kind === 'clicks-off')!;
    expect(run.events.some(({ kind, of }) => kind === 'covered' && of === 'a-vent')).toBe(false);
    // Over its surface, which stands so far over the lid at the filler, a wedge of gas; in the neck a cylinder.
    const gas_m3 = ((0.3 - up_m / t) ** 2 / 2) * t * 0.3;
    const neck_m3 = (Math.PI / 4) * BORE_M ** 2 * up_m;
    expectClose(run.samples.find(({ t_s }) => t_s >= clicks.t_s)!.tanks[0]!.volume_m3, 0.036 - gas_m3 + neck_m3, {
      abs: 2e-6,
      why: 'wedge of a box and cylinder; the flow pushes up by a hair',
    });
  });
});

describe('an overflow', () => {
  /** A main whose vent leads down into a can, which breathes by a hole of its own. */
  const led = (can: readonly [number, number, number]): SystemDocument =>
    rig(
      [
        { id: 'main', box: [0.4, 0.3, 0.3], at_m: [0, 0, 1], filler_m: 0.05, neck_m: 0.3, vent_m: 0.012, fill: 0.95 },
        { id: 'can', box: can, at_m: [1, 0, 0], inlet_m: 0.012, vent_m: 0.01, fill: 0 },
      ],
      [
        {
          id: 'down',
          from: ['main-vent', 'in'],
          to: ['can-in', 'in'],
          bore_m: 0.012,
          length_m: 1.5,
          rise_m: -1,
          purpose: 'overflow',
        },
      ],
    );
  const poured_m3 = 4e-3;
  const fill = (can: readonly [number, number, number]) =>
    played(led(can), 900, {
      vapourLag_s: 1e7,
      pours: [
        {
          at_s: 1,
          port: 'main-filler',
          flow_m3PerS: 2e-5,
          volume_m3: poured_m3,
          spout_m: 0.0499999,
          inserted_m: 0.01,
          stops: 'manual',
        },
      ],
    });

  it('goes into its can, and what is poured is in the one or the other', () => {
    const run = fill([0.2, 0.2, 0.2]);
    const last = run.samples.at(-1)!.tanks;
    expect(run.totals.spilt_m3).toEqual([]);
    expect(last[1]!.volume_m3).toBeGreaterThan(1e-3);
    expectClose(last[0]!.volume_m3 + last[1]!.volume_m3, 0.95 * 0.036 + run.totals.poured_m3, {
      rel: 1e-6,
      why: 'nothing is lost',
    });
  });

  it('that has no more room runs over by the can’s own vent', () => {
    const run = fill([0.1, 0.1, 0.1]);
    const last = run.samples.at(-1)!.tanks;
    const over = run.totals.spilt_m3.find(({ id }) => id === 'can-vent')!;
    expect(over.volume_m3).toBeGreaterThan(1e-4);
    expect(last[1]!.volume_m3).toBeGreaterThan(0.99e-3);
    const spilt = run.totals.spilt_m3.reduce((sum, { volume_m3 }) => sum + volume_m3, 0);
    expectClose(last[0]!.volume_m3 + last[1]!.volume_m3 + spilt, 0.95 * 0.036 + run.totals.poured_m3, {
      rel: 1e-5,
      why: 'nothing is lost',
    });
  });
});

describe('two level switches that want the one and the other', () => {
  it('end in words that name the pump, and in no number', () => {
    const system = rig(
      [
        { id: 'main', box: [0.4, 0.3, 0.3], inlet_m: 0.01, vent_m: 0.01, fill: 0.55 },
        { id: 'aux', box: [0.4, 0.3, 0.3], at_m: [1, 0, 0], outlet_m: 0.01, vent_m: 0.01, fill: 0.9 },
      ],
      [
        { id: 'a', from: ['aux-pickup', 'out'], to: ['lift', 'in'], bore_m: 0.01, length_m: 0.5 },
        { id: 'b', from: ['lift', 'out'], to: ['main-in', 'in'], bore_m: 0.01, length_m: 0.5, rise_m: 0.3 },
      ],
      [LIFT_PUMP],
    );
    const scenario = {
      ...quiet('To and fro', 600),
      // Above half full the one stops it, below six tenths the other starts it.
      switches: [
        { pump: 'lift', tank: 'main', stopsAt_ratio: 0.5, startsAt_ratio: 0.4 },
        { pump: 'lift', tank: 'main', stopsAt_ratio: 0.7, startsAt_ratio: 0.6 },
      ],
    };
    const run = allSteps(simulate(unwrap(documentAt(system)), scenario));
    expect(run).toMatchObject({ ok: false, error: { code: 'chatters' } });
    if (!run.ok) expect(run.error.detail).toContain('lift');
  });
});

describe('no air follows: what the steady answer cannot say, the course from how all stands now does', () => {
  const sealed = (fill: number) => rig([main({ fill })], FEED, [LIFT_PUMP], [ENGINE]);
  const ranOn = (system: SystemDocument) => unwrap(allSteps(playedFor(system, AS_IT_STANDS)));
  it('the less gas there is over it, the sooner it starves; what it had by then is what the gas gave by Boyle', () => {
    const had = [0.5, 0.9].map((fill) => {
      const system = sealed(fill);
      expect(unwrap(evaluateSystem(system, 'full', 'without-fit')).flows[0]).toMatchObject({
        ok: false,
        error: { code: 'vent-shut' },
      });
      const { run, verdict } = ranOn(system);
      const starves = run.events.find(({ kind }) => kind === 'starves')!;
      expect(run.events.some(({ kind }) => kind === 'draws-air')).toBe(false);
      expect(verdict[0]).toMatchObject({ severity: 'stop' });
      const [first, then] = [run.samples[0]!, run.samples.find(({ t_s }) => t_s === starves.t_s)!];
      const drawn_m3 = first.tanks[0]!.volume_m3 - then.tanks[0]!.volume_m3;
      const { ambientAbs_Pa } = unwrap(documentAt(system)).state;
      const abs_Pa = ambientAbs_Pa + then.tanks[0]!.gauge_Pa;
      const gas_m3 = (1 - fill) * 0.4 * 0.3 * 0.3;
      // Vapour that comes in the meantime gives some more.
      expectClose(drawn_m3, gas_m3 * (ambientAbs_Pa / abs_Pa - 1), { rel: 0.05, why: 'Boyle' });
      return drawn_m3;
    });
    expect(had[0]!).toBeGreaterThan(3 * had[1]!);
  });

  // The van’s tank breathes by its drilled cap.
  it.each(['crab-boat', 'snow-vehicle', 'hill-climb-car', 'forest-trailer'])(
    '%s without its vents: whoever is told that no air follows is told what comes of it, engine, heater or nozzle',
    (name) => {
      const demo = unwrap(parseSystemText(readFileSync(`demo/${name}.json`, 'utf8')));
      const system = {
        ...demo,
        tanks: demo.tanks.map((tank) => ({
          ...tank,
          ports: tank.ports.map((port) => (port.role === 'vent' ? { ...port, role: 'spare' as const } : port)),
        })),
      };
      const { flows } = unwrap(evaluateSystem(system, 'full', 'without-fit'));
      const airless = system.consumers.filter((_, k) => {
        const flow = flows[k]!;
        return !flow.ok && flow.error.code === 'vent-shut';
      });
      expect(airless.length).toBeGreaterThan(0);
      const { tally, verdict, scenario } = ranOn(system);
      expect(scenario.duration_s).toBeGreaterThanOrEqual(600);
      for (const { id, name: consumer } of airless) {
        expect(tally.consumers.map((each) => each.id)).toContain(id);
        expect(verdict.some(({ says }) => says.text.startsWith(consumer))).toBe(true);
      }
    },
  );

  it('a vent under liquid lets air in through it: fed to the end, against the weight of what stands over it', () => {
    const system = sealed(0.95);
    const [tank] = system.tanks as [SystemDocument['tanks'][number]];
    const under = {
      ...system,
      tanks: [
        {
          ...tank,
          ports: [
            ...tank.ports,
            {
              ...tank.ports[0]!,
              id: 'low-vent',
              name: 'low vent',
              role: 'vent' as const,
              face: 'fore' as const,
              y_m: chosen(0.15),
              z_m: chosen(0.15),
              bore_m: chosen(0.004),
            },
          ],
        },
      ],
    };
    const flow = unwrap(evaluateSystem(under, 'full', 'without-fit')).flows[0]!;
    expect(flow).toMatchObject({ ok: false, error: { code: 'vent-shut' } });
    const { run } = ranOn(under);
    const starves_s = run.events.find(({ kind }) => kind === 'starves')?.t_s ?? Infinity;
    const dry_s = (0.9 * 0.95 * 0.036) / 4e-6;
    expect(starves_s).toBeGreaterThan(dry_s);
  });
});
