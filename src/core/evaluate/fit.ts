import { compileBay, compileTankBody, compileThing, type FitCode } from '../document/compileFit';
import type { Path } from '../document/edit';
import type { SpacePlan, TankDocument } from '../document/schema';
import {
  clearanceAt,
  clearanceTo,
  clearanceToPanel,
  isSolid,
  joinedSurface,
  rangeOf,
  standing,
  type Bay,
  type Body,
  type Clearance,
  type Contradiction,
  type Panel,
  type Thing,
} from '../fit';
import type { Vec3 } from '../geometry';
import { success, type Outcome } from '../outcome';
import { allSteps, type Steps } from '../steps';
import { fitDoubts, type FitDoubt, type Measured, type Nudged } from './fitDoubts';
import { lineGaps, type LineGap } from './lineGaps';

/** A clearance with what is asked of it and what it may be at the worst. */
export type FitGap = Clearance & {
  readonly keep_m: number;
  /** What a builder is told of it: a wall of the bay, or the role of the thing. */
  readonly kind: 'wall' | Thing['role'];
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
  return success({
    tanks,
    lines: lineGaps(system, scene.value.things),
    bay: survey && {
      corners_m: survey.corners_m,
      contradictions: survey.adjusted.contradictions,
      fitted_m: Object.fromEntries(survey.readings.map(({ id }, i) => [id, survey.adjusted.fitted_m[i]!])),
    },
  });
}

export type FitScene = { readonly bay: Bay | undefined; readonly things: readonly Thing[] };

export function sceneOf(system: SpacePlan): Outcome<FitScene, FitCode> {
  const bay = compileBay(system.fit.bay);
  if (!bay.ok) return bay;
  const things: Thing[] = [];
  for (const document of system.fit.things) {
    const thing = compileThing(document, system.fit.clearance_m.value);
    if (!thing.ok) return thing;
    things.push(thing.value);
  }
  return success({ bay: bay.value, things });
}

/** Sides of the bay that stop a tank. */
export const wallsOf = (bay: Bay): readonly Panel[] => bay.panels.filter(({ kind }) => kind !== 'open');
const walls = ({ bay }: FitScene): readonly Panel[] => (bay ? wallsOf(bay) : []);

/** What a tank is measured against: how far off it is, and how to measure that again when something has changed. */
function measuredGaps(system: SpacePlan, body: Body, scene: FitScene, built: Built = new WeakMap()): Measured[] {
  const keep_m = system.fit.clearance_m.value;
  return [
    ...walls(scene).map((panel, w): Measured => ({
      clearance: clearanceToPanel(body, panel),
      keep_m,
      kind: 'wall',
      again: (_, moved, panels) => clearanceToPanel(moved, panels?.[w] ?? panel).distance_m,
    })),
    ...system.tanks.flatMap((tank, other) => otherTank(system, body, tank, other, built)),
    ...scene.things.map((thing, i): Measured => {
      const clearance = clearanceTo(body, thing);
      return {
        clearance,
        keep_m: thing.keep_m,
        kind: thing.role,
        again: (changed, moved) => {
          const other =
            changed.fit.things[i] === system.fit.things[i]
              ? success(thing)
              : compileThing(changed.fit.things[i]!, keep_m);
          // Where it was tightest, and at the ends of its travel, which may be tighter now.
          return other.ok
            ? Math.min(
                ...[sameShare(clearance.at, thing, other.value), ...endsOf(other.value)].map(
                  (at) => clearanceAt(moved, other.value, at).distance_m,
                ),
              )
            : undefined;
        },
      };
    }),
  ];
}

/** Ends of what a thing's motions reach; none where it stands still. */
function endsOf(thing: Thing): number[][] {
  if (thing.motions.length === 0) return [];
  const { low, high } = rangeOf(thing);
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
function sameShare(at: readonly number[], before: Thing, after: Thing): number[] {
  const [was, is] = [rangeOf(before), rangeOf(after)];
  return at.map(
    (position, k) =>
      is.low[k]! + ((position - was.low[k]!) / (was.high[k]! - was.low[k]!)) * (is.high[k]! - is.low[k]!),
  );
}

/** Tanks as they stand in the way of others, by their document: each other one meets the same. */
type Built = WeakMap<TankDocument, { readonly thing: Thing | undefined }>;

function builtOnce(system: SpacePlan, tank: TankDocument, built: Built): Thing | undefined {
  const known = built.get(tank) ?? { thing: tankThing(system, tank) };
  built.set(tank, known);
  return known.thing;
}

/** Another tank stands in the way like anything else, with what stands on it. */
function otherTank(system: SpacePlan, body: Body, tank: TankDocument, index: number, built: Built): Measured[] {
  const there = tank.id === body.id ? undefined : builtOnce(system, tank, built);
  if (!there) return [];
  const clearance = clearanceTo(body, there);
  return [
    {
      clearance,
      keep_m: there.keep_m,
      kind: 'obstacle',
      again: (changed, moved) => {
        const other = builtOnce(changed, changed.tanks[index]!, built);
        return other && clearanceAt(moved, other, []).distance_m;
      },
    },
  ];
}

/** A tank as something that another one must stay clear of. */
export function tankThing(system: SpacePlan, tank: TankDocument): Thing | undefined {
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
