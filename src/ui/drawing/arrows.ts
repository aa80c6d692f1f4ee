import type { KeyboardEvent } from 'react';
import { stepsNow } from './tapeSteps';

type Way = readonly [right: number, up: number];

const ARROWS: Readonly<Record<string, Way>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** What an arrow key moves by, to the right and up the page; it does nothing else then. Undefined of other keys. */
export function arrowMove(event: KeyboardEvent, step: number): Way | undefined {
  const way = ARROWS[event.key];
  if (!way) return undefined;
  event.preventDefault();
  return [way[0] * step, way[1] * step];
}

/** The same by the marks of the reader's tape, with shift by larger ones [m]. */
export function tapeMove(event: KeyboardEvent): Way | undefined {
  const { step_m, large_m } = stepsNow();
  return arrowMove(event, event.shiftKey ? large_m : step_m);
}
