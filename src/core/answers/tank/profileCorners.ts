import { profilesOf, type ProfilePoint } from '../../shapes';
import type { Path } from '../../plan/edit';
import type { Origin } from '../../schema/known';
import type { PlanAt } from '../../plan/schema';

/** Corners of a body's profiles that are known alike: all that do not say it themselves, or one that does. */
export type Corners = {
  /** Of the spread. */ readonly path: Path;
  readonly origin: Origin;
  readonly spread_m: number;
  readonly profiles: readonly {
    readonly path: Path;
    readonly points: Profile;
    /** Which of its corners. */ readonly which: readonly number[];
  }[];
};
export type Profile = readonly ProfilePoint[];

/** Profiles of tanks and of what is added to them or taken away, whose corners are known to within a spread. */
export function profileCorners(system: Pick<PlanAt, 'tanks'>): Corners[] {
  const shapes = system.tanks.flatMap(({ shape, parts }, t) => [
    { shape, path: ['tanks', t, 'shape'] as Path },
    ...parts.map((part, p) => ({ shape: part.shape, path: ['tanks', t, 'parts', p, 'shape'] as Path })),
  ]);
  return shapes.flatMap(({ shape, path }): Corners[] => {
    if (!('profileOrigin' in shape)) return [];
    const { profileOrigin: origin, profileSpread_m } = shape;
    const profiles = profilesOf(shape).map(({ key, points }) => ({ path: [...path, key], points }));
    const alike = profiles.map((one) => ({
      ...one,
      which: one.points.flatMap(({ spread_m }, i) => (spread_m === undefined ? [i] : [])),
    }));
    const alone = profiles.flatMap((one) =>
      one.points.flatMap((point, i): Corners[] =>
        point.spread_m
          ? [
              {
                path: [...one.path, i, 'spread_m'],
                origin: point.origin ?? origin,
                spread_m: point.spread_m,
                profiles: [{ ...one, which: [i] }],
              },
            ]
          : [],
      ),
    );
    return profileSpread_m && alike.some(({ which }) => which.length > 0)
      ? [{ path: [...path, 'profileSpread_m'], origin, spread_m: profileSpread_m, profiles: alike }, ...alone]
      : alone;
  });
}

/** One corner, moved square to the chord between its neighbours, where it tells most. */
export function cornerMoved(points: Profile, i: number, by_m: number): Profile[number] {
  const [before, point, after] = [points.at(i - 1)!, points[i]!, points[(i + 1) % points.length]!];
  const [along, up] = [after.u_m - before.u_m, after.v_m - before.v_m];
  const chord = Math.hypot(along, up);
  if (chord === 0) return point;
  return { ...point, u_m: point.u_m + (by_m * up) / chord, v_m: point.v_m - (by_m * along) / chord };
}
