'use client';

import type { Remote } from 'comlink';
import type { SystemDocument } from '@/core/document';
import type { Outcome } from '@/core/outcome';
import type { TankApi } from '@/workers/tank.worker';
import { useRestedAnswer } from '../state/useRestedAnswer';
import { tankWorker } from './tankWorker';

/** What the tank's worker says of the open document. */
export const useTankAnswer = <T>(
  question: string,
  ask: (worker: Remote<TankApi>, system: SystemDocument) => Promise<Outcome<T>>,
) => useRestedAnswer(tankWorker, question, ask);
