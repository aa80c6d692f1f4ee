'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import { isAtRisk } from '../state/autosave';

/** Where it was wanted to go while something here is not saved; it is gone there only when that is said again. */
export const useLeavingTo = create<{ readonly to: string | undefined }>()(() => ({ to: undefined }));

/** Whether the page may be left for an address at once; else it is asked. */
export function mayLeaveFor(to: string): boolean {
  if (!isAtRisk()) return true;
  useLeavingTo.setState({ to });
  return false;
}

/** Links that are pressed while something here is not saved wait for an answer. */
export function useLeaving(): void {
  useEffect(() => {
    const onClick = (event: MouseEvent): void => {
      const link = event.target instanceof Element ? event.target.closest('a[href]') : null;
      if (
        !(link instanceof HTMLAnchorElement) ||
        link.origin !== window.location.origin ||
        link.hasAttribute('download') ||
        link.dataset.leave !== undefined ||
        event.defaultPrevented ||
        event.ctrlKey ||
        event.metaKey ||
        event.shiftKey ||
        event.button !== 0
      )
        return;
      if (link.pathname === window.location.pathname || mayLeaveFor(link.pathname + link.search)) return;
      event.preventDefault();
      event.stopPropagation();
    };
    document.addEventListener('click', onClick, true);
    return () => {
      document.removeEventListener('click', onClick, true);
      useLeavingTo.setState({ to: undefined });
    };
  }, []);
}
