import { describe, expect, it } from 'vitest';
import { chosen } from '@/core/plan';
import type { MountDocument } from '@/core/plan';
import { NEW_MADE } from '@/ui/mounts/mountEdits';
import { mountList } from '@/core/answers';

const of = (kind: MountDocument['kind'], id: string): MountDocument =>
  ({
    id,
    name: id,
    kind,
    tank: 'main',
    x_m: chosen(0),
    y_m: chosen(0),
    z_m: chosen(0),
    made: NEW_MADE[kind],
  }) as MountDocument;

describe('what is bought and cut to hold tanks', () => {
  it('straps by their way with a foot at each end, bolts at both; alike in one row, the longest first', () => {
    const { stock, pads, bolts } = mountList(
      [of('strap', 'a'), of('tab', 't'), of('strap', 'b'), of('strap', 'lost')],
      { 0: 1.2, 2: 1.5 },
    );
    const edge = NEW_MADE.strap.bolts.edge_m.value;
    expect(
      stock.find(({ stock: name }) => name === 'mild-steel')!.pieces.map(({ for: name, length_m }) => [name, length_m]),
    ).toEqual([
      ['lost', undefined],
      ['b', expect.closeTo(1.5 + 4 * edge, 9)],
      ['a', expect.closeTo(1.2 + 4 * edge, 9)],
    ]);
    expect(pads.flatMap(({ pieces }) => pieces.map(({ length_m }) => length_m))).toEqual([
      undefined,
      1.5,
      1.2,
      NEW_MADE.tab.arm_m.value,
    ]);
    // Two ends of three straps, and two of the tab, all M8 8.8 with nuts.
    expect(bolts).toEqual([{ size: 'M8', class: '8.8', held: 'nut', count: 8 }]);
  });

  it('a bearer with its lips turned up, a stop with its foot, a ring to past its bolts; what is not said has no row', () => {
    const list = mountList(
      [of('cradle', 'c'), of('stop', 's'), of('flange', 'f'), { ...of('stop', 'x'), made: undefined } as MountDocument],
      {},
    );
    const sizes = Object.fromEntries(
      list.stock.flatMap(({ width_m, pieces }) => pieces.map(({ for: name, length_m }) => [name, [width_m, length_m]])),
    );
    const { cradle, stop, flange } = NEW_MADE;
    expect(sizes.c).toEqual([
      expect.closeTo(cradle.length_m.value + 2 * cradle.lip_m.value, 9),
      expect.closeTo(cradle.width_m.value + 2 * cradle.lip_m.value, 9),
    ]);
    expect(sizes.s).toEqual([stop.width_m.value, expect.closeTo(stop.arm_m.value + 2 * stop.bolts.edge_m.value, 9)]);
    expect(sizes.f![1]).toBeCloseTo(flange.circle_m.value + 2 * flange.bolts.edge_m.value, 9);
    expect(sizes.x).toBeUndefined();
  });
});
