'use client';

import { wrap, type Remote } from 'comlink';
import type { LinesApi } from '@/workers/lines.worker';
import { liveWorker } from '../state/liveWorker';

const live = liveWorker<Remote<LinesApi>>('other sizes and parts', () => {
  const worker = new Worker(new URL('../../workers/lines.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<LinesApi>(worker) };
});

/** The worker that works out what other sizes and parts would do. */
export const lineWorker = (): Remote<LinesApi> => live.remote;
