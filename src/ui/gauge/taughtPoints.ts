'use client';

import { create } from 'zustand';

export const POINT_COUNTS = [2, 3, 4, 5, 6, 8, 10, 11, 16, 20, 32] as const;
export type Placed = 'best' | 'even';

/** What is to be taught from the plan: how many points, and placed how; the same in its panel and on its sheet. */
export const useTaughtPoints = create<{ readonly count: number; readonly placed: Placed }>()(() => ({
  // What a sender that is taught mostly takes.
  count: 5,
  placed: 'best',
}));

/** The log of pours that is looked at, and what is to be taught from it; the same in its panel and on its sheet. */
export const usePoursChoice = create<{
  readonly log: string | undefined;
  readonly count: number;
  readonly placed: Placed;
}>()(() => ({ log: undefined, count: 5, placed: 'best' }));
