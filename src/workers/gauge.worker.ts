import { expose } from 'comlink';
import type { SystemDocument } from '@/core/document';
import { calibrationResult, designedSender, heightForReserve, pickupCuts, refittedSender, taughtByPours, type CalibrationResult } from '@/core/evaluate';
import { loadKernel } from '@/core/geometry';
import type { CorrectionTable, Explained } from '@/core/gauge';
import type { Outcome } from '@/core/outcome';

const ready = loadKernel();

/** What explains a difference, as data: its curve in place of the function. */
export type ExplainedData = Omit<Explained, 'readingAt'> & { readonly curve: readonly { readonly volume_m3: number; readonly reading: number }[] };
export type CalibrationData = Omit<CalibrationResult, 'explained'> & { readonly explained: Outcome<ExplainedData>; readonly tables: { readonly even: Outcome<CorrectionTable>; readonly best: Outcome<CorrectionTable> } };

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
  async calibration(system: SystemDocument, t: number, index: number, points: number): Promise<Outcome<CalibrationData>> {
    await ready;
    const result = calibrationResult(system, t, index);
    if (!result.ok) return result;
    const { explained, ...rest } = result.value;
    const { readingAt: _readingAt, ...plain } = explained.ok ? explained.value : { readingAt: undefined };
    return {
      ok: true,
      value: {
        ...rest,
        explained: explained.ok ? { ok: true, value: { ...(plain as Omit<Explained, 'readingAt'>), curve: rest.planned.map(({ volume_m3 }) => ({ volume_m3, reading: explained.value.readingAt(volume_m3) })) } } : explained,
        tables: { even: taughtByPours(result.value, points, 'even'), best: taughtByPours(result.value, points, 'best') },
      },
    };
  },
};

export type GaugeApi = typeof api;

expose(api);
