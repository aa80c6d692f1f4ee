'use client';

import { useEffect } from 'react';
import { useEditor } from '../state/editor';
import { usePlace } from './goTo';
import { ACROSS, STAGES } from './stages';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.tagName === 'INPUT' || target.tagName === 'SELECT' || target.tagName === 'TEXTAREA');

/** Ctrl+Z and Ctrl+Y anywhere; 1 to 9 for the stages where nothing is being typed. */
export function useShortcuts(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const command = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      if (command && (key === 'z' || key === 'y')) {
        event.preventDefault();
        const history = useEditor.temporal.getState();
        if (key === 'y' || event.shiftKey) history.redo();
        else history.undo();
        return;
      }
      if (command || event.altKey || isTyping(event.target)) return;
      const stage = [...STAGES, ...ACROSS][Number(event.key) - 1];
      if (/^[1-9]$/.test(event.key) && stage) usePlace.getState().goTo(stage.key);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
