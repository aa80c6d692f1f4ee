import type { InferType } from 'yup';
import { assumed, known } from '../schema/known';
import { closed, kindIs } from '../schema/tools';
import { common, type ComponentKindOf } from './component';

/** An engine's crankcase: gas comes out of it all the time, and once, when something fails, its oil. */
const schema = closed({
  ...common(),
  kind: kindIs('crankcase'),
  oil_m3: known(1e-5, 5, 'oil in the engine', 'tankVolume'),
  blowBy_m3PerS: known(1e-7, 0.1, 'blow-by at full load', 'transfer'),
  mostPressure_Pa: known(10, 1e5, 'most pressure that it may have', 'pressure'),
});
type Crankcase = InferType<typeof schema>;

export const crankcase: ComponentKindOf<Crankcase> & { readonly schema: typeof schema } = {
  schema,
  word: 'crankcase',
  name: 'Crankcase',
  ends: { out: 'breather' },
  isEndPoint: true,
  // Common practice: a litre a minute a kilowatt of a worn engine; seals weep from some 1.5 kPa on.
  start: () => ({
    oil_m3: assumed(4e-3, 1e-3),
    blowBy_m3PerS: assumed(60e-3 / 60, 40e-3 / 60),
    mostPressure_Pa: assumed(1500, 500),
  }),
  links: () => [],
  blows_m3PerS: (part) => part.blowBy_m3PerS.value,
};
