import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { VERBS } from '@/cli';
import { runVerb } from '@/cli/verb';
import { evaluateSystem } from '@/core/answers';
import { parseSystemText } from '@/core/plan';
import { unwrap } from '@/core/outcome';
import { contradictionsIn, notNumbers, withDrawnConditions } from './contradictions';
import { ownSystems } from './ownSystems';

const DEMO = readdirSync('demo')
  .filter((file) => file.endsWith('.json'))
  .map((file) => ({ name: file, system: unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8'))) }));
const SEEDS = Array.from({ length: 10 }, (_, i) => i + 1);

/** As it would come in from a file, so that only what the format takes is tried. */
const OWN = ownSystems().map(({ name, system }) => ({ name, system: unwrap(parseSystemText(JSON.stringify(system))) }));

describe.each([...DEMO, ...OWN])('$name at ten conditions', ({ system }) => {
  it('panels, charts and findings say the same, and each verb prints numbers', () => {
    const found = SEEDS.flatMap((seed) => {
      const at = withDrawnConditions(system, seed);
      const full = unwrap(evaluateSystem(at, 'full', 'without-fit'));
      const printed = VERBS.filter(({ name }) => name !== 'fit').flatMap((verb) =>
        notNumbers(runVerb(verb, at, {}), verb.name),
      );
      return [...contradictionsIn(at, full), ...printed].map((what) => `${seed}: ${what}`);
    });
    expect(found).toEqual([]);
  });

  it('its fit is told in numbers, or said to fail', () => {
    const fit = VERBS.find(({ name }) => name === 'fit')!;
    expect(notNumbers(runVerb(fit, system, {}), 'fit')).toEqual([]);
  });
});
