import { afterEach, describe, expect, it, vi } from 'vitest';
import { measured } from '@/core/plan';
import { readName } from '../fields/readName';
import { family, variantName } from '../library/serverSystems';
import { valueText } from './valueText';

describe('a difference in words', () => {
  const litres = (value: number): string => `${value} L`;
  it.each<[unknown, string]>([
    [undefined, 'none'],
    [true, 'yes'],
    [false, 'no'],
    [measured(3, 1), '3 L'],
    [[1, 2, 3], '3 entries'],
    [{ id: 'a', name: 'Sump' }, 'there'],
    [{ kind: 'cylinder' }, 'cylinder'],
    ['bottom-outlet', 'bottom outlet'],
    [{ from: 1 }, 'there'],
  ])('%j is said %s', (value, words) => {
    expect(valueText(value, litres)).toBe(words);
  });
});

describe('names', () => {
  it('of variants count on, whatever they are forked from, and fit the format', () => {
    expect(variantName('Boat', [])).toBe('Boat, variant 2');
    expect(variantName('Boat, variant 2', ['Boat', 'Boat, variant 2'])).toBe('Boat, variant 3');
    expect(variantName('x'.repeat(80), []).length).toBeLessThanOrEqual(80);
  });

  it('typed are trimmed, and refused when empty or too long', () => {
    const put = vi.fn();
    expect(readName('  Sole tank ', put)).toEqual({ ok: true });
    expect(put).toHaveBeenCalledWith('Sole tank');
    for (const text of ['', '   ', 'x'.repeat(81)]) expect(readName(text, put)).toMatchObject({ ok: false });
    expect(put).toHaveBeenCalledTimes(1);
  });
});

describe('a family of variants', () => {
  afterEach(() => vi.unstubAllGlobals());
  const listed = (systems: readonly { id: string; variantOf: string | null }[]) =>
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify({ systems }))));

  it('begins with the system they were forked from, holds the one asked for, and is no more than fit side by side', async () => {
    listed([
      { id: 'c', variantOf: 'a' },
      { id: 'b', variantOf: 'a' },
      { id: 'd', variantOf: 'a' },
      { id: 'a', variantOf: null },
      { id: 'x', variantOf: null },
    ]);
    expect(await family('d')).toEqual(['a', 'd', 'c']);
    expect(await family('a')).toEqual(['a', 'c', 'b']);
    expect(await family('x')).toEqual(['x']);
  });

  it('whose first was deleted still holds together', async () => {
    listed([
      { id: 'c', variantOf: 'a' },
      { id: 'b', variantOf: 'a' },
    ]);
    expect(await family('b')).toEqual(['b', 'c']);
  });

  it('is the one asked for when the server is silent', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new Error('down')));
    expect(await family('b')).toEqual(['b']);
  });
});
