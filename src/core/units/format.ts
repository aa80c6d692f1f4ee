import { fromSI, INCH_M, unitById, type Kind, type Unit } from './units';
import { systemOf, unitApart, type Reader } from './reader';
import type { Role } from './role';

type RoleUnits = {
  readonly kind: Kind;
  readonly metric: string;
  readonly us: string;
  readonly imperial?: string;
  /** Most decimals worth showing in the metric unit, and in the other one. */
  readonly decimals: readonly [number, number];
};

const role = (
  kind: Kind,
  metric: string,
  us: string,
  decimals: readonly [number, number],
  imperial?: string,
): RoleUnits => ({ kind, metric, us, decimals, ...(imperial ? { imperial } : {}) });

export const ROLES: Readonly<Record<Role, RoleUnits>> = {
  tape: role('length', 'mm', 'in', [0, 2]),
  bore: role('length', 'mm', 'in', [1, 3]),
  thickness: role('length', 'mm', 'in', [2, 3]),
  run: role('length', 'm', 'ft', [2, 1]),
  trip: role('length', 'km', 'mi', [0, 0]),
  seaTrip: role('length', 'nmi', 'nmi', [0, 0]),
  area: role('area', 'm2', 'ft2', [3, 2]),
  smallArea: role('area', 'cm2', 'in2', [1, 2]),
  tankVolume: role('volume', 'L', 'us_gal', [2, 2], 'imp_gal'),
  smallVolume: role('volume', 'L', 'us_floz', [3, 1], 'imp_floz'),
  dose: role('volume', 'mL', 'mL', [4, 4]),
  mass: role('mass', 'kg', 'lb', [2, 1]),
  load: role('mass', 'kg', 'lb', [0, 0]),
  density: role('density', 'kg_per_m3', 'lb_per_us_gal', [0, 2], 'kg_per_m3'),
  duration: role('time', 'h', 'h', [1, 1]),
  period: role('time', 's', 's', [1, 1]),
  roadSpeed: role('speed', 'km_per_h', 'mph', [0, 0]),
  seaSpeed: role('speed', 'kn', 'kn', [1, 1]),
  lineSpeed: role('speed', 'm_per_s', 'ft_per_s', [2, 1]),
  acceleration: role('acceleration', 'g', 'g', [2, 2]),
  force: role('force', 'kN', 'lbf', [2, 0]),
  stiffness: role('stiffness', 'N_per_mm', 'lbf_per_in', [0, 0]),
  frequency: role('frequency', 'Hz', 'Hz', [1, 1]),
  torque: role('torque', 'Nm', 'lbf_ft', [0, 0]),
  burn: role('flow', 'L_per_h', 'us_gal_per_h', [2, 2], 'imp_gal_per_h'),
  transfer: role('flow', 'L_per_min', 'us_gal_per_min', [1, 1], 'imp_gal_per_min'),
  pressure: role('pressure', 'kPa', 'psi', [2, 2]),
  slope: role('angle', 'deg', 'deg', [1, 1]),
  temperature: role('temperature', 'C', 'F', [0, 0], 'C'),
  voltage: role('voltage', 'V', 'V', [2, 2]),
  resistance: role('resistance', 'ohm', 'ohm', [1, 1]),
  current: role('current', 'A', 'A', [2, 2]),
  power: role('power', 'kW', 'hp', [1, 1]),
  share: role('ratio', 'percent', 'percent', [1, 1]),
  count: role('count', 'one', 'one', [2, 2]),
  charge: role('charge', 'Ah', 'Ah', [0, 0]),
  consumption: role('consumption', 'g_per_kWh', 'lb_per_hph', [0, 3]),
  viscosity: role('viscosity', 'mm2_per_s', 'mm2_per_s', [2, 2]),
};

/** The id of the unit that a reader has a quantity of that role in. */
export const roleUnit = (name: Role, reader: Reader): string => {
  const apart = unitApart(name, reader);
  if (apart !== undefined) return apart;
  const units = ROLES[name];
  const system = systemOf(reader);
  return system === 'metric' ? units.metric : system === 'us' ? units.us : (units.imperial ?? units.us);
};

/** Most decimals worth showing in a unit: the table's for its own two, elsewhere as fine as those of the metric one. */
function mostDecimals(name: Role, unit: Unit): number {
  const { kind, metric, us, imperial, decimals } = ROLES[name];
  if (unit.id === metric || name === 'duration') return decimals[0];
  if (unit.id === us || unit.id === imperial) return decimals[1];
  return clampDecimals(Math.round(decimals[0] + Math.log10(unit.toSI / unitById(kind, metric).toSI)));
}

export type FormattedQuantity = { readonly number: string; readonly symbol: string; readonly text: string };

export type FormatOptions = {
  readonly reader: Reader;
  /** Half-width of the value's spread [SI]; digits below it are not shown. */
  readonly spread?: number;
  /** Significant digits when no spread is known. */
  readonly digits?: number;
  /** The value that this one belongs to, whose unit it is shown in: that of a spread is its value's [SI]. */
  readonly unitOf?: number;
};

const DEFAULT_DIGITS = 3;
const MAX_DECIMALS = 6;
/** Sixteenths of an inch: the finest mark of a common tape. */
const TAPE_DIVISIONS = 16;
/** Shorter times are spoken of in minutes. */
const SHORT_S = 5400;
/** Roles mostly set by hand, in round numbers. */
const TRIMMED: ReadonlySet<Role> = new Set([
  'slope',
  'share',
  'voltage',
  'count',
  'seaSpeed',
  'resistance',
  'bore',
  'thickness',
]);
/** What is shorter than the tape's finest mark is no fraction of it [m]. */
const LEAST_FRACTION_M = INCH_M / TAPE_DIVISIONS;
/** A length this near to a sixteenth is one: 0.1 mm is below what a tape can tell. */
const FRACTION_TOLERANCE_M = 1e-4;

/**
 * Shows a quantity in the reader's unit with no more digits than it deserves:
 * the last digit is of the order of half the spread, or three significant
 * digits where no spread is given, and never finer than the role is worth. Inches on a tape are shown as fractions to
 * a sixteenth, with ≈ where they are rounded to one.
 */
export function formatQuantity(si: number, name: Role, options: FormatOptions): FormattedQuantity {
  const { kind } = ROLES[name];
  const unit = unitById(
    kind,
    name === 'duration' && Math.abs(options.unitOf ?? si) < SHORT_S ? 'min' : roleUnit(name, options.reader),
  );
  if (!Number.isFinite(si)) return shown('–', unit.symbol);
  // As a tape has it, one kind down a column; a spread is no reading of a tape.
  if (unit.id === 'in' && name === 'tape' && options.unitOf === undefined) {
    if (isTapeFraction(si)) return shown(inchFraction(si), unit.symbol);
    if (Math.abs(si) >= LEAST_FRACTION_M) return shown(`≈ ${inchFraction(si)}`, unit.symbol);
  }
  const value = fromSI(si, unit);
  const most = mostDecimals(name, unit);
  const deserved = options.spread
    ? spreadDecimals(options.spread / unit.toSI)
    : digitDecimals(value, options.digits ?? DEFAULT_DIGITS);
  return shown(fixed(value, Math.min(most, deserved), TRIMMED.has(name)), unit.symbol);
}

/** Digits of a field whose value has no spread: a tenth of a millimetre in a metre. */
const ENTRY_DIGITS = 5;

/**
 * The text for an input field: the value as it would be typed, one decimal
 * finer than its spread deserves.
 */
export function entryText(si: number, name: Role, reader: Reader, spread?: number): string {
  const unit = unitById(ROLES[name].kind, roleUnit(name, reader));
  if (unit.id === 'in' && name === 'tape' && isTapeFraction(si)) return inchFraction(si);
  const value = fromSI(si, unit);
  const text = spread
    ? value.toFixed(clampDecimals(spreadDecimals(spread / unit.toSI) + 1))
    : value.toPrecision(ENTRY_DIGITS);
  return String(Number(text) || 0);
}

const shown = (number: string, symbol: string): FormattedQuantity => ({
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
  const sign = si < 0 && sixteenths > 0 ? '−' : '';
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
  // As it is rounded: 9.999 has three digits as 10.0.
  const rounded = Number(value.toPrecision(digits));
  if (rounded === 0) return 0;
  return clampDecimals(digits - 1 - Math.floor(Math.log10(Math.abs(rounded))));
}

/** Fixed decimals with a true minus sign, and none before a zero. Set values such as 25 % keep no trailing zeros. */
function fixed(value: number, decimals: number, trim: boolean): string {
  const text = trim ? String(Number(value.toFixed(decimals))) : value.toFixed(decimals);
  return text.replace('-', Number(text) === 0 ? '' : '−');
}
