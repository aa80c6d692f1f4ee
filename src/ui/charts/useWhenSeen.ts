'use client';

import { dequal } from 'dequal';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { flushSync } from 'react-dom';

/** So much before it comes on screen it is drawn. */
const MARGIN = '200px';

/** Whether an element is on screen, or near it; on paper everything is. */
function useIsSeen(box: RefObject<HTMLElement | null>): boolean {
  const [isSeen, setSeen] = useState(false);
  useEffect(() => {
    const element = box.current;
    if (!element) return undefined;
    const observer = new IntersectionObserver((entries) => setSeen(entries.at(-1)!.isIntersecting), {
      rootMargin: MARGIN,
    });
    // The picture of the page is taken as soon as this comes back.
    const onPaper = (): void => flushSync(() => setSeen(true));
    observer.observe(element);
    window.addEventListener('beforeprint', onPaper);
    return () => {
      observer.disconnect();
      window.removeEventListener('beforeprint', onPaper);
    };
  }, [box]);
  return isSeen;
}

/**
 * What a canvas is drawn from: the newest while it is seen, and the very same
 * as long as nothing in it changes, since drawing takes the page's time.
 */
export function useWhenSeen<T>(value: T): { readonly box: RefObject<HTMLDivElement | null>; readonly drawn: T } {
  const box = useRef<HTMLDivElement>(null);
  const isSeen = useIsSeen(box);
  const [drawn, draw] = useState(value);
  if (isSeen && drawn !== value && !dequal(drawn, value)) draw(value);
  return { box, drawn };
}
