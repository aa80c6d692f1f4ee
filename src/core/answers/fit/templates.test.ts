import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { chosen, parseSystemText, type SystemDocument } from '../../plan';
import { unwrap } from '../../outcome';
import { mirrored, obstacleTemplates, templatesOf } from '..';
import { loadKernel } from '../../geometry';
import { seeded } from '../../seeded';
import { faceSheets } from './sheets';

beforeAll(loadKernel);

const CAR = unwrap(parseSystemText(readFileSync('demo/hill-climb-car.json', 'utf8')));
const level = chosen(0);
/** A box of 300 x 200 x 150 mm outside, in a bay whose starboard wall stands 40 mm off. */
const BOX: SystemDocument = {
  ...CAR,
  tanks: [
    {
      ...CAR.tanks[0]!,
      dimensions: 'outside',
      shape: { kind: 'box', length_m: chosen(0.3), width_m: chosen(0.2), height_m: chosen(0.15) },
      parts: [],
      slices: [],
      plates: [],
      mounting: { x_m: level, y_m: level, z_m: level, yaw_deg: level, pitch_deg: level, roll_deg: level },
      ports: [
        {
          id: 'filler',
          name: 'Filler',
          role: 'filler',
          face: 'lid',
          x_m: chosen(0.25),
          y_m: chosen(0.05),
          bore_m: chosen(0.04),
          length_m: level,
        },
      ],
      pickups: [],
      senders: [],
    },
  ],
  mounts: [],
  fit: {
    ...CAR.fit,
    bay: { kind: 'none' },
    removals: [],
    spots: [],
    obstacles: [
      {
        id: 'rail',
        name: 'Rail',
        role: 'obstacle',
        x_m: chosen(-1),
        y_m: chosen(-0.14),
        z_m: chosen(-1),
        yaw_deg: level,
        pitch_deg: level,
        roll_deg: level,
        motions: [],
        removable: false,
        bodies: [
          {
            shape: { kind: 'box', length_m: chosen(3), width_m: chosen(0.1), height_m: chosen(3) },
            x_m: level,
            y_m: level,
            z_m: level,
            yaw_deg: level,
            pitch_deg: level,
            roll_deg: level,
          },
        ],
      },
    ],
  },
};
const of = (name: string) => unwrap(templatesOf(BOX, 0)).find((template) => template.name === name)!;

describe('templates', () => {
  it('every side of a box has one, named by where it looks, largest first', () => {
    expect(
      unwrap(templatesOf(BOX, 0))
        .map(({ name }) => name)
        .sort(),
    ).toEqual(['Aft side', 'Floor', 'Fore side', 'Lid', 'Port side', 'Starboard side']);
    expectClose(unwrap(templatesOf(BOX, 0))[0]!.area_m2, 0.06, { rel: 1e-6, why: 'lid or floor' });
  });

  it('the lid: edges, both diagonals by Pythagoras, and what it must stand off beside each edge', () => {
    const lid = of('Lid');
    expect(lid.edges.map(({ length_m }) => Math.round(length_m * 1e6) / 1e6).sort()).toEqual([0.2, 0.2, 0.3, 0.3]);
    for (const { length_m } of lid.diagonals)
      expectClose(length_m, Math.hypot(0.2, 0.3), { rel: 1e-6, why: 'across the rectangle' });
    expect(lid.diagonals).toHaveLength(2);
    const beside = lid.edges.filter(({ gap }) => gap);
    expect(beside).toHaveLength(1);
    expect(beside[0]!.gap!.to).toBe('Rail');
    expectClose(beside[0]!.gap!.distance_m, 0.04, { abs: 1e-9, why: 'the rail’s side at -40 mm' });
  });

  it('a port is where it is measured from starboard and aft; turned over it is as far from the other edge', () => {
    const lid = of('Lid');
    // From above with forward up, starboard is to the right: 50 mm from starboard is 150 from the left.
    expect(lid.holes).toHaveLength(1);
    lid.holes[0]!.at_m.forEach((value, k) => expectClose(value, [0.15, 0.25][k]!, { abs: 1e-9, why: 'on the sheet' }));
    expectClose(mirrored(lid).holes[0]!.at_m[0], 0.05, { abs: 1e-9, why: 'turned over' });
    expect(mirrored(mirrored(lid))).toEqual({
      ...lid,
      holes: lid.holes.map((hole) => ({ ...hole, at_m: hole.at_m.map((value) => expect.closeTo(value, 12)) })),
      loops: lid.loops.map((loop) => loop.map((point) => point.map((value) => expect.closeTo(value, 12)))),
    });
    expect(of('Floor').holes).toEqual([]);
  });
});

describe('brackets, frames and covers', () => {
  const [rail] = BOX.fit.obstacles;
  const body = (shape: object, operation: 'add' | 'cut', x_m: number, y_m: number, z_m: number) => ({
    ...rail!.bodies[0]!,
    operation,
    shape,
    x_m: chosen(x_m),
    y_m: chosen(y_m),
    z_m: chosen(z_m),
  });

  it('seeded plates on a slant: middles and sizes of what is cut, and the area that is left', () => {
    const { uniform } = seeded(9);
    for (let n = 0; n < 25; n++) {
      const [length, width, sheet] = [0.3 + uniform(), 0.25 + 0.5 * uniform(), 0.002 + 0.006 * uniform()];
      const diameter = 0.012 + 0.08 * uniform();
      const [wide, high] = [0.02 + 0.08 * uniform(), 0.02 + 0.08 * uniform()];
      // One to the front, one to the rear of the middle, clear of it and of the edges.
      const [u, v] = [length * 0.72, diameter / 2 + 0.01 + (width - diameter - 0.02) * uniform()];
      const [p, q] = [0.01 + (length * 0.45 - wide - 0.01) * uniform() * 0.9, 0.01 + (width - high - 0.02) * uniform()];
      const plate = {
        ...rail!,
        id: 'plate',
        name: 'Bracket',
        yaw_deg: chosen(360 * uniform()),
        pitch_deg: chosen(60 * (uniform() - 0.5)),
        roll_deg: chosen(60 * (uniform() - 0.5)),
        bodies: [
          body(
            { kind: 'box', length_m: chosen(length), width_m: chosen(width), height_m: chosen(sheet) },
            'add',
            0,
            0,
            0,
          ),
          body(
            {
              kind: 'cylinder',
              axis: 'z',
              diameter_m: chosen(diameter),
              shell_m: chosen(0.05),
              nearEnd: 'flat',
              farEnd: 'flat',
            },
            'cut',
            u - diameter / 2,
            v - diameter / 2,
            -0.02,
          ),
          body(
            { kind: 'box', length_m: chosen(wide), width_m: chosen(high), height_m: chosen(0.05) },
            'cut',
            p,
            q,
            -0.02,
          ),
        ],
      } as SystemDocument['fit']['obstacles'][number];
      const top = unwrap(obstacleTemplates({ ...BOX, fit: { ...BOX.fit, obstacles: [plate] } }, plate)).find(
        ({ name }) => name === 'Top',
      )!;
      // From above with forward up, starboard is to the right.
      expectClose(top.width_m, width, { rel: 1e-6, why: 'across' });
      expectClose(top.height_m, length, { rel: 1e-6, why: 'along' });
      const round = top.holes.find(({ size }) => 'diameter_m' in size)!;
      const square = top.holes.find(({ size }) => 'width_m' in size)!;
      expect(top.holes).toHaveLength(2);
      expectClose((round.size as { diameter_m: number }).diameter_m, diameter, { rel: 3e-3, why: 'as it is cut' });
      const apart = (at: readonly [number, number], to: readonly [number, number], why: string) =>
        at.forEach((value, k) => expectClose(value, to[k]!, { abs: 2e-5, why }));
      apart(round.at_m, [width - v, u], 'its middle, from the left and from below');
      apart(square.at_m, [width - q - high / 2, p + wide / 2], 'its middle, from the left and from below');
      expectClose((square.size as { width_m: number }).width_m, high, { rel: 1e-5, why: 'across' });
      expectClose((square.size as { height_m: number }).height_m, wide, { rel: 1e-5, why: 'along' });
      expectClose(top.area_m2, length * width - (Math.PI / 4) * diameter ** 2 - wide * high, {
        rel: 1e-4,
        why: 'sheet less what is cut',
      });
    }
  });

  it('a tank’s template cuts what its hole chart cuts, where it does', () => {
    const templates = unwrap(templatesOf(CAR, 0));
    const sheets = unwrap(faceSheets(CAR, 0));
    let compared = 0;
    for (const sheet of sheets) {
      const template = templates.find(({ name }) => name === sheet.name);
      for (const hole of template?.holes ?? []) {
        const same = sheet.ports.find(({ name }) => name === hole.name)!;
        expect(hole.size).toEqual({ diameter_m: same.hole_m });
        expect(hole.at_m).toEqual(same.at_m);
        compared++;
      }
    }
    expect(compared).toBeGreaterThan(3);
  });
});
