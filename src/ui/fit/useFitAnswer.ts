'use client';

import type { Remote } from 'comlink';
import { useState } from 'react';
import type { SystemDocument } from '@/core/document';
import { failure, type Outcome } from '@/core/outcome';
import type { FitApi } from '@/workers/fit.worker';
import { openDocument, useEditor } from '../state/editor';
import { fitWorker, stopFitWorker } from './fitWorker';

type Asked<T> = {
  readonly running: boolean;
  /** The last answer, and whether it belongs to the document on screen. */
  readonly answer: Outcome<T> | undefined;
  readonly fresh: boolean;
  readonly ask: (question: (worker: Remote<FitApi>, system: SystemDocument) => Promise<Outcome<T>>) => void;
  readonly stop: () => void;
  readonly forget: () => void;
};

/** Something that takes a while and is asked for by a button: it can be stopped, and an old answer is known as old. */
export function useFitAnswer<T>(): Asked<T> {
  const open = useEditor((state) => state.system);
  const [run, setRun] = useState(0);
  const [active, setActive] = useState<number>();
  const [shown, setShown] = useState<{ readonly system: SystemDocument; readonly answer: Outcome<T> }>();
  return {
    running: active !== undefined, answer: shown?.answer, fresh: shown !== undefined && shown.system === open,
    ask: (question) => {
      const system = openDocument();
      const mine = run + 1;
      setRun(mine);
      setActive(mine);
      const done = (answer: Outcome<T>): void => {
        setActive((current) => (current === mine ? undefined : current));
        setShown({ system, answer });
      };
      question(fitWorker(), system).then(done, (error: unknown) => done(failure('broken', 'calculation', `The calculation broke: ${error instanceof Error ? error.message : String(error)}`)));
    },
    stop: () => {
      stopFitWorker();
      setActive(undefined);
    },
    forget: () => setShown(undefined),
  };
}
