'use client';

import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { ReaderSystem } from '@/core/units';

type Reader = { readonly reader: ReaderSystem; readonly setReader: (reader: ReaderSystem) => void };

/** The units this reader wants to see; kept in the browser, not in the system. */
export const useReaderStore = create<Reader>()(
  persist((set) => ({ reader: 'metric', setReader: (reader) => set({ reader }) }), {
    name: 'gasline-reader',
    skipHydration: true,
  }),
);

export const useReader = (): ReaderSystem => useReaderStore((state) => state.reader);
