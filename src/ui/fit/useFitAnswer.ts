'use client';

import type { FitApi } from '@/workers/fit.worker';
import { useAsked } from '../state/useAsked';
import { fitWorker, searchWorker, stopSearch } from './fitWorker';

/** What is asked of the space by a button. */
export const useFitAnswer = <T>() => useAsked<FitApi, T>(fitWorker);

/** A search among positions, which can be stopped. */
export const useSearch = <T>() => useAsked<FitApi, T>(searchWorker, stopSearch);
