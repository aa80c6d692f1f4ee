import { describe, expect, it } from 'vitest';
import { parseQuantity, UNITS, type Kind } from '@/core/units';
import { unwrap } from '@/core/outcome';
import { expectClose } from '../expectClose';

/**
 * One of each unit, as typed, against the definitions of GNU Units 2.22 (read
 * from the program, 15 digits). Its inch of mercury is 3386.388640341 Pa by
 * the density of mercury; ours is the conventional 3386.389 Pa.
 */
const GNU_UNITS: readonly (readonly [string, Kind, number, number?])[] = [
  ['1 US gal', 'volume', 0.003785411784],
  ['1 imp gal', 'volume', 0.00454609],
  ['1 US qt', 'volume', 0.000946352946],
  ['1 imp qt', 'volume', 0.0011365225],
  ['1 US pt', 'volume', 0.000473176473],
  ['1 imp pt', 'volume', 0.00056826125],
  ['1 US fl oz', 'volume', 2.95735295625e-5],
  ['1 in3', 'volume', 1.6387064e-5],
  ['1 ft3', 'volume', 0.028316846592],
  ['1 psi', 'pressure', 6894.75729316836],
  ['1 bar', 'pressure', 100000],
  ['1 inHg', 'pressure', 3386.388640341, 2e-7],
  ['1 mmH2O', 'pressure', 9.80665],
  ['1 inH2O', 'pressure', 249.08891],
  ['1 hp', 'power', 745.69987158227],
  ['1 PS', 'power', 735.49875],
  ['1 lb', 'mass', 0.45359237],
  ['1 mi', 'length', 1609.344],
  ['1 nmi', 'length', 1852],
  ['1 thou', 'length', 2.54e-5],
  ['1 kn', 'speed', 0.514444444444444],
  ['1 mph', 'speed', 0.44704],
  ['1 °', 'angle', 0.0174532925199433],
  ['1 g', 'acceleration', 9.80665],
  ['1 US gal/min', 'flow', 6.30901964e-5],
  ['1 imp gal/h', 'flow', 1.26280277777778e-6],
  ['1 lb/US gal', 'density', 119.826427316897],
  ['1 cSt', 'viscosity', 1e-6],
  ['1 ft2', 'area', 0.09290304],
];

describe('units against GNU Units 2.22', () => {
  it.each(GNU_UNITS.map(([text, kind, si, tolerance]) => [text, kind, si, tolerance ?? 1e-13] as const))(
    '%s',
    (text, kind, si, tolerance) => {
      expectClose(unwrap(parseQuantity(text, { kind, unit: UNITS[kind][0]!.id })).si, si, {
        rel: tolerance,
        why: 'printed to 15 digits',
      });
    },
  );

  it('°F and °C by their defining points', () => {
    const kelvin = (text: string): number => unwrap(parseQuantity(text, { kind: 'temperature', unit: 'C' })).si;
    expectClose(kelvin('212 F'), 373.15, { rel: 1e-14, why: 'boiling point, conventional' });
    expectClose(kelvin('100'), 373.15, { rel: 1e-14, why: 'boiling point, conventional' });
  });

  it('every spelling of every unit is taken, alone and after a number', () => {
    for (const [kind, units] of Object.entries(UNITS) as [Kind, (typeof UNITS)[Kind]][]) {
      for (const unit of units) {
        for (const spelling of unit.spellings.filter((each) => each !== '')) {
          const read = parseQuantity(`2 ${spelling}`, { kind, unit: UNITS[kind][0]!.id, reader: 'us' });
          expect(read.ok ? read.value.si : `${kind} ${spelling}: ${read.error.detail}`).toBeCloseTo(
            (2 + (unit.offset ?? 0)) * unit.toSI,
            9,
          );
        }
      }
    }
  });
});
