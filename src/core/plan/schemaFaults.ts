import { ValidationError, type AnySchema } from 'yup';
import type { Fault } from './fault';

/**
 * What Yup's schemas of objects, lists and branches have beside what all have; and what its checks take beside what
 * they say.
 */
type Inside = {
  readonly fields?: Readonly<Record<string, AnySchema>>;
  readonly innerType?: AnySchema;
  readonly resolve: (options: { value: unknown }) => AnySchema;
};
type Tree = Readonly<Record<string, unknown>>;

/** A message that quotes what it was sent is no longer than this. */
const MESSAGE_CHARACTERS = 300;

/**
 * What the validator finds wrong, in document order, up to so many faults. The
 * schema is walked from outside in: a list that is too long is not looked into,
 * and nothing more is checked once there are enough, so that a body of nothing
 * but faults costs no more than a good one.
 */
export function schemaFaults(schema: AnySchema, value: unknown, most: number): Fault[] {
  const faults: Fault[] = [];
  look(schema, value, '', faults, most);
  return faults.slice(0, most);
}

function look(schema: AnySchema, value: unknown, path: string, faults: Fault[], most: number): void {
  if (faults.length >= most) return;
  const { fields, innerType, resolve } = schema as unknown as Inside;
  if (schema.type === 'lazy') return look(resolve.call(schema, { value }), value, path, faults, most);
  if (innerType && Array.isArray(value)) {
    const own = ownFaults(schema, value, path, false);
    faults.push(...own);
    if (own.length === 0)
      for (const [i, entry] of value.entries()) look(innerType, entry, `${path}[${i}]`, faults, most);
  } else if (fields && isTree(value) && Object.values(fields).some(hasInside)) {
    faults.push(...ownFaults(schema, value, path, false));
    for (const [key, field] of Object.entries(fields))
      look(field, value[key], path === '' ? key : `${path}.${key}`, faults, most);
  } else {
    faults.push(...ownFaults(schema, value, path, true));
  }
}

const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null && !Array.isArray(value);

const hasInside = (schema: AnySchema): boolean =>
  schema.type === 'lazy' || schema.type === 'object' || schema.type === 'array';

/** What is wrong with a value by its own schema; what is inside it only where that is asked for. */
function ownFaults(schema: AnySchema, value: unknown, path: string, recursive: boolean): Fault[] {
  try {
    schema.validateSync(value, { strict: true, abortEarly: false, ...({ path, recursive } as object) });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return inner.map((fault) => ({ path: fault.path || 'file', message: ownMessage(fault) }));
  }
}

/** Yup's stock messages begin with the path or say "this"; ours do not. */
function ownMessage(fault: ValidationError): string {
  const text = fault.errors[0] ?? 'is not valid';
  const own =
    fault.path && text.startsWith(fault.path) ? text.slice(fault.path.length).trim() : text.replace(/^this /, '');
  return own.length > MESSAGE_CHARACTERS ? `${own.slice(0, MESSAGE_CHARACTERS)}…` : own;
}
