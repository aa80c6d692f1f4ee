'use client';

import { useEffect, useRef, useState, type RefObject } from 'react';
import type { Card, CardFigure } from '@/core/answers';
import { askLane, dropSlots, URGENCY } from '../state/lanes';
import { keepCardOnServer, systemOnServer, type ListedSystem } from './serverSystems';

/** What a card shows so far: nothing yet, its numbers, all of it, or why there is none. */
export type CardShown =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'numbers'; readonly numbers: readonly CardFigure[] }
  | { readonly kind: 'whole'; readonly card: Card }
  | { readonly kind: 'failed'; readonly why: string };

/**
 * The card of a system: as it is kept, or worked out once it is on screen, and
 * then kept. The numbers of all cards come first, then what every rule says.
 */
export function useCard(entry: ListedSystem): {
  readonly shown: CardShown;
  readonly box: RefObject<HTMLDivElement | null>;
} {
  const box = useRef<HTMLDivElement>(null);
  const isSeen = useSeen(box);
  const [worked, setWorked] = useState<{ readonly of: string; readonly shown: CardShown }>();
  const kept = entry.readable && entry.card !== null ? (JSON.parse(entry.card) as Card) : undefined;
  const of = `${entry.id} ${entry.revision}`;
  const wanted = entry.readable && !kept && isSeen;
  useEffect(() => {
    if (!wanted) return undefined;
    let current = true;
    const show = (shown: CardShown): void => {
      if (current) setWorked({ of, shown });
    };
    workOut(entry.id, entry.revision, show, () => current).catch((error: unknown) =>
      show({ kind: 'failed', why: error instanceof Error ? error.message : String(error) }),
    );
    return () => {
      current = false;
      dropSlots([`card of ${entry.id}`]);
    };
  }, [wanted, of, entry.id, entry.revision]);
  return { shown: kept ? { kind: 'whole', card: kept } : worked?.of === of ? worked.shown : { kind: 'waiting' }, box };
}

async function workOut(
  id: string,
  revision: number,
  show: (shown: CardShown) => void,
  isWanted: () => boolean,
): Promise<void> {
  const found = await systemOnServer(id);
  if (!found.ok) return show({ kind: 'failed', why: found.detail });
  const question = { slot: `card of ${id}`, args: [] } as const;
  const first = await askLane({ ...question, key: 'numbers', urgency: URGENCY.screen }, found.document);
  const numbers = first?.value;
  if (numbers?.ok)
    show({
      kind: 'numbers',
      numbers: Object.entries(numbers.numbers).flatMap(([key, number]) =>
        number.ok ? [{ key: key as CardFigure['key'], ...number.value }] : [],
      ),
    });
  if (!isWanted()) return;
  const given = await askLane({ ...question, key: 'card', urgency: URGENCY.rest }, found.document);
  if (!given) return;
  const card = given.value;
  show({ kind: 'whole', card });
  // What another device changed meanwhile is worked out by whoever sees it next.
  if (found.revision === revision) await keepCardOnServer(id, revision, found.document, card);
}

/** Whether an element has been on screen, or near it. */
function useSeen(box: RefObject<HTMLElement | null>): boolean {
  const [isSeen, setSeen] = useState(false);
  useEffect(() => {
    const element = box.current;
    if (!element || isSeen) return undefined;
    const observer = new IntersectionObserver(
      (entries) => {
        if (entries.some(({ isIntersecting }) => isIntersecting)) setSeen(true);
      },
      { rootMargin: '200px' },
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, [box, isSeen]);
  return isSeen;
}
