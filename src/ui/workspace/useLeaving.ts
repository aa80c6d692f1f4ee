'use client';

import { useEffect, useState } from 'react';
import { isAtRisk } from '../state/autosave';

/** Where a link leads that was pressed while something here is not saved; it is followed only when that is said again. */
export function useLeaving(): { readonly to: string | undefined; readonly stay: () => void } {
  const [to, setTo] = useState<string>();
  useEffect(() => {
    const onClick = (event: MouseEvent): void => {
      const link = event.target instanceof Element ? event.target.closest('a[href]') : null;
      if (!(link instanceof HTMLAnchorElement) || link.origin !== window.location.origin || link.hasAttribute('download') || link.dataset.leave !== undefined || event.defaultPrevented || event.ctrlKey || event.metaKey || event.shiftKey || event.button !== 0) return;
      if (link.pathname === window.location.pathname || !isAtRisk()) return;
      event.preventDefault();
      event.stopPropagation();
      setTo(link.pathname + link.search);
    };
    document.addEventListener('click', onClick, true);
    return () => document.removeEventListener('click', onClick, true);
  }, []);
  return { to, stay: () => setTo(undefined) };
}
