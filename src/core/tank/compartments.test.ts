import { describe, expect, it } from 'vitest';
import {
  boxMesh,
  combine,
  dot,
  meshVolume,
  movedMesh,
  posedMesh,
  prismMesh,
  shiftBy,
  vesselMesh,
  worldUpInVehicle,
  type Vec3,
} from '../geometry';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { expectClose } from '../../../tests/expectClose';
import { leftBehind_m3, saddlesTo } from './lobes';
import {
  compartmentBelow_m3,
  divided,
  drawable_m3,
  keptLevels_m,
  fitPlate,
  plateArea_m2,
  unusable_m3,
  type Plate,
} from '.';

const UP: Vec3 = [0, 0, 1];
const BOX = boxMesh(1, 0.5, 0.4);
const PLATE: Plate = {
  id: 'p',
  axis: 0,
  at_m: 0.4,
  thickness_m: 0.003,
  from_m: -Infinity,
  to_m: Infinity,
  cornerCut_m: 0,
  topGap_m: 0,
  holes: { count: 0, diameter_m: 0.03, height_m: 0.05 },
};
const divisionOf = (mesh: typeof BOX, plates: readonly Plate[]) =>
  unwrap(
    divided(
      mesh,
      plates.map((plate) => fitPlate(mesh, plate)),
    ),
  );
const volumes = (mesh: typeof BOX, plates: readonly Plate[]): number[] =>
  divisionOf(mesh, plates).compartments.map((compartment) => compartment.volume_m3);

describe('compartments between baffles', () => {
  it('n baffles make n + 1 compartments that add up to the tank', () => {
    const found = volumes(
      BOX,
      [0.25, 0.5, 0.75].map((at_m) => ({ ...PLATE, id: String(at_m), at_m })),
    );
    expect(found).toHaveLength(4);
    found.forEach((volume) => expectClose(volume, 0.05, { rel: 1e-12, why: 'equal parts of a box' }));
  });

  it('of a wedge are as unequal as the wedge', () => {
    const wedge = unwrap(
      prismMesh(
        [
          [0, 0],
          [1, 0],
          [1, 0.4],
          [0, 0.2],
        ],
        'y',
        0.5,
      ),
    );
    const [aft, fore] = volumes(wedge, [{ ...PLATE, at_m: 0.5 }]);
    expectClose(aft!, ((0.2 + 0.3) / 2) * 0.5 * 0.5, { rel: 1e-12, why: 'trapezium' });
    expectClose(fore!, ((0.3 + 0.4) / 2) * 0.5 * 0.5, { rel: 1e-12, why: 'trapezium' });
  });

  it('plates that cross make a compartment each way', () => {
    expect(volumes(BOX, [PLATE, { ...PLATE, id: 'q', axis: 1, at_m: 0.2 }])).toHaveLength(4);
  });

  it('two short plates box off a corner, and the rest round it stays one compartment', () => {
    const found = volumes(BOX, [
      { ...PLATE, to_m: 0.2 },
      { ...PLATE, id: 'q', axis: 1, at_m: 0.2, to_m: 0.4 },
    ]);
    expect(found).toHaveLength(2);
    expectClose(Math.min(...found), 0.4 * 0.2 * 0.4, { rel: 1e-12, why: 'the corner' });
    expectClose(Math.max(...found), 0.2 - 0.032, { rel: 1e-12, why: 'all but the corner' });
  });

  it('a short plate that ends in the open parts nothing', () => {
    expect(volumes(BOX, [{ ...PLATE, to_m: 0.2 }])).toHaveLength(1);
  });

  it('a plate outside the tank, or none, leaves one compartment', () => {
    expect(volumes(BOX, [{ ...PLATE, at_m: 3 }])).toEqual([meshVolume(BOX)]);
    expect(volumes(BOX, [])).toEqual([meshVolume(BOX)]);
  });

  it('of a curved tank add up to it', () => {
    const drum = unwrap(
      vesselMesh({ radius_m: 0.3, shell_m: 1, axis: 'x', nearEnd: 'torispherical', farEnd: 'torispherical' }),
    );
    const found = volumes(
      drum,
      [0.4, 0.8].map((at_m) => ({ ...PLATE, id: String(at_m), at_m })),
    );
    expectClose(
      found.reduce((sum, volume) => sum + volume, 0),
      meshVolume(drum),
      { rel: 1e-9, why: 'cut, not changed' },
    );
  });
});

describe('openings', () => {
  it('lower corners are cut at both ends of the plate, each half a square', () => {
    const { passages } = divisionOf(BOX, [{ ...PLATE, cornerCut_m: 0.04 }]);
    expect(passages.map(({ point_m }) => point_m)).toEqual([
      [0.4, 0, 0],
      [0.4, 0.5, 0],
    ]);
    passages.forEach(({ area_m2, compartments, into }) => {
      expectClose(area_m2, 0.0008, { rel: 1e-12, why: 'half of 40 mm square' });
      expect([compartments, into]).toEqual([
        [0, 1],
        [true, true],
      ]);
    });
  });

  it('on a keel they are one, at the keel', () => {
    const keel = unwrap(
      prismMesh(
        [
          [0, 0.1],
          [0.25, 0],
          [0.5, 0.1],
          [0.5, 0.4],
          [0, 0.4],
        ],
        'x',
        1,
      ),
    );
    const { passages } = divisionOf(keel, [{ ...PLATE, cornerCut_m: 0.04 }]);
    expect(passages).toHaveLength(1);
    expectClose(passages[0]!.point_m[1], 0.25, { abs: 1e-9, why: 'keel' });
  });

  it('holes stand in a row over the width, their sills half a bore lower', () => {
    const { passages } = divisionOf(BOX, [{ ...PLATE, holes: { count: 2, diameter_m: 0.04, height_m: 0.06 } }]);
    expect(passages.map(({ point_m }) => point_m.map((value) => Number(value.toFixed(9))))).toEqual([
      [0.4, 0.125, 0.04],
      [0.4, 0.375, 0.04],
    ]);
  });

  it('metal of a plate: its outline less what is open', () => {
    expectClose(
      plateArea_m2(fitPlate(BOX, { ...PLATE, topGap_m: 0.05, cornerCut_m: 0.02 })).area_m2,
      0.5 * 0.4 - 0.5 * 0.05 - 0.0004,
      { rel: 1e-9, why: 'closed form' },
    );
    expect(plateArea_m2(fitPlate(BOX, { ...PLATE, from_m: 0.1, to_m: 0.3 })).centre_m).toEqual([0.4, 0.2, 0.2]);
  });

  it('a plate over a sump closes the sump and not the floor', () => {
    const tank = unwrap(combine(BOX, movedMesh(boxMesh(0.2, 0.2, 0.05), [0.1, 0.1, -0.05]), 'add'));
    const plate: Plate = {
      ...PLATE,
      axis: 2,
      at_m: 0,
      flap: { width_m: 0.05, height_m: 0.05, passes: 'lower', leak_ratio: 0 },
    };
    expectClose(plateArea_m2(fitPlate(tank, plate)).area_m2, 0.04 - 0.0025, { rel: 1e-6, why: 'sump mouth less flap' });
    const { compartments, passages } = divisionOf(tank, [plate]);
    expectClose(Math.min(...compartments.map((compartment) => compartment.volume_m3)), 0.002, {
      rel: 1e-9,
      why: 'the sump',
    });
    expect(passages).toMatchObject([{ kind: 'flap', into: [true, false] }]);
  });
});

describe('what compartments keep from a pickup', () => {
  const inlet = { point_m: [0.1, 0.25, 0.02] as Vec3, submergence_m: 0 };
  const with_ = (plate: Partial<Plate>) => ({ mesh: BOX, division: divisionOf(BOX, [{ ...PLATE, ...plate }]) });

  it('with lower corners cut: nothing more than the level does', () => {
    expectClose(unusable_m3(with_({ cornerCut_m: 0.03 }), inlet, UP), 0.5 * 0.02, {
      rel: 1e-9,
      why: 'as without a baffle',
    });
  });

  it('with holes 30 mm up: that much of the far compartment', () => {
    const space = with_({ holes: { count: 3, diameter_m: 0.04, height_m: 0.05 } });
    expectClose(unusable_m3(space, inlet, UP), 0.4 * 0.5 * 0.02 + 0.6 * 0.5 * 0.03, { rel: 1e-9, why: 'closed form' });
  });

  it('over the top only, or not at all: all below the way out', () => {
    expectClose(unusable_m3(with_({ topGap_m: 0.05 }), inlet, UP), 0.4 * 0.5 * 0.02 + 0.6 * 0.5 * 0.35, {
      rel: 1e-9,
      why: 'closed form',
    });
    expectClose(unusable_m3(with_({}), inlet, UP), 0.4 * 0.5 * 0.02 + 0.6 * 0.5 * 0.4, {
      rel: 1e-9,
      why: 'the whole compartment',
    });
  });

  it('a low tank keeps no more behind a baffle than lies there', () => {
    const space = with_({ topGap_m: 0.05 });
    // 100 mm deep: of the far compartment nothing comes over, of the near one all over the inlet.
    expectClose(drawable_m3(space, inlet, UP, 0.5 * 0.1), 0.4 * 0.5 * (0.1 - 0.02), { rel: 1e-6, why: 'closed form' });
    expect(0.5 * 0.1).toBeLessThan(unusable_m3(space, inlet, UP));
    // Under the inlet nothing can be drawn; from the brim all but what stays.
    expect(drawable_m3(space, inlet, UP, 0.5 * 0.015)).toBe(0);
    expectClose(drawable_m3(space, inlet, UP, 0.5 * 0.4), 0.5 * 0.4 - unusable_m3(space, inlet, UP), {
      rel: 1e-6,
      why: 'from the brim',
    });
  });

  it('nor in a lobe that is cut off, than lies in it', () => {
    // Two pits of 0.3 m square and 0.1 m deep under one box, the pickup 20 mm over the floor of the first.
    const pits = unwrap(
      combine(
        unwrap(combine(posedMesh(boxMesh(1, 0.3, 0.2), shiftBy([0, 0, 0.1])), boxMesh(0.3, 0.3, 0.15), 'add')),
        posedMesh(boxMesh(0.3, 0.3, 0.15), shiftBy([0.7, 0, 0])),
        'add',
      ),
    );
    const low = { point_m: [0.1, 0.1, 0.02] as Vec3, submergence_m: 0 };
    const area = 0.3 * 0.3;
    expectClose(unusable_m3({ mesh: pits }, low, UP), area * 0.02 + area * 0.1, {
      rel: 1e-6,
      why: 'the far pit stays full',
    });
    // A baffle between them with a hole 30 mm over the floor: the far pit and what stands over it up to the hole,
    // counted once.
    const parted = {
      mesh: pits,
      division: divisionOf(pits, [{ ...PLATE, at_m: 0.5, holes: { count: 1, diameter_m: 0.04, height_m: 0.05 } }]),
    };
    expectClose(unusable_m3(parted, low, UP), area * 0.02 + area * 0.1 + 0.5 * 0.3 * 0.03, {
      rel: 1e-4,
      why: 'closed form, but for the thickness of the baffle',
    });
    // A baffle across the far pit, its hole 30 mm over the pit's floor: what comes through it comes no further than the
    // pit's rim.
    const crossed = {
      mesh: pits,
      division: divisionOf(pits, [{ ...PLATE, at_m: 0.85, holes: { count: 1, diameter_m: 0.04, height_m: 0.05 } }]),
    };
    expectClose(unusable_m3(crossed, low, UP), area * 0.02 + area * 0.1, {
      rel: 1e-4,
      why: 'the far pit stays full on both sides',
    });
    // Both pits 50 mm deep: the far one keeps its own.
    expectClose(drawable_m3({ mesh: pits }, low, UP, 2 * area * 0.05), area * 0.03, {
      rel: 1e-6,
      why: 'the near pit down to the inlet',
    });
  });

  it('as much as by whichever way it has leaves least, each tried, in boxes and over pits, at any lean', () => {
    const { uniform } = seeded(21);
    const pits = unwrap(
      combine(
        unwrap(combine(posedMesh(boxMesh(1, 0.3, 0.2), shiftBy([0, 0, 0.1])), boxMesh(0.3, 0.3, 0.15), 'add')),
        posedMesh(boxMesh(0.3, 0.3, 0.15), shiftBy([0.7, 0, 0])),
        'add',
      ),
    );
    let held = 0;
    for (let n = 0; n < 60; n++) {
      const mesh = n % 2 === 0 ? pits : boxMesh(1, 0.3, 0.3);
      const plate = (id: string, at_m: number): Plate => ({
        ...PLATE,
        id,
        at_m,
        cornerCut_m: uniform() < 0.5 ? 0.03 : 0,
        topGap_m: uniform() < 0.5 ? 0.03 : 0,
        holes: { count: Math.floor(3 * uniform()), diameter_m: 0.03, height_m: 0.03 + 0.15 * uniform() },
      });
      const division = divisionOf(mesh, [plate('a', 0.35 + 0.2 * uniform()), plate('b', 0.75 + 0.2 * uniform())]);
      const low = { point_m: [0.1, 0.1, 0.02] as Vec3, submergence_m: 0.01 };
      const up = worldUpInVehicle(0.5 * (uniform() - 0.5), 0.5 * (uniform() - 0.5));
      const from_m = uniform() < 0.5 ? Infinity : dot(up, low.point_m) + 0.01 + 0.2 * uniform();
      const starving_m = dot(up, low.point_m) + low.submergence_m;
      const home = division.compartmentOf(low.point_m);
      const kept = keptLevels_m(division, home, up);
      const rims = saddlesTo(
        mesh,
        low.point_m,
        up,
        starving_m,
        division.passages.map(({ beside_m }) => beside_m[0]),
      );
      const stays = (b: number, towards: Vec3, level: number): number =>
        level < from_m
          ? leftBehind_m3(division.compartments[b]!.mesh, towards, up, level, from_m)
          : compartmentBelow_m3(division.compartments[b]!, up, from_m);
      const byEach = division.compartments.map((compartment, b) =>
        b === home
          ? stays(b, low.point_m, starving_m)
          : Math.min(
              compartmentBelow_m3(compartment, up, from_m),
              ...division.passages.flatMap(({ compartments, into, point_m, beside_m }, p) =>
                ([0, 1] as const).flatMap((to) =>
                  compartments[to === 0 ? 1 : 0] === b && into[to]
                    ? [
                        stays(
                          b,
                          beside_m[to === 0 ? 1 : 0],
                          Math.max(rims[p]!, dot(up, point_m), kept[compartments[to]]!),
                        ),
                      ]
                    : [],
                ),
              ),
            ),
      );
      const whole = byEach.reduce((sum, each) => sum + each, 0);
      expectClose(unusable_m3({ mesh, division }, low, up, from_m), whole, { rel: 1e-9, why: `lean ${n}` });
      if (byEach.some((each, b) => b !== home && each > 1e-4)) held++;
    }
    expect(held).toBeGreaterThan(30);
  });

  it('a flap lets through one way only', () => {
    const flap = { width_m: 0.05, height_m: 0.03, leak_ratio: 0 };
    expectClose(unusable_m3(with_({ flap: { ...flap, passes: 'lower' } }), inlet, UP), 0.5 * 0.02, {
      rel: 1e-9,
      why: 'towards the pickup',
    });
    expect(unusable_m3(with_({ flap: { ...flap, passes: 'higher' } }), inlet, UP)).toBeGreaterThan(0.1);
  });

  it('heeled, the lower of the two corners is the way', () => {
    const space = with_({ cornerCut_m: 0.03 });
    const up = worldUpInVehicle(0, 0.2);
    const [, far] = keptLevels_m(space.division, 0, up);
    expectClose(far!, Math.min(up[0] * 0.4, up[0] * 0.4 + up[1] * 0.5), { abs: 1e-9, why: 'corner that hangs lower' });
  });

  it('of several compartments in a row, the highest sill on the way decides', () => {
    const division = divisionOf(BOX, [
      { ...PLATE, holes: { count: 1, diameter_m: 0.04, height_m: 0.12 } },
      { ...PLATE, id: 'q', at_m: 0.7, cornerCut_m: 0.03 },
    ]);
    expect(keptLevels_m(division, 0, UP).map((level) => Number(level.toFixed(6)))).toEqual([-Infinity, 0.1, 0.1]);
    expectClose(compartmentBelow_m3(division.compartments[2]!, UP, 0.1), 0.3 * 0.5 * 0.1, {
      rel: 1e-9,
      why: 'closed form',
    });
  });
});
