import { describe, expect, it } from 'vitest';
import { boxMesh, rodMesh, worldUpInVehicle, type ClosedMesh, type Vec3 } from '../geometry';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { expectClose } from '../../../tests/expectClose';
import { correctionTable, designArm, refitArm, sightScale, stickScale, taughtAt, type DesignSite } from '.';

const BOX = boxMesh(0.8, 0.4, 0.3);
const UP: Vec3 = [0, 0, 1];
const FORE: Vec3 = [1, 0, 0];
const deg = (angle: number): number => (angle * Math.PI) / 180;
const PLAN = {
  floatRadius_m: 0.015,
  floatRise_m: 0,
  wireRadius_m: 0.0015,
  lowStop_rad: deg(-40),
  highStop_rad: deg(40),
};
const INSTRUMENT = {
  output: { empty: 240, full: 33 },
  tolerance_ratio: 0.05,
  gauge: { kind: 'linear' as const, empty: 240, full: 33, tolerance_ratio: 0.03 },
};
const STEPS = { armStep_m: 0.005, pivotStep_m: 0.005, shortestArm_m: 0.05, longestArm_m: 0.4, keep_m: 0.004 };
const site = (changes: Partial<DesignSite> = {}, mesh: ClosedMesh = BOX): DesignSite => ({
  mesh,
  up: UP,
  holds_m3: 0.8 * 0.4 * 0.3 * 0.95,
  surround: { room: mesh, round: [] },
  top_m: [0.3, 0.2, 0.3],
  ...changes,
});

describe('a sender designed for a tank', () => {
  it('in a free box reaches from floor to lid but for the float’s own radius: by hand', () => {
    const best = unwrap(designArm(site(), PLAN, INSTRUMENT, [FORE], STEPS));
    // Between float centres 19 mm off floor and lid lie 262 mm; full is at 285 mm.
    const most = (0.281 - 0.019) / 0.285;
    expect(best.covers_ratio).toBeGreaterThan(most - 0.04);
    expect(best.covers_ratio).toBeLessThanOrEqual(most + 1e-6);
    // A swing of ±40° over some 240 to 270 mm asks for a pivot half-way down and an arm of 0.12 … 0.135 / sin 40°.
    expectClose(best.pivotDepth_m, 0.15, { abs: 0.011, why: 'half-way down, in steps of 5 mm' });
    expectClose(best.armLength_m, 0.131 / Math.sin(deg(40)), {
      abs: 0.011,
      why: 'the swing that floor and lid allow, in steps of 5 mm',
    });
  });

  it('is at least as good as a full search of every pair, within the hundredth that counts as the same', () => {
    const small = { ...STEPS, armStep_m: 0.02, pivotStep_m: 0.03 };
    const best = unwrap(designArm(site(), PLAN, INSTRUMENT, [FORE], small));
    // In an empty box a whole swing is free where the float stays 19 mm off floor and lid; it covers twice L sin 40°.
    let most = 0;
    for (let pivot = 0.03; pivot < 0.29; pivot += 0.03) {
      for (let arm = 0.06; arm <= 0.4; arm += 0.02) {
        const half = arm * Math.sin(deg(40));
        if (0.3 - pivot - half >= 0.019 && 0.3 - pivot + half <= 0.281) most = Math.max(most, (2 * half) / 0.285);
      }
    }
    expect(best.covers_ratio).toBeGreaterThanOrEqual(most - 0.0101);
  });

  it('turns away from a pump that stands in the way', () => {
    const pump = { name: 'Pump', mesh: rodMesh([0.42, 0.2, 0.01], [0.42, 0.2, 0.3], 0.03, 12) };
    const best = unwrap(
      designArm(
        site({ surround: { room: BOX, round: [pump] } }),
        PLAN,
        INSTRUMENT,
        [FORE, [-1, 0, 0], [0, 1, 0]],
        STEPS,
      ),
    );
    expect(best.reach).not.toEqual(FORE);
  });

  it('says so where no arm goes', () => {
    expect(
      designArm(site({ top_m: [0.01, 0.01, 0.3] }), { ...PLAN, floatRadius_m: 0.1 }, INSTRUMENT, [FORE], STEPS),
    ).toMatchObject({ ok: false, error: { code: 'no-fit' } });
  });

  it('a sender from a shallower tank is bent or cut so that it covers more, never less', () => {
    const given = { pivotDepth_m: 0.09, wire_m: 0.26, directions: [FORE] };
    const steps = { armStep_m: 0.01, shortestArm_m: 0.06, bendStep_rad: deg(5), mostBend_rad: deg(60), keep_m: 0.004 };
    const { asItIs, best } = refitArm(site(), PLAN, INSTRUMENT, given, steps);
    expect(best).toBeDefined();
    expect(best!.wire_m).toBeLessThanOrEqual(0.26);
    const merit = (one: typeof asItIs): number => (one ? one.covers_ratio - Math.abs(one.worst_ratio) : -Infinity);
    expect(merit(best!.design)).toBeGreaterThanOrEqual(merit(asItIs));
    // Its pivot sits high: only a bend downward brings the float to the floor.
    expect(best!.bend_rad).toBeLessThan(0);
  });
});

describe('what a gauge is taught', () => {
  // Volume as the square of the height: reading 0 … 1 goes with the height.
  const stood = Array.from({ length: 201 }, (_, i) => ({ reading: i / 200, true_ratio: (i / 200) ** 2 }));

  it('even shares: a square root by hand', () => {
    const { points } = unwrap(correctionTable(stood, 5, 'even'));
    expect(points.map(({ shown_ratio }) => Math.round(shown_ratio * 100) / 100)).toEqual([0, 0.25, 0.5, 0.75, 1]);
    points.forEach(({ reading }, i) =>
      expectClose(reading, Math.sqrt(i / 4), { abs: 0.003, why: 'nearest point of the curve' }),
    );
  });

  it('best places: a parabola in n even pieces errs by a quarter of the square of the step', () => {
    const { points, worst_ratio } = unwrap(correctionTable(stood, 5, 'best'));
    expect(points).toHaveLength(5);
    expectClose(worst_ratio, 0.25 ** 2 / 4, {
      rel: 0.05,
      why: 'largest gap between a parabola and its chord over a step h is h²/4',
    });
    expect(worst_ratio).toBeLessThan(unwrap(correctionTable(stood, 5, 'even')).worst_ratio);
    let worst = 0;
    for (const { reading, true_ratio } of stood)
      worst = Math.max(worst, Math.abs(taughtAt(points, reading) - true_ratio));
    expectClose(worst, worst_ratio, { abs: 1e-12, why: 'what it says of itself is what it does' });
  });

  it('no other choice of as many points errs less: every one of them, on curves that bend at random', () => {
    const chance = seeded(17);
    for (let run = 0; run < 12; run++) {
      let [reading, shown] = [0, 0];
      const curve = Array.from({ length: 11 }, () => ({
        reading: (reading += 0.02 + chance.uniform()),
        true_ratio: (shown += 0.02 + chance.uniform() ** 3),
      }));
      const errorOf = (chosen: readonly number[]): number =>
        Math.max(
          ...curve.map((point) =>
            Math.abs(
              taughtAt(
                chosen.map((i) => ({ reading: curve[i]!.reading, shown_ratio: curve[i]!.true_ratio })),
                point.reading,
              ) - point.true_ratio,
            ),
          ),
        );
      let least = Infinity;
      for (let a = 1; a < 10; a++) for (let b = a + 1; b < 10; b++) least = Math.min(least, errorOf([0, a, b, 10]));
      expectClose(unwrap(correctionTable(curve, 4, 'best')).worst_ratio, least, {
        abs: 1e-12,
        why: 'all 36 tables of four points with both ends',
      });
    }
  });

  it('teaches nothing where the float lies on its stop', () => {
    const held = [
      { reading: 240, true_ratio: 0 },
      { reading: 240, true_ratio: 0.05 },
      { reading: 240, true_ratio: 0.1 },
      { reading: 150, true_ratio: 0.5 },
      { reading: 33, true_ratio: 0.9 },
      { reading: 33, true_ratio: 1 },
    ];
    const { points } = unwrap(correctionTable(held, 8, 'best'));
    expect(points).toEqual([
      { reading: 240, shown_ratio: 0.1 },
      { reading: 150, shown_ratio: 0.5 },
      { reading: 33, shown_ratio: 0.9 },
    ]);
    expect(correctionTable(held.slice(0, 3), 8, 'best')).toMatchObject({ ok: false, error: { code: 'untaught' } });
  });
});

describe('sight tube and stick', () => {
  it('a box: marks as far apart as volume over area, unseen below the lower boss', () => {
    const sight = unwrap(sightScale(BOX, [0, 0.2, 0.04], [0, 0.2, 0.27], UP, 0.09, 0.01));
    expectClose(sight.unseenLow_m3, 0.32 * 0.04, { rel: 1e-9, why: 'area times height' });
    expectClose(sight.unseenHigh_m3, 0.09 - 0.32 * 0.27, { rel: 1e-9, why: 'area times height' });
    expect(sight.marks.map(({ volume_m3 }) => Math.round(volume_m3 * 1000))).toEqual([20, 30, 40, 50, 60, 70, 80]);
    for (const { at_m, volume_m3 } of sight.marks)
      expectClose(at_m, volume_m3 / 0.32 - 0.04, { abs: 1e-9, why: 'volume over area, from the lower boss' });
  });

  it('heeled, a tube at the high side sees less', () => {
    const up = worldUpInVehicle(0, deg(5)); // starboard down
    const port = unwrap(sightScale(BOX, [0.4, 0.4, 0.02], [0.4, 0.4, 0.28], up, 0.09, 0.01));
    const starboard = unwrap(sightScale(BOX, [0.4, 0, 0.02], [0.4, 0, 0.28], up, 0.09, 0.01));
    expect(port.unseenLow_m3).toBeGreaterThan(starboard.unseenLow_m3);
  });

  it('a stick in a box: wetted length is volume over area; pitched, it is longer by 1/cos over the wedge', () => {
    const stick = unwrap(stickScale(BOX, [0.4, 0.2, 0.3], UP, 0.09, 0.01));
    expectClose(stick.length_m, 0.3, { rel: 1e-9, why: 'floor to lid' });
    for (const { at_m, volume_m3 } of stick.marks)
      expectClose(at_m, volume_m3 / 0.32, { abs: 1e-9, why: 'volume over area' });
    // About the middle of the plan a wedge adds on one side what it takes on the other.
    const pitched = unwrap(stickScale(BOX, [0.4, 0.2, 0.3], worldUpInVehicle(deg(6), 0), 0.09, 0.01));
    expectClose(pitched.marks[4]!.at_m, stick.marks[4]!.at_m, {
      abs: 1e-9,
      why: 'the stick stands with the tank, in the middle of the wedge',
    });
  });

  it.each([
    ['bosses-crossed', sightScale(BOX, [0, 0.2, 0.2], [0, 0.2, 0.1], UP, 0.09, 0.01)],
    ['outside-tank', sightScale(BOX, [0, 0.2, -0.01], [0, 0.2, 0.1], UP, 0.09, 0.01)],
    ['no-floor', stickScale(BOX, [2, 0.2, 0.3], UP, 0.09, 0.01)],
  ])('refuses %s', (code, outcome) => {
    expect(outcome).toMatchObject({ ok: false, error: { code } });
  });
});
