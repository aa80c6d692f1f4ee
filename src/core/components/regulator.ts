import type { InferType } from 'yup';
import { assumed, known } from '../schema/known';
import { closed, flag, kindIs, oneOf } from '../schema/tools';
import { body, bore, choice, common, inTankChoice, straight, type ComponentKindOf } from './component';

/** Dead-head: keeps the pressure behind it. Bypass: keeps that before it by letting fuel out of its side end. */
const schema = closed({
  ...common(),
  kind: kindIs('regulator'),
  style: oneOf(['dead-head', 'bypass'] as const),
  set_Pa: known(100, 2e6, 'holds', 'pressure'),
  bore_m: bore(),
  inTank: flag().optional(),
});
type Regulator = InferType<typeof schema>;

/** The link by which a bypass regulator lets back. */
const BACK = 'back';

export const regulator: ComponentKindOf<Regulator> & { readonly schema: typeof schema } = {
  schema,
  word: 'pressure regulator',
  name: 'Regulator',
  ends: { in: 'inlet', out: 'outlet', side: 'return' },
  endsAsMade: ({ style }) => (style === 'bypass' ? ['in', 'out', 'side'] : ['in', 'out']),
  start: ({ bore: bore_m }) => ({ style: 'dead-head', set_Pa: assumed(20e3, 3e3), bore_m }),
  links: (part, hydraulics) =>
    part.style === 'dead-head'
      ? straight(body(hydraulics, 'needle-valve', part.bore_m.value), {
          kind: 'hold-outlet',
          set_Pa: part.set_Pa.value,
        })
      : [
          ...straight(body(hydraulics, 'tee-through', part.bore_m.value)),
          {
            suffix: BACK,
            from: 'in',
            to: 'side',
            elements: [
              body(hydraulics, 'check-lift', part.bore_m.value),
              { kind: 'hold-inlet', set_Pa: part.set_Pa.value },
            ],
          },
        ],
  drains: (_, { from, towards }) => from !== 'side' && towards !== 'side',
  letsBack: ({ style }) => (style === 'bypass' ? { end: 'side', suffix: BACK } : undefined),
  choices: [
    choice('style', 'Kind', {
      'dead-head': 'keeps the pressure behind it',
      bypass: 'keeps the pressure before it, with a return',
    }),
    inTankChoice,
  ],
};
