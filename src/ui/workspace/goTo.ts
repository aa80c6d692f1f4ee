'use client';

import { create } from 'zustand';
import { toPath, type Path, type SystemDocument } from '@/core/plan';
import { useEditor } from '../state/editor';
import { chooseTank } from '../state/tankChoice';
import { isStage, type StageKey } from './stages';
import { placeIn, tasksOf } from './tasks';

/** Opens the tank that a value is of: its own, or one of what holds it. */
function chooseTankOf(system: SystemDocument | undefined, path: Path | undefined): void {
  if (path?.[0] === 'tanks') chooseTank(Number(path[1]));
  const held = path?.[0] === 'mounts' ? system?.mounts[Number(path[1])]?.tank : undefined;
  const t = system?.tanks.findIndex(({ id }) => id === held) ?? -1;
  if (t >= 0) chooseTank(t);
}

type Place = {
  readonly stage: StageKey;
  /** The task of each stage that was open last. */ readonly tasks: Readonly<Record<string, string>>;
  readonly path: string | undefined;
  /** Which time it is that a field is asked for: to ask again leads there again. */ readonly asked: number;
  readonly goTo: (stage: StageKey, path?: Path) => void;
  readonly goToTask: (stage: StageKey, task: string) => void;
};

/**
 * What is open: a stage, its task, and the field that was asked for; kept in the address, so that a reload or the
 * browser's own way back comes to it.
 */
export const usePlace = create<Place>()((set, get) => ({
  stage: 'tank',
  tasks: {},
  path: undefined,
  asked: 0,
  goTo: (stage, path) => {
    const system = useEditor.getState().system;
    const place = path && system ? placeIn(stage, system, path) : undefined;
    chooseTankOf(system, path);
    const opened = place?.stage ?? stage;
    set({
      stage: opened,
      path: path?.join('.'),
      asked: get().asked + 1,
      ...(place ? { tasks: { ...get().tasks, [opened]: place.task } } : {}),
    });
    keepInAddress();
    if (path) leadTo(path);
  },
  goToTask: (stage, task) => {
    endWaiting();
    set({ stage, path: undefined, tasks: { ...get().tasks, [stage]: task } });
    keepInAddress();
  },
}));

/** The task of a stage that is open, or would be. */
export const taskIn = (stage: StageKey, tasks: Place['tasks']): string | undefined =>
  tasksOf(stage).find(({ key }) => key === tasks[stage])?.key ?? tasksOf(stage)[0]?.key;

/** Which task of a stage is open. */
export const useTask = (stage: StageKey): string | undefined => usePlace(({ tasks }) => taskIn(stage, tasks));

/** One step of the browser's history for each place. */
function keepInAddress(): void {
  const { stage, tasks } = usePlace.getState();
  const url = new URL(window.location.href);
  const task = taskIn(stage, tasks);
  if (url.searchParams.get('stage') === stage && url.searchParams.get('task') === (task ?? null)) return;
  url.searchParams.set('stage', stage);
  if (task) url.searchParams.set('task', task);
  else url.searchParams.delete('task');
  url.searchParams.delete('at');
  window.history.pushState(null, '', url);
}

/** Opens what an address says, a field by its path as `at`; what it does not know is the tank. */
export function openAddress(search: string): void {
  const query = new URLSearchParams(search);
  const at = query.get('at');
  const system = useEditor.getState().system;
  const path = at && system ? toPath(at) : undefined;
  const stage = query.get('stage');
  const place = path && system ? placeIn(stage ?? '', system, path) : undefined;
  const opened = place?.stage ?? (isStage(stage) ? stage : 'tank');
  const task = place?.task ?? query.get('task');
  const { tasks, asked } = usePlace.getState();
  chooseTankOf(system, path);
  usePlace.setState({
    stage: opened,
    path: path?.join('.'),
    asked: asked + 1,
    // Where none is named it is the first, as it was when that was opened.
    tasks: { ...tasks, [opened]: task ?? '' },
  });
  if (path) leadTo(path);
}

/** What is open as a text that can be kept, and opened again. */
export function placeText(): string {
  const { stage, tasks } = usePlace.getState();
  return [stage, taskIn(stage, tasks) ?? []].flat().join('/');
}

export function openPlaceText(text: string): void {
  const [stage, task] = text.split('/');
  if (!isStage(stage ?? null)) return;
  if (task === undefined) usePlace.getState().goTo(stage as StageKey);
  else usePlace.getState().goToTask(stage as StageKey, task);
}

/** Stands in place of a stage that is being fetched. */
export const OPENING = 'stage-opening';

/** Ends the waiting for a field that was asked for. */
let endWaiting: () => void = () => {};

/**
 * Puts the cursor into the field of a path as soon as it is there, however long its stage, or an answer that it stands
 * beside, is on its way; until then into what is nearest to it. It ends when something else is asked for, or when the
 * reader presses something and goes on without it.
 */
function leadTo(path: Path): void {
  endWaiting();
  const key = path.join('.');
  let isNear = false;
  const look = (): void => {
    if (document.querySelector(`[data-testid="${OPENING}"]`)) return;
    if (focusAt(key)) endWaiting();
    else isNear ||= focusNear(key);
  };
  // Looked for again whenever something comes that was not there.
  const observer = new MutationObserver(look);
  // A stage is drawn in one frame, and what its effects open in the next.
  let frame = requestAnimationFrame(() => {
    frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => {
        observer.observe(document.body, { childList: true, subtree: true });
        look();
      });
    });
  });
  endWaiting = () => {
    cancelAnimationFrame(frame);
    observer.disconnect();
    for (const press of PRESSES) document.removeEventListener(press, endWaiting, true);
    endWaiting = () => {};
  };
  for (const press of PRESSES) document.addEventListener(press, endWaiting, true);
}

const PRESSES = ['keydown', 'pointerdown'] as const;

/** Puts the cursor into the field of a path, or the first below it: whether there is one. */
const focusAt = (key: string): boolean =>
  focusIn(`[data-path="${CSS.escape(key)}"]`) || focusIn(`[data-path^="${CSS.escape(`${key}.`)}"]`);

/** The same for the nearest path above it. */
function focusNear(key: string): boolean {
  for (let above = key; above.includes('.');) {
    above = above.slice(0, above.lastIndexOf('.'));
    if (focusIn(`[data-path="${CSS.escape(above)}"]`)) return true;
  }
  return false;
}

function focusIn(selector: string): boolean {
  const field = document.querySelector(selector);
  // Its value, not the tag over it.
  const input = field?.querySelector<HTMLElement>('input, select') ?? field?.querySelector<HTMLElement>('button');
  if (!field || !input) return false;
  for (let folded = input.closest('details'); folded; folded = folded.parentElement?.closest('details') ?? null)
    folded.open = true;
  field.scrollIntoView({ block: 'center' });
  input.focus();
  return true;
}
