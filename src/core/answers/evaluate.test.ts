import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { chosen, parseSystemText, toPath, withValue, type ShapeDocument, type SystemDocument } from '../plan';
import { unwrap } from '../outcome';
import { ALLOYS } from '../reference/alloys';
import { findingKeys } from '../rules';
import { expectClose } from '../../../tests/expectClose';
import { askedNumbers, evaluateSystem, influencesOf, numbersOf, sensitivity, combinedUncertainty, workingOf } from './';

const parsedFile = (file: string): SystemDocument => {
  const parsed = parseSystemText(readFileSync(file, 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
};
const demo = (name: string): SystemDocument => parsedFile(`demo/${name}.json`);
const DEMOS = ['crab-boat', 'snow-vehicle', 'hill-climb-car', 'forest-trailer'];
/** A boat with one box tank, all of whose volumes have closed forms. */
const BOAT = parsedFile('tests/fixtures/box-boat.json');
const changed = (path: string, value: unknown, system = BOAT): SystemDocument => withValue(system, toPath(path), value);
const evaluated = (system: SystemDocument) => unwrap(evaluateSystem(system, 'full', 'without-fit'));
const flowOf = (system: SystemDocument) => unwrap(evaluated(system).flows[0]!);

describe('every demo system', () => {
  it.each(DEMOS)('%s has its four numbers, and their workings end in them', (name) => {
    const system = demo(name);
    const evaluation = evaluated(system);
    const numbers = numbersOf(system, evaluation);
    for (const key of askedNumbers(system)) {
      const number = unwrap(numbers[key]);
      const { steps } = workingOf(key, system, evaluation);
      expect(steps.length).toBeGreaterThan(0);
      expect(
        steps.some((step) => Math.abs(step.result.value - number.value) <= 1e-12 + 1e-9 * Math.abs(number.value)),
        key,
      ).toBe(true);
    }
  });

  it.each(DEMOS)('%s: usable lies between nothing and what it holds; mass and energy close', (name) => {
    const evaluation = evaluated(demo(name));
    const usable = unwrap(evaluation.usable);
    expect(usable).toBeGreaterThan(0);
    expect(usable).toBeLessThan(unwrap(numbersOf(demo(name), evaluation).holds).value);
    const flow = unwrap(evaluation.flows[0]!);
    expect(flow.massResidual_m3PerS).toBeLessThan(1e-9 * flow.needed_m3PerS);
    expect(flow.energyResidual_Pa).toBeLessThan(1e-2);
    expect(flow.iterations).toBeLessThanOrEqual(25);
  });

  it.each(DEMOS)('%s: the four numbers alone are those of the whole', (name) => {
    const system = demo(name);
    const first = unwrap(evaluateSystem(system, 'first', 'without-fit'));
    expect(first.flows).toHaveLength(1);
    expect(numbersOf(system, first)).toEqual(numbersOf(system, evaluated(system)));
  });
});

describe('a wall whose density is known', () => {
  it('weighs as that says, and else as its name', () => {
    const named = evaluated(BOAT).tanks[0]!.dryMass_kg;
    const known = evaluated(
      changed('tanks[0].material.density_kgPerM3', { value: 8960, origin: 'measured', spread: 20 }),
    ).tanks[0]!.dryMass_kg;
    expectClose(known / named, 8960 / ALLOYS[BOAT.tanks[0]!.material.alloy].density_kgPerM3, {
      rel: 1e-12,
      why: 'the same metal volume',
    });
  });
});

describe('conditions act', () => {
  it('holds is gross times limit', () => {
    expectClose(evaluated(BOAT).tanks[0]!.holds_m3, 1.12 * 0.56 * 0.302 * 0.95, { rel: 1e-12, why: 'closed form' });
  });

  it('a steeper envelope leaves less usable, a pickup moved down more', () => {
    const base = unwrap(evaluated(BOAT).usable);
    expect(unwrap(evaluated(changed('envelope.noseDown_deg', chosen(20))).usable)).toBeLessThan(base);
    expect(unwrap(evaluated(changed('tanks[0].pickups[0].heightOffFloor_m', chosen(0.005))).usable)).toBeGreaterThan(
      base,
    );
  });

  it('cold diesel flows less, a wider line more, low voltage less', () => {
    const base = flowOf(BOAT).delivered_m3PerS;
    expect(flowOf(changed('conditions.fuelTemperature_K', 258.15)).delivered_m3PerS).toBeLessThan(base);
    expect(flowOf(changed('lines[2].bore_m', chosen(0.012))).delivered_m3PerS).toBeGreaterThan(base);
    expect(flowOf(changed('conditions.pumpVoltage_V', 10)).delivered_m3PerS).toBeLessThan(base);
  });

  it('altitude takes from the margin to boiling what it takes from the air', () => {
    const [low, high] = [evaluated(BOAT), evaluated(changed('conditions.altitude_m', 2000))];
    expectClose(
      unwrap(low.flows[0]!).suction.margin_Pa - unwrap(high.flows[0]!).suction.margin_Pa,
      low.state.ambientAbs_Pa - high.state.ambientAbs_Pa,
      { rel: 1e-3, why: 'air in the vent thins a little too' },
    );
  });

  it('nose up raises a consumer that lies forward, and it gets less pressure', () => {
    const forward = withValue(BOAT, toPath('lines[2].forward_m'), chosen(2));
    expect(flowOf(changed('conditions.pitch_deg', 15, forward)).pressureAtNeed_Pa).toBeLessThan(
      flowOf(forward).pressureAtNeed_Pa,
    );
  });

  it('the delivered flow is where the chart’s curves cross', () => {
    const { chart, delivered_m3PerS } = flowOf(BOAT);
    const over = chart.map((point) => ({ flow: point.flow_m3PerS, gap: point.given_Pa - point.asked_Pa }));
    const next = over.findIndex((point) => point.gap < 0);
    expect(over[next - 1]!.flow).toBeLessThanOrEqual(delivered_m3PerS);
    expect(over[next]!.flow).toBeGreaterThanOrEqual(delivered_m3PerS);
  });

  it('a full vent line draws no vacuum, a pin hole does', () => {
    expect(Math.abs(flowOf(BOAT).ullageGauge_Pa)).toBeLessThan(1);
    expect(flowOf(changed('tanks[0].ports[1].bore_m', chosen(0.0005))).ullageGauge_Pa).toBeLessThan(-500);
  });
});

describe('what cannot be said has its reason', () => {
  it.each<[string, string, unknown]>([
    ['pickup-in-air', 'conditions.fills[0].fill_ratio', 0.01],
    ['vent-shut', 'tanks[0].ports[1].role', 'spare'],
    ['vent-shut', 'conditions.fills[0].fill_ratio', 1],
    ['not-joined', 'lines', []],
    [
      'curve-rises',
      'components[1].curve',
      [
        { flow_m3PerS: 0, rise_Pa: 1 },
        { flow_m3PerS: 1e-5, rise_Pa: 2 },
      ],
    ],
    ['too-few-points', 'components[1].curve', []],
  ])('%s', (code, path, value) => {
    const system =
      path.startsWith('conditions.fills') && value === 1
        ? withValue(changed(path, value), toPath('conditions.roll_deg'), 10)
        : changed(path, value);
    const evaluation = evaluated(system);
    expect(evaluation.flows[0]).toMatchObject({ ok: false, error: { code } });
    expect(numbersOf(system, evaluation).delivers).toMatchObject({ ok: false });
    expect(numbersOf(system, evaluation).holds).toMatchObject({ ok: true });
  });

  it('no tank, no pickup, no burn, free fall, absurd temperature', () => {
    expect(evaluateSystem({ ...BOAT, tanks: [] })).toMatchObject({ ok: false, error: { code: 'no-tank' } });
    expect(evaluated(changed('tanks[0].pickups', [])).usable).toMatchObject({
      ok: false,
      error: { code: 'no-pickup' },
    });
    expect(evaluated({ ...BOAT, consumers: [] }).range).toMatchObject({ ok: false, error: { code: 'no-consumer' } });
    expect(evaluateSystem(changed('conditions.accelerationUp_mPerS2', -9.8))).toMatchObject({
      ok: false,
      error: { code: 'weightless' },
    });
    expect(evaluateSystem(changed('conditions.fuelTemperature_K', 100))).toMatchObject({
      ok: false,
      error: { code: 'temperature-range' },
    });
    expect(evaluateSystem(changed('conditions.altitude_m', 20000))).toMatchObject({
      ok: false,
      error: { code: 'altitude-range' },
    });
  });

  it('a shut valve in the run', () => {
    const valve = {
      id: 'cock',
      name: 'Cock',
      ends: [],
      kind: 'valve',
      open: false,
      fitting: 'ball-valve',
      bore_m: chosen(0.01),
    };
    const joined = withValue(
      withValue(BOAT, ['components', 0], valve),
      ['lines'],
      BOAT.lines.map((line) => ({
        ...line,
        from: line.from.item === 'filter' ? { item: 'cock', end: 'out', adapters: [] } : line.from,
        to: line.to.item === 'filter' ? { item: 'cock', end: 'in', adapters: [] } : line.to,
      })),
    );
    expect(evaluated(joined).flows[0]).toMatchObject({ ok: false, error: { code: 'valve-shut' } });
    expect(evaluated(changed('components[0].open', true, joined)).flows[0]).toMatchObject({ ok: true });
  });
});

describe('tanks of every shape', () => {
  const at = (list: readonly (readonly [number, number])[]) => list.map(([u_m, v_m]) => ({ u_m, v_m }));
  const V = at([
    [0, 0.1],
    [0.28, 0],
    [0.56, 0.1],
    [0.56, 0.302],
    [0, 0.302],
  ]);
  const SHAPES: Readonly<Record<string, ShapeDocument>> = {
    prism: { kind: 'prism', axis: 'x', length_m: chosen(1.12), profile: V, profileOrigin: 'measured' },
    loft: {
      kind: 'loft',
      axis: 'x',
      length_m: chosen(1.12),
      near: V,
      far: at([
        [0.05, 0.15],
        [0.28, 0.05],
        [0.51, 0.15],
        [0.54, 0.302],
        [0.02, 0.302],
      ]),
      profileOrigin: 'measured',
    },
    'lying cylinder': {
      kind: 'cylinder',
      axis: 'x',
      diameter_m: chosen(0.5),
      shell_m: chosen(0.8),
      nearEnd: 'torispherical',
      farEnd: 'elliptical',
    },
    'upright cylinder': {
      kind: 'cylinder',
      axis: 'z',
      diameter_m: chosen(0.6),
      shell_m: chosen(0.5),
      nearEnd: 'hemispherical',
      farEnd: 'flat',
    },
    cone: { kind: 'cone', axis: 'z', nearDiameter_m: chosen(0.3), farDiameter_m: chosen(0.7), length_m: chosen(0.5) },
  };

  it.each(Object.keys(SHAPES))('a %s goes through the validator, holds its volume and has its numbers', (name) => {
    const system = changed('tanks[0].shape', SHAPES[name]);
    expect(parseSystemText(JSON.stringify(system))).toMatchObject({ ok: true });
    const evaluation = evaluated(system);
    const [tank] = evaluation.tanks;
    expect(tank!.strapping.at(-1)!.volume_m3).toBeCloseTo(tank!.gross_m3, 9);
    expect(tank!.drawing!.side.outline.length).toBeGreaterThan(0);
    expect(unwrap(evaluation.usable)).toBeGreaterThan(0);
    const { steps } = workingOf('holds', system, evaluation);
    expect(steps[0]!.terms.length).toBeGreaterThan(1);
  });

  it('a saddle leaves its far lobe behind', () => {
    const saddle = at([
      [0, 0],
      [0.2, 0],
      [0.2, 0.25],
      [0.36, 0.25],
      [0.36, 0],
      [0.56, 0],
      [0.56, 0.302],
      [0, 0.302],
    ]);
    const level = withValue(
      changed('tanks[0].shape', {
        kind: 'prism',
        axis: 'x',
        length_m: chosen(1.12),
        profile: saddle,
        profileOrigin: 'measured',
      }),
      toPath('tanks[0].mounting.pitch_deg'),
      chosen(0),
    );
    const system = withValue(level, toPath('tanks[0].ports[2].y_m'), chosen(0.1));
    const [pickup] = evaluated(system).tanks[0]!.pickups;
    expectClose(pickup!.unusableLevel_m3, 1.12 * (0.2 * (0.022 + 0.005) + 0.2 * 0.25), {
      rel: 1e-9,
      why: 'own lobe to the inlet, the other to the bridge',
    });
  });

  it('a profile that crosses itself is said so, and nothing is computed from it', () => {
    const crossed = changed('tanks[0].shape', {
      ...SHAPES.prism!,
      profile: at([
        [0, 0],
        [1, 1],
        [1, 0],
        [0, 1],
      ]),
    });
    expect(evaluateSystem(crossed)).toMatchObject({
      ok: false,
      error: { code: 'bad-shape', detail: expect.stringContaining('crosses itself') as string },
    });
  });
});

describe('two tanks and two consumers', () => {
  // A second tank of water, an aft one, feeds a heater by gravity beside the boat's own feed.
  const second = JSON.parse(
    JSON.stringify(BOAT.tanks[0]!)
      .replace(/"id":"([a-z-]+)"/g, '"id":"second-$1"')
      .replace(/"port":"([a-z-]+)"/g, '"port":"second-$1"'),
  ) as SystemDocument['tanks'][number];
  const both: SystemDocument = {
    ...BOAT,
    fluids: [...BOAT.fluids, { id: 'water', fluid: 'water' }],
    tanks: [...BOAT.tanks, { ...second, fluid: 'water' }],
    lines: [
      ...BOAT.lines,
      {
        ...BOAT.lines[0]!,
        id: 'gravity-line',
        name: 'Gravity line',
        from: { item: 'second-pickup', end: 'out', adapters: [] },
        to: { item: 'second-user', end: 'in', adapters: [] },
        rise_m: chosen(-1),
      },
    ],
    consumers: [
      ...BOAT.consumers,
      {
        ...BOAT.consumers[0]!,
        id: 'second-user',
        name: 'Second user',
        neededPressure_Pa: chosen(0),
        neededFlow_m3PerS: chosen(1e-6),
      },
    ],
    conditions: { ...BOAT.conditions, fills: [...BOAT.conditions.fills, { tank: 'second-main', fill_ratio: 0.5 }] },
  };

  it('each gets its own, of its own fluid', () => {
    const evaluation = evaluated(both);
    expectClose(unwrap(evaluation.flows[0]!).delivered_m3PerS, flowOf(BOAT).delivered_m3PerS, {
      rel: 1e-9,
      why: 'separate circuits',
    });
    expect(evaluation.tanks[1]!.liquidMass_kg / evaluation.tanks[1]!.fill.volume_m3).toBeGreaterThan(990);
    const gravity = unwrap(evaluation.flows[1]!);
    expect(gravity.pumps).toEqual([]);
    expect(gravity.margin_ratio).toBeGreaterThan(1);
  });

  it('one starved does not silence the other', () => {
    const evaluation = evaluated(withValue(both, toPath('conditions.fills[1].fill_ratio'), 0.01));
    expect(evaluation.flows[1]).toMatchObject({ ok: false, error: { code: 'pickup-in-air' } });
    expectClose(unwrap(evaluation.flows[0]!).delivered_m3PerS, flowOf(BOAT).delivered_m3PerS, {
      rel: 1e-9,
      why: 'separate circuits',
    });
  });
});

describe('sensitivity', () => {
  const found = sensitivity(BOAT, findingKeys);

  it('stands in order, and holds moves with each inside size by closed form', () => {
    const scores = found.influences.map((influence) => influence.score);
    expect(scores).toEqual([...scores].sort((a, b) => b - a));
    const length = found.influences.find((influence) => influence.path.join('.') === 'tanks.0.shape.length_m')!;
    expectClose(length.moves.holds!, 0.003 * 0.56 * 0.302 * 0.95, { rel: 1e-9, why: 'linear in length' });
  });

  it('corners of a profile known to within a spread: closed form of a rectangle', () => {
    const profile = [
      [0, 0],
      [0.56, 0],
      [0.56, 0.302],
      [0, 0.302],
    ].map(([u_m, v_m]) => ({ u_m: u_m!, v_m: v_m! }));
    const prism = changed('tanks[0].shape', {
      kind: 'prism',
      axis: 'x',
      length_m: chosen(1.12),
      profile,
      profileOrigin: 'measured',
      profileSpread_m: 0.004,
    });
    const corners = sensitivity(prism, findingKeys).influences.find(
      (influence) => influence.path.join('.') === 'tanks.0.shape.profileSpread_m',
    )!;
    // Each corner moves square to the chord past it and sweeps half that chord; four such add as squares.
    expectClose(corners.moves.holds!, 2 * 0.5 * Math.hypot(0.56, 0.302) * 0.004 * 1.12 * 0.95, {
      rel: 1e-9,
      why: 'four half diagonals',
    });
    expect(corners).toMatchObject({ origin: 'measured', value: 0.004 });
    const added = withValue(prism, toPath('tanks[0].parts'), [
      {
        id: 'sump',
        name: 'Sump',
        operation: 'add',
        shape: {
          kind: 'prism',
          axis: 'x',
          length_m: chosen(0.2),
          profile: [
            [0, 0],
            [0.2, 0],
            [0.2, 0.1],
            [0, 0.1],
          ].map(([u_m, v_m]) => ({ u_m: u_m!, v_m: v_m! })),
          profileOrigin: 'assumed',
          profileSpread_m: 0.004,
        },
        x_m: chosen(0.1),
        y_m: chosen(0.1),
        z_m: chosen(-0.05),
        yaw_deg: chosen(0),
        pitch_deg: chosen(0),
        roll_deg: chosen(0),
      },
    ]);
    const ofPart = sensitivity(added, findingKeys).influences.find(
      (influence) => influence.path.join('.') === 'tanks.0.parts.0.shape.profileSpread_m',
    )!;
    // Half of the sump stands inside the tank, and only its lower two corners tell.
    expect(ofPart.moves.holds!).toBeGreaterThan(0);
    expect(ofPart.moves.holds!).toBeLessThan(2 * 0.5 * Math.hypot(0.2, 0.1) * 0.004 * 0.2 * 0.95);
    // Every corner by itself comes to the same as all alike; one that is said to be exact counts for nothing.
    const own = withValue(
      prism,
      toPath('tanks[0].shape.profile'),
      profile.map((point, i) => (i === 3 ? point : { ...point, origin: 'assumed', spread_m: i === 0 ? 0 : 0.004 })),
    );
    const each = sensitivity(own, findingKeys).influences.filter(({ path }) => path[2] === 'shape' && path.length > 4);
    expect(each.map(({ path, origin }) => `${path.join('.')} ${origin}`).sort()).toEqual([
      'tanks.0.shape.profile.1.spread_m assumed',
      'tanks.0.shape.profile.2.spread_m assumed',
    ]);
    const rest = sensitivity(own, findingKeys).influences.find(({ path }) => path.at(-1) === 'profileSpread_m')!;
    expectClose(
      Math.hypot(...each.map(({ moves }) => moves.holds!), rest.moves.holds!),
      Math.sqrt(3) * 0.5 * Math.hypot(0.56, 0.302) * 0.004 * 1.12 * 0.95,
      { rel: 1e-9, why: 'three half diagonals' },
    );
    const exact = withValue(prism, toPath('tanks[0].shape.profileSpread_m'), 0);
    expect(
      sensitivity(exact, findingKeys).influences.some((influence) => influence.path.includes('profileSpread_m')),
    ).toBe(false);
  });

  it('can be left off between any two values: nothing is reckoned ahead, and put together they are the same', () => {
    let evaluations = 0;
    const steps = influencesOf(BOAT, (...asked) => {
      evaluations++;
      return findingKeys(...asked);
    });
    const first = steps.next();
    expect(evaluations).toBe(1 + 2);
    const rest = [...steps];
    expect(evaluations).toBe(1 + 2 * (1 + rest.length));
    expect(combinedUncertainty([first.value!, ...rest])).toEqual(found);
  });

  it('adds independent effects as squares', () => {
    const holds = found.influences.map((influence) => influence.moves.holds ?? 0);
    expectClose(found.spreads.holds!, Math.hypot(...holds), { rel: 1e-12, why: 'GUM 5.1.2' });
    const sides = [0.003 / 1.12, 0.003 / 0.56, 0.003 / 0.302].map((rel) => rel * 0.17994368);
    expectClose(found.spreads.holds!, Math.hypot(...sides), { rel: 1e-6, why: 'closed form of a box' });
  });

  it('what is chosen has no influence', () => {
    expect(found.influences.some((influence) => influence.path.join('.') === 'tanks.0.fillLimit_ratio')).toBe(false);
  });

  it('names findings that come or go within a spread', () => {
    const trailer = sensitivity(demo('forest-trailer'), findingKeys);
    expect(trailer.influences.some((influence) => influence.findings.length > 0)).toBe(true);
  });
});
