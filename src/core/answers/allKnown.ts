import type { Path } from '../plan/edit';
import type { Plan } from '../plan/schema';
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

/** Every value of a plan that something is worked out from: a nozzle burns nothing. */
export const valuesOf = (system: Plan): KnownAt[] =>
  allKnown(system).filter(
    ({ path: [list, i, key] }) =>
      !(list === 'consumers' && BURNS.has(key) && system.consumers[Number(i)]?.kind === 'nozzle'),
  );

const BURNS: ReadonlySet<unknown> = new Set(['burnIdle_m3PerS', 'burnFull_m3PerS']);
