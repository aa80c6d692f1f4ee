'use client';

import { useEffect, useState } from 'react';
import type { TableAt } from '@/core/evaluate';
import type { StrappingRow } from '@/core/tank';
import type { Outcome } from '@/core/outcome';
import { useRested } from '../parts/useRested';
import { useDetails } from '../state/results';
import { tankWorker } from './tankWorker';

/** The strapping table of a tank; undefined until the first has come. */
export function useTable(t: number, step_m: number, at: TableAt): Outcome<StrappingRow[]> | undefined {
  const system = useRested(useDetails((details) => details.system));
  const [table, setTable] = useState<Outcome<StrappingRow[]>>();
  useEffect(() => {
    if (!system) return undefined;
    let current = true;
    void tankWorker().table(system, t, step_m, at).then((found) => {
      if (current) setTable(found);
    });
    return () => {
      current = false;
    };
  }, [system, t, step_m, at]);
  return table;
}
