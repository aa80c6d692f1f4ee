import type { AnySchema, SchemaDescription } from 'yup';
import { valueAt, type Path } from './edit';
import type { FieldWords, Known } from '../schema/known';
import { systemSchema, UNION_BRANCHES, type SystemDocument } from './schema';
import { sideText } from './sides';

export type Limits = { readonly min: number; readonly max: number };

type Containers = { readonly fields?: Readonly<Record<string, AnySchema>>; readonly innerType?: AnySchema };

/** What the format says of the value at a path. Throws where it has no such place: a bug of the view that asks. */
function schemaAt(system: SystemDocument, path: Path): { readonly schema: AnySchema; readonly value: unknown } {
  let schema = systemSchema as unknown as AnySchema;
  let value: unknown = system;
  for (const key of path) {
    const { fields, innerType } = branchOf(schema, value, key) as Containers;
    schema = (innerType ?? fields?.[key])!;
    value = (value as Record<string | number, unknown> | undefined)?.[key];
    if (!schema) throw new Error(`the format has nothing at ${path.join('.')}`);
  }
  return { schema, value };
}

/** The limits that the validator sets to the number at a path, or to the value of the Known there. */
export function limitsAt(system: SystemDocument, path: Path): Limits {
  const { schema, value } = schemaAt(system, path);
  const inner = (branchOf(schema, value) as Containers).fields?.value ?? schema;
  return schemaLimits(inner, path.join('.'));
}

/** A flow of this much or more is spoken of by the minute [m³/s]. */
const BY_THE_MINUTE_M3_PER_S = 0.3e-3;
/** Whether a flow [m³/s] is read by the hour or by the minute. */
export const flowRole = (flow_m3PerS: number): 'burn' | 'transfer' =>
  flow_m3PerS >= BY_THE_MINUTE_M3_PER_S ? 'transfer' : 'burn';

/**
 * What the quantity at a path is called and read as; undefined of what is no
 * quantity. A fast flow is read by the minute, a boat's speed as boats have it,
 * and a tank's sizes say on which side of the wall they are taken.
 */
export function wordsAt(system: SystemDocument, path: Path): FieldWords | undefined {
  const { schema, value } = schemaAt(system, path);
  const meta = schema.meta() as FieldWords | undefined;
  if (!meta) return undefined;
  const words = { ...meta, label: sideText(system.vehicle.kind, meta.label) };
  const { label, role, ...more } = words;
  const flow = (value as Known | undefined)?.value ?? 0;
  if (role === 'burn' && path.at(-1) !== 'burnIdle_m3PerS' && path.at(-1) !== 'burnFull_m3PerS')
    return { label, role: flowRole(flow), ...more };
  if (role === 'roadSpeed' && system.vehicle.kind === 'boat') return { label, role: 'seaSpeed', ...more };
  if (path[0] === 'tanks' && path[2] === 'shape' && role === 'tape')
    return { label: `${valueAt(system, [...path.slice(0, 2), 'dimensions']) as string} ${label}`, role, ...more };
  return words;
}

/** Keys of the quantities that a part of the plan has, in the format's order. */
export function quantitiesAt(system: SystemDocument, path: Path): string[] {
  const { schema, value } = schemaAt(system, path);
  const fields = (branchOf(schema, value) as Containers).fields ?? {};
  const there = (value ?? {}) as Readonly<Record<string, unknown>>;
  return Object.keys(fields).filter((key) => there[key] !== undefined && wordsAt(system, [...path, key]) !== undefined);
}

/** The least and greatest value that a number's schema takes. */
export function schemaLimits(schema: AnySchema, name: string): Limits {
  const { tests } = schema.describe() as SchemaDescription;
  const limit = (test: string): unknown => tests.find((candidate) => candidate.name === test)?.params?.[test];
  const [min, max] = [limit('min'), limit('max')];
  if (typeof min !== 'number' || typeof max !== 'number') throw new Error(`no limits at ${name}`);
  return { min, max };
}

/** Of a schema chosen by kind, the one for this value; or, where that has no such key, the first that has. */
function branchOf(schema: AnySchema, value: unknown, key?: string | number): AnySchema {
  const branches = UNION_BRANCHES.get(schema) as AnySchema[] | undefined;
  if (!branches) return schema;
  const own = branchByKind(schema, branches).get((value as { kind?: unknown } | undefined)?.kind);
  const has = (branch: AnySchema): boolean => key === undefined || Object.hasOwn((branch as Containers).fields!, key);
  return own && has(own) ? own : (branches.find(has) ?? branches[0]!);
}

/** Schemas never change: which branch is of which kind is looked up once. */
const BY_KIND = new WeakMap<AnySchema, ReadonlyMap<unknown, AnySchema>>();

function branchByKind(schema: AnySchema, branches: readonly AnySchema[]): ReadonlyMap<unknown, AnySchema> {
  const known = BY_KIND.get(schema);
  if (known) return known;
  const found = new Map(
    branches.flatMap((branch) => {
      const { oneOf } = (branch as Containers).fields!.kind!.describe() as SchemaDescription;
      return oneOf.map((kind) => [kind, branch] as const);
    }),
  );
  BY_KIND.set(schema, found);
  return found;
}
