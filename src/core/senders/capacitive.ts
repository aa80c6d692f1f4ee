import type { InferType } from 'yup';
import { fromPart } from '../schema/known';
import { closed, kindIs } from '../schema/tools';
import { sent, type SenderKindOf } from './sender';
import { probe, PROBE_SIZES, probeStart, straightProbe, tubeWidth } from './straight';

const schema = closed({ ...sent(), kind: kindIs('capacitive'), ...probe(), tubeDiameter_m: tubeWidth() });
type Capacitive = InferType<typeof schema>;

export const capacitive: SenderKindOf<Capacitive> & { readonly schema: typeof schema } = {
  schema,
  word: 'capacitive probe',
  start: (depth_m) => ({ ...probeStart(depth_m), tubeDiameter_m: fromPart(0.018) }),
  compile: (document, port_m) => ({ ...straightProbe(document, port_m), kind: 'capacitive' }),
  sizes: PROBE_SIZES,
  lowerBy: 'length_m',
  higherBy: 'length_m',
  handle: { word: 'probe' },
  feelsCharge: true,
};
