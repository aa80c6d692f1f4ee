'use client';

import { create } from 'zustand';
import { openDocument, useValue } from './editor';

/** Which tank the stages show, by its place in the list. */
const useChoice = create<{ readonly index: number }>()(() => ({ index: 0 }));

const within = (index: number, count: number): number => Math.max(0, Math.min(index, count - 1));

/** The chosen tank; the last where the chosen one has gone. */
export function useTank(): number {
  const count = useValue((system) => system.tanks.length);
  return useChoice(({ index }) => within(index, count));
}

/** The same, for what happens on a click. */
export const openTank = (): number => within(useChoice.getState().index, openDocument().tanks.length);

export const chooseTank = (index: number): void => useChoice.setState({ index });
