import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { parseSystemText } from '../../plan';
import { quiet } from '../../plan/schemaScenario';
import { Stepper } from '../../time';
import { documentAt } from '../at';
import { Course } from './course';
import { dynamicsOf } from './simulate';

await loadKernel();

/** So much of what a tank can hold is changed to see what rates do then: several, so that kinks and bends tell. */
const NUDGES = [4e-7, 2e-7, 1e-7] as const;

/** Slopes over each acting value beside differences of rates, wherever these agree among themselves. */
function compared(demo: string, seconds: number) {
  const at = unwrap(documentAt(unwrap(parseSystemText(readFileSync(`demo/${demo}.json`, 'utf8')))));
  const warming = [0, 600].map((at_s) => ({ at_s, temperature_K: 288.15 + at_s / 60 }));
  const course = new Course(at, {
    ...quiet('Slopes', 600),
    duties: [{ at_s: 0, duty_ratio: 0.6, runs: true }],
    temperatures: warming,
  });
  unwrap(course.set());
  unwrap(course.work());
  const dynamics = dynamicsOf(course);
  const stepper = new Stepper(dynamics, 0, course.y, 0.1);
  while (stepper.t_s < seconds) stepper.step(seconds, 1e-8);
  const { size, acting } = dynamics;
  const columns = acting.map(() => new Float64Array(size));
  dynamics.slopes!(seconds, stepper.y, columns, new Float64Array(size));
  const rates = (y: Float64Array): Float64Array => {
    const out = new Float64Array(size);
    dynamics.rates(seconds, y, out);
    return out;
  };
  const found: { readonly slope: number; readonly difference: number; readonly size: number }[] = [];
  acting.forEach((index, a) => {
    const most = course.most[Math.floor(index / 3)]!;
    const scale = index % 3 === 0 ? most.mass_kg : most.gas_mol;
    const differences = NUDGES.map((share) => {
      const [more, less] = [1, -1].map((sign) => {
        const y = stepper.y.slice();
        y[index]! += sign * share * scale;
        return rates(y);
      });
      return more!.map((value, n) => (value - less![n]!) / (2 * share * scale));
    });
    const largest = Math.max(...columns[a]!.map(Math.abs));
    for (const row of acting) {
      const each = differences.map((column) => column[row]!);
      const spread = Math.max(...each) - Math.min(...each);
      // Where flow turns round or a valve opens, rates have no one slope.
      if (spread < 0.01 * Math.abs(each[2]!) && Math.abs(each[2]!) > 1e-6 * largest)
        found.push({ slope: columns[a]![row]!, difference: each[2]!, size: largest });
    }
  });
  return found;
}

describe('slopes of the rates', () => {
  it.each(['crab-boat', 'snow-vehicle', 'hill-climb-car', 'van-heater', 'forest-trailer'])(
    'are those of differences wherever there is but one (%s)',
    (demo) => {
      const found = [1, 20, 90].flatMap((seconds) => compared(demo, seconds));
      expect(found.length).toBeGreaterThan(5);
      for (const { slope, difference } of found)
        expect(Math.abs(slope - difference), `${slope} beside ${difference}`).toBeLessThan(0.03 * Math.abs(difference));
    },
  );
});
