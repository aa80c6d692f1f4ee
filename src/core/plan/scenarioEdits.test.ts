import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { unwrap } from '../outcome';
import {
  entriesOf,
  firstEntry,
  parseScenario,
  parseSystem,
  parseSystemText,
  quiet,
  setOf,
  settable,
  TIMED,
  withoutTimed,
  withTimed,
  withTimedChanged,
  type SystemDocument,
} from '.';

const DEMOS = readdirSync('demo').map((file): SystemDocument =>
  unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8'))),
);
const EMPTY = quiet('Made by hand', 3600);

describe.each(DEMOS.map((system) => [system.name, system] as const))('%s: a scenario made by hand', (_, system) => {
  const lists = TIMED.filter((list) => firstEntry(list, system, 0) !== undefined);

  it('is one that can be played, whatever is added, moved and taken out, and stays in order', () => {
    const step = fc.record({
      list: fc.constantFrom(...lists),
      what: fc.constantFrom('add', 'move', 'remove'),
      at_s: fc.integer({ min: 0, max: 3600 }),
      index: fc.nat(5),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
        let scenario = EMPTY;
        for (const { list, what, at_s, index } of steps) {
          const before = scenario[list].length;
          if (what === 'add') {
            scenario = withTimed(scenario, list, firstEntry(list, system, at_s)!);
            expect(scenario[list]).toHaveLength(before + 1);
          } else if (what === 'move') scenario = withTimedChanged(scenario, list, index, { at_s });
          else {
            scenario = withoutTimed(scenario, list, index);
            expect(scenario[list]).toHaveLength(index < before ? before - 1 : before);
          }
        }
        expect(parseScenario(scenario, system)).toMatchObject({ ok: true });
        const all = entriesOf(scenario);
        expect(all).toHaveLength(TIMED.reduce((sum, list) => sum + scenario[list].length, 0));
        for (const [n, { list, index, at_s, entry }] of all.entries()) {
          expect(scenario[list][index]).toBe(entry);
          if (n > 0) expect(at_s).toBeGreaterThanOrEqual(all[n - 1]!.at_s);
        }
        // It is kept with the system as it is.
        expect(unwrap(parseSystem({ ...system, scenarios: [scenario] })).scenarios).toEqual([scenario]);
      }),
      { numRuns: 40, seed: 7 },
    );
  });

  it('every part that can be set is first set to how it does not stand', () => {
    for (const part of settable(system)) {
      const set = setOf(part);
      expect(parseScenario({ ...EMPTY, sets: [{ at_s: 0, part: part.id, ...set }] }, system)).toMatchObject({
        ok: true,
      });
      if (part.kind === 'valve') expect(set.on).toBe(!part.open);
      if (part.kind === 'pump') expect(set.on).toBe(!part.running);
    }
  });
});

it('where there is nothing of the kind, nothing is set', () => {
  const [boat] = DEMOS as [SystemDocument];
  const bare = { ...boat, components: [], tanks: boat.tanks.map((tank) => ({ ...tank, ports: [] })) };
  for (const list of ['volts', 'sets', 'openings', 'pours'] as const) expect(firstEntry(list, bare, 0)).toBeUndefined();
  for (const list of ['slopes', 'temperatures', 'duties'] as const)
    expect(firstEntry(list, bare, 5)).toMatchObject({ at_s: 5 });
});

it.each([
  ['scenarios[0].duration_s', { ...EMPTY, duration_s: 0 }],
  ['scenarios[0].slopes[0].pitch_deg', { ...EMPTY, slopes: [{ at_s: 0, pitch_deg: 200, roll_deg: 0, evenly: false }] }],
  ['scenarios[0]', { ...EMPTY, surprise: 1 }],
])('a system with a scenario that is none is refused at %s', (at, scenario) => {
  const [boat] = DEMOS as [SystemDocument];
  expect(parseSystem({ ...boat, scenarios: [scenario] })).toMatchObject({ ok: false, error: { at } });
});
