import type { InferType } from 'yup';
import { closed, kindIs } from '../schema/tools';
import { body, bore, common, straight, type ComponentKindOf } from './component';

const schema = closed({ ...common(), kind: kindIs('damper'), bore_m: bore() });
type Damper = InferType<typeof schema>;

export const damper: ComponentKindOf<Damper> & { readonly schema: typeof schema } = {
  schema,
  word: 'pulsation damper',
  name: 'Pulsation damper',
  ends: { in: 'inlet', out: 'outlet' },
  start: ({ bore: bore_m }) => ({ bore_m }),
  links: (part, hydraulics) => straight(body(hydraulics, 'tee-through', part.bore_m.value)),
};
