/**
 * Expected failure as data. A core function that can fail for a reason the
 * user could mend returns an Outcome; it throws only for a programmer's bug.
 */
export type Failure<Code extends string = string> = {
  readonly code: Code;
  /** Where: the path of a value, the name of a part, a row number. */
  readonly at: string;
  /** What is wrong and what would be accepted, in one or two sentences. */
  readonly detail: string;
};

export type Outcome<T, Code extends string = string> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: Failure<Code> };

/** An outcome that is a value. */
export const success = <T>(value: T): { ok: true; value: T } => ({ ok: true, value });

/** An outcome that says what is wrong, where, and what would do. */
export const failure = <Code extends string>(
  code: Code,
  at: string,
  detail: string,
): { ok: false; error: Failure<Code> } => ({ ok: false, error: { code, at, detail } });

/** The value of an outcome that the caller knows to be good; a bug otherwise. */
export function unwrap<T>(outcome: Outcome<T>): T {
  if (outcome.ok) return outcome.value;
  throw new Error(`${outcome.error.code} at ${outcome.error.at}: ${outcome.error.detail}`);
}
