import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { airState } from '../../fluids';
import { unwrap } from '../../outcome';
import { chosen, parseSystem, withValue, type SystemDocument } from '../../plan';
import { checkedAnswers, JOBS, type JobAnswers } from '../../plan/jobs';
import { evaluateSystem, numbersOf } from '..';

const JOB = JOBS.find(({ key }) => key === 'expelled')!;
const planned = (answers: JobAnswers = {}): SystemDocument =>
  unwrap(parseSystem(JOB.draft('Expelled', unwrap(checkedAnswers(JOB, { ...JOB.usual, ...answers })))));
const evaluated = (system: SystemDocument) => unwrap(evaluateSystem(system, 'numbers'));
const expelledBy = (system: SystemDocument) => evaluated(system).expelled[0]!;

const AMBIENT_PA = 101325;

/** What a round smooth bore with an inlet and an outlet costs a gas [Pa], by a friction factor that is bisected. */
function cost_Pa(bore_m: number, length_m: number, flow_m3PerS: number, temperature_K: number): number {
  const air = airState(temperature_K, AMBIENT_PA);
  const speed = flow_m3PerS / ((Math.PI / 4) * bore_m ** 2);
  const re = (air.density_kgPerM3 * speed * bore_m) / air.viscosity_PaS;
  const k = 1.5 + 160 / re;
  return ((friction(re) * length_m) / bore_m + k) * 0.5 * air.density_kgPerM3 * speed ** 2;
}

/** Prandtl's law of smooth pipes, 1/√f = 2 log10(Re √f / 2.51), solved by halving; 64/Re where laminar. */
function friction(re: number): number {
  if (re <= 2000) return 64 / re;
  let [low, high] = [1e-3, 1];
  for (let step = 0; step < 200; step++) {
    const f = (low + high) / 2;
    if (1 / Math.sqrt(f) > 2 * Math.log10((re * Math.sqrt(f)) / 2.51)) low = f;
    else high = f;
  }
  return (low + high) / 2;
}
const reynolds = (bore_m: number, flow_m3PerS: number, temperature_K: number): number => {
  const air = airState(temperature_K, AMBIENT_PA);
  return (4 * flow_m3PerS * air.density_kgPerM3) / (Math.PI * bore_m * air.viscosity_PaS);
};
const isCertain = (re: number): boolean => re < 2000 || re > 4000;

/** The catch tank with plain hoses: nothing in them but their own length. */
function plain(bore_m: number, length_m: number, blowBy_m3PerS: number): SystemDocument {
  const system = planned();
  return {
    ...system,
    lines: system.lines.map((line) => ({ ...line, bore_m: chosen(bore_m), length_m: chosen(length_m), fittings: [] })),
    components: system.components.map((part) =>
      part.kind === 'crankcase' ? { ...part, blowBy_m3PerS: chosen(blowBy_m3PerS) } : part,
    ),
  };
}

describe('the back-pressure of a crankcase', () => {
  it('is what two hoses, an inlet and a breather cost one after the other (seeded, by Prandtl’s law)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.008, max: 0.04, noNaN: true }),
        fc.double({ min: 0.05, max: 4, noNaN: true }),
        fc.double({ min: 5e-3 / 60, max: 0.25 / 60, noNaN: true }),
        (bore, length, flow) => {
          const system = plain(bore, length, flow);
          const ports = system.tanks[0]!.ports.filter(({ id }) => id === 'inlet' || id === 'vent');
          const passes = [
            ...ports.map(({ bore_m, length_m }) => [bore_m.value, length_m.value] as const),
            ...system.lines.map(({ bore_m, length_m }) => [bore_m.value, length_m.value] as const),
          ];
          expect(passes).toHaveLength(4);
          const temperatures = [system.conditions.fuelTemperature_K, 373.15];
          fc.pre(temperatures.every((t) => passes.every(([b]) => isCertain(reynolds(b, flow, t)))));
          const byHand = temperatures.map((t) => passes.reduce((sum, [b, l]) => sum + cost_Pa(b, l, flow, t), 0));
          const expected = Math.max(...byHand);
          expectClose(unwrap(expelledBy(system).pressure!), expected, {
            // Each of the four links has a pascal-second a cubic metre more in the solver, so that no law vanishes.
            abs: 1e-6 * expected + 4.01 * flow,
            why: 'the same law written another way',
          });
        },
      ),
      { seed: 417, numRuns: 60 },
    );
  });

  it('rises with the blow-by, and falls with a second breather', () => {
    const [some, more] = [1e-3, 2e-3].map((flow) => unwrap(expelledBy(plain(0.019, 1, flow)).pressure!));
    expect(more!).toBeGreaterThan(2 * some!);
    const system = plain(0.019, 1, 1e-3);
    const vent = system.tanks[0]!.ports.find(({ id }) => id === 'vent')!;
    const second = withValue(
      system,
      ['tanks', 0, 'ports'],
      [...system.tanks[0]!.ports, { ...vent, id: 'vent-2', name: 'Second breather' }],
    );
    expect(unwrap(expelledBy(second).pressure!)).toBeLessThan(some!);
  });

  it('has no way out where the breather’s hose is gone and its port with it, and says so', () => {
    const system = planned();
    const shut: SystemDocument = {
      ...system,
      components: system.components.filter(({ kind }) => kind !== 'outlet'),
      lines: system.lines.filter(({ to }) => to.item === 'inlet'),
      tanks: [{ ...system.tanks[0]!, ports: system.tanks[0]!.ports.filter(({ role }) => role !== 'vent') }],
    };
    expect(expelledBy(shut).pressure).toMatchObject({ ok: false, error: { code: 'no-way-out' } });
    expect(numbersOf(shut, evaluated(shut)).backPressure.ok).toBe(false);
  });
});

describe('a crankcase without a tank', () => {
  it('that breathes straight into the open has its hose’s pressure, and no room', () => {
    const system = plain(0.019, 1, 1e-3);
    const [hose] = system.lines;
    const straight: SystemDocument = {
      ...system,
      lines: [{ ...hose!, to: { item: 'open-end', end: 'in', adapters: [] } }],
    };
    const { tank, room_m3, pressure } = expelledBy(straight);
    expect(tank).toBeUndefined();
    expect(room_m3).toBeUndefined();
    const byHand = [system.conditions.fuelTemperature_K, 373.15].map((t) => cost_Pa(0.019, 1, 1e-3, t));
    // One link, and its pascal-second a cubic metre.
    expectClose(unwrap(pressure!), Math.max(...byHand) + 1e-3, { rel: 1e-6, why: 'one hose' });
  });

  it('whose mouth stands under the liquid has no way out, and is not told as easy', () => {
    const system = planned();
    const full = withValue(system, ['conditions', 'fills'], [{ tank: 'tank', fill_ratio: 1 }]);
    const { pressure, room_m3 } = expelledBy({ ...full, conditions: { ...full.conditions, pitch_deg: 20 } });
    expect(room_m3).toBe(0);
    expect(pressure).toMatchObject({ ok: false, error: { code: 'no-way-out' } });
  });
});

describe('what may come', () => {
  it('of a crankcase all its oil, against the room over what stands in the tank', () => {
    const system = planned({ source_m3: 5e-3 });
    const half = withValue(system, ['conditions', 'fills'], [{ tank: 'tank', fill_ratio: 0.4 }]);
    for (const [at, share] of [
      [system, 0],
      [half, 0.4],
    ] as const) {
      const { comes, room_m3, tank } = expelledBy(at);
      expect(unwrap(comes)).toBe(5e-3);
      expect(tank).toMatchObject({ id: 'tank' });
      const { holds_m3, gross_m3 } = evaluated(at).tanks[0]!;
      expectClose(room_m3!, holds_m3 - share * gross_m3, { abs: 1e-9, why: 'definition' });
    }
  });

  it('of a cooling system what its density says, by hand', () => {
    const system = planned({ what: 'coolant', source_m3: 0.01 });
    // Half glycol falls 0.58 kg/m³ a kelvin from 1,074 at 15 °C: the table of fluids.
    const density = (celsius: number): number => 1074 - 0.58 * (celsius - 15);
    const { comes, boils, isCovered } = expelledBy(system);
    expectClose(unwrap(comes), 0.01 * (density(5) / density(110) - 1), { rel: 1e-9, why: 'by hand' });
    // Steam tables: water at 110 °C boils at 143.3 kPa. From memory.
    expectClose(unwrap(boils!), 143.3e3 - AMBIENT_PA, { rel: 0.01, why: 'steam tables' });
    expect(isCovered).toBe(true);
    const empty = withValue(system, ['conditions', 'fills'], [{ tank: 'tank', fill_ratio: 0 }]);
    expect(expelledBy(empty).isCovered).toBe(false);
  });

  it('of what leads to no tank, or to one of something else, is not known', () => {
    const system = planned({ what: 'coolant' });
    expect(expelledBy({ ...system, lines: [] })).toMatchObject({
      tank: undefined,
      room_m3: undefined,
      comes: { ok: false, error: { code: 'no-tank' } },
    });
    const oil = withValue(system, ['fluids', 0, 'fluid'], 'engine-oil');
    expect(expelledBy(oil).comes).toMatchObject({ ok: false, error: { code: 'other-fluid' } });
  });
});

describe('a coolant bottle', () => {
  // A box of our own: the mouth in the middle of its floor, so that its marks follow by hand.
  const bottle = (answers: Partial<Record<string, number>> = {}): SystemDocument => {
    const system = planned({ what: 'coolant', source_m3: 0.01 });
    const [tank] = system.tanks;
    return {
      ...system,
      envelope: {
        ...system.envelope,
        noseUp_deg: chosen(answers.slope_deg ?? 0),
        noseDown_deg: chosen(answers.slope_deg ?? 0),
        portDown_deg: chosen(0),
        starboardDown_deg: chosen(0),
      },
      conditions: { ...system.conditions, altitude_m: answers.altitude_m ?? 0 },
      tanks: [
        {
          ...tank!,
          dimensions: 'inside',
          shape: { kind: 'box', length_m: chosen(0.12), width_m: chosen(0.1), height_m: chosen(0.25) },
          ports: tank!.ports.map((port) =>
            port.id === 'inlet'
              ? { ...port, x_m: chosen(0.06), y_m: chosen(0.05), bore_m: chosen(0.01) }
              : { ...port, x_m: chosen(0.03), y_m: chosen(0.05) },
          ),
        },
      ],
    };
  };
  const coolantIn = (system: SystemDocument) => expelledBy(system).coolant!;

  it('boils under its cap where steam tables have that pressure', () => {
    // Steam tables (IAPWS-IF97), from memory: saturation at 201.3 kPa 120.4 °C, at 170.1 kPa (cap of 85.5 kPa at
    // 1,500 m of the standard atmosphere, 84.6 kPa) 115.2 °C.
    const open = coolantIn(withValue(bottle(), ['components', 0, 'cap_Pa'], chosen(100e3)));
    expectClose(open.boils_K! - 273.15, 120.4, { abs: 0.2, why: 'steam tables' });
    const high = coolantIn(withValue(bottle(), ['components', 0, 'cap_Pa'], chosen(85.5e3)));
    const above = high.boilsAt.find(({ altitude_m }) => altitude_m === 1500)!;
    expectClose(above.boils_K! - 273.15, 115.2, { abs: 0.3, why: 'steam tables' });
    // An open neck at sea level, and three kilometres up (70.1 kPa).
    const none = coolantIn(withValue(bottle(), ['components', 0, 'cap_Pa'], chosen(0)));
    expectClose(none.boils_K! - 273.15, 100, { abs: 0.05, why: 'boiling point of water' });
    expectClose(none.boilsAt.at(-1)!.boils_K! - 273.15, 90.0, { abs: 0.3, why: 'steam tables at 70.1 kPa' });
    // Beyond what is known it is not made up.
    const strong = coolantIn(withValue(bottle(), ['components', 0, 'cap_Pa'], chosen(3e5)));
    expect(strong.boilsAt.find(({ altitude_m }) => altitude_m === 0)!.boils_K).toBeDefined();
    expect(strong.toBoiling_m3).toBeGreaterThan(none.toBoiling_m3!);
  });

  it('falls with altitude as the conditions’ own does', () => {
    for (const altitude_m of [0, 1500, 3000]) {
      const { boils_K, boilsAt } = coolantIn(bottle({ altitude_m }));
      expectClose(boils_K!, boilsAt.find((each) => each.altitude_m === altitude_m)!.boils_K!, {
        abs: 0.01,
        why: 'one atmosphere for both',
      });
    }
  });

  it('has its marks where a box has them: a bore over its mouth, and what comes over that', () => {
    const { marks } = coolantIn(bottle());
    expectClose(marks!.cold.height_m, 0.01, { abs: 1e-9, why: 'a bore over the floor' });
    expectClose(marks!.cold.volume_m3, 0.12 * 0.1 * 0.01, { abs: 1e-12, why: 'box' });
    const comes = unwrap(expelledBy(bottle()).comes);
    expectClose(marks!.hot.height_m, 0.01 + comes / 0.012, { abs: 1e-9, why: 'box' });
    // Leaning with its mouth amidships, the surface goes through a point a bore over it, square to the floor’s normal.
    const slope_deg = 8;
    const t = Math.tan((slope_deg * Math.PI) / 180);
    const over = 0.01 / Math.cos((slope_deg * Math.PI) / 180);
    const dry = Math.max(0, 0.06 * t - over);
    const leaning = coolantIn(bottle({ slope_deg })).marks!;
    // Half of it is a wedge over the floor: a trapezium, or a triangle where the far end is dry.
    const area = dry > 0 ? (over + 0.06 * t) ** 2 / (2 * t) : over * 0.12;
    expectClose(leaning.cold.volume_m3, area * 0.1, { rel: 1e-9, why: 'wedge of a box' });
  });

  it('has left, once all is cold, what it has less what the engine draws back', () => {
    const warm = withValue(bottle(), ['conditions', 'fuelTemperature_K'], 288.15);
    const density = (celsius: number): number => 1074 - 0.58 * (celsius - 15);
    const stands = warm.conditions.fills[0]!.fill_ratio * 0.12 * 0.1 * 0.25;
    const left = stands - 0.01 * (1 - density(15) / density(5));
    expectClose(coolantIn(warm).coldLeft_m3!, left, { rel: 1e-9, why: 'by hand' });
    // Colder than its coldest it is not drawn from any more.
    const cold = withValue(bottle(), ['conditions', 'fuelTemperature_K'], 270);
    expectClose(coolantIn(cold).coldLeft_m3!, stands, { rel: 1e-9, why: 'nothing is drawn' });
  });

  it('is drawn from by a pipe that hangs down to its floor as by a mouth in it', () => {
    const system = bottle();
    const hung: SystemDocument = {
      ...system,
      tanks: system.tanks.map((tank) => ({
        ...tank,
        ports: tank.ports.map((port) =>
          port.id === 'inlet' ? { ...port, face: 'lid' as const, drop_m: chosen(0.25) } : port,
        ),
      })),
    };
    expect(expelledBy(hung).isCovered).toBe(true);
    expectClose(coolantIn(hung).marks!.cold.volume_m3, coolantIn(system).marks!.cold.volume_m3, {
      rel: 1e-6,
      why: 'one mouth',
    });
    // Cut off in the middle it hangs in the air.
    const short = withValue(
      hung,
      ['tanks', 0, 'ports', hung.tanks[0]!.ports.findIndex(({ id }) => id === 'inlet'), 'drop_m'],
      chosen(0.05),
    );
    expect(expelledBy(short).isCovered).toBe(false);
  });
});

describe('a catch tank', () => {
  it('keeps by its drain what lies below it, by a box', () => {
    const system = planned();
    const [tank] = system.tanks;
    const drained = (face: 'floor' | 'aft', z_m: number): SystemDocument => ({
      ...system,
      tanks: [
        {
          ...tank!,
          dimensions: 'inside',
          shape: { kind: 'box', length_m: chosen(0.2), width_m: chosen(0.1), height_m: chosen(0.3) },
          ports: tank!.ports.map((port) =>
            port.id === 'drain'
              ? face === 'floor'
                ? { ...port, x_m: chosen(0.1), y_m: chosen(0.05) }
                : { ...port, face, x_m: undefined, y_m: chosen(0.05), z_m: chosen(z_m) }
              : { ...port, x_m: chosen(port.id === 'vent' ? 0.15 : 0.05), y_m: chosen(0.05) },
          ),
        },
      ],
    });
    expectClose(expelledBy(drained('floor', 0)).drainLeaves_m3!, 0, { abs: 1e-12, why: 'at its lowest' });
    expectClose(expelledBy(drained('aft', 0.04)).drainLeaves_m3!, 0.2 * 0.1 * 0.04, { rel: 1e-9, why: 'box' });
    const none = { ...system, tanks: [{ ...tank!, ports: tank!.ports.filter(({ id }) => id !== 'drain') }] };
    expect(expelledBy(none).drainLeaves_m3).toBe(evaluated(none).tanks[0]!.gross_m3);
  });
});
