import { describe, expect, it } from 'vitest';
import { seeded } from '../seeded';
import { MOST_NESTED, readJson, utf8Text } from '.';

const nested = (depth: number): string => '['.repeat(depth) + ']'.repeat(depth);

describe('JSON from outside', () => {
  it.each<[string, string, string, RegExp]>([
    ['cut off', '{"a": 1', 'not-json', /JSON/],
    ['a key twice', '{"a":1,"b":{"c":1,"c":2}}', 'twice', /"c" stands twice/],
    ['a key twice, once by its number', String.raw`{"name":1,"n\u0061me":2}`, 'twice', /"name"/],
    ['a key twice with brackets and colons in it', '{"{:,}":1,"{:,}":2}', 'twice', /stands twice/],
    ['nesting without end', nested(30_000), 'too-deep', /more than 40 deep/],
    ['one nesting too many', nested(MOST_NESTED + 1), 'too-deep', /40/],
  ])('%s is refused', (_, text, code, detail) => {
    expect(readJson(text)).toMatchObject({ ok: false, error: { code } });
    const read = readJson(text);
    if (!read.ok) expect(read.error.detail).toMatch(detail);
  });

  it.each([
    '{"a":[{"b":1},{"b":2}],"b":{"a":1}}',
    '{"x":"a \\" : { [","y":"\\\\"}',
    '\uFEFF{"a":1}',
    nested(MOST_NESTED),
    '[]',
    '"a:b"',
    '1',
  ])('%s is read as any reader does', (text) => {
    expect(readJson(text)).toEqual({ ok: true, value: JSON.parse(text.replace('\uFEFF', '')) });
  });

  it('whatever JSON.stringify writes comes back (seeded)', () => {
    const chance = seeded(91);
    const some = (depth: number): unknown => {
      const kind = Math.floor(chance.uniform() * (depth > 0 ? 6 : 4));
      const word = (): string =>
        Array.from({ length: 1 + Math.floor(chance.uniform() * 5) }, () =>
          '{}[]:,"\\aé\n\u{1F6E2}'.at(Math.floor(chance.uniform() * 12)),
        ).join('');
      if (kind === 0) return chance.uniform() * 1e6 - 5e5;
      if (kind === 1) return word();
      if (kind === 2) return null;
      if (kind === 3) return chance.uniform() < 0.5;
      const count = Math.floor(chance.uniform() * 4);
      return kind === 4
        ? Array.from({ length: count }, () => some(depth - 1))
        : Object.fromEntries(Array.from({ length: count }, () => [word(), some(depth - 1)]));
    };
    for (let i = 0; i < 300; i++) {
      const text = JSON.stringify(some(5), null, i % 2);
      expect(readJson(text)).toEqual({ ok: true, value: JSON.parse(text) });
    }
  });
});

describe('text from bytes', () => {
  it('is UTF-8 or nothing', () => {
    expect(utf8Text(new TextEncoder().encode('\uFEFFBåt 槽'))).toBe('Båt 槽');
    expect(utf8Text(Uint8Array.of(0x42, 0xe5, 0x74))).toBeUndefined(); // Latin-1
    expect(utf8Text(Uint8Array.of(0xc0, 0xaf))).toBeUndefined(); // overlong
    expect(utf8Text(Uint8Array.of(0xed, 0xa0, 0x80))).toBeUndefined(); // half a surrogate pair
  });
});
