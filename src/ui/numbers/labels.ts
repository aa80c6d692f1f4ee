import type { NumberKey } from '@/core/answers';
import { DRIVING, type SystemDocument } from '@/core/plan';

type Labels = Readonly<Record<NumberKey, string>>;

/** What each of the numbers is called. */
export const NUMBER_LABELS: Labels = {
  holds: 'Holds',
  comes: 'May come',
  usable: 'Usable',
  head: 'Head',
  delivers: 'Delivers',
  goes: 'Goes',
  backPressure: 'Back-pressure',
  gauge: 'Gauge error',
};

/** The same where the job has other words for them: a nozzle fills, what goes no distance runs. */
export function labelsOf(consumer: SystemDocument['consumers'][number]['kind'] | null, isFar: boolean): Labels {
  if (consumer === 'nozzle') return { ...NUMBER_LABELS, delivers: 'At the nozzle', goes: 'A fill takes' };
  return consumer === null || isFar ? NUMBER_LABELS : { ...NUMBER_LABELS, goes: 'Runs for' };
}

/** Those of a system. */
export function numberLabels(system: Pick<SystemDocument, 'consumers' | 'vehicle'> | undefined): Labels {
  const kind = system?.consumers[0]?.kind ?? null;
  return labelsOf(kind, kind !== null && DRIVING.has(kind) && system?.vehicle.speed_mPerS !== undefined);
}
