import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { BODY_AT_HOME, block, inBay, SOUND } from '../../../../tests/raisedSystems';
import { loadKernel, norm, roundedWay, subtract, type Vec3 } from '../../geometry';
import { unwrap } from '../../outcome';
import { chosen, type SystemDocument } from '../../plan';
import { partPositions } from '../../model/networkParts';
import { tankGeometry } from '../../model/compileTank';
import { LINE_STOCK } from '../../reference/lineStock';
import { developedLength_m } from '../lines/routing';
import { checkedWay, foundWay, moveOf, orderOut, partChoices, stepOf } from './ways';

beforeAll(loadKernel);

const SEARCH = { seed: 3, mostSamples: 6000 };
const TUBE = LINE_STOCK.find(({ series, outside_m }) => series === 'tube-steel' && Math.abs(outside_m - 0.01) < 6e-4)!;
type Obstacles = SystemDocument['fit']['obstacles'];

/** A sheet across the vehicle with a square hole round a point. */
function holed(id: string, [x, y, z]: Vec3, hole_m: number, thickness_m = 0.003): Obstacles[number] {
  const sheet = block(id, [thickness_m, 1.6, 1.6], [x, y - 0.8, z - 0.8]);
  return {
    ...sheet,
    bodies: [
      ...sheet.bodies,
      {
        ...BODY_AT_HOME,
        operation: 'cut',
        shape: { kind: 'box', length_m: chosen(0.1), width_m: chosen(hole_m), height_m: chosen(hole_m) },
        x_m: chosen(-0.05),
        y_m: chosen(0.8 - hole_m / 2),
        z_m: chosen(0.8 - hole_m / 2),
      },
    ],
  };
}

/** The first line as a hard tube: up from the lid, and forward. */
function piped(obstaclesAt: (over: Vec3) => Obstacles, reach_m = 1): SystemDocument {
  const line = SOUND.lines[0]!;
  const tanks = SOUND.tanks.map((tank) => ({ tank: unwrap(tankGeometry(tank)) }));
  const start = partPositions(SOUND, tanks).get(line.from.item)!;
  const up = 0.2;
  const system: SystemDocument = {
    ...SOUND,
    lines: SOUND.lines.map((each) =>
      each.id === line.id
        ? {
            ...each,
            kind: 'tube',
            stock: TUBE.key,
            bend_m: chosen(0.03),
            points: [{ forward_m: 0, toPort_m: 0, rise_m: up }],
            forward_m: chosen(reach_m),
            toPort_m: chosen(0),
            rise_m: chosen(up),
          }
        : each,
    ),
  };
  const inside = inBay(system, { obstacles: obstaclesAt([start[0], start[1], start[2] + up]) });
  return { ...inside, fit: { ...inside.fit, bay: { kind: 'none' } } };
}
const ID = SOUND.lines[0]!.id;
const wayOf = (system: SystemDocument) => unwrap(foundWay(system, ID, SEARCH)).way;

describe('a hard tube and the holes that it passes', () => {
  it('rounded: as long as tangents and arcs come to, from its first point to its last (seeded)', () => {
    const place = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(place, place, place), { minLength: 2, maxLength: 7 }),
        fc.double({ min: 0.005, max: 0.4, noNaN: true }),
        (points, bend_m) => {
          const way = roundedWay(points, bend_m, 0.01);
          const length = way.slice(1).reduce((sum, point, i) => sum + norm(subtract(point, way[i]!)), 0);
          expectClose(length, developedLength_m(points, bend_m), { rel: 1e-4, abs: 1e-9, why: 'chords of small arcs' });
          const ends = [points[0]!, points.at(-1)!];
          [way[0]!, way.at(-1)!].forEach((end, i) => expect(norm(subtract(end, ends[i]!))).toBeLessThan(1e-12));
        },
      ),
      { seed: 7, numRuns: 200 },
    );
  });

  it('is offered beside tanks and obstacles, and only where it keeps its shape', () => {
    const system = piped(() => []);
    expect(partChoices(system).filter(({ kind }) => kind === 'line')).toEqual([
      { id: ID, name: SOUND.lines[0]!.name, kind: 'line' },
    ]);
    expect(partChoices(SOUND).some(({ kind }) => kind === 'line')).toBe(false);
  });

  it('goes through a hole that is wider, and not through one that is narrower (seeded)', () => {
    const wide = fc.double({ min: 1.35, max: 4, noNaN: true });
    const narrow = fc.double({ min: 0.3, max: 0.95, noNaN: true });
    const at = (ratio: number) => piped(([x, y, z]) => [holed('bulkhead', [x + 0.5, y, z], ratio * TUBE.outside_m)]);
    fc.assert(
      fc.property(wide, (ratio) => {
        const system = at(ratio);
        const way = wayOf(system);
        expect(way.ok).toBe(true);
        // The steps found, written down as a builder would and tried anew.
        expect(unwrap(checkedWay(system, ID, unwrap(way).moves.map(stepOf))).isOut).toBe(true);
      }),
      { seed: 2, numRuns: 6 },
    );
    fc.assert(
      fc.property(narrow, (ratio) => {
        expect(wayOf(at(ratio))).toMatchObject({ ok: false, error: { code: 'does-not-fit', at: 'bulkhead' } });
      }),
      { seed: 2, numRuns: 6 },
    );
  });

  it('in a trench with a cover on it: the cover comes off first, and under one that stays there is no way', () => {
    const trench = (removable: boolean): SystemDocument =>
      piped(([x, y, z]) => [
        block('floor', [1, 0.3, 0.02], [x + 0.04, y - 0.15, z - 0.06]),
        block('left', [1.4, 0.02, 0.4], [x - 0.2, y + 0.02, z - 0.16]),
        block('right', [1.4, 0.02, 0.4], [x - 0.2, y - 0.04, z - 0.16]),
        block('behind', [0.02, 0.3, 0.4], [x - 0.04, y - 0.15, z - 0.16]),
        block('ahead', [0.02, 0.3, 0.4], [x + 1.03, y - 0.15, z - 0.16]),
        { ...block('cover', [1.4, 0.3, 0.02], [x - 0.2, y - 0.15, z + 0.24]), removable },
      ]);
    const few = { ...SEARCH, mostSamples: 800 };
    expect(unwrap(foundWay(trench(false), ID, few)).way).toMatchObject({ ok: false, error: { code: 'none-found' } });
    expect(unwrap(orderOut(trench(true), ID, few)).map(({ name }) => name)).toEqual(['cover', SOUND.lines[0]!.name]);
  });

  it('a step that is typed meets the sheet, or not', () => {
    const system = piped(([x, y, z]) => [holed('bulkhead', [x + 0.5, y, z], 1.6 * TUBE.outside_m)]);
    const step = { forward_m: 0, toPort_m: 0, up_m: 0, noseUp_deg: 0, starboardDown_deg: 0, noseToPort_deg: 0 };
    const [aside] = unwrap(checkedWay(system, ID, [{ ...step, toPort_m: 0.3 }])).steps;
    // Half of what the hole is wider than the tube, over a push of 0.3 m.
    expect(aside!.blocked).toMatchObject({ by: 'bulkhead' });
    expectClose(aside!.blocked!.share * 0.3, (0.6 * TUBE.outside_m) / 2, { abs: 8e-4, why: 'its play in the hole' });
    expect(moveOf({ ...step, toPort_m: 0.3 }).shift_m).toEqual([0, 0.3, 0]);
  });
});
