import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parseSystemText, toPath, valueAt, withValue, type SystemDocument } from '@/core/plan';
import { evaluateSystem } from '@/core/answers';
import { computations, forgetAnswers } from '@/core/memo';

const demo = (name: string): SystemDocument => {
  const parsed = parseSystemText(readFileSync(`demo/${name}.json`, 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
};

/** What is worked out anew when a system changes, by name; as a worker gets it, as a document of its own. */
function computedBy(system: SystemDocument, changed: SystemDocument, detail: 'full' | 'numbers'): string[] {
  forgetAnswers();
  evaluateSystem(structuredClone(system), detail, 'without-fit');
  const before = computations();
  evaluateSystem(structuredClone(changed), detail, 'without-fit');
  return Object.entries(computations()).flatMap(([name, count]) => (count > (before[name] ?? 0) ? [name] : []));
}

const DEMOS = ['crab-boat', 'snow-vehicle', 'hill-climb-car', 'forest-trailer'];
const put = (system: SystemDocument, path: string, value: unknown): SystemDocument =>
  withValue(system, toPath(path), value);
const scaled = (system: SystemDocument, path: string, by = 1.001): SystemDocument =>
  put(system, `${path}.value`, (valueAt(system, toPath(`${path}.value`)) as number) * by);

describe.each(DEMOS)('%s: an edit that cannot touch a computation does not make it again', (name) => {
  const system = demo(name);

  it.each(['full', 'numbers'] as const)('nothing at all where nothing changed, with %s', (detail) => {
    expect(computedBy(system, system, detail)).toEqual([]);
  });

  it.each([
    ['its name', put(system, 'name', 'Another')],
    ['its description', put(system, 'description', 'Another')],
    ['the reserve', scaled(system, 'wishes.reserve_ratio')],
    ['the rulebook', put(system, 'rulebook', 'small-craft')],
    ['what may not be done', put(system, 'constraints.noHotWork', !system.constraints.noHotWork)],
    ['the limit to surge', scaled(system, 'limits.surgeCompartment_m3')],
    ['the clearance', scaled(system, 'fit.clearance_m')],
  ])('nothing for %s', (_, changed) => {
    expect(computedBy(system, changed, 'full')).toEqual([]);
  });

  it.each([
    ['what was measured of the built tank', put(system, 'tanks.0.built', [])],
    ['pours', put(system, 'tanks.0.calibrations', [])],
  ])('no solver and no drawing for %s', (_, changed) => {
    const made = computedBy(system, changed, 'full');
    expect(made.filter((one) => !GLUE.has(one) || one === 'drawing' || one === 'tank model')).toEqual([]);
  });

  it('names, origins and spreads move no solver', () => {
    const renamed = put(put(system, 'tanks.0.name', 'Another tank'), 'lines.0.name', 'Another line');
    const doubted = put(renamed, 'lines.0.bore_m.spread', 0.0001);
    const known = put(doubted, 'tanks.0.material.thickness_m.origin', 'measured');
    expect(computedBy(system, known, 'full').filter((made) => !GLUE.has(made))).toEqual([]);
  });

  it('a line’s bore leaves the tanks alone, and a tank’s pickup the bodies', () => {
    const tankWork = ['tank body', 'tank walls', 'shape', 'worst attitude', 'vent over the slopes', 'gauge curve'];
    expect(computedBy(system, scaled(system, 'lines.0.bore_m'), 'full')).not.toEqual(
      expect.arrayContaining([expect.stringMatching(new RegExp(`^(${tankWork.join('|')})$`))]),
    );
    const lifted = computedBy(system, scaled(system, 'tanks.0.pickups.0.heightOffFloor_m'), 'numbers');
    expect(lifted).toContain('tank model');
    expect(lifted).not.toContain('tank body');
  });

  it('and one that can does', () => {
    const shape = system.tanks[0]!.shape;
    const size = 'length_m' in shape ? 'length_m' : 'diameter_m';
    const made = computedBy(system, scaled(system, `tanks.0.shape.${size}`), 'numbers');
    expect(made).toEqual(expect.arrayContaining(['shape', 'tank body', 'tank model', 'worst attitude', 'gauge curve']));
    expect(computedBy(system, scaled(system, 'lines.0.bore_m', 0.9), 'numbers')).toContain('steady flow');
  });
});

/** What is put together from answers and from what obstacles are called, without a solver. */
const GLUE: ReadonlySet<string> = new Set([
  'circuits',
  'levels and fluids',
  'tank model',
  'tank and fluid',
  'model',
  'surface',
  'tank',
  'pickup plan',
  'drawing',
  'flow',
  'lines',
]);
