import { compileBay, compileTankBody, compileObstacle, type FitCode } from '../../model/compileFit';
import { shareWall } from '../../plan/divider';
import type { Path } from '../../plan/edit';
import type { SpacePlan, TankDocument } from '../../plan/schema';
import {
  clearanceTo,
  clearanceToPanel,
  isSolid,
  joinedSurface,
  leastAt,
  leastToPanel,
  rangeOf,
  standing,
  type Bay,
  type Body,
  type Clearance,
  type Contradiction,
  type Panel,
  type Obstacle,
} from '../../fit';
import type { Vec3 } from '../../geometry';
import { success, type Outcome } from '../../outcome';
import { allSteps, type Steps } from '../../steps';
import { fitDoubts, type FitDoubt, type Measured, type Nudged } from './fitDoubts';
import { bareWalls, type Bare } from './guarded';
import { lineGaps, type LineGap } from './lineGaps';
import { mountGaps, type MountGap } from './mountGaps';

/** A clearance with what is asked of it and what it may be at the worst. */
export type FitGap = Clearance & {
  readonly keep_m: number;
  /** What a builder is told of it: a wall of the bay, or the role of the obstacle. */
  readonly kind: 'wall' | Obstacle['role'];
  /** Clearance where every uncertainty that bears on it lies at the bad end of its spread [m]. */
  readonly worst_m: number;
  /** Half-width from all of them together, 95 times in 100 [m]. */
  readonly spread_m: number;
};

export type TankFit = {
  readonly tank: string;
  readonly name: string;
  /** Tightest first, by what is left over what is asked; what it is fastened to last. */
  readonly gaps: readonly FitGap[];
  /** That it touches nothing, and that it keeps all that is asked; as measured. */
  readonly chanceClear: number;
  readonly chanceKept: number;
  /** What leaves its gaps uncertain, by the path of each value, most first. */
  readonly doubts: readonly FitDoubt[];
  /**
   * Values at an end of whose spread nothing can be built, so that what they do to the gaps is not known: worst, spread
   * and chances leave them out.
   */
  readonly unknown: readonly Path[];
};

export type FitResult = {
  readonly bay: SurveyResult | undefined;
  readonly tanks: readonly TankFit[];
  /** What holds and guards the tanks: tightest first, as measured. */
  readonly mounts: readonly MountGap[];
  /** Walls that something is thrown at, and what of them no guard covers. */
  readonly bare: readonly Bare[];
  /** From lines to what is hot or moves, tightest first. */
  readonly lines: readonly LineGap[];
};

/** What the survey of the bay gave. */
export type SurveyResult = {
  readonly corners_m: readonly (readonly Vec3[])[];
  /** By id of a measure, and of each coordinate's own reading: what the adjusted corners say it is [m]. */
  readonly fitted_m: Readonly<Record<string, number>>;
  readonly contradictions: readonly Contradiction[];
};

/**
 * How every tank fits its bay and stands clear of everything in it, over the
 * whole of each motion, with what the measurements' uncertainty leaves of it.
 *
 * How uncertainty is carried stands in `fitDoubts.ts`.
 */
export const fitOf = (system: SpacePlan): Outcome<FitResult, FitCode> => allSteps(fitSteps(system));

/** The same in steps. */
export function* fitSteps(system: SpacePlan): Steps<Outcome<FitResult, FitCode>> {
  const scene = sceneOf(system);
  if (!scene.ok) return scene;
  const tanks: TankFit[] = [];
  const [built, nudged]: [Built, Nudged] = [new WeakMap(), new Map()];
  for (const [t] of system.tanks.entries()) {
    yield;
    const fit = yield* tankFit(system, t, scene.value, built, nudged);
    if (!fit.ok) return fit;
    tanks.push(fit.value);
  }
  const { survey } = scene.value.bay ?? {};
  yield;
  const mounts = mountGaps(system, walls(scene.value), scene.value.obstacles, (tank) => builtOnce(system, tank, built));
  if (!mounts.ok) return mounts;
  const bare = bareWalls(system, scene.value.obstacles);
  if (!bare.ok) return bare;
  return success({
    tanks,
    bare: bare.value,
    mounts: mounts.value,
    lines: lineGaps(system, scene.value.obstacles),
    bay: survey && {
      corners_m: survey.corners_m,
      contradictions: survey.adjusted.contradictions,
      fitted_m: Object.fromEntries(survey.readings.map(({ id }, i) => [id, survey.adjusted.fitted_m[i]!])),
    },
  });
}

export type FitScene = { readonly bay: Bay | undefined; readonly obstacles: readonly Obstacle[] };

/**
 * The bay and all obstacles of a plan as bodies in vehicle axes [m]; what of them cannot be built fails by its path.
 */
export function sceneOf(system: Pick<SpacePlan, 'fit'>): Outcome<FitScene, FitCode> {
  const bay = compileBay(system.fit.bay);
  if (!bay.ok) return bay;
  const obstacles: Obstacle[] = [];
  for (const document of system.fit.obstacles) {
    const obstacle = compileObstacle(document, system.fit.clearance_m.value);
    if (!obstacle.ok) return obstacle;
    obstacles.push(obstacle.value);
  }
  return success({ bay: bay.value, obstacles: obstacles });
}

/** Sides of the bay that stop a tank. */
export const wallsOf = (bay: Bay): readonly Panel[] => bay.panels.filter(({ kind }) => kind !== 'open');
const walls = ({ bay }: FitScene): readonly Panel[] => (bay ? wallsOf(bay) : []);

/** What a tank is measured against: how far off it is, and how to measure that again when something has changed. */
function measuredGaps(system: SpacePlan, body: Body, scene: FitScene, built: Built = new WeakMap()): Measured[] {
  const keep_m = system.fit.clearance_m.value;
  return [
    ...walls(scene).map((panel, w): Measured => {
      const clearance = clearanceToPanel(body, panel);
      return {
        clearance,
        keep_m,
        kind: 'wall',
        again: (_, moved, panels, upTo_m) => leastToPanel(moved, panels?.[w] ?? panel, clearance.distance_m, upTo_m),
      };
    }),
    ...system.tanks.flatMap((tank, other) => otherTank(system, body, tank, other, built)),
    ...scene.obstacles.map((obstacle, i): Measured => {
      const clearance = clearanceTo(body, obstacle);
      return {
        clearance,
        keep_m: obstacle.keep_m,
        kind: obstacle.role,
        again: (changed, moved, _, upTo_m) => {
          const other =
            changed.fit.obstacles[i] === system.fit.obstacles[i]
              ? success(obstacle)
              : compileObstacle(changed.fit.obstacles[i]!, keep_m);
          // Where it was tightest, and at the ends of its travel, which may be tighter now.
          return other.ok
            ? leastAt(
                moved,
                other.value,
                [sameShare(clearance.at, obstacle, other.value), ...endsOf(other.value)],
                clearance.distance_m,
                upTo_m,
              )
            : undefined;
        },
      };
    }),
  ];
}

/** Ends of what an obstacle's motions reach; none where it stands still. */
function endsOf(obstacle: Obstacle): number[][] {
  if (obstacle.motions.length === 0) return [];
  const { low, high } = rangeOf(obstacle);
  return low.reduce<number[][]>(
    (all, from, k) =>
      all.flatMap((at) => [
        [...at, from],
        [...at, high[k]!],
      ]),
    [[]],
  );
}

/**
 * A position of a motion as far between its ends when these have moved: tightest at full bump, it stays at full bump.
 */
function sameShare(at: readonly number[], before: Obstacle, after: Obstacle): number[] {
  const [was, is] = [rangeOf(before), rangeOf(after)];
  return at.map(
    (position, k) =>
      is.low[k]! + ((position - was.low[k]!) / (was.high[k]! - was.low[k]!)) * (is.high[k]! - is.low[k]!),
  );
}

/** Tanks as they stand in the way of others, by their document: each other one meets the same. */
type Built = WeakMap<TankDocument, { readonly obstacle: Obstacle | undefined }>;

function builtOnce(system: SpacePlan, tank: TankDocument, built: Built): Obstacle | undefined {
  const known = built.get(tank) ?? { obstacle: tankObstacle(system, tank) };
  built.set(tank, known);
  return known.obstacle;
}

/** Another tank stands in the way like anything else, with what stands on it. */
function otherTank(system: SpacePlan, body: Body, tank: TankDocument, index: number, built: Built): Measured[] {
  const self = system.tanks.find(({ id }) => id === body.id);
  // Two tanks in one shell are not in each other's way.
  const there = tank.id === body.id || (self && shareWall(self, tank)) ? undefined : builtOnce(system, tank, built);
  if (!there) return [];
  const clearance = clearanceTo(body, there);
  return [
    {
      clearance,
      keep_m: there.keep_m,
      kind: 'obstacle',
      again: (changed, moved, _, upTo_m) => {
        const other = builtOnce(changed, changed.tanks[index]!, built);
        return other && leastAt(moved, other, [[]], clearance.distance_m, upTo_m);
      },
    },
  ];
}

/** A tank as something that another one must stay clear of. */
export function tankObstacle(system: Pick<SpacePlan, 'fit' | 'mounts'>, tank: TankDocument): Obstacle | undefined {
  const body = compileTankBody(system, tank);
  if (!body.ok) return undefined;
  const surface = joinedSurface(standing(body.value).map((piece) => piece.surface));
  return {
    id: tank.id,
    name: tank.name,
    role: 'obstacle',
    surface,
    motions: [],
    keep_m: system.fit.clearance_m.value,
    removable: true,
  };
}

function* tankFit(
  system: SpacePlan,
  t: number,
  scene: FitScene,
  built: Built,
  nudged: Nudged,
): Steps<Outcome<TankFit, FitCode>> {
  const tank = system.tanks[t]!;
  const body = compileTankBody(system, tank);
  if (!body.ok) return body;
  const measured = measuredGaps(system, body.value, scene, built);
  yield;
  const space = { walls: walls(scene), survey: scene.bay?.survey };
  const doubts = yield* fitDoubts(system, t, body.value, measured, space, nudged);
  yield;
  const gaps = measured
    .map(({ clearance, keep_m, kind }, g): FitGap => ({
      ...clearance,
      keep_m,
      kind,
      worst_m: clearance.distance_m - doubts.worst_m[g]!,
      spread_m: doubts.spread_m[g]!,
    }))
    .sort(
      (a, b) =>
        Number(a.kind === 'fixing') - Number(b.kind === 'fixing') ||
        a.distance_m - a.keep_m - (b.distance_m - b.keep_m),
    );
  // What it is fastened to is packed until it touches; nobody is hurt by a zone until something stands in it.
  const margins = (ask_m: (gap: Measured) => number, counts: (kind: FitGap['kind']) => boolean): number[] =>
    measured.map((gap) => (counts(gap.kind) ? gap.clearance.distance_m - ask_m(gap) : Infinity));
  const [chanceClear, chanceKept] = doubts.chances([
    margins(
      () => 0,
      (kind) => kind === 'wall' || (kind !== 'fixing' && isSolid(kind)),
    ),
    margins(
      ({ keep_m }) => keep_m,
      (kind) => kind !== 'fixing',
    ),
  ]);
  return success({
    tank: tank.id,
    name: tank.name,
    gaps,
    chanceClear: chanceClear!,
    chanceKept: chanceKept!,
    doubts: doubts.telling,
    unknown: doubts.unknown,
  });
}

/** Least that is left anywhere over what is asked there, for one tank [m]; undefined where it cannot be built. */
export function marginOf(system: SpacePlan, t: number): number | undefined {
  const scene = sceneOf(system);
  const body = compileTankBody(system, system.tanks[t]!);
  return scene.ok && body.ok
    ? Math.min(
        ...measuredGaps(system, body.value, scene.value).map(({ clearance, keep_m }) => clearance.distance_m - keep_m),
      )
    : undefined;
}
