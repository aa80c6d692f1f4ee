import type { AnySchema, SchemaDescription } from 'yup';
import type { Path } from './edit';
import { systemSchema, UNION_BRANCHES, type SystemDocument } from './schema';

export type Limits = { readonly min: number; readonly max: number };

type Containers = { readonly fields?: Readonly<Record<string, AnySchema>>; readonly innerType?: AnySchema };

/**
 * The limits that the validator sets to the number at a path, or to the value
 * of the Known there. Throws where the path leads to no number: a bug of the
 * view that asks.
 */
export function limitsAt(system: SystemDocument, path: Path): Limits {
  let schema = systemSchema as unknown as AnySchema;
  let value: unknown = system;
  for (const key of path) {
    const { fields, innerType } = branchOf(schema, value) as Containers;
    schema = (innerType ?? fields?.[key])!;
    value = (value as Record<string | number, unknown> | undefined)?.[key];
    if (!schema) throw new Error(`the format has nothing at ${path.join('.')}`);
  }
  const inner = (branchOf(schema, value) as Containers).fields?.value ?? schema;
  return schemaLimits(inner, path.join('.'));
}

/** The least and greatest value that a number's schema takes. */
export function schemaLimits(schema: AnySchema, name: string): Limits {
  const { tests } = schema.describe() as SchemaDescription;
  const limit = (test: string): unknown => tests.find((candidate) => candidate.name === test)?.params?.[test];
  const [min, max] = [limit('min'), limit('max')];
  if (typeof min !== 'number' || typeof max !== 'number') throw new Error(`no limits at ${name}`);
  return { min, max };
}

/** Of a schema chosen by kind, the one for this value. */
function branchOf(schema: AnySchema, value: unknown): AnySchema {
  const branches = UNION_BRANCHES.get(schema) as AnySchema[] | undefined;
  if (!branches) return schema;
  const kind = (value as { kind?: unknown } | undefined)?.kind;
  const isOfKind = (branch: AnySchema): boolean =>
    ((branch as unknown as Containers).fields?.kind?.describe() as SchemaDescription).oneOf.includes(kind);
  return branches.find(isOfKind) ?? branches[0]!;
}
