import { evaluateSystem, tankAnswers, type Evaluation, type FitOutcome, type TankAnswers } from '@/core/answers';
import type { Outcome } from '@/core/outcome';
import type { SystemDocument } from '@/core/plan';
import { UsageError } from './args';

export type Verb = {
  readonly name: string;
  readonly summary: string;
  /** What it prints, for --help. */
  readonly prints: string;
  /** Options of its own, beside the conditions. */
  readonly options?: Readonly<Record<string, string>>;
} & (
  | {
      /** Asks what it needs itself. */ readonly needs: 'nothing';
      readonly run: (system: SystemDocument, options: Options) => unknown;
    }
  | {
      /** How they stand, without what flows out of them. */ readonly needs: 'tanks';
      readonly run: (system: SystemDocument, tanks: TankAnswers, options: Options) => unknown;
    }
  | {
      /** All but the fit, which takes longer than all the rest; or all. */ readonly needs: 'lines' | 'all';
      readonly run: (system: SystemDocument, evaluation: Evaluation, options: Options) => unknown;
    }
);

type Options = Readonly<Record<string, string | undefined>>;

/** The value, or what makes no sense. */
function asked<T>(result: Outcome<T>): T {
  if (!result.ok) throw new UsageError(`${result.error.at}: ${result.error.detail}`);
  return result.value;
}

/** Begins to work out clearances elsewhere; gives what waits for them. */
export type Beside = (system: SystemDocument) => () => FitOutcome | undefined;

/** What a verb prints of a system; works out no more than it needs, what takes longest beside the rest where it can. */
export function runVerb(verb: Verb, system: SystemDocument, options: Options, beside?: Beside): unknown {
  switch (verb.needs) {
    case 'nothing':
      return verb.run(system, options);
    case 'tanks':
      return verb.run(system, asked(tankAnswers(system)), options);
    default:
      return verb.run(
        system,
        asked(evaluateSystem(system, 'full', verb.needs === 'all' ? (beside?.(system) ?? 'with-fit') : 'without-fit')),
        options,
      );
  }
}

/** A failed part of a result, as printed. */
export const failed = (error: { code: string; at: string; detail: string }) => ({ ok: false as const, error });
