import { create } from 'zustand';
import { sender } from '@/workers/sent';

/** What is known of workers that have died: shown until somebody closes it. */
export const useWorkerNotice = create<{ readonly text: string | undefined }>()(() => ({ text: undefined }));

/** A worker with the proxy that speaks to it. */
export type Made<Remote> = { readonly worker: Pick<Worker, 'addEventListener' | 'terminate'>; readonly remote: Remote };

export type LiveWorker<Remote> = {
  /** Calls of the worker's functions; each ends, with an answer or with the reason why there is none. */
  readonly remote: Remote;
  /** The same where there is a worker already: for what is no reason to make one. */
  readonly running: () => Remote | undefined;
  /** Makes the worker where there is none, before anything is asked of it. */
  readonly wake: () => void;
  /** Ends the worker and what it is at; whoever waits is told. */
  readonly stop: () => void;
};

/** Longer than this nothing takes that comes to an end. */
const PATIENCE_MS = 180_000;

type Call = { readonly reject: (reason: Error) => void; readonly timer: ReturnType<typeof setTimeout> | undefined };

/**
 * A worker that is made when it is first asked, and made anew when it has
 * died or does not come back: those who wait are told so, and the next who asks
 * gets a new one. Nobody waits for ever who did not ask to.
 *
 * @param task what it works out, as a reader would say it: "the clearances"
 * @param patience_ms after which one that does not come back is ended; Infinity for what goes on until it is stopped
 */
export function liveWorker<Remote extends object>(
  task: string,
  make: () => Made<Remote>,
  patience_ms = PATIENCE_MS,
): LiveWorker<Remote> {
  let made: (Made<Remote> & { readonly send: (args: readonly unknown[]) => unknown[] }) | undefined;
  const calls = new Set<Call>();
  const end = (reason: string): void => {
    made?.worker.terminate();
    made = undefined;
    for (const call of calls) {
      clearTimeout(call.timer);
      call.reject(new Error(reason));
    }
    calls.clear();
  };
  const died = (why: string): void => {
    end(`${why}; it is started anew when it is next wanted`);
    useWorkerNotice.setState({
      text: `What works out ${task} ${why}, and is started anew. What you have entered is untouched.`,
    });
  };
  const running = (): NonNullable<typeof made> => {
    if (made) return made;
    // One that is made anew gets the document whole.
    const mine = { ...make(), send: sender() };
    made = mine;
    // What an older one still says is nobody's business.
    for (const event of ['error', 'messageerror'] as const)
      mine.worker.addEventListener(event, () => made === mine && died('broke off'));
    return mine;
  };
  const wake = (): void => {
    try {
      running();
    } catch {
      // Whoever asks it next is told why there is none.
    }
  };
  const call = (method: PropertyKey, args: readonly unknown[]): Promise<unknown> =>
    new Promise((resolve, reject) => {
      const mine: Call = {
        reject,
        timer:
          patience_ms === Infinity
            ? undefined
            : setTimeout(() => died(`did not come back within ${Math.round(patience_ms / 1000)} s`), patience_ms),
      };
      calls.add(mine);
      const settled = (): boolean => {
        clearTimeout(mine.timer);
        return calls.delete(mine);
      };
      try {
        const { remote, send } = running();
        const answer = (remote as Record<PropertyKey, (...values: readonly unknown[]) => Promise<unknown>>)[method]!(
          ...send(args),
        );
        answer.then(
          (value) => settled() && resolve(value),
          (error: unknown) => settled() && reject(error as Error),
        );
      } catch (error) {
        if (settled()) reject(error as Error);
      }
    });
  const remote = new Proxy({} as Remote, {
    get: (_, method) => (method === 'then' ? undefined : (...args: readonly unknown[]) => call(method, args)),
  });
  return { remote, running: () => (made ? remote : undefined), wake, stop: () => end('stopped') };
}
