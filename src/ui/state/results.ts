'use client';

import { wrap, type Remote } from 'comlink';
import { createContext, createElement, useContext, useDeferredValue, useEffect, useMemo, type ReactNode } from 'react';
import { create } from 'zustand';
import type { SystemDocument } from '@/core/document';
import { hasReach, hasSpace, type Sensitivity } from '@/core/evaluate';
import { fitFindingsOf, type Finding } from '@/core/rules';
import type { EvaluateApi, Results } from '@/workers/evaluate.worker';
import type { FitAnswer, FitApi, ReachedAnswer, SheetsAnswer } from '@/workers/fit.worker';
import type { SensitivityApi } from '@/workers/sensitivity.worker';
import { inBackground } from './background';
import { useEditor } from './editor';

/** The four numbers: out first, so that they follow an edit at once. */
type Shown = {
  /** What the results belong to; other than the open document while newer ones are on their way. */
  readonly system: SystemDocument | undefined;
  readonly results: Results | undefined;
  /** Set when the worker itself broke. */
  readonly broken: string | undefined;
};

/** Drawings, curves and tables: after the numbers, in a worker of their own, and only for the newest document. */
type Details = { readonly system: SystemDocument | undefined; readonly results: Results | undefined };

/** Spreads and what moves them: when edits have come to rest. */
type Spreads = { readonly sensitivity: Sensitivity | undefined; readonly sensitivityOf: SystemDocument | undefined };

export const useShown = create<Shown>()(() => ({ system: undefined, results: undefined, broken: undefined }));
const useDetailsStore = create<Details>()(() => ({ system: undefined, results: undefined }));
export const useSpreads = create<Spreads>()(() => ({ sensitivity: undefined, sensitivityOf: undefined }));

const DetailsContext = createContext<Details>({ system: undefined, results: undefined });

/** Hands the details on when there is time: drawing all that hangs on them may be left off for a key, a pointer or newer numbers. */
export function DetailsProvider({ children }: { readonly children: ReactNode }) {
  const details = useDeferredValue(useDetailsStore());
  return createElement(DetailsContext, { value: details }, children);
}

export function useDetails(): Details;
export function useDetails<T>(pick: (details: Details) => T): T;
export function useDetails<T>(pick?: (details: Details) => T): Details | T {
  const details = useContext(DetailsContext);
  return pick ? pick(details) : details;
}

/** Clearances: in a worker of their own, since they take longer than the numbers. */
type Fits = { readonly system: SystemDocument | undefined; readonly answer: FitAnswer | undefined };
export const useFits = create<Fits>()(() => ({ system: undefined, answer: undefined }));

/** The faces as sheets: before the clearances, in the same worker. */
type Sheets = { readonly system: SystemDocument | undefined; readonly answer: SheetsAnswer | undefined };
export const useSheets = create<Sheets>()(() => ({ system: undefined, answer: undefined }));

/** What hands and tools get to: last of all, when edits have come to rest. */
type Reaches = { readonly system: SystemDocument | undefined; readonly answer: ReachedAnswer | undefined };
export const useReaches = create<Reaches>()(() => ({ system: undefined, answer: undefined }));

/** All findings: those of the fit and of the reach come from their own workers, a moment after the rest. */
export function useFindings(): readonly Finding[] {
  const results = useDetails((details) => details.results);
  const fit = useFits((fits) => fits.answer);
  const sheets = useSheets((state) => state.answer);
  const reach = useReaches((reaches) => reaches.answer);
  return useMemo(() => {
    if (!results?.ok) return NONE;
    const others = results.findings.filter(({ stage, id }) => stage !== 'fit' && !id.startsWith('port.'));
    return [...others, ...(fit?.findings ?? NONE), ...(sheets?.findings ?? NONE), ...(reach?.findings ?? NONE)].sort((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));
  }, [results, fit, sheets, reach]);
}
const NONE: readonly Finding[] = [];
const SEVERITIES = ['stop', 'warn', 'note'];

/** Forgets what was shown of another system. */
export function forgetResults(): void {
  useShown.setState({ system: undefined, results: undefined, broken: undefined });
  useDetailsStore.setState({ system: undefined, results: undefined });
  useSpreads.setState({ sensitivity: undefined, sensitivityOf: undefined });
  useFits.setState({ system: undefined, answer: undefined });
  useSheets.setState({ system: undefined, answer: undefined });
  useReaches.setState({ system: undefined, answer: undefined });
}

let evaluator: Remote<EvaluateApi> | undefined;
let detailer: Remote<EvaluateApi> | undefined;
let sensor: Remote<SensitivityApi> | undefined;
let fitter: Remote<FitApi> | undefined;
let reacher: Remote<FitApi> | undefined;

export function evaluatorWorker(): Remote<EvaluateApi> {
  evaluator ??= wrap<EvaluateApi>(new Worker(new URL('../../workers/evaluate.worker.ts', import.meta.url), { type: 'module' }));
  return evaluator;
}

/** Apart from the numbers, which must not wait until the drawings of an older document are done. */
function detailsWorker(): Remote<EvaluateApi> {
  detailer ??= wrap<EvaluateApi>(new Worker(new URL('../../workers/evaluate.worker.ts', import.meta.url), { type: 'module' }));
  return detailer;
}

/** Apart from the one that searches for ways, which may be busy for long. */
function clearanceWorker(): Remote<FitApi> {
  fitter ??= wrap<FitApi>(new Worker(new URL('../../workers/fit.worker.ts', import.meta.url), { type: 'module' }));
  return fitter;
}

/** Apart from the clearances, which are wanted sooner. */
function reachWorker(): Remote<FitApi> {
  reacher ??= wrap<FitApi>(new Worker(new URL('../../workers/fit.worker.ts', import.meta.url), { type: 'module' }));
  return reacher;
}

function sensitivityWorker(): Remote<SensitivityApi> {
  sensor ??= wrap<SensitivityApi>(new Worker(new URL('../../workers/sensitivity.worker.ts', import.meta.url), { type: 'module' }));
  return sensor;
}

/** Runs one job at a time and, when newer ones came in meanwhile, only the newest. */
function newestOnly<T>(job: (input: T, isNewest: () => boolean) => Promise<void>): (input: T) => void {
  let running = false;
  let waiting: { input: T } | undefined;
  const next = async (): Promise<void> => {
    while (waiting) {
      const { input } = waiting;
      waiting = undefined;
      await job(input, () => waiting === undefined);
    }
    running = false;
  };
  return (input) => {
    waiting = { input };
    if (running) return;
    running = true;
    void next();
  };
}

const reason = (error: unknown): string => (error instanceof Error ? error.message : String(error));

const painted = (): Promise<void> => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));

const findReach = newestOnly(async (system: SystemDocument) => {
  try {
    useReaches.setState({ system, answer: hasReach(system) ? await inBackground('whenever', () => reachWorker().reach(system)) : { reach: undefined, findings: NONE } });
  } catch {
    useReaches.setState({ system, answer: undefined });
  }
});

const findFit = newestOnly(async (system: SystemDocument) => {
  try {
    // Where nothing is said of the space there is nothing to measure.
    useFits.setState({ system, answer: hasSpace(system) ? await inBackground('soon', () => clearanceWorker().clearances(system)) : { fit: undefined, findings: fitFindingsOf(system, undefined) } });
  } catch {
    useFits.setState({ system, answer: undefined });
  }
});

const findSheets = newestOnly(async (system: SystemDocument) => {
  try {
    useSheets.setState({ system, answer: await inBackground('soon', () => clearanceWorker().sheets(system)) });
  } catch {
    useSheets.setState({ system, answer: undefined });
  }
});

const findDetails = newestOnly(async (system: SystemDocument) => {
  try {
    useDetailsStore.setState({ system, results: await detailsWorker().evaluate(system, 'full') });
  } catch (error) {
    useShown.setState({ system, results: undefined, broken: reason(error) });
  }
});

const evaluate = newestOnly(async (system: SystemDocument, isNewest: () => boolean) => {
  try {
    useShown.setState({ system, results: await evaluatorWorker().evaluate(system, 'numbers'), broken: undefined });
    await painted();
    if (isNewest()) findDetails(system);
  } catch (error) {
    useShown.setState({ system, results: undefined, broken: reason(error) });
  }
});

const findSensitivity = newestOnly(async (system: SystemDocument) => {
  try {
    const sensitivity = await inBackground('whenever', () => sensitivityWorker().sensitivity(system));
    if (sensitivity) useSpreads.setState({ sensitivity, sensitivityOf: system });
  } catch {
    useSpreads.setState({ sensitivity: undefined, sensitivityOf: system });
  }
});

/** What takes longer than the numbers is asked for when edits have come to rest, the longest last: until then they have the machine to themselves. */
const FIT_AFTER_MS = 400;
const SENSITIVITY_AFTER_MS = 600;

/**
 * Keeps results in step with the open document. The work goes out as the
 * document changes, before anything is drawn, so that worker and drawing run
 * side by side.
 */
export function useEvaluation(): void {
  useEffect(() => {
    let timers: ReturnType<typeof setTimeout>[] = [];
    let seen: SystemDocument | undefined;
    const follow = ({ system }: { system: SystemDocument | undefined }): void => {
      if (!system || system === seen) return;
      seen = system;
      evaluate(system);
      timers.forEach(clearTimeout);
      if (sensor) void sensor.stop();
      timers = [
        setTimeout(() => {
          findSheets(system);
          findFit(system);
        }, FIT_AFTER_MS),
        setTimeout(() => {
          findSensitivity(system);
          findReach(system);
        }, SENSITIVITY_AFTER_MS),
      ];
    };
    follow(useEditor.getState());
    const unsubscribe = useEditor.subscribe(follow);
    return () => {
      unsubscribe();
      timers.forEach(clearTimeout);
    };
  }, []);
}
