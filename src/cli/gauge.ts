import { failed, type Verb } from './verb';

export const gauge: Verb = {
  name: 'gauge',
  summary: 'needle against volume, and the worst error',
  prints: 'gauges[]: curve.points[] (volume_m3, angle_rad, resistance_ohm, needle_ratio, true_ratio), curve.worst, now',
  run: (system, { gauges }) => ({
    system: system.name,
    gauges: gauges.map((result) => (result.ok ? { ok: true, ...result.value } : failed(result.error))),
  }),
};
