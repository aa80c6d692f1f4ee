'use client';

import { wrap, type Remote } from 'comlink';
import type { GaugeApi } from '@/workers/gauge.worker';
import { liveWorker } from '../state/liveWorker';

const live = liveWorker<Remote<GaugeApi>>('designs and calibrations', () => {
  const worker = new Worker(new URL('../../workers/gauge.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<GaugeApi>(worker) };
});

/** The worker that designs senders, reads calibrations and works out cuts. */
export const gaugeWorker = (): Remote<GaugeApi> => live.remote;
