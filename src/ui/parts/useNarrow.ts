'use client';

import { useSyncExternalStore } from 'react';

/** Below this the three columns of the workspace stand under one another. */
const NARROW = '(max-width: 767px)';

/** True on a phone held upright. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const query = window.matchMedia(NARROW);
      query.addEventListener('change', changed);
      return () => query.removeEventListener('change', changed);
    },
    () => window.matchMedia(NARROW).matches,
    () => false,
  );
}
