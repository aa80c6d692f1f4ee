'use client';

import type { Remote } from 'comlink';
import { useRef, useState } from 'react';
import type { SystemDocument } from '@/core/document';
import { failure, type Outcome } from '@/core/outcome';
import { openDocument, useDrawnSystem } from './editor';

type Asked<Api, T> = {
  readonly running: boolean;
  /** The last answer, and whether it belongs to the document on screen. */
  readonly answer: Outcome<T> | undefined;
  readonly fresh: boolean;
  readonly ask: (question: (worker: Remote<Api>, system: SystemDocument) => Promise<Outcome<T>>) => void;
  readonly stop: () => void;
  readonly forget: () => void;
};

/**
 * Something that takes a while and is asked of a worker by a button: an old
 * answer is known as old.
 * @param end ends the worker, and what it is at
 */
export function useAsked<Api, T>(worker: () => Remote<Api>, end: () => void = () => undefined): Asked<Api, T> {
  const open = useDrawnSystem();
  const asked = useRef(0);
  const [running, setRunning] = useState(false);
  const [shown, setShown] = useState<{ readonly system: SystemDocument; readonly answer: Outcome<T> }>();
  return {
    running,
    answer: shown?.answer,
    fresh: shown !== undefined && shown.system === open,
    ask: (question) => {
      const system = openDocument();
      const mine = ++asked.current;
      setRunning(true);
      const done = (answer: Outcome<T>): void => {
        // What was stopped, or asked anew since, is nobody's answer any more.
        if (mine !== asked.current) return;
        setRunning(false);
        setShown({ system, answer });
      };
      question(worker(), system).then(done, (error: unknown) =>
        done(
          failure(
            'broken',
            'calculation',
            `The calculation broke: ${error instanceof Error ? error.message : String(error)}`,
          ),
        ),
      );
    },
    stop: () => {
      asked.current++;
      setRunning(false);
      end();
    },
    forget: () => setShown(undefined),
  };
}
