'use client';

import { useEffect, useRef, useState, type RefObject } from 'react';

/** At 96 px an inch, as style sheets have it. */
export const MM_A_PX = 25.4 / 96;
/** A drawing is made anew only when it has grown or shrunk by so much [px]. */
const STEP_PX = 8;

/** The width that a drawing has on the page [mm]; what it is thought to be until it is known. */
export function useRoom(usual_px: number): readonly [RefObject<HTMLDivElement | null>, number] {
  const ref = useRef<HTMLDivElement>(null);
  const [width_px, setWidth] = useState(usual_px);
  useEffect(() => {
    const element = ref.current;
    if (!element) return undefined;
    const look = (): void => {
      const now = Math.floor(element.clientWidth / STEP_PX) * STEP_PX;
      if (now > 0) setWidth(now);
    };
    look();
    const observer = new ResizeObserver(look);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width_px * MM_A_PX];
}
