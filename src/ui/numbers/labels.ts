import type { NumberKey } from '@/core/answers';

/** What each of the numbers is called. */
export const NUMBER_LABELS: Readonly<Record<NumberKey, string>> = {
  holds: 'Holds',
  usable: 'Usable',
  delivers: 'Delivers',
  goes: 'Goes',
  gauge: 'Gauge error',
};
