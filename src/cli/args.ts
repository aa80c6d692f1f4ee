import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { parseSystem, parseSystemText, withValue, type SystemDocument } from '@/core/plan';
import { NOT_UTF8, readJson, utf8Text } from '@/core/formats';
import { ZERO_CELSIUS_K } from '@/core/units';

/** Anything the user can mend; shown on stderr, exit 2. */
export class UsageError extends Error {}

type ConditionOption = {
  readonly key: keyof SystemDocument['conditions'];
  readonly help: string;
  readonly offset?: number;
};

const CONDITION_OPTIONS: Readonly<Record<string, ConditionOption>> = {
  pitch: { key: 'pitch_deg', help: 'pitch, nose up positive [deg]' },
  roll: { key: 'roll_deg', help: 'roll, starboard down positive [deg]' },
  'accel-forward': { key: 'accelerationForward_mPerS2', help: 'acceleration forward [m/s²]' },
  'accel-port': { key: 'accelerationPort_mPerS2', help: 'acceleration to port [m/s²]' },
  'accel-up': { key: 'accelerationUp_mPerS2', help: 'acceleration upward [m/s²]' },
  'temp-c': { key: 'fuelTemperature_K', help: 'fuel temperature [°C]', offset: ZERO_CELSIUS_K },
  'altitude-m': { key: 'altitude_m', help: 'altitude [m]' },
  duty: { key: 'duty_ratio', help: 'engine duty, 0 idle to 1 full load' },
  volts: { key: 'pumpVoltage_V', help: 'voltage at the pump [V]' },
};

export const CONDITIONS_HELP = [
  ...Object.entries(CONDITION_OPTIONS).map(([name, option]) => `  --${`${name} N`.padEnd(18)} ${option.help}`),
  '  --fill TANK=SHARE    filling of a tank as a share of its gross volume, 0 to 1; may be repeated',
  '  --conditions FILE    a JSON file with any of the keys of "conditions"; options override it',
].join('\n');

export type Loaded = {
  readonly file: string;
  readonly system: SystemDocument;
  readonly own: Readonly<Record<string, string | undefined>>;
};

/** Reads the system file named on the command line and sets the conditions asked for. */
export function loadSystem(args: readonly string[], ownOptions: readonly string[] = []): Loaded {
  const { values, positionals } = readArgs(args, ownOptions);
  const [file, ...more] = positionals;
  if (!file) throw new UsageError('Name a system file, such as demo/crab-boat.json.');
  if (more.length > 0) throw new UsageError(`One system file at a time; "${more.join(' ')}" is left over.`);
  const parsed = parseSystemText(readText(file));
  if (!parsed.ok) throw new UsageError(faultText(file, parsed.error.faults));
  const changed = withOptions(withConditionsFile(parsed.value, values.conditions), values);
  const checked = changed === parsed.value ? parsed : parseSystem(changed);
  if (!checked.ok) throw new UsageError(faultText('conditions', checked.error.faults));
  return {
    file,
    system: checked.value,
    own: Object.fromEntries(ownOptions.map((name) => [name, values[name] as string | undefined])),
  };
}

const faultText = (where: string, faults: readonly { path: string; message: string }[]): string =>
  faults.map((fault) => `${where}: ${fault.path === 'file' ? '' : `${fault.path} `}${fault.message}`).join('\n');

type Values = { fill?: string[]; conditions?: string } & Record<string, unknown>;

function readArgs(args: readonly string[], ownOptions: readonly string[]): { values: Values; positionals: string[] } {
  const names = [...Object.keys(CONDITION_OPTIONS), ...ownOptions].map((name) => [name, { type: 'string' as const }]);
  try {
    return parseArgs({
      args: joinNegatives(args),
      allowPositionals: true,
      options: {
        ...Object.fromEntries(names),
        fill: { type: 'string', multiple: true },
        conditions: { type: 'string' },
      },
    }) as { values: Values; positionals: string[] };
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
}

/** "--roll -3" as "--roll=-3", which the parser wants. */
function joinNegatives(args: readonly string[]): string[] {
  return args.flatMap((arg, i) => {
    if (/^-[\d.]/.test(arg) && args[i - 1]?.startsWith('--')) return [];
    const next = args[i + 1];
    return arg.startsWith('--') && next !== undefined && /^-[\d.]/.test(next) ? [`${arg}=${next}`] : [arg];
  });
}

export function readText(file: string): string {
  let bytes: Buffer;
  try {
    bytes = readFileSync(file);
  } catch (error) {
    throw new UsageError(`${file} cannot be read: ${(error as Error).message}`);
  }
  const text = utf8Text(bytes);
  if (text === undefined) throw new UsageError(`${file}: ${NOT_UTF8}`);
  return text;
}

function withConditionsFile(system: SystemDocument, file: string | undefined): SystemDocument {
  if (file === undefined) return system;
  try {
    const read = readJson(readText(file));
    if (!read.ok) throw new Error(read.error.detail);
    const conditions = read.value;
    if (typeof conditions !== 'object' || conditions === null || Array.isArray(conditions))
      throw new Error('it must hold one object');
    return { ...system, conditions: { ...system.conditions, ...conditions } };
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${file} is not a conditions file: ${(error as Error).message}`);
  }
}

function withOptions(system: SystemDocument, values: Values): SystemDocument {
  let changed = system;
  for (const [name, option] of Object.entries(CONDITION_OPTIONS)) {
    const text = values[name];
    if (typeof text === 'string')
      changed = withValue(changed, ['conditions', option.key], numberFrom(`--${name}`, text) + (option.offset ?? 0));
  }
  return (values.fill ?? []).reduce(withFill, changed);
}

function withFill(system: SystemDocument, text: string): SystemDocument {
  const [tank, share] = text.split('=');
  const known = system.tanks.map((candidate) => candidate.id);
  if (!tank || share === undefined)
    throw new UsageError(`--fill wants TANK=SHARE, such as --fill ${known[0] ?? 'main'}=0.4; it is "${text}".`);
  if (!known.includes(tank)) throw new UsageError(`There is no tank "${tank}"; there is ${known.join(', ')}.`);
  const fill_ratio = numberFrom('--fill', share);
  const others = system.conditions.fills.filter((fill) => fill.tank !== tank);
  return withValue(system, ['conditions', 'fills'], [...others, { tank, fill_ratio }]);
}

export function numberFrom(option: string, text: string): number {
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value)) throw new UsageError(`${option} wants a number; it is "${text}".`);
  return value;
}

export function countFrom(option: string, text: string): number {
  const value = numberFrom(option, text);
  if (!Number.isInteger(value) || value < 1)
    throw new UsageError(`${option} wants a whole number of 1 or more; it is "${text}".`);
  return value;
}
