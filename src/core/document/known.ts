import { number, object, string } from 'yup';

/**
 * Every quantity in a system document says how it is known. `spread` is the
 * half-width within which the true value lies about 95 times in 100, in the
 * unit of `value`; an assumed value must carry one.
 */
export const ORIGINS = ['measured', 'chosen', 'part', 'assumed'] as const;
export type Origin = (typeof ORIGINS)[number];

export type Known = { readonly value: number; readonly origin: Origin; readonly spread?: number };

/** A finite number within limits, both included. */
export function bounded(min: number, max: number) {
  const range = `must be a number from ${min} to ${max}`;
  return number()
    .required('is missing')
    .typeError(range)
    .min(min, ({ value }) => `${range}; it is ${value}`)
    .max(max, ({ value }) => `${range}; it is ${value}`);
}

/** A Known whose value lies within limits, both included. */
export function known(min: number, max: number) {
  return object({
    value: bounded(min, max),
    origin: string()
      .oneOf(ORIGINS, `must be one of ${ORIGINS.join(', ')}`)
      .required('is missing'),
    spread: number()
      .typeError('must be a number, 0 or more')
      .min(0, 'must be 0 or more')
      .max(max - min, `must be no more than ${max - min}`)
      .when('origin', { is: 'assumed', then: (schema) => schema.required('an assumed value needs a spread') }),
  })
    .noUnknown(({ unknown }) => `has keys that the format does not know: ${unknown}`)
    .required('is missing')
    .default(undefined);
}

export const measured = (value: number, spread?: number): Known => ({
  value,
  origin: 'measured',
  ...(spread === undefined ? {} : { spread }),
});
export const chosen = (value: number): Known => ({ value, origin: 'chosen' });
export const fromPart = (value: number, spread?: number): Known => ({
  value,
  origin: 'part',
  ...(spread === undefined ? {} : { spread }),
});
export const assumed = (value: number, spread: number): Known => ({ value, origin: 'assumed', spread });
