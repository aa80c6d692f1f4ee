import { compileBay, compileTankBody, compileThing, hoseEndOf, placeOf, type FitCode } from '../document/compileFit';
import { withValue, type Path } from '../document/edit';
import type { Known } from '../document/known';
import type { SystemDocument } from '../document/schema';
import { chanceAllPositive, clearanceAt, clearanceTo, clearanceToPanel, isSolid, joinedSurface, rangeOf, readingOf, standing, type Bay, type Body, type Clearance, type Contradiction, type Panel, type Survey, type Thing } from '../fit';
import { dot, nearestOnTriangle, norm, subtract, triangle, type Surface, type Vec3 } from '../geometry';
import { success, type Outcome } from '../outcome';
import { allKnown } from './allKnown';
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
};

/** How far one uncertain value may move the tightest gaps: at most, within its spread [m]. */
export type FitDoubt = { readonly path: Path; readonly moves_m: number; readonly gap: string };

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

/** One uncertain value: where it stands, and its spread. */
type Doubt = { readonly path: Path; readonly known: Known };

/**
 * How every tank fits its bay and stands clear of everything in it, over the
 * whole of each motion, with what the measurements' uncertainty leaves of it.
 *
 * Uncertainty is carried to first order: each value goes to the end of its
 * spread in turn, the moving parts staying where it is tightest.
 * @source ISO/IEC Guide 98-3 (GUM), section 5.1.3; the worst case by adding all of them up
 */
export function fitOf(system: SystemDocument): Outcome<FitResult, FitCode> {
  const scene = sceneOf(system);
  if (!scene.ok) return scene;
  const tanks: TankFit[] = [];
  for (const [t] of system.tanks.entries()) {
    const fit = tankFit(system, t, scene.value);
    if (!fit.ok) return fit;
    tanks.push(fit.value);
  }
  const { survey } = scene.value.bay ?? {};
  return success({ tanks, lines: lineGaps(system, scene.value.things), bay: survey && { corners_m: survey.corners_m, contradictions: survey.adjusted.contradictions, fitted_m: Object.fromEntries(survey.readings.map(({ id }, i) => [id, survey.adjusted.fitted_m[i]!])) } });
}

export type FitScene = { readonly bay: Bay | undefined; readonly things: readonly Thing[] };

export function sceneOf(system: SystemDocument): Outcome<FitScene, FitCode> {
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

type Measured = { readonly clearance: Clearance; readonly keep_m: number; readonly kind: FitGap['kind']; readonly again: (system: SystemDocument, body: Body) => number };

/** The piece of a body that a gap is measured to: a small change leaves it the nearest. */
const only = (body: Body, piece: string): Body => ({ ...body, pieces: body.pieces.filter(({ id }) => id === piece) });

/** What a tank is measured against: how far off it is, and how to measure that again when something has changed. */
function measuredGaps(system: SystemDocument, body: Body, scene: FitScene): Measured[] {
  const keep_m = system.fit.clearance_m.value;
  return [
    ...walls(scene).map((panel): Measured => {
      const clearance = clearanceToPanel(body, panel);
      return { clearance, keep_m, kind: 'wall', again: (_, moved) => clearanceToPanel(only(moved, clearance.piece), panel).distance_m };
    }),
    ...system.tanks.flatMap((tank, other) => otherTank(system, body, tank, other)),
    ...scene.things.map((thing, i): Measured => {
      const clearance = clearanceTo(body, thing);
      return {
        clearance, keep_m: thing.keep_m, kind: thing.role,
        again: (changed, moved) => {
          const other = changed.fit.things[i] === system.fit.things[i] ? undefined : compileThing(changed.fit.things[i]!, keep_m);
          const there = other?.ok ? other.value : thing;
          return clearanceAt(only(moved, clearance.piece), there, sameShare(clearance.at, thing, there)).distance_m;
        },
      };
    }),
  ];
}

/** A position of a motion as far between its ends when these have moved: tightest at full bump, it stays at full bump. */
function sameShare(at: readonly number[], before: Thing, after: Thing): number[] {
  const [was, is] = [rangeOf(before), rangeOf(after)];
  return at.map((position, k) => is.low[k]! + ((position - was.low[k]!) / (was.high[k]! - was.low[k]!)) * (is.high[k]! - is.low[k]!));
}

/** Another tank stands in the way like anything else, with what stands on it. */
function otherTank(system: SystemDocument, body: Body, tank: SystemDocument['tanks'][number], index: number): Measured[] {
  const there = tank.id === body.id ? undefined : tankThing(system, tank);
  if (!there) return [];
  const clearance = clearanceTo(body, there);
  return [{
    clearance, keep_m: there.keep_m, kind: 'obstacle',
    again: (changed, moved) => clearanceAt(only(moved, clearance.piece), changed.tanks[index] === tank ? there : (tankThing(changed, changed.tanks[index]!) ?? there), []).distance_m,
  }];
}

/** A tank as something that another one must stay clear of. */
export function tankThing(system: SystemDocument, tank: SystemDocument['tanks'][number]): Thing | undefined {
  const body = compileTankBody(system, tank);
  if (!body.ok) return undefined;
  const surface = joinedSurface(standing(body.value).map((piece) => piece.surface));
  return { id: tank.id, name: tank.name, role: 'obstacle', surface, motions: [], keep_m: system.fit.clearance_m.value, removable: true };
}

function tankFit(system: SystemDocument, t: number, scene: FitScene): Outcome<TankFit, FitCode> {
  const tank = system.tanks[t]!;
  const body = compileTankBody(system, tank);
  if (!body.ok) return body;
  const measured = measuredGaps(system, body.value, scene);
  const columns = movesOf(system, t, body.value, measured, scene);
  const moves = measured.map((_, g) => columns.map(({ moves_m }) => moves_m[g]!));
  const gaps = measured.map(({ clearance, keep_m, kind }, g): FitGap => ({
    ...clearance, keep_m, kind,
    worst_m: clearance.distance_m - moves[g]!.reduce((sum, move) => sum + SIGMAS * Math.abs(move), 0),
    spread_m: SIGMAS * Math.hypot(...moves[g]!),
  })).sort((a, b) => Number(a.kind === 'fixing') - Number(b.kind === 'fixing') || a.distance_m - a.keep_m - (b.distance_m - b.keep_m));
  // What it is fastened to is packed until it touches; nobody is hurt by a zone until something stands in it.
  const chance = (ask: (g: number) => number, counts: (kind: FitGap['kind']) => boolean): number =>
    chanceAllPositive(measured.flatMap(({ clearance, kind }, g) => (counts(kind) ? [{ margin_m: clearance.distance_m - ask(g), moves_m: moves[g]! }] : [])));
  return success({ tank: tank.id, name: tank.name, gaps, chanceClear: chance(() => 0, (kind) => kind === 'wall' || (kind !== 'fixing' && isSolid(kind))), chanceKept: chance((g) => measured[g]!.keep_m, (kind) => kind !== 'fixing'), doubts: doubtsOf(columns, measured) });
}

/** Least that is left anywhere over what is asked there, for one tank [m]; undefined where it cannot be built. */
export function marginOf(system: SystemDocument, t: number): number | undefined {
  const scene = sceneOf(system);
  const body = compileTankBody(system, system.tanks[t]!);
  return scene.ok && body.ok ? Math.min(...measuredGaps(system, body.value, scene.value).map(({ clearance, keep_m }) => clearance.distance_m - keep_m)) : undefined;
}

/** A spread is two standard deviations. */
const SIGMAS = 2;

/** One uncertain value with how much one standard deviation of it moves each gap [m]. */
type Column = { readonly path: Path; readonly moves_m: readonly number[] };

/** Gaps that count as tight: so many of the tightest. */
const TIGHT = 4;
/** A value that moves no tight gap by more than this is not worth measuring [m]. */
const LITTLE_M = 2e-4;

function doubtsOf(columns: readonly Column[], measured: readonly Measured[]): FitDoubt[] {
  const tight = measured.map((gap, g) => ({ g, kind: gap.kind, name: gap.clearance.name, margin: gap.clearance.distance_m - gap.keep_m })).filter(({ kind }) => kind !== 'fixing').sort((a, b) => a.margin - b.margin).slice(0, TIGHT);
  if (tight.length === 0) return [];
  return columns.flatMap(({ path, moves_m }) => {
    const most = tight.reduce((best, gap) => (Math.abs(moves_m[gap.g]!) > Math.abs(moves_m[best.g]!) ? gap : best));
    const moved = SIGMAS * Math.abs(moves_m[most.g]!);
    return moved > LITTLE_M ? [{ path, moves_m: moved, gap: most.name }] : [];
  }).sort((a, b) => b.moves_m - a.moves_m);
}

/** Slopes are taken over this share of a standard deviation: a thing that would overlap a whole one further on has no slope there. */
const NUDGE = 0.02;

/** How much one standard deviation of every uncertain value moves each gap [m]. */
function movesOf(system: SystemDocument, t: number, body: Body, measured: readonly Measured[], scene: FitScene): Column[] {
  const columns: Column[] = [];
  for (const { path, known } of doubtsAbout(system, ['tanks', t])) {
    const changed = withValue(system, [...path, 'value'], known.value + (NUDGE * known.spread!) / SIGMAS);
    // Its place alone leaves the body as it is.
    const moved = path.includes('mounting') ? success({ ...body, at: placeOf(changed.tanks[t]!.mounting) }) : compileTankBody(changed, changed.tanks[t]!);
    const port = path[2] === 'ports' ? system.tanks[t]!.ports[Number(path[3])]!.id : undefined;
    if (moved.ok) columns.push({ path, moves_m: measured.map(({ clearance, again }) => (port !== undefined && clearance.piece !== port && clearance.piece !== hoseEndOf(port) ? 0 : (again(system, moved.value) - clearance.distance_m) / NUDGE)) });
  }
  const tanksFrom = walls(scene).length;
  const others = system.tanks.map((_, index) => index).filter((index) => index !== t);
  others.forEach((index, o) => {
    for (const { path, known } of doubtsAbout(system, ['tanks', index])) {
      const changed = withValue(system, [...path, 'value'], known.value + (NUDGE * known.spread!) / SIGMAS);
      columns.push({ path, moves_m: measured.map(({ clearance, again }, g) => (g === tanksFrom + o ? (again(changed, body) - clearance.distance_m) / NUDGE : 0)) });
    }
  });
  const first = tanksFrom + others.length;
  scene.things.forEach((_, i) => {
    for (const { path, known } of doubtsAbout(system, ['fit', 'things', i])) {
      if (path.includes('keep_m')) continue;
      const changed = withValue(system, [...path, 'value'], known.value + (NUDGE * known.spread!) / SIGMAS);
      columns.push({ path, moves_m: measured.map(({ clearance, again }, g) => (g === first + i ? (again(changed, body) - clearance.distance_m) / NUDGE : 0)) });
    }
  });
  if (scene.bay?.survey) columns.push(...surveyMoves(system, scene.bay.survey, scene, measured));
  return [...columns, ...bayMoves(system, body, measured, tanksFrom)];
}

/** What of the bay is not in its survey: where its zero lies, how its sides curve, the body that it is drawn as. */
function bayMoves(system: SystemDocument, body: Body, measured: readonly Measured[], sides: number): Column[] {
  const { bay } = system.fit;
  const doubts = doubtsAbout(system, ['fit', 'bay']).filter(({ path }) => bay.kind === 'drawn' || path.length === 3 || path[2] === 'curves');
  return doubts.flatMap(({ path, known }) => {
    const changed = compileBay(withValue(system, [...path, 'value'], known.value + (NUDGE * known.spread!) / SIGMAS).fit.bay);
    if (!changed.ok || !changed.value) return [];
    const moved = wallsOf(changed.value);
    return [{ path, moves_m: measured.map(({ clearance }, g) => (g < sides ? (clearanceToPanel(only(body, clearance.piece), moved[g]!).distance_m - clearance.distance_m) / NUDGE : 0)) }];
  });
}

/** What of a tank moves its outside. */
const OUTSIDE: ReadonlySet<string> = new Set(['mounting', 'material', 'shape', 'parts', 'slices']);

function doubtsAbout(system: SystemDocument, root: Path): Doubt[] {
  const at = root.reduce<unknown>((node, key) => (node as Record<string | number, unknown>)[key], system);
  return allKnown(at).filter(({ path, known }) => (known.spread ?? 0) > 0 && (root[0] !== 'tanks' || OUTSIDE.has(String(path[0])) || path[0] === 'ports')).map(({ path, known }) => ({ path: [...root, ...path], known }));
}

/** How one standard deviation of every reading of the bay moves the gaps to its walls: by where on the wall the gap is. */
function surveyMoves(system: SystemDocument, survey: Survey, scene: FitScene, measured: readonly Measured[]): Column[] {
  const { gain, sigmas_m } = survey.adjusted;
  const sides = walls(scene);
  const slopes = measured.map(({ clearance }, g) => (g < sides.length ? wallSlopes(survey, sides[g]!.surface, clearance, gain.rows) : undefined));
  return survey.readings.map(({ id }, reading) => ({ path: readingPath(system, id), moves_m: slopes.map((of) => (of ? of.reduce((sum, slope, unknown) => (slope === 0 ? sum : sum + slope * gain.get(unknown, reading)), 0) * sigmas_m[reading]! : 0)) }));
}

/** Where in the document a reading of the survey stands. */
function readingPath(system: SystemDocument, id: string): Path {
  const { bay } = system.fit;
  if (bay.kind !== 'measured') return ['fit', 'bay'];
  const measure = bay.measures.findIndex((other) => other.id === id);
  if (measure >= 0) return ['fit', 'bay', 'measures', measure, 'length_m'];
  for (const [s, station] of bay.stations.entries()) {
    if (id === readingOf.at(station.id)) return ['fit', 'bay', 'stations', s, 'at_m'];
    for (const c of station.corners.keys()) {
      if (id === readingOf.corner(station.id, c, 'across')) return ['fit', 'bay', 'stations', s, 'corners', c, 'across_m'];
      if (id === readingOf.corner(station.id, c, 'up')) return ['fit', 'bay', 'stations', s, 'corners', c, 'up_m'];
    }
  }
  return ['fit', 'bay'];
}

/** How a gap to a wall changes with each unknown of the survey: the wall's point moves, and the gap with its part along the gap. */
function wallSlopes(survey: Survey, surface: Surface, { onThing, away }: Clearance, unknowns: number): number[] {
  const slopes = new Array<number>(unknowns).fill(0);
  const { corners, shares } = placeOn(surface, onThing);
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
  const [beta, gamma] = determinant > 0 ? [(vv * wu - uv * wv) / determinant, (uu * wv - uv * wu) / determinant] : [0, 0];
  return { corners: [0, 1, 2].map((k) => surface.triangles[3 * best.index + k]!), shares: [1 - beta - gamma, beta, gamma] };
}
