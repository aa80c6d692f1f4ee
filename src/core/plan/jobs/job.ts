import { failure, success, type Outcome } from '../../outcome';
import type { Role } from '../../units';
import { FLUIDS, type FluidKey } from '../../reference/fluids';
import { CONSUMER_KINDS, VEHICLES, type SystemDocument } from '../schema';

export type AnswerValue = string | number | undefined;
export type JobAnswers = Readonly<Record<string, AnswerValue>>;

type Asked = {
  readonly key: string;
  readonly ask: string;
  readonly hint?: string;
  /** Only where other answers make it one. */ readonly when?: (answers: JobAnswers) => boolean;
};
/** One question of a job. */
export type Question = Asked &
  (
    | {
        readonly kind: 'size';
        readonly role: Role;
        /** In SI. */ readonly min: number;
        readonly max: number;
        /** May stay empty: then it is assumed. */ readonly isOptional?: boolean;
      }
    | { readonly kind: 'choice'; readonly options: readonly { readonly value: string; readonly label: string }[] }
  );

/** One kind of job: what it asks, what most have, and the whole system that follows. */
export type Job = {
  readonly key: string;
  readonly title: string;
  /** What it makes, in a line. */ readonly about: string;
  readonly questions: readonly Question[];
  readonly usual: JobAnswers;
  readonly draft: (name: string, answers: JobAnswers) => SystemDocument;
};

/** A question whose answer is a quantity, within limits in SI. */
export const size = (
  key: string,
  ask: string,
  role: Role,
  [min, max]: readonly [number, number],
  more: Partial<Extract<Question, { kind: 'size' }>> = {},
): Question => ({ key, ask, kind: 'size', role, min, max, ...more });

/** A question with a few answers to choose from: what is kept, and what is said. */
export const choice = (
  key: string,
  ask: string,
  options: Readonly<Record<string, string>>,
  more: Partial<Asked> = {},
): Question => ({
  key,
  ask,
  kind: 'choice',
  options: Object.entries(options).map(([value, label]) => ({ value, label })),
  ...more,
});

/** Questions that are asked as the others are answered. */
export const openQuestions = ({ questions }: Job, answers: JobAnswers): readonly Question[] =>
  questions.filter(({ when }) => when?.(answers) !== false);

/** Whether an answer is one that a question takes. */
const isTaken = (question: Question, value: AnswerValue): boolean =>
  question.kind === 'choice'
    ? question.options.some((option) => option.value === value)
    : value === undefined
      ? question.isOptional === true
      : typeof value === 'number' && value >= question.min && value <= question.max;

/** A job's usual answers, with what was answered before, maybe for another job, where this one takes it. */
export const answersFor = ({ questions, usual }: Job, given: JobAnswers): JobAnswers => ({
  ...usual,
  ...Object.fromEntries(
    questions.flatMap((question) =>
      Object.hasOwn(given, question.key) && isTaken(question, given[question.key])
        ? [[question.key, given[question.key]] as const]
        : [],
    ),
  ),
});

/** Answers looked through: each that is asked is there, within its limits or one of its choices. */
export function checkedAnswers(
  job: Job,
  given: JobAnswers,
): Outcome<JobAnswers, 'missing' | 'out-of-range' | 'no-choice'> {
  const answers: Record<string, AnswerValue> = {};
  for (const question of openQuestions(job, given)) {
    const value = given[question.key];
    if (question.kind === 'choice') {
      if (!question.options.some((option) => option.value === value))
        return failure(
          'no-choice',
          question.key,
          `${question.ask} Choose one of ${question.options.map(({ label }) => label).join(', ')}.`,
        );
    } else if (value === undefined) {
      if (!question.isOptional) return failure('missing', question.key, `${question.ask} Nothing is entered.`);
    } else if (typeof value !== 'number' || !(value >= question.min && value <= question.max)) {
      return failure('out-of-range', question.key, `${question.ask} What is entered is out of range.`);
    }
    answers[question.key] = value;
  }
  return success(answers);
}

/** An answer that is a size [SI]; those that were not asked are undefined. */
export const sizeOf = (answers: JobAnswers, key: string): number | undefined => {
  const value = answers[key];
  return typeof value === 'number' ? value : undefined;
};
/** A size that the job always asks. */
export const neededSize = (answers: JobAnswers, key: string): number => sizeOf(answers, key) ?? 0;

/** An answer as one of a list; the first where it is none. */
export function oneAnswer<T extends string>(answers: JobAnswers, key: string, all: readonly T[]): T {
  return all.find((each) => each === answers[key]) ?? all[0]!;
}

/** What it is in, of the answers. */
export const vehicleOf = (answers: JobAnswers) => oneAnswer(answers, 'vehicle', VEHICLES);
/** What burns the fuel, of the answers. */
export const consumerOf = (answers: JobAnswers) => oneAnswer(answers, 'consumer', CONSUMER_KINDS);
/** What is carried, of the answers. */
export const fluidOf = (answers: JobAnswers): FluidKey =>
  oneAnswer(answers, 'fluid', Object.keys(FLUIDS) as FluidKey[]);
