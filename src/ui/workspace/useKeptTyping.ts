'use client';

import { useEffect } from 'react';
import { keepText } from '../state/keptCopies';
import { useTyping } from '../state/typing';
import { placeText } from './goTo';

/** Keeps in this browser what is being typed into a field of a system, until it is entered. */
export function useKeptTyping(id: string): void {
  useEffect(
    () =>
      useTyping.subscribe(({ label, text }, before) => {
        if (label === before.label && text === before.text) return;
        // A browser that keeps nothing says so when a change is to be kept.
        keepText(id, placeText(), label, text).catch(() => undefined);
      }),
    [id],
  );
}
