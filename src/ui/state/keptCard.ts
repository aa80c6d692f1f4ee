import { create } from 'zustand';
import type { Card, CardFigure, NumberKey } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import { useEditor } from './editor';

type Kept = { readonly of: SystemDocument | undefined; readonly card: Card | undefined };

/** The card that the open system came with, and the document that this build worked it out of before. */
export const useKept = create<Kept>()(() => ({ of: undefined, card: undefined }));

/** What is kept of the document on screen, as long as that is the one that it came with. */
export function useKeptCard(): Card | undefined {
  const { of, card } = useKept();
  const isSame = useEditor(({ system }) => of !== undefined && system === of);
  return isSame ? card : undefined;
}

export const figureIn = (card: Card | undefined, key: NumberKey): CardFigure | undefined =>
  card?.numbers.find((one) => one.key === key);
