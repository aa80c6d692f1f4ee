import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { seeded } from '../seeded';
import { unwrap } from '../outcome';
import {
  mergeSystems,
  parseSystemText,
  toPath,
  withAdded,
  withoutEntry,
  withValue,
  type Path,
  type SystemDocument,
} from './';

const base = unwrap(parseSystemText(readFileSync('demo/snow-vehicle.json', 'utf8')) as never) as SystemDocument;
const at = (text: string): Path => toPath(text);
const set = (system: SystemDocument, path: string, value: unknown): SystemDocument =>
  withValue(system, at(path), value);

/** Every quantity of a system, by its path. */
function quantities(value: unknown, path: Path = []): Path[] {
  if (typeof value !== 'object' || value === null || path[0] === 'conditions') return [];
  if ('value' in value && 'origin' in value) return [path];
  return Object.entries(value).flatMap(([key, inner]) =>
    quantities(inner, [...path, Array.isArray(value) ? Number(key) : key]),
  );
}

describe('what two devices changed', () => {
  it('goes together where it does not meet, whoever comes first (seeded)', () => {
    const chance = seeded(33);
    const all = quantities(base);
    for (let run = 0; run < 40; run++) {
      const pick = (): Path => all[Math.floor(chance.uniform() * all.length)]!;
      const [p, q] = [pick(), pick()];
      if (p.join() === q.join()) continue;
      // A sixth decimal keeps every value within its limits.
      const nudge = (system: SystemDocument, path: Path): SystemDocument =>
        withValue(system, [...path, 'spread'], 1e-6);
      const [mine, theirs] = [nudge(base, p), nudge(base, q)];
      const both = nudge(mine, q);
      expect(mergeSystems(base, mine, theirs)).toEqual({ ok: true, value: both });
      expect(mergeSystems(base, theirs, mine)).toEqual({ ok: true, value: both });
    }
  });

  it('a value that both set to another is told by its place; set to the same it is no matter', () => {
    const path = 'tanks.0.fillLimit_ratio.value';
    expect(mergeSystems(base, set(base, path, 0.9), set(base, path, 0.8))).toEqual({
      ok: false,
      places: [at('tanks.0.fillLimit_ratio')],
    });
    expect(mergeSystems(base, set(base, path, 0.9), set(base, path, 0.9))).toMatchObject({ ok: true });
    // A value and its spread are one thing.
    expect(mergeSystems(base, set(base, path, 0.9), set(base, 'tanks.0.fillLimit_ratio.spread', 0.01))).toMatchObject({
      ok: false,
    });
  });

  it('parts that each put in are both there, and what one took out stays out', () => {
    const [first, second] = base.components;
    const one = { ...first!, id: 'one', name: 'One' };
    const two = { ...first!, id: 'two', name: 'Two' };
    const merged = mergeSystems(base, withAdded(base, ['components'], one), withAdded(base, ['components'], two));
    expect(merged).toMatchObject({ ok: true });
    if (merged.ok)
      expect(merged.value.components.map(({ id }) => id).sort()).toEqual(
        [...base.components.map(({ id }) => id), 'one', 'two'].sort(),
      );
    const bare = { ...base, prices: [], mounts: [], lines: [], components: [first!, second!] };
    const out = mergeSystems(bare, withoutEntry(bare, ['components'], 0), set(bare, 'components.1.name', 'Renamed'));
    expect(out).toMatchObject({ ok: true, value: { components: [{ name: 'Renamed' }] } });
  });

  it('taken out by one and changed by the other is told', () => {
    const bare = { ...base, prices: [], mounts: [], lines: [] };
    expect(
      mergeSystems(bare, withoutEntry(bare, ['components'], 0), set(bare, 'components.0.name', 'Renamed')),
    ).toMatchObject({ ok: false, places: [['components', 0]] });
  });

  it('what would be wrong together is told, not taken', () => {
    const start = { ...base, fit: { ...base.fit, removals: [] } };
    const sender = start.tanks.findIndex(({ senders }) => senders.length > 0);
    const gone = set(start, `tanks.${sender}.senders`, []);
    const way = set(start, 'fit.removals', [{ part: start.tanks[sender]!.senders[0]!.id, steps: [] }]);
    expect(mergeSystems(start, gone, way)).toMatchObject({
      ok: false,
      places: [],
      detail: expect.stringContaining('does not exist') as string,
    });
  });

  it('a tank that the other put in stands as the other has it', () => {
    const tank = {
      ...base.tanks[0]!,
      id: 'new',
      name: 'New',
      ports: [],
      pickups: [],
      senders: [],
      sightTubes: [],
      dipsticks: [],
      calibrations: [],
      parts: [],
      slices: [],
      plates: [],
      built: [],
    };
    const theirs = set(withAdded(base, ['tanks'], tank), 'conditions.fills', [
      ...base.conditions.fills,
      { tank: 'new', fill_ratio: 0.25 },
    ]);
    const merged = mergeSystems(base, set(base, 'conditions.pitch_deg', 5), theirs);
    expect(merged).toMatchObject({ ok: true, value: { conditions: { pitch_deg: 5 } } });
    if (merged.ok) expect(merged.value.conditions.fills).toEqual(theirs.conditions.fills);
    // And one that it took out leaves no filling behind.
    const out = mergeSystems(theirs, set(theirs, 'conditions.pitch_deg', 5), base);
    if (out.ok) expect(out.value.conditions.fills).toEqual(base.conditions.fills);
    expect(out.ok).toBe(true);
  });

  it('how the system happens to stand is everyone’s own', () => {
    const merged = mergeSystems(base, set(base, 'conditions.pitch_deg', 5), set(base, 'conditions.pitch_deg', -5));
    expect(merged).toMatchObject({ ok: true, value: { conditions: { pitch_deg: 5 } } });
  });
});
