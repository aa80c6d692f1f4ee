'use client';

import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { SystemDocument } from '@/core/document';
import { failure, type Outcome } from '@/core/outcome';
import { useRested } from '../parts/useRested';
import { inBackground } from './background';
import { useDrawnSystem } from './editor';
import { useDetails } from './results';

type Answer<T> = {
  /** The last that came; undefined until the first has. */
  readonly value: Outcome<T> | undefined;
  /** Whether it belongs to the document on screen and to what is asked now. */
  readonly fresh: boolean;
};

/**
 * What a worker says of the open document, asked again when edits
 * have come to rest.
 * @param question what is asked beside the document, as text: another one is asked at once
 */
export function useRestedAnswer<Api, T>(
  worker: () => Remote<Api>,
  question: string,
  ask: (worker: Remote<Api>, system: SystemDocument) => Promise<Outcome<T>>,
): Answer<T> {
  const open = useDrawnSystem();
  const system = useRested(useDetails((details) => details.system));
  const [shown, setShown] = useState<{
    readonly system: SystemDocument;
    readonly question: string;
    readonly value: Outcome<T>;
  }>();
  useEffect(() => {
    if (!system) return undefined;
    let current = true;
    const put = (value: Outcome<T>): void => {
      if (current) setShown({ system, question, value });
    };
    // Nobody waits any more for what was asked of an older document.
    inBackground('soon', () => (current ? ask(worker(), system) : Promise.resolve(undefined))).then(
      (value) => value && put(value),
      (error: unknown) =>
        put(
          failure(
            'broken',
            'calculation',
            `The calculation broke: ${error instanceof Error ? error.message : String(error)}`,
          ),
        ),
    );
    return () => {
      current = false;
    };
    // The question says all that is asked.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [system, question]);
  return { value: shown?.value, fresh: shown !== undefined && shown.system === open && shown.question === question };
}
