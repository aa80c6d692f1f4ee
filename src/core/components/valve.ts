import type { InferType } from 'yup';
import type { FittingKey } from '../reference/losses';
import { closed, flag, kindIs, oneOf } from '../schema/tools';
import { VALVE_BODIES } from './bodies';
import { body, bore, common, straight, yesNo, type ComponentKindOf } from './component';

const schema = closed({
  ...common(),
  kind: kindIs('valve'),
  open: flag(),
  fitting: oneOf<FittingKey>(VALVE_BODIES),
  bore_m: bore(),
});
type Valve = InferType<typeof schema>;

export const valve: ComponentKindOf<Valve> & { readonly schema: typeof schema } = {
  schema,
  word: 'shut-off valve',
  name: 'Shut-off valve',
  ends: { in: 'inlet', out: 'outlet' },
  start: ({ bore: bore_m }) => ({ open: true, fitting: 'ball-valve', bore_m }),
  links: (part, hydraulics) =>
    straight(part.open ? body(hydraulics, part.fitting, part.bore_m.value) : { kind: 'closed' }),
  moved: { key: 'open', word: ({ open }) => (open ? 'open' : 'SHUT') },
  isShut: ({ open }) => !open,
  inTheWay: 'is shut',
  choices: [yesNo('open', 'Stands', 'open', 'shut')],
};
