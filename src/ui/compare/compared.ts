import type { AnswerOf } from '@/core/answers';
import type { Failure } from '@/core/outcome';
import type { Judgement } from '@/core/rules';

/** What there is of one system to compare; or why there is nothing. */
export type Compared = AnswerOf<'compared', Judgement> | { readonly ok: false; readonly error: Failure };
