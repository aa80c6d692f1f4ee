import { compileMountBodies, compileTankBody, type FitCode } from '../../model/compileFit';
import type { Plan } from '../../plan/schema';
import { joinedSurface, movedTo, positionsOver, standing, type Obstacle } from '../../fit';
import { convexHull, meshBounds, posedMesh, silhouette, type Bounds, type Point2, type Surface } from '../../geometry';
import { success, type Outcome } from '../../outcome';
import { sceneOf } from './fit';

export type FitViewKey = 'side' | 'end' | 'plan';

/** One shape of a view as its outline. */
export type FitShape = {
  readonly id: string;
  readonly name: string;
  readonly kind: 'wall' | 'open' | 'removable' | 'tank' | 'standing' | 'mount' | Obstacle['role'] | 'swept';
  readonly outline: readonly (readonly Point2[])[];
};

/** Side, end and plan of the space in vehicle axes, as outlines. */
export type FitDrawing = { readonly bounds: Bounds; readonly views: Readonly<Record<FitViewKey, readonly FitShape[]>> };

/** The two axes that each view shows. */
export const VIEW_AXES: Readonly<Record<FitViewKey, readonly [0 | 1 | 2, 0 | 1 | 2]>> = {
  side: [0, 2],
  end: [1, 2],
  plan: [0, 1],
};
const SWEEP_STEPS = 10;

/**
 * Outlines of everything as it looks from that side; what a moving obstacle
 * sweeps as the hull of its positions. Clearances are computed with the true
 * surfaces.
 *
 * @param t the tank looked at: what is far from it and from the bay is left out
 */
export function fitDrawing(system: Plan, t: number): Outcome<FitDrawing, FitCode> {
  const scene = sceneOf(system);
  if (!scene.ok) return scene;
  let shapes: { id: string; name: string; kind: FitShape['kind']; surface: Surface }[] = [];
  scene.value.bay?.panels.forEach(({ id, name, kind, surface }) => shapes.push({ id, name, kind, surface }));
  for (const obstacle of scene.value.obstacles) {
    if (obstacle.motions.length > 0)
      shapes.push({
        id: `${obstacle.id}:swept`,
        name: `${obstacle.name}, over its travel`,
        kind: 'swept',
        surface: sweptPoints(obstacle),
      });
    shapes.push({ id: obstacle.id, name: obstacle.name, kind: obstacle.role, surface: obstacle.surface });
  }
  for (const tank of system.tanks) {
    const body = compileTankBody(system, tank);
    if (!body.ok) return body;
    standing(body.value).forEach(({ id, name, surface }, i) =>
      shapes.push({ id, name, kind: i === 0 ? 'tank' : 'standing', surface }),
    );
    const mounts = compileMountBodies(system, tank);
    if (!mounts.ok) return mounts;
    for (const { body: mount } of mounts.value) {
      const surface = joinedSurface(standing(mount).map((piece) => piece.surface));
      shapes.push({ id: mount.id, name: mount.name, kind: 'mount', surface });
    }
  }
  const focus = shapes
    .filter(({ id, kind }) => id === system.tanks[t]?.id || kind === 'wall' || kind === 'open' || kind === 'removable')
    .map(({ surface }) => meshBounds(surface));
  if (focus.length > 0)
    shapes = shapes.filter(({ surface }) => focus.some((bounds) => areNear(bounds, meshBounds(surface))));
  const all = shapes.map(({ surface }) => meshBounds(surface));
  const least = (k: number): number => Math.min(...all.map(({ min }) => min[k]!));
  const most = (k: number): number => Math.max(...all.map(({ max }) => max[k]!));
  const view = (key: FitViewKey): FitShape[] =>
    shapes.map(({ id, name, kind, surface }) => ({
      id,
      name,
      kind,
      outline: seenAlong(surface, VIEW_AXES[key], kind),
    }));
  return success({
    bounds: { min: [least(0), least(1), least(2)], max: [most(0), most(1), most(2)] },
    views: { side: view('side'), end: view('end'), plan: view('plan') },
  });
}

/** What stands further from the bay and the tank than this is not drawn with them [m]. */
const NEAR_M = 0.35;

const areNear = (a: Bounds, b: Bounds): boolean =>
  [0, 1, 2].every((k) => a.min[k]! - NEAR_M < b.max[k]! && b.min[k]! - NEAR_M < a.max[k]!);

/** A wall seen on edge has no area: its hull is drawn. */
function seenAlong(
  { positions, triangles }: Surface,
  [u, v]: readonly [0 | 1 | 2, 0 | 1 | 2],
  kind: FitShape['kind'],
): Point2[][] {
  const points = Array.from(triangles, (vertex): Point2 => [positions[3 * vertex + u]!, positions[3 * vertex + v]!]);
  const isFlat = kind === 'swept' || kind === 'wall' || kind === 'open' || kind === 'removable';
  return isFlat
    ? [convexHull(points)]
    : silhouette(Array.from({ length: points.length / 3 }, (_, i) => points.slice(3 * i, 3 * i + 3)));
}

function sweptPoints(obstacle: Obstacle): Surface {
  return joinedSurface(
    positionsOver(obstacle, SWEEP_STEPS).map((at) => posedMesh(obstacle.surface, movedTo(obstacle, at))),
  );
}
