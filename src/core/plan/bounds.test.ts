import { describe, expect, it } from 'vitest';
import { readFileSync } from 'node:fs';
import { fileNameOf, MAX_DOCUMENT_BYTES, parseSystem, parseSystemText, unsavable, type SystemDocument } from './';
import { plainName } from '../formats';
import { schemaFaults } from './schemaFaults';
import { systemSchema } from './schema';

const text = readFileSync('demo/crab-boat.json', 'utf8');
const boat = JSON.parse(text) as SystemDocument;
const many = (count: number, entry: unknown): unknown[] => Array.from({ length: count }, () => entry);

describe('what a body of faults costs', () => {
  const counted = (value: unknown): { faults: number; samples: number } => {
    let samples = 0;
    // Every value that is looked at is taken out of its object: a count that does not hang on the machine's speed.
    const watched = (inner: unknown): unknown =>
      typeof inner !== 'object' || inner === null
        ? inner
        : new Proxy(inner, {
            get(target, key, receiver) {
              samples++;
              return watched(Reflect.get(target, key, receiver));
            },
          });
    const faults = schemaFaults(systemSchema as never, watched(value), 50).length;
    return { faults, samples };
  };
  const good = counted(boat);

  it.each<[string, unknown]>([
    ['a list of 20,000 tanks that are numbers', { ...boat, tanks: many(20_000, 0) }],
    ['a list of 20,000 empty tanks', { ...boat, tanks: many(20_000, {}) }],
    ['100 parts without anything', { ...boat, components: many(100, {}) }],
    [
      '60 obstacles of 12 bodies that say only their kind',
      { ...boat, fit: { ...boat.fit, obstacles: many(60, { bodies: many(12, { shape: { kind: 'box' } }) }) } },
    ],
    ['40 ways of 60 empty steps', { ...boat, fit: { ...boat.fit, removals: many(40, { steps: many(60, {}) }) } }],
  ])('%s: no more than a good system', (_, value) => {
    const bad = counted(value);
    expect(good.faults).toBe(0);
    expect(bad.faults).toBeGreaterThan(0);
    expect(bad.faults).toBeLessThanOrEqual(50);
    expect(bad.samples).toBeLessThan(4 * good.samples);
  });

  it('a list that is too long is told by its length alone', () => {
    expect(parseSystem({ ...boat, tanks: many(13, {}) })).toMatchObject({
      ok: false,
      error: { detail: 'tanks must have no more than 12 entries.' },
    });
  });

  it('up to 50 faults are told, and that there may be more', () => {
    const parsed = parseSystem({ ...boat, components: many(100, {}) });
    expect(parsed).toMatchObject({ ok: false });
    if (!parsed.ok) {
      expect(parsed.error.faults).toHaveLength(50);
      expect(parsed.error.detail).toMatch(/at least 49 more faults/);
    }
  });

  it('6,000 keys that are not known are told in one short message', () => {
    const parsed = parseSystem({ ...boat, ...Object.fromEntries(many(6000, 0).map((value, i) => [`k${i}`, value])) });
    if (parsed.ok) throw new Error('was taken');
    expect(parsed.error.detail).toMatch(/keys that the format does not know: k0, k1/);
    expect(parsed.error.detail.length).toBeLessThan(400);
  });

  it('finds what Yup finds on its own, in all parts of a document', () => {
    const broken = structuredClone(boat) as never as Record<string, never>;
    const at = (object: unknown, path: string): Record<string, unknown> =>
      path.split('.').reduce((inner, key) => (inner as Record<string, unknown>)[key], object) as Record<
        string,
        unknown
      >;
    Object.assign(at(broken, 'tanks.0'), { name: '', fillLimit_ratio: { value: 7, origin: 'chosen' } });
    Object.assign(at(broken, 'tanks.0.shape'), { kind: 'bag' });
    Object.assign(at(broken, 'lines.0.bore_m'), { origin: 'assumed', spread: undefined });
    Object.assign(at(broken, 'conditions'), { duty_ratio: '1', wind: 3 });
    let yup: string[] = [];
    try {
      systemSchema.validateSync(broken, { strict: true, abortEarly: false });
    } catch (error) {
      yup = (error as { inner: { path: string }[] }).inner.map(({ path }) => path);
    }
    const walked = schemaFaults(systemSchema as never, broken, 50).map(({ path }) => path);
    expect(yup.length).toBeGreaterThan(4);
    expect([...walked].sort()).toEqual([...yup].sort());
  });
});

describe('names and texts', () => {
  it.each(['Boot', 'Båt nr. 2', 'танк', '燃料タンク', 'خزان', 'मछली', 'Tank 🛢️', '½', 'a\u200Db'])(
    '“%s” is a name, and makes a file name',
    (name) => {
      expect(parseSystem({ ...boat, name })).toMatchObject({ ok: true });
      expect(fileNameOf(name)).toMatch(/^[\p{L}\p{M}\p{N}-]+$/u);
    },
  );

  it.each<[string, string]>([
    ['a bell', 'a\u0007b'],
    ['a line break', 'a\nb'],
    ['one that turns the text round', 'a\u202Eb'],
    ['an isolate', 'a\u2066b'],
    ['only what is not seen', '\u200B\u200D'],
    ['half of a pair', 'a\uD800b'],
    ['a line separator', 'a\u2028b'],
  ])('%s is not', (_, name) => {
    const parsed = parseSystem({ ...boat, name });
    expect(parsed).toMatchObject({ ok: false });
    if (!parsed.ok) expect(parsed.error.detail).toMatch(/^name must be plain text/);
    expect(parseSystem({ ...boat, name: plainName(`x${name}`, 80) })).toMatchObject({ ok: true });
  });

  it('a description may have lines, and nothing that turns them', () => {
    expect(parseSystem({ ...boat, description: 'One.\r\n\tTwo.' })).toMatchObject({ ok: true });
    expect(parseSystem({ ...boat, description: 'One.\u202E' })).toMatchObject({ ok: false });
  });

  it('a cut name ends with a whole character and without a space', () => {
    expect(plainName('ab 🛢️', 4)).toBe('ab');
    expect(plainName('  a\u0000b ', 80)).toBe('a b');
    expect(plainName('x'.repeat(100), 80)).toHaveLength(80);
  });

  it.each([
    ['CON', 'con-system'],
    ['///', 'system'],
    ['..', 'system'],
    ['Boat: "Alma" <2>', 'boat-alma-2'],
    ['槽'.repeat(80), '槽'.repeat(60)],
  ])('the file of “%s” is %s', (name, file) => {
    expect(fileNameOf(name)).toBe(file);
  });
});

describe('sizes', () => {
  it('are counted in bytes, not in characters', () => {
    const wide = `{"format":"gasline-system","version":6,"name":"${'槽'.repeat(700_000)}"}`;
    expect(wide.length).toBeLessThan(MAX_DOCUMENT_BYTES);
    expect(parseSystemText(wide)).toMatchObject({ ok: false, error: { code: 'too-large' } });
  });

  it('a system that would be refused when saved says so before', () => {
    expect(unsavable(boat)).toBeUndefined();
    expect(unsavable({ ...boat, description: 'x'.repeat(2_100_000) })).toMatch(/at most 2 MB/);
    expect(unsavable({ ...boat, name: '' })).toMatch(/name must not be empty/);
  });

  it.each<[string, string, RegExp]>([
    ['a key twice', text.replace('"version"', '"name": "x", "version"'), /"name" stands twice/],
    [
      'nesting without end',
      `{"format":"gasline-system","version":6,"a":${'['.repeat(5000)}${']'.repeat(5000)}}`,
      /nested more than 40 deep/,
    ],
  ])('%s is told as such', (_, given, detail) => {
    const parsed = parseSystemText(given);
    expect(parsed.ok).toBe(false);
    if (!parsed.ok) expect(parsed.error.detail).toMatch(detail);
  });
});
