import type { InferType } from 'yup';
import { assumed, known } from '../schema/known';
import { closed, flag, kindIs, oneOf } from '../schema/tools';
import { choice, common, inTankChoice, ratedStart, straight, type ComponentKindOf } from './component';

export const FILTER_KINDS = ['filter', 'separator', 'strainer'] as const;
const schema = closed({
  ...common(),
  kind: kindIs('filter'),
  type: oneOf(FILTER_KINDS),
  ratedFlow_m3PerS: known(1e-8, 0.1, 'rated flow', 'burn'),
  ratedDrop_Pa: known(0, 1e6, 'pressure drop at rated flow', 'pressure'),
  ratedViscosity_PaS: known(1e-4, 1, 'viscosity of the rating', 'count'),
  inTank: flag().optional(),
  /** Loss as a multiple of the clean one. */
  dirt_ratio: known(1, 100, 'dirty over clean', 'count', '1 when new; 3 is due for a change.'),
});
type Filter = InferType<typeof schema>;

export const filter: ComponentKindOf<Filter> & { readonly schema: typeof schema } = {
  schema,
  word: 'filter or separator',
  name: 'Filter',
  ends: { in: 'inlet', out: 'outlet' },
  start: ({ flow_m3PerS }) => {
    const { ratedFlow_m3PerS, ratedDrop_Pa } = ratedStart(flow_m3PerS);
    return {
      type: 'filter',
      ratedFlow_m3PerS,
      ratedDrop_Pa,
      ratedViscosity_PaS: assumed(0.0035, 0.001),
      dirt_ratio: assumed(2, 1),
    };
  },
  links: (part) =>
    straight({
      kind: 'filter',
      ratedFlow_m3PerS: part.ratedFlow_m3PerS.value,
      ratedDrop_Pa: part.ratedDrop_Pa.value,
      ratedViscosity_PaS: part.ratedViscosity_PaS.value,
      dirtFactor: part.dirt_ratio.value,
    }),
  remedies: (part) => [
    ...(part.dirt_ratio.value > 1 ? [{ change: 'a new element', key: 'dirt_ratio', value: 1 }] : []),
    { change: 'a filter of twice the size', key: 'ratedFlow_m3PerS', value: 2 * part.ratedFlow_m3PerS.value },
  ],
  choices: [
    choice('type', 'It', { filter: 'filters', separator: 'filters and parts off water', strainer: 'strains' }),
    inTankChoice,
  ],
};
