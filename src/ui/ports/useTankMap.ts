'use client';

import type { MapMode, TankMap } from '@/core/answers';
import { useOutcome } from '../state/answers';
import { useValue } from '../state/editor';

/** Points each way: shown at once, and then fine. */
const COARSE = 13;
const FINE = 61;

/** The attitude map of a tank: coarse first, then fine; undefined until the first has come. */
export function useTankMap(
  t: number,
  mode: MapMode,
): { map: TankMap | undefined; why: string | undefined; fresh: boolean } {
  // A map over accelerations is laid over the slope that is set, not over the acceleration that it shows itself.
  const slope = useValue(({ conditions: { pitch_deg, roll_deg, accelerationUp_mPerS2 } }) =>
    mode === 'g' ? `${pitch_deg} ${roll_deg} ${accelerationUp_mPerS2}` : '0 0 0',
  );
  const [pitch, roll, up] = slope.split(' ').map(Number) as [number, number, number];
  const coarse = useOutcome('attitudeMap', t, mode, COARSE, pitch, roll, up);
  const fine = useOutcome('attitudeMap', t, mode, FINE, pitch, roll, up);
  const { value, fresh } = fine.fresh || !coarse.fresh ? fine : coarse;
  const shown = value ?? coarse.value;
  return { map: shown?.ok ? shown.value : undefined, why: shown && !shown.ok ? shown.error.detail : undefined, fresh };
}
