import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { applied, dividedIn, SOUND, T } from '../../../../tests/raisedSystems';
import { loadKernel, sectionAcross, signedArea_m2, type Vec3 } from '../../geometry';
import { outerMesh } from '../../model/compileFit';
import { sharedWall } from '../../model/sharedWall';
import { unwrap } from '../../outcome';
import { chosen, parseSystem, withSealedDivider, type SystemDocument } from '../../plan';
import { ALLOYS } from '../../reference/alloys';
import { seeded } from '../../seeded';
import { evaluateSystem } from '../evaluate';
import { fitOf } from '../fit/fit';
import { judge } from '../../rules';
import { partChoices, wayPicture } from '../fit/ways';

beforeAll(loadKernel);

const tanksOf = (system: SystemDocument) => unwrap(evaluateSystem(system, 'numbers')).tanks;
const shaped = (shape: object, dimensions: 'inside' | 'outside', wall_m: number): SystemDocument =>
  applied(SOUND, [
    [`${T}shape`, shape],
    [`${T}dimensions`, dimensions],
    [`${T}material.thickness_m`, chosen(wall_m)],
    [`${T}plates`, []],
  ]);

describe('two tanks in one shell', () => {
  it('seeded boxes: spaces, metal and centre by hand, whichever way the wall stands', () => {
    const { uniform } = seeded(31);
    for (let n = 0; n < 30; n++) {
      const size = [0.3 + uniform(), 0.25 + uniform(), 0.22 + uniform()] as const;
      const wall = 0.0015 + 0.005 * uniform();
      const inside = uniform() < 0.5;
      const k = Math.floor(3 * uniform()) as 0 | 1 | 2;
      const axis = (['x', 'y', 'z'] as const)[k];
      const at_m = size[k] * (0.25 + 0.5 * uniform());
      const whole = shaped(
        { kind: 'box', length_m: chosen(size[0]), width_m: chosen(size[1]), height_m: chosen(size[2]) },
        inside ? 'inside' : 'outside',
        wall,
      );
      const divided = unwrap(withSealedDivider(whole, 0, { axis, at_m }));
      const [one] = tanksOf(whole);
      const [near, far] = tanksOf(divided);
      const free = (length: number): number => (inside ? length : length - 2 * wall);
      const [a, b] = [0, 1, 2].filter((other) => other !== k).map((other) => free(size[other]!)) as [number, number];
      // The inside is cut by the wall and loses its thickness.
      expectClose(near!.gross_m3 + far!.gross_m3, a * b * (free(size[k]) - wall), {
        rel: 1e-6,
        why: 'less the divider',
      });
      expectClose(near!.gross_m3, a * b * (inside ? at_m : at_m - wall), { rel: 1e-6, why: 'up to the wall' });
      const density = ALLOYS[divided.tanks[0]!.material.alloy].density_kgPerM3;
      // Metal leaves out the little cubes at a body's corners: two bodies have eight more of them than one.
      const corners_m3 = 8 * wall ** 3;
      expectClose(near!.dryMass_kg + far!.dryMass_kg, one!.dryMass_kg + (a * b * wall - corners_m3) * density, {
        rel: 1e-9,
        why: 'the shell and one divider',
      });
      const meet = sharedWall(divided.tanks, divided.tanks[1]!)!;
      expectClose(meet.metal!.volume_m3, (a + 2 * wall) * (b + 2 * wall) * wall, { rel: 1e-6, why: 'a slab' });
      expectClose(meet.metal!.centre_m[k], at_m + wall / 2, { abs: 1e-7, why: 'its middle' });
      expect(meet.reachesIn_m3).toBe(0);
    }
  });

  it('seeded round and tapered shells: the wall is as thick as the section there is wide', () => {
    const { uniform } = seeded(8);
    for (let n = 0; n < 12; n++) {
      const round = n % 2 === 0;
      const whole = shaped(
        round
          ? {
              kind: 'cylinder',
              axis: 'x',
              diameter_m: chosen(0.25 + 0.3 * uniform()),
              shell_m: chosen(0.6),
              nearEnd: 'flat',
              farEnd: 'flat',
            }
          : {
              kind: 'cone',
              axis: 'x',
              nearDiameter_m: chosen(0.3),
              farDiameter_m: chosen(0.45),
              length_m: chosen(0.6),
            },
        'inside',
        0.003,
      );
      const at_m = 0.2 + 0.2 * uniform();
      const { tanks } = unwrap(withSealedDivider(whole, 0, { axis: 'x', at_m }));
      const outer = unwrap(outerMesh(whole.tanks[0]!));
      const area = sectionAcross(outer, 0, at_m + 0.0015).reduce((sum, loop) => sum + Math.abs(signedArea_m2(loop)), 0);
      expectClose(sharedWall(tanks, tanks[1]!)!.metal!.volume_m3, 0.003 * area, {
        rel: round ? 1e-4 : 0.02,
        why: 'area of the section times its thickness; a set-out cone turns its rim a little',
      });
    }
  });

  it('what hangs on a side stays on it; the plan is valid, nothing is lost, and the two are not in each other’s way', () => {
    const divided = dividedIn(SOUND);
    unwrap(parseSystem(divided));
    const all = (system: SystemDocument) =>
      system.tanks
        .flatMap(({ ports, pickups, senders }) => [...ports, ...pickups, ...senders].map(({ id }) => id))
        .sort();
    expect(all(divided)).toEqual(all(SOUND));
    for (const tank of divided.tanks)
      for (const { x_m } of tank.ports) expect((x_m?.value ?? 0) > 0.15).toBe(tank === divided.tanks[1]);
    for (const { gaps } of unwrap(fitOf(divided)).tanks)
      expect(gaps.some(({ to }) => divided.tanks.some(({ id }) => id === to))).toBe(false);
    const shells = partChoices(divided).filter(({ kind }) => kind === 'tank');
    expect(shells.map(({ id }) => id)).toEqual([SOUND.tanks[0]!.id]);
    const xs = (system: SystemDocument): number[] => {
      const { part } = unwrap(wayPicture(system, SOUND.tanks[0]!.id));
      return [...part.positions].filter((_, i) => i % 3 === 0);
    };
    // What is carried out is as long as the whole was.
    const reach = (all_m: number[]): Vec3 => [Math.min(...all_m), Math.max(...all_m), 0];
    reach(xs(divided)).forEach((value, i) => expectClose(value, reach(xs(SOUND))[i]!, { abs: 1e-6, why: 'one shell' }));
  });

  it('is lifted and mounted as one: what it weighs and hangs on is of both', () => {
    const strap = {
      id: 'strap',
      name: 'Strap',
      kind: 'strap',
      tank: SOUND.tanks[0]!.id,
      x_m: chosen(0),
      y_m: chosen(0),
      z_m: chosen(0),
    };
    const tall = applied(SOUND, [[`${T}shape.height_m`, chosen(0.6)]]);
    const divided = applied(dividedIn(tall), [['mounts', [strap]]]);
    const evaluation = unwrap(evaluateSystem(divided));
    const { findings } = judge(divided, evaluation);
    const whole = evaluation.tanks.reduce((sum, { fullMass_kg }) => sum + fullMass_kg, 0);
    for (const [id, value] of [
      ['tank.heavy-lift', 'full'],
      ['mount.not-said', 'mass'],
    ] as const) {
      const found = findings.filter((finding) => finding.id === id);
      expect(found).toHaveLength(1);
      expectClose(found[0]!.what.values[value]!.value, whole, { rel: 1e-9, why: 'both' });
    }
  });

  it('a sump far below the floor is on one side only, and a part of a shell is not divided again', () => {
    const sump = {
      id: 'sump',
      name: 'Sump',
      operation: 'add',
      shape: { kind: 'box', length_m: chosen(0.08), width_m: chosen(0.1), height_m: chosen(0.3) },
      x_m: chosen(0.02),
      y_m: chosen(0.05),
      z_m: chosen(-0.29),
    };
    const deep = applied(SOUND, [
      [`${T}parts`, [sump]],
      [`${T}plates`, []],
    ]);
    const divided = dividedIn(deep);
    unwrap(parseSystem(divided));
    const [plain, near, far] = [tanksOf(dividedIn(SOUND)), ...tanksOf(divided)];
    expectClose(near!.gross_m3 - plain[0]!.gross_m3, 0.08 * 0.1 * 0.29, { rel: 1e-6, why: 'all of the sump' });
    expectClose(far!.gross_m3, plain[1]!.gross_m3, { rel: 1e-9, why: 'none of it' });
    expect(sharedWall(divided.tanks, divided.tanks[1]!)!.reachesIn_m3).toBe(0);
    for (const t of [0, 1])
      expect(withSealedDivider(divided, t, { axis: 'x', at_m: 0.08 })).toMatchObject({ ok: false });
  });

  it('a wall that would miss the tank, and bands in the way, are refused with why', () => {
    for (const at_m of [0.001, 0.299, 5])
      expect(withSealedDivider(SOUND, 0, { axis: 'x', at_m })).toMatchObject({
        ok: false,
        error: { code: 'no-divider' },
      });
    const banded = applied(SOUND, [[`${T}slices`, [{ axis: 'x', at_m: chosen(0.1), width_m: chosen(0.02) }]]]);
    expect(withSealedDivider(banded, 0, { axis: 'x', at_m: 0.15 }).ok).toBe(false);
    const loose = { ...SOUND, tanks: [{ ...SOUND.tanks[0]!, sharesWallWith: 'nobody' }] };
    expect(parseSystem(loose).ok).toBe(false);
  });

  it('a tube through the neighbour displaces its own volume there', () => {
    const divided = dividedIn(SOUND);
    const [plain] = tanksOf(divided);
    const tube = {
      id: 'tube',
      name: 'Tube through',
      operation: 'displace',
      shape: {
        kind: 'cylinder',
        axis: 'x',
        diameter_m: chosen(0.016),
        shell_m: chosen(1),
        nearEnd: 'flat',
        farEnd: 'flat',
      },
      x_m: chosen(-0.2),
      y_m: chosen(0.1),
      z_m: chosen(0.1),
    };
    const led = applied(divided, [[`${T}parts`, [...divided.tanks[0]!.parts, tube]]]);
    expectClose(plain!.gross_m3 - tanksOf(led)[0]!.gross_m3, (Math.PI / 4) * 0.016 ** 2 * 0.15, {
      rel: 1e-3,
      why: 'a round bar from wall to wall',
    });
  });
});
