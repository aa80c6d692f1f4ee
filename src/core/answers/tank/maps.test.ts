import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { chosen, parseSystemText, toPath, withValue, type SystemDocument } from '../../plan';
import { unwrap } from '../../outcome';
import { attitudeMap, symmetricSteps } from '../../tank';
import { boxMesh, worldUpInVehicle } from '../../geometry';
import { expectClose } from '../../../../tests/expectClose';
import { evaluateSystem, MAP_LIMIT, tankMap as mapAt, tankTable, type MapMode } from '..';
import { attitudeOf } from '../../state';

const tankMap = (system: SystemDocument, t: number, mode: MapMode, steps: number) =>
  mapAt(system, attitudeOf(system.conditions), t, mode, steps);

const parsed = parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8'));
if (!parsed.ok) throw new Error(parsed.error.detail);
const BOAT = withValue(parsed.value, toPath('tanks[0].mounting.pitch_deg'), chosen(0));
const changed = (path: string, value: unknown, system: SystemDocument = BOAT): SystemDocument =>
  withValue(system, toPath(path), value);

describe('steps of a map', () => {
  it('are even, symmetric, and hold zero exactly', () => {
    expect(symmetricSteps(30, 7)).toEqual([-30, -20, -10, 0, 10, 20, 30]);
    expect(symmetricSteps(1.2, 61)[30]).toBe(0);
  });
});

describe('the map of a box', () => {
  const mesh = boxMesh(1, 0.5, 0.4);
  const axis = symmetricSteps(0.3, 13);
  const map = attitudeMap(
    { mesh },
    [
      { point_m: [0.5, 0.25, 0.02], submergence_m: 0 },
      { point_m: [0.1, 0.25, 0.02], submergence_m: 0 },
    ],
    axis,
    axis,
    (roll, pitch) => worldUpInVehicle(pitch, roll),
  );
  const at = (pickup: number, row: number, column: number): number => map.left_m3[pickup]![row * 13 + column]!;

  it('is symmetric both ways for a pickup in the middle', () => {
    for (let row = 0; row < 13; row++) {
      for (let column = 0; column < 13; column++) {
        expectClose(at(0, row, column), at(0, 12 - row, column), { rel: 1e-9, why: 'mirror fore and aft' });
        expectClose(at(0, row, column), at(0, row, 12 - column), { rel: 1e-9, why: 'mirror side to side' });
      }
    }
  });

  it('is least nose up for a pickup aft, and the middle is the level', () => {
    expect(at(1, 12, 6)).toBeLessThan(at(1, 0, 6));
    expectClose(at(1, 6, 6), 0.01, { rel: 1e-12, why: 'level' });
  });
});

describe('the map of a system', () => {
  it('agrees with the evaluation at a point of it', () => {
    const map = unwrap(tankMap(BOAT, 0, 'slope', 61));
    const row = map.ys.indexOf(-10);
    const column = map.xs.indexOf(10);
    const there = unwrap(evaluateSystem(changed('conditions.roll_deg', 10, changed('conditions.pitch_deg', -10))));
    expectClose(map.left_m3[0]![row * 61 + column]!, there.tanks[0]!.pickups[0]!.unusableNow_m3, {
      rel: 1e-9,
      why: 'same attitude',
    });
    expect(map.pickups).toEqual([{ id: 'pickup', name: 'Engine pickup' }]);
  });

  it('over pushes starts from the slope that is set', () => {
    const level = unwrap(tankMap(BOAT, 0, 'g', 5));
    const nose = unwrap(tankMap(changed('conditions.pitch_deg', -10), 0, 'g', 5));
    expect(nose.left_m3[0]![12]!).toBeGreaterThan(level.left_m3[0]![12]!);
    expect(level.xs.at(-1)).toBe(MAP_LIMIT.g);
    // Braking at x g is a slope of atan x.
    const braked = level.left_m3[0]![1 * 5 + 2]!;
    const sloped = unwrap(evaluateSystem(changed('conditions.accelerationForward_mPerS2', -0.6 * 9.80665)));
    expectClose(braked, sloped.tanks[0]!.pickups[0]!.unusableNow_m3, { rel: 1e-9, why: 'same push' });
  });

  it('in free fall has no value, not a wrong one', () => {
    const falling = unwrap(tankMap(changed('conditions.accelerationUp_mPerS2', -9.8), 0, 'g', 3));
    expect(falling.left_m3[0]![4]).toBeNaN();
  });

  it.each<[string, SystemDocument, number]>([
    ['no-tank', BOAT, 3],
    ['no-pickup', changed('tanks[0].pickups', []), 0],
    [
      'bad-shape',
      changed('tanks[0].shape', {
        kind: 'cone',
        axis: 'z',
        nearDiameter_m: chosen(0),
        farDiameter_m: chosen(0),
        length_m: chosen(1),
      }),
      0,
    ],
  ])('says why there is none: %s', (code, system, tank) => {
    expect(tankMap(system, tank, 'slope', 3)).toMatchObject({ ok: false, error: { code } });
  });
});

describe('the strapping table of a system', () => {
  it('as mounted counts the mounting, not the slope of the moment', () => {
    const level = unwrap(tankTable(BOAT, 0, 0.05, 'mounted'));
    expect(unwrap(tankTable(changed('conditions.pitch_deg', 20), 0, 0.05, 'mounted'))).toEqual(level);
    const mounted = unwrap(tankTable(changed('tanks[0].mounting.pitch_deg', chosen(5)), 0, 0.05, 'mounted'));
    expect(mounted[1]!.volume_m3).toBeLessThan(level[1]!.volume_m3);
    expectClose(level[1]!.volume_m3, 0.05 * 1.12 * 0.56, { rel: 1e-12, why: 'closed form' });
  });

  it.each<[string, SystemDocument, number, number]>([
    ['no-tank', BOAT, 9, 0.01],
    ['bad-step', BOAT, 0, 0],
    ['weightless', changed('conditions.accelerationUp_mPerS2', -9.8), 0, 0.01],
  ])('says why there is none: %s', (code, system, tank, step) => {
    expect(tankTable(system, tank, step, 'conditions')).toMatchObject({ ok: false, error: { code } });
  });
});
