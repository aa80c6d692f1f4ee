'use client';

import { useEffect } from 'react';
import { takeOthers } from './autosave';

/** How often it is looked whether another device saved, while the page is seen. */
const EVERY_MS = 2000;

/** Brings in what other devices and pages save, without a reload. */
export function useOthersEdits(id: string): void {
  useEffect(() => {
    const look = async (): Promise<void> => {
      if (document.visibilityState !== 'visible') return;
      try {
        const response = await fetch(`/api/systems/${id}/revision`);
        if (!response.ok) return;
        const { revision, records } = (await response.json()) as { revision: number; records: number };
        await takeOthers(id, revision, records);
      } catch {
        // The server is away: saving says so.
      }
    };
    const timer = setInterval(() => void look(), EVERY_MS);
    const seen = (): void => void look();
    document.addEventListener('visibilitychange', seen);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', seen);
    };
  }, [id]);
}
