import { beforeAll, describe, expect, it } from 'vitest';
import {
  boxMesh,
  combine,
  loadKernel,
  meshVolume,
  movedMesh,
  volumeBelow,
  type ClosedMesh,
  type Vec3,
} from '../geometry';
import { unwrap } from '../outcome';
import { chosen } from '../plan';
import { seeded } from '../seeded';
import { shapeMesh, shapeSpan } from '../model';
import type { ShapeDocument } from '.';

beforeAll(loadKernel);

type Sizes = Readonly<Record<string, number | string>>;
/** A shape with sizes that are simply chosen. */
const shape = (kind: ShapeDocument['kind'], sizes: Sizes): ShapeDocument =>
  ({
    kind,
    ...Object.fromEntries(Object.entries(sizes).map(([key, v]) => [key, typeof v === 'number' ? chosen(v) : v])),
  }) as ShapeDocument;
const meshOf = (kind: ShapeDocument['kind'], sizes: Sizes): ClosedMesh => unwrap(shapeMesh(shape(kind, sizes)));

/** A box from one corner to another. */
const block = (from: Vec3, to: Vec3): ClosedMesh =>
  movedMesh(boxMesh(to[0] - from[0], to[1] - from[1], to[2] - from[2]), from);
const less = (a: ClosedMesh, b: ClosedMesh): ClosedMesh => unwrap(combine(a, b, 'take'));
const plus = (a: ClosedMesh, b: ClosedMesh): ClosedMesh => unwrap(combine(a, b, 'add'));

const { uniform: chance } = seeded(16);
const between = (low: number, high: number): number => low + (high - low) * chance();
const pick = <T>(...of: readonly T[]): T => of[Math.floor(chance() * of.length)]!;
/** Anything that liquid may stand to: a direction and how far along it. */
const plane = (): { normal: Vec3; offset_m: number } => {
  const raw: Vec3 = [between(-1, 1), between(-1, 1), between(0.05, 1)];
  const length = Math.hypot(...raw);
  return { normal: raw.map((x) => x / length) as unknown as Vec3, offset_m: between(0.05, 0.5) };
};

/** Both bodies are alike: as a whole, and cut off at any slope. */
function expectAlike(body: ClosedMesh, other: ClosedMesh): void {
  const whole = meshVolume(other);
  expect(Math.abs(meshVolume(body) - whole)).toBeLessThan(1e-9 * whole);
  for (let i = 0; i < 6; i++) {
    const cut = plane();
    expect(Math.abs(volumeBelow(body, cut) - volumeBelow(other, cut))).toBeLessThan(1e-8 * whole);
  }
}
const RUNS = Array.from({ length: 40 }, (_, i) => i);
const AT = 'xyz';
/** A point by its coordinates along an axis and the two across it, in order. */
const placed = (axis: string, along: number, u: number, v: number): Vec3 =>
  axis === 'x' ? [along, u, v] : axis === 'y' ? [u, along, v] : [u, v, along];
const ACROSS: Readonly<Record<string, readonly [number, number]>> = { x: [1, 2], y: [0, 2], z: [0, 1] };

/** Bodies put together from boxes by the Boolean library are the second way to each. */
describe('the same body from boxes added and taken away', () => {
  const sizes = (): Vec3 => [between(0.2, 2), between(0.2, 1), between(0.1, 0.8)];
  const all = ([length_m, width_m, height_m]: Vec3) => ({ length_m, width_m, height_m });

  it.each(RUNS)('L %i', () => {
    const size = sizes();
    const axis = pick('x', 'y', 'z');
    const [u, v] = ACROSS[axis]!.map((k) => size[k]!) as [number, number];
    const along = size[AT.indexOf(axis)]!;
    const [cutU, cutV] = [u * between(0.05, 0.95), v * between(0.05, 0.95)];
    const [cutSide, cutEnd] = [pick('lower', 'higher'), pick('lower', 'higher')];
    const [fromU, fromV] = [cutSide === 'lower' ? 0 : u - cutU, cutEnd === 'lower' ? 0 : v - cutV];
    const body = meshOf('l-shape', { ...all(size), axis, cutAcross_m: cutU, cutUp_m: cutV, cutSide, cutEnd });
    // Cutters stand out where they may, so that no faces fall together.
    const over = (from: number, size: number, end: number): [number, number] => [
      from === 0 ? -0.1 : from,
      from + size >= end - 1e-12 ? end + 0.1 : from + size,
    ];
    const [[a, b], [c, d]] = [over(fromU, cutU, u), over(fromV, cutV, v)];
    expectAlike(body, less(boxMesh(...size), block(placed(axis, -0.1, a, c), placed(axis, along + 0.1, b, d))));
  });

  it.each(RUNS)('stepped %i', () => {
    const size = sizes();
    const axis = pick('x', 'y');
    const [run, high] = [size[axis === 'y' ? 0 : 1]!, size[2]];
    const along = size[AT.indexOf(axis)]!;
    const [run1, run2] = [run * between(0.05, 0.45), run * between(0, 0.45)];
    const [rise1, rise2] = [high * between(0.05, 0.45), high * between(0, 0.45)];
    const [deepEnd, steppedFace] = [pick('lower', 'higher'), pick('lower', 'higher')];
    const body = meshOf('stepped', {
      ...all(size),
      axis,
      firstRun_m: run1,
      firstRise_m: rise1,
      secondRun_m: run2,
      secondRise_m: rise2,
      deepEnd,
      steppedFace,
    });
    const cut = (from: number, rise: number): ClosedMesh => {
      const [a, b] = deepEnd === 'lower' ? [from, run + 0.1] : [-0.1, run - from];
      const [c, d] = steppedFace === 'lower' ? [-0.1, rise] : [high - rise, high + 0.1];
      return block(placed(axis, -0.1, a, c), placed(axis, along + 0.1, b, d));
    };
    expectAlike(body, less(less(boxMesh(...size), cut(run1, rise1)), cut(run1 + run2, rise1 + rise2)));
  });

  it.each(RUNS)('T %i', () => {
    const size = sizes();
    const axis = pick('x', 'y', 'z');
    const [u, v] = ACROSS[axis]!.map((k) => size[k]!) as [number, number];
    const along = size[AT.indexOf(axis)]!;
    const stem = u * between(0.1, 0.6);
    const stemAt = pick(0, u - stem, between(0, u - stem));
    const head = v * between(0.1, 0.9);
    const headEnd = pick('lower', 'higher');
    const body = meshOf('t-shape', { ...all(size), axis, stem_m: stem, stemAt_m: stemAt, head_m: head, headEnd });
    const [low, high] = headEnd === 'lower' ? [0, head] : [v - head, v];
    const bar = block(placed(axis, 0, 0, low), placed(axis, along, u, high));
    expectAlike(body, plus(bar, block(placed(axis, 0, stemAt, 0), placed(axis, along, stemAt + stem, v))));
  });

  it.each(RUNS)('saddle %i', () => {
    const size = sizes();
    const axis = pick('x', 'y');
    const across = size[axis === 'x' ? 1 : 0]!;
    const along = size[AT.indexOf(axis)]!;
    const tunnel = across * between(0.1, 0.7);
    const leg = between(0.02, across - tunnel - 0.001);
    const high = size[2] * between(0.05, 0.95);
    const body = meshOf('saddle', { ...all(size), axis, leg_m: leg, tunnel_m: tunnel, tunnelHeight_m: high });
    expectAlike(
      body,
      less(boxMesh(...size), block(placed(axis, -0.1, leg, -0.1), placed(axis, along + 0.1, leg + tunnel, high))),
    );
  });
});

describe('closed forms', () => {
  it.each(RUNS)('a wedge is its mean height times its floor, %i', () => {
    const [l, w, h] = [between(0.2, 2), between(0.2, 1), between(0.1, 0.8)];
    const thin = pick(0, h, h * chance());
    const body = meshOf('wedge', {
      length_m: l,
      width_m: w,
      height_m: h,
      axis: pick('x', 'y'),
      thinHeight_m: thin,
      thinEnd: pick('lower', 'higher'),
      slopingFace: pick('lower', 'higher'),
    });
    expect(meshVolume(body)).toBeCloseTo((l * w * (h + thin)) / 2, 12);
  });

  it.each(RUNS)('a V-bottom holds the box less what its sides rise, and its bottom fills as a V does, %i', () => {
    const [l, w] = [between(0.2, 2), between(0.2, 1)];
    const deadrise_deg = pick(0, between(0.5, 45));
    const flat = pick(0, w * chance());
    const keel = pick('lower', 'middle', 'higher');
    const arms = keel === 'middle' ? 2 : 1;
    const slope = Math.tan((deadrise_deg * Math.PI) / 180);
    const rise = ((w - flat) / arms) * slope;
    const h = rise + pick(0.05, 0.4);
    const body = meshOf('v-bottom', { length_m: l, width_m: w, height_m: h, deadrise_deg, flat_m: flat, keel });
    expect(meshVolume(body)).toBeCloseTo(l * (w * h - ((w - flat) * rise) / 2), 12);
    if (rise < 0.001) return;
    const depth = rise * between(0.05, 1);
    const below = volumeBelow(body, { normal: [0, 0, 1], offset_m: depth });
    expect(below).toBeCloseTo(l * (flat * depth + (arms * depth * depth) / (2 * slope)), 12);
  });

  it.each(RUNS)('a tapered tank is a prismatoid, %i', () => {
    const [l, a, b, c, d] = [between(0.1, 2), between(0.05, 1), between(0.05, 1), between(0.05, 1), between(0.05, 1)];
    const body = meshOf('tapered', {
      axis: pick('x', 'y', 'z'),
      length_m: l,
      nearAcross_m: a,
      nearUp_m: b,
      farAcross_m: c,
      farUp_m: d,
      level: pick('lower', 'middle', 'higher'),
    });
    // Prismatoid formula: ends and four times the middle.
    expect(meshVolume(body)).toBeCloseTo((l / 6) * (a * b + (a + c) * (b + d) + c * d), 12);
  });

  it('the handbook’s frustum of a square pyramid: h/3 (A + B + √AB)', () => {
    const body = meshOf('tapered', {
      axis: 'z',
      length_m: 0.6,
      nearAcross_m: 0.3,
      nearUp_m: 0.3,
      farAcross_m: 0.5,
      farUp_m: 0.5,
      level: 'middle',
    });
    expect(meshVolume(body)).toBeCloseTo((0.6 / 3) * (0.09 + 0.25 + Math.sqrt(0.09 * 0.25)), 12);
    expect(
      shapeSpan(
        shape('tapered', {
          axis: 'z',
          length_m: 0.6,
          nearAcross_m: 0.3,
          nearUp_m: 0.3,
          farAcross_m: 0.5,
          farUp_m: 0.5,
          level: 'middle',
        }),
      ),
    ).toEqual([0.5, 0.5, 0.6]);
  });
});

describe('sizes that leave no tank are told, each by its key', () => {
  const all = { length_m: 0.8, width_m: 0.5, height_m: 0.3 };
  it.each([
    ['wedge', { ...all, axis: 'y', thinHeight_m: 0.31, thinEnd: 'lower', slopingFace: 'lower' }, 'thinHeight_m'],
    ['v-bottom', { ...all, deadrise_deg: 52, flat_m: 0, keel: 'middle' }, 'deadrise_deg'],
    ['v-bottom', { ...all, deadrise_deg: 5, flat_m: 0.6, keel: 'middle' }, 'flat_m'],
    [
      'l-shape',
      { ...all, axis: 'y', cutAcross_m: 0.8, cutUp_m: 0.1, cutSide: 'lower', cutEnd: 'lower' },
      'cutAcross_m',
    ],
    ['l-shape', { ...all, axis: 'x', cutAcross_m: 0.1, cutUp_m: 0.3, cutSide: 'lower', cutEnd: 'lower' }, 'cutUp_m'],
    ['t-shape', { ...all, axis: 'x', stem_m: 0.3, stemAt_m: 0.3, head_m: 0.1, headEnd: 'higher' }, 'stemAt_m'],
    ['t-shape', { ...all, axis: 'x', stem_m: 0.3, stemAt_m: 0.1, head_m: 0.4, headEnd: 'higher' }, 'head_m'],
    ['t-shape', { ...all, axis: 'x', stem_m: 0, stemAt_m: 0.1, head_m: 0.1, headEnd: 'higher' }, 'stem_m'],
    ['saddle', { ...all, axis: 'x', leg_m: 0.2, tunnel_m: 0.2, tunnelHeight_m: 0.3 }, 'tunnelHeight_m'],
    ['saddle', { ...all, axis: 'x', leg_m: 0.4, tunnel_m: 0.2, tunnelHeight_m: 0.1 }, 'tunnel_m'],
    ['saddle', { ...all, axis: 'x', leg_m: 0, tunnel_m: 0.5, tunnelHeight_m: 0.1 }, 'leg_m'],
    ...(
      [
        [0, 0.1, 0, 0, 'firstRun_m'],
        [0, 0, 0, 0.1, 'firstRun_m'],
        [0, 0.1, 0.2, 0.1, 'firstRun_m'],
        [0.5, 0.1, 0.4, 0.1, 'secondRun_m'],
        [0.2, 0.2, 0.2, 0.1, 'secondRise_m'],
      ] as const
    ).map(
      ([firstRun_m, firstRise_m, secondRun_m, secondRise_m, at]) =>
        [
          'stepped',
          {
            ...all,
            axis: 'y',
            firstRun_m,
            firstRise_m,
            secondRun_m,
            secondRise_m,
            deepEnd: 'lower',
            steppedFace: 'lower',
          },
          at,
        ] as const,
    ),
  ] as const)('%s %#', (kind, sizes, at) => {
    const made = shapeMesh(shape(kind, sizes));
    expect(made).toMatchObject({ ok: false, error: { code: 'does-not-fit', at } });
  });

  it('a body that is made is as large over all as its sizes say, whatever of it is nothing or the whole', () => {
    const share = (of: number): number => pick(0, of, of * chance());
    const ends = { lower: 'lower', higher: 'higher' } as const;
    let made = 0;
    for (let i = 0; i < 2000; i++) {
      const [l, w, h] = [between(0.1, 1), between(0.1, 1), between(0.1, 1)];
      const size = { length_m: l, width_m: w, height_m: h };
      const end = (): string => pick(ends.lower, ends.higher);
      const [level, any] = [pick('x', 'y'), pick('x', 'y', 'z')];
      const most = Math.max(l, w);
      const body = pick(
        shape('wedge', { ...size, axis: level, thinHeight_m: share(h), thinEnd: end(), slopingFace: end() }),
        shape('v-bottom', {
          ...size,
          deadrise_deg: share(45),
          flat_m: share(w),
          keel: pick('lower', 'middle', 'higher'),
        }),
        shape('l-shape', {
          ...size,
          axis: any,
          cutAcross_m: share(most),
          cutUp_m: share(h),
          cutSide: end(),
          cutEnd: end(),
        }),
        shape('stepped', {
          ...size,
          axis: level,
          firstRun_m: share(most),
          firstRise_m: share(h),
          secondRun_m: share(most),
          secondRise_m: share(h),
          deepEnd: end(),
          steppedFace: end(),
        }),
        shape('t-shape', {
          ...size,
          axis: any,
          stem_m: share(most),
          stemAt_m: share(most),
          head_m: share(h),
          headEnd: end(),
        }),
        shape('saddle', { ...size, axis: level, leg_m: share(most), tunnel_m: share(most), tunnelHeight_m: share(h) }),
      );
      const mesh = shapeMesh(body);
      if (!mesh.ok) {
        expect(mesh.error.detail, JSON.stringify(body)).not.toBe('');
        continue;
      }
      made++;
      expect(meshVolume(mesh.value)).toBeGreaterThan(0);
      shapeSpan(body).forEach((span, k) => expect(span, JSON.stringify(body)).toBeCloseTo([l, w, h][k]!, 9));
    }
    expect(made).toBeGreaterThan(300);
  });

  it('a part of nothing is a box', () => {
    const box = meshVolume(boxMesh(0.8, 0.5, 0.3));
    for (const [kind, sizes] of [
      ['wedge', { ...all, axis: 'y', thinHeight_m: 0.3, thinEnd: 'lower', slopingFace: 'lower' }],
      ['v-bottom', { ...all, deadrise_deg: 0, flat_m: 0, keel: 'middle' }],
      ['l-shape', { ...all, axis: 'z', cutAcross_m: 0, cutUp_m: 0.2, cutSide: 'lower', cutEnd: 'lower' }],
      ['t-shape', { ...all, axis: 'y', stem_m: 0.1, stemAt_m: 0.2, head_m: 0.3, headEnd: 'lower' }],
      ['saddle', { ...all, axis: 'y', leg_m: 0.1, tunnel_m: 0, tunnelHeight_m: 0.1 }],
    ] as const)
      expect(meshVolume(meshOf(kind, sizes)), kind).toBeCloseTo(box, 12);
  });
});
