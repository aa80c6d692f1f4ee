import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { add, loadKernel, norm, scale, type Vec3 } from '../../geometry';
import { pressed_Pa } from '../../mounts';
import { unwrap } from '../../outcome';
import { draftSystem, parseSystem, parseSystemText } from '../../plan';
import type { MountDocument, SystemDocument } from '../../plan/schema';
import { MOUNT_SIDES, STRAP_RUNS } from '../../plan/schema';
import { BOLT_CLASSES, BOLT_HELD, BOLT_SIZES } from '../../reference/bolts';
import { MOUNT_STOCK, PADS } from '../../reference/mountStock';
import { SHOCK_KINDS, SHOCKS } from '../../reference/shocks';
import { judgedBy } from '../../rules';
import { chosen } from '../../schema/known';
import { seeded } from '../../seeded';
import { STANDARD_GRAVITY_M_PER_S2 as G } from '../../units';
import { changesOf } from './changes';
import { layoutsFor } from './layouts';
import { SHOCK_CASES, shocksFrom, thrownIn, type Mounted } from './loads';
import { holds, mountsOf, weakest, type MountsOf } from './mounts';

beforeAll(loadKernel);

const BOX = ((): SystemDocument => {
  const draft = draftSystem({ name: 'Box', vehicle: 'boat', consumer: 'diesel-engine', power_W: 40e3, holds_m3: 0.1 });
  const [tank] = draft.tanks;
  const none = chosen(0);
  return {
    ...draft,
    tanks: [
      {
        ...tank!,
        mounting: { x_m: none, y_m: none, z_m: none, yaw_deg: none, pitch_deg: none, roll_deg: none },
        dimensions: 'outside',
        shape: { kind: 'box', length_m: chosen(1), width_m: chosen(0.5), height_m: chosen(0.4) },
        material: { alloy: 'al-5052', thickness_m: chosen(0.003) },
        parts: [],
        slices: [],
        plates: [],
      },
    ],
    mounts: [],
  };
})();

const BOLTS_ = { count: 1, size: 'M8', class: '8.8', held: 'nut', edge_m: chosen(0.03) } as const;
const BEARS = { stock: 'mild-steel', thickness_m: chosen(0.004) } as const;
const PAD = { of: 'rubber', thickness_m: chosen(0.004) } as const;
const BARE = { of: 'none', thickness_m: chosen(0) } as const;
const place = (x: number, y: number, z: number) => ({ x_m: chosen(x), y_m: chosen(y), z_m: chosen(z) });
const strap = (id: string, x: number, more: object = {}): MountDocument => ({
  id,
  name: id,
  kind: 'strap',
  tank: BOX.tanks[0]!.id,
  ...place(x, 0.25, 0),
  made: {
    runs: 'across',
    side: 'down',
    stock: 'mild-steel',
    width_m: chosen(0.04),
    thickness_m: chosen(0.002),
    tension_N: chosen(0),
    splay_m: chosen(0),
    bolts: BOLTS_,
    bears: BEARS,
    pad: PAD,
    ...more,
  },
});
const bearer = (id: string, x: number, more: object = {}): MountDocument => ({
  id,
  name: id,
  kind: 'cradle',
  tank: BOX.tanks[0]!.id,
  ...place(x, 0.25, 0),
  made: {
    side: 'down',
    length_m: chosen(0.05),
    width_m: chosen(0.5),
    lip_m: chosen(0),
    stock: 'mild-steel',
    thickness_m: chosen(0.004),
    bears: BEARS,
    pad: PAD,
    ...more,
  },
});
const tab = (id: string, x: number, y: number, more: object = {}): MountDocument => ({
  id,
  name: id,
  kind: 'tab',
  tank: BOX.tanks[0]!.id,
  ...place(x, y, 0.02),
  made: {
    wall: y > 0.25 ? 'port' : 'starboard',
    side: 'down',
    stock: 'aluminium-5052',
    width_m: chosen(0.08),
    thickness_m: chosen(0.006),
    arm_m: chosen(0.03),
    leg_m: chosen(0.04),
    weld: { throat_m: chosen(0.003), length_m: chosen(0.16) },
    bolts: { ...BOLTS_, count: 2, edge_m: chosen(0.02) },
    bears: BEARS,
    pad: BARE,
    ...more,
  },
});
const withMounts = (mounts: readonly MountDocument[], more: Partial<Mounted> = {}): Mounted => ({
  ...BOX,
  ...more,
  mounts: [...mounts],
});
const heldIn = (system: Mounted): MountsOf => unwrap(mountsOf(system)).shells[0]!;
const part = (of: MountsOf, mount: number, name: string) =>
  of.parts.find((use) => use.mount === mount && use.part === name)!;

/** What mounts give and what the case throws add up to nothing. */
function expectBalanced(system: Mounted, of: MountsOf, why = ''): void {
  const shocks = system.shocks ?? shocksFrom('boat');
  for (const shock of SHOCK_CASES) {
    const held = of.cases[shock];
    if (held.held !== true) continue;
    const thrown = scale(thrownIn(shocks, shock), of.load.mass_kg);
    const sum = Object.values(held.gives_N).reduce<Vec3>(add, thrown);
    expect(norm(sum), `${why} ${shock}`).toBeLessThan(2e-3 * Math.max(norm(thrown), of.load.mass_kg * G));
  }
}

describe('a box on bearers under straps, by hand', () => {
  const layout = [bearer('b1', 0.2), bearer('b2', 0.8), strap('s1', 0.2), strap('s2', 0.8)];
  const lips = { lip_m: chosen(0.03) };

  it('weighs what wall and fuel weigh', () => {
    const { load } = heldIn(withMounts(layout));
    // 2 (1 × 0.5 + 1 × 0.4 + 0.5 × 0.4) m² of 3 mm at 2,680 kg/m³, about; fuel inside at its limit.
    const shell = 2 * (0.997 * 0.497 + 0.997 * 0.397 + 0.497 * 0.397) * 0.003 * 2680;
    const inside = 0.994 * 0.494 * 0.394 * BOX.tanks[0]!.fillLimit_ratio.value;
    expect(load.mass_kg).toBeGreaterThan(shell + inside * 780);
    expect(load.mass_kg).toBeLessThan(shell * 1.02 + inside * 880);
    expectClose(load.centre_m[0], 0.5, { abs: 1e-4, why: 'in its middle' });
  });

  it('lifted off, two straps of two legs share what lifts: a quarter in each leg', () => {
    const system = withMounts(layout, { shocks: { ...shocksFrom('boat'), up_mPerS2: chosen(3 * G) } });
    const of = heldIn(system);
    expectClose(part(of, 2, 'strap').demand_N, (3 * G * of.load.mass_kg) / 4, { rel: 2e-3, why: '3 g upward' });
    expect(of.cases.up).toMatchObject({ held: true, letGo: [0, 1] });
    // 40 × 2 mm less the 9 mm hole, at 235 MPa.
    expectClose(part(of, 2, 'strap').capacity_N!, 31 * 2 * 235, { rel: 1e-9, why: 'beside the hole' });
    expectClose(part(of, 2, 'strap').factor!, (31 * 2 * 235 * 4) / (3 * G * of.load.mass_kg), {
      rel: 2e-3,
      why: 'their share',
    });
    // Straight up from its bolt: pulled and not sheared.
    expectClose(part(of, 2, 'bolt').demand_N, (3 * G * of.load.mass_kg) / 4, { rel: 2e-3, why: 'one bolt an end' });
    expectBalanced(system, of);
  });

  it('without lip or stop it creeps fore and aft, and is loose where nothing presses hard enough', () => {
    const of = heldIn(withMounts(layout, { shocks: shocksFrom('road') }));
    // 0.8 g forward against 0.4 of its weight.
    expect(of.cases.fore).toEqual({ held: false, goes: 'fore' });
    // At rest nothing drives it.
    expect(of.cases.rest).toMatchObject({ held: true, creeps: undefined });
    expect(holds(of, 2)).toBe(false);
    const tight = heldIn(
      withMounts(
        layout.map((one) => (one.kind === 'strap' ? { ...one, made: { ...one.made!, tension_N: chosen(2000) } } : one)),
        { shocks: shocksFrom('road') },
      ),
    );
    // Two straps of 2 kN press with 8 kN: friction of 0.4 bears what 0.8 g throws, and nothing else does.
    expect(tight.cases.fore).toMatchObject({ held: true, creeps: 'fore' });
    // At rest each pulls what it was tightened to, whatever its pads have given: twice that, straight down.
    if (tight.cases.rest.held !== true) throw new Error('loose at rest');
    for (const mount of [2, 3])
      expectClose(tight.cases.rest.gives_N[mount]![2], -4000, { rel: 2e-3, why: 'two legs of 2 kN' });
    const stopped = heldIn(
      withMounts([...layout.filter(({ kind }) => kind === 'strap'), bearer('b1', 0.2, lips), bearer('b2', 0.8, lips)]),
    );
    expect(stopped.cases.port).toMatchObject({ held: true, creeps: undefined });
    expect(stopped.cases.fore.held === true ? stopped.cases.fore.creeps : 'fore').toBe('fore');
  });

  it('what is fastened by nothing that is said is not known to hold, whatever else bears', () => {
    const lipped = [bearer('b1', 0.2, lips), bearer('b2', 0.8, lips), strap('s1', 0.2), strap('s2', 0.8)];
    const bolts = { ...BOLTS_, count: 2 };
    const stops = (['fore', 'aft'] as const).map((side): MountDocument => ({
      id: side,
      name: side,
      kind: 'stop',
      tank: BOX.tanks[0]!.id,
      ...place(side === 'fore' ? 1 : 0, 0.25, 0.03),
      made: {
        side,
        width_m: chosen(0.15),
        arm_m: chosen(0.025),
        stock: 'mild-steel',
        thickness_m: chosen(0.008),
        bolts,
        bears: BEARS,
        pad: PAD,
      },
    }));
    const of = heldIn(withMounts([...lipped, ...stops]));
    expect(part(of, 0, 'bolt')).toMatchObject({ capacity_N: undefined, factor: undefined });
    expect(holds(of, 1)).toBeUndefined();
    const fastened = [bearer('b1', 0.2, { ...lips, bolts }), bearer('b2', 0.8, { ...lips, bolts })];
    const whole = heldIn(withMounts([...fastened, ...lipped.slice(2), ...stops]));
    expect(holds(whole, 1)).toBe(true);
    // The same held by tabs without a weld, or by the rim of a flange.
    const corners = [0, 0.5].flatMap((y) => [0.1, 0.9].map((x) => tab(`t${x}${y}`.replaceAll('.', ''), x, y)));
    expect(holds(heldIn(withMounts(corners)), 0.5)).toBe(true);
    const unwelded = corners.map((one) => ({ ...one, made: { ...one.made!, weld: undefined } }) as MountDocument);
    expect(holds(heldIn(withMounts(unwelded)), 0.5)).toBeUndefined();
    const flange: MountDocument = {
      id: 'rim',
      name: 'rim',
      kind: 'flange',
      tank: BOX.tanks[0]!.id,
      ...place(0.5, 0.25, 0),
      made: {
        side: 'down',
        circle_m: chosen(0.45),
        stock: 'mild-steel',
        thickness_m: chosen(0.008),
        bolts: { ...bolts, count: 6 },
        bears: BEARS,
      },
    };
    const rim = heldIn(withMounts([flange]));
    expect(rim.cases.fore.held).toBe(true);
    expect(holds(rim, 0.5)).toBeUndefined();
    expect(weakest(rim)?.factor).toBeGreaterThan(0);
  });

  it('nothing said of how it is made is not held, and not loose: not known', () => {
    const bare = layout.map(({ made: _, ...mount }) => mount as MountDocument);
    const of = heldIn(withMounts(bare));
    expect(of.undescribed).toEqual([0, 1, 2, 3]);
    expect(holds(of, 2)).toBeUndefined();
    expect(holds(heldIn(withMounts([])), 2)).toBeUndefined();
    const astray = heldIn(withMounts([...layout, strap('s3', 4)]));
    expect(astray.astray).toHaveLength(1);
    expect(holds(astray, 0)).not.toBe(true);
  });
});

describe('welded tabs, by hand', () => {
  const four = [tab('t1', 0.1, 0), tab('t2', 0.9, 0), tab('t3', 0.1, 0.5), tab('t4', 0.9, 0.5)];

  it('pressed down, each of four bears a quarter: its arm bends, its bolts do not pull', () => {
    const system = withMounts(four, { shocks: { ...shocksFrom('boat'), down_mPerS2: chosen(4 * G) } });
    const of = heldIn(system);
    const quarter = G * of.load.mass_kg;
    for (const mount of [0, 1, 2, 3])
      expectClose(part(of, mount, 'arm').demand_N, quarter, { rel: 5e-3, why: '4 g over four tabs' });
    // 80 × 6 mm, 30 mm out, of 5052 beside its weld: 65 MPa × 480 mm³ / 30 mm.
    expectClose(part(of, 0, 'arm').capacity_N!, (65 * 480) / 30, { rel: 1e-9, why: 'section modulus' });
    expect(part(of, 0, 'arm').shock).toBe('down');
    expectBalanced(system, of);
  });

  it('thrown up, its eight bolts pull alike; thin sheet under their washers is told', () => {
    const system = withMounts(
      four.map(
        (one) =>
          ({
            ...one,
            made: { ...one.made!, bears: { stock: 'plywood', thickness_m: chosen(0.012) } },
          }) as MountDocument,
      ),
      { shocks: { ...shocksFrom('boat'), up_mPerS2: chosen(6 * G) } },
    );
    const of = heldIn(system);
    expectClose(part(of, 0, 'washer').demand_N, (6 * G * of.load.mass_kg) / 8, { rel: 1e-2, why: 'of each bolt' });
    expectClose(part(of, 0, 'washer').capacity_N!, 3 * 4 * (Math.PI / 4) * (24 ** 2 - 9 ** 2), {
      rel: 1e-9,
      why: 'under the washer',
    });
  });

  it('in the middle of a wall the tank’s own sheet bends, soft beside the weld; at an edge of it it is not judged', () => {
    const high = four.map((one) => ({ ...one, x_m: chosen(one.x_m.value < 0.5 ? 0.3 : 0.7), z_m: chosen(0.2) }));
    const use = part(heldIn(withMounts(high)), 0, 'tank-wall');
    const panel = { long_m: 1, short_m: 0.4, thickness_m: 0.003, radius_m: Math.sqrt((0.08 * 0.04) / Math.PI) };
    expectClose(use.capacity_N!, (use.demand_N * 65e6) / pressed_Pa(panel, use.demand_N), { rel: 1e-9, why: '5052-O' });
    expect(heldIn(withMounts(four)).parts.some((one) => one.part === 'tank-wall')).toBe(false);
  });

  it('a rivet nut that no table has is not known, and nothing that holds it is called enough', () => {
    const of = heldIn(
      withMounts(
        four.map(
          (one) =>
            ({ ...one, made: { ...one.made!, bolts: { ...BOLTS_, held: 'rivet-nut', size: 'M16' } } }) as MountDocument,
        ),
      ),
    );
    expect(part(of, 0, 'thread')).toMatchObject({ capacity_N: undefined, factor: undefined });
    expect(holds(of, 0.01)).toBeUndefined();
  });

  it('turned with its vehicle end for end, fore and aft change places and all else stays', () => {
    const [one, other] = [0, 180].map((yaw) =>
      heldIn({
        ...withMounts(four, { shocks: { ...shocksFrom('boat'), aft_mPerS2: chosen(G) } }),
        tanks: [
          {
            ...BOX.tanks[0]!,
            mounting: {
              ...BOX.tanks[0]!.mounting,
              yaw_deg: chosen(yaw),
              ...(yaw ? { x_m: chosen(1), y_m: chosen(0.5) } : {}),
            },
          },
        ],
        mounts: four.map((mount) =>
          yaw ? { ...mount, ...place(1 - mount.x_m.value, 0.5 - mount.y_m.value, 0.02) } : mount,
        ),
      }),
    );
    for (const [mount] of four.entries()) {
      expectClose(part(other!, mount, 'weld').demand_N, part(one!, mount, 'weld').demand_N, {
        rel: 1e-3,
        why: 'turned',
      });
    }
    expect([one!.cases.fore.held, other!.cases.aft.held]).toEqual([true, true]);
  });
});

describe('rules look along the tank, however it stands in the vehicle', () => {
  const spaced = [strap('s1', 0.1), strap('s2', 0.9)];
  const ported = {
    ...BOX,
    tanks: [
      {
        ...BOX.tanks[0]!,
        ports: [
          {
            ...BOX.tanks[0]!.ports[0]!,
            face: 'lid' as const,
            x_m: chosen(0.5),
            y_m: chosen(0.25),
            bore_m: chosen(0.04),
          },
        ],
        pickups: [],
        senders: [],
        dipsticks: [],
      },
    ],
  };
  const idsAt = (yaw: number, mounts: readonly MountDocument[]): string[] => {
    // Turned about its corner, and its mounts with it.
    const angle = (yaw * Math.PI) / 180;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const system = {
      ...ported,
      tanks: [{ ...ported.tanks[0]!, mounting: { ...ported.tanks[0]!.mounting, yaw_deg: chosen(yaw) } }],
      mounts: mounts.map((one) => ({
        ...one,
        ...place(c * one.x_m.value - s * one.y_m.value, s * one.x_m.value + c * one.y_m.value, one.z_m.value),
      })),
    };
    const { findings } = judgedBy('mounts', system as SystemDocument, mountsOf(system as SystemDocument))!;
    return findings.map(({ id }) => id);
  };

  it.each([0, 90, 180, 33])('turned by %s°: straps too far apart, and one over a port', (yaw) => {
    expect(idsAt(yaw, spaced)).toContain('mount.strap-span');
    expect(idsAt(yaw, spaced)).not.toContain('mount.over-port');
    const middle = [strap('s1', 0.3), strap('s2', 0.5), strap('s3', 0.8)];
    expect(idsAt(yaw, middle)).not.toContain('mount.strap-span');
    expect(idsAt(yaw, middle)).toContain('mount.over-port');
  });
});

describe('layouts of the schools', () => {
  const DEMOS = ['crab-boat', 'forest-trailer', 'hill-climb-car', 'snow-vehicle', 'van-heater'];

  it.each(DEMOS)('%s: each says whether it holds, is a plan that is taken, and balances', (name) => {
    const system = unwrap(parseSystemText(readFileSync(`demo/${name}.json`, 'utf8')));
    for (const t of system.tanks.keys()) {
      const layouts = unwrap(layoutsFor(system, t));
      expect(layouts.length).toBeGreaterThanOrEqual(2);
      for (const { mounts, holds: said, school } of layouts) {
        const whole = { ...system, mounts: [...mounts] };
        expect(parseSystem(whole), school).toMatchObject({ ok: true });
        const own = unwrap(mountsOf(whole)).shells.find(({ tanks }) => tanks.includes(t))!;
        expect(holds(own, unwrap(mountsOf(whole)).needed)).toBe(said);
        expectBalanced(
          {
            ...whole,
            shocks:
              whole.shocks ??
              shocksFrom(
                name === 'crab-boat'
                  ? 'boat'
                  : name === 'forest-trailer'
                    ? 'trailer'
                    : name === 'hill-climb-car'
                      ? 'competition'
                      : name === 'snow-vehicle'
                        ? 'snow'
                        : 'road',
              ),
          },
          own,
          `${name} ${school}`,
        );
      }
      expect(
        layouts.some((layout) => layout.holds === true),
        `${name} ${t}`,
      ).toBe(true);
    }
  });
});

describe('changes that are enough', () => {
  it('of a part that falls short: each one lifts it, the cheapest first, and nothing is offered where all is borne', () => {
    const weak = [0, 0.5].flatMap((y) =>
      [0.1, 0.9].map((x) => tab(`t${x * 10}${y * 10}`, x, y, { thickness_m: chosen(0.003) })),
    );
    const system = withMounts(weak, { shocks: { ...shocksFrom('boat'), down_mPerS2: chosen(4 * G) } });
    const of = heldIn(system);
    expect(of.parts[0]).toMatchObject({ part: 'arm' });
    expect(of.parts[0]!.factor).toBeLessThan(2);
    const changes = unwrap(changesOf(system, 0));
    expect(changes.map(({ kind }) => kind)).toContain('thicker');
    for (const { mounts, changed, weakest } of changes) {
      expect(changed).toHaveLength(4);
      const then = heldIn({ ...system, mounts: [...mounts] });
      for (const mount of changed) expect(part(then, mount, 'arm').factor).toBeGreaterThanOrEqual(2);
      expect(weakest).toEqual(then.parts[0]);
    }
    expect(unwrap(changesOf({ ...system, mounts: [...changes[0]!.mounts] }, 0))).toEqual([]);
  });
});

describe('layouts of chance', () => {
  /** A mount of chance, that the format takes. */
  function mountOf(seed: number, k: number): MountDocument {
    const { uniform } = seeded(97 * seed + k);
    const one = <T>(of: readonly T[]): T => of[Math.floor(uniform() * of.length)]!;
    const bolts = {
      count: 1 + Math.floor(4 * uniform()),
      size: one(BOLT_SIZES),
      class: one(BOLT_CLASSES),
      held: one(BOLT_HELD),
      edge_m: chosen(0.003 + 0.05 * uniform()),
    };
    const bears = { stock: one(MOUNT_STOCK), thickness_m: chosen(0.0005 + 0.02 * uniform()) };
    const pad = { of: one(PADS), thickness_m: chosen(0.01 * uniform()) };
    const stock = one(MOUNT_STOCK);
    const thickness_m = chosen(0.0005 + 0.01 * uniform());
    const width_m = chosen(0.01 + 0.2 * uniform());
    const side = one(MOUNT_SIDES);
    const base = {
      id: `m${k}`,
      name: `m${k}`,
      tank: BOX.tanks[0]!.id,
      ...place(uniform(), 0.5 * uniform(), 0.4 * uniform()),
    };
    switch (Math.floor(5 * uniform())) {
      case 0:
        return {
          ...base,
          kind: 'strap',
          made: {
            runs: one(STRAP_RUNS),
            side,
            stock,
            width_m,
            thickness_m,
            tension_N: chosen(3000 * uniform()),
            splay_m: chosen(0.3 * uniform()),
            bolts,
            bears,
            pad,
          },
        };
      case 1:
        return {
          ...base,
          kind: 'tab',
          made: {
            wall: one(MOUNT_SIDES),
            side,
            stock,
            width_m,
            thickness_m,
            arm_m: chosen(0.01 + 0.1 * uniform()),
            leg_m: chosen(0.02 + 0.1 * uniform()),
            ...(uniform() < 0.6 ? { weld: { throat_m: chosen(0.003), length_m: chosen(0.1) } } : {}),
            bolts,
            bears,
            pad,
          },
        };
      case 2:
        return {
          ...base,
          kind: 'stop',
          made: { side, width_m, arm_m: chosen(0.01 + 0.1 * uniform()), stock, thickness_m, bolts, bears, pad },
        };
      case 3:
        return {
          ...base,
          kind: 'flange',
          made: { side, circle_m: chosen(0.05 + 0.4 * uniform()), stock, thickness_m, bolts, bears },
        };
      default:
        return {
          ...base,
          kind: 'cradle',
          made: {
            side,
            length_m: chosen(0.03 + uniform()),
            width_m: chosen(0.03 + 0.6 * uniform()),
            lip_m: chosen(uniform() < 0.5 ? 0 : 0.05),
            stock,
            thickness_m,
            ...(uniform() < 0.5 ? { bolts } : {}),
            bears,
            pad,
          },
        };
    }
  }

  it('never a number that is none, a balance that is not, or a silent "it holds"', () => {
    const seen = { true: 0, false: 0, undefined: 0 };
    for (let seed = 1; seed <= 160; seed++) {
      const { uniform } = seeded(seed);
      const mounts = Array.from({ length: 1 + Math.floor(7 * uniform()) }, (_, k) => mountOf(seed, k));
      const system = withMounts(mounts, { shocks: shocksFrom(SHOCK_KINDS[seed % SHOCK_KINDS.length]!) });
      expect(parseSystem({ ...BOX, ...system, mounts }).ok, `seed ${seed}`).toBe(true);
      const found = mountsOf(system);
      const of = unwrap(found).shells[0]!;
      expectBalanced(system, of, `seed ${seed}`);
      const said = holds(of, 1.5);
      seen[String(said) as keyof typeof seen]++;
      const cases = SHOCK_CASES.map((shock) => of.cases[shock]);
      if (said === true) {
        expect(
          cases.every(({ held }) => held === true),
          `seed ${seed}`,
        ).toBe(true);
        expect(
          of.parts.every(({ factor }) => factor! >= 1.5),
          `seed ${seed}`,
        ).toBe(true);
        expect(of.astray).toEqual([]);
      }
      for (const { demand_N, capacity_N, factor } of of.parts) {
        expect(demand_N, `seed ${seed}`).toBeGreaterThan(0);
        expect(capacity_N === undefined ? 0 : capacity_N, `seed ${seed}`).toBeGreaterThanOrEqual(0);
        expect(Number.isNaN(factor ?? 0), `seed ${seed}`).toBe(false);
      }
      for (const one of cases)
        if (one.held === true)
          for (const force of Object.values(one.gives_N)) expect(force.every(Number.isFinite)).toBe(true);
    }
    expect(seen.false).toBeGreaterThan(20);
    expect(seen.undefined).toBeGreaterThan(5);
  });

  it('shocks: each kind throws forward no less than the row says, and its weight is always counted down', () => {
    for (const kind of SHOCK_KINDS) {
      const shocks = shocksFrom(kind);
      expect(thrownIn(shocks, 'fore')).toEqual([SHOCKS[kind].fore_g * G, 0, -G]);
      expect(thrownIn(shocks, 'down')[2]).toBeLessThanOrEqual(-G);
    }
  });
});
