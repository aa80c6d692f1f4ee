'use client';

import type { Remote } from 'comlink';
import { useState } from 'react';
import type { SystemDocument } from '@/core/document';
import { failure, type Outcome } from '@/core/outcome';
import type { GaugeApi } from '@/workers/gauge.worker';
import { openDocument, useEditor } from '../state/editor';
import { gaugeWorker } from './gaugeWorker';

/** Something that a button asks of the gauge worker; an answer to an older document is known as old. */
export function useGaugeAnswer<T>() {
  const open = useEditor((state) => state.system);
  const [running, setRunning] = useState(false);
  const [shown, setShown] = useState<{ readonly system: SystemDocument; readonly answer: Outcome<T> }>();
  const ask = (question: (worker: Remote<GaugeApi>, system: SystemDocument) => Promise<Outcome<T>>): void => {
    const system = openDocument();
    setRunning(true);
    const done = (answer: Outcome<T>): void => {
      setRunning(false);
      setShown({ system, answer });
    };
    question(gaugeWorker(), system).then(done, (error: unknown) => done(failure('broken', 'calculation', `The calculation broke: ${error instanceof Error ? error.message : String(error)}`)));
  };
  return { running, answer: shown?.answer, fresh: shown !== undefined && shown.system === open, ask, forget: () => setShown(undefined) };
}
