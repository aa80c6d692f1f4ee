import type { InferType } from 'yup';
import { closed, kindIs } from '../schema/tools';
import { common, type ComponentKindOf } from './component';

/** An end that stands open: to the air, over a can, into the bilge. */
const schema = closed({ ...common(), kind: kindIs('outlet') });
type Outlet = InferType<typeof schema>;

export const outlet: ComponentKindOf<Outlet> & { readonly schema: typeof schema } = {
  schema,
  word: 'open end',
  name: 'Open end',
  ends: { in: 'inlet' },
  isOpenToAir: true,
  start: () => ({}),
  links: () => [],
};
