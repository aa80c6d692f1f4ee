'use client';

import { wrap, type Remote } from 'comlink';
import type { TankApi } from '@/workers/tank.worker';

let worker: Remote<TankApi> | undefined;

/** The worker that answers what is asked of one tank beside its numbers. */
export function tankWorker(): Remote<TankApi> {
  worker ??= wrap<TankApi>(new Worker(new URL('../../workers/tank.worker.ts', import.meta.url), { type: 'module' }));
  return worker;
}
