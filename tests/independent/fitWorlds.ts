import { assumed, chosen, draftSystem, withValue, type Known, type SystemDocument } from '@/core/plan';
import { allKnown, fitOf } from '@/core/answers';
import { marginOf } from '@/core/answers/fit/fit';
import { unwrap } from '@/core/outcome';
import { seeded, type Chance } from '@/core/seeded';

const level = chosen(0);
const at = (x: number, y: number, z: number) => ({ x_m: chosen(x), y_m: chosen(y), z_m: chosen(z) });
const still = { yaw_deg: level, pitch_deg: level, roll_deg: level };
const box = (length: number, width: number, height: number) => ({
  kind: 'box' as const,
  length_m: chosen(length),
  width_m: chosen(width),
  height_m: chosen(height),
});

/** A box of a tank, outside sizes, its lower corner at nothing, in a bay of walls so far off each of its sides. */
export function walled(
  size: readonly [number, number, number],
  gaps: {
    readonly aft: number;
    readonly fore: number;
    readonly starboard: number;
    readonly port: number;
    readonly floor: number;
    readonly top: number;
  },
  mounting: Partial<Record<'x_m' | 'y_m' | 'z_m' | 'yaw_deg' | 'pitch_deg' | 'roll_deg', Known>>,
): SystemDocument {
  const draft = draftSystem({ name: 'x', vehicle: 'road', consumer: 'diesel-engine', power_W: 30e3, holds_m3: 0.06 });
  const tank = {
    ...draft.tanks[0]!,
    dimensions: 'outside' as const,
    shape: box(...size),
    ports: [],
    pickups: [],
    senders: [],
    mounting: { ...at(0, 0, 0), ...still, ...mounting },
  };
  return {
    ...draft,
    lines: [],
    components: [],
    consumers: [],
    tanks: [tank],
    fit: {
      ...draft.fit,
      clearance_m: chosen(0),
      obstacles: [],
      bay: {
        kind: 'drawn',
        shape: box(
          size[0] + gaps.aft + gaps.fore,
          size[1] + gaps.starboard + gaps.port,
          size[2] + gaps.floor + gaps.top,
        ),
        ...at(-gaps.aft, -gaps.starboard, -gaps.floor),
        walls: { fore: 'wall', aft: 'wall', port: 'wall', starboard: 'wall', top: 'wall', floor: 'wall' },
      },
    },
  };
}

/** A post or a beam beside the tank, its own place uncertain. */
const post = (
  id: string,
  size: readonly [number, number, number],
  place: readonly [number, number, number],
  spread: number,
  yaw_deg: Known,
): SystemDocument['fit']['obstacles'][number] => ({
  id,
  name: id,
  role: 'obstacle',
  x_m: assumed(place[0], spread),
  y_m: assumed(place[1], spread),
  z_m: chosen(place[2]),
  yaw_deg,
  pitch_deg: level,
  roll_deg: level,
  motions: [],
  removable: false,
  bodies: [{ shape: box(...size), ...at(0, 0, 0), ...still }],
});

/** A world full of bends: turns parallel to walls, corners that change places, posts that turn. */
export function kinkyWorld(seed: number): SystemDocument {
  const { uniform } = seeded(seed);
  const between = (low: number, high: number): number => low + (high - low) * uniform();
  const size = [between(0.5, 1.2), between(0.3, 0.6), between(0.2, 0.4)] as const;
  const tight = (): number => (uniform() < 0.5 ? between(0.002, 0.012) : 0.2);
  const turn = (): Known => (uniform() < 0.6 ? assumed(between(-0.3, 0.3), between(0.3, 1.5)) : level);
  const system = walled(
    size,
    { aft: tight(), fore: tight(), starboard: tight(), port: tight(), floor: tight(), top: 0.2 },
    {
      x_m: assumed(0, between(0.0005, 0.004)),
      y_m: assumed(0, between(0.0005, 0.004)),
      z_m: assumed(0, between(0.0005, 0.003)),
      yaw_deg: turn(),
      pitch_deg: turn(),
      roll_deg: turn(),
    },
  );
  const obstacles =
    uniform() < 0.6
      ? [
          post(
            'post',
            [0.05, 0.05, 0.6],
            [between(0.1, size[0] - 0.1), size[1] + between(0.003, 0.012), -0.1],
            between(0.001, 0.004),
            assumed(between(-20, 20), between(1, 8)),
          ),
        ]
      : [];
  return { ...system, fit: { ...system.fit, obstacles } };
}

/** The chance that it touches nothing, by drawing all that is uncertain and looking. */
export function trueChance(system: SystemDocument, draws: number, chance: Chance): number {
  const doubts = allKnown({ tanks: system.tanks.map(({ mounting }) => ({ mounting })), fit: system.fit }).filter(
    ({ known }) => (known.spread ?? 0) > 0,
  );
  let clear = 0;
  for (let i = 0; i < draws; i++) {
    const drawn = doubts.reduce(
      (now, { path, known }) => withValue(now, [...path, 'value'], known.value + (known.spread! / 2) * chance.normal()),
      system,
    );
    const margin = marginOf(drawn, 0);
    if (margin === undefined) throw new Error('a drawn world cannot be built');
    if (margin >= 0) clear++;
  }
  return clear / draws;
}

export const statedChance = (system: SystemDocument): number => unwrap(fitOf(system)).tanks[0]!.chanceClear;
