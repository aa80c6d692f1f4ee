import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import {
  acceptedText,
  entryText,
  formatQuantity,
  fromSI,
  INCH_M,
  inReaderUnits,
  parseQuantity,
  toSI,
  UNITS,
  unitById,
  type EntryField,
  type Kind,
} from '.';

const TAPE: EntryField = { kind: 'length', unit: 'mm' };
const TAPE_IN: EntryField = { kind: 'length', unit: 'in' };
const VOLUME: EntryField = { kind: 'volume', unit: 'L' };

function si(text: string, field: EntryField): number {
  const read = parseQuantity(text, field);
  if (!read.ok) throw new Error(read.error.detail);
  return read.value.si;
}

function complaint(text: string, field: EntryField): { code: string; detail: string } {
  const read = parseQuantity(text, field);
  if (read.ok) throw new Error(`"${text}" was read as ${read.value.si}`);
  return read.error;
}

describe('entry as people write it', () => {
  it.each<[string, EntryField, number]>([
    ['12 3/8', TAPE_IN, 12.375 * INCH_M],
    ['12-3/8"', TAPE_IN, 12.375 * INCH_M],
    ['12 3/8', TAPE, 12.375 * INCH_M],
    ['12½', TAPE_IN, 12.5 * INCH_M],
    ['7/16', TAPE, 0.4375 * INCH_M],
    ['1\' 2 1/2"', TAPE, 14.5 * INCH_M],
    ["1' 2 1/2", TAPE, 14.5 * INCH_M],
    ['1 ft 2 in', TAPE, 14 * INCH_M],
    ["6'", TAPE, 72 * INCH_M],
    ['-1\' 6"', TAPE, -18 * INCH_M],
    ['310 mm', TAPE_IN, 0.31],
    ['310', TAPE, 0.31],
    ['31 cm', TAPE, 0.31],
    ['12,5', TAPE, 0.0125],
    ['1,234.5 mm', TAPE, 1.2345],
    ['.090', TAPE_IN, 0.09 * INCH_M],
    ['-6', TAPE, -0.006],
    ['1.2e3', TAPE, 1.2],
    ['90 thou', TAPE, 0.09 * INCH_M],
  ])('length %s', (text, field, expected) => {
    expect(si(text, field)).toBeCloseTo(expected, 12);
  });

  it.each<[string, EntryField, number]>([
    ['7 qt', VOLUME, 7 * 0.946352946e-3],
    ['7 qt', { ...VOLUME, reader: 'imperial' }, 7 * 1.1365225e-3],
    ['5 imp gal', VOLUME, 5 * 4.54609e-3],
    ['5 US gal', VOLUME, 5 * 3.785411784e-3],
    ['5 gal', { ...VOLUME, reader: 'us' }, 5 * 3.785411784e-3],
    ['5 gal', { ...VOLUME, reader: 'imperial' }, 5 * 4.54609e-3],
    ['250 ml', VOLUME, 250e-6],
    ['40 L/min', { kind: 'flow', unit: 'L_per_h' }, 0.04 / 60],
    ['40', { kind: 'flow', unit: 'L_per_h' }, 0.04 / 3600],
    ['3.5 psi', { kind: 'pressure', unit: 'kPa' }, 3.5 * 6894.757293168361],
    ['0.3 bar', { kind: 'pressure', unit: 'kPa' }, 30000],
    ['7 °', { kind: 'angle', unit: 'deg' }, (7 * Math.PI) / 180],
    ['-6', { kind: 'angle', unit: 'deg' }, (-6 * Math.PI) / 180],
    ['−10 °C', { kind: 'temperature', unit: 'C' }, 263.15],
    ['-40 F', { kind: 'temperature', unit: 'C' }, 233.15],
    ['85 %', { kind: 'ratio', unit: 'percent' }, 0.85],
    ['85', { kind: 'ratio', unit: 'percent' }, 0.85],
    ['1 h 30 min', { kind: 'time', unit: 'h' }, 5400],
    ['1 h 30', { kind: 'time', unit: 'h' }, 5400],
  ])('%s', (text, field, expected) => {
    expect(si(text, field)).toBeCloseTo(expected, 9);
  });

  it('14 ga is another thickness in steel, stainless and aluminium', () => {
    const thickness = (metal: EntryField['metal']) => si('14 ga', { ...TAPE, metal }) / INCH_M;
    expect(thickness('steel')).toBeCloseTo(0.0747, 6);
    expect(thickness('stainless')).toBeCloseTo(0.0781, 6);
    expect(thickness('aluminium')).toBeCloseTo(0.0641, 6);
  });

  it('-6 is a dash size in a bore field, and its bore depends on hose or tube', () => {
    expect(si('-6', { ...TAPE, line: 'hose' }) / INCH_M).toBeCloseTo(0.313, 6);
    expect(si('-6', { ...TAPE, line: 'tube' }) / INCH_M).toBeCloseTo(0.305, 6);
  });

  it('1/4 NPT in a bore field is the bore of that pipe, and says so', () => {
    const read = parseQuantity('1/4 NPT', { ...TAPE, line: 'hose' });
    expect(read).toMatchObject({ ok: true, value: { nominal: true, reading: '1/4 NPT, schedule 40 pipe bore' } });
    expect(si('1/4 NPT', { ...TAPE, line: 'hose' }) / INCH_M).toBeCloseTo(0.364, 6);
  });

  it('says how a sum was read', () => {
    expect(parseQuantity('1\' 2 1/2"', TAPE)).toMatchObject({ ok: true, value: { reading: '1 ft 2 1/2 in' } });
  });
});

describe('nonsense is answered with what is accepted', () => {
  it.each<[string, EntryField, string]>([
    ['', TAPE, 'empty'],
    ['about a foot', TAPE, 'not-a-quantity'],
    ['12 furlongs', TAPE, 'unknown-unit'],
    ['5 kg', TAPE, 'unknown-unit'],
    ['5 gal', VOLUME, 'ambiguous-unit'],
    ['30 gph', { kind: 'flow', unit: 'L_per_h' }, 'ambiguous-unit'],
    ['1,234', TAPE, 'ambiguous-comma'],
    ['3/0', TAPE, 'division-by-zero'],
    ['14 ga', TAPE, 'no-metal'],
    ['2 ga', { ...TAPE, metal: 'steel' }, 'no-such-gauge'],
    ['-7', { ...TAPE, line: 'hose' }, 'no-such-size'],
    ['-6', { ...TAPE, line: 'pipe' }, 'size-not-here'],
    ['1/4 NPT', TAPE, 'size-not-here'],
    ['2 in 1 ft', TAPE, 'mixed-units'],
    ['1e999', TAPE, 'too-large'],
    ['NaN', TAPE, 'not-a-quantity'],
    ['Infinity', TAPE, 'not-a-quantity'],
    ['1 2 3', TAPE, 'unknown-unit'],
  ])('"%s" is %s', (text, field, code) => {
    expect(complaint(text, field).code).toBe(code);
  });

  it('names accepted units', () => {
    expect(complaint('12 furlongs', TAPE).detail).toContain('mm');
    expect(complaint('5 gal', VOLUME).detail).toMatch(/US gal or imp gal/);
    expect(acceptedText({ ...TAPE, metal: 'steel' })).toContain('14 ga');
  });
});

describe('units', () => {
  // Exact definitions: international yard and pound (1959), 231 in³ US gallon,
  // 4.54609 L imperial gallon, g_n = 9.80665 m/s² (3rd CGPM 1901).
  it.each<[Kind, string, number]>([
    ['volume', 'us_gal', 231 * 0.0254 ** 3],
    ['volume', 'imp_gal', 4.54609e-3],
    ['volume', 'us_qt', (231 * 0.0254 ** 3) / 4],
    ['pressure', 'psi', (0.45359237 * 9.80665) / 0.0254 ** 2],
    ['length', 'mi', 5280 * 0.3048],
    ['speed', 'kn', 1852 / 3600],
    ['power', 'hp', 745.6998715822702],
    ['power', 'PS', 735.49875],
  ])('%s %s is exact', (kind, id, factor) => {
    expect(Math.abs(unitById(kind, id).toSI / factor - 1)).toBeLessThan(1e-14);
  });

  it('fixed points of the temperature scales', () => {
    expect(toSI(0, unitById('temperature', 'C'))).toBe(273.15);
    expect(toSI(32, unitById('temperature', 'F'))).toBeCloseTo(273.15, 10);
    expect(toSI(-40, unitById('temperature', 'F'))).toBeCloseTo(toSI(-40, unitById('temperature', 'C')), 10);
  });

  it('every unit converts there and back', () => {
    const kinds = Object.keys(UNITS) as Kind[];
    fc.assert(
      fc.property(fc.constantFrom(...kinds), fc.double({ min: -1e6, max: 1e6, noNaN: true }), (kind, value) => {
        for (const unit of UNITS[kind]) {
          expect(Math.abs(fromSI(toSI(value, unit), unit) - value)).toBeLessThanOrEqual(1e-9 * (1 + Math.abs(value)));
        }
      }),
      { seed: 7, numRuns: 200 },
    );
  });

  it('no spelling names two units of one kind', () => {
    for (const [kind, units] of Object.entries(UNITS)) {
      const spellings = units.flatMap((unit) => unit.spellings.filter((spelling) => spelling !== ''));
      expect(new Set(spellings).size, kind).toBe(spellings.length);
    }
  });
});

describe('fields', () => {
  it.each<[number, Parameters<typeof entryText>[1], number | undefined, string]>([
    [5.9, 'seaSpeed', 0.4, '11.5'],
    [1.12, 'tape', 0.003, '1120'],
    [0.0079, 'bore', undefined, '7.9'],
    [263.15, 'temperature', undefined, '-10'],
    [1 / 3, 'share', undefined, '33.333'],
    [0, 'tape', undefined, '0'],
  ])('%d as %s ± %s is typed as %s', (value, role, spread, text) => {
    expect(entryText(value, role, 'metric', spread)).toBe(text);
  });

  it('a tape length is typed as a fraction where it is one', () => {
    expect(entryText(12.375 * INCH_M, 'tape', 'us')).toBe('12 3/8');
  });
});

describe('sentences of ours with quantities', () => {
  it('are in the reader’s units, and braces that are none stay', () => {
    const text = 'Leave {tape 0.0254} open, {bore 0.014} wide; {this} stays, and {no 1}.';
    expect(inReaderUnits(text, 'metric')).toBe('Leave 25 mm open, 14 mm wide; {this} stays, and {no 1}.');
    expect(inReaderUnits(text, 'us')).toBe('Leave 1 in open, 0.551 in wide; {this} stays, and {no 1}.');
  });
});

describe('display', () => {
  it.each<[number, Parameters<typeof formatQuantity>[1], Parameters<typeof formatQuantity>[2], string]>([
    [12.375 * INCH_M, 'tape', { reader: 'us' }, '12 3/8 in'],
    [0.31, 'tape', { reader: 'metric' }, '310 mm'],
    // 310 mm are 12.205 in: 3 sixteenths past 12 but for 0.4 mm.
    [0.31, 'tape', { reader: 'us' }, '≈ 12 3/16 in'],
    [-0.31, 'tape', { reader: 'us' }, '≈ −12 3/16 in'],
    [0.0005, 'tape', { reader: 'us' }, '0.02 in'],
    [0.002, 'tape', { reader: 'us', unitOf: 0.31 }, '0.08 in'],
    [0.008, 'bore', { reader: 'us' }, '0.315 in'],
    [0.0001, 'smallVolume', { reader: 'us' }, '3.4 US fl oz'],
    [0.0001, 'smallVolume', { reader: 'imperial' }, '3.5 imp fl oz'],
    [1.5, 'lineSpeed', { reader: 'us' }, '4.9 ft/s'],
    [0.0012, 'smallArea', { reader: 'us' }, '1.86 in²'],
    [0.0012, 'smallArea', { reader: 'metric' }, '12.0 cm²'],
    [0.1, 'tankVolume', { reader: 'us' }, '26.4 US gal'],
    [0.1, 'tankVolume', { reader: 'imperial' }, '22.0 imp gal'],
    [0.1634567, 'tankVolume', { reader: 'metric', spread: 0.002 }, '163 L'],
    [0.1634567, 'tankVolume', { reader: 'metric', spread: 0.0002 }, '163.5 L'],
    [-0.00001, 'slope', { reader: 'metric', digits: 1, spread: 0.05 }, '0°'],
    [0.853, 'share', { reader: 'metric', spread: 0.02 }, '85 %'],
    [Number.NaN, 'tape', { reader: 'metric' }, '– mm'],
    [293.15, 'temperature', { reader: 'us' }, '68 °F'],
  ])('%d as %s', (value, name, options, expected) => {
    expect(formatQuantity(value, name, options).text).toBe(expected);
  });
});
