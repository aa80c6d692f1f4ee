import { Matrix, solve } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import {
  boxMesh,
  clipBelow,
  dot,
  levelForVolume,
  meshVolume,
  norm,
  scale,
  subtract,
  unitVector,
  type Vec3,
} from '../geometry';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { commonCentre_m } from '../tank';
import { afloat, inclinedGm_m, rolledGm_m, springShares, waterplaneOf, type Hull, type Spring, type Station } from '.';

const between = (seed: number) => {
  const { uniform } = seeded(seed);
  return (least: number, most: number): number => least + (most - least) * uniform();
};
const sum = (values: readonly number[]): number => values.reduce((all, each) => all + each, 0);
const at = (x: number, y: number, rate_NPerM = 1e5): Spring => ({ at_m: [x, y], rate_NPerM });

describe('weight on wheels', () => {
  it('two axles share by moments, whatever their springs are', () => {
    const random = between(181);
    for (let run = 0; run < 200; run++) {
      const [rear, front, x] = [random(-2, 0), random(1, 4), random(-3, 5)];
      const [a, b] = [random(1e4, 1e6), random(1e4, 1e6)];
      const shares = springShares(
        [at(rear, 0.7, a), at(rear, -0.7, a), at(front, 0.6, b), at(front, -0.6, b)],
        [x, 0],
      )!;
      // A lever on two supports, in closed form.
      expect(shares[0]! + shares[1]!).toBeCloseTo((front - x) / (front - rear), 9);
      expect(shares[2]! + shares[3]!).toBeCloseTo((x - rear) / (front - rear), 9);
      expect(shares[0]).toBeCloseTo(shares[1]!, 9);
    }
  });

  it('forces and moments balance, and the shares are those of a general solver', () => {
    const random = between(182);
    for (let run = 0; run < 150; run++) {
      const springs = Array.from({ length: 3 + Math.floor(random(0, 6)) }, () =>
        at(random(-4, 4), random(-1, 1), 10 ** random(4, 6)),
      );
      const point: [number, number] = [random(-5, 5), random(-2, 2)];
      const shares = springShares(springs, point);
      if (!shares) throw new Error('springs of chance lie on no line');
      expect(sum(shares)).toBeCloseTo(1, 8);
      for (const k of [0, 1] as const)
        expect(sum(shares.map((share, i) => share * springs[i]!.at_m[k]))).toBeCloseTo(point[k], 7);
      // The same by a general solver: the body's stiffness, its sinking and two leans.
      const stiffness = Matrix.zeros(3, 3);
      for (const { at_m, rate_NPerM } of springs) {
        const one = Matrix.columnVector([1, ...at_m]);
        stiffness.add(one.mmul(one.transpose()).mul(rate_NPerM));
      }
      const [sinks, along, across] = solve(stiffness, Matrix.columnVector([1, ...point])).to1DArray();
      for (const [i, { at_m, rate_NPerM }] of springs.entries())
        expect(shares[i]).toBeCloseTo(rate_NPerM * (sinks! + along! * at_m[0] + across! * at_m[1]), 8);
    }
  });

  it('springs on one line hold nothing up; three axles alike share a load over their middle evenly', () => {
    expect(springShares([at(0, 0.8), at(0, -0.8)], [0.2, 0])).toBeUndefined();
    expect(springShares([at(0, 0), at(1, 1), at(2, 2)], [0, 0])).toBeUndefined();
    const three = [-1, 0, 1].flatMap((x) => [at(x, 0.9), at(x, -0.9)]);
    for (const share of springShares(three, [0, 0])!) expect(share).toBeCloseTo(1 / 6, 12);
    // By hand, of a beam on three springs alike: ends 1/3 ± x/2.
    expect(springShares(three, [0.5, 0])![5]).toBeCloseTo((1 / 3 + 0.25) / 2, 12);
  });
});

describe('the waterplane', () => {
  it('of a box, a triangle and a rhombus are those of handbooks', () => {
    const box = waterplaneOf([
      { x_m: 1, beam_m: 2 },
      { x_m: 7, beam_m: 2 },
    ])!;
    expect(box).toEqual({
      area_m2: 12,
      middle_m: 4,
      along_m4: expect.closeTo((2 * 6 ** 3) / 12, 9) as number,
      across_m4: expect.closeTo((6 * 2 ** 3) / 12, 9) as number,
    });
    // Second moments of area of a triangle, bh³/36, and of a rhombus, bh³/48: any handbook of mechanics.
    const triangle = waterplaneOf([
      { x_m: 0, beam_m: 2 },
      { x_m: 6, beam_m: 0 },
    ])!;
    expect(triangle.middle_m).toBeCloseTo(2, 12);
    expect(triangle.along_m4).toBeCloseTo((2 * 6 ** 3) / 36, 9);
    expect(triangle.across_m4).toBeCloseTo((6 * 2 ** 3) / 48, 9);
    const rhombus = waterplaneOf([
      { x_m: 3, beam_m: 0 },
      { x_m: -3, beam_m: 0 },
      { x_m: 0, beam_m: 2 },
    ])!;
    expect(rhombus.along_m4).toBeCloseTo((2 * 6 ** 3) / 48, 9);
  });

  it('is what Simpson’s first rule has, on stations of chance', () => {
    const random = between(183);
    for (let run = 0; run < 60; run++) {
      const stations: Station[] = Array.from({ length: 2 + Math.floor(random(0, 9)) }, (_, i) => ({
        x_m: i * 0.7 + random(0, 0.6),
        beam_m: random(0, 4),
      }));
      const plane = waterplaneOf(stations)!;
      // Straight between stations: Simpson’s rule is exact on each piece for integrands up to the third degree.
      const simpson = (of: (x: number, b: number) => number): number =>
        sum(
          stations.slice(1).map((to, i) => {
            const from = stations[i]!;
            const middle = of((from.x_m + to.x_m) / 2, (from.beam_m + to.beam_m) / 2);
            return ((to.x_m - from.x_m) / 6) * (of(from.x_m, from.beam_m) + 4 * middle + of(to.x_m, to.beam_m));
          }),
        );
      expect(plane.area_m2).toBeCloseTo(
        simpson((_, b) => b),
        9,
      );
      expect(plane.across_m4).toBeCloseTo(
        simpson((_, b) => b ** 3 / 12),
        9,
      );
      expect(plane.along_m4).toBeCloseTo(
        simpson((x, b) => b * (x - plane.middle_m) ** 2),
        8,
      );
    }
  });

  it('of no breadth is none', () => {
    expect(
      waterplaneOf([
        { x_m: 0, beam_m: 0 },
        { x_m: 3, beam_m: 0 },
      ]),
    ).toBeUndefined();
    expect(
      waterplaneOf([
        { x_m: 2, beam_m: 1 },
        { x_m: 2, beam_m: 1 },
      ]),
    ).toBeUndefined();
  });
});

/** A box of a hull, lying level, its own weight at its middle at a height. */
const SEA = 1025;
function boxHull(size: Vec3, draught_m: number, centre_m: number) {
  const [length, beam] = size;
  const displacement_kg = SEA * length * beam * draught_m;
  const waterplane = waterplaneOf([
    { x_m: 0, beam_m: beam },
    { x_m: length, beam_m: beam },
  ])!;
  const gm_m = draught_m / 2 + beam ** 2 / (12 * draught_m) - centre_m;
  const hull: Hull = {
    waterplane,
    displacement_kg,
    density_kgPerM3: SEA,
    gm_m,
    middle_m: beam / 2,
    waterline_m: draught_m,
  };
  return {
    hull,
    mesh: boxMesh(...size),
    own: { mass_kg: displacement_kg, at_m: [length / 2, beam / 2, centre_m] as Vec3 },
  };
}

describe('a hull with something more aboard', () => {
  it('a weight lists and trims her by its moment over hers', () => {
    const { hull } = boxHull([8, 2.4, 1.5], 0.5, 0.6);
    const lies = unwrap(afloat(hull, () => [{ mass_kg: 20, at_m: [4, 1.2 + 0.8, 0.5] }]));
    expect(lies.bowDown_rad).toBeCloseTo(0, 9);
    expect(lies.sinks_m).toBeCloseTo(20 / (SEA * 8 * 2.4), 12);
    const carried = hull.displacement_kg * hull.gm_m + 20 * (hull.waterline_m + lies.sinks_m / 2 - 0.5);
    expect(Math.tan(lies.portDown_rad)).toBeCloseTo((20 * 0.8) / carried, 6);
    // 1 cm of trim takes the moment of handbooks, Δ·GM along over 100 L.
    const along = hull.gm_m + (SEA * (hull.waterplane.along_m4 - hull.waterplane.across_m4)) / hull.displacement_kg;
    const trimmed = unwrap(afloat(hull, () => [{ mass_kg: 20, at_m: [6, 1.2, 0.5] }]));
    const trim_cm = 100 * 8 * Math.tan(trimmed.bowDown_rad);
    expect(trim_cm / ((20 * 2) / ((hull.displacement_kg * along) / (100 * 8)))).toBeCloseTo(1, 2);
  });

  it('is as a box that is floated whole: its lowest energy, with liquid aboard running as she lies', () => {
    const random = between(184);
    for (let run = 0; run < 12; run++) {
      const size: Vec3 = [random(5, 9), random(1.8, 3), 1.6];
      const draught = random(0.35, 0.7);
      const { hull, mesh, own } = boxHull(size, draught, random(0.3, 0.6));
      const tank = boxMesh(random(0.4, 1.2), random(0.3, 0.9), random(0.2, 0.5));
      const origin: Vec3 = [random(0.5, size[0] - 2), random(0.2, size[1] - 1), random(0.1, 0.5)];
      const volume = random(0.2, 0.95) * meshVolume(tank);
      const aboard = (up: Vec3) => {
        const level = unwrap(levelForVolume(tank, up, volume));
        const centre = clipBelow(tank, { normal: up, offset_m: level.offset_m }).centroid_m!;
        return [{ mass_kg: 840 * volume, at_m: [0, 1, 2].map((k) => centre[k]! + origin[k]!) as unknown as Vec3 }];
      };
      const lies = unwrap(afloat(hull, aboard));
      // By the whole body: the centre of all weight stands over the centre of what it displaces.
      const apart = (bow: number, port: number): number => {
        const up = unitVector([-Math.tan(bow), -Math.tan(port), 1]);
        const masses = [own, ...aboard(up)];
        const displaced = sum(masses.map(({ mass_kg }) => mass_kg)) / SEA;
        const level = unwrap(levelForVolume(mesh, up, displaced));
        const buoyed = clipBelow(mesh, { normal: up, offset_m: level.offset_m }).centroid_m!;
        const from = subtract(commonCentre_m(masses)!, buoyed);
        return norm(subtract(from, scale(up, dot(up, from))));
      };
      const lean = Math.max(Math.abs(lies.bowDown_rad), Math.abs(lies.portDown_rad));
      // Upright sides of a box stay upright: what is left is of the square of the lean, tan against sin.
      const whole = apart(0, 0);
      expect(apart(lies.bowDown_rad, lies.portDown_rad) / whole).toBeLessThan(0.002 + 3 * lean ** 2);
    }
  });

  it('liquid that runs takes away ρ·i over the displacement, as handbooks have it', () => {
    const { hull } = boxHull([8, 2.4, 1.5], 0.5, 0.6);
    const tank = boxMesh(1, 1.2, 0.4);
    const mass_kg = 840 * 0.24;
    const place = (centre: Vec3): Vec3 => [centre[0] + 3.5, centre[1] + 0.6, centre[2] + 0.2];
    const free = unwrap(
      afloat(hull, (up) => {
        const level = unwrap(levelForVolume(tank, up, 0.24));
        return [{ mass_kg, at_m: place(clipBelow(tank, { normal: up, offset_m: level.offset_m }).centroid_m!) }];
      }),
    );
    const frozen = unwrap(afloat(hull, () => [{ mass_kg, at_m: place([0.5, 0.6, 0.1]) }]));
    const surface = (1 * 1.2 ** 3) / 12;
    expect((frozen.gm_m - free.gm_m) / ((840 * surface) / (hull.displacement_kg + mass_kg))).toBeCloseTo(1, 3);
  });

  it('what uses up her steadiness is told, not shown as a lean; more than 12 degrees too', () => {
    const { hull } = boxHull([8, 2.4, 1.5], 0.5, 0.6);
    const high = afloat(hull, () => [{ mass_kg: 3000, at_m: [4, 1.2, 6] }]);
    expect(high.ok ? '' : high.error.code).toBe('unsteady');
    const far = afloat(hull, () => [{ mass_kg: 4000, at_m: [4, 2.4, 0.5] }]);
    expect(far.ok ? '' : far.error.code).toBe('too-far');
    const lost = afloat(hull, () => undefined);
    expect(lost.ok ? '' : lost.error.code).toBe('not-found');
  });

  it('tried by a weight moved across or by her roll, GM is what it was', () => {
    // A boat of 4 t whose 80 kg crew go 1.5 m to one side heels 2°.
    const gm = inclinedGm_m(4000, 80, 1.5, (2 * Math.PI) / 180);
    expect((4000 * gm * Math.tan((2 * Math.PI) / 180)) / 80).toBeCloseTo(1.5, 12);
    // From memory, IMO's rolling test: a boat 3 m wide with GM 0.64 m rolls once in f·B/√GM = 3 s.
    expect(rolledGm_m(3, 3)).toBeCloseTo(0.64, 12);
  });
});
