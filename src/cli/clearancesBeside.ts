import { availableParallelism } from 'node:os';
import { MessageChannel, receiveMessageOnPort, Worker, type MessagePort } from 'node:worker_threads';
import { fitFor, hasSpace, type FitOutcome } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import type { Beside } from './verb';

/** What a thread is given: a system, where to put its clearances, and a flag to raise then. */
export type BesideData = { readonly system: SystemDocument; readonly port: MessagePort; readonly flag: Int32Array };

const PATIENCE_MS = 60_000;
/** It loads while the rest is worked out: what has not begun by then and a while after does not begin. */
const BEGINS_MS = 5_000;
const [LOADING, WORKING, DONE, FAILED] = [0, 1, 2, 3] as const;

/**
 * Clearances worked out by a thread of their own, which runs the same file, as long as the rest takes. One that fails
 * or does not come back is made good here; with one core there is none, nor where nothing is said of the space.
 *
 * @param file that calls `answerBeside` where it is not the main thread
 * @param patience_ms after which they are worked out here, whatever the thread still does
 */
export const clearancesBeside = (file: URL, patience_ms = PATIENCE_MS): Beside | undefined =>
  availableParallelism() < 2
    ? undefined
    : (system) => {
        if (!hasSpace(system)) return () => undefined;
        const { port1, port2 } = new MessageChannel();
        const flag = new Int32Array(new SharedArrayBuffer(4));
        const data: BesideData = { system, port: port2, flag };
        const thread = new Worker(file, { workerData: data, transferList: [port2] });
        // A thread that fails raises no flag by itself; it is told of nowhere but by the work that is done again here.
        thread.on('error', () => undefined);
        thread.unref();
        return () => {
          Atomics.wait(flag, 0, LOADING, Math.min(BEGINS_MS, patience_ms));
          Atomics.wait(flag, 0, WORKING, patience_ms);
          const came = flag[0] === DONE ? receiveMessageOnPort(port1) : undefined;
          port1.close();
          return came ? (came.message as { fit: FitOutcome | undefined }).fit : fitFor(system);
        };
      };

/** What the thread does. */
export function answerBeside({ system, port, flag }: BesideData): void {
  Atomics.store(flag, 0, WORKING);
  Atomics.notify(flag, 0);
  try {
    port.postMessage({ fit: fitFor(system) });
    Atomics.store(flag, 0, DONE);
  } catch {
    Atomics.store(flag, 0, FAILED);
  } finally {
    Atomics.notify(flag, 0);
  }
}
