import type { AnySchema, SchemaDescription, SchemaFieldDescription } from 'yup';
import type { FieldWords } from '../schema/known';
import { CURRENT_VERSION, systemSchema, UNION_BRANCHES } from './schema';

export type JsonSchema = { readonly [key: string]: unknown };

/**
 * The published JSON Schema (2020-12) of the system document, made from the
 * validator itself so that the two cannot part. References between parts are
 * beyond JSON Schema; the validator checks them too.
 */
export function systemJsonSchema(): JsonSchema {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: `Gas Line system document, version ${CURRENT_VERSION}`,
    ...convert(systemSchema as unknown as AnySchema),
  };
}

type Containers = { readonly fields?: Readonly<Record<string, AnySchema>>; readonly innerType?: AnySchema };

function convert(schema: AnySchema): JsonSchema {
  const branches = UNION_BRANCHES.get(schema);
  if (branches)
    return branches.length === 1
      ? convert(branches[0] as AnySchema)
      : { oneOf: branches.map((branch) => convert(branch as AnySchema)) };
  const { fields, innerType } = schema as Containers;
  const description = schema.describe() as SchemaDescription;
  if (fields) return { ...titled(description), ...convertObject(fields) };
  if (innerType) return { type: 'array', items: convert(innerType), ...limits(description, 'maxItems', 'minItems') };
  return convertLeaf(description);
}

/** What the format calls a quantity. */
function titled({ meta }: SchemaDescription): JsonSchema {
  const words = meta as FieldWords | undefined;
  return words ? { title: words.label, ...(words.hint ? { description: words.hint } : {}) } : {};
}

function convertObject(fields: Readonly<Record<string, AnySchema>>): JsonSchema {
  const names = Object.keys(fields);
  const known = names.includes('origin') && names.includes('spread');
  return {
    type: 'object',
    properties: Object.fromEntries(names.map((name) => [name, convert(fields[name]!)])),
    required: names.filter((name) => isRequired(fields[name]!)),
    additionalProperties: false,
    // A Known that is assumed must carry its spread.
    ...(known ? { if: { properties: { origin: { const: 'assumed' } } }, then: { required: ['spread'] } } : {}),
  };
}

/** Unions are required wherever they stand; everything else says so itself. */
const isRequired = (schema: AnySchema): boolean =>
  UNION_BRANCHES.has(schema) || !(schema.describe() as SchemaFieldDescription & { optional?: boolean }).optional;

function convertLeaf(description: SchemaDescription): JsonSchema {
  const choices = description.oneOf.length > 0 ? { enum: description.oneOf } : {};
  switch (description.type) {
    case 'number':
      return {
        type: test(description, 'integer') ? 'integer' : 'number',
        ...limits(description, 'maximum', 'minimum'),
        ...choices,
      };
    case 'string': {
      const pattern = test(description, 'matches')?.params?.regex as RegExp | undefined;
      return {
        type: 'string',
        ...(test(description, 'required') && !pattern && description.oneOf.length === 0 ? { minLength: 1 } : {}),
        ...limits(description, 'maxLength', 'minLength'),
        ...(pattern ? { pattern: pattern.source } : {}),
        ...choices,
      };
    }
    case 'boolean':
      return { type: 'boolean' };
    default:
      throw new Error(`no JSON Schema for a ${description.type}`);
  }
}

const test = (description: SchemaDescription, name: string) =>
  description.tests.find((candidate) => candidate.name === name);

function limits(description: SchemaDescription, max: string, min: string): JsonSchema {
  const upper = test(description, 'max')?.params?.max;
  const lower = test(description, 'min')?.params?.min;
  return { ...(upper === undefined ? {} : { [max]: upper }), ...(lower === undefined ? {} : { [min]: lower }) };
}
