import type { Role } from './role';

/** The units a reader starts from. */
export type ReaderSystem = 'metric' | 'us' | 'imperial';

/** A kind of quantity whose unit can be set apart from the rest. */
export type UnitGroup =
  | 'sizes'
  | 'runs'
  | 'areas'
  | 'road'
  | 'sea'
  | 'volumes'
  | 'burn'
  | 'transfer'
  | 'pressure'
  | 'mass'
  | 'force'
  | 'density'
  | 'temperature'
  | 'power'
  | 'consumption';

/** Kinds set apart, each by the id of one of its choices. */
export type UnitsApart = Readonly<Partial<Record<UnitGroup, string>>>;

/** Who reads: one of three systems, or one with some kinds of quantity set apart. */
export type Reader = ReaderSystem | { readonly system: ReaderSystem; readonly apart: UnitsApart };

type Choice = { readonly label: string; readonly units: Readonly<Partial<Record<Role, string>>> };
type Group = { readonly label: string; readonly choices: Readonly<Record<string, Choice>> };

const choice = (label: string, units: Choice['units']): Choice => ({ label, units });
/** A choice of groups that one role has alone. */
const each = (role: Role, units: readonly (readonly [id: string, label: string])[]): Group['choices'] =>
  Object.fromEntries(units.map(([id, label]) => [id, choice(label, { [role]: id })]));

/** What can be set apart, and the unit of each role that comes with a choice; ids of units are those of UNITS. */
export const UNIT_GROUPS: Readonly<Record<UnitGroup, Group>> = {
  sizes: {
    label: 'Sizes, bores and sheet',
    choices: {
      mm: choice('mm', { tape: 'mm', bore: 'mm', thickness: 'mm' }),
      cm: choice('cm; bores and sheet in mm', { tape: 'cm', bore: 'mm', thickness: 'mm' }),
      in: choice('inches', { tape: 'in', bore: 'in', thickness: 'in' }),
    },
  },
  runs: {
    label: 'Line runs',
    choices: {
      m: choice('m, m/s', { run: 'm', lineSpeed: 'm_per_s' }),
      ft: choice('ft, ft/s', { run: 'ft', lineSpeed: 'ft_per_s' }),
    },
  },
  areas: {
    label: 'Areas',
    choices: {
      m2: choice('m², cm²', { area: 'm2', smallArea: 'cm2' }),
      ft2: choice('ft², in²', { area: 'ft2', smallArea: 'in2' }),
    },
  },
  road: {
    label: 'Distance on land',
    choices: {
      km: choice('km, km/h', { trip: 'km', roadSpeed: 'km_per_h' }),
      mi: choice('miles, mph', { trip: 'mi', roadSpeed: 'mph' }),
    },
  },
  sea: {
    label: 'Distance afloat',
    choices: {
      nmi: choice('nautical miles, knots', { seaTrip: 'nmi', seaSpeed: 'kn' }),
      km: choice('km, km/h', { seaTrip: 'km', seaSpeed: 'km_per_h' }),
      mi: choice('miles, mph', { seaTrip: 'mi', seaSpeed: 'mph' }),
    },
  },
  volumes: {
    label: 'Volumes',
    choices: {
      L: choice('litres', { tankVolume: 'L', smallVolume: 'L' }),
      us_gal: choice('US gal, fl oz', { tankVolume: 'us_gal', smallVolume: 'us_floz' }),
      imp_gal: choice('imp gal, fl oz', { tankVolume: 'imp_gal', smallVolume: 'imp_floz' }),
    },
  },
  burn: {
    label: 'Consumption, by the hour',
    choices: each('burn', [
      ['L_per_h', 'L/h'],
      ['us_gal_per_h', 'US gal/h'],
      ['imp_gal_per_h', 'imp gal/h'],
    ]),
  },
  transfer: {
    label: 'Pumped and filled',
    choices: each('transfer', [
      ['L_per_min', 'L/min'],
      ['L_per_h', 'L/h'],
      ['us_gal_per_min', 'US gal/min'],
      ['us_gal_per_h', 'US gal/h'],
      ['imp_gal_per_min', 'imp gal/min'],
    ]),
  },
  pressure: {
    label: 'Pressure',
    choices: each('pressure', [
      ['kPa', 'kPa'],
      ['bar', 'bar'],
      ['mbar', 'mbar'],
      ['psi', 'psi'],
      ['inHg', 'inHg'],
      ['inH2O', 'inH₂O'],
    ]),
  },
  mass: {
    label: 'Weight',
    choices: { kg: choice('kg', { mass: 'kg', load: 'kg' }), lb: choice('lb', { mass: 'lb', load: 'lb' }) },
  },
  force: {
    label: 'Force and torque',
    choices: {
      kN: choice('kN, N·m', { force: 'kN', torque: 'Nm', stiffness: 'N_per_mm' }),
      daN: choice('daN, N·m', { force: 'daN', torque: 'Nm', stiffness: 'N_per_mm' }),
      lbf: choice('lbf, lbf·ft', { force: 'lbf', torque: 'lbf_ft', stiffness: 'lbf_per_in' }),
    },
  },
  density: {
    label: 'Density',
    choices: each('density', [
      ['kg_per_m3', 'kg/m³'],
      ['kg_per_L', 'kg/L'],
      ['lb_per_us_gal', 'lb/US gal'],
    ]),
  },
  temperature: {
    label: 'Temperature',
    choices: each('temperature', [
      ['C', '°C'],
      ['F', '°F'],
    ]),
  },
  power: {
    label: 'Power',
    choices: each('power', [
      ['kW', 'kW'],
      ['hp', 'hp'],
      ['PS', 'PS'],
    ]),
  },
  consumption: {
    label: 'Consumption, by power',
    choices: each('consumption', [
      ['g_per_kWh', 'g/kWh'],
      ['lb_per_hph', 'lb/hp h'],
    ]),
  },
};

export const UNIT_GROUP_KEYS = Object.keys(UNIT_GROUPS) as readonly UnitGroup[];

/** The system a reader starts from. */
export const systemOf = (reader: Reader): ReaderSystem => (typeof reader === 'string' ? reader : reader.system);

/** What a reader has set apart. */
export const apartOf = (reader: Reader): UnitsApart => (typeof reader === 'string' ? {} : reader.apart);

/** The unit of a role that a reader has set apart; undefined where it is the system's. */
export function unitApart(name: Role, reader: Reader): string | undefined {
  if (typeof reader === 'string') return undefined;
  for (const [group, id] of Object.entries(reader.apart) as [UnitGroup, string][]) {
    const unit = UNIT_GROUPS[group].choices[id]?.units[name];
    if (unit !== undefined) return unit;
  }
  return undefined;
}

/**
 * A reader as it was kept, by whatever wrote it: what is not known of it any more is as the rest.
 * A reader without anything apart is a system alone.
 */
export function readerOf(kept: unknown): Reader {
  const system = systemIn(kept) ?? systemIn((kept as { system?: unknown } | null)?.system) ?? 'metric';
  const apart: unknown = (kept as { apart?: unknown } | null)?.apart;
  if (typeof apart !== 'object' || apart === null) return system;
  const known = UNIT_GROUP_KEYS.flatMap((group) => {
    const id: unknown = (apart as Record<string, unknown>)[group];
    return typeof id === 'string' && Object.hasOwn(UNIT_GROUPS[group].choices, id) ? [[group, id] as const] : [];
  });
  return known.length === 0 ? system : { system, apart: Object.fromEntries(known) };
}

const systemIn = (text: unknown): ReaderSystem | undefined =>
  text === 'metric' || text === 'us' || text === 'imperial' ? text : undefined;
