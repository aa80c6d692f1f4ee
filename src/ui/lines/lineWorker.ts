'use client';

import { wrap, type Remote } from 'comlink';
import type { LinesApi } from '@/workers/lines.worker';

let worker: Remote<LinesApi> | undefined;

/** The worker that works out what other sizes and parts would do. */
export function lineWorker(): Remote<LinesApi> {
  worker ??= wrap<LinesApi>(new Worker(new URL('../../workers/lines.worker.ts', import.meta.url), { type: 'module' }));
  return worker;
}
