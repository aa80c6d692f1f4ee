import { beforeAll, describe, expect, it } from 'vitest';
import { AFLOAT, ON_AXLES, ON_TRAILER } from '../../../../tests/raisedSystems';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { draftSystem } from '../../plan';
import type { StanceDocument, SystemDocument } from '../../plan/schema';
import { chosen } from '../../schema/known';
import { seeded } from '../../seeded';
import { judgedBy } from '../../rules';
import { withTankMoved } from '../../plan';
import { MOVED_M, standsOf, type OnWheels, type StandCase, type Stands } from './stands';

beforeAll(loadKernel);

const NONE = chosen(0);
/** A box of a tank of 200 litres, its corner at the datum. */
const tankAt = (x: number, y: number, z: number, id = 'main'): SystemDocument['tanks'][number] => {
  const [tank] = draftSystem({
    name: 'Box',
    vehicle: 'road',
    consumer: 'diesel-engine',
    power_W: 40e3,
    holds_m3: 0.1,
  }).tanks;
  return {
    ...tank!,
    id,
    name: id,
    mounting: { x_m: chosen(x), y_m: chosen(y), z_m: chosen(z), yaw_deg: NONE, pitch_deg: NONE, roll_deg: NONE },
    dimensions: 'inside',
    shape: { kind: 'box', length_m: chosen(1), width_m: chosen(0.5), height_m: chosen(0.4) },
    fillLimit_ratio: chosen(0.9),
    parts: [],
    slices: [],
    plates: [],
  };
};
const on = (stance: StanceDocument, tanks: SystemDocument['tanks'] = [tankAt(0, -0.25, 0.5)]): SystemDocument => ({
  ...draftSystem({ name: 'Box', vehicle: 'road', consumer: 'diesel-engine', power_W: 40e3, holds_m3: 0.1 }),
  tanks,
  stance,
});
const CENTRED: StanceDocument = { ...ON_AXLES, middle_m: NONE };
const stands = (system: SystemDocument): Stands => unwrap(standsOf(system));
const caseOf = (all: Stands, fill: StandCase['fill']): StandCase => all.cases.find((each) => each.fill === fill)!;
const wheelsOf = (system: SystemDocument, fill: StandCase['fill']): OnWheels =>
  unwrap(caseOf(stands(system), fill).wheels!);

describe('what axles bear', () => {
  it('full less empty is what the liquid weighs, shared by moments', () => {
    const [empty, full] = [wheelsOf(on(CENTRED), 'empty'), wheelsOf(on(CENTRED), 'full')];
    const fuel_kg = full.total_kg - empty.total_kg;
    expect(fuel_kg).toBeGreaterThan(0.18 * 800);
    // Its middle at 0.5 m, between axles at 2 m and −0.4 m.
    expect(full.axles[0]!.load_kg - empty.axles[0]!.load_kg).toBeCloseTo((fuel_kg * 0.9) / 2.4, 6);
    expect(full.axles[1]!.load_kg - empty.axles[1]!.load_kg).toBeCloseTo((fuel_kg * 1.5) / 2.4, 6);
    for (const { port_kg, starboard_kg } of full.axles) expect(port_kg).toBeCloseTo(starboard_kg, 6);
    expect(full.lifts).toEqual([]);
  });

  it('it does not matter when it was weighed', () => {
    const without = on(CENTRED, [tankAt(0.3, 0.1, 0.5)]);
    for (const weighed of ['dry', 'full'] as const) {
      const then = wheelsOf(without, weighed === 'dry' ? 'empty' : 'full');
      const again = on(
        {
          ...CENTRED,
          weighed,
          axles: CENTRED.axles!.map((axle, a) => ({
            ...axle,
            load_kg: chosen(then.axles[a]!.load_kg),
            portLoad_kg: chosen(then.axles[a]!.port_kg),
          })),
        },
        without.tanks,
      );
      for (const fill of ['empty', 'half', 'full'] as const) {
        const [one, other] = [wheelsOf(without, fill), wheelsOf(again, fill)];
        for (const [a, { port_kg, starboard_kg }] of one.axles.entries()) {
          expect(other.axles[a]!.port_kg).toBeCloseTo(port_kg, 6);
          expect(other.axles[a]!.starboard_kg).toBeCloseTo(starboard_kg, 6);
        }
      }
    }
  });

  it('a trailer’s coupling bears by its lever; behind the axle it is pulled up', () => {
    const stance = { ...ON_TRAILER, middle_m: NONE };
    const [empty, full] = ['empty' as const, 'full' as const].map((fill) => wheelsOf(on(stance), fill));
    const fuel_kg = full!.total_kg - empty!.total_kg;
    expect(full!.hitch_kg! - empty!.hitch_kg!).toBeCloseTo((fuel_kg * 0.5) / 3, 1);
    expect(wheelsOf(on(stance, [tankAt(-1.5, -0.25, 0.5)]), 'full').hitch_kg).toBeLessThan(empty!.hitch_kg!);
    const alone = caseOf(stands(on({ ...stance, hitch: undefined })), 'full').wheels!;
    expect(alone.ok ? '' : alone.error.code).toBe('no-base');
  });

  it('two axles under one beam bear the same; on springs of their own they bear as a beam on three springs', () => {
    const axle = (id: string, x: number, more: object = {}) => ({
      ...CENTRED.axles![0]!,
      id,
      name: id,
      x_m: chosen(x),
      load_kg: chosen(400),
      ...more,
    });
    const beam = [axle('front', 3), axle('a', 0), axle('b', -1, { sharesWithLast: true })];
    const together = wheelsOf(on({ ...CENTRED, axles: beam }), 'full');
    expect(together.axles[1]!.load_kg).toBeCloseTo(together.axles[2]!.load_kg, 9);
    // As one axle between the two would.
    const one = wheelsOf(
      on({ ...CENTRED, axles: [axle('front', 3), axle('ab', -0.5, { load_kg: chosen(800) })] }),
      'full',
    );
    expect(together.axles[1]!.load_kg * 2).toBeCloseTo(one.axles[1]!.load_kg, 6);
    const apart = wheelsOf(
      on({
        ...CENTRED,
        axles: beam.map(
          ({ sharesWithLast: _, ...rest }: ReturnType<typeof axle> & { sharesWithLast?: boolean }) => rest,
        ),
      }),
      'full',
    );
    // A stiff beam on three springs alike, by hand: a third each, and by distance from their middle.
    const more_kg = apart.total_kg - 1200;
    const [middle, spread] = [2 / 3, (7 / 3) ** 2 + (2 / 3) ** 2 + (5 / 3) ** 2];
    for (const [a, x] of [3, 0, -1].entries())
      expect(apart.axles[a]!.load_kg - 400).toBeCloseTo(
        more_kg * (1 / 3 + ((x - middle) * (0.5 - middle)) / spread),
        6,
      );
    // Softer, an axle bears less.
    const soft = wheelsOf(
      on({
        ...CENTRED,
        axles: [
          axle('front', 3, { rate_NPerM: chosen(2e5) }),
          axle('a', 0, { rate_NPerM: chosen(5e4) }),
          axle('b', -1),
        ],
      }),
      'full',
    );
    expect(soft.axles[1]!.load_kg).toBeLessThan(apart.axles[1]!.load_kg);
  });

  it('off the middle the near side bears more, to the moment; a wheel that lifts is named', () => {
    const { axles, centre_m, total_kg } = wheelsOf(on(CENTRED, [tankAt(0, 0.2, 0.5)]), 'full');
    const across = axles.reduce((sum, { port_kg, starboard_kg }) => sum + (port_kg - starboard_kg) * 0.6, 0);
    expect(across / total_kg).toBeCloseTo(centre_m[1], 9);
    expect(across).toBeCloseTo((total_kg - 1000) * 0.45, 6);
    const lifted = on(CENTRED, [tankAt(0, 9, 0.5)]);
    expect(wheelsOf(lifted, 'full').lifts).toEqual(['Front axle', 'Rear axle']);
    // What the others bear then is no number: nothing is said to be over, or under, or changed by moving.
    expect(stands(lifted).moved.every(({ axles_kg }) => axles_kg === undefined)).toBe(true);
    const judged = judgedBy('stands', lifted, standsOf(lifted))!;
    expect(judged.findings.map(({ id }) => id)).toEqual(['weight.lifts']);
    expect(judged.clear).not.toContain('weight.axle-over');
    expect(judged.clear).not.toContain('weight.whole-over');
  });

  it('several tanks: all alike, and each alone', () => {
    const two = stands(on(CENTRED, [tankAt(0, 0.3, 0.5, 'left'), tankAt(0, -0.8, 0.5, 'right')]));
    expect(two.cases.map(({ fill, tanks }) => [fill, ...tanks])).toEqual([
      ['empty', 0, 1],
      ['half', 0, 1],
      ['full', 0, 1],
      ['only', 0],
      ['only', 1],
    ]);
    const [left, right] = two.cases.slice(3).map(({ wheels }) => unwrap(wheels!));
    expect(left!.centre_m[1]).toBeCloseTo(-right!.centre_m[1], 9);
    expect(left!.centre_m[1]).toBeGreaterThan(0.01);
    const full = caseOf(two, 'full').aboard_kg + caseOf(two, 'empty').aboard_kg;
    expect(two.cases[3]!.aboard_kg + two.cases[4]!.aboard_kg).toBeCloseTo(full, 6);
  });
});

describe('how far it leans', () => {
  it('stiff and empty it goes over at half its track over the height of its weight', () => {
    const stance: StanceDocument = {
      ...CENTRED,
      weighed: 'dry',
      height: { ground_m: chosen(-0.5), centre_m: chosen(0.3) },
    };
    const { tips } = caseOf(stands(on(stance)), 'empty');
    const { port, starboard, fore, aft } = unwrap(tips!);
    expect(port).toBeCloseTo(Math.atan(0.6 / 0.8), 5);
    expect(starboard).toBeCloseTo(port, 6);
    expect(fore).toBeCloseTo(Math.atan(1.2 / 0.8), 5);
    expect(aft).toBeCloseTo(fore, 6);
  });

  it('its liquid runs to the low side: half full it goes over sooner than the same weight frozen', () => {
    const stance: StanceDocument = {
      ...CENTRED,
      weighed: 'dry',
      height: { ground_m: chosen(-0.5), centre_m: chosen(0.3) },
    };
    const half = caseOf(stands(on(stance)), 'half');
    const fuel_kg = half.aboard_kg - caseOf(stands(on(stance)), 'empty').aboard_kg;
    const height = (1000 * 0.8 + fuel_kg * (1 + 0.09)) / (1000 + fuel_kg);
    expect(unwrap(half.tips!).port).toBeLessThan(Math.atan(0.6 / height) - 1e-3);
  });
});

describe('how a hull lies', () => {
  const aboard = (y: number): SystemDocument => ({
    ...on({ ...AFLOAT, middle_m: NONE }, [tankAt(-0.5, y, 0)]),
    vehicle: { kind: 'boat' },
  });

  it('on her middle line she does not list; to one side she does, the same as to the other', () => {
    const lies = (y: number) => unwrap(caseOf(stands(aboard(y)), 'full').afloat!);
    expect(lies(-0.25).portDown_rad).toBeCloseTo(0, 7);
    expect(lies(0.15).portDown_rad).toBeGreaterThan(0.01);
    expect(lies(-0.65).portDown_rad).toBeCloseTo(-lies(0.15).portDown_rad, 6);
    expect(lies(0.15).sinks_m).toBeCloseTo(lies(-0.25).sinks_m, 9);
  });

  it('half full her steadiness is less than full: more surface for less weight', () => {
    const all = stands(aboard(-0.25));
    const gm = (fill: StandCase['fill']): number => unwrap(caseOf(all, fill).afloat!).gm_m;
    expect(gm('half')).toBeLessThan(gm('empty'));
    expect(all.hull).toEqual({ gm_m: 0.9, aft_m: -2, fore_m: 3 });
  });
});

it('a tank that stands elsewhere is borne by nobody here', () => {
  const [own, shed] = [tankAt(0, -0.25, 0.2), tankAt(3, 2, 1, 'shed')];
  const alone = stands(on(CENTRED, [own]));
  const both = stands(on(CENTRED, [own, { ...shed, elsewhere: true }]));
  expect(both).toEqual(alone);
  const none = standsOf(on(CENTRED, [{ ...shed, elsewhere: true }]));
  expect(none.ok ? '' : none.error.code).toBe('not-said');
});

it('what moving a tank does is what it does there', () => {
  for (const by of [
    [MOVED_M, 0, 0],
    [0, MOVED_M, 0],
  ] as const) {
    const tanks = [tankAt(0, -0.25, 0.2), tankAt(-1, 0.3, 0.4, 'second')];
    const here: SystemDocument = { ...on({ ...AFLOAT, middle_m: NONE, axles: CENTRED.axles }, tanks), mounts: [] };
    const [one, other] = [stands(here), stands(withTankMoved(here, 1, by))];
    const told = one.moved.find(({ tanks: [t], way }) => t === 1 && way === (by[0] > 0 ? 'fore' : 'port'))!;
    const [was, is] = [caseOf(one, 'full'), caseOf(other, 'full')];
    for (const a of [0, 1])
      expect(told.axles_kg![a]).toBeCloseTo(
        unwrap(is.wheels!).axles[a]!.load_kg - unwrap(was.wheels!).axles[a]!.load_kg,
        9,
      );
    const lean = (key: 'bowDown_rad' | 'portDown_rad'): number => unwrap(is.afloat!)[key] - unwrap(was.afloat!)[key];
    expect(told.bowDown_rad).toBeCloseTo(lean('bowDown_rad'), 9);
    expect(told.portDown_rad).toBeCloseTo(lean('portDown_rad'), 9);
    // Weighed with its tanks where they stand, moving one does the same.
    const dry = stands({ ...here, stance: { ...here.stance!, weighed: 'dry' } }).moved;
    expect(dry.find(({ tanks: [t], way }) => t === 1 && way === told.way)!.axles_kg![0]).toBeCloseTo(
      told.axles_kg![0]!,
      9,
    );
  }
});

it('systems of chance: all that it bears is all that it weighs, and nothing is NaN', () => {
  const { uniform } = seeded(185);
  const between = (least: number, most: number): number => least + (most - least) * uniform();
  for (let run = 0; run < 40; run++) {
    const count = 1 + Math.floor(between(0, 4));
    const axles = Array.from({ length: count }, (_, a) => ({
      ...CENTRED.axles![0]!,
      id: `axle-${a}`,
      name: `Axle ${a}`,
      x_m: chosen(between(-3, 4)),
      track_m: chosen(between(0.5, 2)),
      load_kg: chosen(between(0, 900)),
      ...(uniform() < 0.3 ? { rate_NPerM: chosen(10 ** between(4, 6)) } : {}),
      ...(uniform() < 0.3 ? { sharesWithLast: true } : {}),
    }));
    const stance: StanceDocument = {
      ...AFLOAT,
      weighed: (['without', 'dry', 'full'] as const)[Math.floor(between(0, 3))]!,
      middle_m: chosen(between(-0.5, 0.5)),
      axles,
      hitch: uniform() < 0.5 ? { x_m: chosen(between(-5, 5)), load_kg: chosen(between(0, 100)) } : undefined,
      height: { ground_m: chosen(between(-1, 0)), centre_m: chosen(between(0.1, 1)) },
    };
    const all = standsOf(
      on(stance, [tankAt(between(-2, 2), between(-1, 1), between(0, 1)), tankAt(0, 0.4, 0, 'second')]),
    );
    if (!all.ok) throw new Error(all.error.detail);
    const weighed_kg = axles.reduce((sum, { load_kg }) => sum + load_kg.value, 0) + (stance.hitch?.load_kg.value ?? 0);
    const then = { without: 0, dry: caseOf(all.value, 'empty').aboard_kg, full: caseOf(all.value, 'full').aboard_kg };
    for (const { wheels, tips, afloat, aboard_kg } of all.value.cases) {
      if (wheels?.ok) {
        const { axles: loads, hitch_kg, total_kg, lifts } = wheels.value;
        expect(total_kg).toBeCloseTo(weighed_kg + aboard_kg - then[stance.weighed], 5);
        expect(loads.reduce((sum, { load_kg }) => sum + load_kg, hitch_kg ?? 0)).toBeCloseTo(total_kg, 6);
        for (const [a, { port_kg, starboard_kg }] of loads.entries()) {
          expect(Number.isFinite(port_kg + starboard_kg)).toBe(true);
          if (Math.min(port_kg, starboard_kg) < 0) expect(lifts).toContain(axles[a]!.name);
        }
      }
      if (tips?.ok)
        for (const angle of Object.values(tips.value)) expect(angle >= 0 && angle <= Math.PI / 2).toBe(true);
      if (afloat?.ok) expect(Object.values(afloat.value).every(Number.isFinite)).toBe(true);
    }
  }
});
