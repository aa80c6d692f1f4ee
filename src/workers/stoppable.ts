import type { Steps } from '@/core/steps';

/** Lets messages in; a timer would wait longer. */
const messages = new MessageChannel();
const waiting: (() => void)[] = [];
messages.port1.onmessage = () => waiting.shift()?.();
const pause = (): Promise<void> =>
  new Promise((resolve) => {
    waiting.push(resolve);
    messages.port2.postMessage(undefined);
  });

/**
 * Work that leaves off between two of its steps when it is told to, or asked
 * anew: the machine is wanted for what somebody has just entered.
 */
export function stoppable() {
  let asked = 0;
  return {
    stop: (): void => void asked++,
    /** What the steps come to; undefined where they were left off. */
    async run<T>(steps: Steps<T>): Promise<T | undefined> {
      const mine = ++asked;
      for (;;) {
        const step = steps.next();
        if (step.done) return step.value;
        await pause();
        if (mine !== asked) return undefined;
      }
    },
  };
}
