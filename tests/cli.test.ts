import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { MessageChannel, receiveMessageOnPort } from 'node:worker_threads';
import { describe, expect, it } from 'vitest';
import { main } from '@/cli';
import { loadSystem } from '@/cli/args';
import { answerBeside, clearancesBeside } from '@/cli/clearancesBeside';
import { fitFor } from '@/core/answers';
import { expectClose } from './expectClose';

const BOAT = 'tests/fixtures/box-boat.json';

function run(...args: string[]): { code: number; out: string; err: string; json: () => Record<string, never> } {
  const out: string[] = [];
  const err: string[] = [];
  const code = main(
    args,
    (text) => out.push(text),
    (text) => err.push(text),
  ) as number;
  return {
    code,
    out: out.join('\n'),
    err: err.join('\n'),
    json: () => JSON.parse(out.join('\n')) as Record<string, never>,
  };
}

type Tank = {
  tanks: { gross_m3: number; fill: { volume_m3: number; ratio: number }; pickups: { unusableNow_m3: number }[] }[];
  up_vehicle: number[];
};

describe('verbs', () => {
  it.each(['tank', 'table', 'mass', 'mounts', 'fit', 'ports', 'flow', 'gauge', 'range', 'vents', 'simulate', 'check'])(
    '%s prints JSON and exits 0 on every demo system',
    (verb) => {
      for (const name of ['crab-boat', 'snow-vehicle', 'hill-climb-car', 'forest-trailer', 'van-heater']) {
        const { code, json, err } = run(verb, `demo/${name}.json`);
        expect(err).toBe('');
        expect(code).toBe(0);
        expect(json()).toHaveProperty('system');
      }
    },
  );

  it('flow says what the engine throws out, with the marks of its bottle', () => {
    type Printed = {
      expelled: {
        kind: string;
        comes: number;
        pressure: number | null;
        drainLeaves_m3: number | null;
        coolant: { boils_K: number; marks: { cold: { height_m: number }; hot: { height_m: number } } } | null;
      }[];
    };
    const { expelled } = run('flow', 'demo/hill-climb-car.json').json() as unknown as Printed;
    const of = (kind: string) => expelled.find((each) => each.kind === kind)!;
    const { coolant, pressure } = of('cooling-system');
    expect(pressure).toBeNull();
    expect(coolant!.boils_K).toBeGreaterThan(373);
    expect(coolant!.marks.hot.height_m).toBeGreaterThan(coolant!.marks.cold.height_m);
    expect(of('crankcase')).toMatchObject({ coolant: null });
    expect(of('crankcase').pressure).toBeGreaterThan(0);
  });

  it('a ready scenario is played, and one from a file; what makes no sense of either is told', () => {
    type Listed = { scenarios: { key: string; asks: string; scenario: { duration_s: number } }[] };
    type Printed = {
      ok: boolean;
      tally: { pours: { ends: string; volume_m3: number }[]; consumers: { starves_s: number | null }[] };
      events: { t_s: number; kind: string }[];
      samples?: { t_s: number }[];
      unaccounted: { liquid_ratio: number };
    };
    const { scenarios } = run('simulate', BOAT).json() as unknown as Listed;
    expect(scenarios.map(({ key }) => key)).toEqual(expect.arrayContaining(['run-dry', 'fill-main-38', 'parked']));
    const filled = run('simulate', BOAT, '--scenario', 'fill-main-38').json() as unknown as Printed;
    expect(filled.ok).toBe(true);
    expect(filled.tally.pours).toMatchObject([{ ends: 'clicks-off' }]);
    expect(filled.samples!.at(-1)!.t_s).toBe(scenarios.find(({ key }) => key === 'fill-main-38')!.scenario.duration_s);
    expect(filled.unaccounted.liquid_ratio).toBeLessThan(1e-6);
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'gasline-')), 'drive.json');
    writeFileSync(file, JSON.stringify({ name: 'An hour', duration_s: 3600 }));
    const played = run('simulate', BOAT, '--scenario', file, '--samples', 'no').json() as unknown as Printed;
    expect(played).toMatchObject({ ok: true, events: [] });
    expect(played.samples).toBeUndefined();
    expect(played.tally.consumers.every(({ starves_s }) => starves_s === null)).toBe(true);
    writeFileSync(file, JSON.stringify({ name: 'Back', duration_s: 60, duties: [{ at_s: 9 }, { at_s: 4 }] }));
    expect(run('simulate', BOAT, '--scenario', file)).toMatchObject({
      code: 2,
      err: expect.stringContaining('duties[0].duty_ratio is missing') as string,
    });
    writeFileSync(file, JSON.stringify({ name: 'No', duration_s: 60, sets: [{ at_s: 1, part: 'ghost', on: true }] }));
    expect(run('simulate', BOAT, '--scenario', file)).toMatchObject({
      code: 2,
      err: expect.stringContaining('names no part that can be set; there are') as string,
    });
    expect(run('simulate', BOAT, '--scenario', 'ghost')).toMatchObject({
      code: 2,
      err: expect.stringContaining('there is fill-main-38') as string,
    });
    expect(run('simulate', BOAT, '--samples', 'few')).toMatchObject({ code: 2 });
  });

  it('a sender is designed and a first fill read; an id that is not there is told with those that are', () => {
    type Gauge = {
      design: { armLength_m: number; covers_ratio: number };
      calibration: {
        channel: string;
        lines: unknown[];
        table: { points: unknown[] };
        explained: { unknowns: { key: string }[] };
      };
    };
    const { design, calibration } = run(
      'gauge',
      'demo/crab-boat.json',
      '--design',
      'sender',
      '--calibration',
      'first-fill',
      '--points',
      '6',
    ).json() as unknown as Gauge;
    expect(design.covers_ratio).toBeGreaterThan(0.7);
    expect(calibration).toMatchObject({ channel: 'resistance' });
    expect(calibration.lines).toHaveLength(12);
    expect(calibration.table.points.length).toBeLessThanOrEqual(6);
    expect(calibration.explained.unknowns.map(({ key }) => key)).toContain('volume');
    expect(run('gauge', 'demo/crab-boat.json', '--design', 'ghost')).toMatchObject({
      code: 2,
      err: expect.stringContaining('there is sender') as string,
    });
    expect(run('gauge', 'demo/crab-boat.json', '--calibration', 'first-fill', '--points', '1.5')).toMatchObject({
      code: 2,
      err: expect.stringContaining('from 2 to 64') as string,
    });
  });

  it('foam is printed by compartment, with what it does to a swing', () => {
    type Foamed = {
      tanks: { foam: { foam_m3: number; pieces: { count: number } | null }[]; compartments: object[] }[];
    };
    const [cell, can] = (run('tank', 'demo/hill-climb-car.json').json() as unknown as Foamed).tanks;
    expect(cell!.foam.map(({ pieces }) => pieces?.count)).toEqual([1, 2]);
    expectClose(cell!.foam.reduce((sum, { foam_m3 }) => sum + foam_m3, 0) * 1e3, 23.3, {
      abs: 0.05,
      why: '160 × 170 × 70 and 330 × 360 × 180 mm',
    });
    expect(cell!.compartments[1]).toHaveProperty('foam.damping.lengthwise');
    expect(can!.foam).toEqual([]);
  });

  it('mounts: each shell with what gives first, what each mount gives, and layouts on demand', () => {
    type Shell = {
      mass_kg: number;
      holds: boolean | null;
      cases: Record<string, { held: boolean; gives_N: Record<string, number[]> }>;
      parts: { factor: number }[];
      changes: object[];
    };
    const printed = run('mounts', 'demo/crab-boat.json', '--layouts', 'yes').json() as unknown as {
      needed: number;
      shells: Shell[];
      layouts: { ways: { school: string; mounts: object[] }[] }[];
    };
    expect(printed.needed).toBe(2);
    expect(printed.shells).toHaveLength(2);
    for (const { mass_kg, holds, cases, parts, changes } of printed.shells) {
      expect(holds).toBe(true);
      expect(changes).toEqual([]);
      expect(parts[0]!.factor).toBeGreaterThan(2);
      const up = Object.values(cases.rest!.gives_N).reduce((sum, [, , z]) => sum + z!, 0);
      expectClose(up, mass_kg * 9.80665, { rel: 1e-3, why: 'its weight' });
    }
    expect(printed.layouts.map(({ ways }) => ways.map(({ school }) => school))).toContainEqual([
      'straps',
      'tabs',
      'cradle',
    ]);
  });

  it('conditions from the command line act', () => {
    const level = run('tank', BOAT).json() as unknown as Tank;
    const tilted = run('tank', BOAT, '--pitch', '-5', '--roll', '12', '--fill', 'main=0.4').json() as unknown as Tank;
    expectClose(tilted.tanks[0]!.fill.volume_m3, 0.4 * tilted.tanks[0]!.gross_m3, {
      rel: 1e-9,
      why: 'fill is a share of gross',
    });
    expect(tilted.tanks[0]!.pickups[0]!.unusableNow_m3).toBeGreaterThan(level.tanks[0]!.pickups[0]!.unusableNow_m3);
    expectClose(tilted.up_vehicle[0]!, Math.sin((-5 * Math.PI) / 180), { rel: 1e-12, why: 'pitch' });
  });

  it('a conditions file acts, and options override it', () => {
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'gasline-')), 'conditions.json');
    writeFileSync(file, JSON.stringify({ pitch_deg: 10, fuelTemperature_K: 300 }));
    const both = run('tank', BOAT, '--conditions', file, '--pitch', '3').json() as unknown as Tank;
    expectClose(both.up_vehicle[0]!, Math.sin((3 * Math.PI) / 180), { rel: 1e-12, why: 'the option wins' });
    const flow = run('flow', BOAT, '--conditions', file).out;
    expect(flow).toBe(run('flow', BOAT, '--pitch', '10', '--temp-c', '26.85').out);
  });

  it('table at a chosen step, mounted or as the conditions stand', () => {
    type Table = { rows: { depth_m: number; volume_m3: number }[] };
    const mounted = run('table', BOAT, '--step-mm', '50', '--pitch', '10').json() as unknown as Table;
    const tilted = run(
      'table',
      BOAT,
      '--step-mm',
      '50',
      '--pitch',
      '10',
      '--at',
      'conditions',
    ).json() as unknown as Table;
    expect(mounted.rows[1]!.depth_m).toBeCloseTo(0.05, 12);
    expectClose(mounted.rows.at(-1)!.volume_m3, 1.12 * 0.56 * 0.302, { rel: 1e-9, why: 'to the brim' });
    expect(tilted.rows.length).toBeGreaterThan(mounted.rows.length);
  });

  it('a table of each compartment: together they are the tank', () => {
    type Table = { compartment?: number; rows: { volume_m3: number }[] };
    const file = 'demo/crab-boat.json';
    const { compartments } = (run('tank', file).json() as unknown as { tanks: { compartments: unknown[] }[] })
      .tanks[0]!;
    const full = (...compartment: string[]) =>
      (run('table', file, '--step-mm', '50', ...compartment).json() as unknown as Table).rows.at(-1)!.volume_m3;
    const each = compartments.map((_, index) => full('--compartment', String(index + 1)));
    expect(each.length).toBeGreaterThan(1);
    expectClose(
      each.reduce((sum, compartment) => sum + compartment, 0),
      full(),
      { rel: 1e-9, why: 'a cut loses nothing' },
    );
    const { code, err } = run('table', file, '--compartment', String(compartments.length + 1));
    expect(code).toBe(2);
    expect(err).toMatch(/compartment/);
  });

  it('fit answers headless: clearances, the largest tank, and a way out', () => {
    const trailer = run('fit', 'demo/forest-trailer.json', '--part', 'main', '--largest', 'yes').json() as unknown as {
      tanks: { gaps: { to: string; distance_m: number; at: number[] }[] }[];
      largest: { kind: string }[];
      part: { found: { moves: unknown[] } };
    };
    const axle = trailer.tanks[0]!.gaps.find(({ to }) => to === 'axle')!;
    expectClose(axle.at[0]!, 0.09, { abs: 1e-3, why: 'tightest at full bump' });
    expect(trailer.largest.map(({ kind }) => kind)).toEqual(['box', 'prism']);
    expect(trailer.part.found.moves.length).toBeGreaterThan(0);
    const car = run('fit', 'demo/hill-climb-car.json', '--reach', 'yes', '--templates', 'yes').json() as unknown as {
      reach: { id: string; job: string; when: string; tool?: string }[];
      templates: { tank?: string; obstacle?: string; faces: { name: string }[] }[];
    };
    expect(car.reach.find(({ id, job }) => id === 'feed' && job === 'tighten')).toMatchObject({
      when: 'uncovered',
      names: ['Cell cover'],
    });
    expect(car.templates.map(({ tank, obstacle, faces }) => [tank ?? obstacle, faces.length > 0])).toEqual([
      ['main', true],
      ['can', true],
      ['coolant-bottle', true],
      // Its ends are flat.
      ['half-shaft', true],
    ]);
    expect(run('fit', 'demo/forest-trailer.json', '--part', 'ghost')).toMatchObject({ code: 2 });
    expect(run('fit', 'demo/forest-trailer.json', '--part', 'ghost').err).toMatch(/There is no part "ghost".*main/);
  });

  it('flow answers headless: joints, profiles, spills, the size of a line, what costs most, and adapters', () => {
    type Flow = {
      lines: {
        joints: { state: string }[];
        profiles: { points: unknown[] }[];
        jointSpills: unknown[];
        list: { parts: unknown[]; cuts: unknown[] };
      };
      size: { rows: { isNow: boolean }[] };
      costliest: { gains: unknown[] }[];
      mend: { state: string; chains: unknown[] }[];
    };
    const boat = run(
      'flow',
      'demo/crab-boat.json',
      '--size',
      'line-3',
      '--costliest',
      'consumer',
      '--mend',
      'line-3',
    ).json() as unknown as Flow;
    expect(boat.lines.joints.every(({ state }) => state === 'mates')).toBe(true);
    expect(boat.lines.profiles.length).toBeGreaterThan(2);
    expect(boat.lines.list.cuts.length).toBeGreaterThan(5);
    expect(boat.size.rows.filter(({ isNow }) => isNow)).toHaveLength(1);
    expect(boat.costliest).toHaveLength(3);
    expect(boat.mend.map(({ chains }) => chains.length)).toEqual([1, 1].map(() => expect.any(Number)));
    for (const option of ['--size', '--mend', '--costliest']) {
      expect(run('flow', BOAT, option, 'ghost')).toMatchObject({ code: 2 });
      expect(run('flow', BOAT, option, 'ghost').err).toMatch(/There is no (line|consumer) "ghost"/);
    }
  });

  it('help for all and for each', () => {
    expect(run('--help')).toMatchObject({ code: 0 });
    for (const verb of ['tank', 'table', 'fit', 'flow', 'gauge', 'range', 'check']) {
      const help = run(verb, '--help');
      expect(help.code).toBe(0);
      expect(help.out).toContain('--fill');
    }
  });
});

type Boat = {
  lines: { bore_m: { value: number }; length_m: { value: number }; to: { item: string; end: string } }[];
  components: { kind: string; name: string; curve?: { flow_m3PerS: number; rise_Pa: number }[] }[];
};
/** The box boat with something changed, as text. */
function changedBoat(change: (boat: Boat) => void): string {
  const boat = JSON.parse(readFileSync(BOAT, 'utf8')) as Boat;
  change(boat);
  return JSON.stringify(boat);
}

it('what a rule says of mending is in plain units, with no brace of ours left in it', () => {
  const boat = JSON.parse(readFileSync(BOAT, 'utf8')) as {
    tanks: { pickups: { heightOffFloor_m: { value: number }; strainer: string }[] }[];
  };
  Object.assign(boat.tanks[0]!.pickups[0]!, { strainer: 'none' });
  boat.tanks[0]!.pickups[0]!.heightOffFloor_m.value = 0.001;
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'gasline-')), 'low.json');
  writeFileSync(file, JSON.stringify(boat));
  const { findings } = run('check', file).json() as unknown as {
    findings: { id: string; mend: string; why: string }[];
  };
  expect(findings.find(({ id }) => id === 'pickup.in-the-dirt')!.mend).toContain('about 25 mm off the floor');
  for (const { mend, why } of findings) expect(`${mend} ${why}`).not.toMatch(/[{}]/);
});

describe('a part that makes no sense is named in the answer', () => {
  const answer = (change: (boat: Boat) => void) => {
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'gasline-')), 'odd.json');
    writeFileSync(file, changedBoat(change));
    return (
      run('flow', file).json() as unknown as {
        consumers: { ok: boolean; error: { code: string; at: string; detail: string } }[];
      }
    ).consumers[0]!;
  };
  const pump = (boat: Boat) => boat.components.find(({ kind }) => kind === 'pump')!;
  it.each<[string, (boat: Boat) => void, string, RegExp]>([
    [
      'a pump without a curve',
      (boat) => {
        pump(boat).curve = [];
      },
      'too-few-points',
      /lift pump/,
    ],
    [
      'a curve that rises',
      (boat) => {
        pump(boat).curve = [
          { flow_m3PerS: 0, rise_Pa: 1e4 },
          { flow_m3PerS: 1e-5, rise_Pa: 2e4 },
        ];
      },
      'curve-rises',
      /lift pump.*point 2/,
    ],
  ])('%s', (_, change, code, at) => {
    const { ok, error } = answer(change);
    expect(ok).toBe(false);
    expect(error.code).toBe(code);
    expect(`${error.at} ${error.detail}`).toMatch(at);
  });
});

describe('bad input exits 2 and says what is wrong', () => {
  const broken = (text: string): string => {
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'gasline-')), 'bad.json');
    writeFileSync(file, text);
    return file;
  };
  it.each<[string, string[], RegExp]>([
    ['no verb', [], /^$/],
    [
      'an unknown verb',
      ['boil', BOAT],
      /tank, table, mass, mounts, fit, ports, flow, gauge, range, vents, simulate, check/,
    ],
    ['no file', ['tank'], /Name a system file/],
    ['two files', ['tank', BOAT, BOAT], /One system file/],
    ['a file that is not there', ['tank', 'demo/none.json'], /cannot be read/],
    ['not JSON', ['tank', broken('{')], /not JSON/],
    [
      'a bad value',
      ['tank', broken('{"format":"gasline-system","version":1}')],
      /tanks must be a list|tanks is missing/,
    ],
    ['a word for a number', ['tank', BOAT, '--pitch', 'steep'], /--pitch wants a number/],
    [
      'a slope past all reason',
      ['tank', BOAT, '--pitch', '89'],
      /conditions.pitch_deg must be a number from -60 to 60/,
    ],
    ['a tank that is not there', ['tank', BOAT, '--fill', 'aux=0.5'], /there is main/],
    ['a fill past full', ['tank', BOAT, '--fill', 'main=1.5'], /from 0 to 1/],
    ['a fill without share', ['tank', BOAT, '--fill', 'main'], /TANK=SHARE/],
    ['an unknown option', ['tank', BOAT, '--tilt', '3'], /tilt/],
    ['a step of nothing', ['table', BOAT, '--step-mm', '0'], /above zero/],
    ['a table of no tank', ['table', BOAT, '--tank', 'aux'], /there is main/],
    ['a table nowhere', ['table', BOAT, '--at', 'sea'], /mounted or conditions/],
    [
      'a bore of nothing',
      [
        'flow',
        broken(
          changedBoat((boat) => {
            boat.lines[0]!.bore_m.value = 0;
          }),
        ),
      ],
      /lines\[0\]\.bore_m\.value must be a number from/,
    ],
    [
      'a negative length',
      [
        'flow',
        broken(
          changedBoat((boat) => {
            boat.lines[1]!.length_m.value = -1;
          }),
        ),
      ],
      /lines\[1\]\.length_m\.value must be a number from 0/,
    ],
    [
      'an end taken twice',
      [
        'flow',
        broken(
          changedBoat((boat) => {
            boat.lines[1]!.to = boat.lines[2]!.to;
          }),
        ),
      ],
      /joins an end of .* has taken/,
    ],
    [
      'an end that a part lacks',
      [
        'flow',
        broken(
          changedBoat((boat) => {
            boat.lines[1]!.to = { ...boat.lines[1]!.to, end: 'side2' };
          }),
        ),
      ],
      /which .* does not have/,
    ],
    ['free fall', ['tank', BOAT, '--accel-up', '-9.8'], /from -9|no surface/],
  ])('%s', (_, args, message) => {
    const { code, err } = run(...args);
    expect(code).toBe(2);
    expect(err).toMatch(message);
  });

  it('through the real command', () => {
    const good = spawnSync('npm', ['run', '-s', 'gasline', '--', 'check', BOAT, '--roll', '-3'], { encoding: 'utf8' });
    expect(good.status).toBe(0);
    expect(JSON.parse(good.stdout)).toHaveProperty('numbers.holds_m3');
    const bad = spawnSync('npm', ['run', '-s', 'gasline', '--', 'check', 'none.json'], { encoding: 'utf8' });
    expect(bad.status).toBe(2);
    expect(bad.stdout).toBe('');
  });

  it('clearances that a thread of its own works out beside the rest are the same; so they are where it fails', () => {
    const file = 'demo/hill-climb-car.json';
    const real = spawnSync('node', ['scripts/gasline.mjs', 'check', file], { encoding: 'utf8', maxBuffer: 1e8 });
    expect(real.stderr).toBe('');
    const here = run('check', file).out;
    expect(real.stdout.trim()).toBe(here);
    const { system } = loadSystem([file], []);
    const alone = fitFor(system);
    expect(alone).toMatchObject({ ok: true });
    const { port1, port2 } = new MessageChannel();
    const flag = new Int32Array(new SharedArrayBuffer(4));
    answerBeside({ system, port: port2, flag });
    expect((receiveMessageOnPort(port1)!.message as { readonly fit: unknown }).fit).toEqual(alone);
    // Done, which is neither begun nor failed.
    expect(flag[0]).toBe(2);
    const nowhere = clearancesBeside(pathToFileURL(path.resolve('nowhere.mjs')), 300);
    // With one core there is no thread, and nothing to fail.
    if (nowhere) {
      expect(nowhere(system)()).toEqual(alone);
      const open = { ...system, fit: { ...system.fit, bay: { kind: 'none' as const }, obstacles: [] } };
      expect(nowhere(open)()).toBeUndefined();
    }
    port1.close();
  });
});
