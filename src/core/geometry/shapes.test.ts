import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { unwrap } from '../outcome';
import { expectClose } from '../../../tests/expectClose';
import {
  coneMesh,
  END_SHAPES,
  endDepth_m,
  endVolume_m3,
  loftMesh,
  loftVolume_m3,
  meshBounds,
  meshVolume,
  parseProfile,
  prismMesh,
  revolvedMesh,
  signedArea_m2,
  vesselMesh,
  vesselVolume_m3,
  volumeBelow,
  type Point2,
} from '.';

const T_SHAPE: Point2[] = [
  [0.2, 0],
  [0.4, 0],
  [0.4, 0.2],
  [0.6, 0.2],
  [0.6, 0.4],
  [0, 0.4],
  [0, 0.2],
  [0.2, 0.2],
];
const V_BOTTOM: Point2[] = [
  [0, 0.15],
  [0.3, 0],
  [0.6, 0.15],
  [0.6, 0.35],
  [0, 0.35],
];

describe('profiles', () => {
  it.each<[string, Point2[]]>([
    [
      'too-few-points',
      [
        [0, 0],
        [1, 0],
      ],
    ],
    [
      'too-few-points',
      [
        [0, 0],
        [1, 0],
        [1, 0],
        [0, 0],
      ],
    ],
    [
      'not-finite',
      [
        [0, 0],
        [1, Number.NaN],
        [1, 1],
      ],
    ],
    [
      'crosses-itself',
      [
        [0, 0],
        [1, 1],
        [1, 0],
        [0, 1],
      ],
    ],
    [
      'crosses-itself',
      [
        [0, 0],
        [1, 0],
        [0.5, 0],
        [0.5, 1],
      ],
    ],
    [
      'crosses-itself',
      [
        [0, 0],
        [2, 0],
        [2, 1],
        [1, 0],
        [0, 1],
      ],
    ],
  ])('refuses %s', (code, points) => {
    expect(parseProfile(points)).toMatchObject({ ok: false, error: { code } });
  });

  it('is turned counter-clockwise whichever way it was typed', () => {
    expect(signedArea_m2(unwrap(parseProfile([...V_BOTTOM].reverse())))).toBeGreaterThan(0);
  });
});

describe('prisms and lofts', () => {
  it.each(['x', 'y', 'z'] as const)('area times length along %s, exact for flat faces', (axis) => {
    for (const profile of [T_SHAPE, V_BOTTOM, [...T_SHAPE].reverse()]) {
      expectClose(meshVolume(unwrap(prismMesh(profile, axis, 0.9))), Math.abs(signedArea_m2(profile)) * 0.9, {
        rel: 1e-13,
        why: 'closed form',
      });
    }
  });

  it('a T-shaped tank filled to its shoulder', () => {
    expectClose(volumeBelow(unwrap(prismMesh(T_SHAPE, 'x', 1)), { normal: [0, 0, 1], offset_m: 0.2 }), 0.2 * 0.2, {
      rel: 1e-12,
      why: 'stem only',
    });
    expectClose(volumeBelow(unwrap(prismMesh(T_SHAPE, 'x', 1)), { normal: [0, 0, 1], offset_m: 0.3 }), 0.04 + 0.06, {
      rel: 1e-12,
      why: 'stem and half the bar',
    });
  });

  it('a frustum of a pyramid, by the handbook formula h/3 (A1 + A2 + sqrt(A1 A2))', () => {
    const square = (s: number): Point2[] => [
      [-s, -s],
      [s, -s],
      [s, s],
      [-s, s],
    ];
    const [a, b] = [4 * 0.3 ** 2, 4 * 0.2 ** 2];
    expectClose(
      meshVolume(unwrap(loftMesh(square(0.3), square(0.2), 'z', 0.5))),
      (0.5 / 3) * (a + b + Math.sqrt(a * b)),
      { rel: 1e-13, why: 'closed form' },
    );
  });

  it('a V-bottom that narrows forward has twisted panels; its volume is that of the ruled body', () => {
    const fore: Point2[] = [
      [0.2, 0.2],
      [0.3, 0.05],
      [0.45, 0.25],
      [0.5, 0.35],
      [0.1, 0.33],
    ];
    const mesh = unwrap(loftMesh(V_BOTTOM, fore, 'x', 1.1));
    expectClose(meshVolume(mesh), loftVolume_m3(V_BOTTOM, fore, 1.1), {
      rel: 1e-12,
      why: 'what lies over the surface and under it cancels',
    });
  });

  it('loftVolume agrees with integrating the section along the axis', () => {
    const fore: Point2[] = [
      [0.2, 0.2],
      [0.3, 0.05],
      [0.45, 0.25],
      [0.5, 0.35],
      [0.1, 0.33],
    ];
    let sum = 0;
    const n = 2000;
    for (let i = 0; i < n; i++) {
      const t = (i + 0.5) / n;
      sum +=
        Math.abs(
          signedArea_m2(
            V_BOTTOM.map((p, k): Point2 => [p[0] + t * (fore[k]![0] - p[0]), p[1] + t * (fore[k]![1] - p[1])]),
          ),
        ) / n;
    }
    expectClose(loftVolume_m3(V_BOTTOM, fore, 1.1), sum * 1.1, { rel: 1e-6, why: 'midpoint rule, 2000 steps' });
  });

  it.each([
    ['points-differ', V_BOTTOM, T_SHAPE, 1],
    ['no-length', V_BOTTOM, V_BOTTOM, 0],
    ['turns-inside-out', V_BOTTOM, [...V_BOTTOM].reverse(), 1],
  ] as const)('refuses %s', (code, near, far, length) => {
    expect(loftMesh(near, far, 'x', length)).toMatchObject({ ok: false, error: { code } });
  });
});

describe('a loft that closes up on its way', () => {
  const square = (s: number, turn: number): Point2[] =>
    [0, 1, 2, 3].map((i): Point2 => [
      s * Math.cos((turn + 90 * i) * (Math.PI / 180)),
      s * Math.sin((turn + 90 * i) * (Math.PI / 180)),
    ]);
  it('is refused where half a turn pinches it to a point, and where it is', () => {
    const pinched = loftMesh(square(0.3, 0), square(0.3, 180), 'x', 1);
    expect(pinched).toMatchObject({ ok: false, error: { code: 'turns-inside-out' } });
    expect(!pinched.ok && pinched.error.detail).toMatch(/50 % of the way/);
  });
  it('is refused where two spikes cross on the way though both ends are sound and it encloses something throughout', () => {
    const spikes = (a: Point2, b: Point2): Point2[] => [
      [0, 0],
      [1, 0],
      [1, 0.5],
      [0.9, 0.5],
      b,
      [0.7, 0.5],
      [0.3, 0.5],
      a,
      [0.1, 0.5],
      [0, 0.5],
    ];
    const [near, far] = [spikes([0.2, 1], [0, 3]), spikes([1, 3], [0.8, 1])];
    for (const end of [near, far]) expect(parseProfile(end).ok).toBe(true);
    expect(loftMesh(near, far, 'x', 1)).toMatchObject({ ok: false, error: { code: 'turns-inside-out' } });
  });
  it('a sixth of a turn and a taper to little are taken', () => {
    expect(loftMesh(square(0.3, 0), square(0.3, 60), 'x', 1).ok).toBe(true);
    expect(loftMesh(square(0.3, 0), square(0.012, 0), 'x', 1).ok).toBe(true);
  });
  it('the least section is found by the quadratic: a square turned by an angle keeps cos² of half of it in the middle', () => {
    for (const turn of [20, 60, 90, 120])
      expectClose(
        loftVolume_m3(square(0.3, 0), square(0.3, turn), 1),
        (0.18 / 6) * (2 + 4 * Math.cos((turn * Math.PI) / 360) ** 2),
        { rel: 1e-12, why: 'the middle section is the square, smaller by cos of half the turn' },
      );
  });
});

describe('vessels', () => {
  it.each(END_SHAPES.flatMap((end) => (['x', 'y', 'z'] as const).map((axis) => [end, axis] as const)))(
    '%s ends, axis %s: the whole to one part in a million',
    (end, axis) => {
      const vessel = { radius_m: 0.25, shell_m: 0.8, axis, nearEnd: end, farEnd: end };
      const mesh = unwrap(vesselMesh(vessel));
      expectClose(meshVolume(mesh), vesselVolume_m3(vessel), {
        rel: 1e-6,
        why: 'facets and chords are set out to keep the volume',
      });
      meshBounds(mesh).min.forEach((value) => expect(Math.abs(value)).toBeLessThan(1e-12));
    },
  );

  // Handbook formulas (Perry's Chemical Engineers' Handbook; D. Jones 2003; from memory).
  it('lying cylinder partly filled: segment area times length, everywhere within 0.05 %', () => {
    const mesh = unwrap(vesselMesh({ radius_m: 0.3, shell_m: 1.2, axis: 'x', nearEnd: 'flat', farEnd: 'flat' }));
    for (let h = 0.005; h < 0.6; h += 0.005) {
      const segment = 0.09 * Math.acos((0.3 - h) / 0.3) - (0.3 - h) * Math.sqrt(0.6 * h - h * h);
      expectClose(volumeBelow(mesh, { normal: [0, 0, 1], offset_m: h }), segment * 1.2, {
        abs: 5e-4 * Math.PI * 0.09 * 1.2,
        why: 'promise: 0.05 % of the whole',
      });
    }
  });

  it.each([
    ['hemispherical', 1],
    ['elliptical', 0.5],
  ] as const)('lying, %s ends partly filled: pi h² (3 r - h) / 6 an end, times %d', (end, factor) => {
    const vessel = { radius_m: 0.3, shell_m: 0.5, axis: 'y', nearEnd: end, farEnd: end } as const;
    const mesh = unwrap(vesselMesh(vessel));
    for (let h = 0.01; h < 0.6; h += 0.01) {
      const segment = 0.09 * Math.acos((0.3 - h) / 0.3) - (0.3 - h) * Math.sqrt(0.6 * h - h * h);
      const ends = (2 * factor * (Math.PI * h * h * (0.9 - h))) / 6;
      expectClose(volumeBelow(mesh, { normal: [0, 0, 1], offset_m: h }), segment * 0.5 + ends, {
        abs: 5e-4 * vesselVolume_m3(vessel),
        why: 'promise: 0.05 % of the whole',
      });
    }
  });

  it('upright: a hemispherical cap filled to h holds pi h² (3 r - h) / 3', () => {
    const mesh = unwrap(
      vesselMesh({ radius_m: 0.3, shell_m: 0.5, axis: 'z', nearEnd: 'hemispherical', farEnd: 'flat' }),
    );
    for (const h of [0.02, 0.1, 0.2, 0.3])
      expectClose(volumeBelow(mesh, { normal: [0, 0, 1], offset_m: h }), (Math.PI * h * h * (0.9 - h)) / 3, {
        abs: 5e-4 * meshVolume(mesh),
        why: 'promise',
      });
  });

  it('an ASME flanged-and-dished end holds 0.081 D³ and is 0.169 D deep (published head data, from memory)', () => {
    expectClose(endVolume_m3('torispherical', 0.5), 0.0809, { rel: 0.002, why: 'printed to three digits' });
  });

  it('dished ends of DIN 28011 and 28013 hold 0.1 D³ and 0.1298 D³, 0.1935 and 0.255 D deep (from memory)', () => {
    expectClose(endVolume_m3('dished-10', 0.5), 0.1, { rel: 0.012, why: 'printed to one digit' });
    expectClose(endVolume_m3('dished-deep', 0.5), 0.1298, { rel: 0.01, why: 'there the radii are of the outside' });
    expectClose(endDepth_m('dished-10', 0.5), 0.1935, { rel: 0.002, why: 'printed to four digits' });
    expectClose(endDepth_m('dished-deep', 0.5), 0.255, { rel: 0.005, why: 'printed to three digits' });
  });

  it('a cone, by r² pi h / 3, and a tapered tube', () => {
    expectClose(meshVolume(unwrap(coneMesh(0.2, 0, 0.6, 'z'))), (Math.PI * 0.04 * 0.6) / 3, {
      rel: 1e-12,
      why: 'equal-area facets',
    });
    expectClose(meshVolume(unwrap(coneMesh(0.2, 0.1, 0.6, 'x'))), ((Math.PI * 0.6) / 3) * (0.04 + 0.02 + 0.01), {
      rel: 1e-12,
      why: 'equal-area facets',
    });
  });

  it('what has no size is refused', () => {
    expect(vesselMesh({ radius_m: 0, shell_m: 1, axis: 'x', nearEnd: 'flat', farEnd: 'flat' })).toMatchObject({
      ok: false,
      error: { code: 'no-size' },
    });
    expect(coneMesh(0, 0, 1, 'x')).toMatchObject({ ok: false, error: { code: 'no-size' } });
  });

  it('any vessel, any level: monotone and whole', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...END_SHAPES),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (end, radius_m, shell, share) => {
          const shell_m = end === 'flat' ? shell + 0.01 : shell;
          const mesh = unwrap(vesselMesh({ radius_m, shell_m, axis: 'x', nearEnd: end, farEnd: end }));
          const at = (level: number): number =>
            volumeBelow(mesh, { normal: [0, 0, 1], offset_m: level * 2 * radius_m });
          expect(at(share)).toBeLessThanOrEqual(at(Math.min(1, share + 0.05)) + 1e-12);
        },
      ),
      { seed: 5, numRuns: 40 },
    );
  });
});

describe('facets round an axis', () => {
  const segment = (r: number, h: number): number =>
    r * r * Math.acos(Math.min(1, Math.max(-1, (r - h) / r))) - (r - h) * Math.sqrt(Math.max(0, 2 * r * h - h * h));

  it('the body measures its diameter and its wall stands at zero', () => {
    for (const mesh of [
      revolvedMesh(
        [
          [0, 0.32],
          [1, 0.32],
        ],
        'x',
      ),
      unwrap(vesselMesh({ radius_m: 0.32, shell_m: 0.4, axis: 'y', nearEnd: 'elliptical', farEnd: 'flat' })),
    ]) {
      const { min, max } = meshBounds(mesh);
      expectClose(min[2], 0, { abs: 1e-15, why: 'a corner on the circle' });
      expectClose(max[2], 0.64, { abs: 1e-15, why: 'as a tape would say' });
    }
  });

  it('small dips of a lying cylinder are told within 1 % of what is there, from a three-hundredth of the diameter on', () => {
    const cylinder = revolvedMesh(
      [
        [0, 0.3],
        [1, 0.3],
      ],
      'x',
    );
    for (const dip_mm of [2, 2.5, 3, 4, 5, 7, 10, 15, 22, 35, 60]) {
      const h = dip_mm / 1e3;
      expectClose(volumeBelow(cylinder, { normal: [0, 0, 1], offset_m: h }), segment(0.3, h), {
        rel: 0.01,
        why: 'closed form: circular segment',
      });
      expectClose(
        meshVolume(cylinder) - volumeBelow(cylinder, { normal: [0, 0, 1], offset_m: 0.6 - h }),
        segment(0.3, h),
        { rel: 0.01, why: 'as much air under the top' },
      );
    }
  });

  it('small dips over a domed bottom: a sphere by pi h² (3 r - h) / 3, from 2 mm in 600 on', () => {
    const mesh = unwrap(
      vesselMesh({ radius_m: 0.3, shell_m: 0.5, axis: 'z', nearEnd: 'hemispherical', farEnd: 'flat' }),
    );
    for (const dip_mm of [2, 3, 5, 8, 13, 20, 40, 90]) {
      const h = dip_mm / 1e3;
      expectClose(volumeBelow(mesh, { normal: [0, 0, 1], offset_m: h }), (Math.PI * h * h * (0.9 - h)) / 3, {
        rel: 0.01,
        why: 'closed form: spherical cap',
      });
    }
  });

  it('tilted lying cylinders at any fill: within 0.05 % of the integral of the segment along the axis', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -35, max: 35, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0.05, max: 0.6, noNaN: true }),
        fc.double({ min: 0.1, max: 2, noNaN: true }),
        (pitch, roll, share, r, length) => {
          const [p, q] = [(pitch * Math.PI) / 180, (roll * Math.PI) / 180];
          const up = [Math.sin(p), Math.sin(q) * Math.cos(p), Math.cos(q) * Math.cos(p)] as const;
          const mesh = unwrap(vesselMesh({ radius_m: r, shell_m: length, axis: 'x', nearEnd: 'flat', farEnd: 'flat' }));
          const axis = up[1] * r + up[2] * r;
          const cross = Math.hypot(up[1], up[2]);
          const ends = [axis - cross * r, axis + cross * r];
          const offset =
            Math.min(ends[0]!, ends[0]! + up[0] * length) + share * (Math.abs(up[0]) * length + 2 * cross * r);
          const n = 4000;
          let sum = 0;
          for (let i = 0; i < n; i++)
            sum +=
              segment(r, Math.min(2 * r, Math.max(0, (offset - up[0] * length * ((i + 0.5) / n) - ends[0]!) / cross))) *
              (length / n);
          expectClose(volumeBelow(mesh, { normal: up, offset_m: offset }), sum, {
            abs: 5e-4 * Math.PI * r * r * length,
            why: 'promise: 0.05 % of the whole; midpoint rule, 4,000 steps',
          });
        },
      ),
      { seed: 11, numRuns: 150 },
    );
  });
});
