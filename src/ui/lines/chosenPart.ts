'use client';

import { create } from 'zustand';

type Chosen = {
  /** The part or line that is looked at. */
  readonly id: string | undefined;
  readonly choose: (id: string | undefined) => void;
};

/** Which part or line of the circuits is looked at; schematic, run and tables share it. */
export const useChosenPart = create<Chosen>()((set) => ({ id: undefined, choose: (id) => set({ id }) }));
