import type { Evaluation, Numbers } from '../answers';
import type { Path } from '../plan/edit';
import type { Plan } from '../plan/schema';
import type { Status } from '../reference/provenance';
import { say, type Message } from '../units';

export type Severity = 'stop' | 'warn' | 'note';
export type Stage = 'fit' | 'tank' | 'ports' | 'lines' | 'vents' | 'gauge' | 'range' | 'mounts';

export type RuleContext = { readonly system: Plan; readonly evaluation: Evaluation; readonly numbers: Numbers };

/** What the rules of the fit look at: they need no numbers. */
export type FitRuleContext = { readonly system: Plan; readonly evaluation: Pick<Evaluation, 'fit'> };

export type ReachRuleContext = { readonly system: Plan; readonly evaluation: Pick<Evaluation, 'reach'> };

/** What the rules of mounts look at: how the tanks are held. */
export type MountRuleContext = { readonly system: Plan; readonly evaluation: Pick<Evaluation, 'mounts'> };

/** What the rules of weight look at: what the vehicle stands on. */
export type StandRuleContext = { readonly system: Plan; readonly evaluation: Pick<Evaluation, 'stands'> };

/** What the rules of ports look at: the faces as sheets. */
export type SheetRuleContext = { readonly system: Plan; readonly evaluation: Pick<Evaluation, 'sheets'> };

/**
 * One thing a rule has found: what, and the value of the document to look at; how to mend it where that is not as the
 * rule says.
 */
export type Hit = {
  readonly what: Message;
  readonly path?: Path;
  readonly severity?: Severity;
  readonly mend?: string;
};

/** What a rule looks at that may not be there: answers not worked out, or failed. */
export const NEEDS = [
  'fit',
  'fit-tried',
  'reach',
  'sheets',
  'details',
  'lines',
  'circuits',
  'duties',
  'last-of-tank',
  'flows',
  'gauges',
  'range',
  'expelled',
  'open-ends',
  'screens',
  'filled',
  'spouts',
  'backs-up',
  'seals',
  'mounts-pressed',
  'mounts-there',
  'mounts-said',
  'mounts-solved',
  'mount-parts',
  'mount-swings',
  'axles-said',
  'axle-ratings',
  'hitch-rating',
  'whole-rating',
  'hull-said',
  'vent-ends',
  'expelled-axles',
  'transfers-followed',
  'stands-solved',
] as const;
export type Need = (typeof NEEDS)[number];

export type Rule<Context = RuleContext> = {
  readonly id: string;
  readonly title: string;
  readonly stage: Stage;
  readonly severity: Severity;
  /** Without these it cannot say that all is well. */
  readonly needs?: readonly Need[];
  readonly test: (context: Context) => readonly Hit[];
  readonly why: string;
  readonly mend: string;
  readonly source: string;
  readonly status: Status;
};

export type Finding = {
  readonly id: string;
  readonly title: string;
  readonly stage: Stage;
  readonly severity: Severity;
  readonly what: Message;
  readonly why: string;
  readonly mend: string;
  readonly source: string;
  readonly status: Status;
  readonly path?: Path;
};

/** A rule that could say nothing, and what it lacks. */
export type NotJudged = { readonly id: string; readonly title: string; readonly stage: Stage; readonly lacks: string };

/** What rules have to say of a system: each has raised something, is clear, or could not be judged. */
export type Judgement = {
  readonly findings: readonly Finding[];
  readonly notJudged: readonly NotJudged[];
  /** Ids. */ readonly clear: readonly string[];
};

export { say };

/** One hit, or none. */
export const when = (condition: boolean, hit: () => Hit): Hit[] => (condition ? [hit()] : []);
