'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import type { SystemDocument } from '@/core/document';
import { useEditor } from './editor';
import { sendingOf } from './sending';

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly why: string; readonly conflict: boolean };

export const useSaveState = create<{ readonly state: SaveState }>()(() => ({ state: { kind: 'saved' } }));

const show = (state: SaveState): void => useSaveState.setState({ state });

/** Edits within this time go out as one save. */
const SAVE_AFTER_MS = 400;
const RETRY_AFTER_MS = 3000;

/** The last document the server has, and under which revision. */
type Saved = { id: string; system: SystemDocument | undefined; revision: number };

const saved: Saved = { id: '', system: undefined, revision: 0 };
let inFlight: Promise<void> | undefined;
let timer: ReturnType<typeof setTimeout> | undefined;

export function markSaved(id: string, system: SystemDocument, revision: number): void {
  clearTimeout(timer);
  Object.assign(saved, { id, system, revision });
  show({ kind: 'saved' });
}

const isDirty = (): boolean => {
  const { id, system } = useEditor.getState();
  return id !== '' && id === saved.id && system !== undefined && system !== saved.system;
};

/** Sends the open document if it has changed; resolves when the server has it or has refused it. */
export async function saveNow(): Promise<void> {
  clearTimeout(timer);
  while (inFlight) await inFlight;
  if (!isDirty()) return settle();
  inFlight = send().finally(() => {
    inFlight = undefined;
  });
  await inFlight;
  if (isDirty() && useSaveState.getState().state.kind !== 'failed') await saveNow();
}

/** Undo can come back to what the server has: then there is nothing left to save. */
function settle(): void {
  if (!inFlight && useSaveState.getState().state.kind === 'saving') show({ kind: 'saved' });
}

async function send(): Promise<void> {
  const { id, system, edit } = useEditor.getState();
  show({ kind: 'saving' });
  try {
    const { headers, ...sending } = sendingOf(system);
    const response = await fetch(`/api/systems/${id}`, { ...sending, method: 'PUT', headers: { ...headers, 'if-match': String(saved.revision), 'x-edit': encodeURIComponent(edit) } });
    // What is not JSON comes from something else than Gas Line, or from a Gas Line that broke: it has answered all the same.
    const body = await response.json().catch(() => ({})) as { revision?: number; error?: { detail: string } };
    if (response.ok && body.revision !== undefined) {
      Object.assign(saved, { system, revision: body.revision });
      show({ kind: 'saved' });
    } else {
      show({ kind: 'failed', why: body.error?.detail ?? `The server answered ${response.status}.`, conflict: response.status === 409 });
      // A full disk or another writer may be gone in a moment; what is refused stays so.
      if (response.status >= 500) timer = setTimeout(() => void saveNow(), RETRY_AFTER_MS);
    }
  } catch {
    show({ kind: 'failed', why: 'Gas Line’s server does not answer. Your changes are kept in this window and sent when it does.', conflict: false });
    timer = setTimeout(() => void saveNow(), RETRY_AFTER_MS);
  }
}

/** Saves soon after every change, and at once when the window is left. */
export function useAutosave(): void {
  useEffect(() => {
    const unsubscribe = useEditor.subscribe(() => {
      if (!isDirty()) return;
      if (useSaveState.getState().state.kind !== 'failed') show({ kind: 'saving' });
      clearTimeout(timer);
      timer = setTimeout(() => void saveNow(), SAVE_AFTER_MS);
    });
    const leave = (): void => void saveNow();
    window.addEventListener('pagehide', leave);
    return () => {
      unsubscribe();
      window.removeEventListener('pagehide', leave);
      void saveNow();
    };
  }, []);
}
