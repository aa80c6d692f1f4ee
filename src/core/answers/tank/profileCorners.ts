import { profilesOf } from '../../shapes';
import type { Path } from '../../plan/edit';
import type { Origin } from '../../schema/known';
import type { PlanAt } from '../../plan/schema';

/** The corners of a body's profiles, all known alike. */
export type Corners = {
  readonly path: Path;
  readonly origin: Origin;
  readonly spread_m: number;
  readonly profiles: readonly { readonly path: Path; readonly points: Profile }[];
};
export type Profile = readonly { readonly u_m: number; readonly v_m: number }[];

/** Profiles of tanks and of what is added to them or taken away, whose corners are known to within a spread. */
export function profileCorners(system: Pick<PlanAt, 'tanks'>): Corners[] {
  const shapes = system.tanks.flatMap(({ shape, parts }, t) => [
    { shape, path: ['tanks', t, 'shape'] as Path },
    ...parts.map((part, p) => ({ shape: part.shape, path: ['tanks', t, 'parts', p, 'shape'] as Path })),
  ]);
  return shapes.flatMap(({ shape, path }): Corners[] => {
    if (!('profileSpread_m' in shape) || !shape.profileSpread_m) return [];
    const profiles = profilesOf(shape).map(({ key, points }) => ({ path: [...path, key], points }));
    return [
      { path: [...path, 'profileSpread_m'], origin: shape.profileOrigin, spread_m: shape.profileSpread_m, profiles },
    ];
  });
}

/** One corner, moved square to the chord between its neighbours, where it tells most. */
export function cornerMoved(points: Profile, i: number, by_m: number): Profile[number] {
  const [before, { u_m, v_m }, after] = [points.at(i - 1)!, points[i]!, points[(i + 1) % points.length]!];
  const [along, up] = [after.u_m - before.u_m, after.v_m - before.v_m];
  const chord = Math.hypot(along, up);
  return chord === 0 ? { u_m, v_m } : { u_m: u_m + (by_m * up) / chord, v_m: v_m - (by_m * along) / chord };
}
