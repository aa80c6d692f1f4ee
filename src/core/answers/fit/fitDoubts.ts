import { compileBay, compileTankBody, placeOf } from '../../model/compileFit';
import { withValue, type Path } from '../../plan/edit';
import type { Known } from '../../schema/known';
import type { SpacePlan } from '../../plan/schema';
import {
  chancesAllPositive,
  movedBy_m,
  readingOf,
  type Body,
  type Clearance,
  type Panel,
  type Profile,
  type Survey,
  type Obstacle,
} from '../../fit';
import { dot, nearestOnTriangle, norm, subtract, triangle, type Surface, type Vec3 } from '../../geometry';
import { success } from '../../outcome';
import { allKnown } from '../allKnown';
import { profileCorners } from '../tank/profileCorners';
import type { Steps } from '../../steps';

/**
 * What the uncertainty of every value leaves of the clearances.
 *
 * A clearance is no straight line of the values: it bends wherever another
 * point becomes the nearest, so that a turn parallel to a wall loses room both
 * ways and gains none. Each value is therefore taken to both ends of its
 * spread, and where these do not lie on one line, to places between. What all
 * of them do together is the sum of these bent lines; where draws of all at
 * once do not bear that out, the draws decide.
 *
 * @source ISO/IEC Guide 98-3 (GUM), section 5.1.3, and its Supplement 1 (2008)
 * for distributions by draws; the worst case by adding all worse ends up
 */
export type FitDoubts = {
  /** By gap: what is lost with every value at its worse end; and half of what lies between 95 times in 100 [m]. */
  readonly worst_m: readonly number[];
  readonly spread_m: readonly number[];
  readonly telling: readonly FitDoubt[];
  readonly unknown: readonly Path[];
  /** By question, the chance that no gap's margin is used up; a margin is endless where it does not count [m]. */
  readonly chances: (questions: readonly (readonly number[])[]) => number[];
};

/** How far one uncertain value may move the tightest gaps: at most, within its spread [m]. */
export type FitDoubt = { readonly path: Path; readonly moves_m: number; readonly gap: string };

/**
 * A clearance, and how to measure it again in a changed document with the tank moved, and with other walls where these
 * have moved; undefined where that cannot be built, and endless where it is more than what is asked up to.
 */
export type Measured = {
  readonly clearance: Clearance;
  readonly keep_m: number;
  readonly kind: 'wall' | Obstacle['role'];
  readonly again: (
    system: SpacePlan,
    body: Body,
    panels: readonly Panel[] | undefined,
    upTo_m?: number,
  ) => number | undefined;
};

export type Walls = { readonly walls: readonly Panel[]; readonly survey: Survey | undefined };

/** A spread is two standard deviations. */
const SIGMAS = 2;
/** Places at which a bent line is known, in standard deviations; those at the ends first. */
const ENDS = [-SIGMAS, SIGMAS] as const;
const BETWEEN = [-1.2, -0.6, -0.25, 0.25, 0.6, 1.2] as const;
/** A line counts as straight when its ends differ from that by less than this, of the larger, or in all [m]. */
const STRAIGHT = { rel: 0.03, abs_m: 2e-5 } as const;

/** Gaps that count as tight: so many of the tightest. */
const TIGHT = 4;
/** A value that moves no tight gap by more than this is not worth measuring [m]. */
const LITTLE_M = 2e-4;

/** One uncertain value, and how it moves each gap. */
type Column = {
  readonly path: Path;
  readonly profiles: readonly Profile[];
  /**
   * Puts the value so many standard deviations off; what moves gaps straight on, as a reading of the survey does, needs
   * none.
   */
  readonly put?: (system: SpacePlan, deviations: number) => SpacePlan;
};

const STILL: Profile = { at: [1], moves_m: [0] };
const linear = (slope_m: number): Profile => ({ at: [1], moves_m: [slope_m] });

/**
 * Documents with one value off by so many deviations, by path and deviations: each tank asks for those of all others
 * again.
 */
export type Nudged = Map<string, SpacePlan>;

/** What doubt there is of each gap; in steps, one a value that is not quite known. */
export function* fitDoubts(
  system: SpacePlan,
  t: number,
  body: Body,
  measured: readonly Measured[],
  { walls, survey }: Walls,
  nudged: Nudged = new Map(),
): Steps<FitDoubts> {
  const remeasure = (
    changed: SpacePlan,
    of: (gap: number) => boolean,
    upTo?: (gap: number) => number,
  ): (number | undefined)[] | undefined => measuredAgain(system, t, body, measured, changed, of, upTo);
  // How far a corner of a profile is off moves every gap beside it; that is not worked out, and told.
  const unknown: Path[] = profileCorners(system)
    .map(({ path }) => path)
    .filter(([, tank]) => tank === t);
  const columns: Column[] = [];
  for (const { path, known } of doubtsOf(system, t)) {
    yield;
    const put = (at: SpacePlan, deviations: number): SpacePlan =>
      withValue(at, [...path, 'value'], known.value + (deviations * known.spread!) / SIGMAS);
    const changed = (deviations: number): SpacePlan => {
      const key = `${path.join('.')}@${deviations}`;
      const known = nudged.get(key) ?? put(system, deviations);
      nudged.set(key, known);
      return known;
    };
    const profiles = profilesOf(
      measured,
      (deviations, of) => remeasure(changed(deviations), of),
      (gap) => bears(system, t, walls.length, path, gap),
    );
    // Sizes and walls that move a gap straight on do so whatever else moves; places and turns do not.
    if (profiles)
      columns.push({ path, profiles, ...(isPlace(path) || profiles.some(({ at }) => at.length > 1) ? { put } : {}) });
    else unknown.push(path);
  }
  if (survey) columns.push(...surveyMoves(system, survey, walls, measured));
  const by = (gap: number): Profile[] => columns.map(({ profiles }) => profiles[gap]!);
  const chances: FitDoubts['chances'] = (questions) =>
    chancesAllPositive(
      measured.map((_, gap) => by(gap)),
      questions,
      (deviations, close, enough_m) => {
        const changed = columns.reduce(
          (at, { put }, j) => (put && deviations[j] !== 0 ? put(at, deviations[j]!) : at),
          system,
        );
        // What moves gaps straight on comes on top.
        const ahead = (gap: number): number =>
          columns.reduce(
            (sum, { put, profiles }, j) => (put ? sum : sum + movedBy_m(profiles[gap]!, deviations[j]!)),
            -measured[gap]!.clearance.distance_m,
          );
        const found = remeasure(
          changed,
          (gap) => close.includes(gap),
          (gap) => enough_m[close.indexOf(gap)]! - ahead(gap),
        );
        return close.map((gap) => {
          const distance = found?.[gap];
          return distance === undefined ? undefined : distance + ahead(gap);
        });
      },
    );
  return {
    worst_m: measured.map((_, gap) => by(gap).reduce((sum, profile) => sum + mostLost_m(profile), 0)),
    spread_m: measured.map((_, gap) => SIGMAS * Math.hypot(...by(gap).map(deviation_m))),
    telling: tellingOf(columns, measured),
    unknown,
    chances,
  };
}

const isPlace = (path: Path): boolean => path[2] === 'mounting' || path[1] === 'obstacles';

/** What a value loses of a gap at the worse end of its spread [m]. */
const mostLost_m = (profile: Profile): number => Math.max(0, -movedBy_m(profile, SIGMAS), -movedBy_m(profile, -SIGMAS));
/** Its part in the gap's standard deviation: what one deviation either way does, as squares [m]. */
const deviation_m = (profile: Profile): number =>
  Math.sqrt((movedBy_m(profile, SIGMAS) ** 2 + movedBy_m(profile, -SIGMAS) ** 2) / 2) / SIGMAS;

/** How a value moves each gap that it bears on; undefined where at an end of its spread nothing can be built. */
function profilesOf(
  measured: readonly Measured[],
  at: (deviations: number, of: (gap: number) => boolean) => (number | undefined)[] | undefined,
  bearsOn: (gap: number) => boolean,
): Profile[] | undefined {
  const ends = ENDS.map((deviations) => at(deviations, bearsOn));
  if (ends.some((found) => !found || measured.some((_, gap) => bearsOn(gap) && found[gap] === undefined)))
    return undefined;
  const move = (found: readonly (number | undefined)[], gap: number): number =>
    found[gap]! - measured[gap]!.clearance.distance_m;
  const bent = measured.map((_, gap) => bearsOn(gap) && isBent(move(ends[0]!, gap), move(ends[1]!, gap)));
  const between = bent.some(Boolean) ? BETWEEN.map((deviations) => at(deviations, (gap) => bent[gap]!)) : [];
  return measured.map((_, gap): Profile => {
    if (!bearsOn(gap)) return STILL;
    if (!bent[gap]) return linear((move(ends[1]!, gap) - move(ends[0]!, gap)) / (2 * SIGMAS));
    const places: (readonly [number, number])[] = [
      [ENDS[0], move(ends[0]!, gap)],
      [ENDS[1], move(ends[1]!, gap)],
      [0, 0],
      ...BETWEEN.flatMap((place, i) =>
        between[i]?.[gap] === undefined ? [] : [[place, move(between[i]!, gap)] as const],
      ),
    ];
    places.sort(([a], [b]) => a - b);
    return { at: places.map(([place]) => place), moves_m: places.map(([, moved]) => moved) };
  });
}

const isBent = (low: number, high: number): boolean =>
  Math.abs(low + high) > STRAIGHT.abs_m + STRAIGHT.rel * Math.max(Math.abs(low), Math.abs(high));

/** Gaps measured again in a changed document; undefined where the tank or the bay cannot be built there. */
function measuredAgain(
  system: SpacePlan,
  t: number,
  body: Body,
  measured: readonly Measured[],
  changed: SpacePlan,
  of: (gap: number) => boolean,
  upTo?: (gap: number) => number,
): (number | undefined)[] | undefined {
  const tank = changed.tanks[t]!;
  const before = system.tanks[t]!;
  // Its place alone leaves the body as it is.
  const sameBody = OUTSIDE_OF.every((key) => tank[key] === before[key]);
  const moved = sameBody
    ? success({ ...body, at: tank.mounting === before.mounting ? body.at : placeOf(tank.mounting) })
    : compileTankBody(changed, tank);
  if (!moved.ok) return undefined;
  const bay = changed.fit.bay === system.fit.bay ? undefined : compileBay(changed.fit.bay);
  if (bay && (!bay.ok || !bay.value)) return undefined;
  const panels = bay?.ok ? bay.value?.panels.filter(({ kind }) => kind !== 'open') : undefined;
  return measured.map(({ again }, gap) => (of(gap) ? again(changed, moved.value, panels, upTo?.(gap)) : undefined));
}

const OUTSIDE_OF = ['shape', 'parts', 'slices', 'material', 'ports', 'dimensions'] as const;

/** Whether a value can move a gap at all: gaps stand in the order of walls, other tanks, obstacles. */
function bears(system: SpacePlan, t: number, walls: number, path: Path, gap: number): boolean {
  const others = system.tanks.length - 1;
  if (path[0] === 'tanks') {
    if (path[1] === t) return true;
    return gap === walls + (Number(path[1]) - (Number(path[1]) > t ? 1 : 0));
  }
  return path[1] === 'bay' ? gap < walls : gap === walls + others + Number(path[2]);
}

type Doubt = { readonly path: Path; readonly known: Known };

/** What of a tank moves its outside. */
const OUTSIDE: ReadonlySet<string> = new Set(['mounting', 'material', 'shape', 'parts', 'slices', 'ports']);

/**
 * Every uncertain value that clearances may hang on, but for the survey's own readings: of all tanks, the obstacles,
 * and what of the bay is not in its survey.
 */
function doubtsOf(system: SpacePlan, t: number): Doubt[] {
  const { bay, obstacles } = system.fit;
  const others = system.tanks.map((_, index) => index).filter((index) => index !== t);
  return [
    ...[t, ...others].flatMap((index) =>
      doubtsAbout(system.tanks[index], ['tanks', index]).filter(({ path }) => OUTSIDE.has(String(path[2]))),
    ),
    ...obstacles.flatMap((obstacle, i) =>
      doubtsAbout(obstacle, ['fit', 'obstacles', i]).filter(({ path }) => !path.includes('keep_m')),
    ),
    ...doubtsAbout(bay, ['fit', 'bay']).filter(
      ({ path }) => bay.kind === 'drawn' || path.length === 3 || path[2] === 'curves',
    ),
  ];
}

const doubtsAbout = (of: unknown, root: Path): Doubt[] =>
  allKnown(of)
    .filter(({ known }) => (known.spread ?? 0) > 0)
    .map(({ path, known }) => ({ path: [...root, ...path], known }));

function tellingOf(columns: readonly Column[], measured: readonly Measured[]): FitDoubt[] {
  const tight = measured
    .map((gap, g) => ({ g, kind: gap.kind, name: gap.clearance.name, margin: gap.clearance.distance_m - gap.keep_m }))
    .filter(({ kind }) => kind !== 'fixing')
    .sort((a, b) => a.margin - b.margin)
    .slice(0, TIGHT);
  if (tight.length === 0) return [];
  return columns
    .flatMap(({ path, profiles }) => {
      const moves = (g: number): number =>
        Math.max(Math.abs(movedBy_m(profiles[g]!, SIGMAS)), Math.abs(movedBy_m(profiles[g]!, -SIGMAS)));
      const most = tight.reduce((best, gap) => (moves(gap.g) > moves(best.g) ? gap : best));
      return moves(most.g) > LITTLE_M ? [{ path, moves_m: moves(most.g), gap: most.name }] : [];
    })
    .sort((a, b) => b.moves_m - a.moves_m);
}

/**
 * How one standard deviation of every reading of the bay moves the gaps to its walls: by where on the wall the gap is.
 */
function surveyMoves(
  system: SpacePlan,
  survey: Survey,
  sides: readonly Panel[],
  measured: readonly Measured[],
): Column[] {
  const { gain, sigmas_m } = survey.adjusted;
  const slopes = measured.map(({ clearance }, g) =>
    g < sides.length ? wallSlopes(survey, sides[g]!.surface, clearance, gain.rows) : undefined,
  );
  return survey.readings.map(({ id }, reading) => ({
    path: readingPath(system, id),
    profiles: slopes.map((of) =>
      of
        ? linear(
            of.reduce((sum, slope, unknown) => (slope === 0 ? sum : sum + slope * gain.get(unknown, reading)), 0) *
              sigmas_m[reading]!,
          )
        : STILL,
    ),
  }));
}

/** Where in the document a reading of the survey stands. */
function readingPath(system: SpacePlan, id: string): Path {
  const { bay } = system.fit;
  if (bay.kind !== 'measured') return ['fit', 'bay'];
  const measure = bay.measures.findIndex((other) => other.id === id);
  if (measure >= 0) return ['fit', 'bay', 'measures', measure, 'length_m'];
  for (const [s, station] of bay.stations.entries()) {
    if (id === readingOf.at(station.id)) return ['fit', 'bay', 'stations', s, 'at_m'];
    for (const c of station.corners.keys()) {
      if (id === readingOf.corner(station.id, c, 'across'))
        return ['fit', 'bay', 'stations', s, 'corners', c, 'across_m'];
      if (id === readingOf.corner(station.id, c, 'up')) return ['fit', 'bay', 'stations', s, 'corners', c, 'up_m'];
    }
  }
  return ['fit', 'bay'];
}

/**
 * How a gap to a wall changes with each unknown of the survey: the wall's point moves, and the gap with its part along
 * the gap.
 */
function wallSlopes(survey: Survey, surface: Surface, { onObstacle, away }: Clearance, unknowns: number): number[] {
  const slopes = new Array<number>(unknowns).fill(0);
  const { corners, shares } = placeOn(surface, onObstacle);
  corners.forEach((vertex, c) => {
    for (const { axis, unknown, share } of survey.hangsOn[vertex]!) slopes[unknown]! -= shares[c]! * share * away[axis];
  });
  return slopes;
}

/** The triangle of a surface in which a point lies, and the shares of its corners in the point. */
function placeOn(surface: Surface, point: Vec3): { corners: readonly number[]; shares: readonly number[] } {
  let best = { distance: Infinity, index: 0, foot: point };
  for (let i = 0; i < surface.triangles.length / 3; i++) {
    const foot = nearestOnTriangle(point, ...triangle(surface, i));
    const away = norm(subtract(foot, point));
    if (away < best.distance) best = { distance: away, index: i, foot };
  }
  const [a, b, c] = triangle(surface, best.index);
  const [u, v, w] = [subtract(b, a), subtract(c, a), subtract(best.foot, a)];
  const [uu, uv, vv, wu, wv] = [dot(u, u), dot(u, v), dot(v, v), dot(w, u), dot(w, v)];
  const determinant = uu * vv - uv * uv;
  const [beta, gamma] =
    determinant > 0 ? [(vv * wu - uv * wv) / determinant, (uu * wv - uv * wu) / determinant] : [0, 0];
  return {
    corners: [0, 1, 2].map((k) => surface.triangles[3 * best.index + k]!),
    shares: [1 - beta - gamma, beta, gamma],
  };
}
