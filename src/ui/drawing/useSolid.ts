'use client';

import { useEffect, useState } from 'react';
import type { TankSolid } from '@/core/evaluate';
import { useRested } from '../parts/useRested';
import { useDetails } from '../state/results';
import { tankWorker } from '../tank/tankWorker';

/** A tank in three dimensions; undefined until the first has come. */
export function useSolid(index: number): TankSolid | undefined {
  const system = useRested(useDetails((details) => details.system));
  const [solid, setSolid] = useState<TankSolid>();
  useEffect(() => {
    if (!system) return undefined;
    let current = true;
    void tankWorker().solid(system, index).then((found) => {
      if (current && found.ok) setSolid(found.value);
    });
    return () => {
      current = false;
    };
  }, [system, index]);
  return solid;
}
