import { beforeAll, describe, expect, it } from 'vitest';
import { comparedFigures, evaluateSystem, mountsOf, shakingOf, unheldOf, type Swings } from '@/core/answers';
import { loadKernel, placed, placedBack, poseOf, type Vec3 } from '@/core/geometry';
import { placeOf } from '@/core/model/compileFit';
import { unwrap } from '@/core/outcome';
import { chosen, type SystemDocument } from '@/core/plan';
import { radians } from '@/core/units';
import { heldDown, ON_AXLES, SOUND } from './raisedSystems';

beforeAll(loadKernel);

const HELD = (): SystemDocument => heldDown(SOUND, (mounts) => mounts);
const swings = (system: SystemDocument): Swings => unwrap(unwrap(mountsOf(system)).shells[0]!.swings);

/** The same tank with its mounts somewhere else in the vehicle, turned about the vertical. */
function elsewhere(system: SystemDocument, at: Vec3, yaw_deg: number): SystemDocument {
  const [tank] = system.tanks;
  const from = placeOf(tank!.mounting);
  const to = poseOf(at, { yaw_rad: radians(yaw_deg), pitch_rad: 0, roll_rad: 0 });
  const moved = (point: Vec3): Vec3 => placed(to, placedBack(from, point));
  return {
    ...system,
    tanks: [
      {
        ...tank!,
        mounting: {
          ...tank!.mounting,
          x_m: chosen(at[0]),
          y_m: chosen(at[1]),
          z_m: chosen(at[2]),
          yaw_deg: chosen(yaw_deg),
        },
      },
    ],
    mounts: system.mounts.map((mount) => {
      const [x, y, z] = moved([mount.x_m.value, mount.y_m.value, mount.z_m.value]);
      return { ...mount, x_m: chosen(x), y_m: chosen(y), z_m: chosen(z) };
    }),
  };
}

describe('how a tank swings by itself', () => {
  it('does not depend on where in the vehicle it stands, nor which way it looks', () => {
    const here = swings(HELD());
    const there = swings(elsewhere(HELD(), [3, -2, 1], 90));
    for (const fill of ['full', 'empty'] as const)
      for (const [i, { frequency_Hz }] of here[fill].entries())
        expect(there[fill][i]!.frequency_Hz / frequency_Hz).toBeCloseTo(1, 4);
    expect(there.settles_m! / here.settles_m!).toBeCloseTo(1, 4);
  });

  it('full it is slower than empty in every mode, and a thicker pad is slower than a thin one', () => {
    const { full, empty } = swings(HELD());
    for (const [i, { frequency_Hz }] of full.entries()) expect(frequency_Hz).toBeLessThan(empty[i]!.frequency_Hz);
    const soft = swings(
      heldDown(SOUND, (mounts) =>
        mounts.map(
          (mount) =>
            (mount.kind === 'cradle'
              ? { ...mount, made: { ...mount.made!, pad: { of: 'rubber', thickness_m: chosen(0.04) } } }
              : mount) as typeof mount,
        ),
      ),
    );
    expect(soft.full[0]!.frequency_Hz).toBeLessThan(full[0]!.frequency_Hz);
  });

  it('meets what lies within a band, both ends included; what nothing holds is told apart', () => {
    const swing = (frequency_Hz: number) => ({ way: 'across' as const, frequency_Hz });
    const some: Swings = { full: [swing(8), swing(15.01)], empty: [swing(15)], settles_m: undefined };
    const [hop] = shakingOf('road', some);
    expect(hop!.meets.map(({ swing: { frequency_Hz }, isFull }) => [frequency_Hz, isFull])).toEqual([
      [8, true],
      [15, false],
    ]);
    expect(unheldOf(some)).toBeUndefined();
    expect(unheldOf({ ...some, empty: [swing(0)] })).toEqual(swing(0));
  });
});

describe('what variants are compared by', () => {
  const figures = (system: SystemDocument) =>
    new Map(comparedFigures(system, unwrap(evaluateSystem(system))).map((figure) => [figure.key, figure]));

  it('the weakest part of what holds it, and each axle’s load of what it may bear, or without a rating as it is', () => {
    const [front, rear] = ON_AXLES.axles!;
    const { rating_kg: _, ...unrated } = rear!;
    const system: SystemDocument = { ...HELD(), stance: { ...ON_AXLES, axles: [front!, unrated] } };
    const all = figures(system);
    const first = unwrap(mountsOf(system)).shells[0]!.parts[0]!;
    expect(all.get('hold-factor')!.value).toBeCloseTo(first.factor!, 9);
    const wheels = unwrap(unwrap(evaluateSystem(system)).stands!).cases.map(({ wheels: on }) => unwrap(on!));
    const most = (a: number): number => Math.max(...wheels.map(({ axles }) => axles[a]!.load_kg));
    expect(all.get(`axle-${front!.id}`)).toMatchObject({ role: 'share', better: 'less' });
    expect(all.get(`axle-${front!.id}`)!.value).toBeCloseTo(most(0) / front!.rating_kg!.value, 9);
    expect(all.get(`axle-${rear!.id}`)).toMatchObject({ role: 'load' });
    expect(all.get(`axle-${rear!.id}`)!.value).toBeCloseTo(most(1), 9);
    expect(all.has('gm')).toBe(false);
  });

  it('loose is 0; not said of is no figure; a wheel that lifts leaves none', () => {
    const loose = heldDown(SOUND, (mounts) => mounts.filter(({ kind }) => kind === 'stop'));
    expect(figures(loose).get('hold-factor')!.value).toBe(0);
    expect(figures(SOUND).has('hold-factor')).toBe(false);
    const [front, rear] = ON_AXLES.axles!;
    const lifted: SystemDocument = {
      ...SOUND,
      stance: { ...ON_AXLES, middle_m: chosen(20), axles: [front!, { ...rear!, load_kg: chosen(0.1) }] },
    };
    expect(figures(lifted).get(`axle-${front!.id}`)!.value).toBeUndefined();
  });
});
