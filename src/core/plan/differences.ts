import type { Path } from './edit';
import type { SystemDocument } from './schema';

/**
 * One place where two documents differ: changed, or only in one of them. Paths lead into the document that has the
 * value, the second where both do.
 */
export type Difference = { readonly path: Path; readonly before: unknown; readonly after: unknown };

/** What does not make a system another: what it is called, how it happens to stand, what happened to it. */
const LEFT_OUT: ReadonlySet<string> = new Set(['name', 'description', 'conditions', 'records', 'format', 'version']);

/** Of a document, what is no part of the plan. */
const NOT_PLANNED: ReadonlySet<string> = new Set(['conditions', 'records']);

/**
 * Every place where the second of two systems differs from the first. Entries
 * of lists are matched by id where they have one, by place where they have not.
 */
export const differences = (before: SystemDocument, after: SystemDocument): Difference[] =>
  Object.keys(after)
    .filter((key) => !LEFT_OUT.has(key))
    .flatMap((key) => compare(before[key as keyof SystemDocument], after[key as keyof SystemDocument], [key]));

function compare(before: unknown, after: unknown, path: Path): Difference[] {
  if (sameContent(before, after)) return [];
  if (isKnown(before) && isKnown(after)) return before.value === after.value ? [] : [{ path, before, after }];
  if (Array.isArray(before) && Array.isArray(after)) return compareLists(before, after, path);
  if (isObject(before) && isObject(after) && before.kind === after.kind) {
    return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((key) =>
      compare(before[key], after[key], [...path, key]),
    );
  }
  return [{ path, before, after }];
}

function compareLists(before: readonly unknown[], after: readonly unknown[], path: Path): Difference[] {
  const keyed = [...before, ...after].every((entry) => isObject(entry) && typeof entry.id === 'string');
  // A curve or a profile is one thing: it is another when any point of it is.
  if (!keyed) return [{ path, before, after }];
  const byId = (list: readonly unknown[]) =>
    new Map(list.map((entry, i) => [(entry as { id: string }).id, { entry, i }]));
  const [old, now] = [byId(before), byId(after)];
  return [...new Set([...old.keys(), ...now.keys()])].flatMap((id) => {
    const [was, is] = [old.get(id), now.get(id)];
    return compare(was?.entry, is?.entry, [...path, (is ?? was)!.i]);
  });
}

type Tree = Readonly<Record<string, unknown>>;
const isObject = (value: unknown): value is Tree =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isKnown = (value: unknown): value is { readonly value: number; readonly origin: string } =>
  isObject(value) && 'origin' in value && 'value' in value;

/** Whether two parts of documents say the same, whichever objects hold them. */
export const sameContent = (one: unknown, other: unknown): boolean =>
  one === other || JSON.stringify(one) === JSON.stringify(other);

/**
 * Whether two documents are of one plan, however it stands: nothing but their conditions and records differs.
 *
 * @param isSame of one part of both; edits share what they do not touch, so that the very same is enough between them
 */
export const samePlan = (
  one: SystemDocument,
  other: SystemDocument,
  isSame: (a: unknown, b: unknown) => boolean = Object.is,
): boolean =>
  one === other ||
  [...new Set([...Object.keys(one), ...Object.keys(other)] as (keyof SystemDocument)[])].every(
    (key) => NOT_PLANNED.has(key) || isSame(one[key], other[key]),
  );

/** A system at the conditions of another, as far as it has the same tanks; the very same where it is at them. */
export function atConditionsOf(system: SystemDocument, other: SystemDocument): SystemDocument {
  const fills = system.tanks.flatMap((tank) => {
    const fill =
      other.conditions.fills.find((candidate) => candidate.tank === tank.id) ??
      system.conditions.fills.find((candidate) => candidate.tank === tank.id);
    return fill ? [fill] : [];
  });
  const conditions = { ...other.conditions, fills };
  return sameContent(conditions, system.conditions) ? system : { ...system, conditions };
}
