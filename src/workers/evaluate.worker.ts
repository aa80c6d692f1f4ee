import { expose } from 'comlink';
import type { SystemDocument } from '@/core/document';
import {
  cardOf,
  comparedFigures,
  evaluateSystem,
  evaluation,
  failedCard,
  numbersOf,
  type Card,
  type ComparedFigure,
  type Evaluation,
  type EvaluationCode,
  type Numbers,
} from '@/core/evaluate';
import { loadKernel } from '@/core/geometry';
import type { Failure } from '@/core/outcome';
import { judge, judgeRest, type Judgement } from '@/core/rules';
import { receiving } from './sent';
import { stoppable } from './stoppable';

export type Results =
  | { readonly ok: true; readonly evaluation: Evaluation; readonly numbers: Numbers; readonly judged?: Judgement }
  | { readonly ok: false; readonly error: Failure<EvaluationCode> };

export type Compared =
  | {
      readonly ok: true;
      readonly figures: readonly ComparedFigure[];
      readonly judged: Judgement;
      readonly evaluation: Evaluation;
    }
  | { readonly ok: false; readonly error: Failure<EvaluationCode> };

const ready = loadKernel();
const work = stoppable();

const api = {
  /** The four numbers and what they hang on: soonest. */
  async first(system: SystemDocument): Promise<Results> {
    await ready;
    const result = evaluateSystem(system, 'first', 'without-fit');
    if (!result.ok) return { ok: false, error: result.error };
    return { ok: true, evaluation: result.value, numbers: numbersOf(system, result.value) };
  },
  /** Everything but the fit, reach and the faces, and what the rules say of it; nothing when it was stopped. */
  async evaluate(system: SystemDocument): Promise<Results | undefined> {
    await ready;
    const result = await work.run(evaluation(system, 'full', 'without-fit'));
    if (!result?.ok) return result && { ok: false, error: result.error };
    const judged = judgeRest(system, result.value);
    return { ok: true, evaluation: result.value, numbers: numbersOf(system, result.value), judged };
  },
  /** Leaves off: the document has changed. */
  stop: work.stop,
  /** What the card of a system shows: its numbers, and what every rule says of it. */
  async card(system: SystemDocument): Promise<Card> {
    await ready;
    const result = evaluateSystem(system, 'full');
    return result.ok
      ? cardOf(numbersOf(system, result.value), judge(system, result.value))
      : failedCard(result.error.detail);
  },
  /** What variants are compared by, and the gravest of their findings. */
  async compare(system: SystemDocument): Promise<Compared> {
    await ready;
    const result = evaluateSystem(system, 'full');
    if (!result.ok) return { ok: false, error: result.error };
    return {
      ok: true,
      figures: comparedFigures(system, result.value),
      judged: judge(system, result.value),
      evaluation: result.value,
    };
  },
};

export type EvaluateApi = typeof api;

expose(receiving(api));
