import type { FitCode } from '../document/compileFit';
import type { SystemDocument } from '../document/schema';
import type { Outcome } from '../outcome';
import { fitOf, type FitResult } from './fit';
import { reachOf, type ReachAnswer } from './reach';

export type FitOutcome = Outcome<FitResult, FitCode>;
export type ReachOutcome = Outcome<readonly ReachAnswer[], FitCode>;

/** What of a document the fit depends on, as text. */
const fitKey = ({ fit, tanks, mounts, lines }: SystemDocument): string =>
  JSON.stringify([
    { ...fit, ways: undefined, spots: undefined },
    mounts,
    tanks.map(({ id, name, mounting, material, dimensions, shape, parts, slices, ports }) => [
      id,
      name,
      mounting,
      material.thickness_m,
      dimensions,
      shape,
      parts,
      slices,
      ports,
    ]),
    // Where lines run: they start from ports and pickups.
    lines.map(({ id, from, to, kind, stock, bore_m, length_m, forward_m, toPort_m, rise_m, points }) => [
      id,
      from.item,
      to.item,
      kind,
      stock,
      bore_m,
      length_m,
      forward_m,
      toPort_m,
      rise_m,
      points,
    ]),
    tanks.map(({ pickups }) => pickups.map(({ id, port }) => [id, port])),
  ]);

let kept: { readonly key: string; readonly outcome: FitOutcome } | undefined;

/** Whether anything is said of the space round the tanks. */
export const hasSpace = ({ fit: { bay, things } }: SystemDocument): boolean => bay.kind !== 'none' || things.length > 0;
/**
 * Whether there is anything to reach past: a space, a place that is named, or parts whose hexagons are known beside
 * each other.
 */
export const hasReach = (system: SystemDocument): boolean =>
  hasSpace(system) ||
  system.fit.spots.length > 0 ||
  system.tanks.some(({ ports }) => ports.some(({ part }) => part !== undefined));

/**
 * The fit of a system; undefined where nothing is said of the space. Kept for
 * the next time, since most edits leave the space alone.
 */
export function fitFor(system: SystemDocument): FitOutcome | undefined {
  if (!hasSpace(system)) return undefined;
  const key = fitKey(system);
  if (kept?.key === key) return kept.outcome;
  kept = { key, outcome: fitOf(system) };
  return kept.outcome;
}

let keptReach: { readonly key: string; readonly outcome: ReachOutcome } | undefined;

/** What hands and tools get to; undefined where there is nothing to reach past. */
export function reachFor(system: SystemDocument): ReachOutcome | undefined {
  if (!hasReach(system)) return undefined;
  const key = `${fitKey(system)} ${JSON.stringify(system.fit.spots)}`;
  if (keptReach?.key === key) return keptReach.outcome;
  keptReach = { key, outcome: reachOf(system) };
  return keptReach.outcome;
}
