import type { InferType } from 'yup';
import { chosen, known } from '../schema/known';
import { closed, id, kindIs } from '../schema/tools';
import { body, bore, common, straight, type ComponentKindOf } from './component';

/** Shuts when the tank that it feeds is so full. */
const schema = closed({
  ...common(),
  kind: kindIs('float-valve'),
  tank: id(),
  closesAt_ratio: known(0.05, 1, 'shuts when the tank is full to', 'share'),
  bore_m: bore(),
});
type FloatValve = InferType<typeof schema>;

export const floatValve: ComponentKindOf<FloatValve> & { readonly schema: typeof schema } = {
  schema,
  word: 'float valve',
  name: 'Float valve',
  ends: { in: 'inlet', out: 'outlet' },
  start: ({ tank, bore: bore_m }) => ({ tank, closesAt_ratio: chosen(0.95), bore_m }),
  links: (part, hydraulics) => {
    const { volume_m3, gross_m3 } = hydraulics.tank(part.tank) ?? { volume_m3: 0, gross_m3: 1 };
    return straight(
      volume_m3 >= part.closesAt_ratio.value * gross_m3
        ? { kind: 'closed' }
        : body(hydraulics, 'globe-valve', part.bore_m.value),
    );
  },
};
