import type { InferType } from 'yup';
import type { LinkElement } from '../network';
import type { Known } from '../schema/known';
import { closed, kindIs } from '../schema/tools';
import { common, rated, ratedStart, straight, type ComponentKindOf } from './component';

const schema = closed({ ...common(), kind: kindIs('meter'), ...rated() });
type Meter = InferType<typeof schema>;

type Rated = { readonly ratedFlow_m3PerS: Known; readonly ratedDrop_Pa: Known; readonly ratedDensity_kgPerM3: Known };
/** A body whose drop grows with the square of the flow, from its rating. */
export const ratedBody = (part: Rated): LinkElement => ({
  kind: 'body',
  ratedFlow_m3PerS: part.ratedFlow_m3PerS.value,
  ratedDrop_Pa: part.ratedDrop_Pa.value,
  ratedDensity_kgPerM3: part.ratedDensity_kgPerM3.value,
});
/** What may be changed of a part that is rated by flow [m³/s]: another of twice that. */
export const twiceTheRating = ({ ratedFlow_m3PerS }: Rated) => [
  { change: 'one of twice the rating', key: 'ratedFlow_m3PerS', value: 2 * ratedFlow_m3PerS.value },
];

export const meter: ComponentKindOf<Meter> & { readonly schema: typeof schema } = {
  schema,
  word: 'meter',
  name: 'Meter',
  ends: { in: 'inlet', out: 'outlet' },
  start: ({ flow_m3PerS }) => ratedStart(flow_m3PerS),
  links: (part) => straight(ratedBody(part)),
  remedies: twiceTheRating,
};
