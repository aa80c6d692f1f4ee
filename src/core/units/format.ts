import { fromSI, INCH_M, unitById, type Kind } from './units';
import type { ReaderSystem } from './parse';

/**
 * What a number is for. The same kind is read in different units by role: a
 * tank is measured in mm or inches, a trip in km, a hose run in m or feet.
 */
export type Role =
  | 'tape' | 'bore' | 'thickness' | 'run' | 'trip' | 'seaTrip' | 'area' | 'tankVolume' | 'smallVolume' | 'mass' | 'density'
  | 'duration' | 'roadSpeed' | 'seaSpeed' | 'lineSpeed' | 'acceleration' | 'burn' | 'transfer'
  | 'pressure' | 'smallPressure' | 'slope' | 'temperature' | 'voltage' | 'resistance' | 'current' | 'power' | 'share' | 'count' | 'viscosity';

type RoleUnits = { readonly kind: Kind; readonly metric: string; readonly us: string; readonly imperial?: string };

const role = (kind: Kind, metric: string, us: string, imperial?: string): RoleUnits => ({
  kind, metric, us, ...(imperial ? { imperial } : {}),
});

export const ROLES: Readonly<Record<Role, RoleUnits>> = {
  tape: role('length', 'mm', 'in'),
  bore: role('length', 'mm', 'in'),
  thickness: role('length', 'mm', 'in'),
  run: role('length', 'm', 'ft'),
  trip: role('length', 'km', 'mi'),
  seaTrip: role('length', 'nmi', 'nmi'),
  area: role('area', 'm2', 'ft2'),
  tankVolume: role('volume', 'L', 'us_gal', 'imp_gal'),
  smallVolume: role('volume', 'L', 'us_qt', 'imp_pt'),
  mass: role('mass', 'kg', 'lb'),
  density: role('density', 'kg_per_m3', 'lb_per_us_gal', 'kg_per_m3'),
  duration: role('time', 'h', 'h'),
  roadSpeed: role('speed', 'km_per_h', 'mph'),
  seaSpeed: role('speed', 'kn', 'kn'),
  lineSpeed: role('speed', 'm_per_s', 'm_per_s'),
  acceleration: role('acceleration', 'g', 'g'),
  burn: role('flow', 'L_per_h', 'us_gal_per_h', 'imp_gal_per_h'),
  transfer: role('flow', 'L_per_min', 'us_gal_per_min', 'imp_gal_per_min'),
  pressure: role('pressure', 'kPa', 'psi'),
  smallPressure: role('pressure', 'kPa', 'inH2O'),
  slope: role('angle', 'deg', 'deg'),
  temperature: role('temperature', 'C', 'F', 'C'),
  voltage: role('voltage', 'V', 'V'),
  resistance: role('resistance', 'ohm', 'ohm'),
  current: role('current', 'A', 'A'),
  power: role('power', 'kW', 'hp'),
  share: role('ratio', 'percent', 'percent'),
  count: role('count', 'one', 'one'),
  viscosity: role('viscosity', 'mm2_per_s', 'mm2_per_s'),
};

export const roleUnit = (name: Role, reader: ReaderSystem): string => {
  const units = ROLES[name];
  return reader === 'metric' ? units.metric : reader === 'us' ? units.us : (units.imperial ?? units.us);
};

export type Shown = { readonly number: string; readonly symbol: string; readonly text: string };

export type FormatOptions = {
  readonly reader: ReaderSystem;
  /** Half-width of the value's spread [SI]; digits below it are not shown. */
  readonly spread?: number;
  /** Significant digits when no spread is known. */
  readonly digits?: number;
};

const DEFAULT_DIGITS = 3;
const MAX_DECIMALS = 6;
/** Sixteenths of an inch: the finest mark of a common tape. */
const TAPE_DIVISIONS = 16;
/** A length this near to a sixteenth is one: 0.1 mm is below what a tape can tell. */
const FRACTION_TOLERANCE_M = 1e-4;

/**
 * Shows a quantity in the reader's unit with no more digits than it deserves:
 * the last digit is of the order of half the spread, or three significant
 * digits where no spread is given. Inches on a tape are shown as fractions
 * when they are one.
 */
export function formatQuantity(si: number, name: Role, options: FormatOptions): Shown {
  const { kind } = ROLES[name];
  const unit = unitById(kind, roleUnit(name, options.reader));
  if (!Number.isFinite(si)) return shown('–', unit.symbol);
  if (unit.id === 'in' && name === 'tape' && isTapeFraction(si)) return shown(inchFraction(si), unit.symbol);
  const value = fromSI(si, unit);
  const decimals = options.spread ? spreadDecimals(options.spread / unit.toSI) : digitDecimals(value, options.digits ?? DEFAULT_DIGITS);
  return shown(fixed(value, decimals), unit.symbol);
}

/** The text for an input field: the value as it would be typed, at full useful precision. */
export function entryText(si: number, name: Role, reader: ReaderSystem): string {
  const unit = unitById(ROLES[name].kind, roleUnit(name, reader));
  if (unit.id === 'in' && name === 'tape' && isTapeFraction(si)) return inchFraction(si);
  return String(Number(fromSI(si, unit).toPrecision(7)) || 0);
}

const shown = (number: string, symbol: string): Shown => ({
  number,
  symbol,
  text: symbol === '' ? number : symbol === '°' ? `${number}°` : `${number} ${symbol}`,
});

const isTapeFraction = (si: number): boolean => {
  const step = INCH_M / TAPE_DIVISIONS;
  return Math.abs(si - Math.round(si / step) * step) <= FRACTION_TOLERANCE_M;
};

/** Nearest sixteenth of an inch as a mixed number, such as 12 3/8. */
export function inchFraction(si: number): string {
  const sixteenths = Math.round((Math.abs(si) / INCH_M) * TAPE_DIVISIONS);
  const whole = Math.floor(sixteenths / TAPE_DIVISIONS);
  const sign = si < 0 && sixteenths > 0 ? '-' : '';
  let numerator = sixteenths % TAPE_DIVISIONS;
  if (numerator === 0) return `${sign}${whole}`;
  let denominator = TAPE_DIVISIONS;
  while (numerator % 2 === 0) {
    numerator /= 2;
    denominator /= 2;
  }
  return `${sign}${whole > 0 ? `${whole} ` : ''}${numerator}/${denominator}`;
}

const clampDecimals = (decimals: number): number => Math.min(MAX_DECIMALS, Math.max(0, decimals));

const spreadDecimals = (spread: number): number => clampDecimals(Math.ceil(-Math.log10(Math.max(spread, 1e-12) * 2)));

function digitDecimals(value: number, digits: number): number {
  if (value === 0) return 0;
  return clampDecimals(digits - 1 - Math.floor(Math.log10(Math.abs(value))));
}

/** Fixed decimals without a negative zero. */
function fixed(value: number, decimals: number): string {
  const text = value.toFixed(decimals);
  return Number(text) === 0 ? text.replace('-', '') : text;
}
