import type { InferType } from 'yup';
import { FLOAT_IMMERSION, SENDER_MAKE } from '../reference/senders';
import { assumed, fromPart, known } from '../schema/known';
import { closed, kindIs } from '../schema/tools';
import { floats, riseOf, sent, type SenderKindOf } from './sender';
import { probe, PROBE_SIZES, probeStart, straightProbe, tubeWidth } from './straight';

const schema = closed({
  ...sent(),
  kind: kindIs('tube'),
  ...probe(),
  ...floats(),
  /** Between its contacts; 0 where it is continuous. */ step_m: known(0, 0.2, 'between its contacts', 'tape'),
  tubeDiameter_m: tubeWidth(),
});
type Tube = InferType<typeof schema>;

export const tube: SenderKindOf<Tube> & { readonly schema: typeof schema } = {
  schema,
  word: 'float on a tube',
  start: (depth_m) => ({
    ...probeStart(depth_m),
    tubeDiameter_m: fromPart(0.016),
    floatDiameter_m: fromPart(0.04),
    immersion_ratio: assumed(FLOAT_IMMERSION.ratio, FLOAT_IMMERSION.spread),
    step_m: fromPart(SENDER_MAKE.reedStep),
  }),
  compile: (document, port_m) => ({
    ...straightProbe(document, port_m),
    kind: 'tube',
    floatRadius_m: document.floatDiameter_m.value / 2,
    floatRise_m: riseOf(document),
    step_m: document.step_m.value,
  }),
  sizes: PROBE_SIZES,
  lowerBy: 'length_m',
  higherBy: 'length_m',
  handle: { word: 'probe' },
};
