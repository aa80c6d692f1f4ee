import { evaluateSystem, type Evaluation } from '@/core/evaluate';
import type { SystemDocument } from '@/core/document';
import { UsageError } from './args';

export type Verb = {
  readonly name: string;
  readonly summary: string;
  /** What it prints, for --help. */
  readonly prints: string;
  /** Options of its own, beside the conditions. */
  readonly options?: Readonly<Record<string, string>>;
  /** Whether it needs the fit, which takes longer than all the rest. */
  readonly fit?: true;
  readonly run: (
    system: SystemDocument,
    evaluation: Evaluation,
    options: Readonly<Record<string, string | undefined>>,
  ) => unknown;
};

/** Evaluates, or says which condition makes no sense. */
export function evaluated(system: SystemDocument, fit: 'with-fit' | 'without-fit'): Evaluation {
  const result = evaluateSystem(system, 'full', fit);
  if (!result.ok) throw new UsageError(`${result.error.at}: ${result.error.detail}`);
  return result.value;
}

/** A failed part of a result, as printed. */
export const failed = (error: { code: string; at: string; detail: string }) => ({ ok: false as const, error });
