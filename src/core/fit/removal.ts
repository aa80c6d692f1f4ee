import { norm, placed, posedMesh, subtract } from '../geometry';
import { failure, success, type Outcome } from '../outcome';
import { checkWay, type Blocker, type Part } from './moves';
import { findWay, type WayCode, type WayOut } from './wayOut';
import type { WaySearch } from './waySpace';

export type Opening = { readonly id: string; readonly name: string; readonly removable: boolean; readonly way: WayOut };

/** Which single thing, taken out first, opens a way: what can be taken out is tried before what cannot. */
export function openingBy(part: Part, blockers: readonly Blocker[], search: WaySearch): Outcome<Opening | undefined, 'stopped'> {
  const inOrder = [...blockers].sort((a, b) => Number(b.removable) - Number(a.removable));
  for (const straightOnly of [true, false]) {
    // What cannot be taken out is only of interest where that is plain to see.
    for (const blocker of inOrder.filter(({ removable }) => straightOnly || removable)) {
      const way = findWay(part, blockers.filter((other) => other !== blocker), { ...search, straightOnly });
      if (way.ok) return success({ id: blocker.id, name: blocker.name, removable: blocker.removable, way: way.value });
      if (way.error.code === 'stopped') return failure('stopped', part.name, 'The search was stopped.');
    }
  }
  return success(undefined);
}

export type Removal = { readonly id: string; readonly name: string; readonly way: WayOut };

/**
 * The order in which parts are taken out until the one that is wanted is:
 * whatever has a way out goes first, and what turns out not to have been in
 * the way is left where it is.
 *
 * @param parts all that can be taken out, the wanted one among them; each also stands in the others' way
 */
export function removalOrder(wanted: string, parts: readonly Part[], fixed: readonly Blocker[], search: WaySearch): Outcome<readonly Removal[], WayCode> {
  const standing = new Map(parts.map((part) => [part.id, part]));
  const wayAmong = (part: Part, there: readonly Part[], straightOnly = false) => findWay(part, [...fixed, ...there.filter((other) => other !== part).map(asBlocker)], { ...search, straightOnly });
  const order: Removal[] = [];
  while (standing.has(wanted)) {
    const target = standing.get(wanted)!;
    // What stands nearest to the wanted part is tried first: it is likeliest to be in its way.
    const rest = [...standing.values()].filter((part) => part !== target).sort((a, b) => near(a, target) - near(b, target));
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
    if (!out) return failure('none-found', target.name, `No order was found in which ${target.name} comes out: none of the parts that are left has a way of its own.`);
    order.push(out);
    standing.delete(out.id);
  }
  return success(needed(order, parts, fixed));
}

const near = (a: Part, b: Part): number => norm(subtract(placed(a.at, a.middle_m), placed(b.at, b.middle_m)));
const asBlocker = (part: Part): Blocker => ({ id: part.id, name: part.name, removable: true, surface: posedMesh(part.surface, part.at) });

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
