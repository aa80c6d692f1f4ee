'use client';

import { create } from 'zustand';
import type { PaperKey } from '@/core/reports';
import { usePlace } from '../workspace/goTo';

/** In the order in which a tank is made. */
export const SHEET_KEYS = [
  'measure',
  'template',
  'holes',
  'cutting',
  'parts',
  'schematic',
  'card',
  'strapping',
  'correction',
  'mounts',
  'pours',
  'findings',
] as const;
export type SheetKey = (typeof SHEET_KEYS)[number];

/** Which sheet is looked at, on which paper. */
export const usePaper = create<{ readonly sheet: SheetKey; readonly paper: PaperKey }>()(() => ({
  sheet: 'holes',
  paper: 'a4',
}));

export const isSheet = (value: string | null): value is SheetKey => SHEET_KEYS.some((key) => key === value);

/** Opens a sheet as it will come out of the printer. */
export function goToSheet(sheet: SheetKey): void {
  usePaper.setState({ sheet });
  usePlace.getState().goTo('paper');
}
