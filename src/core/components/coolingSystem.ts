import type { InferType } from 'yup';
import { assumed, fromPart, known } from '../schema/known';
import { closed, kindIs } from '../schema/tools';
import { common, type ComponentKindOf } from './component';

/** An engine's cooling system: what its coolant swells by comes out under the cap, and is drawn back as it cools. */
const schema = closed({
  ...common(),
  kind: kindIs('cooling-system'),
  coolant_m3: known(1e-4, 5, 'coolant in the whole system', 'tankVolume'),
  cap_Pa: known(0, 3e5, 'pressure at which its cap opens', 'pressure'),
  cold_K: known(240, 320, 'coldest that it is started at', 'temperature'),
  hot_K: known(320, 393, 'hottest that it runs', 'temperature'),
});
type CoolingSystem = InferType<typeof schema>;

export const coolingSystem: ComponentKindOf<CoolingSystem> & { readonly schema: typeof schema } = {
  schema,
  word: 'cooling system',
  name: 'Cooling system',
  ends: { out: 'neck below its cap' },
  isEndPoint: true,
  // Common practice: a cap of one bar, and coolant between a cold start and 110 °C.
  start: () => ({
    coolant_m3: assumed(8e-3, 2e-3),
    cap_Pa: fromPart(100e3),
    cold_K: assumed(278.15, 8),
    hot_K: assumed(383.15, 8),
  }),
  links: () => [],
};
