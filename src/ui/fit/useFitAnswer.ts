'use client';

import type { FitApi } from '@/workers/fit.worker';
import { useAsked } from '../state/useAsked';
import { fitWorker, stopFitWorker } from './fitWorker';

/** What is asked of the space by a button; a search can be stopped. */
export const useFitAnswer = <T>() => useAsked<FitApi, T>(fitWorker, stopFitWorker);
