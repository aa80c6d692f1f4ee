import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { documentAt } from '@/core/answers/at';
import { Course } from '@/core/answers/time/course';
import { dynamicsOf } from '@/core/answers/time/simulate';
import { loadKernel } from '@/core/geometry';
import { unwrap } from '@/core/outcome';
import { parseSystemText } from '@/core/plan';
import { parseScenario } from '@/core/plan/parseScenario';
import { quiet, type Scenario } from '@/core/plan/schemaScenario';
import { Stepper } from '@/core/time';
import { expectClose } from '../expectClose';
import { solvedByOdex } from '../odex';

beforeAll(loadKernel);

/** The rates of a demo system as they are at the beginning of a scenario in which nothing is set later. */
function begun(file: string, scenario: Partial<Scenario>) {
  const system = unwrap(parseSystemText(readFileSync(`demo/${file}.json`, 'utf8')));
  const asked = unwrap(parseScenario({ ...quiet('Check', 3600), ...scenario }, system));
  const course = new Course(unwrap(documentAt(system)), asked);
  unwrap(course.set());
  unwrap(course.work());
  return { course, dynamics: dynamicsOf(course) };
}

describe('the same rates stepped by a general solver from the registry', () => {
  it.each([
    ['crab-boat', 20, {}],
    ['snow-vehicle', 12, {}],
    ['hill-climb-car', 1, { temperatures: [{ at_s: 600, temperature_K: 320 }] }],
    ['van-heater', 60, { temperatures: [{ at_s: 1000, temperature_K: 310 }] }],
  ] as const)('%s, %d s', (file, until_s, scenario) => {
    const { course, dynamics } = begun(file, scenario as Partial<Scenario>);
    const ours = new Stepper(dynamics, 0, course.y, 1e-3);
    while (ours.t_s < until_s) expect(ours.step(until_s, 1e-9)).toBeDefined();
    const mine = ours.y.slice();
    const out = new Float64Array(dynamics.size);
    const theirs = solvedByOdex(
      (t_s, y) => {
        dynamics.rates(t_s, Float64Array.from(y), out);
        return [...out];
      },
      [...course.y],
      until_s,
      // Not made for what is stiff: at the edge of what it can bear it swings, and gas that only comes in leaves too.
      [...dynamics.tolerance].map((each) => each / 1e4),
    );
    for (const [n, value] of theirs.y.entries())
      expectClose(mine[n]!, value, { abs: 3 * dynamics.tolerance[n]!, why: `value ${n}: a few tolerances` });
  });
});
