import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { unwrap } from '../outcome';
import type { Reader } from '../units';
import { burnAtDuty_m3PerS, burnOf, dutyOfBurn_ratio, readConsumption, wayText } from '.';

const L_PER_H = 1e-3 / 3600;
const perWay = (text: string, reader: Reader = 'metric'): number => {
  const said = unwrap(readConsumption(text, reader));
  return said.kind === 'distance' ? said.fuelPerWay_m2 : NaN;
};

describe('consumption as people say it', () => {
  it.each<[string, Reader, number]>([
    ['8 L/100 km', 'metric', 8e-8],
    ['8,5 l/100km', 'metric', 8.5e-8],
    ['8 L/100', 'metric', 8e-8],
    ['12.5 km/L', 'metric', 8e-8],
    // 235.215 over US mpg, 282.481 over imperial mpg are L/100 km: the usual conversion tables.
    ['30 mpg', 'us', (235.214583 / 30) * 1e-8],
    ['30 mpg', 'imperial', (282.480936 / 30) * 1e-8],
    ['30 US mpg', 'metric', (235.214583 / 30) * 1e-8],
    ['30 mpg (UK)', 'metric', (282.480936 / 30) * 1e-8],
    ['2 nmi/L', 'metric', 1e-3 / (2 * 1852)],
    ['0.5 L/nmi', 'metric', 0.5e-3 / 1852],
    ['1.5 nm/gal', 'us', 3.785411784e-3 / (1.5 * 1852)],
    ['4 mi/US gal', 'metric', 3.785411784e-3 / (4 * 1609.344)],
  ])('%s, for a reader in %j', (text, reader, expected) => {
    expect(Math.abs(perWay(text, reader) / expected - 1)).toBeLessThan(1e-7);
  });

  it.each<[string, Reader, number]>([
    ['7', 'metric', 7 * L_PER_H],
    ['7.2 L/h', 'us', 7.2 * L_PER_H],
    ['2 gal/h', 'us', 2 * 3.785411784 * L_PER_H],
    ['2 gph', 'imperial', 2 * 4.54609 * L_PER_H],
    ['3', { system: 'metric', apart: { burn: 'us_gal_per_h' } }, 3 * 3.785411784 * L_PER_H],
  ])('%s by the hour, for a reader in %j', (text, reader, flow) => {
    const said = unwrap(readConsumption(text, reader));
    expect(said.kind).toBe('time');
    expect(Math.abs(burnOf(said, undefined)! / flow - 1)).toBeLessThan(1e-9);
  });

  it.each<[string, Reader, string]>([
    ['', 'metric', 'empty'],
    ['lots', 'metric', 'not-a-consumption'],
    ['0 L/h', 'metric', 'not-a-consumption'],
    ['-3 L/100 km', 'metric', 'not-a-consumption'],
    ['8 L/furlong', 'metric', 'not-a-consumption'],
    ['8 km/km', 'metric', 'not-a-consumption'],
    ['30 mpg', 'metric', 'ambiguous-unit'],
    ['2 gal/h', 'metric', 'ambiguous-unit'],
    ['30 mpg', { system: 'us', apart: { volumes: 'L' } }, 'ambiguous-unit'],
  ])('“%s” is refused: %j, %s', (text, reader, code) => {
    expect(readConsumption(text, reader)).toMatchObject({ ok: false, error: { code } });
  });

  it('by distance it needs a speed: 8 L/100 km at 90 km/h are 7.2 L/h', () => {
    const said = unwrap(readConsumption('8 L/100 km', 'metric'));
    expect(burnOf(said, undefined)).toBeUndefined();
    expect(burnOf(said, 0)).toBeUndefined();
    expect(burnOf(said, 25)! / L_PER_H).toBeCloseTo(7.2, 9);
  });

  it('what is told is read back as the same (seeded)', () => {
    const readers: Reader[] = ['metric', 'us', 'imperial'];
    fc.assert(
      fc.property(
        fc.constantFrom(...readers),
        fc.boolean(),
        fc.double({ min: -10, max: -5, noNaN: true }),
        (reader, isAfloat, power) => {
          const way = 10 ** power;
          const text = wayText(way, reader, isAfloat);
          expect(Math.abs(perWay(text, reader) / way - 1), text).toBeLessThan(0.006);
        },
      ),
      { seed: 3, numRuns: 200 },
    );
  });

  it('the duty at which so much is burned, and none beyond idle and full load', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (duty) => {
        expect(dutyOfBurn_ratio(burnAtDuty_m3PerS(1e-6, 9e-6, duty), 1e-6, 9e-6)).toBeCloseTo(duty, 9);
      }),
      { seed: 4 },
    );
    expect(dutyOfBurn_ratio(0.5e-6, 1e-6, 9e-6)).toBeUndefined();
    expect(dutyOfBurn_ratio(10e-6, 1e-6, 9e-6)).toBeUndefined();
  });
});
