import { TIMED, type Scenario } from '../../plan/schemaScenario';

type Entry = { readonly at_s: number };

/** The entry that holds at a time: the last that has begun; undefined before the first. */
export const holdsAt = <T extends Entry>(entries: readonly T[], t_s: number): T | undefined =>
  entries.reduce<T | undefined>((last, entry) => (entry.at_s <= t_s ? entry : last), undefined);

/** A value that steps or goes evenly from one entry to the next; what it is before the first is given. */
export function courseOf<T extends Entry & { readonly evenly?: boolean }>(
  entries: readonly T[],
  value: (entry: T) => number,
  before: number,
): (t_s: number) => number {
  return (t_s) => {
    const next = entries.findIndex(({ at_s }) => at_s > t_s);
    const last = next < 0 ? entries.at(-1) : entries[next - 1];
    const from = last ? value(last) : before;
    const to = next < 0 ? undefined : entries[next];
    if (!to || to.evenly === false) return from;
    const begins_s = last?.at_s ?? 0;
    return from + ((value(to) - from) * (t_s - begins_s)) / (to.at_s - begins_s);
  };
}

/** A slope that goes evenly is followed in steps of so much [degrees]: half a degree off at most. */
const SLOPE_STEP_DEG = 1;
/** Fuel runs as it does at one temperature for so many kelvin. */
const WARM_STEP_K = 4;

/** Times at which something is set, within a scenario; begin and end are none. */
export function breaksOf(scenario: Scenario, pitchBefore: number, rollBefore: number, kelvinBefore: number): number[] {
  const { temperatures, slopes, duration_s } = scenario;
  const times = new Set(TIMED.flatMap((list) => scenario[list].map(({ at_s }: Entry) => at_s)));
  const cut = (from_s: number, to_s: number, parts: number): void => {
    for (let part = 1; part < parts; part++) times.add(from_s + ((to_s - from_s) * part) / parts);
  };
  slopes.forEach((entry, i) => {
    if (!entry.evenly) return;
    const last = slopes[i - 1] ?? { at_s: 0, pitch_deg: pitchBefore, roll_deg: rollBefore };
    const turn = Math.max(Math.abs(entry.pitch_deg - last.pitch_deg), Math.abs(entry.roll_deg - last.roll_deg));
    cut(last.at_s, entry.at_s, Math.ceil(turn / SLOPE_STEP_DEG));
  });
  temperatures.forEach((entry, i) => {
    const last = temperatures[i - 1] ?? { at_s: 0, temperature_K: kelvinBefore };
    cut(last.at_s, entry.at_s, Math.ceil(Math.abs(entry.temperature_K - last.temperature_K) / WARM_STEP_K));
  });
  return [...times].filter((at_s) => at_s > 0 && at_s < duration_s).sort((a, b) => a - b);
}
