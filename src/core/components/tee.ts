import type { InferType } from 'yup';
import { closed, kindIs } from '../schema/tools';
import {
  body,
  bore,
  common,
  MIDDLE,
  type ComponentKindOf,
  type EndName,
  type Hydraulics,
  type PartLink,
} from './component';

const schema = closed({ ...common(), kind: kindIs('tee'), bore_m: bore() });
type Tee = InferType<typeof schema>;

/**
 * From each end to the middle: straight through takes two halves of the run's loss; round the corner the rest of the
 * branch's besides.
 */
export const toTheMiddle = (ends: readonly EndName[], bore_m: number, hydraulics: Hydraulics): PartLink[] =>
  ends.map((end) => ({
    suffix: end,
    from: end,
    to: MIDDLE,
    elements: [
      end === 'in' || end === 'out'
        ? body(hydraulics, 'tee-through', bore_m, 0.5)
        : body(hydraulics, 'tee-branch', bore_m, 0.9),
    ],
  }));

export const tee: ComponentKindOf<Tee> & { readonly schema: typeof schema } = {
  schema,
  word: 'tee',
  name: 'Tee',
  ends: { in: 'inlet', out: 'outlet', side: 'branch' },
  hasMiddle: true,
  start: ({ bore: bore_m }) => ({ bore_m }),
  links: (part, hydraulics) => toTheMiddle(['in', 'out', 'side'], part.bore_m.value, hydraulics),
};
