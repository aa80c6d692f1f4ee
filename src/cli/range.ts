import { failed, type Verb } from './verb';

export const range: Verb = {
  name: 'range',
  summary: 'how long and how far the usable fuel goes',
  prints: 'usable_m3, reserve_m3, burn_m3PerS, endurance_s and, where a speed is known, range_m',
  needs: 'lines',
  run: (system, evaluation) => ({
    system: system.name,
    ...(evaluation.range.ok ? { ok: true, ...evaluation.range.value } : failed(evaluation.range.error)),
  }),
};
