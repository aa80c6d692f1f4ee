'use client';

import { useSyncExternalStore } from 'react';

const never = (): (() => void) => () => undefined;

/** False in the server's render and the first one here, true after: for what only the browser knows. */
export const useMounted = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
