'use client';

import { wrap, type Remote } from 'comlink';
import type { FitApi } from '@/workers/fit.worker';
import { liveWorker } from '../state/liveWorker';

const live = liveWorker<Remote<FitApi>>('ways and changes', () => {
  const worker = new Worker(new URL('../../workers/fit.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<FitApi>(worker) };
});

/** The worker that answers what is asked of the space. */
export const fitWorker = (): Remote<FitApi> => live.remote;

/** The same worker, for a search that goes on until it is stopped. */
export const unhurriedFitWorker = (): Remote<FitApi> => live.unhurried;

/** Ends a search by ending the worker that runs it; the next question starts another. */
export const stopFitWorker = (): void => live.stop();
