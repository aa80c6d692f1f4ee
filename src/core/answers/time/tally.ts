import type { Scenario } from '../../plan/schemaScenario';
import type { At } from '../at';
import type { EventKind, Sample, Simulated } from './played';

/** The most or the least of something, and when it was. */
export type Extreme = { readonly value: number; readonly t_s: number };

/** What a builder asks of a course first. */
export type Tally = {
  readonly tanks: readonly {
    readonly id: string;
    readonly name: string;
    /** Of the gas over the liquid [Pa]. */ readonly most_Pa: Extreme;
    readonly least_Pa: Extreme;
    readonly most_m3: Extreme;
    readonly least_m3: Extreme;
    readonly atEnd_m3: number;
  }[];
  readonly consumers: readonly {
    readonly id: string;
    readonly name: string;
    readonly burnt_m3: number;
    /** First time that it starves; undefined where it never does. */ readonly starves_s: number | undefined;
    /** In all [s]. */ readonly starved_s: number;
  }[];
  /** Of each pour that ended: why, when, and what was in the tank then. */
  readonly pours: readonly {
    readonly port: string;
    readonly name: string;
    readonly ends: EventKind;
    readonly t_s: number;
    /** When it was begun. */ readonly began_s: number;
    readonly tank: string;
    readonly volume_m3: number;
  }[];
  readonly spilt: readonly {
    readonly id: string;
    readonly name: string;
    readonly volume_m3: number;
    readonly from_s: number | undefined;
  }[];
  /** Fillers of whose caps nothing is said: they were taken to be tight, so what comes out by them is not known. */
  readonly capsNotSaid: readonly { readonly id: string; readonly name: string }[];
};

const SHORT: ReadonlySet<EventKind> = new Set(['starves', 'fed', 'set', 'nozzle-shuts']);
const POUR_ENDS: ReadonlySet<EventKind> = new Set(['clicks-off', 'poured', 'neck-full']);

/** Sums a course up. */
export function tallyOf(
  { samples, events, totals }: Simulated,
  { model }: Pick<At, 'model'>,
  { pours }: Pick<Scenario, 'pours'>,
): Tally {
  const extreme = (value: (sample: Sample) => number, isMore: (a: number, b: number) => boolean): Extreme => {
    let best = samples[0]!;
    for (const sample of samples) if (isMore(value(sample), value(best))) best = sample;
    return { value: value(best), t_s: best.t_s };
  };
  const most = (value: (sample: Sample) => number): Extreme => extreme(value, (a, b) => a > b);
  const least = (value: (sample: Sample) => number): Extreme => extreme(value, (a, b) => a < b);
  const last = samples.at(-1)!;
  const { tanks, circuits } = model;
  const at = (t_s: number): Sample => samples.find((sample) => sample.t_s >= t_s) ?? last;
  return {
    tanks: tanks.map(({ document: { id, name } }, t) => ({
      id,
      name,
      most_Pa: most(({ tanks: now }) => now[t]!.gauge_Pa),
      least_Pa: least(({ tanks: now }) => now[t]!.gauge_Pa),
      most_m3: most(({ tanks: now }) => now[t]!.volume_m3),
      least_m3: least(({ tanks: now }) => now[t]!.volume_m3),
      atEnd_m3: last.tanks[t]!.volume_m3,
    })),
    consumers: circuits.consumers.map(({ id, name }) => {
      // Set anew or off, it is no longer said to starve.
      const own = events.filter(({ of, kind }) => of === id && SHORT.has(kind));
      let [starved_s, since_s] = [0, undefined as number | undefined];
      for (const { kind, t_s } of own) {
        if (kind === 'starves') since_s ??= t_s;
        else if (since_s !== undefined) [starved_s, since_s] = [starved_s + t_s - since_s, undefined];
      }
      return {
        id,
        name,
        burnt_m3: totals.burnt_m3.find((burnt) => burnt.id === id)?.volume_m3 ?? 0,
        starves_s: own.find(({ kind }) => kind === 'starves')?.t_s,
        starved_s: starved_s + (since_s === undefined ? 0 : last.t_s - since_s),
      };
    }),
    pours: events
      .filter(({ kind }) => POUR_ENDS.has(kind))
      .flatMap(({ kind, of, name, t_s }) => {
        const t = tanks.findIndex((tank) => tank.ports.some(({ document }) => document.id === of));
        const tank = tanks[t];
        const began_s = pours.findLast(({ port, at_s }) => port === of && at_s <= t_s)?.at_s;
        if (!tank || began_s === undefined) return [];
        const volume_m3 = at(t_s).tanks[t]!.volume_m3;
        return [{ port: of, name, ends: kind, t_s, began_s, tank: tank.document.id, volume_m3 }];
      }),
    spilt: totals.spilt_m3.map(({ id, volume_m3 }) => {
      const spills = events.find(({ kind, of }) => kind === 'spills' && of === id);
      const ports = tanks.flatMap((tank) => tank.ports.map(({ document }) => document));
      const name = [...ports, ...circuits.components].find((each) => each.id === id)?.name ?? id;
      return { id, name, volume_m3, from_s: spills?.t_s };
    }),
    capsNotSaid: tanks.flatMap((tank) =>
      tank.ports.flatMap(({ document: { id, name, role, cap } }) =>
        role === 'filler' && cap === undefined ? [{ id, name }] : [],
      ),
    ),
  };
}
