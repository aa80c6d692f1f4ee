'use client';

import { useRef, useState } from 'react';
import { listOnServer, type Listing, type Refusal } from './serverSystems';

/** Typing within this time is one search. */
const SEARCH_AFTER_MS = 250;

/**
 * The part of the library that is on screen: what came with the page, what is searched for, and more of it when asked.
 */
export function useListing(first: Listing, refuse: (refusal: Refusal) => void) {
  const [listing, setListing] = useState(first);
  const [having, setHaving] = useState('');
  const [isBusy, setBusy] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  /** Only the answer to the last question counts. */
  const last = useRef(0);

  const fetchFrom = async (from: number, text: string): Promise<Listing | undefined> => {
    const number = ++last.current;
    setBusy(true);
    const found = await listOnServer(from, text);
    if (number !== last.current) return undefined;
    setBusy(false);
    if (found.ok) return found;
    refuse(found);
    return undefined;
  };
  const again = async (text = having): Promise<void> => {
    const found = await fetchFrom(0, text);
    if (found) setListing(found);
  };
  return {
    listing,
    having,
    isBusy,
    again: () => again(),
    search: (text: string): void => {
      setHaving(text);
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void again(text), SEARCH_AFTER_MS);
    },
    more: async (): Promise<void> => {
      const found = await fetchFrom(listing.systems.length, having);
      // What was saved meanwhile moved to the front: nothing is shown twice.
      if (found)
        setListing((before) => ({
          count: found.count,
          systems: [
            ...before.systems,
            ...found.systems.filter(({ id }) => before.systems.every((there) => there.id !== id)),
          ],
        }));
    },
  };
}
