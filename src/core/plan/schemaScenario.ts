import { boolean, type AnySchema, type InferType } from 'yup';
import { failure, success, type Outcome } from '../outcome';
import { NOZZLE_STOPS } from './schemaLines';
import { bounded } from '../schema/known';
import { closed, flag, id, listOf, name, oneOf } from '../schema/tools';
import type { SystemDocument } from './schema';
import { schemaFaults } from './schemaFaults';

/** A week is the most that is played at once [s]. */
const MOST_S = 7 * 24 * 3600;
const MOST_ENTRIES = 200;
const at_s = () => bounded(0, MOST_S);

/**
 * A course of states: how a system begins, and what then happens to it. Values that are given at times change in one
 * step there; slopes may also go evenly from the one before, and temperatures always do.
 */
export const scenario = closed({
  name: name(),
  duration_s: bounded(1, MOST_S),
  /** In tanks at the beginning, as a share of their space; as the conditions have it where nothing is said. */
  fills: listOf(closed({ tank: id(), fill_ratio: bounded(0, 1) }), 20),
  /** Of the vehicle: nose up and right side down positive, as conditions have them; at any angle. */
  slopes: listOf(
    closed({ at_s: at_s(), pitch_deg: bounded(-180, 180), roll_deg: bounded(-180, 180), evenly: flag() }),
    MOST_ENTRIES,
  ),
  /** Of fuel and air in tanks: it goes evenly from each to the next, and stays what it is after the last. */
  temperatures: listOf(closed({ at_s: at_s(), temperature_K: bounded(213.15, 423.15) }), MOST_ENTRIES),
  /** Of what consumers burn between idle and full load; nothing while they are off. */
  duties: listOf(closed({ at_s: at_s(), duty_ratio: bounded(0, 1), runs: flag() }), MOST_ENTRIES),
  volts: listOf(closed({ at_s: at_s(), supply_V: bounded(0, 60) }), MOST_ENTRIES),
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
  /** A filler's cap that is taken off or put back, or a vent that is blocked or freed. */
  openings: listOf(closed({ at_s: at_s(), port: id(), stands: oneOf(['off', 'on', 'blocked', 'free']) }), MOST_ENTRIES),
  /** Filling by a nozzle in a filler. */
  pours: listOf(
    closed({
      at_s: at_s(),
      port: id(),
      flow_m3PerS: bounded(1e-7, 0.05),
      /** In all; to click-off where it is more. */ volume_m3: bounded(1e-6, 8000),
      spout_m: bounded(0.002, 0.2),
      /** How far the spout stands in the neck. */ inserted_m: bounded(0.005, 1),
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
      stopsAt_ratio: bounded(0, 1),
      startsAt_ratio: bounded(0, 1),
    }),
    20,
  ),
  /**
   * How quickly fuel fills the air over it with its vapour: so long until two thirds of what is missing have come.
   */
  vapourLag_s: bounded(1, 1e7),
});
export type Scenario = InferType<typeof scenario>;

export type ScenarioCode = 'not-a-scenario' | 'no-such-part' | 'not-such-a-part' | 'no-order';

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
  openings: [],
  pours: [],
  switches: [],
  vapourLag_s: VAPOUR_LAG_S,
});

/**
 * Checks what is said to be a scenario of a system: its form, that all it names is there, and that times run onward.
 * Lists may be left out; its name and how long it lasts may not.
 */
export function parseScenario(
  value: unknown,
  system: Pick<SystemDocument, 'tanks' | 'components'>,
): Outcome<Scenario, ScenarioCode> {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return failure('not-a-scenario', 'scenario', 'must be an object.');
  // What is left out does not happen.
  const { name: _, duration_s: __, ...nothing } = quiet('', 0);
  const whole = { ...nothing, ...value };
  const [fault] = schemaFaults(scenario as unknown as AnySchema, whole, 1);
  if (fault) return failure('not-a-scenario', fault.path, `${fault.message}.`);
  return checkedScenario(whole as Scenario, system);
}

const LISTS = ['slopes', 'temperatures', 'duties', 'volts', 'sets', 'openings', 'pours'] as const;

function checkedScenario(
  asked: Scenario,
  { tanks, components }: Pick<SystemDocument, 'tanks' | 'components'>,
): Outcome<Scenario, ScenarioCode> {
  for (const key of LISTS) {
    const list: readonly { readonly at_s: number }[] = asked[key];
    const back = list.findIndex(({ at_s: at }, i) => i > 0 && at < list[i - 1]!.at_s);
    if (back > 0)
      return failure(
        'no-order',
        `${key}[${back}].at_s`,
        'must be no earlier than the entry before it; times run onward.',
      );
  }
  const missing = (at: string, what: string, accepted: readonly string[]) =>
    failure(
      'no-such-part' as const,
      at,
      accepted.length > 0 ? `names no ${what}; there are ${accepted.join(', ')}.` : `names no ${what}; there is none.`,
    );
  const tankIds = tanks.map((tank) => tank.id);
  for (const [list, key] of [
    [asked.fills, 'fills'],
    [asked.switches, 'switches'],
  ] as const)
    for (const [i, { tank }] of list.entries())
      if (!tankIds.includes(tank)) return missing(`${key}[${i}].tank`, 'tank', tankIds);
  const pumps = components.flatMap((part) => (part.kind === 'pump' ? [part.id] : []));
  for (const [i, { pump }] of asked.switches.entries())
    if (!pumps.includes(pump)) return missing(`switches[${i}].pump`, 'pump', pumps);
  for (const [i, { stopsAt_ratio, startsAt_ratio }] of asked.switches.entries())
    if (stopsAt_ratio === startsAt_ratio)
      return failure('not-such-a-part', `switches[${i}]`, 'must start and stop at different levels.');
  const movable = components.filter(({ kind }) => ['valve', 'coupler', 'pump', 'selector'].includes(kind));
  for (const [i, { part, on, position }] of asked.sets.entries()) {
    const found = movable.find((each) => each.id === part);
    if (!found)
      return missing(
        `sets[${i}].part`,
        'part that can be set',
        movable.map((each) => each.id),
      );
    if ((found.kind === 'selector') !== (position !== undefined) || (found.kind === 'selector') === (on !== undefined))
      return failure(
        'not-such-a-part',
        `sets[${i}]`,
        found.kind === 'selector'
          ? 'must say its position, and nothing else.'
          : 'must say whether it is on, and nothing else.',
      );
  }
  const ports = tanks.flatMap((tank) => tank.ports);
  for (const [i, { port, stands }] of asked.openings.entries()) {
    const found = ports.find((each) => each.id === port);
    const role = stands === 'off' || stands === 'on' ? 'filler' : 'vent';
    if (found?.role !== role)
      return missing(
        `openings[${i}].port`,
        role,
        ports.filter((each) => each.role === role).map((each) => each.id),
      );
  }
  const fillers = ports.filter(({ role }) => role === 'filler');
  for (const [i, { port, spout_m }] of asked.pours.entries()) {
    const found = fillers.find((each) => each.id === port);
    if (!found)
      return missing(
        `pours[${i}].port`,
        'filler',
        fillers.map((each) => each.id),
      );
    if (spout_m >= found.bore_m.value)
      return failure(
        'not-such-a-part',
        `pours[${i}].spout_m`,
        `must be narrower than ${found.name}: it does not go in.`,
      );
  }
  return success(asked);
}
