import type { Known, Origin } from '../schema/known';
import { withValue, type Path } from '../plan/edit';
import type { PlanAt } from '../plan/schema';
import { valuesOf } from './allKnown';
import { cornerMoved, profileCorners, type Corners } from './tank/profileCorners';
import { evaluateSystem, type Evaluation } from './evaluate';
import { NUMBER_KEYS, numbersOf, type NumberKey, type Numbers } from './numbers';

/** What one uncertain value does to the numbers within its spread. */
export type Influence = {
  readonly path: Path;
  readonly origin: Origin;
  readonly value: number;
  readonly spread: number;
  /** The larger change of each number on going to either end of the spread [its SI unit]. */
  readonly moves: Readonly<Partial<Record<NumberKey, number>>>;
  /** Numbers that cannot be worked out at one end of the spread: what it does to them is not known. */
  readonly lost: readonly NumberKey[];
  /** Findings that come, go or change in gravity within the spread, by key. */
  readonly findings: readonly string[];
  readonly score: number;
};

export type Sensitivity = {
  /** Most telling first. */
  readonly influences: readonly Influence[];
  /** Half-width of each number from all spreads together [its SI unit]. */
  readonly spreads: Readonly<Partial<Record<NumberKey, number>>>;
  /**
   * Numbers whose spread is not known, since some value's spread leads to where they cannot be worked out: no part of
   * `spreads`.
   */
  readonly unknown: readonly NumberKey[];
};

/** A finding that comes or goes weighs as much as a fifth on one number. */
const FINDING_WEIGHT = 0.2;
/** A number that comes or goes altogether weighs as much as all of it. */
const LOST_NUMBER = 1;

/** Lists the findings a system has, each by a key. Passed in, since the rules stand above this module. */
export type FindingsOf = (system: PlanAt, evaluation: Evaluation) => readonly string[];

/**
 * How far each value's spread moves the numbers, and what all spreads leave
 * together: first-order, by going to both ends of each spread in turn, and
 * adding independent effects as squares.
 *
 * @source ISO/IEC Guide 98-3 (GUM), section 5.1.3, with sensitivities by finite difference
 */
export const sensitivity = (system: PlanAt, findingsOf: FindingsOf): Sensitivity =>
  combinedUncertainty([...influencesOf(system, findingsOf)]);

/**
 * The influences one after the other, in the document's order: each takes two evaluations, and who asks may stop
 * between them.
 */
export function* influencesOf(system: PlanAt, findingsOf: FindingsOf): Generator<Influence> {
  const base = outcomeOf(system, findingsOf);
  for (const { path, known } of valuesOf(system)) {
    if ((known.spread ?? 0) > 0 && !path.some((key) => APART.has(key)))
      yield influenceOf(system, path, known, base, findingsOf);
  }
  for (const corners of profileCorners(system)) yield cornersInfluence(system, corners, base, findingsOf);
}

/**
 * Corners of a body's profiles that are known alike, each moved by itself square to the chord between its neighbours,
 * where it tells most; their effects added as squares.
 */
function cornersInfluence(
  system: PlanAt,
  { path, origin, spread_m, profiles }: Corners,
  base: Snapshot,
  findingsOf: FindingsOf,
): Influence {
  const each = profiles.flatMap(({ path: at, points, which }) =>
    which.map((i) => {
      const ends = [-1, 1].map((side) =>
        outcomeOf(
          withValue(
            system,
            at,
            points.map((point, k) => (k === i ? cornerMoved(points, i, side * spread_m) : point)),
          ),
          findingsOf,
        ),
      ) as [Snapshot, Snapshot];
      return moved(base, ...ends);
    }),
  );
  const lost = NUMBER_KEYS.filter((key) => each.some((one) => one.lost.includes(key)));
  const moves = Object.fromEntries(
    NUMBER_KEYS.flatMap((key) =>
      !lost.includes(key) && each.some((one) => one.moves[key] !== undefined)
        ? [[key, Math.hypot(...each.map((one) => one.moves[key] ?? 0))]]
        : [],
    ),
  );
  const findings = [...new Set(each.flatMap((one) => one.findings))];
  return {
    path,
    origin,
    value: spread_m,
    spread: spread_m,
    moves,
    lost,
    findings,
    score: Math.hypot(...each.map(({ square }) => Math.sqrt(square))) + FINDING_WEIGHT * findings.length,
  };
}

/** All influences, ranked and summed up. */
export function combinedUncertainty(influences: readonly Influence[]): Sensitivity {
  const unknown = NUMBER_KEYS.filter((key) => influences.some(({ lost }) => lost.includes(key)));
  const spreads = Object.fromEntries(
    NUMBER_KEYS.filter((key) => !unknown.includes(key)).map((key) => [
      key,
      Math.sqrt(influences.reduce((sum, { moves }) => sum + (moves[key] ?? 0) ** 2, 0)),
    ]),
  ) as Partial<Record<NumberKey, number>>;
  return { influences: [...influences].sort((a, b) => b.score - a.score), spreads, unknown };
}

/**
 * Of the space and of what stands on the tank, only the fit depends, which ranks them itself; what was built changes no
 * plan.
 */
const APART: ReadonlySet<string | number> = new Set(['fit', 'stands', 'built']);

type Snapshot = { readonly numbers: Partial<Record<NumberKey, number>>; readonly findings: ReadonlySet<string> };

function outcomeOf(system: PlanAt, findingsOf: FindingsOf): Snapshot {
  const evaluation = evaluateSystem(system, 'numbers');
  if (!evaluation.ok) return { numbers: {}, findings: new Set() };
  const numbers: Numbers = numbersOf(system, evaluation.value);
  return {
    numbers: Object.fromEntries(
      NUMBER_KEYS.flatMap((key) => {
        const number = numbers[key];
        return number.ok ? [[key, number.value.value]] : [];
      }),
    ),
    findings: new Set(findingsOf(system, evaluation.value)),
  };
}

function influenceOf(system: PlanAt, path: Path, known: Known, base: Snapshot, findingsOf: FindingsOf): Influence {
  const spread = known.spread!;
  const [low, high] = [-1, 1].map((side) => {
    const value = movedValue(known, side * spread, String(path.at(-1)));
    return outcomeOf(withValue(system, [...path, 'value'], value), findingsOf);
  }) as [Snapshot, Snapshot];
  const { square, ...change } = moved(base, low, high);
  return {
    path,
    origin: known.origin,
    value: known.value,
    spread,
    ...change,
    score: Math.sqrt(square) + FINDING_WEIGHT * change.findings.length,
  };
}

/** What changes between a system and the two ends of a spread. */
function moved(
  base: Snapshot,
  low: Snapshot,
  high: Snapshot,
): Pick<Influence, 'moves' | 'lost' | 'findings'> & { readonly square: number } {
  const moves: Partial<Record<NumberKey, number>> = {};
  const lost: NumberKey[] = [];
  let square = 0;
  for (const key of NUMBER_KEYS) {
    const [at, a, b] = [base.numbers[key], low.numbers[key], high.numbers[key]];
    if (at === undefined) continue;
    if (a === undefined || b === undefined) {
      square += LOST_NUMBER;
      lost.push(key);
      continue;
    }
    moves[key] = Math.max(Math.abs(a - at), Math.abs(b - at));
    // The gauge's error is a share already; the others are compared with their own size.
    square += (moves[key]! / (key === 'gauge' ? 1 : Math.max(Math.abs(at), 1e-12))) ** 2;
  }
  const findings = [...new Set([...low.findings, ...high.findings, ...base.findings])].filter(
    (id) => !(base.findings.has(id) && low.findings.has(id) && high.findings.has(id)),
  );
  return { moves, lost, findings, square };
}

/** Shares that cannot pass one. */
const PROPER_SHARES: ReadonlySet<string> = new Set(['fillLimit_ratio', 'reserve_ratio']);

/** Sizes, flows and pressures that are above zero stay so, and shares within one. */
function movedValue({ value }: Known, by: number, key: string): number {
  const next = value > 0 && value + by <= 0 ? value * 1e-3 : value + by;
  return PROPER_SHARES.has(key) ? Math.min(1, next) : next;
}
