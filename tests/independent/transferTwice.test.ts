import { beforeAll, describe, expect, it } from 'vitest';
import { circuitsOf } from '@/core/answers/lines';
import { documentAt } from '@/core/answers/at';
import { flowInputsOf } from '@/core/answers/flow/flowInputs';
import { loadKernel } from '@/core/geometry';
import { unwrap } from '@/core/outcome';
import { chosen, type SystemDocument } from '@/core/plan';
import { seeded } from '@/core/seeded';
import { expectClose } from '../expectClose';
import { played, rig, rigPump } from '../timeSystems';

/**
 * How long a transfer takes is told at once by stepping over what has moved, with the flow steady at every moment; what
 * happens over time steps liquid and gas themselves. Where vents let air go freely both have to say the same.
 */
beforeAll(loadKernel);

type Case = { readonly system: SystemDocument; readonly moves_m3: number; readonly name: string };

function caseOf(seed: number): Case {
  const { uniform: random } = seeded(seed);
  const between = (low: number, high: number): number => low + (high - low) * random();
  const byPump = random() < 0.5;
  const box = (): [number, number, number] => [between(0.25, 0.6), between(0.2, 0.4), between(0.2, 0.4)];
  const [from, into] = [box(), box()];
  const z_m = byPump ? between(-0.3, 0.3) : between(0.1, 0.6);
  const bore_m = between(0.006, 0.012);
  const length_m = between(0.5, 3);
  const fill = between(0.3, 0.95);
  const moves_m3 = between(0.2, 1.1) * fill * from[0] * from[1] * from[2];
  const tanks = [
    { id: 'aux', box: from, at_m: [1, 0, z_m] as const, outlet_m: bore_m, vent_m: 0.01, fill },
    {
      id: 'main',
      box: into,
      inlet_m: bore_m,
      // Sometimes down to its floor, where the levels hold each other up.
      ...(random() < 0.5 ? { drop_m: into[2] - 0.01 } : {}),
      vent_m: 0.01,
      fill: between(0.05, 0.6),
    },
  ];
  const rise = { bore_m, rise_m: into[2] - z_m };
  const lines = byPump
    ? [
        { id: 'a', from: ['aux-pickup', 'out'], to: ['lift', 'in'], bore_m, length_m: 0.2, rise_m: 0 } as const,
        { id: 'b', from: ['lift', 'out'], to: ['main-in', 'in'], length_m, ...rise } as const,
      ]
    : [{ id: 'b', from: ['aux-pickup', 'out'], to: ['main-in', 'in'], length_m, ...rise } as const];
  const system = rig(tanks, lines, byPump ? [rigPump('lift', between(8e3, 3e4), between(2e-5, 1e-4))] : []);
  return {
    system: { ...system, wishes: { ...system.wishes, moves_m3: chosen(moves_m3) } },
    moves_m3,
    name: byPump ? 'pump' : 'gravity',
  };
}

describe('a transfer told at once and played (seeded)', () => {
  it.each(Array.from({ length: 24 }, (_, n) => 300 + n))('%i', (seed) => {
    const { system, moves_m3 } = caseOf(seed);
    const at = unwrap(documentAt(system));
    const [told] = circuitsOf(flowInputsOf(system, undefined)!).transfers;
    const { time_s, volume_m3, ends } = told!;
    const [aux0] = Object.values(at.state.liquid_m3);
    if (time_s === undefined) {
      // Nothing moves: played for an hour, no more than a film does.
      const still = played(system, 3600).samples.at(-1)!;
      expect(Math.abs(still.tanks[0]!.volume_m3 - aux0!)).toBeLessThan(2e-4);
      return;
    }
    const run = played(system, 1.5 * time_s + 60);
    const gone = run.samples.map(({ t_s, tanks }) => ({ t_s, moved_m3: aux0! - tanks[0]!.volume_m3 }));
    const most = gone.at(-1)!.moved_m3;
    expect(['moved', 'source-dry', 'target-full', 'at-rest']).toContain(ends);
    if (ends === 'moved') expectClose(volume_m3, moves_m3, { rel: 1e-6, why: 'all that was asked for' });
    // When the same has gone, by the samples on both sides of it.
    const share = ends === 'at-rest' ? 0.9 : 0.999;
    const next = gone.findIndex(({ moved_m3 }) => moved_m3 >= share * volume_m3);
    expect(next, `${volume_m3} told, ${most} played`).toBeGreaterThan(0);
    const [before, after] = [gone[next - 1]!, gone[next]!];
    const part = (share * volume_m3 - before.moved_m3) / (after.moved_m3 - before.moved_m3);
    const played_s = before.t_s + part * (after.t_s - before.t_s);
    // Where it all but rests a little less to go takes long.
    const pace = (n: number): number => (gone[n]!.moved_m3 - gone[n - 1]!.moved_m3) / (gone[n]!.t_s - gone[n - 1]!.t_s);
    const isSlow = pace(next) < 0.3 * pace(1);
    if (ends !== 'at-rest')
      expectClose(played_s, share * time_s, { rel: isSlow ? 0.02 : 1e-3, why: 'another way to the same' });
    const happens = new Set(run.events.map(({ kind }) => kind));
    if (ends === 'source-dry') expect(happens).toContain('draws-air');
    if (ends === 'target-full') expect(happens).toContain('full');
    if (ends === 'at-rest') expectClose(most, volume_m3, { rel: 2e-3, why: 'where both come to rest' });
  });
});
