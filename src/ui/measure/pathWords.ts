import { valueAt, wordsAt, type Path, type SystemDocument } from '@/core/plan';
import type { Role } from '@/core/units';
import type { Stage } from '@/core/rules';
import { placeOfField } from '../workspace/tasks';

type Words = { readonly label: string; readonly role: Role };

/** What is no quantity goes by its key, taken apart into words. */
const keyWords = (key: string): string =>
  key
    .replace(/_[A-Za-z0-9]+$/, '')
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .toLowerCase();

/** A path in a builder's words, the role of its value, and the stage where it stands. */
export function pathWords(
  system: SystemDocument,
  path: Path,
): Words & { readonly owner: string; readonly stage: Stage } {
  const named = [...path.keys()]
    .map((end) => valueAt(system, path.slice(0, end + 1)))
    .findLast((value) => typeof value === 'object' && value !== null && 'name' in value) as
    { name: string } | undefined;
  return {
    ...(wordsAt(system, path) ?? { label: keyWords(String(path.at(-1))), role: 'count' }),
    owner: named?.name ?? 'System',
    stage: placeOfField(system, path).stage,
  };
}
