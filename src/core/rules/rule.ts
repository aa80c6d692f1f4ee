import type { Evaluation, Numbers } from '../evaluate';
import type { Path } from '../document/edit';
import type { SystemDocument } from '../document/schema';
import type { Status } from '../reference/provenance';
import { say, type Message } from '../units';

export type Severity = 'stop' | 'warn' | 'note';
export type Stage = 'fit' | 'tank' | 'ports' | 'lines' | 'vents' | 'gauge' | 'range';

export type RuleContext = { readonly system: SystemDocument; readonly evaluation: Evaluation; readonly numbers: Numbers };

/** What the rules of the fit look at: they need no numbers. */
export type FitRuleContext = { readonly system: SystemDocument; readonly evaluation: Pick<Evaluation, 'fit'> };

export type ReachRuleContext = { readonly system: SystemDocument; readonly evaluation: Pick<Evaluation, 'reach'> };

/** What the rules of ports look at: the faces as sheets. */
export type SheetRuleContext = { readonly system: SystemDocument; readonly evaluation: Pick<Evaluation, 'sheets'> };

/** One thing a rule has found: what, and the value of the document to look at. */
export type Hit = { readonly what: Message; readonly path?: Path; readonly severity?: Severity };

export type Rule<Context = RuleContext> = {
  readonly id: string;
  readonly title: string;
  readonly stage: Stage;
  readonly severity: Severity;
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

export { say };

/** One hit, or none. */
export const when = (condition: boolean, hit: () => Hit): Hit[] => (condition ? [hit()] : []);
