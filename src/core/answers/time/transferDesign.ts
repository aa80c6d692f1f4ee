import { burnOf_m3PerS } from '../../model/burn';
import { success, type Outcome } from '../../outcome';
import { reachedTanks } from '../../plan/circuits';
import { JOINED_BY, rejoined, type RejoinCode } from '../../plan/jobs';
import type { SystemDocument } from '../../plan/schema';
import { quiet, type Scenario } from '../../plan/schemaScenario';
import type { Steps } from '../../steps';
import { documentAt, type EvaluationCode } from '../at';
import { playedFor, type PlayedCode } from './playedFor';
import { sampleAt } from './sampleAt';
import { joinedBy, movingSets, RECEIVES_RATIO, standsFor, type Stand, type TransferSchool } from './transferSchools';
import type { VerdictLine } from './verdict';

/** What a school comes to on this system. */
export type SchoolResult = {
  readonly by: TransferSchool;
  /** It is how they are joined now. */ readonly isThere: boolean;
  readonly outcome: Outcome<SchoolCourse, RejoinCode | PlayedCode>;
};

export type SchoolCourse = {
  /** What leaves the one in the first minutes [m³/s]; of a selector what is drawn from it. */
  readonly first_m3PerS: number;
  /** Until a twentieth of it is left; undefined where it does not come to that. */ readonly emptied_s:
    number | undefined;
  readonly left_m3: number;
  readonly spilt_m3: number;
  /** When a consumer first gets too little, and who. */
  readonly starves: { readonly name: string; readonly t_s: number } | undefined;
  readonly lasts_s: number;
  /** What is grave in it, and what is not known, the worst first. */ readonly verdict: readonly VerdictLine[];
  readonly stands: readonly Stand[];
};

/** Moving is followed for so long at least and at most. */
const [LEAST_S, MOST_S] = [3600, 24 * 3600];
const LONGER = 1.2;
/** What leaves at first is seen over so long. */
const FIRST_S = 300;
const EMPTY_SHARE = 0.05;

/**
 * Every school of moving liquid from one tank to another, each made on this system and played: the one full, the other
 * nearly empty, everything that burns at full load, and nobody who stops it.
 */
export function* transferDesign(
  system: SystemDocument,
  s: number,
  t: number,
): Steps<Outcome<readonly SchoolResult[], EvaluationCode>> {
  const at = documentAt(system);
  if (!at.ok) return at;
  const now = joinedBy(system, s, t);
  const results: SchoolResult[] = [];
  for (const by of JOINED_BY) {
    const isThere = by === now;
    const made = isThere ? success(system) : rejoined(system, s, t, by);
    results.push({ by, isThere, outcome: made.ok ? yield* courseOf(made.value, s, t, by) : made });
  }
  return success(results);
}

function* courseOf(
  system: SystemDocument,
  s: number,
  t: number,
  by: TransferSchool,
): Steps<Outcome<SchoolCourse, PlayedCode | RejoinCode>> {
  const at = documentAt(system);
  if (!at.ok) return at;
  const { circuits, tanks } = at.value.model;
  const burns = circuits.consumers
    .filter(({ id }) => reachedTanks(circuits, id).some(({ tank }) => tank === s || tank === t))
    .reduce((sum, consumer) => sum + burnOf_m3PerS(consumer, 1), 0);
  const held = tanks[s]!.gross_m3 + tanks[t]!.gross_m3;
  const lasts_s = burns > 0 ? Math.min(MOST_S, Math.max(LEAST_S, (LONGER * held) / burns)) : 4 * LEAST_S;
  const stands = standsFor(system, s, t, by);
  const [from, to] = [system.tanks[s]!, system.tanks[t]!];
  const scenario: Scenario = {
    ...quiet(`Moved by ${by}`, Math.ceil(lasts_s)),
    fills: [
      { tank: from.id, fill_ratio: from.fillLimit_ratio.value },
      { tank: to.id, fill_ratio: RECEIVES_RATIO },
    ],
    duties: [{ at_s: 0, duty_ratio: 1, runs: true }],
    sets: movingSets(system, s, t),
    openings:
      by === 'vacuum'
        ? to.ports.flatMap(({ id, role }): Scenario['openings'] =>
            role === 'vent'
              ? [{ at_s: 0, port: id, stands: 'blocked' }]
              : role === 'filler'
                ? [{ at_s: 0, port: id, stands: 'on' }]
                : [],
          )
        : [],
  };
  const played = yield* playedFor(system, scenario);
  if (!played.ok) return played;
  const { run, tally, verdict } = played.value;
  const volume = (t_s: number): number => sampleAt(run.samples, t_s).tanks[s]!.volume_m3;
  const begins_m3 = volume(0);
  const first_s = Math.min(FIRST_S, lasts_s);
  const starves = tally.consumers
    .flatMap(({ name, starves_s }) => (starves_s === undefined ? [] : [{ name, t_s: starves_s }]))
    .sort((a, b) => a.t_s - b.t_s)[0];
  return success({
    first_m3PerS: (begins_m3 - volume(first_s)) / first_s,
    emptied_s: run.samples.find(({ tanks: now }) => now[s]!.volume_m3 <= EMPTY_SHARE * begins_m3)?.t_s,
    left_m3: run.samples.at(-1)!.tanks[s]!.volume_m3,
    spilt_m3: tally.spilt.reduce((sum, { volume_m3 }) => sum + volume_m3, 0),
    starves,
    lasts_s: scenario.duration_s,
    verdict: verdict.filter(({ severity }) => severity !== 'good'),
    stands,
  });
}
