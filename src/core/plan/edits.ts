import { withValue, type Path } from './edit';

/** A value put at a path; the whole where the path is empty. */
export type PathEdit = { readonly path: Path; readonly value: unknown };

const isTree = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null;

/**
 * What makes one tree of another that was made from it: branches that are the
 * very same are passed over, so that it costs what was changed, not what there is.
 */
export function editsBetween(before: unknown, after: unknown, path: Path = []): PathEdit[] {
  if (before === after) return [];
  if (!isTree(before) || !isTree(after) || Array.isArray(before) !== Array.isArray(after))
    return [{ path, value: after }];
  const keys = Object.keys(after);
  if (keys.length !== Object.keys(before).length || !keys.every((key) => key in before))
    return [{ path, value: after }];
  return keys.flatMap((key) =>
    editsBetween(before[key], after[key], [...path, Array.isArray(after) ? Number(key) : key]),
  );
}

/** The tree with its edits; untouched branches stay the very same. */
export const withEdits = <T>(tree: T, edits: readonly PathEdit[]): T =>
  edits.reduce((at, { path, value }) => withValue(at, path, value), tree);
