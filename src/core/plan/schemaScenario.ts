import { boolean, type InferType } from 'yup';
import { NOZZLE_STOPS } from './schemaLines';
import { bounded } from '../schema/known';
import { closed, flag, id, listOf, name, oneOf } from '../schema/tools';
import type { Role } from '../units';

/** A week is the most that is played at once [s]. */
const MOST_S = 7 * 24 * 3600;
const MOST_ENTRIES = 200;
const field = (min: number, max: number, label: string, role: Role) => ({ min, max, label, role });

/** What is typed in a scenario: its limits as they stand in the document, what it is called, and in what it is told. */
export const SCENARIO_FIELDS = {
  at_s: field(0, MOST_S, 'At', 'duration'),
  duration_s: field(1, MOST_S, 'Lasts', 'duration'),
  fill_ratio: field(0, 1, 'Begins with', 'share'),
  pitch_deg: field(-180, 180, 'Nose up', 'slope'),
  roll_deg: field(-180, 180, 'Right side down', 'slope'),
  temperature_K: field(213.15, 423.15, 'Fuel and air at', 'temperature'),
  duty_ratio: field(0, 1, 'Of full load', 'share'),
  dirt_ratio: field(1, 100, 'Times its clean loss', 'count'),
  supply_V: field(0, 60, 'Voltage at the pumps', 'voltage'),
  flow_m3PerS: field(1e-7, 0.05, 'Flow of the nozzle', 'transfer'),
  volume_m3: field(1e-6, 8000, 'At most', 'tankVolume'),
  spout_m: field(0.002, 0.2, 'Spout', 'bore'),
  inserted_m: field(0.005, 1, 'Stands in the neck', 'tape'),
  stopsAt_ratio: field(0, 1, 'Stops it at', 'share'),
  startsAt_ratio: field(0, 1, 'Starts it at', 'share'),
  vapourLag_s: field(1, 1e7, 'Vapour comes within', 'duration'),
} as const;
export type ScenarioField = keyof typeof SCENARIO_FIELDS;

const typed = (key: ScenarioField) => bounded(SCENARIO_FIELDS[key].min, SCENARIO_FIELDS[key].max);
const at_s = () => typed('at_s');

/**
 * A course of states: how a system begins, and what then happens to it. Values that are given at times change in one
 * step there; slopes may also go evenly from the one before, and temperatures always do.
 */
export const scenario = closed({
  name: name(),
  duration_s: typed('duration_s'),
  /** In tanks at the beginning, as a share of their space; as the conditions have it where nothing is said. */
  fills: listOf(closed({ tank: id(), fill_ratio: typed('fill_ratio') }), 20),
  /** Of the vehicle: nose up and right side down positive, as conditions have them; at any angle. */
  slopes: listOf(
    closed({ at_s: at_s(), pitch_deg: typed('pitch_deg'), roll_deg: typed('roll_deg'), evenly: flag() }),
    MOST_ENTRIES,
  ),
  /** Of fuel and air in tanks: it goes evenly from each to the next, and stays what it is after the last. */
  temperatures: listOf(closed({ at_s: at_s(), temperature_K: typed('temperature_K') }), MOST_ENTRIES),
  /** Of what consumers burn between idle and full load; nothing while they are off. */
  duties: listOf(closed({ at_s: at_s(), duty_ratio: typed('duty_ratio'), runs: flag() }), MOST_ENTRIES),
  volts: listOf(closed({ at_s: at_s(), supply_V: typed('supply_V') }), MOST_ENTRIES),
  /** Valves, couplers, pumps and selectors as somebody sets them: open or shut, joined or parted, running or not. */
  sets: listOf(
    closed({
      at_s: at_s(),
      part: id(),
      /** Of valves, couplers and pumps. */ on: boolean().typeError('must be true or false').optional(),
      /** Of selectors. */ position: oneOf(['in-out', 'side-out', 'in-side', 'all', 'shut']).optional(),
    }),
    MOST_ENTRIES,
  ),
  /** Filters that clog, or are changed. */
  filters: listOf(closed({ at_s: at_s(), part: id(), dirt_ratio: typed('dirt_ratio') }), MOST_ENTRIES),
  /** A filler's cap that is taken off or put back, or a vent that is blocked, freed, or whose valve sticks open. */
  openings: listOf(
    closed({ at_s: at_s(), port: id(), stands: oneOf(['off', 'on', 'blocked', 'stuck', 'free']) }),
    MOST_ENTRIES,
  ),
  /** Filling by a nozzle in a filler. */
  pours: listOf(
    closed({
      at_s: at_s(),
      port: id(),
      flow_m3PerS: typed('flow_m3PerS'),
      /** In all; to click-off where it is more. */ volume_m3: typed('volume_m3'),
      spout_m: typed('spout_m'),
      /** How far the spout stands in the neck. */ inserted_m: typed('inserted_m'),
      stops: oneOf(NOZZLE_STOPS),
    }),
    20,
  ),
  /** A pump that a level in a tank starts or stops. */
  switches: listOf(
    closed({
      pump: id(),
      tank: id(),
      /** Shares of the tank: it stops it when it comes to the one, and starts it when it comes to the other. */
      stopsAt_ratio: typed('stopsAt_ratio'),
      startsAt_ratio: typed('startsAt_ratio'),
    }),
    20,
  ),
  /**
   * How quickly fuel fills the air over it with its vapour: so long until two thirds of what is missing have come.
   */
  vapourLag_s: typed('vapourLag_s'),
});
export type Scenario = InferType<typeof scenario>;

/** The lists of a scenario whose entries are set at times. */
export const TIMED = ['slopes', 'temperatures', 'duties', 'volts', 'sets', 'filters', 'openings', 'pours'] as const;
export type Timed = (typeof TIMED)[number];

/** Common practice: still fuel takes a quarter of an hour or so to fill the air over it with vapour. */
export const VAPOUR_LAG_S = 900;

/** A scenario in which nothing happens. */
export const quiet = (named: string, duration_s: number): Scenario => ({
  name: named,
  duration_s,
  fills: [],
  slopes: [],
  temperatures: [],
  duties: [],
  volts: [],
  sets: [],
  filters: [],
  openings: [],
  pours: [],
  switches: [],
  vapourLag_s: VAPOUR_LAG_S,
});
