import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { chosen, parseSystemText, type SystemDocument } from '../../plan';
import { unwrap } from '../../outcome';
import { mirrored, templatesOf } from '..';

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
