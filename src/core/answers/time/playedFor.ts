import { compile, type ModelCode } from '../../model';
import { failure, success, type Outcome } from '../../outcome';
import type { Plan, PlanAt } from '../../plan/schema';
import { parseScenario, type ScenarioCode } from '../../plan/parseScenario';
import { type Scenario } from '../../plan/schemaScenario';
import type { Steps } from '../../steps';
import { documentAt, type EvaluationCode } from '../at';
import type { Sample, Simulated } from './played';
import { scenariosFor, type ReadyScenario } from './scenarios';
import { simulate, type SimulateCode } from './simulate';
import { tallyOf, type Tally } from './tally';
import { verdictOf, type VerdictLine } from './verdict';

/** What a course was, what it comes to, and what was asked. */
export type Played = {
  readonly run: Simulated;
  readonly tally: Tally;
  readonly verdict: readonly VerdictLine[];
  readonly scenario: Scenario;
};
export type PlayedCode = SimulateCode | ScenarioCode | EvaluationCode | 'no-such-scenario';

/** The scenarios that are ready for a system. */
export function readyFor(plan: Plan): Outcome<readonly ReadyScenario[], ModelCode> {
  const model = compile(plan);
  if (!model.ok) return model;
  const { circuits, tanks } = model.value;
  return success(
    scenariosFor(
      circuits,
      tanks.map(({ gross_m3 }) => gross_m3),
    ),
  );
}

/** How far a course has come, and how it all stands there. */
export type PlayNews = {
  readonly progress: { readonly sample: Sample; readonly duration_s: number };
  /** Worked for so long, where who hands it on has a clock. */ readonly seconds?: number;
};

/**
 * A scenario played on a system.
 *
 * @param asked the scenario, or the key of one that is ready for this system
 * @param tell is told of each moment as it has been worked out
 */
export function* playedFor(
  system: PlanAt,
  asked: unknown,
  tell?: (news: PlayNews) => void,
): Steps<Outcome<Played, PlayedCode>> {
  const at = documentAt(system);
  if (!at.ok) return at;
  const ready = scenariosFor(
    at.value.model.circuits,
    at.value.model.tanks.map(({ gross_m3 }) => gross_m3),
  );
  const found = typeof asked === 'string' ? ready.find(({ key }) => key === asked)?.scenario : asked;
  if (found === undefined)
    return failure(
      'no-such-scenario',
      'scenario',
      `There is no scenario "${String(asked)}" for this system; there is ${ready.map(({ key }) => key).join(', ')}.`,
    );
  const scenario = parseScenario(found, system);
  if (!scenario.ok) return scenario;
  const { duration_s } = scenario.value;
  const run = yield* simulate(
    at.value,
    scenario.value,
    tell && ((sample) => tell({ progress: { sample, duration_s } })),
  );
  if (!run.ok) return run;
  const tally = tallyOf(run.value, at.value, scenario.value);
  return success({
    run: run.value,
    tally,
    verdict: verdictOf(run.value, tally, at.value, scenario.value),
    scenario: scenario.value,
  });
}
