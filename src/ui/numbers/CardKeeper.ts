'use client';

import { useEffect, useRef } from 'react';
import { cardOf, holdsFor } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import { keepCardOnServer } from '../library/serverSystems';
import { isDirty, savedRevision, useSaveState } from '../state/autosave';
import { useEditor } from '../state/editor';
import { useJudgedNow, useShown, useSpreads } from '../state/results';

type Props = { readonly id: string; /** What the server has the card of. */ readonly of: SystemDocument | undefined };

/**
 * Keeps the card of the open system on the server once all of it is known and saved, so that the library and the next
 * page that opens it have its numbers at once.
 */
export function CardKeeper({ id, of }: Props): null {
  const system = useEditor((state) => state.system);
  const { results, system: numbersOf } = useShown();
  const { findings, notJudged, onTheWay, failed } = useJudgedNow();
  const { value: sensitivity, of: spreadsOf } = useSpreads();
  const isSaved = useSaveState(({ state }) => state.kind === 'saved');
  const keptOf = useRef(of);
  const hasSpreads =
    system !== undefined &&
    sensitivity !== undefined &&
    spreadsOf !== undefined &&
    holdsFor('spreads', spreadsOf, system);
  const isKnown =
    results?.ok === true && numbersOf === system && hasSpreads && onTheWay.length === 0 && failed.length === 0;
  useEffect(() => {
    if (!isKnown || !isSaved || system === undefined || keptOf.current === system) return;
    if (isDirty()) return;
    keptOf.current = system;
    // Refused where another device has been quicker; the next to look works it out anew.
    void keepCardOnServer(id, savedRevision(), system, cardOf(results.numbers, { findings, notJudged }, sensitivity));
  }, [id, system, isKnown, isSaved, results, findings, notJudged, sensitivity]);
  return null;
}
