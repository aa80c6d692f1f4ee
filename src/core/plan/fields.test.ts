import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { allKnown } from '../answers';
import {
  chosen,
  limitsAt,
  newPart,
  parseSystemText,
  quantitiesAt,
  toPath,
  withValue,
  wordsAt,
  type SystemDocument,
} from '.';
import { COMPONENT_KINDS } from './schema';

const BOX = ((): SystemDocument => {
  const parsed = parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
})();
const words = (path: string, system = BOX) => wordsAt(system, toPath(path));

describe('what the plan says of a quantity', () => {
  it('a slow flow is read by the hour, a fast one by the minute, but burn always by the hour', () => {
    const need = 'consumers[0].neededFlow_m3PerS';
    const flowing = (value: number) => withValue(BOX, toPath(need), chosen(value));
    expect(words(need, flowing(2.9e-4))).toMatchObject({ label: 'needed flow', role: 'burn' });
    expect(words(need, flowing(3e-4))).toMatchObject({ role: 'transfer' });
    const burn = 'consumers[0].burnFull_m3PerS';
    expect(words(burn, withValue(BOX, toPath(burn), chosen(1e-3)))).toMatchObject({ role: 'burn' });
  });

  it('a boat’s speed is read in knots, a truck’s on the road', () => {
    const at = (kind: 'boat' | 'road') =>
      words('vehicle.speed_mPerS', { ...BOX, vehicle: { kind, speed_mPerS: chosen(8) } })!.role;
    expect([at('boat'), at('road')]).toEqual(['seaSpeed', 'roadSpeed']);
  });

  it('a tank’s size says on which side of the wall it is taken, a part’s does not', () => {
    expect(words('tanks[0].shape.length_m')!.label).toBe(`${BOX.tanks[0]!.dimensions} length`);
    const part = {
      id: 'sump',
      name: 'Sump',
      operation: 'add',
      shape: BOX.tanks[0]!.shape,
      x_m: chosen(0),
      y_m: chosen(0),
      z_m: chosen(0),
    };
    expect(words('tanks[0].parts[0].shape.length_m', withValue(BOX, ['tanks', 0, 'parts'], [part]))!.label).toBe(
      'length',
    );
  });

  it('what is no quantity has no words; what the format does not have is a bug', () => {
    expect(words('tanks[0].name')).toBeUndefined();
    expect(words('components[0].kind')).toBeUndefined();
    expect(() => words('tanks[0].colour')).toThrow('the format has nothing at tanks.0.colour');
  });

  it('a key that only another kind has is found there: a part that was exchanged', () => {
    const filter = BOX.components.findIndex(({ kind }) => kind === 'filter');
    expect(words(`components[${filter}].output_ratio`)).toMatchObject({
      label: 'real output, as a share of its curve',
    });
  });
});

describe.each(COMPONENT_KINDS)('a %s', (kind) => {
  it('shows every quantity that it has, each with words and limits that hold it', () => {
    const part = newPart(BOX, kind, 0.009);
    const system = { ...BOX, components: [part] };
    const listed = quantitiesAt(system, ['components', 0]);
    const there = allKnown(part).flatMap(({ path }) => (path.length === 1 ? [String(path[0])] : []));
    expect([...listed].sort()).toEqual(there.sort());
    for (const key of listed) {
      const { value } = part[key as keyof typeof part] as unknown as { value: number };
      const { min, max } = limitsAt(system, ['components', 0, key]);
      expect(value, key).toBeGreaterThanOrEqual(min);
      expect(value, key).toBeLessThanOrEqual(max);
    }
  });
});

it('every quantity of every demo system has words', () => {
  for (const file of readdirSync('demo')) {
    const parsed = parseSystemText(readFileSync(`demo/${file}`, 'utf8'));
    if (!parsed.ok) throw new Error(parsed.error.detail);
    for (const { path } of allKnown(parsed.value)) expect(wordsAt(parsed.value, path), path.join('.')).toBeDefined();
  }
});
