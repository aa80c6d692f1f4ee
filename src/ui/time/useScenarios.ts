import { useMemo } from 'react';
import type { ReadyScenario } from '@/core/answers';
import type { Scenario } from '@/core/plan';
import { useOutcome } from '../state/answers';
import { useValue } from '../state/editor';

/** A scenario that may be played: one that is ready, or one that is kept with the system, by its place in the list. */
export type Choice = ReadyScenario & { readonly own?: number };

const OWN: readonly Scenario[] = [];

/** Those that are kept first, then those that are ready; why there are none. */
export function useScenarios(): { readonly choices: readonly Choice[]; readonly why: string | undefined } {
  const { value } = useOutcome('scenarios');
  const own = useValue((system) => system.scenarios ?? OWN);
  return useMemo(
    () => ({
      choices: [
        ...own.map((scenario, at): Choice => ({
          key: ownKey(scenario.name),
          asks: 'Your own scenario.',
          scenario,
          own: at,
        })),
        ...(value?.ok ? value.value : []),
      ],
      why: value?.ok === false ? value.error.detail : undefined,
    }),
    [own, value],
  );
}

export const ownKey = (name: string): string => `own: ${name}`;
