import { beforeAll, describe, expect, it } from 'vitest';
import { applied, heldDown, SOUND } from './raisedSystems';
import { loadKernel } from '@/core/geometry';
import { unwrap } from '@/core/outcome';
import { chosen } from '@/core/plan';
import { NEW_MADE } from '@/ui/mounts/mountEdits';
import { carriedOf, tipsOf, type Lifted } from '@/core/answers';

beforeAll(loadKernel);

const HOW: Lifted = { forks_m: 0.2, runs: 'along', hook_m: 1 };

describe('a tank that is lifted', () => {
  it('on forks as wide as itself it stands as on its floor; closer they let it go sooner, that way alone', () => {
    const floor = unwrap(tipsOf(SOUND, 0));
    const angle = (forks_m: number, way: string, runs: Lifted['runs'] = 'along'): number =>
      unwrap(unwrap(carriedOf(SOUND, 0, { ...HOW, forks_m, runs })).forks).find((row) => row.way === way)!.angles_rad
        .empty;
    const onFloor = (way: string): number => floor.rows.find((row) => row.way === way)!.angles_rad.empty;
    const wide = floor.base_m[1];
    for (const way of ['fore', 'aft', 'port', 'starboard']) expect(angle(wide, way)).toBeCloseTo(onFloor(way), 3);
    expect(angle(wide / 2, 'port')).toBeLessThan(onFloor('port') - 0.05);
    expect(angle(wide / 2, 'fore')).toBeCloseTo(onFloor('fore'), 3);
    expect(angle(wide / 2, 'fore', 'across')).toBeLessThan(onFloor('fore') - 0.05);
  });

  it('forks wider than it make it no safer; on a round floor nothing is known', () => {
    const forks = (forks_m: number) => unwrap(unwrap(carriedOf(SOUND, 0, { ...HOW, forks_m })).forks);
    const floor = unwrap(tipsOf(SOUND, 0)).rows;
    for (const [i, { angles_rad }] of forks(5).entries())
      for (const [fill, angle] of Object.entries(angles_rad))
        expect(angle).toBeCloseTo(floor[i]!.angles_rad[fill as 'full'], 6);
    const drum = applied(SOUND, [
      [
        'tanks[0].shape',
        {
          kind: 'cylinder',
          axis: 'x',
          diameter_m: chosen(0.25),
          shell_m: chosen(0.3),
          nearEnd: 'flat',
          farEnd: 'flat',
        },
      ],
    ]);
    const { forks: round } = unwrap(carriedOf(drum, 0, HOW));
    expect(round.ok ? '' : round.error.detail).toContain('not flat');
  });

  it('feet are what is bolted under it; without them that is said', () => {
    const bare = unwrap(carriedOf({ ...SOUND, mounts: [] }, 0, HOW)).feet;
    expect(bare.ok ? '' : bare.error.code).toBe('no-feet');
    const held = heldDown(SOUND, (mounts) => mounts);
    const rows = unwrap(unwrap(carriedOf(held, 0, HOW)).feet);
    expect(rows.map(({ way }) => way)).toEqual(expect.arrayContaining(['fore', 'aft', 'port', 'starboard']));
    for (const { angles_rad } of rows)
      for (const angle of Object.values(angles_rad)) expect(angle).toBeGreaterThan(0.05);
  });

  it('feet higher than its floor stand on nothing', () => {
    const up = heldDown(SOUND, (mounts) => mounts);
    const raised = {
      ...up,
      mounts: [
        ...(['port', 'starboard'] as const).flatMap((wall) =>
          [0.05, 0.25].map((x, i) => ({
            id: `${wall}-${i}`,
            name: `${wall} ${i}`,
            kind: 'tab' as const,
            tank: up.tanks[0]!.id,
            x_m: chosen(x),
            y_m: chosen(wall === 'port' ? 1 : -1),
            z_m: chosen(0.1),
            made: { ...NEW_MADE.tab, wall },
          })),
        ),
      ],
    };
    const { feet } = unwrap(carriedOf(raised, 0, HOW));
    expect(feet.ok ? '' : feet.error.detail).toContain('higher than its floor');
  });

  it('full it pulls harder on a leg than empty, the more the lower the hook', () => {
    const hangs = (hook_m: number) => unwrap(carriedOf(SOUND, 0, { ...HOW, hook_m })).hangs;
    const [low, high] = [hangs(0.15), hangs(3)];
    expect(unwrap(high.full).pull_N).toBeGreaterThan(unwrap(high.empty).pull_N);
    if (low.empty.ok) expect(low.empty.value.pull_N).toBeGreaterThan(unwrap(high.empty).pull_N);
    expect(unwrap(high.full).lean_rad).toBeLessThan(0.2);
    const none = carriedOf(SOUND, 0, { ...HOW, hook_m: 0 });
    expect(none.ok).toBe(false);
  });
});
