'use client';

import { wrap, type Remote } from 'comlink';
import type { GaugeApi } from '@/workers/gauge.worker';

let worker: Remote<GaugeApi> | undefined;

/** The worker that designs senders, reads calibrations and works out cuts. */
export function gaugeWorker(): Remote<GaugeApi> {
  worker ??= wrap<GaugeApi>(new Worker(new URL('../../workers/gauge.worker.ts', import.meta.url), { type: 'module' }));
  return worker;
}
