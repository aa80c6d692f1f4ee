import type { InferType } from 'yup';
import { FITTINGS, type FittingKey } from '../reference/losses';
import { closed, keys, kindIs, oneOf } from '../schema/tools';
import { body, bore, choice, common, straight, type ComponentKindOf } from './component';

const schema = closed({
  ...common(),
  kind: kindIs('fitting'),
  fitting: oneOf<FittingKey>(keys(FITTINGS)),
  bore_m: bore(),
});
type Fitting = InferType<typeof schema>;

export const fitting: ComponentKindOf<Fitting> & { readonly schema: typeof schema } = {
  schema,
  word: 'elbow, banjo or other fitting',
  name: 'Fitting',
  ends: { in: 'inlet', out: 'outlet' },
  start: ({ bore: bore_m }) => ({ fitting: 'elbow-90', bore_m }),
  links: (part, hydraulics) => straight(body(hydraulics, part.fitting, part.bore_m.value)),
  choices: [
    choice(
      'fitting',
      'It is a',
      Object.fromEntries(keys(FITTINGS).map((key) => [key, FITTINGS[key].name])) as Record<FittingKey, string>,
    ),
  ],
};
