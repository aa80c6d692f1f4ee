import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { seeded } from '../seeded';
import { valueAt, withValue, type Path } from './edit';
import { editsBetween, withEdits } from './edits';

const BOAT = JSON.parse(readFileSync('demo/crab-boat.json', 'utf8')) as Record<string, unknown>;

const pathsOf = (value: unknown, path: Path = []): Path[] =>
  typeof value !== 'object' || value === null
    ? [path]
    : [
        path,
        ...Object.entries(value).flatMap(([key, child]) =>
          pathsOf(child, [...path, Array.isArray(value) ? Number(key) : key]),
        ),
      ];

describe('edits between two trees', () => {
  it('name what was changed and nothing else', () => {
    const next = withValue(BOAT, ['tanks', 0, 'shape'], { kind: 'none' });
    expect(editsBetween(BOAT, next)).toEqual([{ path: ['tanks', 0, 'shape'], value: { kind: 'none' } }]);
    expect(editsBetween(BOAT, BOAT)).toEqual([]);
    expect(editsBetween(BOAT, { ...BOAT })).toEqual([]);
  });

  it('a list that is longer, a key that comes or goes: the branch they stand in', () => {
    const list = BOAT.lines as unknown[];
    expect(editsBetween(BOAT, withValue(BOAT, ['lines'], list.slice(1)))).toMatchObject([{ path: ['lines'] }]);
    expect(editsBetween({ a: { b: 1, c: 2 } }, { a: { b: 1 } })).toEqual([{ path: ['a'], value: { b: 1 } }]);
    expect(editsBetween({ a: 1, b: undefined }, { a: 1, c: undefined })).toMatchObject([{ path: [] }]);
    expect(editsBetween([1], { 0: 1 })).toEqual([{ path: [], value: { 0: 1 } }]);
  });

  it('make the one of the other, and leave alone what they do not touch (seeded)', () => {
    const { uniform } = seeded(14);
    const paths = pathsOf(BOAT).filter((path) => path.length > 0);
    const drawn = (): Path => paths[Math.floor(uniform() * paths.length)]!;
    let tree: unknown = BOAT;
    for (let round = 0; round < 400; round++) {
      let next = tree;
      for (let edit = 0; edit < 3; edit++) {
        const path = drawn();
        if (valueAt(next, path) === undefined) continue;
        const value = uniform() < 0.7 ? uniform() : uniform() < 0.5 ? { value: uniform() } : [uniform()];
        next = withValue(next, path, value);
      }
      // As a worker gets them: in a message, put to what it has.
      const sent = structuredClone(editsBetween(tree, next));
      const put = withEdits(tree, sent);
      expect(put).toEqual(next);
      for (const key of Object.keys(BOAT)) {
        if (valueAt(next, [key]) === valueAt(tree, [key])) expect(valueAt(put, [key])).toBe(valueAt(tree, [key]));
      }
      tree = uniform() < 0.1 ? BOAT : next;
    }
  });
});
