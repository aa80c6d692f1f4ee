import type { AnySchema } from 'yup';
import { failure, success, type Outcome } from '../outcome';
import type { SystemDocument } from './schema';
import { schemaFaults } from './schemaFaults';
import { quiet, scenario, TIMED, type Scenario } from './schemaScenario';

export type ScenarioCode = 'not-a-scenario' | 'no-such-part' | 'not-such-a-part' | 'no-order';

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

function checkedScenario(
  asked: Scenario,
  { tanks, components }: Pick<SystemDocument, 'tanks' | 'components'>,
): Outcome<Scenario, ScenarioCode> {
  for (const key of TIMED) {
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
  const filters = components.flatMap((part) => (part.kind === 'filter' ? [part.id] : []));
  for (const [i, { part }] of asked.filters.entries())
    if (!filters.includes(part)) return missing(`filters[${i}].part`, 'filter', filters);
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
