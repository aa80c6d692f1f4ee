import { describe, expect, it } from 'vitest';
import {
  boxMesh,
  combine,
  levelForVolume,
  meshVolume,
  movedMesh,
  unitVector,
  volumeBelow,
  type Vec3,
} from '../geometry';
import { unwrap } from '../outcome';
import { expectClose } from '../../../tests/expectClose';
import {
  divided,
  fitPlate,
  headForFlow_m,
  hold,
  liquidReach,
  ORIFICE_SHARE,
  orificeFlow_m3PerS,
  roundSloshFrequency_Hz,
  sloshFrequency_Hz,
  type Plate,
} from '.';

const G = 9.80665;
const UP: Vec3 = [0, 0, 1];
/** Braking with one g: liquid climbs the fore end at 45 degrees. */
const BRAKING = unitVector([-1, 0, 1]);
const BOX = boxMesh(1, 0.5, 0.4);
const PLATE: Plate = {
  id: 'p',
  axis: 0,
  at_m: 0.3,
  thickness_m: 0.003,
  from_m: -Infinity,
  to_m: Infinity,
  cornerCut_m: 0,
  topGap_m: 0,
  holes: { count: 0, diameter_m: 0.03, height_m: 0.05 },
};
const shut = { width_m: 0.05, height_m: 0.04, passes: 'lower', leak_ratio: 0 } as const;
const inputs = (plates: readonly Plate[], draw_m3PerS = 1e-5, liquid_m3 = 0.04) => ({
  mesh: BOX,
  division: unwrap(
    divided(
      BOX,
      plates.map((plate) => fitPlate(BOX, plate)),
    ),
  ),
  inlet: { point_m: [0.29, 0.25, 0.01] as Vec3, submergence_m: 0 },
  still: UP,
  stillOffset_m: liquid_m3 / 0.5,
  moving: BRAKING,
  gravity_mPerS2: G * Math.SQRT2,
  liquid_m3,
  draw_m3PerS,
});

describe('what a compartment holds when the rest runs away', () => {
  it('behind a flap that shuts tight: its own liquid less what the pickup leaves, at the draw', () => {
    const found = hold(inputs([{ ...PLATE, flap: shut }]));
    // The compartment held 0.3 x 0.5 x 0.08; at 45 degrees the pickup 10 mm off the plate and floor leaves a wedge
    // of 20 mm.
    const wanted = 0.3 * 0.5 * 0.08 - ((0.02 * 0.02) / 2) * 0.5;
    expectClose(found.volume_m3, wanted, { rel: 1e-6, why: 'prism less wedge' });
    expectClose(found.time_s, wanted / 1e-5, { rel: 1e-6, why: 'nothing leaks' });
  });

  it('without a baffle the box holds nothing, and while the pickup stays under there is no end', () => {
    expect(hold(inputs([]))).toEqual({ staysWet: false, volume_m3: 0, time_s: 0 });
    expect(hold(inputs([], 1e-5, 0.19))).toMatchObject({ staysWet: true, time_s: Infinity });
  });

  it('through open corners it runs out sooner, as a fine integration of its own says', () => {
    const given = inputs([{ ...PLATE, cornerCut_m: 0.02 }], 2e-5);
    const compartment = given.division.compartments[0]!.mesh;
    const sill = BRAKING[0] * 0.3;
    const starving = BRAKING[0] * 0.29 + BRAKING[2] * 0.01;
    // Euler in volume with the level solved anew at each of many small steps.
    let [volume, time] = [0.3 * 0.5 * 0.08, 0];
    const step = 0.002;
    for (; time < 60; time += step) {
      const level = unwrap(levelForVolume(compartment, BRAKING, volume)).offset_m;
      if (level <= starving) break;
      volume -= step * (2e-5 + orificeFlow_m3PerS(2 * 0.0002, level - sill, G * Math.SQRT2));
    }
    expect(time).toBeLessThan(59);
    expectClose(hold(given).time_s, time, { rel: 0.01, why: 'finer computation, Euler at 2 ms' });
  });

  it('where nothing draws and nothing leaks there is no end, though the pickup is not wet by itself', () => {
    const found = hold(inputs([{ ...PLATE, flap: shut }], 0));
    expect(found).toMatchObject({ staysWet: false, time_s: Infinity });
    expect(found.volume_m3).toBeGreaterThan(0.01);
  });

  it('a leaking flap lies between shut and open', () => {
    const times = [0, 0.1, 1].map((leak_ratio) => hold(inputs([{ ...PLATE, flap: { ...shut, leak_ratio } }])).time_s);
    expect(times[0]).toBeGreaterThan(times[1]!);
    expect(times[1]).toBeGreaterThan(times[2]!);
  });

  it('a sump without a plate keeps the wedge under its rim', () => {
    const tank = unwrap(combine(BOX, movedMesh(boxMesh(0.2, 0.2, 0.05), [0.1, 0.15, -0.05]), 'add'));
    const found = hold({
      ...inputs([]),
      mesh: tank,
      division: unwrap(divided(tank, [])),
      inlet: { point_m: [0.299, 0.25, -0.049], submergence_m: 0 },
      liquid_m3: 0.02,
      stillOffset_m: (0.02 - 0.002) / 0.5,
    });
    // At 45 degrees the fore rim holds a wedge 50 mm deep and long over 0.2 m, less the pickup's 2 mm.
    expectClose(found.volume_m3, ((0.05 * 0.05) / 2 - (0.002 * 0.002) / 2) * 0.2, { rel: 1e-6, why: 'wedges' });
  });

  it('the most a compartment can hold is what is in the tank', () => {
    const found = hold(inputs([{ ...PLATE, flap: shut }], 1e-5, 0.002));
    expect(found.volume_m3).toBeLessThanOrEqual(0.002);
  });
});

describe('openings', () => {
  it('pass what Torricelli says, and need the head that gives it back', () => {
    expectClose(orificeFlow_m3PerS(1e-4, 0.05, G), ORIFICE_SHARE * 1e-4 * Math.sqrt(2 * G * 0.05), {
      rel: 1e-12,
      why: 'Torricelli',
    });
    expectClose(headForFlow_m(orificeFlow_m3PerS(1e-4, 0.05, G), 1e-4, G), 0.05, { rel: 1e-12, why: 'inverse' });
    expect(headForFlow_m(1e-5, 0, G)).toBe(Infinity);
    expect(orificeFlow_m3PerS(1e-4, -0.1, G)).toBe(0);
  });
});

describe('sloshing', () => {
  it('shallow: the seiche period 2 L / sqrt(g h) (Merian, 1828)', () => {
    expectClose(1 / sloshFrequency_Hz(10, 0.05, G), (2 * 10) / Math.sqrt(G * 0.05), { rel: 1e-4, why: 'long wave' });
  });

  it('deep: sqrt(g / (4 pi L)), whatever the depth (Lamb, Hydrodynamics, art. 229)', () => {
    for (const depth of [2, 5])
      expectClose(sloshFrequency_Hz(1, depth, G), Math.sqrt(G / (4 * Math.PI)), { rel: 1e-5, why: 'short wave' });
  });

  it('half as deep as long: 0.846 Hz in a metre, from tanh(pi / 2) = 0.91715233566727 (tables of hyperbolic functions)', () => {
    expectClose(sloshFrequency_Hz(1, 0.5, G), Math.sqrt(G * Math.PI * 0.917152335667274) / (2 * Math.PI), {
      rel: 1e-12,
      why: 'tabulated tanh',
    });
  });

  it('upright round tank, deep: omega² R / g = 1.8412 (NASA SP-106; from memory)', () => {
    const omega = 2 * Math.PI * roundSloshFrequency_Hz(0.5, 5, G);
    expectClose((omega * omega * 0.5) / G, 1.8412, { rel: 1e-4, why: 'first root of J1 prime' });
  });

  it('the reach of the surface in a box is the box, and the depth the level', () => {
    const reach = liquidReach(BOX, UP, 0.1, 0.05)!;
    expectClose(reach.length_m, 1, { rel: 1e-12, why: 'box' });
    expectClose(reach.width_m, 0.5, { rel: 1e-12, why: 'box' });
    expectClose(reach.depth_m, 0.1, { rel: 1e-12, why: 'box' });
    expect(liquidReach(BOX, UP, 0.5, meshVolume(BOX))).toBeUndefined();
    expect(volumeBelow(BOX, { normal: UP, offset_m: 0.1 })).toBeCloseTo(0.05, 12);
  });
});
