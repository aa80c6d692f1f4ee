import { meshBounds, placedBack, posedMesh, type ClosedMesh } from '../../geometry';
import { outerMesh, placeOf } from '../../model/compileFit';
import { mountBodies } from '../../model/mountBodies';
import { failure, success, type Outcome } from '../../outcome';
import type { Plan } from '../../plan/schema';
import { joinedSurface } from '../../fit';
import { VIEW_AXES, type FitDrawing, type FitShape, type FitViewKey } from '../fit/fitDrawing';
import { outlineOf } from '../fit/outline';

/** A tank with what holds it, from three sides; a mount that is not at the tank, or not said, is not drawn. */
export function mountDrawing(
  plan: Pick<Plan, 'tanks' | 'mounts'>,
  t: number,
): Outcome<FitDrawing, 'no-tank' | 'bad-shape'> {
  const tank = plan.tanks[t];
  if (!tank) return failure('no-tank', 'tanks', 'There is no such tank.');
  const outer = outerMesh(tank);
  if (!outer.ok) return failure('bad-shape', tank.name, outer.error.detail);
  const at = placeOf(tank.mounting);
  const shapes: {
    id: string;
    name: string;
    kind: FitShape['kind'];
    mesh: ClosedMesh | ReturnType<typeof joinedSurface>;
  }[] = [{ id: tank.id, name: tank.name, kind: 'tank', mesh: posedMesh(outer.value, at) }];
  for (const mount of plan.mounts) {
    if (mount.tank !== tank.id) continue;
    const place = placedBack(at, [mount.x_m.value, mount.y_m.value, mount.z_m.value]);
    const bodies = mountBodies(outer.value, place, mount).map((body) => posedMesh(body, at));
    if (bodies.length > 0) shapes.push({ id: mount.id, name: mount.name, kind: 'mount', mesh: joinedSurface(bodies) });
  }
  const bounds = shapes.map(({ mesh }) => meshBounds(mesh));
  const view = (key: FitViewKey): FitShape[] =>
    shapes.map(({ id, name, kind, mesh }) => ({ id, name, kind, outline: outlineOf(mesh, VIEW_AXES[key]) }));
  return success({
    bounds: {
      min: [0, 1, 2].map((k) =>
        Math.min(...bounds.map(({ min }) => min[k]!)),
      ) as unknown as FitDrawing['bounds']['min'],
      max: [0, 1, 2].map((k) =>
        Math.max(...bounds.map(({ max }) => max[k]!)),
      ) as unknown as FitDrawing['bounds']['max'],
    },
    views: { side: view('side'), end: view('end'), plan: view('plan') },
  });
}
