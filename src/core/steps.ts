/** Work in steps: whoever goes through them may look up between two, or leave off. */
export type Steps<T> = Generator<undefined, T, undefined>;

/** Goes through all steps at once. */
export function allSteps<T>(steps: Steps<T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
