import type { PourDocument } from '@/core/plan';

/** A pour of five litres from a can, as it is written down. */
export const pourRecord = (id: string, more: Partial<PourDocument> = {}): PourDocument => ({
  id,
  recorded: '2026-05-17T10:00:00Z',
  kind: 'pour',
  of: 'log',
  at: '2026-05-17T10:00:00Z',
  way: 'can',
  added_m3: 0.005,
  spread_m3: 5e-5,
  reading: { kind: 'none' },
  note: '',
  state: 'counts',
  simulated: false,
  ...more,
});
