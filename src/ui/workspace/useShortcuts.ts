'use client';

import { useEffect } from 'react';
import { redoEdit, undoEdit } from '../state/editor';
import { openCommandBox } from './commandOpen';
import { usePlace } from './goTo';
import { ACROSS, STAGES } from './stages';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.tagName === 'INPUT' || target.tagName === 'SELECT' || target.tagName === 'TEXTAREA');

/**
 * Ctrl+Z, Ctrl+Y, Ctrl+K anywhere; 1 to 9 and 0 for stages, P for paper, / and ? for the rest where nothing is typed.
 */
export function useShortcuts(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const command = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      if (command && (key === 'z' || key === 'y')) {
        event.preventDefault();
        if (key === 'y' || event.shiftKey) redoEdit();
        else undoEdit();
        return;
      }
      if (command && key === 'k') {
        event.preventDefault();
        return openCommandBox();
      }
      if (command || event.altKey || isTyping(event.target)) return;
      if (key === '/' || key === '?') {
        event.preventDefault();
        return openCommandBox();
      }
      if (key === 'p') return usePlace.getState().goTo('paper');
      const stage = [...STAGES, ...ACROSS][(Number(event.key) + 9) % 10];
      if (/^[0-9]$/.test(event.key) && stage) usePlace.getState().goTo(stage.key);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
