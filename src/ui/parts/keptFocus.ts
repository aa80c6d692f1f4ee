'use client';

import { useEffect, type RefObject } from 'react';

const FOCUSABLE = [
  'a[href]',
  'button:not(:disabled)',
  'input:not(:disabled):not([type=hidden])',
  'select:not(:disabled)',
  'textarea:not(:disabled)',
  'summary',
  '[tabindex="0"]',
].join(',');

/** What has the focus, and where it stands in each thing round it, from the nearest. */
type Held = {
  readonly element: HTMLElement | SVGElement;
  readonly within: readonly { readonly element: Element; readonly index: number }[];
};

/**
 * Keeps the focus of the keyboard at its place: where what has it goes, or cannot be pressed any more, it goes to what
 * stands there now, within the smallest thing round it that is left. A browser would send it back to the page's start.
 * @source W3C, ARIA Authoring Practices Guide: developing a keyboard interface, keyboard navigation between components
 */
export function useKeptFocus(root: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const area = root.current;
    if (!area) return undefined;
    let held: Held | undefined;
    let isByKey = true;
    const hold = ({ target }: FocusEvent): void => {
      held = target instanceof HTMLElement || target instanceof SVGElement ? heldAt(target, area) : undefined;
    };
    // Left on purpose it is not kept; what is gone or off was not left on purpose.
    const leave = (): void =>
      queueMicrotask(() => {
        if (held && isThere(held.element) && document.activeElement !== held.element) held = undefined;
      });
    const look = (): void => {
      if (!held || isThere(held.element)) return;
      // What is off may still have it until the page is drawn.
      if (document.activeElement !== document.body && document.activeElement !== held.element) return;
      const to = nearest(held, isByKey);
      held = undefined;
      to?.focus();
    };
    const key = (): void => void (isByKey = true);
    const pointer = (): void => void (isByKey = false);
    const observer = new MutationObserver(look);
    observer.observe(area, { childList: true, subtree: true, attributes: true, attributeFilter: ['disabled'] });
    area.addEventListener('focusin', hold);
    area.addEventListener('focusout', leave);
    document.addEventListener('keydown', key, true);
    document.addEventListener('pointerdown', pointer, true);
    return () => {
      observer.disconnect();
      area.removeEventListener('focusin', hold);
      area.removeEventListener('focusout', leave);
      document.removeEventListener('keydown', key, true);
      document.removeEventListener('pointerdown', pointer, true);
    };
  }, [root]);
}

const isThere = (element: Element): boolean => element.isConnected && !element.matches(':disabled');

function heldAt(element: HTMLElement | SVGElement, area: HTMLElement): Held {
  const within: { element: Element; index: number }[] = [];
  for (let at = element.parentElement; at && area.contains(at); at = at.parentElement)
    within.push({ element: at, index: Math.max(0, focusablesOf(at).indexOf(element)) });
  return { element, within };
}

const focusablesOf = (element: Element): (HTMLElement | SVGElement)[] =>
  [...element.querySelectorAll<HTMLElement | SVGElement>(FOCUSABLE)].filter(
    (each) =>
      !(each instanceof HTMLElement) || each.offsetParent !== null || getComputedStyle(each).position === 'fixed',
  );

/** What now stands where the focus was; after a press with a finger no field, which would open its keyboard. */
function nearest({ within }: Held, isByKey: boolean): HTMLElement | SVGElement | undefined {
  for (const { element, index } of within) {
    if (!element.isConnected) continue;
    const all = focusablesOf(element);
    const choice = isByKey ? all : all.filter((each) => !each.matches('input, textarea'));
    if (choice.length > 0) return choice[Math.min(index, choice.length - 1)];
  }
  return undefined;
}
