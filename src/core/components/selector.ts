import type { InferType } from 'yup';
import type { FittingKey } from '../reference/losses';
import { closed, kindIs, oneOf } from '../schema/tools';
import { VALVE_BODIES } from './bodies';
import { body, bore, choice, common, type ComponentKindOf, type EndPair } from './component';

/** Which of its three ends are joined; two ways share the end named twice. */
export const SELECTED = ['in-out', 'side-out', 'in-side', 'all', 'shut'] as const;
const schema = closed({
  ...common(),
  kind: kindIs('selector'),
  position: oneOf(SELECTED),
  fitting: oneOf<FittingKey>(VALVE_BODIES),
  bore_m: bore(),
});
type Selector = InferType<typeof schema>;

/** Ends that each position of a selector joins. */
export const SELECTOR_PAIRS: Readonly<Record<Selector['position'], readonly EndPair[]>> = {
  'in-out': [['in', 'out']],
  'side-out': [['side', 'out']],
  'in-side': [['in', 'side']],
  all: [
    ['in', 'out'],
    ['side', 'out'],
    ['in', 'side'],
  ],
  shut: [],
};

const SELECTED_WORDS: Readonly<Record<Selector['position'], string>> = {
  'in-out': 'first end to common end',
  'side-out': 'second end to common end',
  'in-side': 'first end to second end',
  all: 'both to common end',
  shut: 'shut',
};

export const selector: ComponentKindOf<Selector> & { readonly schema: typeof schema } = {
  schema,
  word: 'selector valve',
  name: 'Selector valve',
  ends: { in: 'first end', out: 'common end', side: 'second end' },
  start: ({ bore: bore_m }) => ({ position: 'in-out', fitting: 'ball-valve', bore_m }),
  links: (part, hydraulics) =>
    SELECTOR_PAIRS[part.position].map(([from, to], i) => ({
      ...(i === 0 ? {} : { suffix: String(i) }),
      from,
      to,
      elements: [body(hydraulics, part.fitting, part.bore_m.value)],
    })),
  moved: { key: 'position', word: ({ position }) => SELECTED_WORDS[position] },
  isShut: ({ position }) => position === 'shut',
  inTheWay: 'does not stand this way',
  joins: ({ position }) => SELECTOR_PAIRS[position],
  choices: [choice('position', 'Stands', SELECTED_WORDS)],
};
