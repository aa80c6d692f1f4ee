import { clockText, say, type Message } from '../../units';
import { feedPath, reachedTanks } from '../../plan/circuits';
import type { Scenario } from '../../plan/schemaScenario';
import type { At } from '../at';
import type { EventKind, Simulated, TimeEvent } from './played';
import type { Tally } from './tally';

/** One thing that a course comes to, the worst first. */
export type VerdictLine = {
  readonly severity: 'stop' | 'warn' | 'note' | 'good';
  readonly says: Message;
  /** When it is so, where it is at one moment. */ readonly t_s?: number;
};

/** Common practice, and the limit of the rules of vents: more than this moves flats and stops nozzles [Pa]. */
const PRESSED_PA = 1000;
/** Common practice: sheet-metal tanks are tested at some 20 to 35 kPa; few stand these, whatever comes after [Pa]. */
const [BURSTS_PA, CAVES_PA] = [100_000, -50_000];
/** Less than this is told as so much: nothing that a tank or pump would notice [Pa]. */
const FREE_PA = 10;
/** A nozzle that clicks off with less than this share of what a tank may hold has clicked off early. */
const EARLY_SHARE = 0.9;
/** Beyond what it may hold by more than this, a tank has lost head room. */
const OVER_SHARE = 1.005;
/** A spill is told from this on, in small measures up to the other, and is in earnest from there on [m³]. */
const [DROPS_M3, SOME_M3] = [1e-6, 5e-5];
const ORDER = ['stop', 'warn', 'note', 'good'] as const;

/** What a course comes to, in sentences: pours, spills, what starves and why, pressures, and what is not known. */
export function verdictOf(
  run: Simulated,
  tally: Tally,
  { model }: Pick<At, 'model'>,
  scenario: Scenario,
): VerdictLine[] {
  const lines = [
    ...poursOf(tally, model, scenario),
    ...spillsOf(tally),
    ...consumersOf(run, tally, model, scenario),
    ...nozzlesOf(run),
    ...pressuresOf(run, tally),
    ...unknownOf(tally),
  ];
  return lines.sort((a, b) => ORDER.indexOf(a.severity) - ORDER.indexOf(b.severity));
}

function poursOf(tally: Tally, model: At['model'], { pours, duration_s }: Scenario): VerdictLine[] {
  const limitOf = (id: string): { readonly name: string; readonly holds_m3: number } => {
    const { document, gross_m3 } = model.tanks.find((tank) => tank.document.id === id)!;
    return { name: document.name, holds_m3: gross_m3 * document.fillLimit_ratio.value };
  };
  const ended = tally.pours.map(({ ends, t_s, tank, volume_m3, name: filler, began_s }): VerdictLine => {
    const { name, holds_m3 } = limitOf(tank);
    const values = {
      volume: { value: volume_m3, role: 'tankVolume' as const },
      share: { value: volume_m3 / holds_m3, role: 'share' as const },
    };
    const after = clockText(t_s - began_s);
    const holds = `with {volume} in ${name}: {share} of what it may hold`;
    switch (ends) {
      case 'neck-full':
        return {
          severity: 'stop',
          t_s,
          says: say(`Liquid stands at the top of ${filler} after ${after}, ${holds}.`, values),
        };
      case 'poured':
        return { severity: 'good', t_s, says: say(`All of it goes in, in ${after}, ${holds}.`, values) };
      default: {
        const share = volume_m3 / holds_m3;
        const early = share < EARLY_SHARE ? 'early, ' : '';
        const over = share > OVER_SHARE ? '; what it should keep free to expand into is gone' : '';
        return {
          severity: early || over ? 'warn' : 'good',
          t_s,
          says: say(`The nozzle clicks off ${early}after ${after}, ${holds}${over}.`, values),
        };
      }
    }
  });
  const open = pours.filter(
    ({ port, at_s }) => at_s < duration_s && !tally.pours.some((pour) => pour.port === port && pour.began_s === at_s),
  );
  return [
    ...ended,
    ...open.map((): VerdictLine => ({
      severity: 'warn',
      says: say(`The nozzle still runs at the end, after ${clockText(duration_s)}.`),
    })),
  ];
}

const spillsOf = ({ spilt }: Tally): VerdictLine[] =>
  spilt
    .filter(({ volume_m3 }) => volume_m3 >= DROPS_M3)
    .map(({ name, volume_m3, from_s }) => ({
      severity: volume_m3 < SOME_M3 ? 'warn' : 'stop',
      ...(from_s === undefined ? {} : { t_s: from_s }),
      says: say(`{volume} comes out by ${name}${from_s === undefined ? '' : `, from ${clockText(from_s)} on`}.`, {
        volume: { value: volume_m3, role: volume_m3 < SOME_M3 ? 'smallVolume' : 'tankVolume' },
      }),
    }));

function consumersOf(
  run: Simulated,
  { consumers }: Tally,
  model: At['model'],
  { duration_s }: Scenario,
): VerdictLine[] {
  const stops = (id: string): TimeEvent | undefined => run.events.find(({ kind, of }) => kind === 'stops' && of === id);
  return consumers.flatMap(({ id, name, burnt_m3, starves_s, starved_s }): VerdictLine[] => {
    if (starves_s === undefined)
      return burnt_m3 > 0 ? [{ severity: 'good', says: say(`${name} gets all it needs while it runs.`) }] : [];
    const { text: why, values } = causeOf(run, model, id, starves_s);
    const stopped = stops(id);
    const ends = stopped
      ? clockText(stopped.t_s) === clockText(starves_s)
        ? ' It stops.'
        : ` It stops at ${clockText(stopped.t_s)}.`
      : starved_s < duration_s - starves_s - 1
        ? ` It is short for ${clockText(starved_s)} in all.`
        : '';
    return [
      {
        severity: 'stop',
        t_s: starves_s,
        says: say(
          starves_s === 0
            ? `${name} gets too little from the beginning${why}.${ends}`
            : `${name} runs for ${clockText(starves_s)}, then gets too little${why}.${ends}`,
          values,
        ),
      },
    ];
  });
}

/** Nozzles of the system, and what they were held into. */
const nozzlesOf = ({ events }: Simulated): VerdictLine[] =>
  events.flatMap(({ kind, name, t_s }): VerdictLine[] => {
    if (kind === 'nozzle-shuts')
      return [
        { severity: 'good', t_s, says: say(`What ${name} is held into is full at ${clockText(t_s)}, and it shuts.`) },
      ];
    if (kind === 'runs-over')
      return [
        {
          severity: 'stop',
          t_s,
          says: say(`${name} is full at ${clockText(t_s)}, and runs over until somebody shuts the nozzle.`),
        },
      ];
    return [];
  });

const AIR: ReadonlySet<EventKind> = new Set(['draws-air', 'line-empty', 'air-arrives']);

/** What had gone on in what feeds a consumer when it began to starve: air on its way, or a tank under vacuum. */
function causeOf({ events, samples }: Simulated, { circuits, tanks }: At['model'], id: string, at_s: number): Message {
  const feed = new Set(feedPath(circuits, id));
  const air = events.findLast(
    ({ kind, of, t_s }) => t_s <= at_s && feed.has(of) && (AIR.has(kind) || kind === 'line-clear'),
  );
  if (air && air.kind !== 'line-clear') return say(`: ${air.name} has drawn air`);
  const then = samples.findLast(({ t_s }) => t_s <= at_s)!;
  const drawn = reachedTanks(circuits, id)
    .map(({ tank }) => ({ name: tanks[tank]!.document.name, gauge_Pa: then.tanks[tank]!.gauge_Pa }))
    .sort((one, other) => one.gauge_Pa - other.gauge_Pa)[0];
  if (!drawn || drawn.gauge_Pa >= -PRESSED_PA) return say('');
  return say(`: ${drawn.name} is drawn to {vacuum} by then`, { vacuum: { value: drawn.gauge_Pa, role: 'pressure' } });
}

function pressuresOf({ samples }: Simulated, { tanks }: Tally): VerdictLine[] {
  const pressed = tanks.flatMap(({ name, most_Pa, least_Pa }, t): VerdictLine[] => {
    const first = (isSo: (gauge_Pa: number) => boolean): number | undefined =>
      samples.find(({ tanks: now }) => isSo(now[t]!.gauge_Pa))?.t_s;
    const bursts_s = first((gauge_Pa) => gauge_Pa > BURSTS_PA);
    const caves_s = first((gauge_Pa) => gauge_Pa < CAVES_PA);
    const over =
      bursts_s !== undefined
        ? {
            severity: 'stop' as const,
            t_s: bursts_s,
            says: say(
              `${name} comes under more than {pressure} at ${clockText(bursts_s)}: no sheet tank stands that, and what follows is not so.`,
              { pressure: { value: BURSTS_PA, role: 'pressure' } },
            ),
          }
        : {
            severity: 'warn' as const,
            t_s: most_Pa.t_s,
            says: say(
              `${name} comes under {pressure} at ${clockText(most_Pa.t_s)}: flats bulge, and whatever is opened first blows.`,
              { pressure: { value: most_Pa.value, role: 'pressure' } },
            ),
          };
    const under =
      caves_s !== undefined
        ? {
            severity: 'stop' as const,
            t_s: caves_s,
            says: say(
              `${name} is drawn to less than {vacuum} at ${clockText(caves_s)}: few sheet tanks stand that, and what follows may not be so.`,
              { vacuum: { value: CAVES_PA, role: 'pressure' } },
            ),
          }
        : {
            severity: 'warn' as const,
            t_s: least_Pa.t_s,
            says: say(`${name} is drawn to {vacuum} at ${clockText(least_Pa.t_s)}: flats pull in.`, {
              vacuum: { value: least_Pa.value, role: 'pressure' },
            }),
          };
    return [...(most_Pa.value > PRESSED_PA ? [over] : []), ...(least_Pa.value < -PRESSED_PA ? [under] : [])];
  });
  const most_Pa = Math.max(...tanks.map((tank) => Math.max(tank.most_Pa.value, -tank.least_Pa.value)));
  return pressed.length > 0
    ? pressed
    : [
        {
          severity: 'good',
          says: say('No tank comes more than {most} off the air outside.', {
            most: { value: Math.max(FREE_PA, most_Pa), role: 'pressure' },
          }),
        },
      ];
}

function unknownOf({ capsNotSaid }: Tally): VerdictLine[] {
  if (capsNotSaid.length === 0) return [];
  const names = capsNotSaid.map(({ name }) => name).join(', ');
  const [what, is] = capsNotSaid.length === 1 ? ['the cap of', 'it is'] : ['the caps of', 'they are'];
  return [
    {
      severity: 'note',
      says: say(
        `Nothing is said of ${what} ${names}: ${is} taken as tight, so what would come out there is not known.`,
      ),
    },
  ];
}
