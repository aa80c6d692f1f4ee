import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { unwrap } from '@/core/outcome';
import { parseSystemText, valueAt, type SystemDocument } from '@/core/plan';
import { foundPlaces, placesOf } from './places';

const SYSTEMS = readdirSync('demo').map((file): SystemDocument =>
  unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8')) as never),
);

describe('places to go', () => {
  it('are told apart, and every path leads to something', () => {
    for (const system of SYSTEMS) {
      const places = placesOf(system);
      expect(new Set(places.map(({ id }) => id)).size).toBe(places.length);
      for (const { path, label } of places) {
        expect(label).not.toBe('');
        if (path) expect(valueAt(system, path), path.join('.')).toBeDefined();
      }
    }
  });

  it('are found by any of their words, and each by its own name among the first', () => {
    for (const system of SYSTEMS) {
      const places = placesOf(system);
      for (const place of places) {
        const found = foundPlaces(places, `${place.label} ${place.detail}`);
        expect(
          found.some(({ label, detail }) => label === place.label && detail === place.detail),
          place.label,
        ).toBe(true);
      }
      const [tank] = system.tanks;
      expect(foundPlaces(places, tank!.name)[0]).toMatchObject({ label: tank!.name, stage: 'tank' });
    }
  });

  it('nothing typed shows the stages; what is nowhere finds nothing', () => {
    const places = placesOf(SYSTEMS[0]!);
    expect(foundPlaces(places, ' ')[0]).toMatchObject({ stage: 'fit' });
    expect(foundPlaces(places, 'zzzz')).toEqual([]);
    expect(foundPlaces(places, 'hole chart')[0]).toMatchObject({ sheet: 'holes', stage: 'paper' });
  });
});
