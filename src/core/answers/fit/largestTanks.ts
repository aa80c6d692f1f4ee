import { withValue } from '../../plan/edit';
import { chosen } from '../../schema/known';
import type { Plan, TankDocument } from '../../plan/schema';
import {
  boxVolume_m3,
  largestBox,
  largestPrism,
  movedTo,
  positionsOver,
  rangeOf,
  type FreeSpace,
  type Obstacle,
} from '../../fit';
import { depthInside, insetMesh, meshBounds, posedMesh, signedArea_m2, type Surface } from '../../geometry';
import { failure, success, type Outcome } from '../../outcome';
import { sceneOf, wallsOf } from './fit';

/** The largest tank of a kind that the space takes, by its outside. */
export type LargestTank =
  | {
      readonly kind: 'box';
      readonly at_m: readonly [number, number, number];
      readonly size_m: readonly [number, number, number];
      readonly volume_m3: number;
    }
  | {
      readonly kind: 'prism';
      readonly at_m: readonly [number, number, number];
      readonly length_m: number;
      readonly outline: readonly (readonly [number, number])[];
      readonly volume_m3: number;
    };

const SWEEP_STEPS = 12;

/**
 * Surfaces that an obstacle has over its motion, each with what is to be kept and what it moves between two of them.
 */
function sweptSurfaces(obstacle: Obstacle): { surface: Surface; keep_m: number }[] {
  const { low, high, slopes } = rangeOf(obstacle);
  const between_m = low.reduce((sum, from, k) => sum + (slopes[k]! * (high[k]! - from)) / SWEEP_STEPS / 2, 0);
  return positionsOver(obstacle, SWEEP_STEPS).map((at) => ({
    surface: posedMesh(obstacle.surface, movedTo(obstacle, at)),
    keep_m: obstacle.keep_m + between_m,
  }));
}

/** How large a tank could be in the space described, with the clearance asked for to everything. */
export function largestTanks(system: Plan): Outcome<LargestTank[], 'no-bay' | 'bad-shape' | 'no-room'> {
  const scene = sceneOf(system);
  if (!scene.ok) return failure('bad-shape', scene.error.at, scene.error.detail);
  const { bay, obstacles: obstacles } = scene.value;
  if (!bay) return failure('no-bay', 'the space', 'Nothing is said of the space yet: describe the bay first.');
  const keep_m = system.fit.clearance_m.value;
  const swept = obstacles.flatMap(sweptSurfaces);
  const clear = [...wallsOf(bay).map(({ surface }) => ({ surface, keep_m })), ...swept];
  const space: FreeSpace = {
    within: meshBounds(bay.space),
    isInside: (point) => depthInside(bay.space, point) > 0,
    clear,
  };
  const box = largestBox(space);
  const inner = insetMesh(bay.space, keep_m);
  const prism = inner.ok ? largestPrism(inner.value, swept) : undefined;
  const found: LargestTank[] = [
    ...(box
      ? [
          {
            kind: 'box' as const,
            at_m: box.min as [number, number, number],
            size_m: [0, 1, 2].map((k) => floorMm(box.max[k]! - box.min[k]!)) as [number, number, number],
            volume_m3: boxVolume_m3(box),
          },
        ]
      : []),
    ...(prism ? [prismTank(prism)] : []),
  ];
  return found.length > 0
    ? success(found)
    : failure('no-room', 'the space', 'With this clearance nothing fits into the space.');
}

/** Sizes are cut down to the half millimetre, never up. */
const floorMm = (value: number): number => Math.floor(value * 2000) / 2000;

function prismTank({
  from_m,
  to_m,
  outline,
  volume_m3,
}: {
  from_m: number;
  to_m: number;
  outline: readonly (readonly [number, number])[];
  volume_m3: number;
}): LargestTank {
  const [y, z] = [Math.min(...outline.map(([u]) => u)), Math.min(...outline.map(([, v]) => v))];
  const points = signedArea_m2(outline) > 0 ? outline : [...outline].reverse();
  return {
    kind: 'prism',
    at_m: [from_m, y, z],
    length_m: floorMm(to_m - from_m),
    outline: points.map(([u, v]) => [Math.round((u - y) * 1e4) / 1e4, Math.round((v - z) * 1e4) / 1e4] as const),
    volume_m3,
  };
}

/**
 * Gives a tank the largest size found, its outside there; its ports and what stands in it keep the places they have.
 */
export function withLargest<P extends Plan>(system: P, t: number, largest: LargestTank): P {
  const tank = system.tanks[t]!;
  const level = chosen(0);
  const shape: TankDocument['shape'] =
    largest.kind === 'box'
      ? {
          kind: 'box',
          length_m: chosen(largest.size_m[0]),
          width_m: chosen(largest.size_m[1]),
          height_m: chosen(largest.size_m[2]),
        }
      : {
          kind: 'prism',
          axis: 'x',
          length_m: chosen(largest.length_m),
          profileOrigin: 'chosen',
          profile: largest.outline.map(([u_m, v_m]) => ({ u_m, v_m })),
        };
  const [x, y, z] = largest.at_m.map((value) => chosen(Math.ceil(value * 2000) / 2000));
  return withValue(system, ['tanks', t], {
    ...tank,
    shape,
    dimensions: 'outside',
    parts: [],
    slices: [],
    mounting: { x_m: x!, y_m: y!, z_m: z!, yaw_deg: level, pitch_deg: level, roll_deg: level },
  });
}
