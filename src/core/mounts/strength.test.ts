import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { BOLTS, BOLT_SIZES, type BoltSize } from '../reference/bolts';
import { MOUNT_STOCKS } from '../reference/mountStock';
import {
  armBends_N,
  armStiffness_NPerM,
  bearing_N,
  boltProof_N,
  boltUse_ratio,
  pressed_Pa,
  pullThrough_N,
  strapHolds_N,
  stressArea_m2,
  threadHolds_N,
  tightening_Nm,
  weld_N,
} from './strength';

const INCH2 = 0.0254 ** 2;

describe('bolts against published tables', () => {
  it.each([
    // ISO 898-1 table 4: nominal stress areas, mm²
    ['M5', 14.2e-6],
    ['M6', 20.1e-6],
    ['M8', 36.6e-6],
    ['M10', 58e-6],
    ['M12', 84.3e-6],
    ['M16', 157e-6],
    // ASME B1.1: tensile stress areas, in²
    ['1/4-20', 0.0318 * INCH2],
    ['5/16-18', 0.0524 * INCH2],
    ['3/8-16', 0.0775 * INCH2],
    ['7/16-14', 0.1063 * INCH2],
    ['1/2-13', 0.1419 * INCH2],
    ['5/8-11', 0.226 * INCH2],
  ] as const)('stress area of %s', (size, area_m2) => {
    expectClose(stressArea_m2(size), area_m2, { rel: 4e-3, why: 'tables are rounded to three figures' });
  });

  it.each([
    // ISO 898-1 table 6: proof loads, N
    ['M6', '8.8', 11600],
    ['M8', '8.8', 21200],
    ['M10', '8.8', 33700],
    ['M12', '8.8', 48900],
    ['M8', '10.9', 30400],
    ['M8', '4.6', 8240],
    // SAE J429 table 4: 3/8-16 grade 5 proof load 6,600 lbf
    ['3/8-16', 'grade-5', 6600 * 4.4482216],
  ] as const)('proof load of %s %s', (size, of, load_N) => {
    expectClose(boltProof_N(size, of), load_N, { rel: 7e-3, why: 'tables are worked out of rounded areas' });
  });

  it('torque of a dry M8 8.8 is about 25 N m, and pull and shear add as squares', () => {
    // Shigley: T = 0.2 F d, F = 0.75 of proof.
    expectClose(tightening_Nm('M8', '8.8'), 25.5, { rel: 5e-3, why: 'handbooks give 25 N m' });
    const proof = boltProof_N('M8', '8.8');
    expect(boltUse_ratio('M8', '8.8', proof, 0)).toBeCloseTo(1, 12);
    expect(boltUse_ratio('M8', '8.8', 0, proof / Math.sqrt(3))).toBeCloseTo(1, 12);
    expect(boltUse_ratio('M8', '8.8', 0.6 * proof, (0.8 * proof) / Math.sqrt(3))).toBeCloseTo(1, 12);
    expect(boltUse_ratio('M8', '8.8', -proof, 0)).toBe(0);
  });

  it('threads: a nut outlasts its bolt, thin sheet does not; what no table has is not known', () => {
    expect(threadHolds_N('nut', 'M8', 'mild-steel', 0.001)).toBe(Infinity);
    // A steel thread as deep as its bolt is thick holds about what the bolt bears.
    const deep = threadHolds_N('tapped', 'M8', 'mild-steel', 0.008)!;
    expect(deep / boltProof_N('M8', '8.8')).toBeGreaterThan(0.9);
    expect(deep / boltProof_N('M8', '8.8')).toBeLessThan(1.3);
    expectClose(
      threadHolds_N('tapped', 'M6', 'aluminium-5052', 0.003)!,
      0.875 * Math.PI * 6 * 3 * (160 / Math.sqrt(3)),
      { rel: 1e-9, why: 'seven eighths of a cylinder, sheared' },
    );
    expect(threadHolds_N('insert', 'M6', 'aluminium-5052', 0.003)).toBeGreaterThan(
      threadHolds_N('tapped', 'M6', 'aluminium-5052', 0.003)!,
    );
    expect(threadHolds_N('rivet-nut', 'M6', 'mild-steel', 0.003)).toBe(6000);
    expect(threadHolds_N('rivet-nut', 'M6', 'aluminium-5052', 0.001)).toBeLessThan(4000);
    expect(threadHolds_N('rivet-nut', 'M16', 'mild-steel', 0.003)).toBeUndefined();
    expect(threadHolds_N('wood-screw', 'M6', 'mild-steel', 0.003)).toBeUndefined();
    expectClose(threadHolds_N('wood-screw', 'M6', 'plywood', 0.018)!, 20e-6 * 600 ** 2 * 6 * 18, {
      rel: 1e-9,
      why: 'by hand',
    });
  });
});

describe('plates, welds and arms', () => {
  it('bearing by EN 1993-1-8 table 3.4, worked by hand', () => {
    // M12 in 5 mm S235, hole 13.5 mm, 27 mm to the edge: alpha_b = 27 / 40.5; 2.5 x 0.6667 x 360 x 12 x 5 / 1.25
    expectClose(bearing_N('mild-steel', 0.005, 'M12', 0.027), 28800, { rel: 1e-9, why: 'by hand' });
    // Beyond three holes it is the bolt that presses, and no more is gained.
    expect(bearing_N('mild-steel', 0.005, 'M12', 0.2)).toBe(bearing_N('mild-steel', 0.005, 'M12', 0.0405));
  });

  it('plywood by EN 1995-1-1 (8.20), worked by hand', () => {
    // 0.11 (1 - 0.08) 600 x 8^-0.3 = 32.54 N/mm²; x 8 x 12
    expectClose(bearing_N('plywood', 0.012, 'M8', 1), 0.11 * 0.92 * 600 * 8 ** -0.3 * 96, {
      rel: 1e-9,
      why: 'by hand',
    });
    expectClose(0.11 * 0.92 * 600 * 8 ** -0.3, 32.5, { rel: 5e-3, why: 'N/mm², as tables of embedment have it' });
    expect(pullThrough_N('plywood', 0.012, 'M8')).toBeGreaterThan(4000);
    expect(pullThrough_N('mild-steel', 0.002, 'M8')).toBeGreaterThan(pullThrough_N('mild-steel', 0.001, 'M8'));
  });

  it('fillet welds of S235 bear 207.8 N/mm² of throat, the design strength that EN 1993-1-8 leads to', () => {
    expectClose(weld_N('mild-steel', 0.004, 0.1)!, 207.8 * 400, { rel: 1e-3, why: '360 / (root 3 x 0.8 x 1.25)' });
    expect(weld_N('plywood', 0.004, 0.1)).toBeUndefined();
    // Aluminium is soft beside its weld.
    expect(weld_N('aluminium-6061', 0.004, 0.1)).toBeLessThan(0.5 * weld_N('mild-steel', 0.004, 0.1)!);
  });

  it('an arm bends at yield in its clamped end, and gives as a cantilever', () => {
    // 40 x 6 mm of S235, 50 mm long: W = 240 mm³; 235 x 240 / 50 = 1128 N; 3 E I / L³, I = 720 mm⁴
    expectClose(armBends_N(235e6, 0.04, 0.006, 0.05), 1128, { rel: 1e-9, why: 'by hand' });
    expectClose(armStiffness_NPerM(210e9, 0.04, 0.006, 0.05), (3 * 210e3 * 720 * 1e3) / 50 ** 3, {
      rel: 1e-9,
      why: 'by hand',
    });
    expectClose(strapHolds_N('mild-steel', 0.04, 0.002, 0.009), 235 * 31 * 2, { rel: 1e-9, why: 'beside the hole' });
    expectClose(strapHolds_N('polyester-web', 0.05, 0.003, 0), 25e3, { rel: 5e-3, why: 'EN 12195-2: half of 50 kN' });
  });

  it('between the rows of its table and far beyond them a panel’s stress stays between its neighbours', () => {
    const at = (long_m: number) => pressed_Pa({ long_m, short_m: 0.4, thickness_m: 0.003, radius_m: 0.02 }, 100);
    for (const [near, far] of [
      [0.4, 0.44],
      [0.44, 0.6],
      [0.6, 0.8],
      [0.8, 2],
      [2, 20],
    ] as const)
      expect(at(far)).toBeGreaterThan(at(near));
    expect(at(200) / at(20)).toBeLessThan(1.01);
  });

  it.each([0.4, 0.6, 0.8, 1.6])('stress of a panel of %s by 0.4 m pressed in its middle, by Navier’s series', (a) => {
    // A square patch of the same area as the round place; moment in the middle, where both sines are one for odd terms.
    const [b, t, r] = [0.4, 0.003, 0.03];
    const side = r * Math.sqrt(Math.PI);
    const q = 100 / side ** 2;
    let moment = 0;
    for (let m = 1; m < 400; m += 2)
      for (let n = 1; n < 400; n += 2) {
        const load =
          ((16 * q) / (Math.PI ** 2 * m * n)) *
          Math.sin((m * Math.PI * side) / (2 * a)) *
          Math.sin((n * Math.PI * side) / (2 * b));
        const [x, y] = [(m / a) ** 2, (n / b) ** 2];
        moment += (load * (y + 0.3 * x)) / (Math.PI ** 2 * (x + y) ** 2);
      }
    expectClose(pressed_Pa({ long_m: a, short_m: b, thickness_m: t, radius_m: r }, 100), (6 * moment) / t ** 2, {
      rel: 0.03,
      why: 'the table, a round place for a square one',
    });
  });
});

describe('what must hold of every bolt', () => {
  it.each(BOLT_SIZES)('%s: root within its diameter, hole over it, edge and thickness only help', (size: BoltSize) => {
    const { diameter_m, hole_m, flats_m } = BOLTS[size];
    expect(stressArea_m2(size)).toBeLessThan((Math.PI / 4) * diameter_m ** 2);
    expect(hole_m).toBeGreaterThan(diameter_m);
    expect(flats_m).toBeGreaterThan(1.4 * diameter_m);
    for (const stock of ['mild-steel', 'aluminium-5052', 'plywood', 'fibreglass', 'hardwood'] as const) {
      const of = (thickness_m: number, edge_m: number) => bearing_N(stock, thickness_m, size, edge_m);
      expect(of(0.004, 0.03)).toBeGreaterThan(of(0.003, 0.03));
      expect(of(0.003, 0.02)).toBeGreaterThanOrEqual(of(0.003, 0.01));
      expect(of(0.003, 0.0)).toBe(0);
      expect(MOUNT_STOCKS[stock].breaks_Pa).toBeGreaterThanOrEqual(MOUNT_STOCKS[stock].yield_Pa);
    }
  });
});
