import { AT_HOME, norm, placed, posedMesh, scale, subtract, travel, treeOf } from '../geometry';
import { failure, success, type Outcome } from '../outcome';
import { edgeWays, gathered } from './axes';
import { SIX_WAYS } from './clearance';
import { alongMove, checkWay, distanceAt, reachOf, TOUCH_M, type Blocker, type Move, type Part } from './moves';
import { findWay, type WayCode, type WayOut } from './wayOut';
import type { WaySearch } from './waySpace';

/** One obstacle without which there is a way. */
export type Opening = {
  readonly id: string;
  readonly name: string;
  readonly removable: boolean;
  readonly way: WayOut;
  /**
   * How far it stands in that way [m]: of an obstacle thicker than the part is long no more than that length is seen.
   */
  readonly inTheWay_m: number;
};

/**
 * Each single obstacle that opens a way when it is not there: what can be taken
 * out first, then what stands least far in the way. A lip that is a finger too
 * high comes before the floor, though without the floor the part would drop out.
 */
export function openingsBy(
  part: Part,
  blockers: readonly Blocker[],
  search: WaySearch,
): Outcome<readonly Opening[], 'stopped'> {
  for (const straightOnly of [true, false]) {
    const openings: Opening[] = [];
    // What cannot be taken out is only of interest where that is plain to see.
    for (const blocker of blockers.filter(({ removable }) => straightOnly || removable)) {
      const way = findWay(
        part,
        blockers.filter((other) => other !== blocker),
        { ...search, straightOnly },
      );
      if (way.ok)
        openings.push({
          id: blocker.id,
          name: blocker.name,
          removable: blocker.removable,
          way: way.value,
          inTheWay_m: depthInWay(part, blocker, way.value.moves),
        });
      else if (way.error.code === 'stopped') return failure('stopped', part.name, 'The search was stopped.');
    }
    if (openings.length > 0)
      return success(openings.sort((a, b) => Number(b.removable) - Number(a.removable) || a.inTheWay_m - b.inTheWay_m));
  }
  return success([]);
}

/** Places on a way are looked at so far apart [m], or this many in all. */
const APART_M = 5e-3;
const MOST_PLACES = 200;

/**
 * The furthest that a part, on its way, is inside something: how far it would have to draw back the shortest way to be
 * clear of it.
 */
function depthInWay(part: Part, blocker: Blocker, moves: readonly Move[]): number {
  const [tree, other] = [treeOf(part.surface), treeOf(blocker.surface)];
  const directions = gathered([
    ...SIX_WAYS.map((way) => ({ way, length_m: 1 })),
    ...edgeWays(blocker.surface).slice(0, MOST_EDGE_WAYS),
  ]).flatMap(({ way }) => [way, scale(way, -1)]);
  let [from, deepest] = [part.at, 0];
  for (const move of moves) {
    const places = Math.min(MOST_PLACES, Math.ceil(reachOf(part, move) / APART_M));
    for (let i = 0; i <= places; i++) {
      const at = alongMove(from, part, move, i / Math.max(1, places));
      if (distanceAt(tree, at, other, TOUCH_M) > 0) continue;
      deepest = Math.max(
        deepest,
        Math.min(...directions.map((way) => Math.max(0, -(travel(tree, at, other, AT_HOME, way)?.travel_m ?? 0)))),
      );
    }
    from = alongMove(from, part, move, 1);
  }
  return deepest;
}
const MOST_EDGE_WAYS = 6;

export type Removal = { readonly id: string; readonly name: string; readonly way: WayOut };

/**
 * The order in which parts are taken out until the one that is wanted is:
 * whatever has a way out goes first, and what turns out not to have been in
 * the way is left where it is.
 *
 * @param parts all that can be taken out, the wanted one among them; each also stands in the others' way
 */
export function removalOrder(
  wanted: string,
  parts: readonly Part[],
  fixed: readonly Blocker[],
  search: WaySearch,
): Outcome<readonly Removal[], WayCode> {
  const standing = new Map(parts.map((part) => [part.id, part]));
  const wayAmong = (part: Part, there: readonly Part[], straightOnly = false) =>
    findWay(part, [...fixed, ...there.filter((other) => other !== part).map(asBlocker)], { ...search, straightOnly });
  const order: Removal[] = [];
  while (standing.has(wanted)) {
    const target = standing.get(wanted)!;
    // What stands nearest to the wanted part is tried first: it is likeliest to be in its way.
    const rest = [...standing.values()]
      .filter((part) => part !== target)
      .sort((a, b) => near(a, target) - near(b, target));
    let out: Removal | undefined;
    const tries = [true, false].flatMap((straightOnly) => [target, ...rest].map((part) => ({ part, straightOnly })));
    for (const { part, straightOnly } of tries) {
      const way = wayAmong(part, [...standing.values()], straightOnly);
      if (way.ok) {
        out = { id: part.id, name: part.name, way: way.value };
        break;
      }
      if (way.error.code === 'stopped' || (way.error.code === 'does-not-fit' && part === target)) return way;
    }
    if (!out)
      return failure(
        'none-found',
        target.name,
        `No order was found in which ${target.name} comes out: none of the parts that are left has a way of its own.`,
      );
    order.push(out);
    standing.delete(out.id);
  }
  return success(needed(order, parts, fixed));
}

const near = (a: Part, b: Part): number => norm(subtract(placed(a.at, a.middle_m), placed(b.at, b.middle_m)));
const asBlocker = (part: Part): Blocker => ({
  id: part.id,
  name: part.name,
  removable: true,
  surface: posedMesh(part.surface, part.at),
});

/** Leaves out, from the last, each removal without which those after it still come out the way they did. */
function needed(order: readonly Removal[], parts: readonly Part[], fixed: readonly Blocker[]): Removal[] {
  let kept = [...order];
  for (const removal of [...order].reverse().slice(1)) {
    const without = kept.filter((other) => other !== removal);
    const there = new Set(parts);
    const still = without.every(({ id, way }) => {
      const part = parts.find((candidate) => candidate.id === id)!;
      there.delete(part);
      return checkWay(part, [...fixed, ...[...there].map(asBlocker)], way.moves).isOut;
    });
    if (still) kept = without;
  }
  return kept;
}
