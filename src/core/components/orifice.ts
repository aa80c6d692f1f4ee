import type { InferType } from 'yup';
import { assumed, chosen, known } from '../schema/known';
import { closed, kindIs } from '../schema/tools';
import { common, straight, type ComponentKindOf } from './component';

const schema = closed({
  ...common(),
  kind: kindIs('orifice'),
  bore_m: known(0.0001, 0.05, 'bore', 'bore'),
  discharge_ratio: known(0.3, 1, 'discharge coefficient', 'share', 'Sharp edge 61 %, short tube 80 %.'),
});
type Orifice = InferType<typeof schema>;

export const orifice: ComponentKindOf<Orifice> & { readonly schema: typeof schema } = {
  schema,
  word: 'restrictor',
  name: 'Restrictor',
  ends: { in: 'inlet', out: 'outlet' },
  start: () => ({ bore_m: chosen(0.001), discharge_ratio: assumed(0.65, 0.05) }),
  links: (part) =>
    straight({ kind: 'orifice', bore_m: part.bore_m.value, dischargeCoefficient: part.discharge_ratio.value }),
};
