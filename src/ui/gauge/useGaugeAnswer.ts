'use client';

import type { GaugeApi } from '@/workers/gauge.worker';
import { useAsked } from '../state/useAsked';
import { gaugeWorker } from './gaugeWorker';

/** What is asked of the gauge worker by a button. */
export const useGaugeAnswer = <T>() => useAsked<GaugeApi, T>(gaugeWorker);
