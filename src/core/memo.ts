import { dequal } from 'dequal';
import { contentHash, mark } from './contentHash';
import type { Steps } from './steps';

/**
 * Pure functions that remember their last answers.
 *
 * What an answer depends on are its arguments, all of them and nothing else:
 * they are compared by content, and whatever is the very same object is known
 * as equal without a look into it. So whoever calls passes what is needed and
 * no more: numbers rather than the plan that they stand in, since a name or an
 * origin that changes would have it all worked out again.
 *
 * The same arguments give the very same answer object, so that what hangs on
 * it is known as unchanged too.
 */
export type Memoized<A extends readonly unknown[], R> = ((...args: A) => R) & {
  /** Times that it was really worked out. */
  readonly computed: () => number;
  readonly forget: () => void;
};

let remembering = true;

/** Does something as if nothing had been asked before and nothing were to be remembered: each call works. */
export function withoutMemory<T>(act: () => T): T {
  const before = remembering;
  remembering = false;
  try {
    return act();
  } finally {
    remembering = before;
  }
}

/** Whether answers are remembered now. */
export const isRemembering = (): boolean => remembering;

const all: { readonly name: string; readonly computed: () => number; readonly forget: () => void }[] = [];

/** Answers by their arguments, the ones asked for latest. */
function remembers<A extends readonly unknown[], R>(name: string, kept: number) {
  let computed = 0;
  // By hash, the one asked for latest last; of several with the same hash, whichever is equal.
  const answers = new Map<number, { readonly args: A; readonly answer: R }[]>();
  const made = { name, computed: (): number => computed, forget: (): void => answers.clear() };
  all.push(made);
  return {
    ...made,
    /** The answer, where it is known; and where not, what puts it by. */
    recalled(args: A): { readonly answer: R } | { readonly put: (answer: R) => R } {
      if (!remembering) return { put: (answer) => answer };
      const hash = contentHash(args);
      const alike = answers.get(hash) ?? [];
      const known = alike.find((one) => sameArguments(one.args, args));
      if (known) {
        answers.delete(hash);
        answers.set(hash, alike);
        return known;
      }
      return {
        put: (answer) => {
          computed++;
          // Whatever hangs on it knows it by itself, without a look into it.
          mark(answer);
          if (isSuccess(answer)) mark(answer.value);
          const others = answers.get(hash) ?? [];
          answers.delete(hash);
          answers.set(hash, [{ args, answer }, ...others.slice(0, MOST_ALIKE - 1)]);
          if (answers.size > kept) answers.delete(answers.keys().next().value!);
          return answer;
        },
      };
    },
  };
}

/**
 * @param name of what it works out
 * @param work pure: no clock, no chance, nothing read but its arguments, which nobody changes afterwards
 * @param kept how many answers are remembered, the latest asked for longest
 */
export function memoized<A extends readonly unknown[], R>(
  name: string,
  work: (...args: A) => R,
  kept = 8,
): Memoized<A, R> {
  const { recalled, computed, forget } = remembers<A, R>(name, kept);
  const recall = (...args: A): R => {
    const known = recalled(args);
    return 'put' in known ? known.put(work(...args)) : known.answer;
  };
  return Object.assign(recall, { computed, forget });
}

/** The same for work in steps: what is known takes none. */
export function memoizedSteps<A extends readonly unknown[], R>(
  name: string,
  work: (...args: A) => Steps<R>,
  kept = 8,
): (...args: A) => Steps<R> {
  const { recalled } = remembers<A, R>(name, kept);
  return function* (...args: A): Steps<R> {
    const known = recalled(args);
    return 'put' in known ? known.put(yield* work(...args)) : known.answer;
  };
}

const isSuccess = (answer: unknown): answer is { readonly value: unknown } =>
  typeof answer === 'object' && answer !== null && 'ok' in answer && answer.ok === true && 'value' in answer;

/** Of arguments that differ only where the hash does not look. */
const MOST_ALIKE = 4;

const sameArguments = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((value, i) => value === b[i] || dequal(value, b[i]));

/** How often each computation was really made, by its name. */
export const computations = (): Readonly<Record<string, number>> =>
  Object.fromEntries(all.map(({ name, computed }) => [name, computed()]));

/** Forgets every answer, as a process does that starts anew. */
export const forgetAnswers = (): void => all.forEach(({ forget }) => forget());

/**
 * Of things that are put together anew each time and mostly come out alike: the
 * one that came first, so that what hangs on it is known as unchanged.
 */
export function interned<T>(name: string, kept = 8): (made: T) => T {
  return memoized(name, (made: T) => made, kept);
}

/**
 * Something that follows from one object alone, which never changes: worked out when it is first asked for, and let go
 * with the object. For what is cheaper to keep than to compare by content, such as the tree of a mesh.
 */
export function derived<K extends object, R>(work: (of: K) => R): (of: K) => R {
  const known = new WeakMap<K, { readonly value: R }>();
  return (of) => {
    const before = known.get(of);
    if (before) return before.value;
    const value = work(of);
    known.set(of, { value });
    return value;
  };
}
