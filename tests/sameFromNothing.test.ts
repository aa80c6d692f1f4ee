import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parseSystem, parseSystemText, valueAt, withValue, type Path, type SystemDocument } from '@/core/plan';
import { evaluateSystem } from '@/core/answers';
import { withoutMemory } from '@/core/memo';
import { seeded } from '@/core/seeded';
import { SOUND } from './raisedSystems';

const read = (file: string): SystemDocument => {
  const parsed = parseSystemText(readFileSync(file, 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
};

/** Every number, text and truth value of a document, by its path. */
const leavesOf = (value: unknown, path: Path = []): Path[] =>
  typeof value !== 'object' || value === null
    ? [path]
    : Object.entries(value).flatMap(([key, child]) =>
        leavesOf(child, [...path, Array.isArray(value) ? Number(key) : key]),
      );

/** The system with one leaf another; undefined where nothing else would be taken there. */
function changed(system: SystemDocument, path: Path): SystemDocument | undefined {
  const before = valueAt(system, path);
  const tried = (value: unknown): SystemDocument | undefined => {
    const parsed = parseSystem(structuredClone(withValue(system, path, value)));
    return parsed.ok ? parsed.value : undefined;
  };
  if (typeof before === 'boolean') return tried(!before);
  if (typeof before === 'number')
    return [before * 1.01 + 1e-4, before + 1, before - 1, before * 0.99].reduce<SystemDocument | undefined>(
      (found, value) => found ?? tried(value),
      undefined,
    );
  return typeof before === 'string'
    ? (tried(`${before}-x`) ?? tried(before === 'measured' ? 'chosen' : 'measured'))
    : undefined;
}

/** Answers from what is remembered, against answers from nothing. */
const SYSTEMS: readonly (readonly [string, SystemDocument, number])[] = [
  ['a small system', SOUND, 150],
  ['crab-boat', read('demo/crab-boat.json'), 24],
  ['snow-vehicle', read('demo/snow-vehicle.json'), 12],
  ['hill-climb-car', read('demo/hill-climb-car.json'), 24],
  ['forest-trailer', read('demo/forest-trailer.json'), 12],
  ['van-heater', read('demo/van-heater.json'), 12],
];

describe.each(SYSTEMS)(
  '%s: whatever is changed, what is remembered gives what nothing remembered gives',
  (name, system, most) => {
    it('field by field', () => {
      const { uniform } = seeded(name.length);
      const leaves = leavesOf(system).filter((path) => valueAt(system, path) !== '');
      let compared = 0;
      // In an order drawn by chance, until so many have been compared.
      const order = leaves.map((path) => ({ path, at: uniform() })).sort((a, b) => a.at - b.at);
      for (const { path } of order) {
        if (compared === most) break;
        const next = changed(system, path);
        if (!next) continue;
        // As the interface asks: one document after the other.
        evaluateSystem(structuredClone(system), 'full', 'without-fit');
        const remembered = evaluateSystem(next, 'full', 'without-fit');
        const fresh = withoutMemory(() => evaluateSystem(next, 'full', 'without-fit'));
        expect(told(remembered), path.join('.')).toEqual(told(fresh));
        compared++;
      }
      expect(compared).toBe(most);
    });
  },
);

/** As it goes from a worker to the page. */
const told = (evaluation: ReturnType<typeof evaluateSystem>): unknown => structuredClone(evaluation);
