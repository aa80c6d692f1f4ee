import { failure, success, type Outcome } from '../../outcome';
import type { PlanAt } from '../../plan/schema';
import { parseScenario, type ScenarioCode } from '../../plan/schemaScenario';
import type { Steps } from '../../steps';
import { documentAt, type EvaluationCode } from '../at';
import type { Simulated } from './played';
import { scenariosFor } from './scenarios';
import { simulate, type SimulateCode } from './simulate';
import { tallyOf, type Tally } from './tally';

export type Played = { readonly run: Simulated; readonly tally: Tally };
export type PlayedCode = SimulateCode | ScenarioCode | EvaluationCode | 'no-such-scenario';

/**
 * A scenario played on a system.
 *
 * @param asked the scenario, or the key of one that is ready for this system
 */
export function* playedFor(system: PlanAt, asked: unknown): Steps<Outcome<Played, PlayedCode>> {
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
  const run = yield* simulate(at.value, scenario.value);
  return run.ok ? success({ run: run.value, tally: tallyOf(run.value, at.value) }) : run;
}
