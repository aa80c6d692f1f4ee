import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { played as run, rig, rigEngine } from '../../../../tests/timeSystems';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { parseSystemText, type Scenario, type SystemDocument } from '../../plan';
import { allSteps } from '../../steps';
import { messageText } from '../../units';
import { playedFor, readyFor, type Played } from '.';

const DEMOS = readdirSync('demo').map((file): SystemDocument =>
  unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8'))),
);
const told = ({ verdict }: Played): string[] =>
  verdict.map(({ severity, says }) => `${severity}: ${messageText(says, 'metric')}`);

beforeAll(loadKernel);

describe.each(DEMOS.map((system) => [system.name, system] as const))('%s: what a course comes to', (_, system) => {
  it('agrees with what happens in it and with its figures, in every scenario that is ready', () => {
    for (const { key } of unwrap(readyFor(system))) {
      const played = unwrap(allSteps(playedFor(system, key)));
      const lines = told(played);
      const { events, samples, totals } = played.run;
      const kinds = new Set(events.map(({ kind }) => kind));
      const has = (text: RegExp): boolean => lines.some((line) => text.test(line));
      expect(has(/gets too little|then gets too little/), `${key}: ${lines.join('\n')}`).toBe(kinds.has('starves'));
      expect(has(/clicks off/), key).toBe(kinds.has('clicks-off'));
      const most_m3 = Math.max(0, ...totals.spilt_m3.map(({ volume_m3 }) => volume_m3));
      expect(has(/ comes out by /), key).toBe(most_m3 >= 1e-6);
      const pressures = samples.flatMap(({ tanks }) => tanks.map(({ gauge_Pa }) => Math.abs(gauge_Pa)));
      expect(has(/No tank comes more than/), key).toBe(Math.max(...pressures) <= 1000);
      for (const { name, burnt_m3, starves_s } of played.tally.consumers)
        expect(has(new RegExp(`good: ${name} gets all it needs`)), key).toBe(burnt_m3 > 0 && starves_s === undefined);
      // The worst first, and each at a time of the course.
      const order = ['stop', 'warn', 'note', 'good'];
      const ranks = played.verdict.map(({ severity }) => order.indexOf(severity));
      expect(ranks, key).toEqual([...ranks].sort((a, b) => a - b));
      for (const { t_s } of played.verdict) {
        if (t_s === undefined) continue;
        expect(t_s).toBeGreaterThanOrEqual(0);
        expect(t_s).toBeLessThanOrEqual(played.scenario.duration_s);
      }
      for (const line of lines) expect(line, key).not.toMatch(/[{}]|NaN|undefined|Infinity/);
    }
  }, 120_000);
});

describe('in so many words', () => {
  const tank = (more: object = {}) => ({ id: 'a', box: [0.4, 0.3, 0.4] as const, vent_m: 0.014, fill: 0.1, ...more });
  const filled = (more: object, pour: Partial<Scenario['pours'][number]> = {}): string[] => {
    const system = rig([tank({ filler_m: 0.05, neck_m: 0.1, cap: { kind: 'plain' }, ...more })], []);
    const asked = {
      name: 'fill',
      duration_s: 200,
      pours: [
        {
          at_s: 0,
          port: 'a-filler',
          flow_m3PerS: 0.5e-3,
          volume_m3: 1,
          spout_m: 0.02,
          inserted_m: 0.05,
          stops: 'automatic' as const,
          ...pour,
        },
      ],
    };
    return told(unwrap(allSteps(playedFor(system, asked))));
  };

  it('a nozzle that fills to the brim has taken the head room', () => {
    expect(filled({})[0]).toMatch(/^warn: The nozzle clicks off after 1 min 2\d s, .*what it should keep free/);
  });

  it('a tube that leads far down, and a vent that lets nothing out: it clicks off early', () => {
    expect(filled({ vent_m: undefined, tube_m: 0.2 }).join('\n')).toMatch(/warn: The nozzle clicks off early/);
  });

  it('a measured fill goes in, and a slow one is not done', () => {
    expect(filled({}, { volume_m3: 0.01 })).toContainEqual(expect.stringMatching(/^good: All of it goes in, in 20 s/));
    expect(filled({}, { flow_m3PerS: 1e-6 })).toContainEqual(
      expect.stringMatching(/^warn: The nozzle still runs at the end/),
    );
  });

  it('an engine without a vent starves by vacuum, and is said to', () => {
    const system = rig(
      [tank({ vent_m: undefined, outlet_m: 0.008, fill: 0.95 })],
      [{ id: 'feed', from: ['a-pickup', 'out'], to: ['engine', 'in'], bore_m: 0.008, length_m: 1, rise_m: -0.5 }],
      [],
      [rigEngine(1e-6, 0)],
    );
    const played = unwrap(allSteps(playedFor(system, { name: 'run', duration_s: 7200 })));
    expect(run(system, 7200).events.some(({ kind }) => kind === 'starves')).toBe(true);
    expect(told(played)[0]).toMatch(/^stop: .* runs for .*, then gets too little: .* is drawn to −\d/);
  });

  it('each is told what befell what feeds it, and not what befell another', () => {
    const dry = {
      id: 'b',
      box: [0.1, 0.1, 0.1] as const,
      at_m: [2, 0, 0] as const,
      vent_m: 0.014,
      outlet_m: 0.008,
      fill: 0.5,
    };
    const system = rig(
      [tank({ vent_m: undefined, outlet_m: 0.008, fill: 0.95 }), dry],
      [
        { id: 'feed', from: ['a-pickup', 'out'], to: ['engine', 'in'], bore_m: 0.008, length_m: 1, rise_m: -0.5 },
        { id: 'other', from: ['b-pickup', 'out'], to: ['second', 'in'], bore_m: 0.008, length_m: 1, rise_m: -0.5 },
      ],
      [],
      [rigEngine(1e-6, 0), { ...rigEngine(2e-6, 0), id: 'second', name: 'Second' }],
    );
    const lines = told(unwrap(allSteps(playedFor(system, { name: 'run', duration_s: 7200 }))));
    expect(lines).toContainEqual(expect.stringMatching(/^stop: Engine .* too little: a is drawn to −/));
    expect(lines).toContainEqual(expect.stringMatching(/^stop: Second .* too little: b outlet has drawn air/));
  });
});
