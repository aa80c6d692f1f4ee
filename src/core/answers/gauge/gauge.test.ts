import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  chosen,
  draftSystem,
  parseSystem,
  parseSystemText,
  toPath,
  withValue,
  type PourDocument,
  type SystemDocument,
} from '../../plan';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { seeded } from '../../seeded';
import { expectClose } from '../../../../tests/expectClose';
import {
  tankFluid,
  calibrationResult,
  designedSender,
  evaluateSystem,
  evenStep_m3,
  refittedSender,
  rigPlan,
  taughtByPours,
} from '..';

beforeAll(loadKernel);

type Changes = readonly (readonly [string, unknown])[];
const applied = (system: SystemDocument, changes: Changes): SystemDocument =>
  changes.reduce((at, [path, value]) => withValue(at, toPath(path), value), system);
const DRAFT = draftSystem({
  name: 'x',
  vehicle: 'road',
  consumer: 'diesel-engine',
  power_W: 30e3,
  holds_m3: 0.045,
  length_m: 0.5,
  width_m: 0.4,
  height_m: 0.25,
});
/** A box 500 by 400 by 250 mm inside, level, with a straight probe that reads it in proportion. */
const PROBED = applied(DRAFT, [
  ['tanks[0].mounting.pitch_deg', chosen(0)],
  ['tanks[0].mounting.roll_deg', chosen(0)],
  ['tanks[0].fillLimit_ratio', chosen(1)],
  [
    'tanks[0].senders[0]',
    {
      id: 'sender',
      name: 'Probe',
      port: 'sender-port',
      kind: 'tube',
      output: { kind: 'resistance', empty_ohm: chosen(0), full_ohm: chosen(180) },
      gauge: {
        kind: 'linear',
        scale: { kind: 'resistance', empty_ohm: chosen(0), full_ohm: chosen(180) },
        tolerance_ratio: chosen(0.02),
      },
      tolerance_ratio: chosen(0.02),
      length_m: chosen(0.24),
      lowDead_m: chosen(0),
      highDead_m: chosen(0),
      floatDiameter_m: chosen(0.02),
      immersion_ratio: chosen(0.5),
      step_m: chosen(0),
      tubeDiameter_m: chosen(0.01),
    },
  ],
]);
const gaugeOf = (system: SystemDocument) => unwrap(unwrap(evaluateSystem(system, 'full', 'without-fit')).gauges[0]!);

describe('a gauge of a document', () => {
  it('what was made is a document that the validator takes', () => {
    expect(parseSystem(PROBED).ok).toBe(true);
  });

  it('a straight probe in a box: the quarter is where the probe says, by hand', () => {
    const { marks } = gaugeOf(PROBED);
    // Foot 10 mm off the floor: the needle stands at a quarter at 10 + 240/4 mm.
    expectClose(marks[0]!.volume.volume_m3, 0.2 * (0.01 + 0.06), { rel: 1e-3, why: 'area times height' });
    expect(marks[0]!.volume.least_m3).toBeLessThan(marks[0]!.volume.volume_m3);
    expect(marks[0]!.volume.most_m3).toBeGreaterThan(marks[0]!.volume.volume_m3);
  });

  it('the lamp: what is then in the tank, what can be drawn of it, and how long that lasts', () => {
    const lamp = gaugeOf(applied(PROBED, [['tanks[0].senders[0].gauge.lamp_ratio', chosen(0.1)]])).lamp!;
    expectClose(lamp.volume.volume_m3, 0.2 * (0.01 + 0.024), { rel: 2e-3, why: 'area times height' });
    const pickup = PROBED.tanks[0]!.pickups[0]!;
    expectClose(lamp.drawLevel_m3, 0.2 * (0.034 - pickup.heightOffFloor_m.value - pickup.submergence_m.value), {
      rel: 1e-2,
      why: 'less what the pickup leaves',
    });
    expect(lamp.drawWorst_m3).toBeLessThan(lamp.drawLevel_m3);
    expect(lamp.lasts_s).toBeGreaterThan(0);
  });

  it('a taught gauge that was not yet taught is taught as planned, and errs less than a plain one', () => {
    const arm = applied(DRAFT, [
      ['tanks[0].mounting.pitch_deg', chosen(0)],
      ['tanks[0].mounting.roll_deg', chosen(0)],
    ]);
    const taught = applied(arm, [
      [
        'tanks[0].senders[0].gauge',
        { kind: 'calibrated', points: { kind: 'resistance', at: [] }, mostPoints: 5, tolerance_ratio: chosen(0.02) },
      ],
    ]);
    const seen = (system: SystemDocument): number => {
      const { points, unseenLow_m3, unseenHigh_m3 } = gaugeOf(system).curve;
      const full = points.at(-1)!.volume_m3;
      return Math.max(
        ...points
          .filter(({ volume_m3 }) => volume_m3 > unseenLow_m3 && volume_m3 < full - unseenHigh_m3)
          .map((point) => Math.abs(point.needle_ratio - point.true_ratio)),
      );
    };
    expect(seen(taught)).toBeLessThan(0.02);
    expect(seen(taught)).toBeLessThan(seen(arm) / 2);
  });

  it.each<[string, Changes, string]>([
    [
      'a gauge that wants volts of ohms',
      [['tanks[0].senders[0].gauge.scale', { kind: 'voltage', empty_V: chosen(0), full_V: chosen(5) }]],
      'tanks[0].senders[0].gauge',
    ],
    [
      'one point taught',
      [
        [
          'tanks[0].senders[0].gauge',
          {
            kind: 'calibrated',
            points: { kind: 'resistance', at: [{ reading_ohm: 5, shown_ratio: 0 }] },
            mostPoints: 5,
            tolerance_ratio: chosen(0.02),
          },
        ],
      ],
      'tanks[0].senders[0].gauge.points.at',
    ],
    [
      'points that turn back',
      [
        [
          'tanks[0].senders[0].gauge',
          {
            kind: 'calibrated',
            points: {
              kind: 'resistance',
              at: [
                { reading_ohm: 5, shown_ratio: 0 },
                { reading_ohm: 50, shown_ratio: 0.5 },
                { reading_ohm: 40, shown_ratio: 0.8 },
              ],
            },
            mostPoints: 5,
            tolerance_ratio: chosen(0.02),
          },
        ],
      ],
      'tanks[0].senders[0].gauge.points.at[2]',
    ],
    [
      'a sight tube upside down',
      [
        [
          'tanks[0].sightTubes',
          [
            {
              id: 'sight',
              name: 'Sight',
              face: 'aft',
              along_m: chosen(0.2),
              lower_m: chosen(0.2),
              upper_m: chosen(0.1),
              markEvery_m3: chosen(0.005),
            },
          ],
        ],
      ],
      'tanks[0].sightTubes[0].upper_m.value',
    ],
    [
      'a stick through no port',
      [['tanks[0].dipsticks', [{ id: 'stick', name: 'Stick', port: 'ghost', markEvery_m3: chosen(0.005) }]]],
      'tanks[0].dipsticks[0].port',
    ],
    [
      'a log of nothing',
      [
        [
          'tanks[0].calibrations',
          [{ id: 'log', name: 'Log', of: 'ghost', start_m3: 0, startSpread_m3: 0, pitch_deg: 0, roll_deg: 0 }],
        ],
      ],
      'tanks[0].calibrations[0].of',
    ],
  ])('%s is refused at its path', (_, changes, path) => {
    const parsed = parseSystem(applied(PROBED, changes));
    expect(parsed.ok).toBe(false);
    if (!parsed.ok) expect(parsed.error.faults.map((fault) => fault.path)).toContain(path);
  });

  it('steps of marks are 1, 2 or 5 times a power of ten in the reader’s unit', () => {
    expect([0.045, 0.18, 0.0021, 1.2].map((holds) => Math.round(evenStep_m3(holds, 1e-3) * 1e6) / 1e3)).toEqual([
      5, 20, 0.5, 200,
    ]);
    expectClose(evenStep_m3(0.1, 3.785411784e-3), 5 * 3.785411784e-3, { rel: 1e-12, why: 'US gallons' });
  });
});

/** Pours of a made-up tank: it holds less than drawn, its probe sits lower. */
function poured(
  system: SystemDocument,
  truth: { readonly volume: number; readonly lowered: number },
  changes: (index: number) => Partial<PourDocument> = () => ({}),
): SystemDocument {
  const plan = unwrap(rigPlan(system, 'sender'));
  const chance = seeded(9);
  const pours = Array.from({ length: 12 }, (_, i): PourDocument => {
    const inside = 0.004 * (i + 1);
    return {
      id: `pour-${i}`,
      recorded: '2026-05-03T10:00:00Z',
      kind: 'pour',
      of: 'log',
      at: `2026-05-03T10:${String(10 + i)}:00Z`,
      way: 'meter',
      added_m3: 0.004,
      spread_m3: 2e-5,
      reading: {
        kind: 'resistance',
        reading_ohm: Number(
          (plan.readingAt(inside / (1 + truth.volume), truth.lowered) + 0.2 * chance.normal()).toFixed(2),
        ),
      },
      note: '',
      state: 'counts',
      simulated: false,
      ...changes(i),
    };
  });
  return applied(system, [
    [
      'tanks[0].calibrations',
      [{ id: 'log', name: 'Log', of: 'sender', start_m3: 0, startSpread_m3: 1e-6, pitch_deg: 0, roll_deg: 0 }],
    ],
    ['records', pours],
  ]);
}

describe('what is in a tank, for weights of pours', () => {
  it('is that tank’s own fluid and batch at the temperature that is set, without the rest', () => {
    const two = applied(DRAFT, [
      ['fluids', [...DRAFT.fluids, { id: 'water', fluid: 'water' }]],
      ['tanks', [DRAFT.tanks[0], { ...DRAFT.tanks[0]!, id: 'second', fluid: 'water' }]],
      ['fluids[0].density15_kgPerM3', chosen(832)],
      ['conditions.fuelTemperature_K', 288.15],
    ]);
    expectClose(unwrap(tankFluid(two, 0)).density_kgPerM3, 832, { rel: 1e-4, why: 'the batch, at 15 °C' });
    expectClose(unwrap(tankFluid(two, 1)).density_kgPerM3, 999.1, {
      rel: 1e-3,
      why: 'water at 15 °C, CRC Handbook (from memory)',
    });
    expectClose(
      unwrap(evaluateSystem(DRAFT, 'full', 'without-fit')).fluid.density_kgPerM3,
      unwrap(tankFluid(DRAFT, 0)).density_kgPerM3,
      { rel: 1e-12, why: 'the same as in all other numbers' },
    );
    expect(tankFluid(two, 7)).toMatchObject({ ok: false, error: { code: 'no-tank' } });
    expect(tankFluid(applied(two, [['conditions.fuelTemperature_K', 900]]), 0)).toMatchObject({
      ok: false,
      error: { code: 'temperature-range' },
    });
  });
});

describe('a calibration of a document', () => {
  it('finds that the tank holds 4 % less and the probe sits 4 mm lower', () => {
    const result = unwrap(calibrationResult(poured(PROBED, { volume: -0.04, lowered: 0.004 }), 0, 0));
    const of = (key: string) => unwrap(result.explained).unknowns.find((one) => one.key === key)!;
    for (const [key, truth] of [
      ['volume', -0.04],
      ['lowered', 0.004],
    ] as const)
      expect(Math.abs(of(key).value - truth)).toBeLessThan(3 * of(key).sigma);
    expect(unwrap(result.measured).rises).toBe(true);
    expect(result.lines.every(({ flags }) => flags.length === 0)).toBe(true);
  });

  it('an arm of another length than planned is told as that: its free swing is searched anew', () => {
    const arm = applied(DRAFT, [
      ['tanks[0].mounting.pitch_deg', chosen(0)],
      ['tanks[0].mounting.roll_deg', chosen(0)],
      ['tanks[0].fillLimit_ratio', chosen(1)],
    ]);
    const planned_m = unwrap(calibrationResult(poured(arm, { volume: 0, lowered: 0 }), 0, 0)).armLength_m!;
    const sender = arm.tanks[0]!.senders[0]!;
    if (sender.kind !== 'swing-arm') throw new Error('the draft has a swing arm');
    const shorter = applied(arm, [['tanks[0].senders[0].armLength_m', chosen(sender.armLength_m.value * 0.88)]]);
    const log = poured(shorter, { volume: 0, lowered: 0 });
    const read = applied(arm, [
      ['tanks[0].calibrations', log.tanks[0]!.calibrations],
      ['records', log.records],
    ]);
    const result = unwrap(calibrationResult(read, 0, 0));
    const of = (key: string) => unwrap(result.explained).unknowns.find((one) => one.key === key)!;
    expectClose(result.armLength_m!, planned_m, { rel: 1e-12, why: 'that of the plan, not of the log' });
    expect(of('arm').value).toBeLessThan(-2 * of('arm').sigma);
    expect(Math.abs(of('arm').value + 0.12)).toBeLessThan(3 * of('arm').sigma);
    expect(Math.abs(of('volume').value)).toBeLessThan(2 * of('volume').sigma);
  });

  it('what it teaches makes the real tank’s readings right, within the noise', () => {
    const truth = { volume: -0.04, lowered: 0.004 };
    const system = poured(PROBED, truth);
    const result = unwrap(calibrationResult(system, 0, 0));
    const { points } = unwrap(taughtByPours(result, 6, 'best'));
    const plan = unwrap(rigPlan(system, 'sender'));
    for (const { reading, shown_ratio } of points)
      expectClose(plan.readingAt((shown_ratio * result.holds_m3) / (1 + truth.volume), truth.lowered), reading, {
        abs: 1,
        why: 'half a per cent of the range: noise and straight lines',
      });
  });

  it('readings of another kind are left out and said to be', () => {
    const mixed = poured(PROBED, { volume: 0, lowered: 0 }, (i) =>
      i === 5 ? { reading: { kind: 'needle', shown_ratio: 0.4 } } : {},
    );
    const { lines, channel } = unwrap(calibrationResult(mixed, 0, 0));
    expect(channel).toBe('resistance');
    expect(lines.filter(({ otherKind }) => otherKind).map(({ id }) => id)).toEqual(['pour-5']);
  });

  it('by the needle, where that is what was read', () => {
    const byNeedle = poured(PROBED, { volume: 0, lowered: 0 }, (i) => ({
      reading: { kind: 'needle', shown_ratio: Math.min(1, Math.max(0, (0.004 * (i + 1)) / 0.2 - 0.01) / 0.24) },
    }));
    const result = unwrap(calibrationResult(byNeedle, 0, 0));
    expect(result.channel).toBe('needle');
    expect(Math.abs(unwrap(result.explained).unknowns[0]!.value)).toBeLessThan(0.02);
  });

  it('of a dipstick: height over area', () => {
    const stick = applied(PROBED, [
      ['tanks[0].dipsticks', [{ id: 'stick', name: 'Stick', port: 'filler', markEvery_m3: chosen(0.005) }]],
    ]);
    const pours = Array.from({ length: 8 }, (_, i): PourDocument => ({
      id: `p-${i}`,
      recorded: '2026-05-03T10:00:00Z',
      kind: 'pour',
      of: 'log',
      at: '',
      way: 'can',
      added_m3: 0.005,
      spread_m3: 5e-5,
      reading: { kind: 'height', height_m: (0.005 * (i + 1)) / 0.2 / 0.97 },
      note: '',
      state: 'counts',
      simulated: false,
    }));
    const result = unwrap(
      calibrationResult(
        applied(stick, [
          [
            'tanks[0].calibrations',
            [{ id: 'log', name: 'Log', of: 'stick', start_m3: 0, startSpread_m3: 1e-6, pitch_deg: 0, roll_deg: 0 }],
          ],
          ['records', pours],
        ]),
        0,
        0,
      ),
    );
    expect(result.channel).toBe('height');
    const volume = unwrap(result.explained).unknowns.find(({ key }) => key === 'volume')!;
    expect(Math.abs(volume.value + 0.03)).toBeLessThan(3 * volume.sigma);
  });

  it.each([
    ['no-calibration', DRAFT],
    ['no-instrument', applied(poured(PROBED, { volume: 0, lowered: 0 }), [['tanks[0].ports[3].x_m', chosen(3)]])],
  ] as const)('refuses %s', (code, system) => {
    expect(calibrationResult(system, 0, 0)).toMatchObject({ ok: false, error: { code } });
  });
});

describe('a sender for a document', () => {
  it('is designed in steps of 5 mm, and covers what it says when it is taken', () => {
    const design = unwrap(designedSender(DRAFT, 0, 0, 'any'));
    expect(Math.abs(design.armLength_m / 0.005 - Math.round(design.armLength_m / 0.005))).toBeLessThan(1e-6);
    const taken = applied(DRAFT, [
      ['tanks[0].senders[0].pivotDepth_m', chosen(design.pivotDepth_m)],
      ['tanks[0].senders[0].armLength_m', chosen(design.armLength_m)],
      ['tanks[0].senders[0].swing', design.swing],
    ]);
    const { curve } = gaugeOf(taken);
    expectClose(curve.unseenLow_m3, design.unseenLow_m3, { rel: 0.02, why: 'the same arm in the same tank' });
    expect(curve.free).not.toHaveProperty('lowBy');
  });

  it('one from a deeper tank is cut, and what is left of its error is said', () => {
    const donor = applied(DRAFT, [
      ['tanks[0].senders[0].pivotDepth_m', chosen(0.12)],
      ['tanks[0].senders[0].armLength_m', chosen(0.33)],
    ]);
    const { best } = unwrap(refittedSender(donor, 0, 0));
    expect(best!.wire_m).toBeLessThan(0.33);
    expect(best!.covers_ratio).toBeGreaterThan(0.6);
  });

  it('only an arm is designed', () => {
    expect(designedSender(PROBED, 0, 0, 'any')).toMatchObject({ ok: false, error: { code: 'not-an-arm' } });
  });

  it('the trailer’s sight tube says what it never shows', () => {
    const trailer = unwrap(parseSystemText(readFileSync('demo/forest-trailer.json', 'utf8')));
    const [sight] = unwrap(evaluateSystem(trailer, 'full', 'without-fit')).tanks[0]!.sights;
    const scale = unwrap(sight!.scale);
    // A circular segment 60 mm high of a drum 640 mm across and a metre long.
    const segment =
      0.32 ** 2 * Math.acos((0.32 - 0.06) / 0.32) - (0.32 - 0.06) * Math.sqrt(2 * 0.32 * 0.06 - 0.06 ** 2);
    expect(scale.unseenLow_m3).toBeGreaterThan(segment * 0.99);
    expect(scale.unseenLow_m3).toBeLessThan(segment * 1.4);
    expect(scale.marks.map(({ at_m }) => at_m)).toEqual([...scale.marks.map(({ at_m }) => at_m)].sort((a, b) => a - b));
  });
});
