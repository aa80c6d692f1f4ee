'use client';

import { temporal } from 'zundo';
import { create, useStore } from 'zustand';
import { atConditionsOf, samePlan, withRecordsOf, withValue, type Path, type SystemDocument } from '@/core/plan';

/** The open system: the one source of truth. Everything shown is derived from it. */
type Editor = {
  readonly id: string;
  readonly system: SystemDocument | undefined;
  /** Name of the edit that led to this document; undo and history show it. */
  readonly edit: string;
};

export const useEditor = create<Editor>()(
  temporal((): Editor => ({ id: '', system: undefined, edit: '' }), {
    partialize: ({ system, edit }) => ({ system, edit }),
    // How a system happens to stand, and what happened to it, is no step of undo.
    equality: ({ system: past }, { system: now }) => past === now || (!!past && !!now && samePlan(past, now)),
    limit: 200,
  }),
);

/** Opens a document; what was undone in another is forgotten. */
export function openSystem(id: string, system: SystemDocument): void {
  useEditor.setState({ id, system, edit: 'opened' });
  useEditor.temporal.getState().clear();
}

/** Changes the document under a name that undo will show. */
export function applyEdit(edit: string, change: (system: SystemDocument) => SystemDocument): void {
  const { system } = useEditor.getState();
  if (!system) return;
  const changed = change(system);
  if (changed === system) return;
  // What undo would take back keeps its name while the conditions move.
  useEditor.setState(samePlan(system, changed) ? { system: changed } : { system: changed, edit });
}

export const setValue = (edit: string, path: Path, value: unknown): void =>
  applyEdit(edit, (system) => withValue(system, path, value));

/** Goes a step back or forth; how the system stands stays as it is, and so do its records. */
function step(go: () => void): void {
  const before = useEditor.getState().system;
  go();
  const { system } = useEditor.getState();
  if (!before || !system || before === system) return;
  const history = useEditor.temporal.getState();
  history.pause();
  useEditor.setState({ system: withRecordsOf(atConditionsOf(system, before), before) });
  history.resume();
}
export const undoEdit = (): void => step(() => useEditor.temporal.getState().undo());
export const redoEdit = (): void => step(() => useEditor.temporal.getState().redo());

/** Changes the document as a part of the edit before it, whose name it adds to: one step of undo takes both back. */
export function amendEdit(further: string, change: (system: SystemDocument) => SystemDocument): void {
  const history = useEditor.temporal.getState();
  history.pause();
  applyEdit(`${useEditor.getState().edit}, ${further}`, change);
  history.resume();
}

/** From the first change of a drag to its end all changes are one step of undo. */
export function beginGesture(): void {
  useEditor.temporal.getState().pause();
}

/** Ends a gesture; `before` is what undo shall return to. */
export function endGesture(before: SystemDocument, edit: string): void {
  const { system } = useEditor.getState();
  const history = useEditor.temporal.getState();
  if (system === before || !system) return history.resume();
  useEditor.setState({ system: before });
  history.resume();
  useEditor.setState({ system, edit });
}

/** The document as the stages draw it: a moment behind the open one where the numbers go first. */
const useDrawn = create<Pick<Editor, 'system'>>()(() => ({ system: undefined }));

/** Where numbers are late, stages wait no longer. */
const DRAWN_AT_LATEST_MS = 250;
let late: ReturnType<typeof setTimeout> | undefined;
let numbersFirst = false;

/** Has the stages draw the open document. */
export function drawDocument(): void {
  clearTimeout(late);
  late = undefined;
  useDrawn.setState({ system: useEditor.getState().system });
}

/**
 * Changes a value that is held down or dragged: its own field and the numbers
 * follow at once, and the stages when the numbers have been drawn, since they
 * take the page's time from both.
 */
export function setValueNumbersFirst(edit: string, path: Path, value: unknown): void {
  numbersFirst = true;
  try {
    setValue(edit, path, value);
  } finally {
    numbersFirst = false;
  }
}

useEditor.subscribe(({ system }, before) => {
  if (system === before.system) return;
  if (numbersFirst && before.system) late ??= setTimeout(drawDocument, DRAWN_AT_LATEST_MS);
  else drawDocument();
});

const openOne = ({ system }: Pick<Editor, 'system'>): SystemDocument => {
  if (!system) throw new Error('No system is open.');
  return system;
};

/** A part of the open document; the component draws again only when that part changes. */
export const useValue = <T>(select: (system: SystemDocument) => T): T => useDrawn((state) => select(openOne(state)));

/** The same without a moment's delay: for fields whose value is held down or dragged. */
export const useValueNow = <T>(select: (system: SystemDocument) => T): T =>
  useEditor((state) => select(openOne(state)));

/** The document as it is drawn; nothing where none is open. */
export const useDrawnSystem = (): SystemDocument | undefined => useDrawn((state) => state.system);

/** The whole open document. Draws again with every edit: for views small enough to bear it. */
export const useSystem = (): SystemDocument => useValue((system) => system);

/** The open document, for what happens on a click. */
export const openDocument = (): SystemDocument => openOne(useEditor.getState());

/** What undo and redo would do, by the names of the edits; empty where there is nothing. */
export function useHistory(): { undo: () => void; redo: () => void; undoes: string; redoes: string } {
  const past = useStore(useEditor.temporal, (history) => history.pastStates);
  const future = useStore(useEditor.temporal, (history) => history.futureStates);
  const edit = useEditor((state) => state.edit);
  return { undo: undoEdit, redo: redoEdit, undoes: past.length > 0 ? edit : '', redoes: future.at(-1)?.edit ?? '' };
}
