'use client';

import { wrap, type Remote } from 'comlink';
import { createContext, createElement, useContext, useDeferredValue, useEffect, useMemo, type ReactNode } from 'react';
import { create } from 'zustand';
import type { SystemDocument } from '@/core/document';
import { hasReach, hasSpace, type Sensitivity } from '@/core/evaluate';
import { allJudged, judgeFit, judgeReach, type Finding, type NotJudged } from '@/core/rules';
import type { EvaluateApi, Results } from '@/workers/evaluate.worker';
import type { FitAnswer, FitApi, ReachedAnswer, SheetsAnswer } from '@/workers/fit.worker';
import type { SensitivityApi } from '@/workers/sensitivity.worker';
import { inBackground } from './background';
import { drawDocument, useEditor } from './editor';
import { liveWorker } from './liveWorker';

/** The four numbers: out first, so that they follow an edit at once. */
type Shown = {
  /** What the results belong to; other than the open document while newer ones are on their way. */
  readonly system: SystemDocument | undefined;
  readonly results: Results | undefined;
  /** Set when the worker itself broke. */
  readonly broken: string | undefined;
};

/** Drawings, curves and tables: after the numbers, in a worker of their own, and only for the newest document. */
type Details = {
  readonly system: SystemDocument | undefined;
  readonly results: Results | undefined;
  readonly failed?: string | undefined;
};

/** Spreads and what moves them: when edits have come to rest. */
type Spreads = {
  readonly sensitivity: Sensitivity | undefined;
  readonly sensitivityOf: SystemDocument | undefined;
  readonly failed?: string | undefined;
};

export const useShown = create<Shown>()(() => ({ system: undefined, results: undefined, broken: undefined }));
const useDetailsStore = create<Details>()(() => ({ system: undefined, results: undefined }));
export const useSpreads = create<Spreads>()(() => ({ sensitivity: undefined, sensitivityOf: undefined }));

const DetailsContext = createContext<Details>({ system: undefined, results: undefined });

/**
 * Hands the details on when there is time: drawing all that hangs on them may be left off for a key, a pointer or newer
 * numbers.
 */
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
type Fits = {
  readonly system: SystemDocument | undefined;
  readonly answer: FitAnswer | undefined;
  readonly failed?: string | undefined;
};
export const useFits = create<Fits>()(() => ({ system: undefined, answer: undefined }));

/** The faces as sheets: before the clearances, in the same worker. */
type Sheets = {
  readonly system: SystemDocument | undefined;
  readonly answer: SheetsAnswer | undefined;
  readonly failed?: string | undefined;
};
export const useSheets = create<Sheets>()(() => ({ system: undefined, answer: undefined }));

/** What hands and tools get to: last of all, when edits have come to rest. */
type Reaches = {
  readonly system: SystemDocument | undefined;
  readonly answer: ReachedAnswer | undefined;
  readonly failed?: string | undefined;
};
export const useReaches = create<Reaches>()(() => ({ system: undefined, answer: undefined }));

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

/**
 * All findings: those of the fit, of the faces and of the reach come from their own workers, a moment after the rest.
 */
export function useJudged(): Judged {
  const open = useEditor((state) => state.system);
  const broken = useShown((shown) => shown.broken);
  const details = useDetails();
  const [fits, sheets, reaches] = [useFits(), useSheets(), useReaches()];
  return useMemo(() => {
    const parts = [
      {
        name: 'numbers and lines',
        of: details.system,
        judged: details.results?.ok ? details.results.judged : undefined,
        failed: details.failed ?? broken ?? (details.results?.ok === false ? details.results.error.detail : undefined),
      },
      { name: 'clearances', of: fits.system, judged: fits.answer?.judged, failed: fits.failed },
      { name: 'faces', of: sheets.system, judged: sheets.answer?.judged, failed: sheets.failed },
      {
        name: 'what hands and tools get to',
        of: reaches.system,
        judged: reaches.answer?.judged,
        failed: reaches.failed,
      },
    ];
    const { findings, notJudged } = allJudged(parts.flatMap(({ judged }) => judged ?? []));
    return {
      findings,
      notJudged,
      onTheWay: parts.filter(({ of, failed }) => of !== open && failed === undefined).map(({ name }) => name),
      failed: parts.flatMap(({ name, failed, judged }) =>
        failed !== undefined && !judged ? [`${name}: ${failed}`] : [],
      ),
    };
  }, [open, broken, details, fits, sheets, reaches]);
}

/** Forgets what was shown of another system. */
export function forgetResults(): void {
  useShown.setState({ system: undefined, results: undefined, broken: undefined });
  useDetailsStore.setState({ system: undefined, results: undefined, failed: undefined });
  useSpreads.setState({ sensitivity: undefined, sensitivityOf: undefined, failed: undefined });
  const none = { system: undefined, answer: undefined, failed: undefined };
  useFits.setState(none);
  useSheets.setState(none);
  useReaches.setState(none);
}

const evaluateLike = (does: string) =>
  liveWorker<Remote<EvaluateApi>>(does, () => {
    const worker = new Worker(new URL('../../workers/evaluate.worker.ts', import.meta.url), { type: 'module' });
    return { worker, remote: wrap<EvaluateApi>(worker) };
  });
const fitLike = (does: string) =>
  liveWorker<Remote<FitApi>>(does, () => {
    const worker = new Worker(new URL('../../workers/fit.worker.ts', import.meta.url), { type: 'module' });
    return { worker, remote: wrap<FitApi>(worker) };
  });

const evaluator = evaluateLike('the numbers');
/** Apart from the numbers, which must not wait until the drawings of an older document are done. */
const detailer = evaluateLike('drawings, curves and tables');
/** Apart from the one that searches for ways, which may be busy for long. */
const fitter = fitLike('the clearances');
/** Apart from the clearances, which are wanted sooner. */
const reacher = fitLike('what hands and tools get to');
const sensor = liveWorker<Remote<SensitivityApi>>('the spreads', () => {
  const worker = new Worker(new URL('../../workers/sensitivity.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<SensitivityApi>(worker) };
});

export const evaluatorWorker = (): Remote<EvaluateApi> => evaluator.remote;

/** Runs one job at a time and, when newer ones came in meanwhile, only the newest. */
function newestOnly<T>(job: (input: T) => Promise<void>): (input: T) => void {
  let running = false;
  let waiting: { input: T } | undefined;
  const next = async (): Promise<void> => {
    while (waiting) {
      const { input } = waiting;
      waiting = undefined;
      await job(input);
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

/** When the next frame has been shown. */
const painted = (): Promise<void> =>
  new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(resolve))));

const findReach = newestOnly(async (system: SystemDocument) => {
  try {
    useReaches.setState({
      system,
      answer: hasReach(system)
        ? await inBackground('whenever', () => reacher.remote.reach(system))
        : { reach: undefined, judged: judgeReach(system, undefined) },
      failed: undefined,
    });
  } catch (error) {
    useReaches.setState({ system, answer: undefined, failed: reason(error) });
  }
});

const findFit = newestOnly(async (system: SystemDocument) => {
  try {
    // Where nothing is said of the space there is nothing to measure.
    const answer = hasSpace(system)
      ? await inBackground('soon', () => fitter.remote.clearances(system))
      : { fit: undefined, judged: judgeFit(system, undefined) };
    if (answer) useFits.setState({ system, answer, failed: undefined });
  } catch (error) {
    useFits.setState({ system, answer: undefined, failed: reason(error) });
  }
});

const findSheets = newestOnly(async (system: SystemDocument) => {
  try {
    useSheets.setState({
      system,
      answer: await inBackground('soon', () => fitter.remote.sheets(system)),
      failed: undefined,
    });
  } catch (error) {
    useSheets.setState({ system, answer: undefined, failed: reason(error) });
  }
});

const findDetails = newestOnly(async (system: SystemDocument) => {
  try {
    const results = await detailer.remote.evaluate(system);
    if (results) useDetailsStore.setState({ system, results, failed: undefined });
  } catch (error) {
    useDetailsStore.setState({ system, results: undefined, failed: reason(error) });
  }
});

const evaluate = newestOnly(async (system: SystemDocument) => {
  try {
    useShown.setState({ system, results: await evaluator.remote.first(system), broken: undefined });
  } catch (error) {
    useShown.setState({ system, results: undefined, broken: reason(error) });
  }
  // The numbers of a newer document do not wait for these to be shown.
  void painted().then(() => {
    if (useEditor.getState().system !== system) return;
    findDetails(system);
    // While the other worker is at the drawings, the page is at the stage.
    drawDocument();
  });
});

const findSensitivity = newestOnly(async (system: SystemDocument) => {
  try {
    const sensitivity = await inBackground('whenever', () => sensor.remote.sensitivity(system));
    if (sensitivity) useSpreads.setState({ sensitivity, sensitivityOf: system, failed: undefined });
  } catch (error) {
    useSpreads.setState({ sensitivity: undefined, sensitivityOf: system, failed: reason(error) });
  }
});

/**
 * What takes longer than the numbers is asked for when edits have come to rest, the longest last: until then they have
 * the machine to themselves.
 */
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
      // What is at work on an older document leaves the machine to this one.
      for (const worker of [detailer, fitter, sensor])
        worker
          .running()
          ?.stop()
          .catch(() => undefined);
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
