import { describe, expect, it } from 'vitest';
import { LINE_STOCK } from '../reference/lineStock';
import { PORT_PARTS } from '../reference/portParts';
import { JOINS } from '../reference/joins';
import { mates } from '../fittings';
import { chosen, draftSystem } from './';
import { joinOfItem, joinOfLine, type Item } from './circuits';

const DRAFT = draftSystem({ name: 'x', vehicle: 'road', consumer: 'diesel-engine', power_W: 30e3, holds_m3: 0.045 });
const INCH_M = 0.0254;
const joinOfPart = (part: string) =>
  joinOfItem(
    {
      kind: 'port',
      id: 'p',
      name: 'p',
      ends: ['out'],
      tank: 'tank',
      port: { ...DRAFT.tanks[0]!.ports[0]!, part },
    } as Item,
    'out',
  )!;
const hoseOf = (bore_m: number) =>
  joinOfLine(
    { ...DRAFT.lines[0]!, kind: 'hose', bore_m: chosen(bore_m), from: { item: 'p', end: 'out', adapters: [] } },
    'from',
  )!;
/** "2 3/8" in metres. */
const sizeM = (size: string): number =>
  size.split(' ').reduce(
    (sum, part) =>
      sum +
      part
        .split('/')
        .map(Number)
        .reduce((a, b) => a / b),
    0,
  ) * INCH_M;

const WELDED = PORT_PARTS.filter(({ group }) => group === 'tube' || group === 'neck');

describe('hose over tubes and necks that are welded in', () => {
  it.each(WELDED.map((part) => [part.key, part] as const))(
    '%s takes the hose whose inside is its outside',
    (key, part) => {
      const join = joinOfPart(key);
      expect(join).toMatchObject({ system: 'barb', side: 'male' });
      const nearest = Math.min(...JOINS.barb.sizes.map((size) => Math.abs(sizeM(size) - part.hole)));
      expect(Math.abs(sizeM(join.size) - part.hole)).toBeLessThanOrEqual(nearest + 1e-9);
      expect(mates(join, hoseOf(sizeM(join.size)))).toBe(true);
    },
  );

  it('a 51 mm neck takes 2 inch filler hose, not the hose of its bore', () => {
    expect(joinOfPart('neck-51').size).toBe('2');
    const hose = LINE_STOCK.find(({ series, bore_m }) => series === 'hose-fill' && Math.abs(bore_m - 0.0508) < 1e-4)!;
    expect(mates(joinOfPart('neck-51'), hoseOf(hose.bore_m))).toBe(true);
    expect(mates(joinOfPart('neck-51'), hoseOf(0.04))).toBe(false);
  });
});
