import { expose } from 'comlink';
import type { SystemDocument } from '@/core/document';
import {
  calibrationResult,
  designedSender,
  heightForReserve,
  pickupCuts,
  refittedSender,
  taughtByPours,
  type CalibrationResult,
} from '@/core/evaluate';
import { loadKernel } from '@/core/geometry';
import type { CorrectionTable } from '@/core/gauge';
import type { Outcome } from '@/core/outcome';
import { receiving } from './sent';

const ready = loadKernel();

export type CalibrationData = CalibrationResult & {
  readonly tables: { readonly even: Outcome<CorrectionTable>; readonly best: Outcome<CorrectionTable> };
};

/** What is asked of senders and pickups beside the numbers. */
const api = {
  async design(system: SystemDocument, t: number, s: number, turn: 'as-set' | 'any') {
    await ready;
    return designedSender(system, t, s, turn);
  },
  async refit(system: SystemDocument, t: number, s: number) {
    await ready;
    return refittedSender(system, t, s);
  },
  async cuts(system: SystemDocument, t: number) {
    await ready;
    return pickupCuts(system, t);
  },
  async reserveHeight(system: SystemDocument, t: number, first: string, second: string, reserve_m3: number) {
    await ready;
    return heightForReserve(system, t, first, second, reserve_m3);
  },
  async calibration(
    system: SystemDocument,
    t: number,
    index: number,
    points: number,
  ): Promise<Outcome<CalibrationData>> {
    await ready;
    const result = calibrationResult(system, t, index);
    return result.ok
      ? {
          ok: true,
          value: {
            ...result.value,
            tables: {
              even: taughtByPours(result.value, points, 'even'),
              best: taughtByPours(result.value, points, 'best'),
            },
          },
        }
      : result;
  },
};

export type GaugeApi = typeof api;

expose(receiving(api));
