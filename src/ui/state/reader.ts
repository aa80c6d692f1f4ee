'use client';

import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { READER_COOKIE } from '../parts/readerCookie';
import { apartOf, readerOf, systemOf, type Reader, type ReaderSystem, type UnitGroup } from '@/core/units';

type ReaderStore = {
  readonly reader: Reader;
  /** Another system; what is set apart stays so. */
  readonly setSystem: (system: ReaderSystem) => void;
  /** One kind of quantity apart from the rest, or with it again. */
  readonly setApart: (group: UnitGroup, id: string | undefined) => void;
  readonly setAllAsTheRest: () => void;
};

/** The units this reader wants to see; kept in the browser, not in the system. */
export const useReaderStore = create<ReaderStore>()(
  persist(
    (set) => ({
      reader: 'metric',
      setSystem: (system) => set(({ reader }) => ({ reader: readerOf({ system, apart: apartOf(reader) }) })),
      setAllAsTheRest: () => set(({ reader }) => ({ reader: systemOf(reader) })),
      setApart: (group, id) =>
        set(({ reader }) => ({
          reader: readerOf({ system: systemOf(reader), apart: { ...apartOf(reader), [group]: id } }),
        })),
    }),
    {
      name: 'gasline-reader',
      skipHydration: true,
      partialize: ({ reader }) => ({ reader }),
      merge: (kept, now) => ({ ...now, reader: readerOf((kept as { reader?: unknown } | undefined)?.reader) }),
    },
  ),
);

// A page that comes from the server with numbers in it has them in the same units.
if (typeof document !== 'undefined')
  useReaderStore.subscribe(({ reader }) => {
    document.cookie = `${READER_COOKIE}=${encodeURIComponent(JSON.stringify(reader))}; path=/; max-age=31536000; samesite=strict`;
  });

export const useReader = (): Reader => useReaderStore((state) => state.reader);
