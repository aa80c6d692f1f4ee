import { DIRTY_RATIO } from '../reference/filters';
import { POURED_OF, SPOUTS } from '../reference/wrongFuel';
import type { SystemDocument } from './schema';
import { SCENARIO_FIELDS, TIMED, type Scenario, type Timed } from './schemaScenario';

/** An entry of one of a scenario's lists of what is set when. */
export type TimedEntry = {
  [K in Timed]: {
    readonly list: K;
    readonly index: number;
    readonly at_s: number;
    readonly entry: Scenario[K][number];
  };
}[Timed];

/** All that a scenario sets, in order of time. */
export const entriesOf = (scenario: Scenario): readonly TimedEntry[] =>
  TIMED.flatMap((list) =>
    scenario[list].map((entry, index) => ({ list, index, at_s: entry.at_s, entry }) as TimedEntry),
  ).sort((a, b) => a.at_s - b.at_s);

type Entry = { readonly at_s: number };
const inOrder = <T extends Entry>(entries: readonly T[]): T[] => [...entries].sort((a, b) => a.at_s - b.at_s);

/** A scenario with one entry more; times run onward in each list. */
export const withTimed = (scenario: Scenario, list: Timed, entry: Entry): Scenario => ({
  ...scenario,
  [list]: inOrder([...scenario[list], entry]),
});

/** The same with an entry changed; what is not there changes nothing. */
export const withTimedChanged = (scenario: Scenario, list: Timed, index: number, change: object): Scenario => ({
  ...scenario,
  [list]: inOrder(scenario[list].map((entry: Entry, n) => (n === index ? { ...entry, ...change } : entry))),
});

/** The same without it. */
export const withoutTimed = (scenario: Scenario, list: Timed, index: number): Scenario => ({
  ...scenario,
  [list]: scenario[list].filter((_: Entry, n) => n !== index),
});

type Plumbed = Pick<SystemDocument, 'tanks' | 'components' | 'fluids'>;

/** Parts that somebody may set: valves, couplers, pumps and selectors. */
export const settable = ({ components }: Pick<Plumbed, 'components'>): SystemDocument['components'] =>
  components.filter(({ kind }) => ['valve', 'coupler', 'pump', 'selector'].includes(kind));

/** How a part is set that stands in no scenario yet: the other way. */
export function setOf(part: SystemDocument['components'][number]): Pick<Scenario['sets'][number], 'on' | 'position'> {
  switch (part.kind) {
    case 'valve':
      return { on: !part.open };
    case 'coupler':
      return { on: !part.joined };
    case 'pump':
      return { on: !part.running };
    case 'selector':
      return { position: part.position === 'shut' ? 'in-out' : 'shut' };
    default:
      return {};
  }
}

/** Common practice: a station's nozzle gives some 38 L/min (10 US gal), a lorry pump 68 (18). */
export const STATION_M3_PER_S = { 38: 38e-3 / 60, 68: 68e-3 / 60 } as const;
/** Common practice: a spout goes some 8 cm into a neck. */
const INSERTED_M = 0.08;
/** Where nothing is known of a spout it is a share of the neck. */
const SPOUT_SHARE = 0.6;

/** How a station fills by a filler: by the spout of its fluid where that goes in, by a narrower one where not. */
export function stationPour(
  { fluids }: Pick<Plumbed, 'fluids'>,
  tank: SystemDocument['tanks'][number],
  filler: SystemDocument['tanks'][number]['ports'][number],
): Omit<Scenario['pours'][number], 'at_s' | 'flow_m3PerS' | 'volume_m3'> {
  const fluid = fluids.find(({ id }) => id === tank.fluid)?.fluid;
  const station = fluid && SPOUTS.find(({ poured }) => poured === POURED_OF[fluid])?.most_m;
  const neck_m = filler.bore_m.value;
  return {
    port: filler.id,
    spout_m: station !== undefined && station < neck_m ? station : SPOUT_SHARE * neck_m,
    inserted_m: Math.min(INSERTED_M, Math.max(SCENARIO_FIELDS.inserted_m.min, filler.length_m.value)),
    stops: 'automatic',
  };
}

/** Poured by a nozzle of which nothing else is said [m³]. */
const POURED_M3 = 0.1;

/** An entry to begin with in each list; nothing where the system has nothing of the kind. */
export function firstEntry(list: Timed, system: Plumbed, at_s: number): Scenario[Timed][number] | undefined {
  const ports = system.tanks.flatMap((tank) => tank.ports.map((port) => ({ tank, port })));
  const filler = ports.find(({ port }) => port.role === 'filler');
  switch (list) {
    case 'slopes':
      return { at_s, pitch_deg: 0, roll_deg: 0, evenly: false };
    case 'temperatures':
      return { at_s, temperature_K: 293.15 };
    case 'duties':
      return { at_s, duty_ratio: 1, runs: true };
    case 'volts':
      return system.components.some(({ kind }) => kind === 'pump') ? { at_s, supply_V: 12 } : undefined;
    case 'sets': {
      const [part] = settable(system);
      return part && { at_s, part: part.id, ...setOf(part) };
    }
    case 'filters': {
      const filter = system.components.find(({ kind }) => kind === 'filter');
      return filter && { at_s, part: filter.id, dirt_ratio: DIRTY_RATIO };
    }
    case 'openings': {
      const vent = ports.find(({ port }) => port.role === 'vent');
      if (vent) return { at_s, port: vent.port.id, stands: 'blocked' };
      return filler && { at_s, port: filler.port.id, stands: 'off' };
    }
    case 'pours':
      return (
        filler && {
          at_s,
          flow_m3PerS: STATION_M3_PER_S[38],
          volume_m3: POURED_M3,
          ...stationPour(system, filler.tank, filler.port),
        }
      );
  }
}
