import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import {
  AT_HOME,
  add,
  boxMesh,
  contacts,
  dot,
  norm,
  poseOf,
  scale,
  seenFrom,
  separation,
  treeOf,
  unitVector,
  cross,
  subtract,
  type Vec3,
} from '../geometry';
import { seeded, type Chance } from '../seeded';
import { alongWanted, lengthOf, pushedOff, slid, type Hold } from './slide';

const point = (chance: Chance, size = 1): Vec3 => [
  chance.normal() * size,
  chance.normal() * size,
  chance.normal() * size,
];

/** By how much a move brings a contact nearer than it may come, to first order [m]. */
const excess = ({ shift_m, turn_rad }: ReturnType<typeof slid>, middle: Vec3, { at_m, away, room_m }: Hold): number =>
  -dot(away, add(shift_m, cross(turn_rad, subtract(at_m, middle)))) - room_m;

describe('contacts', () => {
  it('the nearest is the distance between the bodies, and each leads from one surface to the other', () => {
    const [small, large] = [treeOf(boxMesh(0.3, 0.2, 0.1)), treeOf(boxMesh(1, 1, 1))];
    let seen = 0;
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const chance = seeded(seed);
        const at = poseOf([1 + 0.3 * chance.uniform(), chance.uniform(), chance.uniform()], {
          yaw_rad: 6 * chance.uniform(),
          pitch_rad: chance.normal(),
          roll_rad: 6 * chance.uniform(),
        });
        const apart = separation(small, large, seenFrom(at, AT_HOME))!.distance_m;
        const found = contacts(small, large, seenFrom(at, AT_HOME), 0.25, 40);
        if (apart === 0 || apart >= 0.25) return;
        seen++;
        expectClose(found[0]!.distance_m, apart, { abs: 1e-9, why: 'two ways through the trees' });
        for (const { distance_m, onFirst, away } of found) {
          expectClose(norm(away), 1, { rel: 1e-12, why: 'a direction' });
          const other = subtract(onFirst, scale(away, distance_m));
          const speck = treeOf(boxMesh(1e-9, 1e-9, 1e-9));
          expectClose(
            separation(
              speck,
              large,
              seenFrom(
                {
                  ...at,
                  origin_m: add(
                    at.origin_m,
                    add(add(scale(at.axes[0], other[0]), scale(at.axes[1], other[1])), scale(at.axes[2], other[2])),
                  ),
                },
                AT_HOME,
              ),
            )!.distance_m,
            0,
            { abs: 1e-8, why: 'it ends on the other' },
          );
        }
      }),
      { seed: 4, numRuns: 200 },
    );
    expect(seen).toBeGreaterThan(50);
  });

  it('a face along another is held at its corners', () => {
    const lying = contacts(
      treeOf(boxMesh(0.3, 0.2, 0.1)),
      treeOf(boxMesh(1, 1, 1)),
      seenFrom(poseOf([0.2, 0.2, 1.01], { yaw_rad: 0.3, pitch_rad: 0, roll_rad: 0 }), AT_HOME),
      0.02,
      40,
    );
    for (const [x, y] of [
      [0, 0],
      [0.3, 0],
      [0, 0.2],
      [0.3, 0.2],
    ] as const)
      expect(lying.some(({ onFirst }) => norm(subtract(onFirst, [x, y, 0])) < 1e-9)).toBe(true);
  });
});

describe('a small move along what is in the way', () => {
  const holdsOf = (chance: Chance, count: number): Hold[] =>
    Array.from({ length: count }, () => ({
      at_m: point(chance),
      away: unitVector(point(chance)),
      room_m: 0.02 * chance.uniform(),
    }));

  it('comes no nearer than it may, and none that may be done is nearer to what was wanted', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 0, max: 8 }), (seed, count) => {
        const chance = seeded(seed);
        const middle = point(chance);
        const holds = holdsOf(chance, count);
        const wanted = { shift_m: point(chance, 0.02), turn_rad: point(chance, 0.02) };
        const move = slid(wanted, middle, 1, holds);
        for (const hold of holds) expect(excess(move, middle, hold)).toBeLessThan(5e-4);
        // The second method: moves drawn round it, of which those that may be done lie further from the wanted one.
        const far = (one: typeof move): number =>
          lengthOf(
            { shift_m: subtract(one.shift_m, wanted.shift_m), turn_rad: subtract(one.turn_rad, wanted.turn_rad) },
            1,
          );
        for (let i = 0; i < 100; i++) {
          const size = 0.02 * chance.uniform();
          const other = {
            shift_m: add(move.shift_m, point(chance, size)),
            turn_rad: add(move.turn_rad, point(chance, size)),
          };
          if (holds.every((hold) => excess(other, middle, hold) <= 0))
            expect(far(other)).toBeGreaterThan(far(move) - 1e-3);
        }
      }),
      { seed: 5, numRuns: 300 },
    );
  });

  it('is the wanted one where nothing holds, and none where a corner holds it', () => {
    const wanted = { shift_m: [0.01, 0, 0] as Vec3, turn_rad: [0, 0, 0] as Vec3 };
    expect(slid(wanted, [0, 0, 0], 1, [])).toEqual(wanted);
    const stuck = slid(wanted, [0, 0, 0], 1, [{ at_m: [1, 0, 0], away: [-1, 0, 0], room_m: 0 }]);
    expect(alongWanted(stuck, wanted, 1)).toBeLessThan(1e-5);
  });

  it('between two walls the part comes to the middle', () => {
    const wall = (x: number, away: number): Hold => ({
      at_m: [x, 0, 0],
      away: [away, 0, 0],
      room_m: (away > 0 ? 0.002 : 0.008) - 0.02,
    });
    expectClose(pushedOff([0, 0, 0], 1, [wall(-1, 1), wall(1, -1)]).shift_m[0], 0.003, {
      abs: 2e-4,
      why: 'half the difference of 2 and 8 mm',
    });
  });
});
