'use client';

import { wrap, type Remote } from 'comlink';
import type { FitApi } from '@/workers/fit.worker';

let worker: Worker | undefined;
let api: Remote<FitApi> | undefined;

/** The worker that answers what is asked of the space. */
export function fitWorker(): Remote<FitApi> {
  worker ??= new Worker(new URL('../../workers/fit.worker.ts', import.meta.url), { type: 'module' });
  api ??= wrap<FitApi>(worker);
  return api;
}

/** Ends a search by ending the worker that runs it; the next question starts another. */
export function stopFitWorker(): void {
  worker?.terminate();
  worker = undefined;
  api = undefined;
}
