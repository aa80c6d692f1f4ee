import type { InferType } from 'yup';
import { assumed, known } from '../schema/known';
import { closed, kindIs } from '../schema/tools';
import { body, bore, common, straight, type ComponentKindOf } from './component';

const schema = closed({
  ...common(),
  kind: kindIs('relief-valve'),
  bore_m: bore(),
  opens_Pa: known(10, 5e6, 'opens at', 'pressure'),
});
type ReliefValve = InferType<typeof schema>;

export const reliefValve: ComponentKindOf<ReliefValve> & { readonly schema: typeof schema } = {
  schema,
  word: 'relief valve',
  name: 'Relief valve',
  ends: { in: 'inlet', out: 'outlet' },
  start: ({ bore: bore_m }) => ({ bore_m, opens_Pa: assumed(30e3, 5e3) }),
  links: (part, hydraulics) =>
    straight(body(hydraulics, 'check-lift', part.bore_m.value), { kind: 'check', opens_Pa: part.opens_Pa.value }),
  drains: (part, { towards }, { head_Pa }) => towards === 'out' && head_Pa > part.opens_Pa.value,
  letsBack: () => ({ end: 'out' }),
};
