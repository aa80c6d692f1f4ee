import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import {
  draftSystem,
  JOINED_BY,
  parseScenario,
  parseSystem,
  parseSystemText,
  rejoined,
  withSecondTank,
  type SystemDocument,
} from '../../plan';
import { allSteps } from '../../steps';
import { messageText } from '../../units';
import { joinablePairs, joinedBy, playedFor, readyFor, transferDesign, type SchoolResult } from '.';

const demo = (name: string): SystemDocument => unwrap(parseSystemText(readFileSync(`demo/${name}.json`, 'utf8')));
const VAN = draftSystem({ name: 'Van', vehicle: 'road', consumer: 'diesel-engine', power_W: 60e3, holds_m3: 0.06 });
const second = (by: (typeof JOINED_BY)[number], stands: 'behind' | 'above' = 'behind'): SystemDocument =>
  withSecondTank(VAN, 0, { holds_m3: 0.05, by, stands, vent: 'vent-line' });

beforeAll(loadKernel);

describe('two tanks joined otherwise', () => {
  const from = [
    ...JOINED_BY.map((by) => [by, second(by), 1, 0] as const),
    ['demo', demo('snow-vehicle'), 1, 0] as const,
  ];
  it.each(from.flatMap(([name, system, s, t]) => JOINED_BY.map((by) => [name, by, system, s, t] as const)))(
    'from %s to %s: a system that is whole, joined so, with nothing left over',
    (_name, by, system, s, t) => {
      const made = unwrap(parseSystem(unwrap(rejoined(system, s, t, by))));
      expect(joinedBy(made, s, t)).toBe(by);
      expect(made.tanks).toHaveLength(system.tanks.length);
      expect(made.consumers).toEqual(system.consumers);
      const ids = new Set([
        ...made.components.map(({ id }) => id),
        ...made.consumers.map(({ id }) => id),
        ...made.tanks.flatMap((tank) => [...tank.ports, ...tank.pickups].map(({ id }) => id)),
      ]);
      const used = made.lines.flatMap(({ from: begin, to }) => [begin.item, to.item]);
      for (const item of used) expect(ids.has(item), item).toBe(true);
      // No part hangs in the air that the first system did not have so.
      const loose = ({ components, lines }: SystemDocument): string[] =>
        components
          .map(({ id }) => id)
          .filter((id) => !lines.some((line) => line.from.item === id || line.to.item === id));
      expect(loose(made)).toEqual(loose(system));
      expect(made.components.filter(({ kind }) => kind === 'selector')).toHaveLength(by === 'selector' ? 1 : 0);
      // There and back it is joined as it was.
      const now = joinedBy(system, s, t)!;
      expect(joinedBy(unwrap(rejoined(made, s, t, now)), s, t)).toBe(now);
    },
  );

  it('says why where it cannot be', () => {
    const boat = demo('crab-boat');
    const car = demo('hill-climb-car');
    expect(rejoined(boat, 0, 0, 'pump')).toMatchObject({ error: { code: 'not-two-tanks' } });
    expect(rejoined(boat, 0, 9, 'pump')).toMatchObject({ error: { code: 'not-two-tanks' } });
    expect(rejoined(car, 0, 1, 'pump')).toMatchObject({ error: { code: 'other-fluid' } });
    expect(rejoined(boat, 1, 0, 'pump')).toMatchObject({ error: { code: 'not-straight' } });
    const bare = { ...VAN, tanks: second('pump').tanks.map((tank) => ({ ...tank, pickups: [] })) };
    expect(rejoined(bare, 1, 0, 'pump')).toMatchObject({ error: { code: 'no-pickup' } });
  });
});

describe('the schools beside each other', () => {
  const design = (system: SystemDocument): Record<string, SchoolResult> =>
    Object.fromEntries(unwrap(allSteps(transferDesign(system, 1, 0))).map((result) => [result.by, result]));
  const told = ({ outcome }: SchoolResult): string =>
    outcome.ok ? outcome.value.verdict.map(({ says }) => messageText(says, 'metric')).join('\n') : outcome.error.detail;

  it('on the snow vehicle: the pump left on overfills, a sealed main does not, and a selector moves nothing over', () => {
    const { pump, gravity, vacuum, selector } = design(demo('snow-vehicle'));
    expect([pump, gravity, vacuum, selector].map((each) => each!.isThere)).toEqual([true, false, false, false]);
    const of = (result: SchoolResult | undefined) => unwrap(result!.outcome);
    expect(of(pump).spilt_m3).toBeGreaterThan(1e-3);
    expect(told(pump!)).toMatch(/comes out by Vent with rollover valve/);
    expect(of(vacuum).spilt_m3).toBe(0);
    expect(of(vacuum).stands).toContainEqual(expect.objectContaining({ id: 'vent', moving: 'SHUT', resting: 'open' }));
    expect(told(vacuum!)).toMatch(/Main tank is drawn to −/);
    expect(of(selector).spilt_m3).toBe(0);
    // What a selector draws is what the engine burns.
    const burns = demo('snow-vehicle').consumers[0]!.burnFull_m3PerS.value;
    expectClose(of(selector).first_m3PerS, burns, { rel: 0.02, why: 'the engine alone draws by it' });
    expect(of(gravity).stands.map(({ moving, resting }) => `${moving} ${resting}`)).toContain('open SHUT');
  });

  it('as it is joined now, it is what the same scenario comes to on the system itself', () => {
    const system = demo('snow-vehicle');
    const there = unwrap(design(system).pump!.outcome);
    const { run, tally } = unwrap(
      allSteps(
        playedFor(system, {
          name: 'same',
          duration_s: there.lasts_s,
          fills: [
            { tank: 'aux', fill_ratio: system.tanks[1]!.fillLimit_ratio.value },
            { tank: 'main', fill_ratio: 0.2 },
          ],
          duties: [{ at_s: 0, duty_ratio: 1, runs: true }],
          sets: [{ at_s: 0, part: 'transfer-pump', on: true }],
        }),
      ),
    );
    expect(there.left_m3).toBe(run.samples.at(-1)!.tanks[1]!.volume_m3);
    expect(there.spilt_m3).toBe(tally.spilt.reduce((sum, { volume_m3 }) => sum + volume_m3, 0));
  });

  it('under way, as a ready scenario: with the pump on and the engine at work, and by whatever name tanks have', () => {
    const keys = (system: SystemDocument): string[] => unwrap(readyFor(system)).map(({ key }) => key);
    const system = demo('snow-vehicle');
    const moved = unwrap(allSteps(playedFor(system, 'transfer-aux-main')));
    expect(moved.run.totals.burnt_m3.some(({ volume_m3 }) => volume_m3 > 0.01)).toBe(true);
    expect(moved.run.samples.at(-1)!.tanks[1]!.volume_m3).toBeLessThan(0.005);
    expect(keys(demo('crab-boat')).some((key) => key.startsWith('transfer'))).toBe(false);
    const long = { ...system, tanks: system.tanks.map((tank) => ({ ...tank, name: `${tank.id}${'n'.repeat(76)}` })) };
    for (const { key, scenario } of unwrap(readyFor(long)))
      expect(parseScenario(scenario, long), key).toMatchObject({ ok: true });
  });

  it('a tank above drains by gravity until it is empty, and nothing is lost on the way', () => {
    const { gravity } = design(second('gravity', 'above'));
    const { emptied_s, left_m3, first_m3PerS } = unwrap(gravity!.outcome);
    expect(gravity!.isThere).toBe(true);
    expect(emptied_s).toBeGreaterThan(0);
    expect(left_m3).toBeLessThan(0.003);
    expect(first_m3PerS).toBeGreaterThan(1e-5);
  });

  it('odd pairs: what was there is left, moved, burnt or spilt, and no figure is missing', () => {
    for (const [by, stands, holds_m3] of [
      ['gravity', 'above', 0.004],
      ['vacuum', 'beside', 0.3],
      ['selector', 'behind', 0.02],
      ['pump', 'above', 0.01],
    ] as const) {
      const system = withSecondTank(VAN, 0, { holds_m3, by, stands, vent: 'vented-cap' });
      for (const { by: school, outcome } of Object.values(design(system))) {
        const course = unwrap(outcome);
        const said = `${by}, ${school}`;
        for (const value of [course.first_m3PerS, course.left_m3, course.spilt_m3, course.lasts_s])
          expect(Number.isFinite(value), said).toBe(true);
        expect(course.left_m3, said).toBeGreaterThanOrEqual(0);
        expect(course.left_m3, said).toBeLessThan(1.3 * holds_m3);
        expect(course.spilt_m3, said).toBeGreaterThanOrEqual(0);
        if (course.emptied_s !== undefined) expect(course.emptied_s, said).toBeLessThanOrEqual(course.lasts_s);
        // Of a cap that nobody has described it is said that it is taken as tight.
        const unsaid = system.tanks.some(({ ports }) => ports.some(({ role, cap }) => role === 'filler' && !cap));
        expect(
          course.verdict.some(({ severity }) => severity === 'note'),
          said,
        ).toBe(unsaid);
      }
    }
  });

  it('pairs: those that are joined first; none between fluids, nor without a pickup', () => {
    expect(joinablePairs(demo('snow-vehicle'))[0]).toEqual([1, 0]);
    expect(joinablePairs(demo('hill-climb-car'))).toEqual([]);
    expect(joinablePairs(VAN)).toEqual([]);
    // Its pickup feeds a heater.
    expect(joinablePairs(demo('crab-boat'))).toEqual([]);
    // By a selector the second end gives way to the first, and not the other way round.
    expect(joinablePairs(second('selector'))).toEqual([[1, 0]]);
    expect(rejoined(second('selector'), 0, 1, 'pump')).toMatchObject({ error: { code: 'not-straight' } });
  });
});
