import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxMesh, prismMesh, rodMesh, vesselMesh, worldUpInVehicle, type Vec3 } from '../geometry';
import { unwrap } from '../outcome';
import { expectClose } from '../../../tests/expectClose';
import {
  armAngle_rad,
  bandAt,
  bentArm,
  crossCoil,
  floatCentre_m,
  freeRun,
  freeSwing,
  gaugeCurve,
  needleAt,
  readingOf,
  shareAt,
  volumesAt,
  wireAt,
  withSlopes,
  type FreeSwing,
  type Gauge,
  type Instrument,
  type Probe,
  type Sender,
  type SwingArm,
} from '.';

const BOX = boxMesh(1, 0.5, 0.4);
const UP: Vec3 = [0, 0, 1];
const deg = (angle: number): number => (angle * Math.PI) / 180;
const OHMS = { empty: 240, full: 33 };
const LINEAR: Gauge = { kind: 'linear', ...OHMS, tolerance_ratio: 0.03 };

const arm = (changes: Partial<SwingArm> = {}): SwingArm => ({
  kind: 'swing-arm',
  pivot_m: [0.4, 0.25, 0.2],
  reach: [1, 0, 0],
  armLength_m: 0.2,
  floatRadius_m: 0.02,
  floatRise_m: 0,
  lowStop_rad: deg(-45),
  highStop_rad: deg(45),
  wireRadius_m: 0.0015,
  ...changes,
});
const probe = (changes: Partial<Probe> = {}): Probe => ({
  kind: 'tube',
  top_m: [0.5, 0.25, 0.4],
  down: [0, 0, -1],
  length_m: 0.38,
  lowDead_m: 0.02,
  highDead_m: 0.03,
  tubeRadius_m: 0.008,
  floatRadius_m: 0.02,
  floatRise_m: 0,
  step_m: 0,
  ...changes,
});
const instrument = (sender: Sender, changes: Partial<Instrument> = {}): Instrument => ({
  sender,
  output: OHMS,
  tolerance_ratio: 0.05,
  gauge: LINEAR,
  ...changes,
});

function swingOf(sender: SwingArm): FreeSwing {
  const swing = freeSwing(BOX, sender);
  if (!swing) throw new Error('no swing');
  return swing;
}

describe('arm', () => {
  it('rides at asin of height over length when level', () => {
    expectClose(armAngle_rad(arm(), swingOf(arm()), UP, 0.3), Math.asin(0.1 / 0.2), {
      rel: 1e-12,
      why: 'plane trigonometry',
    });
    expectClose(armAngle_rad(arm(), swingOf(arm()), UP, 0.2), 0, { abs: 1e-12, why: 'level with the pivot' });
  });

  it('a float that sits deep rides lower by as much', () => {
    const deep = arm({ floatRise_m: -0.01 });
    expectClose(armAngle_rad(deep, swingOf(deep), UP, 0.3), Math.asin(0.09 / 0.2), {
      rel: 1e-12,
      why: 'its middle is 10 mm under the surface',
    });
  });

  it('puts the float in the surface at any slope', () => {
    for (const [pitch, roll] of [
      [0.1, 0.2],
      [-0.15, 0.05],
      [0.2, -0.3],
    ] as const) {
      const up = worldUpInVehicle(pitch, roll);
      const surface = up[0] * 0.4 + up[1] * 0.25 + up[2] * 0.22;
      const centre = floatCentre_m(arm(), armAngle_rad(arm(), swingOf(arm()), up, surface));
      expectClose(centre[0] * up[0] + centre[1] * up[1] + centre[2] * up[2], surface, { abs: 1e-12, why: 'floats' });
    }
  });

  it('swings free between its stops when it has room', () => {
    expect(freeSwing(BOX, arm())).toEqual({ low_rad: deg(-45), high_rad: deg(45) });
  });

  it('a float too low meets the floor where its lower edge does', () => {
    const swing = freeSwing(BOX, arm({ armLength_m: 0.24, lowStop_rad: deg(-70) }))!;
    expect(swing.lowBy).toBe('the wall');
    expectClose(swing.low_rad, -Math.asin(0.18 / 0.24), {
      abs: deg(0.06),
      why: 'search stops at a twentieth of a degree',
    });
  });

  it('has no swing where every angle touches', () => {
    expect(freeSwing(BOX, arm({ armLength_m: 0.7 }))).toBeUndefined();
  });

  it('meets a pickup’s tube beside it, by name, with float or wire', () => {
    // A tube 100 mm before the pivot, in the plane of swing: the wire meets it above a third of the way down.
    const tube = { name: 'Feed', mesh: rodMesh([0.5, 0.25, 0.02], [0.5, 0.25, 0.16], 0.005, 12) };
    const swing = freeSwing(BOX, arm(), [tube])!;
    expect(swing.lowBy).toBe('Feed');
    // Level with its top end, less the rods' own radii, by hand: tan a = -(0.2 - 0.16) / 0.1.
    expectClose(swing.low_rad, -Math.atan(0.04 / 0.1), {
      abs: deg(2.5),
      why: 'tube and wire have thickness: 5 and 1.5 mm at 100 mm',
    });
    expect(
      freeSwing(BOX, arm(), [{ ...tube, mesh: rodMesh([0.5, 0.05, 0.02], [0.5, 0.05, 0.4], 0.005, 12) }]),
    ).not.toHaveProperty('lowBy');
  });

  it('a bent wire: length and lead by hand for a right angle, and nothing for a straight one', () => {
    const right = bentArm(0.25, 0.1, Math.PI / 2);
    expectClose(right.length_m, Math.hypot(0.1, 0.15), { rel: 1e-12, why: 'Pythagoras' });
    expectClose(right.lead_rad, Math.atan2(0.15, 0.1), { rel: 1e-12, why: 'Pythagoras' });
    expect(bentArm(0.25, 0.1, 0)).toEqual({ length_m: 0.25, lead_rad: 0 });
  });

  it('the wire of a bent arm keeps its length', () => {
    const { length_m, lead_rad } = bentArm(0.25, 0.1, deg(40));
    const bent = arm({ armLength_m: length_m, elbow: { at_m: 0.1, from_rad: -lead_rad } });
    const [pivot, elbow, float] = wireAt(bent, 0.3) as [Vec3, Vec3, Vec3];
    const apart = (a: Vec3, b: Vec3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
    expectClose(apart(pivot, elbow) + apart(elbow, float), 0.25, { rel: 1e-12, why: 'bending stretches nothing' });
  });

  it('gives what is linear between its stops, and goes on beyond', () => {
    const free = freeRun(arm(), BOX)!;
    expect(readingOf(OHMS, shareAt(arm(), free, UP, 0.2))).toBeCloseTo(136.5, 10);
    expect(readingOf(OHMS, 0)).toBe(240);
    expect(readingOf(OHMS, 1)).toBe(33);
  });
});

describe('probe', () => {
  it('reads the height over its foot, whatever the direction of the lid', () => {
    const free = freeRun(probe(), BOX)!;
    // Foot of the span 40 mm over the floor, head at 370 mm.
    expectClose(shareAt(probe(), free, UP, 0.04 + 0.33 / 2), 0.5, { abs: 1e-12, why: 'half-way up the span' });
    expect(shareAt(probe(), free, UP, 0.01)).toBe(0);
    expect(shareAt(probe(), free, UP, 0.4)).toBe(1);
  });

  it('heeled, it reads along itself', () => {
    const up = worldUpInVehicle(0, deg(20));
    const free = freeRun(probe(), BOX)!;
    const point: Vec3 = [0.5, 0.25, 0.2];
    const surface = up[0] * point[0] + up[1] * point[1] + up[2] * point[2];
    expectClose(shareAt(probe(), free, up, surface), (0.2 - 0.04) / 0.33, {
      abs: 1e-12,
      why: 'the surface goes through that point of the tube',
    });
  });

  it('with reeds moves in whole steps', () => {
    const reeds = probe({ step_m: 0.033 });
    const free = freeRun(reeds, BOX)!;
    expect(shareAt(reeds, free, UP, 0.04 + 0.0329)).toBe(0);
    expectClose(shareAt(reeds, free, UP, 0.04 + 0.0331), 0.1, { abs: 1e-12, why: 'the first of ten contacts' });
  });

  it('is stopped by what stands beside it and not by floor and lid', () => {
    expect(freeRun(probe(), BOX)).toEqual({ low_share: 0, high_share: 1 });
    const by = freeRun(probe(), BOX, [
      { name: 'Pump', mesh: rodMesh([0.53, 0.25, 0.01], [0.53, 0.25, 0.2], 0.02, 12) },
    ])!;
    expect(by.lowBy).toBe('Pump');
    expectClose(by.low_share, (0.22 - 0.04) / 0.33, {
      abs: 0.03,
      why: 'looked at in sixtieths; the float rides 20 mm over the pump’s end',
    });
  });

  it('longer than the tank is deep it does not go in', () => {
    expect(freeRun(probe({ length_m: 0.45 }), BOX)).toBeUndefined();
  });
});

describe('needle', () => {
  it('is held at its ends', () => {
    expect(needleAt(LINEAR, 300)).toBe(0);
    expect(needleAt(LINEAR, 10)).toBe(1);
    expect(needleAt(LINEAR, 136.5)).toBeCloseTo(0.5, 12);
  });

  it('cross-coil: its ends and its middle stand where they are said to, and it bends between', () => {
    const gauge = unwrap(crossCoil(240, 103, 33, 0.03));
    expectClose(needleAt(gauge, 103), 0.5, { abs: 1e-9, why: 'half is what it was found by' });
    expect(needleAt(gauge, 240)).toBe(0);
    expect(needleAt(gauge, 33)).toBe(1);
    // The field itself, by complex numbers instead of the divider: I and I R / (R + r) at right angles.
    const coil = gauge.kind === 'cross-coil' ? gauge.coil_ohm : NaN;
    const angle = (ohm: number): number => Math.atan(1 / (1 / ohm) / (ohm + coil));
    for (const ohm of [60, 103, 150, 200])
      expectClose(needleAt(gauge, ohm), (angle(ohm) - angle(240)) / (angle(33) - angle(240)), {
        abs: 1e-9,
        why: 'same circuit',
      });
    expect(needleAt(gauge, 136.5)).toBeLessThan(0.45);
  });

  it('cross-coil: refuses a middle that no such gauge has, and says what it may be', () => {
    const gauge = crossCoil(240, 200, 33, 0.03);
    expect(gauge).toMatchObject({ ok: false, error: { code: 'no-coil' } });
    expect(!gauge.ok && gauge.error.detail).toMatch(/between about/);
  });

  it('half a box by hand: level with the pivot, arm level, needle at half', () => {
    const curve = unwrap(gaugeCurve(BOX, instrument(arm()), 0.2, UP, 50));
    const half = curve.points.find(({ volume_m3 }) => Math.abs(volume_m3 - 0.1) < 1e-12)!;
    expect(half.needle_ratio).toBeCloseTo(0.5, 9);
    expect(half.true_ratio).toBeCloseTo(0.5, 12);
  });

  it('the worst error of any arm in a box, by closed forms at every place where it can be: floor, stops, brim, and where the slopes are alike', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.08, max: 0.19, noNaN: true }),
        fc.double({ min: 25, max: 80, noNaN: true }),
        fc.double({ min: 25, max: 80, noNaN: true }),
        fc.integer({ min: 3, max: 60 }),
        (length, lowDeg, highDeg, steps) => {
          const [low, high] = [deg(-lowDeg), deg(highDeg)];
          const free = arm({ armLength_m: length, lowStop_rad: low, highStop_rad: high });
          if (length * Math.sin(-low) > 0.175 || length * Math.sin(high) > 0.175) return;
          const needleAtDepth = (depth: number): number =>
            (Math.min(high, Math.max(low, Math.asin(Math.min(1, Math.max(-1, (depth - 0.2) / length))))) - low) /
            (high - low);
          const error = (depth: number): number => needleAtDepth(depth) - depth / 0.4;
          // d(asin)/d(depth) of the arm against the box's even slope: cos a = 0.4 / (length (high - low)).
          const cosine = 0.4 / (length * (high - low));
          const alike =
            Math.abs(cosine) <= 1 ? [1, -1].map((side) => 0.2 + side * length * Math.sqrt(1 - cosine * cosine)) : [];
          const places = [
            0,
            0.4,
            0.2 + length * Math.sin(low),
            0.2 + length * Math.sin(high),
            ...alike.filter((depth) => depth > 0.2 + length * Math.sin(low) && depth < 0.2 + length * Math.sin(high)),
          ];
          const worst = Math.max(...places.map((depth) => Math.abs(error(depth))));
          const curve = unwrap(gaugeCurve(BOX, instrument(free), 0.2, UP, steps));
          expectClose(Math.abs(curve.worst.error_ratio), worst, {
            abs: 1e-7,
            why: 'closed form; beside a break by a billionth of the depth',
          });
          expectClose(
            Math.max(...curve.points.map((point) => Math.abs(point.needle_ratio - point.true_ratio))),
            worst,
            { abs: 1e-7, why: 'the curve that is drawn has it in it' },
          );
        },
      ),
      { seed: 7, numRuns: 80 },
    );
  });

  it('a tube with reeds is furthest out just before a contact closes, whatever the even steps', () => {
    const reeds = probe({
      length_m: 0.4 - 1e-6,
      lowDead_m: 0,
      highDead_m: 0,
      floatRadius_m: 0,
      tubeRadius_m: 0.0001,
      step_m: 0.04,
    });
    for (const steps of [4, 10, 37])
      expectClose(Math.abs(unwrap(gaugeCurve(BOX, instrument(reeds), 0.2, UP, steps)).worst.error_ratio), 0.1, {
        abs: 1e-3,
        why: 'one of ten steps of the tube, and a box',
      });
  });

  it('a linear gauge on a lying cylinder: error at each depth against the circular segment’s closed form', () => {
    const drum = unwrap(vesselMesh({ axis: 'x', radius_m: 0.2, shell_m: 1, nearEnd: 'flat', farEnd: 'flat' }));
    const stick = probe({
      top_m: [0.5, 0.2, 0.399],
      length_m: 0.398,
      lowDead_m: 0,
      highDead_m: 0,
      floatRadius_m: 0,
      tubeRadius_m: 0.002,
    });
    const curve = unwrap(gaugeCurve(drum, instrument(stick), Math.PI * 0.04, UP, 40));
    for (const i of [4, 10, 16, 24, 33]) {
      const h = (0.4 * i) / 40;
      const area = 0.04 * Math.acos((0.2 - h) / 0.2) - (0.2 - h) * Math.sqrt(2 * 0.2 * h - h * h);
      const point = curve.points.find(({ share }) => Math.abs(share - (h - 0.001) / 0.398) < 1e-9)!;
      expectClose(point.needle_ratio - point.true_ratio, (h - 0.001) / 0.398 - area / (Math.PI * 0.04), {
        abs: 2e-3,
        why: 'the drum is a many-sided one; closed form of the circular segment',
      });
    }
  });

  it('a V bottom: volume goes as the square of the height, so at a quarter of the volume the needle is at half', () => {
    const keel = unwrap(
      prismMesh(
        [
          [0.2, 0],
          [0.4, 0.4],
          [0, 0.4],
        ],
        'x',
        1,
      ),
    );
    const stick = probe({
      top_m: [0.5, 0.2, 0.4],
      length_m: 0.399,
      lowDead_m: 0,
      highDead_m: 0,
      floatRadius_m: 0,
      tubeRadius_m: 0.0001,
    });
    const curve = unwrap(gaugeCurve(keel, instrument(stick), 0.08, UP, 400));
    const quarter = curve.points.find((point) => point.true_ratio >= 0.25)!;
    expectClose(quarter.needle_ratio, 0.5, { abs: 0.006, why: 'similar triangles; the stick ends 1 mm off the keel' });
  });

  it('says how much the float does not see', () => {
    const curve = unwrap(gaugeCurve(BOX, instrument(arm()), 0.2, UP, 200));
    const unseen = (0.2 - 0.2 * Math.sin(deg(45))) * 0.5;
    expectClose(curve.unseenLow_m3, unseen, { rel: 1e-6, why: 'area times height under the float’s lowest place' });
    expectClose(curve.unseenHigh_m3, unseen, { rel: 1e-6, why: 'area times height over its highest' });
  });

  it('what a quarter is: from the curve, with least and most by the two tolerances', () => {
    const stick = probe({ length_m: 0.4 - 1e-6, lowDead_m: 0, highDead_m: 0, floatRadius_m: 0, tubeRadius_m: 0.0001 });
    const curve = unwrap(gaugeCurve(BOX, instrument(stick), 0.2, UP, 100));
    const quarter = volumesAt(curve.points, 0.25);
    const off = Math.hypot(0.05, 0.03) * 0.2;
    expectClose(quarter.volume_m3, 0.05, { rel: 1e-4, why: 'a box and a straight probe' });
    expectClose(quarter.least_m3, 0.05 - off, { rel: 1e-3, why: 'squares of two independent tolerances add' });
    expectClose(quarter.most_m3, 0.05 + off, { rel: 1e-3, why: 'squares of two independent tolerances add' });
  });

  it('a slope widens the band by what the surface moves at the probe', () => {
    const stick = probe({
      top_m: [0.9, 0.25, 0.4],
      length_m: 0.399,
      lowDead_m: 0,
      highDead_m: 0,
      floatRadius_m: 0,
      tubeRadius_m: 0.0001,
    });
    const plain = unwrap(
      gaugeCurve(BOX, instrument(stick, { tolerance_ratio: 0, gauge: { ...LINEAR, tolerance_ratio: 0 } }), 0.2, UP, 20),
    );
    const banded = withSlopes(plain, [
      bandAt(
        BOX,
        instrument(stick, { tolerance_ratio: 0, gauge: { ...LINEAR, tolerance_ratio: 0 } }),
        plain,
        worldUpInVehicle(deg(10), 0),
      ),
    ]);
    // Half full, nose up by 10°: at 0.4 m before the middle the liquid stands 0.4 tan 10° lower.
    const middle = banded.find(({ true_ratio }) => Math.abs(true_ratio - 0.5) < 1e-9)!;
    expectClose(middle.needleLow_ratio, (0.2 - 0.4 * Math.tan(deg(10))) / 0.4, {
      abs: 0.004,
      why: 'a wedge about the middle',
    });
    expectClose(middle.needleHigh_ratio, 0.5, { abs: 0.003, why: 'level' });
  });

  it.each([
    ['no-swing', instrument(arm({ armLength_m: 0.7 })), 0.2],
    ['stops-crossed', instrument(arm({ lowStop_rad: 1, highStop_rad: 0 })), 0.2],
    ['no-range', instrument(arm(), { gauge: { ...LINEAR, full: 240 } as Gauge }), 0.2],
    ['no-range', instrument(arm(), { output: { empty: 5, full: 5 } }), 0.2],
    ['no-span', instrument(probe({ lowDead_m: 0.4 })), 0.2],
    ['no-span', instrument(probe({ length_m: 0.6 })), 0.2],
    ['no-volume', instrument(arm()), 0],
    [
      'untaught',
      instrument(arm({ pivot_m: [0.4, 0.25, 0.2], lowStop_rad: deg(60), highStop_rad: deg(60.001) }), {
        gauge: { kind: 'calibrated', points: [], mostPoints: 5, tolerance_ratio: 0 },
        output: { empty: 1, full: 1 + 1e-18 },
      }),
      0.2,
    ],
  ] as const)('refuses %s', (code, one, holds) => {
    const curve = gaugeCurve(BOX, one as Instrument, holds, UP, 10);
    expect(curve).toMatchObject({ ok: false, error: { code: code === 'untaught' ? 'no-range' : code } });
  });
});
