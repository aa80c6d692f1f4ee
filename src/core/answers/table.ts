import type { SystemDocument } from '../plan/schema';

/**
 * When an answer is worked out: at once; as soon as the numbers stand; when
 * edits have come to rest; or when somebody asks for it. Within each, in the
 * order of the table.
 */
export const COSTS = ['now', 'next', 'rested', 'asked'] as const;
export type Cost = (typeof COSTS)[number];

type Part = keyof SystemDocument;

export type AnswerRow = {
  /** What it is, as a reader would name it. */
  readonly says: string;
  /** All of the document that it may read: its work gets no more. */
  readonly reads: readonly Part[];
  readonly cost: Cost;
  /** Rules judge by it. */
  readonly judged: boolean;
  /** Verb of the command line that shows it, or a part of it. */
  readonly verb?: string;
};

const PLAN = [
  'format',
  'version',
  'name',
  'description',
  'vehicle',
  'rulebook',
  'constraints',
  'practice',
  'limits',
  'wishes',
  'envelope',
  'fluids',
  'tanks',
  'components',
  'lines',
  'consumers',
  'prices',
  'mounts',
  'shocks',
  'stance',
  'fit',
] as const satisfies readonly Part[];
const WHOLE = [...PLAN, 'conditions'] as const;
const SPACE = ['fit', 'tanks', 'mounts', 'lines'] as const;
const TANKS = ['tanks', 'fluids'] as const;
const STOOD = [...TANKS, 'conditions'] as const;
const HELD = [...STOOD, 'mounts', 'shocks', 'vehicle'] as const;

const RODE = [...STOOD, 'vehicle', 'stance'] as const;

const row = <const R extends readonly Part[]>(
  says: string,
  reads: R,
  cost: Cost,
  more: { readonly judged?: true; readonly verb?: string } = {},
) => ({ says, reads, cost, judged: more.judged ?? false, ...(more.verb ? { verb: more.verb } : {}) });

/**
 * Every answer there is: what the screen shows, what rules judge by, what the
 * command line prints. `work.ts` has how each is worked out. What an answer
 * does not read cannot make it old.
 */
export const ANSWERS = {
  numbers: row('the numbers', WHOLE, 'now', { verb: 'tank' }),
  details: row('numbers and lines', WHOLE, 'next', { judged: true, verb: 'flow' }),
  sheets: row('faces', SPACE, 'rested', { judged: true, verb: 'ports' }),
  clearances: row('clearances', SPACE, 'rested', { judged: true, verb: 'fit' }),
  reach: row('what hands and tools get to', SPACE, 'rested', { judged: true, verb: 'fit' }),
  mounts: row('what holds the tanks', HELD, 'rested', { judged: true, verb: 'mounts' }),
  stands: row('what the vehicle stands on', RODE, 'rested', { judged: true, verb: 'mass' }),
  spreads: row('the spreads', WHOLE, 'rested'),
  attitudeMap: row('the attitude map', TANKS, 'asked'),
  solid: row('the picture of the tank', STOOD, 'asked'),
  strapping: row('the strapping table', STOOD, 'asked', { verb: 'table' }),
  tips: row('when it tips over', STOOD, 'asked', { verb: 'mass' }),
  carried: row('how it keeps upright as it is lifted', [...STOOD, 'mounts'], 'asked', { verb: 'mass' }),
  mountDrawing: row('the drawing of what holds it', ['tanks', 'mounts'], 'asked'),
  standDrawing: row('the drawing of what it stands on', ['tanks', 'stance'], 'asked'),
  layouts: row('ways to hold it down', [...HELD, 'fit'], 'asked', { verb: 'mounts' }),
  mountChanges: row('what makes it hold', HELD, 'asked', { verb: 'mounts' }),
  stl: row('the tank as a mesh', ['tanks'], 'asked'),
  fitDrawing: row('the drawing of the space', PLAN, 'asked'),
  changes: row('what each face costs', WHOLE, 'asked'),
  templates: row('templates', PLAN, 'asked'),
  built: row('the tank as built', WHOLE, 'asked'),
  sizeFor: row('the size for so many litres', PLAN, 'asked'),
  largest: row('the largest tank', PLAN, 'asked'),
  wayCheck: row('the check of a way', PLAN, 'asked'),
  wayPicture: row('the picture of a way', PLAN, 'asked'),
  wayOrder: row('what must come out first', PLAN, 'asked'),
  way: row('a way out', PLAN, 'asked'),
  design: row('the design of the sender', PLAN, 'asked'),
  refit: row('the sender cut or bent', PLAN, 'asked'),
  cuts: row('how pipes are cut', PLAN, 'asked'),
  played: row('what happens over time', WHOLE, 'asked', { verb: 'simulate' }),
  scenarios: row('the scenarios that are ready', PLAN, 'asked', { verb: 'simulate' }),
  moment: row('the tanks at a moment', STOOD, 'asked'),
  transfer: row('ways to move it from tank to tank', WHOLE, 'asked', { verb: 'vents' }),
  ventDesign: row('what the vent has to be', WHOLE, 'asked', { verb: 'vents' }),
  reserveHeight: row('the height for a reserve', PLAN, 'asked'),
  calibration: row('the calibration', [...PLAN, 'records'], 'asked'),
  sizes: row('other sizes of the line', WHOLE, 'asked'),
  costliest: row('what costs most', WHOLE, 'asked'),
  card: row('what the rules say of your systems', WHOLE, 'asked', { judged: true, verb: 'check' }),
  compared: row('what variants are compared by', WHOLE, 'asked', { judged: true }),
} as const satisfies Readonly<Record<string, AnswerRow>>;

export type AnswerKey = keyof typeof ANSWERS;
export const ANSWER_KEYS = Object.keys(ANSWERS) as AnswerKey[];

/** As much of a document as an answer reads. */
export type Read<K extends AnswerKey> = Pick<SystemDocument, (typeof ANSWERS)[K]['reads'][number]>;

const same = (parts: readonly Part[], one: SystemDocument, other: SystemDocument): boolean =>
  one === other || parts.every((part) => one[part] === other[part]);

/** Whether an answer of one document holds for another: nothing that it reads is another. */
export const holdsFor = (key: AnswerKey, one: SystemDocument, other: SystemDocument): boolean =>
  same(ANSWERS[key].reads, one, other);

/** The same of what rules say by it: they read all of the plan beside, and of the conditions what the answer tells. */
export const findingsHoldFor = (key: AnswerKey, one: SystemDocument, other: SystemDocument): boolean =>
  holdsFor(key, one, other) && same(PLAN, one, other);
