'use client';

import { createContext, createElement, useContext, useDeferredValue, useMemo, type ReactNode } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { ANSWERS, findingsHoldFor, type Results, type Sensitivity } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import type { Finding, NotJudged } from '@/core/rules';
import { allJudged } from '@/core/rules/gravity';
import { useCame, type Came } from './answers';
import { useDrawnSystem, useEditor } from './editor';

/** The four numbers: out first, so that they follow an edit at once. */
type ShownNumbers = {
  /** What the results belong to; other than the open document while newer ones are on their way. */
  readonly system: SystemDocument | undefined;
  readonly results: Results | undefined;
  /** Set when the worker itself broke. */
  readonly broken: string | undefined;
};

export function useShown(): ShownNumbers;
export function useShown<T>(pick: (shown: ShownNumbers) => T): T;
export function useShown<T>(pick?: (shown: ShownNumbers) => T): ShownNumbers | T {
  return useCame(
    useShallow(({ numbers }) => {
      const shown = { system: numbers?.of, results: numbers?.value as Results | undefined, broken: numbers?.failed };
      return pick ? pick(shown) : shown;
    }),
  );
}

/** Drawings, curves and tables: after the numbers, and only for the newest document. */
type Details = {
  readonly system: SystemDocument | undefined;
  readonly results: Results | undefined;
  readonly failed: string | undefined;
};
const detailsOf = (came: Came | undefined): Details => ({
  system: came?.of,
  results: came?.value as Results | undefined,
  failed: came?.failed,
});

const DetailsContext = createContext<Came | undefined>(undefined);

/**
 * Hands the details on when there is time: drawing all that hangs on them may be left off for a key, a pointer or newer
 * numbers.
 */
export function DetailsProvider({ children }: { readonly children: ReactNode }) {
  const details = useDeferredValue(useCame(({ details: came }) => came));
  return createElement(DetailsContext, { value: details }, children);
}

export function useDetails(): Details;
export function useDetails<T>(pick: (details: Details) => T): T;
export function useDetails<T>(pick?: (details: Details) => T): Details | T {
  const came = useContext(DetailsContext);
  const details = useMemo(() => detailsOf(came), [came]);
  return pick ? pick(details) : details;
}

/** Spreads and what moves them, of the last document that they were worked out of. */
export function useSpreads(): {
  readonly value: Sensitivity | undefined;
  readonly of: SystemDocument | undefined;
  readonly failed: string | undefined;
} {
  const came = useCame(({ spreads }) => spreads);
  return { value: came?.value as Sensitivity | undefined, of: came?.of, failed: came?.failed };
}

/**
 * What every rule says, as far as it is known: what is still on its way and what has failed stands beside it, and is
 * never taken for clear.
 */
export type Judged = {
  readonly findings: readonly Finding[];
  readonly notJudged: readonly NotJudged[];
  /** Answers that do not belong to the open document yet, as a reader would name them. */
  readonly onTheWay: readonly string[];
  /** Answers that could not be had, with the reason. */
  readonly failed: readonly string[];
};

/** Rules read the whole plan beside the answer that they judge by. */
const isOf = (came: Came | undefined, open: SystemDocument | undefined): boolean =>
  came !== undefined && open !== undefined && findingsHoldFor(came.key, came.of, open);

/** All findings: those of the fit, of the faces, of the reach and of the mounts come a moment after the rest. */
export const useJudged = (): Judged => useJudgedOf(useDrawnSystem());

/** The same, told as old from the edit itself on, before the stages are drawn. */
export const useJudgedNow = (): Judged => useJudgedOf(useEditor((state) => state.system));

function useJudgedOf(open: SystemDocument | undefined): Judged {
  const broken = useShown((shown) => shown.broken);
  const details = useContext(DetailsContext);
  const { clearances, sheets, reach, mounts } = useCame(
    useShallow((all) => ({ clearances: all.clearances, sheets: all.sheets, reach: all.reach, mounts: all.mounts })),
  );
  return useMemo(() => {
    const results = details?.value as Results | undefined;
    const notDetailed = details?.failed ?? broken ?? (results?.ok === false ? results.error.detail : undefined);
    const parts = [
      { name: ANSWERS.details.says, came: details, failed: notDetailed },
      { name: ANSWERS.clearances.says, came: clearances, failed: clearances?.failed },
      { name: ANSWERS.sheets.says, came: sheets, failed: sheets?.failed },
      { name: ANSWERS.reach.says, came: reach, failed: reach?.failed },
      { name: ANSWERS.mounts.says, came: mounts, failed: mounts?.failed },
    ];
    const { findings, notJudged } = allJudged(parts.flatMap(({ came }) => came?.judged ?? []));
    return {
      findings,
      notJudged,
      onTheWay: parts.filter(({ came, failed }) => !isOf(came, open) && failed === undefined).map(({ name }) => name),
      failed: parts.flatMap(({ name, failed, came }) =>
        failed !== undefined && !came?.judged ? [`${name}: ${failed}`] : [],
      ),
    };
  }, [open, broken, details, clearances, sheets, reach, mounts]);
}
