import { beforeAll, describe, expect, it } from 'vitest';
import {
  assumed,
  chosen,
  draftSystem,
  measured,
  toPath,
  withValue,
  type PickupDocument,
  type SystemDocument,
} from '../../plan';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { expectClose } from '../../../../tests/expectClose';
import { evaluateSystem, heightForReserve, pickupCuts, type PickupPlan } from '..';

beforeAll(loadKernel);

type Changes = readonly (readonly [string, unknown])[];
const applied = (system: SystemDocument, changes: Changes): SystemDocument =>
  changes.reduce((at, [path, value]) => withValue(at, toPath(path), value), system);

/** A box 500 by 300 by 200 mm inside, 3 mm sheet, its feed in the middle. */
const BOX = applied(
  draftSystem({
    name: 'x',
    vehicle: 'road',
    consumer: 'diesel-engine',
    power_W: 30e3,
    holds_m3: 0.03,
    length_m: 0.5,
    width_m: 0.3,
    height_m: 0.2,
  }),
  [
    ['tanks[0].shape.height_m', measured(0.2, 0.002)],
    ['tanks[0].shape.length_m', measured(0.5, 0.002)],
    ['tanks[0].shape.width_m', measured(0.3, 0.002)],
    ['tanks[0].ports[2].x_m', chosen(0.25)],
    ['tanks[0].ports[2].y_m', chosen(0.15)],
    ['tanks[0].pickups[0].heightOffFloor_m', chosen(0.02)],
    ['tanks[0].senders', []],
    ['tanks[0].mounting.pitch_deg', chosen(0)],
    ['tanks[0].mounting.roll_deg', chosen(0)],
  ],
);
const planOf = (system: SystemDocument): PickupPlan =>
  unwrap(evaluateSystem(system, 'full', 'without-fit')).tanks[0]!.pickups[0]!.plan!;

describe('how a pickup is cut', () => {
  it('depth and sheet less what it stands off the floor, by hand', () => {
    expectClose(planOf(BOX).cut_m!, 0.2 + 0.003 - 0.02, { abs: 1e-9, why: 'seated on the outside of the lid' });
  });

  it('a seat over the lid makes it longer, one below shorter; a part brings its own', () => {
    expectClose(planOf(applied(BOX, [['tanks[0].pickups[0].seat_m', chosen(0.03)]])).cut_m!, 0.213, {
      abs: 1e-9,
      why: '30 mm over the lid',
    });
    expectClose(planOf(applied(BOX, [['tanks[0].pickups[0].seat_m', chosen(-0.01)]])).cut_m!, 0.173, {
      abs: 1e-9,
      why: '10 mm below it',
    });
    expectClose(planOf(applied(BOX, [['tanks[0].ports[2].part', 'bung-npt-1-4']])).cut_m!, 0.183 + 0.006, {
      abs: 1e-9,
      why: 'in a bung that stands 6 mm over the sheet',
    });
  });

  it('a sock hangs below its tube, which is so much shorter', () => {
    expectClose(planOf(applied(BOX, [['tanks[0].pickups[0].strainer', 'sock']])).cut_m!, 0.183 - 0.012, {
      abs: 1e-9,
      why: 'the sock reaches 12 mm further',
    });
  });

  it('under a lid that slopes a tube stands square to it, as its fitting does: by trigonometry', () => {
    const t = Math.tan((20 * Math.PI) / 180);
    const sloped = applied(BOX, [
      [
        'tanks[0].shape',
        {
          kind: 'prism',
          axis: 'y',
          length_m: chosen(0.3),
          profileOrigin: 'chosen',
          profile: [
            { u_m: 0, v_m: 0 },
            { u_m: 0.5, v_m: 0 },
            { u_m: 0.5, v_m: 0.2 + 0.5 * t },
            { u_m: 0, v_m: 0.2 },
          ],
        },
      ],
    ]);
    const depth = 0.2 + 0.25 * t - 0.02;
    // Square: down to the height asked for, on the slant; then the sheet squarely.
    expectClose(planOf(sloped).cut_m!, depth / Math.cos((20 * Math.PI) / 180) + 0.003, {
      abs: 1e-9,
      why: 'hypotenuse of the depth',
    });
    const inlet = unwrap(evaluateSystem(sloped, 'numbers')).tanks[0]!.pickups[0]!.inlet_m;
    expectClose(inlet[0], 0.25 + depth * t, { abs: 1e-9, why: 'the foot stands aside by the depth times the slope' });
    expectClose(inlet[2], 0.02, { abs: 1e-9, why: 'as far off the floor as asked' });
    // A hose hangs plumb and meets the sheet on the slant.
    expectClose(
      planOf(applied(sloped, [['tanks[0].pickups[0].kind', 'hose']])).cut_m!,
      depth + 0.003 / Math.cos((20 * Math.PI) / 180),
      { abs: 1e-9, why: 'plumb, the sheet counted along the hose' },
    );
  });

  it('an outlet in the bottom is not cut', () => {
    expect(planOf(applied(BOX, [['tanks[0].pickups[0].kind', 'bottom-outlet']]))).not.toHaveProperty('cut_m');
  });

  it('worst cases: the depth’s own spread and the saw’s; lengths that do not touch the depth count for nothing', () => {
    const [cut] = unwrap(pickupCuts(BOX, 0));
    expectClose(cut!.longest_m - cut!.cut_m, 0.002 + 0.0005, {
      abs: 1e-6,
      why: '2 mm of depth and half a millimetre of saw',
    });
    expectClose(cut!.lowestEnd_m, 0.02 - 0.0025, { abs: 1e-6, why: 'cut to the middle, its end may stand so low' });
    const [hose] = unwrap(pickupCuts(applied(BOX, [['tanks[0].pickups[0].kind', 'hose']]), 0));
    expectClose(hose!.longest_m - hose!.cut_m, 0.002 + 0.003, { abs: 1e-6, why: 'a hose is cut with a knife' });
  });

  it('sizes of two bodies add up, the bad way each', () => {
    const sump = {
      id: 'sump',
      name: 'Sump',
      operation: 'add',
      shape: { kind: 'box', length_m: measured(0.1), width_m: measured(0.1), height_m: measured(0.05, 0.001) },
      x_m: chosen(0.2),
      y_m: chosen(0.1),
      z_m: assumed(-0.05, 0.001),
    };
    const [cut] = unwrap(pickupCuts(applied(BOX, [['tanks[0].parts', [sump]]]), 0));
    expectClose(cut!.cut_m, 0.183 + 0.05, { abs: 1e-6, why: 'down into the sump' });
    // A sump that is taller than drawn reaches no deeper: its place is its lower corner, which may itself be off.
    expectClose(cut!.longest_m - cut!.cut_m, 0.002 + 0.001 + 0.0005, {
      abs: 1e-5,
      why: 'tank, place of the sump, saw',
    });
  });
});

describe('what a pickup stands near', () => {
  const nearOf = (changes: Changes): PickupPlan['near'] => planOf(applied(BOX, changes)).near;

  it('a wall beside it, by hand', () => {
    const [near] = nearOf([['tanks[0].ports[2].x_m', chosen(0.03)]]);
    expect(near).toMatchObject({ what: 'wall' });
    expectClose(near!.distance_m, 0.03 - BOX.tanks[0]!.pickups[0]!.bore_m.value / 2 - 0.001, {
      abs: 1e-6,
      why: 'half the bore and a millimetre of tube',
    });
  });

  it('a baffle beside it, unless it ends before', () => {
    const plate = {
      id: 'plate',
      name: 'Plate',
      axis: 'x',
      at_m: chosen(0.27),
      thickness_m: chosen(0.002),
      cornerCut_m: chosen(0.03),
      topGap_m: chosen(0.02),
      holes: { count: 0, diameter_m: chosen(0.03), height_m: chosen(0.1) },
    };
    expect(nearOf([['tanks[0].plates', [plate]]]).map(({ to }) => to)).toContain('Plate');
    expect(
      nearOf([['tanks[0].plates', [{ ...plate, from_m: chosen(0.2), to_m: chosen(0.3) }]]]).map(({ to }) => to),
    ).not.toContain('Plate');
  });

  it('a sender’s float that swings past it', () => {
    const sender = draftSystem({
      name: 'x',
      vehicle: 'road',
      consumer: 'diesel-engine',
      power_W: 30e3,
      holds_m3: 0.03,
      length_m: 0.5,
      width_m: 0.3,
      height_m: 0.2,
    }).tanks[0]!.senders[0]!;
    const at = (y: number): Changes => [
      ['tanks[0].senders', [{ ...sender, swing: 'fore' }]],
      ['tanks[0].ports[3].x_m', chosen(0.13)],
      ['tanks[0].ports[3].y_m', chosen(y)],
    ];
    expect(nearOf(at(0.15)).find(({ what }) => what === 'sender')!.distance_m).toBeLessThan(0.01);
    expect(nearOf(at(0.06)).find(({ what }) => what === 'sender')?.distance_m ?? 1).toBeGreaterThan(0.02);
  });
});

/** The box with a heater of its own pickup, so far off the floor. */
function heated(height_m: number): SystemDocument {
  const [tank] = BOX.tanks;
  const pickup: PickupDocument = {
    ...tank!.pickups[0]!,
    id: 'heater-pickup',
    name: 'Heater pickup',
    port: 'heater-port',
    heightOffFloor_m: chosen(height_m),
  };
  return {
    ...BOX,
    consumers: [...BOX.consumers, { ...BOX.consumers[0]!, id: 'heater', name: 'Heater', kind: 'heater' }],
    lines: [
      ...BOX.lines,
      {
        ...BOX.lines[0]!,
        id: 'heater-line',
        name: 'Heater line',
        from: { item: 'heater-pickup', end: 'out', adapters: [] },
        to: { item: 'heater', end: 'in', adapters: [] },
      },
    ],
    tanks: [
      {
        ...tank!,
        ports: [...tank!.ports, { ...tank!.ports[2]!, id: 'heater-port', name: 'Heater port', x_m: chosen(0.3) }],
        pickups: [...tank!.pickups, pickup],
      },
    ],
  };
}

describe('what a heater leaves for the engine', () => {
  const reserveOf = (height_m: number) => unwrap(evaluateSystem(heated(height_m), 'full', 'without-fit')).reserves[0]!;

  it('level: area times the difference of height, by hand; as time and distance at the set duty', () => {
    const reserve = reserveOf(0.05);
    expectClose(reserve.level_m3, 0.5 * 0.3 * 0.03, { rel: 1e-6, why: '30 mm over 0.15 m²' });
    const { consumers, conditions, vehicle } = BOX;
    const burn =
      consumers[0]!.burnIdle_m3PerS.value +
      conditions.duty_ratio * (consumers[0]!.burnFull_m3PerS.value - consumers[0]!.burnIdle_m3PerS.value);
    expectClose(reserve.lasts_s, reserve.level_m3 / burn, { rel: 1e-9, why: 'volume over burn' });
    expectClose(reserve.goes_m!, reserve.lasts_s * vehicle.speed_mPerS!.value, { rel: 1e-9, why: 'time times speed' });
    expect(reserve.worst_m3).toBeLessThanOrEqual(reserve.level_m3);
  });

  it('a pickup as deep as the engine’s leaves nothing', () => {
    expectClose(reserveOf(0.02).level_m3, 0, { abs: 1e-9, why: 'they starve together' });
    expect(reserveOf(0.01).level_m3).toBeLessThan(0);
  });

  it('the height for a reserve is the one that leaves it', () => {
    const height = unwrap(heightForReserve(heated(0.02), 0, 'heater-pickup', 'pickup', 0.006));
    expectClose(height, 0.02 + 0.006 / 0.15, { abs: 1e-6, why: 'volume over area' });
    expectClose(reserveOf(height).level_m3, 0.006, { rel: 1e-5, why: 'there and back' });
  });

  it.each([
    ['no-pickup', 'ghost', 0.001],
    ['too-much', 'heater-pickup', 5],
  ] as const)('refuses %s', (code, first, reserve) => {
    expect(heightForReserve(heated(0.02), 0, first, 'pickup', reserve)).toMatchObject({ ok: false, error: { code } });
  });
});
