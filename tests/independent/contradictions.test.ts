import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { VERBS } from '@/cli';
import { evaluated } from '@/cli/verb';
import { parseSystemText } from '@/core/document';
import { unwrap } from '@/core/outcome';
import { contradictionsIn, notNumbers, withDrawnConditions } from './contradictions';
import { ownSystems } from './ownSystems';

const DEMO = readdirSync('demo').filter((file) => file.endsWith('.json')).map((file) => ({ name: file, system: unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8'))) }));
const SEEDS = Array.from({ length: 10 }, (_, i) => i + 1);

/** As it would come in from a file, so that only what the format takes is tried. */
const OWN = ownSystems().map(({ name, system }) => ({ name, system: unwrap(parseSystemText(JSON.stringify(system))) }));

describe.each([...DEMO, ...OWN])('$name at ten conditions', ({ system }) => {
  it('panels, charts and findings say the same', () => {
    const found = SEEDS.flatMap((seed) => contradictionsIn(withDrawnConditions(system, seed)).map((what) => `${seed}: ${what}`));
    expect(found).toEqual([]);
  });

  it('each verb prints numbers, or says why there is none', () => {
    const found = SEEDS.slice(0, 2).flatMap((seed) => {
      const at = withDrawnConditions(system, seed);
      const evaluation = evaluated(at, 'without-fit');
      return VERBS.filter(({ name, fit }) => !fit && name !== 'fit').flatMap((verb) => notNumbers(verb.run(at, evaluation, {}), `${seed} ${verb.name}`));
    });
    expect(found).toEqual([]);
  });
});
