'use client';

import { wrap, type Remote } from 'comlink';
import type { TankApi } from '@/workers/tank.worker';
import { liveWorker } from '../state/liveWorker';

const live = liveWorker<Remote<TankApi>>('maps and tables', () => {
  const worker = new Worker(new URL('../../workers/tank.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<TankApi>(worker) };
});

/** The worker that answers what is asked of one tank beside its numbers. */
export const tankWorker = (): Remote<TankApi> => live.remote;
