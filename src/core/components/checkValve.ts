import type { InferType } from 'yup';
import type { FittingKey } from '../reference/losses';
import { assumed, known } from '../schema/known';
import { closed, kindIs, oneOf } from '../schema/tools';
import { body, bore, common, straight, type ComponentKindOf } from './component';

/** With a spring it opens above a pressure only, as an anti-siphon valve does. */
const schema = closed({
  ...common(),
  kind: kindIs('check-valve'),
  fitting: oneOf<FittingKey>(['check-swing', 'check-lift']),
  bore_m: bore(),
  opens_Pa: known(0, 1e6, 'opens at', 'pressure', 'Above the head that it shall hold.').optional(),
});
type CheckValve = InferType<typeof schema>;

export const checkValve: ComponentKindOf<CheckValve> & { readonly schema: typeof schema } = {
  schema,
  word: 'check or anti-siphon valve',
  name: 'Check valve',
  ends: { in: 'inlet', out: 'outlet' },
  start: ({ bore: bore_m }) => ({ fitting: 'check-lift', bore_m }),
  links: (part, hydraulics) =>
    straight(body(hydraulics, part.fitting, part.bore_m.value), { kind: 'check', opens_Pa: part.opens_Pa?.value ?? 0 }),
  drains: (part, { towards }, { head_Pa }) => towards === 'out' && head_Pa > (part.opens_Pa?.value ?? 0),
  additions: [
    { key: 'opens_Pa', label: 'Give it a spring (anti-siphon)', edit: 'spring', start: () => assumed(3000, 1000) },
  ],
};
