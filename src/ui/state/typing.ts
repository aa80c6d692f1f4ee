'use client';

import { create } from 'zustand';

/**
 * What is being typed into a field and not entered yet; and what was, in a page that is gone, on its way back into its
 * field.
 */
type Typing = {
  readonly label: string;
  readonly text: string;
  readonly back: { readonly label: string; readonly text: string } | undefined;
};

export const useTyping = create<Typing>()(() => ({ label: '', text: '', back: undefined }));

/** Notes what stands in a field; an empty text when it was entered or given up. */
export function noteTyping(label: string, text: string): void {
  const now = useTyping.getState();
  if (text === '' && now.label !== label) return;
  if (now.label !== label || now.text !== text) useTyping.setState({ label, text });
}
