import { documentAt, playedFor, scenariosFor } from '@/core/answers';
import { readJson } from '@/core/formats';
import { allSteps } from '@/core/steps';
import { messageText } from '@/core/units';
import { readText, UsageError } from './args';
import { failed, type Verb } from './verb';

export const simulate: Verb = {
  name: 'simulate',
  summary: 'a scenario played over time: levels, pressures over the liquid, flows, and what happens when',
  prints:
    'without --scenario: scenarios[] that are ready for this system (key, asks, scenario). With it: ok, verdict[] (severity, says, t_s or null), and tally: tanks[] (most_Pa, least_Pa of the gas over the liquid, most_m3, least_m3, each with t_s; atEnd_m3), consumers[] (burnt_m3, starves_s or null, starved_s), pours[] (port, ends, t_s, began_s, tank, volume_m3), spilt[] (id, volume_m3, from_s), capsNotSaid[] (fillers taken to be tight, since nothing is said of their caps); events[] (t_s, kind, of, name); samples[] (t_s, pitch_deg, roll_deg, temperature_K, tanks[] (volume_m3, gauge_Pa, offset_m), lines_m3PerS[], consumers_m3PerS[], in the plan’s order); totals; unaccounted (shares of what moved); or error',
  options: {
    scenario: 'the key of a ready one, or a JSON file with one (docs/format/scenario.md)',
    samples: 'no: leaves the samples out',
  },
  needs: 'nothing',
  run: (system, options) => {
    const { scenario, samples = 'yes' } = options;
    if (samples !== 'yes' && samples !== 'no') throw new UsageError(`--samples wants yes or no; it is "${samples}".`);
    const at = documentAt(system);
    if (!at.ok) throw new UsageError(`${at.error.at}: ${at.error.detail}`);
    const ready = scenariosFor(
      at.value.model.circuits,
      at.value.model.tanks.map(({ gross_m3 }) => gross_m3),
    );
    if (scenario === undefined) return { system: system.name, scenarios: ready };
    const played = allSteps(playedFor(system, askedFor(scenario, new Set(ready.map(({ key }) => key)))));
    if (!played.ok) {
      const { code, at: where, detail } = played.error;
      if (NOT_ASKED_WELL.has(code)) throw new UsageError(`scenario: ${where} ${detail}`);
      return { system: system.name, ...failed(played.error) };
    }
    const { run, tally, verdict } = played.value;
    return {
      system: system.name,
      ok: true,
      verdict: verdict.map(({ severity, says, t_s }) => ({
        severity,
        says: messageText(says, 'metric'),
        t_s: t_s ?? null,
      })),
      tally: {
        ...tally,
        consumers: tally.consumers.map((consumer) => ({ ...consumer, starves_s: consumer.starves_s ?? null })),
        spilt: tally.spilt.map((spilt) => ({ ...spilt, from_s: spilt.from_s ?? null })),
      },
      events: run.events,
      ...(samples === 'yes' ? { samples: run.samples } : {}),
      totals: run.totals,
      unaccounted: run.unaccounted,
      work: run.work,
    };
  },
};

/** What is wrong with what was asked, not with how it went. */
const NOT_ASKED_WELL: ReadonlySet<string> = new Set([
  'not-a-scenario',
  'no-such-part',
  'not-such-a-part',
  'no-order',
  'no-such-scenario',
]);

/** A ready one by its key, or what stands in a file. */
function askedFor(text: string, keys: ReadonlySet<string>): unknown {
  if (keys.has(text) || !text.includes('.')) return text;
  const read = readJson(readText(text));
  if (!read.ok) throw new UsageError(`${text} is not a scenario: ${read.error.detail}`);
  return read.value;
}
