import { expose } from 'comlink';
import type { SystemDocument } from '@/core/document';
import { comparedFigures, evaluateSystem, numbersOf, type ComparedFigure, type Detail, type Evaluation, type EvaluationCode, type Numbers } from '@/core/evaluate';
import { loadKernel } from '@/core/geometry';
import type { Failure } from '@/core/outcome';
import { findingsOf, type Finding } from '@/core/rules';

export type Results =
  | { readonly ok: true; readonly evaluation: Evaluation; readonly numbers: Numbers; readonly findings: readonly Finding[] }
  | { readonly ok: false; readonly error: Failure<EvaluationCode> };

export type Compared =
  | { readonly ok: true; readonly figures: readonly ComparedFigure[]; readonly findings: readonly Finding[]; readonly evaluation: Evaluation }
  | { readonly ok: false; readonly error: Failure<EvaluationCode> };

const ready = loadKernel();

const api = {
  /** Numbers and findings but for those of the fit; with 'full' also the drawings, curves and tables. */
  async evaluate(system: SystemDocument, detail: Detail): Promise<Results> {
    await ready;
    const result = evaluateSystem(system, detail, 'without-fit');
    if (!result.ok) return { ok: false, error: result.error };
    return { ok: true, evaluation: result.value, numbers: numbersOf(system, result.value), findings: findingsOf(system, result.value) };
  },
  /** What variants are compared by, and the gravest of their findings. */
  async compare(system: SystemDocument): Promise<Compared> {
    await ready;
    const result = evaluateSystem(system, 'full');
    if (!result.ok) return { ok: false, error: result.error };
    return { ok: true, figures: comparedFigures(system, result.value), findings: findingsOf(system, result.value), evaluation: result.value };
  },
};

export type EvaluateApi = typeof api;

expose(api);
