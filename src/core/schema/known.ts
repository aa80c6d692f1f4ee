import { number, object, string } from 'yup';
import type { Role } from '../units';

/**
 * Every quantity in a system document says how it is known. `spread` is the
 * half-width within which the true value lies about 95 times in 100, in the
 * unit of `value`; an assumed value must carry one.
 */
export const ORIGINS = ['measured', 'chosen', 'part', 'assumed'] as const;
export type Origin = (typeof ORIGINS)[number];

export type Known = { readonly value: number; readonly origin: Origin; readonly spread?: number };

// A schema that was just made is finished in place (`withMutation`): each step would copy all of it, and there are some
// thousand, made wherever the core is loaded.

/** The same by what it is made from: schemas never change, so equal ones are one. */
function shared<A extends readonly number[], S>(make: (...args: A) => S): (...args: A) => S {
  const made = new Map<string, S>();
  return (...args) => {
    const key = args.join();
    const known = made.get(key) ?? make(...args);
    made.set(key, known);
    return known;
  };
}

/** A finite number within limits, both included. */
export const bounded = shared((min: number, max: number) => {
  const range = `must be a number from ${min} to ${max}`;
  return number().withMutation((schema) =>
    schema
      .required('is missing')
      .typeError(range)
      .min(min, ({ value }) => `${range}; it is ${value}`)
      .max(max, ({ value }) => `${range}; it is ${value}`),
  );
});

const origin = string().withMutation((schema) =>
  schema.oneOf(ORIGINS, `must be one of ${ORIGINS.join(', ')}`).required('is missing'),
);

/** How far a value within a range of such a width may be off. */
const spreadWithin = shared((width: number) =>
  number().withMutation((schema) =>
    schema
      .typeError('must be a number, 0 or more')
      .min(0, 'must be 0 or more')
      .max(width, `must be no more than ${width}`)
      .when('origin', { is: 'assumed', then: (when) => when.required('an assumed value needs a spread') }),
  ),
);

/** What a builder calls a quantity, within the part that it belongs to; and what it is read as. */
export type FieldWords = {
  readonly label: string;
  readonly role: Role;
  /** What helps whoever enters it. */ readonly hint?: string;
};

/** A Known whose value lies within limits, both included. */
export function known(min: number, max: number, label: string, role: Role, hint?: string) {
  return object({ value: bounded(min, max), origin, spread: spreadWithin(max - min) }).withMutation((schema) =>
    schema
      .noUnknown(({ unknown }) => `has keys that the format does not know: ${unknown}`)
      .required('is missing')
      .default(undefined)
      .meta({ label, role, ...(hint ? { hint } : {}) } satisfies FieldWords),
  );
}

/** A value that was measured, in SI, with its spread where that is known. */
export const measured = (value: number, spread?: number): Known => ({
  value,
  origin: 'measured',
  ...(spread === undefined ? {} : { spread }),
});
/** A value that the builder decides, in SI. */
export const chosen = (value: number): Known => ({ value, origin: 'chosen' });
/** A value that a part's maker states, in SI, with its spread. */
export const fromPart = (value: number, spread?: number): Known => ({
  value,
  origin: 'part',
  ...(spread === undefined ? {} : { spread }),
});
/** A value that nobody has measured, in SI, with how far it may be off. */
export const assumed = (value: number, spread: number): Known => ({ value, origin: 'assumed', spread });
