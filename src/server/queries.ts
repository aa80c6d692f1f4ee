import { number, object, string } from 'yup';

/** Cards of one piece of the library. */
export const CARDS_AT_ONCE = 12;

/** Which piece of the library is asked for. */
export const listQuery = object({
  from: number()
    .integer('from must be a whole number')
    .min(0, 'from must be 0 or more')
    .max(1e6, 'from must be at most 1000000')
    .typeError('from must be a whole number')
    .default(0),
  most: number()
    .integer('most must be a whole number')
    .min(1, 'most must be from 1 to 100')
    .max(100, 'most must be from 1 to 100')
    .typeError('most must be a whole number')
    .default(CARDS_AT_ONCE),
  having: string().max(80, 'having must have no more than 80 characters').default(''),
});
