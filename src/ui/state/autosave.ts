'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import {
  atConditionsOf,
  mergeSystems,
  sameContent,
  samePlan,
  withRecordsOf,
  type Path,
  type SystemDocument,
} from '@/core/plan';
import { useEditor } from './editor';
import { dropCopy, keepCopy } from './keptCopies';
import { outlivesPage, sendingOf } from './sending';

/** What another device made of the system, and where that and what is open here do not go together. */
export type Conflict = {
  readonly theirs: SystemDocument;
  readonly revision: number;
  readonly places: readonly Path[];
  readonly detail?: string | undefined;
};

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly why: string; readonly conflict: boolean };

type SaveStatus = {
  readonly state: SaveState;
  readonly conflict: Conflict | undefined;
  /** Why nothing is kept in this browser, where that is so. */ readonly notKept: string;
};

export const useSaveState = create<SaveStatus>()(() => ({
  state: { kind: 'saved' },
  conflict: undefined,
  notKept: '',
}));

const show = (state: SaveState, conflict?: Conflict): void => useSaveState.setState({ state, conflict });

/** Edits within this time go out as one save. */
const SAVE_AFTER_MS = 400;
const RETRY_AFTER_MS = 3000;

/** The last document the server has, and under which revision. */
type Saved = {
  id: string;
  system: SystemDocument | undefined;
  revision: number;
  /** What was sent since and never answered: the server may have it all the same. */
  unanswered: readonly SystemDocument[];
};

const saved: Saved = { id: '', system: undefined, revision: 0, unanswered: [] };
const hasNow = (system: SystemDocument, revision: number): void =>
  void Object.assign(saved, { system, revision, unanswered: [] });
let inFlight: Promise<void> | undefined;
let timer: ReturnType<typeof setTimeout> | undefined;

export function markSaved(id: string, system: SystemDocument, revision: number): void {
  clearTimeout(timer);
  saved.id = id;
  hasNow(system, revision);
  show({ kind: 'saved' });
}

/** What the server is known to have. */
export const savedRevision = (): number => saved.revision;

export const isDirty = (): boolean => {
  const { id, system } = useEditor.getState();
  return id !== '' && id === saved.id && system !== undefined && system !== saved.system;
};

/** Whether leaving the page now could lose something that only this browser has. */
export const isAtRisk = (): boolean =>
  isDirty() && (useSaveState.getState().state.kind === 'failed' || !outlivesPage(useEditor.getState().system));

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
  keepHere();
}

/** This browser has every edit before the server does, and no longer once the server has it. */
function keepHere(): void {
  const { id, system, edit } = useEditor.getState();
  if (id === '' || system === undefined || saved.system === undefined) return;
  const kept = isDirty()
    ? keepCopy({ id, from: saved.revision, base: saved.system, system, edit, at_ms: Date.now() })
    : dropCopy(id);
  kept.then(
    () => useSaveState.getState().notKept && useSaveState.setState({ notKept: '' }),
    (error: unknown) => {
      if (isDirty()) useSaveState.setState({ notKept: error instanceof Error ? error.message : String(error) });
    },
  );
}

async function send(): Promise<void> {
  const { id, system, edit } = useEditor.getState();
  show({ kind: 'saving' });
  try {
    const { headers, ...sending } = sendingOf(system);
    const response = await fetch(`/api/systems/${id}`, {
      ...sending,
      method: 'PUT',
      headers: { ...headers, 'if-match': String(saved.revision), 'x-edit': encodeURIComponent(edit) },
    });
    // What is not JSON comes from something else than Gas Line, or from a Gas Line that broke: it has answered all the
    // same.
    const body = (await response.json().catch(() => ({}))) as { revision?: number; error?: { detail: string } };
    if (response.ok && body.revision !== undefined) {
      if (!system || useEditor.getState().id !== id) return;
      hasNow(system, body.revision);
      show({ kind: 'saved' });
      if (!isDirty()) keepHere();
    } else if (response.status === 409) {
      await meet(id, body.error?.detail ?? 'This system was changed elsewhere since.');
    } else {
      show({ kind: 'failed', why: body.error?.detail ?? `The server answered ${response.status}.`, conflict: false });
      // A full disk or another writer may be gone in a moment; what is refused stays so.
      if (response.status >= 500) tryAgain(system);
    }
  } catch {
    show({
      kind: 'failed',
      why: 'Gas Line’s server does not answer. Your changes are kept in this browser and sent when it does.',
      conflict: false,
    });
    tryAgain(system);
  }
}

/** The answer is what was lost, perhaps, and not the save. */
function tryAgain(sent: SystemDocument | undefined): void {
  if (sent && !saved.unanswered.includes(sent)) saved.unanswered = [...saved.unanswered, sent];
  timer = setTimeout(() => void saveNow(), RETRY_AFTER_MS);
}

async function onServer(
  id: string,
): Promise<{ readonly document: SystemDocument; readonly revision: number } | undefined> {
  const response = await fetch(`/api/systems/${id}`);
  return response.ok ? ((await response.json()) as { document: SystemDocument; revision: number }) : undefined;
}

/**
 * Another device saved since: what does not meet goes together, all else is asked. Or it was this page, and the answer
 * was lost: then what is open was made of that.
 */
async function meet(id: string, why: string): Promise<void> {
  const there = await onServer(id);
  const { system } = useEditor.getState();
  if (!there || !system || !saved.system || useEditor.getState().id !== id)
    return show({ kind: 'failed', why, conflict: true });
  const own = saved.unanswered.find((sent) => samePlan(sent, there.document, sameContent));
  const merged = mergeSystems(own ?? saved.system, system, there.document);
  if (!merged.ok)
    return show(
      { kind: 'failed', why, conflict: true },
      { theirs: there.document, revision: there.revision, places: merged.places, detail: merged.detail },
    );
  hasNow(there.document, there.revision);
  if (!sameContent(merged.value, system))
    useEditor.setState({ system: merged.value, edit: 'with what another device changed' });
}

/** Ends a conflict: with what the other device has, or with what is open here. */
export function settleConflict(keep: 'mine' | 'theirs'): void {
  const { conflict } = useSaveState.getState();
  if (!conflict) return;
  hasNow(conflict.theirs, conflict.revision);
  show({ kind: 'saving' });
  // What was written down here stays, whichever plan is taken.
  const { system } = useEditor.getState();
  if (keep === 'theirs')
    useEditor.setState({
      system: system ? withRecordsOf(conflict.theirs, system) : conflict.theirs,
      edit: 'take what the other device has',
    });
  void saveNow();
}

/**
 * Takes in what another device saved, where nothing here is unsaved; while a conflict waits for its answer, nothing is
 * sent or taken.
 */
export async function takeOthers(id: string, revision: number, records: number): Promise<void> {
  const isNews = (at: number, many: number): boolean =>
    at > saved.revision || many > (saved.system?.records.length ?? 0);
  if (id !== saved.id || !isNews(revision, records) || inFlight || useSaveState.getState().conflict) return;
  if (isDirty()) return void (await saveNow());
  const there = await onServer(id);
  if (!there || useEditor.getState().id !== id || isDirty() || inFlight) return;
  if (!isNews(there.revision, there.document.records.length)) return;
  const mine = useEditor.getState().system;
  // How it stands is each page's own.
  const standing = mine ? atConditionsOf(there.document, mine) : there.document;
  const isPlan = there.revision > saved.revision;
  // Of the plan that is open nothing is another where records alone came: it stays the very same.
  const system = isPlan || !mine ? standing : withRecordsOf(mine, there.document);
  const isSaved = standing === there.document;
  hasNow(isSaved ? system : there.document, there.revision);
  useEditor.setState(isPlan ? { system, edit: 'changed on another device' } : { system });
  show({ kind: isDirty() ? 'saving' : 'saved' });
}

/**
 * Keeps every change here at once, saves it soon, and at once when the window is left; asks before what only this
 * browser has is left.
 */
export function useAutosave(): void {
  useEffect(() => {
    const unsubscribe = useEditor.subscribe((now, before) => {
      if (now.system !== before.system) keepHere();
      if (!isDirty()) return;
      if (useSaveState.getState().conflict) return;
      if (useSaveState.getState().state.kind !== 'failed') show({ kind: 'saving' });
      clearTimeout(timer);
      timer = setTimeout(() => void saveNow(), SAVE_AFTER_MS);
    });
    const leave = (): void => void saveNow();
    const ask = (event: BeforeUnloadEvent): void => {
      if (isAtRisk()) event.preventDefault();
    };
    window.addEventListener('pagehide', leave);
    window.addEventListener('beforeunload', ask);
    return () => {
      unsubscribe();
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('beforeunload', ask);
      void saveNow();
    };
  }, []);
}
