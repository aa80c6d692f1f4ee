/**
 * Every unit that can be typed or shown, by kind of quantity, with its exact
 * factor to SI. value_SI = (value + offset) x toSI.
 */
export type Kind =
  | 'length'
  | 'area'
  | 'volume'
  | 'mass'
  | 'density'
  | 'time'
  | 'speed'
  | 'acceleration'
  | 'force'
  | 'torque'
  | 'stiffness'
  | 'frequency'
  | 'flow'
  | 'pressure'
  | 'angle'
  | 'temperature'
  | 'voltage'
  | 'resistance'
  | 'current'
  | 'power'
  | 'ratio'
  | 'count'
  | 'viscosity'
  | 'charge'
  | 'consumption';

export type Unit = {
  readonly id: string;
  /** How it is shown after a number. */
  readonly symbol: string;
  /** Lower-case spellings accepted at entry, the symbol included. */
  readonly spellings: readonly string[];
  readonly toSI: number;
  readonly offset?: number;
};

export const INCH_M = 0.0254; // exact, international yard and pound agreement, 1959
export const FOOT_M = 12 * INCH_M;
export const US_GALLON_M3 = 3.785411784e-3; // 231 in³ by definition
export const IMPERIAL_GALLON_M3 = 4.54609e-3; // exact, UK Units of Measurement Regulations 1995
export const POUND_KG = 0.45359237; // exact, 1959 agreement
export const STANDARD_GRAVITY_M_PER_S2 = 9.80665; // exact, 3rd CGPM, 1901
export const PSI_PA = (POUND_KG * STANDARD_GRAVITY_M_PER_S2) / (INCH_M * INCH_M);
export const ZERO_CELSIUS_K = 273.15; // exact

const MINUTE_S = 60;
const HOUR_S = 3600;
const KNOT_M_PER_S = 1852 / HOUR_S; // nautical mile 1852 m, exact
const MILE_M = 1609.344;
const DEGREE_RAD = Math.PI / 180;
/** Conventional millimetre and inch of water at 4 °C: 9.80665 Pa a millimetre. */
const MM_WATER_PA = STANDARD_GRAVITY_M_PER_S2;
const INCH_MERCURY_PA = 3386.389; // conventional, 0 °C

const unit = (id: string, symbol: string, toSI: number, spellings: string, offset?: number): Unit => ({
  id,
  symbol,
  toSI,
  spellings: [...new Set([symbol.toLowerCase(), ...spellings.split('|').filter(Boolean)])],
  ...(offset === undefined ? {} : { offset }),
});

export const UNITS: Readonly<Record<Kind, readonly Unit[]>> = {
  length: [
    unit('mm', 'mm', 1e-3, 'millimetre|millimetres|millimeter|millimeters'),
    unit('cm', 'cm', 1e-2, 'centimetre|centimetres|centimeter|centimeters'),
    unit('m', 'm', 1, 'metre|metres|meter|meters'),
    unit('km', 'km', 1e3, 'kilometre|kilometres|kilometer|kilometers'),
    unit('in', 'in', INCH_M, '"|inch|inches|″|”'),
    unit('ft', 'ft', FOOT_M, "'|foot|feet|′|’"),
    unit('mi', 'mi', MILE_M, 'mile|miles'),
    unit('nmi', 'nmi', 1852, 'nm|nautical mile|nautical miles'),
    unit('thou', 'thou', INCH_M / 1000, 'mil|mils'),
  ],
  area: [
    unit('m2', 'm²', 1, 'm2|sqm'),
    unit('cm2', 'cm²', 1e-4, 'cm2'),
    unit('mm2', 'mm²', 1e-6, 'mm2'),
    unit('ft2', 'ft²', FOOT_M ** 2, 'ft2|sqft|sq ft'),
    unit('in2', 'in²', INCH_M ** 2, 'in2|sq in'),
  ],
  volume: [
    unit('L', 'L', 1e-3, 'l|litre|litres|liter|liters|ltr'),
    unit('mL', 'mL', 1e-6, 'ml|cc|cm3|cm³|millilitre|millilitres'),
    unit('m3', 'm³', 1, 'm3'),
    unit('us_gal', 'US gal', US_GALLON_M3, 'us gal|us gallon|us gallons|gal us|gal (us)|usgal'),
    unit('us_qt', 'US qt', US_GALLON_M3 / 4, 'us qt|us quart|us quarts|qt|quart|quarts'),
    unit('us_pt', 'US pt', US_GALLON_M3 / 8, 'us pt|us pint|us pints'),
    unit('us_floz', 'US fl oz', US_GALLON_M3 / 128, 'us fl oz|us floz'),
    unit(
      'imp_gal',
      'imp gal',
      IMPERIAL_GALLON_M3,
      'imp gal|imperial gal|imperial gallon|imperial gallons|uk gal|imp gallon|imp gallons',
    ),
    unit('imp_floz', 'imp fl oz', IMPERIAL_GALLON_M3 / 160, 'imp fl oz|imp floz|uk fl oz'),
    unit('imp_qt', 'imp qt', IMPERIAL_GALLON_M3 / 4, 'imp qt|imperial quart|imperial quarts|uk qt'),
    unit('imp_pt', 'imp pt', IMPERIAL_GALLON_M3 / 8, 'imp pt|imperial pint|imperial pints|uk pt'),
    unit('in3', 'in³', INCH_M ** 3, 'in3|cu in|cubic inch|cubic inches'),
    unit('ft3', 'ft³', FOOT_M ** 3, 'ft3|cu ft'),
  ],
  mass: [
    unit('kg', 'kg', 1, 'kilogram|kilograms|kilo|kilos'),
    unit('g', 'g', 1e-3, 'gram|grams'),
    unit('lb', 'lb', POUND_KG, 'lbs|pound|pounds'),
  ],
  density: [
    unit('kg_per_m3', 'kg/m³', 1, 'kg/m3'),
    unit('kg_per_L', 'kg/L', 1e3, 'kg/l|g/ml|g/cm3|g/cc'),
    unit('lb_per_us_gal', 'lb/US gal', POUND_KG / US_GALLON_M3, 'lb/us gal'),
  ],
  time: [
    unit('s', 's', 1, 'sec|second|seconds'),
    unit('min', 'min', MINUTE_S, 'minute|minutes'),
    unit('h', 'h', HOUR_S, 'hr|hrs|hour|hours'),
  ],
  speed: [
    unit('km_per_h', 'km/h', 1e3 / HOUR_S, 'kph|kmh'),
    unit('m_per_s', 'm/s', 1, ''),
    unit('mph', 'mph', MILE_M / HOUR_S, 'mi/h'),
    unit('ft_per_s', 'ft/s', FOOT_M, 'fps'),
    unit('kn', 'kn', KNOT_M_PER_S, 'kt|kts|knot|knots'),
  ],
  acceleration: [unit('g', 'g', STANDARD_GRAVITY_M_PER_S2, 'gee'), unit('m_per_s2', 'm/s²', 1, 'm/s2')],
  force: [
    unit('N', 'N', 1, 'newton|newtons'),
    unit('kN', 'kN', 1e3, 'kilonewton|kilonewtons'),
    unit('daN', 'daN', 10, ''),
    unit('kgf', 'kgf', STANDARD_GRAVITY_M_PER_S2, 'kp'),
    unit('lbf', 'lbf', POUND_KG * STANDARD_GRAVITY_M_PER_S2, 'lb force|pounds force'),
  ],
  torque: [
    unit('Nm', 'N·m', 1, 'nm|n m|newton metre|newton metres'),
    unit('lbf_ft', 'lbf·ft', POUND_KG * STANDARD_GRAVITY_M_PER_S2 * FOOT_M, 'ft lb|ft-lb|lb ft|lb-ft|lbf ft|ft lbf'),
    unit('lbf_in', 'lbf·in', POUND_KG * STANDARD_GRAVITY_M_PER_S2 * INCH_M, 'in lb|in-lb|lb in|lbf in|in lbf'),
  ],
  stiffness: [
    unit('N_per_mm', 'N/mm', 1e3, 'kn/m'),
    unit('lbf_per_in', 'lbf/in', (POUND_KG * STANDARD_GRAVITY_M_PER_S2) / INCH_M, 'lb/in|lbs/in'),
  ],
  frequency: [unit('Hz', 'Hz', 1, 'hertz'), unit('per_min', 'a minute', 1 / MINUTE_S, 'rpm|1/min|cpm')],
  flow: [
    unit('L_per_h', 'L/h', 1e-3 / HOUR_S, 'l/hr|lph|litres/hour|litre/hour'),
    unit('L_per_min', 'L/min', 1e-3 / MINUTE_S, 'lpm|litres/minute|litre/minute'),
    unit('L_per_s', 'L/s', 1e-3, ''),
    unit('mL_per_min', 'mL/min', 1e-6 / MINUTE_S, 'cc/min'),
    unit('m3_per_h', 'm³/h', 1 / HOUR_S, 'm3/h'),
    unit('us_gal_per_h', 'US gal/h', US_GALLON_M3 / HOUR_S, 'us gal/hr|us gph'),
    unit('us_gal_per_min', 'US gal/min', US_GALLON_M3 / MINUTE_S, 'us gpm'),
    unit('imp_gal_per_h', 'imp gal/h', IMPERIAL_GALLON_M3 / HOUR_S, 'imp gal/hr|imp gph'),
    unit('imp_gal_per_min', 'imp gal/min', IMPERIAL_GALLON_M3 / MINUTE_S, 'imp gpm'),
  ],
  pressure: [
    unit('kPa', 'kPa', 1e3, ''),
    unit('bar', 'bar', 1e5, ''),
    unit('mbar', 'mbar', 1e2, 'hpa'),
    unit('Pa', 'Pa', 1, ''),
    unit('psi', 'psi', PSI_PA, 'lb/in2|psig'),
    unit('inHg', 'inHg', INCH_MERCURY_PA, 'in hg|"hg'),
    unit('mmH2O', 'mmH₂O', MM_WATER_PA, 'mmh2o|mm wc'),
    unit('inH2O', 'inH₂O', MM_WATER_PA * 25.4, 'inh2o|in wc'),
  ],
  angle: [unit('deg', '°', DEGREE_RAD, 'deg|degree|degrees'), unit('rad', 'rad', 1, 'radian|radians')],
  temperature: [
    unit('C', '°C', 1, 'c|deg c|celsius', ZERO_CELSIUS_K),
    unit('F', '°F', 5 / 9, 'f|deg f|fahrenheit', 459.67),
    unit('K', 'K', 1, 'kelvin'),
  ],
  voltage: [unit('V', 'V', 1, 'volt|volts'), unit('mV', 'mV', 1e-3, 'millivolt|millivolts')],
  resistance: [unit('ohm', 'Ω', 1, 'ohm|ohms|ω'), unit('kohm', 'kΩ', 1e3, 'kohm|kohms')],
  current: [unit('A', 'A', 1, 'amp|amps|ampere|amperes'), unit('mA', 'mA', 1e-3, '')],
  power: [
    unit('kW', 'kW', 1e3, ''),
    unit('W', 'W', 1, 'watt|watts'),
    unit('hp', 'hp', 550 * FOOT_M * POUND_KG * STANDARD_GRAVITY_M_PER_S2, 'bhp|horsepower'),
    unit('PS', 'PS', 75 * STANDARD_GRAVITY_M_PER_S2, 'cv|metric hp'),
  ],
  ratio: [unit('percent', '%', 1e-2, 'percent|per cent|pct'), unit('one', '', 1, '')],
  count: [unit('one', '', 1, '')],
  /** Kept in ampere hours, as everybody buys them. */
  charge: [unit('Ah', 'A h', 1, 'ah|amp hour|amp hours|ampere hours')],
  /** Fuel burned for work done. */
  consumption: [
    unit('g_per_kWh', 'g/kWh', 1e-3 / 3.6e6, 'g/kwh|g/kw h'),
    unit('lb_per_hph', 'lb/hp h', POUND_KG / (745.69987158227022 * HOUR_S), 'lb/hph|lb/(hp h)'),
  ],
  viscosity: [unit('mm2_per_s', 'mm²/s', 1e-6, 'cst|mm2/s|centistokes'), unit('m2_per_s', 'm²/s', 1, 'm2/s')],
};

/** Spellings that mean two different units; they are refused with the choices. */
export const AMBIGUOUS: Readonly<Partial<Record<Kind, Readonly<Record<string, readonly string[]>>>>> = {
  volume: {
    gal: ['US gal', 'imp gal'],
    gallon: ['US gal', 'imp gal'],
    gallons: ['US gal', 'imp gal'],
    'fl oz': ['US fl oz', 'imp fl oz'],
    floz: ['US fl oz', 'imp fl oz'],
    oz: ['US fl oz', 'imp fl oz'],
    pt: ['US pt', 'imp pt'],
    pint: ['US pt', 'imp pt'],
    pints: ['US pt', 'imp pt'],
  },
  flow: {
    gph: ['US gal/h', 'imp gal/h'],
    gpm: ['US gal/min', 'imp gal/min'],
    'gal/h': ['US gal/h', 'imp gal/h'],
    'gal/hr': ['US gal/h', 'imp gal/h'],
    'gal/min': ['US gal/min', 'imp gal/min'],
  },
};

/**
 * A unit of a kind by its id.
 * @throws where the kind has none
 */
export function unitById(kind: Kind, id: string): Unit {
  const found = UNITS[kind].find((candidate) => candidate.id === id);
  if (!found) throw new Error(`no unit ${id} of kind ${kind}`);
  return found;
}

/** A unit of a kind as people write it; undefined where none is written so. */
export function unitBySpelling(kind: Kind, spelling: string): Unit | undefined {
  const wanted = spelling.toLowerCase();
  return UNITS[kind].find((candidate) => candidate.spellings.includes(wanted));
}

/** A value in a unit as SI. */
export const toSI = (value: number, unit: Unit): number => (value + (unit.offset ?? 0)) * unit.toSI;
/** An SI value in a unit. */
export const fromSI = (value: number, unit: Unit): number => value / unit.toSI - (unit.offset ?? 0);
