import type { Path } from '../plan/edit';
import type { Known } from '../schema/known';

/** A value of the document with the path to it. */
export type KnownAt = { readonly path: Path; readonly known: Known };

/** Every Known in a document. */
export function allKnown(root: unknown, path: Path = []): KnownAt[] {
  if (typeof root !== 'object' || root === null) return [];
  if ('origin' in root && 'value' in root) return [{ path, known: root as Known }];
  return Object.entries(root).flatMap(([key, child]) =>
    allKnown(child, [...path, Array.isArray(root) ? Number(key) : key]),
  );
}
