import { failed, type Verb } from './verb';

export const flow: Verb = {
  name: 'flow',
  summary: 'flow and pressure at each consumer against its need',
  prints: 'fluid, consumers[]: delivered_m3PerS, margin_ratio, pressureAtNeed_Pa, suction, nodes[], links[], pumps[], residuals',
  run: (system, { flows, fluid, ambientAbs_Pa }) => ({
    system: system.name,
    ambientAbs_Pa,
    fluid,
    consumers: flows.map((result, index) => (result.ok ? { ok: true, ...result.value } : { consumer: system.consumers[index]?.id, ...failed(result.error) })),
  }),
};
