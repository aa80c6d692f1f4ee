import { DIRTY_RATIO } from '../../reference/filters';
import { STATION_M3_PER_S, stationPour } from '../../plan/scenarioEdits';
import { quiet, type Scenario } from '../../plan/schemaScenario';
import { heldInto } from '../../plan/filled';
import { reachedTanks, type Circuits } from '../../plan/circuits';
import type { ConsumerDocument } from '../../plan/schema';
import { joinedRun, movingSets, RECEIVES_RATIO } from './transferSchools';
import { burnOf_m3PerS } from '../../model/burn';

/** A scenario that a builder would ask for, ready to be run, and what it asks in a sentence. */
export type ReadyScenario = { readonly key: string; readonly asks: string; readonly scenario: Scenario };

/** The one that begins with what is in the tanks now, however they lean. */
export const AS_IT_STANDS = 'as-it-stands';

const HOUR_S = 3600;
const MOST_S = 7 * 24 * HOUR_S;
/** As long as a name may be: those of tanks are in it. */
const MOST_NAME = 80;
const NEARLY_EMPTY = 0.05;
const [COLD_K, HOT_K] = [278.15, 313.15];
const NOSE_DOWN_DEG = -8;
/** A rise of one in five. */
const STEEP_DEG = (Math.atan(0.2) * 180) / Math.PI;
const [ROLLED_S, ROLLED_DEG] = [2, 180];
const WEAK_V = 10.5;

/**
 * The scenarios that make sense of a system: what it has no filler, pump or consumer for is left out.
 *
 * @param gross_m3 of each tank, in the plan's order
 */
export function scenariosFor(system: Circuits, gross_m3: readonly number[]): ReadyScenario[] {
  const off = (at_s = 0): Scenario['duties'] => [{ at_s, duty_ratio: 0, runs: false }];
  const stopped: Scenario['sets'] = system.components.flatMap((part) =>
    part.kind === 'pump' && part.running ? [{ at_s: 0, part: part.id, on: false }] : [],
  );
  const still = { duties: off(), sets: stopped };
  const full = system.tanks.map(({ id, fillLimit_ratio }) => ({ tank: id, fill_ratio: fillLimit_ratio.value }));
  const vents = system.tanks.flatMap(({ ports }) => ports.filter(({ role }) => role === 'vent'));
  const ready: ReadyScenario[] = [];
  const add = (key: string, asks: string, named: string, duration_s: number, more: Partial<Scenario>): void =>
    void ready.push({ key, asks, scenario: { ...quiet(named.slice(0, MOST_NAME).trim(), duration_s), ...more } });
  for (const [t, tank] of system.tanks.entries()) {
    const filler = tank.ports.find(({ role }) => role === 'filler');
    if (!filler || !system.fluids.some(({ id }) => id === tank.fluid)) continue;
    for (const [litres, flow_m3PerS] of Object.entries(STATION_M3_PER_S))
      add(
        `fill-${tank.id}-${litres}`,
        'When does the nozzle click off, and with how much in the tank?',
        `Fill ${tank.name} at ${litres} L/min`,
        Math.ceil((1.2 * gross_m3[t]!) / flow_m3PerS) + 60,
        {
          ...still,
          fills: [{ tank: tank.id, fill_ratio: NEARLY_EMPTY }],
          pours: [{ at_s: 5, flow_m3PerS, volume_m3: 2 * gross_m3[t]!, ...stationPour(system, tank, filler) }],
        },
      );
  }
  for (const { consumer, receivers } of heldInto(system)) {
    const takes_m3 = receivers.reduce((sum, { takes_m3: each }) => sum + each.value, 0);
    if (takes_m3 > 0)
      add(
        `nozzle-${consumer.id}`,
        'How long until it is full, and what if nobody shuts it?',
        `Fill ${receivers.map(({ name }) => name).join(', ')}`,
        Math.min(MOST_S, Math.ceil((1.5 * takes_m3) / consumer.neededFlow_m3PerS.value) + 60),
        { duties: [{ at_s: 0, duty_ratio: 1, runs: true }], fills: full },
      );
  }
  const loaded: Scenario['duties'] = [{ at_s: 0, duty_ratio: 1, runs: true }];
  /** So long as all that a consumer is fed from lasts it, and some more. */
  const lasts_s = (consumer: ConsumerDocument): number => {
    const held_m3 = reachedTanks(system, consumer.id).reduce((sum, { tank }) => sum + gross_m3[tank]!, 0);
    const takes = consumer.kind === 'nozzle' ? consumer.neededFlow_m3PerS.value : burnOf_m3PerS(consumer, 1);
    return Math.min(MOST_S, Math.max(600, Math.ceil((1.3 * held_m3) / Math.max(takes, 1e-9))));
  };
  if (system.consumers.length > 0)
    add(
      AS_IT_STANDS,
      'How long is it fed from how all stands now?',
      'As it all stands, at full load',
      Math.max(...system.consumers.map(lasts_s)),
      { duties: loaded },
    );
  const consumers = system.consumers.filter(({ kind }) => kind !== 'nozzle');
  const [main] = consumers;
  if (main) {
    const dry_s = lasts_s(main);
    add('run-dry', 'How long does it run, and what stops it?', 'Run until it stops, at full load', dry_s, {
      fills: full,
      duties: loaded,
    });
    for (const [s, from] of system.tanks.entries())
      for (const [t, into] of system.tanks.entries()) {
        if (s !== t && joinedRun(system, s, t))
          add(
            `transfer-${from.id}-${into.id}`,
            'Does it keep up, and what happens if nobody stops it?',
            `${from.name} into ${into.name} under way`,
            dry_s,
            {
              duties: loaded,
              sets: movingSets(system, s, t),
              fills: [
                { tank: from.id, fill_ratio: from.fillLimit_ratio.value },
                { tank: into.id, fill_ratio: RECEIVES_RATIO },
              ],
            },
          );
      }
    add('climb', 'Is it fed all the way up?', 'Climb for 20 minutes, one in five', 1500, {
      duties: loaded,
      slopes: [
        { at_s: 60, pitch_deg: 0, roll_deg: 0, evenly: false },
        { at_s: 70, pitch_deg: STEEP_DEG, roll_deg: 0, evenly: true },
        { at_s: 1270, pitch_deg: STEEP_DEG, roll_deg: 0, evenly: false },
        { at_s: 1280, pitch_deg: 0, roll_deg: 0, evenly: true },
      ],
    });
    if (vents.length > 0)
      add('vent-blocked', 'How long until it starves, and at what vacuum?', 'Vents blocked', dry_s, {
        duties: loaded,
        openings: vents.map(({ id }) => ({ at_s: 60, port: id, stands: 'blocked' as const })),
      });
    if (system.components.some(({ kind }) => kind === 'pump'))
      add('weak-battery', 'Is it still fed?', `Pumps at ${WEAK_V} V`, HOUR_S, {
        duties: loaded,
        volts: [{ at_s: 60, supply_V: WEAK_V }],
      });
    const filters = system.components.filter(({ kind }) => kind === 'filter');
    if (filters.length > 0)
      add('filter-dirty', 'Is it still fed?', 'Filters dirty', HOUR_S, {
        duties: loaded,
        filters: filters.map(({ id }) => ({ at_s: 60, part: id, dirt_ratio: DIRTY_RATIO })),
      });
    const rolled: Partial<Scenario> = {
      duties: [{ at_s: 0, duty_ratio: 1, runs: true }, ...off(5)],
      sets: stopped.map((each) => ({ ...each, at_s: 5 })),
      slopes: [
        { at_s: 0, pitch_deg: 0, roll_deg: 0, evenly: false },
        { at_s: ROLLED_S, pitch_deg: 0, roll_deg: ROLLED_DEG, evenly: true },
      ],
    };
    add('rolled', 'What comes out, and where?', 'Rolled over, for ten minutes', 660, rolled);
    const valved = vents.filter(({ shutOff }) => shutOff !== undefined);
    if (valved.length > 0)
      add(
        'rolled-stuck',
        'What comes out if the valves of its vents stick?',
        'Rolled over, vent valves stuck open',
        660,
        { ...rolled, openings: valved.map(({ id }) => ({ at_s: 0, port: id, stands: 'stuck' as const })) },
      );
  }
  add('parked', 'Does anything run out, or from one tank to another?', 'Parked nose down overnight', 12 * HOUR_S, {
    ...still,
    fills: full,
    slopes: [{ at_s: 0, pitch_deg: NOSE_DOWN_DEG, roll_deg: 0, evenly: false }],
  });
  add('hot', 'Is there head room, and what pressure?', 'Filled cold, then a hot afternoon', 6 * HOUR_S, {
    ...still,
    fills: full,
    temperatures: [
      { at_s: 0, temperature_K: COLD_K },
      { at_s: 4 * HOUR_S, temperature_K: HOT_K },
    ],
  });
  if (vents.length > 0)
    add('cooled', 'What vacuum pulls at its walls?', 'Shut hot, then a cold night', 8 * HOUR_S, {
      ...still,
      openings: vents.map(({ id }) => ({ at_s: 0, port: id, stands: 'blocked' as const })),
      temperatures: [
        { at_s: 0, temperature_K: HOT_K },
        { at_s: 8 * HOUR_S, temperature_K: COLD_K },
      ],
    });
  if (system.tanks.length > 1 && system.components.some(({ kind }) => kind === 'pump'))
    add('left-on', 'Does it overfill what it moves into?', 'Every pump left on', 4 * HOUR_S, {
      duties: off(),
      sets: system.components.flatMap((part) => (part.kind === 'pump' ? [{ at_s: 0, part: part.id, on: true }] : [])),
    });
  return ready;
}
