import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { parseSystemText, type SystemDocument } from '../../plan';
import { allSteps } from '../../steps';
import { documentAt } from '../at';
import { evaluateSystem } from '../evaluate';
import { tankSolid } from '../tank/solid';
import { momentOf, playedFor, positionsAt, sampleAt } from '.';

const DEMOS = readdirSync('demo').map((file): SystemDocument =>
  unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8'))),
);

beforeAll(loadKernel);

describe.each(DEMOS.map((system) => [system.name, system] as const))('%s at a moment', (_, system) => {
  const leaning = { ...system.conditions, pitch_deg: 7, roll_deg: -11 };

  it('is drawn, and its gauges read, as by the conditions that say the same', () => {
    const gross = unwrap(documentAt(system)).model.tanks.map(({ gross_m3 }) => gross_m3);
    const shares = gross.map((_each, t) => 0.2 + 0.25 * t);
    const stood: SystemDocument = {
      ...system,
      conditions: { ...leaning, fills: system.tanks.map(({ id }, t) => ({ tank: id, fill_ratio: shares[t]! })) },
    };
    const { tanks } = unwrap(
      momentOf(system, { pitch_deg: 7, roll_deg: -11, volumes_m3: gross.map((each, t) => each * shares[t]!) }, 0),
    );
    const evaluation = unwrap(evaluateSystem(stood, 'full', 'without-fit'));
    expect(tanks.map(({ drawing }) => drawing)).toEqual(evaluation.tanks.map(({ drawing }) => drawing));
    expect(tanks[0]!.solid).toEqual(unwrap(tankSolid(stood, 0)));
    const needles = tanks.flatMap((tank) => tank.needles.map(({ needle }) => needle));
    expect(needles).toHaveLength(evaluation.gauges.length);
    for (const [s, gauge] of evaluation.gauges.entries())
      expect(needles[s]).toEqual(
        gauge.ok ? { ok: true, value: gauge.value.now.needle_ratio } : { ok: false, error: gauge.error },
      );
  });

  it('every moment of a course over on its head can be drawn, and a moment of other tanks cannot', () => {
    const asked = { name: 'over', duration_s: 20, slopes: [{ at_s: 10, pitch_deg: 30, roll_deg: 180, evenly: true }] };
    const { run } = unwrap(allSteps(playedFor(system, asked)));
    for (const { pitch_deg, roll_deg, tanks } of run.samples.filter((_each, n) => n % 20 === 0)) {
      const volumes_m3 = tanks.map(({ volume_m3 }) => volume_m3);
      expect(momentOf(system, { pitch_deg, roll_deg, volumes_m3 }, 0)).toMatchObject({ ok: true });
    }
    const level = { pitch_deg: 0, roll_deg: 0 };
    for (const volumes_m3 of [[], [-1e-3, ...system.tanks.slice(1).map(() => 0)], system.tanks.map(() => 1e6)])
      expect(momentOf(system, { ...level, volumes_m3 }, 0)).toMatchObject({
        ok: false,
        error: { code: 'not-a-moment' },
      });
  });
});

describe('between moments of a course', () => {
  const [boat] = DEMOS as [SystemDocument];

  it('it stands evenly between them, at them as they say, and outside as at the ends', () => {
    const { samples } = unwrap(allSteps(playedFor(boat, 'parked'))).run;
    for (const [n, sample] of samples.entries()) {
      expect(sampleAt(samples, sample.t_s)).toEqual(sample);
      const next = samples[n + 1];
      if (!next) continue;
      const half = sampleAt(samples, (sample.t_s + next.t_s) / 2);
      for (const [t, tank] of half.tanks.entries())
        expectClose(tank.volume_m3, (sample.tanks[t]!.volume_m3 + next.tanks[t]!.volume_m3) / 2, {
          abs: 1e-12,
          why: 'a mean',
        });
    }
    expect(sampleAt(samples, -5)).toEqual(samples[0]);
    expect(sampleAt(samples, 1e9)).toEqual(samples.at(-1));
  });

  it('parts stand as they were set last, by hand or by a level switch', () => {
    const pump = boat.components.find(({ kind }) => kind === 'pump')!.id;
    const valve = boat.components.find(({ kind }) => kind === 'valve')!.id;
    const scenario = {
      sets: [
        { at_s: 10, part: pump, on: true },
        { at_s: 20, part: valve, on: false },
        { at_s: 50, part: pump, on: true },
      ],
    };
    const events = [
      { t_s: 30, kind: 'switch-stops' as const, of: pump, name: 'Pump' },
      { t_s: 30, kind: 'starves' as const, of: pump, name: 'Pump' },
      { t_s: 40, kind: 'switch-starts' as const, of: pump, name: 'Pump' },
      { t_s: 45, kind: 'switch-stops' as const, of: pump, name: 'Pump' },
    ];
    const at = (t_s: number) => positionsAt(scenario, events, boat, t_s);
    expect(at(9)).toEqual({});
    expect(at(10)).toEqual({ [pump]: { kind: 'pump', running: true } });
    expect(at(35)).toEqual({ [pump]: { kind: 'pump', running: false }, [valve]: { kind: 'valve', open: false } });
    expect(at(40)).toMatchObject({ [pump]: { running: true } });
    expect(at(45)).toMatchObject({ [pump]: { running: false } });
    expect(at(50)).toMatchObject({ [pump]: { running: true } });
  });
});
