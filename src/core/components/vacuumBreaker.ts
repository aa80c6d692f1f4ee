import type { InferType } from 'yup';
import { assumed, known } from '../schema/known';
import { closed, kindIs } from '../schema/tools';
import { body, bore, common, straight, type ComponentKindOf } from './component';

/** Lets air in at a high point when the pressure there falls below the air's by so much. */
const schema = closed({
  ...common(),
  kind: kindIs('vacuum-breaker'),
  opens_Pa: known(0, 1e5, 'lets air in below', 'pressure'),
  bore_m: bore(),
});
type VacuumBreaker = InferType<typeof schema>;

export const vacuumBreaker: ComponentKindOf<VacuumBreaker> & { readonly schema: typeof schema } = {
  schema,
  word: 'vacuum breaker',
  name: 'Vacuum breaker',
  ends: { in: 'inlet', out: 'outlet' },
  start: ({ bore: bore_m }) => ({ opens_Pa: assumed(500, 300), bore_m }),
  links: (part, hydraulics) => straight(body(hydraulics, 'tee-through', part.bore_m.value)),
  // Over every surface it lets air in and the siphon ends.
  drains: (_, __, { isOverSurfaces }) => !isOverSurfaces,
};
