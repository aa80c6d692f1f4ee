import { describe, expect, it } from 'vitest';
import { isoSeconds } from '.';

describe('a date and time', () => {
  it.each([
    '1970-01-01T00:00:00Z',
    '2026-05-03T14:30:00Z',
    '2024-02-29T23:59:59.5Z',
    '1999-12-31',
    '2026-05-03T14:30:00+02:00',
    '2000-03-01T00:00Z',
    '2100-03-01T12:00:00-0530',
  ])('%s, as the platform reads it', (text) => {
    expect(isoSeconds(text)).toBe(Date.parse(text.replace(/([+-]\d{2})(\d{2})$/, '$1:$2')) / 1000);
  });

  it('with a blank for the T, and without a zone, counts as universal', () => {
    expect(isoSeconds('2026-05-03 14:30')).toBe(isoSeconds('2026-05-03T14:30:00Z'));
  });

  it.each(['yesterday', '2026-13-01', '2026-02-30', '2025-02-29', '2026-05-03 24:00', '', '3/5/2026'])(
    'is not %s',
    (text) => {
      expect(isoSeconds(text)).toBeUndefined();
    },
  );
});
