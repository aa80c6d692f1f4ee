import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from './expectClose';
import { block, heldDown, inBay, slab, SOUND } from './raisedSystems';
import {
  carriedOf,
  evaluateSystem,
  fitOf,
  layoutsFor,
  mountRows,
  mountsOf,
  orderOut,
  reachOf,
  checkedWay,
} from '@/core/answers';
import { bareWalls } from '@/core/answers/fit/guarded';
import { onSides, pressedBy, wetDepth } from '@/core/answers/mounts/pressed';
import { sceneOf } from '@/core/answers/fit/fit';
import {
  add,
  boxMesh,
  depthInside,
  levelForVolume,
  loadKernel,
  meshBounds,
  meshVolume,
  norm,
  parseMesh,
  scale,
  sectionAcross,
  vertex,
  type ClosedMesh,
  type Vec3,
} from '@/core/geometry';
import { boltSites } from '@/core/model/boltSites';
import { compileMountBodies, outerMesh } from '@/core/model/compileFit';
import { mountBodies } from '@/core/model/mountBodies';
import { unwrap } from '@/core/outcome';
import { chosen, MOUNT_KINDS, MOUNT_SIDES, type MountDocument, type SystemDocument } from '@/core/plan';
import { judge } from '@/core/rules';
import { seeded } from '@/core/seeded';
import { afloat, ballastFor, waterplaneOf, type Aboard } from '@/core/weight';
import { NEW_MADE } from '@/ui/mounts/mountEdits';

beforeAll(loadKernel);

const TANK = SOUND.tanks[0]!;
const mountAt = (kind: MountDocument['kind'], at: Vec3, more: object = {}): MountDocument =>
  ({
    id: kind,
    name: kind,
    kind,
    tank: TANK.id,
    x_m: chosen(at[0]),
    y_m: chosen(at[1]),
    z_m: chosen(at[2]),
    made: { ...NEW_MADE[kind], ...more },
  }) as MountDocument;
const outside = (): ClosedMesh => unwrap(outerMesh(TANK));
const strapped = (): SystemDocument => heldDown(SOUND, (mounts) => mounts);

describe('mounts as bodies', () => {
  it('of every kind and side are sound solids that do not go into the tank, their bolts’ heads on them', () => {
    const box = boxMesh(1, 0.5, 0.4);
    const keel: ClosedMesh = {
      ...box,
      // A V under it: the floor's corners raised at both sides.
      positions: box.positions.map((value, i) =>
        i % 3 === 2 && value === 0 && box.positions[i - 1] === 0 ? 0.1 : value,
      ),
    };
    let seen = 0;
    for (const outer of [box, unwrap(parseMesh(keel.positions, keel.triangles))])
      for (const kind of MOUNT_KINDS)
        for (const side of MOUNT_SIDES) {
          const at: Vec3 = [
            side === 'fore' ? 1 : side === 'aft' ? 0 : 0.45,
            side === 'port' ? 0.5 : side === 'starboard' ? 0 : 0.27,
            side === 'up' ? 0.4 : side === 'down' ? 0 : 0.2,
          ];
          const runs = side === 'down' || side === 'up' ? 'across' : 'round';
          const made = { side, ...(kind === 'strap' ? { runs } : {}), ...(kind === 'tab' ? { wall: side } : {}) };
          const mount = mountAt(kind, at, made);
          const bodies = mountBodies(outer, at, mount);
          for (const body of bodies) {
            const solid = unwrap(parseMesh(body.positions, body.triangles));
            expect(meshVolume(solid), `${kind} ${side}`).toBeGreaterThan(0);
            if (kind === 'tab' || kind === 'flange') continue;
            // What is flat beside a slope would be cut to it.
            if (outer !== box && !(side === 'down' && (kind === 'cradle' || kind === 'strap'))) continue;
            for (let i = 0; i < solid.positions.length / 3; i++)
              expect(depthInside(outer, vertex(solid, i)), `${kind} ${side} in the tank`).toBeLessThan(1e-3);
          }
          for (const { heads } of boltSites(outer, at, mount)) {
            seen++;
            const [{ origin_m, axes }] = heads as [(typeof heads)[number]];
            const off = Math.min(...bodies.map((body) => Math.abs(depthInside(body, origin_m))));
            if (kind !== 'tab') expect(off, `${kind} ${side} head`).toBeLessThan(2e-3);
            // Over its head there is air.
            const over = add(origin_m, scale(axes[2], 0.003));
            for (const body of bodies) expect(depthInside(body, over), `${kind} ${side} over it`).toBeLessThan(1e-6);
          }
        }
    expect(seen).toBeGreaterThan(40);
  });

  it('a bearer follows a V from below, as far off it all along as its pad is thick', () => {
    const half = boxMesh(1, 0.25, 0.3);
    const slope = (y: number): number => 0.4 * y;
    const wedge = unwrap(
      parseMesh(
        half.positions.map((value, i) => (i % 3 === 2 && value === 0 ? slope(half.positions[i - 1]!) : value)),
        half.triangles,
      ),
    );
    const mount = mountAt('cradle', [0.5, 0.125, 0.05], { width_m: chosen(0.25), lip_m: chosen(0) });
    const [bar] = mountBodies(wedge, [0.5, 0.125, 0.05], mount);
    const section = sectionAcross(bar!, 0, 0.5).flat();
    for (const [y, z] of section.filter(([across]) => across > 0.01 && across < 0.24)) {
      const under = slope(y) - z;
      expect(Math.min(Math.abs(under - 0.004), Math.abs(under - 0.008)), `at ${y}`).toBeLessThan(3e-4);
    }
  });

  it('stand clear of the floor by what is left over their height, and go into it by what is not', () => {
    // Bearers of 4 mm on pads of 4 mm.
    for (const [floor_m, gap_m] of [
      [-0.02, 0.012],
      [-0.006, -0.002],
    ] as const) {
      const system = inBay(strapped(), { obstacles: [slab(-0.3, -0.3, floor_m - 0.02)] });
      const made = system.mounts.find(({ kind }) => kind === 'cradle')!;
      const thick = (made.made as { thickness_m: { value: number } }).thickness_m.value;
      const found = unwrap(fitOf(system)).mounts.find(({ mount, to }) => mount === made.id && to === 'slab')!;
      expectClose(found.distance_m, gap_m + 0.004 - thick + meshBounds(outside()).min[2], {
        abs: 2e-4,
        why: 'by hand',
      });
    }
  });
});

describe('layouts look for room', () => {
  it('what a proposal calls clear has room by the clearances, and the other way round', () => {
    const slabAt = (z: number) => [slab(-0.3, -0.3, z)];
    for (const obstacles of [
      [],
      slabAt(-0.026),
      [block('post', [0.08, 0.1, 0.5], [0.02, 0.27, -0.2])],
      [block('posts', [0.4, 0.1, 0.5], [-0.05, 0.26, -0.2]), block('wall', [0.4, 0.05, 0.5], [-0.05, -0.06, -0.2])],
    ]) {
      const system = inBay(SOUND, { obstacles });
      for (const layout of unwrap(layoutsFor(system, 0))) {
        const { mounts } = unwrap(fitOf({ ...system, mounts: [...layout.mounts] }));
        const overlap = new Set(
          mounts.filter(({ distance_m }) => distance_m < -5e-4).map(({ mountName }) => mountName),
        );
        expect([...overlap].sort(), layout.school).toEqual(layout.fouls!.map(({ name }) => name).sort());
      }
    }
  });

  it('a strap moves along where a post stands beside the tank, and nothing is said where nothing is known', () => {
    const post = block('post', [0.02, 0.1, 0.5], [0.05, 0.27, -0.2]);
    const straps = unwrap(layoutsFor(inBay(SOUND, { obstacles: [post] }), 0)).find(
      ({ school }) => school === 'straps',
    )!;
    expect(straps.fouls).toEqual([]);
    expect(unwrap(layoutsFor(SOUND, 0)).every(({ fouls }) => fouls === undefined)).toBe(true);
  });
});

describe('reach of their bolts', () => {
  const whenOf = (system: SystemDocument, kind: MountDocument['kind']) =>
    unwrap(reachOf(system))
      .filter(({ id, isMount }) => isMount && system.mounts.find((one) => one.id === id)!.kind === kind)
      .map(({ when }) => when);

  it('straps and stops that stand free are reached; what the tank stands on before it goes in', () => {
    const system = strapped();
    expect(new Set(whenOf(system, 'strap'))).toEqual(new Set(['fitted']));
    expect(new Set(whenOf(system, 'cradle'))).toEqual(new Set(['bench']));
  });

  it('take the shelf off them and they are reached again', () => {
    const under = (more: object): SystemDocument => ({
      ...inBay(
        heldDown(SOUND, (mounts) => mounts.filter(({ kind }) => kind === 'stop')),
        { obstacles: [{ ...block('shelf', [0.2, 0.6, 0.02], [0.31, -0.15, 0.01]), ...more }] },
      ),
    });
    const fore = (system: SystemDocument) => unwrap(reachOf(system)).find(({ id }) => id === 'stop')!;
    expect(fore(under({})).when).toBe('never');
    expect(fore(under({ removable: true })).when).toBe('uncovered');
  });
});

describe('ways out past what holds it', () => {
  it('its straps are undone, and lie in no way; a stop that stands before it comes out first', () => {
    const system = inBay(strapped(), {
      bay: { kind: 'none' },
      obstacles: [
        // A box open to the fore: the tank slides out that way alone.
        block('left', [0.6, 0.02, 0.5], [-0.1, 0.3, -0.1]),
        block('right', [0.6, 0.02, 0.5], [-0.1, -0.07, -0.1]),
        block('top', [0.6, 0.5, 0.02], [-0.1, -0.1, 0.4]),
        block('behind', [0.02, 0.5, 0.5], [-0.1, -0.1, -0.1]),
      ],
    });
    const out = { forward_m: 1.5, toPort_m: 0, up_m: 0, starboardDown_deg: 0, noseUp_deg: 0, noseToPort_deg: 0 };
    const lift = { ...out, forward_m: 0, up_m: 0.06 };
    const withStop = unwrap(checkedWay(system, TANK.id, [out]));
    expect(withStop.isOut).toBe(false);
    const noStops = { ...system, mounts: system.mounts.filter(({ kind }) => kind === 'strap') };
    expect(unwrap(checkedWay(noStops, TANK.id, [out])).isOut).toBe(true);
    // Over the stops it goes too.
    expect(unwrap(checkedWay(system, TANK.id, [lift, out])).isOut).toBe(true);
    const order = unwrap(orderOut(noStops, TANK.id, { seed: 1, mostSamples: 500 }));
    expect(order.map(({ id }) => id)).toEqual([TANK.id]);
  });
});

describe('guards', () => {
  const front = () => meshBounds(outside());
  const guarded = (length_m: number, width_m: number): SystemDocument => {
    const { min, max } = front();
    const spray = block('spray', [0.1, 1, 1], [max[0] - 1e-3, -0.3, -0.3]);
    const guard = mountAt('guard', [max[0], (min[1] + max[1]) / 2, (min[2] + max[2]) / 2], {
      side: 'fore',
      length_m: chosen(length_m),
      width_m: chosen(width_m),
    });
    return inBay({ ...SOUND, mounts: [guard] }, { obstacles: [{ ...spray, role: 'spray', keep_m: chosen(0) }] });
  };
  const bareOf = (system: SystemDocument) => unwrap(bareWalls(system, unwrap(sceneOf(system)).obstacles))[0]!;

  it('cover as much of a wall as lies behind them: half, a quarter, all', () => {
    const { min, max } = front();
    const [wide, high] = [max[1] - min[1], max[2] - min[2]];
    for (const [b, h] of [
      [1, 0.5],
      [0.5, 0.5],
      [1.1, 1.1],
      [0, 0],
    ] as const) {
      const bare = bareOf(guarded(Math.max(0.01, b * wide), Math.max(0.01, h * high)));
      const share = 1 - Math.min(1, Math.max(0.01 / wide, b)) * Math.min(1, Math.max(0.01 / high, h));
      expect(bare.bare_ratio, `${b} by ${h}`).toBeGreaterThan(share - 0.08);
      expect(bare.bare_ratio, `${b} by ${h}`).toBeLessThan(share + 0.08);
    }
    expectClose(bareOf(guarded(0.01, 0.01)).reached_m2, wide * high, { rel: 1e-6, why: 'the whole end' });
  });

  it('a larger one leaves no more bare, and what it covers is not found in spray', () => {
    let last = 1;
    for (const share of [0.2, 0.5, 0.8, 1.2]) {
      const { min, max } = front();
      const { bare_ratio } = bareOf(guarded(share * (max[1] - min[1]), share * (max[2] - min[2])));
      expect(bare_ratio).toBeLessThanOrEqual(last);
      last = bare_ratio;
    }
    expect(last).toBe(0);
    const found = (share: number): boolean => {
      const { min, max } = front();
      const system = guarded(share * (max[1] - min[1]), share * (max[2] - min[2]));
      const evaluation = unwrap(evaluateSystem(system));
      return judge(system, evaluation).findings.some(({ id }) => id === 'fit.in-spray');
    };
    expect([found(0.5), found(1.2)]).toEqual([true, false]);
  });
});

describe('what a thrown liquid presses', () => {
  const G = 9.80665;
  const [L, W, H] = [1, 0.5, 0.4];
  const box = boxMesh(L, W, H);
  const thrown = (by_mPerS2: Vec3, volume_m3: number, plates: Parameters<typeof pressedBy>[0]['plates'] = []) =>
    pressedBy({ mesh: box, plates, volume_m3, density_kgPerM3: 800, thrown: [{ shock: 'fore', by_mPerS2 }] })!;

  it('of more than it holds nothing is known, rather than nothing pressed', () => {
    expect(thrown([8, 0, -G], 1.5 * L * W * H)).toBeUndefined();
  });

  it('full, by hand: its end as deep as it is long, and its floor as deep as it is high', () => {
    const a = 8;
    const { sides } = thrown([a, 0, -G], L * W * H);
    const at = (side: string) => sides.find((one) => one.side === side)!;
    expectClose(at('fore').peak_Pa, 800 * (a * L + G * H), { rel: 1e-6, why: 'lowest corner of its front' });
    expectClose(at('fore').force_N, 800 * W * H * (a * L + (G * H) / 2), { rel: 1e-6, why: 'mean over its front' });
    expectClose(at('aft').force_N, 800 * W * H * ((G * H) / 2), { rel: 1e-5, why: 'mean over its back' });
    // All together it presses as its mass is thrown.
    expectClose(at('fore').force_N - at('aft').force_N, 800 * L * W * H * a, { rel: 1e-6, why: 'mass times throw' });
    expectClose(at('down').force_N - at('up').force_N, 800 * L * W * H * G, { rel: 1e-6, why: 'its weight' });
  });

  it('half full and thrown any way, all it presses is its mass times the throw', () => {
    const { uniform: random } = seeded(7);
    for (let k = 0; k < 60; k++) {
      const by: Vec3 = [30 * (random() - 0.5), 30 * (random() - 0.5), -G + 20 * (random() - 0.5)];
      const volume = (0.05 + 0.9 * random()) * L * W * H;
      const felt = norm(by);
      const up = scale(by, -1 / felt);
      const { offset_m } = unwrap(levelForVolume(box, up, volume));
      const found = onSides(box, up, offset_m, 800 * felt);
      const force = (side: string): number => found.get(side as 'fore')?.force_N ?? 0;
      const sum: Vec3 = [force('fore') - force('aft'), force('port') - force('starboard'), force('up') - force('down')];
      for (const i of [0, 1, 2] as const)
        expectClose(sum[i], 800 * volume * by[i], { abs: 1e-6 * 800 * volume * felt, why: `throw ${k}, axis ${i}` });
    }
  });

  it('a triangle partly wet: by counting over it', () => {
    const { uniform: random } = seeded(3);
    for (let k = 0; k < 40; k++) {
      const depths = [random() - 0.5, random() - 0.5, random() - 0.5] as const;
      const n = 400;
      let sum = 0;
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n - i; j++) {
          const at = (u: number, v: number): number =>
            Math.max(0, depths[0] + (u / n) * (depths[1] - depths[0]) + (v / n) * (depths[2] - depths[0]));
          sum += at(i + 1 / 3, j + 1 / 3) + (j < n - i - 1 ? at(i + 2 / 3, j + 2 / 3) : 0);
        }
      expectClose(wetDepth(depths), sum / n ** 2, { abs: 1e-5, why: `triangle ${k}` });
    }
  });

  it('a baffle: what is behind it as far as the next', () => {
    const plate = (id: string, at_m: number) => ({ plate: { id, axis: 0 as const, at_m } as never, area_m2: W * H });
    const { baffles } = thrown([5, 0, -G], L * W * H, [plate('a', 0.3), plate('b', 0.8)]);
    expectClose(baffles.find(({ id }) => id === 'a')!.pressure_Pa, 800 * 5 * 0.3, { rel: 1e-9, why: 'to its aft end' });
    expectClose(baffles.find(({ id }) => id === 'b')!.force_N, 800 * 5 * 0.5 * W * H, {
      rel: 1e-9,
      why: 'to the next',
    });
  });
});

describe('rubber mounts, skids, what hangs on it, ballast', () => {
  it('on rubber mounts of its own it swings up and down as the root of stiffness over mass', () => {
    for (const pressed of [5e4, 2e5, 8e5]) {
      const { min, max } = meshBounds(outside());
      const own = { pressed_NPerM: chosen(pressed), sheared_NPerM: chosen(5e4), most_N: chosen(400) };
      const skid = mountAt('cradle', [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, min[2]], {
        length_m: chosen(max[0] - min[0]),
        width_m: chosen(max[1] - min[1]),
        pad: { of: 'rubber', thickness_m: chosen(0.004), own },
      });
      const [shell] = unwrap(mountsOf({ ...SOUND, mounts: [skid] })).shells;
      const swing = unwrap(shell!.swings).full.find(({ way }) => way === 'up-and-down')!;
      const k = 1 / (1 / pressed + 1 / 2e7);
      expectClose(swing.frequency_Hz, Math.sqrt(k / shell!.load.mass_kg) / (2 * Math.PI), {
        rel: 0.02,
        why: 'by hand',
      });
      const use = shell!.parts.find(({ part }) => part === 'pad')!;
      expect(use.capacity_N).toBe(400);
    }
  });

  it('in the pockets of a skid it goes over as on forks so far apart, a skid higher', () => {
    const { min, max } = meshBounds(outside());
    const skid = mountAt('cradle', [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, min[2]], {
      length_m: chosen(max[0] - min[0]),
      width_m: chosen(max[1] - min[1]),
      pockets: { runs: 'along', apart_m: chosen(0.15), width_m: chosen(0.05), height_m: chosen(0.05) },
    });
    const how = { forks_m: 0.15, runs: 'along', hook_m: 1 } as const;
    const carried = unwrap(carriedOf({ ...SOUND, mounts: [skid] }, 0, how));
    const angle = (of: typeof carried.forks): number => unwrap(of).find(({ way }) => way === 'port')!.angles_rad.empty;
    // Both turn about an edge 75 mm aside, the one 8 mm lower.
    const height = 0.075 / Math.tan(angle(carried.forks));
    expectClose(Math.tan(angle(carried.pockets!)), 0.075 / (height + 0.008), { rel: 2e-3, why: 'by hand' });
    expect(unwrap(carriedOf(SOUND, 0, how)).pockets).toBeUndefined();
  });

  it('what hangs on it and what is welded to it is thrown with it', () => {
    const mass = (system: SystemDocument): number => unwrap(mountsOf(system)).shells[0]!.load.mass_kg;
    const bare = mass(SOUND);
    const fitted = { ...SOUND, tanks: SOUND.tanks.map((tank) => ({ ...tank, fitted_kg: chosen(3.5) })) };
    expectClose(mass(fitted), bare + 3.5, { rel: 1e-9, why: 'so much more' });
    const { max } = meshBounds(outside());
    const tab = mountAt('tab', [0.15, max[1], 0.02]);
    const bodies = unwrap(compileMountBodies({ mounts: [tab] }, TANK))[0]!.body.pieces;
    const volume = bodies.reduce((sum, { surface }) => sum + meshVolume(surface), 0);
    expectClose(mass({ ...SOUND, mounts: [tab] }), bare + 2680 * volume, { rel: 1e-9, why: 'a tab of aluminium' });
  });

  it('with the ballast that is told a hull lies level', () => {
    const stations = [
      { x_m: 0, beam_m: 2 },
      { x_m: 3, beam_m: 2.4 },
      { x_m: 6.5, beam_m: 0.2 },
    ];
    const hull = {
      waterplane: waterplaneOf(stations)!,
      displacement_kg: 2600,
      density_kgPerM3: 1025,
      gm_m: 0.8,
      middle_m: 0.05,
      waterline_m: 0.2,
    };
    const { uniform: random } = seeded(11);
    for (let k = 0; k < 30; k++) {
      const aboard: Aboard[] = Array.from({ length: 3 }, () => ({
        mass_kg: 120 * random(),
        at_m: [6 * random(), 1.6 * (random() - 0.5), 0.6 * random()],
      }));
      const ballast = ballastFor(hull, aboard, { aft_m: 0, fore_m: 6.5, beam_m: 2.4 });
      const laid = [
        ...aboard,
        { mass_kg: ballast.along_kg, at_m: [ballast.at_x_m, hull.middle_m, 0.2] as Vec3 },
        { mass_kg: ballast.across_kg, at_m: [hull.waterplane.middle_m, ballast.at_y_m, 0.2] as Vec3 },
      ];
      const lies = unwrap(afloat(hull, () => laid));
      expect(Math.max(Math.abs(lies.bowDown_rad), Math.abs(lies.portDown_rad)), `case ${k}`).toBeLessThan(1e-6);
      expect(Math.min(ballast.along_kg, ballast.across_kg)).toBeGreaterThanOrEqual(0);
    }
  });

  it('a guard and bolts stand in the lists beside the lines', () => {
    const { parts, cuts } = mountRows([mountAt('guard', [0, 0, 0]), mountAt('strap', [0, 0, 0])], { 1: 1.2 });
    expect(parts.find(({ name }) => name.startsWith('M6'))!.count).toBe(4);
    expect(parts.find(({ name }) => name.startsWith('M8'))!.count).toBe(2);
    expect(cuts.find(({ name }) => name === 'strap')!.cut_m).toBeCloseTo(1.28, 9);
    expect(cuts.find(({ name }) => name === 'guard')!.cut_m).toBeCloseTo(0.4, 9);
    expect(mountRows([mountAt('strap', [0, 0, 0])], {}).parts.some(({ name }) => name.includes('not known'))).toBe(
      true,
    );
  });
});
