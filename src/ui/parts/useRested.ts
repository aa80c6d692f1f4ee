'use client';

import { useEffect, useState } from 'react';

/** Edits in quick succession count as one when they are closer than this. */
const REST_MS = 500;

/** A value once it has stopped changing: for what may wait until the numbers are out. */
export function useRested<T>(value: T): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), REST_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return rested;
}
