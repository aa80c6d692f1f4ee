import { describe, expect, it } from 'vitest';
import { boxMesh, worldUpInVehicle, type Vec3 } from '../geometry';
import { unwrap } from '../outcome';
import { expectClose } from '../../../tests/expectClose';
import {
  commonCentre_m,
  envelopeSteps,
  shellCentre_m,
  strappingTable,
  tableByStep,
  unusable_m3,
  worstUnusable,
} from '.';

const BOX = boxMesh(1, 0.5, 0.4);
const UP: Vec3 = [0, 0, 1];

describe('unusable', () => {
  it('level: plan area times the inlet height and what it needs over it', () => {
    expectClose(unusable_m3({ mesh: BOX }, { point_m: [0.2, 0.25, 0.02], submergence_m: 0.005 }, UP), 0.5 * 0.025, {
      rel: 1e-12,
      why: 'closed form',
    });
  });

  it('nose down with the pickup aft leaves the exact prism', () => {
    const pitch = -0.15;
    const left = unusable_m3(
      { mesh: BOX },
      { point_m: [0.1, 0.25, 0.02], submergence_m: 0 },
      worldUpInVehicle(pitch, 0),
    );
    const slope = Math.tan(0.15);
    const [aft, fore] = [0.02 - 0.1 * slope, 0.02 + 0.9 * slope];
    const wet = 1 - Math.max(0, -aft / slope);
    expectClose(left, ((Math.max(0, aft) + fore) / 2) * wet * 0.5, { rel: 1e-12, why: 'exact prism' });
  });

  it('the worst attitude for an inlet off centre is the corner away from it', () => {
    const worst = worstUnusable(
      { mesh: BOX },
      { point_m: [0.1, 0.1, 0.02], submergence_m: 0 },
      { pitch_rad: [-0.1, 0.2], roll_rad: [-0.12, 0.12] },
      worldUpInVehicle,
    );
    expect(worst).toMatchObject({ pitch_rad: -0.1, roll_rad: -0.12 });
    expect(worst.unusable_m3).toBeGreaterThan(
      unusable_m3({ mesh: BOX }, { point_m: [0.1, 0.1, 0.02], submergence_m: 0 }, UP),
    );
  });

  it('no envelope is the level', () => {
    const inlet = { point_m: [0.1, 0.1, 0.02] as Vec3, submergence_m: 0 };
    expectClose(
      worstUnusable({ mesh: BOX }, inlet, { pitch_rad: [0, 0], roll_rad: [0, 0] }, worldUpInVehicle).unusable_m3,
      0.01,
      { rel: 1e-12, why: 'level' },
    );
  });

  it('envelope steps hold both limits and level once', () => {
    const steps = envelopeSteps([-0.3, 0.2]);
    expect(steps[0]).toBe(-0.3);
    expect(steps.at(-1)).toBe(0.2);
    expect(steps.filter((angle) => angle === 0)).toHaveLength(1);
    expect(new Set(steps).size).toBe(steps.length);
  });
});

it('strapping table runs from empty to full and never falls', () => {
  const rows = strappingTable(BOX, worldUpInVehicle(0.1, -0.2), 30);
  expect(rows[0]!.depth_m).toBe(0);
  expectClose(rows[0]!.volume_m3, 0, { abs: 1e-15, why: 'rounding' });
  expectClose(rows.at(-1)!.volume_m3, 0.2, { rel: 1e-12, why: 'gross volume' });
  rows.slice(1).forEach((row, i) => expect(row.volume_m3).toBeGreaterThanOrEqual(rows[i]!.volume_m3));
});

describe('table by step', () => {
  it('has a row a step and one for the brim', () => {
    const rows = unwrap(tableByStep(BOX, UP, 0.15));
    expect(rows.map((row) => Number(row.depth_m.toFixed(9)))).toEqual([0, 0.15, 0.3, 0.4]);
    rows.forEach((row) =>
      expectClose(row.volume_m3, 0.5 * row.depth_m, { abs: 1e-15, rel: 1e-12, why: 'closed form' }),
    );
    expect(unwrap(tableByStep(BOX, UP, 0.1))).toHaveLength(5);
  });

  it.each([0, -1, Number.NaN, 1e-9])('refuses a step of %d', (step) => {
    expect(tableByStep(BOX, UP, step)).toMatchObject({ ok: false, error: { code: 'bad-step' } });
  });
});

it('the centre of a box shell is its middle, and masses balance about their common centre', () => {
  expect(shellCentre_m(BOX).map((value) => Number(value.toFixed(12)))).toEqual([0.5, 0.25, 0.2]);
  expect(
    commonCentre_m([
      { mass_kg: 1, at_m: [0, 0, 0] },
      { mass_kg: 3, at_m: [1, 2, 4] },
    ]),
  ).toEqual([0.75, 1.5, 3]);
  expect(commonCentre_m([])).toBeUndefined();
});
