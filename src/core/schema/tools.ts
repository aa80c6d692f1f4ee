import { PLAIN_NAME, PLAIN_TEXT } from '../formats';
import { array, boolean, lazy, object, string, type InferType, type ObjectShape, type Schema } from 'yup';

/**
 * What the document's schema is put together from: objects that know all their keys, lists with limits, choices, and
 * branches by kind.
 */
export const closed = <T extends ObjectShape>(shape: T) =>
  object(shape).withMutation((schema) =>
    schema
      .noUnknown(({ unknown }) => `has keys that the format does not know: ${unknown}`)
      .required('is missing')
      .typeError('must be an object'),
  );

/** A list of so many at most. */
export const listOf = <T extends Schema>(item: T, max: number, min = 0) =>
  array(item as never).withMutation((schema) =>
    schema
      .max(max, `must have no more than ${max} entries`)
      .min(min, `must have at least ${min} entries`)
      .required('is missing')
      .typeError('must be a list'),
  ) as unknown as ListSchema<T>;
/** A list that may be left out. */
export const optionalList = <T extends Schema>(item: T, max: number) =>
  (listOf(item, max) as unknown as Schema).optional() as unknown as Schema<InferType<T>[] | undefined>;
type ListSchema<T extends Schema> = Schema<InferType<T>[]>;

/** One of several words. */
export const oneOf = <T extends string>(values: readonly T[]) =>
  string().withMutation((schema) =>
    schema
      .oneOf(values, `must be one of ${values.join(', ')}`)
      .required('is missing')
      .typeError('must be text'),
  );

/** The keys of a table. */
export const keys = <K extends string>(table: Readonly<Record<K, unknown>>): K[] => Object.keys(table) as K[];

const NOT_PLAIN = 'must be plain text, without control or direction characters or broken ones';

/** Text of so many characters, whatever they are. */
export const bytesText = (max: number) =>
  string().withMutation((schema) =>
    schema.max(max, `must be no longer than ${max} characters`).typeError('must be text'),
  );
/** Plain text of so many characters. */
export const text = (max: number) =>
  bytesText(max).matches(PLAIN_TEXT, { message: NOT_PLAIN, excludeEmptyString: true });
/** A name that people read. */
export const name = () =>
  bytesText(80)
    .required('must not be empty')
    .trim('must not begin or end with a space')
    .matches(PLAIN_NAME, { message: `${NOT_PLAIN}, and have a letter, figure or sign`, excludeEmptyString: true });
export const ID_PATTERN = /^[a-z0-9][a-z0-9-]{0,39}$/;
/** A name that the plan goes by. */
export const id = () =>
  string().withMutation((schema) =>
    schema.matches(ID_PATTERN, 'must be 1 to 40 of a-z, 0-9 and -').required('is missing').typeError('must be text'),
  );
/** Yes or no. */
export const flag = () =>
  boolean().withMutation((schema) => schema.required('is missing').typeError('must be true or false'));

/** Schemas chosen by the value of `kind`. */
export function byKind<T extends Record<string, Schema>>(branches: T) {
  const schema = lazy((value: unknown) => {
    const kind = (value as { kind?: unknown } | undefined)?.kind;
    const branch = typeof kind === 'string' && Object.hasOwn(branches, kind) ? branches[kind] : undefined;
    return branch ?? (closed({ kind: oneOf(Object.keys(branches)) }) as unknown as Schema);
  });
  UNION_BRANCHES.set(schema, Object.values(branches));
  return schema as unknown as Schema<InferType<T[keyof T]>>;
}

/** For the JSON Schema: what a `byKind` schema may be. */
export const UNION_BRANCHES = new WeakMap<object, Schema[]>();

/** The word that tells one kind from others. */
export const kindIs = <K extends string>(kind: K) => oneOf([kind] as const);

/** Further than this nothing lies from a tank's corner, or from the vehicle's datum. */
export const TANK_M = 20;
export const SPAN_M = 30;
/** Nothing is turned further. */
export const ANGLE = 90;
