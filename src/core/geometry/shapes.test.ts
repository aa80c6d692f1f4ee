import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { unwrap } from '../outcome';
import { expectClose } from '../../../tests/expectClose';
import { coneMesh, END_SHAPES, endVolume_m3, facetsFor, loftMesh, loftVolume_m3, meshBounds, meshVolume, parseProfile, prismMesh, revolvedMesh, ROUND_REL, signedArea_m2, vesselMesh, vesselVolume_m3, volumeBelow, type Point2 } from '.';

const T_SHAPE: Point2[] = [[0.2, 0], [0.4, 0], [0.4, 0.2], [0.6, 0.2], [0.6, 0.4], [0, 0.4], [0, 0.2], [0.2, 0.2]];
const V_BOTTOM: Point2[] = [[0, 0.15], [0.3, 0], [0.6, 0.15], [0.6, 0.35], [0, 0.35]];

describe('profiles', () => {
  it.each<[string, Point2[]]>([
    ['too-few-points', [[0, 0], [1, 0]]],
    ['too-few-points', [[0, 0], [1, 0], [1, 0], [0, 0]]],
    ['not-finite', [[0, 0], [1, Number.NaN], [1, 1]]],
    ['crosses-itself', [[0, 0], [1, 1], [1, 0], [0, 1]]],
    ['crosses-itself', [[0, 0], [1, 0], [0.5, 0], [0.5, 1]]],
    ['crosses-itself', [[0, 0], [2, 0], [2, 1], [1, 0], [0, 1]]],
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
      expectClose(meshVolume(unwrap(prismMesh(profile, axis, 0.9))), Math.abs(signedArea_m2(profile)) * 0.9, { rel: 1e-13, why: 'closed form' });
    }
  });

  it('a T-shaped tank filled to its shoulder', () => {
    expectClose(volumeBelow(unwrap(prismMesh(T_SHAPE, 'x', 1)), { normal: [0, 0, 1], offset_m: 0.2 }), 0.2 * 0.2, { rel: 1e-12, why: 'stem only' });
    expectClose(volumeBelow(unwrap(prismMesh(T_SHAPE, 'x', 1)), { normal: [0, 0, 1], offset_m: 0.3 }), 0.04 + 0.06, { rel: 1e-12, why: 'stem and half the bar' });
  });

  it('a frustum of a pyramid, by the handbook formula h/3 (A1 + A2 + sqrt(A1 A2))', () => {
    const square = (s: number): Point2[] => [[-s, -s], [s, -s], [s, s], [-s, s]];
    const [a, b] = [4 * 0.3 ** 2, 4 * 0.2 ** 2];
    expectClose(meshVolume(unwrap(loftMesh(square(0.3), square(0.2), 'z', 0.5))), (0.5 / 3) * (a + b + Math.sqrt(a * b)), { rel: 1e-13, why: 'closed form' });
  });

  it('a V-bottom that narrows forward has twisted panels; its volume is that of the ruled body', () => {
    const fore: Point2[] = [[0.2, 0.2], [0.3, 0.05], [0.45, 0.25], [0.5, 0.35], [0.1, 0.33]];
    const mesh = unwrap(loftMesh(V_BOTTOM, fore, 'x', 1.1));
    expectClose(meshVolume(mesh), loftVolume_m3(V_BOTTOM, fore, 1.1), { rel: 1e-12, why: 'what lies over the surface and under it cancels' });
  });

  it('loftVolume agrees with integrating the section along the axis', () => {
    const fore: Point2[] = [[0.2, 0.2], [0.3, 0.05], [0.45, 0.25], [0.5, 0.35], [0.1, 0.33]];
    let sum = 0;
    const n = 2000;
    for (let i = 0; i < n; i++) {
      const t = (i + 0.5) / n;
      sum += Math.abs(signedArea_m2(V_BOTTOM.map((p, k): Point2 => [p[0] + t * (fore[k]![0] - p[0]), p[1] + t * (fore[k]![1] - p[1])]))) / n;
    }
    expectClose(loftVolume_m3(V_BOTTOM, fore, 1.1), sum * 1.1, { rel: 1e-6, why: 'midpoint rule, 2000 steps' });
  });

  it.each([
    ['points-differ', V_BOTTOM, T_SHAPE, 1], ['no-length', V_BOTTOM, V_BOTTOM, 0], ['turns-inside-out', V_BOTTOM, [...V_BOTTOM].reverse(), 1],
  ] as const)('refuses %s', (code, near, far, length) => {
    expect(loftMesh(near, far, 'x', length)).toMatchObject({ ok: false, error: { code } });
  });
});

describe('vessels', () => {
  it.each(END_SHAPES.flatMap((end) => (['x', 'y', 'z'] as const).map((axis) => [end, axis] as const)))('%s ends, axis %s: the whole to one part in a million', (end, axis) => {
    const vessel = { radius_m: 0.25, shell_m: 0.8, axis, nearEnd: end, farEnd: end };
    const mesh = unwrap(vesselMesh(vessel));
    expectClose(meshVolume(mesh), vesselVolume_m3(vessel), { rel: 1e-6, why: 'facets and chords are set out to keep the volume' });
    meshBounds(mesh).min.forEach((value) => expect(Math.abs(value)).toBeLessThan(2e-3));
  });

  // Handbook formulas (Perry's Chemical Engineers' Handbook; D. Jones 2003; from memory).
  it('lying cylinder partly filled: segment area times length, everywhere within 0.05 %', () => {
    const mesh = unwrap(vesselMesh({ radius_m: 0.3, shell_m: 1.2, axis: 'x', nearEnd: 'flat', farEnd: 'flat' }));
    for (let h = 0.005; h < 0.6; h += 0.005) {
      const segment = 0.09 * Math.acos((0.3 - h) / 0.3) - (0.3 - h) * Math.sqrt(0.6 * h - h * h);
      expectClose(volumeBelow(mesh, { normal: [0, 0, 1], offset_m: h }), segment * 1.2, { abs: 5e-4 * Math.PI * 0.09 * 1.2, why: 'promise: 0.05 % of the whole' });
    }
  });

  it.each([['hemispherical', 1], ['elliptical', 0.5]] as const)('lying, %s ends partly filled: pi h² (3 r - h) / 6 an end, times %d', (end, factor) => {
    const vessel = { radius_m: 0.3, shell_m: 0.5, axis: 'y', nearEnd: end, farEnd: end } as const;
    const mesh = unwrap(vesselMesh(vessel));
    for (let h = 0.01; h < 0.6; h += 0.01) {
      const segment = 0.09 * Math.acos((0.3 - h) / 0.3) - (0.3 - h) * Math.sqrt(0.6 * h - h * h);
      const ends = 2 * factor * (Math.PI * h * h * (0.9 - h)) / 6;
      expectClose(volumeBelow(mesh, { normal: [0, 0, 1], offset_m: h }), segment * 0.5 + ends, { abs: 5e-4 * vesselVolume_m3(vessel), why: 'promise: 0.05 % of the whole' });
    }
  });

  it('upright: a hemispherical cap filled to h holds pi h² (3 r - h) / 3', () => {
    const mesh = unwrap(vesselMesh({ radius_m: 0.3, shell_m: 0.5, axis: 'z', nearEnd: 'hemispherical', farEnd: 'flat' }));
    for (const h of [0.02, 0.1, 0.2, 0.3]) expectClose(volumeBelow(mesh, { normal: [0, 0, 1], offset_m: h }), (Math.PI * h * h * (0.9 - h)) / 3, { abs: 5e-4 * meshVolume(mesh), why: 'promise' });
  });

  it('an ASME flanged-and-dished end holds 0.081 D³ and is 0.169 D deep (published head data, from memory)', () => {
    expectClose(endVolume_m3('torispherical', 0.5), 0.0809, { rel: 0.002, why: 'printed to three digits' });
  });

  it('a cone, by r² pi h / 3, and a tapered tube', () => {
    expectClose(meshVolume(unwrap(coneMesh(0.2, 0, 0.6, 'z'))), (Math.PI * 0.04 * 0.6) / 3, { rel: 1e-12, why: 'equal-area facets' });
    expectClose(meshVolume(unwrap(coneMesh(0.2, 0.1, 0.6, 'x'))), ((Math.PI * 0.6) / 3) * (0.04 + 0.02 + 0.01), { rel: 1e-12, why: 'equal-area facets' });
  });

  it('what has no size is refused', () => {
    expect(vesselMesh({ radius_m: 0, shell_m: 1, axis: 'x', nearEnd: 'flat', farEnd: 'flat' })).toMatchObject({ ok: false, error: { code: 'no-size' } });
    expect(coneMesh(0, 0, 1, 'x')).toMatchObject({ ok: false, error: { code: 'no-size' } });
  });

  it('any vessel, any level: monotone and whole', () => {
    fc.assert(fc.property(fc.constantFrom(...END_SHAPES), fc.double({ min: 0.05, max: 1, noNaN: true }), fc.double({ min: 0, max: 2, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (end, radius_m, shell, share) => {
      const shell_m = end === 'flat' ? shell + 0.01 : shell;
      const mesh = unwrap(vesselMesh({ radius_m, shell_m, axis: 'x', nearEnd: end, farEnd: end }));
      const at = (level: number): number => volumeBelow(mesh, { normal: [0, 0, 1], offset_m: level * 2 * radius_m });
      expect(at(share)).toBeLessThanOrEqual(at(Math.min(1, share + 0.05)) + 1e-12);
    }), { seed: 5, numRuns: 40 });
  });
});

describe('facets round an axis', () => {
  it('keep the sliver that a cut can get wrong under its share: at any depth of a lying cylinder, closed form', () => {
    const facets = facetsFor(ROUND_REL);
    const cylinder = revolvedMesh([[0, 0.3], [1, 0.3]], 'x');
    expect(cylinder.triangles.length / 3).toBe(4 * facets);
    for (let i = 1; i < 40; i++) {
      const depth = 0.6 * (i / 40);
      const segment = 0.09 * Math.acos((0.3 - depth) / 0.3) - (0.3 - depth) * Math.sqrt(2 * 0.3 * depth - depth * depth);
      expectClose(volumeBelow(cylinder, { normal: [0, 0, 1], offset_m: depth }), segment, { abs: ROUND_REL * 2 * Math.PI * 0.09, why: 'two slivers of the section' });
    }
  });

  it('lie flat at top, bottom and sides, so that the body measures its diameter to a millimetre', () => {
    const { min, max } = meshBounds(revolvedMesh([[0, 0.32], [1, 0.32]], 'x'));
    expectClose(max[2] - min[2], 0.64, { abs: 1e-3, why: 'as a tape would say' });
    expectClose(max[1] - min[1], 0.64, { abs: 1e-3, why: 'as a tape would say' });
  });
});
