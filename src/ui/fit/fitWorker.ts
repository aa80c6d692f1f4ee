'use client';

import { wrap, type Remote } from 'comlink';
import type { FitApi } from '@/workers/fit.worker';
import { liveWorker } from '../state/liveWorker';

const make = () => {
  const worker = new Worker(new URL('../../workers/fit.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<FitApi>(worker) };
};

const live = liveWorker<Remote<FitApi>>('drawings and changes of the fit', make);
/** A search goes on until it is stopped: nothing else waits behind it, and it is not waited for by the clock. */
const searching = liveWorker<Remote<FitApi>>('ways out', make, Infinity);

/** The worker that answers what is asked of the space. */
export const fitWorker = (): Remote<FitApi> => live.remote;

/** The one that looks for ways, and nothing else. */
export const searchWorker = (): Remote<FitApi> => searching.remote;

/** Ends a search by ending the worker that runs it; the next question starts another. */
export const stopSearch = (): void => searching.stop();
