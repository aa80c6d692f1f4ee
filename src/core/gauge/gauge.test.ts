import { describe, expect, it } from 'vitest';
import { boxMesh, worldUpInVehicle, type Vec3 } from '../geometry';
import { unwrap } from '../outcome';
import { expectClose } from '../../../tests/expectClose';
import { armAngle_rad, floatCentre_m, freeSwing, gaugeCurve, needleAt, resistanceAt_ohm, type SwingArm } from '.';

const BOX = boxMesh(1, 0.5, 0.4);
const UP: Vec3 = [0, 0, 1];
const deg = (angle: number): number => (angle * Math.PI) / 180;
const GAUGE = { emptyResistance_ohm: 240, fullResistance_ohm: 33, tolerance_ratio: 0.03 };

const arm = (changes: Partial<SwingArm> = {}): SwingArm => ({
  pivot_m: [0.4, 0.25, 0.2], reach: [1, 0, 0], armLength_m: 0.2, floatRadius_m: 0.02, lowStop_rad: deg(-45), highStop_rad: deg(45), emptyResistance_ohm: 240, fullResistance_ohm: 33, ...changes,
});

describe('arm', () => {
  it('rides at asin of height over length when level', () => {
    const sender = arm();
    const swing = unwrapSwing(sender);
    expectClose(armAngle_rad(sender, swing, UP, 0.3), Math.asin(0.1 / 0.2), { rel: 1e-12, why: 'plane trigonometry' });
    expectClose(armAngle_rad(sender, swing, UP, 0.2), 0, { abs: 1e-12, why: 'level with the pivot' });
  });

  it('puts the float in the surface at any slope', () => {
    for (const [pitch, roll] of [[0.1, 0.2], [-0.15, 0.05], [0.2, -0.3]] as const) {
      const up = worldUpInVehicle(pitch, roll);
      const sender = arm();
      const surface = up[0] * 0.4 + up[1] * 0.25 + up[2] * 0.22;
      const centre = floatCentre_m(sender, armAngle_rad(sender, unwrapSwing(sender), up, surface));
      expectClose(centre[0] * up[0] + centre[1] * up[1] + centre[2] * up[2], surface, { abs: 1e-12, why: 'floats' });
    }
  });

  it('swings free between its stops when it has room', () => {
    expect(freeSwing(BOX, arm())).toMatchObject({ low_rad: deg(-45), high_rad: deg(45), lowBlocked: false, highBlocked: false });
  });

  it('a float too low meets the floor where its lower edge does', () => {
    const swing = freeSwing(BOX, arm({ armLength_m: 0.24, lowStop_rad: deg(-70) }))!;
    expect(swing.lowBlocked).toBe(true);
    expectClose(swing.low_rad, -Math.asin(0.18 / 0.24), { abs: deg(0.06), why: 'search stops at a twentieth of a degree' });
  });

  it('has no swing where every angle touches', () => {
    expect(freeSwing(BOX, arm({ armLength_m: 0.7 }))).toBeUndefined();
  });

  it('resistance is linear between the stops, and goes on beyond', () => {
    expect(resistanceAt_ohm(arm(), deg(-45))).toBeCloseTo(240, 10);
    expect(resistanceAt_ohm(arm(), 0)).toBeCloseTo(136.5, 10);
    expect(resistanceAt_ohm(arm(), deg(45))).toBeCloseTo(33, 10);
  });
});

function unwrapSwing(sender: SwingArm) {
  const swing = freeSwing(BOX, sender);
  if (!swing) throw new Error('no swing');
  return swing;
}

describe('needle', () => {
  it('is held at its ends', () => {
    expect(needleAt(GAUGE, 300)).toBe(0);
    expect(needleAt(GAUGE, 10)).toBe(1);
    expect(needleAt(GAUGE, 136.5)).toBeCloseTo(0.5, 12);
  });

  it('half a box by hand: level with the pivot, arm level, needle at half', () => {
    const curve = unwrap(gaugeCurve(BOX, arm(), GAUGE, 0.2, UP, 50));
    const half = curve.points[25]!;
    expect(half.needle_ratio).toBeCloseTo(0.5, 9);
    expect(half.true_ratio).toBeCloseTo(0.5, 12);
  });

  it('the worst error of an arm that reaches ±45° in a box, by an independent scan', () => {
    const curve = unwrap(gaugeCurve(BOX, arm(), GAUGE, 0.2, UP, 400));
    let worst = 0;
    for (let i = 0; i <= 400; i++) {
      const depth = (0.4 * i) / 400;
      const angle = Math.min(deg(45), Math.max(deg(-45), Math.asin(Math.min(1, Math.max(-1, (depth - 0.2) / 0.2)))));
      const error = (angle / deg(45) + 1) / 2 - i / 400;
      if (Math.abs(error) > Math.abs(worst)) worst = error;
    }
    expectClose(Math.abs(curve.worst.error_ratio), Math.abs(worst), { abs: 1e-9, why: 'same law, hand-written for a box' });
  });

  it('says how much the float does not see', () => {
    const curve = unwrap(gaugeCurve(BOX, arm(), GAUGE, 0.2, UP, 200));
    const unseen = (0.2 - 0.2 * Math.sin(deg(45))) * 0.5;
    expectClose(curve.unseenLow_m3, unseen, { abs: 0.001, why: 'one step of the curve' });
    expectClose(curve.unseenHigh_m3, unseen, { abs: 0.001, why: 'one step of the curve' });
  });

  it.each([
    ['no-swing', arm({ armLength_m: 0.7 }), GAUGE, 0.2],
    ['stops-crossed', arm({ lowStop_rad: 1, highStop_rad: 0 }), GAUGE, 0.2],
    ['no-range', arm(), { ...GAUGE, fullResistance_ohm: 240 }, 0.2],
    ['no-volume', arm(), GAUGE, 0],
  ] as const)('refuses %s', (code, sender, gauge, holds) => {
    expect(gaugeCurve(BOX, sender, gauge, holds, UP, 10)).toMatchObject({ ok: false, error: { code } });
  });
});
