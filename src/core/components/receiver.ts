import type { InferType } from 'yup';
import { assumed, known } from '../schema/known';
import { closed, kindIs } from '../schema/tools';
import { common, type ComponentKindOf } from './component';

/** The tank or can that a nozzle fills: it belongs to somebody else, and no more is known of it than this. */
const schema = closed({
  ...common(),
  kind: kindIs('receiver'),
  takes_m3: known(1e-4, 20, 'takes at one fill', 'tankVolume'),
  opening_m: known(0.004, 0.3, 'opening, inside', 'bore'),
  /** Faster than this it backs up in its neck; not known where left out. */
  backsUp_m3PerS: known(1e-6, 0.1, 'backs up from', 'transfer').optional(),
});
type Receiver = InferType<typeof schema>;

export const receiver: ComponentKindOf<Receiver> & { readonly schema: typeof schema } = {
  schema,
  word: 'tank or can that is filled',
  name: 'Tank that is filled',
  ends: { in: 'opening' },
  isEndPoint: true,
  isOpenToAir: true,
  start: () => ({ takes_m3: assumed(20e-3, 10e-3), opening_m: assumed(0.05, 0.015) }),
  links: () => [],
  additions: [
    {
      key: 'backsUp_m3PerS',
      label: 'Say from what flow it backs up',
      edit: 'flow from which it backs up',
      // Common practice: a neck of a usual car takes a station nozzle's slower notches.
      start: () => assumed(38e-3 / 60, 10e-3 / 60),
    },
  ],
};
