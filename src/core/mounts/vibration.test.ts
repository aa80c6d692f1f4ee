import { describe, expect, it } from 'vitest';
import {
  boxMesh,
  meshCentroid,
  meshVolume,
  placed,
  posedMesh,
  poseOf,
  shellMoments,
  shiftBy,
  solidMoments,
  type Vec3,
} from '../geometry';
import { seeded } from '../seeded';
import { naturalModes, stiffnessOf, type LineSpring, type RigidMass } from '.';

const spring = (at_m: Vec3, way: Vec3, rate_NPerM: number): LineSpring => ({ legs: [{ at_m, way }], rate_NPerM });
const diagonal = (x: number, y: number, z: number): RigidMass['inertia_kgm2'] => [
  [x, 0, 0],
  [0, y, 0],
  [0, 0, z],
];
const X: Vec3 = [1, 0, 0];
const Y: Vec3 = [0, 1, 0];
const Z: Vec3 = [0, 0, 1];
const hertz = (rate: number, mass: number): number => Math.sqrt(rate / mass) / (2 * Math.PI);

describe('a rigid body on springs', () => {
  const body: RigidMass = { mass_kg: 120, inertia_kgm2: diagonal(6, 14, 16) };
  const [a, b] = [0.5, 0.3];
  const feet: Vec3[] = [
    [a, b, 0],
    [a, -b, 0],
    [-a, b, 0],
    [-a, -b, 0],
  ];

  it('on four alike at its own height swings as handbooks have it: √(k/m) straight, √(Σk·r²/I) turning', () => {
    const [k, s] = [2e5, 3e4];
    const modes = naturalModes(
      feet.flatMap((at) => [spring(at, Z, k), spring(at, X, s), spring(at, Y, s)]),
      body,
    );
    const expected = [
      hertz(4 * s, 120),
      hertz(4 * s, 120),
      hertz(4 * k, 120),
      hertz(4 * k * b * b, 6),
      hertz(4 * k * a * a, 14),
      hertz(4 * s * (a * a + b * b), 16),
    ].sort((one, other) => one - other);
    for (const [i, { frequency_Hz }] of modes.entries()) expect(frequency_Hz).toBeCloseTo(expected[i]!, 9);
  });

  it('with feet below its centre it rocks: the two frequencies of the plane are those of their quadratic', () => {
    const [k, s, h] = [2e5, 3e4, 0.25];
    const low = feet.map(([x, y]): Vec3 => [x, y, -h]);
    const modes = naturalModes(
      low.flatMap((at) => [spring(at, Z, k), spring(at, X, s), spring(at, Y, s)]),
      body,
    ).map(({ frequency_Hz }) => frequency_Hz);
    // Sway across with roll, w the square of the circular frequency:
    // m·I·w² − (m·Kr + I·Ks)·w + Ks·Kr − (Ks·h)² = 0.
    const [m, inertia, ks] = [120, 6, 4 * s];
    const kr = 4 * k * b * b + ks * h * h;
    const half = (m * kr + inertia * ks) / (2 * m * inertia);
    const root = Math.sqrt(half * half - (ks * kr - (ks * h) ** 2) / (m * inertia));
    for (const square of [half - root, half + root]) {
      const expected = Math.sqrt(square) / (2 * Math.PI);
      expect(Math.min(...modes.map((each) => Math.abs(each - expected)))).toBeLessThan(1e-9 * expected);
    }
  });

  it('what nothing holds does not swing; a strap over two places is one spring', () => {
    const modes = naturalModes([spring([0, 0, 0], Z, 1e5)], body);
    expect(modes.map(({ frequency_Hz }) => frequency_Hz > 0)).toEqual([false, false, false, false, false, true]);
    // Down on both sides: it holds it down, and lets it roll beneath.
    const strap: LineSpring = {
      legs: [
        { at_m: [0, 0.3, 0], way: [0, 0, -1] },
        { at_m: [0, -0.3, 0], way: [0, 0, -1] },
      ],
      rate_NPerM: 1e5,
    };
    const held = naturalModes([strap], body).filter(({ frequency_Hz }) => frequency_Hz > 1e-3);
    expect(held).toHaveLength(1);
    expect(held[0]!.frequency_Hz).toBeCloseTo(hertz(4e5, 120), 9);
  });

  it('each mode’s own energies agree: ½·x·K·x is ½·ω²·x·M·x, on layouts of chance', () => {
    const { uniform, normal } = seeded(186);
    for (let run = 0; run < 60; run++) {
      const unit = (): Vec3 => {
        const v: Vec3 = [normal(), normal(), normal()];
        const long = Math.hypot(...v);
        return [v[0] / long, v[1] / long, v[2] / long];
      };
      const springs = Array.from({ length: 6 + Math.floor(8 * uniform()) }, () =>
        spring([normal(), normal(), normal()], unit(), 10 ** (3 + 4 * uniform())),
      );
      const chance: RigidMass = { mass_kg: 1 + 500 * uniform(), inertia_kgm2: diagonal(5, 7 + uniform(), 9) };
      const stiffness = stiffnessOf(springs);
      const modes = naturalModes(springs, chance);
      expect(modes).toHaveLength(6);
      for (const { frequency_Hz, goes } of modes) {
        const x = [...goes.shift_m, ...goes.turn_rad];
        const inertia = [
          chance.mass_kg,
          chance.mass_kg,
          chance.mass_kg,
          ...[0, 1, 2].map((k) => chance.inertia_kgm2[k]![k]!),
        ];
        let [elastic, moving] = [0, 0];
        for (let i = 0; i < 6; i++) {
          moving += inertia[i]! * x[i]! ** 2;
          for (let j = 0; j < 6; j++) elastic += x[i]! * stiffness.get(i, j) * x[j]!;
        }
        expect((2 * Math.PI * frequency_Hz) ** 2 * moving).toBeCloseTo(elastic, -Math.log10(1e-7 * (1 + elastic)));
      }
      // Stiffer everywhere is faster everywhere, by the root.
      const stiffer = naturalModes(
        springs.map((each) => ({ ...each, rate_NPerM: 4 * each.rate_NPerM })),
        chance,
      );
      for (const [i, { frequency_Hz }] of stiffer.entries())
        expect(frequency_Hz / modes[i]!.frequency_Hz).toBeCloseTo(2, 5);
    }
  });
});

describe('moments of inertia', () => {
  const [a, b, c] = [1.1, 0.5, 0.3];

  it('of a box and of its shell are those of handbooks', () => {
    const centred = posedMesh(boxMesh(a, b, c), shiftBy([-a / 2, -b / 2, -c / 2]));
    const solid = solidMoments(centred);
    expect(solid[0][0]).toBeCloseTo((a * b * c * a * a) / 12, 12);
    expect(solid[2][2]).toBeCloseTo((a * b * c * c * c) / 12, 12);
    const shell = shellMoments(centred);
    expect(shell[0][0]).toBeCloseTo((b * c * a * a) / 2 + ((2 * a * c + 2 * a * b) * a * a) / 12, 12);
    for (const each of [solid, shell])
      for (const [i, j] of [
        [0, 1],
        [1, 2],
        [2, 0],
      ] as const)
        expect(each[i][j]).toBeCloseTo(0, 12);
  });

  it('elsewhere and turned they are the parallel axis theorem’s', () => {
    const { uniform } = seeded(187);
    for (let run = 0; run < 20; run++) {
      const pose = poseOf([uniform(), uniform(), uniform()], {
        yaw_rad: uniform(),
        pitch_rad: uniform(),
        roll_rad: uniform(),
      });
      const mesh = posedMesh(boxMesh(a, b, c), pose);
      const centre = meshCentroid(mesh);
      for (const [k, value] of placed(pose, [a / 2, b / 2, c / 2]).entries()) expect(centre[k]).toBeCloseTo(value, 12);
      const solid = solidMoments(mesh);
      const trace = solid[0][0] + solid[1][1] + solid[2][2];
      const far = centre.reduce((sum, value) => sum + value * value, 0);
      expect(trace).toBeCloseTo(meshVolume(mesh) * ((a * a + b * b + c * c) / 12 + far), 10);
    }
  });
});
