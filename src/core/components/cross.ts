import type { InferType } from 'yup';
import { closed, kindIs } from '../schema/tools';
import { bore, common, END_NAMES, type ComponentKindOf } from './component';
import { toTheMiddle } from './tee';

const schema = closed({ ...common(), kind: kindIs('cross'), bore_m: bore() });
type Cross = InferType<typeof schema>;

export const cross: ComponentKindOf<Cross> & { readonly schema: typeof schema } = {
  schema,
  word: 'cross',
  name: 'Cross',
  ends: { in: 'inlet', out: 'outlet', side: 'branch', side2: 'second branch' },
  hasMiddle: true,
  start: ({ bore: bore_m }) => ({ bore_m }),
  links: (part, hydraulics) => toTheMiddle(END_NAMES, part.bore_m.value, hydraulics),
};
