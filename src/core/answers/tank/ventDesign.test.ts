import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { AFLOAT, ON_AXLES } from '../../../../tests/raisedSystems';
import { played, rig, rigEngine, type RigTank } from '../../../../tests/timeSystems';
import { airState, fluidState } from '../../fluids';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { seeded } from '../../seeded';
import { chosen, parseSystemText, type SystemDocument } from '../../plan';
import { documentAt } from '../at';
import { evaluateSystem } from '../evaluate';
import { ventDesign } from './ventDesign';

const DEMOS = readdirSync('demo').map((file): SystemDocument =>
  unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8'))),
);
const FILL_M3_PER_S = 5e-4;

beforeAll(loadKernel);

const box = (more: Partial<RigTank> = {}, burns_m3PerS = 2e-6): SystemDocument => {
  const system = rig(
    [
      {
        id: 'a',
        box: [0.6, 0.4, 0.3],
        vent_m: 0.01,
        ventLength_m: 1,
        filler_m: 0.05,
        neck_m: 0.2,
        tube_m: 0.29,
        outlet_m: 0.01,
        fill: 0.2,
        ...more,
      },
    ],
    [{ id: 'feed', from: ['a-pickup', 'out'], to: ['engine', 'in'], bore_m: 0.01, length_m: 0.5, rise_m: -0.5 }],
    [],
    [rigEngine(burns_m3PerS, 0)],
  );
  return { ...system, limits: { ...system.limits, fill_m3PerS: chosen(FILL_M3_PER_S) } };
};

describe('the smallest vent', () => {
  it('a hole: as Bernoulli has it with its inlet and outlet lost, and a little more for its walls', () => {
    const { least } = unwrap(ventDesign(box(), 0));
    const air = airState(285.15, 101_325);
    const bore = Math.sqrt((4 / Math.PI) * (FILL_M3_PER_S / Math.sqrt((2 * 1000) / (1.5 * air.density_kgPerM3))));
    expect(least.hole!).toBeGreaterThan(bore);
    expectClose(least.hole!, bore, { rel: 0.06, why: 'friction along two millimetres, and a slower inlet' });
  });

  it.each(['hole', 'hose'] as const)(
    'a %s of just that size: played, the filling comes to the limit and no further',
    (kind) => {
      const design = unwrap(ventDesign(box(), 0));
      const vent = { vent_m: design.least[kind]!, ventLength_m: kind === 'hole' ? 0.002 : 1 };
      const run = played(box(vent), 60, {
        pours: [
          {
            at_s: 1,
            port: 'a-filler',
            flow_m3PerS: FILL_M3_PER_S,
            volume_m3: 0.02,
            spout_m: 0.025,
            inserted_m: 0.05,
            stops: 'manual',
          },
        ],
        duties: [{ at_s: 0, duty_ratio: 0, runs: false }],
      });
      const most = Math.max(...run.samples.map(({ tanks }) => tanks[0]!.gauge_Pa));
      expectClose(most, design.over.value_Pa, { rel: 0.03, why: 'vapour and squeezed air, over the same vent' });
    },
  );

  it('drawn from alone, played, it comes to the limit', () => {
    const draws = { ...box({}, 4e-5), limits: { ...box().limits, fill_m3PerS: chosen(1e-6), under_Pa: chosen(400) } };
    const design = unwrap(ventDesign(draws, 0));
    expect(design.draw_m3PerS).toBe(4e-5);
    const run = played(
      box({ vent_m: design.least.hole!, ventLength_m: 0.002, filler_m: undefined, fill: 0.9 }, 4e-5),
      400,
    );
    const least = Math.min(...run.samples.map(({ tanks }) => tanks[0]!.gauge_Pa));
    expectClose(least, -400, { rel: 0.05, why: 'fuel gives off vapour meanwhile' });
  });

  it('more air, or less of a limit, asks for more; sizes that are larger are enough', () => {
    let last = 0;
    for (const fill of [1e-4, 2e-4, 5e-4, 1e-3, 2e-3]) {
      const system = { ...box(), limits: { ...box().limits, fill_m3PerS: chosen(fill) } };
      const { least, sizes } = unwrap(ventDesign(system, 0));
      expect(least.hole!).toBeGreaterThan(last);
      last = least.hole!;
      for (const { kind, bore_m, isEnough } of sizes)
        expect(isEnough, `${kind} ${bore_m}`).toBe(bore_m >= least[kind]!);
    }
    const tight = { ...box(), limits: { ...box().limits, over_Pa: chosen(100) } };
    expect(unwrap(ventDesign(tight, 0)).least.hole!).toBeGreaterThan(unwrap(ventDesign(box(), 0)).least.hole!);
  });

  it('two vents share the air; one that is not there is told as none', () => {
    const one = box({ vent_m: 0.004, ventLength_m: 0.002 });
    const [tank] = one.tanks as [SystemDocument['tanks'][number]];
    const vent = tank.ports.find(({ role }) => role === 'vent')!;
    const two = { ...one, tanks: [{ ...tank, ports: [...tank.ports, { ...vent, id: 'second', name: 'Second' }] }] };
    const [alone, both] = [one, two].map((system) => unwrap(ventDesign(system, 0)).now!);
    // Twice the area, so a quarter of the pressure, but for what the walls rub.
    expectClose(both!.over_Pa / alone!.over_Pa, 0.25, { rel: 0.1, why: 'friction is not quite square' });
    const none = box({ vent_m: undefined });
    expect(unwrap(ventDesign(none, 0)).now).toBeUndefined();
    expect(unwrap(ventDesign(none, 0)).hoseLength_m).toBe(1);
  });
});

describe('walls, slopes and heat', () => {
  it('thin walls lower the limit, baffles raise it again, and metal that nobody knows is not judged', () => {
    const thin = (thickness_m: number, more: Partial<SystemDocument['tanks'][number]> = {}): SystemDocument => {
      const system = box({ box: [1.2, 0.8, 0.4] });
      return {
        ...system,
        tanks: system.tanks.map((tank) => ({
          ...tank,
          material: { ...tank.material, alloy: 'al-5052', thickness_m: chosen(thickness_m) },
          ...more,
        })),
      };
    };
    const thick = unwrap(ventDesign(thin(0.004), 0));
    expect(thick.over).toEqual({ value_Pa: 1000, by: 'usual' });
    const weak = unwrap(ventDesign(thin(0.0008), 0));
    expect(weak.over).toMatchObject({ by: 'walls', value_Pa: weak.wall!.yields_Pa / 2 });
    expectClose(weak.wall!.long_m, 1.2, { abs: 0.01, why: 'the lid or the floor' });
    expectClose(thick.wall!.yields_Pa / weak.wall!.yields_Pa, 25, {
      rel: 0.03,
      why: 't², and the inside a little smaller',
    });
    const plate = unwrap(parseSystemText(readFileSync('demo/crab-boat.json', 'utf8'))).tanks[0]!.plates[0]!;
    const held = unwrap(
      ventDesign(thin(0.0008, { plates: [{ ...plate, axis: 'x', at_m: chosen(0.6), topGap_m: chosen(0) }] }), 0),
    );
    expectClose(held.wall!.long_m, 0.8, { abs: 0.02, why: 'halved along, its width is the longer' });
    expectClose(held.wall!.wide_m, 0.6, { abs: 0.02, why: 'halved along' });
    expect(held.wall!.yields_Pa).toBeGreaterThan(weak.wall!.yields_Pa);
    const short = unwrap(
      ventDesign(thin(0.0008, { plates: [{ ...plate, axis: 'x', at_m: chosen(0.6), topGap_m: chosen(0.05) }] }), 0),
    );
    expect(short.wall, 'a baffle that ends below the lid does not hold it').toMatchObject({ normal: [0, 0, 1] });
    expectClose(short.wall!.long_m, 1.2, { abs: 0.01, why: 'the lid' });
    const unknown = thin(0.002);
    const hdpe = {
      ...unknown,
      tanks: unknown.tanks.map((tank) => ({ ...tank, material: { ...tank.material, alloy: 'hdpe' as const } })),
    };
    expect(unwrap(ventDesign(hdpe, 0))).toMatchObject({
      wall: undefined,
      whyNoWall: 'unknown-metal',
      over: { by: 'usual' },
    });
  });

  it('the rise: of a box that leans, the wedge over its lid', () => {
    const base = box();
    const none = chosen(0);
    const system: SystemDocument = {
      ...base,
      envelope: {
        ...base.envelope,
        noseUp_deg: chosen(20),
        noseDown_deg: none,
        portDown_deg: none,
        starboardDown_deg: none,
        braking_mPerS2: none,
        driving_mPerS2: none,
        cornering_mPerS2: none,
      },
      tanks: base.tanks.map((tank) => ({ ...tank, fillLimit_ratio: chosen(0.95) })),
    };
    const { rises } = unwrap(ventDesign(system, 0));
    const { bounds } = evaluatedBounds(system);
    const [length, height] = [bounds.max[0] - bounds.min[0], bounds.max[2] - bounds.min[2]];
    // The vent stands in the middle: over it the surface of a box 0.95 full leaning by 20 degrees, gas in the corner.
    const tan = Math.tan((20 * Math.PI) / 180);
    const gas = 0.05 * length * height;
    const corner = Math.sqrt((2 * gas) / tan);
    // The surface cuts the lid so far from the nose; from there it rises over the lid towards the tail.
    expectClose(rises[0]!.standing_m, (length / 2 - corner) * tan, { abs: 2e-3, why: 'steps of the envelope' });
    expect(rises[0]!.moving_m).toBe(0);
    // Braking as hard as that slope is steep tips the liquid as far, to the nose: the vent in the middle sees the same.
    const brakes = {
      ...system,
      envelope: { ...system.envelope, noseUp_deg: none, braking_mPerS2: chosen(9.80665 * tan) },
    };
    const braked = unwrap(ventDesign(brakes, 0)).rises[0]!;
    expect(braked.standing_m).toBe(0);
    expectClose(braked.moving_m, rises[0]!.standing_m, { abs: 2e-3, why: 'a wedge of the same slope' });
  });

  it('heat: by the densities of the fluid, and no more than fits', () => {
    const hot = { ...box(), limits: { ...box().limits, hot_K: chosen(333.15) } };
    const { heat, can_m3 } = unwrap(ventDesign(hot, 0));
    const { cold_K, hot_K, filled_m3, hot_m3, over_m3, most_ratio, free_m3 } = unwrap(heat);
    const batch = unwrap(documentAt(hot)).model.tanks[0]!.batch;
    const density = (at_K: number): number => unwrap(fluidState(batch, at_K)).density_kgPerM3;
    expect(hot_K).toBe(333.15);
    expectClose(hot_m3 * density(hot_K), filled_m3 * density(cold_K), { rel: 1e-12, why: 'mass stays' });
    expect(over_m3).toBe(Math.max(0, hot_m3 - filled_m3 - free_m3));
    // Diesel of 840 kg/m³ grows by some 0.083 % a kelvin (API MPMS 11.1, Table 54B; from memory).
    expectClose(hot_m3 / filled_m3 - 1, 0.00083 * (hot_K - cold_K), {
      rel: 0.1,
      why: 'a rule of thumb about 15 °C; it grows faster as it warms',
    });
    expectClose(most_ratio * (hot_m3 / filled_m3), 1, { rel: 1e-12, why: 'to the brim' });
    expect(can_m3).toBeGreaterThanOrEqual(over_m3);
    // Shut in, it would have grown by 0.083 % a kelvin; 1.3 GPa presses that back: some 10 bar (common practice).
    const { locked_PaPerK } = unwrap(heat);
    expectClose(locked_PaPerK, 1.08e6, { rel: 0.1, why: 'a rule of thumb' });
  });
});

const evaluatedBounds = (system: SystemDocument) =>
  unwrap(evaluateSystem(system, 'full', 'without-fit')).tanks[0]!.drawing!;

describe.each(DEMOS.map((system) => [system.name, system] as const))('%s', (_, system) => {
  it('each tank has a design without a gap, and agrees with what the rule says of its vent', () => {
    for (const t of system.tanks.keys()) {
      const design = unwrap(ventDesign(system, t));
      const numbers = JSON.stringify(design, (_key, value: unknown) => (Number.isNaN(value) ? 'NaN' : value));
      expect(numbers).not.toContain('NaN');
      expect(design.least.hole!).toBeGreaterThan(0);
      if (design.now)
        expect(design.now.isEnough).toBe(
          design.now.over_Pa <= design.over.value_Pa && design.now.under_Pa <= design.under.value_Pa,
        );
    }
    expect(ventDesign(system, 99)).toMatchObject({ ok: false, error: { code: 'no-such-tank' } });
  });
});

it('a silencer in the vent asks for more of the hole, and for more than there is where it is too much', () => {
  const screened = (loss_Pa: number): SystemDocument => {
    const system = box();
    return {
      ...system,
      tanks: system.tanks.map((tank) => ({
        ...tank,
        ports: tank.ports.map((port) =>
          port.role === 'vent'
            ? { ...port, screen: { flow_m3PerS: chosen(FILL_M3_PER_S), loss_Pa: chosen(loss_Pa) } }
            : port,
        ),
      })),
    };
  };
  const [bare, some, all] = [box(), screened(600), screened(1500)].map((system) => unwrap(ventDesign(system, 0)));
  expect(some!.least.hole!).toBeGreaterThan(bare!.least.hole!);
  // What is left of 1000 Pa for the hole is 400: by the square root of the square root, near enough.
  expectClose(some!.least.hole! / bare!.least.hole!, (1000 / 400) ** 0.25, {
    rel: 0.03,
    why: 'friction, and air of 12 °C',
  });
  expectClose(some!.now!.over_Pa - bare!.now!.over_Pa, 600, { rel: 0.04, why: 'air of 12 °C against 20 °C' });
  expect(all!.least).toEqual({ hole: undefined, hose: undefined });
});

it('odd tanks by chance: no gap in any design, larger sizes resist less, and what is enough is what keeps its limits', () => {
  const { uniform: next } = seeded(11);
  const between = (low: number, high: number): number => low + next() * (high - low);
  for (let n = 0; n < 60; n++) {
    const system = box(
      {
        box: [between(0.05, 3), between(0.05, 2), between(0.05, 1)],
        vent_m: next() < 0.2 ? undefined : between(0.001, 0.04),
        ventLength_m: between(0, 6),
        tube_m: 0.02,
        fill: next(),
      },
      between(1e-9, 1e-4),
    );
    const odd: SystemDocument = {
      ...system,
      limits: {
        ...system.limits,
        fill_m3PerS: chosen(between(1e-6, 0.02)),
        ...(next() < 0.5 ? { under_Pa: chosen(between(20, 9000)) } : {}),
        hot_K: chosen(between(275, 360)),
      },
      conditions: { ...system.conditions, altitude_m: between(0, 4000), fuelTemperature_K: between(255, 315) },
    };
    const design = unwrap(ventDesign(odd, 0));
    expect(JSON.stringify(design, (_key, value: unknown) => (Number.isNaN(value) ? 'NaN' : value))).not.toContain(
      'NaN',
    );
    for (const kind of ['hole', 'hose'] as const) {
      const sizes = design.sizes.filter((each) => each.kind === kind);
      for (const [i, size] of sizes.entries()) {
        expect(size.isEnough).toBe(size.over_Pa <= design.over.value_Pa && size.under_Pa <= design.under.value_Pa);
        if (i > 0) expect(size.over_Pa).toBeLessThan(sizes[i - 1]!.over_Pa);
      }
    }
    for (const { standing_m, moving_m } of design.rises)
      for (const rise of [standing_m, moving_m]) expect(rise).toBeGreaterThanOrEqual(0);
    if (design.heat.ok) {
      const { hot_m3, filled_m3, free_m3, over_m3 } = design.heat.value;
      expectClose(filled_m3 + free_m3 + over_m3, Math.max(hot_m3, filled_m3 + free_m3), { rel: 1e-12, why: 'a sum' });
      expect(design.can_m3).toBeGreaterThanOrEqual(over_m3);
    } else expect(design.can_m3).toBeUndefined();
  }
});

describe('volume correction', () => {
  it('is as the generalized tables have it for diesel and petrol, and keeps the mass', () => {
    // ASTM D1250 table 54B, from memory: at 30 °C 0.9873 for 840 kg/m³ at 15 °C, 0.9819 for 750.
    for (const [fluid, density15, factor] of [
      ['diesel', 840, 0.9873],
      ['petrol', 750, 0.9819],
    ] as const) {
      const system = box();
      const said = {
        ...system,
        fluids: system.fluids.map((each) => ({ ...each, fluid, density15_kgPerM3: chosen(density15) })),
      };
      const heat = unwrap(unwrap(ventDesign(said, 0)).heat);
      const at = (celsius: number) =>
        heat.corrections.find(({ temperature_K }) => Math.abs(temperature_K - 273.15 - celsius) < 1e-9)!;
      expectClose(at(30).factor_ratio, factor, { abs: 5e-5, why: 'table 54B to its last digit' });
      expect(at(15).factor_ratio).toBe(1);
      for (const { factor_ratio, volume_m3 } of heat.corrections)
        expectClose(factor_ratio * volume_m3, at(15).volume_m3, { rel: 1e-12, why: 'one mass' });
      // At the temperature that it is filled at, it is what is filled.
      const near = heat.corrections.filter(({ volume_m3 }) => volume_m3 <= heat.filled_m3).at(-1)!;
      expect(near.temperature_K).toBeLessThanOrEqual(heat.cold_K);
    }
  });
});

describe('the end of a vent over the water', () => {
  const afloat = (noseDown_deg: number, portDown_deg: number): SystemDocument => {
    const system = box({ ventLength_m: 0.05 });
    return {
      ...system,
      vehicle: { ...system.vehicle, kind: 'boat' },
      envelope: {
        ...system.envelope,
        noseDown_deg: chosen(noseDown_deg),
        noseUp_deg: chosen(0),
        portDown_deg: chosen(portDown_deg),
        starboardDown_deg: chosen(0),
      },
      stance: { ...AFLOAT, hull: { ...AFLOAT.hull!, waterline_m: chosen(0.1) } },
    };
  };
  // The waterline’s middle: ∫ b x dx / ∫ b dx of 1.8 to 2 to 0 m over -2, 0.5 and 3 m, by hand.
  const middle_m = ((2.5 * (1.8 * (-4 + 0.5) + 2 * (-2 + 1))) / 6 + (2.5 * (2 * (1 + 3))) / 6) / (4.75 + 2.5);
  // The vent is in the middle of the lid of the box, 0.6 by 0.4 by 0.3 m.
  const [x, y, z] = [0.3 - middle_m, 0.2 - 0.1, 0.3 - 0.1];

  it('is what its place has it, level and leaning about the middle of the waterline', () => {
    const ends = (system: SystemDocument) => unwrap(ventDesign(system, 0)).rises[0]!.end!;
    const level = ends(afloat(0, 0));
    expect(level.over).toMatchObject({ over: 'water' });
    expectClose(level.over!.level_m, z, { abs: 1e-9, why: 'height over the waterline' });
    const rad = (degrees: number): number => (degrees * Math.PI) / 180;
    const leaning = (system: SystemDocument): number => {
      const { over } = ends(system);
      if (over?.over !== 'water') throw new Error('no water');
      return over.leaning_m;
    };
    // Nose down what lies aft comes up and what lies forward goes down.
    const turned = -x * Math.sin(rad(10)) + z * Math.cos(rad(10));
    expectClose(leaning(afloat(10, 0)), Math.min(z, turned), { abs: 1e-9, why: 'turned by hand' });
    expectClose(leaning(afloat(0, 25)), Math.min(z, -y * Math.sin(rad(25)) + z * Math.cos(rad(25))), {
      abs: 1e-9,
      why: 'port is to the left, and goes down',
    });
  });

  it('is over the ground on land, and not known where nothing is said', () => {
    const { vehicle, ...rest } = box({ ventLength_m: 0.05 });
    const land = { ...rest, vehicle: { ...vehicle, kind: 'road' as const } };
    const end = (system: SystemDocument) => unwrap(ventDesign(system, 0)).rises[0]!.end!;
    expect(end({ ...land, stance: undefined }).over).toBeUndefined();
    // Where a hose of its own ends the plan does not say.
    expect(end(box({ ventLength_m: 0.5 }))).toMatchObject({ isPlaced: false, over: undefined });
    const height = { ground_m: chosen(-0.5), centre_m: chosen(0.4) };
    const { over } = end({ ...land, stance: { ...ON_AXLES, height } });
    expect(over).toMatchObject({ over: 'ground' });
    expectClose(over!.level_m, 0.8, { abs: 1e-9, why: 'height over the ground' });
  });
});
