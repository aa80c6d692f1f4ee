import type { InferType } from 'yup';
import { boolean } from 'yup';
import { closed, kindIs, oneOf } from '../schema/tools';
import { choice, common, yesNo, type ComponentKindOf } from './component';

/** Where an open end can be. */
export const OPEN_PLACES = ['outside', 'ground', 'can', 'bilge', 'occupied'] as const;

/** An end that stands open: to the air, over a can, into the bilge. */
const schema = closed({
  ...common(),
  kind: kindIs('outlet'),
  /** Nothing is said of it where left out. */
  place: oneOf(OPEN_PLACES).optional(),
  screened: boolean().typeError('must be true or false').optional(),
});
type Outlet = InferType<typeof schema>;

export const outlet: ComponentKindOf<Outlet> & { readonly schema: typeof schema } = {
  schema,
  word: 'open end',
  name: 'Open end',
  ends: { in: 'inlet' },
  isEndPoint: true,
  isOpenToAir: true,
  start: () => ({}),
  links: () => [],
  choices: [
    choice('place', 'Ends', {
      outside: 'outside, in moving air',
      ground: 'over the ground',
      can: 'over a can',
      bilge: 'in a bilge or a closed bay',
      occupied: 'where people sit or sleep',
    }),
    yesNo('screened', 'Screen', 'screened', 'without a screen'),
  ],
};
