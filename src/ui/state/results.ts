'use client';

import { wrap, type Remote } from 'comlink';
import { useEffect } from 'react';
import { create } from 'zustand';
import type { SystemDocument } from '@/core/document';
import type { Sensitivity } from '@/core/evaluate';
import type { EvaluateApi, Results } from '@/workers/evaluate.worker';
import type { SensitivityApi } from '@/workers/sensitivity.worker';

type Shown = {
  /** What the results belong to; other than the open document while newer ones are on their way. */
  readonly system: SystemDocument | undefined;
  readonly results: Results | undefined;
  readonly sensitivity: Sensitivity | undefined;
  readonly sensitivityOf: SystemDocument | undefined;
  /** Set when the worker itself broke. */
  readonly broken: string | undefined;
};

export const useShown = create<Shown>()(() => ({ system: undefined, results: undefined, sensitivity: undefined, sensitivityOf: undefined, broken: undefined }));

let evaluator: Remote<EvaluateApi> | undefined;
let sensor: Remote<SensitivityApi> | undefined;

export function evaluatorWorker(): Remote<EvaluateApi> {
  evaluator ??= wrap<EvaluateApi>(new Worker(new URL('../../workers/evaluate.worker.ts', import.meta.url), { type: 'module' }));
  return evaluator;
}

function sensitivityWorker(): Remote<SensitivityApi> {
  sensor ??= wrap<SensitivityApi>(new Worker(new URL('../../workers/sensitivity.worker.ts', import.meta.url), { type: 'module' }));
  return sensor;
}

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

const evaluate = newestOnly(async (system: SystemDocument) => {
  try {
    useShown.setState({ system, results: await evaluatorWorker().evaluate(system), broken: undefined });
  } catch (error) {
    useShown.setState({ system, results: undefined, broken: reason(error) });
  }
});

const findSensitivity = newestOnly(async (system: SystemDocument) => {
  try {
    useShown.setState({ sensitivity: await sensitivityWorker().sensitivity(system), sensitivityOf: system });
  } catch {
    useShown.setState({ sensitivity: undefined, sensitivityOf: system });
  }
});

/** Edits in quick succession ask for the spreads once. */
const SENSITIVITY_AFTER_MS = 250;

/** Keeps results in step with a document. */
export function useEvaluation(system: SystemDocument | undefined): void {
  useEffect(() => {
    if (!system) return undefined;
    evaluate(system);
    const timer = setTimeout(() => findSensitivity(system), SENSITIVITY_AFTER_MS);
    return () => clearTimeout(timer);
  }, [system]);
}
