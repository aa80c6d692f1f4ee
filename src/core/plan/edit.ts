import type { SystemDocument } from './schema';

/** Keys and list positions from the document's root to a value. */
export type Path = readonly (string | number)[];

/** "tanks.0.shape.length_m" or "tanks[0].shape.length_m" as a path. */
export const toPath = (text: string): Path =>
  text
    .split(/[.[\]]+/)
    .filter((part) => part !== '')
    .map((part) => (/^\d+$/.test(part) ? Number(part) : part));

/** What stands at a path; undefined where there is nothing. */
export function valueAt(root: unknown, path: Path): unknown {
  return path.reduce<unknown>((value, key) => (value as Record<string | number, unknown> | undefined)?.[key], root);
}

/** A copy of a tree with one value replaced; untouched branches are shared, undefined removes a key. */
export function withValue<T>(root: T, path: Path, value: unknown): T {
  const [key, ...rest] = path;
  if (key === undefined) return value as T;
  if (Array.isArray(root)) {
    return root.map((item, index) => (index === key ? withValue(item, rest, value) : item)) as T;
  }
  const copy = { ...(root as Record<string, unknown>) };
  const child = rest.length === 0 ? value : withValue(copy[key], rest, value);
  if (child === undefined) delete copy[key];
  else copy[key] = child;
  return copy as T;
}

/** Appends to the list at a path. */
export const withAdded = (system: SystemDocument, path: Path, item: unknown): SystemDocument =>
  withValue(system, path, [...(valueAt(system, path) as unknown[]), item]);

/** Takes one entry out of the list at a path. */
export const withoutEntry = (system: SystemDocument, path: Path, index: number): SystemDocument =>
  withValue(
    system,
    path,
    (valueAt(system, path) as unknown[]).filter((_, at) => at !== index),
  );

/** An id that no part of the system uses yet: base, base-2, base-3 … */
export function freshId(system: object, base: string): string {
  const used = new Set(
    JSON.stringify(system)
      .match(/"id":"[^"]+"/g)
      ?.map((match) => match.slice(6, -1)) ?? [],
  );
  if (!used.has(base)) return base;
  let number = 2;
  while (used.has(`${base}-${number}`)) number++;
  return `${base}-${number}`;
}
