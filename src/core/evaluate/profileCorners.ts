import type { Path } from '../document/edit';
import type { Origin } from '../document/known';
import type { SystemDocument } from '../document/schema';

/** The corners of a body's profiles, all known alike. */
export type Corners = {
  readonly path: Path;
  readonly origin: Origin;
  readonly spread_m: number;
  readonly profiles: readonly { readonly path: Path; readonly points: Profile }[];
};
export type Profile = readonly { readonly u_m: number; readonly v_m: number }[];

/** Profiles of tanks and of what is added to them or taken away, whose corners are known to within a spread. */
export function profileCorners(system: Pick<SystemDocument, 'tanks'>): Corners[] {
  const shapes = system.tanks.flatMap(({ shape, parts }, t) => [
    { shape, path: ['tanks', t, 'shape'] as Path },
    ...parts.map((part, p) => ({ shape: part.shape, path: ['tanks', t, 'parts', p, 'shape'] as Path })),
  ]);
  return shapes.flatMap(({ shape, path }): Corners[] => {
    if ((shape.kind !== 'prism' && shape.kind !== 'loft') || !shape.profileSpread_m) return [];
    const profiles =
      shape.kind === 'prism'
        ? [{ path: [...path, 'profile'], points: shape.profile }]
        : [
            { path: [...path, 'near'], points: shape.near },
            { path: [...path, 'far'], points: shape.far },
          ];
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
