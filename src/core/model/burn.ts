import { burnAtDuty_m3PerS } from '../range';
import type { ConsumerDocument } from '../plan/schema';

/** What a consumer burns at a duty between idle and full load [m³/s]; a nozzle nothing. */
export const burnOf_m3PerS = (
  { kind, burnIdle_m3PerS, burnFull_m3PerS }: Pick<ConsumerDocument, 'kind' | 'burnIdle_m3PerS' | 'burnFull_m3PerS'>,
  duty_ratio: number,
): number => (kind === 'nozzle' ? 0 : burnAtDuty_m3PerS(burnIdle_m3PerS.value, burnFull_m3PerS.value, duty_ratio));
