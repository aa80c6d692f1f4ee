import type { InferType } from 'yup';
import { assumed, known } from '../schema/known';
import { closed, flag, kindIs } from '../schema/tools';
import { common, rated, ratedStart, straight, yesNo, type ComponentKindOf } from './component';
import { ratedBody, twiceTheRating } from './meter';

/** Both halves of a dry-break coupler; parted, both are shut. */
const schema = closed({
  ...common(),
  kind: kindIs('coupler'),
  joined: flag(),
  ...rated(),
  /** Spilled when it is parted. */ spill_m3: known(0, 1e-3, 'spilled when parted', 'smallVolume'),
});
type Coupler = InferType<typeof schema>;

export const coupler: ComponentKindOf<Coupler> & { readonly schema: typeof schema } = {
  schema,
  word: 'dry-break coupler',
  name: 'Dry-break coupler',
  ends: { in: 'inlet', out: 'outlet' },
  start: ({ flow_m3PerS }) => ({ joined: true, ...ratedStart(flow_m3PerS), spill_m3: assumed(2e-6, 1e-6) }),
  links: (part) => straight(part.joined ? ratedBody(part) : { kind: 'closed' }),
  moved: { key: 'joined', word: ({ joined }) => (joined ? 'joined' : 'PARTED') },
  isShut: ({ joined }) => !joined,
  inTheWay: 'is parted',
  remedies: twiceTheRating,
  choices: [yesNo('joined', 'Its halves are', 'joined', 'parted')],
};
