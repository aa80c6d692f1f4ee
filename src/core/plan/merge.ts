import { sameContent } from './differences';
import type { Path } from './edit';
import { parseSystem } from './parse';
import { joinedRecords } from './records';
import type { SystemDocument } from './schema';

export type Merged =
  | { readonly ok: true; readonly value: SystemDocument }
  /** Places that both changed, each in its own way; or what would be wrong with both changes together. */
  | { readonly ok: false; readonly places: readonly Path[]; readonly detail?: string };

/** What stands for a value that one side does not have. */
const NONE = Symbol('none');

/**
 * Two systems that were both changed from one: the changes of both, where they
 * do not meet. Entries of lists go by their id. How the system happens to stand
 * is no part of the plan: there `mine` counts, but for tanks that it does not know. Records of both are kept.
 */
export function mergeSystems(base: SystemDocument, mine: SystemDocument, theirs: SystemDocument): Merged {
  const places: Path[] = [];
  const merged = merge(base, mine, theirs, [], places) as SystemDocument;
  if (places.length > 0) return { ok: false, places };
  const fills = [
    ...mine.conditions.fills,
    ...theirs.conditions.fills.filter(({ tank }) => mine.conditions.fills.every((own) => own.tank !== tank)),
  ];
  const value = {
    ...merged,
    records: joinedRecords(theirs.records, mine.records),
    conditions: { ...mine.conditions, fills: fills.filter(({ tank }) => merged.tanks.some(({ id }) => id === tank)) },
  };
  const parsed = parseSystem(value);
  return parsed.ok ? parsed : { ok: false, places: [], detail: parsed.error.detail };
}

function merge(base: unknown, mine: unknown, theirs: unknown, path: Path, places: Path[]): unknown {
  if (sameContent(mine, theirs) || sameContent(base, theirs)) return mine;
  if (sameContent(base, mine)) return theirs;
  if (path[0] === 'conditions' || path[0] === 'records') return mine;
  if (isOpen(base) && isOpen(mine) && isOpen(theirs)) return mergeKeys(base, mine, theirs, path, places);
  if (isList(base) && isList(mine) && isList(theirs)) return mergeLists(base, mine, theirs, path, places);
  places.push(path);
  return mine;
}

type Tree = Readonly<Record<string, unknown>>;
const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null && !Array.isArray(value);
/** A value with its origin and spread is one thing, and so is a shape of another kind. */
const isOpen = (value: unknown): value is Tree => isTree(value) && !('origin' in value && 'value' in value);

function mergeKeys(base: Tree, mine: Tree, theirs: Tree, path: Path, places: Path[]): unknown {
  if (base.kind !== mine.kind || base.kind !== theirs.kind) {
    places.push(path);
    return mine;
  }
  const keys = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])];
  return Object.fromEntries(
    keys.flatMap((key) => {
      const of = (tree: Tree): unknown => (Object.hasOwn(tree, key) ? tree[key] : NONE);
      const value = merge(of(base), of(mine), of(theirs), [...path, key], places);
      return value === NONE ? [] : [[key, value]];
    }),
  );
}

type Entry = { readonly id: string };
const isList = (value: unknown): value is readonly Entry[] =>
  Array.isArray(value) && value.every((entry) => isTree(entry) && typeof entry.id === 'string');

/** In the order of `theirs`; what only `mine` has comes after what it followed there. */
function mergeLists(
  base: readonly Entry[],
  mine: readonly Entry[],
  theirs: readonly Entry[],
  path: Path,
  places: Path[],
): unknown {
  const of = (list: readonly Entry[], id: string): unknown => list.find((entry) => entry.id === id) ?? NONE;
  const order = theirs.map(({ id }) => id);
  mine.forEach(({ id }, i) => {
    if (order.includes(id)) return;
    const before = mine[i - 1]?.id;
    order.splice(before === undefined ? 0 : order.indexOf(before) + 1, 0, id);
  });
  return order.flatMap((id) => {
    const value = merge(
      of(base, id),
      of(mine, id),
      of(theirs, id),
      [
        ...path,
        Math.max(
          0,
          (mine.some((entry) => entry.id === id) ? mine : theirs).findIndex((entry) => entry.id === id),
        ),
      ],
      places,
    );
    return value === NONE ? [] : [value];
  });
}
