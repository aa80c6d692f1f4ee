'use client';

import { wrap, type Remote } from 'comlink';
import type { EvaluateApi } from '@/workers/evaluate.worker';
import { liveWorker } from '../state/liveWorker';

/**
 * Apart from the numbers: what every rule says of every system takes seconds, and an opened system must not wait behind
 * it.
 */
const live = liveWorker<Remote<EvaluateApi>>('what the rules say of your systems', () => {
  const worker = new Worker(new URL('../../workers/evaluate.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<EvaluateApi>(worker) };
});

export const cardWorker = (): Remote<EvaluateApi> => live.remote;
/** Ends what is under way when the cards are left. */
export const stopCardWorker = (): void => live.stop();
