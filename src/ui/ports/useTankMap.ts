'use client';

import { useEffect, useState } from 'react';
import type { SystemDocument } from '@/core/document';
import type { MapMode, TankMap } from '@/core/evaluate';
import { inBackground } from '../state/background';
import { tankWorker } from '../tank/tankWorker';

/** Points each way: shown at once, and then fine. */
const COARSE = 13;
const FINE = 61;
/** Edits in quick succession ask for the map once. */
const AFTER_MS = 120;

/** What the map depends on: the tank and its fluidless surroundings, not the conditions that it is itself laid over. */
const keyOf = (system: SystemDocument, t: number, mode: MapMode): string =>
  JSON.stringify([
    system.tanks[t],
    mode,
    mode === 'g'
      ? [system.conditions.pitch_deg, system.conditions.roll_deg, system.conditions.accelerationUp_mPerS2]
      : 0,
  ]);

type Shown = { readonly key: string; readonly map: TankMap | undefined; readonly why: string | undefined };

/** The attitude map of a tank: coarse first, then fine; undefined until the first has come. */
export function useTankMap(
  system: SystemDocument | undefined,
  t: number,
  mode: MapMode,
): { map: TankMap | undefined; why: string | undefined; fresh: boolean } {
  const [shown, setShown] = useState<Shown>({ key: '', map: undefined, why: undefined });
  const key = system ? keyOf(system, t, mode) : '';
  useEffect(() => {
    if (!system) return undefined;
    let current = true;
    const ask = async (): Promise<void> => {
      for (const steps of [COARSE, FINE]) {
        if (!current) return;
        const found = await inBackground('soon', async () => tankWorker().map(system, t, mode, steps));
        if (!current) return;
        setShown(
          found.ok ? { key, map: found.value, why: undefined } : { key, map: undefined, why: found.error.detail },
        );
      }
    };
    const timer = setTimeout(() => void ask(), AFTER_MS);
    return () => {
      current = false;
      clearTimeout(timer);
    };
    // The key holds all of the system that the map depends on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return { map: shown.map, why: shown.why, fresh: shown.key === key };
}
