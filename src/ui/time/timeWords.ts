import { positionOf, type EventKind, type TimeEvent } from '@/core/answers';
import { standsAs } from '@/core/components';
import { entriesOf, type Scenario, type SystemDocument, type TimedEntry } from '@/core/plan';
import { formatQuantity, type Reader, type Role } from '@/core/units';
import { fromDocument } from '../fields/readEntry';

/** What happens, of what it happens to. */
const EVENT_WORDS: Readonly<Record<Exclude<EventKind, 'set'>, (name: string) => string>> = {
  'draws-air': (name) => `${name} draws air`,
  'line-empty': (name) => `The line from ${name} has run empty`,
  'air-arrives': (name) => `Air from ${name} comes out at the end of its line`,
  'vent-shuts': (name) => `The valve of ${name} shuts`,
  'vent-opens': (name) => `The valve of ${name} opens`,
  'line-clear': (name) => `The line from ${name} is clear of air again`,
  covered: (name) => `Liquid covers ${name}`,
  free: (name) => `${name} is free again`,
  spills: (name) => `Liquid comes out by ${name}`,
  full: (name) => `${name} is filled to its limit`,
  'float-shuts': (name) => `The float of ${name} shuts`,
  'float-opens': (name) => `The float of ${name} opens`,
  'switch-stops': (name) => `The level switch stops ${name}`,
  'switch-starts': (name) => `The level switch starts ${name}`,
  'clicks-off': (name) => `The nozzle in ${name} clicks off`,
  poured: (name) => `All is poured in at ${name}`,
  'neck-full': (name) => `${name} is full to the top of its neck`,
  'nozzle-shuts': (name) => `${name} shuts: what it fills is full`,
  'runs-over': (name) => `${name} is full, and nobody shuts the nozzle`,
  starves: (name) => `${name} gets too little`,
  fed: (name) => `${name} gets enough again`,
  stops: (name) => `${name} stops`,
};

/** Kinds that are worth a mark in the charts, and how grave they are. */
const GRAVE: Partial<Readonly<Record<EventKind, 'stop' | 'warn'>>> = {
  spills: 'stop',
  starves: 'stop',
  stops: 'stop',
  'neck-full': 'stop',
  'runs-over': 'stop',
  'draws-air': 'warn',
  'air-arrives': 'warn',
  covered: 'warn',
  'clicks-off': 'warn',
  full: 'warn',
};

/** Half a millimetre of water: nothing that a tank or pump would notice [Pa]. */
const FREE_PA = 5;

/** What presses on the liquid of a tank. */
export const overWords = (gauge_Pa: number, reader: Reader): string =>
  `${formatQuantity(Math.abs(gauge_Pa) < FREE_PA ? 0 : gauge_Pa, 'pressure', { reader }).text} over the liquid`;

/** Something that happens or is set at a time, in words. */
export type Told = {
  readonly t_s: number;
  readonly says: string;
  /** How grave it is; undefined where it is as it should be. */ readonly severity: 'stop' | 'warn' | undefined;
  /** It is set by the scenario, and does not come of it. */ readonly isSet: boolean;
};

/** All that a scenario sets, and all that comes of it, in order of time; what is set comes before what comes of it. */
export function toldOf(
  events: readonly TimeEvent[],
  scenario: Scenario,
  system: SystemDocument,
  reader: Reader,
): readonly Told[] {
  const set = entriesOf(scenario)
    .filter(({ at_s }) => at_s < scenario.duration_s)
    .map((entry): Told => ({
      t_s: entry.at_s,
      says: entryWords(entry, system, reader),
      severity: undefined,
      isSet: true,
    }));
  const come = events.flatMap(({ t_s, kind, name }): Told[] =>
    kind === 'set' ? [] : [{ t_s, says: EVENT_WORDS[kind](name), severity: GRAVE[kind], isSet: false }],
  );
  return [...set, ...come].sort((a, b) => a.t_s - b.t_s || Number(b.isSet) - Number(a.isSet));
}

export const OPENING_WORDS = {
  off: 'cap off',
  on: 'cap on',
  blocked: 'blocked',
  stuck: 'its valve sticks open',
  free: 'freed',
} as const;

/** What an entry sets, in words. */
export function entryWords({ list, entry }: TimedEntry, system: SystemDocument, reader: Reader): string {
  const text = (value: number, role: Role): string => formatQuantity(fromDocument(value, role), role, { reader }).text;
  const port = (id: string): string =>
    system.tanks.flatMap(({ ports }) => ports).find((each) => each.id === id)?.name ?? id;
  const named = (id: string): string => system.components.find((each) => each.id === id)?.name ?? id;
  switch (list) {
    case 'slopes':
      return `Stands ${leanWords(entry.pitch_deg, entry.roll_deg, reader)}${entry.evenly ? ', having leaned there evenly' : ''}`;
    case 'temperatures':
      return `Fuel and air at ${text(entry.temperature_K, 'temperature')}`;
    case 'duties':
      return entry.runs ? `Consumers run at ${text(entry.duty_ratio, 'share')} of full load` : 'Consumers are off';
    case 'volts':
      return `Pumps get ${text(entry.supply_V, 'voltage')}`;
    case 'sets': {
      const part = system.components.find(({ id }) => id === entry.part);
      return part ? `${part.name}: ${setWords(part, entry)}` : `${entry.part}, which is not there`;
    }
    case 'filters':
      return `${named(entry.part)}: ${text(entry.dirt_ratio, 'count')} times its clean loss`;
    case 'openings':
      return `${port(entry.port)}: ${OPENING_WORDS[entry.stands]}`;
    case 'pours':
      return `Nozzle in ${port(entry.port)} at ${text(entry.flow_m3PerS, 'transfer')}`;
  }
}

type Part = SystemDocument['components'][number];

/** How a part stands once it is set. */
export const setWords = (part: Part, { on, position }: Scenario['sets'][number]): string =>
  standsAs({ ...part, ...positionOf(part.kind, on, position) } as Part);

/** How a vehicle leans. */
export function leanWords(pitch_deg: number, roll_deg: number, reader: Reader): string {
  const text = (value: number): string =>
    formatQuantity(fromDocument(Math.abs(value), 'slope'), 'slope', { reader }).text;
  const leans = [
    ...(pitch_deg === 0 ? [] : [`nose ${pitch_deg > 0 ? 'up' : 'down'} ${text(pitch_deg)}`]),
    ...(roll_deg === 0 ? [] : [`${roll_deg > 0 ? 'right' : 'left'} side down ${text(roll_deg)}`]),
  ];
  return leans.length === 0 ? 'level' : leans.join(', ');
}

/** What a scenario begins with, in a sentence. */
export function beginsWords({ fills, switches }: Scenario, system: SystemDocument, reader: Reader): string {
  const share = (value: number): string => formatQuantity(value, 'share', { reader }).text;
  const named = (id: string): string => system.tanks.find((tank) => tank.id === id)?.name ?? id;
  const begins = fills.map(({ tank, fill_ratio }) => `${share(fill_ratio)} in ${named(tank)}`);
  const rest = system.tanks.some(({ id }) => !fills.some(({ tank }) => tank === id));
  const switched = switches.map(
    ({ pump, tank, stopsAt_ratio, startsAt_ratio }) =>
      ` ${system.components.find(({ id }) => id === pump)?.name ?? pump} stops at ${share(stopsAt_ratio)} in ${named(tank)} and starts at ${share(startsAt_ratio)}.`,
  );
  const first = begins.length === 0 ? 'Begins as the conditions have it.' : `Begins with ${begins.join(', ')}`;
  const second = begins.length === 0 ? '' : rest ? '; all else as the conditions have it.' : '.';
  return `${first}${second}${switched.join('')}`;
}

/** A unit for a time axis of so long a course. */
export function timeAxis(duration_s: number): { readonly symbol: string; readonly unit_s: number } {
  if (duration_s <= 180) return { symbol: 's', unit_s: 1 };
  if (duration_s <= 3 * 3600) return { symbol: 'min', unit_s: 60 };
  return { symbol: 'h', unit_s: 3600 };
}
