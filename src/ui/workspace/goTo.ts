'use client';

import { create } from 'zustand';
import type { Path } from '@/core/plan';
import { chooseTank } from '../state/tankChoice';
import type { StageKey } from './stages';

type Place = {
  readonly stage: StageKey;
  readonly path: string | undefined;
  readonly goTo: (stage: StageKey, path?: Path) => void;
};

/** Which stage is open; kept in the address, so that a reload comes back to it. */
export const usePlace = create<Place>()((set) => ({
  stage: 'tank',
  path: undefined,
  goTo: (stage, path) => {
    if (path?.[0] === 'tanks') chooseTank(Number(path[1]));
    set({ stage, path: path?.join('.') });
    const url = new URL(window.location.href);
    url.searchParams.set('stage', stage);
    window.history.replaceState(null, '', url);
    if (path) whenOpen(() => focusField(path.join('.')));
  },
}));

/** Stands in place of a stage that is being fetched. */
export const OPENING = 'stage-opening';
/** Some seconds; what has not come by then says so itself. */
const MOST_FRAMES = 300;

/** Does something when the stage has been drawn. */
function whenOpen(act: () => void, frames = MOST_FRAMES): void {
  requestAnimationFrame(() =>
    requestAnimationFrame(() => {
      if (frames > 0 && document.querySelector(`[data-testid="${OPENING}"]`)) whenOpen(act, frames - 2);
      else requestAnimationFrame(act);
    }),
  );
}

/** Puts the cursor into the field of a path, or of the nearest path above it. */
function focusField(path: string): void {
  for (let at = path; at !== ''; at = at.slice(0, Math.max(0, at.lastIndexOf('.')))) {
    const field = document.querySelector(`[data-path="${CSS.escape(at)}"]`);
    const input = field?.querySelector<HTMLElement>('input, select, button');
    if (!field || !input) continue;
    for (let folded = input.closest('details'); folded; folded = folded.parentElement?.closest('details') ?? null)
      folded.open = true;
    field.scrollIntoView({ block: 'center' });
    input.focus();
    return;
  }
}
