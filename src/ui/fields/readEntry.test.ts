import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { entryText, ROLES, type ReaderSystem, type Role } from '@/core/units';
import { fromDocument, measuredSpread, readEntry, toDocument } from './readEntry';

const WIDE = { min: -1e12, max: 1e12 };
const READERS: readonly ReaderSystem[] = ['metric', 'us', 'imperial'];

describe('an entry', () => {
  it('what a field shows is read back as what it stands for, in every role and reader', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...(Object.keys(ROLES) as Role[])),
        fc.constantFrom(...READERS),
        fc.double({ min: 1e-3, max: 1e3, noNaN: true }),
        (role, reader, si) => {
          const text = entryText(si, role, reader);
          const read = readEntry(text, role, reader, WIDE);
          if (!read.ok) throw new Error(`${role} ${reader} "${text}": ${read.message}`);
          const back = fromDocument(read.value, role);
          // Five digits, or a sixteenth of an inch on a tape; temperatures have their zero elsewhere.
          const allowed = Math.max(
            2e-4 * Math.abs(si),
            role === 'tape' ? 1.1e-4 : 0,
            role === 'temperature' ? 0.05 : 0,
            1e-9,
          );
          expect(Math.abs(back - si)).toBeLessThanOrEqual(allowed);
        },
      ),
      { seed: 9, numRuns: 600 },
    );
  });

  it('angles are kept in degrees without a tail of digits', () => {
    expect(readEntry('7.5', 'slope', 'metric', { min: -60, max: 60 })).toEqual({ ok: true, value: 7.5 });
    expect(toDocument(fromDocument(33.3, 'slope'), 'slope')).toBe(33.3);
  });

  it.each<[string, Role, ReaderSystem, RegExp]>([
    ['-1', 'tape', 'metric', /−1 mm is out of range; enter 20 mm to 20000 mm/],
    ['900 in', 'tape', 'us', /out of range/],
    ['5 gal', 'tankVolume', 'metric', /US gal or imp gal/],
    ['lots', 'burn', 'metric', /not understood/],
  ])('"%s" as %s is refused', (text, role, reader, message) => {
    const limits = role === 'tape' ? { min: 0.02, max: 20 } : WIDE;
    expect(readEntry(text, role, reader, limits)).toMatchObject({
      ok: false,
      message: expect.stringMatching(message) as string,
    });
  });

  it('says back what was not plain, and only that', () => {
    expect(readEntry('12 3/8', 'tape', 'metric', WIDE)).toMatchObject({ ok: true, note: '12 3/8 in = 314 mm' });
    expect(readEntry('14 ga', 'thickness', 'metric', WIDE, { metal: 'steel' })).toMatchObject({
      ok: true,
      note: '14 ga steel = 1.9 mm',
    });
    expect(readEntry('300', 'tape', 'metric', WIDE)).toEqual({ ok: true, value: 0.3 });
    expect(readEntry('-60', 'tape', 'metric', WIDE)).toEqual({ ok: true, value: -0.06 });
  });
});

describe('what a measurement is worth', () => {
  it('a tape reads to a millimetre, a flow to a twentieth', () => {
    expect(measuredSpread('tape', 1, undefined)).toBe(0.001);
    expect(measuredSpread('burn', 2e-6, undefined)).toBeCloseTo(1e-7, 12);
    expect(measuredSpread('voltage', 12, undefined)).toBeCloseTo(0.24, 12);
  });

  it('never more than what was assumed before', () => {
    expect(measuredSpread('tape', 1, 0.0005)).toBe(0.0005);
    expect(measuredSpread('tape', 1, 0.05)).toBe(0.001);
  });
});
