import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { applied, dividedIn, SOUND, T } from '../../../../tests/raisedSystems';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { chosen, type SystemDocument } from '../../plan';
import { seeded } from '../../seeded';
import { TIP_FILLS, tipsOf, type TipRow, type TipWay } from './tips';

beforeAll(loadKernel);

const shaped = (shape: object, more: readonly (readonly [string, unknown])[] = []): SystemDocument =>
  applied(SOUND, [[`${T}shape`, shape], [`${T}plates`, []], ...more]);
const box = (length: number, width: number, height: number): object => ({
  kind: 'box',
  length_m: chosen(length),
  width_m: chosen(width),
  height_m: chosen(height),
});
const row = (rows: readonly TipRow[], way: TipWay): TipRow => rows.find((each) => each.way === way)!;

describe('when a tank tips over, set down loose', () => {
  it('empty, a box of sheet goes over at half its base over half its height', () => {
    const { uniform } = seeded(4);
    for (let n = 0; n < 12; n++) {
      const [length, width, height] = [0.3 + uniform(), 0.2 + uniform(), 0.2 + uniform()];
      const { rows, base_m } = unwrap(tipsOf(shaped(box(length, width, height), [[`${T}dimensions`, 'outside']]), 0));
      expectClose(base_m[0], length, { rel: 1e-9, why: 'its floor' });
      for (const [way, base] of [
        ['fore', length],
        ['aft', length],
        ['port', width],
        ['starboard', width],
      ] as const)
        expectClose(row(rows, way).angles_rad.empty, Math.atan(base / height), { abs: 1e-6, why: 'by hand' });
      expect(rows.some(({ way }) => way === 'least')).toBe(false);
    }
  });

  it('turned about, the same tank goes over at the same leans the other ways', () => {
    const one = unwrap(tipsOf(shaped(box(0.5, 0.3, 0.6)), 0)).rows;
    const other = unwrap(tipsOf(shaped(box(0.3, 0.5, 0.6)), 0)).rows;
    for (const fill of TIP_FILLS)
      expectClose(row(one, 'fore').angles_rad[fill], row(other, 'port').angles_rad[fill], { abs: 1e-6, why: 'turned' });
  });

  it('a drum on its end goes over alike all round; lying, it rolls, and says so', () => {
    const drum = (axis: 'x' | 'z'): object => ({
      kind: 'cylinder',
      axis,
      diameter_m: chosen(0.5),
      shell_m: chosen(0.8),
      nearEnd: 'flat',
      farEnd: 'flat',
    });
    const { rows } = unwrap(tipsOf(shaped(drum('z')), 0));
    for (const fill of TIP_FILLS)
      for (const { angles_rad } of rows)
        expectClose(angles_rad[fill], row(rows, 'fore').angles_rad[fill], { abs: 2e-3, why: 'round' });
    expect(tipsOf(shaped(drum('x')), 0)).toMatchObject({ ok: false, error: { code: 'no-base' } });
  });

  it('corners cut off deep are the way in which it goes over first', () => {
    const [side, cut, height] = [0.4, 0.19, 0.5];
    const outline = [
      [cut, 0],
      [side - cut, 0],
      [side, cut],
      [side, side - cut],
      [side - cut, side],
      [cut, side],
      [0, side - cut],
      [0, cut],
    ];
    const eight = {
      kind: 'prism',
      axis: 'z',
      length_m: chosen(height),
      profile: outline.map(([u, v]) => ({ u_m: u, v_m: v })),
      profileOrigin: 'chosen',
    };
    const { rows } = unwrap(tipsOf(shaped(eight, [[`${T}dimensions`, 'outside']]), 0));
    expectClose(row(rows, 'fore').angles_rad.empty, Math.atan(side / height), { abs: 1e-6, why: 'over its flat side' });
    expectClose(row(rows, 'least').angles_rad.empty, Math.atan((side - cut) / Math.SQRT2 / (height / 2)), {
      abs: 1e-6,
      why: 'over a cut corner',
    });
    expect(row(rows, 'least').angles_rad.full).toBeLessThan(row(rows, 'fore').angles_rad.full);
  });

  it('two tanks of one shell stand as one, whichever of them is asked for', () => {
    const divided = dividedIn(SOUND);
    expect(tipsOf(divided, 1)).toEqual(tipsOf(divided, 0));
    const whole = unwrap(tipsOf(SOUND, 0)).rows;
    const both = unwrap(tipsOf(divided, 0)).rows;
    expectClose(row(both, 'port').angles_rad.empty, row(whole, 'port').angles_rad.empty, {
      abs: 0.02,
      why: 'the divider stands in the middle of it',
    });
  });
});
